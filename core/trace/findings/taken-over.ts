/** taken-over: another block commanded the same wheels before a move was over. */
import { retell, say, word } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { askedOf, gotOf, movesSpan, one, type Rule } from './finding.ts';

export const takenOver: Rule = ({ trace, moves }) => {
  // a run that was stopped, or that an error ended, let the wheels go: nobody took them
  const ends = [...eventsOf(trace, 'error'), ...eventsOf(trace, 'input').filter((e) => 'stop' in e.input)];
  return moves
    .filter((m) => m.ended === 'taken over' && !ends.some((e) => Math.abs(e.tUs - m.toUs) <= 2000))
    .map((m) => ({
      rule: 'taken-over',
      weight: 75,
      says: say('{what} was taken over by another block after {got} of {asked} {unit}.', {
        what: retell(m.what),
        asked: one(m.asked),
        got: one(m.got),
        unit: word(m.unit)
      }),
      todo: say('Two stacks command the same wheels. Put the moves into one of them.'),
      figures: [askedOf(m), gotOf(m)],
      ...movesSpan(trace, m)
    }));
};
