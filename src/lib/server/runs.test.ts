import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { b, hall, program, run, start } from '../../../core/testing/build.ts';
import { rehearse } from '../../../core/run/interpreter.ts';
import { writeRun } from '../../../core/trace/runfile.ts';
import { openDatabase, type Store } from './database.ts';
import { gzipSync } from 'node:zlib';
import { createProject, deleteProject, listDeleted } from './projects.ts';
import { changeRun, deleteRun, KEPT_RUNS, keepRun, listRuns, putRunFile, runFile } from './runs.ts';

const p = program(start(b('drive.measure', { amount: 5 })));
const project = { ...newProject('Errand', barrow, hall), program: p };
const trace = run(p);
const text = await writeRun({ name: 'try', kind: 'rehearsal', project, trace }, false);
const file = gzipSync(text);
const whole = await writeRun({ name: 'try', kind: 'rehearsal', project, trace });

let folder: string;
let store: Store;
// runs are read by a worker, which is compiled
beforeAll(() => void execFileSync('./mossbell', ['build-cli'], { stdio: 'ignore' }), 300_000);
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'mossbell-'));
  store = openDatabase(folder);
});
afterEach(() => {
  (store as unknown as { $client: { close(): void } }).$client.close();
  rmSync(folder, { recursive: true });
});

describe('runs that are kept', () => {
  it('come back as they went in, the newest first; they get names and are pinned whole', async () => {
    const { id } = createProject(store, project);
    const first = await keepRun(store, id, file, trace.ticks, { at: 1000 });
    const second = await keepRun(store, id, file, trace.ticks, { at: 2000 });
    if (!first || !second || typeof first === 'string' || typeof second === 'string') throw new Error('not kept');
    expect(listRuns(store, id).map((r) => r.id)).toEqual([second.id, first.id]);
    expect(listRuns(store, id)[0]).toMatchObject({
      name: 'try',
      kind: 'rehearsal',
      ended: 'done',
      ms: trace.ticks,
      pinned: false
    });
    expect(runFile(store, first.id)).toBe(text);
    expect(changeRun(store, first.id, { name: 'the good one', pinned: true })).toBe(true);
    expect(await putRunFile(store, first.id, gzipSync(whole))).toBe(true);
    expect(runFile(store, first.id)).toBe(whole);
    expect(await putRunFile(store, first.id, new Uint8Array(9))).toContain('not those of a compressed run file');
    expect(await putRunFile(store, first.id, gzipSync('nonsense'))).toContain('is not a run');
    expect(await putRunFile(store, 'nobody', gzipSync(whole))).toBeUndefined();
    expect(runFile(store, first.id)).toBe(whole);
    expect(changeRun(store, 'nobody', { name: 'x' })).toBe(false);
    expect(deleteRun(store, second.id)).toBe(true);
    expect(deleteRun(store, second.id)).toBe(false);
    expect(listRuns(store, id)).toHaveLength(1);
  });
  it('are refused where they unpack to more than a run can be, from outside or from within', async () => {
    const { id } = createProject(store, project);
    const bomb = gzipSync(Buffer.alloc(200e6, ' '));
    expect(bomb.length).toBeLessThan(260_000);
    // lines of a real run, with columns that unpack to far more than its ticks
    const lines = whole.split('\n');
    const column = lines.findIndex((line) => line.includes('"samples"'));
    const packed = gzipSync(Buffer.alloc(100e6)).toString('base64');
    const within = lines.with(column, JSON.stringify({ ...JSON.parse(lines[column]), samples: packed }));
    const many = [...lines.slice(0, -2), ...Array.from({ length: 400 }, () => lines[column]), ...lines.slice(-2)];
    const long = many.with(0, JSON.stringify({ ...JSON.parse(lines[0]), ticks: 3_600_000 }));
    const deep = lines.with(1, `${'['.repeat(1e6)}${']'.repeat(1e6)}`);
    expect(await keepRun(store, id, bomb, 1)).toContain('not those of a compressed run file');
    const began = process.memoryUsage().rss;
    for (const text of [within, long, deep]) {
      const kept = await keepRun(store, id, gzipSync(text.join('\n')), 1);
      // the lines that are none are left out; what is kept is what came
      expect(kept).toMatchObject({ name: 'try' });
    }
    expect(process.memoryUsage().rss - began).toBeLessThan(700e6);
  });
  it('of two minutes that never waited take less than 2 MB to send, with what makes them again, and whole', async () => {
    const busy = program(
      start(
        b('wheels.run', { left: 18, right: 24 }),
        b('repeat.ever', {}, { do: [b('display.dark'), b('pixel.set', { to: 'on' }), b('var.change')] })
      )
    );
    const run = { name: '', kind: 'rehearsal' as const, project: { ...project, program: busy } };
    const long = rehearse({ program: busy, kit: barrow, mat: hall, seed: 1, limitS: 120 });
    expect(long.ticks).toBe(120_000);
    expect(gzipSync(await writeRun({ ...run, trace: long }, false)).length).toBeLessThan(10_000);
    expect(gzipSync(await writeRun({ ...run, trace: long })).length).toBeLessThan(2e6);
  });
  it('make room for newer ones, but for those that are pinned', async () => {
    const { id } = createProject(store, project);
    const pinned = await keepRun(store, id, file, 1, { at: 1 });
    if (!pinned || typeof pinned === 'string') throw new Error('not kept');
    changeRun(store, pinned.id, { pinned: true });
    for (let i = 0; i < KEPT_RUNS + 5; i++) await keepRun(store, id, file, 1, { at: 10 + i });
    const list = listRuns(store, id);
    expect(list).toHaveLength(KEPT_RUNS + 1);
    expect(list.at(-1)!.id).toBe(pinned.id);
    expect(list[0].at).toBe(10 + KEPT_RUNS + 4);
  });
  it('are refused with a sentence, need a project, and go with it', async () => {
    const { id } = createProject(store, project);
    expect(await keepRun(store, id, gzipSync('nonsense'), 1)).toContain('is not a run');
    expect(await keepRun(store, 'nobody', file, 1)).toBeUndefined();
    await keepRun(store, id, file, 1);
    // off the shelf they wait with it; after 30 days all of it is gone
    deleteProject(store, id, 1000);
    expect(listRuns(store, id)).toHaveLength(1);
    listDeleted(store, 1000 + 31 * 86_400_000);
    expect(listRuns(store, id)).toEqual([]);
  });
});
