/** Blocks on their way from one program to another: what was copied, with the names that it uses. */
import { slotSpec } from './catalogue.ts';
import { walkSteps, type Program, type Routine, type Step, type Variable } from './program.ts';

export type Clip = {
  format: 'mossbell.blocks';
  version: 1;
  stacks: Step[][];
  variables: Variable[];
  routines: Routine[];
};

/** What stands in these steps and must come along: variables, and routines with what they use. */
export function clipOf(program: Program, stacks: Step[][]): Clip {
  const variables = new Set<string>();
  const routines = new Set<string>();
  const look = (steps: readonly Step[]): void => {
    for (const step of walkSteps(steps))
      for (const [name, slot] of Object.entries(step.slots)) {
        const type = slotSpec(step, name, program)?.type;
        if (type === 'variable' || type === 'list') variables.add(String(slot));
        if (type !== 'routine' || routines.has(String(slot))) continue;
        routines.add(String(slot));
        look(program.routines.find((r) => r.id === slot)?.steps ?? []);
      }
  };
  stacks.forEach(look);
  return {
    format: 'mossbell.blocks',
    version: 1,
    stacks,
    variables: program.variables.filter((v) => variables.has(v.id)),
    routines: program.routines.filter((r) => routines.has(r.id))
  };
}
