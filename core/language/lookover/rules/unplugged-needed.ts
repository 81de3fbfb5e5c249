/** unplugged-needed: keys and sticks of the computer in a program that drives off on its battery. */
import { liveSteps } from '../../program.ts';
import { hasWheels } from '../../../kit/kit.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

export const unpluggedNeeded: Rule = ({ program, kit }) => {
  if (!hasWheels(kit)) return [];
  const live = [...liveSteps(program)];
  const asks = live.filter((s) => ['begin.key', 'sense.key', 'sense.stick'].includes(s.kind));
  const drives = live.some((s) => /^(drive|turn|curve|slide|wheels)\./.test(s.kind));
  if (!asks.length || !drives) return [];
  const remark: Remark = {
    rule: 'unplugged-needed',
    severity: 'consider',
    blocks: [asks[0].id],
    says: say(
      'Keys and sticks of the computer reach the robot while it rehearses or is plugged in: on its battery it hears none.'
    ),
    todo: say('Use the buttons Dot and Bar for what it does on the floor.'),
    mends: []
  };
  return [remark];
};
