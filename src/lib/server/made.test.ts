import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { mats } from '../../../core/yard/mats.ts';
import { seed } from '../../../demo/seed.ts';
import { openDatabase } from './database.ts';
import { listMade } from './made.ts';
import { createProject, deleteProject, openProject } from './projects.ts';

const folder = mkdtempSync(join(tmpdir(), 'mossbell-made-'));
const store = openDatabase(folder);
afterAll(() => rmSync(folder, { recursive: true }));

it('finds mats and machines that are neither those that ship nor those of a demo project, each once, the newest first', () => {
  seed(store);
  expect(listMade(store)).toEqual([]);
  createProject(store, newProject('Plain', barrow, mats[0]));
  // a demo project opened as a copy has nothing of one's own
  createProject(store, openProject(store, 'demo-signal-post')!.project);
  expect(listMade(store)).toEqual([]);
  const mat = { ...mats[0], name: 'Back yard' };
  const one = createProject(store, newProject('One', barrow, mat), { at: Date.now() + 1000 });
  createProject(store, newProject('Two', { ...barrow, name: 'Limping barrow' }, mat), {
    at: Date.now() + 2000
  });
  const made = listMade(store);
  expect(made.map(({ kind, name, project }) => [kind, name, project])).toEqual([
    ['mat', 'Back yard', 'Two'],
    ['kit', 'Limping barrow', 'Two']
  ]);
  deleteProject(store, made[0].id);
  expect(listMade(store).map(({ name, project }) => [name, project])).toEqual([['Back yard', 'One']]);
  expect(one.id).toBe(listMade(store)[0].id);
});
