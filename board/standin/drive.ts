/**
 * A stand-in's loader: with Dot held while it is plugged in, or with no firmware to start, it appears as a drive. What is
 * dropped there is checked, taken and put where it belongs; a program or library only as a whole, firmware in its place,
 * which is empty until all of it is there.
 */
import CRC32 from 'crc-32';
import { utf8 } from '../../core/bytes.ts';
import { dropped, hex, programFile, type Firmware } from '../../core/link/file.ts';
import { say } from '../../core/words.ts';

export type Flash = Record<string, Uint8Array>;
/** What stays in a device without power. */
export type Memory = {
  /** '' where there is none that is whole */
  firmware: Firmware | '';
  flash: Flash;
  charge?: number;
};
/** The file system of a stand-in: its size, and the piece that a file begins anew, bytes. */
export const STORAGE = 128 * 1024;
export const BLOCK = 1024;
export const usedBytes = (flash: Flash): number =>
  Object.values(flash).reduce((sum, data) => sum + Math.ceil(data.length / BLOCK) * BLOCK, 0);
/** The numbers of the programs on a file system, in order. */
export const programsIn = (flash: Flash): number[] =>
  Object.keys(flash)
    .flatMap((path) => /^p\/(\d+)\.py$/.exec(path)?.[1] ?? [])
    .map(Number)
    .sort((a, b) => a - b);
/** Puts a program beside the others and makes it the one that the button starts. @returns its number */
export function addProgram(flash: Flash, file: Uint8Array): number {
  const number = Math.max(0, ...programsIn(flash)) + 1;
  flash[`p/${number}.py`] = file;
  flash['p/active'] = utf8(`${number} ${hex(CRC32.buf(file))}`);
  return number;
}

export const SECTOR = 4096;
/** bytes a second that a drive takes: a slow stick */
export const DRIVE_RATE = 160_000;

export class Drive {
  constructor(
    readonly memory: Memory,
    readonly unit: { readonly name: string; readonly serial: string; readonly device: string }
  ) {}
  /** What the drive shows. */
  get files(): { name: string; bytes: number; text?: string }[] {
    const { firmware, flash } = this.memory;
    const about = [
      `${this.unit.name}, ${this.unit.serial}`,
      `firmware: ${firmware || 'none'}`,
      `board library: ${this.library || 'none'}`,
      `programs: ${programsIn(flash).length}`,
      `free: ${STORAGE - usedBytes(flash)} bytes`
    ].join('\n');
    return [
      { name: 'about.txt', bytes: about.length, text: about },
      ...programsIn(flash).map((n) => ({ name: `program-${n}.py`, bytes: flash[`p/${n}.py`].length }))
    ];
  }
  get library(): string {
    const data = this.memory.flash['lib/mossbell.py'];
    if (!data) return '';
    return /^VERSION = "([^"]+)"/m.exec(new TextDecoder().decode(data.subarray(0, 1500)))?.[1] ?? '?';
  }
  /**
   * Takes a file, a sector at a time; whoever stops asking has pulled the cable. Yields the share that is written.
   * @returns what became of it, or why it was not taken: then everything on the device is as it was
   */
  *take(name: string, bytes: Uint8Array): Generator<number, { took: string } | { problem: string }> {
    const found = dropped(name, bytes, this.unit.device);
    if ('problem' in found) return found;
    const { memory } = this;
    const firmware = found.what === 'micropython' || found.what === 'factory';
    if (!firmware && bytes.length + BLOCK > STORAGE - usedBytes(memory.flash))
      return {
        problem: say(
          'The storage of the device is full: "{name}" has {kb} kB and {free} kB are free. Take a program off it first.',
          {
            name,
            kb: (bytes.length / 1000).toFixed(1),
            free: ((STORAGE - usedBytes(memory.flash)) / 1000).toFixed(1)
          }
        )
      };
    // the new firmware lies where the old one was
    if (firmware) memory.firmware = '';
    for (let at = 0; at < bytes.length; at += SECTOR) yield Math.min(1, (at + SECTOR) / bytes.length);
    if (found.what === 'micropython') {
      memory.firmware = 'micropython';
      return { took: say('MicroPython {version} is installed.', { version: found.version }) };
    }
    if (found.what === 'factory') {
      memory.firmware = 'factory';
      return { took: say('The factory demo is on the device again. Press Dot to see that it lives.') };
    }
    if (found.what === 'library') {
      memory.flash['lib/mossbell.py'] = bytes;
      return { took: say('The board library {version} is on the device.', { version: found.version }) };
    }
    const number = addProgram(memory.flash, utf8(programFile(found.text, found.called)));
    return {
      took: say('"{name}" is on the device as program {number}, and Dot starts it.', {
        name: found.called.name,
        number
      })
    };
  }
}
