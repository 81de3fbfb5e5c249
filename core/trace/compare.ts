/** Whether two runs did the same: their events in order, with the first moment at which they part. */
import type { Trace, TraceEvent } from './trace.ts';

export type Parting = { same: true; events: number } | { same: false; at: number; a?: TraceEvent; b?: TraceEvent };
/** Bookkeeping of the runner: what began and what each move came to is not what the person sees. */
const LEFT_OUT = new Set(['began', 'moved', 'input', 'missed', 'ready', 'touch']);

const seen = (trace: Trace): TraceEvent[] => trace.events.filter((e) => !LEFT_OUT.has(e.type));
function shown(e: TraceEvent): string {
  const { tUs: _, block: __, ...rest } = e as TraceEvent & { id?: number };
  if ('id' in rest) delete rest.id;
  return JSON.stringify(rest, (_, v) => (typeof v === 'number' ? Number(v.toPrecision(6)) : v));
}
/**
 * @param tolerance how far apart the same event may come: seconds, plus this share of the time gone by. A loop's turns and a
 * routine's call cost board time, so a tidied program is late by a little.
 */
export function compareRuns(a: Trace, b: Trace, tolerance = { seconds: 0.05, share: 0.01 }): Parting {
  const [x, y] = [seen(a), seen(b)];
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const [e, f] = [x[i], y[i]];
    const late = e && f ? Math.abs(e.tUs - f.tUs) / 1e6 : 0;
    if (!e || !f || shown(e) !== shown(f) || late > tolerance.seconds + tolerance.share * (e.tUs / 1e6))
      return { same: false, at: Math.min(e?.tUs ?? Infinity, f?.tUs ?? Infinity), a: e, b: f };
  }
  return { same: true, events: x.length };
}
