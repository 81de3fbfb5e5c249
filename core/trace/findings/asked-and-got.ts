/** asked-and-got: a move came to rest elsewhere than asked, and why. */
import { retell, say, word } from '../../words.ts';
import { eventsOf, firstAfter } from '../apart.ts';
import type { Asked } from '../query.ts';
import { isMoving, movesSpan, one, type Found, type Rule } from './finding.ts';
import { wentOtherWay } from './other-way.ts';
import { rolledFurther } from './rolled-on.ts';

/** Beyond this a difference is told: 2 %, and what nobody would see is left out. */
const worthTelling = (m: Asked): boolean =>
  m.unit !== 'turns' && Math.abs(m.rest - m.asked) > Math.max(0.02 * Math.abs(m.asked), m.unit === 'cm' ? 0.3 : 1);

export const asked: Rule = ({ trace, moves }) => {
  const touches = eventsOf(trace, 'touch');
  return moves.flatMap((m): Found[] => {
    // each of these is told by a rule of its own
    if (m.ended !== 'done' || wentOtherWay(m) || rolledFurther(m) || !worthTelling(m)) return [];
    const first = touches[firstAfter(touches, m.fromUs - 1)];
    const touch = first && first.tUs <= m.toUs ? first : undefined;
    const inMotion = isMoving(trace, m.fromUs);
    const off = m.rest - m.asked;
    return [
      {
        rule: 'asked-and-got',
        weight: 55,
        says: say('{what}: asked {asked} {unit}, got {got} {unit}, {off} {unit}: {why}.', {
          what: retell(m.what),
          asked: one(m.asked),
          got: one(m.rest),
          unit: word(m.unit),
          off: `${off > 0 ? '+' : ''}${one(off)}`,
          why: touch
            ? say('it touched {what} on the way', { what: retell(touch.what) })
            : inMotion
              ? say('it was still moving when this began')
              : say('its wheels are not quite as the kit sheet has them')
        }),
        todo:
          touch || inMotion
            ? say('Start from rest, with the way free.')
            : say('Measure what it really does, and write that onto the kit sheet.'),
        ...movesSpan(trace, m)
      }
    ];
  });
};
