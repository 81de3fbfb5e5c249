/**
 * The bench: clock, world, device and recorder. Whoever runs a program on it (the interpreter, or MicroPython on the
 * stand-in) charges board time and idles; the world advances in ticks of 1 ms. Wall time never enters.
 */
import CRC32 from 'crc-32';
import type { Kit } from '../kit/kit.ts';
import type { Quirks } from '../kit/quirks.ts';
import { allSteps, type Program } from '../language/program.ts';
import { Recorder } from '../trace/recorder.ts';
import type { Ended, TimedInput, TraceHeader } from '../trace/trace.ts';
import type { Mat, Pose } from '../yard/mat.ts';
import { Yard } from '../yard/yard.ts';
import { channelSpecs } from './channels.ts';
import { Machine } from './machine.ts';

export const TICK_US = 1000;
const STILL_US = 500_000;
const RUN_OUT_US = 10_000_000;
export const LIMIT_S = 120;

export type RunOptions = {
  program: Program;
  kit: Kit;
  mat: Mat;
  seed: number;
  inputs?: readonly TimedInput[];
  start?: Pose;
  limitS?: number;
  /** ids that spans refer to, where they are not the program's blocks: lines of a text on the stand-in */
  blocks?: readonly string[];
  name?: string;
  device?: string;
  runner?: TraceHeader['runner'];
  quirks?: Quirks;
  /** sensor noise; on unless told otherwise */
  noise?: boolean;
  onBattery?: boolean;
};

/** Ends a run from within a step: the time limit came, or somebody stopped it. */
export class Halt extends Error {}

const hash = (value: unknown): string => (CRC32.str(JSON.stringify(value)) >>> 0).toString(16).padStart(8, '0');

export class Bench {
  now = 0;
  worldUs = 0;
  /** boundaries passed */
  ticks = 0;
  ended: Ended | undefined;
  readonly yard: Yard;
  readonly machine: Machine;
  readonly recorder: Recorder;
  /** index of each block in the trace's header */
  readonly blockIndex: ReadonlyMap<string, number>;
  /** called at every boundary, for pacing */
  onTick: (() => void) | undefined;
  private readonly limitUs: number;
  private readonly inputs: TimedInput[];
  private stillSince = -1;
  private overSince = -1;

  constructor(readonly options: RunOptions) {
    const { program, kit, mat, seed } = options;
    this.limitUs = (options.limitS ?? LIMIT_S) * 1e6;
    this.inputs = [...(options.inputs ?? [])].sort((a, b) => a.tUs - b.tUs);
    const blocks = options.blocks ? [...options.blocks] : [...allSteps(program)].map((s) => s.id);
    this.blockIndex = new Map(blocks.map((id, i) => [id, i]));
    const start = options.start ?? mat.start;
    this.yard = new Yard({
      kit,
      mat,
      start,
      seed,
      quirks: options.quirks,
      noise: options.noise,
      onBattery: options.onBattery
    });
    this.recorder = new Recorder(
      {
        format: 'mossbell.trace',
        version: 1,
        name: options.name ?? '',
        device: options.device ?? 'Rehearsal',
        runner: options.runner ?? 'interpreter',
        seed,
        hashes: { program: hash(program), kit: hash(kit), mat: hash(mat) },
        start: { ...start },
        blocks
      },
      channelSpecs(kit)
    );
    this.machine = new Machine(kit, this.yard, this, this.recorder, seed);
    this.takeInputs();
  }
  get trace() {
    return this.recorder.trace;
  }

  /** The world moves on to the next boundary. */
  tick(): void {
    if (this.ended) throw new Halt();
    this.machine.beforeTick();
    this.yard.step();
    this.worldUs += TICK_US;
    if (this.now < this.worldUs) this.now = this.worldUs;
    this.ticks++;
    this.machine.afterTick();
    this.takeInputs();
    if (this.yard.battery.flat) this.finish('battery flat');
    else if (this.worldUs >= this.limitUs) this.finish('time limit');
    this.onTick?.();
    if (this.ended) throw new Halt();
  }
  /** Board time passes while the processor works. */
  charge(us: number): void {
    const until = this.now + us;
    while (this.worldUs + TICK_US <= until) {
      this.now = this.worldUs + TICK_US;
      this.tick();
    }
    this.now = until;
  }
  /** Nothing to do until `us`, or the next boundary if that comes first. */
  idle(us: number): void {
    const boundary = this.worldUs + TICK_US;
    if (us >= boundary) {
      this.now = boundary;
      this.tick();
    } else this.now = us;
  }

  /** An input takes effect at the next boundary that is not before it. */
  input(timed: TimedInput): void {
    this.inputs.push(timed);
    this.inputs.sort((a, b) => a.tUs - b.tUs);
  }
  private takeInputs(): void {
    while (this.inputs.length && this.inputs[0].tUs <= this.worldUs) this.machine.input(this.inputs.shift()!.input);
  }

  finish(ended: Ended): void {
    if (this.ended) return;
    if (ended === 'stopped') this.machine.letGo();
    this.ended = ended;
    this.recorder.finish(ended, this.now);
  }

  /**
   * The program is over: recording goes on until everything has been still for 0.5 s, at most 10 s more. One boundary a
   * call. @param why how the run ends if all comes to rest
   */
  runOut(why: Ended): void {
    if (this.overSince < 0) this.overSince = this.worldUs;
    this.now = this.worldUs + TICK_US;
    this.tick();
    if (!this.machine.still) this.stillSince = -1;
    else if (this.stillSince < 0) this.stillSince = this.worldUs;
    if (this.stillSince >= 0 && this.worldUs - this.stillSince >= STILL_US) this.finish(why);
    else if (this.worldUs - this.overSince >= RUN_OUT_US) this.finish(why === 'done' ? 'still driving' : why);
  }
}
