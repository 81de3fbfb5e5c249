import { error } from '@sveltejs/kit';
import { openClass } from '$lib/server/classes.ts';
import { database } from '$lib/server/database.ts';
import { lessonAnswers } from '$lib/server/readings.ts';
import { say } from '../../../../../../core/words.ts';

export const load = ({ params }) => ({
  id: params.id,
  lesson: params.lesson,
  name: openClass(database(), params.id)!.name,
  answers:
    lessonAnswers(database(), params.id, params.lesson) ?? error(404, say('There is no such lesson on this computer.'))
});
