/**
 * A stand-in: a simulated board with a real MicroPython, its own file system and its own small faults. It answers the raw
 * REPL like a board on a cable; its button starts the active program, which then drives a robot on a bench.
 * Everything here is synchronous: in a worker it may block, and `host.tick` brings in what the person does meanwhile.
 */
import CRC32 from 'crc-32';
import type { Kit } from '../../core/kit/kit.ts';
import { kitOf } from '../../core/kit/units.ts';
import { quirksOf, type Quirks } from '../../core/kit/quirks.ts';
import { ERRORS, type ErrorKind } from '../../core/language/meaning.ts';
import { emptyProgram, type Value } from '../../core/language/program.ts';
import { Bench, Halt } from '../../core/run/bench.ts';
import type { Ended, Input, TimedInput, Trace } from '../../core/trace/trace.ts';
import type { Mat, Pose } from '../../core/yard/mat.ts';
import { factoryBanner, factoryDemo } from './demo.ts';
import { BLOCK, STORAGE, usedBytes, type Flash, type Memory } from './drive.ts';
import { utf8 } from '../../core/bytes.ts';
import { mark } from './mark.ts';
import { makePort } from './port.ts';

export type { Flash };
/** Where the device stands and what it is built of, as the yard has it. */
export type Place = { kit: Kit; mat: Mat; pose: Pose };
export type Host = {
  /** bytes on the cable, towards the computer */
  write(bytes: Uint8Array): void;
  /** a run begins on this bench */
  began(bench: Bench): void;
  /** a boundary was passed: pace, take in inputs, send frames */
  tick(bench: Bench): void;
  ended(trace: Trace): void;
  /** for stepping through a text: whether to stop before a line, counted from 0 */
  pausesAt?(line: number, task: number, level: number): boolean;
  /** choosing with Bar: the number of the program that its display shows, 0 when it is over */
  chooses?(number: number): void;
  /** it shows which one it is */
  shows?(): void;
  /** it stopped there; returns when the person goes on, false to end the run */
  paused?(line: number, values: Record<string, Value>): boolean;
};
type Node = { node_ops: Record<string, unknown>; stream_ops: Record<string, unknown>; usedBytes: number };
type MicroPython = {
  FS: {
    lookupPath(p: string): { node: Node };
    unlink(p: string): void;
    ErrnoError: new (errno: number) => Error;
    mkdir(p: string): void;
    chdir(p: string): void;
    readdir(p: string): string[];
    stat(p: string): { mode: number };
    isDir(mode: number): boolean;
    readFile(p: string): Uint8Array;
    writeFile(p: string, data: Uint8Array): void;
  };
  registerJsModule(name: string, module: object): void;
  runPython(code: string): unknown;
  replInit(): void;
  replProcessChar(c: number): number;
};
export type LoadMicroPython = (options: object) => Promise<MicroPython>;
export type StandInOptions = {
  serial: string;
  name: string;
  flash: Flash;
  /** what runs on it; MicroPython if nothing is said */
  firmware?: Memory['firmware'];
  /** the board library that the factory demo has in itself */
  rom?: string;
  host: Host;
  load: LoadMicroPython;
  /** where micropython.wasm is, where the loader cannot tell */
  wasmUrl?: string;
  /** block of each line of a text, by its checksum: for traces that speak of blocks */
  blocksOf?: (crc: number) => readonly (string | null)[] | undefined;
  quirks?: Quirks;
  noise?: boolean;
  onBattery?: boolean;
  limitS?: number;
  seed?: number;
  inputs?: readonly TimedInput[];
};
const ROOT = '/flash';
const ROM = '/rom';
/** no space left on device, by the number that boards give it */
const ENOSPC = 28;
const HOLD_TO_STOP_US = 2_000_000;

export class StandIn {
  charge: number;
  place: Place | undefined;
  running = false;
  private mp!: MicroPython;
  private bench: Bench | undefined;
  private stop = false;
  private runs = 0;
  private lineIndex: number[] = [];
  private functions: ReadonlyMap<string, number> = new Map();
  private barSinceUs = -1;
  private out: number[] = [];
  private message = '';
  private readonly quirks: Quirks;
  private readonly port: ReturnType<typeof makePort>;

  private constructor(private readonly options: StandInOptions) {
    this.quirks = options.quirks ?? quirksOf(options.serial, kitOf(options.serial));
    this.charge = this.quirks.charge;
    this.port = makePort(
      {
        bench: () => this.bench!,
        mark: (path, text) => this.prepare(path, text),
        lineOf: (name) => this.functions.get(name),
        over: (how, info) => this.over(how, info),
        interrupted: () => this.stop,
        serial: options.serial,
        device: kitOf(options.serial).device,
        chooses: (number) => options.host.chooses?.(number),
        shows: () => options.host.shows?.(),
        charge: () => this.charge,
        pausesAt: (line, task, level) => options.host.pausesAt?.(line, task, level) ?? false,
        paused: (line, values) => options.host.paused?.(line, values) ?? true
      },
      () => this.lineIndex
    );
  }

