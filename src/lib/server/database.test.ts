/** Data that cannot be opened is told in a sentence, with what to do. The errors are real ones. */
import Database from 'better-sqlite3';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { checkWhole, notOpened, openDatabase } from './database.ts';
import * as schema from './schema.ts';

let folder: string;
let file: string;
beforeEach(() => {
  folder = join(mkdtempSync(join(tmpdir(), 'mossbell-open-')), 'data');
  file = join(folder, 'mossbell.sqlite');
  mkdirSync(folder);
});
afterEach(() => rmSync(join(folder, '..'), { recursive: true }));
/** What is said of what is thrown; the folder is called data. */
const said = (how: () => unknown): string => {
  try {
    how();
  } catch (error) {
    return notOpened(error, 'data');
  }
  return 'it was opened';
};

it('a file that is no database, and what to do', () => {
  writeFileSync(file, 'moss '.repeat(500));
  expect(said(() => openDatabase(folder))).toBe(
    'The database in "data" is damaged. Move it away, then bring a backup back: ./mossbell restore FILE'
  );
});
it('a database with a page that is damaged', () => {
  const store = new Database(file);
  store.exec(`create table t (a); insert into t values ('${'moss '.repeat(5000)}'); create table u (a)`);
  store.close();
  const db = new Database(file);
  db.unsafeMode();
  db.pragma('writable_schema = on');
  db.exec("update sqlite_schema set rootpage = 999 where name = 'u'");
  db.close();
  expect(said(() => new Database(file).exec('select * from u'))).toContain('is damaged');
});
it('one whose pages do not hang together, found when it is opened', () => {
  const store = openDatabase(folder);
  expect(() => checkWhole(store)).not.toThrow();
  const db = (store as unknown as { $client: Database.Database }).$client;
  for (let i = 0; i < 300; i++) db.prepare('insert into pictures values (?, ?)').run(`h${i}`, 'moss '.repeat(300));
  db.pragma('wal_checkpoint(truncate)');
  db.close();
  const bytes = readFileSync(file);
  bytes.fill(0x4d, bytes.length - 40_000, bytes.length - 20_000);
  writeFileSync(file, bytes);
  expect(said(() => checkWhole(openDatabase(folder)))).toContain('is damaged');
});
it('what reads and then writes holds the lock from its beginning, so that nobody comes between', () => {
  const store = openDatabase(folder);
  const other = new Database(file, { timeout: 0 });
  store.transaction((tx) => {
    tx.select().from(schema.projects).all();
    expect(() => other.exec("insert into pictures values ('a', 'b')")).toThrow('database is locked');
    // and one within it is no other one
    tx.transaction((within) => within.insert(schema.pictures).values({ hash: 'c', data: 'd' }).run());
  });
  other.exec("insert into pictures values ('a', 'b')");
  expect(store.select().from(schema.pictures).all().length).toBe(2);
  other.close();
});
it('one that another program holds', () => {
  const other = new Database(file);
  other.exec('create table t (a); begin exclusive');
  expect(said(() => openDatabase(folder))).toBe(
    'Another program holds the database in "data". End it, and start again.'
  );
  other.close();
});
it('a place where nothing can be written', () => {
  const cannot =
    'The data in "data" cannot be written. Give yourself the right to, or choose another folder: MOSSBELL_DATA=FOLDER ./mossbell demo';
  openDatabase(folder);
  expect(said(() => new Database(file, { readonly: true }).exec('create table x (a)'))).toBe(cannot);
  // a file where the folder should be; a folder where the file should be
  expect(said(() => openDatabase(file))).toBe(cannot);
  mkdirSync(join(folder, 'other', 'mossbell.sqlite'), { recursive: true });
  expect(said(() => openDatabase(join(folder, 'other')))).toBe(cannot);
});
it('a disk that is full', () => {
  const db = new Database(file);
  db.exec('create table t (a)');
  db.pragma('max_page_count = 2');
  expect(said(() => db.exec(`insert into t values ('${'x'.repeat(100_000)}')`))).toContain('The disk is full');
});
it('and whatever else it is, as it says itself', () => {
  expect(said(() => new Database(file).exec('moss'))).toBe(
    'The data in "data" could not be opened: near "moss": syntax error'
  );
});
