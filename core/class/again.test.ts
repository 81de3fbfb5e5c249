/** What is handed in runs again in the world of the teacher's errand, whatever the pupil's project says. */
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { projectOf, type Errand } from '../errand/errand.ts';
import { newProject } from '../project.ts';
import { barrow } from '../kit/kit.ts';
import { b, hall, program, start } from '../testing/build.ts';
import { runAgain } from './again.ts';

const errand = JSON.parse(
  readFileSync(new URL('../../demo/errands/first-delivery.mossbell-errand.json', import.meta.url), 'utf8')
) as Errand;
const handed = { ...projectOf(errand), program: errand.model };
type Came = Exclude<ReturnType<typeof runAgain>, { text: true }>;

it('the model meets all goals, a wrong program misses those that it is to miss', () => {
  const model = runAgain(handed, errand) as Came;
  expect(model).toMatchObject({ goals: [true, true], met: true, ended: 'done', blocks: 1 });
  // 65 cm ahead of 30 cm from the edge, within the kit sheet's precision
  expect(model.stop.x).toBeCloseTo(0.95, 1);
  expect(model.seconds).toBeGreaterThan(1);
  const wrong = runAgain({ ...handed, program: errand.wrong[1].program }, errand) as Came;
  expect(wrong).toMatchObject({ goals: [false, true], met: false });
  expect(wrong.told[0]?.says).toContain('rolled on');
});
it('goals and mat that were made easier in the project count for nothing', () => {
  const easier = {
    ...handed,
    program: errand.given,
    errand: { ...handed.errand!, goals: [{ kind: 'touch-nothing' }] as never },
    mat: { ...handed.mat, hoops: handed.mat.hoops.map((h) => ({ ...h, radius: 2 })) }
  };
  expect(runAgain(easier, errand)).toMatchObject({ goals: [false, true], met: false });
});
it('without an errand it runs as it stands; a text is told to be one', () => {
  const free = { ...newProject('Free', barrow, hall), program: program(start(b('drive.measure', { amount: 10 }))) };
  expect(runAgain(free)).toMatchObject({ goals: [], met: false, ended: 'done' });
  expect(runAgain({ ...free, text: 'from mossbell import *' })).toEqual({ text: true });
});
it('it starts where the errand says, whatever the project says, and for as long as any run', () => {
  const moved = { ...handed, program: errand.model, start: { x: 0.9, y: 0.3, facingDeg: 90 } };
  expect((runAgain(moved, errand) as Came).stop.x).toBeCloseTo(0.95, 1);
  // a run without an errand is ended after the usual time, and not sooner
  const long = { ...newProject('Long', barrow, hall), program: program(start(b('wait.time', { time: 20 }))) };
  expect(runAgain(long)).toMatchObject({ ended: 'done' });
});
