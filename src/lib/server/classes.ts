/** Classes, their pupils and cards: a repository over the database. */
import { and, count, desc, eq, inArray, or, sql } from 'drizzle-orm';
import { say } from '../../../core/words.ts';
import type { AuditLine } from '../class/audit.ts';
import type { CardsAgain, ClassCard, PrintedCard, Pupil, Teacher } from '../class/class.ts';
import { folded, inOrder, named } from '../class/folded.ts';
import { seal, unseal } from './keys.ts';
import { note } from './people.ts';
import { sweepPictures } from './pictures.ts';
import { audit, cameAs, classes, given, helpers, people, projects, sessions, type Store } from './schema.ts';
import { drawCode, drawId, drawWords, hashSecret } from './secrets.ts';

/** So many pupils a class has at the most. */
export const MOST_PUPILS = 60;

/** Classes that a teacher helps with, for SQL. */
const helpedBy = (store: Store, teacherId: string) =>
  store.select({ id: helpers.classId }).from(helpers).where(eq(helpers.teacherId, teacherId));
/** A teacher's own classes, and those that the teacher helps with. */
export const listClasses = (store: Store, teacherId: string): ClassCard[] =>
  store
    .select({
      id: classes.id,
      name: classes.name,
      code: classes.code,
      teacherId: classes.teacherId,
      pupils: count(people.id)
    })
    .from(classes)
    .leftJoin(people, eq(people.classId, classes.id))
    .where(or(eq(classes.teacherId, teacherId), inArray(classes.id, helpedBy(store, teacherId))))
    .groupBy(classes.id)
    .orderBy(classes.at)
    .all()
    .map(({ teacherId: of, ...card }) => ({ ...card, own: of === teacherId }));
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
        .values({
          id: drawId(),
          role: 'pupil',
          ...named(nickname),
          classId,
          secret: secrets[i],
          card: seal(cards[i].words),
          at: Date.now()
        })
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
      .set({ secret, card: seal(words), at: Date.now() })
      .where(eq(people.id, pupilId))
      .returning()
      .get();
    tx.delete(sessions).where(eq(sessions.personId, pupilId)).run();
    note(tx as unknown as Store, 'new card', { teacherId: of.teacherId, classId, whom: nickname });
    return { nickname, words };
  });
}
/**
 * The cards of a class once more; none of them is voided. Of a card that was made before cards were kept, or with another key
 * beside the database, the words are known to nobody.
 */
export function cardsAgain(store: Store, classId: string, pupilId?: string): CardsAgain {
  const rows = store
    .select({ id: people.id, nickname: people.nickname, card: people.card })
    .from(people)
    .where(eq(people.classId, classId))
    .all()
    .filter((row) => pupilId === undefined || row.id === pupilId)
    .sort((a, b) => inOrder(a.nickname, b.nickname));
  const { teacherId } = openClass(store, classId)!;
  note(store, 'cards printed', { teacherId, classId, whom: pupilId === undefined ? '' : (rows[0]?.nickname ?? '') });
  const known = rows.map(({ nickname, card }) => ({ nickname, words: card === null ? undefined : unseal(card) }));
  return {
    cards: known.flatMap(({ nickname, words }) => (words === undefined ? [] : [{ nickname, words }])),
    unknown: known.filter((card) => card.words === undefined).map((card) => card.nickname)
  };
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
/** To another class, with all work and the same words on the card. @returns a sentence that says why not */
export function movePupil(store: Store, classId: string, pupilId: string, to: string): string | undefined {
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const { nickname } = tx.select().from(people).where(eq(people.id, pupilId)).get()!;
    const there = listPupils(within, to);
    if (there.length >= MOST_PUPILS) return say('A class has {n} pupils at the most.', { n: MOST_PUPILS });
    if (there.some((p) => folded(p.nickname) === folded(nickname)))
      return say('There is a {name} in that class. Give one of them another name first.', { name: nickname });
    pair(within, classId, pupilId, undefined);
    tx.update(people).set({ classId: to, group: '', handUpAt: null }).where(eq(people.id, pupilId)).run();
    tx.update(audit)
      .set({ classId: to })
      .where(and(eq(audit.classId, classId), eq(audit.whom, nickname)))
      .run();
    note(within, 'pupil moved', { teacherId: openClass(within, to)!.teacherId, classId: to, whom: nickname });
    return undefined;
  });
}
/**
 * A class like another one, for the next year: with its pupils (new rows: their words stay, their work stays where it is) or
 * without; with what was given out (not open yet) or without. @returns its id
 */
