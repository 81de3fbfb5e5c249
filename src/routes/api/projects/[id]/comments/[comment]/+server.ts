import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { dealtWith } from '$lib/server/hand-ins.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../../core/words.ts';

const body = z.strictObject({ done: z.boolean() });
/** The pupil has dealt with it. */
export async function PATCH({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be done.'));
  dealtWith(database(), Number(params.comment), data.done);
  projectChanged(database(), params.id, { comment: true });
  return new Response(null, { status: 204 });
}
