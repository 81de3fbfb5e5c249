/** A school over the years: cards printed again, pupils who move, classes that are copied and handed over, teachers who leave, marks. */
import { strFromU8, unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import Papa from 'papaparse';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject, readProject } from '../../../core/project.ts';
import { fromText } from '../../../core/testing/text.ts';
import { ENGLISH, speakFrom } from '../../../core/words.ts';
import { hall } from '../../../core/testing/build.ts';
import { ship } from '../../../demo/seed.ts';
import { pageOf } from '../../../core/lesson/page.ts';
import { named } from '../class/folded.ts';
import type { PrintedCard } from '../class/class.ts';
import { mayNot } from './access.ts';
import {
  addHelper,
  addPupils,
  cardsAgain,
  copyClass,
  handOver,
  listAudit,
  listClasses,
  listPupils,
  makeClass,
  movePupil,
  newCard,
  openClass,
  pair,
  removeHelper,
  removePupil,
  renamedOf,
  renamePupil,
  teachersOf
} from './classes.ts';
import { openDatabase, type Store } from './database.ts';
import { addErrand, openErrand } from './errands.ts';
import { everythingOf } from './everything.ts';
import { give, givenTo, listGiven, openGiven } from './given.ts';
import { collected, comment, giveBack, handIn, listComments, listHandIns, seen, withdraw } from './hand-ins.ts';
import { marksCsv, marksOf } from './marks.ts';
import { foldNames } from './names.ts';
import { isSecretOf, listTeachers, note, pupilCalled, removeTeacher, type Who } from './people.ts';
import { heavy } from './pool.ts';
import { createProject, deleteProject, listProjects, openProject, saveProject } from './projects.ts';
import { reachOf } from './reach.ts';
import { keepReading, lessonAnswers } from './readings.ts';
import { handIns, people, projects, runs } from './schema.ts';
import { csv } from './table.ts';
import { cardsOf } from './wall.ts';
import { openLesson } from './lessons.ts';

let folder: string;
let store: Store;
beforeAll(() => {
  execFileSync('./mossbell', ['build-cli'], { stdio: 'ignore' });
}, 300_000);
const folders: string[] = [];
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'mossbell-years-'));
  folders.push(folder);
  store = openDatabase(folder);
  ship(store);
  for (const name of ['ash', 'elm', 'yew']) person('teacher', name);
  makeClass(store, 'ash', 'Autumn', 'en', 'a');
  makeClass(store, 'ash', 'Winter', 'en', 'b');
});
afterAll(() => {
  for (const one of folders) rmSync(one, { recursive: true });
});
function person(role: 'teacher' | 'pupil', id: string, classId?: string): string {
  store
    .insert(people)
    .values({ id, role, ...named(id[0].toUpperCase() + id.slice(1)), classId, secret: '', at: 1 })
    .run();
  return id;
}
const who = (id: string): Who => {
  const row = store.select().from(people).where(eq(people.id, id)).get()!;
  return { id, role: row.role, nickname: row.nickname, ...(row.classId ? { classId: row.classId } : {}) };
};
const may = (id: string, route: string, method: string, params: Record<string, string>): boolean =>
  mayNot(store, who(id), route, method, params) === undefined;
const ERRAND = { kind: 'errand', target: 'first-delivery', group: '', fromAt: 0, untilAt: null } as const;

