/**
 * A run as a file: JSON lines, so that a file that was cut short still opens as far as it goes. The first line says what it
 * is, then come the project that ran, blocks, variables, events and channels, and a last line that says it is whole.
 * Columns of numbers are little-endian bytes, compressed with gzip (RFC 1952), as base64 (RFC 4648).
 */
import * as z from 'zod';
import { base64Of, bytesOf, unzipped, zipped } from '../bytes.ts';
import type { BoardName } from '../kit/boards.ts';
import { boardBefore, placedQuirks, renewedSocket } from '../kit/before.ts';
import { renewedPicture } from '../kit/repaint.ts';
import { quirksSchema } from '../kit/quirks.ts';
import { checkProject, type Project } from '../project.ts';
import { predictionSchema, type Prediction } from '../predict.ts';
import { parsed } from '../read.ts';
import { say } from '../words.ts';
import { inputSchema } from './inputs.ts';
import { isOfTheRun } from './track.ts';
import type { TryResult } from './tried.ts';
import {
  CHUNK,
  cutSpans,
  emptyTrace,
  pushChange,
  spansOf,
  type Channel,
  type Ended,
  type Trace,
  type TraceEvent
} from './trace.ts';

export const RUN_VERSION = 6;
export const LARGEST_RUN = 256 * 1024 * 1024;
const EVENTS_A_LINE = 2000;
const LONGEST_TICKS = 3_600_000;

const header = z.object({
  format: z.literal('mossbell.trace'),
  version: z.number(),
  name: z.string(),
  device: z.string(),
  runner: z.enum(['interpreter', 'MicroPython']),
  hashes: z.object({ program: z.string(), kit: z.string(), mat: z.string(), run: z.string() }),
  run: z.object({
    seed: z.number(),
    start: z.object({ x: z.number(), y: z.number(), facingDeg: z.number() }),
    limitS: z
      .number()
      .positive()
      .max(LONGEST_TICKS / 1000),
    noise: z.boolean(),
    onBattery: z.boolean(),
    open: z.boolean(),
    /** files before version 5 have them by the side of the wheel */
    quirks: z.preprocess(placedQuirks, quirksSchema).optional()
  }),
  wheels: z.object({ left: z.string(), right: z.string() }).optional(),
  blocks: z.array(z.string())
});
/** Files before version 3 have the seed and the start alone: the rest was as it always was then. */
function upgraded(first: unknown): unknown {
  const { header, kind, version } = first as Record<string, unknown>;
  if (typeof version !== 'number' || version >= 3 || typeof header !== 'object' || header === null) return first;
  const { seed, start, hashes, ...rest } = header as Record<string, unknown>;
  const device = kind === 'device';
  return {
    ...(first as object),
    header: {
      ...rest,
      version: 2,
      hashes: { run: '', ...(hashes as object) },
      run: { seed, start, limitS: device ? 600 : 120, noise: true, onBattery: device, open: false }
    }
  };
}
/** Files before version 4 call the sockets as they were called then, those before version 6 have pictures with digits. */
const SOCKETED = /^(servo|power|turns)(\w+)$/;
type Socketed = { socket?: unknown };
function renewedEvent(e: TraceEvent, version: number, board: BoardName): TraceEvent {
  if (e.type === 'display') return { ...e, picture: renewedPicture(String(e.picture)) };
  if (version >= 4) return e;
  const { socket } = e as Socketed;
  return typeof socket === 'string' ? ({ ...e, socket: renewedSocket(socket, board) } as TraceEvent) : e;
}
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
const isEvent = (e: unknown): e is TraceEvent => {
  const { data } = event.safeParse(e);
  if (!data || data.type !== 'input') return !!data;
  const input = inputSchema.safeParse(data.input);
  return input.success && (data.to === undefined || (typeof data.to === 'string' && !isOfTheRun(input.data)));
};
/** without `times` and `busy` every row is one run, as files of version 1 have it */
const columns = z.object({
  block: z.string(),
  task: z.string(),
  start: z.string(),
  end: z.string(),
  times: z.string().optional(),
  busy: z.string().optional()
});
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
  /** how wide a difference is, bits; files of version 1 have 32 */
  bits: z.union([z.literal(8), z.literal(16), z.literal(32)]).default(32),
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
  /** of a try of an errand: what came of it */
  result?: TryResult;
};
export type RunFile = {
  predictions?: readonly Prediction[];
  name: string;
  at?: string;
  kind: 'rehearsal' | 'device';
  project?: Project;
  trace: Trace;
};
type Column = Int8Array | Int16Array | Int32Array | Uint16Array | Uint32Array | Float64Array;
const bytes = (a: Column): Uint8Array => new Uint8Array(a.buffer, a.byteOffset, a.byteLength);
const packed = async (a: Column): Promise<string> => base64Of(await zipped(bytes(a)));
/** Bytes that a column of blocks or of changes comes to at the most. */
const LARGEST_COLUMN = 32 * 1024 * 1024;
const BYTES = { 8: 1, 16: 2, 32: 4 } as const;

