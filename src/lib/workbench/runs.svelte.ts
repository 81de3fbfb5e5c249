/**
 * The runs of this workbench: the rehearsal that goes on, the last one as a ghost, and what the device did. What people see
 * is the state of one trace at the playhead.
 */
import * as Comlink from 'comlink';
import type { Kit } from '../../../core/kit/kit.ts';
import type { Calibration } from '../../../core/kit/calibration.ts';
import type { Project } from '../../../core/project.ts';
import { emptyProgram, type Value } from '../../../core/language/program.ts';
import type { Parting } from '../../../core/trace/compare.ts';
import { Follow, type Delta } from '../../../core/trace/recorder.ts';
import { stateAt, type State } from '../../../core/trace/query.ts';
import type { ChannelSpec, Input, TimedInput, Trace, TraceHeader } from '../../../core/trace/trace.ts';
import { programFile } from '../../../board/standin/program-file.ts';
import type { BenchApi, Frame } from '../../workers/bench.worker.ts';
import type { FromBoard, Order } from '../../workers/board.worker.ts';
import { boardLibrary } from './send/library.ts';
import { Ring } from '../../workers/ring.ts';
import { say } from '../../../core/words.ts';

export type RunKind = 'rehearsal' | 'device';
/** One recorded run, and a number that changes as it grows. */
export class Run {
  readonly follow: Follow;
  version = $state(0);
  constructor(
    readonly kind: RunKind,
    readonly name: string,
    header: TraceHeader,
    specs: ChannelSpec[]
  ) {
    this.follow = new Follow(header, specs);
  }
  get trace(): Trace {
    return this.follow.trace;
  }
  add(delta: Delta): void {
    this.follow.add(delta);
    this.version++;
  }
  get endUs(): number {
    return this.version >= 0 ? this.trace.ticks * 1000 : 0;
  }
}

export const SPEEDS = [0.1, 0.25, 0.5, 1, 2, 4, Infinity] as const;

export class Runs {
  current = $state.raw<Run>();
  ghost = $state.raw<Run>();
  device = $state.raw<Run>();
  /** what the device does out of reach: seen in the yard, not yet in the trace */
  away = $state.raw<Run>();
  /** which of them the playhead is on */
  shown = $state<RunKind>('rehearsal');
  state = $state<'idle' | 'running' | 'paused' | 'ended'>('idle');
  here = $state<string>();
  variables = $state.raw<Record<string, Value>>({});
  speed = $state<number>(1);
  /** where the playhead stands, or undefined while it follows the run */
  scrubUs = $state<number>();
  seed = 1;
  /** the other devices in the yard, each with its own run */
  others = $state.raw<Run[]>([]);
  /** no program: the sensors as they are, until it is stopped */
  looking = $state(false);
  /** whether the device has room where it starts */
  hasRoom = $state(true);
  /** what the next rehearsal is given: the inputs of a run before, or of a saved track */
  inputs = $state.raw<{ name: string; list: readonly TimedInput[] }>();
  /** what the names of a text hold while it is paused; and why it did not run */
  values = $state.raw<Record<string, Value>>({});
  textTrouble = $state('');
  breaks = $state.raw<ReadonlySet<number>>(new Set());
  private board: { worker: Worker; order: (o: Order) => void } | undefined;
  private worker: Worker | undefined;
  private api: Comlink.Remote<BenchApi> | undefined;
  private runNumber = 0;

  private bench(): Comlink.Remote<BenchApi> {
    if (!this.api) {
      this.worker = new Worker(new URL('../../workers/bench.worker.ts', import.meta.url), { type: 'module' });
      this.api = Comlink.wrap<BenchApi>(this.worker);
    }
    return this.api;
  }