  static async boot(options: StandInOptions): Promise<StandIn> {
    const standIn = new StandIn(options);
    const mp = await options.load({
      ...(options.wasmUrl ? { url: options.wasmUrl } : {}),
      heapsize: 4 * 1024 * 1024,
      pystack: 256 * 1024,
      linebuffer: false,
      stdout: (bytes: Uint8Array) => standIn.out.push(...bytes)
    });
    standIn.mp = mp;
    mp.registerJsModule('mossbell_port', standIn.port.module);
    mp.FS.mkdir(ROOT);
    for (const folder of ['lib', 'p']) mp.FS.mkdir(`${ROOT}/${folder}`);
    for (const [path, data] of Object.entries(options.flash)) mp.FS.writeFile(`${ROOT}/${path}`, data);
    standIn.limitStorage();
    mp.FS.chdir(ROOT);
    mp.runPython(`import sys\nsys.path.append('${ROOT}/lib')`);
    mp.replInit();
    standIn.out.length = 0;
    return standIn;
  }

  /** Its file system ends where a board's does: it tells what is free, and takes no more. */
  private limitStorage(): void {
    const { FS } = this.mp;
    const PROBE = `${ROOT}/probe`;
    FS.writeFile(PROBE, new Uint8Array(0));
    const { node_ops: folder } = FS.lookupPath('/').node;
    folder.statfs = () => {
      const free = Math.max(0, Math.floor((STORAGE - usedBytes(this.flash)) / BLOCK));
      return { bsize: BLOCK, frsize: BLOCK, blocks: STORAGE / BLOCK, bfree: free, bavail: free };
    };
    // all files share these operations
    const ops = FS.lookupPath(PROBE).node.stream_ops as { write: (...a: unknown[]) => number };
    const write = ops.write;
    ops.write = (...given) => {
      const [stream, , , length, position] = given as [{ node: Node }, unknown, unknown, number, number];
      const more = position + length - stream.node.usedBytes;
      if (more > 0 && usedBytes(this.flash) + more > STORAGE) throw new FS.ErrnoError(ENOSPC);
      return write.apply(ops, given);
    };
    this.mp.runPython(`import os\nos.remove('${PROBE}')`);
  }

  /** Bytes from the computer. A soft reset (Ctrl-D at the friendly prompt) starts the REPL anew. */
  receive(bytes: Uint8Array): void {
    const { firmware = 'micropython', name } = this.options;
    if (firmware !== 'micropython') {
      if (firmware === 'factory') this.options.host.write(utf8(factoryBanner(name)));
      return;
    }
    for (const byte of bytes) if (this.mp.replProcessChar(byte)) this.mp.replInit();
    this.flush();
  }
  private flush(): void {
    if (this.out.length) this.options.host.write(Uint8Array.from(this.out.splice(0)));
  }
  /** Ctrl-C, or the cable, while a program runs. */
  interrupt(): void {
    if (this.running) this.stop = true;
  }

