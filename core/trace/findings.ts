/** What a trace shows that the person should know. Pure functions of the trace; each names blocks and times. */
import { channel, type Trace, type TraceEvent } from './trace.ts';
import { askedAndGot, sampleAt, tickAt } from './query.ts';
import { retell, say, word } from '../words.ts';

export type Finding = { rule: string; says: string; blocks: string[]; fromUs: number; toUs: number };
const BRIEF_US = 30_000;
const blocksOf = (e: { block?: string }): string[] => (e.block ? [e.block] : []);
const one = (n: number): string => (Math.round(n * 10) / 10).toString();

export function findings(trace: Trace): Finding[] {
  return [
    ...errors(trace),
    ...ended(trace),
    ...touched(trace),
    ...mishaps(trace),
    ...briefly(trace),
    ...moves(trace),
    ...missed(trace),
    ...clipped(trace)
  ].sort((a, b) => a.fromUs - b.fromUs);
}

/** The robot on its side, and horns that something was in the way of. */
const mishaps = (trace: Trace): Finding[] =>
  trace.events.flatMap((e): Finding[] => {
    if (e.type === 'tipped')
      return [
        { rule: 'tipped', says: say('The robot tipped over onto its side.'), blocks: [], fromUs: e.tUs, toUs: e.tUs }
      ];
    if (e.type !== 'stalled') return [];
    const asked = trace.events.findLast((s) => s.type === 'servo' && s.socket === e.socket && s.tUs <= e.tUs);
    return [
      {
        rule: 'stalled',
        says: say('The servo in {socket} was stopped at {angle}°: something is in the way of its horn.', {
          socket: e.socket,
          angle: one(e.angle)
        }),
        blocks: asked ? blocksOf(asked) : [],
        fromUs: e.tUs,
        toUs: e.tUs
      }
    ];
  });

const errors = (trace: Trace): Finding[] =>
  trace.events
    .filter((e) => e.type === 'error')
    .map((e) => ({
      rule: 'error',
      says: say('The program stopped here: {message}', { message: retell(e.message) }),
      blocks: blocksOf(e),
      fromUs: e.tUs,
      toUs: e.tUs
    }));

const ended = (trace: Trace): Finding[] => {
  const at = trace.ticks * 1000;
  if (trace.ended === 'still driving')
    return [
      {
        rule: 'still-driving',
        says: say('The program is over, but a motor still runs: nothing stopped it.'),
        blocks: [],
        fromUs: at,
        toUs: at
      }
    ];
  if (trace.ended === 'time limit')
    return [
      {
        rule: 'time-limit',
        says: say('The run was ended at its limit of {e6} s.', { e6: at / 1e6 }),
        blocks: [],
        fromUs: at,
        toUs: at
      }
    ];
  if (trace.ended === 'asleep')
    return [
      {
        rule: 'asleep',
        says: say('The device fell asleep: nobody had touched it for as long as its kit sheet says.'),
        blocks: [],
        fromUs: at,
        toUs: at
      }
    ];
  if (trace.ended === 'battery flat')
    return [{ rule: 'battery', says: say('The battery is flat.'), blocks: [], fromUs: at, toUs: at }];
  return [];
};

const touched = (trace: Trace): Finding[] =>
  trace.events
    .filter((e) => e.type === 'touch')
    .map((e) => ({
      rule: 'touched',
      says: say(e.nose ? 'Touched {what} with {one} cm/s, with its nose.' : 'Touched {what} with {one} cm/s.', {
        what: retell(e.what),
        one: one(e.speedCmS)
      }),
      blocks: [],
      fromUs: e.tUs,
      toUs: e.tUs
    }));

/** shown-briefly, ran-briefly: replaced or stopped within 30 ms. */
function briefly(trace: Trace): Finding[] {
  const out: Finding[] = [];
  let shown: (TraceEvent & { type: 'display' }) | undefined;
  let running: TraceEvent | undefined;
  for (const e of trace.events) {
    if (e.type === 'display') {
      if (shown && e.tUs - shown.tUs < BRIEF_US && shown.picture.includes('#') && shown.block !== e.block)
        out.push({
          rule: 'shown-briefly',
          says: say('This picture was shown for {x} ms: nobody can see it.', { x: one((e.tUs - shown.tUs) / 1000) }),
          blocks: blocksOf(shown),
          fromUs: shown.tUs,
          toUs: e.tUs
        });
      shown = e;
    } else if (e.type === 'wheels' || e.type === 'motor') {
      if (running && e.how !== 'power' && e.tUs - running.tUs < BRIEF_US)
        out.push({
          rule: 'ran-briefly',
          says: say('The motor ran for {x} ms.', { x: one((e.tUs - running.tUs) / 1000) }),
          blocks: blocksOf(running),
          fromUs: running.tUs,
          toUs: e.tUs
        });
      running = e.how === 'power' ? e : undefined;
    } else if (e.type === 'move') running = undefined;
  }
  return out;
}

