/**
 * What a trace shows that the person should know, heaviest first. Pure functions of the trace (and, where a finding is about
 * what the program could have done, of the program that ran). Each names blocks, the moment, the place on the mat, the lanes
 * that show it, and what to try.
 */
import { definition } from '../language/catalogue.ts';
import { isLive, isStep, liveSteps, walkSteps, type Program, type Step } from '../language/program.ts';
import { say, retell, word } from '../words.ts';
import { eventsOf, firstAfter, lastBy, rowsOfBlock } from './apart.ts';
import { askedAndGot, rowsAt, sampleAt, tickAt, type Asked } from './query.ts';
import { channel, endUs, type Trace, type TraceEvent } from './trace.ts';

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
};

type Found = Omit<Finding, 'at'> & { at?: Finding['at'] };
const BRIEF_US = 30_000;
const POWER = ['powerLeft', 'powerRight'];
const SPEED = ['speedLeft', 'speedRight'];
const blocksOf = (e: { block?: string }): string[] => (e.block ? [e.block] : []);
const one = (n: number): string => (Math.round(n * 10) / 10).toString();
const seconds = (us: number): string => (us / 1e6).toFixed(2);

export function findings(trace: Trace, program?: Program): Finding[] {
  const found: Found[] = [
    ...errors(trace),
    ...ended(trace),
    ...touched(trace),
    ...mishaps(trace),
    ...briefly(trace),
    ...moves(trace),
    ...stops(trace),
    ...slipped(trace),
    ...missed(trace),
    ...clipped(trace),
    ...battery(trace)
  ];
  if (!program) return told(trace, found);
  return told(trace, found.concat(waits(trace, program), sensing(trace, program), unreached(trace, program)));
}
/** The same at the same block told once, with its place, the heaviest first. */
function told(trace: Trace, found: Found[]): Finding[] {
  return together(found)
    .map((f) => ({ ...f, at: f.at ?? placeAt(trace, f.fromUs) }))
    .sort((a, b) => b.weight - a.weight || a.fromUs - b.fromUs);
}

/** The same thing at the same block again and again is one finding: its first time, and how often. */
function together(list: Found[]): Found[] {
  const kept = new Map<string, { found: Found; times: number }>();
  for (const found of list) {
    const key = `${found.rule} ${found.blocks.join() || found.says.replace(/[\d.,]+/g, '#')}`;
    const before = kept.get(key);
    if (before) before.times++;
    else kept.set(key, { found, times: 1 });
  }
  return [...kept.values()].map(({ found, times }) =>
    times === 1 ? found : { ...found, says: `${found.says} ${say('({times} times in this run)', { times })}` }
  );
}
function placeAt(trace: Trace, tUs: number): { x: number; y: number } | undefined {
  const [x, y] = ['x', 'y'].map((key) => channel(trace, key));
  if (!x || !y || trace.ticks === 0) return undefined;
  const tick = tickAt(tUs, trace.ticks);
  return { x: sampleAt(x, tick), y: sampleAt(y, tick) };
}
const value = (trace: Trace, key: string, tUs: number): number => {
  const c = channel(trace, key);
  return c ? sampleAt(c, tickAt(tUs, trace.ticks)) : 0;
};

/** The robot on its side, and horns that something was in the way of. */
const mishaps = (trace: Trace): Found[] =>
  trace.events.flatMap((e): Found[] => {
    if (e.type === 'tipped')
      return [
        {
          rule: 'tipped',
          weight: 95,
          says: say('The robot tipped over onto its side.'),
          todo: say('Drive the curve slower, or wider: what is heavy and high tips first.'),
          blocks: running(trace, e.tUs),
          fromUs: e.tUs,
          toUs: e.tUs,
          lanes: ['accelX', ...SPEED]
        }
      ];
    if (e.type === 'burnt')
      return [
        {
          rule: 'burnt',
          weight: 97,
          says: say('The LED got {mA} mA and burnt: it is dark from here on. It takes 20 mA.', { mA: one(e.mA) }),
          todo: say('Put a resistor before it on the kit sheet; the reckoner tells which.'),
          blocks: blocksOf(e),
          fromUs: e.tUs,
          toUs: e.tUs,
          lanes: ['lampMa']
        }
      ];
    if (e.type !== 'stalled') return [];
    const asked = lastBy(
      eventsOf(trace, 'servo').filter((s) => s.socket === e.socket),
      e.tUs
    );
    return [
      {
        rule: 'stalled',
        weight: 74,
        says: say('The servo in {socket} was stopped at {angle}°: something is in the way of its horn.', {
          socket: e.socket,
          angle: one(e.angle)
        }),
        todo: say('Ask for an angle that the horn can reach.'),
        blocks: asked ? blocksOf(asked) : [],
        fromUs: e.tUs,
        toUs: e.tUs,
        lanes: [`servo${e.socket}`]
      }
    ];
  });
