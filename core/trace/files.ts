/** A trace as bytes and as text. */
import Papa from 'papaparse';
import { joined, utf8 } from '../bytes.ts';
import { sampleAt } from './query.ts';
import { told } from './compare.ts';
import { CHUNK, cutSpans, type Trace, type TraceEvent } from './trace.ts';

/**
 * CSV as RFC 4180 has it: one header row, CRLF, one row every `everyMs` of simulated time; only those between two times (µs),
 * if asked. Channels with their units; then what holds at that moment (variables, plots, lamps, display, tone), and last what
 * was said since the row before (messages, marks, log).
 */
export function traceCsv(trace: Trace, everyMs = 10, between?: readonly [number, number]): string {
  const { events, changes, names, channels } = trace;
  const held = new Map<string, string | number>();
  for (const name of names) held.set(`variable ${name}`, '');
  const kept = (e: TraceEvent): [string, string | number] | undefined => {
    if (e.type === 'plot') return [`plot ${e.name}`, tidy(e.value)];
    if (e.type === 'lamp') return [`lamp ${e.lamp}`, e.on ? e.colour : 'off'];
    if (e.type === 'display') return ['display', e.picture];
    return e.type === 'tone' ? ['tone_hz', e.hertz] : undefined;
  };
  for (const e of events) {
    const to = kept(e);
    if (to) held.set(to[0], '');
  }
  // a tone that is given a time ends by itself
  let silentUs = Infinity;
  const said = (['message', 'mark', 'log'] as const).filter(
    (what) => what === 'log' || events.some((e) => e.type === what)
  );
  const fields = [
    'time_s',
    ...channels.map((c) => (c.unit ? `${c.key}_${unitWord(c.unit)}` : c.key)),
    ...held.keys(),
    ...said
  ];
  const [fromMs, toMs] = between ? [Math.floor(between[0] / 1000), Math.ceil(between[1] / 1000)] : [0, Infinity];
  const rows: (string | number)[][] = [];
  let [next, change] = [0, 0];
  for (let ms = everyMs; ms <= trace.ticks; ms += everyMs) {
    const words = said.map((): string[] => []);
    for (; next < events.length && events[next].tUs <= ms * 1000; next++) {
      const e = events[next];
      const to = kept(e);
      if (to) held.set(...to);
      if (e.type === 'tone') silentUs = e.seconds === undefined || e.hertz === 0 ? Infinity : e.tUs + e.seconds * 1e6;
      if (e.type === 'log' || e.type === 'mark') words[said.indexOf(e.type)].push(e.text);
      else if (e.type === 'message') words[said.indexOf('message')].push(e.name);
    }
    if (silentUs <= ms * 1000) {
      held.set('tone_hz', 0);
      silentUs = Infinity;
    }
    for (; change < changes.count && changes.tUs[change] <= ms * 1000; change++)
      held.set(`variable ${names[changes.variable[change]]}`, changes.texts[change] ?? tidy(changes.value[change]));
    if (ms >= fromMs && ms <= toMs)
      rows.push([
        ms / 1000,
        ...channels.map((c) => tidy(sampleAt(c, ms - 1))),
        ...held.values(),
        ...words.map((w) => w.join('\n'))
      ]);
  }
  return asCsv(fields, rows);
}
/**
 * Everything that happened, a row each: when, its kind, the block, what it was in words, and its own fields as they are in a
 * run file. @param block how to call one
 */
export function eventsCsv(trace: Trace, block: (id: string) => string = (id) => id): string {
  return asCsv(
    ['time_s', 'event', 'block', 'what', 'fields'],
    trace.events.map((e) => {
      const { tUs, type, block: by, ...fields } = e;
      return [tidy(tUs / 1e6), type, by ? block(by) : '', told(e), JSON.stringify(fields)];
    })
  );
}
const asCsv = (fields: string[], data: (string | number)[][]): string =>
  Papa.unparse({ fields, data }, { newline: '\r\n' }) + '\r\n';
const tidy = (v: number): number => Math.round(v * 1e6) / 1e6;
const unitWord = (unit: string): string =>
  ({ '%': 'percent', '°': 'deg', '°/s': 'deg_s', 'cm/s': 'cm_s' })[unit] ?? unit;

/** Every byte that a trace is made of, in one order: two runs are the same run if these are the same. */
export function traceBytes(trace: Trace): Uint8Array {
  const parts: Uint8Array[] = [
    utf8(
      JSON.stringify([
        trace.header,
        trace.ticks,
        trace.ended,
        trace.events,
        trace.variables,
        trace.names,
        trace.changes.texts
      ])
    )
  ];
  for (const c of trace.channels) {
    const samples = new Int32Array(trace.ticks);
    for (let i = 0; i < trace.ticks; i++) {
      const chunk = c.chunks[Math.floor(i / CHUNK)];
      samples[i] = typeof chunk === 'number' ? chunk : chunk[i % CHUNK];
    }
    parts.push(new Uint8Array(samples.buffer));
  }
  for (const column of Object.values(cutSpans(trace.spans))) parts.push(new Uint8Array(column.buffer));
  const { changes } = trace;
  for (const column of [changes.variable, changes.tUs, changes.value]) {
    const cut = column.slice(0, changes.count);
    parts.push(new Uint8Array(cut.buffer, cut.byteOffset, cut.byteLength));
  }
  return joined(parts);
}
/** Bytes of an event in memory, about: an object of some six fields with a text. */
const EVENT_BYTES = 160;
/** Bytes of memory that a trace takes, its events by estimate. */
export const bytesOfTrace = ({ channels, spans, changes, events }: Trace): number =>
  channels.reduce(
    (sum, c) => sum + c.chunks.reduce<number>((n, chunk) => n + (typeof chunk === 'number' ? 8 : chunk.byteLength), 0),
    0
  ) +
  [
    spans.block,
    spans.task,
    spans.start,
    spans.end,
    spans.times,
    spans.busy,
    changes.variable,
    changes.tUs,
    changes.value
  ].reduce((sum, column) => sum + column.byteLength, 0) +
  events.length * EVENT_BYTES;
