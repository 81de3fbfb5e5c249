import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { nickname } from '$lib/class/class.ts';
import { cookieOf, SESSION } from '$lib/server/cookies.ts';
import { database } from '$lib/server/database.ts';
import { tooMany } from '$lib/server/guard.ts';
import { beginSession, hasTeacher, makeTeacher } from '$lib/server/people.ts';
import { say } from '../../../../core/words.ts';

const body = z.strictObject({ nickname, passphrase: z.string().trim().min(10).max(200) });
const isHere = (address: string): boolean => /^(::ffff:)?127\.|^::1$/.test(address);

/** The first teacher is made on the school computer itself; others by one who is there already. */
export async function POST({ request, cookies, url, locals: { who }, getClientAddress }) {
  const address = getClientAddress();
  if (await tooMany('new teacher', address)) error(429, say('That was too often in a minute. Wait a little.'));
  const first = !hasTeacher(database());
  if (first && !isHere(address))
    error(
      403,
      say('The first teacher is made on the school computer itself: open Moss Bell there, at its localhost address.')
    );
  if (!first && who.role !== 'teacher') error(403, say('Only a teacher can do this.'));
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A teacher has a name (1 to 24 letters) and a passphrase of 10 letters or more.'));
  const made = await makeTeacher(database(), data.nickname, data.passphrase);
  if (typeof made === 'string') error(409, made);
  if (first) {
    const { token, endsAt } = beginSession(database(), made.id);
    cookies.set(SESSION, token, cookieOf(url, (endsAt - Date.now()) / 1000));
  }
  return json({ id: made.id }, { status: 201 });
}