/** The innermost block that ran at a moment. */
function running(trace: Trace, tUs: number): string[] {
  for (const row of rowsAt(trace, tUs)) return [trace.header.blocks[trace.spans.block[row]]];
  return [];
}

const errors = (trace: Trace): Found[] =>
  trace.events
    .filter((e) => e.type === 'error')
    .map((e) => ({
      rule: 'error',
      weight: 100,
      says: say('The program stopped here: {message}', { message: retell(e.message) }),
      todo: say('Look at the block and at the values that it was given.'),
      blocks: blocksOf(e),
      fromUs: e.tUs,
      toUs: e.tUs,
      lanes: ['variables']
    }));

function ended(trace: Trace): Found[] {
  const at = endUs(trace);
  const rest = { blocks: [], fromUs: at, toUs: at };
  switch (trace.ended) {
    case 'still driving': {
      const started = trace.events.findLast((e) => (e.type === 'wheels' || e.type === 'motor') && e.how === 'power');
      const over = trace.spans.count ? trace.spans.latest.reduce((a, b) => Math.max(a, b), 0) : at;
      return [
        {
          rule: 'still-driving',
          weight: 70,
          says: say('The program was over at {s} s, but a motor ran on: nothing stopped it.', { s: seconds(over) }),
          todo: say('Wait as long as it should run, then stop it.'),
          blocks: started ? blocksOf(started) : [],
          fromUs: started?.tUs ?? at,
          toUs: at,
          lanes: [...POWER, ...SPEED]
        }
      ];
    }
    case 'time limit':
      return [
        {
          rule: 'time-limit',
          weight: 20,
          says: say('The run was ended at its limit of {e6} s.', { e6: at / 1e6 }),
          todo: say('If it should end by itself, look for what it waits for.'),
          ...rest,
          lanes: []
        }
      ];
    case 'asleep':
      return [
        {
          rule: 'asleep',
          weight: 60,
          says: say('The device fell asleep: nobody had touched it for as long as its kit sheet says.'),
          todo: say('Touch it now and then, or let it sleep later on its kit sheet.'),
          ...rest,
          lanes: []
        }
      ];
    case 'battery flat':
      return [
        {
          rule: 'battery',
          weight: 96,
          says: say('The battery is flat.'),
          todo: say('Charge it, or use a fresh one.'),
          ...rest,
          lanes: ['volts']
        }
      ];
    default:
      return [];
  }
}

const touched = (trace: Trace): Found[] =>
  trace.events
    .filter((e) => e.type === 'touch')
    .map((e) => ({
      rule: 'touched',
      weight: 80,
      says: say(e.nose ? 'Touched {what} with {one} cm/s, with its nose.' : 'Touched {what} with {one} cm/s.', {
        what: retell(e.what),
        one: one(e.speedCmS)
      }),
      todo: say('Stop before it: measure how far it is, or let the distance sensor tell.'),
      blocks: [],
      fromUs: e.tUs,
      toUs: e.tUs,
      at: { x: e.x, y: e.y },
      lanes: ['distance', ...SPEED]
    }));

/** Whether something that was lit is not lit any more. */
const goesOut = (before: string, now: string): boolean =>
  [...before].some((c, i) => c !== '.' && c !== ' ' && now[i] === '.');
