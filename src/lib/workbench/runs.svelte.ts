/**
 * The runs of this workbench: the rehearsal that goes on, the last one as a ghost, and what the device did. What people see
 * is the state of one trace at the playhead.
 */
import * as Comlink from 'comlink';
import type { Kit } from '../../../core/kit/kit.ts';
import type { Calibration } from '../../../core/kit/calibration.ts';
import type { Project } from '../../../core/project.ts';
import { programOf, emptyProgram, type Program, type Value } from '../../../core/language/program.ts';
import type { Sameness } from '../../../core/trace/same.ts';
import { Follow, type Delta } from '../../../core/trace/recorder.ts';
import type { Go, Stop, Why } from '../../../core/run/stops.ts';
import type { Snapshot } from '../../../core/run/snapshot.ts';
import { trackOf } from '../../../core/trace/track.ts';
import { eventsOf } from '../../../core/trace/apart.ts';
import { begunAt, stateAt, type State } from '../../../core/trace/query.ts';
import type { ChannelSpec, Input, TimedInput, Trace, TraceHeader } from '../../../core/trace/trace.ts';
import type { Finding } from '../../../core/trace/findings/findings.ts';
import type { RunFile } from '../../../core/trace/runfile.ts';
import type { Tongue } from '../../../core/words.ts';
import type { Prediction } from '../../../core/predict.ts';
import type { Pose } from '../../../core/yard/mat.ts';
import type { BenchApi, Frame } from '../../workers/bench.worker.ts';
import type { FromBoard, Order } from '../../workers/board.worker.ts';
import { boardLibrary } from './send/library.ts';
import { Ring } from '../../workers/ring.ts';
import { say } from '../../../core/words.ts';

export type RunKind = 'rehearsal' | 'device';
/** Which run the playhead is on: the rehearsal, the device's, or one from before that was opened again. */
export type Shown = RunKind | 'earlier';
/** How a rehearsal begins: paused before its first block; or hurrying to a moment, with what was done up to there. */
export type How = { paused?: boolean; untilUs?: number; untilBlock?: string; inputs?: readonly TimedInput[] };
/** One recorded run, and a number that changes as it grows. */
export class Run {
  readonly follow: Follow;
  version = $state(0);
  /** a name of its own, if it was given one */
  title = '';
  /** the number by which the worker that read it knows it */
  held: number | undefined;
  /** what was expected of it */
  predictions = $state.raw<readonly Prediction[]>([]);
  constructor(
    readonly kind: RunKind,
    readonly name: string,
    header: TraceHeader,
    specs: ChannelSpec[],
    /** what was run: with the trace's seed and inputs everything that makes it again */
    readonly project?: Project
  ) {
    this.follow = new Follow(header, specs);
  }
  get trace(): Trace {
    return this.follow.trace;
  }
  /** A run that is over, from a file or made again. */
  static of(kind: RunKind, name: string, trace: Trace, project?: Project): Run {
    const run = new Run(kind, name, trace.header, trace.channels, project);
    Object.assign(run.follow.trace, trace);
    run.version++;
    return run;
  }
  add(delta: Delta): void {
    this.follow.add(delta);
    this.version++;
  }
  get endUs(): number {
    return this.version >= 0 ? this.trace.ticks * 1000 : 0;
  }
}

/** What a person does in each try of an errand. */
const inputsOf = async ({ errand }: Project): Promise<readonly TimedInput[] | undefined> =>
  errand?.inputs === undefined ? undefined : (await import('../../../core/errand/task.ts')).inputsOf(errand);

export const SPEEDS = [0.1, 0.25, 0.5, 1, 2, 4, Infinity] as const;

type AnotherBench = { worker: Worker; api: Comlink.Remote<BenchApi> };
function anotherBench(): AnotherBench {
  const worker = new Worker(new URL('../../workers/bench.worker.ts', import.meta.url), { type: 'module' });
  return { worker, api: Comlink.wrap<BenchApi>(worker) };
}

