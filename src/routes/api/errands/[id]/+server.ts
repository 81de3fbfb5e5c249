import { error, json } from '@sveltejs/kit';
import { writeErrand } from '../../../../../core/errand/errand.ts';
import { database } from '$lib/server/database.ts';
import { beginErrand, openErrand, putAway } from '$lib/server/errands.ts';
import { errands } from '$lib/server/schema.ts';
import { say } from '../../../../../core/words.ts';

const none = () => error(404, say('There is no such errand on this computer.'));

/** Its file. */
export function GET({ params }) {
  const errand = openErrand(database(), params.id) ?? none();
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