/** @param whole with everything that was recorded; without it the file has what makes the run again: project, seed, inputs */
export async function writeRun(
  { name, at, kind, project, trace, predictions }: RunFile,
  whole = true
): Promise<string> {
  const events = whole ? trace.events : trace.events.filter((e) => e.type === 'input');
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
      events: events.length,
      names: trace.names
    },
    ...(project ? [{ project }] : []),
    ...(predictions?.length ? [{ predictions }] : [])
  ];
  for (let i = 0; i < events.length; i += EVENTS_A_LINE) lines.push({ events: events.slice(i, i + EVENTS_A_LINE) });
  if (whole) {
    const cut: Record<string, string> = {};
    for (const [name, column] of Object.entries(cutSpans(spans))) cut[name] = await packed(column);
    lines.push({ spans: cut });
    lines.push({
      changes: {
        variable: await packed(changes.variable.slice(0, changes.count)),
        tUs: await packed(changes.tUs.slice(0, changes.count)),
        value: await packed(changes.value.slice(0, changes.count)),
        texts: changes.texts
      }
    });
    for (const c of trace.channels) {
      const { key, title, unit, scale, wide } = c;
      lines.push({
        channel: { key, title, unit, scale, ...(wide ? { wide } : {}) },
        ...(await narrow(steps(c, trace.ticks)))
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
/** The narrowest column that holds every difference: most fit a byte, and unpack in a quarter of the time. */
async function narrow(diffs: Int32Array): Promise<{ bits: 8 | 16 | 32; samples: string }> {
  let most = 0;
  for (let i = 0; i < diffs.length; i++) most = Math.max(most, diffs[i] < 0 ? -diffs[i] : diffs[i]);
  if (most < 128) return { bits: 8, samples: await packed(Int8Array.from(diffs)) };
  if (most < 32_768) return { bits: 16, samples: await packed(Int16Array.from(diffs)) };
  return { bits: 32, samples: await packed(diffs) };
}
const COLUMN = { 8: Int8Array, 16: Int16Array, 32: Int32Array } as const;
/** @param diffs as many as there are ticks */
function putSamples(c: Channel, diffs: Int32Array): void {
  let v = 0;
  for (let from = 0; from < diffs.length; from += CHUNK) {
    const count = Math.min(CHUNK, diffs.length - from);
    const chunk = c.wide ? new Int32Array(count) : new Int16Array(count);
    let low = (v + diffs[from]) | 0;
    let high = low;
    for (let k = 0; k < count; k++) {
      v = (v + diffs[from + k]) | 0;
      chunk[k] = v;
      if (v < low) low = v;
      if (v > high) high = v;
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
export async function readRun(text: string, name = 'This file'): Promise<RunRead> {
  const no = (problem: string): RunRead => ({ ok: false, problem });
  if (text.length > LARGEST_RUN)
    return no(
      say('{name} is {round} MB long. A run is at most 256 MB.', { name, round: Math.round(text.length / 1e6) })
    );
  const lines = text.split('\n').filter((l) => l.trim());
  let first: unknown;
  try {
    first = parsed(lines[0] ?? '');
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
  const read = head.safeParse(upgraded(first));
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
  const board: BoardName = boardBefore(!!h.header.wheels);
  const isBefore = h.version < 4;
  if (isBefore && h.header.wheels)
    h.header.wheels = {
      left: renewedSocket(h.header.wheels.left, board),
      right: renewedSocket(h.header.wheels.right, board)
    };
  const trace: Trace = { ...emptyTrace(h.header as Trace['header'], []), ticks: h.ticks, names: h.names };
  if (h.ended) trace.ended = h.ended as Ended;
  const missing: string[] = [];
  let project: Project | undefined;
  let predictions: Prediction[] | undefined;
  let whole = false;
  let wrong = 0;
  /** bytes that its columns may still come to, all together */
  let left = LARGEST_RUN;
  const unpacked = async (packed: string, most = LARGEST_COLUMN): Promise<ArrayBuffer> => {
    const bytes = await unzipped(bytesOf(packed), Math.min(most, left));
    left -= bytes.length;
    return bytes.buffer as ArrayBuffer;
  };
  for (const line of lines.slice(1)) {
    try {
      const value = parsed(line) as Record<string, unknown>;
      if ('end' in value) whole = true;
      else if ('predictions' in value) predictions = z.array(predictionSchema).max(200).parse(value.predictions);
      else if ('project' in value) {
        const checked = checkProject(value.project, name);
        if (checked.ok) project = checked.project;
        else missing.push(checked.problem);
      } else if ('events' in value) {
        for (const e of value.events as unknown[])
          if (isEvent(e)) trace.events.push(h.version < 6 ? renewedEvent(e, h.version, board) : e);
          else wrong++;
      } else if ('spans' in value) {
        const c = columns.parse(value.spans);
        const [start, end] = [new Uint32Array(await unpacked(c.start)), new Uint32Array(await unpacked(c.end))];
        trace.spans = spansOf({
          block: new Uint16Array(await unpacked(c.block)),
          task: new Uint16Array(await unpacked(c.task)),
          start,
          end,
          times: c.times ? new Uint32Array(await unpacked(c.times)) : new Uint32Array(start.length).fill(1),
          busy: c.busy ? new Uint32Array(await unpacked(c.busy)) : end.map((us, row) => (us ? us - start[row] : 0))
        });
      } else if ('changes' in value) {
        const c = changeColumns.parse(value.changes);
        const [variable, tUs, numbers] = [
          new Uint16Array(await unpacked(c.variable)),
          new Uint32Array(await unpacked(c.tUs)),
          new Float64Array(await unpacked(c.value))
        ];
        for (let i = 0; i < variable.length; i++)
          pushChange(trace.changes, variable[i], tUs[i], numbers[i], c.texts[i]);
      } else if ('channel' in value) {
        const { channel: spec, bits, samples } = channelLine.parse(value);
        const key = isBefore
          ? spec.key.replace(SOCKETED, (_, of: string, socket: string) => of + renewedSocket(socket, board))
          : spec.key;
        const c: Channel = { ...spec, key, chunks: [], low: [], high: [] };
        const came = new COLUMN[bits](await unpacked(samples, h.ticks * BYTES[bits]));
        if ((left -= h.ticks * Int32Array.BYTES_PER_ELEMENT) < 0) throw new RangeError('too many channels');
        const diffs = new Int32Array(h.ticks);
        diffs.set(came.subarray(0, h.ticks));
        putSamples(c, diffs);
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
  if (h.version < 3 && h.ended === 'stopped' && !trace.channels.length && project)
    missing.push(say('It was stopped, but this older file does not say when: here it runs to its end.'));
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
