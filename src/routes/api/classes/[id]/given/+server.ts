import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { group } from '$lib/class/class.ts';
import { mayNot } from '$lib/server/access.ts';
import { give } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';
import { tell } from '$lib/server/live.ts';
import { mayPutBefore } from '$lib/server/reach.ts';
import { say } from '../../../../../../core/words.ts';

const at = z.number().int().min(0).max(8.64e15);
const body = z.strictObject({
  kind: z.enum(['errand', 'lesson', 'project']),
  target: z.string().min(1).max(80),
  group: group.default(''),
  /** now, where it is left out */
  fromAt: at.optional(),
  untilAt: at.nullable().default(null)
});
/** An errand, a lesson or a project is given to the class, or to a group. */
export async function POST({ params, request, locals }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be given out.'));
  const fromAt = data.fromAt ?? Date.now();
  if (data.untilAt !== null && data.untilAt <= fromAt) error(400, say('It would end before it begins.'));
  // what one may not find cannot be given out either
  const store = database();
  const found =
    data.kind === 'project'
      ? mayPutBefore(store, locals.who, data.target)
      : !mayNot(store, locals.who, `/api/${data.kind}s/[id]`, 'GET', { id: data.target });
  const id = found ? give(database(), params.id, { ...data, fromAt }) : undefined;
  if (!id) error(404, say('There is no such errand, lesson or project on this computer.'));
  tell(`class ${params.id}`, { given: id });
  return json({ id }, { status: 201 });
}
