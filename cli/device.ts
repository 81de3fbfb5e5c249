/** ./mossbell send | device: the same sending as the page's, to stand-ins that live in a folder of this computer. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { lock } from 'proper-lockfile';
import { fileURLToPath } from 'node:url';
import { dirname, join } from 'node:path';
import { Cable, isCable, CABLES, type CableName } from '../board/standin/cable.ts';
import { newMemory } from '../board/standin/memory.ts';
import type { Memory } from '../board/standin/drive.ts';
import { StandIn, type LoadMicroPython } from '../board/standin/standin.ts';
import { utf8 } from '../core/bytes.ts';
import { STAND_INS, standIn, type Unit } from '../core/kit/units.ts';
import { programFile } from '../core/link/file.ts';
import { LinkProblem } from '../core/link/port.ts';
import { deleteProgram, readProgram } from '../core/link/programs.ts';
import { identify, send, type Found } from '../core/link/send.ts';
import type { Project } from '../core/project.ts';
import { printPython } from '../core/language/python/print.ts';

const library = readFileSync(new URL('../board/lib/mossbell.py', import.meta.url), 'utf8');
const version = /VERSION = "([^"]+)"/.exec(library)![1];
/** where the stand-ins of the command line live, each in a folder of its own */
const DATA = process.env.MOSSBELL_DATA ?? fileURLToPath(new URL('../data', import.meta.url));
const homeOf = (unit: Unit): string => join(DATA, 'devices', unit.serial);

export function unitOf(name: string): Unit | undefined {
  return standIn(name) ?? STAND_INS.find((u) => u.name.toLowerCase() === name.toLowerCase());
}
const FIRMWARE = 'firmware.txt';
function remembered(unit: Unit): Memory {
  const home = homeOf(unit);
  if (!existsSync(join(home, FIRMWARE))) return newMemory(unit, library);
  const files = join(home, 'files');
  const paths = existsSync(files) ? (readdirSync(files, { recursive: true, encoding: 'utf8' }) as string[]) : [];
  return {
    firmware: readFileSync(join(home, FIRMWARE), 'utf8').trim() as Memory['firmware'],
    flash: Object.fromEntries(
      paths
        .filter((path) => statSync(join(files, path)).isFile())
        .map((path) => [path, new Uint8Array(readFileSync(join(files, path)))])
    )
  };
}
function remember(unit: Unit, { firmware, flash }: Memory): void {
  const home = homeOf(unit);
  rmSync(join(home, 'files'), { recursive: true, force: true });
  mkdirSync(home, { recursive: true });
  for (const [path, data] of Object.entries(flash)) {
    mkdirSync(dirname(join(home, 'files', path)), { recursive: true });
    writeFileSync(join(home, 'files', path), data);
  }
  writeFileSync(join(home, FIRMWARE), `${firmware}\n`);
}
/** how often another command is waited for: about half a minute */
const WAITS = 70;
export type OnCable = { cable?: CableName; cutAt?: number };
/** One command for a device after the other: what two write at once would be one's alone. */
async function alone<T>(unit: Unit, does: () => Promise<T>): Promise<T> {
  mkdirSync(homeOf(unit), { recursive: true });
  const retries = { retries: WAITS, minTimeout: 100, maxTimeout: 500 };
  const done = await lock(homeOf(unit), { retries }).catch((error: { code?: string }) => {
    if (error.code !== 'ELOCKED') throw error;
    throw new LinkProblem(`Something else talks to ${unit.name}. Wait until it is done, and try again.`);
  });
  try {
    return await does();
  } finally {
    await done();
  }
}
/** A device of the folder on its cable, for one thing; what it has is written back, whatever came of it. */
const on = <T>(unit: Unit, options: OnCable, does: (cable: Cable) => Promise<T>): Promise<T> =>
  alone(unit, () => onCable(unit, options, does));
async function onCable<T>(unit: Unit, options: OnCable, does: (cable: Cable) => Promise<T>): Promise<T> {
  const memory = remembered(unit);
  const cable = new Cable((bytes) => board.receive(bytes), {
    cable: options.cable,
    diesAt: options.cutAt,
    baud: Infinity,
    atOnce: true
  });
  const board = await StandIn.boot({
    serial: unit.serial,
    name: unit.name,
    flash: memory.flash,
    firmware: memory.firmware,
    rom: library,
    load: loadMicroPython as unknown as LoadMicroPython,
    host: { write: (bytes) => cable.receive(bytes), began: () => {}, tick: () => {}, ended: () => {} }
  });
  try {
    return await does(cable);
  } finally {
    remember(unit, { ...memory, flash: board.flash });
  }
}
export { CABLES, isCable };
export const found = (unit: Unit): Promise<Found> => on(unit, {}, identify);
export const textOn = (unit: Unit, number: number): Promise<string> =>
  on(unit, {}, (cable) => readProgram(cable, number));
export const takeOff = (unit: Unit, number: number): Promise<Found> =>
  on(unit, {}, (cable) => deleteProgram(cable, number));
/** Other firmware is put on it; programs and library stay. */
export const setFirmware = (unit: Unit, firmware: Memory['firmware']): Promise<void> =>
  alone(unit, async () => remember(unit, { ...remembered(unit), firmware }));
export function sendTo(unit: Unit, project: Project, options: OnCable, says: (line: string) => void) {
  const text = project.text ?? printPython(project.program, project.kit).text;
  const { device } = project.kit;
  return on(unit, options, (cable) =>
    send(cable, {
      file: utf8(programFile(text, { name: project.name, device, at: Date.now() })),
      device,
      library: { file: utf8(library), version },
      mayInstall: async () => true,
      progress: (p) => says(p.says)
    })
  );
}
