/** Owns a bench and paces it. One compact message a display frame; everything else is worked out from the trace. */
import '../../core/run/exact-math.ts';
import * as Comlink from 'comlink';
import { Bench } from '../../core/run/bench.ts';
import { specOfRun, type RunOptions } from '../../core/run/spec.ts';
import { Interpreter, rehearse } from '../../core/run/interpreter.ts';
import type { Kit } from '../../core/kit/kit.ts';
import { quirksOf } from '../../core/kit/quirks.ts';
import type { Calibration } from '../../core/kit/calibration.ts';
import { calibrate } from '../../core/run/calibrate.ts';
import { stateAt } from '../../core/trace/query.ts';
import { headingAt } from '../../core/units.ts';
import { channelSpecs } from '../../core/run/channels.ts';
import { buffersOf, type Delta } from '../../core/trace/recorder.ts';
import { sameBehaviour, type Sameness } from '../../core/trace/same.ts';
import { traceBytes } from '../../core/trace/files.ts';
import { findings, type Finding } from '../../core/trace/findings/findings.ts';
import { readRun, writeRun, type RunFile } from '../../core/trace/runfile.ts';
import type { Channel, ChannelSpec, Input, Trace, TraceHeader } from '../../core/trace/trace.ts';
import { utf8, zipped } from '../../core/bytes.ts';
import type { Project } from '../../core/project.ts';
import type { Program } from '../../core/language/program.ts';
import { speakFrom, type Tongue } from '../../core/words.ts';
import { snapshot, type Snapshot } from '../../core/run/snapshot.ts';
import { Stops, type Go, type Stop, type Why } from '../../core/run/stops.ts';

export type Frame = {
  run: number;
  delta: Delta;
  /** of the other devices in the yard */
  others: Delta[];
  worldUs: number;
  state: 'running' | 'paused' | 'ended';
  /** the block before which it is paused */
  here?: string;
  /** while it is paused: why, and everything there is to see */
  why?: Why;
  seen?: Snapshot;
};
/** A run from a file, and the number by which this worker knows it. */
export type Opened = { run: RunFile; missing: string[]; held: number };
/** So many opened runs are held here, to be asked for findings. */
const HELD = 3;
const held = new Map<number, Trace>();
let holds = 0;
function hold(trace: Trace): number {
  held.set(++holds, trace);
  held.delete(holds - HELD);
  return holds;
}
/** With every sample as it was, otherwise made again from what made it. */
function traceOf({ trace, project }: RunFile): Trace {
  return trace.channels.length || !project ? trace : rehearse(specOfRun(project, trace));
}
type Recording = { header: TraceHeader; specs: ChannelSpec[] };
/** `room`: whether the device has room where it starts */
export type Begun = Recording & { others: Recording[]; room: boolean };

/** Wall time a slice may take before the frame is sent, ms. */
const SLICE_MS = 12;
const FRAME_MS = 16;

let bench: Bench | undefined;
let interpreter: Interpreter | undefined;
let send: ((frame: Frame) => void) | undefined;
let run = 0;
let stops: Stops | undefined;
/** goes as fast as it can up to here, and rests there; or right before a block that begins about then */
let untilUs: number | undefined;
let untilBlock: { block: string; atUs: number } | undefined;
let speed = 1;
let paused = false;
/** a run that is looked at in its past */
let replay: { key: string; interpreter: Interpreter } | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;
/** wall clock and world clock where pacing began */
let wall0 = 0;
let world0 = 0;
/** it waited for the word to set off, at the last slice */
let waited = false;

