/** A part of a program on its own: some blocks, a stack or a routine, as a program that does nothing else. */
import { newStep } from './catalogue.ts';
import { allIds, freshId, walkSteps, type Program, type Slot, type Step } from './program.ts';

/** The steps of `ids` in the order they stand in, without those that stand inside of another one of them. */
function chosenSteps(program: Program, ids: ReadonlySet<string>): Step[] {
  const found: Step[] = [];
  const look = (list: readonly Step[]): void => {
    for (const step of list)
      if (ids.has(step.id)) found.push(step);
      else for (const body of Object.values(step.bodies ?? {})) look(body);
  };
  for (const stack of program.stacks) look(stack.steps);
  for (const routine of program.routines) look(routine.steps);
  return found.filter((s) => !s.kind.startsWith('begin.'));
}
/**
 * @param ids blocks, the starter of a stack (all that hangs on it), or a routine
 * @param inputs what a routine is given, by the id of its input
 * @returns the same blocks with the same ids under "at the start", with routines and variables as they are; undefined where
 * nothing of it can run on its own
 */
export function just(
  program: Program,
  ids: ReadonlySet<string>,
  inputs: Record<string, Slot> = {}
): Program | undefined {
  const taken = allIds(program);
  const start = newStep('begin.start', freshId(taken), program);
  taken.add(start.id);
  const routine = program.routines.find((r) => ids.has(r.id));
  let steps: Step[];
  if (routine) {
    const call = newStep('routine.do', freshId(taken), program);
    steps = [
      {
        ...call,
        slots: {
          routine: routine.id,
          ...Object.fromEntries((routine.inputs ?? []).map((i) => [`in:${i.id}`, inputs[i.id] ?? 0]))
        }
      }
    ];
  } else {
    const whole = program.stacks.find((s) => s.steps[0]?.kind.startsWith('begin.') && ids.has(s.steps[0].id));
    steps = whole ? whole.steps.slice(1) : chosenSteps(program, ids);
  }
  if (!steps.some((s) => !s.off)) return undefined;
  // what leaves a loop, or reads a routine's input, means nothing on its own
  const loops = [...walkSteps(steps)];
  if (steps.some((s) => s.kind === 'repeat.leave' || s.kind === 'repeat.next' || s.kind === 'routine.give'))
    return undefined;
  if (!routine && loops.some((s) => s.kind === 'routine.input')) return undefined;
  return { ...program, stacks: [{ id: freshId(taken, 's'), x: 0, y: 0, steps: [start, ...steps] }], loose: [] };
}
