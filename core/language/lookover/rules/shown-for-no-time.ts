import { insertAfter } from '../../edit.ts';
import type { Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { shows, takesTime } from '../../facts.ts';
import { fresh, liveLists } from '../walk.ts';
import { say } from '../../../words.ts';

/** shown-for-no-time: a picture is replaced by the next one before anybody can see it. */
export const shownForNoTime: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const list of liveLists(program)) {
    let shown: Step | undefined;
    for (const step of list) {
      if (takesTime(step)) shown = undefined;
      if (!shows(step)) continue;
      if (shown) {
        const before = shown;
        remarks.push({
          rule: 'shown-for-no-time',
          severity: 'probably not meant',
          blocks: [before.id, step.id],
          says: say('The first picture is replaced at once: it is shown for 0.1 ms, and nobody sees it.'),
          todo: say('Put a wait between the two.'),
          mends: [
            {
              label: say('Add: wait 0.5 s between them'),
              apply: (p, kit) => ({ program: insertAfter(p, before.id, [fresh(p, 'wait.time')]), kit })
            }
          ]
        });
      }
      shown = step.kind === 'display.dark' || takesTime(step) ? undefined : step;
    }
  }
  return remarks;
};
