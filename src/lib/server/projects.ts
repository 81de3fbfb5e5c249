/** The projects of this school computer: a repository over the database. */
import { and, desc, eq, isNotNull, isNull, lt, ne, notExists, or, sql } from 'drizzle-orm';
import { createHash, randomUUID } from 'node:crypto';
import { checkProject, type Project } from '../../../core/project.ts';
import { orderedText } from '../../../core/ordered.ts';
import { catalogue } from '../../../core/language/catalogue.ts';
import { allSteps, isLive } from '../../../core/language/program.ts';
import { lookOver } from '../../../core/language/lookover/lookover.ts';
import { remarkKey } from '../../../core/language/lookover/remark.ts';
import { folded, inOrder } from '../class/folded.ts';
import { PAGE_OF_SHELF, type Card, type DeletedCard, type OnShelf, type VersionCard } from '../shelf/cards.ts';
import { textThumb, thumb } from '../shelf/thumb.ts';
import { stow, sweepPictures, unstow, withoutPictures } from './pictures.ts';
import { handIns, people, projects, versions, type Store } from './schema.ts';
import { say, word } from '../../../core/words.ts';

/** Versions kept of each project. */
export const KEPT = 200;
/** The newest of them are kept whatever their times; of older ones those go first that lie closest together. */
const KEPT_ALL = 60;
/** What was taken off the shelf can be taken back for so long. */
export const DAYS_BACK = 30;
const DAY_MS = 86_400_000;

export type Opened = { id: string; version: number; demo: boolean; project: Project; tab?: string | null };
export type Saved = { ok: true; version: number } | { ok: false; newest: Opened };

/** The same for the same value, in whatever order its fields were written. */
export const digest = (value: unknown): string =>
  createHash('sha256').update(orderedText(value)).digest('base64url').slice(0, 16);
/** What stands beside a saved project, worked out of it. */
function beside({ name, program, kit, mat, text, setAside = [] }: Project) {
  const remarks = lookOver({ program, kit });
  const shelf: OnShelf = {
    bars: text === undefined ? thumb(program) : textThumb(text),
    toCheck: remarks.filter((r) => r.severity !== 'consider' && !setAside.includes(remarkKey(r))).length,
    parked: program.stacks.filter((s) => s.parked && !isLive(s)).length,
    mat: digest(mat),
    kit: digest(kit)
  };
  const kinds = new Set([...allSteps(program)].map((s) => s.kind));
  return { name, device: kit.device as string, shelf: JSON.stringify(shelf), kinds: ` ${[...kinds].join(' ')} ` };
}
/** What a database of before has no shelf columns for. A project that cannot be read gets an empty card. */
export function fillShelf(store: Store): void {
  for (const { id } of store.select({ id: projects.id }).from(projects).where(isNull(projects.shelf)).all()) {
    const newest = newestOf(store, id);
    const read = newest && checkProject(JSON.parse(unstow(store, newest.json)));
    const shelf: OnShelf = { bars: [], toCheck: 0, parked: 0 };
    store
      .update(projects)
      .set(read?.ok ? beside(read.project) : { shelf: JSON.stringify(shelf) })
      .where(eq(projects.id, id))
      .run();
  }
}

const card = {
  id: projects.id,
  name: projects.name,
  device: projects.device,
  demo: projects.demo,
  changedAt: projects.changedAt,
  label: projects.label,
  origin: projects.origin,
  shelf: projects.shelf
};
const toCard = ({ shelf, ...rest }: Omit<Card, keyof OnShelf> & { shelf: string | null }): Card => ({
  ...rest,
  ...(JSON.parse(shelf ?? '{"bars":[],"toCheck":0,"parked":0}') as OnShelf)
});
/** One's own, and those that one is at as one of a pair. */
const isOf = (owner: string) => or(eq(projects.owner, owner), eq(projects.partner, owner));
/** In which order projects stand. */
const ORDERS = {
  date: [desc(projects.changedAt), desc(projects.id)],
  name: [sql`sort_key(${projects.name})`, projects.name, projects.id],
  device: [projects.device, desc(projects.changedAt), projects.id]
};
export type Order = keyof typeof ORDERS;
export const isOrder = (word: string | null): word is Order => word !== null && Object.hasOwn(ORDERS, word);

