/** A stand-in at the end of a cable, for tests of sending: a real MicroPython with its own file system. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import { readFileSync } from 'node:fs';
import { programFile } from './program-file.ts';
import { StandIn, type Flash, type LoadMicroPython } from './standin.ts';
import { utf8 } from '../../core/bytes.ts';
import { barrow } from '../../core/kit/kit.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import { LinkClosed, type LinkPort } from '../../core/link/port.ts';
import type { Trace } from '../../core/trace/trace.ts';
import { hall, logs } from '../../core/testing/build.ts';

export const library = {
  file: new Uint8Array(readFileSync(new URL('../lib/mossbell.py', import.meta.url))),
  version: '1.6'
};
export const text = (word: string): string =>
  `from mossbell import *\n\n\ndef main():\n    log("${word}")\n\n\nrun(main)\n`;
export const file = (word: string): Uint8Array => utf8(programFile(text(word)));

/** A stand-in on a cable that can be cut after a number of bytes, that can drop one, or garble what goes over it. */
export class Bed implements LinkPort {
  board!: StandIn;
  /** what becomes of a command on its way */
  garble: (command: string) => string = (command) => command;
  readonly commands: string[] = [];
  last: Trace | undefined;
  sent = 0;
  private out: Uint8Array[] = [];
  constructor(
    private readonly cutAt = Infinity,
    private readonly dropAt = -1
  ) {}
  async boot(flash: Flash): Promise<this> {
    this.board = await StandIn.boot({
      serial: 'MB-TEST',
      name: 'Test',
      flash,
      load: loadMicroPython as unknown as LoadMicroPython,
      quirks: noQuirks,
      noise: false,
      host: {
        write: (bytes) => void this.out.push(bytes),
        began: () => {},
        tick: () => {},
        ended: (t) => (this.last = t)
      }
    });
    this.board.place = { kit: barrow, mat: hall, pose: hall.start };
    return this;
  }
  async write(bytes: Uint8Array): Promise<void> {
    const command = Buffer.from(bytes).toString('latin1');
    this.commands.push(command);
    for (const byte of Buffer.from(this.garble(command), 'latin1')) {
      if (this.sent >= this.cutAt) throw new LinkClosed();
      if (this.sent++ !== this.dropAt) this.board.receive(Uint8Array.of(byte));
    }
  }
  async read(): Promise<Uint8Array | undefined> {
    if (this.sent >= this.cutAt) throw new LinkClosed();
    return this.out.shift();
  }
  /** as it was when it last spoke: it cannot be read once another MicroPython has booted in this thread */
  flash: Flash = {};
  /** What the program says that the button starts, after a power cycle. */
  async says(): Promise<string[]> {
    this.flash = this.board.flash;
    const again = await new Bed().boot(this.flash);
    const problem = again.board.start();
    return again.last ? logs(again.last) : [problem];
  }
}
