/** drives-before: the wheels may not move before setting off; a block that moves them stops the program there. */
import { partAt, wheelOf } from '../../../kit/kit.ts';
import { isLive, walkSteps } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const drivesBefore: Rule = ({ program, kit }) =>
  program.stacks.flatMap((stack): Remark[] => {
    if (!isLive(stack) || stack.steps[0].kind !== 'begin.before') return [];
    const moving = [...walkSteps(stack.steps)].filter(
      (s) =>
        !s.off &&
        (/^(drive|turn|curve|slide|wheels)\./.test(s.kind) ||
          (/^motor\.(run|span)$/.test(s.kind) && !!wheelOf(kit, partAt(kit, String(s.slots.motor)))))
    );
    if (!moving.length) return [];
    return [
      {
        rule: 'drives-before',
        severity: 'will not work',
        blocks: moving.map((s) => s.id),
        says: say('The wheels may not move before setting off: the program stops here.'),
        todo: say('Put what drives into the stack "on the word to set off".'),
        mends: []
      }
    ];
  });
