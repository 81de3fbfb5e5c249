/** equals-on-a-noisy-value: a sensor's value is never quite still, and is hardly ever exactly a number. */
import { newStep } from '../../catalogue.ts';
import { mapSteps } from '../../edit.ts';
import { isStep, liveSteps, walkSteps } from '../../program.ts';
import { typedNumber } from '../../values.ts';
import type { Mend, Remark, Rule } from '../remark.ts';
import { valueDef } from '../../facts.ts';
import { say } from '../../../words.ts';

/** How far to either side of the number the mend looks. */
const ABOUT: Readonly<Record<string, number>> = { 'sense.distance': 2, 'sense.line': 5 };
const ROUNDS = new Set(['round', 'floor', 'ceiling']);

export const equalsOnANoisyValue: Rule = ({ program }) =>
  [...liveSteps(program)].flatMap((step): Remark[] => {
    if (step.kind !== 'calc.compare' || (step.slots.sign !== '=' && step.slots.sign !== '≠')) return [];
    const sides = [step.slots.a, step.slots.b];
    const noisy = sides.find(
      (s) =>
        isStep(s) &&
        [...walkSteps([s])].some((x) => valueDef(x)?.noisy) &&
        // a rounded value stays the same for a while
        !(s.kind === 'calc.function' && ROUNDS.has(String(s.slots.fn)))
    );
    if (!isStep(noisy)) return [];
    const other = sides.find((s) => s !== noisy);
    const n = typeof other === 'number' ? other : typeof other === 'string' ? typedNumber(other) : undefined;
    const about = ABOUT[noisy.kind] ?? 3;
    const mends: Mend[] =
      n === undefined || step.slots.sign === '≠'
        ? []
        : [
            {
              label: say('Ask whether it lies from {low} to {high}', { low: n - about, high: n + about }),
              apply: (p, kit) => ({
                program: mapSteps(p, (s) => {
                  if (s.id !== step.id) return s;
                  const between = newStep('calc.between', s.id, p);
                  return { ...between, slots: { ...between.slots, value: noisy, low: n - about, high: n + about } };
                }),
                kit
              })
            }
          ];
    return [
      {
        rule: 'equals-on-a-noisy-value',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('A measured value is never quite still: it steps over this number and is hardly ever exactly that.'),
        todo: say('Ask whether it is smaller or larger, or whether it lies between two numbers.'),
        mends
      }
    ];
  });
