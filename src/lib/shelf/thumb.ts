/**
 * The picture by which a project is known: its first blocks in small, indented as in the program, in their family's colour,
 * with their section's icon and the numbers and pictures that stand in them. It speaks no language.
 */
import { bodiesOf, definition, familyOf, sentence } from '../../../core/language/catalogue.ts';
import type { Family, Section } from '../../../core/language/define.ts';
import { isPicture, isStep, type Program, type Step } from '../../../core/language/program.ts';

export type Bar = {
  family: Family;
  section: Section | undefined;
  indent: number;
  width: number;
  faded: boolean;
  /** its numbers, as they are written */
  figures: string[];
  picture?: string;
};
const MOST = 9;
const FIGURES = 3;

/** What is typed into a block, its values' blocks too. */
function* typed(step: Step): Generator<number | { picture: string }> {
  for (const slot of Object.values(step.slots))
    if (isStep(slot)) yield* typed(slot);
    else if (typeof slot === 'number') yield slot;
    else if (isPicture(slot)) yield slot;
}
export function thumb(program: Program): Bar[] {
  const bars: Bar[] = [];
  const add = (steps: readonly Step[], indent: number, faded: boolean): void => {
    for (const step of steps) {
      if (bars.length >= MOST) return;
      const def = definition(step.kind);
      const values = [...typed(step)];
      const picture = values.find((v) => typeof v === 'object');
      bars.push({
        family: familyOf(def),
        section: def.section,
        indent,
        width: Math.min(150, 22 + sentence(step, program).length * 3.4),
        faded: faded || !!step.off,
        figures: values
          .filter((v) => typeof v === 'number')
          .slice(0, FIGURES)
          .map(String),
        ...(picture ? { picture: picture.picture } : {})
      });
      for (const body of bodiesOf(step)) add(step.bodies?.[body] ?? [], indent + 1, faded);
    }
  };
  for (const stack of program.stacks) add(stack.steps, 0, !!stack.parked);
  for (const routine of program.routines) add(routine.steps, 0, false);
  return bars;
}
/** Of a text: its first lines as long as they are. */
export const textThumb = (text: string): Bar[] =>
  text
    .split('\n')
    .filter((line) => line.trim() && !/^(from|import) /.test(line))
    .slice(0, MOST)
    .map((line) => ({
      family: 'think',
      section: undefined,
      indent: Math.round((line.length - line.trimStart().length) / 4),
      width: Math.min(150, 14 + line.trim().length * 3.4),
      faded: line.trimStart().startsWith('#'),
      figures: (line.match(/\b\d+(\.\d+)?\b/g) ?? []).slice(0, FIGURES)
    }));
