/**
 * Owns a stand-in. Its MicroPython blocks this thread while a program runs, so everything for it lies in a ring in shared
 * memory, which is looked at once a tick; when it is idle, a message says that there is something in the ring.
 */
import '../../core/run/exact-math.ts';
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import wasmUrl from '@micropython/micropython-webassembly-pyscript/micropython.wasm?url';
import type { Memory } from '../../board/standin/drive.ts';
import { StandIn, type Flash, type LoadMicroPython, type Place } from '../../board/standin/standin.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import type { Value } from '../../core/language/program.ts';
import { channelSpecs } from '../../core/run/channels.ts';
import type { Bench } from '../../core/run/bench.ts';
import { Stops, type Go, type Stop, type Why } from '../../core/run/stops.ts';
import { buffersOf, type Delta } from '../../core/trace/recorder.ts';
import type { ChannelSpec, Input, TimedInput, TraceHeader } from '../../core/trace/trace.ts';
import { Ring } from './ring.ts';

export type ToBoard =
  | {
      type: 'boot';
      ring: SharedArrayBuffer | undefined;
      serial: string;
      name: string;
      flash: Flash;
      /** what runs on it; MicroPython if nothing is said */
      firmware?: Memory['firmware'];
      /** the board library that the factory demo has in itself */
      rom?: string;
      charge?: number;
      maps: [number, (string | null)[]][];
      /** a text project is rehearsed: a board without faults, on the kit sheet's battery */
      rehearsal?: {
        seed: number;
        speed: number;
        paused: boolean;
        stops: Stop[];
        untilUs?: number;
        inputs?: TimedInput[];
        limitS?: number;
      };
    }
  | { type: 'ring' }
  | Order;
/** What goes through the ring, or as a message where shared memory is withheld. */
export type Order =
  | { type: 'serial'; bytes: number[] }
  | { type: 'place'; place: Place }
  | { type: 'map'; crc: number; blocks: (string | null)[] }
  | { type: 'start' }
  /** choosing a program with the device's own buttons, while it waits */
  | { type: 'choose'; does: 'next' | 'take' }
  | { type: 'press'; button: 'Dot' | 'Bar'; down: boolean }
  | { type: 'input'; input: Input }
  | { type: 'charge'; charge: number }
  | { type: 'interrupt' }
  | { type: 'pause' }
  | { type: 'go'; how: Go }
  | { type: 'speed'; speed: number }
  | { type: 'stops'; list: Stop[] };
export type FromBoard =
  | { type: 'ready'; charge: number }
  | { type: 'serial'; bytes: Uint8Array }
  | { type: 'flash'; flash: Flash; charge: number }
  /** its display shows the number of a program that can be taken; 0 when that is over */
  | { type: 'chooses'; number: number }
  /** it blinks and beeps */
  | { type: 'shows' }
  | { type: 'began'; header: TraceHeader; specs: ChannelSpec[] }
  | { type: 'frame'; delta: Delta; worldUs: number; charge: number; pose: { x: number; y: number; facingDeg: number } }
  | { type: 'paused'; line: number; values: Record<string, Value>; why?: Why }
  | { type: 'ended'; message: string; charge: number; place: Place | undefined };

const post = (message: FromBoard, transfer: Transferable[] = []): void =>
  (self as unknown as Worker).postMessage(message, transfer);
const FRAME_MS = 33;
const maps = new Map<number, (string | null)[]>();
let ring: Ring | undefined;
let board: StandIn | undefined;
let wall0 = 0;
let sent = 0;
let speed = 1;
let stopNext = false;
/** it waits for the word to set off: it does not hurry on */
let waited = false;
const pace = (): number => (waited ? Math.min(1, speed) : speed);
/** where a text that is rehearsed stops, and up to when it goes as fast as it can */
let list: Stop[] = [];
let first: Go = 'on';
let stops: Stops | undefined;
let untilUs: number | undefined;
let lineNow = 0;
let resting = false;
let stopped = false;
const sleeper = typeof SharedArrayBuffer === 'undefined' ? undefined : new Int32Array(new SharedArrayBuffer(4));

