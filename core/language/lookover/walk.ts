import { newStep } from '../catalogue.ts';
import { allIds, freshId, isLive, walkSteps, type Program, type Step } from '../program.ts';
import { typedNumber } from '../values.ts';

/** Every list of steps that can run, switched-off steps left out: stacks without their starter, routines, bodies. */
export function* liveLists(program: Program): Generator<Step[]> {
  const inner = function* (list: readonly Step[]): Generator<Step[]> {
    const on = list.filter((s) => !s.off);
    yield on;
    for (const step of on) for (const body of Object.values(step.bodies ?? {})) yield* inner(body);
  };
  for (const stack of program.stacks) if (isLive(stack)) yield* inner(stack.steps.slice(1));
  for (const routine of program.routines) yield* inner(routine.steps);
}
/** Every step that a list does, those of the routines that it calls too; nothing that is switched off. */
export function* doneBy(program: Program, list: readonly Step[], seen = new Set<string>()): Generator<Step> {
  for (const step of walkSteps(list)) {
    if (step.off) continue;
    yield step;
    // whatever has a slot for a routine does it
    const called = step.slots.routine === undefined ? '' : String(step.slots.routine);
    if (!called || seen.has(called)) continue;
    seen.add(called);
    yield* doneBy(program, program.routines.find((r) => r.id === called)?.steps ?? [], seen);
  }
}
/** The number typed into a slot, or undefined where a block sits or letters stand. */
export function literal(step: Step, slot: string): number | undefined {
  const value = step.slots[slot];
  return typeof value === 'number' ? value : typeof value === 'string' ? typedNumber(value) : undefined;
}
/** A new block for a mend. */
export const fresh = (program: Program, kind: string, slots: Step['slots'] = {}): Step => {
  const step = newStep(kind, freshId(allIds(program)), program);
  return { ...step, slots: { ...step.slots, ...slots } };
};
/** Whether a block stands somewhere inside another one. */
export const contains = (outer: Step, inner: Step): boolean =>
  Object.values(outer.bodies ?? {}).some((b) => b.some((s) => s.id === inner.id || contains(s, inner)));