/** shown-briefly, ran-briefly: replaced or stopped within 30 ms. */
function briefly(trace: Trace): Found[] {
  const out: Found[] = [];
  let shown: (TraceEvent & { type: 'display' }) | undefined;
  let ran: TraceEvent | undefined;
  for (const e of trace.events) {
    if (e.type === 'display') {
      if (shown && e.tUs - shown.tUs < BRIEF_US && goesOut(shown.picture, e.picture) && shown.block !== e.block)
        out.push({
          rule: 'shown-briefly',
          weight: 66,
          says: say('This picture was shown for {x} ms: nobody can see it.', { x: one((e.tUs - shown.tUs) / 1000) }),
          todo: say('Put a wait of half a second or more between the two.'),
          blocks: blocksOf(shown),
          fromUs: shown.tUs,
          toUs: e.tUs,
          lanes: ['display']
        });
      shown = e;
    } else if (e.type === 'wheels' || e.type === 'motor') {
      if (ran && e.how !== 'power' && e.tUs - ran.tUs < BRIEF_US)
        out.push({
          rule: 'ran-briefly',
          weight: 66,
          says: say('The motor ran for {x} ms.', { x: one((e.tUs - ran.tUs) / 1000) }),
          todo: say('Put a wait between starting and stopping it.'),
          blocks: blocksOf(ran),
          fromUs: ran.tUs,
          toUs: e.tUs,
          lanes: POWER
        });
      // a new power while it runs is the same running
      ran = e.how === 'power' ? (ran ?? e) : undefined;
    } else if (e.type === 'move') ran = undefined;
  }
  return out;
}

/** Beyond this a difference is told: 2 %, and what nobody would see is left out. */
const worthTelling = (m: Asked): boolean =>
  m.unit !== 'turns' && Math.abs(m.got - m.asked) > Math.max(0.02 * Math.abs(m.asked), m.unit === 'cm' ? 0.3 : 1);
/** How far it rolled or turned on, until something new was commanded or it stood. */
function rolledOn(trace: Trace, fromUs: number): { cm: number; deg: number; untilUs: number; next?: TraceEvent } {
  const { events } = trace;
  let next: TraceEvent | undefined;
  // events are in the order of time to within a tick
  for (let i = firstAfter(events, fromUs - 2000); i < events.length && !next; i++) {
    const e = events[i];
    const { type } = e;
    const after = e.tUs > fromUs && (type === 'touch' || type === 'input' || type === 'wheels' || type === 'motor');
    if (after || (e.tUs >= fromUs && type === 'move')) next = e;
  }
  const untilUs = Math.min(next?.tUs ?? Infinity, endUs(trace));
  const dx = value(trace, 'x', untilUs) - value(trace, 'x', fromUs);
  const dy = value(trace, 'y', untilUs) - value(trace, 'y', fromUs);
  const deg = value(trace, 'facing', untilUs) - value(trace, 'facing', fromUs);
  return { cm: Math.sqrt(dx * dx + dy * dy) * 100, deg: ((((deg + 180) % 360) + 360) % 360) - 180, untilUs, next };
}
/** Faster than this it still moves, cm/s at a wheel's rim. */
const STILL_CM_S = 2;
const moving = (trace: Trace, tUs: number): boolean =>
  SPEED.some((key) => Math.abs(value(trace, key, tUs)) > STILL_CM_S);

