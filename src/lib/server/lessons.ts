/** The lessons of this school computer: a repository over the database. */
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Errand } from '../../../core/errand/errand.ts';
import { checkLesson, eachText, namesIn, type Lesson, type LessonFile } from '../../../core/lesson/lesson.ts';
import { pageOf, renamedErrand } from '../../../core/lesson/page.ts';
import { say } from '../../../core/words.ts';
import type { LessonCard, OfLesson } from '../shelf/lessons.ts';
import { mayNot } from './access.ts';
import { addErrand, freeId, openErrand, shipRows, wholeErrand } from './errands.ts';
import { inTheRoom, type Who } from './people.ts';
import { lessons, type Store } from './schema.ts';

const none = { programs: new Set<string>(), errands: new Set<string>() };
function rowOf(lesson: Lesson): { id: string; card: string; json: string } {
  const of = (text: string) => pageOf(text, none);
  const card: OfLesson = {
    name: eachText(lesson.text, (text) => of(text).title || lesson.id),
    objective: eachText(lesson.text, (text) => {
      const parts = of(text).steps.flatMap((s) => s.parts);
      return parts.flatMap((p) => ('kind' in p && p.kind === 'objective' ? p.markdown : []))[0]?.slice(0, 300) ?? '';
    }),
    steps: of(typeof lesson.text === 'string' ? lesson.text : Object.values(lesson.text)[0]).steps.length
  };
  return { id: lesson.id, card: JSON.stringify(card), json: JSON.stringify(lesson) };
}
/** What the shelf shows of one, without opening it. */
export function ofLesson(store: Store, id: string): OfLesson | undefined {
  const row = store.select({ card: lessons.card }).from(lessons).where(eq(lessons.id, id)).get();
  return row && (JSON.parse(row.card) as OfLesson);
}
/** Those in the room and one's own; those that ship first, in the order in which they are taught. */
export const listLessons = (store: Store, owner = ''): LessonCard[] =>
  store
    .select({
      id: lessons.id,
      ships: lessons.ships,
      card: lessons.card,
      changedAt: lessons.changedAt,
      owner: lessons.owner
    })
    .from(lessons)
    .where(and(isNull(lessons.deletedAt), inTheRoom(lessons, owner)))
    .orderBy(sql`${lessons.ships} desc`, lessons.changedAt, lessons.id)
    .all()
    .map(({ card, owner: of, ...rest }) => ({
      ...rest,
      own: !rest.ships && of === owner,
      ...(JSON.parse(card) as OfLesson)
    }));

export type OpenedLesson = { lesson: Lesson; ships: boolean; changedAt: number; owner: string; tab: string | null };
/** @throws with a sentence where what is saved cannot be read */
export function openLesson(store: Store, id: string): OpenedLesson | undefined {
  const row = store
    .select()
    .from(lessons)
    .where(and(eq(lessons.id, id), isNull(lessons.deletedAt)))
    .get();
  if (!row) return undefined;
  const read = checkLesson(JSON.parse(row.json), say('The saved lesson'));
  if (!read.ok) throw new Error(read.problem);
  return { lesson: read.lesson, ships: row.ships, changedAt: row.changedAt, owner: row.owner, tab: row.tab };
}
/** The errands that it names, as far as they are here and somebody may have them with their solutions. */
export const errandsOf = (store: Store, lesson: Lesson, who: Who): Errand[] =>
  namesIn(lesson, 'errand').flatMap((id) => {
    // a lesson opens nothing that one could not open without it
    if (mayNot(store, who, '/api/errands/[id]', 'GET', { id })) return [];
    const errand = wholeErrand(store, id, who);
    return errand && errand !== 'not theirs' ? [errand] : [];
  });

/**
 * Takes one in, and the errands that came with it. Where another errand has the id of one of them, it gets one of its own,
 * and the text names it by that. @returns its id
 */
export function addLesson(store: Store, { lesson, errands }: LessonFile, at = Date.now(), owner = ''): string {
  return store.transaction((tx) => {
    let { text } = lesson;
    for (const errand of errands) {
      const here = openErrand(tx, errand.id);
      if (here && JSON.stringify(here) === JSON.stringify(errand)) continue;
      const id = addErrand(tx, errand, at, owner);
      if (id !== errand.id) text = eachText(text, (one) => renamedErrand(one, errand.id, id));
    }
    const id = freeId(tx, lessons, lesson.id);
    tx.insert(lessons)
      .values({ ...rowOf({ ...lesson, id, text }), changedAt: at, owner })
      .run();
    return id;
  });
}
/**
 * Saves one of the teacher's own. @param base when it was changed last, as far as the writer knows
 * @returns when it was changed now; `older` where another tab changed it since, `ships` where it is one that ships
 */
export function saveLesson(
  store: Store,
  lesson: Lesson,
  base: number,
  at = Date.now(),
  tab: string | null = null
): { changedAt: number } | 'none' | 'older' | 'ships' {
  return store.transaction((tx) => {
    const row = tx
      .select({ ships: lessons.ships, changedAt: lessons.changedAt, tab: lessons.tab })
      .from(lessons)
      .where(and(eq(lessons.id, lesson.id), isNull(lessons.deletedAt)))
      .get();
    if (!row) return 'none';
    if (row.ships) return 'ships';
    if (row.changedAt !== base && (tab === null || row.tab !== tab)) return 'older';
    // two changes in one millisecond are two changes
    const changedAt = Math.max(at, row.changedAt + 1);
    tx.update(lessons)
      .set({ ...rowOf(lesson), changedAt, tab })
      .where(eq(lessons.id, lesson.id))
      .run();
    return { changedAt };
  });
}
export const shipLessons = (store: Store, list: readonly Lesson[], at = Date.now()): number =>
  shipRows(store, lessons, list.map(rowOf), at);
