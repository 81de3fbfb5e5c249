/**
 * Every route and method of the table, asked by everybody who may stand to a thing in some way, in every state that the thing
 * may be in. Who is let in stands here in words of the room, not of the rules; a route that has no line fails.
 */
import { eq } from 'drizzle-orm';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { hall } from '../../../core/testing/build.ts';
import { ship } from '../../../demo/seed.ts';
import { named } from '../class/folded.ts';
import { mayNot, RULES } from './access.ts';
import { addHelper, makeClass } from './classes.ts';
import { openDatabase, type Store } from './database.ts';
import { addErrand, openErrand, putAway } from './errands.ts';
import { give } from './given.ts';
import { comment, handIn, listComments } from './hand-ins.ts';
import { addLesson, openLesson } from './lessons.ts';
import { linkTo } from './links.ts';
import { guestOf, type Who } from './people.ts';
import { createProject, deleteProject } from './projects.ts';
import { beginRound } from './rounds.ts';
import { errands, people, projects, rounds, runs } from './schema.ts';

/** How somebody stands to a pupil, Wren, and to Wren's class. */
const RELATIONS = [
  'own',
  'partner',
  'classmate',
  'teacher',
  'helper',
  'other teacher',
  'other pupil',
  'guest'
] as const;
type Relation = (typeof RELATIONS)[number];
const EVERYBODY: Relation[] = [...RELATIONS];
const TEACHERS: Relation[] = ['teacher', 'helper', 'other teacher'];
const PUPILS: Relation[] = ['own', 'partner', 'classmate', 'other pupil'];
const ROOM: Relation[] = ['own', 'partner', 'classmate'];
const BOTH: Relation[] = ['teacher', 'helper'];
/** What a thing of Wren's may be: alone, begun with a partner who drives, and so on. */
const STATES = ['alone', 'pair', 'shown', 'asked', 'linked', 'off the shelf', 'given'] as const;
type State = (typeof STATES)[number];

let store: Store;
const folder = mkdtempSync(join(tmpdir(), 'mossbell-roles-'));
afterAll(() => rmSync(folder, { recursive: true }));
let who: Record<Relation, Who>;
/** of each state: what the address of a route has in its places */
const things = {} as Record<State, Record<string, string>>;

function person(role: 'teacher' | 'pupil', id: string, classId?: string): Who {
  store
    .insert(people)
    .values({ id, role, ...named(id), classId, secret: '', at: 1 })
    .run();
  return { id, role, nickname: id, ...(classId ? { classId } : {}) };
}
beforeAll(() => {
  store = openDatabase(folder);
  ship(store);
  const [ash, elm, yew] = ['ash', 'elm', 'yew'].map((id) => person('teacher', id));
  const a = makeClass(store, 'ash', 'A', 'en', 'class-a');
  const b = makeClass(store, 'yew', 'B', 'en', 'class-b');
  addHelper(store, a, { id: 'elm', nickname: 'elm' });
  who = {
    own: person('pupil', 'wren', a),
    partner: person('pupil', 'newt', a),
    classmate: person('pupil', 'sorrel', a),
    teacher: ash,
    helper: elm,
    'other teacher': yew,
    'other pupil': person('pupil', 'heron', b),
    guest: guestOf('a browser')
  };
  give(store, a, { kind: 'errand', target: 'first-delivery', group: '', fromAt: 0, untilAt: null }, 'given-a');
  for (const state of STATES) {
    const { id } = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' });
    const token = linkTo(store, 'project', id);
    store
      .update(projects)
      .set({
        label: state,
        ...(state === 'pair' ? { partner: 'newt', driver: 'newt' } : {}),
        ...(state === 'shown' ? { shown: 'yes' as const } : state === 'asked' ? { shown: 'asked' as const } : {}),
        ...(state === 'given' ? { givenId: 'given-a' } : {})
      })
      .where(eq(projects.id, id))
      .run();
    comment(store, id, 'ash', null, 'Well');
    const run = `run ${state}`;
    const row = { at: 1, name: '', kind: 'rehearsal' as const, device: '', ended: '', ms: 1, file: Buffer.from('') };
    store
      .insert(runs)
      .values({ id: run, projectId: id, ...row })
      .run();
    const errand = addErrand(store, openErrand(store, 'first-delivery')!, 1, 'wren');
    const lesson = addLesson(store, { lesson: openLesson(store, 'first-wheels')!.lesson, errands: [] }, 1, 'wren');
    beginRound(store, a, id, `round ${state}`);
    things[state] = {
      project: id,
      run,
      errand,
      lesson,
      token,
      comment: String(listComments(store, id, 'ash')[0].id),
      handIn: handIn(store, id, 'wren', '')!.id,
      round: `round ${state}`,
      class: a,
      given: 'given-a',
      pupil: 'wren',
      teacher: 'elm'
    };
    if (state === 'off the shelf') {
      deleteProject(store, id);
      putAway(store, errands, errand, true);
    }
  }
  expect(store.select().from(rounds).all().length).toBe(STATES.length);
});

