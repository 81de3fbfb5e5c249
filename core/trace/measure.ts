/** Figures between two cursors on the time axis. */
import { rowsOf, upTo } from './apart.ts';
import { sampleAt, tickAt } from './query.ts';
import { headingAt } from '../units.ts';
import { CHUNK, type Channel, type Trace } from './trace.ts';

export type Measures = {
  /** at the first and at the second cursor, in the channel's unit */
  a: number;
  b: number;
  difference: number;
  /** units a second, from the first to the second */
  slope: number;
  mean: number;
  smallest: number;
  largest: number;
  /** unit seconds, by the trapezium rule from sample to sample */
  area: number;
};

/**
 * @param aUs, bUs times in microseconds, in either order
 * @returns undefined where the channel has nothing there
 */
export function measure(c: Channel, ticks: number, aUs: number, bUs: number): Measures | undefined {
  if (ticks === 0 || c.chunks.length === 0) return undefined;
  if (c.key === 'heading' || c.key === 'facing') return measureHeading(c, ticks, aUs, bUs);
  const [fromUs, toUs] = aUs <= bUs ? [aUs, bUs] : [bUs, aUs];
  const [from, to] = [tickAt(fromUs, ticks), tickAt(toUs, ticks)];
  let sum = 0;
  let low = Infinity;
  let high = -Infinity;
  for (let t = from; t <= to;) {
    const index = Math.floor(t / CHUNK);
    const chunk = c.chunks[Math.min(index, c.chunks.length - 1)];
    const stop = Math.min(to + 1, (index + 1) * CHUNK);
    if (typeof chunk === 'number') {
      sum += chunk * (stop - t);
      if (chunk < low) low = chunk;
      if (chunk > high) high = chunk;
    } else
      for (let k = t - index * CHUNK; k < stop - index * CHUNK; k++) {
        const v = chunk[k];
        sum += v;
        if (v < low) low = v;
        if (v > high) high = v;
      }
    t = stop;
  }
  const a = sampleAt(c, tickAt(aUs, ticks));
  const b = sampleAt(c, tickAt(bUs, ticks));
  const seconds = (bUs - aUs) / 1e6;
  return {
    a,
    b,
    difference: b - a,
    slope: seconds === 0 ? 0 : (b - a) / seconds,
    mean: (sum * c.scale) / (to - from + 1),
    smallest: low * c.scale,
    largest: high * c.scale,
    area: to > from ? (sum * c.scale - (sampleAt(c, from) + sampleAt(c, to)) / 2) / 1000 : 0
  };
}

/**
 * A direction has no largest and no mean as numbers have: it is followed across north, so that 350 to 10 is +20, and its mean
 * is that of unit vectors (Mardia and Jupp, Directional Statistics, chapter 2), as it lies between the least and the largest.
 */
function measureHeading(c: Channel, ticks: number, aUs: number, bUs: number): Measures {
  const [from, to] = [tickAt(Math.min(aUs, bUs), ticks), tickAt(Math.max(aUs, bUs), ticks)];
  const first = sampleAt(c, from);
  let now = first;
  let [low, high, sum, sine, cosine] = [first, first, 0, 0, 0];
  for (let t = from; t <= to; t++) {
    const step = sampleAt(c, t) - now;
    now += step - 360 * Math.round(step / 360);
    if (now < low) low = now;
    if (now > high) high = now;
    sum += now;
    sine += Math.sin((now * Math.PI) / 180);
    cosine += Math.cos((now * Math.PI) / 180);
  }
  const difference = aUs <= bUs ? now - first : first - now;
  const seconds = (bUs - aUs) / 1e6;
  return {
    a: sampleAt(c, tickAt(aUs, ticks)),
    b: sampleAt(c, tickAt(bUs, ticks)),
    difference,
    slope: seconds === 0 ? 0 : difference / seconds,
    mean: low + headingAt((Math.atan2(sine, cosine) * 180) / Math.PI - low, 9),
    smallest: low,
    largest: high,
    area: to > from ? (sum - (first + now) / 2) / 1000 : 0
  };
}

export type Ran = {
  block: string;
  times: number;
  shortestUs: number;
  longestUs: number;
  meanUs: number;
  firstUs: number;
};
/** How often each block ran and how long it took, the longest in all first. */
export function statistics(trace: Trace): Ran[] {
  const { spans, header, ticks } = trace;
  const all = new Map<number, { times: number; shortest: number; longest: number; sum: number; first: number }>();
  for (let row = 0; row < spans.count; row++) {
    const times = spans.times[row];
    // what still runs has not been added up; of a bundle each run took its share
    const sum = spans.end[row] === 0 ? Math.max(spans.busy[row], ticks * 1000 - spans.start[row]) : spans.busy[row];
    const us = sum / times;
    const one = all.get(spans.block[row]);
    if (!one) all.set(spans.block[row], { times, shortest: us, longest: us, sum, first: spans.start[row] });
    else {
      one.times += times;
      one.sum += sum;
      if (us < one.shortest) one.shortest = us;
      if (us > one.longest) one.longest = us;
    }
  }
  return [...all]
    .sort(([, a], [, b]) => b.sum - a.sum)
    .map(([index, { times, shortest, longest, sum, first }]) => ({
      block: header.blocks[index],
      times,
      shortestUs: shortest,
      longestUs: longest,
      meanUs: sum / times,
      firstUs: first
    }));
}

/** Rows of a variable's changes: when, a number to draw (NaN for text) and what is said. */
export function changesOf(trace: Trace, name: string): { tUs: number; value: number; text?: string }[] {
  const { changes } = trace;
  return rowsOf(trace, trace.names.indexOf(name)).map((row) => ({
    tUs: changes.tUs[row],
    value: changes.value[row],
    ...(row in changes.texts ? { text: changes.texts[row] } : {})
  }));
}
/** What every variable holds at a moment, as it is shown; nothing for those that were not set yet. */
export function heldAt(trace: Trace, tUs: number): Map<string, string> {
  const out = new Map<string, string>();
  const { changes, names } = trace;
  names.forEach((name, variable) => {
    const rows = rowsOf(trace, variable);
    const row = rows[upTo(rows.length, (i) => changes.tUs[rows[i]], tUs) - 1];
    if (row !== undefined) out.set(name, changes.texts[row] ?? String(Math.round(changes.value[row] * 1e9) / 1e9));
  });
  return out;
}
