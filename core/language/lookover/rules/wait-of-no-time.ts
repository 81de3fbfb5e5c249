/** wait-of-no-time: a wait so short that nobody notices it: mostly milliseconds where seconds were meant. */
import { setSlot } from '../../edit.ts';
import { liveSteps } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { literal } from '../walk.ts';

/** A loop that looks often waits some milliseconds; less than this is hardly ever meant. */
const SHORT_MS = 5;

export const waitOfNoTime: Rule = ({ program }) =>
  [...liveSteps(program)].flatMap((step): Remark[] => {
    const time = step.kind === 'wait.time' ? literal(step, 'time') : undefined;
    if (time === undefined || time <= 0) return [];
    const inMs = step.slots.unit === 'ms';
    if ((inMs ? time : time * 1000) >= SHORT_MS) return [];
    return [
      {
        rule: 'wait-of-no-time',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('This wait lasts {time} {unit}: nobody notices it.', { time, unit: inMs ? 'ms' : 's' }),
        todo: inMs
          ? say('1000 ms are one second. Choose s, or a larger number.')
          : say('Choose a larger number, or take the wait out.'),
        mends: inMs
          ? [
              {
                label: say('Make it {time} s', { time }),
                apply: (p, kit) => ({ program: setSlot(p, step.id, 'unit', 's'), kit })
              }
            ]
          : []
      }
    ];
  });
