/**
 * Everything a run recorded, on one time axis. A plain value: what a person sees, findings, goals and files are all worked
 * out from it alone. Times are whole microseconds of simulated time; channels hold one sample a millisecond.
 */
import type { Value } from '../language/program.ts';

/** One sample a tick, whole numbers times `scale`, in chunks of a second; a chunk that never changes is one number. */
export type Chunk = Int16Array | Int32Array | number;
export const CHUNK = 1000;
export type ChannelSpec = {
  key: string;
  title: string;
  unit: string;
  scale: number;
  wide?: boolean;
};
export type Channel = ChannelSpec & {
  chunks: Chunk[];
  /** smallest and largest of each chunk */ low: number[];
  high: number[];
};

/** When blocks ran, one row a block entered, in the order they were entered. `end` is 0 while it runs. */
export type Spans = { block: Uint16Array; task: Uint16Array; start: Uint32Array; end: Uint32Array; count: number };

/** When variables got other values, one row a change. Of a list `value` is how many it holds, of text NaN; `texts` says it. */
export type Changes = {
  variable: Uint16Array;
  tUs: Uint32Array;
  value: Float64Array;
  texts: Record<number, string>;
  count: number;
};

export type TraceEvent = { tUs: number; block?: string } & (
  | { type: 'wheels'; left: number; right: number; how: 'power' | 'brake' | 'coast' }
  | { type: 'motor'; socket: string; power: number; how: 'power' | 'brake' | 'coast' }
  | { type: 'move'; id: number; what: string; asked: number; unit: 'cm' | '°' | 's' | 'turns' }
  | { type: 'moved'; id: number; got: number; ended: 'done' | 'blocked' | 'taken over' }
  | { type: 'servo'; socket: string; angle: number }
  | { type: 'servo'; socket: string; power: number }
  | { type: 'lamp'; lamp: 'left' | 'right'; on: boolean; colour: string; level?: number }
  | { type: 'display'; picture: string }
  /** without seconds until told otherwise; 0 Hz is silence */
  | { type: 'tone'; hertz: number; seconds?: number }
  | { type: 'volume'; percent: number }
  | { type: 'speech'; text: string }
  | { type: 'message'; name: string; nearby: boolean }
  | { type: 'plot'; name: string; value: number }
  | { type: 'mark'; text: string }
  /** all is prepared: the device waits for the word to set off */
  | { type: 'ready' }
  | { type: 'log'; text: string }
  | { type: 'touch'; x: number; y: number; speedCmS: number; what: string; nose: boolean }
  | { type: 'tipped' }
  /** too much current burnt a bare LED */
  | { type: 'burnt'; mA: number }
  /** something is in the way of a servo's horn */
  | { type: 'stalled'; socket: string; angle: number }
  /** a message from another device */
  | { type: 'heard'; name: string; from: string }
  | { type: 'input'; input: Input }
  | { type: 'clipped'; what: string; asked: number; used: number }
  | { type: 'missed'; trigger: string }
  | { type: 'began'; task: number; trigger: string }
  | { type: 'error'; kind: string; message: string }
);

/** What a person did during a run; the same shape as a line of an inputs file, whose `t` is in seconds. */
export type Input =
  | { press: 'Dot' | 'Bar' }
  | { release: 'Dot' | 'Bar' }
  | { nose: boolean }
  | { key: string; down: boolean }
  | { edge: 'left' | 'right'; touched: boolean }
  /** -100 to 100 % */
  | { stick: string; at: number }
  /** degrees: sideways to the right, forwards away from the person, turned clockwise */
  | { lean: { sideways?: number; forwards?: number; turned?: number } }
  /** seconds */
  | { shake: number }
  /** cm */
  | { toss: number }
  /** what it is like where the device is held: light and moisture 0 to 100, temperature in degrees Celsius */
  | { around: { light?: number; temperature?: number; moisture?: number } }
  | { message: string }
  /** a hand lifts the device, carries it (cm, degrees clockwise from up), sets it down */
  | { lift: boolean }
  | { carry: { x: number; y: number; facing: number } }
  /** a push: newtons ahead and to the right, newton centimetres clockwise, seconds */
  | { push: { ahead?: number; right?: number; turn?: number; seconds: number } }
  /** let fall from so many cm */
  | { drop: number }
  /** its foot stuck into the soil, or pulled out */
  | { soil: boolean }
  /** the person's word to set off */
  | { word: true }
  /** a variable changed by hand while the run was paused, by its name */
  | { set: { variable: string; to: number | string } };
