import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { changeGiven, takeGivenBack } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';
import { tell } from '$lib/server/live.ts';
import { say } from '../../../../../../../core/words.ts';

const body = z.strictObject({ untilAt: z.number().int().min(0).max(8.64e15).nullable() });
/** Until when it can be begun. */
export async function PATCH({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be done.'));
  changeGiven(database(), params.given, data.untilAt);
  tell(`class ${params.id}`, { given: params.given });
  return new Response(null, { status: 204 });
}
export function DELETE({ params }) {
  takeGivenBack(database(), params.given);
  tell(`class ${params.id}`, { given: params.given });
  return new Response(null, { status: 204 });
}
