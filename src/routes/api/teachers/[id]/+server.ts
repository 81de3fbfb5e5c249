import { error } from '@sveltejs/kit';
import * as z from 'zod';
import { database } from '$lib/server/database.ts';
import { tries } from '$lib/server/guard.ts';
import { isSecretOf, removeTeacher, teacherCalled } from '$lib/server/people.ts';
import { say } from '../../../../../core/words.ts';

const body = z.strictObject({ passphrase: z.string().max(200), to: z.string().max(40) });
/** A teacher leaves; classes, errands and lessons go to another one. It wants the passphrase of who does it. */
export async function DELETE({ params, request, locals: { who }, getClientAddress }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('Fill in all fields.'));
  const store = database();
  const address = getClientAddress();
  const right = await tries(address, `change ${who.id}`);
  if (!right) error(429, say('That was wrong too often. Wait a minute, then try again.'));
  if (!(await isSecretOf(data.passphrase, teacherCalled(store, who.nickname), address)))
    error(403, say('This is not the passphrase of this teacher.'));
  await right();
  const no = removeTeacher(store, who.id, params.id, data.to);
  if (no) error(409, no);
  return new Response(null, { status: 204 });
}
