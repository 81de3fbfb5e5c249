import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { tell } from '$lib/server/live.ts';
import { mayPutBefore } from '$lib/server/reach.ts';
import { beginRound } from '$lib/server/rounds.ts';
import { say } from '../../../../../../core/words.ts';

const body = z.strictObject({ project: z.string().min(1).max(80) });
/** The class guesses together where a program will stop. */
export async function POST({ params, request, locals }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be done.'));
  const none = () => error(404, say('There is no such project on this computer.'));
  // a pupil's work is put before the room by the pupil alone: where it is shown already
  if (!mayPutBefore(database(), locals.who, data.project)) none();
  const id = beginRound(database(), params.id, data.project) ?? none();
  tell(`class ${params.id}`, { round: id });
  return json({ id }, { status: 201 });
}
