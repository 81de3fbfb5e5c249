import { error, json } from '@sveltejs/kit';
import { database } from '$lib/server/database.ts';
import { openErrand } from '$lib/server/errands.ts';
import { say } from '../../../../../../core/words.ts';

/** The yard in which it is done, to be put back where it was changed. */
export function GET({ params }) {
  const { mat, start, others } =
    openErrand(database(), params.id) ?? error(404, say('There is no such errand on this computer.'));
  return json({ mat, start, others });
}
