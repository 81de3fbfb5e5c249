/** servo-told-twice: a servo gets the next angle before it could reach the first: it never goes there. */
import { insertAfter } from '../../edit.ts';
import type { Step } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { takesTime } from '../../facts.ts';
import { fresh, liveLists } from '../walk.ts';

const SETS = new Set(['servo.angle', 'servo.share']);

export const servoToldTwice: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const list of liveLists(program)) {
    const told = new Map<string, Step>();
    for (const step of list) {
      // a body may take its time
      if (takesTime(step) || Object.keys(step.bodies ?? {}).length || step.kind.startsWith('routine.')) told.clear();
      if (!SETS.has(step.kind)) continue;
      const servo = String(step.slots.servo);
      const before = told.get(servo);
      if (before)
        remarks.push({
          rule: 'servo-told-twice',
          severity: 'probably not meant',
          blocks: [before.id, step.id],
          says: say('The servo gets the second angle at once: it never goes to the first.'),
          todo: say('Put a wait between the two.'),
          mends: [
            {
              label: say('Add: wait 0.5 s between them'),
              apply: (p, kit) => ({ program: insertAfter(p, before.id, [fresh(p, 'wait.time')]), kit })
            }
          ]
        });
      told.set(servo, step);
    }
  }
  return remarks;
};
