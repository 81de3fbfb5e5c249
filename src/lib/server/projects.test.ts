/** The repository against a real SQLite file. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { demoProjects, seed } from '../../../demo/seed.ts';
import { barrow, trowel, type Kit } from '../../../core/kit/kit.ts';
import { lookOver } from '../../../core/language/lookover/lookover.ts';
import { remarkKey } from '../../../core/language/lookover/remark.ts';
import { newProject } from '../../../core/project.ts';
import { b, log, program, start } from '../../../core/testing/build.ts';
import { longAisle } from '../../../core/yard/mats.ts';
import type { Step } from '../../../core/language/program.ts';
import { textThumb, thumb } from '../shelf/thumb.ts';
import { projects } from './schema.ts';
import { openDatabase, type Store } from './database.ts';
import {
  createProject,
  deleteProject,
  fillShelf,
  labelProject,
  listDeleted,
  listLabels,
  listProjects,
  listVersions,
  openProject,
  openVersion,
  rawProject,
  renameProject,
  restoreProject,
  saveProject
} from './projects.ts';

let folder: string;
let store: Store;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'mossbell-'));
  store = openDatabase(folder);
});
afterEach(() => {
  (store as unknown as { $client: { close(): void } }).$client.close();
  rmSync(folder, { recursive: true });
});
const pots = () => ({ ...newProject('Pots', barrow, longAisle), program: program(start(log('x'))) });

describe('projects in the database', () => {
  it('are not counted as having something to check where that was set aside', () => {
    const left = { ...pots(), program: program(start(b('wheels.run'))) };
    createProject(store, left);
    expect(listProjects(store)[0].toCheck).toBe(1);
    const [remark] = lookOver(left);
    createProject(store, { ...left, setAside: [remarkKey(remark)] }, { at: Date.now() + 1000 });
    expect(listProjects(store)[0].toCheck).toBe(0);
  });
  it('come back as they were saved, also from a file that is opened again', () => {
    const { id } = createProject(store, pots());
    (store as unknown as { $client: { close(): void } }).$client.close();
    store = openDatabase(folder);
    expect(openProject(store, id)!.project).toMatchObject({ name: 'Pots', program: { stacks: [{ id: 's0' }] } });
    expect(openProject(store, 'nobody')).toBeUndefined();
  });
  it('are not overwritten from a version that is not the newest', () => {
    const { id, version } = createProject(store, pots());
    const one = saveProject(store, id, version, { ...pots(), name: 'One' });
    expect(one).toMatchObject({ ok: true });
    const two = saveProject(store, id, version, { ...pots(), name: 'Two' });
    expect(two).toMatchObject({ ok: false, newest: { project: { name: 'One' } } });
    expect(openProject(store, id)!.project.name).toBe('One');
    expect(listProjects(store).map((c) => c.name)).toEqual(['One']);
  });
  it('are saved on by the tab whose answer was lost, and by no other', () => {
    const { id, version } = createProject(store, pots());
    const save = (name: string, tab: string | null) => saveProject(store, id, version, { ...pots(), name }, 1, tab);
    expect(save('One', 'mine')).toMatchObject({ ok: true });
    expect(save('Two', 'theirs')).toMatchObject({ ok: false, newest: { project: { name: 'One' }, tab: 'mine' } });
    expect(save('Three', null)).toMatchObject({ ok: false });
    expect(save('Four', 'mine')).toMatchObject({ ok: true });
    expect(openProject(store, id)!.project.name).toBe('Four');
    // who does not say from where is nobody twice
    const other = createProject(store, pots());
    expect(saveProject(store, other.id, other.version, pots())).toMatchObject({ ok: true });
    expect(saveProject(store, other.id, other.version, pots())).toMatchObject({ ok: false });
  });
  it('keep 200 versions: all new ones, and of older ones those that lie apart', () => {
    const at = (minutes: number) => 1_700_000_000_000 + minutes * 60_000;
    const { id, version: first } = createProject(store, pots(), { at: at(0) });
    let version = first;
    // an afternoon at one save a minute, but for one hour in which nothing was done
    for (let i = 0; i < 300; i++) {
      const saved = saveProject(store, id, version, { ...pots(), name: `Pots ${i}` }, at(i < 40 ? i : i + 60));
      if (!saved?.ok) throw new Error('not saved');
      version = saved.version;
    }
    const list = listVersions(store, id, undefined, 1000);
    expect(list).toHaveLength(200);
    expect(list.slice(0, 60).map((v) => v.name)).toEqual(Array.from({ length: 60 }, (_, i) => `Pots ${299 - i}`));
    expect(list.at(-1)!.id).toBe(first);
    // the last one before the pause is a place to go back to
    expect(list.map((v) => v.name)).toContain('Pots 39');
    expect(openProject(store, id)!.project.name).toBe('Pots 299');
    expect(openVersion(store, id, list[70].id)!.name).toBe(list[70].name);
    expect(openVersion(store, id, 987_654)).toBeUndefined();
    expect(list[0]).toMatchObject({ blocks: 2, bars: [{ family: 'order' }, { family: 'think' }] });
  });
  it('that are taken off stay for 30 days and come back as they were', () => {
    const { id, version } = createProject(store, pots());
    const day = 86_400_000;
    expect(deleteProject(store, id, day)).toBe(true);
    expect(deleteProject(store, id, day)).toBe(false);
    expect([listProjects(store), openProject(store, id)]).toEqual([[], undefined]);
    // work that goes on elsewhere is told that it is gone, and is not lost by it
    expect(saveProject(store, id, version, pots())).toBeUndefined();
    expect(listDeleted(store, 3 * day)).toMatchObject([{ id, name: 'Pots', days: 28 }]);
    expect(restoreProject(store, id)).toBe(true);
    expect(restoreProject(store, id)).toBe(false);
    expect(openProject(store, id)!.version).toBe(version);
    deleteProject(store, id, day);
    expect(listDeleted(store, 32 * day)).toEqual([]);
    expect(restoreProject(store, id)).toBe(false);
  });
  it('stand on the shelf page by page, each once, and are found by their names', () => {
    for (let i = 0; i < 130; i++)
      createProject(
        store,
        { ...pots(), name: `Pots ${i}` },
        { id: `p${String(i).padStart(3, '0')}`, at: 1000 + (i >> 1) }
      );
    const seen: string[] = [];
    for (let page = listProjects(store); page.length; page = listProjects(store, { from: seen.length }))
      seen.push(...page.map((c) => c.name));
    expect(seen).toEqual(Array.from({ length: 130 }, (_, i) => `Pots ${129 - i}`));
    expect(
      listProjects(store, { words: 'POTS 12' })
        .map((c) => c.name)
        .sort()
    ).toEqual(['Pots 12', ...Array.from({ length: 10 }, (_, i) => `Pots 12${i}`)].sort());
    expect(listProjects(store, { words: '%' })).toEqual([]);
    // one query, from the index alone, without a sort of its own
    const client = (store as unknown as { $client: Database.Database }).$client;
    const plan = client
      .prepare(
        "explain query plan select id from projects where owner = '' and demo = 0 and deleted_at is null order by changed_at desc, id desc limit 48"
      )
      .all() as { detail: string }[];
    expect(plan.map((r) => r.detail).join()).toMatch(/USING (COVERING )?INDEX projects_shelf/);
    expect(plan.map((r) => r.detail).join()).not.toContain('TEMP B-TREE');
  });
  it('keep a large picture once, however many versions have it, and give it back', () => {
    const png = `data:image/png;base64,${'iVBORw0KGgo'.repeat(9000)}`;
    const floor = { ...longAisle, floor: { png, columns: 100, rows: 100, grey: 'QUJD'.repeat(3400) } };
    const withFloor = { ...pots(), mat: floor };
    const { id, version: first } = createProject(store, withFloor);
    let version = first;
    for (let i = 0; i < 20; i++) {
      const saved = saveProject(store, id, version, { ...withFloor, name: `Pots ${i}` });
      if (!saved?.ok) throw new Error('not saved');
      version = saved.version;
    }
    expect(openProject(store, id)!.project.mat).toEqual(floor);
    expect(openVersion(store, id, first)!.mat).toEqual(floor);
    expect(listVersions(store, id)[3].blocks).toBe(2);
    const client = (store as unknown as { $client: Database.Database }).$client;
    const size = (q: string) => (client.prepare(q).get() as { n: number }).n;
    expect(size('select sum(length(json)) as n from versions')).toBeLessThan(100_000);
    expect(size('select count(*) as n from pictures')).toBe(2);
    // it goes with the last project that has it
    deleteProject(store, id, 1);
    listDeleted(store);
    expect(size('select count(*) as n from pictures')).toBe(0);
  });
  it('of a database of before get what the shelf shows, and one that cannot be read no error page but its file', () => {
    const { id } = createProject(store, { ...pots(), program: program(start(b('wheels.run'))) });
    const odd = createProject(store, pots());
    const client = (store as unknown as { $client: Database.Database }).$client;
    client.exec('update projects set shelf = null');
    client
      .prepare('update versions set json = ? where project_id = ?')
      .run('{"format":"mossbell.project","version":1}', odd.id);
    fillShelf(store);
    expect(listProjects(store).find((c) => c.id === id)).toMatchObject({ toCheck: 1 });
    expect(() => openProject(store, odd.id)).toThrow('The saved project cannot be opened');
    expect(rawProject(store, odd.id)).toContain('"version":1');
  });
  it('of the demo are laid on an empty shelf once, and can be neither written nor taken off', () => {
    expect(seed(store)).toBe(demoProjects().length);
    expect(seed(store)).toBe(0);
    const [card] = listProjects(store, { demo: true });
    const { version, project } = openProject(store, card.id)!;
    expect(saveProject(store, card.id, version, project)).toBeUndefined();
    expect(deleteProject(store, card.id)).toBe(false);
    expect(listProjects(store, { demo: true, most: 200 }).find((c) => c.name === 'Three mistakes')!.toCheck).toBe(3);
  });
  it('are found by their blocks, device and label, and stand by date, name or device', () => {
    const make = (name: string, at: number, kit: Kit, ...steps: Step[]) =>
      createProject(store, { ...newProject(name, kit, longAisle), program: program(start(...steps)) }, { at }).id;
    const a = make('anemone', 1000, barrow, b('drive.measure'));
    make('Bluebell', 3000, trowel, b('sound.beep'));
    const c = make('clover', 2000, barrow, b('repeat.times', {}, { do: [b('sound.beep')] }));
    const names = (which: Parameters<typeof listProjects>[1]) => listProjects(store, which).map((p) => p.name);
    expect(names({})).toEqual(['Bluebell', 'clover', 'anemone']);
    expect(names({ order: 'name' })).toEqual(['anemone', 'Bluebell', 'clover']);
    expect(names({ order: 'device' })).toEqual(['clover', 'anemone', 'Bluebell']);
    // by what a block is called, and by what else one would call it
    expect(names({ words: 'beep' })).toEqual(['Bluebell', 'clover']);
    expect(names({ words: 'forward' })).toEqual(['anemone']);
    expect(names({ words: 'trowel' })).toEqual(['Bluebell']);
    expect(names({ words: 'be' })).toEqual(['Bluebell']);
    expect([
      labelProject(store, a, 'Monday'),
      labelProject(store, c, 'bench'),
      labelProject(store, 'nobody', 'x')
    ]).toEqual([true, true, false]);
    expect(listLabels(store)).toEqual(['bench', 'Monday']);
    expect([names({ label: 'Monday' }), names({ words: 'mond' })]).toEqual([['anemone'], ['anemone']]);
    expect(renameProject(store, a, 'aster')).toMatchObject({ ok: true });
    expect([openProject(store, a)!.project.name, listVersions(store, a).length, names({ label: 'Monday' })]).toEqual([
      'aster',
      2,
      ['aster']
    ]);
    // another save keeps the label, and finds what is new
    const { version, project } = openProject(store, a)!;
    saveProject(store, a, version, { ...project, program: program(start(log('x'))) });
    expect([names({ label: 'Monday' }), names({ words: 'forward' })]).toEqual([['aster'], []]);
    deleteProject(store, c);
    expect(listLabels(store)).toEqual(['Monday']);
    expect(renameProject(store, 'nobody', 'x')).toBeUndefined();
  });
  it('of the demo stand in their groups, each in one, also on a shelf that was laid before there were any', () => {
    seed(store);
    const all = listProjects(store, { demo: true, most: 200 });
    const groups = new Set(all.map((p) => p.label));
    expect([all.length, groups.size, groups.has('')]).toEqual([demoProjects().length, 5, false]);
    store.update(projects).set({ label: '' }).run();
    seed(store);
    expect(listProjects(store, { demo: true, most: 200 }).map((p) => p.label)).toEqual(all.map((p) => p.label));
    expect(all.filter((p) => p.label === 'The hand board').every((p) => p.device === 'trowel')).toBe(true);
  });
  it('are known by a picture of their blocks', () => {
    const bars = thumb(program(start(b('repeat.times', {}, { do: [b('drive.measure')] }), { ...log('x'), off: true })));
    expect(bars.map((x) => [x.family, x.indent, x.faded])).toEqual([
      ['order', 0, false],
      ['order', 0, false],
      ['act', 1, false],
      ['think', 0, true]
    ]);
    const drawn = '#...... ....... ....... ....... .......';
    const [, drive, sum, face] = thumb(
      program(
        start(
          b('drive.measure', { amount: 80, power: 60 }),
          log({ ...b('calc.sum', { a: 1.5, sign: '+', b: 2 }) }),
          b('picture.show', { picture: { picture: drawn } })
        )
      )
    );
    expect([drive.section, drive.figures]).toEqual(['move', ['80', '60']]);
    expect(sum.figures).toEqual(['1.5', '2']);
    expect(face.picture).toBe(drawn);
    expect(
      textThumb('from machine import Pin\n\nfor _ in range(3):\n    beep()\n# end').map((x) => [
        x.indent,
        x.faded,
        x.figures
      ])
    ).toEqual([
      [0, false, ['3']],
      [1, false, []],
      [0, true, []]
    ]);
  });
});
