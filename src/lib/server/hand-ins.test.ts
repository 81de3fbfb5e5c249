/** What is said of what was handed in is what the server found, in a real database, with the real pool of workers. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Program } from '../../../core/language/program.ts';
import { rehearse } from '../../../core/run/interpreter.ts';
import { fromText } from '../../../core/testing/text.ts';
import { writeRun } from '../../../core/trace/runfile.ts';
import { ship } from '../../../demo/seed.ts';
import { named } from '../class/folded.ts';
import { runHandedIn } from './again.ts';
import { makeClass } from './classes.ts';
import { openDatabase, type Store } from './database.ts';
import { addErrand, openErrand, putAway } from './errands.ts';
import { give, openGiven } from './given.ts';
import { collected, handedIn, handIn, lastHandIn, listHandIns } from './hand-ins.ts';
import { openProject, saveProject } from './projects.ts';
import { keepRun } from './runs.ts';
import { errands, people, projects } from './schema.ts';
import { classShows } from './shows.ts';

const folder = mkdtempSync(join(tmpdir(), 'mossbell-hand-ins-'));
let store: Store;
const ERRAND = 'first-delivery';
beforeAll(() => {
  execFileSync('./mossbell', ['build-cli'], { stdio: 'ignore' });
  store = openDatabase(folder);
  ship(store);
  store
    .insert(people)
    .values({ id: 'ash', role: 'teacher', ...named('Ash'), secret: '', at: 1 })
    .run();
  makeClass(store, 'ash', 'A', 'en', 'a');
  give(store, 'a', { kind: 'errand', target: ERRAND, group: '', fromAt: 0, untilAt: null }, 'g');
}, 300_000);
afterAll(() => rmSync(folder, { recursive: true }));

/** A pupil who has begun the errand, with a run that says that all goals were met. */
async function pupil(name: string): Promise<string> {
  store
    .insert(people)
    .values({ id: name, role: 'pupil', ...named(name), classId: 'a', secret: '', at: 1 })
    .run();
  const { id } = openGiven(store, name, 'g') as { id: string };
  const { project } = openProject(store, id)!;
  const trace = rehearse({ ...project, seed: 1, limitS: 5 });
  const file = gzipSync(await writeRun({ name: 'forged', kind: 'rehearsal', project, trace }, false));
  const result = { errand: ERRAND, met: true, got: 2, of: 2, changed: [] };
  expect(await keepRun(store, id, file, 1, { result })).toMatchObject({ name: 'forged' });
  return id;
}
const program = (id: string, what: Program): void => {
  const { project, version } = openProject(store, id)!;
  expect(saveProject(store, id, version, { ...project, program: what })?.ok).toBe(true);
};
const card = (id: string) => listHandIns(store, id)[0];

