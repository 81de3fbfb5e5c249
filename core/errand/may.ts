/** What of a program may be changed in an errand. */
import { allSteps, isStep, type Program, type Slot, type Step } from '../language/program.ts';
import { orderedText } from '../ordered.ts';
import { say } from '../words.ts';
import type { Task } from './task.ts';

type Shape = { kind: string; slots: Record<string, unknown>; bodies: Record<string, Shape[]> };
/** What a block is but for its numbers; note, place and id are nobody's concern. */
const slot = (s: Slot): unknown => (typeof s === 'number' ? 0 : isStep(s) ? shape(s) : s);
const shape = ({ kind, slots, bodies = {}, off }: Step): Shape & { off: boolean } => ({
  kind,
  off: !!off,
  slots: Object.fromEntries(Object.entries(slots).map(([key, value]) => [key, slot(value)])),
  bodies: Object.fromEntries(Object.entries(bodies).map(([key, steps]) => [key, steps.map(shape)]))
});
const stacksOf = (program: Program): string =>
  orderedText([program.stacks.map((s) => s.steps.map(shape)), program.routines.map((r) => r.steps.map(shape))]);

/** The blocks that may not be changed, with the values of those that may taken out. */
function kept(program: Program, free: ReadonlySet<string>): string {
  const without = (step: Step): unknown =>
    free.has(step.id)
      ? step.id
      : {
          ...step,
          note: undefined,
          slots: Object.fromEntries(
            Object.entries(step.slots).map(([key, value]) => [key, isStep(value) ? without(value) : value])
          ),
          bodies: Object.fromEntries(Object.entries(step.bodies ?? {}).map(([key, steps]) => [key, steps.map(without)]))
        };
  return orderedText([
    program.stacks.map((s) => s.steps.map(without)),
    program.routines.map((r) => r.steps.map(without))
  ]);
}

/** @returns why a change may not be made in this errand; undefined where it may */
export function mayNot({ may }: Pick<Task, 'may'>, before: Program, after: Program): string | undefined {
  if (may === 'all' || before === after) return undefined;
  if (may === 'numbers')
    return stacksOf(before) === stacksOf(after) ? undefined : say('In this errand the numbers alone are changed.');
  const free = new Set(may);
  const ids = new Set([...allSteps(after)].map((s) => s.id));
  const same = kept(before, free) === kept(after, free) && may.every((id) => ids.has(id));
  return same ? undefined : say('In this errand only the marked blocks are changed.');
}
