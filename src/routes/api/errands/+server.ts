import { error, json } from '@sveltejs/kit';
import { readErrand } from '../../../../core/errand/errand.ts';
import { database } from '$lib/server/database.ts';
import { addErrand, listErrands } from '$lib/server/errands.ts';
import { say } from '../../../../core/words.ts';

export const GET = ({ locals }) => json(listErrands(database(), locals.who));

/** One from a file: the body is the errand's file. */
export async function POST({ request, locals }) {
  const read = readErrand(await request.text(), say('This errand'));
  if (!read.ok) error(400, read.problem);
  return json({ id: addErrand(database(), read.errand, Date.now(), locals.who.id) }, { status: 201 });
}