function rebase(): void {
  wall0 = performance.now();
  world0 = bench?.worldUs ?? 0;
}
function frame(state: Frame['state']): void {
  if (!bench || !interpreter || !send) return;
  const delta = bench.recorder.drain();
  const others = bench.beside.map((b) => b.bench.recorder.drain());
  send(
    Comlink.transfer(
      {
        run,
        delta,
        others,
        worldUs: bench.worldUs,
        state,
        here: interpreter.here,
        ...(state === 'paused' ? { why: stops?.why, seen: snapshot(interpreter) } : {})
      },
      [delta, ...others].flatMap(buffersOf) as Transferable[]
    )
  );
}
function slice(): void {
  timer = undefined;
  if (!bench || !interpreter || paused) return;
  const began = performance.now();
  const rushes = untilUs !== undefined;
  // while it waits for the person's word it does not hurry on
  if (bench.machine.waits !== waited) {
    waited = bench.machine.waits;
    rebase();
  }
  const pace = waited ? Math.min(1, speed) : speed;
  const target = untilUs ?? (pace === Infinity ? Infinity : world0 + (began - wall0) * 1000 * pace);
  let state: 'running' | 'paused' | 'ended' = 'running';
  const steps = !rushes && stops?.looksAtTicks ? 1000 : 20_000;
  while (
    state === 'running' &&
    bench.worldUs < target &&
    bench.machine.waits === waited &&
    performance.now() - began < SLICE_MS
  ) {
    state = interpreter.advance(Math.min(target, bench.worldUs + steps));
    if (state === 'running' && !rushes && stops?.looksAtTicks && stops.tick()) state = 'paused';
  }
  if (untilUs !== undefined && (state === 'paused' || (bench.worldUs >= untilUs && state === 'running'))) {
    untilUs = undefined;
    state = 'paused';
    attend();
  }
  if (!rushes && pace !== Infinity && bench.worldUs < target - 200_000) rebase(); // too slow for the wanted speed: do not run after it
  if (state === 'paused') paused = true;
  frame(state);
  if (state === 'running') timer = setTimeout(slice, Math.max(0, FRAME_MS - (performance.now() - began)));
}
/** What the run is to stop at is asked from now on. */
function attend(): void {
  if (interpreter && stops)
    interpreter.stopBefore =
      untilUs !== undefined
        ? untilBlock && ((block) => block === untilBlock?.block && !!bench && bench.now >= untilBlock.atUs)
        : stops.looksAtSteps
          ? (...at) => stops!.before(...at)
          : undefined;
}
function go(): void {
  paused = false;
  rebase();
  if (timer === undefined) timer = setTimeout(slice, 0);
}

