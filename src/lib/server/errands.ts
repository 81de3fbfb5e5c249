/** The errands of this school computer: a repository over the database. */
import { and, eq, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import { checkErrand, projectOf, type Errand } from '../../../core/errand/errand.ts';
import { say } from '../../../core/words.ts';
import type { ErrandCard, OfErrand } from '../shelf/errands.ts';
import { createProject, type Opened } from './projects.ts';
import { errands, runs, type Store } from './schema.ts';

const cardOf = ({ name, story, level, kit, goals }: Errand): string =>
  JSON.stringify({ name, story, level, device: kit.device, goals: goals.length } satisfies OfErrand);

/** The easiest first, and of those the ones that ship. */
export function listErrands(store: Store): ErrandCard[] {
  const tries = new Map(
    store
      .select({
        errand: runs.errand,
        tries: sql<number>`count(*)`,
        met: sql<number>`sum(json_extract(${runs.result}, '$.met'))`
      })
      .from(runs)
      .where(isNotNull(runs.errand))
      .groupBy(runs.errand)
      .all()
      .map((row) => [row.errand!, row])
  );
  return store
    .select({ id: errands.id, ships: errands.ships, card: errands.card })
    .from(errands)
    .where(isNull(errands.deletedAt))
    .orderBy(sql`json_extract(${errands.card}, '$.level')`, sql`${errands.ships} desc`, errands.changedAt, errands.id)
    .all()
    .map(({ card, ...rest }) => ({
      ...rest,
      ...(JSON.parse(card) as OfErrand),
      tries: tries.get(rest.id)?.tries ?? 0,
      met: tries.get(rest.id)?.met ?? 0
    }));
}
/** @throws with a sentence where what is saved cannot be read */
export function openErrand(store: Store, id: string): Errand | undefined {
  const row = store
    .select({ json: errands.json })
    .from(errands)
    .where(and(eq(errands.id, id), isNull(errands.deletedAt)))
    .get();
  if (!row) return undefined;
  const read = checkErrand(JSON.parse(row.json), say('The saved errand'));
  if (!read.ok) throw new Error(read.problem);
  return read.errand;
}
/** Takes one in; where another has its id already, it gets one of its own. @returns its id */
export function addErrand(store: Store, errand: Errand, at = Date.now()): string {
  return store.transaction((tx) => {
    const taken = (id: string): boolean =>
      tx.select({ id: errands.id }).from(errands).where(eq(errands.id, id)).get() !== undefined;
    let { id } = errand;
    for (let n = 2; taken(id); n++) id = `${errand.id.slice(0, 55)}-${n}`;
    const made = { ...errand, id };
    tx.insert(errands)
      .values({ id, card: cardOf(made), json: JSON.stringify(made), changedAt: at })
      .run();
    return id;
  });
}
/** Those that ship, as they ship: put there, or renewed. @returns how many were new */
export function shipErrands(store: Store, list: readonly Errand[], at = Date.now()): number {
  return store.transaction((tx) => {
    let fresh = 0;
    list.forEach((errand, i) => {
      const row = { card: cardOf(errand), json: JSON.stringify(errand) };
      const known = tx.select({ ships: errands.ships }).from(errands).where(eq(errands.id, errand.id)).get();
      if (!known) {
        tx.insert(errands)
          .values({ id: errand.id, ships: true, ...row, changedAt: at + i })
          .run();
        fresh++;
      } else if (known.ships)
        tx.update(errands)
          .set(row)
          .where(and(eq(errands.id, errand.id), ne(errands.json, row.json)))
          .run();
    });
    return fresh;
  });
}
/** A project in which it is done. */
export function beginErrand(store: Store, id: string): Opened | undefined {
  const errand = openErrand(store, id);
  return errand && createProject(store, projectOf(errand));
}
/** One of the teacher's own is taken off the shelf, or put back. Those that ship stay. */
export const putAway = (store: Store, id: string, away: boolean, at = Date.now()): boolean =>
  store
    .update(errands)
    .set({ deletedAt: away ? at : null })
    .where(and(eq(errands.id, id), eq(errands.ships, false)))
    .run().changes > 0;
