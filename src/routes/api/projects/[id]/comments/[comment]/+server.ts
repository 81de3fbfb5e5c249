import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { changeComment, comment, dealtWith, takeOutComment } from '$lib/server/hand-ins.ts';
import { projectChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../../core/words.ts';

const done = z.strictObject({ done: z.boolean() });
const words = z.strictObject({ text: z.string().trim().min(1).max(600) });
const told = (id: string) => {
  projectChanged(database(), id, { comment: true });
  return new Response(null, { status: 204 });
};
async function wordsOf(request: Request): Promise<string> {
  const { data } = words.safeParse(await request.json().catch(() => undefined));
  return data?.text ?? error(400, say('A comment has 1 to 600 letters.'));
}
/** The pupil has dealt with it. */
export async function PATCH({ params, request }) {
  const { data } = done.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be done.'));
  dealtWith(database(), Number(params.comment), data.done);
  return told(params.id);
}
/** An answer to it. */
export async function POST({ params, request, locals: { who } }) {
  comment(database(), params.id, who.id, null, await wordsOf(request), Number(params.comment));
  return told(params.id);
}
/** Other words. */
export async function PUT({ params, request }) {
  changeComment(database(), Number(params.comment), await wordsOf(request));
  return told(params.id);
}
/** It is taken out, with its answers. */
export function DELETE({ params }) {
  takeOutComment(database(), Number(params.comment));
  return told(params.id);
}
