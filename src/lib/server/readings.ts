/** How far pupils are with a lesson, and what they answered: a repository over the database. */
import { and, eq } from 'drizzle-orm';
import { pageOf, type Page, type Piece } from '../../../core/lesson/page.ts';
import type { Lesson } from '../../../core/lesson/lesson.ts';
import { pieceDef } from '../../../core/lesson/pieces.ts';
import { tongue } from '../../../core/words.ts';
import { inOrder } from '../class/folded.ts';
import type { LessonAnswers } from '../class/class.ts';
import type { Answer, Reading } from '../class/reading.ts';
import { openLesson } from './lessons.ts';
import { people, readings, type Store } from './schema.ts';

const at = (personId: string, lessonId: string) =>
  and(eq(readings.personId, personId), eq(readings.lessonId, lessonId));
export function readingOf(store: Store, personId: string, lessonId: string): Reading | undefined {
  const row = store.select({ json: readings.json }).from(readings).where(at(personId, lessonId)).get();
  return row && (JSON.parse(row.json) as Reading);
}
export function keepReading(
  store: Store,
  personId: string,
  lessonId: string,
  reading: Reading,
  now = Date.now()
): void {
  const kept = { json: JSON.stringify(reading), at: now };
  store
    .insert(readings)
    .values({ personId, lessonId, ...kept })
    .onConflictDoUpdate({ target: [readings.personId, readings.lessonId], set: kept })
    .run();
}

/** The page in each of its languages, the reader's first: a question is known by its text, and each language has its own. */
function pagesOf({ text, programs }: Lesson): Page[] {
  const known = { programs: new Set(Object.keys(programs)), errands: new Set<string>() };
  if (typeof text === 'string') return [pageOf(text, known)];
  const { code } = tongue();
  const codes = Object.keys(text).sort((a, b) => Number(b === code) - Number(a === code));
  return codes.map((c) => pageOf(text[c], known));
}
const asked = (page: Page): Piece[] =>
  page.steps
    .flatMap((s) => s.parts)
    .filter((p): p is Piece => 'kind' in p && p.kind !== 'errand' && !!pieceDef(p.kind).asks);
/** How far one reading is. Questions stand in the same order in every language. */
function progress(pages: readonly Page[], reading: Reading) {
  const page = pages.find((p) => asked(p).some((q) => q.key in reading.answers)) ?? pages[0];
  const questions = asked(page);
  const done = new Set(pages.flatMap((p) => p.steps.flatMap((s, i) => (reading.done.includes(s.title) ? [i] : []))));
  const answers = questions.map((q): { answer?: Answer; right?: boolean; says?: string } => {
    const answer = reading.answers[q.key];
    if (!answer) return {};
    if ('chose' in answer)
      return { answer, says: q.answers[answer.chose]?.text ?? '', right: q.answers[answer.chose]?.right ?? false };
    return { answer, ...('wrote' in answer ? { says: answer.wrote } : {}) };
  });
  return { steps: done.size, ofSteps: page.steps.length, answers };
}
/** What of a lesson one pupil has done; undefined where it was not begun, or is not there any more. */
export function readSoFar(store: Store, personId: string, lessonId: string) {
  const reading = readingOf(store, personId, lessonId);
  const lesson = reading && openLesson(store, lessonId)?.lesson;
  return lesson && progress(pagesOf(lesson), reading);
}
/** Of each pupil of a class what was answered to a lesson. @returns undefined without such a lesson */
export function lessonAnswers(store: Store, classId: string, lessonId: string): LessonAnswers | undefined {
  const lesson = openLesson(store, lessonId)?.lesson;
  if (!lesson) return undefined;
  const pages = pagesOf(lesson);
  return {
    title: pages[0].title,
    questions: asked(pages[0]).map(({ kind, markdown }) => ({ kind, markdown })),
    steps: pages[0].steps.length,
    rows: store
      .select({ id: people.id, nickname: people.nickname })
      .from(people)
      .where(eq(people.classId, classId))
      .all()
      .sort((a, b) => inOrder(a.nickname, b.nickname))
      .map((row) => {
        const reading = readingOf(store, row.id, lessonId);
        return { ...row, ...(reading ? { read: progress(pages, reading) } : {}) };
      })
  };
}
