/** Runs that a class guesses together: a repository over the database. */
import { and, count, desc, eq, isNull } from 'drizzle-orm';
import { checkProject } from '../../../core/project.ts';
import { say } from '../../../core/words.ts';
import type { Round } from '../class/class.ts';
import type { Who } from './people.ts';
import { openProject } from './projects.ts';
import { cameAs, guesses, people, rounds, type Store } from './schema.ts';
import { drawId } from './secrets.ts';

/** @returns undefined without such a project */
export function beginRound(store: Store, classId: string, projectId: string, id = drawId()): string | undefined {
  const opened = openProject(store, projectId);
  if (!opened) return undefined;
  // what the run is for, and what was thought of it, is nobody's hint
  const { errand: _, notebook: __, ...project } = opened.project;
  store
    .insert(rounds)
    .values({ id, classId, json: JSON.stringify({ ...project, notebook: '' }), at: Date.now() })
    .run();
  return id;
}
/** As somebody of the class may see it: others' guesses once it is decided, and never whose they are. */
export function openRound(store: Store, id: string, who: Who): Round | undefined {
  const row = store.select().from(rounds).where(eq(rounds.id, id)).get();
  if (!row) return undefined;
  const read = checkProject(JSON.parse(row.json), say('This program'));
  if (!read.ok) throw new Error(read.problem);
  const stop = row.stopX === null || row.stopY === null ? undefined : { x: row.stopX, y: row.stopY };
  const all = store
    .select({ personId: guesses.personId, x: guesses.x, y: guesses.y })
    .from(guesses)
    .where(eq(guesses.roundId, id))
    .all();
  const mine = all.find((g) => g.personId === who.id);
  const class_ = store.select({ n: count() }).from(people).where(eq(people.classId, row.classId)).get()!.n;
  return {
    id,
    classId: row.classId,
    project: read.project,
    guessed: all.length,
    of: class_,
    ...(mine ? { mine: { x: mine.x, y: mine.y } } : {}),
    ...(stop ? { stop, guesses: all.map(({ x, y }) => ({ x, y })) } : {})
  };
}
/** @returns whether it still counts: not after it was decided */
export function guess(store: Store, roundId: string, personId: string, at: { x: number; y: number }): boolean {
  return store.transaction((tx) => {
    const open = tx
      .select({ id: rounds.id })
      .from(rounds)
      .where(and(eq(rounds.id, roundId), isNull(rounds.stopX)))
      .get();
    if (!open) return false;
    tx.insert(guesses)
      .values({ roundId, personId, ...at })
      .onConflictDoUpdate({ target: [guesses.roundId, guesses.personId], set: at })
      .run();
    return true;
  });
}
export const decide = (store: Store, roundId: string, { x, y }: { x: number; y: number }): void =>
  void store.update(rounds).set({ stopX: x, stopY: y }).where(eq(rounds.id, roundId)).run();
/** The newest round of a class, as long as it is not decided. */
export function openRoundOf(store: Store, classId: string): string | undefined {
  const newest = store
    .select()
    .from(rounds)
    .where(eq(rounds.classId, classId))
    .orderBy(desc(cameAs(rounds)))
    .limit(1)
    .get();
  return newest?.stopX === null ? newest.id : undefined;
}