/** Each move: blocked, taken over, the other way round, more or less than asked and why, rolled on after it. */
function moves(trace: Trace): Found[] {
  const out: Found[] = [];
  const list = askedAndGot(trace);
  const touches = eventsOf(trace, 'touch');
  const setMoving = movers(trace);
  list.forEach((m, i) => {
    out.push(...begunInMotion(trace, m, list[i - 1], setMoving));
    const blocks = m.block ? [m.block] : [];
    const turns = m.unit === '°';
    const span = {
      blocks,
      fromUs: m.fromUs,
      toUs: m.toUs,
      lanes: turns ? ['heading', ...SPEED] : [...SPEED, ...POWER]
    };
    const asked = { what: retell(m.what), asked: one(m.asked), got: one(m.got), unit: word(m.unit) };
    if (m.ended === 'blocked')
      return void out.push({
        rule: 'blocked',
        weight: 85,
        says: say('{what} was blocked: asked {asked} {unit}, got {got} {unit}.', asked),
        todo: say('Something holds the wheels: look what it stands against.'),
        ...span
      });
    if (m.ended === 'taken over')
      return void out.push({
        rule: 'taken-over',
        weight: 75,
        says: say('{what} was taken over by another block after {got} of {asked} {unit}.', asked),
        todo: say('Two stacks command the same wheels. Put the moves into one of them.'),
        ...span
      });
    if (turns && Math.abs(m.asked) > 5 && m.got < -0.5 * Math.abs(m.asked))
      return void out.push({
        rule: 'turned-the-other-way',
        weight: 92,
        says: say('{what}: asked {asked} °, and it turned {got} ° the other way: left and right are swapped.', {
          ...asked,
          got: one(Math.abs(m.got))
        }),
        todo: say('Look at the plugs of the two wheel motors, and at the kit sheet: each has the place of the other.'),
        ...span
      });
    if (!turns && Math.abs(m.asked) > 2 && m.got < -0.5 * Math.abs(m.asked))
      return void out.push({
        rule: 'drove-the-other-way',
        weight: 92,
        says: say('{what}: asked {asked} {unit}, and it went {got} {unit} the other way.', {
          ...asked,
          got: one(Math.abs(m.got))
        }),
        todo: say('Look which way round the motors are mounted, and what the kit sheet says of it.'),
        ...span
      });
    const on = rolledOn(trace, m.toUs);
    const more = turns ? Math.abs(on.deg) : on.cm;
    const kept = m.ended === 'done' && (turns ? more > 1 : m.unit === 'cm' && more > 0.5);
    if (kept) {
      const next = on.next && (on.next.type === 'move' || on.next.type === 'wheels') ? on.next : undefined;
      const still = next && moving(trace, next.tUs);
      const words = { ...asked, more: one(more), all: one(Math.abs(m.got) + more), s: seconds(on.untilUs) };
      out.push({
        rule: 'rolled-on',
        weight: 68,
        says: turns
          ? still
            ? say(
                '{what}: asked {asked} °, turned {all} °: it was still turning when the next move began, at {s} s.',
                words
              )
            : say(
                '{what}: asked {asked} °, turned {all} °: it turned on by {more} ° after the motors were let go.',
                words
              )
          : still
            ? say(
                '{what}: asked {asked} {unit}, rolled {all} {unit}: it was still rolling when the next move began, at {s} s.',
                words
              )
            : say('After {what} it rolled on by {more} cm.', words),
        todo: say('Let the move end in brake, or wait until it stands.'),
        ...span,
        toUs: on.untilUs
      });
      return;
    }
    if (!worthTelling(m)) return;
    const first = touches[firstAfter(touches, m.fromUs - 1)];
    const touch = first && first.tUs <= m.toUs ? first : undefined;
    const why = touch
      ? say('it touched {what} on the way', { what: retell(touch.what) })
      : moving(trace, m.fromUs)
        ? say('it was still moving when this began')
        : say('its wheels are not quite as the kit sheet has them');
    const off = m.got - m.asked;
    out.push({
      rule: 'asked-and-got',
      weight: 55,
      says: say('{what}: asked {asked} {unit}, got {got} {unit}, {off} {unit}: {why}.', {
        ...asked,
        off: `${off > 0 ? '+' : ''}${one(off)}`,
        why
      }),
      todo:
        touch || moving(trace, m.fromUs)
          ? say('Start from rest, with the way free.')
          : say('Measure what it really does, and write that onto the kit sheet.'),
      ...span
    });
  });
  return out;
}

