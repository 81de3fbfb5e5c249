/** Owns a bench and paces it. One compact message a display frame; everything else is worked out from the trace. */
import '../../core/run/exact-math.ts';
import * as Comlink from 'comlink';
import { Bench, type RunOptions } from '../../core/run/bench.ts';
import { Interpreter, rehearse } from '../../core/run/interpreter.ts';
import type { Kit } from '../../core/kit/kit.ts';
import { quirksOf } from '../../core/kit/quirks.ts';
import type { Calibration } from '../../core/kit/calibration.ts';
import { calibrate } from '../../core/run/calibrate.ts';
import { stateAt } from '../../core/trace/query.ts';
import { channelSpecs } from '../../core/run/channels.ts';
import type { Delta } from '../../core/trace/recorder.ts';
import { compareRuns, type Parting } from '../../core/trace/compare.ts';
import { traceBytes } from '../../core/trace/files.ts';
import type { ChannelSpec, Input, TraceHeader } from '../../core/trace/trace.ts';
import type { Value } from '../../core/language/program.ts';

export type Frame = {
  run: number;
  delta: Delta;
  /** of the other devices in the yard */
  others: Delta[];
  worldUs: number;
  state: 'running' | 'paused' | 'ended';
  /** the block before which it is paused */
  here?: string;
  variables: Record<string, Value>;
};
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
let speed = 1;
let paused = false;
let timer: ReturnType<typeof setTimeout> | undefined;
/** wall clock and world clock where pacing began */
let wall0 = 0;
let world0 = 0;

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
        variables: { ...interpreter.variables }
      },
      [delta, ...others].flatMap(buffers) as Transferable[]
    )
  );
}
const buffers = (delta: Delta): ArrayBufferLike[] => [
  ...delta.samples.map((s) => s.buffer),
  delta.spans.block.buffer,
  delta.spans.task.buffer,
  delta.spans.start.buffer,
  delta.spans.end.buffer,
  delta.ends.buffer
];
function slice(): void {
  timer = undefined;
  if (!bench || !interpreter || paused) return;
  const began = performance.now();
  const target = speed === Infinity ? Infinity : world0 + (began - wall0) * 1000 * speed;
  let state: 'running' | 'paused' | 'ended' = 'running';
  while (state === 'running' && bench.worldUs < target && performance.now() - began < SLICE_MS)
    state = interpreter.advance(Math.min(target, bench.worldUs + 20_000));
  if (speed !== Infinity && bench.worldUs < target - 200_000) rebase(); // too slow for the wanted speed: do not run after it
  if (state === 'paused') paused = true;
  frame(state);
  if (state === 'running') timer = setTimeout(slice, Math.max(0, FRAME_MS - (performance.now() - began)));
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
    pausedAtStart: boolean,
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
    if (pausedAtStart) interpreter.stopBefore = stopNow;
    const recording = (b: Bench): Recording => ({
      header: b.trace.header,
      specs: channelSpecs(b.options.kit, b.options.mat)
    });
    const begun = {
      run,
      room: bench.yard.isFree(),
      ...recording(bench),
      others: bench.beside.map((b) => recording(b.bench))
    };
    setTimeout(go, 0);
    return begun;
  },
  pause(): void {
    if (!interpreter || paused) return;
    paused = true;
    frame('paused');
  },
  resume(): void {
    if (!interpreter) return;
    interpreter.stopBefore = undefined;
    go();
  },
  /** on to the next block, whichever task it is in */
  step(): void {
    if (!interpreter) return;
    interpreter.stopBefore = stopNow;
    go();
  },
  speed(pace: number): void {
    speed = pace;
    rebase();
  },
  input(input: Input): void {
    bench?.input({ tUs: bench.worldUs, input });
  },
  stop(): void {
    clearTimeout(timer);
    timer = undefined;
    bench?.finish('stopped');
    frame('ended');
  },
  /** Two whole runs at once, and the first moment at which they part. */
  compare(a: RunOptions, b: RunOptions): Parting {
    return compareRuns(rehearse(a), rehearse(b));
  },
  /** One stand-in measured. */
  calibrate(kit: Kit, serial: string): Calibration {
    return calibrate(kit, quirksOf(serial));
  },
  /** Where a run ends on one stand-in. */
  endOn(options: RunOptions, serial: string): { xCm: number; yCm: number; facingDeg: number } {
    const trace = rehearse({ ...options, quirks: quirksOf(serial), onBattery: true, limitS: 60 });
    const { x, y, facingDeg } = stateAt(trace, trace.ticks * 1000);
    return { xCm: x * 100, yCm: y * 100, facingDeg };
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
const stopNow = (): boolean => true;
export type BenchApi = typeof api;
Comlink.expose(api);