describe('cards', () => {
  it('are printed again with the same words, which go on being good; a copy of the database does not tell them', async () => {
    const made = (await addPupils(store, 'a', ['Wren', 'Émile'])) as PrintedCard[];
    expect(cardsAgain(store, 'a')).toEqual({
      cards: made
        .toSorted((a, b) => (a.nickname < b.nickname ? 1 : -1))
        .toSorted((a) => (a.nickname === 'Émile' ? -1 : 1)),
      unknown: []
    });
    const wren = pupilCalled(store, openClass(store, 'a')!.code, 'wren')!.person;
    expect(await isSecretOf(made[0].words, wren)).toBe(true);
    expect(cardsAgain(store, 'a', wren.id).cards).toEqual([made[0]]);
    const again = await newCard(store, 'a', wren.id);
    expect(cardsAgain(store, 'a', wren.id).cards).toEqual([again]);
    for (const file of ['mossbell.sqlite', 'mossbell.sqlite-wal']) {
      const bytes = readFileSync(join(folder, file), 'latin1');
      for (const { words } of [...made, again]) expect(bytes.includes(words)).toBe(false);
    }
    // what was shown is written down
    expect(listAudit(store, 'ash').filter((l) => l.what === 'cards printed').length).toBe(3);
  });
  it('of before, and those that were sealed with another key, are known to nobody: that is said', () => {
    person('pupil', 'newt', 'a');
    store
      .update(people)
      .set({ card: 'AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA' })
      .where(eq(people.id, 'newt'))
      .run();
    person('pupil', 'heron', 'a');
    expect(cardsAgain(store, 'a')).toEqual({ cards: [], unknown: ['Heron', 'Newt'] });
  });
});

describe('a pupil who moves', () => {
  it('takes all work along: the new teacher sees it, the old one does not, and the pair is over', () => {
    makeClass(store, 'elm', 'Spring', 'en', 'c');
    for (const id of ['wren', 'newt']) person('pupil', id, 'a');
    pair(store, 'a', 'wren', 'newt');
    give(store, 'a', ERRAND, 'g');
    const { id } = openGiven(store, 'wren', 'g') as { id: string };
    handIn(store, id, 'wren', 'mine');
    const own = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' }).id;
    expect(movePupil(store, 'a', 'wren', 'c')).toBeUndefined();
    expect(listPupils(store, 'a')).toEqual([{ id: 'newt', nickname: 'Newt', group: '' }]);
    expect(listPupils(store, 'c').map((p) => p.nickname)).toEqual(['Wren']);
    expect([reachOf(store, who('elm'), own), reachOf(store, who('ash'), own)]).toEqual(['look', 'none']);
    expect(
      listProjects(store, { owner: 'wren', paired: true })
        .map((p) => p.id)
        .sort()
    ).toEqual([id, own].sort());
    // a pair's work is still both's, in both classes
    for (const c of ['a', 'c']) expect(collected(store, c).map((h) => h.note)).toEqual(['mine']);
    expect(
      may('elm', '/api/classes/[id]/hand-ins/[handIn]', 'PATCH', { id: 'c', handIn: collected(store, 'c')[0].handIn })
    ).toBe(true);
  });
  it('does not push in where somebody has the name, or where the class is full', () => {
    for (const id of ['wren', 'newt']) person('pupil', id, 'a');
    store
      .insert(people)
      .values({ id: 'w2', role: 'pupil', ...named('WREN'), classId: 'b', secret: '', at: 1 })
      .run();
    expect(movePupil(store, 'a', 'wren', 'b')).toBe(
      'There is a Wren in that class. Give one of them another name first.'
    );
    for (let i = 1; i < 60; i++) person('pupil', `p${i}`, 'b');
    expect(movePupil(store, 'a', 'newt', 'b')).toBe('A class has 60 pupils at the most.');
    expect(listPupils(store, 'a').length).toBe(2);
  });
});

