/** The picture by which a project is known: one bar a block, indented as in the program, in its family's colour. */
import { bodiesOf, definition, familyOf, sentence } from '../../../core/language/catalogue.ts';
import type { Family } from '../../../core/language/define.ts';
import type { Program, Step } from '../../../core/language/program.ts';

export type Bar = { family: Family; indent: number; width: number; faded: boolean };
const MOST = 9;

export function thumb(program: Program): Bar[] {
  const bars: Bar[] = [];
  const add = (steps: readonly Step[], indent: number, faded: boolean): void => {
    for (const step of steps) {
      if (bars.length >= MOST) return;
      bars.push({
        family: familyOf(definition(step.kind)),
        indent,
        width: Math.min(150, 22 + sentence(step, program).length * 3.4),
        faded: faded || !!step.off
      });
      for (const body of bodiesOf(step)) add(step.bodies?.[body] ?? [], indent + 1, faded);
    }
  };
  for (const stack of program.stacks) add(stack.steps, 0, !!stack.parked);
  for (const routine of program.routines) add(routine.steps, 0, false);
  return bars;
}
