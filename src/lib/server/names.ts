/** Names in the database: folded for finding, told apart, and in order. */
import type Database from 'better-sqlite3';
import { isNull, sql } from 'drizzle-orm';
import { LONGEST_NAME } from '../class/class.ts';
import { folded, freeName, named, sortKey } from '../class/folded.ts';
import { classes, people, type Store } from './schema.ts';
import { note } from './people.ts';

/** What SQL calls them: `folded(name)` to find by, `sort_key(name)` to order by. */
export function teachNames(sqlite: Database.Database): void {
  for (const [name, how] of [
    ['folded', folded],
    ['sort_key', sortKey]
  ] as const)
    sqlite.function(name, { deterministic: true }, (text) => (text === null ? null : how(String(text))));
}

/**
 * Folds names that an older Moss Bell kept. Where two are one, who came first keeps the name, and the other one gets the
 * first number that is free. @returns who got another name
 */
export function foldNames(store: Store): { was: string; is: string }[] {
  return store.transaction((tx) => {
    const rows = tx
      .select()
      .from(people)
      .where(isNull(people.folded))
      .orderBy(sql`${people}.rowid`)
      .all();
    if (!rows.length) return [];
    const teacherOf = new Map(
      tx
        .select()
        .from(classes)
        .all()
        .map((c) => [c.id, c.teacherId])
    );
    const taken = new Map<string | null, Set<string>>();
    for (const { classId, folded } of tx.select().from(people).all())
      if (folded !== null) (taken.get(classId) ?? taken.set(classId, new Set()).get(classId)!).add(folded);
    // whose name is nobody else's keeps it, also where another one's new name would be the same
    const renamed: { was: string; is: string }[] = [];
    const later: typeof rows = [];
    for (const row of rows) {
      const here = taken.get(row.classId) ?? taken.set(row.classId, new Set()).get(row.classId)!;
      if (here.has(folded(row.nickname))) later.push(row);
      else {
        here.add(folded(row.nickname));
        const nickname = row.nickname.normalize('NFC');
        tx.update(people)
          .set(named(nickname))
          .where(sql`${people.id} = ${row.id}`)
          .run();
      }
    }
    for (const row of later) {
      const here = taken.get(row.classId)!;
      const is = freeName(row.nickname.normalize('NFC'), here, LONGEST_NAME);
      here.add(folded(is));
      tx.update(people)
        .set(named(is))
        .where(sql`${people.id} = ${row.id}`)
        .run();
      note(tx as unknown as Store, 'name changed', {
        teacherId: row.classId === null ? row.id : teacherOf.get(row.classId),
        classId: row.classId ?? undefined,
        whom: is
      });
      renamed.push({ was: row.nickname, is });
    }
    return renamed;
  });
}