  get run(): Run | undefined {
    return this.shown === 'device' ? this.device : this.current;
  }
  get playheadUs(): number {
    return this.scrubUs ?? this.run?.endUs ?? 0;
  }
  get view(): State | undefined {
    const out = this.shown === 'device' ? this.away : undefined;
    if (out) return stateAt(out.trace, out.endUs);
    const run = this.run;
    return run && run.version >= 0 ? stateAt(run.trace, this.playheadUs) : undefined;
  }
  /** The run whose robot is seen in the yard. */
  get seen(): Run | undefined {
    return (this.shown === 'device' ? this.away : undefined) ?? this.run;
  }
  get seenUs(): number {
    return this.shown === 'device' && this.away ? this.away.endUs : this.playheadUs;
  }
  /** Blocks that are running at the playhead; the one it is paused before while it is paused. */
  get lit(): string[] {
    if (this.state === 'paused' && this.scrubUs === undefined && this.here) return [this.here];
    const run = this.run;
    if (!run || (this.state === 'ended' && this.scrubUs === undefined)) return [];
    return this.view?.blocks ?? [];
  }

  /** A text project runs on a stand-in's MicroPython, on the same bench. */
  private async beginText(project: Project, text: string, paused: boolean): Promise<void> {
    this.board?.worker.terminate();
    const worker = new Worker(new URL('../../workers/board.worker.ts', import.meta.url), { type: 'module' });
    const buffer = typeof SharedArrayBuffer !== 'undefined' && crossOriginIsolated ? Ring.make() : undefined;
    const ring = buffer && new Ring(buffer);
    const order = (o: Order): void => {
      if (ring?.put(o)) worker.postMessage({ type: 'ring' });
      else worker.postMessage(o);
    };
    this.board = { worker, order };
    const { text: library } = await boardLibrary();
    if (this.board?.worker !== worker) return;
    const file = new TextEncoder();
    const pose = project.start ?? project.mat.start;
    worker.onmessage = ({ data }: MessageEvent<FromBoard>) => {
      if (this.board?.worker !== worker) return;
      if (data.type === 'ready') {
        order({ type: 'place', place: JSON.parse(JSON.stringify({ kit: project.kit, mat: project.mat, pose })) });
        order({ type: 'start' });
      } else if (data.type === 'began') this.current = new Run('rehearsal', say('This run'), data.header, data.specs);
      else if (data.type === 'frame') this.current?.add(data.delta);
      else if (data.type === 'paused') {
        this.state = 'paused';
        this.here = say('line {x}', { x: data.line + 1 });
        this.values = data.values;
      } else if (data.type === 'ended') {
        this.state = 'ended';
        this.here = undefined;
        this.textTrouble = data.message;
      }
    };
    worker.postMessage({
      type: 'boot',
      ring: buffer,
      serial: 'REHEARSAL',
      name: say('Rehearsal'),
      flash: { 'lib/mossbell.py': file.encode(library), 'p/1.py': file.encode(programFile(text)) },
      maps: [],
      rehearsal: {
        seed: this.seed,
        speed: this.speed,
        paused,
        breaks: [...this.breaks],
        inputs: this.inputs && [...this.inputs.list]
      }
    });
  }
  /** lines of a text to stop before, from 0 */
  setBreaks(lines: ReadonlySet<number>): void {
    this.breaks = lines;
    this.board?.order({ type: 'breaks', lines: [...lines] });
  }