describe('what was handed in', () => {
  it('says what the browser said as a claim, and then what the server found', async () => {
    const id = await pupil('Wren');
    const made = handIn(store, id, 'Wren', 'done!')!;
    expect(card(id)).toMatchObject({ result: { met: true, got: 2, of: 2 }, claimed: true });
    expect(collected(store, 'a')).toMatchObject([{ nickname: 'Wren', result: { got: 2 }, claimed: true }]);
    await runHandedIn(store, made.id, made.givenId);
    // there was nothing in the program
    expect(card(id).result).toMatchObject({ met: false, of: 2 });
    expect(card(id).result!.got).toBeLessThan(2);
    expect(card(id).claimed).toBeUndefined();
  });
  it('that does what is asked is found to, also where the yard of the project was made easier', async () => {
    const id = await pupil('Newt');
    program(id, openErrand(store, ERRAND)!.model);
    const { project, version } = openProject(store, id)!;
    saveProject(store, id, version, { ...project, start: { x: 0.1, y: 0.1, facingDeg: 0 } });
    const made = handIn(store, id, 'Newt', '')!;
    await runHandedIn(store, made.id, made.givenId);
    expect(card(id)).toMatchObject({ result: { met: true, got: 2, of: 2 } });
    expect(card(id).claimed).toBeUndefined();
  });
  it('as a text is not run: what was said of it stays a claim', async () => {
    const id = await pupil('Heron');
    const { project, version } = openProject(store, id)!;
    saveProject(store, id, version, { ...project, text: 'from mossbell import *\n' });
    const made = handIn(store, id, 'Heron', '')!;
    await runHandedIn(store, made.id, made.givenId);
    expect(card(id)).toMatchObject({ result: { met: true }, claimed: true });
  });
  it('again counts instead of before, though the clock was set back an hour', async () => {
    const id = await pupil('Sorrel');
    const now = Date.now();
    const first = handIn(store, id, 'Sorrel', 'first', now)!;
    program(id, openErrand(store, ERRAND)!.model);
    const second = handIn(store, id, 'Sorrel', 'second', now - 3_600_000)!;
    expect(listHandIns(store, id).map((h) => h.note)).toEqual(['second', 'first']);
    expect(collected(store, 'a').find((c) => c.nickname === 'Sorrel')).toMatchObject({ handIn: second.id });
    expect(lastHandIn(store, id)?.at).toBe(now - 3_600_000);
    expect(handedIn(store, first.id)!.program).not.toEqual(handedIn(store, second.id)!.program);
  });
  it('is done and run in an errand that was given out, also once that is off the shelf', async () => {
    const id = addErrand(store, openErrand(store, ERRAND)!, 1, 'ash');
    give(store, 'a', { kind: 'errand', target: id, group: '', fromAt: 0, untilAt: null }, 'own');
    expect(putAway(store, errands, id, true)).toBe(true);
    store
      .insert(people)
      .values({ id: 'Rook', role: 'pupil', ...named('Rook'), classId: 'a', secret: '', at: 1 })
      .run();
    const begun = openGiven(store, 'Rook', 'own') as { id: string };
    program(begun.id, openErrand(store, ERRAND)!.model);
    const made = handIn(store, begun.id, 'Rook', '')!;
    await runHandedIn(store, made.id, made.givenId);
    expect(card(begun.id)).toMatchObject({ result: { errand: id, met: true } });
    expect(classShows(store, 'a', 'own')!.works).toMatchObject([{ nickname: 'Rook' }]);
  });
  it('tells the class a number without the other numbers of whoever came first', async () => {
    for (const [name, amount, power] of [
      ['Teal', 40, 100],
      ['Gull', 60, 30]
    ] as const) {
      const id = await pupil(name);
      const { project } = openProject(store, id)!;
      const drive = `wheels.drive(cm=${amount}, power=${power}, ending="brake")`;
      program(id, fromText(drive, project.kit));
      const now = openProject(store, id)!.project;
      const trace = rehearse({ ...now, seed: 1, limitS: 5 });
      const file = gzipSync(await writeRun({ name: 'try', kind: 'rehearsal', project: now, trace }, false));
      const result = { errand: ERRAND, met: false, got: 1, of: 2, changed: [] };
      await keepRun(store, id, file, 1, { result });
    }
    // the errand's own program coasts, theirs brake: that is not told of all either
    const says = classShows(store, 'a', 'g')!.slots.map((s) => s.says);
    expect(says.find((s) => s.startsWith('drive ahead ▢'))).toBe('drive ahead ▢ cm at ... %, ending in ...');
  });
  it('stays when its project is taken off the shelf', async () => {
    const id = await pupil('Linnet');
    const made = handIn(store, id, 'Linnet', '')!;
    store.update(projects).set({ deletedAt: 1 }).where(eq(projects.id, id)).run();
    await runHandedIn(store, made.id, made.givenId);
    expect(collected(store, 'a').find((c) => c.nickname === 'Linnet')).toMatchObject({
      handIn: made.id,
      result: { of: 2 }
    });
    expect(handedIn(store, made.id)).toBeDefined();
  });
});
