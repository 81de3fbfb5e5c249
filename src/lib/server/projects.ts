/** The projects of this school computer: a repository over the database. */
import { and, desc, eq, lt, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { checkProject, type Project } from '../../../core/project.ts';
import { isLive } from '../../../core/language/program.ts';
import { lookOver, remarkKey } from '../../../core/language/lookover/lookover.ts';
import { thumb, type Bar } from '../shelf/thumb.ts';
import type { Store } from './database.ts';
import { projects, versions } from './schema.ts';
import { say } from '../../../core/words.ts';

/** Versions kept of each project. */
const KEPT = 200;
export type Card = {
  id: string;
  name: string;
  device: string;
  demo: boolean;
  changedAt: number;
  bars: Bar[];
  toCheck: number;
  parked: number;
};
export type Opened = { id: string; version: number; demo: boolean; project: Project };
export type Saved = { ok: true; version: number } | { ok: false; newest: Opened };

export function listProjects(store: Store): Card[] {
  const newest = store
    .select({ projectId: versions.projectId, id: sql<number>`max(${versions.id})`.as('newest') })
    .from(versions)
    .groupBy(versions.projectId)
    .as('newest');
  return store
    .select({
      id: projects.id,
      name: projects.name,
      device: projects.device,
      demo: projects.demo,
      changedAt: projects.changedAt,
      json: versions.json
    })
    .from(projects)
    .innerJoin(newest, eq(newest.projectId, projects.id))
    .innerJoin(versions, eq(versions.id, newest.id))
    .orderBy(desc(projects.changedAt))
    .all()
    .map(({ json, ...card }) => {
      const { program, kit, setAside = [] } = JSON.parse(json) as Project;
      return {
        ...card,
        bars: thumb(program),
        toCheck: lookOver({ program, kit }).filter((r) => r.severity !== 'consider' && !setAside.includes(remarkKey(r)))
          .length,
        parked: program.stacks.filter((s) => s.parked && !isLive(s)).length
      };
    });
}

export function openProject(store: Store, id: string): Opened | undefined {
  const row = store
    .select({ version: versions.id, json: versions.json, demo: projects.demo })
    .from(versions)
    .innerJoin(projects, eq(projects.id, versions.projectId))
    .where(eq(versions.projectId, id))
    .orderBy(desc(versions.id))
    .limit(1)
    .get();
  if (!row) return undefined;
  const read = checkProject(JSON.parse(row.json), say('The saved project'));
  if (!read.ok) throw new Error(read.problem);
  return { id, version: row.version, demo: row.demo, project: read.project };
}

export function createProject(
  store: Store,
  project: Project,
  options: { id?: string; demo?: boolean; at?: number } = {}
): Opened {
  const id = options.id ?? randomUUID().slice(0, 8);
  const at = options.at ?? Date.now();
  const demo = options.demo ?? false;
  return store.transaction((tx) => {
    tx.insert(projects).values({ id, name: project.name, device: project.kit.device, demo, changedAt: at }).run();
    const { lastInsertRowid } = tx
      .insert(versions)
      .values({ projectId: id, at, json: JSON.stringify(project) })
      .run();
    return { id, version: Number(lastInsertRowid), demo, project };
  });
}

/** Adds a version if `base` is still the newest; otherwise says what the newest is, and changes nothing. */
export function saveProject(store: Store, id: string, base: number, project: Project): Saved | undefined {
  return store.transaction((tx) => {
    const newest = openProject(tx as unknown as Store, id);
    if (!newest || newest.demo) return undefined;
    if (newest.version !== base) return { ok: false as const, newest };
    const at = Date.now();
    const { lastInsertRowid } = tx
      .insert(versions)
      .values({ projectId: id, at, json: JSON.stringify(project) })
      .run();
    tx.update(projects).set({ name: project.name, changedAt: at }).where(eq(projects.id, id)).run();
    const edge = tx
      .select({ id: versions.id })
      .from(versions)
      .where(eq(versions.projectId, id))
      .orderBy(desc(versions.id))
      .limit(1)
      .offset(KEPT)
      .get();
    if (edge)
      tx.delete(versions)
        .where(and(eq(versions.projectId, id), lt(versions.id, edge.id + 1)))
        .run();
    return { ok: true as const, version: Number(lastInsertRowid) };
  });
}

export const deleteProject = (store: Store, id: string): boolean =>
  store
    .delete(projects)
    .where(and(eq(projects.id, id), eq(projects.demo, false)))
    .run().changes > 0;
export const isEmpty = (store: Store): boolean =>
  store.select({ id: projects.id }).from(projects).limit(1).get() === undefined;
