/** written-too-long: more than two characters are written so that they stand still: the rest is not seen. */
import { setSlot } from '../../edit.ts';
import { liveSteps } from '../../program.ts';
import { show } from '../../values.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const writtenTooLong: Rule = ({ program }) =>
  [...liveSteps(program)].flatMap((step): Remark[] => {
    const { what: value, how } = step.slots;
    if (step.kind !== 'display.write' || how === 'passing' || (typeof value !== 'string' && typeof value !== 'number'))
      return [];
    const text = [...show(value)];
    if (text.length <= 2) return [];
    return [
      {
        rule: 'written-too-long',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('Two characters fit side by side: of "{text}" the display shows "{shown}".', {
          text: text.join(''),
          shown: text.slice(0, 2).join('').toUpperCase()
        }),
        todo: say('Let it pass by, or make it shorter.'),
        mends: [
          {
            label: say('Let it pass by'),
            apply: (p, kit) => ({ program: setSlot(p, step.id, 'how', 'passing'), kit })
          }
        ]
      }
    ];
  });