/** asked-and-got beyond 2 %, blocked, taken over, and how far it rolled on after a move that ended in coast. */
function moves(trace: Trace): Finding[] {
  const out: Finding[] = [];
  const x = channel(trace, 'x');
  const y = channel(trace, 'y');
  for (const m of askedAndGot(trace)) {
    const blocks = m.block ? [m.block] : [];
    const span = { blocks, fromUs: m.fromUs, toUs: m.toUs };
    const off = m.got - m.asked;
    if (m.ended === 'blocked')
      out.push({
        rule: 'blocked',
        says: say('{what} was blocked: asked {one} {unit}, got {one2} {unit}.', {
          what: retell(m.what),
          one: one(m.asked),
          unit: word(m.unit),
          one2: one(m.got)
        }),
        ...span
      });
    else if (m.ended === 'taken over')
      out.push({
        rule: 'taken-over',
        says: say('{what} was taken over by another block after {one} of {one2} {unit}.', {
          what: retell(m.what),
          one: one(m.got),
          one2: one(m.asked),
          unit: word(m.unit)
        }),
        ...span
      });
    else if (m.unit !== 'turns' && Math.abs(off) > Math.max(0.02 * Math.abs(m.asked), m.unit === 'cm' ? 0.3 : 1))
      out.push({
        rule: 'asked-and-got',
        says: say('{what}: asked {one} {unit}, got {one2} {unit}, {x}{one3} {unit}.', {
          what: retell(m.what),
          one: one(m.asked),
          unit: word(m.unit),
          one2: one(m.got),
          x: off > 0 ? '+' : '',
          one3: one(off)
        }),
        ...span
      });
    if (x && y && m.ended === 'done' && m.unit === 'cm') {
      const next = trace.events.find((e) => e.tUs >= m.toUs && (e.type === 'move' || e.type === 'wheels'));
      const until = Math.min(next?.tUs ?? Infinity, trace.ticks * 1000);
      const [a, b] = [tickAt(m.toUs, trace.ticks), tickAt(until, trace.ticks)];
      const [dx, dy] = [x, y].map((c) => sampleAt(c, b) - sampleAt(c, a));
      const rolled = Math.sqrt(dx * dx + dy * dy) * 100;
      if (rolled > 0.5)
        out.push({
          rule: 'rolled-on',
          says: say('After {what} it rolled on by {one} cm.', { what: retell(m.what), one: one(rolled) }),
          blocks,
          fromUs: m.toUs,
          toUs: until
        });
    }
  }
  return out;
}
function missed(trace: Trace): Finding[] {
  const counts = new Map<string, TraceEvent[]>();
  for (const e of trace.events) if (e.type === 'missed') counts.set(e.trigger, [...(counts.get(e.trigger) ?? []), e]);
  return [...counts].map(([trigger, list]) => ({
    rule: 'trigger-missed',
    says: say('"{trigger}" came {n, plural, one {once} other {# times}} while its stack still ran, and was missed.', {
      trigger: retell(trigger),
      n: list.length
    }),
    blocks: blocksOf(list[0]),
    fromUs: list[0].tUs,
    toUs: list[list.length - 1].tUs
  }));
}
function clipped(trace: Trace): Finding[] {
  const seen = new Set<string>();
  return trace.events.flatMap((e) => {
    if (e.type !== 'clipped' || seen.has(e.block ?? '')) return [];
    seen.add(e.block ?? '');
    return [
      {
        rule: 'clipped',
        says: say(
          e.what === 'angle'
            ? 'An angle of {one} was asked for; the device can do {one2}.'
            : 'A {what} of {one} was asked for; the device can do {one2}.',
          {
            what: retell(e.what),
            one: one(e.asked),
            one2: one(e.used)
          }
        ),
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: e.tUs
      }
    ];
  });
}
