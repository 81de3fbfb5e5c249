/** A trace as bytes and as text. */
import Papa from 'papaparse';
import { joined, utf8 } from '../bytes.ts';
import { sampleAt } from './query.ts';
import { CHUNK, cutSpans, type Trace } from './trace.ts';

/** CSV as RFC 4180 has it: one header row, CRLF, one row every `everyMs` of simulated time; only those between two times (µs), if asked. */
export function traceCsv(trace: Trace, everyMs = 10, between?: readonly [number, number]): string {
  const fields = ['time_s', ...trace.channels.map((c) => (c.unit ? `${c.key}_${unitWord(c.unit)}` : c.key)), 'log'];
  const logs = trace.events.filter((e) => e.type === 'log');
  const [fromMs, toMs] = between ? [Math.floor(between[0] / 1000), Math.ceil(between[1] / 1000)] : [0, Infinity];
  const rows: (string | number)[][] = [];
  let next = 0;
  for (let ms = everyMs; ms <= trace.ticks; ms += everyMs) {
    const said: string[] = [];
    while (next < logs.length && logs[next].tUs <= ms * 1000) said.push(logs[next++].text);
    if (ms >= fromMs && ms <= toMs)
      rows.push([ms / 1000, ...trace.channels.map((c) => tidy(sampleAt(c, ms - 1))), said.join('\n')]);
  }
  return Papa.unparse({ fields, data: rows }, { newline: '\r\n' }) + '\r\n';
}
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
