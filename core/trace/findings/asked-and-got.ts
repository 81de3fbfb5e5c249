/** asked-and-got: a move came to rest elsewhere than asked, and why. */
import type { Kit } from '../../kit/kit.ts';
import { retell, say, word } from '../../words.ts';
import { eventsOf, firstAfter } from '../apart.ts';
import { worthTelling } from './came.ts';
import { askedOf, onAfter, isMoving, movesSpan, one, type Found, type Rule } from './finding.ts';
import { wentOtherWay } from './other-way.ts';
import { rolledFurther } from './rolled-on.ts';

/** Tyres that stand behind one another are dragged sideways whenever it turns; only rollers give way. */
const scrapes = ({ wheels }: Kit): boolean =>
  new Set(wheels.flatMap((w) => (w.rim === 'tyre' && Math.abs(w.at.deg % 180) < 1 ? [w.at.xMm] : []))).size > 1;

export const asked: Rule = ({ trace, kit, moves }) => {
  const touches = eventsOf(trace, 'touch');
  return moves.flatMap((m): Found[] => {
    // each of these is told by a rule of its own
    if (m.ended !== 'done' || wentOtherWay(m) || rolledFurther(m) || m.unit === 'turns' || !worthTelling(m)) return [];
    const first = touches[firstAfter(touches, m.fromUs - 1)];
    const touch = first && first.tUs <= m.toUs ? first : undefined;
    const inMotion = isMoving(trace, m.fromUs);
    const dragged = m.unit === '°' && scrapes(kit);
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
              : dragged
                ? say('its tyres are dragged sideways as it turns')
                : say('its wheels are not quite as the kit sheet has them')
        }),
        todo:
          touch || inMotion
            ? say('Start from rest, with the way free.')
            : dragged
              ? say('Turn by the gyro, which feels how far it really turned.')
              : say('Measure what it really does, and write that onto the kit sheet.'),
        figures: [
          askedOf(m),
          onAfter(trace, m, true),
          { value: off, sum: [...onAfter(trace, m, true).sum, ...askedOf(m).sum.map((q) => ({ ...q, times: -1 }))] }
        ],
        ...movesSpan(trace, m)
      }
    ];
  });
};