describe('a class', () => {
  it('is copied with pupils, whose words stay good, and what was given out, which is not open', async () => {
    const made = (await addPupils(store, 'a', ['Wren', 'Newt'])) as PrintedCard[];
    const [newt, wren] = listPupils(store, 'a');
    pair(store, 'a', wren.id, newt.id);
    give(store, 'a', ERRAND, 'g');
    const { id } = openGiven(store, wren.id, 'g') as { id: string };
    const next = copyClass(store, 'a', 'ash', { name: 'Next autumn', pupils: true, given: true });
    const there = listPupils(store, next);
    expect(there.map((p) => p.nickname)).toEqual(['Newt', 'Wren']);
    expect(there.map((p) => p.partner)).toEqual([there[1].id, there[0].id]);
    const { code } = openClass(store, next)!;
    expect(code).not.toBe(openClass(store, 'a')!.code);
    expect(await isSecretOf(made[0].words, pupilCalled(store, code, 'wren')!.person)).toBe(true);
    expect(cardsAgain(store, next).cards.length).toBe(2);
    const [again] = listGiven(store, next);
    expect(again).toMatchObject({ target: 'first-delivery' });
    expect(givenTo(store, there[1].id)).toEqual([]);
    expect(openGiven(store, there[1].id, again.id)).toBe(
      'This is not open: it was given for another time, or another group.'
    );
    // the old class has what it had
    expect(openGiven(store, wren.id, 'g')).toEqual({ id });
    const bare = copyClass(store, 'a', 'ash', { name: 'Bare', pupils: false, given: false });
    expect([listPupils(store, bare), listGiven(store, bare)]).toEqual([[], []]);
  });
  it('is taught by two: the second does everything but delete it and hand it over', () => {
    person('pupil', 'wren', 'a');
    const id = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' }).id;
    addHelper(store, 'a', { id: 'elm', nickname: 'Elm' });
    addHelper(store, 'a', { id: 'elm', nickname: 'Elm' });
    addHelper(store, 'a', { id: 'ash', nickname: 'Ash' });
    expect(teachersOf(store, 'a').map((t) => [t.nickname, t.own])).toEqual([
      ['Ash', true],
      ['Elm', false]
    ]);
    expect(listClasses(store, 'elm').map((c) => [c.name, c.own])).toEqual([['Autumn', false]]);
    expect([reachOf(store, who('elm'), id), reachOf(store, who('yew'), id)]).toEqual(['look', 'none']);
    for (const [route, method] of [
      ['/class/[id]', 'GET'],
      ['/api/classes/[id]/pupils', 'POST'],
      ['/api/classes/[id]/given', 'POST'],
      ['/api/classes/[id]/marks', 'GET']
    ])
      expect([route, may('elm', route, method, { id: 'a' }), may('yew', route, method, { id: 'a' })]).toEqual([
        route,
        true,
        false
      ]);
    expect(may('elm', '/api/projects/[id]/comments', 'POST', { id })).toBe(true);
    for (const [route, method] of [
      ['/api/classes/[id]', 'DELETE'],
      ['/api/classes/[id]/teachers', 'POST'],
      ['/api/classes/[id]/teachers', 'PUT']
    ])
      expect([route, may('elm', route, method, { id: 'a' }), may('ash', route, method, { id: 'a' })]).toEqual([
        route,
        false,
        true
      ]);
    // both read what was done there
    expect(listAudit(store, 'elm').map((l) => l.what)).toContain('helper added');
    removeHelper(store, 'a', { id: 'elm', nickname: 'Elm' });
    expect([listClasses(store, 'elm'), reachOf(store, who('elm'), id)]).toEqual([[], 'none']);
    expect(listAudit(store, 'elm')).toEqual([]);
  });
  it('is handed over: who had it sees nothing of it any more, nor of what was done there', () => {
    person('pupil', 'wren', 'a');
    handOver(store, 'a', { id: 'elm', nickname: 'Elm' });
    expect([
      listClasses(store, 'ash').map((c) => c.name),
      listClasses(store, 'elm').map((c) => [c.name, c.own])
    ]).toEqual([['Winter'], [['Autumn', true]]]);
    expect([may('ash', '/class/[id]', 'GET', { id: 'a' }), may('elm', '/class/[id]', 'GET', { id: 'a' })]).toEqual([
      false,
      true
    ]);
    expect(listAudit(store, 'ash').filter((l) => l.class === 'Autumn')).toEqual([]);
    expect(listAudit(store, 'elm').map((l) => l.what)).toEqual(['class handed over', 'class made']);
  });
});

