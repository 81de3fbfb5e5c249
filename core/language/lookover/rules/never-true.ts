/** never-true, always-true: a comparison that a sensor's range has decided beforehand. */
import { isStep, liveSteps, walkSteps, type Step } from '../../program.ts';
import type { Interval } from '../../define.ts';
import { Ranges } from '../intervals.ts';
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
const asksSomething = (step: Step): boolean =>
  ['a', 'b'].some((n) => {
    const slot = step.slots[n];
    return isStep(slot) && [...walkSteps([slot])].some((s) => s.kind.startsWith('sense.') || s.kind === 'list.count');
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

export const neverTrue: Rule = ({ program, kit }) => {
  const ranges = new Ranges(program, kit);
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    const between = step.kind === 'calc.between';
    if (step.kind === 'calc.logic') return together(step);
    if (step.kind !== 'calc.compare' && !between) return [];
    const [one, low, high] = between
      ? [step.slots.value, ranges.of(step.slots.low), ranges.of(step.slots.high)]
      : [step.slots.a, ranges.of(step.slots.b), ranges.of(step.slots.b)];
    if (!between && !asksSomething(step)) return [];
    if (between && !(isStep(one) && one.kind.startsWith('sense.'))) return [];
    const a = ranges.of(one);
    const is = between
      ? a[1] < low[0] || a[0] > high[1]
        ? false
        : undefined
      : decided(String(step.slots.sign), a, low);
    if (is === undefined) return [];
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
