/** What classes were given, and how far each pupil is with it: a repository over the database. */
import { and, asc, desc, eq, isNull, or, sql } from 'drizzle-orm';
import { projectOf } from '../../../core/errand/errand.ts';
import { checkProject, type Project } from '../../../core/project.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { say } from '../../../core/words.ts';
import type { Given, GivenToMe } from '../class/class.ts';
import { ofErrand, openErrand } from './errands.ts';
import { ofLesson } from './lessons.ts';
import { isLate, lastHandIn } from './hand-ins.ts';
import { createProject, openProject } from './projects.ts';
import { cameAs, given, people, projects, runs, type Store } from './schema.ts';
import { drawId } from './secrets.ts';

/** The name of an errand, a lesson, or the project as it was given out. */
function nameOf(store: Store, { id, kind, target }: Pick<Given, 'id' | 'kind' | 'target'>): Given['name'] {
  if (kind === 'project')
    return store.get<{ name: string }>(sql`select json_extract(json, '$.name') as name from given where id = ${id}`)
      .name;
  return (kind === 'errand' ? ofErrand(store, target) : ofLesson(store, target))?.name ?? target;
}
export type Giving = {
  kind: Given['kind'];
  target: string;
  group: string;
  fromAt: number;
  untilAt: number | null;
};
/** @returns its id, or undefined where there is no such errand, lesson or project */
export function give(store: Store, classId: string, giving: Giving, id = drawId()): string | undefined {
  const { kind, target } = giving;
  // a project goes out as it is now: what is changed in it afterwards is not what was given
  const project = kind === 'project' ? openProject(store, target)?.project : undefined;
  if (!(project ?? (kind === 'errand' ? ofErrand : ofLesson)(store, target))) return undefined;
  const json = project ? JSON.stringify({ ...project, notebook: '' }) : null;
  store
    .insert(given)
    .values({ id, classId, ...giving, json, at: Date.now() })
    .run();
  return id;
}
export const changeGiven = (store: Store, id: string, untilAt: number | null): void =>
  void store.update(given).set({ untilAt }).where(eq(given.id, id)).run();
/** It is not given any more; what was begun and handed in stays. */
export const takeGivenBack = (store: Store, id: string): void => void store.delete(given).where(eq(given.id, id)).run();
export const listGiven = (store: Store, classId: string): Given[] =>
  store
    .select({
      id: given.id,
      kind: given.kind,
      target: given.target,
      group: given.group,
      fromAt: given.fromAt,
      untilAt: given.untilAt
    })
    .from(given)
    .where(eq(given.classId, classId))
    .orderBy(desc(cameAs(given)))
    .all()
    .map((row) => ({ ...row, name: nameOf(store, row) }));

/** The project in which a pupil does what was given: their own, or that of their pair. */
export const begunBy = (store: Store, givenId: string, pupilId: string) =>
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
    const story = one.kind === 'errand' ? ofErrand(store, one.target)?.story : undefined;
    if (!begun) return [{ ...one, story }];
    const { best } = progressOf(store, begun.id);
    const last = lastHandIn(store, begun.id);
    return [
      {
        ...one,
        story,
        projectId: begun.id,
        ...(best ? { got: best.got, of: best.of, met: best.met } : {}),
        ...(last ? { handedInAt: last.at, ...isLate(last.at, one.untilAt) } : {}),
        ...(last?.backAt ? { backAt: last.backAt } : {})
      }
    ];
  });
}
/** @throws with a sentence where it cannot be read */
function givenProject(store: Store, id: string): Project {
  const { json } = store.select({ json: given.json }).from(given).where(eq(given.id, id)).get()!;
  const read = checkProject(JSON.parse(json ?? 'null'), say('What was given out'));
  if (!read.ok) throw new Error(read.problem);
  return read.project;
}
/** Opens what was given: the pupil's project, made at the first time. @returns its id; a sentence where it may not be begun */
export function openGiven(store: Store, pupilId: string, givenId: string): { id: string } | string {
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const begun = begunBy(within, givenId, pupilId);
    if (begun) return begun;
    const one = givenTo(within, pupilId).find((g) => g.id === givenId);
    if (!one) return say('This is not open: it was given for another time, or another group.');
    const project = one.kind === 'project' ? givenProject(within, givenId) : undefined;
    const errand = one.kind === 'errand' ? openErrand(within, one.target, true) : undefined;
    const begins = project ?? (errand && projectOf(errand));
    if (!begins) return say('There is no such errand on this computer.');
    const me = tx.select().from(people).where(eq(people.id, pupilId)).get()!;
    const { id } = createProject(within, begins, { owner: pupilId });
    tx.update(projects).set({ givenId, partner: me.partner, driver: pupilId }).where(eq(projects.id, id)).run();
    return { id };
  });
}
