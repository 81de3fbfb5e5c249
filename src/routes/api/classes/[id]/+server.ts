import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { deleteClass, renameClass } from '$lib/server/classes.ts';
import { say } from '../../../../../core/words.ts';

const body = z.strictObject({ name: z.string().trim().min(1).max(60) });
export async function PATCH({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A class has a name of 1 to 60 letters.'));
  renameClass(database(), params.id, data.name);
  return new Response(null, { status: 204 });
}
/** The class with everything: pupils, projects, runs, hand-ins, comments. There is no way back. */
export function DELETE({ params }) {
  deleteClass(database(), params.id);
  return new Response(null, { status: 204 });
}
