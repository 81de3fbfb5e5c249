import { error, json } from '@sveltejs/kit';
import { writeErrand } from '../../../../../core/errand/errand.ts';
import { database } from '$lib/server/database.ts';
import { beginErrand, putAway, wholeErrand } from '$lib/server/errands.ts';
import { errands } from '$lib/server/schema.ts';
import { say } from '../../../../../core/words.ts';

const none = () => error(404, say('There is no such errand on this computer.'));

/** Its file, with its solution: for its author and for teachers. */
export function GET({ params, locals }) {
  const errand = wholeErrand(database(), params.id, locals.who) ?? none();
  if (errand === 'not theirs')
    error(403, say('The file of an errand holds its solution: its author and teachers can save it.'));
  return new Response(writeErrand(errand), { headers: { 'content-type': 'application/json' } });
}
/** A project in which it is done; with `?back` it is put back on the shelf. */
export function POST({ params, url, locals }) {
  if (url.searchParams.has('back'))
    return putAway(database(), errands, params.id, false, Date.now(), locals.who.id) ? json({}) : none();
  const { id, version } = beginErrand(database(), params.id, locals.who.id) ?? none();
  return json({ id, version }, { status: 201 });
}
export const DELETE = ({ params }) => (putAway(database(), errands, params.id, true) ? json({}) : none());
