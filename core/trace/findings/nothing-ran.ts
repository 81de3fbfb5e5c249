/** nothing-ran: the program has nothing that could run. */
import { isLive } from '../../language/program.ts';
import { say } from '../../words.ts';
import type { Rule } from './finding.ts';

export const nothingRan: Rule = ({ trace, program }) => {
  if (!program || !trace.ended || trace.ended === 'stopped') return [];
  const starts = program.stacks.filter(isLive);
  if (starts.some((s) => s.steps.some((step, i) => i > 0 && !step.off))) return [];
  const begin = say('Take "At the start" from Begin, and join blocks below it.');
  const [says, todo] =
    program.stacks.length === 0
      ? [say('The program is empty: nothing ran.'), begin]
      : starts.length === 0
        ? [say('No stack begins with a starter: nothing ran.'), begin]
        : [say('Nothing hangs on the starter: nothing ran.'), say('Join blocks below it.')];
  return [
    {
      rule: 'nothing-ran',
      weight: 90,
      says,
      todo,
      blocks: starts.map((s) => s.steps[0].id),
      fromUs: 0,
      toUs: 0,
      lanes: []
    }
  ];
};
