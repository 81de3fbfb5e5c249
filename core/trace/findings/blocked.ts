/** blocked: a move that something held. */
import { retell, say, word } from '../../words.ts';
import { movesSpan, one, type Rule } from './finding.ts';

export const blocked: Rule = ({ trace, moves }) =>
  moves
    .filter((m) => m.ended === 'blocked')
    .map((m) => ({
      rule: 'blocked',
      weight: 85,
      says: say('{what} was blocked: asked {asked} {unit}, got {got} {unit}.', {
        what: retell(m.what),
        asked: one(m.asked),
        got: one(m.got),
        unit: word(m.unit)
      }),
      todo: say('Something holds the wheels: look what it stands against.'),
      ...movesSpan(trace, m)
    }));
