/** Copies of the database: one that is consistent while Moss Bell runs, and the way back from it. */
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { copyFileSync, existsSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { say } from '../../../core/words.ts';
import { deleteClass } from './classes.ts';
import { MIGRATIONS, openDatabase } from './database.ts';
import { backups, classes, type Store } from './schema.ts';
import * as schema from './schema.ts';
import { eq } from 'drizzle-orm';

/** What went wrong, in a sentence for the person. */
export class Refused extends Error {}
const NAME = 'mossbell.sqlite';
const SERVES = 'serving.json';

/** By what a database is told to be of this version: its last migration. */
const hashes = (): string[] => readMigrationFiles({ migrationsFolder: MIGRATIONS }).map((m) => m.hash);
function lastMigration(file: string): string | undefined {
  let db: Database.Database | undefined;
  try {
    db = new Database(file, { readonly: true, fileMustExist: true });
    const row = db.prepare('select hash from __drizzle_migrations order by created_at desc limit 1').get();
    return (row as { hash: string } | undefined)?.hash;
  } catch {
    return undefined;
  } finally {
    db?.close();
  }
}

/** Copies the database of a folder to a file, page by page, while it is written to. */
export async function backUp(folder: string, file: string): Promise<{ bytes: number }> {
  const to = resolve(file);
  if (existsSync(to))
    throw new Refused(say('{file} is there already. Choose another name, or take it away first.', { file }));
  if (!existsSync(join(folder, NAME)))
    throw new Refused(say('There is no database of Moss Bell in {folder}.', { folder }));
  const store = openDatabase(folder);
  const client = (store as unknown as { $client: Database.Database }).$client;
  try {
    // it is known before it is made, so that a class that is deleted goes from it too; the copy knows itself
    store.insert(backups).values({ file: to, at: Date.now() }).onConflictDoNothing().run();
    await client.backup(`${to}.part`);
    const copy = new Database(`${to}.part`);
    const sound = copy.pragma('integrity_check', { simple: true });
    // one file that stands by itself
    copy.pragma('journal_mode = delete');
    copy.close();
    if (sound !== 'ok')
      throw new Refused(say('The copy is not sound ({why}). Is the disk in order?', { why: String(sound) }));
    renameSync(`${to}.part`, to);
    return { bytes: statSync(to).size };
  } catch (error) {
    rmSync(`${to}.part`, { force: true });
    store.delete(backups).where(eq(backups.file, to)).run();
    throw error;
  } finally {
    client.close();
  }
}

/** Puts a backup in the place of the database. The one that was there stays beside it. @returns where that is */
export function restore(folder: string, file: string, now = new Date()): string | undefined {
  const from = resolve(file);
  if (!existsSync(from)) throw new Refused(say('There is no file {file}.', { file }));
  const serving = servedBy(folder);
  if (serving)
    throw new Refused(
      say('Moss Bell is running with this data (process {pid}). End it first, then restore.', { pid: serving })
    );
  const made = lastMigration(from);
  const known = hashes();
  if (made === undefined) throw new Refused(say('{file} is not a backup of Moss Bell.', { file }));
  if (made !== known.at(-1))
    throw new Refused(
      known.includes(made)
        ? say(
            '{file} was made by an older Moss Bell. Restore it with that version; a newer one renews it when it starts.',
            { file }
          )
        : say('{file} was made by a newer Moss Bell. Update this one, then restore.', { file })
    );
  const at = join(folder, NAME);
  // the copy is whole before anything is put aside
  copyFileSync(from, `${at}.part`);
  const copy = new Database(`${at}.part`, { readonly: true });
  const sound = copy.pragma('integrity_check', { simple: true });
  copy.close();
  if (sound !== 'ok') {
    rmSync(`${at}.part`);
    throw new Refused(say('{file} is damaged ({why}). Nothing was changed.', { file, why: String(sound) }));
  }
  let aside: string | undefined;
  if (existsSync(at)) {
    // what still stands in the log belongs into the file that is put aside
    const old = new Database(at);
    old.pragma('wal_checkpoint(truncate)');
    old.pragma('journal_mode = delete');
    old.close();
    aside = join(folder, `before-restore-${now.toISOString().replace(/[:.]/g, '-')}.sqlite`);
    renameSync(at, aside);
  }
  for (const end of ['-wal', '-shm']) rmSync(at + end, { force: true });
  renameSync(`${at}.part`, at);
  if (aside) {
    const store = openDatabase(folder);
    store
      .insert(backups)
      .values({ file: resolve(aside), at: now.getTime() })
      .onConflictDoNothing()
      .run();
    (store as unknown as { $client: Database.Database }).$client.close();
  }
  return aside;
}

/** A class goes from every backup that is known and is of this version. @returns the files in which it may still be */
export function deleteFromBackups(store: Store, classId: string): string[] {
  return store
    .select({ file: backups.file })
    .from(backups)
    .all()
    .flatMap(({ file }) => {
      if (!existsSync(file)) {
        store.delete(backups).where(eq(backups.file, file)).run();
        return [];
      }
      if (lastMigration(file) !== hashes().at(-1)) return [file];
      const db = new Database(file, { timeout: 2000 });
      try {
        db.pragma('foreign_keys = ON');
        db.pragma('secure_delete = ON');
        const copy = drizzle(db, { schema });
        if (copy.select({ id: classes.id }).from(classes).where(eq(classes.id, classId)).get())
          deleteClass(copy, classId);
        return [];
      } catch {
        return [file];
      } finally {
        db.close();
      }
    });
}

/** Written while the server runs, so that nobody restores under it. */
export const beginServing = (folder: string): void =>
  writeFileSync(join(folder, SERVES), JSON.stringify({ pid: process.pid }));
export const endServing = (folder: string): void => rmSync(join(folder, SERVES), { force: true });
/** @returns the process that serves a folder; undefined where none does, though one was killed */
function servedBy(folder: string): number | undefined {
  try {
    const { pid } = JSON.parse(readFileSync(join(folder, SERVES), 'utf8')) as { pid: number };
    process.kill(pid, 0);
    return pid;
  } catch {
    return undefined;
  }
}
