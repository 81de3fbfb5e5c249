/** never-true, always-true: a comparison that a sensor's range has decided beforehand. */
import { isStep, liveSteps, walkSteps, type Slot, type Step } from '../../program.ts';
import type { Interval } from '../../define.ts';
import { setSlot } from '../../edit.ts';
import { valueDef } from '../../facts.ts';
import { typedNumber } from '../../values.ts';
import { isKnown, Ranges } from '../intervals.ts';
import { literal } from '../walk.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** true or false where it is decided, undefined where it depends. */
function decided(sign: string, [a, b]: Interval, [c, d]: Interval): boolean | undefined {
  switch (sign) {
    case '<':
      return b < c ? true : a >= d ? false : undefined;
    case '≤':
      return b <= c ? true : a > d ? false : undefined;
    case '>':
      return a > d ? true : b <= c ? false : undefined;
    case '≥':
      return a >= d ? true : b < c ? false : undefined;
    case '=':
      return b < c || a > d ? false : undefined;
    default:
      return b < c || a > d ? true : undefined;
  }
}
const ASKS = /^(sense\.|list\.count$|calc\.(chance|any)$)/;
const asksSomething = (step: Step): boolean =>
  ['a', 'b'].some((n) => {
    const slot = step.slots[n];
    return isStep(slot) && [...walkSteps([slot])].some((s) => ASKS.test(s.kind));
  });
const shown = (x: number): string => (Number.isFinite(x) ? String(Math.round(x * 10) / 10) : '∞');

/** Two comparisons of the same sensor: `< 20 and > 40` is never true, `> 20 or < 40` always. */
function together(step: Step): Remark[] {
  const { a, b, word } = step.slots;
  if (!isStep(a) || !isStep(b) || a.kind !== 'calc.compare' || b.kind !== 'calc.compare') return [];
  const bare = (slot: unknown): string => JSON.stringify(slot, (k, v) => (k === 'id' ? undefined : v));
  if (!asksSomething(a) || bare(a.slots.a) !== bare(b.slots.a)) return [];
  const [one, two] = [literal(a, 'b'), literal(b, 'b')];
  if (one === undefined || two === undefined) return [];
  const [low, high] = /^[<≤]$/.test(String(a.slots.sign)) ? [two, one] : [one, two];
  const opposed =
    (/^[<≤]$/.test(String(a.slots.sign)) && /^[>≥]$/.test(String(b.slots.sign))) ||
    (/^[>≥]$/.test(String(a.slots.sign)) && /^[<≤]$/.test(String(b.slots.sign)));
  if (!opposed) return [];
  // low: what it must be above; high: what it must be below
  const never = word === 'and' && low >= high;
  const always = word === 'or' && low < high;
  if (!never && !always) return [];
  return [
    {
      rule: never ? 'never-true' : 'always-true',
      severity: 'probably not meant',
      blocks: [step.id],
      says: never
        ? say('This can never be true: nothing is above {low} and below {high} at once.', { low, high })
        : say('This is always true: everything is above {low} or below {high}.', { low, high }),
      todo: never
        ? say('Change the two numbers for one another, or "and" for "or".')
        : say('Use "and" in place of "or", or other numbers.'),
      mends: []
    }
  ];
}

/** What a value is for certain: a text is never equal to a number, however alike they look. */
const sort = (slot: Slot | undefined): string | undefined => {
  const gives = isStep(slot) ? valueDef(slot)?.gives : typeof slot;
  return gives === 'number' || gives === 'string' || gives === 'text' ? gives.replace('string', 'text') : undefined;
};
function unlike(step: Step): Remark[] {
  const { a, b, sign } = step.slots;
  const [one, two] = [sort(a), sort(b)];
  if (!one || !two || one === two || (sign !== '=' && sign !== '≠')) return [];
  const [text, slot] = one === 'text' ? [a, 'a'] : [b, 'b'];
  const meant = typeof text === 'string' ? typedNumber(text) : undefined;
  return [
    {
      rule: sign === '=' ? 'never-true' : 'always-true',
      severity: 'probably not meant',
      blocks: [step.id],
      says:
        sign === '='
          ? say('This can never be true: a text and a number are never equal, however alike they look.')
          : say('This is always true: a text and a number are never equal, however alike they look.'),
      todo: say('Compare two numbers, or two texts: "as number" and "as text" make the one of the other.'),
      mends:
        meant === undefined
          ? []
          : [
              {
                label: say('Make it the number {meant}', { meant }),
                apply: (p, kit) => ({ program: setSlot(p, step.id, slot, meant), kit })
              }
            ]
    }
  ];
}
/** `heading ≥ way`, where way is counted up to 360: at the end of the count it is never true. */
function neverAtTheEnd(step: Step, ranges: Ranges): Remark[] {
  const { a, b, sign } = step.slots;
  if (!isStep(a) || !isStep(b) || !ASKS.test(a.kind) || b.kind !== 'var.value') return [];
  const [of, to] = [ranges.of(a), ranges.of(b)];
  if (!isKnown(to) || to[0] === to[1]) return [];
  const up = sign === '>' || sign === '≥';
  if (!up && sign !== '<' && sign !== '≤') return [];
  const last = up ? to[1] : to[0];
  if (decided(String(sign), of, [last, last]) !== false) return [];
  return [
    {
      rule: 'never-true',
      severity: 'probably not meant',
      blocks: [step.id],
      says: say('Where the number comes to {last}, this can never be true: the value lies from {from} to {to}.', {
        last: shown(last),
        from: shown(of[0]),
        to: shown(of[1])
      }),
      todo: say('Let the number stop before that, or ask for how far it has turned.'),
      mends: []
    }
  ];
}

export const neverTrue: Rule = ({ program, kit }) => {
  const ranges = new Ranges(program, kit);
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    const between = step.kind === 'calc.between';
    if (step.kind === 'calc.logic') return together(step);
    if (step.kind !== 'calc.compare' && !between) return [];
    const [one, low, high] = between
      ? [step.slots.value, ranges.of(step.slots.low), ranges.of(step.slots.high)]
      : [step.slots.a, ranges.of(step.slots.b), ranges.of(step.slots.b)];
    if (!between) {
      const alike = unlike(step);
      if (alike.length) return alike;
    }
    if (!between && !asksSomething(step)) return [];
    if (between && !(isStep(one) && one.kind.startsWith('sense.'))) return [];
    const a = ranges.of(one);
    const is = between
      ? a[1] < low[0] || a[0] > high[1]
        ? false
        : undefined
      : decided(String(step.slots.sign), a, low);
    if (is === undefined) return between ? [] : neverAtTheEnd(step, ranges);
    // the range that tells: of the side that asks a sensor
    const [from, to] = isStep(one) || between ? a : low;
    return [
      {
        rule: is ? 'always-true' : 'never-true',
        severity: 'probably not meant',
        blocks: [step.id],
        says: is
          ? say('This is always true: the value lies from {from} to {to}, so there is nothing to wait for.', {
              from: shown(from),
              to: shown(to)
            })
          : say('This can never be true: the value lies from {from} to {to}.', { from: shown(from), to: shown(to) }),
        todo: say('Look at the live value, and choose a number between the two that it shows.'),
        mends: []
      }
    ];
  });
};
