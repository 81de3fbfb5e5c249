/** A stand-in at the end of a cable, for tests of sending: a real MicroPython with its own file system. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import { readFileSync } from 'node:fs';
import { Cable, type CableOptions } from './cable.ts';
import { programFile } from '../../core/link/file.ts';
import type { Memory } from './drive.ts';
import { StandIn, type Flash, type LoadMicroPython } from './standin.ts';
import { utf8 } from '../../core/bytes.ts';
import { barrow } from '../../core/kit/kit.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import type { LinkPort } from '../../core/link/port.ts';
import type { Trace } from '../../core/trace/trace.ts';
import { hall, logs } from '../../core/testing/build.ts';

const source = readFileSync(new URL('../lib/mossbell.py', import.meta.url));
export const library = {
  file: new Uint8Array(source),
  version: /^VERSION = "(.*)"/m.exec(source.toString('utf8'))![1]
};
export const text = (word: string): string =>
  `from mossbell import *\n\n\ndef main():\n    log("${word}")\n\n\nrun(main)\n`;
export const AT = Date.UTC(2026, 4, 1, 8, 30);
export const file = (word: string, name = word, device: string = barrow.device): Uint8Array =>
  utf8(programFile(text(word), { device, at: AT, name }));

/** A stand-in on a cable that can be cut, that can lose bytes, or garble what goes over it. */
export class Bed implements LinkPort {
  board!: StandIn;
  /** what becomes of a command on its way */
  garble: (command: string) => string = (command) => command;
  readonly commands: string[] = [];
  last: Trace | undefined;
  readonly cable: Cable;
  /** what its display shows while a program is chosen */
  shown = 0;
  /** how often it showed which one it is */
  showed = 0;
  constructor(options: CableOptions = {}) {
    this.cable = new Cable((bytes) => this.board.receive(bytes), { baud: Infinity, atOnce: true, ...options });
  }
  async boot(flash: Flash, firmware: Memory['firmware'] = 'micropython'): Promise<this> {
    this.board = await StandIn.boot({
      serial: 'MB-TEST',
      name: 'Test',
      flash,
      firmware,
      rom: new TextDecoder().decode(library.file),
      load: loadMicroPython as unknown as LoadMicroPython,
      quirks: noQuirks,
      noise: false,
      host: {
        write: (bytes) => this.speaksTo.cable.receive(bytes),
        chooses: (number) => (this.shown = number),
        shows: () => this.showed++,
        began: () => {},
        tick: () => {},
        ended: (t) => (this.last = t)
      }
    });
    this.board.place = { kit: barrow, mat: hall, pose: hall.start };
    return this;
  }
  /** The same device, with its power on, on a good cable. */
  onAnotherCable(options: CableOptions = {}): Bed {
    const bed = new Bed(options);
    bed.board = this.board;
    bed.booted = this.booted;
    this.booted.speaksTo = bed;
    return bed;
  }
  /** Its file system as it was. */
  putBack(flash: Flash): void {
    for (const path of Object.keys(this.board.flash)) if (!(path in flash)) this.board.remove(path);
    for (const [path, data] of Object.entries(flash)) this.board.write(path, data);
  }
  private booted: Bed = this;
  /** the cable that hangs on it now */
  private speaksTo: Bed = this;
  async write(bytes: Uint8Array): Promise<void> {
    const command = Buffer.from(bytes).toString('latin1');
    this.commands.push(command);
    await this.cable.write(Buffer.from(this.garble(command), 'latin1'));
  }
  read(timeoutMs: number): Promise<Uint8Array | undefined> {
    return this.cable.read(timeoutMs);
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
