import { insertAfter } from '../../edit.ts';
import { liveSteps } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { runs, stops } from '../../facts.ts';
import { contains, fresh, literal } from '../walk.ts';
import { say } from '../../../words.ts';

/** never-stopped: a motor is started and nothing in the program stops it. */
export const neverStopped: Rule = ({ program }) => {
  const live = [...liveSteps(program)];
  const remarks: Remark[] = [];
  for (const run of live) {
    if (!runs(run)) continue;
    const zero =
      run.kind === 'motor.run'
        ? literal(run, 'power') === 0
        : literal(run, 'left') === 0 && literal(run, 'right') === 0;
    if (
      zero ||
      live.some(
        (s) =>
          s !== run &&
          (stops(s, run) || (s.kind === run.kind && (literal(s, 'power') === 0 || literal(s, 'left') === 0)))
      )
    )
      continue;
    // a loop for ever that steers by its sensors is meant to go on
    if (live.some((s) => s.kind === 'repeat.ever' && contains(s, run))) continue;
    const kind = run.kind === 'motor.run' ? 'motor.stop' : 'wheels.stop';
    remarks.push({
      rule: 'never-stopped',
      severity: 'probably not meant',
      blocks: [run.id],
      says:
        run.kind === 'motor.run'
          ? say('This motor is started and nothing stops it: it runs on when the program is over.')
          : say('The wheels are started and nothing stops them: the robot drives on when the program is over.'),
      todo: say('Wait as long as it should run, then stop it.'),
      mends: [
        {
          label: say('Add: wait 1 s, then stop'),
          apply: (p, kit) => {
            const wait = fresh(p, 'wait.time', { time: 1 });
            const stop = {
              ...fresh(p, kind, kind === 'motor.stop' ? { motor: run.slots.motor } : {}),
              id: `${wait.id}s`
            };
            return { program: insertAfter(p, run.id, [wait, stop]), kit };
          }
        }
      ]
    });
  }
  return remarks;
};
