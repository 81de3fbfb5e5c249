/** The wall of a class: a card for each pupil, worked out from the database, and told anew when something changes. */
import { and, desc, eq, isNull, or } from 'drizzle-orm';
import type { Told, TryResult } from '../../../core/trace/tried.ts';
import type { WallCard } from '../class/class.ts';
import type { OnShelf } from '../shelf/cards.ts';
import { progressOf } from './given.ts';
import { ofErrand } from './errands.ts';
import { lastHandIn } from './hand-ins.ts';
import { isFollowed, tell } from './live.ts';
import { cameAs, given, people, projects, runs, versions, type Store } from './schema.ts';

/** Pupils with a page open, and how many. */
const here = new Map<string, number>();

export function cardsOf(store: Store, classId: string, ids?: ReadonlySet<string>): WallCard[] {
  return store
    .select()
    .from(people)
    .where(eq(people.classId, classId))
    .all()
    .filter((p) => !ids || ids.has(p.id))
    .map((p) => cardOf(store, p));
}
function cardOf(store: Store, pupil: typeof people.$inferSelect): WallCard {
  const card: WallCard = {
    id: pupil.id,
    nickname: pupil.nickname,
    group: pupil.group,
    here: here.has(pupil.id),
    doing: 'nothing yet',
    tries: 0,
    ...(pupil.handUpAt === null ? {} : { handUpAt: pupil.handUpAt })
  };
  const project = store
    .select()
    .from(projects)
    .where(and(or(eq(projects.owner, pupil.id), eq(projects.partner, pupil.id)), isNull(projects.deletedAt)))
    .orderBy(desc(projects.changedAt))
    .limit(1)
    .get();
  if (!project) return card;
  const { bars } = JSON.parse(project.shelf ?? '{"bars":[]}') as OnShelf;
  const { tries, best } = progressOf(store, project.id);
  const last = store
    .select({ at: runs.at, told: runs.told, result: runs.result })
    .from(runs)
    .where(eq(runs.projectId, project.id))
    .orderBy(desc(cameAs(runs)))
    .limit(1)
    .get();
  const handIn = lastHandIn(store, project.id);
  // what was given back is worked on again
  const inAt = handIn?.backAt ? undefined : handIn?.at;
  const begunAt = store
    .select({ at: versions.at })
    .from(versions)
    .where(eq(versions.projectId, project.id))
    .orderBy(versions.id)
    .limit(1)
    .get()?.at;
  const task = project.givenId
    ? store.select({ target: given.target, kind: given.kind }).from(given).where(eq(given.id, project.givenId)).get()
    : undefined;
  const errand = task?.kind === 'errand' ? ofErrand(store, task.target) : undefined;
  const told = last?.told ? (JSON.parse(last.told) as Told[])[0] : undefined;
  const changedAt = Math.max(project.changedAt, last?.at ?? 0);
  return {
    ...card,
    doing:
      inAt !== undefined && inAt >= changedAt
        ? 'handed in'
        : last && last.at >= project.changedAt
          ? last.result && (JSON.parse(last.result) as TryResult).met
            ? 'met'
            : 'trying'
          : 'building',
    project: { id: project.id, name: project.name, bars, shown: project.shown },
    ...(errand
      ? {
          errand: {
            name: errand.name,
            got: best?.got ?? 0,
            of: best?.of ?? errand.goals,
            met: best?.met ?? false
          }
        }
      : {}),
    tries,
    ...(told ? { told } : {}),
    changedAt,
    furtherAt: Math.max(best && best.got > 0 ? best.at : 0, begunAt ?? 0, inAt ?? 0),
    ...(inAt === undefined ? {} : { handedInAt: inAt })
  };
}

/** Changes are gathered for so long before a wall is told: thirty pupils who save are one message. */
const GATHER_MS = 250;
const changed = new Map<string, Set<string>>();
/** Something of a pupil changed: whoever looks at the wall is told. */
export function pupilChanged(
  store: Store,
  classId: string | null | undefined,
  ...ids: (string | null | undefined)[]
): void {
  if (!classId || !isFollowed(`wall ${classId}`)) return;
  let of = changed.get(classId);
  if (!of) {
    changed.set(classId, (of = new Set()));
    setTimeout(() => {
      const ids = changed.get(classId)!;
      changed.delete(classId);
      tell(`wall ${classId}`, { cards: cardsOf(store, classId, ids) });
    }, GATHER_MS);
  }
  for (const id of ids) if (id) of.add(id);
}
/** Pupils came into the class or went: every wall is told all of it. */
export const classChanged = (store: Store, classId: string): void => {
  if (isFollowed(`wall ${classId}`)) tell(`wall ${classId}`, { cards: cardsOf(store, classId), all: true });
};
/** A project changed: whoever looks at it is told what, and whoever looks at the wall sees it. */
export function projectChanged(store: Store, id: string, what: object): void {
  tell(`project ${id}`, what);
  const row = store
    .select({ owner: projects.owner, partner: projects.partner, classId: people.classId })
    .from(projects)
    .innerJoin(people, eq(people.id, projects.owner))
    .where(eq(projects.id, id))
    .get();
  pupilChanged(store, row?.classId, row?.owner, row?.partner);
}
/** A pupil's page is there. @returns when it has left */
export function comesIn(store: Store, classId: string, pupilId: string): () => void {
  here.set(pupilId, (here.get(pupilId) ?? 0) + 1);
  pupilChanged(store, classId, pupilId);
  return () => {
    const left = (here.get(pupilId) ?? 1) - 1;
    if (left > 0) here.set(pupilId, left);
    else here.delete(pupilId);
    pupilChanged(store, classId, pupilId);
  };
}
