/** never-reached: steps that did not run although the run came to its end. */
import { definition } from '../../language/catalogue.ts';
import { isLive, type Step } from '../../language/program.ts';
import { say } from '../../words.ts';
import { rowsOfBlock } from '../apart.ts';
import { endUs } from '../trace.ts';
import { lanesOf, type Found, type Rule } from './finding.ts';

export const unreached: Rule = ({ trace, kit, program }) => {
  if (!program || !trace.ended || trace.ended === 'stopped' || trace.ended === 'error') return [];
  const ran = (id: string): boolean => rowsOfBlock(trace, id).length > 0;
  const began = new Set(trace.events.flatMap((e) => (e.type === 'began' && e.block ? [e.block] : [])));
  const out: Found[] = [];
  const at = endUs(trace);
  const look = (list: readonly Step[]): void => {
    const steps = list.filter((s) => !s.off && definition(s.kind).shape !== 'starter');
    const first = steps.findIndex((s) => !ran(s.id));
    // cases of a choice come and go; what is told is what stands below something that never ended
    if (first > 0)
      out.push({
        rule: 'never-reached',
        weight: 58,
        says: say('This block never ran, and what is below it neither: the block above it was not over at the end.'),
        todo: say('Look what the block above it waits for, and at its value.'),
        blocks: [steps[first].id],
        fromUs: trace.spans.start[rowsOfBlock(trace, steps[first - 1].id).at(-1) ?? -1] ?? at,
        toUs: at,
        lanes: lanesOf(steps[first - 1], kit)
      });
    for (const s of steps)
      if (ran(s.id) && s.kind.startsWith('repeat.')) for (const body of Object.values(s.bodies ?? {})) look(body);
  };
  for (const stack of program.stacks) {
    if (!isLive(stack)) continue;
    if (began.has(stack.steps[0].id)) look(stack.steps);
    else if (stack.steps.length > 1 && stack.steps[0].kind === 'begin.when')
      out.push({
        rule: 'never-reached',
        weight: 58,
        says: say('This stack never began: its condition did not become true.'),
        todo: say('Look at the live value, and choose a number between the two that it shows.'),
        blocks: [stack.steps[0].id],
        fromUs: at,
        toUs: at,
        lanes: lanesOf(stack.steps[0], kit)
      });
  }
  return out;
};
