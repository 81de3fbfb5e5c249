/**
 * The bench: clock, world, device and recorder. Whoever runs a program on it (the interpreter, or MicroPython on the
 * stand-in) charges board time and idles; the world advances in ticks of 1 ms. Wall time never enters.
 */
import { motorsAt, type Kit } from '../kit/kit.ts';
import { allSteps } from '../language/program.ts';
import { Recorder } from '../trace/recorder.ts';
import type { Ended, TimedInput, TraceHeader } from '../trace/trace.ts';
import { isOfTheRun } from '../trace/track.ts';
import { Yard } from '../yard/yard.ts';
import { channelSpecs } from './channels.ts';
import { Machine } from './machine.ts';
import { conditionsOf, hashesOf, specOf, type RunOptions, type RunSpec } from './spec.ts';

export const TICK_US = 1000;
const STILL_US = 500_000;
const RUN_OUT_US = 10_000_000;
/** Nobody gave the word for so long: the run ends. */
const LONGEST_WAIT_US = 1800e6;

/** Ends a run from within a step: the time limit came, or somebody stopped it. */
export class Halt extends Error {}

const wheelsOf = (kit: Kit): Pick<TraceHeader, 'wheels'> => {
  const [left, right] = (['left', 'right'] as const).map((side) => motorsAt(kit, side)[0]?.socket);
  return left && right ? { wheels: { left, right } } : {};
};
/** What does not wait for a boundary. */
const isAtOnce = ({ input, to }: TimedInput): boolean => to === undefined && isOfTheRun(input);
/** What is done to one of the other devices in the yard, as its own bench takes it. */
export const inputsFor = (name: string, inputs: readonly TimedInput[]): TimedInput[] =>
  inputs.flatMap(({ to, ...timed }) => (to === name ? [timed] : []));

