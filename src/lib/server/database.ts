/** One SQLite file in the data folder, in WAL mode, migrated when it is first opened. */
import Database from 'better-sqlite3';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { chmodSync, closeSync, mkdirSync, openSync } from 'node:fs';
import { join } from 'node:path';
import { foldNames, teachNames } from './names.ts';
import { fillShelf } from './projects.ts';
import * as schema from './schema.ts';

export type Store = schema.Store;

export const MIGRATIONS = process.env.MOSSBELL_MIGRATIONS ?? 'drizzle';

/** The database of a folder. */
export function openDatabase(folder: string): Store {
  mkdirSync(folder, { recursive: true });
  return openFile(join(folder, 'mossbell.sqlite'));
}
/** A file for its owner's eyes alone; what SQLite lays beside it has the same rights. */
export function ownersAlone(file: string): string {
  closeSync(openSync(file, 'a', 0o600));
  chmodSync(file, 0o600);
  return file;
}
/** A database of this or an older Moss Bell, migrated to this one. */
export function openFile(file: string): Store {
  const sqlite = new Database(ownersAlone(file), { timeout: 2000 });
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('synchronous = FULL');
  // what is deleted is overwritten: a class that goes leaves nothing in free pages
  sqlite.pragma('secure_delete = ON');
  const store = drizzle(sqlite, { schema });
  // what reads and then writes takes the lock at once and waits for it; begun as a mere reader, it would be refused without a wait
  const begin = store.transaction.bind(store);
  store.transaction = (work) => begin(work, { behavior: 'immediate' });
  teachNames(sqlite);
  // a table that is made anew is dropped and renamed, which with foreign keys would take along whatever refers to it
  sqlite.pragma('foreign_keys = OFF');
  migrate(store, { migrationsFolder: MIGRATIONS });
  sqlite.pragma('foreign_keys = ON');
  for (const { was, is } of foldNames(store))
    console.warn(
      `Moss Bell: "${was}" is called as somebody else but for capitals or accents; it is "${is}" from now on.`
    );
  return store;
}

/** Why the data of a folder could not be opened, and what to do: for whoever starts the server, in English as all it prints. */
export function notOpened(error: unknown, folder: string): string {
  const { code = '', message } = error as { code?: string; message: string };
  if (code === 'SQLITE_NOTADB' || code.startsWith('SQLITE_CORRUPT'))
    return `The database in "${folder}" is damaged. Move it away, then bring a backup back: ./mossbell restore FILE`;
  if (code.startsWith('SQLITE_BUSY'))
    return `Another program holds the database in "${folder}". End it, and start again.`;
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC')
    return `The disk is full: the database in "${folder}" cannot be opened.`;
  if (code.startsWith('SQLITE_IOERR'))
    return `The data in "${folder}" cannot be written: the disk is full, or it fails.`;
  if (/^SQLITE_(READONLY|CANTOPEN)|^E(ACCES|PERM|ROFS|EXIST|NOTDIR|ISDIR)$/.test(code))
    return `The data in "${folder}" cannot be written. Give yourself the right to, or choose another folder: MOSSBELL_DATA=FOLDER ./mossbell demo`;
  return `The data in "${folder}" could not be opened: ${message}`;
}

/** @throws where pages of the file do not hang together (SQLite's quick_check) */
export function checkWhole(store: Store): void {
  const found = store.get<{ quick_check: string }>(sql`pragma quick_check(1)`).quick_check;
  if (found !== 'ok') throw Object.assign(new Error(found), { code: 'SQLITE_CORRUPT' });
}

let opened: Store | undefined;
export function database(): Store {
  if (!opened) {
    opened = openDatabase(process.env.MOSSBELL_DATA ?? 'data');
    checkWhole(opened);
    fillShelf(opened);
  }
  return opened;
}
