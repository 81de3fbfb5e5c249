import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { b, hall, program, run, start } from '../../../core/testing/build.ts';
import { writeRun } from '../../../core/trace/runfile.ts';
import { openDatabase, type Store } from './database.ts';
import { createProject, deleteProject } from './projects.ts';
import { changeRun, deleteRun, KEPT_RUNS, keepRun, listRuns, runFile } from './runs.ts';

const p = program(start(b('drive.measure', { amount: 5 })));
const project = { ...newProject('Errand', barrow, hall), program: p };
const trace = run(p);
const file = writeRun({ name: 'try', kind: 'rehearsal', project, trace }, false);
const whole = writeRun({ name: 'try', kind: 'rehearsal', project, trace });

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

describe('runs that are kept', () => {
  it('come back as they went in, the newest first; they get names and are pinned whole', () => {
    const { id } = createProject(store, project);
    const first = keepRun(store, id, file, trace.ticks, 1000);
    const second = keepRun(store, id, file, trace.ticks, 2000);
    if (!first || !second || typeof first === 'string' || typeof second === 'string') throw new Error('not kept');
    expect(listRuns(store, id).map((r) => r.id)).toEqual([second.id, first.id]);
    expect(listRuns(store, id)[0]).toMatchObject({
      name: 'try',
      kind: 'rehearsal',
      ended: 'done',
      ms: trace.ticks,
      pinned: false
    });
    expect(runFile(store, first.id)).toBe(file);
    expect(changeRun(store, first.id, { name: 'the good one', pinned: true, file: whole })).toBe(true);
    expect(runFile(store, first.id)).toBe(whole);
    expect(changeRun(store, first.id, { file: 'nonsense' })).toBe(false);
    expect(runFile(store, first.id)).toBe(whole);
    expect(changeRun(store, 'nobody', { name: 'x' })).toBe(false);
    expect(deleteRun(store, second.id)).toBe(true);
    expect(deleteRun(store, second.id)).toBe(false);
    expect(listRuns(store, id)).toHaveLength(1);
  });
  it('make room for newer ones, but for those that are pinned', () => {
    const { id } = createProject(store, project);
    const pinned = keepRun(store, id, file, 1, 1);
    if (!pinned || typeof pinned === 'string') throw new Error('not kept');
    changeRun(store, pinned.id, { pinned: true });
    for (let i = 0; i < KEPT_RUNS + 5; i++) keepRun(store, id, file, 1, 10 + i);
    const list = listRuns(store, id);
    expect(list).toHaveLength(KEPT_RUNS + 1);
    expect(list.at(-1)!.id).toBe(pinned.id);
    expect(list[0].at).toBe(10 + KEPT_RUNS + 4);
  });
  it('are refused with a sentence, need a project, and go with it', () => {
    const { id } = createProject(store, project);
    expect(keepRun(store, id, 'nonsense', 1)).toContain('is not a run');
    expect(keepRun(store, 'nobody', file, 1)).toBeUndefined();
    keepRun(store, id, file, 1);
    deleteProject(store, id);
    expect(listRuns(store, id)).toEqual([]);
  });
});
