/** variable-never-set, variable-never-read: a name that is only asked for, or only given values. */
import { isLoop, sets } from '../../facts.ts';
import { liveSteps } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

const FILLS = new Set(['list.add', 'list.insert']);

export const variables: Rule = ({ program }) => {
  const live = [...liveSteps(program)];
  return program.variables.flatMap((v): Remark[] => {
    const uses = live.filter((s) => s.slots.variable === v.id || s.slots.list === v.id);
    const given = uses.filter((s) => (v.list ? FILLS.has(s.kind) : sets(s)));
    const reads = uses.filter((s) => !sets(s));
    // adding to a variable again and again reads it too, but nobody sees what it comes to
    if (!v.list && reads.length && !given.length)
      return [
        {
          rule: 'variable-never-set',
          severity: 'probably not meant',
          blocks: [reads[0].id],
          says: say('{name} is never given a value: it is 0 all the time.', { name: v.name }),
          todo: say('Set it before it is used.'),
          mends: []
        }
      ];
    const loops = given.some(isLoop);
    if (given.length && !reads.length && !loops)
      return [
        {
          rule: 'variable-never-read',
          severity: 'probably not meant',
          blocks: [given[0].id],
          says: say('{name} is given values, and nothing looks at them: nothing changes by it.', { name: v.name }),
          todo: say('Use it in a block, or write it on the display.'),
          mends: []
        }
      ];
    return [];
  });
};
