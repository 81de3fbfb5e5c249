import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { comment, giveBack, handedInOf, seen } from '$lib/server/hand-ins.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../../core/words.ts';

const body = z.union([
  z.strictObject({ seen: z.literal(true) }),
  /** with what is to be said of it */
  z.strictObject({ back: z.boolean(), text: z.string().trim().max(600).default('') })
]);
/** A teacher has looked at it; it is given back to be worked on, with a remark, or that is taken back. */
export async function PATCH({ params, request, locals: { who } }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A comment has 1 to 600 letters.'));
  const store = database();
  const { projectId } = handedInOf(store, params.id, params.handIn)!;
  seen(store, params.handIn);
  if ('back' in data) {
    giveBack(store, params.handIn, data.back);
    if (data.text) comment(store, projectId, who.id, null, data.text);
  }
  projectChanged(store, projectId, 'back' in data ? { handIn: true, comment: true } : {});
  return new Response(null, { status: 204 });
}