describe('a teacher who leaves', () => {
  it('leaves classes, errands and lessons to another one; only the first may send another away', () => {
    makeClass(store, 'elm', 'Spring', 'en', 'c');
    person('pupil', 'wren', 'c');
    addHelper(store, 'c', { id: 'ash', nickname: 'Ash' });
    const errand = addErrand(store, openErrand(store, 'first-delivery')!, 1, 'elm');
    expect(listTeachers(store).map((t) => [t.nickname, t.own, t.classes])).toEqual([
      ['Ash', true, 2],
      ['Elm', false, 1],
      ['Yew', false, 0]
    ]);
    expect(removeTeacher(store, 'yew', 'elm', 'yew')).toContain('Only the first teacher, Ash,');
    expect(removeTeacher(store, 'ash', 'elm', 'elm')).toContain('Choose another teacher');
    expect(removeTeacher(store, 'ash', 'elm', 'nobody')).toContain('Choose another teacher');
    expect(removeTeacher(store, 'ash', 'wren', 'ash')).toBe('There is no such teacher.');
    const project = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' }).id;
    comment(store, project, 'elm', null, 'Well done');
    expect(removeTeacher(store, 'ash', 'elm', 'ash')).toBeUndefined();
    expect(listComments(store, project, 'wren').map((c) => c.text)).toEqual(['Well done']);
    expect(listTeachers(store).map((t) => t.nickname)).toEqual(['Ash', 'Yew']);
    expect(listClasses(store, 'ash').map((c) => c.name)).toEqual(['Autumn', 'Winter', 'Spring']);
    expect(teachersOf(store, 'c').map((t) => t.nickname)).toEqual(['Ash']);
    expect(listPupils(store, 'c').map((p) => p.nickname)).toEqual(['Wren']);
    expect(may('ash', '/api/errands/[id]', 'DELETE', { id: errand })).toBe(true);
    // the last one stays
    expect(removeTeacher(store, 'yew', 'yew', 'ash')).toBeUndefined();
    expect(removeTeacher(store, 'ash', 'ash', 'ash')).toContain('Choose another teacher');
  });
});

describe('what was handed in', () => {
  const begin = (name: string): string => (openGiven(store, name, 'g') as { id: string }).id;
  it('of a pair stands under both, and stays with the one who is left', () => {
    for (const id of ['wren', 'newt', 'heron']) person('pupil', id, 'a');
    pair(store, 'a', 'wren', 'newt');
    give(store, 'a', ERRAND, 'g');
    handIn(store, begin('wren'), 'wren', 'ours');
    const marks = () => marksOf(store, 'a').rows.map((r) => [r.nickname, r.marks[0].handIn !== undefined]);
    expect(marks()).toEqual([
      ['Heron', false],
      ['Newt', true],
      ['Wren', true]
    ]);
    expect(collected(store, 'a').map((c) => c.nickname)).toEqual(['Wren, Newt']);
    removePupil(store, 'wren');
    expect(marks()).toEqual([
      ['Heron', false],
      ['Newt', true]
    ]);
    expect(collected(store, 'a').map((c) => [c.nickname, c.note])).toEqual([['Newt', 'ours']]);
  });
  it('after the end says late, comes back and is handed in again', () => {
    person('pupil', 'wren', 'a');
    give(store, 'a', { ...ERRAND, untilAt: 10_000 }, 'g');
    store.update(people).set({ at: 1 }).run();
    const id = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' }).id;
    store.update(projects).set({ givenId: 'g' }).where(eq(projects.id, id)).run();
    const early = handIn(store, id, 'wren', 'early', 9_999)!;
    expect(collected(store, 'a')[0].late).toBeUndefined();
    expect(givenTo(store, 'wren')[0]).toMatchObject({ handedInAt: 9_999 });
    seen(store, early.id);
    giveBack(store, early.id, true);
    expect(collected(store, 'a')[0]).toMatchObject({ note: 'early' });
    expect(givenTo(store, 'wren')[0].backAt).toBeGreaterThan(0);
    expect(marksOf(store, 'a').rows[0].marks[0]).toMatchObject({ handedInAt: 9_999 });
    const HERE = '/api/classes/[id]/hand-ins/[handIn]';
    const opens = (handIn: string) => may('ash', HERE, 'PATCH', { id: 'a', handIn });
    const taken = handIn(store, id, 'wren', 'by mistake', 10_000)!;
    expect(opens(taken.id)).toBe(true);
    withdraw(store, taken.id);
    expect([opens(taken.id), opens(early.id)]).toEqual([false, true]);
    const late = handIn(store, id, 'wren', 'late', 10_001)!;
    expect(collected(store, 'a')[0]).toMatchObject({ handIn: late.id, late: true, backAt: null, seenAt: null });
    expect(givenTo(store, 'wren')[0]).toMatchObject({ late: true });
    expect(givenTo(store, 'wren')[0].backAt).toBeUndefined();
    expect(marksOf(store, 'a').rows[0].marks[0]).toMatchObject({ late: true, handedInAt: 10_001 });
  });
  it('is there for longer than its project lies beside the shelf', () => {
    person('pupil', 'wren', 'a');
    const project = newProject('Pots', barrow, hall);
    const [kept, gone] = [1, 2].map(() => createProject(store, project, { owner: 'wren' }).id);
    handIn(store, kept, 'wren', 'stays');
    const MONTHS = 90 * 86_400_000;
    for (const id of [kept, gone]) deleteProject(store, id, Date.now() - MONTHS);
    // whatever is deleted later sweeps what lies there
    deleteProject(store, createProject(store, project, { owner: 'wren' }).id);
    expect(collected(store, 'a')).toMatchObject([{ note: 'stays', gone: true }]);
    expect(store.select({ id: projects.id }).from(projects).where(eq(projects.id, gone)).get()).toBeUndefined();
  });
});

