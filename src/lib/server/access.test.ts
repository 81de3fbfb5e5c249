/** Who may do what: every role on every route, on what is theirs and on what is not. In a real database. */
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { hall } from '../../../core/testing/build.ts';
import { ship } from '../../../demo/seed.ts';
import { named } from '../class/folded.ts';
import { mayNot, RULES } from './access.ts';
import { openDatabase, type Store } from './database.ts';
import { addErrand, openErrand } from './errands.ts';
import { makeClass } from './classes.ts';
import { give, openGiven } from './given.ts';
import { comment, handIn } from './hand-ins.ts';
import { linkTo } from './links.ts';
import { beginRound } from './rounds.ts';
import { guestOf, type Who } from './people.ts';
import { createProject } from './projects.ts';
import { mayPutBefore } from './reach.ts';
import { comments, people, projects, runs } from './schema.ts';
import { addLesson, openLesson } from './lessons.ts';
import { eq } from 'drizzle-orm';

const folder = mkdtempSync(join(tmpdir(), 'mossbell-access-'));
let store: Store;
afterAll(() => rmSync(folder, { recursive: true }));

const person = (role: 'teacher' | 'pupil', nickname: string, classId?: string): Who => {
  store
    .insert(people)
    .values({ id: nickname, role, ...named(nickname), classId, secret: '', at: 1 })
    .run();
  return { id: nickname, role, nickname, ...(classId ? { classId } : {}) };
};
/** those who ask */
let who: Record<'ash' | 'elm' | 'wren' | 'newt' | 'sorrel' | 'heron' | 'guest' | 'other guest', Who>;
type Name = keyof typeof who;
let params: Record<string, string>;
const of = { wren: '', newtsPair: '', heron: '', guest: '', ash: '', demo: 'demo', shown: '' };

beforeAll(() => {
  store = openDatabase(folder);
  ship(store);
  const ash = person('teacher', 'ash');
  const elm = person('teacher', 'elm');
  const a = makeClass(store, 'ash', 'A', 'en', 'class-a');
  const b = makeClass(store, 'elm', 'B', 'en', 'class-b');
  who = {
    ash,
    elm,
    wren: person('pupil', 'wren', a),
    newt: person('pupil', 'newt', a),
    sorrel: person('pupil', 'sorrel', a),
    heron: person('pupil', 'heron', b),
    guest: guestOf('one browser'),
    'other guest': guestOf('another browser')
  };
  const made = (owner: string) => createProject(store, newProject('Pots', barrow, hall), { owner }).id;
  of.wren = made('wren');
  of.heron = made('heron');
  of.guest = made(who.guest.id);
  of.ash = made('ash');
  of.newtsPair = made('newt');
  store.update(projects).set({ partner: 'sorrel', driver: 'sorrel' }).where(eq(projects.id, of.newtsPair)).run();
  of.shown = made('newt');
  store.update(projects).set({ shown: 'yes' }).where(eq(projects.id, of.shown)).run();
  createProject(store, newProject('Demo', barrow, hall), { id: 'demo', demo: true });
  const run = (id: string, projectId: string) =>
    store
      .insert(runs)
      .values({
        id,
        projectId,
        at: 1,
        name: '',
        kind: 'rehearsal',
        device: '',
        ended: '',
        ms: 1,
        file: Buffer.from('')
      })
      .run();
  run('run of wren', of.wren);
  comment(store, of.wren, 'ash', null, 'Well');
  comment(store, of.heron, 'elm', null, 'Well');
  const errand = openErrand(store, 'first-delivery')!;
  const { lesson } = openLesson(store, 'first-wheels')!;
  give(store, a, { kind: 'errand', target: 'first-delivery', group: '', fromAt: 0, untilAt: null }, 'given-a');
  params = {
    'errand of wren': addErrand(store, errand, 1, 'wren'),
    'errand of ash': addErrand(store, errand, 1, 'ash'),
    'lesson of wren': addLesson(store, { lesson, errands: [] }, 1, 'wren'),
    'lesson of ash': addLesson(store, { lesson, errands: [] }, 1, 'ash'),
    'comment for wren': String(store.select().from(comments).where(eq(comments.projectId, of.wren)).get()!.id),
    'comment for heron': String(store.select().from(comments).where(eq(comments.projectId, of.heron)).get()!.id),
    'hand-in of wren': handIn(store, of.wren, 'wren', '')!.id,
    'hand-in of heron': handIn(store, of.heron, 'heron', '')!.id
  };
});

/** Who is let in, by name, in the order of `who`. */
const letIn = (route: string, method: string, at: Record<string, string> = {}): Name[] =>
  (Object.keys(who) as Name[]).filter((name) => !mayNot(store, who[name], route, method, at));
