/** Databases of before, copies, and the way back: on real files, while they are written to. */
import Database from 'better-sqlite3';
import { execFileSync, spawn } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { hall } from '../../../core/testing/build.ts';
import { named } from '../class/folded.ts';
import { backUp, beginServing, endServing, deleteFromBackups, restore } from './backup.ts';
import { deleteClass, makeClass } from './classes.ts';
import { openDatabase, type Store } from './database.ts';
import { makeTeacher } from './people.ts';
import { createProject, fillShelf, listProjects, listVersions, openProject, saveProject } from './projects.ts';
import { backups, people } from './schema.ts';

let folder: string;
let store: Store;
const client = (of: Store) => (of as unknown as { $client: Database.Database }).$client;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'mossbell-backup-'));
  store = openDatabase(folder);
});
afterEach(() => {
  client(store).close();
  rmSync(folder, { recursive: true });
});
const pots = newProject('Pots', barrow, hall);
const say = async (act: () => unknown): Promise<string> => {
  try {
    await act();
  } catch (error) {
    return (error as Error).message;
  }
  return '';
};

describe('a database of an earlier version', () => {
  const BEFORE = new URL('testing/', import.meta.url);
  it.each([0, 1, 2, 3, 4, 5])('%i is renewed as it is opened, with everything in it', (n) => {
    const old = join(folder, 'old');
    mkdirSync(old);
    const db = new Database(join(old, 'mossbell.sqlite'));
    db.exec(readFileSync(new URL(`before-${n}.sql`, BEFORE), 'utf8'));
    db.close();
    const renewed = openDatabase(old);
    fillShelf(renewed);
    expect(listProjects(renewed)).toMatchObject([
      {
        id: 'pots',
        name: `Pots of version ${n}`,
        device: 'barrow',
        bars: expect.any(Array),
        toCheck: expect.any(Number)
      }
    ]);
    expect(listVersions(renewed, 'pots').map((v) => v.name)).toEqual([`Pots of version ${n}`, 'Pots, older']);
    expect(openProject(renewed, 'pots')!.project).toMatchObject({ name: `Pots of version ${n}` });
    const counted = (table: string) =>
      (client(renewed).prepare(`select count(*) n from ${table}`).get() as { n: number }).n;
    expect([counted('runs'), counted('errands'), counted('lessons')]).toEqual([
      n >= 1 ? 1 : 0,
      n >= 4 ? 1 : 0,
      n >= 5 ? 1 : 0
    ]);
    expect(client(renewed).pragma('foreign_key_check')).toEqual([]);
    expect(saveProject(renewed, 'pots', listVersions(renewed, 'pots')[0].id, pots)?.ok).toBe(true);
    client(renewed).close();
  });
  it('belongs to the first teacher, what was made in it before there was one', async () => {
    createProject(store, pots);
    createProject(store, { ...pots, name: 'A guest’s' }, { owner: 'guest.x' });
    createProject(store, { ...pots, name: 'Demo' }, { demo: true });
    const ash = await makeTeacher(store, 'Ash', 'a long passphrase');
    await makeTeacher(store, 'Elm', 'another passphrase');
    expect(listProjects(store, { owner: (ash as { id: string }).id }).map((c) => c.name)).toEqual(['Pots']);
    expect(await makeTeacher(store, 'Elm', 'another passphrase')).toBe('There is a teacher called Elm already.');
  });
});

