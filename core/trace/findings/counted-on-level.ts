/** counted-on-level: a loop counts as long as something is true, not once each time that it becomes true. */
import { isStep, liveSteps, type Step } from '../../language/program.ts';
import { say } from '../../words.ts';
import { rowsOfBlock } from '../apart.ts';
import { lanesOf, seconds, sensorsOf, type Found, type Rule } from './finding.ts';

/** Counted so often in turn, no further apart than this, it was one time that was meant. */
const COUNTS = 4;
const APART_US = 60_000;

export const countedOnLevel: Rule = ({ trace, kit, program }) => {
  if (!program) return [];
  const { start, end, times } = trace.spans;
  const out: Found[] = [];
  const look = (choice: Step): void => {
    for (const [name, body] of Object.entries(choice.bodies ?? {})) {
      const condition = choice.slots[name.replace('then', 'if')];
      const counts = body.find((s) => s.kind === 'var.change' && !s.off);
      // what waits in the same branch counts once each
      if (
        !isStep(condition) ||
        !counts ||
        !sensorsOf(condition, kit).length ||
        body.some((s) => s.kind.startsWith('wait.'))
      )
        continue;
      let from = -1;
      let n = 0;
      let best: { n: number; fromUs: number; toUs: number } | undefined;
      let last = -Infinity;
      for (const row of rowsOfBlock(trace, counts.id)) {
        if (start[row] - last > APART_US) [n, from] = [0, start[row]];
        n += times[row];
        last = end[row] || start[row];
        if (n >= COUNTS && n > (best?.n ?? 0)) best = { n, fromUs: from, toUs: last };
      }
      if (best)
        out.push({
          rule: 'counted-on-level',
          weight: 63,
          says: say(
            'This counted {n} times from {from} s to {to} s: it counts as long as its condition is true, not once each time.',
            {
              n: best.n,
              from: seconds(best.fromUs),
              to: seconds(best.toUs)
            }
          ),
          todo: say(
            'After counting, wait until the condition is false again, or use a stack that begins when it becomes true.'
          ),
          figures: [
            { value: best.n, sum: [{ take: 'times', block: counts.id, fromUs: best.fromUs, toUs: best.toUs }] }
          ],
          blocks: [counts.id],
          fromUs: best.fromUs,
          toUs: best.toUs,
          lanes: [...lanesOf(condition, kit), 'variables']
        });
    }
  };
  for (const loop of liveSteps(program))
    if (loop.kind.startsWith('repeat.'))
      for (const step of loop.bodies?.do ?? []) if (step.kind === 'choose.if' && !step.off) look(step);
  return out;
};
