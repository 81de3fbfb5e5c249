/** What was handed in, and what was said about it: a repository over the database. */
import { and, desc, eq, isNull, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import { checkProject, type Project } from '../../../core/project.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { say } from '../../../core/words.ts';
import type { Collected, Comment, HandIn } from '../class/class.ts';
import { cameAs, comments, given, handIns, people, projects, runs, versions, type Store } from './schema.ts';
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
    const row = {
      id: drawId(),
      at,
      note,
      result: last?.result ?? null,
      ranAt: null,
      withdrawnAt: null,
      seenAt: null,
      backAt: null
    };
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
      withdrawnAt: handIns.withdrawnAt,
      seenAt: handIns.seenAt,
      backAt: handIns.backAt
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
/** A teacher opened it. */
export const seen = (store: Store, id: string, at = Date.now()): void =>
  void store
    .update(handIns)
    .set({ seenAt: at })
    .where(and(eq(handIns.id, id), isNull(handIns.seenAt)))
    .run();
/** A teacher gives it back to be worked on, or takes that back. */
export const giveBack = (store: Store, id: string, back: boolean, at = Date.now()): void =>
  void store
    .update(handIns)
    .set({ backAt: back ? at : null })
    .where(eq(handIns.id, id))
    .run();
/** The last hand-in of a project that was not withdrawn. */
export const lastHandIn = (store: Store, projectId: string) =>
  store
    .select({
      id: handIns.id,
      at: handIns.at,
      seenAt: handIns.seenAt,
      backAt: handIns.backAt,
      result: handIns.result,
      ranAt: handIns.ranAt
    })
    .from(handIns)
    .where(and(eq(handIns.projectId, projectId), isNull(handIns.withdrawnAt)))
    .orderBy(desc(cameAs(handIns)))
    .limit(1)
    .get();
/** Whether it came after the end. */
export const isLate = (at: number, untilAt: number | null | undefined): { late?: true } =>
  untilAt !== null && untilAt !== undefined && at > untilAt ? { late: true } : {};
/** The project as it was handed in. @throws with a sentence where it cannot be read */
export function handedIn(store: Store, id: string): Project | undefined {
  const row = store.select({ json: handIns.json }).from(handIns).where(eq(handIns.id, id)).get();
  const read = row && checkProject(JSON.parse(unstow(store, row.json)), say('What was handed in'));
  if (read && !read.ok) throw new Error(read.problem);
  return read?.project;
}
/** Of each project of a class's pupils the last that was handed in and not withdrawn; a pair's stands under both. */
export function collected(store: Store, classId: string): Collected[] {
  const seen = new Set<string>();
  const other = alias(people, 'other');
  return store
    .select({
      handIn: handIns.id,
      owner: people,
      other,
      projectId: handIns.projectId,
      name: projects.name,
      shown: projects.shown,
      deletedAt: projects.deletedAt,
      givenId: handIns.givenId,
      untilAt: given.untilAt,
      note: handIns.note,
      at: handIns.at,
      seenAt: handIns.seenAt,
      backAt: handIns.backAt,
      result: handIns.result,
      ranAt: handIns.ranAt
    })
    .from(handIns)
    .innerJoin(projects, eq(projects.id, handIns.projectId))
    .leftJoin(people, eq(people.id, projects.owner))
    .leftJoin(other, eq(other.id, projects.partner))
    .leftJoin(given, eq(given.id, handIns.givenId))
    .where(and(or(eq(people.classId, classId), eq(other.classId, classId)), isNull(handIns.withdrawnAt)))
    .orderBy(desc(cameAs(handIns)))
    .all()
    .filter(({ projectId }) => !seen.has(projectId) && seen.add(projectId))
    .map(({ owner, other, result, ranAt, shown, deletedAt, untilAt, ...row }) => {
      const by = [owner, other].filter((p) => p !== null);
      return {
        ...row,
        nickname: by.map((p) => p.nickname).join(', '),
        group: by[0]?.group ?? '',
        shown: shown === 'yes',
        ...isLate(row.at, untilAt),
        ...(deletedAt === null ? {} : { gone: true as const }),
        ...cameOf({ result, ranAt })
      };
    });
}
/** What was handed in, as a teacher opens it: by whom, for what, and what else there is of it. */
export function handedInOf(store: Store, classId: string, id: string): Collected | undefined {
  const row = store
    .select({ projectId: handIns.projectId, at: handIns.at })
    .from(handIns)
    .where(eq(handIns.id, id))
    .get();
  const newest = row && collected(store, classId).find((c) => c.projectId === row.projectId);
  const card = newest && listHandIns(store, row.projectId).find((c) => c.id === id);
  if (!card) return undefined;
  const { note, at, seenAt, backAt, result, claimed } = card;
  const untilAt = newest.givenId
    ? store.select({ untilAt: given.untilAt }).from(given).where(eq(given.id, newest.givenId)).get()?.untilAt
    : undefined;
  const { late: _, result: __, claimed: ___, ...rest } = newest;
  return {
    ...rest,
    handIn: id,
    ...{ note, at, seenAt, backAt },
    ...isLate(at, untilAt),
    ...(result ? { result } : {}),
    ...(claimed ? { claimed } : {})
  };
}

/** The newest first, each with what was answered to it. @param whoId who asks */
export const listComments = (store: Store, projectId: string, whoId: string): Comment[] =>
  store
    .select({
      id: comments.id,
      under: comments.under,
      block: comments.block,
      text: comments.text,
      at: comments.at,
      changedAt: comments.changedAt,
      doneAt: comments.doneAt,
      by: people.nickname,
      mine: sql<boolean>`${comments.personId} = ${whoId}`.mapWith(Boolean)
    })
    .from(comments)
    .innerJoin(people, eq(people.id, comments.personId))
    .where(eq(comments.projectId, projectId))
    .orderBy(desc(comments.id))
    .limit(100)
    .all();
/** Something is said. @param under the one that it answers */
export const comment = (
  store: Store,
  projectId: string,
  personId: string,
  block: string | null,
  text: string,
  under: number | null = null
): void => void store.insert(comments).values({ projectId, personId, block, text, under, at: Date.now() }).run();
export const changeComment = (store: Store, id: number, text: string): void =>
  void store.update(comments).set({ text, changedAt: Date.now() }).where(eq(comments.id, id)).run();
/** It is taken out, with what was answered to it. */
export const takeOutComment = (store: Store, id: number): void =>
  void store.delete(comments).where(eq(comments.id, id)).run();
export const dealtWith = (store: Store, id: number, done: boolean): void =>
  void store
    .update(comments)
    .set({ doneAt: done ? Date.now() : null })
    .where(eq(comments.id, id))
    .run();
