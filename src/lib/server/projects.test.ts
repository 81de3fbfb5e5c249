/** The repository against a real SQLite file. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { demoProjects, seed } from '../../../demo/seed.ts';
import { barrow } from '../../../core/kit/kit.ts';
import { lookOver, remarkKey } from '../../../core/language/lookover/lookover.ts';
import { newProject } from '../../../core/project.ts';
import { b, log, program, start } from '../../../core/testing/build.ts';
import { longAisle } from '../../../core/yard/mats.ts';
import { thumb } from '../shelf/thumb.ts';
import { openDatabase, type Store } from './database.ts';
import { createProject, deleteProject, listProjects, openProject, saveProject } from './projects.ts';

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
  it('keep the newest 200 versions', () => {
    const { id, version: first } = createProject(store, pots());
    let version = first;
    for (let i = 0; i < 210; i++) {
      const saved = saveProject(store, id, version, { ...pots(), name: `Pots ${i}` });
      if (!saved?.ok) throw new Error('not saved');
      version = saved.version;
    }
    const count = (store as unknown as { $client: { prepare(q: string): { get(): { n: number } } } }).$client
      .prepare('select count(*) as n from versions')
      .get().n;
    expect(count).toBe(200);
    expect(openProject(store, id)!.project.name).toBe('Pots 209');
  });
  it('of the demo are laid on an empty shelf once, and can be neither written nor taken off', () => {
    expect(seed(store)).toBe(demoProjects().length);
    expect(seed(store)).toBe(0);
    const [card] = listProjects(store);
    const { version, project } = openProject(store, card.id)!;
    expect(saveProject(store, card.id, version, project)).toBeUndefined();
    expect(deleteProject(store, card.id)).toBe(false);
    expect(listProjects(store).find((c) => c.name === 'Three mistakes')!.toCheck).toBe(3);
  });
  it('are known by a picture of their blocks', () => {
    const bars = thumb(program(start(b('repeat.times', {}, { do: [b('drive.measure')] }), { ...log('x'), off: true })));
    expect(bars.map((x) => [x.family, x.indent, x.faded])).toEqual([
      ['order', 0, false],
      ['order', 0, false],
      ['act', 1, false],
      ['think', 0, true]
    ]);
  });
});
