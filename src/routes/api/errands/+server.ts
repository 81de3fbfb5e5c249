import { error, json } from '@sveltejs/kit';
import { readErrand } from '../../../../core/errand/errand.ts';
import { database } from '$lib/server/database.ts';
import { addErrand, listErrands } from '$lib/server/errands.ts';
import { say } from '../../../../core/words.ts';

export const GET = () => json(listErrands(database()));

/** One from a file: the body is the errand's file. */
export async function POST({ request }) {
  const read = readErrand(await request.text(), say('This errand'));
  if (!read.ok) error(400, read.problem);
  return json({ id: addErrand(database(), read.errand) }, { status: 201 });
}
