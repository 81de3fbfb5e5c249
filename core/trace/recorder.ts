/** Writes a trace while a run goes on, and hands out what is new since it was last asked, for drawing live. */
import { isPicture, type Value } from '../language/program.ts';
import { show } from '../language/values.ts';
import {
  CHUNK,
  emptyTrace,
  pushChange,
  pushSpan,
  type Channel,
  type ChannelSpec,
  type Chunk,
  type Ended,
  type Trace,
  type TraceEvent,
  type TraceHeader
} from './trace.ts';

/** New samples of every channel, new spans and events, ends of older spans. Everything in it can be transferred. */
export type Delta = {
  fromTick: number;
  ticks: number;
  /** one array a channel, in the order of the trace's channels */
  samples: Int32Array[];
  spans: { block: Uint16Array; task: Uint16Array; start: Uint32Array; end: Uint32Array };
  /** rows that ended since, and when */
  ends: Uint32Array;
  events: TraceEvent[];
  names: string[];
  changes: { variable: Uint16Array; tUs: Uint32Array; value: Float64Array; texts: Record<number, string> };
  ended?: Ended;
};

/** Beyond so many changes, those within one tick are one. */
const EVERY_CHANGE = 200_000;
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
  private sentTicks = 0;
  private sentSpans = 0;
  private sentEvents = 0;
  private readonly endedRows: number[] = [];
  private sentChanges = 0;
  private readonly nameIndex = new Map<string, number>();
  /** of each variable, by its place in `names`: the row of its newest change */
  private readonly newest: number[] = [];

  constructor(header: TraceHeader, specs: readonly ChannelSpec[]) {
    this.trace = emptyTrace(header, specs);
    this.inverse = Float64Array.from(specs, (s) => 1 / s.scale);
    this.open = this.trace.channels.map(fresh);
  }

  /** One sample for every channel, in their order, in their units. */
  sample(values: Float64Array): void {
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

  begin(block: number, task: number, tUs: number): number {
    return pushSpan(this.trace.spans, block, task, tUs);
  }
  end(row: number, tUs: number): void {
    this.trace.spans.end[row] = tUs;
    if (row < this.sentSpans) this.endedRows.push(row, tUs);
  }
  event(event: TraceEvent): void {
    this.trace.events.push(event);
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
    if (
      changes.count > EVERY_CHANGE &&
      row >= this.sentChanges &&
      Math.floor(changes.tUs[row] / 1000) === Math.floor(tUs / 1000)
    ) {
      changes.value[row] = value;
      if (text !== undefined) changes.texts[row] = text;
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
    const { trace } = this;
    const from = this.sentTicks;
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
    const { spans } = trace;
    const cut = <T extends Uint16Array | Uint32Array>(a: T): T => a.slice(this.sentSpans, spans.count) as T;
    const { changes } = trace;
    const cutChanges = <T extends Uint16Array | Uint32Array | Float64Array>(a: T): T =>
      a.slice(this.sentChanges, changes.count) as T;
    const texts: Record<number, string> = {};
    for (let row = this.sentChanges; row < changes.count; row++)
      if (row in changes.texts) texts[row] = changes.texts[row];
    const delta: Delta = {
      fromTick: from,
      ticks: trace.ticks,
      samples,
      spans: { block: cut(spans.block), task: cut(spans.task), start: cut(spans.start), end: cut(spans.end) },
      ends: Uint32Array.from(this.endedRows),
      events: trace.events.slice(this.sentEvents),
      names: trace.names.slice(),
      changes: {
        variable: cutChanges(changes.variable),
        tUs: cutChanges(changes.tUs),
        value: cutChanges(changes.value),
        texts
      },
      ended: trace.ended
    };
    this.sentTicks = trace.ticks;
    this.sentSpans = spans.count;
    this.sentEvents = trace.events.length;
    this.sentChanges = changes.count;
    this.endedRows.length = 0;
    return delta;
  }
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
    const { block, task, start, end } = delta.spans;
    for (let i = 0; i < delta.ends.length; i += 2) trace.spans.end[delta.ends[i]] = delta.ends[i + 1];
    for (let i = 0; i < block.length; i++) pushSpan(trace.spans, block[i], task[i], start[i], end[i]);
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
    for (const event of delta.events) trace.events.push(event);
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
