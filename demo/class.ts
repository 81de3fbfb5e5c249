/** The class of the demo: the Tuesday workshop, in the middle of its hour. Everybody in it is made up. */
import '../core/run/exact-math.ts';
import { gzipSync } from 'node:zlib';
import { eq } from 'drizzle-orm';
import { projectOf, type Errand } from '../core/errand/errand.ts';
import { tryOut } from '../core/errand/try.ts';
import { yardsOf } from '../core/errand/yards.ts';
import { judged, resultFrom } from '../core/errand/verdict.ts';
import { allSteps, programOf, type Program } from '../core/language/program.ts';
import { findings } from '../core/trace/findings/findings.ts';
import { writeRun } from '../core/trace/runfile.ts';
import { toldOf } from '../core/trace/told.ts';
import { named } from '../src/lib/class/folded.ts';
import { runHandedIn } from '../src/lib/server/again.ts';
import { makeClass } from '../src/lib/server/classes.ts';
import { give } from '../src/lib/server/given.ts';
import type { Store } from '../src/lib/server/database.ts';
import { DEMO_TEACHER, DEMO_WORDS } from '../src/lib/server/demo.ts';
import { openErrand } from '../src/lib/server/errands.ts';
import { comment, handIn } from '../src/lib/server/hand-ins.ts';
import { hasTeacher, makeTeacher } from '../src/lib/server/people.ts';
import { createProject, saveProject } from '../src/lib/server/projects.ts';
import { keepRun } from '../src/lib/server/runs.ts';
import { people, projects } from '../src/lib/server/schema.ts';
import { seal } from '../src/lib/server/keys.ts';
import { drawId, hashSecret } from '../src/lib/server/secrets.ts';

const ERRAND = 'first-delivery';
const MINUTE_MS = 60_000;
type Try = { amount: number; power: number; ending: 'brake' | 'coast'; ago: number };
type Works = { nickname: string; group?: string; tries: Try[]; note?: string; handUp?: number; said?: string };
const drive = (amount: number, ago: number, power = 50, ending: 'brake' | 'coast' = 'coast'): Try => ({
  amount,
  power,
  ending,
  ago
});
/** Who tried what, and how many minutes ago. */
const WORKS: readonly Works[] = [
  {
    nickname: 'Wren',
    group: 'Wheels',
    tries: [drive(40, 21), drive(60, 18), drive(65, 15), drive(65, 12, 50, 'brake')],
    note: 'It rolled on, so I let it brake.'
  },
  { nickname: 'Teasel', group: 'Wheels', tries: [drive(40, 22), drive(70, 19), drive(68, 4)] },
  {
    nickname: 'Newt',
    group: 'Wheels',
    tries: [drive(40, 20), drive(65, 16, 100), drive(65, 13, 100), drive(65, 9, 100)],
    handUp: 3,
    said: 'What changes when you drive slower?'
  },
  {
    nickname: 'Sorrel',
    group: 'Wheels',
    tries: [drive(60, 17), drive(63, 14, 50, 'brake'), drive(65, 11, 50, 'brake')],
    note: '65 and brake'
  },
  { nickname: 'Bramble', group: 'Wheels', tries: [drive(120, 16, 100)] },
  {
    nickname: 'Siskin',
    group: 'Wheels',
    tries: [drive(40, 21), drive(50, 18), drive(55, 15), drive(58, 11), drive(59, 6), drive(57, 2)]
  },
  {
    nickname: 'Clover',
    group: 'Levers',
    tries: [drive(65, 19), drive(65, 15, 30), drive(65, 12, 30, 'brake')],
    note: 'Slow is better.'
  },
  { nickname: 'Plover', group: 'Levers', tries: [drive(40, 18), drive(80, 12, 80)] },
  { nickname: 'Yarrow', group: 'Levers', tries: [drive(40, 14), drive(71, 8, 60)], handUp: 7 },
  { nickname: 'Linnet', group: 'Levers', tries: [] },
  { nickname: 'Heron', group: 'Levers', tries: [drive(66, 17), drive(72, 10, 50, 'brake')] },
  { nickname: 'Mallow', group: 'Levers', tries: [drive(40, 20), drive(64, 13, 40)] }
];
function withTry(errand: Errand, { amount, power, ending }: Try): Program {
  const program = structuredClone(errand.given);
  for (const step of allSteps(program))
    if ('amount' in step.slots) Object.assign(step.slots, { amount, power, ending });
  return program;
}
/** Makes teacher and class where nobody teaches yet. @returns whether they were made */
export async function seedClass(store: Store, now = Date.now()): Promise<boolean> {
  const errand = openErrand(store, ERRAND);
  if (!errand || hasTeacher(store)) return false;
  const { id: teacherId, nickname, passphrase } = DEMO_TEACHER;
  await makeTeacher(store, nickname, passphrase, teacherId, 0);
  const classId = makeClass(store, teacherId, 'Tuesday workshop', 'en', 'demo-class');
  const givenId = give(store, classId, {
    kind: 'errand',
    target: ERRAND,
    group: '',
    fromAt: now - 25 * MINUTE_MS,
    untilAt: null
  })!;
  give(store, classId, { kind: 'lesson', target: 'first-wheels', group: 'Levers', fromAt: now, untilAt: null });
  const secret = await hashSecret(DEMO_WORDS);
  for (const works of WORKS) {
    const pupilId = drawId();
    store
      .insert(people)
      .values({
        id: pupilId,
        role: 'pupil',
        ...named(works.nickname),
        classId,
        secret,
        card: seal(DEMO_WORDS),
        group: works.group,
        handUpAt: works.handUp === undefined ? null : now - works.handUp * MINUTE_MS,
        at: 0
      })
      .run();
    await work(store, errand, { ...works, pupilId, teacherId, givenId, now });
  }
  return true;
}
async function work(
  store: Store,
  errand: Errand,
  {
    tries,
    note,
    said,
    pupilId,
    teacherId,
    givenId,
    now
  }: Works & { pupilId: string; teacherId: string; givenId: string; now: number }
): Promise<void> {
  if (!tries.length) return;
  const begun = now - (tries[0].ago + 1) * MINUTE_MS;
  const { id, ...made } = createProject(store, projectOf(errand), { owner: pupilId, at: begun });
  let { project, version } = made;
  store.update(projects).set({ givenId, driver: pupilId }).where(eq(projects.id, id)).run();
  for (const one of tries) {
    const at = now - one.ago * MINUTE_MS;
    project = { ...project, program: withTry(errand, one) };
    const saved = saveProject(store, id, version, project, at - 20_000);
    if (!saved?.ok) throw new Error('The demo class could not be laid out.');
    version = saved.version;
    const trace = tryOut(errand, yardsOf(errand, project)[0], project.program);
    const verdict = judged(errand, { trace, mat: project.mat, program: project.program });
    const run = {
      name: new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }),
      at: new Date(at).toISOString(),
      kind: 'rehearsal' as const,
      project,
      trace,
      predictions: []
    };
    await keepRun(store, id, gzipSync(await writeRun(run, false)), trace.ticks, {
      at,
      result: { ...resultFrom(errand, verdict, trace, programOf(project)), changed: [] },
      told: toldOf(findings(trace, project.kit, project.program))
    });
  }
  if (note) {
    const made = handIn(store, id, pupilId, note, now - (tries.at(-1)!.ago - 1) * MINUTE_MS)!;
    await runHandedIn(store, made.id, made.givenId);
  }
  const step = [...allSteps(project.program)].find((s) => 'amount' in s.slots);
  if (said) comment(store, id, teacherId, step?.id ?? null, said);
}