export function copyClass(
  store: Store,
  classId: string,
  teacherId: string,
  { name, pupils, given: gives }: { name: string; pupils: boolean; given: boolean }
): string {
  return store.transaction((tx) => {
    const within = tx as unknown as Store;
    const id = makeClass(within, teacherId, name, openClass(within, classId)!.language);
    const at = Date.now();
    if (pupils) {
      const rows = tx.select().from(people).where(eq(people.classId, classId)).all();
      const ids = new Map(rows.map((row) => [row.id, drawId()]));
      for (const row of rows) {
        const partner = (row.partner !== null && ids.get(row.partner)) || null;
        tx.insert(people)
          .values({ ...row, id: ids.get(row.id)!, classId: id, partner, handUpAt: null, at })
          .run();
      }
    }
    if (gives)
      for (const row of tx.select().from(given).where(eq(given.classId, classId)).orderBy(cameAs(given)).all())
        tx.insert(given)
          .values({ ...row, id: drawId(), classId: id, at, fromAt: at, untilAt: at })
          .run();
    note(within, 'class copied', { teacherId, classId: id });
    return id;
  });
}

/** Who teaches a class: whose it is first. */
export const teachersOf = (store: Store, classId: string): Teacher[] => {
  const { teacherId } = openClass(store, classId)!;
  return store
    .select({ id: people.id, nickname: people.nickname })
    .from(people)
    .where(
      or(
        eq(people.id, teacherId),
        inArray(people.id, store.select({ id: helpers.teacherId }).from(helpers).where(eq(helpers.classId, classId)))
      )
    )
    .all()
    .map((row) => ({ ...row, own: row.id === teacherId }))
    .sort((a, b) => Number(b.own) - Number(a.own) || inOrder(a.nickname, b.nickname));
};
/** Another teacher teaches the class too. */
export function addHelper(store: Store, classId: string, teacher: { id: string; nickname: string }): void {
  const { teacherId } = openClass(store, classId)!;
  if (teacherId === teacher.id) return;
  const { changes } = store.insert(helpers).values({ classId, teacherId: teacher.id }).onConflictDoNothing().run();
  if (changes) note(store, 'helper added', { teacherId, classId, whom: teacher.nickname });
}
export function removeHelper(store: Store, classId: string, teacher: { id: string; nickname: string }): void {
  const { changes } = store
    .delete(helpers)
    .where(and(eq(helpers.classId, classId), eq(helpers.teacherId, teacher.id)))
    .run();
  const { teacherId } = openClass(store, classId)!;
  if (changes) note(store, 'helper removed', { teacherId, classId, whom: teacher.nickname });
}
/** The class is another teacher's from now on, with what was written down of it; who had it does not see it any more. */
export function handOver(store: Store, classId: string, to: { id: string; nickname: string }): void {
  store.transaction((tx) => {
    const within = tx as unknown as Store;
    tx.update(classes).set({ teacherId: to.id }).where(eq(classes.id, classId)).run();
    tx.delete(helpers)
      .where(and(eq(helpers.classId, classId), eq(helpers.teacherId, to.id)))
      .run();
    tx.update(audit).set({ teacherId: to.id }).where(eq(audit.classId, classId)).run();
    note(within, 'class handed over', { teacherId: to.id, classId, whom: to.nickname });
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
  // and what they handed in
  store.run(
    sql`update hand_ins set person_id = (select owner from projects where id = project_id) where person_id in ${[...ids]}`
  );
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
export function removePupil(store: Store, pupilId: string): void {
  store.transaction((tx) => {
    const within = tx as unknown as Store;
    const { nickname, classId } = tx.select().from(people).where(eq(people.id, pupilId)).get()!;
    if (classId === null) return;
    forget(within, [pupilId]);
    tx.update(audit)
      .set({ whom: '' })
      .where(and(eq(audit.classId, classId), eq(audit.whom, nickname)))
      .run();
    note(within, 'pupil removed', { teacherId: openClass(within, classId)!.teacherId, classId });
  });
  wipe(store);
}
/** Nothing of what was deleted stays: neither in free pages (secure_delete, database.ts) nor in the log of what is to be written. */
const wipe = (store: Store): void => void store.run(sql`pragma wal_checkpoint(truncate)`);
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
  wipe(store);
}

export const listAudit = (store: Store, teacherId: string): AuditLine[] =>
  store
    .select({ id: audit.id, at: audit.at, what: audit.what, whom: audit.whom, class: classes.name })
    .from(audit)
    .leftJoin(classes, eq(classes.id, audit.classId))
    .where(or(eq(audit.teacherId, teacherId), inArray(audit.classId, helpedBy(store, teacherId))))
    .orderBy(desc(audit.id))
    .limit(500)
    .all()
    .map((line) => ({ ...line, class: line.class ?? '' }));
