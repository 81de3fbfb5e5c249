/**
 * Writes a trace while a run goes on, and hands out what is new since it was last asked, for drawing live.
 *
 * A loop without a wait does ten thousand steps a second. So that ten minutes of it stay small, what comes too often for
 * anyone to tell apart is bundled, by the run alone (never by when it is drained: a trace is the same everywhere):
 * - of a block that has run APART times, runs that take and leave less than TIGHT_US are one row of at most BUNDLE_US;
 * - of a kind of event that came EVERY_EVENT times, those within WINDOW_US are one, the last, with how many it stands for;
 * - beyond EVERY_CHANGE changes of variables, those of one variable within WINDOW_US are one, the last.
 */
import { isPicture, type Value } from '../language/program.ts';
import { show } from '../language/values.ts';
import {
  CHUNK,
  cutSpans,
  emptyTrace,
  pushChange,
  pushSpan,
  putChange,
  putSpan,
  type Channel,
  type ChannelSpec,
  type Chunk,
  type Ended,
  type SpanColumns,
  type Trace,
  type TraceEvent,
  type TraceHeader
} from './trace.ts';

/** New samples of every channel, new spans, changes and events, and what became of older ones. Its arrays can be transferred. */
export type Delta = {
  fromTick: number;
  ticks: number;
  /** one array a channel, in the order of the trace's channels */
  samples: Int32Array[];
  spans: SpanColumns;
  /** rows that were handed out before: row, end, times, busy */
  olderSpans: Uint32Array;
  events: TraceEvent[];
  olderEvents: [number, TraceEvent][];
  names: string[];
  changes: { variable: Uint16Array; tUs: Uint32Array; value: Float64Array; texts: Record<number, string> };
  olderChanges: { row: number; tUs: number; value: number; text?: string }[];
  ended?: Ended;
};
export const buffersOf = (delta: Delta): ArrayBufferLike[] => [
  ...delta.samples.map((s) => s.buffer),
  ...Object.values(delta.spans).map((c) => c.buffer),
  delta.olderSpans.buffer,
  delta.changes.variable.buffer,
  delta.changes.tUs.buffer,
  delta.changes.value.buffer
];

const APART = 200;
const TIGHT_US = 5_000;
const BUNDLE_US = 20_000;
const EVERY_EVENT = 20_000;
const EVERY_CHANGE = 100_000;
const WINDOW_US = 10_000;
const window = (tUs: number): number => Math.floor(tUs / WINDOW_US);
/** What a person did, moves and errors are kept one by one: the run is made again from them, and each is told. */
const ONE_BY_ONE: ReadonlySet<TraceEvent['type']> = new Set([
  'input',
  'move',
  'moved',
  'error',
  'touch',
  'free',
  'ready'
]);
/** Events of one kind that speak of different things are not bundled with one another. */
const subject = (e: TraceEvent): string => {
  switch (e.type) {
    case 'motor':
    case 'servo':
    case 'stalled':
      return `${e.type} ${e.socket}`;
    case 'lamp':
      return `lamp ${e.lamp}`;
    case 'plot':
    case 'message':
    case 'heard':
      return `${e.type} ${e.name}`;
    case 'began':
    case 'missed':
      return `${e.type} ${e.trigger} ${e.block ?? ''}`;
    case 'clipped':
      return `clipped ${e.what} ${e.block ?? ''}`;
    default:
      return e.type;
  }
};
/** Of a list or a text so much is kept. */
const SHOWN_ITEMS = 20;
const SHOWN_LETTERS = 120;
/** A number to draw, and what is said of anything that is not a number. */
export function recorded(value: Value, length?: number): { value: number; text?: string } {
  if (typeof value === 'number') return { value };
  if (typeof value === 'boolean') return { value: value ? 1 : 0, text: show(value) };
  if (Array.isArray(value)) {
    const all = length ?? value.length;
    const text = show(value.slice(0, SHOWN_ITEMS));
    const more = all - SHOWN_ITEMS;
    return { value: all, text: more > 0 ? `${text.slice(0, -1)}, … +${more}]` : text };
  }
  const text = isPicture(value) ? value.picture : value;
  return { value: Number.NaN, text: text.length > SHOWN_LETTERS ? `${text.slice(0, SHOWN_LETTERS)}…` : text };
}

export class Recorder {
  readonly trace: Trace;
  private open: (Int16Array | Int32Array)[];
  private readonly inverse: Float64Array;
  private fill = 0;
  private readonly sent = { ticks: 0, spans: 0, events: 0, changes: 0 };
  /** rows and events that were handed out and are other now */
  private readonly older = { spans: new Set<number>(), events: new Set<number>(), changes: new Set<number>() };
  /** of each block, by its index: its newest row, how many it has, and when its newest run began */
  private readonly rows: Int32Array;
  private readonly ran: Uint32Array;
  private readonly beganUs: Float64Array;
  /** of each subject of events: how many there were, and where the newest is */
  private readonly events = new Map<string, { count: number; newest: number }>();
  private readonly nameIndex = new Map<string, number>();
  /** of each variable, by its place in `names`: the row of its newest change */
  private readonly newest: number[] = [];

