/** blocked: a move that something held. */
import { allSteps, type Program } from '../../language/program.ts';
import { retell, say, word } from '../../words.ts';
import { askedOf, gotOf, movesSpan, one, type Rule } from './finding.ts';

/** Whether the block asked for no power at all: then nothing held the wheels. */
const withoutPower = (program: Program | undefined, block: string | undefined): boolean =>
  [...(program ? allSteps(program) : [])].some((s) => s.id === block && s.slots.power === 0);

export const blocked: Rule = ({ trace, moves, program }) =>
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
      todo: withoutPower(program, m.block)
        ? say('It had 0 % power, and nothing turns without: give it some.')
        : say('Something holds the wheels: look what it stands against.'),
      figures: [askedOf(m), gotOf(m)],
      ...movesSpan(trace, m)
    }));
