import { motorsAt } from '../../../kit/kit.ts';
import { insertAfter, removeStep } from '../../edit.ts';
import { liveSteps } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { fresh, liveLists, literal } from '../walk.ts';
import { say } from '../../../words.ts';

/** mirrored-motor: both wheels' motors turn their shafts the same way, but one is mounted mirrored. */
export const mirroredMotor: Rule = ({ program, kit }) => {
  const [left] = motorsAt(kit, 'left');
  const [right] = motorsAt(kit, 'right');
  if (!left || !right || left.mounted === right.mounted) return [];
  // somebody who says how a motor counts knows about it
  if ([...liveSteps(program)].some((s) => s.kind === 'motor.side')) return [];
  const mirrored = left.mounted === 'mirrored' ? left : right;
  const remarks: Remark[] = [];
  for (const list of liveLists(program))
    for (let i = 0; i + 1 < list.length; i++) {
      const [a, b] = [list[i], list[i + 1]];
      if (a.kind !== 'motor.run' || b.kind !== 'motor.run') continue;
      const sockets = [a.slots.motor, b.slots.motor];
      const [pa, pb] = [literal(a, 'power'), literal(b, 'power')];
      if (
        !sockets.includes(left.socket) ||
        !sockets.includes(right.socket) ||
        pa === undefined ||
        pb === undefined ||
        pa * pb <= 0
      )
        continue;
      remarks.push({
        rule: 'mirrored-motor',
        severity: 'probably not meant',
        blocks: [a.id, b.id],
        says: say(
          'Both motors get the same sign, but the {name} is mounted mirrored: the robot spins instead of driving.',
          { name: mirrored.name }
        ),
        todo: say('Use Run both wheels, which knows how they are mounted, or turn the sign round.'),
        mends: [
          {
            label: say('Use Run both wheels'),
            apply: (p, k) => {
              const power = { [String(a.slots.motor)]: Math.abs(pa), [String(b.slots.motor)]: Math.abs(pb) };
              const sign = (motorsAt(k, 'left')[0]?.mounted === 'mirrored' ? pb : pa) > 0 ? 1 : -1;
              const both = fresh(p, 'wheels.run', {
                left: sign * power[left.socket],
                right: sign * power[right.socket]
              });
              return { program: removeStep(removeStep(insertAfter(p, a.id, [both]), a.id), b.id), kit: k };
            }
          }
        ]
      });
    }
  return remarks;
};
