/** What the migrations make is what is declared, column by column, key by key; and nothing is lost on the way. */
import Database from 'better-sqlite3';
import { is } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { getTableConfig, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openDatabase, type Store } from './database.ts';
import { takeGivenBack } from './given.ts';
import { pupilCalled, teacherCalled } from './people.ts';
import * as schema from './schema.ts';

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'mossbell-schema-'))));
afterEach(() => rmSync(folder, { recursive: true }));
const client = (store: Store) => (store as unknown as { $client: Database.Database }).$client;

type Row = Record<string, unknown>;
const DECLARED = Object.values(schema as Record<string, unknown>).filter((t): t is SQLiteTable => is(t, SQLiteTable));
describe('the migrated database', () => {
  it('has the tables that are declared, and no other', () => {
    const made = client(openDatabase(folder))
      .prepare(
        "select name from sqlite_schema where type = 'table' and name not glob '*_*migrations' and name not glob 'sqlite_*'"
      )
      .pluck()
      .all();
    expect(made.sort()).toEqual(DECLARED.map((t) => getTableConfig(t).name).sort());
  });
  it.each(DECLARED.map((t) => [getTableConfig(t).name, t] as const))('%s', (name, table) => {
    const db = client(openDatabase(folder));
    const declared = getTableConfig(table);
    const rows = (pragma: string) => db.pragma(pragma) as Row[];
    const columns = rows(`table_info('${name}')`).map((c) => ({
      name: c.name,
      type: String(c.type).toLowerCase(),
      notNull: c.notnull === 1,
      key: (c.pk as number) > 0,
      hasDefault: c.dflt_value !== null
    }));
    const keys = new Set(declared.primaryKeys.flatMap((k) => k.columns.map((c) => c.name)));
    const byName = <T extends { name: unknown }>(list: T[]) =>
      list.toSorted((a, b) => (String(a.name) < String(b.name) ? -1 : 1));
    expect(byName(columns)).toEqual(
      byName(
        declared.columns.map((c) => ({
          name: c.name,
          type: c.getSQLType(),
          notNull: c.notNull,
          key: c.primary || keys.has(c.name),
          hasDefault: c.hasDefault && c.default !== undefined
        }))
      )
    );
    // a key that refers to another table, and what is done when that goes
    expect(
      byName(
        rows(`foreign_key_list('${name}')`).map((k) => ({ name: k.from, to: `${k.table}.${k.to}`, gone: k.on_delete }))
      )
    ).toEqual(
      byName(
        declared.foreignKeys.map((key) => {
          const { columns, foreignTable, foreignColumns } = key.reference();
          return {
            name: columns[0].name,
            to: `${getTableConfig(foreignTable).name}.${foreignColumns[0].name}`,
            gone: (key.onDelete ?? 'no action').toUpperCase()
          };
        })
      )
    );
    expect(
      byName(
        rows(`index_list('${name}')`)
          .filter((i) => i.origin !== 'pk')
          .map((i) => ({
            name: i.name,
            unique: i.unique === 1,
            partial: i.partial === 1,
            of: rows(`index_info('${i.name as string}')`).map((c) => c.name)
          }))
      )
    ).toEqual(
      byName([
        ...declared.indexes.map(({ config }) => ({
          name: config.name,
          unique: config.unique,
          partial: config.where !== undefined,
          of: config.columns.map((c) => (c as { name: string }).name)
        })),
        ...declared.columns
          .filter((c) => c.isUnique)
          .map((c) => ({ name: c.uniqueName, unique: true, partial: false, of: [c.name] }))
      ])
    );
  });
});