/** The largest that comes between two times, looked at every 10 ms. */
function most(fromUs: number, toUs: number, of: (tUs: number) => number): number {
  let largest = 0;
  for (let t = fromUs; t <= toUs; t += 10_000) largest = Math.max(largest, of(t));
  return largest;
}
/** A move that began while the robot still rolled or turned: what was before it had not come to rest. */
const SETTLES_US = 600_000;
/** Who set the wheels moving last by a time, another block than the one that is asked about. */
type Movers = (tUs: number, but: string | undefined) => string | undefined;
function movers(trace: Trace): Movers {
  const list = trace.events.filter((e) => e.type === 'wheels' || e.type === 'move');
  // of each the nearest one before it that has another block
  const other = new Int32Array(list.length).fill(-1);
  for (let i = 1; i < list.length; i++) other[i] = list[i - 1].block !== list[i].block ? i - 1 : other[i - 1];
  return (tUs, but) => {
    const at = firstAfter(list, tUs) - 1;
    return (at >= 0 && list[at].block === but ? list[other[at]] : list[at])?.block;
  };
}
function begunInMotion(trace: Trace, m: Asked, before: Asked | undefined, setMoving: Movers): Found[] {
  if (!moving(trace, m.fromUs) || m.ended === 'blocked') return [];
  const [left, right] = SPEED.map((key) => value(trace, key, m.fromUs));
  const until = Math.min(m.toUs, m.fromUs + SETTLES_US);
  const span = { fromUs: m.fromUs, toUs: until, lanes: [...SPEED, 'heading'] };
  // the block that set it moving is the one to change
  const blocks = [setMoving(m.fromUs, m.block), m.block].filter((b): b is string => !!b);
  const todo = say('Let it end in brake, or wait until it stands, before the next move.');
  if (m.unit === '°' && Math.abs(left + right) / 2 > STILL_CM_S) {
    const cm = most(m.fromUs, until, (t) => {
      const dx = value(trace, 'x', t) - value(trace, 'x', m.fromUs);
      const dy = value(trace, 'y', t) - value(trace, 'y', m.fromUs);
      return Math.sqrt(dx * dx + dy * dy) * 100;
    });
    if (cm < 1 || m.what.startsWith('curve')) return [];
    return [
      {
        rule: 'rolled-on',
        weight: 78,
        says: say('It still rolled with {v} cm/s when {what} began, at {s} s: it drifted {cm} cm past the place.', {
          v: one(Math.abs(left + right) / 2),
          what: retell(m.what),
          s: seconds(m.fromUs),
          cm: one(cm)
        }),
        todo,
        blocks,
        ...span
      }
    ];
  }
  if (m.unit !== 'cm' || !before || before.unit !== '°' || Math.abs(left - right) < STILL_CM_S) return [];
  const deg = most(m.fromUs, until, (t) => {
    const more = value(trace, 'facing', t) - value(trace, 'facing', m.fromUs);
    return Math.abs(((((more + 180) % 360) + 360) % 360) - 180);
  });
  if (deg < 1) return [];
  return [
    {
      rule: 'rolled-on',
      weight: 76,
      says: say('{what}: asked {asked} °, turned {all} °: it was still turning when the next drive began, at {s} s.', {
        what: retell(before.what),
        asked: one(before.asked),
        all: one(Math.abs(before.got) + deg),
        s: seconds(m.fromUs)
      }),
      todo,
      blocks: before.block ? [before.block, ...blocks.filter((b) => b !== before.block)] : blocks,
      ...span
    }
  ];
}

/** rolled-on after a stop of wheels that were simply run: power was kept on until the mark. */
function stops(trace: Trace): Found[] {
  return trace.events.flatMap((e): Found[] => {
    if (e.type !== 'wheels' || e.how === 'power' || !moving(trace, e.tUs)) return [];
    const on = rolledOn(trace, e.tUs);
    // a brake needs its way too: what is told is more than that
    const [cm, deg] = e.how === 'coast' ? [1, 2] : [2.5, 4];
    if (on.cm <= cm && Math.abs(on.deg) <= deg) return [];
    return [
      {
        rule: 'rolled-on',
        weight: 64,
        says: say('After the stop it went on by {cm} cm and turned by {deg} °: its momentum carried it.', {
          cm: one(on.cm),
          deg: one(on.deg)
        }),
        todo:
          e.how === 'coast'
            ? say('Stop with brake, stop a little earlier, or use a block that drives a distance.')
            : say('Stop a little earlier or drive slower before it, or use a block that drives a distance.'),
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: on.untilUs,
        lanes: [...SPEED, ...POWER]
      }
    ];
  });
}