function frame(bench: Bench): void {
  const delta = bench.recorder.drain();
  const pose = bench.yard.pose;
  post(
    { type: 'frame', delta, worldUs: bench.worldUs, charge: board!.charge, pose },
    buffersOf(delta) as ArrayBuffer[]
  );
}
/** At every boundary of a running program: take orders, keep to the wall clock, report now and then. */
function tick(bench: Bench): void {
  takeOrders();
  if (untilUs !== undefined) {
    if (bench.worldUs < untilUs) return;
    untilUs = undefined;
    rest(lineNow, {});
  } else if (stops?.looksAtTicks && stops.tick()) rest(lineNow, {});
  if (bench.machine.waits !== waited) {
    waited = bench.machine.waits;
    rebase(bench);
  }
  const ahead = pace() === Infinity ? 0 : bench.worldUs / 1000 / pace() - (performance.now() - wall0);
  if (ahead > 4 && sleeper) Atomics.wait(sleeper, 0, 0, ahead);
  else if (ahead < -500) rebase(bench);
  if (performance.now() - sent > FRAME_MS) {
    sent = performance.now();
    frame(bench);
  }
}
function rebase(bench: Bench): void {
  wall0 = performance.now() - bench.worldUs / 1000 / pace();
}
/** The program rests before a line until the person goes on; orders are taken meanwhile. */
function rest(line: number, values: Record<string, Value>): boolean {
  const bench = board!.benchOfRun!;
  frame(bench);
  post({ type: 'paused', line, values, why: stops?.why });
  resting = true;
  stopped = false;
  stopNext = false;
  while (resting && !stopped) {
    if (sleeper) Atomics.wait(sleeper, 0, 0, 8);
    takeOrders();
  }
  resting = false;
  rebase(bench);
  return !stopped;
}
function takeOrders(): void {
  for (let order = ring?.take(); order; order = ring?.take()) act(order as Order);
}
function act(order: Order): void {
  if (!board) return;
  switch (order.type) {
    case 'serial':
      if (board.running) {
        // a board that runs a program hears Ctrl-C and nothing else
        if (order.bytes.includes(3)) board.interrupt();
        return;
      }
      board.receive(Uint8Array.from(order.bytes));
      report();
      return;
    case 'place':
      if (!board.running) board.place = order.place;
      return;
    case 'map':
      maps.set(order.crc, order.blocks);
      return;
    case 'start': {
      if (board.running) return;
      const message = board.start();
      post({ type: 'ended', message, charge: board.charge, place: board.place });
      return;
    }
    case 'choose':
      board.choose(order.does);
      report();
      return;
    case 'press':
      if (board.running) board.press(order.button, order.down);
      return;
    case 'input':
      if (board.running) board.give(order.input);
      return;
    case 'charge':
      board.charge = order.charge;
      return;
    case 'interrupt':
      stopped = true;
      board.interrupt();
      return;
    case 'pause':
      stopNext = true;
      return;
    case 'go':
      stops?.start(order.how);
      stopNext = false;
      resting = false;
      return;
    case 'speed':
      speed = order.speed ?? Infinity;
      if (board.benchOfRun) rebase(board.benchOfRun);
      return;
    case 'stops':
      list = order.list;
      stops?.set(list);
  }
}
let before = '';
/** Tells what is on the file system, if that changed. */
function report(): void {
  if (!board) return;
  const flash = board.flash;
  const now = Object.entries(flash)
    .map(([path, data]) => `${path} ${data.length} ${data.reduce((a, b) => (a * 31 + b) | 0, 0)}`)
    .join('\n');
  if (now === before) return;
  before = now;
  post({ type: 'flash', flash, charge: board.charge });
}

self.onmessage = async ({ data }: MessageEvent<ToBoard>) => {
  if (data.type === 'boot') {
    ring = data.ring && new Ring(data.ring);
    for (const [crc, blocks] of data.maps) maps.set(crc, blocks);
    if (data.rehearsal) {
      speed = data.rehearsal.speed ?? Infinity;
      if (data.rehearsal.paused) first = 'into';
      list = data.rehearsal.stops;
      untilUs = data.rehearsal.untilUs;
    }
    board = await StandIn.boot({
      ...(data.rehearsal
        ? {
            quirks: noQuirks,
            onBattery: false,
            limitS: data.rehearsal.limitS ?? 120,
            seed: data.rehearsal.seed,
            inputs: data.rehearsal.inputs
          }
        : {}),
      serial: data.serial,
      name: data.name,
      flash: data.flash,
      firmware: data.firmware,
      rom: data.rom,
      load: loadMicroPython as unknown as LoadMicroPython,
      wasmUrl,
      blocksOf: (crc) => maps.get(crc),
      host: {
        write: (bytes) => post({ type: 'serial', bytes }, [bytes.buffer as ArrayBuffer]),
        began: (bench) => {
          wall0 = performance.now();
          sent = wall0;
          stops = new Stops(bench, () => true);
          stops.set(list);
          stops.start(first);
          post({
            type: 'began',
            header: bench.trace.header,
            specs: channelSpecs(bench.spec.kit, bench.spec.mat)
          });
        },
        chooses: (number) => post({ type: 'chooses', number }),
        shows: () => post({ type: 'shows' }),
        tick,
        pausesAt: (line, task, level) => {
          lineNow = line;
          if (untilUs !== undefined || !stops) return false;
          return stopNext || (stops.looksAtSteps && stops.before(`line ${line + 1}`, task, level));
        },
        paused: rest,
        ended: () => {
          const bench = board!.benchOfRun;
          if (bench) frame(bench);
        }
      }
    });
    if (data.charge !== undefined) board.charge = data.charge;
    before = '';
    post({ type: 'ready', charge: board.charge });
    takeOrders();
  } else if (data.type === 'ring') takeOrders();
  else act(data);
};
