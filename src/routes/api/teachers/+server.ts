import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { nickname } from '$lib/class/class.ts';
import { cookieOf, SESSION } from '$lib/server/cookies.ts';
import { database } from '$lib/server/database.ts';
import { demoOf } from '$lib/server/demo.ts';
import { areFirstWords, isHere } from '$lib/server/first.ts';
import { tooMany } from '$lib/server/guard.ts';
import { beginSession, hasTeacher, makeTeacher } from '$lib/server/people.ts';
import { say } from '../../../../core/words.ts';

const body = z.strictObject({
  nickname,
  passphrase: z.string().trim().min(10).max(200),
  /** what the terminal printed */
  words: z.string().max(80).default('')
});

/** The first teacher is made on the school computer itself, or with the words that its terminal printed; others by one who is there. */
export async function POST({ request, cookies, url, locals: { who }, getClientAddress }) {
  const address = getClientAddress();
  if (await tooMany('new teacher', address)) error(429, say('That was too often in a minute. Wait a little.'));
  const first = !hasTeacher(database());
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (first && !isHere(address, request.headers) && !areFirstWords(data?.words ?? ''))
    error(
      403,
      say(
        'The first teacher is made on the school computer itself, at its localhost address, or with the words that its terminal printed when it was started.'
      )
    );
  if (!first && who.role !== 'teacher') error(403, say('Only a teacher can do this.'));
  if (demoOf(database()))
    error(403, say('This is the demo: it has one teacher. For a school, start Moss Bell with ./mossbell serve.'));
  if (!data) error(400, say('A teacher has a name (1 to 24 letters) and a passphrase of 10 letters or more.'));
  const made = await makeTeacher(database(), data.nickname, data.passphrase);
  if (typeof made === 'string') error(409, made);
  if (first) {
    const { token, endsAt } = beginSession(database(), made.id);
    cookies.set(SESSION, token, cookieOf(url, (endsAt - Date.now()) / 1000));
  }
  return json({ id: made.id }, { status: 201 });
}
