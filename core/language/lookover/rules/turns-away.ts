/** turns-away: waits for an angle on one side while the wheels turn it to the other. */
import { isStep, type Step } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { asksCondition, isLoop, leaves } from '../../facts.ts';
import { literal, liveLists } from '../walk.ts';

/** 1 for a wait that needs a turn to the right, -1 for one to the left. */
function wants(step: Step): 1 | -1 | undefined {
  const { condition } = step.slots;
  if (!asksCondition(step) || isLoop(step) || !isStep(condition) || condition.kind !== 'calc.compare') return undefined;
  const { a, sign } = condition.slots;
  const limit = literal(condition, 'b');
  if (!isStep(a) || a.kind !== 'sense.turned' || limit === undefined || limit === 0) return undefined;
  if (/^[>≥]$/.test(String(sign)) && limit > 0) return 1;
  if (/^[<≤]$/.test(String(sign)) && limit < 0) return -1;
  return undefined;
}

export const turnsAway: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const list of liveLists(program)) {
    let run: Step | undefined;
    let turns = 0;
    for (const step of list) {
      if (step.kind === 'wheels.run') {
        const [left, right] = [literal(step, 'left'), literal(step, 'right')];
        run = step;
        turns = left === undefined || right === undefined ? 0 : Math.sign(left - right);
      } else if (leaves(step)) run = undefined;
      const wanted = wants(step);
      if (!run || !wanted || !turns || turns === wanted) continue;
      const blocks = [run.id, step.id];
      remarks.push({
        rule: 'turns-away',
        severity: 'probably not meant',
        blocks,
        says:
          wanted > 0
            ? say('The wheels turn it to the left, and "turned" grows to the right: this never comes true.')
            : say('The wheels turn it to the right, and "turned" falls to the left: this never comes true.'),
        todo: say('Change the two powers for one another, or the sign of the angle and of the comparison.'),
        mends: []
      });
    }
  }
  return remarks;
};
