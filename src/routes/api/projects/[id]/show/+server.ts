import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { tell } from '$lib/server/live.ts';
import { showProject } from '$lib/server/projects.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../core/words.ts';

const body = z.strictObject({ yes: z.boolean() });
const read = async (request: Request): Promise<boolean> => {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  return data ? data.yes : error(400, say('This cannot be done.'));
};
/** The teacher asks whether the room may see it, or it is enough. */
export async function POST({ params, request }) {
  showProject(database(), params.id, (await read(request)) ? 'asked' : null);
  projectChanged(database(), params.id, { shown: true });
  return new Response(null, { status: 204 });
}
/** The pupil says yes, or no. Nobody's work is shown that was not asked for. */
export async function PUT({ params, request, locals }) {
  const yes = await read(request);
  if (!showProject(database(), params.id, yes ? 'yes' : null, yes))
    error(409, say('The teacher did not ask for this.'));
  projectChanged(database(), params.id, { shown: true });
  if (yes) tell(`class ${locals.who.classId}`, { shown: params.id, by: locals.who.nickname });
  return new Response(null, { status: 204 });
}
