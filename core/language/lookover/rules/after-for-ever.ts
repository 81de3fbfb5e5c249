import { definition } from '../../catalogue.ts';
import type { Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { liveLists } from '../walk.ts';
import { say } from '../../../words.ts';

/** after-for-ever: what stands below a loop for ever that nothing leaves is never done. */
export const afterForEver: Rule = ({ program }) =>
  [...liveLists(program)].flatMap((list) =>
    list.flatMap((step, i): Remark[] => {
      const next = list[i + 1];
      if (step.kind !== 'repeat.ever' || !next || isLeft(step.bodies?.do ?? [])) return [];
      return [
        {
          rule: 'after-for-ever',
          severity: 'probably not meant',
          blocks: [step.id, next.id],
          says: say('What stands below this loop is never done: it repeats for ever, and nothing leaves it.'),
          todo: say('Put "leave the loop" into it, or use a loop that ends.'),
          mends: []
        }
      ];
    })
  );
/** Whether a block in the loop's own body leaves it; inner loops keep theirs to themselves. */
const isLeft = (body: readonly Step[]): boolean =>
  body.some((s) => {
    if (s.off) return false;
    if (s.kind === 'repeat.leave' || s.kind === 'routine.give') return true;
    const def = definition(s.kind);
    const loop = 'loop' in def && !!def.loop;
    return Object.values(s.bodies ?? {}).some((b) => (loop ? b.some((x) => x.kind === 'routine.give') : isLeft(b)));
  });
