/** The errands of this school computer: a repository over the database. */
import { and, eq, isNotNull, isNull, ne, or, sql } from 'drizzle-orm';
import { checkErrand, projectOf, type Errand } from '../../../core/errand/errand.ts';
import { say } from '../../../core/words.ts';
import type { ErrandCard, OfErrand } from '../shelf/errands.ts';
import { createProject, type Opened } from './projects.ts';
import { inTheRoom, type Who } from './people.ts';
import { errands, lessons, projects, runs, type Store } from './schema.ts';

const cardOf = ({ name, story, level, kit, goals }: Errand): string =>
  JSON.stringify({ name, story, level, device: kit.device, goals: goals.length } satisfies OfErrand);

/** What the shelf shows of one, without opening it. */
export function ofErrand(store: Store, id: string): OfErrand | undefined {
  const row = store.select({ card: errands.card }).from(errands).where(eq(errands.id, id)).get();
  return row && (JSON.parse(row.card) as OfErrand);
}
/** Those in the room and one's own, the easiest first, and of those the ones that ship; tries are one's own. */
export function listErrands(store: Store, who: Pick<Who, 'id' | 'role'> = { id: '', role: 'guest' }): ErrandCard[] {
  const owner = who.id;
  const tries = new Map(
    store
      .select({
        errand: runs.errand,
        tries: sql<number>`count(*)`,
        met: sql<number>`sum(json_extract(${runs.result}, '$.met'))`
      })
      .from(runs)
      .innerJoin(projects, eq(projects.id, runs.projectId))
      .where(and(isNotNull(runs.errand), or(eq(projects.owner, owner), eq(projects.partner, owner))))
      .groupBy(runs.errand)
      .all()
      .map((row) => [row.errand!, row])
  );
  return store
    .select({
      id: errands.id,
      ships: errands.ships,
      card: errands.card,
      owner: errands.owner,
      copied: errands.copied
    })
    .from(errands)
    .where(and(isNull(errands.deletedAt), inTheRoom(errands, owner)))
    .orderBy(sql`json_extract(${errands.card}, '$.level')`, sql`${errands.ships} desc`, errands.changedAt, errands.id)
    .all()
    .map(({ card, owner: of, copied, id, ships }) => ({
      id,
      ships,
      own: !ships && of === owner,
      whole: hasWhole({ owner: of, copied, ships }, who),
      ...(JSON.parse(card) as OfErrand),
      tries: tries.get(id)?.tries ?? 0,
      met: tries.get(id)?.met ?? 0
    }));
}
/** @param away also one that was taken off the shelf: what was given out stays; @throws with a sentence where it cannot be read */
export function openErrand(store: Store, id: string, away = false): Errand | undefined {
  const row = store
    .select({ json: errands.json })
    .from(errands)
    .where(and(eq(errands.id, id), away ? undefined : isNull(errands.deletedAt)))
    .get();
  if (!row) return undefined;
  const read = checkErrand(JSON.parse(row.json), say('The saved errand'));
  if (!read.ok) throw new Error(read.problem);
  return read.errand;
}
/** The model and the wrong programs are its author's and the teachers' alone: who else has its file has its solution. */
const hasWhole = (row: { owner: string; copied: boolean; ships: boolean }, who: Pick<Who, 'id' | 'role'>): boolean =>
  who.role === 'teacher' || (!row.ships && !row.copied && row.owner === who.id);
/** The errand with its solution, for a file; `not theirs` where this is not theirs to have. */
export function wholeErrand(
  store: Store,
  id: string,
  who: Pick<Who, 'id' | 'role'>
): Errand | 'not theirs' | undefined {
  const row = store
    .select({ owner: errands.owner, copied: errands.copied, ships: errands.ships })
    .from(errands)
    .where(and(eq(errands.id, id), isNull(errands.deletedAt)))
    .get();
  return row && (hasWhole(row, who) ? openErrand(store, id) : 'not theirs');
}
type Kept = typeof errands | typeof lessons;
/** An id that nothing in a table has yet. */
export function freeId(store: Pick<Store, 'select'>, table: Kept, wanted: string): string {
  const taken = (id: string): boolean =>
    store.select({ id: table.id }).from(table).where(eq(table.id, id)).get() !== undefined;
  let id = wanted;
  for (let n = 2; taken(id); n++) id = `${wanted.slice(0, 55)}-${n}`;
  return id;
}
/** Takes one in; where another has its id already, it gets one of its own. @returns its id */
export function addErrand(store: Store, errand: Errand, at = Date.now(), owner = '', copied = false): string {
  return store.transaction((tx) => {
    const id = freeId(tx, errands, errand.id);
    const made = { ...errand, id };
    tx.insert(errands)
      .values({ ...rowOf(made), changedAt: at, owner, copied })
      .run();
    return id;
  });
}
type Row = { id: string; card: string; json: string };
/** Those that ship, as they ship: put there, or renewed. @returns how many were new */
export function shipRows(store: Store, table: Kept, list: readonly Row[], at: number): number {
  return store.transaction((tx) => {
    let fresh = 0;
    list.forEach((row, i) => {
      const known = tx.select({ ships: table.ships }).from(table).where(eq(table.id, row.id)).get();
      if (!known) {
        tx.insert(table)
          .values({ ships: true, ...row, changedAt: at + i })
          .run();
        fresh++;
      } else if (known.ships)
        tx.update(table)
          .set(row)
          .where(and(eq(table.id, row.id), ne(table.json, row.json)))
          .run();
    });
    return fresh;
  });
}
const rowOf = (errand: Errand): Row => ({ id: errand.id, card: cardOf(errand), json: JSON.stringify(errand) });
export const shipErrands = (store: Store, list: readonly Errand[], at = Date.now()): number =>
  shipRows(store, errands, list.map(rowOf), at);
/** A project in which it is done. */
export function beginErrand(store: Store, id: string, owner = ''): Opened | undefined {
  const errand = openErrand(store, id);
  return errand && createProject(store, projectOf(errand), { owner });
}
/** One of the teacher's own is taken off the shelf, or put back. Those that ship stay. */
export const putAway = (
  store: Store,
  table: Kept,
  id: string,
  away: boolean,
  at = Date.now(),
  /** only if it is theirs */ owner?: string
): boolean =>
  store
    .update(table)
    .set({ deletedAt: away ? at : null })
    .where(and(eq(table.id, id), eq(table.ships, false), owner === undefined ? undefined : eq(table.owner, owner)))
    .run().changes > 0;
