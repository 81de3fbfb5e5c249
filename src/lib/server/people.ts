/**
 * Who is who: teachers, pupils, guests. A teacher and a pupil have a row and sign in; a guest is a browser, known by a token
 * that it keeps. Of a person a nickname is kept, and nothing else.
 */
import { and, count, desc, eq, gt, isNull, lt, sql } from 'drizzle-orm';
import { say } from '../../../core/words.ts';
import type { Audited } from '../class/audit.ts';
import type { Signed, Teacher } from '../class/class.ts';
import { folded, inOrder, named } from '../class/folded.ts';
import { sweepPictures } from './pictures.ts';
import { audit, classes, comments, errands, lessons, people, projects, sessions, type Store } from './schema.ts';
import { digestOf, drawId, drawToken, hashSecret, isSecret } from './secrets.ts';

export type Role = 'teacher' | 'pupil' | 'guest';
export type Who = {
  /** what rows have as their owner */
  id: string;
  role: Role;
  nickname: string;
  /** of a pupil */
  classId?: string;
};
/** A day in school: signed in until then. */
const SIGNED_IN_MS = 12 * 3_600_000;
/** as long as this is left, the session is made longer by using it */
const RENEW_MS = 11 * 3_600_000;

export const guestOf = (token: string): Who => ({
  id: `guest.${digestOf(token).slice(0, 22)}`,
  role: 'guest',
  nickname: ''
});

/** For so long what was made in a browser may be taken along by who signs in there: a double lesson, and the break. */
const ALONG_MS = 3 * 3_600_000;
const madeIn = (browser: string, now: number) =>
  and(eq(projects.owner, guestOf(browser).id), isNull(projects.deletedAt), gt(projects.changedAt, now - ALONG_MS));
/** Names of projects that were made lately in a browser before anybody signed in there. @param browser its token */
export const madeBefore = (store: Store, browser: string, now = Date.now()): string[] =>
  store
    .select({ name: projects.name })
    .from(projects)
    .where(madeIn(browser, now))
    .orderBy(desc(projects.changedAt))
    .all()
    .map((row) => row.name);
/** They become the projects of who signed in. @returns how many */
export const takeAlong = (store: Store, browser: string, who: Who, now = Date.now()): number =>
  store.update(projects).set({ owner: who.id }).where(madeIn(browser, now)).run().changes;

/** Writes down what was done with rights. */
export function note(
  store: Store,
  what: Audited,
  {
    teacherId,
    classId,
    whom = '',
    at = Date.now()
  }: { teacherId?: string; classId?: string; whom?: string; at?: number }
): void {
  store.insert(audit).values({ at, what, whom, teacherId, classId }).run();
}

export const hasTeacher = (store: Store): boolean =>
  store.select({ id: people.id }).from(people).where(eq(people.role, 'teacher')).limit(1).get() !== undefined;
/**
 * Makes a teacher. The first one gets what was made here before anybody signed in.
 * @returns a sentence where the name is taken
 */
export async function makeTeacher(
  store: Store,
  nickname: string,
  passphrase: string,
  id = drawId(),
  at = Date.now()
): Promise<Who | string> {
  const secret = await hashSecret(passphrase);
  return store.transaction((tx) => {
    const taken = tx
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.role, 'teacher'), eq(people.folded, folded(nickname))))
      .get();
    if (taken) return say('There is a teacher called {name} already.', { name: nickname });
    const first = !hasTeacher(tx as unknown as Store);
    tx.insert(people)
      .values({ id, role: 'teacher', ...named(nickname), secret, at })
      .run();
    if (first) {
      tx.update(projects)
        .set({ owner: id })
        .where(and(eq(projects.owner, ''), eq(projects.demo, false)))
        .run();
      for (const table of [errands, lessons])
        tx.update(table)
          .set({ owner: id })
          .where(and(eq(table.owner, ''), eq(table.ships, false)))
          .run();
    }
    return { id, role: 'teacher' as const, nickname };
  });
}
/** Everybody who teaches here; who came first keeps the others. */
export function listTeachers(store: Store): (Teacher & { classes: number })[] {
  const classesOf = new Map(
    store
      .select({ id: classes.teacherId, n: count() })
      .from(classes)
      .groupBy(classes.teacherId)
      .all()
      .map((row) => [row.id, row.n])
  );
  const rows = store
    .select({ id: people.id, nickname: people.nickname })
    .from(people)
    .where(eq(people.role, 'teacher'))
    .orderBy(sql`${people}.rowid`)
    .all();
  return rows
    .map((row, i) => ({ ...row, own: i === 0, classes: classesOf.get(row.id) ?? 0 }))
    .sort((a, b) => Number(b.own) - Number(a.own) || inOrder(a.nickname, b.nickname));
}
/**
 * A teacher leaves: classes, errands and lessons become another one's, so that no class loses what it works on; projects go.
 * The first teacher may do this to each, everybody to themselves. @returns a sentence that says why not
 */
