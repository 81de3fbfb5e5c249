/** A lesson from the server, and its page as it is read. */
import { error } from '@sveltejs/kit';
import { toldIn } from '../../../core/errand/task.ts';
import { namesIn, type Lesson } from '../../../core/lesson/lesson.ts';
import { pageOf, type Page } from '../../../core/lesson/page.ts';
import { say } from '../../../core/words.ts';

export type Fetched = {
  lesson: Lesson;
  ships: boolean;
  own: boolean;
  changedAt: number;
  /** the tab that saved it last */
  tab?: string | null;
};
/** @param more what is wanted beside what a pupil has: `?teacher` */
export async function fetchLesson(id: string, fetch: typeof globalThis.fetch, more = ''): Promise<Fetched> {
  const answer = await fetch(`/api/lessons/${encodeURIComponent(id)}${more}`);
  if (!answer.ok) error(answer.status, ((await answer.json()) as { message: string }).message);
  return (await answer.json()) as Fetched;
}
/** What can be read of it, whatever is wrong with it: errands that are not here are told where they stand. */
export const readable = (lesson: Lesson): Page =>
  pageOf(toldIn(lesson.text), {
    programs: new Set(Object.keys(lesson.programs)),
    errands: new Set(namesIn(lesson, 'errand'))
  });
export const untitled = (): string => say('A lesson without a name');
