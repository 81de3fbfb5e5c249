/** Runs that are kept with a project. */
import { randomUUID } from 'node:crypto';
import { gunzipSync, gzipSync } from 'node:zlib';
import { and, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import type { Told, TryResult } from '../../../core/trace/tried.ts';
import type { RunCard } from '../../../core/trace/runfile.ts';
import { say, tongue } from '../../../core/words.ts';
import type { Kept } from '../../workers/heavy.ts';
import { heavy } from './pool.ts';
import { cameAs, projects, runs, type Store } from './schema.ts';
import { stow, unstow } from './pictures.ts';

/** So many that are not pinned are kept of each project. */
export const KEPT_RUNS = 40;
/** and so many tries of an errand: each is a step on the way */
export const KEPT_TRIES = 500;
const card = {
  id: runs.id,
  at: runs.at,
  name: runs.name,
  kind: runs.kind,
  device: runs.device,
  ended: runs.ended,
  ms: runs.ms,
  pinned: runs.pinned,
  result: runs.result
};
const toCard = ({ result, ...rest }: Omit<RunCard, 'result'> & { result: string | null }): RunCard => ({
  ...rest,
  ...(result ? { result: JSON.parse(result) as TryResult } : {})
});

/** The newest first. */
export const listRuns = (store: Store, projectId: string): RunCard[] =>
  store
    .select(card)
    .from(runs)
    .where(eq(runs.projectId, projectId))
    .orderBy(desc(cameAs(runs)))
    .all()
    .map(toCard);

/** A run's file as it comes over the wire, read by a worker. @returns a sentence that says what is wrong with it */
const read = (file: Uint8Array): Promise<Kept | string> =>
  heavy('readKept', { file, tongue: tongue() }).catch(() =>
    say('This run could not be read: it takes too long, or too much memory.')
  );

/** As it is stored: large pictures by their names. */
const packed = (store: Store, projectId: string, file: Uint8Array, { text }: Kept): Buffer =>
  text === undefined ? Buffer.from(file) : gzipSync(stow(store, projectId, text));

/** @param file a run's file, compressed; @returns its card, a sentence that says what is wrong, or undefined without such a project */
export async function keepRun(
  store: Store,
  projectId: string,
  file: Uint8Array,
  ms: number,
  {
    at = Date.now(),
    result,
    told
  }: { at?: number; /** of a try of an errand */ result?: TryResult; /** its findings */ told?: Told[] } = {}
): Promise<RunCard | string | undefined> {
  const came = await read(file);
  if (typeof came === 'string') return came;
  return store.transaction((tx) => {
    if (!tx.select({ id: projects.id }).from(projects).where(eq(projects.id, projectId)).get()) return undefined;
    const row = {
      id: randomUUID().slice(0, 10),
      projectId,
      at,
      ...came.card,
      ms,
      pinned: false,
      errand: result?.errand ?? null,
      result: result ? JSON.stringify(result) : null,
      told: told?.length ? JSON.stringify(told) : null
    };
    tx.insert(runs)
      .values({ ...row, file: packed(tx as unknown as Store, projectId, file, came) })
      .run();
    const old = tx
      .select({ id: runs.id })
      .from(runs)
      .where(
        and(
          eq(runs.projectId, projectId),
          eq(runs.pinned, false),
          result ? isNotNull(runs.errand) : isNull(runs.errand)
        )
      )
      .orderBy(desc(cameAs(runs)))
      .offset(result ? KEPT_TRIES : KEPT_RUNS)
      .limit(1000)
      .all();
    for (const { id } of old) tx.delete(runs).where(eq(runs.id, id)).run();
    const { projectId: _, errand: __, told: ___, ...made } = row;
    return toCard(made);
  });
}
/** @returns the run's file, not compressed */
export function runFile(store: Store, id: string): string | undefined {
  const row = store.select({ file: runs.file }).from(runs).where(eq(runs.id, id)).get();
  return row && unstow(store, gunzipSync(row.file).toString('utf8'));
}
/** @param change another name; pinned or not */
export const changeRun = (store: Store, id: string, change: { name?: string; pinned?: boolean }): boolean =>
  Object.keys(change).length > 0 && store.update(runs).set(change).where(eq(runs.id, id)).run().changes > 0;
/** The run gets a file with every sample. @returns what is wrong with it, undefined without such a run */
export async function putRunFile(store: Store, id: string, file: Uint8Array): Promise<true | string | undefined> {
  const came = await read(file);
  if (typeof came === 'string') return came;
  const run = store.select({ projectId: runs.projectId }).from(runs).where(eq(runs.id, id)).get();
  if (!run) return undefined;
  store
    .update(runs)
    .set({ file: packed(store, run.projectId, file, came) })
    .where(eq(runs.id, id))
    .run();
  return true;
}
export const deleteRun = (store: Store, id: string): boolean =>
  store.delete(runs).where(eq(runs.id, id)).run().changes > 0;
