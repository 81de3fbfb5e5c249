import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { cookieOf, KNOWN, SESSION } from '$lib/server/cookies.ts';
import { database } from '$lib/server/database.ts';
import { tooMany, tries } from '$lib/server/guard.ts';
import { isSigned, signed } from '$lib/server/keys.ts';
import {
  beginSession,
  endSession,
  endSessions,
  isSecretOf,
  note,
  pupilCalled,
  teacherCalled
} from '$lib/server/people.ts';
import { folded } from '$lib/class/folded.ts';
import { say } from '../../../../core/words.ts';

const short = z.string().trim().min(1).max(80);
const body = z.union([
  z.strictObject({ code: short, nickname: short, words: short }),
  z.strictObject({ teacher: short, passphrase: z.string().min(1).max(200) })
]);
const YEAR_S = 365 * 86_400;
/** A pupil signs in with what stands on the card, a teacher with a passphrase. */
export async function POST({ request, cookies, url, getClientAddress }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('Fill in all fields.'));
  const store = database();
  const isPupil = 'code' in data;
  const address = getClientAddress();
  const pupil = isPupil ? pupilCalled(store, data.code, data.nickname) : undefined;
  const person = isPupil ? pupil?.person : teacherCalled(store, data.teacher);
  // the same person under whatever capitals: from this address, or in the browser in which they signed in last
  const called = folded(isPupil ? `${data.code} ${data.nickname}` : data.teacher);
  const isKnown = person !== undefined && isSigned(cookies.get(KNOWN), person.id);
  const right = await tries(address, isKnown ? `known ${person.id}` : `${address} ${called}`);
  if (!right)
    error(429, say('That was wrong too often. Wait a minute, then try again; the teacher can give a new card.'));
  if (!(await isSecretOf(isPupil ? data.words : data.passphrase, person, address))) {
    const often = await tooMany('wrong words', `${address} ${called}`, true);
    const teacherId = pupil?.teacherId ?? person?.id;
    if (often && person && teacherId)
      note(store, 'wrong words', { teacherId, classId: person.classId ?? undefined, whom: person.nickname });
    error(
      403,
      isPupil
        ? say('These words do not belong to this nickname in this class. Look at your card once more.')
        : say('This is not the passphrase of this teacher.')
    );
  }
  await right();
  cookies.set(KNOWN, signed(person!.id), cookieOf(url, YEAR_S));
  const { token, endsAt } = beginSession(store, person!.id);
  cookies.set(SESSION, token, cookieOf(url, (endsAt - Date.now()) / 1000));
  note(store, 'signed in', {
    teacherId: pupil?.teacherId ?? person!.id,
    classId: person!.classId ?? undefined,
    whom: person!.nickname
  });
  return json({ role: person!.role });
}
/** Signs out here; with `?everywhere` on every computer. */
export function DELETE({ cookies, url, locals: { who } }) {
  const store = database();
  const token = cookies.get(SESSION);
  if (url.searchParams.has('everywhere') && who.role !== 'guest') {
    endSessions(store, who.id);
    if (who.role === 'teacher') note(store, 'signed out everywhere', { teacherId: who.id, whom: who.nickname });
  } else if (token) endSession(store, token);
  cookies.delete(SESSION, { path: '/' });
  return new Response(null, { status: 204 });
}
