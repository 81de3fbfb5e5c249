/** What classes were given, and how far each pupil is with it: a repository over the database. */
import { and, asc, desc, eq, isNull, or } from 'drizzle-orm';
import { projectOf } from '../../../core/errand/errand.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { say } from '../../../core/words.ts';
import type { Given, GivenToMe } from '../class/class.ts';
import { ofErrand, openErrand } from './errands.ts';
import { ofLesson } from './lessons.ts';
import { createProject } from './projects.ts';
import { cameAs, given, handIns, people, projects, runs, type Store } from './schema.ts';
import { drawId } from './secrets.ts';

/** The name of an errand or a lesson. */
function nameOf(store: Store, kind: 'errand' | 'lesson', target: string): Given['name'] {
  return (kind === 'errand' ? ofErrand(store, target) : ofLesson(store, target))?.name ?? target;
}
export type Giving = {
  kind: 'errand' | 'lesson';
  target: string;
  group: string;
  fromAt: number;
  untilAt: number | null;
};
/** @returns its id, or undefined where there is no such errand or lesson */
export function give(store: Store, classId: string, giving: Giving, id = drawId()): string | undefined {
  const there = (giving.kind === 'errand' ? ofErrand : ofLesson)(store, giving.target);
  if (!there) return undefined;
  store
    .insert(given)
    .values({ id, classId, ...giving, at: Date.now() })
    .run();
  return id;
}
export const changeGiven = (store: Store, id: string, untilAt: number | null): void =>
  void store.update(given).set({ untilAt }).where(eq(given.id, id)).run();
/** It is not given any more; what was begun and handed in stays. */
export const takeGivenBack = (store: Store, id: string): void => void store.delete(given).where(eq(given.id, id)).run();
export const listGiven = (store: Store, classId: string): Given[] =>
  store
    .select()
    .from(given)
    .where(eq(given.classId, classId))
    .orderBy(desc(cameAs(given)))
    .all()
    .map(({ classId: _, at: __, ...row }) => ({ ...row, name: nameOf(store, row.kind, row.target) }));

/** The project in which a pupil does what was given: their own, or that of their pair. */
const begunBy = (store: Store, givenId: string, pupilId: string) =>
  store
    .select({ id: projects.id })
    .from(projects)
    .where(
      and(
        eq(projects.givenId, givenId),
        isNull(projects.deletedAt),
        or(eq(projects.owner, pupilId), eq(projects.partner, pupilId))
      )
    )
    .orderBy(asc(projects.changedAt))
    .get();
/** What of a project was tried: how often, the best of it, and when that was first reached. */
export function progressOf(store: Store, projectId: string) {
  const tries = store
    .select({ at: runs.at, result: runs.result })
    .from(runs)
    .where(eq(runs.projectId, projectId))
    .orderBy(cameAs(runs))
    .all();
  let best: { got: number; of: number; met: boolean; at: number } | undefined;
  for (const { at, result } of tries) {
    if (!result) continue;
    const { got, of, met } = JSON.parse(result) as TryResult;
    if (!best || Number(met) > Number(best.met) || (met === best.met && got > best.got)) best = { got, of, met, at };
  }
  return { tries: tries.length, best };
}
export const handedInAt = (store: Store, projectId: string): number | undefined =>
  store
    .select({ at: handIns.at })
    .from(handIns)
    .where(and(eq(handIns.projectId, projectId), isNull(handIns.withdrawnAt)))
    .orderBy(desc(cameAs(handIns)))
    .get()?.at;
/** What a pupil was given and may begin now; what was begun stays. */
export function givenTo(store: Store, pupilId: string, now = Date.now()): GivenToMe[] {
  const me = store.select().from(people).where(eq(people.id, pupilId)).get();
  if (!me?.classId) return [];
  return listGiven(store, me.classId).flatMap((one): GivenToMe[] => {
    if (one.group && one.group !== me.group) return [];
    const begun = begunBy(store, one.id, pupilId);
    const isOpen = one.fromAt <= now && (one.untilAt === null || now < one.untilAt);
    if (!begun && !isOpen) return [];
    if (one.kind === 'lesson') return [one];
    const story = ofErrand(store, one.target)?.story;
    if (!begun) return [{ ...one, story }];
    const { best } = progressOf(store, begun.id);
    return [
      {
        ...one,
        story,
        projectId: begun.id,
        ...(best ? { got: best.got, of: best.of, met: best.met } : {}),
        handedInAt: handedInAt(store, begun.id)
      }
    ];
  });
}
/** Opens what was given: the pupil's project, made at the first time. @returns its id; a sentence where it may not be begun */
export function openGiven(store: Store, pupilId: string, givenId: string): { id: string } | string {
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const begun = begunBy(within, givenId, pupilId);
    if (begun) return begun;
    const one = givenTo(within, pupilId).find((g) => g.id === givenId);
    if (!one) return say('This is not open: it was given for another time, or another group.');
    const errand = one.kind === 'errand' ? openErrand(within, one.target, true) : undefined;
    if (!errand) return say('There is no such errand on this computer.');
    const me = tx.select().from(people).where(eq(people.id, pupilId)).get()!;
    const { id } = createProject(within, projectOf(errand), { owner: pupilId });
    tx.update(projects).set({ givenId, partner: me.partner, driver: pupilId }).where(eq(projects.id, id)).run();
    return { id };
  });
}