  constructor(header: TraceHeader, specs: readonly ChannelSpec[]) {
    this.trace = emptyTrace(header, specs);
    this.inverse = Float64Array.from(specs, (s) => 1 / s.scale);
    this.open = this.trace.channels.map(fresh);
    this.rows = new Int32Array(header.blocks.length).fill(-1);
    this.ran = new Uint32Array(header.blocks.length);
    this.beganUs = new Float64Array(header.blocks.length);
  }

  /** One sample for every channel, in their order, in their units. */
  sample(values: Float64Array): void {
    if (this.trace.ended) throw new Error('A run that is over records nothing.');
    const { open, inverse, fill } = this;
    for (let c = 0; c < open.length; c++) open[c][fill] = Math.round(values[c] * inverse[c]);
    this.trace.ticks++;
    if (++this.fill === CHUNK) this.close();
  }
  private close(): void {
    const { channels } = this.trace;
    for (let c = 0; c < channels.length; c++) closeChunk(channels[c], this.open[c].subarray(0, this.fill));
    this.open = channels.map(fresh);
    this.fill = 0;
  }

  /** A block is entered. @returns the row to be ended */
  begin(block: number, task: number, tUs: number): number {
    const { spans } = this.trace;
    const row = this.rows[block];
    const before = row >= 0 ? spans.end[row] : 0;
    const tight =
      before > 0 &&
      this.ran[block] >= APART &&
      spans.task[row] === task &&
      tUs - before <= TIGHT_US &&
      before - this.beganUs[block] <= TIGHT_US &&
      tUs - spans.start[row] <= BUNDLE_US;
    this.beganUs[block] = tUs;
    if (tight) {
      putSpan(spans, row, 0, spans.times[row] + 1, spans.busy[row]);
      if (row < this.sent.spans) this.older.spans.add(row);
      return row;
    }
    this.ran[block]++;
    return (this.rows[block] = pushSpan(spans, block, task, tUs));
  }
  end(row: number, tUs: number): void {
    const { spans } = this.trace;
    const block = spans.block[row];
    // a block inside itself (a routine that does itself) is no bundle: its row is its own
    const began = this.rows[block] === row ? this.beganUs[block] : spans.start[row];
    putSpan(spans, row, tUs, spans.times[row], spans.busy[row] + tUs - began);
    if (row < this.sent.spans) this.older.spans.add(row);
  }
  event(event: TraceEvent): void {
    const { events } = this.trace;
    if (!ONE_BY_ONE.has(event.type)) {
      const key = subject(event);
      const known = this.events.get(key);
      if (!known) this.events.set(key, { count: 1, newest: events.length });
      else {
        const newest = events[known.newest];
        if (++known.count > EVERY_EVENT && window(newest.tUs) === window(event.tUs)) {
          // its place in the order of time stays
          become(newest, { ...event, tUs: newest.tUs, times: (newest.times ?? 1) + 1 });
          if (known.newest < this.sent.events) this.older.events.add(known.newest);
          return;
        }
        known.newest = events.length;
      }
    }
    events.push(event);
  }
  /** A variable got a value. @param length of a list that is not here as a whole: how many it holds */
  change(name: string, tUs: number, of: Value, length?: number): void {
    const { names, changes } = this.trace;
    let index = this.nameIndex.get(name);
    if (index === undefined) {
      index = names.push(name) - 1;
      this.nameIndex.set(name, index);
    }
    const { value, text } = recorded(of, length);
    const row = this.newest[index];
    if (changes.count > EVERY_CHANGE && row !== undefined && window(changes.tUs[row]) === window(tUs)) {
      putChange(changes, row, changes.tUs[row], value, text);
      if (row < this.sent.changes) this.older.changes.add(row);
      return;
    }
    this.newest[index] = changes.count;
    pushChange(changes, index, tUs, value, text);
  }
  /** What a variable holds now, as the trace has it: a number or a text; undefined before it is set. */
  held(name: string): number | string | undefined {
    const row = this.newest[this.nameIndex.get(name) ?? -1];
    if (row === undefined) return undefined;
    const { changes } = this.trace;
    return changes.texts[row] ?? changes.value[row];
  }
  /** Closes the last chunk: nothing can be recorded after. */
  finish(ended: Ended, tUs: number): void {
    const { spans } = this.trace;
    for (let row = 0; row < spans.count; row++) if (spans.end[row] === 0) this.end(row, tUs);
    if (this.fill > 0) {
      this.close();
    }
    this.trace.ended = ended;
  }

