/** message-unheard: a message that no stack waits for, here or on a device nearby. */
import { isLive, liveSteps } from '../../program.ts';
import { setSlot } from '../../edit.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const messageUnheard: Rule = ({ program, others = [] }) => {
  const heardBy = (p: typeof program): Set<string> =>
    new Set(
      p.stacks.flatMap((s) => (isLive(s) && s.steps[0].kind === 'begin.message' ? [String(s.steps[0].slots.name)] : []))
    );
  const here = heardBy(program);
  const there = new Set(others.flatMap((o) => [...heardBy(o.program)]));
  // what was sent can also be asked for
  const asks = [...liveSteps(program)].some((s) => s.kind === 'sense.message');
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    if (step.kind !== 'message.send') return [];
    const name = String(step.slots.name);
    const nearby = step.slots.whom !== 'my stacks';
    if (here.has(name) || (nearby && there.has(name)) || (asks && !nearby)) return [];
    if (!nearby && there.has(name))
      return [
        {
          rule: 'message-unheard',
          severity: 'probably not meant',
          blocks: [step.id],
          says: say('"{name}" goes to the own stacks, and it is the other device that waits for it.', { name }),
          todo: say('Send it to devices nearby.'),
          mends: [
            {
              label: say('Send it to devices nearby too'),
              apply: (p, kit) => ({ program: setSlot(p, step.id, 'whom', 'my stacks and devices nearby'), kit })
            }
          ]
        }
      ];
    // nobody stands nearby in this project; another group's device may
    if (nearby) return [];
    return [
      {
        rule: 'message-unheard',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('No stack waits for the message "{name}": nothing happens.', { name }),
        todo: here.size
          ? say('The messages that stacks wait for are: {list}.', { list: [...here].join(', ') })
          : say('Add a stack "when message {name} arrives".', { name }),
        mends: [...here].slice(0, 2).map((known) => ({
          label: say('Send "{known}" instead', { known }),
          apply: (p, kit) => ({ program: setSlot(p, step.id, 'name', known), kit })
        }))
      }
    ];
  });
};
