import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { group, nickname } from '$lib/class/class.ts';
import { deleteFromBackups } from '$lib/server/backup.ts';
import { movePupil, newCard, pair, putInGroup, removePupil, renamePupil } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { raiseHand } from '$lib/server/people.ts';
import { tell } from '$lib/server/live.ts';
import { teachesClass } from '$lib/server/reach.ts';
import { classChanged, pupilChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../../core/words.ts';

const body = z.union([
  z.strictObject({ nickname }),
  z.strictObject({ group }),
  z.strictObject({ partner: z.string().max(40).nullable() }),
  z.strictObject({ handUp: z.literal(false) })
]);
/** Another name; into a group; a pair with another one; the hand is seen. */
export async function PATCH({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('A name has up to 24 letters, digits, spaces, points, hyphens.'));
  const store = database();
  if ('nickname' in data) {
    const no = renamePupil(store, params.id, params.pupil, data.nickname);
    if (no) error(409, no);
  } else if ('group' in data) putInGroup(store, params.pupil, data.group);
  else if ('partner' in data) pair(store, params.id, params.pupil, data.partner ?? undefined);
  else {
    raiseHand(store, params.pupil, false);
    tell(`person ${params.pupil}`, { handUp: false });
  }
  pupilChanged(store, params.id, params.pupil);
  return new Response(null, { status: 204 });
}
/** Into another class of the teacher's, with all work. */
export async function PUT({ params, request, locals: { who } }) {
  const { data } = z.strictObject({ to: z.string().max(40) }).safeParse(await request.json().catch(() => undefined));
  const store = database();
  if (!data || !teachesClass(store, who.id, data.to)) error(404, say('There is no such class on this computer.'));
  const no = data.to === params.id ? undefined : movePupil(store, params.id, params.pupil, data.to);
  if (no) error(409, no);
  for (const id of [params.id, data.to]) classChanged(store, id);
  return new Response(null, { status: 204 });
}
/** A new card: the words of before are not good any more. */
export const POST = async ({ params }) => json(await newCard(database(), params.id, params.pupil), { status: 201 });
/** Out of the class, with all work; from backups too. What comes back are the backups in which it may still be. */
export function DELETE({ params }) {
  const left = deleteFromBackups(database(), params.id, params.pupil);
  removePupil(database(), params.pupil);
  classChanged(database(), params.id);
  return json({ left });
}
