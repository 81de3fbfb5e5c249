/** Questions to a trace. */
import { eventsOf, lampsOf, lastBy, rowsOfBlock, upTo } from './apart.ts';
import { channel, CHUNK, endUs, PAGE, type Channel, type Trace, type TraceEvent } from './trace.ts';

/** The sample at a tick, in the channel's unit; before the first and after the last, those. */
export function sampleAt(c: Channel, tick: number): number {
  if (c.chunks.length === 0) return 0;
  const index = Math.max(0, Math.min(c.chunks.length - 1, Math.floor(tick / CHUNK)));
  const chunk = c.chunks[index];
  if (typeof chunk === 'number') return chunk * c.scale;
  const offset = Math.max(0, Math.min(chunk.length - 1, tick - index * CHUNK));
  return chunk[offset] * c.scale;
}
/** Samples are taken at the end of their tick: at t the newest one is that of tick t/1000 - 1. */
export const tickAt = (tUs: number, ticks: number): number =>
  Math.max(0, Math.min(ticks - 1, Math.floor(tUs / 1000) - 1));

/** Before a volume is set, percent. */
const FULL_VOLUME = 100;

/** How loud it plays, percent. */
export const volumeAt = (trace: Trace, tUs: number): number =>
  lastBy(eventsOf(trace, 'volume'), tUs)?.percent ?? FULL_VOLUME;

export type State = {
  tUs: number;
  x: number;
  y: number;
  facingDeg: number;
  values: Record<string, number>;
  /** lamps that were switched since the start */
  lamps: Partial<Record<string, { on: boolean; colour: string; level?: number }>>;
  /** '' before anything was on the display */
  picture: string;
  /** what sounds: since when, and how loud, percent */
  tone: { hertz: number; sinceUs: number; level: number } | undefined;
  /** ids of the blocks that were running, outermost first */
  blocks: string[];
};

/** What was so at t: pose, every channel, lamps, display, tone, running blocks. */
export function stateAt(trace: Trace, tUs: number): State {
  const { header, ticks } = trace;
  const tick = tickAt(tUs, ticks);
  const values: Record<string, number> = {};
  for (const c of trace.channels) values[c.key] = sampleAt(c, tick);
  const state: State = {
    tUs,
    x: values.x,
    y: values.y,
    facingDeg: values.facing,
    values,
    lamps: {},
    picture: '',
    tone: undefined,
    blocks: runningAt(trace, tUs)
  };
  if (ticks === 0 || tUs < 1000)
    Object.assign(state, { x: header.run.start.x, y: header.run.start.y, facingDeg: header.run.start.facingDeg });
  for (const [name, list] of lampsOf(trace)) {
    const e = lastBy(list, tUs);
    if (e) state.lamps[name] = { on: e.on, colour: e.colour, level: e.level };
  }
  state.picture = lastBy(eventsOf(trace, 'display'), tUs)?.picture ?? '';
  const tone = lastBy(eventsOf(trace, 'tone'), tUs);
  if (tone && tone.hertz > 0 && (tone.seconds === undefined || tone.tUs + tone.seconds * 1e6 > tUs))
    state.tone = {
      hertz: tone.hertz,
      sinceUs: tone.tUs,
      level: volumeAt(trace, tUs)
    };
  return state;
}
/**
 * Rows of spans that run at t, newest first: from the last one that had begun by then back, over whole pages that were
 * over before. A block that was entered and left in one instant at t counts.
 */
export function* rowsAt(trace: Trace, tUs: number): Generator<number> {
  const { start, end, latest, open, count } = trace.spans;
  const last = upTo(count, (row) => start[row], tUs) - 1;
  for (let row = last; row >= 0; row--) {
    const page = Math.floor(row / PAGE);
    if (open[page] === 0 && latest[page] < tUs) {
      row = page * PAGE;
      continue;
    }
    if (end[row] === 0 || end[row] > tUs || (row === last && end[row] === tUs && start[row] === tUs)) yield row;
  }
}
/** Ids of the blocks that ran at t, outermost first. */
export const runningAt = (trace: Trace, tUs: number): string[] =>
  [...rowsAt(trace, tUs)].map((row) => trace.header.blocks[trace.spans.block[row]]).reverse();