  /** What is new since the last call. */
  drain(): Delta {
    const { trace, sent, older } = this;
    const from = sent.ticks;
    const samples = trace.channels.map((channel, c) => {
      const out = new Int32Array(trace.ticks - from);
      for (let tick = from; tick < trace.ticks;) {
        const index = Math.floor(tick / CHUNK);
        const offset = tick - index * CHUNK;
        const chunk: Chunk = index < channel.chunks.length ? channel.chunks[index] : this.open[c];
        const count = Math.min(CHUNK - offset, trace.ticks - tick);
        if (typeof chunk === 'number') out.fill(chunk, tick - from, tick - from + count);
        else out.set(chunk.subarray(offset, offset + count), tick - from);
        tick += count;
      }
      return out;
    });
    const { spans, changes } = trace;
    const texts: Record<number, string> = {};
    for (let row = sent.changes; row < changes.count; row++) if (row in changes.texts) texts[row] = changes.texts[row];
    const delta: Delta = {
      fromTick: from,
      ticks: trace.ticks,
      samples,
      spans: cutSpans(spans, sent.spans),
      olderSpans: Uint32Array.from(
        [...older.spans].flatMap((row) => [row, spans.end[row], spans.times[row], spans.busy[row]])
      ),
      events: trace.events.slice(sent.events),
      olderEvents: [...older.events].map((i): [number, TraceEvent] => [i, trace.events[i]]),
      names: trace.names.slice(),
      changes: {
        variable: changes.variable.slice(sent.changes, changes.count),
        tUs: changes.tUs.slice(sent.changes, changes.count),
        value: changes.value.slice(sent.changes, changes.count),
        texts
      },
      olderChanges: [...older.changes].map((row) => ({
        row,
        tUs: changes.tUs[row],
        value: changes.value[row],
        text: changes.texts[row]
      })),
      ended: trace.ended
    };
    Object.assign(sent, {
      ticks: trace.ticks,
      spans: spans.count,
      events: trace.events.length,
      changes: changes.count
    });
    for (const set of Object.values(older)) set.clear();
    return delta;
  }
}

/** An event in the place of one that others hold already: nothing of what that said stays. */
function become(event: TraceEvent, now: TraceEvent): void {
  for (const key in event) if (!(key in now)) delete event[key as 'block'];
  Object.assign(event, now);
}
const fresh = (channel: ChannelSpec): Int16Array | Int32Array =>
  channel.wide ? new Int32Array(CHUNK) : new Int16Array(CHUNK);

function closeChunk(channel: Channel, samples: Int16Array | Int32Array): void {
  let low = samples[0];
  let high = low;
  for (let i = 1; i < samples.length; i++) {
    const v = samples[i];
    if (v < low) low = v;
    else if (v > high) high = v;
  }
  channel.low.push(low);
  channel.high.push(high);
  channel.chunks.push(low === high ? low : samples);
}

/** A trace that grows by deltas: the other end of `drain`. */
export class Follow {
  readonly trace: Trace;
  constructor(header: TraceHeader, specs: readonly ChannelSpec[]) {
    this.trace = emptyTrace(header, specs);
  }
  add(delta: Delta): void {
    const { trace } = this;
    delta.samples.forEach((samples, c) => append(trace.channels[c], trace.ticks, samples));
    trace.ticks = delta.ticks;
    const { olderSpans: o } = delta;
    for (let i = 0; i < o.length; i += 4) putSpan(trace.spans, o[i], o[i + 1], o[i + 2], o[i + 3]);
    const { block, task, start, end, times, busy } = delta.spans;
    for (let i = 0; i < block.length; i++) {
      const row = pushSpan(trace.spans, block[i], task[i], start[i]);
      if (end[i] || times[i] > 1) putSpan(trace.spans, row, end[i], times[i], busy[i]);
    }
    const { changes } = delta;
    trace.names = delta.names;
    for (let i = 0; i < changes.tUs.length; i++)
      pushChange(
        trace.changes,
        changes.variable[i],
        changes.tUs[i],
        changes.value[i],
        changes.texts[trace.changes.count]
      );
    for (const { row, tUs, value, text } of delta.olderChanges) putChange(trace.changes, row, tUs, value, text);
    for (const event of delta.events) trace.events.push(event);
    for (const [i, event] of delta.olderEvents) become(trace.events[i], event);
    if (delta.ended) {
      trace.ended = delta.ended;
      for (const channel of trace.channels) {
        const last = channel.chunks.length - 1;
        const rest = trace.ticks - last * CHUNK;
        const chunk = channel.chunks[last];
        if (last >= 0 && typeof chunk !== 'number' && rest < chunk.length)
          channel.chunks[last] = chunk.subarray(0, rest) as Int16Array;
      }
    }
  }
}

function append(channel: Channel, ticks: number, samples: Int32Array): void {
  for (let i = 0; i < samples.length;) {
    const tick = ticks + i;
    const index = Math.floor(tick / CHUNK);
    const offset = tick - index * CHUNK;
    if (offset === 0) {
      channel.chunks.push(fresh(channel));
      channel.low.push(samples[i]);
      channel.high.push(samples[i]);
    }
    const chunk = channel.chunks[index] as Int32Array;
    const count = Math.min(CHUNK - offset, samples.length - i);
    let low = channel.low[index];
    let high = channel.high[index];
    for (let k = 0; k < count; k++) {
      const v = samples[i + k];
      chunk[offset + k] = v;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    channel.low[index] = low;
    channel.high[index] = high;
    if (offset + count === CHUNK && low === high) channel.chunks[index] = low;
    i += count;
  }
}