const EVERYBODY: Name[] = ['ash', 'elm', 'wren', 'newt', 'sorrel', 'heron', 'guest', 'other guest'];

describe('the table of rules', () => {
  it('has every route of the server with exactly its methods, so that nothing is reachable that was not thought of', async () => {
    const root = new URL('../../routes/', import.meta.url);
    const { readFileSync } = await import('node:fs');
    const served = readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.startsWith('api/') && file.endsWith('+server.ts'))
      .map((file) => {
        const text = readFileSync(new URL(file, root), 'utf8');
        const methods = [...text.matchAll(/export (?:const|(?:async )?function) (GET|POST|PUT|PATCH|DELETE)\b/g)].map(
          (m) => m[1]
        );
        return [`/${file.replace('/+server.ts', '')}`, methods.sort()] as const;
      });
    const ruled = Object.entries(RULES)
      .filter(([route]) => route.startsWith('/api'))
      .map(([route, methods]) => [route, Object.keys(methods).sort()] as const);
    const byName = (list: readonly (readonly [string, string[]])[]) =>
      [...list].sort(([a], [b]) => (a < b ? -1 : 1)).map(([route, methods]) => `${route} ${methods.join(' ')}`);
    expect(byName(ruled)).toEqual(byName(served));
    // pages of the teacher's stand there too, each of them
    const pages = readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((file) => file.startsWith('class') && file.endsWith('+page.svelte'))
      .map((file) => `/${file.replace('/+page.svelte', '')}`);
    expect(pages.filter((page) => !RULES[page])).toEqual([]);
  });
  it('refuses a route and a method that it does not have', () => {
    expect(mayNot(store, who.ash, '/api/planted', 'GET', {})?.status).toBe(404);
    expect(mayNot(store, who.ash, '/api/projects', 'DELETE', {})?.status).toBe(405);
    expect(mayNot(store, who.guest, '/handbook', 'GET', {})).toBeUndefined();
  });
});

