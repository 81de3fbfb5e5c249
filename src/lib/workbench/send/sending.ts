/** Sending a program to a device, starting it there, and what is typed to it: loaded once there is a device. */
import CRC32 from 'crc-32';
import { pinProblems } from '../../../../core/kit/pins.ts';
import { boardFiles, startProgram } from '../../../../core/link/board.ts';
import { programFile } from '../../../../core/link/file.ts';
import { LinkClosed, LinkProblem } from '../../../../core/link/port.ts';
import { typeLine } from '../../../../core/link/programs.ts';
import { send } from '../../../../core/link/send.ts';
import { utf8 } from '../../../../core/bytes.ts';
import type { Project } from '../../../../core/project.ts';
import type { DeviceLink } from './device.svelte.ts';
import { boardLibrary, boardPort } from './library.ts';
import { failedSays, pinsSays, sentSays } from './says.ts';

/** how many programs' blocks are remembered, for errors and traces */
const MAPS_KEPT = 20;

/** @param options.start it starts at once, on the cable; `installs`: the library is put there without asking */
export async function sendTo(
  d: DeviceLink,
  project: Project,
  { start, installs }: { start: boolean; installs: boolean }
): Promise<void> {
  const { device } = project.kit;
  try {
    await d.turn;
    const { text, blocks } = await d.textOf(project);
    const crc = CRC32.str(text) >>> 0;
    const pins = d.real ? pinProblems(project.kit)[0] : undefined;
    if (pins) throw new LinkProblem(pinsSays(pins.says));
    // the cable was pulled while the text was made
    if (!d.plugged) throw new LinkClosed();
    if (d.running) d.order({ type: 'interrupt' });
    const cable = d.connect(true);
    const library = await boardLibrary();
    const { number, again, now } = await send(cable, {
      files: d.real ? boardFiles(project.kit, await boardPort()) : undefined,
      file: utf8(programFile(text, { name: project.name, at: Date.now(), device })),
      device,
      library: { file: utf8(library.text), version: library.version },
      mayInstall: async (found) =>
        installs ||
        new Promise<boolean>(
          (answer) => (d.question = { found, answer: (yes) => ((d.question = undefined), answer(yes)) })
        ),
      mayReplace: async (old) => {
        const { name } = project;
        if (installs || d.replaced.has(name)) return true;
        const yes = await new Promise<boolean>(
          (answer) => (d.replaces = { old, answer: (y) => ((d.replaces = undefined), answer(y)) })
        );
        if (yes) d.replaced.add(name);
        return yes;
      },
      progress: (p) => (d.progress = p),
      cancelled: () => d.cancelled
    });
    // a text project has no blocks to speak of: its lines stand for themselves
    if (project.text === undefined) {
      d.kept = { ...d.kept, maps: [...d.kept.maps.filter(([c]) => c !== crc).slice(-MAPS_KEPT), [crc, blocks]] };
      d.order({ type: 'map', crc, blocks });
    }
    d.trouble = undefined;
    d.found = now;
    await d.remember();
    const { real, unit } = d;
    d.tell(sentSays({ real, name: project.name, device: unit.name, number, again, start, kit: project.kit }), 'good');
    d.sound();
  } catch (error) {
    d.trouble = error instanceof LinkProblem ? error.what : undefined;
    d.tell(failedSays(error, d.charge === 0 && !d.powered));
  } finally {
    d.progress = undefined;
    d.question = undefined;
    d.replaces = undefined;
  }
  if (d.mood !== 'good') return;
  if (start && d.real) await startHere(d);
  else if (start) d.pressDot(d.message);
}
/** On a board of one's own the program starts over the port, and what it says is written down. */
async function startHere(d: DeviceLink): Promise<void> {
  await d.speak(startProgram);
  const { serial } = d;
  if (!serial) return;
  d.listens = true;
  await serial.lines(
    () => d.listens && d.serial === serial,
    (answer) => d.say({ line: '', answer, bad: / error /.test(answer) })
  );
}
/** A line of Python for a device that waits. */
export async function typeTo(d: DeviceLink, line: string): Promise<void> {
  let bad = false;
  const answer = await d.speak(async (cable) => {
    try {
      return await typeLine(cable, line);
    } catch (error) {
      if (error instanceof LinkClosed) throw error;
      bad = true;
      return (error as Error).message;
    }
  });
  if (answer === undefined) return;
  d.say({ line, answer, bad });
  d.kept = { ...d.kept, typed: [...d.typed] };
  await d.remember();
}