export class Runs {
  current = $state.raw<Run>();
  ghost = $state.raw<Run>();
  device = $state.raw<Run>();
  /** what the device does out of reach: seen in the yard, not yet in the trace */
  away = $state.raw<Run>();
  /** which of them the playhead is on */
  shown = $state<Shown>('rehearsal');
  /** a run from before that was opened again */
  earlier = $state.raw<Run>();
  /** a run that is over is told here */
  onEnd: ((run: Run) => void) | undefined;
  state = $state<'idle' | 'running' | 'paused' | 'ended'>('idle');
  here = $state<string>();
  /** where a run stops to be looked at */
  stops = $state.raw<readonly Stop[]>([]);
  /** while it is paused: why, and everything there is to see */
  why = $state.raw<Why>();
  seen_ = $state.raw<Snapshot>();
  /** the same for a moment in the past, once it has been worked out */
  then = $state.raw<{ run: Run; tUs: number; seen: Snapshot }>();
  /** where a hand put the robot while time stands still: it is there from the next tick on */
  moved = $state.raw<Pose>();
  /** the trace is being played from the playhead on */
  playing = $state(false);
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
  private board: { worker: Worker; order: (o: Order) => void } | undefined;
  private worker: Worker | undefined;
  private api: Comlink.Remote<BenchApi> | undefined;
  private runNumber = 0;

  private bench(): Comlink.Remote<BenchApi> {
    if (!this.api) {
      ({ worker: this.worker, api: this.api } = anotherBench());
    }
    return this.api;
  }

