/** Blocks that stand where they mean nothing. */
import { definition } from '../catalogue.ts';
import { isLive, isStep, walkSteps, type Program, type Routine, type Step } from '../program.ts';

type Where = { inLoop: boolean; routine?: Routine };
/** Steps that can run, value blocks too, for which something is so where they stand. */
export function misplaced(program: Program, is: (step: Step, where: Where) => boolean): Step[] {
  const found: Step[] = [];
  const look = (list: readonly Step[], where: Where): void => {
    for (const step of list) {
      if (step.off) continue;
      if (is(step, where)) found.push(step);
      for (const slot of Object.values(step.slots))
        if (isStep(slot)) found.push(...[...walkSteps([slot])].filter((s) => is(s, where)));
      const def = definition(step.kind);
      const loop = 'loop' in def && !!def.loop;
      for (const body of Object.values(step.bodies ?? {})) look(body, { ...where, inLoop: where.inLoop || loop });
    }
  };
  for (const stack of program.stacks) if (isLive(stack)) look(stack.steps, { inLoop: false });
  for (const routine of program.routines) look(routine.steps, { inLoop: false, routine });
  return found;
}
