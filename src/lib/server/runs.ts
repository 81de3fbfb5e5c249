/** Runs that are kept with a project. */
import { randomUUID } from 'node:crypto';
import { gunzipSync, gzipSync } from 'node:zlib';
import { and, desc, eq } from 'drizzle-orm';
import { readRun, type RunCard } from '../../../core/trace/runfile.ts';
import type { Store } from './database.ts';
import { projects, runs } from './schema.ts';

/** So many that are not pinned are kept of each project. */
export const KEPT_RUNS = 40;
const card = {
  id: runs.id,
  at: runs.at,
  name: runs.name,
  kind: runs.kind,
  device: runs.device,
  ended: runs.ended,
  ms: runs.ms,
  pinned: runs.pinned
};

/** The newest first. */
export const listRuns = (store: Store, projectId: string): RunCard[] =>
  store.select(card).from(runs).where(eq(runs.projectId, projectId)).orderBy(desc(runs.at)).all();

/** @param file a run's file; @returns its card, a sentence that says what is wrong, or undefined without such a project */
export function keepRun(
  store: Store,
  projectId: string,
  file: string,
  ms: number,
  at = Date.now()
): RunCard | string | undefined {
  const read = readRun(file, 'This run');
  if (!read.ok) return read.problem;
  return store.transaction((tx) => {
    if (!tx.select({ id: projects.id }).from(projects).where(eq(projects.id, projectId)).get()) return undefined;
    const { run } = read;
    const row = {
      id: randomUUID().slice(0, 10),
      projectId,
      at,
      name: run.name,
      kind: run.kind,
      device: run.trace.header.device,
      ended: run.trace.ended ?? '',
      ms,
      pinned: false
    };
    tx.insert(runs)
      .values({ ...row, file: gzipSync(file) })
      .run();
    const old = tx
      .select({ id: runs.id })
      .from(runs)
      .where(and(eq(runs.projectId, projectId), eq(runs.pinned, false)))
      .orderBy(desc(runs.at))
      .offset(KEPT_RUNS)
      .limit(1000)
      .all();
    for (const { id } of old) tx.delete(runs).where(eq(runs.id, id)).run();
    const { projectId: _, ...made } = row;
    return made;
  });
}
export function runFile(store: Store, id: string): string | undefined {
  const row = store.select({ file: runs.file }).from(runs).where(eq(runs.id, id)).get();
  return row && gunzipSync(row.file).toString('utf8');
}
/** @param change another name; pinned or not; and with a pin the whole file */
export function changeRun(
  store: Store,
  id: string,
  change: { name?: string; pinned?: boolean; file?: string }
): boolean {
  const { file, ...rest } = change;
  if (file !== undefined && !readRun(file).ok) return false;
  const values = { ...rest, ...(file === undefined ? {} : { file: gzipSync(file) }) };
  return Object.keys(values).length > 0 && store.update(runs).set(values).where(eq(runs.id, id)).run().changes > 0;
}
export const deleteRun = (store: Store, id: string): boolean =>
  store.delete(runs).where(eq(runs.id, id)).run().changes > 0;
