/**
 * A run as a file: JSON lines, so that a file that was cut short still opens as far as it goes. The first line says what it
 * is, then come the project that ran, blocks, variables, events and channels, and a last line that says it is whole.
 * Columns of numbers are little-endian bytes, compressed with gzip (RFC 1952), as base64 (RFC 4648).
 */
import { gunzipSync, gzipSync } from 'fflate';
import * as z from 'zod';
import { base64Of, bytesOf } from '../bytes.ts';
import { checkProject, type Project } from '../project.ts';
import { predictionSchema, type Prediction } from '../predict.ts';
import { say } from '../words.ts';
import { CHUNK, emptyTrace, pushChange, type Channel, type Ended, type Trace, type TraceEvent } from './trace.ts';

export const RUN_VERSION = 1;
export const LARGEST_RUN = 256 * 1024 * 1024;
const EVENTS_A_LINE = 2000;
const LONGEST_TICKS = 3_600_000;

const header = z.object({
  format: z.literal('mossbell.trace'),
  version: z.number(),
  name: z.string(),
  device: z.string(),
  runner: z.enum(['interpreter', 'MicroPython']),
  seed: z.number(),
  hashes: z.object({ program: z.string(), kit: z.string(), mat: z.string() }),
  start: z.object({ x: z.number(), y: z.number(), facingDeg: z.number() }),
  blocks: z.array(z.string())
});
const head = z.object({
  format: z.literal('mossbell.run'),
  version: z.number(),
  name: z.string().max(120),
  at: z.string().optional(),
  kind: z.enum(['rehearsal', 'device']),
  header,
  ticks: z.number().int().min(0).max(LONGEST_TICKS),
  ended: z.string().optional(),
  channels: z.number().int(),
  events: z.number().int(),
  names: z.array(z.string())
});
const event = z.looseObject({ tUs: z.number().min(0), type: z.string(), block: z.string().optional() });
const columns = z.object({ block: z.string(), task: z.string(), start: z.string(), end: z.string() });
const changeColumns = z.object({
  variable: z.string(),
  tUs: z.string(),
  value: z.string(),
  texts: z.record(z.string(), z.string())
});
const channelLine = z.object({
  channel: z.object({
    key: z.string(),
    title: z.string(),
    unit: z.string(),
    scale: z.number(),
    wide: z.boolean().optional()
  }),
  samples: z.string()
});

/** A run that is kept, as a list has it. */
export type RunCard = {
  id: string;
  at: number;
  name: string;
  kind: 'rehearsal' | 'device';
  device: string;
  ended: string;
  ms: number;
  pinned: boolean;
};
export type RunFile = {
  predictions?: readonly Prediction[];
  name: string;
  at?: string;
  kind: 'rehearsal' | 'device';
  project?: Project;
  trace: Trace;
};
const bytes = (a: Uint16Array | Uint32Array | Int32Array | Float64Array): Uint8Array =>
  new Uint8Array(a.buffer, a.byteOffset, a.byteLength);
const packed = (a: Uint16Array | Uint32Array | Int32Array | Float64Array): string =>
  base64Of(gzipSync(bytes(a), { mtime: 0, level: 3 }));
const unpacked = (text: string): ArrayBuffer => {
  const raw = gunzipSync(bytesOf(text));
  return raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength) as ArrayBuffer;
};

/** @param whole with channels and blocks; without them the file has what makes the run again, and its events */
export function writeRun({ name, at, kind, project, trace, predictions }: RunFile, whole = true): string {
  const { spans, changes } = trace;
  const lines: unknown[] = [
    {
      format: 'mossbell.run',
      version: RUN_VERSION,
      name,
      ...(at ? { at } : {}),
      kind,
      header: trace.header,
      ticks: whole ? trace.ticks : 0,
      ...(trace.ended ? { ended: trace.ended } : {}),
      channels: whole ? trace.channels.length : 0,
      events: trace.events.length,
      names: trace.names
    },
    ...(project ? [{ project }] : []),
    ...(predictions?.length ? [{ predictions }] : [])
  ];
  for (let i = 0; i < trace.events.length; i += EVENTS_A_LINE)
    lines.push({ events: trace.events.slice(i, i + EVENTS_A_LINE) });
  if (whole) {
    const cut = <T extends Uint16Array | Uint32Array>(a: T): T => a.slice(0, spans.count) as T;
    lines.push({
      spans: {
        block: packed(cut(spans.block)),
        task: packed(cut(spans.task)),
        start: packed(cut(spans.start)),
        end: packed(cut(spans.end))
      }
    });
    lines.push({
      changes: {
        variable: packed(changes.variable.slice(0, changes.count)),
        tUs: packed(changes.tUs.slice(0, changes.count)),
        value: packed(changes.value.slice(0, changes.count)),
        texts: changes.texts
      }
    });
    for (const c of trace.channels) {
      const { key, title, unit, scale, wide } = c;
      lines.push({
        channel: { key, title, unit, scale, ...(wide ? { wide } : {}) },
        samples: packed(steps(c, trace.ticks))
      });
    }
  }
  lines.push({ end: true });
  return lines.map((l) => JSON.stringify(l)).join('\n') + '\n';
}
/** Samples as differences from one to the next, which pack small. */
function steps(c: Channel, ticks: number): Int32Array {
  const out = new Int32Array(ticks);
  let before = 0;
  for (let t = 0; t < ticks; t++) {
    const chunk = c.chunks[Math.floor(t / CHUNK)];
    const v = typeof chunk === 'number' ? chunk : chunk[t % CHUNK];
    out[t] = v - before;
    before = v;
  }
  return out;
}
function putSamples(c: Channel, diffs: Int32Array, ticks: number): void {
  let v = 0;
  for (let from = 0; from < ticks; from += CHUNK) {
    const count = Math.min(CHUNK, ticks - from);
    const chunk = c.wide ? new Int32Array(count) : new Int16Array(count);
    let low = Infinity;
    let high = -Infinity;
    for (let k = 0; k < count; k++) {
      v += diffs[from + k] ?? 0;
      chunk[k] = v;
      if (chunk[k] < low) low = chunk[k];
      if (chunk[k] > high) high = chunk[k];
    }
    c.low.push(low);
    c.high.push(high);
    c.chunks.push(low === high ? low : chunk);
  }
}

