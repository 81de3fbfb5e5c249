import { error, json } from '@sveltejs/kit';
import * as z from 'zod';
import { nickname } from '$lib/class/class.ts';
import { addPupils, MOST_PUPILS } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { classChanged } from '$lib/server/wall.ts';
import { say } from '../../../../../../core/words.ts';

const body = z.strictObject({ nicknames: z.array(z.string().max(200)).min(1).max(MOST_PUPILS) });
/** Pupils come into the class. What comes back are their cards. */
export async function POST({ params, request }) {
  const { data } = body.safeParse(await request.json().catch(() => undefined));
  if (!data) error(400, say('Write one nickname in each line, at most {n}.', { n: MOST_PUPILS }));
  const names = data.nicknames.map((name) => ({ name, read: nickname.safeParse(name) }));
  const wrong = names.find(({ read }) => !read.success);
  if (wrong)
    error(
      400,
      say('"{name}" cannot be a nickname: up to 24 letters, digits, spaces, points, hyphens.', {
        name: wrong.name.slice(0, 40)
      })
    );
  const cards = await addPupils(
    database(),
    params.id,
    names.map(({ read }) => read.data!)
  );
  if (typeof cards === 'string') error(409, cards);
  classChanged(database(), params.id);
  return json(cards, { status: 201 });
}
