/** skipped-loop: a loop that had turned before was skipped, since what it counts was not set back. */
import { asksCondition, isLoop, sets, variablesIn } from '../../language/facts.ts';
import { isStep, liveSteps, walkSteps } from '../../language/program.ts';
import { say } from '../../words.ts';
import { rowsOfBlock } from '../apart.ts';
import { momentOf, seconds, type Found, type Rule } from './finding.ts';

export const skippedLoop: Rule = ({ trace, program }) => {
  if (!program) return [];
  const { start, end, times } = trace.spans;
  return [...liveSteps(program)].flatMap((loop): Found[] => {
    if (!isLoop(loop) || !asksCondition(loop)) return [];
    const { condition } = loop.slots;
    const body = (loop.bodies?.do ?? []).filter((s) => !s.off);
    if (!isStep(condition) || !body.length || loop.slots.look === 'after') return [];
    const asked = variablesIn(condition);
    // it counts in its own body
    const counts = [...walkSteps(body)].some((s) => sets(s) === 'variable' && asked.includes(String(s.slots.variable)));
    if (!asked.length || !counts) return [];
    const turns = rowsOfBlock(trace, body[0].id);
    const within = (row: number): boolean =>
      turns.some((t) => start[t] >= start[row] && start[t] < (end[row] || Infinity));
    const runs = rowsOfBlock(trace, loop.id).filter((row) => times[row] === 1);
    const skipped = runs.filter((row) => end[row] && !within(row));
    if (!skipped.length || skipped.length === runs.length || skipped[0] === runs[0]) return [];
    const name = program.variables.find((v) => v.id === asked[0])?.name ?? '';
    return [
      {
        rule: 'skipped-loop',
        weight: 64,
        says: say('This loop was skipped at {s} s: {name} still had the value that ended it before.', {
          s: seconds(start[skipped[0]]),
          name
        }),
        todo: say('Set {name} back before the loop begins again.', { name }),
        figures: [momentOf(start[skipped[0]])],
        blocks: [loop.id],
        fromUs: start[skipped[0]],
        toUs: end[skipped[0]],
        lanes: ['variables']
      }
    ];
  });
};
