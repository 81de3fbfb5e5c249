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

let opened: Store | undefined;
export function database(): Store {
  if (!opened) {
    opened = openDatabase(process.env.MOSSBELL_DATA ?? 'data');
    fillShelf(opened);
  }
  return opened;
}
