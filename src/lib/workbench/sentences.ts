/** What every block of a project says, by its id; routines by their names. */
import { partName } from '../../../core/kit/kit.ts';
import { sentence } from '../../../core/language/catalogue.ts';
import { allSteps } from '../../../core/language/program.ts';
import type { Project } from '../../../core/project.ts';
import { say } from '../../../core/words.ts';

const known = new WeakMap<Project, ReadonlyMap<string, string>>();
export function sentences(project: Project): ReadonlyMap<string, string> {
  let found = known.get(project);
  if (!found) {
    const { program, kit } = project;
    found = new Map([
      ...[...allSteps(program)].map((s): [string, string] => [
        s.id,
        sentence(s, program, (socket) => partName(kit, socket))
      ]),
      ...program.routines.map((r): [string, string] => [r.id, say('routine {name}', { name: r.name })])
    ]);
    known.set(project, found);
  }
  return found;
}
/** A line of a text, where a run's blocks are lines. */
export const lineOf = (id: string): string => (id.startsWith('line ') ? say('line {x}', { x: id.slice(5) }) : id);
