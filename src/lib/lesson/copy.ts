/** Lessons begun, copied and saved as files. */
import {
  eachText,
  LESSON_ENDING,
  newLesson,
  zipLesson,
  type Lesson,
  type LessonFile
} from '../../../core/lesson/lesson.ts';
import { say } from '../../../core/words.ts';
import { download, send, type Opened } from '../shelf/files.ts';
import { slugOf } from '../shelf/slug.ts';

export const addLesson = (file: LessonFile): Promise<Opened> => send('/api/lessons', file);
export const beginLesson = (name: string): Promise<Opened> =>
  addLesson({
    lesson: newLesson(
      slugOf(name),
      `# ${name}\n\n\`\`\`objective\n${say('Afterwards you can ...')}\n\`\`\`\n\n## ${say('The first step')}\n\n`
    ),
    errands: []
  });
export const copyLesson = (lesson: Lesson): Promise<Opened> =>
  addLesson({
    lesson: { ...lesson, text: eachText(lesson.text, (text) => text.replace(/^# (.*)$/m, `# $1 (${say('copy')})`)) },
    errands: []
  });
/** @returns what went wrong */
export async function saveLessonFile(id: string): Promise<string | undefined> {
  const answer = await fetch(`/api/lessons/${id}?teacher&errands`).catch(() => undefined);
  if (!answer?.ok) return say('The lesson could not be fetched. Is Moss Bell still running on the school computer?');
  const bytes = zipLesson((await answer.json()) as LessonFile);
  download(`${id}${LESSON_ENDING}`, new Blob([bytes as BlobPart], { type: 'application/zip' }));
  return undefined;
}