/** slipped: the wheels rolled on the spot for a while. */
const SLIP_MS = 300;
function slipped(trace: Trace): Found[] {
  const [left, right, x, y] = ['speedLeft', 'speedRight', 'x', 'y'].map((key) => channel(trace, key));
  if (!left || !right || !x || !y) return [];
  const out: Found[] = [];
  const EVERY = 20;
  let since = -1;
  for (let t = EVERY; t <= trace.ticks; t += EVERY) {
    const rim = (sampleAt(left, t - 1) + sampleAt(right, t - 1)) / 2;
    const dx = sampleAt(x, t - 1) - sampleAt(x, t - 1 - EVERY);
    const dy = sampleAt(y, t - 1) - sampleAt(y, t - 1 - EVERY);
    const real = (Math.sqrt(dx * dx + dy * dy) * 100 * 1000) / EVERY;
    const slips = Math.abs(rim) > 4 && real < 0.3 * Math.abs(rim);
    if (slips && since < 0) since = t;
    if ((!slips || t + EVERY > trace.ticks) && since >= 0) {
      if (t - since >= SLIP_MS)
        out.push({
          rule: 'slipped',
          weight: 62,
          says: say('The wheels rolled on the spot from {from} s to {to} s.', {
            from: seconds(since * 1000),
            to: seconds(t * 1000)
          }),
          todo: say('It pushes against something, or is held: look at the mat there.'),
          blocks: [],
          fromUs: since * 1000,
          toUs: t * 1000,
          lanes: [...SPEED, 'distance']
        });
      since = -1;
    }
  }
  return out;
}

function missed(trace: Trace): Found[] {
  const counts = new Map<string, { first: TraceEvent; last: TraceEvent; n: number }>();
  for (const e of eventsOf(trace, 'missed')) {
    const one = counts.get(e.trigger);
    if (!one) counts.set(e.trigger, { first: e, last: e, n: e.times ?? 1 });
    else {
      one.last = e;
      one.n += e.times ?? 1;
    }
  }
  return [...counts].map(([trigger, { first, last, n }]) => ({
    rule: 'trigger-missed',
    weight: 60,
    says: say('"{trigger}" came {n, plural, one {once} other {# times}} while its stack still ran, and was missed.', {
      trigger: retell(trigger),
      n
    }),
    todo: say('Make the stack shorter, or let it send a message to another one.'),
    blocks: blocksOf(first),
    fromUs: first.tUs,
    toUs: last.tUs,
    lanes: ['blocks']
  }));
}
function clipped(trace: Trace): Found[] {
  return trace.events.flatMap((e): Found[] => {
    if (e.type !== 'clipped') return [];
    return [
      {
        rule: 'clipped',
        weight: 50,
        says: say(
          e.what === 'angle'
            ? 'An angle of {one} was asked for; the device can do {one2}.'
            : 'A {what} of {one} was asked for; the device can do {one2}.',
          { what: retell(e.what), one: one(e.asked), one2: one(e.used) }
        ),
        todo: say('Map the number to what the device can do.'),
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: e.tUs,
        lanes: ['variables']
      }
    ];
  });
}
/** battery-used: so much lower at its end that the motors are weaker. */
const WEAKER_V = 0.3;
function battery(trace: Trace): Found[] {
  const volts = channel(trace, 'volts');
  if (!volts || trace.ticks < 1000) return [];
  const [from, to] = [sampleAt(volts, 0), sampleAt(volts, trace.ticks - 1)];
  if (from - to < WEAKER_V) return [];
  return [
    {
      rule: 'battery-used',
      weight: 15,
      says: say('The battery sank from {from} V to {to} V: the motors are weaker than at the start.', {
        from: from.toFixed(2),
        to: to.toFixed(2)
      }),
      todo: say('Charge it. A move that is measured does not mind, plain power does.'),
      blocks: [],
      fromUs: 0,
      toUs: endUs(trace),
      lanes: ['volts']
    }
  ];
}

