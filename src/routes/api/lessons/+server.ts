import { error, json } from '@sveltejs/kit';
import { checkLessonFile } from '../../../../core/lesson/lesson.ts';
import { bodyOf } from '$lib/server/body.ts';
import { database } from '$lib/server/database.ts';
import { addLesson, listLessons } from '$lib/server/lessons.ts';
import { say } from '../../../../core/words.ts';

export const GET = ({ locals }) => json(listLessons(database(), locals.who.id));

/** One that is begun, copied, or comes from a file: the lesson, and the errands that came with it. */
export async function POST({ request, locals }) {
  const read = checkLessonFile(await bodyOf(request), say('This lesson'));
  if (!read.ok) error(400, read.problem);
  return json({ id: addLesson(database(), read, Date.now(), locals.who.id) }, { status: 201 });
}
