import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { runHandedIn } from '$lib/server/again.ts';
import { database } from '$lib/server/database.ts';
import { handIn, listHandIns } from '$lib/server/hand-ins.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../core/words.ts';

export const GET = ({ params }) => json(listHandIns(database(), params.id));

const body = z.strictObject({ note: z.string().trim().max(600).default('') });
/** The newest version is handed in, with a note and the last run; the server runs it, and what comes of that stands. */
export async function POST({ params, request, locals }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A note has up to 600 letters.'));
  const made = handIn(database(), params.id, locals.who.id, data.note);
  if (!made) error(404, say('There is no such project on this computer.'));
  projectChanged(database(), params.id, { handIn: true });
  // nobody waits for it
  void runHandedIn(database(), made.id, made.givenId)
    .then(() => projectChanged(database(), params.id, { handIn: true }))
    .catch((error: unknown) => console.error(error));
  const { givenId: _, ...card } = made;
  return json(card, { status: 201 });
}