/** Every time a block ran, a bundle as one: [start, end] in microseconds; an unfinished one ends with the trace. */
export const ranWhen = (trace: Trace, block: string): [number, number][] =>
  rowsOfBlock(trace, block).map((row) => [trace.spans.start[row], trace.spans.end[row] || trace.ticks * 1000]);

/** Smallest and largest sample from tick a to before tick b, in the channel's unit: no spike is missed. */
export function extremes(c: Channel, a: number, b: number): [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (let t = a; t < b;) {
    const index = Math.floor(t / CHUNK);
    const chunk = c.chunks[index];
    const stop = Math.min(b, (index + 1) * CHUNK);
    if (typeof chunk === 'number' || (t === index * CHUNK && stop - t === CHUNK)) {
      if (c.low[index] < low) low = c.low[index];
      if (c.high[index] > high) high = c.high[index];
    } else
      for (let k = t - index * CHUNK; k < stop - index * CHUNK; k++) {
        const v = chunk[k];
        if (v < low) low = v;
        if (v > high) high = v;
      }
    t = stop;
  }
  return [low * c.scale, high * c.scale];
}
/** Envelopes that were asked for: while a run goes on only their last columns are new. */
const envelopes = new WeakMap<Channel, { key: string; ticks: number; out: Float64Array }>();
/** Smallest and largest sample of each of `count` equal pieces between two times, for drawing: pairs, in the channel's unit. */
export function envelope(c: Channel, ticks: number, fromUs: number, toUs: number, count: number): Float64Array {
  const key = `${fromUs} ${toUs} ${count}`;
  const before = envelopes.get(c);
  const known = before?.key === key && before.ticks <= ticks ? before : undefined;
  const out = known?.out ?? new Float64Array(count * 2).fill(Number.NaN);
  const per = (toUs - fromUs) / count / 1000;
  envelopes.set(c, { key, ticks, out });
  for (let i = known ? Math.max(0, Math.floor((known.ticks - fromUs / 1000) / per) - 1) : 0; i < count; i++) {
    if (fromUs / 1000 + i * per > ticks) break;
    let a = Math.floor(fromUs / 1000 + i * per);
    const b = Math.min(ticks, Math.max(a + 1, Math.floor(fromUs / 1000 + (i + 1) * per)));
    if (a < 0) a = 0;
    if (a >= b) continue;
    [out[2 * i], out[2 * i + 1]] = extremes(c, a, b);
  }
  return out;
}

/** The row of the block that began at this very moment; the first of several, -1 for none. */
export function begunAt({ spans: { start, count } }: Trace, tUs: number): number {
  for (let row = 0; row < count && start[row] <= tUs; row++) if (start[row] === tUs) return row;
  return -1;
}
/** The heading at a moment, as blocks say it: by the gyro where there is one, or from how it faced at the start; degrees. */
export function headingOf(trace: Trace, tUs: number): number {
  const felt = channel(trace, 'heading');
  if (felt && trace.ticks) return sampleAt(felt, tickAt(tUs, trace.ticks));
  return stateAt(trace, tUs).facingDeg - trace.header.run.start.facingDeg;
}
type Followed = {
  key: string;
  ticks: number;
  out: Float64Array;
  /** the last column, and the value before it */ column: number;
  now?: number;
};
const followedOnes = new WeakMap<Channel, Followed>();
/** So often a heading is looked at where a column of the picture is longer, ticks: nothing turns half round meanwhile. */
const FOLLOW = 50;
/**
 * As `envelope`, of a heading that is followed across north: a robot that goes straight is a straight line, one that turns
 * twice round goes up to 720. It begins between -180 and 180.
 */
