/** Classes, their pupils and cards: a repository over the database. */
import { and, count, desc, eq, inArray, sql } from 'drizzle-orm';
import { say } from '../../../core/words.ts';
import type { AuditLine } from '../class/audit.ts';
import type { ClassCard, PrintedCard, Pupil } from '../class/class.ts';
import { folded, inOrder, named } from '../class/folded.ts';
import { note } from './people.ts';
import { sweepPictures } from './pictures.ts';
import { audit, classes, people, projects, sessions, type Store } from './schema.ts';
import { drawCode, drawId, drawWords, hashSecret } from './secrets.ts';

/** So many pupils a class has at the most. */
export const MOST_PUPILS = 60;

export const listClasses = (store: Store, teacherId: string): ClassCard[] =>
  store
    .select({
      id: classes.id,
      name: classes.name,
      code: classes.code,
      pupils: count(people.id)
    })
    .from(classes)
    .leftJoin(people, eq(people.classId, classes.id))
    .where(eq(classes.teacherId, teacherId))
    .groupBy(classes.id)
    .orderBy(classes.at)
    .all();
export function makeClass(store: Store, teacherId: string, name: string, language: string, id = drawId()): string {
  return store.transaction((tx) => {
    let code: string;
    do code = drawCode();
    while (tx.select({ id: classes.id }).from(classes).where(eq(classes.code, code)).get());
    tx.insert(classes).values({ id, name, code, teacherId, language, at: Date.now() }).run();
    note(tx as unknown as Store, 'class made', { teacherId, classId: id });
    return id;
  });
}
export const renameClass = (store: Store, id: string, name: string): void =>
  void store.update(classes).set({ name }).where(eq(classes.id, id)).run();
export const openClass = (store: Store, id: string) => store.select().from(classes).where(eq(classes.id, id)).get();
export const listPupils = (store: Store, classId: string): Pupil[] =>
  store
    .select({ id: people.id, nickname: people.nickname, group: people.group, partner: people.partner })
    .from(people)
    .where(eq(people.classId, classId))
    .all()
    .sort((a, b) => inOrder(a.nickname, b.nickname))
    .map(({ partner, ...pupil }) => ({ ...pupil, ...(partner ? { partner } : {}) }));

/** Takes pupils into a class. @returns their cards, or a sentence that says why not */
export async function addPupils(
  store: Store,
  classId: string,
  nicknames: readonly string[]
): Promise<PrintedCard[] | string> {
  const of = openClass(store, classId)!;
  const problem = (): string | undefined => {
    const here = new Set(listPupils(store, classId).map((p) => folded(p.nickname)));
    if (here.size + nicknames.length > MOST_PUPILS)
      return say('A class has {n} pupils at the most.', { n: MOST_PUPILS });
    for (const name of nicknames) {
      if (here.has(folded(name))) return say('There are two called {name}. A nickname is one pupil’s alone.', { name });
      here.add(folded(name));
    }
    return undefined;
  };
  const no = problem();
  if (no) return no;
  const cards = nicknames.map((nickname) => ({ nickname, words: drawWords(of.language) }));
  const secrets = await Promise.all(cards.map((card) => hashSecret(card.words)));
  return store.transaction((tx) => {
    // somebody else may have added some while these were hashed
    const no = problem();
    if (no) return no;
    cards.forEach(({ nickname }, i) => {
      tx.insert(people)
        .values({ id: drawId(), role: 'pupil', ...named(nickname), classId, secret: secrets[i], at: Date.now() })
        .run();
      note(tx as unknown as Store, 'pupil added', { teacherId: of.teacherId, classId, whom: nickname });
    });
    return cards;
  });
}
/** A new card; who was signed in with the old one is not any more. */
export async function newCard(store: Store, classId: string, pupilId: string): Promise<PrintedCard> {
  const of = openClass(store, classId)!;
  const words = drawWords(of.language);
  const secret = await hashSecret(words);
  return store.transaction((tx) => {
    const { nickname } = tx
      .update(people)
      .set({ secret, at: Date.now() })
      .where(eq(people.id, pupilId))
      .returning()
      .get();
    tx.delete(sessions).where(eq(sessions.personId, pupilId)).run();
    note(tx as unknown as Store, 'new card', { teacherId: of.teacherId, classId, whom: nickname });
    return { nickname, words };
  });
}
/** Another nickname; the words of the card stay. @returns a sentence where somebody has it */
export function renamePupil(store: Store, classId: string, pupilId: string, nickname: string): string | undefined {
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const other = listPupils(within, classId).find((p) => p.id !== pupilId && folded(p.nickname) === folded(nickname));
    if (other) return say('There are two called {name}. A nickname is one pupil’s alone.', { name: nickname });
    const was = tx.select().from(people).where(eq(people.id, pupilId)).get()!.nickname;
    tx.update(people).set(named(nickname)).where(eq(people.id, pupilId)).run();
    // what was written down of the pupil stands under the name that goes with the pupil
    tx.update(audit)
      .set({ whom: nickname })
      .where(and(eq(audit.classId, classId), eq(audit.whom, was)))
      .run();
    note(within, 'pupil renamed', { teacherId: openClass(within, classId)!.teacherId, classId, whom: nickname });
    return undefined;
  });
}
/** Who got another name without being asked (names.ts), and has not come in with it yet. */
export function renamedOf(store: Store, classId: string): string[] {
  const lines = store.select().from(audit).where(eq(audit.classId, classId)).orderBy(audit.id).all();
  const since = (name: string): number => lines.findLastIndex((l) => l.what === 'name changed' && l.whom === name);
  return [...new Set(lines.filter((l) => l.what === 'name changed').map((l) => l.whom))].filter(
    (name) => !lines.some((l, i) => i > since(name) && l.whom === name)
  );
}
export const putInGroup = (store: Store, pupilId: string, group: string): void =>
  void store.update(people).set({ group }).where(eq(people.id, pupilId)).run();
