/** key-without-release: a key starts the wheels, and letting it go does nothing. */
import { addStack } from '../../edit.ts';
import { allIds, freshId, isLive, walkSteps, type Program, type Stack } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { runs, standsAfter } from '../../facts.ts';
import { doneBy, fresh, literal } from '../walk.ts';
import { say } from '../../../words.ts';

const runsThem = (program: Program, { steps }: Pick<Stack, 'steps'>): boolean => [...doneBy(program, steps)].some(runs);
const stopsThem = (program: Program, { steps }: Stack): boolean =>
  [...doneBy(program, steps)].some(
    (s) => standsAfter(s) || (s.kind === 'wheels.run' && literal(s, 'left') === 0 && literal(s, 'right') === 0)
  );

export const keyWithoutRelease: Rule = ({ program }) =>
  program.stacks.flatMap((stack): Remark[] => {
    const [starter] = stack.steps;
    if (!isLive(stack) || starter.kind !== 'begin.key' || starter.slots.event !== 'pressed') return [];
    if (!runsThem(program, stack) || stopsThem(program, stack)) return [];
    const { key } = starter.slots;
    const others = program.stacks.filter((s) => s !== stack && isLive(s) && stopsThem(program, s));
    // what stops them for this key: its own release, a key that does nothing but stop, or a stack that looks at this key
    const stopsThis = ({ steps }: Stack): boolean => {
      const [{ kind, slots }] = steps;
      if (kind === 'begin.key' && slots.event === 'released') return slots.key === key;
      if (kind === 'begin.key') return !runsThem(program, { steps });
      return [...walkSteps(steps)].some((s) => s.kind === 'sense.key' && s.slots.key === key);
    };
    if (others.some(stopsThis)) return [];
    return [
      {
        rule: 'key-without-release',
        severity: 'probably not meant',
        blocks: [starter.id],
        says: say('Pressing {key} starts the wheels, and letting it go does not stop them: the robot drives on.', {
          key: String(key)
        }),
        todo: say('Let a second stack stop them when the key is released.'),
        mends: [
          {
            label: say('Add: when {key} is released, stop', { key: String(key) }),
            apply: (p: Program, kit) => {
              const begin = fresh(p, 'begin.key', { key, event: 'released' });
              const stop = { ...fresh(p, 'wheels.stop'), id: `${begin.id}s` };
              return {
                program: addStack(p, {
                  id: freshId(allIds(p), 's'),
                  x: stack.x + 260,
                  y: stack.y,
                  steps: [begin, stop]
                }),
                kit
              };
            }
          }
        ]
      }
    ];
  });
