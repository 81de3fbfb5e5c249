/** One SQLite file in the data folder, in WAL mode, migrated when it is first opened. */
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fillShelf } from './projects.ts';
import * as schema from './schema.ts';

export type Store = schema.Store;

export const MIGRATIONS = process.env.MOSSBELL_MIGRATIONS ?? 'drizzle';

export function openDatabase(folder: string): Store {
  mkdirSync(folder, { recursive: true });
  const sqlite = new Database(join(folder, 'mossbell.sqlite'), { timeout: 2000 });
  sqlite.pragma('journal_mode = WAL');
  sqlite.pragma('synchronous = FULL');
  sqlite.pragma('foreign_keys = ON');
  // what is deleted is overwritten: a class that goes leaves nothing in free pages
  sqlite.pragma('secure_delete = ON');
  const store = drizzle(sqlite, { schema });
  migrate(store, { migrationsFolder: MIGRATIONS });
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
  if (/^SQLITE_(READONLY|CANTOPEN)|^E(ACCES|PERM|ROFS|EXIST|NOTDIR)$/.test(code))
    return `The data in "${folder}" cannot be written. Give yourself the right to, or choose another folder: MOSSBELL_DATA=FOLDER ./mossbell demo`;
  return `The data in "${folder}" could not be opened: ${message}`;
}

let opened: Store | undefined;
export function database(): Store {
  if (!opened) {
    opened = openDatabase(process.env.MOSSBELL_DATA ?? 'data');
    fillShelf(opened);
  }
  return opened;
}