/** Programs of other devices, which the clock of the first device drives. */
type Beside = { name: string; bench: Bench; catchUp(untilUs: number): void; readonly busy: boolean };

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
  private readonly sleepUs: number;
  private readonly inputs: TimedInput[];
  /** variables that are changed by hand, and the run's stop: at their exact time, before the step that comes next */
  private readonly atOnce: TimedInput[];
  /** the other devices in this yard */
  readonly beside: Beside[] = [];
  private stillSince = -1;
  private overSince = -1;
  private waitedUs = 0;

  /** everything that decides this run: it is made from this and from nothing else */
  readonly spec: RunSpec;

  /** @param lead the bench of the first device in the yard, if this is another: its clock drives this one */
  constructor(
    options: RunOptions,
    readonly lead?: Bench
  ) {
    const spec = (this.spec = specOf(options));
    const { program, kit, mat, seed, start } = spec;
    this.limitUs = spec.limitS * 1e6;
    this.sleepUs = spec.open ? 0 : (kit.sleepMin ?? 0) * 60e6;
    this.inputs = spec.inputs.filter((i) => !isAtOnce(i));
    this.atOnce = spec.inputs.filter(isAtOnce);
    const blocks = options.blocks ? [...options.blocks] : [...allSteps(program)].map((s) => s.id);
    this.blockIndex = new Map(blocks.map((id, i) => [id, i]));
    this.yard = new Yard({
      kit,
      mat,
      start,
      seed,
      quirks: spec.quirks,
      noise: spec.noise,
      onBattery: spec.onBattery,
      site: lead?.yard.site
    });
    this.recorder = new Recorder(
      {
        format: 'mossbell.trace',
        version: 2,
        name: options.name ?? '',
        device: options.device ?? 'Rehearsal',
        runner: options.runner ?? 'interpreter',
        hashes: hashesOf(spec),
        run: conditionsOf(spec),
        ...wheelsOf(kit),
        blocks
      },
      channelSpecs(kit, mat)
    );
    this.machine = new Machine(kit, this.yard, this, this.recorder, seed);
    this.takeInputs();
    if (this.atOnce.length) this.takeStop(0);
  }
  get trace() {
    return this.recorder.trace;
  }

  /** The world moves on to the next boundary; the other devices' programs have come to it first. */
  tick(): void {
    if (this.ended) throw new Halt();
    const boundary = this.worldUs + TICK_US;
    for (const one of this.beside) one.catchUp(boundary);
    this.machine.beforeTick();
    for (const { bench } of this.beside) bench.machine.beforeTick();
    this.yard.step();
    this.arrive(boundary);
    for (const { bench } of this.beside) bench.arrive(boundary);
    // a run stops for all of its devices at once, when each has come to this boundary
    if (this.atOnce.length) this.takeStop(boundary);
    if (this.beside.length) this.carryMessages();
    else this.machine.sent.length = 0;
    // waiting for the word to set off is not running
    if (this.machine.waits) this.waitedUs += TICK_US;
    if (this.yard.battery.flat) this.finish('battery flat');
    else if (boundary - this.waitedUs >= this.limitUs || this.waitedUs >= LONGEST_WAIT_US) this.finish('time limit');
    else if (this.sleepUs && boundary - this.machine.touchedUs >= this.sleepUs) this.finish('asleep');
    this.onTick?.();
    if (this.ended) throw new Halt();
  }
  private arrive(boundary: number): void {
    this.worldUs = boundary;
    if (this.now < boundary) this.now = boundary;
    this.ticks++;
    this.machine.afterTick();
    this.takeInputs();
  }
  /** What was sent to devices nearby since the last boundary reaches them now. */
  private carryMessages(): void {
    const all: Bench[] = [this, ...this.beside.map((b) => b.bench)];
    for (const from of all)
      for (const name of from.machine.sent.splice(0))
        for (const to of all) if (to !== from) to.machine.hear(name, from.trace.header.device);
  }
  /** Board time passes while the processor works. */
  charge(us: number): void {
    const until = this.now + us;
    if (!this.lead)
      while (this.worldUs + TICK_US <= until) {
        this.now = this.worldUs + TICK_US;
        this.tick();
      }
    this.now = until;
  }
  /** Nothing to do until `us`, or the next boundary if that comes first. */
  idle(us: number): void {
    const boundary = this.worldUs + TICK_US;
    if (us < boundary) this.now = us;
    else {
      if (this.now < boundary) this.now = boundary;
      if (!this.lead) this.tick();
    }
  }

  /** An input takes effect at the next boundary that is not before it. */
  input(timed: TimedInput): void {
    for (const { name, bench } of this.beside) for (const one of inputsFor(name, [timed])) bench.input(one);
    const queue = isAtOnce(timed) ? this.atOnce : this.inputs;
    queue.push(timed);
    queue.sort((a, b) => a.tUs - b.tUs);
  }
  private takeInputs(): void {
    while (this.inputs.length && this.inputs[0].tUs <= this.worldUs) {
      const { input, to } = this.inputs.shift()!;
      // what is done to another device is in its own inputs too: here it is only written down, so that the run can be made again
      if (to === undefined) this.machine.input(input);
      else this.recorder.event({ tUs: this.worldUs, type: 'input', input, to });
    }
  }
  /** The person stopped the run, if that is due. */
  private takeStop(nowUs: number): void {
    if (!this.ended && this.atOnce.some(({ tUs, input }) => 'stop' in input && tUs <= nowUs)) this.finish('stopped');
  }

  /** Variables that a person changed and that are due: the runner sets them before its next step. A stop ends the run here. */
  takeSets(): { variable: string; to: number | string }[] {
    const due: { variable: string; to: number | string }[] = [];
    while (this.atOnce.length && this.atOnce[0].tUs <= this.now) {
      const { input } = this.atOnce[0];
      if (!('set' in input)) break;
      this.atOnce.shift();
      this.recorder.event({ tUs: this.now, type: 'input', input });
      due.push(input.set);
    }
    if (this.atOnce.length) this.takeStop(this.now);
    if (this.ended) throw new Halt();
    return due;
  }
  get hasSets(): boolean {
    return this.atOnce.length > 0;
  }
  /** What waits to be set: seen by the person before it takes effect. */
  get waitingSets(): { variable: string; to: number | string }[] {
    return this.atOnce.flatMap(({ tUs, input }) => ('set' in input && tUs <= this.now ? [input.set] : []));
  }

  finish(ended: Ended): void {
    if (this.ended) return;
    if (ended === 'stopped') {
      this.recorder.event({ tUs: this.now, type: 'input', input: { stop: true } });
      this.machine.letGo();
    }
    this.machine.over();
    this.ended = ended;
    this.recorder.finish(ended, this.now);
    for (const { bench } of this.beside) bench.finish(ended);
  }
  /** How far the program may go: the world's clock, or with another device in the lead its own. */
  get reached(): number {
    return this.lead ? this.now : this.worldUs;
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
    if (this.beside.some((b) => b.busy)) this.overSince = this.worldUs;
    else if (this.stillSince >= 0 && this.worldUs - this.stillSince >= STILL_US) this.finish(why);
    else if (this.worldUs - this.overSince >= RUN_OUT_US) this.finish(why === 'done' ? 'still driving' : why);
  }
}
