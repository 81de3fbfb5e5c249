/** missing-otherwise-motor: a sensing loop that commands the wheels in one case and leaves them as they were in the other. */
import { reshape } from '../../edit.ts';
import { isStep, liveSteps, walkSteps, type Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { isStop, leaves, runs } from '../../facts.ts';
import { say } from '../../../words.ts';

const deep = (list: readonly Step[]): Step[] => [...walkSteps(list)].filter((s) => !s.off);
const asksSensor = (s: Step): boolean =>
  Object.values(s.slots).some((v) => isStep(v) && [...walkSteps([v])].some((x) => x.kind.startsWith('sense.')));

export const missingOtherwiseMotor: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const loop of liveSteps(program)) {
    // a loop that ends is left, and what is below it decides
    if (loop.kind !== 'repeat.ever' && loop.kind !== 'repeat.for') continue;
    const body = (loop.bodies?.do ?? []).filter((s) => !s.off);
    const commanding = body.filter((s) => deep([s]).some(leaves));
    if (commanding.length !== 1 || commanding[0].kind !== 'choose.if') continue;
    const [choice] = commanding;
    if ('otherwise' in (choice.bodies ?? {}) || choice.slots.if2 !== undefined || !asksSensor(choice)) continue;
    const then = deep(choice.bodies?.then1 ?? []);
    // a choice that leaves the loop or stops has no other case to fear; a whole move ends by itself
    if (then.some((s) => s.kind === 'repeat.leave' || isStop(s))) continue;
    if (!then.some(runs)) continue;
    remarks.push({
      rule: 'missing-otherwise-motor',
      severity: 'probably not meant',
      blocks: [choice.id],
      says: say('When this is not so, nothing commands the wheels: they go on with what they were told last.'),
      todo: say('Say in "otherwise" what the wheels do then.'),
      mends: [
        {
          label: say('Add "otherwise"'),
          apply: (p, kit) => ({ program: reshape(p, choice.id, 'otherwise'), kit })
        }
      ]
    });
  }
  return remarks;
};
