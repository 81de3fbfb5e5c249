/** The errands on this school computer, in a real database. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Errand } from '../../../core/errand/errand.ts';
import { judged, resultFrom } from '../../../core/errand/verdict.ts';
import { tryOut } from '../../../core/errand/try.ts';
import { inItsYard, yardsOf } from '../../../core/errand/yards.ts';
import { openProject } from './projects.ts';
import { writeRun } from '../../../core/trace/runfile.ts';
import { ship } from '../../../demo/seed.ts';
import { openDatabase } from './database.ts';
import { addErrand, beginErrand, listErrands, openErrand, putAway, shipErrands, wholeErrand } from './errands.ts';
import { copyOfLink, linkTo, openLink } from './links.ts';
import { errands } from './schema.ts';
import { KEPT_RUNS, keepRun, listRuns } from './runs.ts';

const folder = mkdtempSync(join(tmpdir(), 'mossbell-errands-'));
const store = openDatabase(folder);
// runs are read by a worker, which is compiled
beforeAll(() => void execFileSync('./mossbell', ['build-cli'], { stdio: 'ignore' }), 300_000);
afterAll(() => rmSync(folder, { recursive: true }));
const first = JSON.parse(
  readFileSync(new URL('../../../demo/errands/first-delivery.mossbell-errand.json', import.meta.url), 'utf8')
) as Errand;

describe('errands on the shelf', () => {
  it('ship with Moss Bell, the easiest first, also on a shelf that had others; what ships is renewed', () => {
    shipErrands(store, [{ ...first, name: 'An old name' }]);
    ship(store);
    ship(store);
    const list = listErrands(store);
    expect(list).toHaveLength(13);
    expect(list.map((e) => e.level)).toEqual([...list.map((e) => e.level)].sort());
    expect(list.find((e) => e.id === 'first-delivery')).toMatchObject({
      name: first.name,
      ships: true,
      tries: 0,
      goals: 2
    });
    expect(putAway(store, errands, 'first-delivery', true)).toBe(false);
  });
  it('come in from files under an id of their own, are taken off and put back', () => {
    expect(addErrand(store, first)).toBe('first-delivery-2');
    expect(addErrand(store, first)).toBe('first-delivery-3');
    expect(openErrand(store, 'first-delivery-3')!.id).toBe('first-delivery-3');
    expect(putAway(store, errands, 'first-delivery-3', true)).toBe(true);
    expect(openErrand(store, 'first-delivery-3')).toBeUndefined();
    expect(putAway(store, errands, 'first-delivery-3', false)).toBe(true);
    expect(openErrand(store, 'nowhere')).toBeUndefined();
  });
  it('give their solution to their author and to teachers, and to nobody by a link, a copy or a project', () => {
    const [ash, wren, newt] = [
      { id: 'ash', role: 'teacher' },
      { id: 'wren', role: 'pupil' },
      { id: 'newt', role: 'guest' }
    ] as const;
    const own = addErrand(store, first, 1, 'wren');
    const link = linkTo(store, 'errand', own);
    const copy = copyOfLink(store, link, 'newt')!.id;
    const has = (id: string) => [ash, wren, newt].map((who) => typeof wholeErrand(store, id, who) === 'object');
    expect([has('first-delivery'), has(own), has(copy)]).toEqual([
      [true, false, false],
      [true, true, false],
      [true, false, false]
    ]);
    // who took a copy may have it off their shelf again, and pass it on
    expect(listErrands(store, newt).find((e) => e.id === copy)).toMatchObject({ own: true, whole: false });
    const again = copyOfLink(store, linkTo(store, 'errand', copy), 'wren')!.id;
    expect(has(again)).toEqual([true, false, false]);
    for (const seen of [openLink(store, link), listErrands(store, newt), beginErrand(store, copy, 'newt')])
      expect(JSON.stringify(seen)).not.toMatch(/"(model|wrong|alsoRight)"/);
    for (const id of [own, copy, again]) putAway(store, errands, id, true);
  });
  it('are begun in their own yard, also where it lies on a photo', () => {
    const floor = { png: 'data:image/png;base64,iVBORw0KGgo=', columns: 2, rows: 1, grey: 'AGQ=' };
    const id = addErrand(store, { ...first, mat: { ...first.mat, floor } }, 1, 'wren');
    const begun = beginErrand(store, id, 'wren')!;
    const { project } = openProject(store, begun.id)!;
    expect(project.mat.floor).toEqual(floor);
    expect(inItsYard(project.errand!, project)).toBe(true);
    expect(inItsYard(project.errand!, { ...project, mat: first.mat })).toBe(false);
    putAway(store, errands, id, true);
  });
  it('know their tries: each is kept with what came of it, more of them than of other runs', async () => {
    const { id, project } = beginErrand(store, 'first-delivery')!;
    const task = project.errand!;
    expect([task.id, JSON.stringify(project)]).toEqual(['first-delivery', expect.not.stringContaining('"wrong"')]);
    const keep = async (program: Errand['model'], at: number) => {
      const trace = tryOut(task, yardsOf(task, project)[0], program);
      const verdict = judged(task, { trace, mat: project.mat, program });
      const run = {
        name: 'A try',
        at: '2026-05-01T08:30:00.000Z',
        kind: 'rehearsal' as const,
        project,
        trace,
        predictions: []
      };
      const file = gzipSync(await writeRun(run, false));
      return keepRun(store, id, file, trace.ticks, {
        at,
        result: { ...resultFrom(task, verdict, trace, program), changed: [] }
      });
    };
    await keep(first.given, 1);
    const card = await keep(first.model, 2);
    expect(card).toMatchObject({ result: { errand: 'first-delivery', met: true, got: 2, of: 2, blocks: 1 } });
    const [met, missed] = listRuns(store, id);
    expect(met.result!.seconds).toBeGreaterThan(3);
    expect(missed.result!.nearest).toMatchObject({ goal: 0, unit: 'cm' });
    expect(missed.result!.nearest!.amount).toBeCloseTo(16.3, 0);
    expect(listErrands(store).find((e) => e.id === 'first-delivery')).toMatchObject({ tries: 2, met: 1 });
    for (let i = 0; i < KEPT_RUNS; i++) await keep(first.given, 10 + i);
    expect(listRuns(store, id)).toHaveLength(KEPT_RUNS + 2);
  }, 120_000);
});
