import { insertAfter } from '../../edit.ts';
import type { Remark, Rule } from '../remark.ts';
import { isStop, runs, stops, takesTime } from '../../facts.ts';
import { fresh, liveLists } from '../walk.ts';
import { say } from '../../../words.ts';

/** stop-at-once: a motor is stopped right after it was started. */
export const stopAtOnce: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const list of liveLists(program))
    list.forEach((run, i) => {
      if (!runs(run)) return;
      const next = list.slice(i + 1).findIndex((s) => takesTime(s) || (isStop(s) && stops(s, run)));
      const stop = next < 0 ? undefined : list[i + 1 + next];
      if (!stop || !isStop(stop)) return;
      remarks.push({
        rule: 'stop-at-once',
        severity: 'probably not meant',
        blocks: [run.id, stop.id],
        says: say('It is stopped 0.1 ms after it was started: nothing will seem to happen.'),
        todo: say('Put a wait between the two, or use the block that runs for a time.'),
        mends: [
          {
            label: say('Add: wait 1 s between them'),
            apply: (p, kit) => ({ program: insertAfter(p, run.id, [fresh(p, 'wait.time', { time: 1 })]), kit })
          }
        ]
      });
    });
  return remarks;
};
