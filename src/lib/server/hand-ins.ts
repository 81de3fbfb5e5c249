/** What was handed in, and what was said about it: a repository over the database. */
import { and, desc, eq, isNull } from 'drizzle-orm';
import { checkProject, type Project } from '../../../core/project.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { say } from '../../../core/words.ts';
import type { Collected, Comment, HandIn } from '../class/class.ts';
import { cameAs, comments, handIns, people, projects, runs, versions, type Store } from './schema.ts';
import { drawId } from './secrets.ts';
import { unstow } from './pictures.ts';

/** Freezes the newest version, and the run that was the last. @returns undefined without such a project */
export function handIn(
  store: Store,
  projectId: string,
  personId: string,
  note: string,
  at = Date.now()
): (HandIn & { givenId: string | null }) | undefined {
  return store.transaction((tx) => {
    const project = tx.select({ givenId: projects.givenId }).from(projects).where(eq(projects.id, projectId)).get();
    const newest = tx
      .select({ json: versions.json })
      .from(versions)
      .where(eq(versions.projectId, projectId))
      .orderBy(desc(versions.id))
      .get();
    if (!project || !newest) return undefined;
    const last = tx
      .select({ file: runs.file, result: runs.result })
      .from(runs)
      .where(eq(runs.projectId, projectId))
      .orderBy(desc(cameAs(runs)))
      .get();
    const row = { id: drawId(), at, note, result: last?.result ?? null, ranAt: null, withdrawnAt: null };
    tx.insert(handIns)
      .values({ ...row, projectId, personId, givenId: project.givenId, json: newest.json, run: last?.file })
      .run();
    return { ...toCard(row), givenId: project.givenId };
  });
}
/** What came of it, and whether that is only what the browser said. */
const cameOf = ({
  result,
  ranAt
}: {
  result: string | null;
  ranAt: number | null;
}): Pick<HandIn, 'result' | 'claimed'> =>
  result === null ? {} : { result: JSON.parse(result) as TryResult, ...(ranAt === null ? { claimed: true } : {}) };
const toCard = ({
  result,
  ranAt,
  ...row
}: Omit<HandIn, 'result' | 'claimed'> & { result: string | null; ranAt: number | null }): HandIn => ({
  ...row,
  ...cameOf({ result, ranAt })
});
/** The server has run it: this is what came of it, whatever was said before; nothing where it is no try of an errand. */
export const hasRun = (store: Store, id: string, result: TryResult | undefined, at = Date.now()): void =>
  void store
    .update(handIns)
    .set({ result: result ? JSON.stringify(result) : null, ranAt: at })
    .where(eq(handIns.id, id))
    .run();
/** The newest first. */
export const listHandIns = (store: Store, projectId: string): HandIn[] =>
  store
    .select({
      id: handIns.id,
      at: handIns.at,
      note: handIns.note,
      result: handIns.result,
      ranAt: handIns.ranAt,
      withdrawnAt: handIns.withdrawnAt
    })
    .from(handIns)
    .where(eq(handIns.projectId, projectId))
    .orderBy(desc(cameAs(handIns)))
    .all()
    .map(toCard);
export const withdraw = (store: Store, id: string, at = Date.now()): boolean =>
  store
    .update(handIns)
    .set({ withdrawnAt: at })
    .where(and(eq(handIns.id, id), isNull(handIns.withdrawnAt)))
    .run().changes > 0;
/** The project as it was handed in. @throws with a sentence where it cannot be read */
export function handedIn(store: Store, id: string): Project | undefined {
  const row = store.select({ json: handIns.json }).from(handIns).where(eq(handIns.id, id)).get();
  const read = row && checkProject(JSON.parse(unstow(store, row.json)), say('What was handed in'));
  if (read && !read.ok) throw new Error(read.problem);
  return read?.project;
}
/** Of each pupil's project of a class the last that was handed in and not withdrawn. */
export function collected(store: Store, classId: string): Collected[] {
  const seen = new Set<string>();
  return store
    .select({
      handIn: handIns.id,
      nickname: people.nickname,
      group: people.group,
      projectId: handIns.projectId,
      name: projects.name,
      shown: projects.shown,
      givenId: handIns.givenId,
      note: handIns.note,
      at: handIns.at,
      result: handIns.result,
      ranAt: handIns.ranAt
    })
    .from(handIns)
    .innerJoin(people, eq(people.id, handIns.personId))
    .innerJoin(projects, eq(projects.id, handIns.projectId))
    .where(and(eq(people.classId, classId), isNull(handIns.withdrawnAt)))
    .orderBy(desc(cameAs(handIns)))
    .all()
    .filter(({ projectId }) => !seen.has(projectId) && seen.add(projectId))
    .map(({ result, ranAt, shown, ...row }) => ({ ...row, shown: shown === 'yes', ...cameOf({ result, ranAt }) }));
}

export const listComments = (store: Store, projectId: string): Comment[] =>
  store
    .select({
      id: comments.id,
      block: comments.block,
      text: comments.text,
      at: comments.at,
      doneAt: comments.doneAt,
      by: people.nickname
    })
    .from(comments)
    .innerJoin(people, eq(people.id, comments.personId))
    .where(eq(comments.projectId, projectId))
    .orderBy(desc(comments.id))
    .limit(100)
    .all();
export const comment = (store: Store, projectId: string, personId: string, block: string | null, text: string): void =>
  void store.insert(comments).values({ projectId, personId, block, text, at: Date.now() }).run();
export const dealtWith = (store: Store, id: number, done: boolean): void =>
  void store
    .update(comments)
    .set({ doneAt: done ? Date.now() : null })
    .where(eq(comments.id, id))
    .run();