describe('a project', () => {
  const PROJECT = '/api/projects/[id]';
  const READS: [string, string][] = [
    [PROJECT, 'GET'],
    [`${PROJECT}/runs`, 'GET'],
    [`${PROJECT}/versions`, 'GET'],
    [`${PROJECT}/versions/[version]`, 'GET'],
    [`${PROJECT}/live`, 'GET']
  ];
  const WRITES: [string, string][] = [
    [PROJECT, 'PUT'],
    [PROJECT, 'PATCH'],
    [PROJECT, 'DELETE'],
    [`${PROJECT}/runs`, 'POST']
  ];
  it.each(READS)('is read by whose it is, the teacher of the class and the pair: %s %s', (route, method) => {
    expect(letIn(route, method, { id: of.wren })).toEqual(['ash', 'wren']);
    expect(letIn(route, method, { id: of.heron })).toEqual(['elm', 'heron']);
    expect(letIn(route, method, { id: of.newtsPair })).toEqual(['ash', 'newt', 'sorrel']);
    expect(letIn(route, method, { id: of.shown })).toEqual(['ash', 'wren', 'newt', 'sorrel']);
    expect(letIn(route, method, { id: of.guest })).toEqual(['guest']);
    expect(letIn(route, method, { id: of.ash })).toEqual(['ash']);
    expect(letIn(route, method, { id: of.demo })).toEqual(EVERYBODY);
    expect(letIn(route, method, { id: 'nowhere' })).toEqual([]);
  });
  it.each(WRITES)('is written by whose it is, of a pair by who drives: %s %s', (route, method) => {
    expect(letIn(route, method, { id: of.wren })).toEqual(['wren']);
    expect(letIn(route, method, { id: of.newtsPair })).toEqual(['sorrel']);
    expect(letIn(route, method, { id: of.shown })).toEqual(['newt']);
    expect(letIn(route, method, { id: of.guest })).toEqual(['guest']);
    expect(letIn(route, method, { id: of.ash })).toEqual(['ash']);
    expect(letIn(route, method, { id: of.demo })).toEqual([]);
    expect(letIn(route, method, { id: 'nowhere' })).toEqual([]);
  });
  it.each(['comments', 'hand-ins'])(
    'has %s that are between its pupils and their teacher, also where it is shown',
    (what) => {
      const route = `${PROJECT}/${what}`;
      expect(letIn(route, 'GET', { id: of.wren })).toEqual(['ash', 'wren']);
      expect(letIn(route, 'GET', { id: of.newtsPair })).toEqual(['ash', 'newt', 'sorrel']);
      expect(letIn(route, 'GET', { id: of.shown })).toEqual(['ash', 'newt']);
      expect(letIn(route, 'GET', { id: of.demo })).toEqual([]);
    }
  );
  it('is put before a class by whose it is; a demo project by everybody, a pupil’s once it is shown', () => {
    const before = (id: string) => (Object.keys(who) as Name[]).filter((name) => mayPutBefore(store, who[name], id));
    expect(before(of.wren)).toEqual(['wren']);
    expect(before(of.ash)).toEqual(['ash']);
    expect(before(of.demo)).toEqual(EVERYBODY);
    expect(before(of.shown)).toEqual(['ash', 'wren', 'newt', 'sorrel']);
  });
  it('that one can look at is told to be so; one that one cannot is not told to be there', () => {
    expect(mayNot(store, who.ash, PROJECT, 'PUT', { id: of.wren })?.status).toBe(403);
    expect(mayNot(store, who.newt, PROJECT, 'PUT', { id: of.newtsPair })?.status).toBe(403);
    for (const name of ['elm', 'newt', 'heron', 'guest'] as const)
      expect([name, mayNot(store, who[name], PROJECT, 'GET', { id: of.wren })]).toEqual([
        name,
        mayNot(store, who[name], PROJECT, 'GET', { id: 'nowhere' })
      ]);
  });
  it('has runs that are reached as it is', () => {
    const at = { id: 'run of wren' };
    expect(letIn('/api/runs/[id]', 'GET', at)).toEqual(['ash', 'wren']);
    for (const method of ['PUT', 'PATCH', 'DELETE']) expect(letIn('/api/runs/[id]', method, at)).toEqual(['wren']);
    expect(letIn('/api/runs/[id]', 'GET', { id: 'nowhere' })).toEqual([]);
  });
  it('is spoken of, pointed at and asked for by the teacher of its pupil alone', () => {
    for (const what of ['comments', 'point', 'show']) {
      expect(letIn(`${PROJECT}/${what}`, 'POST', { id: of.wren })).toEqual(['ash']);
      expect(letIn(`${PROJECT}/${what}`, 'POST', { id: of.heron })).toEqual(['elm']);
      for (const id of [of.guest, of.ash, of.demo, 'nowhere'])
        expect(letIn(`${PROJECT}/${what}`, 'POST', { id })).toEqual([]);
    }
  });
  it('is handed in, shown, and driven by its pupils, whoever drives', () => {
    for (const [what, method] of [
      ['hand-ins', 'POST'],
      ['show', 'PUT'],
      ['drive', 'PUT']
    ]) {
      expect(letIn(`${PROJECT}/${what}`, method, { id: of.wren })).toEqual(['wren']);
      expect(letIn(`${PROJECT}/${what}`, method, { id: of.newtsPair })).toEqual(['newt', 'sorrel']);
      for (const id of [of.guest, of.ash, of.demo]) expect(letIn(`${PROJECT}/${what}`, method, { id })).toEqual([]);
    }
  });
  it('has comments and hand-ins of its own: those of another are not reached through it', () => {
    const dealt = (id: string, name: string) =>
      letIn(`${PROJECT}/comments/[comment]`, 'PATCH', { id, comment: params[name] });
    expect(dealt(of.wren, 'comment for wren')).toEqual(['wren']);
    expect(dealt(of.wren, 'comment for heron')).toEqual([]);
    const opened = (id: string, name: string, method: string) =>
      letIn(`${PROJECT}/hand-ins/[handIn]`, method, { id, handIn: params[name] });
    expect(opened(of.wren, 'hand-in of wren', 'GET')).toEqual(['ash', 'wren']);
    expect(opened(of.wren, 'hand-in of wren', 'DELETE')).toEqual(['wren']);
    expect(opened(of.wren, 'hand-in of heron', 'GET')).toEqual([]);
  });
});

it('a round is guessed by the pupils of its class, and begun and decided by its teacher', () => {
  beginRound(store, 'class-a', of.wren, 'round-a');
  const at = { id: 'round-a' };
  expect(letIn('/api/rounds/[id]', 'GET', at)).toEqual(['ash', 'wren', 'newt', 'sorrel']);
  expect(letIn('/api/rounds/[id]/live', 'GET', at)).toEqual(['ash', 'wren', 'newt', 'sorrel']);
  expect(letIn('/api/rounds/[id]', 'PUT', at)).toEqual(['wren', 'newt', 'sorrel']);
  expect(letIn('/api/rounds/[id]', 'POST', at)).toEqual(['ash']);
});
it('a link is made by whose it is; whoever has it may open it', () => {
  for (const method of ['POST', 'DELETE']) {
    // the teacher takes it back
    expect(letIn('/api/projects/[id]/link', method, { id: of.wren })).toEqual(
      method === 'POST' ? ['wren'] : ['ash', 'wren']
    );
    expect(letIn('/api/projects/[id]/link', method, { id: of.guest })).toEqual(['guest']);
    expect(letIn('/api/projects/[id]/link', method, { id: of.demo })).toEqual([]);
    expect(letIn('/api/errands/[id]/link', method, { id: params['errand of wren'] })).toEqual(['wren']);
    expect(letIn('/api/errands/[id]/link', method, { id: 'first-delivery' })).toEqual([]);
  }
  expect(letIn('/api/open/[token]', 'GET', { token: linkTo(store, 'project', of.wren) })).toEqual(EVERYBODY);
});

