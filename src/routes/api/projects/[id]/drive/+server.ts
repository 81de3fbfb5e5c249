import { database } from '$lib/server/database.ts';
import { driveProject } from '$lib/server/projects.ts';
import { projectChanged } from '$lib/server/wall.ts';

/** One of a pair takes over: the other one looks on. */
export function PUT({ params, locals: { who } }) {
  driveProject(database(), params.id, who.id);
  projectChanged(database(), params.id, { drives: who.id });
  return new Response(null, { status: 204 });
}
