/** drives-long: the wheels run for so long that no room is large enough: mostly seconds where milliseconds were meant. */
import { setSlot } from '../../edit.ts';
import { FULL_SPEED } from '../../../kit/ranges.ts';
import { runs, standsAfter } from '../../facts.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { literal, liveLists } from '../walk.ts';

/** So far in one go, m: longer than a hall. */
const FAR_M = 30;
/** How fast a block drives ahead or back, m/s; what turns round as much as it goes does not get far. */
function speedOf(step: { kind: string } & Parameters<typeof literal>[0]): number {
  const [left, right] = step.kind === 'wheels.run' ? ['left', 'right'].map((s) => literal(step, s) ?? 0) : [0, 0];
  const straight =
    step.kind === 'slide.run' ? (literal(step, 'power') ?? 0) : Math.abs(left - right) <= 10 ? (left + right) / 2 : 0;
  return (Math.abs(straight) / 100) * FULL_SPEED;
}

export const drivesLong: Rule = ({ program }) =>
  [...liveLists(program)].flatMap((list): Remark[] => {
    let speed = 0;
    return list.flatMap((step): Remark[] => {
      if (runs(step)) speed = speedOf(step);
      else if (standsAfter(step) || (step.kind !== 'wait.time' && step.bodies)) speed = 0;
      const time = step.kind === 'wait.time' ? literal(step, 'time') : undefined;
      if (!time || !speed) return [];
      const inMs = step.slots.unit === 'ms';
      const metres = speed * (inMs ? time / 1000 : time);
      if (metres < FAR_M) return [];
      return [
        {
          rule: 'drives-long',
          severity: 'probably not meant',
          blocks: [step.id],
          says: say('In {time} {unit} it drives about {metres} m: no room is that large.', {
            time,
            unit: inMs ? 'ms' : 's',
            metres: Math.round(metres)
          }),
          todo: inMs ? say('Choose a smaller number.') : say('1000 ms are one second. Choose ms, or a smaller number.'),
          mends: inMs
            ? []
            : [
                {
                  label: say('Make it {time} ms', { time }),
                  apply: (p, kit) => ({ program: setSlot(p, step.id, 'unit', 'ms'), kit })
                }
              ]
        }
      ];
    });
  });