const api = {
  begin(
    options: RunOptions,
    pace: number,
    how: { paused?: boolean; stops?: readonly Stop[]; untilUs?: number; untilBlock?: string },
    sender: (frame: Frame) => void
  ): Begun & { run: number } {
    clearTimeout(timer);
    timer = undefined;
    run++;
    send = sender;
    speed = pace;
    bench = new Bench(options);
    interpreter = new Interpreter(bench);
    paused = false;
    const tasks = interpreter;
    stops = new Stops(bench, (task) => tasks.running.some((t) => t.id === task));
    stops.set(how.stops ?? []);
    untilUs = how.untilUs;
    untilBlock =
      how.untilBlock !== undefined && untilUs !== undefined ? { block: how.untilBlock, atUs: untilUs } : undefined;
    // the tick in which the block begins is gone through
    if (untilBlock) untilUs = (Math.floor(untilBlock.atUs / 1000) + 2) * 1000;
    if (how.paused) stops.start('into');
    attend();
    const recording = (b: Bench): Recording => ({
      header: b.trace.header,
      specs: channelSpecs(b.spec.kit, b.spec.mat)
    });
    const begun = {
      run,
      room: bench.yard.isFree(),
      ...recording(bench),
      others: bench.beside.map((b) => recording(b.bench))
    };
    // who pauses it before it has set off means it
    setTimeout(() => !paused && go(), 0);
    return begun;
  },
  pause(): void {
    if (!interpreter || paused) return;
    paused = true;
    frame('paused');
  },
  /** Sets off again: until a stop, one step, or to a block. */
  go(how: Go): void {
    if (!interpreter || !stops) return;
    stops.start(how);
    attend();
    go();
  },
  stopAt(list: readonly Stop[]): void {
    stops?.set(list);
    attend();
  },
  /** Everything there is to see of another run at a moment: made again up to there. @param record its header and inputs */
  seenAt(project: Project, record: Pick<Trace, 'header' | 'events'>, atUs: number): Snapshot {
    const options = specOfRun(project, record);
    const key = JSON.stringify(options);
    if (key !== replay?.key || replay.interpreter.bench.now > atUs)
      replay = { key, interpreter: new Interpreter(new Bench(options)) };
    const { interpreter: i } = replay;
    // it rests before the step that comes next
    i.stopBefore = () => i.bench.now >= atUs;
    while (i.bench.now < atUs && i.advance(Math.min(atUs, i.bench.worldUs + 1000)) === 'running');
    return snapshot(i);
  },
  speed(pace: number): void {
    speed = pace;
    rebase();
  },
  /** @param to another device in the yard, by its name */
  input(input: Input, to?: string): void {
    if (!bench || !interpreter) return;
    bench.input({ tUs: 'set' in input ? bench.now : bench.worldUs, input, ...(to === undefined ? {} : { to }) });
    if (!paused || !('set' in input)) return;
    // before a step it takes effect at once, otherwise before the next one
    if (interpreter.here !== undefined) interpreter.takeSets();
    frame('paused');
  },
  stop(): void {
    clearTimeout(timer);
    timer = undefined;
    if (bench && interpreter && !bench.ended) {
      // an input like every other: at once before a step, otherwise at the next boundary
      bench.input({ tUs: bench.now, input: { stop: true } });
      interpreter.stopBefore = undefined;
      while (interpreter.advance(Infinity) !== 'ended');
    }
    frame('ended');
  },
  /** A run file opened: as it was recorded, or made again from what made it. */
  async open(text: string, name: string): Promise<{ ok: true; opened: Opened } | { ok: false; problem: string }> {
    const read = await readRun(text, name);
    if (!read.ok) return read;
    const run = { ...read.run, trace: traceOf(read.run) };
    return { ok: true, opened: { run, missing: read.missing, held: hold(run.trace) } };
  },
  /** A whole run at once. */
  whole(options: RunOptions): { trace: Trace; held: number } {
    const trace = rehearse(options);
    return { trace, held: hold(trace) };
  },
  /** A run as a compressed file. @param whole with everything that was recorded */
  async pack(file: RunFile, whole: boolean): Promise<Uint8Array> {
    return zipped(utf8(await writeRun(file, whole)));
  },
  /** The same run file with everything that is recorded when it is made again. */
  async packWhole(text: string, name: string): Promise<Uint8Array> {
    const read = await readRun(text, name);
    if (!read.ok) throw new Error(read.problem);
    return zipped(utf8(await writeRun({ ...read.run, trace: traceOf(read.run) })));
  },
  write: (file: RunFile): Promise<string> => writeRun(file),
  /** What a run that is over has to tell. @param of the run that was made here last, one that is held, or a trace */
  findings(of: 'this' | number | Trace, kit: Kit, program: Program | undefined, tongue: Tongue): Finding[] {
    speakFrom(() => tongue);
    const trace = of === 'this' ? bench?.trace : typeof of === 'number' ? held.get(of) : of;
    return trace ? findings(trace, kit, program) : [];
  },
  /** Two whole runs at once, and the first moment at which they part. */
  compare(a: RunOptions, b: RunOptions): Sameness {
    return sameBehaviour(rehearse(a), rehearse(b));
  },
  /** A whole run at once. */
  trace(options: RunOptions): Trace {
    const { channels, ...rest } = rehearse(options);
    // what reads a channel off the machine stays here
    const plain = channels.map((c) => Object.fromEntries(Object.entries(c).filter(([, v]) => typeof v !== 'function')));
    return { ...rest, channels: plain as Channel[] };
  },
  /** One stand-in measured. */
  calibrate(kit: Kit, serial: string): Calibration {
    return calibrate(kit, quirksOf(serial, kit));
  },
  /** Where a run ends on one stand-in. */
  endOn(options: RunOptions, serial: string): { xCm: number; yCm: number; headingDeg: number } {
    const trace = rehearse({ ...options, quirks: quirksOf(serial, options.kit), onBattery: true, limitS: 60 });
    const { x, y, facingDeg } = stateAt(trace, trace.ticks * 1000);
    return { xCm: x * 100, yCm: y * 100, headingDeg: headingAt(facingDeg - trace.header.run.start.facingDeg) };
  },
  /** The whole run at once and its bytes, to compare with the same run elsewhere. */
  bytes(options: RunOptions): Uint8Array {
    const whole = new Bench(options);
    const i = new Interpreter(whole);
    while (i.advance(Infinity) !== 'ended');
    const bytes = traceBytes(whole.trace);
    return Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
  }
};
export type BenchApi = typeof api;
Comlink.expose(api);