describe('a project that is given out', () => {
  it('is copied by each as it was then, and by those alone who got it', () => {
    for (const id of ['wren', 'newt']) person('pupil', id, 'a');
    const drive = fromText('wheels.drive(cm=20, power=40, ending="brake")', barrow);
    const source = createProject(
      store,
      { ...newProject('Pots', barrow, hall), program: drive, notebook: 'secret' },
      { owner: 'ash' }
    );
    give(store, 'a', { ...ERRAND, kind: 'project', target: source.id }, 'p');
    saveProject(store, source.id, source.version, { ...source.project, name: 'Other', program: fromText('', barrow) });
    expect(listGiven(store, 'a')[0]).toMatchObject({ kind: 'project', name: 'Pots' });
    const [wren, newt] = ['wren', 'newt'].map((name) => (openGiven(store, name, 'p') as { id: string }).id);
    expect(wren).not.toBe(newt);
    const opened = openProject(store, wren)!.project;
    expect(opened.program).toEqual(drive);
    expect(opened.notebook).toBe('');
    expect(give(store, 'a', { ...ERRAND, kind: 'project', target: 'nowhere' })).toBeUndefined();
    handIn(store, wren, 'wren', 'done');
    expect(marksOf(store, 'a').rows[1].marks[0]).toMatchObject({ projectId: wren, tries: 0 });
  });
});

describe('remarks', () => {
  it('are changed and taken out by who said them, and answered by both', () => {
    person('pupil', 'wren', 'a');
    const id = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' }).id;
    comment(store, id, 'ash', null, 'Too fast');
    const said = listComments(store, id, 'wren')[0];
    comment(store, id, 'wren', null, 'Why?', said.id);
    const [answer, head] = listComments(store, id, 'wren');
    expect([answer.under, answer.mine, head.mine]).toEqual([said.id, true, false]);
    const at = (c: { id: number }) => ({ id, comment: String(c.id) });
    const ROUTE = '/api/projects/[id]/comments/[comment]';
    for (const method of ['PUT', 'DELETE'])
      expect([
        may('ash', ROUTE, method, at(said)),
        may('wren', ROUTE, method, at(said)),
        may('wren', ROUTE, method, at(answer))
      ]).toEqual([true, false, true]);
    expect([
      may('ash', ROUTE, 'POST', at(said)),
      may('wren', ROUTE, 'POST', at(said)),
      may('elm', ROUTE, 'POST', at(said))
    ]).toEqual([true, true, false]);
  });
});

