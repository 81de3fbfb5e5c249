/** Copies of the database: one that is consistent while Moss Bell runs, and the way back from it. */
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import {
  closeSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs';
import { join, resolve } from 'node:path';
import { say } from '../../../core/words.ts';
import type { HeldStill } from '../class/class.ts';
import { deleteClass, removePupil } from './classes.ts';
import { MIGRATIONS, openDatabase, openFile, ownersAlone } from './database.ts';
import { audit, backups, classes, people, type Store } from './schema.ts';
import * as schema from './schema.ts';
import { and, eq, min } from 'drizzle-orm';

/** What went wrong, in a sentence for the person. */
export class Refused extends Error {}
const NAME = 'mossbell.sqlite';
const SERVES = 'serving.json';
const LOCK = 'serving.lock';

/** By what a database is told to be of this version: its last migration. */
const hashes = (): string[] => readMigrationFiles({ migrationsFolder: MIGRATIONS }).map((m) => m.hash);
/** What is wrong with a file that ought to be a database, by its header (sqlite.org/fileformat2.html, 1.3). */
function spoilt(file: string): string | undefined {
  const bytes = statSync(file).size;
  const head = Buffer.alloc(100);
  const opened = openSync(file, 'r');
  readSync(opened, head, 0, 100, 0);
  closeSync(opened);
  if (head.toString('latin1', 0, 16) !== 'SQLite format 3\0')
    return say('{file} is not a backup of Moss Bell.', { file });
  const page = head.readUInt16BE(16);
  const whole = (page === 1 ? 65_536 : page) * head.readUInt32BE(28);
  return bytes < whole
    ? say('{file} is cut short: {n} bytes of {whole} are there. Nothing was changed.', { file, n: bytes, whole })
    : undefined;
}
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
  const client = clientOf(store);
  try {
    // it is known before it is made, so that a class that is deleted goes from it too; the copy knows itself
    store.insert(backups).values({ file: to, at: Date.now() }).onConflictDoNothing().run();
    await client.backup(ownersAlone(`${to}.part`));
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

/** Closes a database so that all of it is in its one file. */
function closeWhole(of: Database.Database | Store): void {
  const db = of instanceof Database ? of : clientOf(of);
  db.pragma('wal_checkpoint(truncate)');
  db.pragma('journal_mode = delete');
  db.close();
}
const clientOf = (store: Store) => (store as unknown as { $client: Database.Database }).$client;

/** Puts a backup in the place of the database. The one that was there stays beside it. @returns where that is */
export function restore(folder: string, file: string, now = new Date()): string | undefined {
  const from = resolve(file);
  if (!existsSync(from)) throw new Refused(say('There is no file {file}.', { file }));
  const running = existsSync(folder) ? servedBy(folder) : undefined;
  if (running !== undefined)
    throw new Refused(
      say('Moss Bell is running with this data (process {pid}). End it first, then restore.', { pid: running })
    );
  const no = spoilt(from);
  if (no) throw new Refused(no);
  const at = join(folder, NAME);
  const part = `${at}.part`;
  // the copy is whole, and of this version, before anything is put aside
  mkdirSync(folder, { recursive: true });
  try {
    copyFileSync(from, ownersAlone(part));
    const copy = new Database(part, { readonly: true });
    const sound = copy.pragma('integrity_check', { simple: true });
    copy.close();
    if (sound !== 'ok') throw new Error(String(sound));
    const made = lastMigration(part);
    if (made === undefined) throw new Refused(say('{file} is not a backup of Moss Bell.', { file }));
    if (!hashes().includes(made))
      throw new Refused(say('{file} was made by a newer Moss Bell. Update this one, then restore.', { file }));
    closeWhole(openFile(part));
  } catch (error) {
    for (const end of ['', '-wal', '-shm']) rmSync(part + end, { force: true });
    if (error instanceof Refused) throw error;
    throw new Refused(say('{file} is damaged ({why}). Nothing was changed.', { file, why: (error as Error).message }));
  }
  let aside: string | undefined;
  if (existsSync(at)) {
    // what still stands in the log belongs into the file that is put aside
    closeWhole(new Database(at));
    aside = join(folder, `before-restore-${now.toISOString().replace(/[:.]/g, '-')}.sqlite`);
    renameSync(at, aside);
  }
  for (const end of ['-wal', '-shm']) rmSync(at + end, { force: true });
  renameSync(part, at);
  if (aside) {
    const store = openDatabase(folder);
    store
      .insert(backups)
      .values({ file: resolve(aside), at: now.getTime() })
      .onConflictDoNothing()
      .run();
    clientOf(store).close();
  }
  return aside;
}

/**
 * A class, or one pupil of it, goes from every backup that is known, there, and of this version.
 * @returns the files in which they may still be; `away`: it is not where it was made, and may have been moved
 */
export function deleteFromBackups(store: Store, classId: string, pupilId?: string): HeldStill[] {
  const since =
    pupilId === undefined
      ? (store.select({ at: classes.at }).from(classes).where(eq(classes.id, classId)).get()?.at ?? 0)
      : // also of before, in another class: what was written down of a pupil goes along
        (store
          .select({ at: min(audit.at) })
          .from(audit)
          .innerJoin(people, eq(people.nickname, audit.whom))
          .where(and(eq(people.id, pupilId), eq(audit.classId, classId)))
          .get()?.at ?? 0);
  return store
    .select()
    .from(backups)
    .all()
    .flatMap(({ file, at }): HeldStill[] => {
      // made before there was such a class; a clock that was set back may say so too, but not of a file that can be read
      if (!existsSync(file)) return at < since ? [] : [{ file, away: true }];
      if (lastMigration(file) !== hashes().at(-1)) return [{ file }];
      const db = new Database(file, { timeout: 2000 });
      try {
        db.pragma('foreign_keys = ON');
        db.pragma('secure_delete = ON');
        const copy = drizzle(db, { schema });
        const has = (table: typeof classes | typeof people, id: string): boolean =>
          copy.select({ id: table.id }).from(table).where(eq(table.id, id)).get() !== undefined;
        if (pupilId === undefined) {
          if (has(classes, classId)) deleteClass(copy, classId);
        } else if (has(people, pupilId)) removePupil(copy, pupilId);
        return [];
      } catch {
        return [{ file }];
      } finally {
        db.close();
      }
    });
}

/** A file that is locked while a server runs: the lock goes with the process, however that ends. */
function lockOf(folder: string): Database.Database | undefined {
  const lock = new Database(ownersAlone(join(folder, LOCK)), { timeout: 0 });
  try {
    lock.pragma('journal_mode = memory');
    lock.exec('begin exclusive');
    return lock;
  } catch (error) {
    lock.close();
    if (String((error as { code?: string }).code).startsWith('SQLITE_BUSY')) return undefined;
    throw error;
  }
}
let serving: Database.Database | undefined;
/** Nobody restores under a server, and no second one serves the same data. @throws Refused where another one does */
export function beginServing(folder: string): void {
  mkdirSync(folder, { recursive: true });
  serving = lockOf(folder);
  if (!serving) {
    const pid = servedBy(folder) ?? 0;
    throw new Refused(
      say('Moss Bell is running with this data already (process {pid}). End it first, or choose another folder.', {
        pid
      })
    );
  }
  writeFileSync(join(folder, SERVES), JSON.stringify({ pid: process.pid }));
}
export function endServing(folder: string): void {
  if (!serving) return;
  rmSync(join(folder, SERVES), { force: true });
  serving.close();
  serving = undefined;
}
/** @returns the process that serves a folder (0 where it does not say which); undefined where none does, though one was killed */
function servedBy(folder: string): number | undefined {
  const lock = lockOf(folder);
  if (lock) return void lock.close();
  try {
    return (JSON.parse(readFileSync(join(folder, SERVES), 'utf8')) as { pid: number }).pid;
  } catch {
    return 0;
  }
}
