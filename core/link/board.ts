/** What a board of one's own needs beside the board library: its port, its pins, and what it starts with. */
import { utf8 } from '../bytes.ts';
import { FULL_SPEED } from '../kit/ranges.ts';
import type { Kit } from '../kit/kit.ts';
import { printPins } from '../kit/pins.ts';
import { FONT } from '../language/letters.ts';
import type { LinkPort } from './port.ts';
import { RawRepl } from './repl.ts';

const MAIN = 'import mossbell\n\nmossbell.launcher()\n';
export const pinsFile = (kit: Kit): string => printPins(kit, FULL_SPEED, FONT);
/** @param port the text of board/lib/port_machine.py */
export const boardFiles = (kit: Kit, port: string): { path: string; bytes: Uint8Array }[] => [
  { path: 'lib/mossbell_port.py', bytes: utf8(port) },
  { path: 'lib/mossbell_pins.py', bytes: utf8(pinsFile(kit)) },
  { path: 'main.py', bytes: utf8(MAIN) }
];
/** Starts the active program; what it says comes over the cable until something else is said to it. */
export async function startProgram(port: LinkPort): Promise<void> {
  const repl = new RawRepl(port);
  await repl.enter();
  try {
    // a port and pins that were put there anew are read anew
    await port.write(
      utf8(
        "import sys\nfor _n in ('mossbell', 'mossbell_port', 'mossbell_pins'):\n    sys.modules.pop(_n, None)\nimport mossbell\nmossbell.launch()\x04"
      )
    );
  } finally {
    // it runs, and may be stopped and asked
    repl.letGo();
  }
}
