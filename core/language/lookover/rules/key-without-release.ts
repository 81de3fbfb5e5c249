/** key-without-release: a key starts the wheels, and letting it go does nothing. */
import { addStack } from '../../edit.ts';
import { allIds, freshId, isLive, walkSteps, type Program, type Stack } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { fresh, STOPS } from '../walk.ts';
import { say } from '../../../words.ts';

const runs = (stack: Stack): boolean =>
  [...walkSteps(stack.steps)].some((s) => !s.off && /^(wheels|motor)\.run$/.test(s.kind));
const stopsThem = (stack: Stack): boolean => [...walkSteps(stack.steps)].some((s) => !s.off && STOPS.includes(s.kind));

export const keyWithoutRelease: Rule = ({ program }) =>
  program.stacks.flatMap((stack): Remark[] => {
    const [starter] = stack.steps;
    if (!isLive(stack) || starter.kind !== 'begin.key' || starter.slots.event !== 'pressed') return [];
    if (!runs(stack) || stopsThem(stack)) return [];
    const { key } = starter.slots;
    const others = program.stacks.filter((s) => s !== stack && isLive(s));
    if (
      others.some(
        (s) => s.steps[0].kind === 'begin.key' && s.steps[0].slots.event === 'released' && s.steps[0].slots.key === key
      )
    )
      return [];
    // a key of its own that stops, or a stack that looks at keys by itself
    if (others.some((s) => stopsThem(s))) return [];
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