export type RunRead =
  | { ok: true; run: RunFile; /** what could not be read, in sentences */ missing: string[] }
  | { ok: false; problem: string };

/** Opens what it can. @param name how to call the file in a message */
export function readRun(text: string, name = 'This file'): RunRead {
  const no = (problem: string): RunRead => ({ ok: false, problem });
  if (text.length > LARGEST_RUN)
    return no(
      say('{name} is {round} MB long. A run is at most 256 MB.', { name, round: Math.round(text.length / 1e6) })
    );
  const lines = text.split('\n').filter((l) => l.trim());
  let first: unknown;
  try {
    first = JSON.parse(lines[0] ?? '');
  } catch {
    return no(
      say('{name} is not a run: its first line is not JSON. Choose a file that ends in .mossbell-run.jsonl.', { name })
    );
  }
  const version = (first as { format?: unknown; version?: unknown } | null)?.version;
  if ((first as { format?: unknown } | null)?.format !== 'mossbell.run')
    return no(
      say('{name} is JSON, but not a run of Moss Bell. Choose a file that ends in .mossbell-run.jsonl.', { name })
    );
  if (typeof version === 'number' && version > RUN_VERSION)
    return no(
      say(
        '{name} was written by a newer Moss Bell (run format {version}; this one reads up to {RUN_VERSION}). Update Moss Bell to open it.',
        {
          name,
          version,
          RUN_VERSION
        }
      )
    );
  const read = head.safeParse(first);
  if (!read.success) {
    const [issue] = read.error.issues;
    return no(
      say('{name} cannot be opened: its first line is wrong at "{place}".', {
        name,
        place: issue.path.join('.') || 'the top'
      })
    );
  }
  const h = read.data;
  const trace: Trace = { ...emptyTrace(h.header as Trace['header'], []), ticks: h.ticks, names: h.names };
  if (h.ended) trace.ended = h.ended as Ended;
  const missing: string[] = [];
  let project: Project | undefined;
  let predictions: Prediction[] | undefined;
  let whole = false;
  let wrong = 0;
  for (const line of lines.slice(1)) {
    try {
      const value = JSON.parse(line) as Record<string, unknown>;
      if ('end' in value) whole = true;
      else if ('predictions' in value) predictions = z.array(predictionSchema).max(200).parse(value.predictions);
      else if ('project' in value) {
        const checked = checkProject(value.project, name);
        if (checked.ok) project = checked.project;
        else missing.push(checked.problem);
      } else if ('events' in value) {
        for (const e of value.events as unknown[])
          if (event.safeParse(e).success) trace.events.push(e as TraceEvent);
          else wrong++;
      } else if ('spans' in value) {
        const c = columns.parse(value.spans);
        const block = new Uint16Array(unpacked(c.block));
        trace.spans = {
          block,
          task: new Uint16Array(unpacked(c.task)),
          start: new Uint32Array(unpacked(c.start)),
          end: new Uint32Array(unpacked(c.end)),
          count: block.length
        };
      } else if ('changes' in value) {
        const c = changeColumns.parse(value.changes);
        const [variable, tUs, numbers] = [
          new Uint16Array(unpacked(c.variable)),
          new Uint32Array(unpacked(c.tUs)),
          new Float64Array(unpacked(c.value))
        ];
        for (let i = 0; i < variable.length; i++)
          pushChange(trace.changes, variable[i], tUs[i], numbers[i], c.texts[i]);
      } else if ('channel' in value) {
        const { channel: spec, samples } = channelLine.parse(value);
        const c: Channel = { ...spec, chunks: [], low: [], high: [] };
        putSamples(c, new Int32Array(unpacked(samples)), h.ticks);
        trace.channels.push(c);
      }
    } catch {
      wrong++;
    }
  }
  if (!whole) missing.push(say('{name} was cut short: what is after the cut is missing.', { name }));
  else if (wrong)
    missing.push(say('{n, plural, one {# line} other {# lines}} of {name} could not be read.', { n: wrong, name }));
  if (trace.channels.length < h.channels)
    missing.push(
      say('{have} of {all} channels are there: {n, plural, one {# lane is} other {# lanes are}} empty.', {
        have: trace.channels.length,
        all: h.channels,
        n: h.channels - trace.channels.length
      })
    );
  if (trace.events.length < h.events)
    missing.push(say('{have} of {all} events are there.', { have: trace.events.length, all: h.events }));
  // a place on the axis without a single channel would be a half-broken screen
  if (!trace.channels.length && h.channels > 0 && !project)
    return no(say('{name} was cut short before anything of the run came: there is nothing to show.', { name }));
  if (trace.spans.block.some((i) => i >= trace.header.blocks.length)) {
    trace.spans.count = 0;
    missing.push(say('Its blocks could not be read: the Blocks lane is empty.'));
  }
  return {
    ok: true,
    run: { name: h.name, at: h.at, kind: h.kind, project, trace, ...(predictions ? { predictions } : {}) },
    missing
  };
}