export function followed(c: Channel, ticks: number, fromUs: number, toUs: number, count: number): Float64Array {
  const key = `${fromUs} ${toUs} ${count}`;
  const before = followedOnes.get(c);
  const known = before?.key === key && before.ticks <= ticks ? before : undefined;
  const out = known?.out ?? new Float64Array(count * 2).fill(Number.NaN);
  const per = (toUs - fromUs) / count / 1000;
  const step = Math.max(1, Math.min(FOLLOW, Math.floor(per / 4)));
  const state: Followed = known ?? { key, ticks, out, column: 0 };
  state.ticks = ticks;
  let { now } = state;
  for (let i = state.column; i < count; i++) {
    if (fromUs / 1000 + i * per > ticks) break;
    const a = Math.max(0, Math.floor(fromUs / 1000 + i * per));
    const b = Math.min(ticks, Math.max(a + 1, Math.floor(fromUs / 1000 + (i + 1) * per)));
    if (a >= b) continue;
    state.column = i;
    state.now = now;
    let [low, high] = [Infinity, -Infinity];
    for (let t = a; t < b; t += step) {
      const turn = sampleAt(c, t) - (now ?? 0);
      now = (now ?? 0) + turn - 360 * Math.round(turn / 360);
      if (now < low) low = now;
      if (now > high) high = now;
    }
    out[2 * i] = low;
    out[2 * i + 1] = high;
  }
  followedOnes.set(c, state);
  return out;
}

/** Distance rolled by the middle of the robot up to the end of each second, m: kept up as the trace grows. */
const rolled = new WeakMap<Trace, number[]>();
const ROLLED_EVERY = 10;
/** Distance rolled by the middle of the robot, m. */
export function travelled(trace: Trace, upToUs = Infinity): number {
  const x = channel(trace, 'x');
  const y = channel(trace, 'y');
  if (!x || !y) return 0;
  let seconds = rolled.get(trace);
  if (!seconds) rolled.set(trace, (seconds = [0]));
  const way = (from: number, to: number): number => {
    let sum = 0;
    let [px, py] =
      from === 0
        ? [trace.header.run.start.x, trace.header.run.start.y]
        : [sampleAt(x, from - 1), sampleAt(y, from - 1)];
    for (let t = from + ROLLED_EVERY - 1; t < to; t += ROLLED_EVERY) {
      const nx = sampleAt(x, t);
      const ny = sampleAt(y, t);
      sum += Math.sqrt((nx - px) * (nx - px) + (ny - py) * (ny - py));
      px = nx;
      py = ny;
    }
    return sum;
  };
  while (seconds.length * CHUNK <= trace.ticks)
    seconds.push(seconds[seconds.length - 1] + way((seconds.length - 1) * CHUNK, seconds.length * CHUNK));
  const last = Math.min(trace.ticks, upToUs === Infinity ? Infinity : tickAt(upToUs, trace.ticks) + 1);
  const whole = Math.floor(last / CHUNK);
  return seconds[whole] + way(whole * CHUNK, last);
}

/**
 * One account of a move: what was asked, what had come of it when it was over by its encoders, and what it came to when the
 * robot had come to rest or was told to do something else: a coasting turn turns on. All in the unit of what was asked.
 */
