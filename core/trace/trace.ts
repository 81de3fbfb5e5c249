/**
 * Everything a run recorded, on one time axis. A plain value: what a person sees, findings, goals and files are all worked
 * out from it alone. Times are whole microseconds of simulated time; channels hold one sample a millisecond.
 */
import type { Quirks } from '../kit/quirks.ts';
import type { Value } from '../language/program.ts';
import type { Input } from './inputs.ts';

export type { Input } from './inputs.ts';

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

/**
 * When blocks ran, in the order they were entered; `end` is 0 while it runs. One row is one run of a block or, in a tight
 * loop, a bundle (recorder.ts): `times` runs that followed closely on one another, from the start of the first to the end of
 * the last, of which the block itself ran for `busy` µs.
 */
export type Spans = {
  block: Uint16Array;
  task: Uint16Array;
  start: Uint32Array;
  end: Uint32Array;
  times: Uint32Array;
  busy: Uint32Array;
  count: number;
  /** of every PAGE rows the latest end and how many still run, so that what ran at a moment is found without all rows */
  latest: number[];
  open: number[];
};
export const PAGE = 256;

/** When variables got other values, one row a change. Of a list `value` is how many it holds, of text NaN; `texts` says it. */
export type Changes = {
  variable: Uint16Array;
  tUs: Uint32Array;
  value: Float64Array;
  texts: Record<number, string>;
  count: number;
};

/** `times`: it stands for so many of its kind that came within a few ms, of which it is the last (recorder.ts). */
export type TraceEvent = { tUs: number; block?: string; times?: number } & (
  | { type: 'wheels'; left: number; right: number; how: 'power' | 'brake' | 'coast' }
  /** goes on towards a heading, degrees clockwise, at so many percent */
  | { type: 'slide'; heading: number; power: number }
  | { type: 'motor'; socket: string; power: number; how: 'power' | 'brake' | 'coast' }
  | { type: 'move'; id: number; what: string; asked: number; unit: 'cm' | '°' | 's' | 'turns' }
  | { type: 'moved'; id: number; got: number; ended: 'done' | 'blocked' | 'taken over' }
  | { type: 'servo'; socket: string; angle: number }
  | { type: 'servo'; socket: string; power: number }
  | { type: 'lamp'; lamp: string; on: boolean; colour: string; level?: number }
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
  | {
      type: 'touch';
      x: number;
      y: number;
      speedCmS: number;
      what: string;
      nose: boolean;
      /** on the rim, degrees clockwise from the notch */ rim?: number;
    }
  /** let go of what it touched: for so long, with so much at the most */
  | { type: 'free'; what: string; seconds: number; newton: number }
  /** a text was longer than what the display shows at once */
  | { type: 'cut'; text: string; shown: string }
  | { type: 'tipped' }
  /** too much current burnt a bare LED */
  | { type: 'burnt'; mA: number }
  /** something is in the way of a servo's horn */
  | { type: 'stalled'; socket: string; angle: number }
  /** a message from another device */
  | { type: 'heard'; name: string; from: string }
  /** what a person did to this device, or to another one in its yard */
  | { type: 'input'; input: Input; to?: string }
  | { type: 'clipped'; what: string; asked: number; used: number }
  | { type: 'missed'; trigger: string }
  | { type: 'began'; task: number; trigger: string }
  | { type: 'error'; kind: string; message: string }
);

/** `to`: the name of another device in the yard that it is done to. */
export type TimedInput = { tUs: number; input: Input; to?: string };

