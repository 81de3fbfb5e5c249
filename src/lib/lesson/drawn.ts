/** Programs of a lesson as pictures of their blocks: drawn one after the other, once each. */
import type { Project } from '../../../core/project.ts';

type Drawn = { svg: string; width: number; height: number };
const drawn = new WeakMap<Project, Promise<Drawn>>();
let last: Promise<unknown> = Promise.resolve();
export function drawnOf(project: Project): Promise<Drawn> {
  let found = drawn.get(project);
  if (!found) {
    // there is one sheet to draw on
    found = last.then(async () => {
      const { programPicture } = await import('../workbench/program/picture.ts');
      return programPicture(project.program, project.kit);
    });
    last = found.catch(() => undefined);
    drawn.set(project, found);
  }
  return found;
}
