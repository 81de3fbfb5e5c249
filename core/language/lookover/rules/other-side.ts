/** other-side: what is called left turns to the right, or the other way round: a routine, or what a message asks for. */
import { setSlot } from '../../edit.ts';
import { sideIn } from '../../facts.ts';
import { isLive, type Step } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { doneBy } from '../walk.ts';

export const otherSide: Rule = ({ program }) => {
  const look = (name: string, steps: readonly Step[]): Remark[] => {
    const side = sideIn(name);
    // what turns, and not what looks or waits to one side
    const turns = [...doneBy(program, steps)].filter((s) => s.slots.side === 'left' || s.slots.side === 'right');
    if (!side || turns.length !== 1 || turns[0].slots.side === side) return [];
    const [turn] = turns;
    return [
      {
        rule: 'other-side',
        severity: 'probably not meant',
        blocks: [turn.id],
        says:
          side === 'left'
            ? say('{name} names the left, and this turns to the right.', { name })
            : say('{name} names the right, and this turns to the left.', { name }),
        todo: say('Change the side here, or the name.'),
        mends: [
          {
            label: side === 'left' ? say('Turn left here') : say('Turn right here'),
            apply: (p, kit) => ({ program: setSlot(p, turn.id, 'side', side), kit })
          }
        ]
      }
    ];
  };
  return [
    ...program.routines.flatMap((r) => look(r.name, r.steps)),
    ...program.stacks.flatMap((s) =>
      isLive(s) && s.steps[0].kind === 'begin.message' ? look(String(s.steps[0].slots.name), s.steps.slice(1)) : []
    )
  ];
};