export type Asked = {
  block?: string;
  fromUs: number;
  toUs: number;
  what: string;
  asked: number;
  got: number;
  rest: number;
  restUs: number;
  /** how far it swung meanwhile, if it swung back */
  peak: number;
  unit: string;
  ended: string;
};
/** What each move was asked for and what came of it. */
export function askedAndGot(trace: Trace): Asked[] {
  const out: Asked[] = [];
  const open = new Map<number, TraceEvent & { type: 'move' }>();
  trace.events.forEach((e, i) => {
    if (e.type === 'move') open.set(e.id, e);
    else if (e.type === 'moved') {
      const m = open.get(e.id);
      if (!m) return;
      const asked = {
        block: m.block,
        fromUs: m.tUs,
        toUs: e.tUs,
        what: m.what,
        asked: m.asked,
        got: e.got,
        unit: m.unit,
        ended: e.ended
      };
      out.push({
        ...asked,
        ...(e.ended === 'done' ? restOf(trace, asked, i) : { rest: e.got, restUs: e.tUs, peak: e.got })
      });
    }
  });
  return out;
}
/** Slower than this for so long it is at rest: degrees, or cm, in 10 ms. */
const STEP_US = 10_000;
const AT_REST = { '°': 0.02, cm: 0.01 };
const STEPS_AT_REST = 3;
/** over so long it is looked at which way it goes */
const GOING_US = 50_000;
/** and less than this says nothing: then ahead, as it faces */
const STOOD_M = 1e-4;
function restOf(
  trace: Trace,
  m: Pick<Asked, 'fromUs' | 'toUs' | 'got' | 'unit'>,
  at: number
): Pick<Asked, 'rest' | 'restUs' | 'peak'> {
  const [x, y, facing] = ['x', 'y', 'facing'].map((key) => channel(trace, key));
  const { unit } = m;
  if (!x || !y || !facing || (unit !== '°' && unit !== 'cm')) return { rest: m.got, restUs: m.toUs, peak: m.got };
  const { events } = trace;
  /** what the robot is told next, or what meets it; a straight drive does not end a turn that still goes on */
  const ends = (e: TraceEvent): boolean =>
    e.type === 'touch' ||
    e.type === 'motor' ||
    e.type === 'slide' ||
    (e.type === 'input' && !e.to && ('lift' in e.input || 'push' in e.input || 'carry' in e.input)) ||
    (e.type === 'wheels' && (unit === 'cm' || (e.how === 'power' && e.left !== e.right))) ||
    (e.type === 'move' && (unit === 'cm' || e.unit === '°' || e.what === 'run wheels'));
  let next = at + 1;
  while (next < events.length && !ends(events[next])) next++;
  const untilUs = Math.min(events[next]?.tUs ?? Infinity, endUs(trace));
  const of = (c: Channel, tUs: number): number => sampleAt(c, tickAt(tUs, trace.ticks));
  const turn = (a: number, b: number): number => ((((of(facing, b) - of(facing, a) + 180) % 360) + 360) % 360) - 180;
  // over the ground, whatever moved it there: on in the direction in which it went when it was let go
  const before = Math.max(m.fromUs, m.toUs - GOING_US);
  const [dx, dy] = [of(x, m.toUs) - of(x, before), of(y, m.toUs) - of(y, before)];
  const went = Math.sqrt(dx * dx + dy * dy);
  const facing0 = ((of(facing, m.toUs) + (m.got < 0 ? 180 : 0)) * Math.PI) / 180;
  const [ex, ey] = went > STOOD_M ? [dx / went, dy / went] : [Math.sin(facing0), Math.cos(facing0)];
  const way = (a: number, b: number): number => ((of(x, b) - of(x, a)) * ex + (of(y, b) - of(y, a)) * ey) * 100;
  const step = unit === '°' ? turn : way;
  // which way round the move itself went
  let gone = 0;
  for (let t = m.fromUs; t < m.toUs; t += STEP_US) gone += step(t, Math.min(m.toUs, t + STEP_US));
  const sense = unit === '°' ? Math.sign(gone) * Math.sign(m.got) || 1 : Math.sign(m.got) || 1;
  let sum = 0;
  let most = 0;
  let still = 0;
  let t = m.toUs;
  while (t < untilUs && still < STEPS_AT_REST) {
    const to = Math.min(untilUs, t + STEP_US);
    const by = step(t, to);
    sum += by;
    if (Math.abs(sum) > Math.abs(most)) most = sum;
    still = Math.abs(by) < AT_REST[unit] ? still + 1 : 0;
    t = to;
  }
  return { rest: m.got + sense * sum, restUs: t, peak: m.got + sense * most };
}