/** Makes two a pair, or lets one be alone again (`withId` undefined). What they have begun stays whose it is. */
export function pair(store: Store, classId: string, pupilId: string, withId: string | undefined): void {
  store.transaction((tx) => {
    const alone = (id: string): void => {
      tx.update(people).set({ partner: null }).where(eq(people.partner, id)).run();
      tx.update(people).set({ partner: null }).where(eq(people.id, id)).run();
    };
    alone(pupilId);
    if (withId === undefined || withId === pupilId) return;
    const other = tx
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.id, withId), eq(people.classId, classId)))
      .get();
    if (!other) return;
    alone(withId);
    tx.update(people).set({ partner: withId }).where(eq(people.id, pupilId)).run();
    tx.update(people).set({ partner: pupilId }).where(eq(people.id, withId)).run();
  });
}
/** All that a pupil has made goes with the pupil. */
function forget(store: Store, ids: readonly string[]): void {
  if (!ids.length) return;
  // what a pair made stays with the one who is left
  store
    .update(projects)
    .set({ owner: sql`${projects.partner}`, partner: null, driver: null })
    .where(
      and(
        inArray(projects.owner, [...ids]),
        sql`${projects.partner} is not null`,
        sql`${projects.partner} not in ${[...ids]}`
      )
    )
    .run();
  store
    .delete(projects)
    .where(inArray(projects.owner, [...ids]))
    .run();
  store
    .update(projects)
    .set({ partner: null, driver: null })
    .where(inArray(projects.partner, [...ids]))
    .run();
  store.run(sql`delete from errands where owner in ${[...ids]}`);
  store.run(sql`delete from lessons where owner in ${[...ids]}`);
  store
    .update(people)
    .set({ partner: null })
    .where(inArray(people.partner, [...ids]))
    .run();
  store
    .delete(people)
    .where(inArray(people.id, [...ids]))
    .run();
  store.run(sql`delete from links where kind = 'project' and target not in (select id from projects)`);
  store.run(sql`delete from links where kind = 'errand' and target not in (select id from errands)`);
  sweepPictures(store);
}
export function removePupil(store: Store, classId: string, pupilId: string): void {
  store.transaction((tx) => {
    const within = tx as unknown as Store;
    const { nickname } = tx.select().from(people).where(eq(people.id, pupilId)).get()!;
    forget(within, [pupilId]);
    tx.update(audit)
      .set({ whom: '' })
      .where(and(eq(audit.classId, classId), eq(audit.whom, nickname)))
      .run();
    note(within, 'pupil removed', { teacherId: openClass(within, classId)!.teacherId, classId });
  });
}
/** The class, its pupils and all they have made. What remains is a line without a name that a class was deleted. */
export function deleteClass(store: Store, id: string): void {
  store.transaction((tx) => {
    const within = tx as unknown as Store;
    const { teacherId } = openClass(within, id)!;
    forget(
      within,
      listPupils(within, id).map((p) => p.id)
    );
    tx.delete(audit).where(eq(audit.classId, id)).run();
    tx.delete(classes).where(eq(classes.id, id)).run();
    note(within, 'class deleted', { teacherId });
  });
  // neither in free pages (secure_delete, database.ts) nor in the log of what is to be written
  store.run(sql`pragma wal_checkpoint(truncate)`);
}

export const listAudit = (store: Store, teacherId: string): AuditLine[] =>
  store
    .select({ id: audit.id, at: audit.at, what: audit.what, whom: audit.whom, class: classes.name })
    .from(audit)
    .leftJoin(classes, eq(classes.id, audit.classId))
    .where(eq(audit.teacherId, teacherId))
    .orderBy(desc(audit.id))
    .limit(500)
    .all()
    .map((line) => ({ ...line, class: line.class ?? '' }));