  get run(): Run | undefined {
    return this.shown === 'device' ? this.device : this.shown === 'earlier' ? this.earlier : this.current;
  }
  get playheadUs(): number {
    if (this.scrubUs !== undefined) return this.scrubUs;
    const end = this.run?.endUs ?? 0;
    // between two ticks the program is further than the world
    return this.shown === 'rehearsal' && this.state === 'paused' ? Math.max(end, this.seen_?.tUs ?? 0) : end;
  }
  get view(): State | undefined {
    const out = this.shown === 'device' ? this.away : undefined;
    if (out) return stateAt(out.trace, out.endUs);
    const run = this.run;
    return run && run.version >= 0 ? stateAt(run.trace, this.playheadUs) : undefined;
  }
  /** Another device of the yard, as it is at the playhead of the rehearsal. */
  viewOf(other: number): State | undefined {
    const run = this.shown === 'device' ? undefined : this.others[other];
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
  private async beginText(project: Project, text: string, how: How): Promise<void> {
    this.board?.worker.terminate();
    const worker = new Worker(new URL('../../workers/board.worker.ts', import.meta.url), { type: 'module' });
    const buffer = typeof SharedArrayBuffer !== 'undefined' && crossOriginIsolated ? Ring.make() : undefined;
    const ring = buffer && new Ring(buffer);
    const order = (o: Order): void => {
      if (ring?.put(o)) worker.postMessage({ type: 'ring' });
      else worker.postMessage(o);
    };
    this.board = { worker, order };
    const boot = await this.bootOf(project, text, {
      speed: this.speed,
      paused: !!how.paused,
      stops: [...this.stops],
      untilUs: how.untilUs,
      inputs: how.inputs ?? this.inputs?.list,
      ring: buffer
    });
    if (this.board?.worker !== worker) return;
    const pose = project.start ?? project.mat.start;
    worker.onmessage = ({ data }: MessageEvent<FromBoard>) => {
      if (this.board?.worker !== worker) return;
      if (data.type === 'ready') {
        order({ type: 'place', place: JSON.parse(JSON.stringify({ kit: project.kit, mat: project.mat, pose })) });
        order({ type: 'start' });
      } else if (data.type === 'began')
        this.current = new Run('rehearsal', say('This run'), data.header, data.specs, project);
      else if (data.type === 'frame') this.current?.add(data.delta);
      else if (data.type === 'paused') {
        this.state = 'paused';
        this.here = say('line {x}', { x: data.line + 1 });
        this.values = data.values;
        this.why = data.why;
      } else if (data.type === 'ended') {
        this.state = 'ended';
        this.here = undefined;
        this.textTrouble = data.message;
        if (this.current) this.onEnd?.(this.current);
      }
    };
    worker.postMessage(boot);
  }
  /** What a board begins with on which a text is rehearsed; in an errand with what a person does in each try of it. */
  private async bootOf(
    project: Project,
    text: string,
    {
      ring,
      inputs,
      ...how
    }: { speed: number; paused: boolean; stops: Stop[]; untilUs?: number; inputs?: readonly TimedInput[] } & {
      ring?: SharedArrayBuffer;
    }
  ) {
    const { text: library } = await boardLibrary();
    const { programFile } = await import('../../../core/link/file.ts');
    const file = new TextEncoder();
    const given = inputs ?? (await inputsOf(project));
    return {
      type: 'boot',
      ring,
      serial: 'REHEARSAL',
      name: say('Rehearsal'),
      flash: { 'lib/mossbell.py': file.encode(library), 'p/1.py': file.encode(programFile(text)) },
      maps: [],
      rehearsal: {
        ...how,
        seed: this.seed,
        inputs: given && (JSON.parse(JSON.stringify(given)) as TimedInput[]),
        limitS: project.errand?.limitS
      }
    };
  }
  /** A text rehearsed whole, as fast as MicroPython goes, on a board of its own. */
  async wholeText(project: Project, text: string): Promise<Run> {
    const worker = new Worker(new URL('../../workers/board.worker.ts', import.meta.url), { type: 'module' });
    const boot = await this.bootOf(project, text, { speed: Infinity, paused: false, stops: [] });
    const pose = project.start ?? project.mat.start;
    return new Promise<Run>((done) => {
      let run: Run | undefined;
      worker.onmessage = ({ data }: MessageEvent<FromBoard>) => {
        if (data.type === 'ready') {
          worker.postMessage({
            type: 'place',
            place: JSON.parse(JSON.stringify({ kit: project.kit, mat: project.mat, pose }))
          });
          worker.postMessage({ type: 'start' });
        } else if (data.type === 'began') run = new Run('rehearsal', project.name, data.header, data.specs, project);
        else if (data.type === 'frame') run?.add(data.delta);
        else if (data.type === 'ended' && run) {
          worker.terminate();
          done(run);
        }
      };
      worker.postMessage(boot);
    });
  }
  setStops(stops: readonly Stop[]): void {
    this.stops = stops;
    const plain = JSON.parse(JSON.stringify(stops)) as Stop[];
    this.board?.order({ type: 'stops', list: plain });
    void this.api?.stopAt(plain);
  }
  /** A stop before a block or a line is put there or taken away. */
  toggleStop(block: string): void {
    const there = this.stops.some((s) => s.on === 'block' && s.block === block);
    this.setStops(
      there ? this.stops.filter((s) => s.on !== 'block' || s.block !== block) : [...this.stops, { on: 'block', block }]
    );
  }

  /** Looks at the sensors with no program running. */
  look(project: Project): Promise<void> {
    const { text: _, others: __, ...rest } = project;
    return this.begin({ ...rest, program: emptyProgram() }, {}, true);
  }
  async begin(project: Project, how: How = {}, looking = false): Promise<void> {
    const paused = how.paused || how.untilUs !== undefined;
    this.why = undefined;
    this.seen_ = undefined;
    this.then = undefined;
    this.moved = undefined;
    this.halt();
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
      return this.beginText(project, project.text, how);
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
      ...(looking
        ? { open: true, limitS: 600 }
        : { inputs: how.inputs ?? this.inputs?.list ?? (await inputsOf(project)), limitS: project.errand?.limitS })
    };
    const plain = JSON.parse(JSON.stringify(options)) as typeof options;
    const early: Frame[] = [];
    let number = -1;
    const take = (frame: Frame): void => {
      if (number < 0) early.push(frame);
      else if (frame.run === number && number === this.runNumber) this.take(frame);
    };
    const begun = await this.bench().begin(
      plain,
      looking ? 1 : this.speed,
      JSON.parse(
        JSON.stringify({
          paused: how.paused,
          untilUs: how.untilUs,
          untilBlock: how.untilBlock,
          stops: looking ? [] : this.stops
        })
      ),
      Comlink.proxy(take)
    );
    number = this.runNumber = begun.run;
    this.hasRoom = begun.room;
    this.current = new Run('rehearsal', say('This run'), begun.header, begun.specs, project);
    this.others = begun.others.map((o) => new Run('rehearsal', o.header.device, o.header, o.specs));
    for (const frame of early) take(frame);
  }
  private take(frame: Frame): void {
    this.current?.add(frame.delta);
    frame.others.forEach((delta, i) => this.others[i]?.add(delta));
    this.state = frame.state;
    this.here = frame.here;
    this.why = frame.why;
    this.seen_ = frame.seen;
    if (frame.state === 'ended' && this.current && !this.looking) this.onEnd?.(this.current);
  }
  /**
   * A run from a file: read, and made again where the file has only what makes it, off the page's thread.
   * @param as what it is called, where that is not its own name
   */
  async open(
    text: string,
    name: string,
    as?: string
  ): Promise<{ ok: true; run: Run; missing: string[] } | { ok: false; problem: string }> {
    const read = await this.past().open(text, name);
    if (!read.ok) return read;
    const { run: file, missing, held } = read.opened;
    const run = Run.of(file.kind, as ?? file.name, file.trace, file.project);
    run.predictions = file.predictions ?? [];
    run.held = held;
    return { ok: true, run, missing };
  }
  /** A whole rehearsal of a project, as fast as it goes, off the page's thread. */
  async whole(project: Project): Promise<Run> {
    const { trace, held } = await this.past().whole(await this.optionsOf(project));
    const run = Run.of('rehearsal', project.name, trace, project);
    run.held = held;
    return run;
  }
  private readonly asides: AnotherBench[] = [];
  /** The same beside everything else that goes on, on one of two workers. */
  async aside(lane: 0 | 1, project: Project): Promise<Run> {
    const { api } = (this.asides[lane] ??= anotherBench());
    const trace = await api.trace(await this.optionsOf(project));
    return Run.of('rehearsal', project.name, trace, project);
  }
  /** A run as a file, compressed; made off the page's thread. */
  pack(file: RunFile, whole: boolean): Promise<Uint8Array> {
    return this.past().pack(file, whole);
  }
  packWhole(text: string, name: string): Promise<Uint8Array> {
    return this.past().packWhole(text, name);
  }
  write(file: RunFile): Promise<string> {
    return this.past().write(file);
  }
  /** What a run that is over has to tell; of a long one it is worked out by the worker that has it. */
  async findingsOf(run: Run, tongue: Tongue): Promise<Finding[]> {
    const blocks = programOf(run.project);
    const program = blocks && (JSON.parse(JSON.stringify(blocks)) as Program);
    if (!run.project) return [];
    const kit = JSON.parse(JSON.stringify(run.project.kit)) as Kit;
    if (run === this.current && this.worker && run.project?.text === undefined)
      return this.bench().findings('this', kit, program, tongue);
    return this.past().findings(run.held ?? run.trace, kit, program, tongue);
  }
  /** What there is to see at the playhead: of the run that stands still there, or of the same run made again up to it. */
  get seenNow(): Snapshot | undefined {
    if (this.shown !== 'rehearsal' || !this.current) return undefined;
    if (this.scrubUs === undefined) return this.state === 'paused' ? this.seen_ : undefined;
    return this.then?.run === this.current && this.then.tUs === this.scrubUs ? this.then.seen : undefined;
  }
  private asked = 0;
  /** Works out everything there is to see at the playhead in the past. */
  async lookBack(): Promise<void> {
    const { current: run, scrubUs: tUs } = this;
    if (!run?.project || tUs === undefined || run.project.text !== undefined || this.state === 'running') return;
    const mine = ++this.asked;
    const record = { header: run.trace.header, events: [...eventsOf(run.trace, 'input')] };
    const [project, plain] = JSON.parse(JSON.stringify([run.project, record])) as [Project, typeof record];
    const seen = await this.past().seenAt(project, plain, tUs);
    if (mine === this.asked) this.then = { run, tUs, seen };
  }
  private pastBench: AnotherBench | undefined;
  /** Another worker than the one that holds the run which stands still. */
  private past(): Comlink.Remote<BenchApi> {
    return (this.pastBench ??= anotherBench()).api;
  }
  /** The same inputs up to the playhead, then live: paused there, with the program as it is now. */
  resumeHere(project: Project): Promise<void> {
    const run = this.run;
    // at the very moment when a block began it is that block that comes next
    const row = run ? begunAt(run.trace, this.playheadUs) : -1;
    const tUs = row < 0 ? Math.max(1000, Math.floor(this.playheadUs / 1000) * 1000) : this.playheadUs;
    const inputs = run ? trackOf(run.trace).filter((i) => i.tUs <= tUs) : [];
    const untilBlock = run && row >= 0 ? run.trace.header.blocks[run.trace.spans.block[row]] : undefined;
    return this.begin(project, { untilUs: tUs, untilBlock, inputs });
  }
  /** Along the trace to the begin of the block before or after the playhead, or by one tick. */
  along(by: 'block' | 'tick', way: 1 | -1): void {
    const run = this.run;
    if (!run) return;
    const now = this.playheadUs;
    if (by === 'tick') this.scrubUs = Math.max(0, Math.min(run.endUs, (Math.round(now / 1000) + way) * 1000));
    else {
      const { start, count } = run.trace.spans;
      let row = 0;
      if (way < 0) {
        for (row = count - 1; row >= 0 && start[row] >= now; row--);
        this.scrubUs = row >= 0 ? start[row] : 0;
      } else {
        for (; row < count && start[row] <= now; row++);
        this.scrubUs = row < count ? start[row] : run.endUs;
      }
    }
  }
  private frame = 0;
  /** Plays what is in the trace from the playhead on, at the speed that is set; `speedAt` slows it at moments. */
  play(speedAt: (tUs: number) => number = () => (this.speed === Infinity ? 4 : this.speed)): void {
    const run = this.run;
    if (!run || this.state === 'running') return;
    if (this.playheadUs >= run.endUs) this.scrubUs = 0;
    this.scrubUs ??= 0;
    this.playing = true;
    let last = performance.now();
    const on = (now: number): void => {
      if (!this.playing || this.run !== run) return void (this.playing = false);
      const next = (this.scrubUs ?? 0) + (now - last) * 1000 * speedAt(this.scrubUs ?? 0);
      last = now;
      this.scrubUs = Math.min(run.endUs, Math.round(next));
      if (next >= run.endUs) return void (this.playing = false);
      this.frame = requestAnimationFrame(on);
    };
    this.frame = requestAnimationFrame(on);
  }
  halt(): void {
    this.playing = false;
    if (typeof cancelAnimationFrame !== 'undefined') cancelAnimationFrame(this.frame);
  }
  pause(): void {
    if (this.board) return this.board.order({ type: 'pause' });
    void this.api?.pause();
  }
  /** Sets off again from a pause: until a stop, one step, or to a block. */
  go(how: Go = 'on'): void {
    this.halt();
    this.moved = undefined;
    this.scrubUs = undefined;
    if (how === 'on') this.state = 'running';
    if (this.board) return this.board.order({ type: 'go', how });
    void this.api?.go(how);
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
  /** @param to another device in the yard, by its name */
  input(input: Input, to?: string): void {
    if (this.board) {
      if ('press' in input || 'release' in input)
        this.board.order({
          type: 'press',
          button: 'press' in input ? input.press : input.release,
          down: 'press' in input
        });
      else this.board.order({ type: 'input', input });
    } else if (this.busy) void this.api?.input(JSON.parse(JSON.stringify(input)) as Input, to);
  }
  /** All is prepared, and the run waits for the word to set off. */
  get waits(): boolean {
    if (!this.busy || !this.current || this.current.version < 0) return false;
    const { trace } = this.current;
    const ready = eventsOf(trace, 'ready').at(-1);
    const began = eventsOf(trace, 'began').at(-1);
    if (!ready || !began || began.tUs !== ready.tUs) return !!ready && !(began && began.tUs > ready.tUs);
    return trace.events.lastIndexOf(began) < trace.events.lastIndexOf(ready);
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
  /** What a project does, rehearsed at once. */
  async traceOf(project: Project): Promise<Trace> {
    return this.bench().trace(await this.optionsOf(project));
  }
  /** What a rehearsal of a project is made of; in an errand with what a person does in each try of it. */
  private async optionsOf(project: Project): Promise<Parameters<BenchApi['whole']>[0]> {
    const { program, kit, mat, start, others, errand, name } = project;
    const inputs = await inputsOf(project);
    const options = { program, kit, mat, start, others, name, seed: this.seed, inputs, limitS: errand?.limitS };
    return JSON.parse(JSON.stringify(options)) as typeof options;
  }
  /** Both projects rehearsed at once, and whether they did the same. */
  compare(before: Project, now: Project): Promise<Sameness> {
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
  ): Promise<{ xCm: number; yCm: number; headingDeg: number }> {
    return this.bench().endOn(JSON.parse(JSON.stringify({ program, kit, mat, start, seed: this.seed })), serial);
  }
  close(): void {
    this.board?.worker.terminate();
    this.board = undefined;
    this.halt();
    for (const bench of [this.pastBench, ...this.asides.splice(0)]) bench?.worker.terminate();
    this.pastBench = undefined;
    this.worker?.terminate();
    this.worker = undefined;
    this.api = undefined;
  }
}