describe('a class', () => {
  const CLASS = '/api/classes/[id]';
  const at = () => ({ id: 'class-a', pupil: 'wren', given: 'given-a', handIn: params['hand-in of wren'] });
  it('is its teacher’s, page and all', () => {
    for (const [route, methods] of Object.entries(RULES)) {
      if (!route.startsWith(CLASS) && !route.startsWith('/class/[id]')) continue;
      for (const method of Object.keys(methods)) {
        expect([route, method, letIn(route, method, at())]).toEqual([route, method, ['ash']]);
        expect([route, method, letIn(route, method, { ...at(), id: 'class-b' })]).toEqual([
          route,
          method,
          // pupils and what was given of another class are not reached through one's own
          /\[(pupil|given|handIn)\]/.test(route) ? [] : ['elm']
        ]);
      }
    }
  });
  it('is made by teachers; the others are asked to sign in, or told that it is not theirs', () => {
    expect(letIn('/api/classes', 'POST')).toEqual(['ash', 'elm']);
    for (const page of ['/class', '/class/audit']) expect(letIn(page, 'GET')).toEqual(['ash', 'elm']);
    expect(mayNot(store, who.guest, '/api/classes', 'POST', {})?.status).toBe(401);
    expect(mayNot(store, who.wren, '/api/classes', 'POST', {})?.status).toBe(403);
  });
  it('gives to its pupils: they alone open it, and each gets a project of their own, a pair one for both', () => {
    const PUPILS: Name[] = ['wren', 'newt', 'sorrel', 'heron'];
    expect(letIn('/api/given', 'GET')).toEqual(PUPILS);
    expect(letIn('/api/live', 'GET')).toEqual(PUPILS);
    expect(letIn('/api/given/[id]', 'POST', { id: 'given-a' })).toEqual(['wren', 'newt', 'sorrel']);
    for (const method of ['PATCH', 'POST']) expect(letIn('/api/me', method)).toEqual(['ash', 'elm', ...PUPILS]);
    store.update(people).set({ partner: 'sorrel' }).where(eq(people.id, 'newt')).run();
    store.update(people).set({ partner: 'newt' }).where(eq(people.id, 'sorrel')).run();
    const opened = (['wren', 'newt', 'sorrel'] as const).map((name) => openGiven(store, name, 'given-a'));
    expect(opened[1]).toEqual(opened[2]);
    expect(opened[0]).not.toEqual(opened[1]);
    expect(openGiven(store, 'wren', 'given-a')).toEqual(opened[0]);
    const { id } = opened[1] as { id: string };
    expect(letIn('/api/projects/[id]', 'GET', { id })).toEqual(['ash', 'newt', 'sorrel']);
    expect(letIn('/api/projects/[id]', 'PUT', { id })).toEqual(['newt']);
  });
});

it('errands and lessons: those of a teacher and those that ship are everybody’s to use, and changed by whose they are', () => {
  for (const kind of ['errand', 'lesson'] as const) {
    const route = `/api/${kind}s/[id]`;
    const methods = Object.keys(RULES[route]).filter((m) => m !== 'GET' && !(kind === 'errand' && m === 'POST'));
    expect(letIn(route, 'GET', { id: params[`${kind} of ash`] })).toEqual(EVERYBODY);
    expect(letIn(route, 'GET', { id: params[`${kind} of wren`] })).toEqual(['ash', 'wren']);
    const shipped = kind === 'errand' ? 'first-delivery' : 'first-wheels';
    expect(letIn(route, 'GET', { id: shipped })).toEqual(EVERYBODY);
    for (const method of methods) {
      expect([kind, method, letIn(route, method, { id: params[`${kind} of ash`] })]).toEqual([kind, method, ['ash']]);
      expect(letIn(route, method, { id: params[`${kind} of wren`] })).toEqual(['wren']);
      expect(letIn(route, method, { id: shipped })).toEqual([]);
    }
  }
});
