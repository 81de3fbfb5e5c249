import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { GUEST } from '$lib/server/cookies.ts';
import { database } from '$lib/server/database.ts';
import { tries } from '$lib/server/guard.ts';
import { changePassphrase, isSecretOf, raiseHand, takeAlong, teacherCalled } from '$lib/server/people.ts';
import { pupilChanged } from '$lib/server/wall.ts';
import { say } from '../../../../core/words.ts';

const body = z.union([
  z.strictObject({ handUp: z.boolean() }),
  z.strictObject({ old: z.string().max(200), passphrase: z.string().trim().min(10).max(200) })
]);
/** A pupil's hand goes up or down; a teacher gets another passphrase, and is signed out everywhere. */
export async function PATCH({ request, locals: { who }, getClientAddress }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data || 'handUp' in data !== (who.role === 'pupil')) error(400, say('This cannot be done.'));
  const store = database();
  if ('handUp' in data) {
    raiseHand(store, who.id, data.handUp);
    pupilChanged(store, who.classId, who.id);
  } else {
    const address = getClientAddress();
    const right = await tries(address, `change ${who.id}`);
    if (!right) error(429, say('That was wrong too often. Wait a minute, then try again.'));
    if (!(await isSecretOf(data.old, teacherCalled(store, who.nickname), address)))
      error(403, say('This is not the passphrase of this teacher.'));
    await right();
    await changePassphrase(store, who.id, data.passphrase);
  }
  return new Response(null, { status: 204 });
}
/** What was made in this browser before anybody signed in becomes theirs who did. */
export function POST({ cookies, locals: { who } }) {
  const store = database();
  const browser = cookies.get(GUEST);
  const taken = browser ? takeAlong(store, browser, who) : 0;
  if (taken) pupilChanged(store, who.classId, who.id);
  return json({ taken });
}