/** A text of SQL's `like` that holds the words as they are. */
const holding = (words: string): string => `%${folded(words).replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
/** Kinds of blocks that are called so, in the person's language. */
const kindsCalled = (words: string): string[] =>
  [...catalogue.values()]
    .filter((d) => [d.label[0], d.also ?? ''].some((t) => folded(word(t)).includes(folded(words))))
    .map((d) => d.kind);

/**
 * Projects of the shelf, a page from the `from`-th on. Words are looked for in names, labels, names of devices and what the
 * blocks are called; a block's name counts from its third letter on.
 */
export function listProjects(
  store: Store,
  which: {
    owner?: string;
    /** also those that one is at as one of a pair: a pupil may be */
    paired?: boolean;
    demo?: boolean;
    words?: string;
    label?: string;
    order?: Order;
    from?: number;
    most?: number;
  } = {}
): Card[] {
  const {
    owner = '',
    paired = false,
    demo = false,
    words = '',
    label,
    order = 'date',
    from = 0,
    most = PAGE_OF_SHELF
  } = which;
  const asked = holding(words);
  const has = (column: typeof projects.name) => sql`folded(${column}) like ${asked} escape '\\'`;
  return store
    .select(card)
    .from(projects)
    .where(
      and(
        eq(projects.demo, demo),
        paired ? isOf(owner) : eq(projects.owner, demo ? '' : owner),
        isNull(projects.deletedAt),
        label === undefined ? undefined : eq(projects.label, label),
        words === ''
          ? undefined
          : or(
              has(projects.name),
              has(projects.label as unknown as typeof projects.name),
              has(projects.device as unknown as typeof projects.name),
              ...(words.length > 2 ? kindsCalled(words) : []).map((k) => sql`instr(${projects.kinds}, ${` ${k} `}) > 0`)
            )
      )
    )
    .orderBy(...ORDERS[order])
    .limit(most)
    .offset(from)
    .all()
    .map(toCard);
}
/** The labels that are in use, by their letters. */
export const listLabels = (store: Store, owner = ''): string[] =>
  store
    .selectDistinct({ label: projects.label })
    .from(projects)
    .where(and(isOf(owner), eq(projects.demo, false), isNull(projects.deletedAt), ne(projects.label, '')))
    .all()
    .map((row) => row.label)
    .sort(inOrder);
/** Puts a label on a project, or takes it off. */
export const labelProject = (store: Store, id: string, label: string): boolean =>
  store
    .update(projects)
    .set({ label })
    .where(and(eq(projects.id, id), eq(projects.demo, false)))
    .run().changes > 0;
/** Another name, as a version of its own: whoever has it open is told, as of any other save. */
export function renameProject(store: Store, id: string, name: string): Saved | undefined {
  const opened = openProject(store, id);
  return opened && saveProject(store, id, opened.version, { ...opened.project, name });
}

const newestOf = (store: Store, id: string): { version: number; json: string; tab: string | null } | undefined =>
  store
    .select({ version: versions.id, json: versions.json, tab: versions.tab })
    .from(versions)
    .where(eq(versions.projectId, id))
    .orderBy(desc(versions.id))
    .limit(1)
    .get();

export const newestVersion = (store: Store, id: string): number | undefined => newestOf(store, id)?.version;

/** @throws with a sentence where what is saved cannot be read */
export function openProject(store: Store, id: string): Opened | undefined {
  const row = store
    .select({ demo: projects.demo })
    .from(projects)
    .where(and(eq(projects.id, id), isNull(projects.deletedAt)))
    .get();
  const newest = row && newestOf(store, id);
  if (!newest) return undefined;
  const read = checkProject(JSON.parse(unstow(store, newest.json)), say('The saved project'));
  if (!read.ok) throw new Error(read.problem);
  return { id, version: newest.version, demo: row.demo, project: read.project, tab: newest.tab };
}
/** The newest version as it was saved, whether this Moss Bell can read it or not. */
export function rawProject(store: Store, id: string): string | undefined {
  const newest = newestOf(store, id);
  return newest && unstow(store, newest.json);
}

export function createProject(
  store: Store,
  project: Project,
  options: { id?: string; demo?: boolean; at?: number; label?: string; owner?: string } = {}
): Opened {
  const id = options.id ?? randomUUID().slice(0, 8);
  const at = options.at ?? Date.now();
  const demo = options.demo ?? false;
  const { label = '', owner = '' } = options;
  const columns = beside(project);
  return store.transaction((tx) => {
    tx.insert(projects)
      .values({ id, demo, label, owner, changedAt: at, ...columns })
      .run();
    const json = stow(tx as unknown as Store, id, JSON.stringify(project));
    const { lastInsertRowid } = tx.insert(versions).values({ projectId: id, at, json }).run();
    return { id, version: Number(lastInsertRowid), demo, project };
  });
}

/**
 * Adds a version if `base` is still the newest, or what came since is of the same tab, which was not answered; otherwise says
 * what the newest is, and changes nothing.
 */
export function saveProject(
  store: Store,
  id: string,
  base: number,
  project: Project,
  at = Date.now(),
  tab: string | null = null
): Saved | undefined {
  const columns = beside(project);
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const row = tx
      .select({ demo: projects.demo, deletedAt: projects.deletedAt })
      .from(projects)
      .where(eq(projects.id, id))
      .get();
    if (!row || row.demo || row.deletedAt !== null) return undefined;
    const newest = newestOf(within, id);
    if (newest?.version !== base && (tab === null || newest?.tab !== tab))
      return { ok: false as const, newest: openProject(within, id)! };
    const json = stow(within, id, JSON.stringify(project));
    const { lastInsertRowid } = tx.insert(versions).values({ projectId: id, at, json, tab }).run();
    tx.update(projects)
      .set({ changedAt: at, ...columns })
      .where(eq(projects.id, id))
      .run();
    thin(within, id, at);
    return { ok: true as const, version: Number(lastInsertRowid) };
  });
}
/** Beyond KEPT versions one goes: of those that are not new, the one whose neighbours are nearest to it for its age. */
function thin(store: Store, id: string, now: number): void {
  const all = store
    .select({ id: versions.id, at: versions.at })
    .from(versions)
    .where(eq(versions.projectId, id))
    .orderBy(versions.id)
    .all();
  if (all.length <= KEPT) return;
  let least = Infinity;
  let goes = 1;
  for (let i = 1; i < all.length - KEPT_ALL; i++) {
    const room = (all[i + 1].at - all[i - 1].at) / Math.max(1, now - all[i].at);
    if (room < least) [least, goes] = [room, i];
  }
  store.delete(versions).where(eq(versions.id, all[goes].id)).run();
}

/** Versions of a project, newest first, each with its picture. */
export function listVersions(store: Store, id: string, before = Number.MAX_SAFE_INTEGER, most = 24): VersionCard[] {
  return store
    .select({ id: versions.id, at: versions.at, json: versions.json })
    .from(versions)
    .where(and(eq(versions.projectId, id), lt(versions.id, before)))
    .orderBy(desc(versions.id))
    .limit(most)
    .all()
    .map(({ json, ...version }) => {
      const read = checkProject(JSON.parse(withoutPictures(json)));
      if (!read.ok) return { ...version, name: '', bars: [], blocks: 0 };
      const { name, program } = read.project;
      return { ...version, name, bars: thumb(program), blocks: [...allSteps(program)].length };
    });
}
/** One version of a project. */
export function openVersion(store: Store, id: string, version: number): Project | undefined {
  const row = store
    .select({ json: versions.json })
    .from(versions)
    .where(and(eq(versions.projectId, id), eq(versions.id, version)))
    .get();
  const read = row && checkProject(JSON.parse(unstow(store, row.json)), say('This version'));
  if (read && !read.ok) throw new Error(read.problem);
  return read?.project;
}

/** Takes it off the shelf; it can be taken back for DAYS_BACK days. */
export const deleteProject = (store: Store, id: string, at = Date.now()): boolean => {
  sweep(store, at);
  return (
    store
      .update(projects)
      .set({ deletedAt: at })
      .where(and(eq(projects.id, id), eq(projects.demo, false), isNull(projects.deletedAt)))
      .run().changes > 0
  );
};
export const restoreProject = (store: Store, id: string): boolean =>
  store
    .update(projects)
    .set({ deletedAt: null })
    .where(and(eq(projects.id, id), isNotNull(projects.deletedAt)))
    .run().changes > 0;
/** What was taken off, newest first, and how many days it stays. */
export function listDeleted(store: Store, now = Date.now(), owner = ''): DeletedCard[] {
  sweep(store, now);
  return store
    .select({ ...card, deletedAt: projects.deletedAt })
    .from(projects)
    .where(and(isOf(owner), isNotNull(projects.deletedAt)))
    .orderBy(desc(projects.deletedAt))
    .limit(200)
    .all()
    .map(({ deletedAt, ...row }) => ({
      ...toCard(row),
      days: Math.max(1, Math.ceil(DAYS_BACK - (now - deletedAt!) / DAY_MS))
    }));
}
/** What was taken off long ago goes for good, and pictures that nothing has any more. */
function sweep(store: Store, now: number): void {
  // what was handed in of it stays, and it with that
  const handedIn = store
    .select({ one: sql`1` })
    .from(handIns)
    .where(eq(handIns.projectId, projects.id));
  const { changes } = store
    .delete(projects)
    .where(and(lt(projects.deletedAt, now - DAYS_BACK * DAY_MS), notExists(handedIn)))
    .run();
  if (changes) sweepPictures(store);
}
export const isEmpty = (store: Store): boolean =>
  store.select({ id: projects.id }).from(projects).limit(1).get() === undefined;
/** @param asked only where the teacher asked for it */
export const showProject = (store: Store, id: string, shown: 'asked' | 'yes' | null, asked = false): boolean =>
  store
    .update(projects)
    .set({ shown })
    .where(and(eq(projects.id, id), asked ? isNotNull(projects.shown) : undefined))
    .run().changes > 0;
export const driveProject = (store: Store, id: string, personId: string): void =>
  void store.update(projects).set({ driver: personId }).where(eq(projects.id, id)).run();
/** What one of a class shows to the room, and who. */
export const shownIn = (store: Store, classId: string): { shown: string; by: string } | undefined =>
  store
    .select({ shown: projects.id, by: people.nickname })
    .from(projects)
    .innerJoin(people, eq(people.id, projects.owner))
    .where(and(eq(people.classId, classId), eq(projects.shown, 'yes'), isNull(projects.deletedAt)))
    .orderBy(desc(projects.changedAt))
    .limit(1)
    .get();
