import { openClass } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { handedIn, handedInOf } from '$lib/server/hand-ins.ts';
import { openProject } from '$lib/server/projects.ts';

export function load({ params }) {
  const store = database();
  const handIn = handedInOf(store, params.id, params.handIn)!;
  return {
    id: params.id,
    class: openClass(store, params.id)!.name,
    handIn,
    project: handedIn(store, params.handIn)!,
    /** nothing where it was taken off the shelf */
    now: openProject(store, handIn.projectId)?.project
  };
}