/** wait-ended-at-once: its condition was already true. */
const AT_ONCE_US = 1500;
function waits(trace: Trace, program: Program): Found[] {
  const { start, end, times, busy } = trace.spans;
  return [...liveSteps(program)].flatMap((step): Found[] => {
    if (step.kind !== 'wait.until' && step.kind !== 'wait.limit') return [];
    let all = 0;
    let n = 0;
    let nth = 0;
    let first = -1;
    for (const row of rowsOfBlock(trace, step.id)) {
      if (end[row] && end[row] < endUs(trace) && busy[row] / times[row] < AT_ONCE_US) {
        n += times[row];
        if (first < 0) [first, nth] = [row, all + 1];
      }
      all += times[row];
    }
    if (first < 0) return [];
    return [
      {
        rule: 'wait-ended-at-once',
        weight: 72,
        says:
          all === 1
            ? say('This wait ended at once, at {s} s: its condition was already true.', { s: seconds(start[first]) })
            : say(
                'This wait ended at once {n} of {all} times, first the time number {nth}, at {s} s: its condition was already true.',
                { n, all, nth, s: seconds(start[first]) }
              ),
        todo: say('Zero what it measures before it, or ask for "turn by" instead of "turn to".'),
        blocks: [step.id],
        fromUs: start[first],
        toUs: end[first],
        lanes: lanesOf(step)
      }
    ];
  });
}
/** Channels that the values in a block come from. */
const CHANNEL_OF: Readonly<Record<string, string[]>> = {
  'sense.distance': ['distance'],
  'sense.ahead': ['distance'],
  'sense.line': ['lineLeft', 'lineRight'],
  'sense.over': ['lineLeft', 'lineRight'],
  'sense.heading': ['heading'],
  'sense.turned': ['heading'],
  'sense.turns': ['turnsLeft', 'turnsRight'],
  'sense.degrees': ['turnsLeft', 'turnsRight'],
  'sense.driven': ['turnsLeft', 'turnsRight'],
  'sense.nose': ['nose'],
  'sense.light': ['light'],
  'sense.temperature': ['temperature'],
  'sense.moisture': ['moisture'],
  'sense.lean': ['leanSideways', 'leanForwards'],
  'sense.acceleration': ['accelTotal'],
  'var.value': ['variables']
};
const lanesOf = (step: Step): string[] => {
  const keys = [...walkSteps([step])].flatMap((s) => CHANNEL_OF[s.kind] ?? []);
  return [...new Set(keys)];
};

