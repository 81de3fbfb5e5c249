/** How far somebody reaches a project. */
import { and, eq } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import type { OfClass } from '../class/class.ts';
import { lastHandIn } from './hand-ins.ts';
import type { Who } from './people.ts';
import { classes, helpers, people, projects, type Store } from './schema.ts';

export type Reach = 'own' | 'drive' | 'look' | 'none';
/**
 * How far somebody reaches a project: `own` it (or drive it, as one of a pair), `look` at it (the teacher of its pupil, the
 * other one of a pair, the class where it is shown; everybody a demo project).
 */
export function reachOf(store: Store, who: Who, id: string): Reach {
  const row = store
    .select({
      owner: projects.owner,
      partner: projects.partner,
      driver: projects.driver,
      demo: projects.demo,
      shown: projects.shown
    })
    .from(projects)
    .where(eq(projects.id, id))
    .get();
  if (!row) return 'none';
  if (row.demo) return 'look';
  if (row.owner === who.id || row.partner === who.id) {
    if (row.partner === null) return 'own';
    return (row.driver ?? row.owner) === who.id ? 'drive' : 'look';
  }
  if (who.role === 'guest') return 'none';
  if (who.role === 'teacher') return teachesPupil(store, who.id, row.owner, row.partner) ? 'look' : 'none';
  const isOfRoom = [row.owner, row.partner].some((id) => id !== null && classOf(store, id) === who.classId);
  return row.shown === 'yes' && isOfRoom ? 'look' : 'none';
}
/** Whether somebody teaches a class: it is theirs, or they help with it. */
export const teachesClass = (store: Store, teacherId: string, classId: string): boolean =>
  store
    .select({ id: classes.id })
    .from(classes)
    .where(and(eq(classes.id, classId), eq(classes.teacherId, teacherId)))
    .get() !== undefined ||
  store
    .select({ id: helpers.classId })
    .from(helpers)
    .where(and(eq(helpers.classId, classId), eq(helpers.teacherId, teacherId)))
    .get() !== undefined;
/** Whether somebody teaches the class that one of them is in. */
export const teachesPupil = (store: Store, teacherId: string, ...pupils: (string | null)[]): boolean =>
  pupils.some((id) => {
    const classId = id === null ? undefined : classOf(store, id);
    return classId !== undefined && teachesClass(store, teacherId, classId);
  });
/** Whether somebody may put a project before a class: one of their own, a demo project, or a pupil's that is shown to it. */
export function mayPutBefore(store: Store, who: Who, id: string): boolean {
  const reach = reachOf(store, who, id);
  if (reach === 'own' || reach === 'drive') return true;
  const row = store
    .select({ demo: projects.demo, shown: projects.shown })
    .from(projects)
    .where(eq(projects.id, id))
    .get();
  return reach === 'look' && (row?.demo === true || row?.shown === 'yes');
}
/** The class that a pupil is in. */
export const classOf = (store: Store, personId: string): string | undefined =>
  store.select({ classId: people.classId }).from(people).where(eq(people.id, personId)).get()?.classId ?? undefined;

/** What a workbench is told beside the project: whose it is, and whether it can be changed from here. */
export function ofClass(store: Store, who: Who, id: string): OfClass {
  const other = alias(people, 'other');
  const row = store
    .select({
      owner: projects.owner,
      by: people.nickname,
      partner: projects.partner,
      partnerName: other.nickname,
      shown: projects.shown,
      givenId: projects.givenId
    })
    .from(projects)
    .leftJoin(people, eq(people.id, projects.owner))
    .leftJoin(other, eq(other.id, projects.partner))
    .where(eq(projects.id, id))
    .get();
  if (!row) return {};
  const reach = reachOf(store, who, id);
  const inPair = row.owner === who.id || row.partner === who.id;
  return {
    looks: reach === 'look',
    ...(inPair ? {} : { by: [row.by, row.partnerName].filter(Boolean).join(', ') }),
    ...(inPair && row.partner ? { partner: (row.owner === who.id ? row.partnerName : row.by) ?? '' } : {}),
    ...(who.role === 'teacher' && !inPair ? { classId: classOf(store, row.owner) } : {}),
    shown: row.shown,
    ...(lastHandIn(store, id)?.backAt && inPair ? { back: true as const } : {}),
    givenId: row.givenId
  };
}
