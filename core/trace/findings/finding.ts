/** What a rule has to say of a run, and what rules share. */
import type { Kit } from '../../kit/kit.ts';
import { channelsRead } from '../../language/facts.ts';
import type { Program, Step } from '../../language/program.ts';
import { allSteps, walkSteps } from '../../language/program.ts';
import { firstAfter } from '../apart.ts';
import { rowsAt, sampleAt, tickAt, type Asked } from '../query.ts';
import { channel, endUs, type Trace, type TraceEvent } from '../trace.ts';

/** A question to the trace that anybody can ask again. Times are µs; the answer is in the unit that is told. */
export type Query =
  /** what a channel reads at a moment */
  | { take: 'reads'; channel: string; atUs: number }
  /** a number that an event holds, by its moment, and by its block where several are at one moment */
  | { take: 'event'; type: TraceEvent['type']; field: string; atUs: number; block?: string }
  /** the most that events with one thing hold in this time, both ends included */
  | { take: 'most'; type: TraceEvent['type']; what: string; field: string; fromUs: number; toUs: number }
  /** how long it lasts */
  | { take: 'ms' | 's'; fromUs: number; toUs: number }
  /** along the way and as the crow flies, cm; degrees clockwise, whole turns counted */
  | { take: 'path' | 'crow' | 'turned'; fromUs: number; toUs: number }
  /** the furthest from the first moment that it was meanwhile, cm as the crow flies */
  | { take: 'furthest cm'; fromUs: number; toUs: number }
  /** the furthest that it had turned meanwhile, degrees clockwise */
  | { take: 'furthest deg'; fromUs: number; toUs: number }
  /** how often a second a block ran, from one of its runs to another: the first one does not count */
  | { take: 'rate'; block: string; fromUs: number; toUs: number }
  /** how often a trigger was missed */
  | { take: 'missed'; trigger: string }
  /** how often a block ran that began in this time, both ends included */
  | { take: 'times'; block: string; fromUs: number; toUs: number };
/** A number in the words: the answers of its questions added up, each times its factor. */
export type Figure = { value: number; sum: readonly (Query & { times?: number })[] };

export type Finding = {
  rule: string;
  /** what matters more comes first; 0 to 100 */
  weight: number;
  says: string;
  /** what to try */
  todo: string;
  blocks: string[];
  fromUs: number;
  toUs: number;
  /** where on the mat, m */
  at?: { x: number; y: number };
  /** keys of the channels that show it */
  lanes: string[];
  /** where the numbers in its words come from */
  figures?: readonly Figure[];
  /** what only follows from it */
  more?: Finding[];
};
export type Found = Omit<Finding, 'more'>;
/** What a rule looks at: the trace, its moves, the kit, and the program that ran where it is known: a text's blocks are not. */
export type Seen = { trace: Trace; kit: Kit; program?: Program; moves: readonly Asked[] };
export type Rule = (seen: Seen) => Found[];

/** Nobody sees or hears what lasts less. */
export const BRIEF_US = 30_000;
/** The channels of the wheels, as many as there are: only a wheel has a speed at its rim. */
const ofWheels = (what: string) => (trace: Pick<Trace, 'channels'>) =>
  trace.channels.flatMap(({ key }) => (key.startsWith('speed') ? [what + key.slice('speed'.length)] : []));
export const powers = ofWheels('power');
export const speeds = ofWheels('speed');
/** Faster than this it still moves, cm/s at a wheel's rim. */
export const STILL_CM_S = 2;

export const blocksOf = (e: { block?: string }): string[] => (e.block ? [e.block] : []);
export const one = (n: number): string => (Math.round(n * 10) / 10 || 0).toString();
export const seconds = (us: number): string => (us / 1e6).toFixed(2);
/** An angle between two headings, from -180 to 180 degrees. */
export const shortWay = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;

/** A channel at a moment, in its unit; 0 where the device has none. */
export const valueAt = (trace: Trace, key: string, tUs: number): number => {
  const c = channel(trace, key);
  return c ? sampleAt(c, tickAt(tUs, trace.ticks)) : 0;
};
/** The innermost block that ran at a moment. */
export function running(trace: Trace, tUs: number): string[] {
  for (const row of rowsAt(trace, tUs)) return [trace.header.blocks[trace.spans.block[row]]];
  return [];
}
export const isMoving = (trace: Trace, tUs: number): boolean =>
  speeds(trace).some((key) => Math.abs(valueAt(trace, key, tUs)) > STILL_CM_S);