  get benchOfRun(): Bench | undefined {
    return this.bench;
  }
  /** Everything on its file system, as it must survive a power cycle. */
  get flash(): Flash {
    const found: Flash = {};
    const { FS } = this.mp;
    const look = (folder: string): void => {
      for (const name of FS.readdir(folder)) {
        if (name === '.' || name === '..') continue;
        const path = `${folder}/${name}`;
        if (FS.isDir(FS.stat(path).mode)) look(path);
        else found[path.slice(ROOT.length + 1)] = FS.readFile(path);
      }
    };
    look(ROOT);
    return found;
  }
  /** Puts a file on its file system, as a program that is sent does. */
  write(path: string, data: Uint8Array): void {
    this.mp.FS.writeFile(`${ROOT}/${path}`, data);
  }
  /** Takes a file off its file system. */
  remove(path: string): void {
    this.mp.FS.unlink(`${ROOT}/${path}`);
  }
  /**
   * The button Dot: starts the active program; its press is not delivered to it. Returns what happened, in words for the
   * person, or '' for a run that ended by itself.
   */
  start(): string {
    if (this.running || !this.place) return '';
    this.message = '';
    const { firmware = 'micropython' } = this.options;
    try {
      if (firmware === 'micropython') this.library('launch()');
      else if (firmware === 'factory') this.startDemo();
      else this.message = 'There is no MicroPython on this device, so the button starts nothing.';
    } catch (error) {
      this.message = `${(error as Error).message}`.includes("no module named 'mossbell'")
        ? 'The board library is missing, so the button starts nothing.'
        : `${(error as Error).message}`;
    }
    this.running = false;
    this.flush();
    return this.message;
  }
  private library(call: string): void {
    this.mp.runPython(`import sys\nsys.modules.pop('mossbell', None)\nimport mossbell\nmossbell.${call}`);
  }
  private startDemo(): void {
    const { FS } = this.mp;
    try {
      FS.mkdir(ROM);
    } catch {
      // it was started before
    }
    FS.writeFile(`${ROM}/mossbell.py`, utf8(this.options.rom ?? ''));
    FS.writeFile(`${ROM}/demo.py`, utf8(factoryDemo(this.place!.kit)));
    this.mp.runPython(`import sys\nif '${ROM}' not in sys.path:\n    sys.path.insert(0, '${ROM}')`);
    this.library(`execute('${ROM}/demo.py', open('${ROM}/demo.py').read())`);
  }
  /**
   * While it waits: Bar goes to the next program by number, Dot takes the one that is shown. What is shown, `host.chooses`
   * tells.
   */
  choose(does: 'next' | 'take'): void {
    if (this.running || (this.options.firmware ?? 'micropython') !== 'micropython') return;
    try {
      this.mp.runPython(`import mossbell\nmossbell.choose_${does}()`);
    } catch {
      this.options.host.chooses?.(0);
    }
    this.flush();
  }
  /** A button while a program runs; at the next boundary. Holding Bar for 2 s stops the program. */
  press(button: 'Dot' | 'Bar', down: boolean): void {
    this.give(down ? { press: button } : { release: button });
    if (button === 'Bar') this.barSinceUs = down ? this.bench!.worldUs : -1;
  }
  give(input: Input): void {
    if (this.bench) this.bench.input({ tUs: this.bench.worldUs, input });
  }

  private prepare(_path: string, text: string): string {
    const marked = mark(text);
    if ('message' in marked) return `!${marked.message}`;
    const blocksOfLines = this.options.blocksOf?.(CRC32.str(text) >>> 0);
    const count = text.split('\n').length;
    const names = Array.from({ length: count }, (_, line) => blocksOfLines?.[line] ?? `line ${line + 1}`);
    const blocks = [...new Set(names)];
    this.lineIndex = names.map((n) => blocks.indexOf(n));
    this.functions = marked.functions;
    this.port.reset();
    this.stop = false;
    this.barSinceUs = -1;
    const { kit, mat, pose } = this.place!;
    this.runs++;
    const onBattery = this.options.onBattery ?? true;
    const bench = new Bench({
      program: emptyProgram(),
      blocks,
      kit,
      mat,
      start: pose,
      // no two runs of a device have the same noise
      seed: this.options.seed ?? (CRC32.str(this.options.serial) ^ Math.imul(this.runs - 1, 0x9e3779b1)) >>> 8,
      quirks: { ...this.quirks, charge: this.charge },
      noise: this.options.noise,
      onBattery,
      name: '',
      device: this.options.name,
      runner: 'MicroPython',
      limitS: this.options.limitS ?? 600,
      inputs: this.options.inputs
    });
    bench.onTick = () => {
      this.charge = bench.yard.battery.charge ?? this.charge;
      if (this.barSinceUs >= 0 && bench.worldUs - this.barSinceUs >= HOLD_TO_STOP_US) this.stop = true;
      this.options.host.tick(bench);
    };
    this.bench = bench;
    this.running = true;
    this.options.host.began(bench);
    // a text that is known to come from blocks: its arithmetic is for numbers alone
    return blocksOfLines ? `#\n${marked.text}` : marked.text;
  }

  private over(how: string, info: string): void {
    if (how === 'nothing') {
      this.message = 'There is no program on this device yet.';
      return;
    }
    const bench = this.bench;
    if (!bench || !this.running) {
      if (how === 'error') this.message = describe(info).message;
      return;
    }
    let why: Ended = 'done';
    if (how === 'stopped') why = 'stopped';
    else if (how === 'error') {
      const { kind, message } = describe(info);
      const block = bench.machine.block;
      bench.recorder.event({ tUs: bench.now, ...(block ? { block } : {}), type: 'error', kind, message });
      bench.machine.letGo();
      why = 'error';
    }
    try {
      while (!bench.ended) {
        if (this.stop || why === 'stopped') bench.finish('stopped');
        else bench.runOut(why);
      }
    } catch (error) {
      if (!(error instanceof Halt)) throw error;
    }
    this.running = false;
    const end = bench.yard.pose;
    this.place = { ...this.place!, pose: end };
    this.options.host.ended(bench.trace);
  }
}

function describe(info: string): { kind: string; message: string } {
  const cut = info.indexOf('|');
  const kind = info.slice(0, cut);
  const values = info.slice(cut + 1);
  if (kind in ERRORS) return { kind, message: ERRORS[kind as ErrorKind] + (values ? ` (${values})` : '') };
  return { kind, message: values };
}
