import { bodiesOf, catalogue } from '../../catalogue.ts';
import { addStack, removeStep } from '../../edit.ts';
import { allIds, freshId, liveSteps } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { fresh } from '../walk.ts';
import { say } from '../../../words.ts';

/** empty-loop, empty-starter: there is nothing to do in it. */
export const emptyLoop: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const step of liveSteps(program)) {
    if (!step.kind.startsWith('repeat.') || !step.bodies) continue;
    if (bodiesOf(step).every((b) => (step.bodies?.[b] ?? []).every((s) => s.off)))
      remarks.push({
        rule: 'empty-loop',
        severity: step.kind === 'repeat.until' ? 'consider' : 'probably not meant',
        blocks: [step.id],
        says: say('There is nothing in this loop to repeat.'),
        todo: say('Drag blocks into it, or take it out.'),
        mends: [{ label: say('Take it out'), apply: (p, kit) => ({ program: removeStep(p, step.id), kit }) }]
      });
  }
  for (const stack of program.stacks)
    if (!stack.parked && stack.steps.length === 1 && catalogue.get(stack.steps[0].kind)?.shape === 'starter')
      remarks.push({
        rule: 'empty-starter',
        severity: 'consider',
        blocks: [stack.steps[0].id],
        says: say('Nothing hangs on this starter.'),
        todo: say('Drag blocks below it.'),
        mends: []
      });
  if (program.stacks.length === 0) return remarks;
  if (![...program.stacks].some((s) => !s.parked && catalogue.get(s.steps[0]?.kind ?? '')?.shape === 'starter'))
    remarks.push({
      rule: 'no-starter',
      severity: 'will not work',
      blocks: [],
      says: say('No stack begins with a starter: nothing will run.'),
      todo: say('Take "at the start" from Begin.'),
      mends: [
        {
          label: say('Add "at the start"'),
          apply: (p, kit) => ({
            program: addStack(p, { id: freshId(allIds(p), 's'), x: 20, y: 20, steps: [fresh(p, 'begin.start')] }),
            kit
          })
        }
      ]
    });
  return remarks;
};
