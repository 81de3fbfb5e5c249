import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { group } from '$lib/class/class.ts';
import { mayNot } from '$lib/server/access.ts';
import { give } from '$lib/server/given.ts';
import { database } from '$lib/server/database.ts';
import { tell } from '$lib/server/live.ts';
import { say } from '../../../../../../core/words.ts';

const at = z.number().int().min(0).max(8.64e15);
const body = z.strictObject({
  kind: z.enum(['errand', 'lesson']),
  target: z.string().min(1).max(80),
  group: group.default(''),
  /** now, where it is left out */
  fromAt: at.optional(),
  untilAt: at.nullable().default(null)
});
/** An errand or a lesson is given to the class, or to a group. */
export async function POST({ params, request, locals }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('This cannot be given out.'));
  const fromAt = data.fromAt ?? Date.now();
  if (data.untilAt !== null && data.untilAt <= fromAt) error(400, say('It would end before it begins.'));
  // what one may not find cannot be given out either
  const route = data.kind === 'errand' ? '/api/errands/[id]' : '/api/lessons/[id]';
  const found = !mayNot(database(), locals.who, route, 'GET', { id: data.target });
  const id = found ? give(database(), params.id, { ...data, fromAt }) : undefined;
  if (!id) error(404, say('There is no such errand or lesson on this computer.'));
  tell(`class ${params.id}`, { given: id });
  return json({ id }, { status: 201 });
}
