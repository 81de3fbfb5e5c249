/** looked-at-once: an "if" that asks a sensor right at the start, and in no loop: it looks one single time. */
import { isLive, isStep, walkSteps, type Slot, type Step } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { takesTime, valueDef } from '../../facts.ts';
import { fresh } from '../walk.ts';

/** What a person or the world does later; what is so from the start can be asked at the start. */
const asksLater = (slot: Slot | undefined): boolean =>
  isStep(slot) && [...walkSteps([slot])].some((s) => valueDef(s)?.outside);

export const lookedAtOnce: Rule = ({ program }) =>
  program.stacks.flatMap((stack): Remark[] => {
    if (!isLive(stack) || stack.steps[0].kind !== 'begin.start') return [];
    const steps = stack.steps.slice(1).filter((s) => !s.off);
    const until = steps.findIndex(
      (s) => (s.kind !== 'choose.if' && takesTime(s)) || /^(repeat|wait|routine)\./.test(s.kind)
    );
    const early = until < 0 ? steps : steps.slice(0, until);
    return early
      .filter(
        (s) => s.kind === 'choose.if' && Object.entries(s.slots).some(([n, v]) => n.startsWith('if') && asksLater(v))
      )
      .map((step): Remark => ({
        rule: 'looked-at-once',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('This looks one single time, right at the start: what happens later it does not see.'),
        todo: say('Put it into a loop that goes on, with a short wait.'),
        mends: [
          {
            label: say('Put it into a loop for ever'),
            apply: (p, kit) => {
              const loop = fresh(p, 'repeat.ever');
              const wait = { ...fresh(p, 'wait.time', { time: 20, unit: 'ms' }), id: `${loop.id}w` };
              const around = (list: readonly Step[]): Step[] =>
                list.map((s) => (s.id === step.id ? { ...loop, bodies: { ...loop.bodies, do: [s, wait] } } : s));
              return {
                program: {
                  ...p,
                  stacks: p.stacks.map((s) => (s.id === stack.id ? { ...s, steps: around(s.steps) } : s))
                },
                kit
              };
            }
          }
        ]
      }));
  });