type Line = Relation[] | (Partial<Record<State, Relation[]>> & { else: Relation[] });
/** Who reads a project, who writes in it, and between whom it is. */
const READ: Line = {
  pair: ['own', 'partner', ...BOTH],
  shown: [...ROOM, ...BOTH],
  else: ['own', ...BOTH]
};
const WRITE: Line = { pair: ['partner'], else: ['own'] };
const MINE: Line = { pair: ['own', 'partner'], else: ['own'] };
const BETWEEN: Line = { pair: ['own', 'partner', ...BOTH], else: ['own', ...BOTH] };
const FINDS: Relation[] = ['own', ...BOTH];
/** what stands in the place of [id] */
const LINES: Record<string, { id?: string; says: Record<string, Line> }> = {
  '/api/deleted': { says: { GET: EVERYBODY } },
  '/api/errands': { says: { GET: EVERYBODY, POST: EVERYBODY } },
  '/api/errands/[id]': { id: 'errand', says: { GET: FINDS, POST: FINDS, DELETE: ['own'] } },
  '/api/errands/[id]/yard': { id: 'errand', says: { GET: FINDS } },
  '/api/errands/[id]/link': { id: 'errand', says: { POST: ['own'], DELETE: ['own'] } },
  '/api/hand': { says: { POST: EVERYBODY } },
  '/api/hand/[code]': { says: { GET: EVERYBODY, POST: EVERYBODY, PUT: EVERYBODY } },
  '/api/lessons': { says: { GET: EVERYBODY, POST: EVERYBODY } },
  '/api/lessons/[id]': { id: 'lesson', says: { GET: FINDS, PUT: ['own'], POST: ['own'], DELETE: ['own'] } },
  '/api/lessons/[id]/reading': { id: 'lesson', says: { GET: FINDS, PUT: FINDS } },
  '/api/made': { says: { GET: EVERYBODY } },
  '/api/projects': { says: { GET: EVERYBODY, POST: EVERYBODY } },
  '/api/projects/[id]': { id: 'project', says: { GET: READ, PUT: WRITE, PATCH: WRITE, DELETE: WRITE, POST: MINE } },
  '/api/projects/[id]/runs': { id: 'project', says: { GET: READ, POST: WRITE } },
  '/api/projects/[id]/versions': { id: 'project', says: { GET: READ } },
  '/api/projects/[id]/versions/[version]': { id: 'project', says: { GET: READ } },
  '/api/projects/[id]/comments': { id: 'project', says: { GET: BETWEEN, POST: BOTH } },
  '/api/projects/[id]/comments/[comment]': {
    id: 'project',
    says: { PATCH: MINE, POST: BETWEEN, PUT: ['teacher'], DELETE: ['teacher'] }
  },
  '/api/projects/[id]/hand-ins': { id: 'project', says: { GET: BETWEEN, POST: MINE } },
  '/api/projects/[id]/hand-ins/[handIn]': { id: 'project', says: { GET: BETWEEN, DELETE: MINE } },
  '/api/projects/[id]/live': { id: 'project', says: { GET: READ } },
  '/api/projects/[id]/point': { id: 'project', says: { POST: BOTH } },
  '/api/projects/[id]/show': { id: 'project', says: { POST: BOTH, PUT: MINE } },
  '/api/projects/[id]/link': { id: 'project', says: { GET: BETWEEN, POST: MINE, DELETE: BETWEEN } },
  '/api/projects/[id]/drive': { id: 'project', says: { PUT: MINE } },
  '/api/runs/[id]': { id: 'run', says: { GET: READ, PATCH: WRITE, PUT: WRITE, DELETE: WRITE } },
  '/api/session': { says: { POST: EVERYBODY, DELETE: EVERYBODY } },
  '/api/live': { says: { GET: PUPILS } },
  '/api/open/[token]': { says: { GET: EVERYBODY, POST: EVERYBODY } },
  '/api/rounds/[id]': { id: 'round', says: { GET: [...ROOM, ...BOTH], PUT: ROOM, POST: BOTH } },
  '/api/rounds/[id]/live': { id: 'round', says: { GET: [...ROOM, ...BOTH] } },
  '/api/me': { says: { PATCH: [...PUPILS, ...TEACHERS], POST: [...PUPILS, ...TEACHERS] } },
  '/api/given': { says: { GET: PUPILS } },
  '/api/given/[id]': { id: 'given', says: { POST: ROOM } },
  // who may make a teacher is asked by the route itself: the first one has no rights yet
  '/api/teachers': { says: { POST: EVERYBODY } },
  '/api/teachers/[id]': { id: 'teacher', says: { DELETE: TEACHERS } },
  '/api/classes': { says: { POST: TEACHERS } },
  '/api/classes/[id]': { id: 'class', says: { PATCH: BOTH, POST: BOTH, DELETE: ['teacher'] } },
  '/api/classes/[id]/teachers': { id: 'class', says: { POST: ['teacher'], PUT: ['teacher'] } },
  '/class': { says: { GET: TEACHERS } },
  '/class/audit': { says: { GET: TEACHERS } }
};
/** All else of a class, pages and all, is its teachers’. */
const ofClass = (route: string): boolean => /^(\/api)?\/class(es)?\/\[id\]/.test(route);

