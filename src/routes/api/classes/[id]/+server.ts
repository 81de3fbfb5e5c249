import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { deleteFromBackups } from '$lib/server/backup.ts';
import { database } from '$lib/server/database.ts';
import { copyClass, deleteClass, renameClass } from '$lib/server/classes.ts';
import { say } from '../../../../../core/words.ts';

const body = z.strictObject({ name: z.string().trim().min(1).max(60) });
export async function PATCH({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A class has a name of 1 to 60 letters.'));
  renameClass(database(), params.id, data.name);
  return new Response(null, { status: 204 });
}
const copy = z.strictObject({ name: z.string().trim().min(1).max(60), pupils: z.boolean(), given: z.boolean() });
/** A class like this one. */
export async function POST({ params, request, locals: { who } }) {
  const { data } = copy.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A class has a name of 1 to 60 letters.'));
  return json({ id: copyClass(database(), params.id, who.id, data) }, { status: 201 });
}
/**
 * The class with everything: pupils, projects, runs, hand-ins, comments; from backups too. There is no way back. What comes
 * back are the backups that could not be written: there it still is.
 */
export function DELETE({ params }) {
  const left = deleteFromBackups(database(), params.id);
  deleteClass(database(), params.id);
  return json({ left });
}