describe('marks', () => {
  /** the lesson and its questions */
  const lesson = () => openLesson(store, 'first-wheels')!.lesson;
  const questions = () => {
    const text = lesson().text as Record<string, string>;
    const page = pageOf(text.en, { programs: new Set(Object.keys(lesson().programs)), errands: new Set() });
    const asked = page.steps
      .flatMap((s) => s.parts)
      .filter((p) => 'kind' in p && p.kind === 'question' && p.answers.length);
    return { page, asked: asked as { key: string; answers: { right: boolean }[] }[] };
  };
  it('have what was answered to a lesson, right or not, in whatever language it was read', () => {
    for (const id of ['wren', 'newt']) person('pupil', id, 'a');
    give(store, 'a', { ...ERRAND, kind: 'lesson', target: 'first-wheels' }, 'l');
    const { page, asked } = questions();
    const [first] = asked;
    const chose = first.answers.findIndex((a) => a.right);
    keepReading(store, 'wren', 'first-wheels', {
      answers: { [first.key]: { chose } },
      done: [page.steps[0].title],
      at: 1
    });
    keepReading(store, 'wren', 'first-wheels', {
      answers: { [first.key]: { chose } },
      done: page.steps.slice(0, 2).map((s) => s.title),
      at: 2
    });
    expect(marksOf(store, 'a').rows.map((r) => r.marks[0])).toEqual([
      { tries: 0 },
      { tries: 0, steps: 2, ofSteps: page.steps.length, right: 1, ofQuestions: 1 }
    ]);
    const answers = lessonAnswers(store, 'a', 'first-wheels')!;
    const told = answers.rows.map((r) => r.read?.answers.filter((a) => a.answer).map((a) => a.right));
    expect(told).toEqual([undefined, [true]]);
  });
  it('open right in a spreadsheet of both languages: the mark of UTF-8, its separator, no formulas', () => {
    const rows = [
      ['Nickname', 'n'],
      ['=1+1', 2.5],
      ['Zoë; "x", y', -3],
      ['@a', undefined]
    ] as const;
    expect(csv(rows)).toBe('\ufeffNickname,n\r\n\'=1+1,2.5\r\n"Zoë; ""x"", y",-3\r\n\'@a,\r\n');
    speakFrom(() => ({ ...ENGLISH, code: 'de' }));
    try {
      expect(csv(rows)).toBe('\ufeffNickname;n\r\n\'=1+1;2,5\r\n"Zoë; ""x"", y";-3\r\n\'@a;\r\n');
    } finally {
      speakFrom(() => ENGLISH);
    }
  });
  it('are a line for each pupil, with a cell under each heading', () => {
    for (const id of ['wren', 'newt']) person('pupil', id, 'a');
    give(store, 'a', { ...ERRAND, untilAt: 5 }, 'g');
    give(store, 'a', { ...ERRAND, kind: 'lesson', target: 'first-wheels' }, 'l');
    const id = createProject(store, newProject('Pots', barrow, hall), { owner: 'wren' }).id;
    store.update(projects).set({ givenId: 'g' }).where(eq(projects.id, id)).run();
    const made = handIn(store, id, 'wren', '', new Date(2026, 8, 7, 9, 5).getTime())!;
    store
      .update(handIns)
      .set({ result: JSON.stringify({ errand: 'first-delivery', met: false, got: 1, of: 2, changed: [] }), ranAt: 9 })
      .where(eq(handIns.id, made.id))
      .run();
    const { data } = Papa.parse<Record<string, string>>(marksCsv(marksOf(store, 'a')).slice(1), {
      header: true,
      skipEmptyLines: true
    });
    expect(data.map((r) => r.Nickname)).toEqual(['Newt', 'Wren']);
    expect(data[1]).toMatchObject({
      'First delivery: goals met': '1',
      'First delivery: goals': '2',
      'First delivery: handed in': '2026-09-07 09:05',
      'First delivery: late': '1',
      'First delivery: as the browser said': '0'
    });
    expect(data[0]['First delivery: goals met']).toBe('');
    expect(new Set(data.map((r) => Object.keys(r).length)).size).toBe(1);
  });
});