export type TimedInput = { tUs: number; input: Input };

export type Ended = 'done' | 'still driving' | 'time limit' | 'stopped' | 'error' | 'battery flat' | 'asleep';
export type TraceHeader = {
  format: 'mossbell.trace';
  version: 1;
  name: string;
  /** who ran it: the rehearsal, or a stand-in's name */
  device: string;
  runner: 'interpreter' | 'MicroPython';
  seed: number;
  hashes: { program: string; kit: string; mat: string };
  start: { x: number; y: number; facingDeg: number };
  /** block ids; spans refer to them by index */
  blocks: string[];
};
export type Trace = {
  header: TraceHeader;
  channels: Channel[];
  /** ticks recorded */
  ticks: number;
  spans: Spans;
  /** names of the variables that changed, in the order they first did; `changes` refers to them by index */
  names: string[];
  changes: Changes;
  events: TraceEvent[];
  ended?: Ended;
  /** variables as they are at the end, by id */
  variables: Record<string, Value>;
};

export const emptySpans = (): Spans => ({
  block: new Uint16Array(256),
  task: new Uint16Array(256),
  start: new Uint32Array(256),
  end: new Uint32Array(256),
  count: 0
});

export const emptyChanges = (): Changes => ({
  variable: new Uint16Array(64),
  tUs: new Uint32Array(64),
  value: new Float64Array(64),
  texts: {},
  count: 0
});
export function pushChange(changes: Changes, variable: number, tUs: number, value: number, text?: string): void {
  if (changes.count === changes.tUs.length) {
    const size = changes.count * 2;
    const grow = <T extends Uint16Array | Uint32Array | Float64Array>(old: T, fresh: T): T => (fresh.set(old), fresh);
    changes.variable = grow(changes.variable, new Uint16Array(size));
    changes.tUs = grow(changes.tUs, new Uint32Array(size));
    changes.value = grow(changes.value, new Float64Array(size));
  }
  const row = changes.count++;
  changes.variable[row] = variable;
  changes.tUs[row] = tUs;
  changes.value[row] = value;
  if (text !== undefined) changes.texts[row] = text;
}

export function pushSpan(spans: Spans, block: number, task: number, start: number, end = 0): number {
  if (spans.count === spans.block.length) {
    const grow = <T extends Uint16Array | Uint32Array>(old: T, fresh: T): T => (fresh.set(old), fresh);
    const size = spans.count * 2;
    spans.block = grow(spans.block, new Uint16Array(size));
    spans.task = grow(spans.task, new Uint16Array(size));
    spans.start = grow(spans.start, new Uint32Array(size));
    spans.end = grow(spans.end, new Uint32Array(size));
  }
  const row = spans.count++;
  spans.block[row] = block;
  spans.task[row] = task;
  spans.start[row] = start;
  spans.end[row] = end;
  return row;
}
export const channel = (trace: Trace, key: string): Channel | undefined => trace.channels.find((c) => c.key === key);
export const endUs = (trace: Trace): number => trace.ticks * 1000;

/** A trace with nothing in it yet. */
export const emptyTrace = (header: TraceHeader, specs: readonly ChannelSpec[]): Trace => ({
  header,
  channels: specs.map((spec): Channel => ({ ...spec, chunks: [], low: [], high: [] })),
  ticks: 0,
  spans: emptySpans(),
  names: [],
  changes: emptyChanges(),
  events: [],
  variables: {}
});
