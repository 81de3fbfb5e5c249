/** no-power: a move that goes by measure, and has no power to get there. */
import { setSlot } from '../../edit.ts';
import { newStep } from '../../catalogue.ts';
import { liveSteps } from '../../program.ts';
import { runs, takesTime } from '../../facts.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { literal } from '../walk.ts';

export const noPower: Rule = ({ program }) =>
  [...liveSteps(program)].flatMap((step): Remark[] => {
    const usual = literal(newStep(step.kind, 'as-it-comes'), 'power');
    if (!usual || !takesTime(step) || runs(step) || literal(step, 'power') !== 0) return [];
    return [
      {
        rule: 'no-power',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('At 0 % nothing turns: this move never gets anywhere.'),
        todo: say('Give it some power, or take it out.'),
        mends: [
          {
            label: say('Make it {usual} %', { usual }),
            apply: (p, kit) => ({ program: setSlot(p, step.id, 'power', usual), kit })
          }
        ]
      }
    ];
  });