const asked = Object.entries(RULES).flatMap(([route, methods]) =>
  Object.keys(methods).map((method) => [route, method] as const)
);
it.each(asked)('%s %s', (route, method) => {
  const line = LINES[route];
  const says = line ? line.says[method] : ofClass(route) ? BOTH : undefined;
  expect(says, 'a route that nobody thought of').toBeDefined();
  for (const state of STATES) {
    const thing = things[state];
    const params = { ...thing, id: thing[line?.id ?? 'class'] };
    const let_ = RELATIONS.filter((r) => !mayNot(store, who[r], route, method, params));
    // the lesson on a page of the class is Wren’s here: both teachers find it
    const expected = Array.isArray(says) ? says : (says![state] ?? says!.else);
    expect([state, ...let_]).toEqual([state, ...RELATIONS.filter((r) => expected.includes(r))]);
  }
});
it('has no line for a route that there is not', () =>
  expect(Object.keys(LINES).filter((route) => !(route in RULES))).toEqual([]));
it('things that are nobody’s, or not there, are nobody’s to change', () => {
  for (const [route, methods] of Object.entries(RULES))
    for (const method of Object.keys(methods)) {
      if (!LINES[route]?.id || LINES[route].id === 'teacher') continue;
      const in_ = RELATIONS.filter((r) => !mayNot(store, who[r], route, method, { ...things.alone, id: 'nowhere' }));
      // that there is no such errand or lesson is what the route says, to whoever asks
      const free = /errand|lesson/.test(route);
      expect([route, method, free || in_.length === 0]).toEqual([route, method, true]);
    }
});