/** Degrees clockwise from one moment to another, whole turns counted. */
export function turnedBetween(trace: Trace, fromUs: number, toUs: number): number {
  let sum = 0;
  let before = valueAt(trace, 'facing', fromUs);
  for (let t = fromUs; t < toUs;) {
    t = Math.min(toUs, t + 10_000);
    const now = valueAt(trace, 'facing', t);
    sum += shortWay(now - before);
    before = now;
  }
  return sum;
}
/** cm as the crow flies from one moment to another; ahead of the way it faced at first positive. */
export function wentBetween(trace: Trace, fromUs: number, toUs: number): { cm: number; ahead: number } {
  const dx = valueAt(trace, 'x', toUs) - valueAt(trace, 'x', fromUs);
  const dy = valueAt(trace, 'y', toUs) - valueAt(trace, 'y', fromUs);
  const facing = (valueAt(trace, 'facing', fromUs) * Math.PI) / 180;
  return {
    cm: Math.sqrt(dx * dx + dy * dy) * 100,
    ahead: (dx * Math.sin(facing) + dy * Math.cos(facing)) * 100
  };
}
/** Along the way, cm. */
export function pathBetween(trace: Trace, fromUs: number, toUs: number): number {
  let sum = 0;
  for (let t = fromUs; t < toUs; t += 10_000) sum += wentBetween(trace, t, Math.min(toUs, t + 10_000)).cm;
  return sum;
}
/** How far it rolled or turned on, until something new was commanded or it stood. */
export function rolledOn(
  trace: Trace,
  fromUs: number
): { cm: number; deg: number; untilUs: number; next?: TraceEvent } {
  const { events } = trace;
  let next: TraceEvent | undefined;
  // events are in the order of time to within a tick
  for (let i = firstAfter(events, fromUs - 2000); i < events.length && !next; i++) {
    const e = events[i];
    const { type } = e;
    const after =
      e.tUs > fromUs &&
      (type === 'touch' || (type === 'input' && !e.to) || ['wheels', 'slide', 'motor'].includes(type));
    if (after || (e.tUs >= fromUs && type === 'move')) next = e;
  }
  const untilUs = Math.min(next?.tUs ?? Infinity, endUs(trace));
  return { cm: wentBetween(trace, fromUs, untilUs).cm, deg: turnedBetween(trace, fromUs, untilUs), untilUs, next };
}

/** The first after a place in a list that is so, without a copy of what is left: a busy run has a hundred thousand events. */
export function nextOf<T>(list: readonly T[], at: number, is: (one: T) => boolean): T | undefined {
  for (let i = at + 1; i < list.length; i++) if (is(list[i])) return list[i];
  return undefined;
}
/** Channels that the values in a block come from. */
export const lanesOf = (step: Step, kit: Kit): string[] => [
  ...new Set([...walkSteps([step])].flatMap((s) => channelsRead(s, kit)))
];
/** Channels of sensors that the values of a block come from, its bodies left out. */
export const sensorsOf = (step: Step, kit: Kit): string[] =>
  lanesOf({ ...step, bodies: {} }, kit).filter((k) => k !== 'variables');
/** Where a finding about a move is, and what shows it. */
export const movesSpan = (trace: Trace, m: Asked): Pick<Found, 'blocks' | 'fromUs' | 'toUs' | 'lanes'> => ({
  blocks: m.block ? [m.block] : [],
  fromUs: m.fromUs,
  toUs: m.toUs,
  lanes: m.unit === '°' ? ['heading', ...speeds(trace)] : [...speeds(trace), ...powers(trace)]
});
/** Whether a block already ends in brake: then that is not what to try. */
export const endsInBrake = (program: Program | undefined, block: string | undefined): boolean =>
  !!program && [...allSteps(program)].find((s) => s.id === block)?.slots.ending === 'brake';
/** What was asked of a move, and what had come of it when it was over. */
export const askedOf = (m: Asked): Figure => ({
  value: m.asked,
  sum: [{ take: 'event', type: 'move', field: 'asked', atUs: m.fromUs, block: m.block }]
});
export const gotOf = (m: Asked): Figure => ({
  value: m.got,
  sum: [{ take: 'event', type: 'moved', field: 'got', atUs: m.toUs }]
});
/** A moment of the run that is told in seconds. */
export const momentOf = (us: number): Figure => ({ value: us / 1e6, sum: [{ take: 's', fromUs: 0, toUs: us }] });
/** A number that an event holds. */
export const eventOf = (e: TraceEvent, field: string): Figure => ({
  value: Number((e as unknown as Record<string, unknown>)[field]),
  sum: [{ take: 'event', type: e.type, field, atUs: e.tUs, block: e.block }]
});
/** How far it turned or came between two moments: what of it is told has no sign. */
const sizeOf = (take: 'turned' | 'crow', of: number, fromUs: number, toUs: number): Figure => ({
  value: Math.abs(of),
  sum: [{ take, fromUs, toUs, times: take === 'turned' ? Math.sign(of) : 1 }]
});
export const turnOf = (trace: Trace, fromUs: number, toUs: number): Figure =>
  sizeOf('turned', turnedBetween(trace, fromUs, toUs), fromUs, toUs);
export const wayOf = (trace: Trace, fromUs: number, toUs: number): Figure =>
  sizeOf('crow', wentBetween(trace, fromUs, toUs).cm, fromUs, toUs);
/** How far it had swung at the most before it swung back. */
export const peakOf = (trace: Trace, m: Asked): Figure => ({
  value: m.peak,
  sum: [
    ...gotOf(m).sum,
    {
      take: 'furthest deg',
      fromUs: m.toUs,
      toUs: m.restUs,
      times: Math.sign(turnedBetween(trace, m.fromUs, m.toUs)) * Math.sign(m.got) || 1
    }
  ]
});
/** How far it went on after that, to where it came to rest; or where it came to in all. */
export const onAfter = (trace: Trace, m: Asked, all: boolean): Figure => {
  const on = m.rest - m.got;
  const [fromUs, toUs] = [m.toUs, m.restUs];
  const way = m.unit === '°' ? turnedBetween(trace, fromUs, toUs) : 1;
  const sign = (Math.sign(way) || 1) * (all ? Math.sign(on) || 1 : 1);
  return {
    value: all ? m.rest : Math.abs(on),
    sum: [...(all ? gotOf(m).sum : []), { take: m.unit === '°' ? 'turned' : 'crow', fromUs, toUs, times: sign }]
  };
};