  /** Looks at the sensors with no program running. */
  look(project: Project): Promise<void> {
    const { text: _, others: __, ...rest } = project;
    return this.begin({ ...rest, program: emptyProgram() }, false, true);
  }
  async begin(project: Project, paused = false, looking = false): Promise<void> {
    this.looking = looking;
    this.others = [];
    this.textTrouble = '';
    this.values = {};
    if (project.text !== undefined) {
      if (this.current) this.ghost = this.current;
      this.current = undefined;
      this.state = paused ? 'paused' : 'running';
      this.scrubUs = undefined;
      this.shown = 'rehearsal';
      this.here = undefined;
      return this.beginText(project, project.text, paused);
    }
    this.board?.worker.terminate();
    this.board = undefined;
    if (this.current) this.ghost = this.current;
    this.state = paused ? 'paused' : 'running';
    this.scrubUs = undefined;
    this.shown = 'rehearsal';
    this.here = undefined;
    const options = {
      program: project.program,
      kit: project.kit,
      mat: project.mat,
      start: project.start,
      seed: this.seed,
      name: looking ? say('Looking') : project.name,
      others: project.others,
      ...(looking ? { open: true, limitS: 600 } : { inputs: this.inputs?.list })
    };
    const plain = JSON.parse(JSON.stringify(options)) as typeof options;
    const early: Frame[] = [];
    let number = -1;
    const take = (frame: Frame): void => {
      if (number < 0) early.push(frame);
      else if (frame.run === number && number === this.runNumber) this.take(frame);
    };
    const begun = await this.bench().begin(plain, looking ? 1 : this.speed, paused, Comlink.proxy(take));
    number = this.runNumber = begun.run;
    this.hasRoom = begun.room;
    this.current = new Run('rehearsal', say('This run'), begun.header, begun.specs);
    this.others = begun.others.map((o) => new Run('rehearsal', o.header.device, o.header, o.specs));
    for (const frame of early) take(frame);
  }
  private take(frame: Frame): void {
    this.current?.add(frame.delta);
    frame.others.forEach((delta, i) => this.others[i]?.add(delta));
    this.state = frame.state;
    this.here = frame.here;
    this.variables = frame.variables;
  }
  pause(): void {
    if (this.board) return this.board.order({ type: 'pause' });
    void this.api?.pause();
  }
  resume(): void {
    this.state = 'running';
    this.scrubUs = undefined;
    if (this.board) return this.board.order({ type: 'go', step: false });
    void this.api?.resume();
  }
  step(): void {
    this.scrubUs = undefined;
    if (this.board) return this.board.order({ type: 'go', step: true });
    void this.api?.step();
  }
  stop(): void {
    if (this.board) return this.board.order({ type: 'interrupt' });
    void this.api?.stop();
  }
  setSpeed(speed: number): void {
    this.speed = speed;
    this.board?.order({ type: 'speed', speed });
    void this.api?.speed(speed);
  }
  input(input: Input): void {
    if (this.board) {
      if ('press' in input || 'release' in input)
        this.board.order({
          type: 'press',
          button: 'press' in input ? input.press : input.release,
          down: 'press' in input
        });
      else this.board.order({ type: 'input', input });
    } else if (this.state === 'running' || this.state === 'paused') void this.api?.input(input);
  }
  /** All is prepared, and the run waits for the word to set off. */
  get waits(): boolean {
    if (!this.busy || !this.current || this.current.version < 0) return false;
    const { events } = this.current.trace;
    const ready = events.findLastIndex((e) => e.type === 'ready');
    return ready >= 0 && !events.slice(ready).some((e) => e.type === 'began');
  }
  get busy(): boolean {
    return this.state === 'running' || this.state === 'paused';
  }
  /** The robot was moved by hand: it stands where it was put, and the last run stays as a ghost. */
  clear(): void {
    if (this.current) this.ghost = this.current;
    this.current = undefined;
    this.others = [];
    this.state = 'idle';
    this.scrubUs = undefined;
  }
  /** The bytes of a whole run in this browser, to be compared with the same run elsewhere. */
  bytes(options: unknown): Promise<Uint8Array> {
    return this.bench().bytes(options as never);
  }
  /** Both projects rehearsed at once, and whether they did the same. */
  compare(before: Project, now: Project): Promise<Parting> {
    const options = (p: Project) =>
      JSON.parse(JSON.stringify({ program: p.program, kit: p.kit, mat: p.mat, start: p.start, seed: this.seed }));
    return this.bench().compare(options(before), options(now));
  }
  calibrate(kit: Kit, serial: string): Promise<Calibration> {
    return this.bench().calibrate(JSON.parse(JSON.stringify(kit)), serial);
  }
  /** Where the program ends on one stand-in, as its kit sheet is. */
  endOn(
    { program, kit, mat, start }: Project,
    serial: string
  ): Promise<{ xCm: number; yCm: number; facingDeg: number }> {
    return this.bench().endOn(JSON.parse(JSON.stringify({ program, kit, mat, start, seed: this.seed })), serial);
  }
  close(): void {
    this.board?.worker.terminate();
    this.board = undefined;
    this.worker?.terminate();
    this.worker = undefined;
    this.api = undefined;
  }
}
