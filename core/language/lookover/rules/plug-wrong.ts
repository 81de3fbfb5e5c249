/** plug-wrong: the program drives a servo whose plug is the wrong way round: it stays dead. */
import { changePart, partAt } from '../../../kit/kit.ts';
import { liveSteps } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const plugWrong: Rule = ({ program, kit }) => {
  const seen = new Map<string, string[]>();
  for (const step of liveSteps(program)) {
    const part = typeof step.slots.servo === 'string' ? partAt(kit, step.slots.servo) : undefined;
    if (part && 'plug' in part && part.plug === 'wrong')
      seen.set(part.socket, [...(seen.get(part.socket) ?? []), step.id]);
  }
  return [...seen].map(([socket, blocks]): Remark => {
    const { name } = partAt(kit, socket)!;
    return {
      rule: 'plug-wrong',
      severity: 'will not work',
      blocks,
      says: say('The plug of the {name} in {socket} is the wrong way round: it stays dead. Turn the plug.', {
        name,
        socket
      }),
      todo: say('Turn the plug, on the device and on the kit sheet.'),
      mends: [
        {
          label: say('Turn the plug on the kit sheet'),
          apply: (p, k) => ({
            program: p,
            kit: changePart(k, socket, { plug: 'right' })
          })
        }
      ]
    };
  });
};