/** sensing-rate: how often a loop looked at its sensors, and how far it went blind. */
const BLIND_CM = 4;
function sensing(trace: Trace, program: Program): Found[] {
  const x = channel(trace, 'x');
  const y = channel(trace, 'y');
  if (!x || !y) return [];
  const { start, times } = trace.spans;
  return [...liveSteps(program)].flatMap((loop): Found[] => {
    if (!loop.kind.startsWith('repeat.') || !loop.bodies) return [];
    const body = (loop.bodies.do ?? []).filter((s) => !s.off);
    const looks = body.filter(
      (s) => s.kind.startsWith('choose.') && lanesOf({ ...s, bodies: {} }).some((k) => k !== 'variables')
    );
    const asks = isStep(loop.slots.condition) && lanesOf({ ...loop, bodies: {} }).some((k) => k !== 'variables');
    const marker = looks[0] ?? (asks ? body[0] : undefined);
    const turns = marker && rowsOfBlock(trace, marker.id);
    if (!turns || turns.length < 2) return [];
    let longest = 0;
    let furthest = 0;
    let at = start[turns[0]];
    let looked = 0;
    for (let i = 1; i < turns.length; i++) {
      looked += times[turns[i - 1]];
      // within a bundle the looks follow closely: what counts is the way from its last one to the next row
      const [a, b] = [times[turns[i - 1]] > 1 ? trace.spans.end[turns[i - 1]] : start[turns[i - 1]], start[turns[i]]];
      const way = path(trace, a, b);
      longest = Math.max(longest, b - a);
      if (way > furthest) {
        furthest = way;
        at = a;
      }
    }
    if (furthest < BLIND_CM) return [];
    const rate = (looked * 1e6) / (start[turns[turns.length - 1]] - start[turns[0]]);
    // whole moves between two looks are meant so; what is not is a wait
    const slow = [...walkSteps(body)].find((s) => s.kind === 'wait.time');
    if (!slow || [...walkSteps(body)].some((s) => /\.(measure|facing|angle|gyro|face|span)$/.test(s.kind))) return [];
    return [
      {
        rule: 'sensing-rate',
        weight: 65,
        says: say(
          'This loop looked {rate} times a second: between two looks it was blind for up to {ms} ms and {cm} cm.',
          {
            rate: one(rate),
            ms: Math.round(longest / 1000),
            cm: one(furthest)
          }
        ),
        todo: say('Take the wait out of the loop, or make it much shorter.'),
        blocks: [slow.id],
        fromUs: at,
        toUs: at + longest,
        lanes: [...new Set([...looks, loop].flatMap((s) => lanesOf({ ...s, bodies: {} })))]
      }
    ];
  });
}
/** cm between two moments, along the way. */
function path(trace: Trace, fromUs: number, toUs: number): number {
  const x = channel(trace, 'x')!;
  const y = channel(trace, 'y')!;
  let sum = 0;
  const [a, b] = [tickAt(fromUs, trace.ticks), tickAt(toUs, trace.ticks)];
  for (let t = a; t < b; t += 10) {
    const u = Math.min(b, t + 10);
    const dx = sampleAt(x, u) - sampleAt(x, t);
    const dy = sampleAt(y, u) - sampleAt(y, t);
    sum += Math.sqrt(dx * dx + dy * dy);
  }
  return sum * 100;
}

/** never-reached: steps that did not run although the run came to its end. */
function unreached(trace: Trace, program: Program): Found[] {
  if (!trace.ended || trace.ended === 'stopped' || trace.ended === 'error') return [];
  const ran = (id: string): boolean => rowsOfBlock(trace, id).length > 0;
  const began = new Set(trace.events.flatMap((e) => (e.type === 'began' && e.block ? [e.block] : [])));
  const out: Found[] = [];
  const at = endUs(trace);
  const look = (list: readonly Step[]): void => {
    const steps = list.filter((s) => !s.off && definition(s.kind).shape !== 'starter');
    const first = steps.findIndex((s) => !ran(s.id));
    // cases of a choice come and go; what is told is what stands below something that never ended
    if (first > 0)
      out.push({
        rule: 'never-reached',
        weight: 58,
        says: say('This block never ran, and what is below it neither: the block above it was not over at the end.'),
        todo: say('Look what the block above it waits for, and at its value.'),
        blocks: [steps[first].id],
        fromUs: trace.spans.start[rowsOfBlock(trace, steps[first - 1].id).at(-1) ?? -1] ?? at,
        toUs: at,
        lanes: lanesOf(steps[first - 1])
      });
    for (const s of steps)
      if (ran(s.id) && s.kind.startsWith('repeat.')) for (const body of Object.values(s.bodies ?? {})) look(body);
  };
  for (const stack of program.stacks) {
    if (!isLive(stack)) continue;
    if (began.has(stack.steps[0].id)) look(stack.steps);
    else if (stack.steps.length > 1 && stack.steps[0].kind === 'begin.when')
      out.push({
        rule: 'never-reached',
        weight: 58,
        says: say('This stack never began: its condition did not become true.'),
        todo: say('Look at the live value, and choose a number between the two that it shows.'),
        blocks: [stack.steps[0].id],
        fromUs: at,
        toUs: at,
        lanes: lanesOf(stack.steps[0])
      });
  }
  return out;
}
