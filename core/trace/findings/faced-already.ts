/** faced-already: a turn to a heading that it had: nothing happened. What was meant is often a turn by an angle. */
import { allSteps } from '../../language/program.ts';
import { say } from '../../words.ts';
import { movesSpan, one, type Found, type Rule } from './finding.ts';

const NO_TURN_DEG = 1;

export const facedAlready: Rule = ({ trace, program, moves }) => {
  if (!program) return [];
  const faces = new Map([...allSteps(program)].flatMap((s) => (s.kind === 'turn.face' ? [[s.id, s] as const] : [])));
  return moves.flatMap((m, i): Found[] => {
    const step = m.block ? faces.get(m.block) : undefined;
    const heading = step?.slots.heading;
    // a heading that is worked out, or faced for the first time, may well be the one that it has
    const again = (one: (typeof moves)[number]): boolean => faces.get(one.block ?? '')?.slots.heading === heading;
    if (!step || typeof heading !== 'number' || !moves.slice(0, i).some(again)) return [];
    if (m.ended !== 'done' || Math.abs(m.asked) > NO_TURN_DEG || Math.abs(m.got) > NO_TURN_DEG) return [];
    return [
      {
        rule: 'faced-already',
        weight: 66,
        says: say('It was to face {heading} °, and faced that way already: nothing turned.', { heading: one(heading) }),
        todo: say('To turn on by an angle from where it stands, take "turn by".'),
        ...movesSpan(trace, m)
      }
    ];
  });
};
