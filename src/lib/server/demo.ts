/** The demo's teacher and class: their passphrase and words may be read by everybody, as long as they are what they were. */
import { and, eq } from 'drizzle-orm';
import { classes, people, type Store } from './schema.ts';

export const DEMO_TEACHER = { id: 'demo-teacher', nickname: 'Ash', passphrase: 'moss grows on the bell' };
/** of everybody's card in the demo's class */
export const DEMO_WORDS = 'fern moss bell';
const DEMO_PUPIL = 'Bramble';

export type Demo = { name: string; passphrase: string; pupil?: { name: string; code: string; words: string } };
/** @returns undefined where this is no demo, or the teacher has another passphrase by now */
export function demoOf(store: Store): Demo | undefined {
  const { id, nickname, passphrase } = DEMO_TEACHER;
  if (store.select({ at: people.at }).from(people).where(eq(people.id, id)).get()?.at !== 0) return undefined;
  const pupil = store
    .select({ name: people.nickname, code: classes.code })
    .from(people)
    .innerJoin(classes, eq(classes.id, people.classId))
    .where(and(eq(classes.teacherId, id), eq(people.nickname, DEMO_PUPIL), eq(people.at, 0)))
    .get();
  return { name: nickname, passphrase, ...(pupil ? { pupil: { ...pupil, words: DEMO_WORDS } } : {}) };
}
