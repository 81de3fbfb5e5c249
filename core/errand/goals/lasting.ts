/** Goals of what is so for a while: a servo that rests, a lamp that is lit or dark, wheels that stand still. */
import { speeds, STILL_CM_S } from '../../trace/findings/finding.ts';
import { lampsOf } from '../../trace/apart.ts';
import { sampleAt } from '../../trace/query.ts';
import { channel } from '../../trace/trace.ts';
import { later, retell, say } from '../../words.ts';
import { defineGoal, met, num, sec, wanting, type Look, type Result } from '../goal.ts';

const seconds = {
  type: 'number',
  label: later('for at least'),
  unit: 's',
  min: 0.02,
  max: 600,
  first: 1
} as const;
const ticksOf = ({ trace, fromUs, toUs }: Look): [from: number, to: number] => [
  Math.ceil(fromUs / 1000),
  Math.min(trace.ticks, Math.floor(toUs / 1000))
];
/** Met once it was so for that long; what began before what it waits for counts from then on. */
function lasts(look: Look, so: (tick: number) => boolean, s: number): Result {
  const [from, to] = ticksOf(look);
  let [since, longest, at] = [-1, 0, from];
  let tick = from;
  // what met the same goal before is over first
  if (look.anew) while (tick < to && so(tick)) tick++;
  for (; tick < to; tick++) {
    if (!so(tick)) {
      since = -1;
      continue;
    }
    if (since < 0) since = tick;
    const been = tick + 1 - since;
    if (been >= s * 1000) return met((tick + 1) * 1000);
    if (been > longest) [longest, at] = [been, since];
  }
  const was = longest / 1000;
  return wanting(
    look,
    longest
      ? say('It was so for {was} s at the longest, at {s} s.', { was: num(was, 2), s: sec(at * 1000) })
      : say('It was never so.'),
    longest ? { atUs: at * 1000, off: { amount: s - was, unit: 's' } } : {}
  );
}
/** The first moment at which it is not so. */
function otherwise(look: Look, so: (tick: number) => boolean): number | undefined {
  const [from, to] = ticksOf(look);
  for (let tick = from; tick < to; tick++) if (!so(tick)) return tick * 1000;
  return undefined;
}

type Rests = { servo: string; angle: number; within: number };
const atAngle = ({ servo, angle, within }: Rests, { trace }: Look): ((tick: number) => boolean) | undefined => {
  const c = channel(trace, `servo${servo}`);
  return c && ((tick) => Math.abs(sampleAt(c, tick) - angle) <= within);
};
export const rests = defineGoal({
  kind: 'rests',
  label: later('a servo stays at an angle'),
  fields: {
    servo: { type: 'servo', label: later('Servo') },
    angle: { type: 'number', label: later('Angle'), unit: '°', min: -720, max: 720, first: 90 },
    within: { type: 'number', label: later('give or take'), unit: '°', min: 0.5, max: 90, first: 5 },
    seconds
  },
  words: ({ angle, seconds: s }) =>
    say('The servo stays at {angle}° for at least {s} s', { angle: num(angle), s: num(s, 2) }),
  check: (goal, look) => {
    const so = atAngle(goal, look);
    return so
      ? lasts(look, so, goal.seconds)
      : { state: 'missed', says: say('There is no servo on {servo}.', { servo: goal.servo }) };
  },
  broken: (goal, look) => otherwise(look, atAngle(goal, look) ?? (() => false))
});

/** Whether a lamp is on at a tick. */
function lampAt(look: Look, lamp: string): (tick: number) => boolean {
  const changes = lampsOf(look.trace).get(lamp) ?? [];
  let [i, on] = [0, false];
  let last = -1;
  return (tick) => {
    if (tick < last) [i, on] = [0, false];
    last = tick;
    for (; changes[i] && changes[i].tUs <= tick * 1000; i++) on = changes[i].on && changes[i].level !== 0;
    return on;
  };
}
const LIT = { on: later('lit'), off: later('dark') } as const;
const litAs = ({ lamp, is }: { lamp: string; is: string }, look: Look): ((tick: number) => boolean) => {
  const on = lampAt(look, lamp);
  return (tick) => on(tick) === (is === 'on');
};
export const lit = defineGoal({
  kind: 'lit',
  label: later('a lamp is lit, or dark'),
  fields: {
    lamp: { type: 'lamp', label: later('Lamp') },
    is: { type: 'choice', label: later('lit or dark'), of: LIT, first: 'on' },
    seconds
  },
  words: ({ lamp, is, seconds: s }) =>
    say('The lamp {lamp} is {is} for at least {s} s', {
      lamp: retell(lamp),
      is: say(LIT[is as keyof typeof LIT]),
      s: num(s, 2)
    }),
  check: (goal, look) => lasts(look, litAs(goal, look), goal.seconds),
  broken: (goal, look) => otherwise(look, litAs(goal, look))
});

const stands = ({ trace }: Look): ((tick: number) => boolean) => {
  const wheels = speeds(trace).map((key) => channel(trace, key)!);
  return (tick) => wheels.every((c) => Math.abs(sampleAt(c, tick)) <= STILL_CM_S);
};
export const still = defineGoal({
  kind: 'still',
  label: later('stands still'),
  fields: { seconds },
  words: ({ seconds: s }) => say('Stand still for at least {s} s', { s: num(s, 2) }),
  check: ({ seconds: s }, look) => lasts(look, stands(look), s),
  broken: (_, look) => otherwise(look, stands(look))
});
