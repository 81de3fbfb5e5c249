import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { tell } from '$lib/server/live.ts';
import { say } from '../../../../../../core/words.ts';

const body = z.strictObject({ block: z.string().max(80).nullable() });
/** The teacher points at a block: it lights up where the project is open. */
export async function POST({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be done.'));
  tell(`project ${params.id}`, { point: data.block });
  return new Response(null, { status: 204 });
}
