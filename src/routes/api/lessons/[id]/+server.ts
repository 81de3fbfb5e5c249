import { error, json } from '@sveltejs/kit';
import { checkLesson, pupilsCopy } from '../../../../../core/lesson/lesson.ts';
import { bodyOf } from '$lib/server/body.ts';
import { database } from '$lib/server/database.ts';
import { putAway } from '$lib/server/errands.ts';
import { errandsOf, openLesson, saveLesson } from '$lib/server/lessons.ts';
import { lessons } from '$lib/server/schema.ts';
import { say } from '../../../../../core/words.ts';

const none = () => error(404, say('There is no such lesson on this computer.'));

/**
 * As a pupil may have it; with `?teacher` its writer and every teacher have the notes in it, and with `?errands` the errands that
 * one may have with their solutions lie beside it, for a file.
 */
export function GET({ params, url, locals: { who } }) {
  const { lesson, ships, changedAt, owner, tab } = openLesson(database(), params.id) ?? none();
  const whole = url.searchParams.has('teacher') && (who.role === 'teacher' || owner === who.id);
  return json({
    lesson: whole ? lesson : pupilsCopy(lesson),
    ships,
    own: !ships && owner === who.id,
    changedAt,
    tab,
    ...(url.searchParams.has('errands') ? { errands: errandsOf(database(), lesson, who) } : {})
  });
}
/** Saves it. `?base`: when it was changed last, as far as the writer knows; `?tab`: the name of the writer's tab. */
export async function PUT({ params, url, request }) {
  const read = checkLesson(await bodyOf(request), say('This lesson'));
  if (!read.ok) error(400, read.problem);
  const asked = url.searchParams;
  const saved = saveLesson(
    database(),
    { ...read.lesson, id: params.id },
    Number(asked.get('base')),
    Date.now(),
    asked.get('tab')
  );
  if (saved === 'none') none();
  if (saved === 'ships') error(403, say('A lesson that ships stays as it is. Make a copy of it, and change that.'));
  if (saved === 'older')
    error(409, say('This lesson was changed in another window. What you wrote is still here, and not saved.'));
  return json(saved);
}
/** With `?back` it is put back on the shelf. */
export const POST = ({ params, url }) =>
  url.searchParams.has('back') && putAway(database(), lessons, params.id, false) ? json({}) : none();
export const DELETE = ({ params }) => (putAway(database(), lessons, params.id, true) ? json({}) : none());
