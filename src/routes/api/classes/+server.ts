import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { makeClass } from '$lib/server/classes.ts';
import { say } from '../../../../core/words.ts';

const body = z.strictObject({ name: z.string().trim().min(1).max(60) });
/** A new class; its cards are in the language of the page that it is made on. */
export async function POST({ request, locals }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A class has a name of 1 to 60 letters.'));
  return json({ id: makeClass(database(), locals.who.id, data.name, locals.language) }, { status: 201 });
}