export type Ended = 'done' | 'still driving' | 'time limit' | 'stopped' | 'error' | 'battery flat' | 'asleep';
/** What decides a run besides program, kit, mat and what a person does (core/run/spec.ts). */
export type Conditions = {
  seed: number;
  /** where the device stands at first, m and degrees */
  start: { x: number; y: number; facingDeg: number };
  /** longest simulated time, s */
  limitS: number;
  /** sensor noise */
  noise: boolean;
  /** the battery sags and drains; otherwise it holds its voltage */
  onBattery: boolean;
  /** goes on although there is nothing to do, until it is stopped: to look at the sensors */
  open: boolean;
  /** the device's own small faults; without them it is as its kit sheet says */
  quirks?: Quirks;
};
export type TraceHeader = {
  format: 'mossbell.trace';
  version: 2;
  name: string;
  /** who ran it: the rehearsal, or a stand-in's name */
  device: string;
  runner: 'interpreter' | 'MicroPython';
  /** `run` is of everything that was decided before it began */
  hashes: { program: string; kit: string; mat: string; run: string };
  run: Conditions;
  /** the sockets of the motors that drive the wheels */
  wheels?: { left: string; right: string };
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

type Column = Uint16Array | Uint32Array | Float64Array;
const grown = <T extends Column>(old: T, size: number): T => {
  const fresh = new (old.constructor as new (size: number) => T)(size);
  fresh.set(old);
  return fresh;
};
const SPAN_COLUMNS = ['block', 'task', 'start', 'end', 'times', 'busy'] as const;
export type SpanColumns = Pick<Spans, (typeof SPAN_COLUMNS)[number]>;
const spanColumns = (size: number): SpanColumns => ({
  block: new Uint16Array(size),
  task: new Uint16Array(size),
  start: new Uint32Array(size),
  end: new Uint32Array(size),
  times: new Uint32Array(size),
  busy: new Uint32Array(size)
});
export const emptySpans = (): Spans => ({ ...spanColumns(256), count: 0, latest: [], open: [] });
/** Spans from columns that are whole, as a file has them. */
export function spansOf(columns: SpanColumns): Spans {
  const spans: Spans = { ...columns, count: columns.block.length, latest: [], open: [] };
  for (let row = 0; row < spans.count; row++) {
    const page = Math.floor(row / PAGE);
    spans.latest[page] = Math.max(spans.latest[page] ?? 0, spans.end[row]);
    spans.open[page] = (spans.open[page] ?? 0) + (spans.end[row] === 0 ? 1 : 0);
  }
  return spans;
}
/** Copies of rows, to be sent or written. */
export const cutSpans = (spans: Spans, from = 0): SpanColumns =>
  Object.fromEntries(SPAN_COLUMNS.map((c) => [c, spans[c].slice(from, spans.count)])) as SpanColumns;

/** A block is entered. @returns its row */
export function pushSpan(spans: Spans, block: number, task: number, start: number): number {
  if (spans.count === spans.block.length)
    for (const c of SPAN_COLUMNS) (spans[c] as Column) = grown(spans[c] as Column, spans.count * 2);
  const row = spans.count++;
  spans.block[row] = block;
  spans.task[row] = task;
  spans.start[row] = start;
  spans.end[row] = 0;
  spans.times[row] = 1;
  spans.busy[row] = 0;
  const page = Math.floor(row / PAGE);
  spans.latest[page] ??= 0;
  spans.open[page] = (spans.open[page] ?? 0) + 1;
  return row;
}
/** What a row comes to: its end (0 while it runs), how many runs it stands for, and how long they took. */
export function putSpan(spans: Spans, row: number, end: number, times: number, busy: number): void {
  const page = Math.floor(row / PAGE);
  spans.open[page] += (end === 0 ? 1 : 0) - (spans.end[row] === 0 ? 1 : 0);
  if (end > spans.latest[page]) spans.latest[page] = end;
  spans.end[row] = end;
  spans.times[row] = times;
  spans.busy[row] = busy;
}

export const emptyChanges = (): Changes => ({
  variable: new Uint16Array(64),
  tUs: new Uint32Array(64),
  value: new Float64Array(64),
  texts: {},
  count: 0
});
export function pushChange(changes: Changes, variable: number, tUs: number, value: number, text?: string): void {
  if (changes.count === changes.tUs.length)
    for (const c of ['variable', 'tUs', 'value'] as const)
      (changes[c] as Column) = grown(changes[c] as Column, changes.count * 2);
  const row = changes.count++;
  changes.variable[row] = variable;
  putChange(changes, row, tUs, value, text);
}
export function putChange(changes: Changes, row: number, tUs: number, value: number, text?: string): void {
  changes.tUs[row] = tUs;
  changes.value[row] = value;
  if (text !== undefined) changes.texts[row] = text;
  else if (row in changes.texts) delete changes.texts[row];
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