export function removeTeacher(store: Store, by: string, id: string, to: string): string | undefined {
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const all = listTeachers(within);
    const leaving = all.find((t) => t.id === id);
    const heir = all.find((t) => t.id === to && t.id !== id);
    if (!leaving) return say('There is no such teacher.');
    if (by !== id && !all.find((t) => t.id === by)?.own)
      return say('Only the first teacher, {name}, can do this to another one.', { name: all[0].nickname });
    if (!heir) return say('Choose another teacher, to whom the classes, errands and lessons go.');
    tx.update(classes).set({ teacherId: to }).where(eq(classes.teacherId, id)).run();
    for (const table of [errands, lessons]) tx.update(table).set({ owner: to }).where(eq(table.owner, id)).run();
    tx.delete(projects).where(eq(projects.owner, id)).run();
    // what was said to pupils stays said
    tx.update(comments).set({ personId: to }).where(eq(comments.personId, id)).run();
    tx.update(audit).set({ teacherId: to }).where(eq(audit.teacherId, id)).run();
    tx.delete(people).where(eq(people.id, id)).run();
    tx.run(sql`delete from helpers where (class_id, teacher_id) in (select id, teacher_id from classes)`);
    tx.run(sql`delete from links where kind = 'project' and target not in (select id from projects)`);
    sweepPictures(within);
    note(within, 'teacher removed', { teacherId: to, whom: leaving.nickname });
    return undefined;
  });
}
/** A new passphrase; who was signed in with the old one is not any more. The demo's is not shown any more. */
export async function changePassphrase(store: Store, id: string, passphrase: string): Promise<void> {
  const secret = await hashSecret(passphrase);
  store.transaction((tx) => {
    tx.update(people).set({ secret, at: Date.now() }).where(eq(people.id, id)).run();
    tx.delete(sessions).where(eq(sessions.personId, id)).run();
    note(tx as unknown as Store, 'passphrase changed', { teacherId: id });
  });
}
export const teacherCalled = (store: Store, nickname: string) =>
  store
    .select()
    .from(people)
    .where(and(eq(people.role, 'teacher'), eq(people.folded, folded(nickname))))
    .get();
export const pupilCalled = (store: Store, code: string, nickname: string) =>
  store
    .select({ person: people, teacherId: classes.teacherId })
    .from(people)
    .innerJoin(classes, eq(classes.id, people.classId))
    .where(and(eq(classes.code, code.trim().toUpperCase()), eq(people.folded, folded(nickname))))
    .get();

/** Nobody has this one: it is tried where there is no such person, so that the time tells nothing. */
let nobody: Promise<string> | undefined;
export const isSecretOf = async (
  typed: string,
  person: { secret: string } | undefined,
  asker?: string
): Promise<boolean> => {
  nobody ??= hashSecret(drawToken());
  return (await isSecret(typed, person?.secret ?? (await nobody), asker)) && person !== undefined;
};

/** @returns what the browser keeps, and until when */
export function beginSession(store: Store, personId: string, now = Date.now()): { token: string; endsAt: number } {
  const token = drawToken();
  const endsAt = now + SIGNED_IN_MS;
  store.delete(sessions).where(lt(sessions.endsAt, now)).run();
  store
    .insert(sessions)
    .values({ hash: digestOf(token), personId, endsAt })
    .run();
  return { token, endsAt };
}
/** @param renewed told when the session was made longer */
export function whoHas(
  store: Store,
  token: string,
  renewed: (endsAt: number) => void,
  now = Date.now()
): Who | undefined {
  const hash = digestOf(token);
  const row = store
    .select({
      id: people.id,
      role: people.role,
      nickname: people.nickname,
      classId: people.classId,
      endsAt: sessions.endsAt
    })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .where(and(eq(sessions.hash, hash), gt(sessions.endsAt, now)))
    .get();
  if (!row) return undefined;
  // a clock that was set back makes no session longer than one that begins now
  if (row.endsAt - now < RENEW_MS || row.endsAt - now > SIGNED_IN_MS) {
    const endsAt = now + SIGNED_IN_MS;
    store.update(sessions).set({ endsAt }).where(eq(sessions.hash, hash)).run();
    renewed(endsAt);
  }
  return { id: row.id, role: row.role, nickname: row.nickname, ...(row.classId ? { classId: row.classId } : {}) };
}
/** What a page is told of who is looking at it. */
export function signedOf(store: Store, { id, role, nickname, classId }: Who): Signed {
  if (classId === undefined) return { id, role, nickname };
  const row = store.select({ name: classes.name }).from(classes).where(eq(classes.id, classId)).get();
  return { id, role, nickname, class: row?.name ?? '' };
}
export const handIsUp = (store: Store, id: string): boolean =>
  (store.select({ at: people.handUpAt }).from(people).where(eq(people.id, id)).get()?.at ?? null) !== null;
export const raiseHand = (store: Store, id: string, up: boolean, at = Date.now()): void =>
  void store
    .update(people)
    .set({ handUpAt: up ? at : null })
    .where(eq(people.id, id))
    .run();
export const endSession = (store: Store, token: string): void =>
  void store
    .delete(sessions)
    .where(eq(sessions.hash, digestOf(token)))
    .run();
export const endSessions = (store: Store, personId: string): void =>
  void store.delete(sessions).where(eq(sessions.personId, personId)).run();

/** Whose errands and lessons everybody in the room finds: those that ship, of before, of teachers; and one's own. */
export const inTheRoom = (table: typeof errands | typeof lessons, owner: string) =>
  sql`(${table.ships} = 1 or ${table.owner} in ('', ${owner}) or ${table.owner} in (select id from people where role = 'teacher'))`;