describe('a backup', () => {
  it('is whole while another process writes, and comes back with what was there', async () => {
    const { id, version } = createProject(store, pots);
    const file = join(folder, 'copy.sqlite');
    let base = version;
    let saves = 0;
    // saves between the pages of the copy
    const timer = setInterval(() => {
      const saved = saveProject(store, id, base, { ...pots, notebook: `${++saves} ${'x'.repeat(20_000)}` });
      if (saved?.ok) base = saved.version;
    }, 1);
    const { bytes } = await backUp(folder, file);
    clearInterval(timer);
    expect(bytes).toBeGreaterThan(10_000);
    const copy = new Database(file, { readonly: true });
    expect(copy.pragma('integrity_check', { simple: true })).toBe('ok');
    expect((copy.prepare('select count(*) n from versions').get() as { n: number }).n).toBeGreaterThan(0);
    copy.close();
    createProject(store, { ...pots, name: 'After the backup' });
    client(store).close();
    const aside = restore(folder, file, new Date('2026-05-04T08:00:00Z'))!;
    store = openDatabase(folder);
    expect(listProjects(store).map((c) => c.name)).toEqual(['Pots']);
    // what was there before lies aside, whole, and is known
    const old = new Database(aside, { readonly: true });
    expect(old.prepare('select name from projects order by name').all()).toEqual([
      { name: 'After the backup' },
      { name: 'Pots' }
    ]);
    old.close();
    expect(
      store
        .select()
        .from(backups)
        .all()
        .map((b) => b.file)
    ).toContain(aside);
  });
  it('is refused with a sentence: there already, no database, a damaged one, another version, one that is in use', async () => {
    const file = join(folder, 'copy.sqlite');
    await backUp(folder, file);
    expect(await say(() => backUp(folder, file))).toContain('is there already');
    expect(await say(() => backUp(join(folder, 'nowhere'), join(folder, 'x')))).toContain('no database of Moss Bell');
    const before = readFileSync(join(folder, 'mossbell.sqlite'));
    expect(await say(() => restore(folder, join(folder, 'nothing')))).toContain('There is no file');
    writeFileSync(join(folder, 'words'), 'these are words');
    expect(await say(() => restore(folder, join(folder, 'words')))).toContain('is not a backup of Moss Bell');
    const old = join(folder, 'old.sqlite');
    const db = new Database(old);
    db.exec(readFileSync(new URL('testing/before-3.sql', import.meta.url), 'utf8'));
    db.exec("insert into __drizzle_migrations (hash, created_at) values ('newer', 9999999999999)");
    expect(await say(() => restore(folder, old))).toContain('was made by a newer Moss Bell');
    db.close();
    beginServing(folder);
    expect(await say(() => restore(folder, file))).toContain(`is running with this data (process ${process.pid})`);
    endServing(folder);
    // another process; one that was killed serves no more
    const code = `import { beginServing } from './src/lib/server/backup.ts'; beginServing(${JSON.stringify(folder)}); console.log('serves'); setInterval(() => {}, 1000);`;
    const other = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', code]);
    await new Promise((done) => other.stdout.once('data', done));
    expect(await say(() => restore(folder, file))).toContain(`is running with this data (process ${other.pid})`);
    expect(await say(() => beginServing(folder))).toContain(`already (process ${other.pid})`);
    // what does not serve may go on beside it
    await backUp(folder, join(folder, 'beside.sqlite'));
    const gone = new Promise((done) => other.on('exit', done));
    other.kill('SIGKILL');
    await gone;
    // one that was cut short on its way
    writeFileSync(join(folder, 'cut.sqlite'), readFileSync(file).subarray(0, 9000));
    expect(await say(() => restore(folder, join(folder, 'cut.sqlite')))).toMatch(/is cut short: 9000 bytes of \d+/);
    // a backup that a disk spoiled in the middle
    const spoilt = readFileSync(file);
    spoilt.fill(0xff, 4096 * 3, 4096 * 5);
    writeFileSync(join(folder, 'spoilt.sqlite'), spoilt);
    expect(await say(() => restore(folder, join(folder, 'spoilt.sqlite')))).toMatch(/is damaged/);
    expect(readFileSync(join(folder, 'mossbell.sqlite')).equals(before)).toBe(true);
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
  });
  it.each([0, 2, 5])('of %s migrations comes back as one of this version, and what was there lies aside', (n) => {
    createProject(store, { ...pots, name: 'Later' });
    client(store).close();
    const old = join(folder, 'old.sqlite');
    const db = new Database(old);
    db.exec(readFileSync(new URL(`testing/before-${n}.sql`, import.meta.url), 'utf8'));
    db.close();
    const before = readFileSync(old);
    expect(restore(folder, old)).toContain('before-restore');
    store = openDatabase(folder);
    expect(openProject(store, 'pots')!.project.name).toBe(`Pots of version ${n}`);
    // the backup is as it was, and can be restored by the older one too
    expect(readFileSync(old).equals(before)).toBe(true);
  });
  it('and all data can be read by their owner alone', async () => {
    const file = join(folder, 'copy.sqlite');
    await backUp(folder, file);
    createProject(store, pots);
    const modes = ['mossbell.sqlite', 'mossbell.sqlite-wal', 'mossbell.sqlite-shm', 'copy.sqlite'].map(
      (name) => statSync(join(folder, name)).mode & 0o777
    );
    expect(modes).toEqual([0o600, 0o600, 0o600, 0o600]);
  });
  it('loses a class that is deleted; one that cannot be written is named', async () => {
    store
      .insert(people)
      .values({ id: 't', role: 'teacher', ...named('Ash'), secret: '', at: 1 })
      .run();
    const id = makeClass(store, 't', 'Class of shadows', 'en');
    store
      .insert(people)
      .values({ id: 'p', role: 'pupil', ...named('Hellebore'), classId: id, secret: '', at: 1 })
      .run();
    createProject(store, { ...pots, name: 'Pots of a pupil' }, { owner: 'p' });
    const [file, spoilt, moved] = ['a', 'b', 'c'].map((name) => join(folder, `${name}.sqlite`));
    await backUp(folder, file);
    await backUp(folder, spoilt);
    await backUp(folder, moved);
    rmSync(moved);
    writeFileSync(spoilt, 'no database any more');
    expect(readFileSync(file, 'latin1')).toContain('Hellebore');
    // the one that was moved away is named: nobody knows where it is now
    const held = [{ file: spoilt }, { file: moved, away: true }];
    expect(deleteFromBackups(store, id, 'p')).toEqual(held);
    expect(readFileSync(file, 'latin1')).not.toMatch(/Hellebore|Pots of a pupil/);
    expect(readFileSync(file, 'latin1')).toContain('Class of shadows');
    expect(deleteFromBackups(store, id)).toEqual(held);
    deleteClass(store, id);
    for (const one of [file, join(folder, 'mossbell.sqlite'), join(folder, 'mossbell.sqlite-wal')])
      expect(readFileSync(one, 'latin1')).not.toMatch(/Hellebore|Class of shadows|Pots of a pupil/);
    expect(
      store
        .select()
        .from(backups)
        .all()
        .map((b) => b.file)
    ).toEqual([file, spoilt, moved]);
  });
  it('is made and brought back by the command, with an exit status', () => {
    createProject(store, pots);
    const run = (...args: string[]) =>
      execFileSync(process.execPath, ['--import', 'tsx', 'keep.ts', ...args], {
        encoding: 'utf8',
        env: { ...process.env, MOSSBELL_DATA: folder },
        stdio: 'pipe'
      });
    const file = join(folder, 'by-hand.sqlite');
    expect(run('backup', file)).toContain('Backed up to');
    expect(existsSync(file)).toBe(true);
    createProject(store, { ...pots, name: 'Later' });
    client(store).close();
    expect(run('restore', file)).toContain('What was here before lies in');
    store = openDatabase(folder);
    expect(listProjects(store).map((c) => c.name)).toEqual(['Pots']);
    expect(() => run('restore', join(folder, 'nothing'))).toThrow(/There is no file/);
  });
});