/** A database as it was after the first `n` migrations. */
function asOf(n: number): Database.Database {
  const migrations = join(folder, 'migrations');
  cpSync('drizzle', migrations, { recursive: true });
  const file = join(migrations, 'meta/_journal.json');
  const journal = JSON.parse(readFileSync(file, 'utf8')) as { entries: unknown[] };
  writeFileSync(file, JSON.stringify({ ...journal, entries: journal.entries.slice(0, n) }));
  mkdirSync(join(folder, 'data'));
  const db = new Database(join(folder, 'data', 'mossbell.sqlite'));
  migrate(drizzle(db), { migrationsFolder: migrations });
  return db;
}
describe('a database of before names were folded', () => {
  it('keeps everything; who came first keeps a name that two have, and the teacher is told of the other', () => {
    const db = asOf(8);
    const person = db.prepare(
      "insert into people (id, role, nickname, class_id, secret, at) values (?, ?, ?, ?, '', ?)"
    );
    person.run('ash', 'teacher', 'Ash', null, 9);
    person.run('ash-2', 'teacher', 'ash', null, 1);
    db.exec("insert into classes values ('a', 'A', 'ABCDE', 'ash', 'en', 1)");
    db.exec("insert into classes values ('b', 'B', 'FGHJK', 'ash', 'en', 1)");
    // the clock was set back between them: what counts is who came first
    person.run('zoe', 'pupil', 'Zoé', 'a', 9);
    person.run('zoe-2', 'pupil', 'Zoe\u0301', 'a', 1);
    person.run('zoe-3', 'pupil', 'zoé 2', 'a', 2);
    person.run('zoe-b', 'pupil', 'Zoé', 'b', 3);
    person.run('ozlem', 'pupil', 'Özlem', 'a', 4);
    db.exec("insert into given values ('g', 'a', '', 'errand', 'first-delivery', 1, 1, null)");
    db.exec(
      "insert into projects (id, name, device, changed_at, owner, given_id) values ('p', 'Pots', 'Barrow', 1, 'zoe', 'g')"
    );
    db.exec("insert into versions (project_id, at, json) values ('p', 1, '{}')");
    db.exec(
      "insert into hand_ins (id, project_id, person_id, given_id, at, note, json) values ('h', 'p', 'zoe', 'g', 1, '', '{}')"
    );
    db.close();

    const told = vi.spyOn(console, 'warn').mockImplementation(() => {});
    const store = openDatabase(join(folder, 'data'));
    expect(told.mock.calls.map(([line]) => line as string)).toEqual([
      expect.stringContaining('"ash" is called'),
      expect.stringContaining('"Zoe\u0301" is called')
    ]);
    told.mockRestore();
    const names = Object.fromEntries(
      store
        .select()
        .from(schema.people)
        .all()
        .map((p) => [p.id, p.nickname])
    );
    expect(names).toEqual({
      ash: 'Ash',
      'ash-2': 'ash 2',
      zoe: 'Zoé',
      'zoe-2': 'Zoé 3',
      'zoe-3': 'zoé 2',
      'zoe-b': 'Zoé',
      ozlem: 'Özlem'
    });
    expect(teacherCalled(store, ' ASH')?.id).toBe('ash');
    expect(pupilCalled(store, 'abcde', 'ÖZLEM')?.person.id).toBe('ozlem');
    expect(pupilCalled(store, 'abcde', 'zoe\u0301')?.person.id).toBe('zoe');
    expect(pupilCalled(store, 'fghjk', 'ZOÉ')?.person.id).toBe('zoe-b');
    expect(
      store
        .select()
        .from(schema.audit)
        .all()
        .map(({ what, whom, teacherId, classId }) => ({ what, whom, teacherId, classId }))
    ).toEqual([
      { what: 'name changed', whom: 'ash 2', teacherId: 'ash-2', classId: null },
      { what: 'name changed', whom: 'Zoé 3', teacherId: 'ash', classId: 'a' }
    ]);
    // no row went with the table that was made anew, and it refers to what it did
    expect(store.select().from(schema.versions).all()).toHaveLength(1);
    expect(client(store).pragma('foreign_key_check')).toEqual([]);
    // what was given out is taken back: what was begun and handed in stays
    takeGivenBack(store, 'g');
    expect(store.select().from(schema.projects).all()).toMatchObject([{ id: 'p', givenId: null }]);
    expect(store.select().from(schema.handIns).all()).toMatchObject([{ id: 'h', givenId: null }]);
    // a second start changes nothing
    client(store).close();
    const again = openDatabase(join(folder, 'data'));
    expect(
      Object.fromEntries(
        again
          .select()
          .from(schema.people)
          .all()
          .map((p) => [p.id, p.nickname])
      )
    ).toEqual(names);
  });
});
