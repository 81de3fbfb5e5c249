import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { comment, listComments } from '$lib/server/hand-ins.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../core/words.ts';

export const GET = ({ params, locals }) => json(listComments(database(), params.id, locals.who.id));

const body = z.strictObject({
  block: z.string().min(1).max(80).nullable().default(null),
  text: z.string().trim().min(1).max(600)
});
/** The teacher says something about a block, or about the whole. */
export async function POST({ params, request, locals }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A comment has 1 to 600 letters.'));
  comment(database(), params.id, locals.who.id, data.block, data.text);
  projectChanged(database(), params.id, { comment: true });
  return new Response(null, { status: 201 });
}
