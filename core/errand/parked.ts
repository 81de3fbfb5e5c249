/** Two solutions in one program: the one that runs, and the one that is parked beside it. */
import type { Program } from '../language/program.ts';

/** The same program with the parked stacks running and the others parked; undefined where no parked stack could begin. */
export function otherSolution(program: Program): Program | undefined {
  const begins = ({ steps }: Program['stacks'][number]): boolean => !!steps[0]?.kind.startsWith('begin.');
  if (!program.stacks.some((s) => s.parked && begins(s))) return undefined;
  return {
    ...program,
    stacks: program.stacks.map((stack) => {
      if (!begins(stack)) return stack;
      const { parked, ...rest } = stack;
      return parked ? rest : { ...rest, parked: true };
    })
  };
}