describe('everything of a pupil', () => {
  it('is one file in open formats; nothing of it is left where the pupil is taken out', async () => {
    for (const id of ['wren', 'newt']) person('pupil', id, 'a');
    give(store, 'a', ERRAND, 'g');
    const { id } = openGiven(store, 'wren', 'g') as { id: string };
    handIn(store, id, 'wren', 'a note of wren');
    comment(store, id, 'ash', null, 'a remark for wren');
    keepReading(store, 'wren', 'first-wheels', { answers: { ab: { wrote: 'words of wren' } }, done: [], at: 0 });
    createProject(store, newProject('../../Pots', barrow, hall), { owner: 'newt' });
    const zip = unzipSync(await heavy('zipped', everythingOf(store, 'wren')));
    const all = Object.keys(zip);
    const text = all.map((path) => strFromU8(zip[path])).join('\n');
    for (const words of ['a note of wren', 'a remark for wren', 'words of wren', '"nickname": "Wren"'])
      expect(text).toContain(words);
    const file = all.find((path) => path.endsWith('/project.mossbell.json'))!;
    expect(readProject(strFromU8(zip[file]), 'it').ok).toBe(true);
    expect(text).not.toContain('Newt');
    // a name is no way out of the folder
    for (const path of Object.keys(everythingOf(store, 'newt'))) expect(path).not.toMatch(/(^|\/)\.\.?\//);
    const hand = listHandIns(store, id)[0].id;
    removePupil(store, 'wren');
    const bytes = ['mossbell.sqlite', 'mossbell.sqlite-wal']
      .map((f) => readFileSync(join(folder, f), 'latin1'))
      .join('');
    for (const words of ['a note of wren', 'a remark for wren', 'words of wren', hand])
      expect([words, bytes.includes(words)]).toEqual([words, false]);
  });
});

it('who got another name without being asked is named to the teacher until they have come in with it', () => {
  for (const [id, nickname] of [
    ['z1', 'Zo\u00e9'],
    ['z2', 'Zoe\u0301'],
    ['z3', 'ZO\u00c9']
  ])
    store.insert(people).values({ id, role: 'pupil', nickname, classId: 'a', secret: '', at: 1 }).run();
  foldNames(store);
  expect(renamedOf(store, 'a')).toEqual(['Zo\u00e9 2', 'ZO\u00c9 3']);
  expect(renamedOf(store, 'b')).toEqual([]);
  note(store, 'signed in', { teacherId: 'ash', classId: 'a', whom: 'Zo\u00e9 2' });
  expect(renamedOf(store, 'a')).toEqual(['ZO\u00c9 3']);
  renamePupil(store, 'a', 'z3', 'Linnet');
  expect(renamedOf(store, 'a')).toEqual([]);
});
it('the wall tells who is building, trying, has met all goals, has handed in, and works on again', () => {
  person('pupil', 'wren', 'a');
  give(store, 'a', ERRAND, 'g');
  const doing = () => cardsOf(store, 'a')[0].doing;
  expect(doing()).toBe('nothing yet');
  const { id } = openGiven(store, 'wren', 'g') as { id: string };
  expect(doing()).toBe('building');
  const { changedAt } = store.select().from(projects).where(eq(projects.id, id)).get()!;
  const tries = (got: number, at: number) =>
    store
      .insert(runs)
      .values({
        id: `run ${at}`,
        projectId: id,
        at,
        name: '',
        kind: 'rehearsal',
        device: '',
        ended: '',
        ms: 1,
        file: Buffer.from(''),
        errand: ERRAND.target,
        result: JSON.stringify({ errand: ERRAND.target, met: got === 2, got, of: 2, changed: [] })
      })
      .run();
  tries(1, changedAt + 1);
  expect(doing()).toBe('trying');
  tries(2, changedAt + 2);
  expect(doing()).toBe('met');
  const made = handIn(store, id, 'wren', '', changedAt + 3)!;
  expect(doing()).toBe('handed in');
  giveBack(store, made.id, true);
  expect(doing()).toBe('met');
});
