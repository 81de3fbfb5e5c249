/** The lessons that ship say what is so: each of their answers is what the program really does. */
import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { countBlocks } from '../core/errand/goals/built.ts';
import { eachText, namesIn, readLesson, zipLesson, type Lesson } from '../core/lesson/lesson.ts';
import { pageOf, type Piece } from '../core/lesson/page.ts';
import { happened } from '../core/lesson/happened.ts';
import { rehearse } from '../core/run/interpreter.ts';
import { eventsOf } from '../core/trace/apart.ts';
import { sameBehaviour } from '../core/trace/same.ts';
import { stateAt, travelled } from '../core/trace/query.ts';
import { endUs, type Trace } from '../core/trace/trace.ts';
import { articles } from '../src/lib/handbook/articles.ts';
import { demoLessons } from './seed.ts';

const lessons = demoLessons();
const lesson = (id: string): Lesson => lessons.find((l) => l.id === id)!;
const errands = new Set(
  readdirSync(new URL('errands/', import.meta.url)).map((f) => f.replace('.mossbell-errand.json', ''))
);
const paths = new Set(articles().map((a) => `/handbook/${a.slug}`));
const pageIn = (l: Lesson, code: 'en' | 'de') =>
  pageOf((l.text as Record<string, string>)[code], {
    programs: new Set(Object.keys(l.programs)),
    errands,
    page: (path) => paths.has(path)
  });
const run = (id: string, name: string): Trace => {
  const { program, kit, mat, start } = lesson(id).programs[name];
  return rehearse({ program, kit, mat, start, seed: 1, limitS: 30 });
};
const came = (id: string, name: string) => happened(run(id, name), lesson(id).programs[name]);
const endOf = (trace: Trace) => stateAt(trace, endUs(trace));
const startOf = (trace: Trace) => trace.header.run.start;
const pieces = (l: Lesson, code: 'en' | 'de'): Piece[] =>
  pageIn(l, code).steps.flatMap((s) => s.parts.filter((p) => 'kind' in p));

describe('the lessons that ship', () => {
  it('are five, in the order in which they are taught', () => {
    expect(lessons.map((l) => l.id)).toEqual([
      'first-wheels',
      'pictures-by-pixels',
      'eight-to-four',
      'path-by-two-sensors',
      'left-means-left'
    ]);
  });
  it.each(lessons.map((l) => [l.id, l] as const))(
    '%s is sound in both languages, with the same pieces in both',
    (_, l) => {
      for (const code of ['en', 'de'] as const) {
        const page = pageIn(l, code);
        expect(page.problems).toEqual([]);
        expect(page.steps.length).toBeGreaterThan(4);
        expect(pieces(l, code)[0].kind).toBe('objective');
        expect(pieces(l, code).some((p) => p.kind === 'teacher')).toBe(true);
      }
      const shape = (code: 'en' | 'de') => pieces(l, code).map((p) => [p.kind, p.names, p.answers.map((a) => a.right)]);
      expect(shape('de')).toEqual(shape('en'));
      // each of its programs is shown somewhere
      expect(namesIn(l, 'program').sort()).toEqual(Object.keys(l.programs).sort());
      expect(readLesson(zipLesson({ lesson: l, errands: [] }), 'x')).toEqual({ ok: true, lesson: l, errands: [] });
      eachText(l.text, (text) => (expect(text).not.toMatch(/\t| {2}\n/), text));
    }
  );
});

describe('what they say is so', () => {
  it('First wheels: two seconds are a little more than twice one; what is not stopped runs on', () => {
    const [one, two] = ['for-a-second', 'two-seconds'].map((n) => travelled(run('first-wheels', n)));
    expect(two / one).toBeGreaterThan(2);
    expect(two / one).toBeLessThan(2.2);
    expect(travelled(run('first-wheels', 'never-stops'))).toBeGreaterThan(1);
    expect(travelled(run('first-wheels', 'says-stop'))).toBeLessThan(0.3);
    expect(travelled(run('first-wheels', 'forty')) * 100).toBeCloseTo(40, 0);
  });
  it('Pictures by pixels: the first picture is gone in a millisecond; x 4, y 6 is an error; flip blinks like on and off', () => {
    const [sun] = came('pictures-by-pixels', 'no-pause').pictures;
    expect(sun.toUs - sun.fromUs).toBeLessThan(1000);
    const [kept] = came('pictures-by-pixels', 'with-pause').pictures;
    expect(kept.toUs - kept.fromUs).toBeGreaterThan(900_000);
    expect(eventsOf(run('pictures-by-pixels', 'corner-wrong'), 'error')).toHaveLength(1);
    // the last of 7 columns and of 5 rows, counted from 0
    expect(came('pictures-by-pixels', 'corner-right').pictures.at(-1)!.what.split(' ')[4][6]).toBe('#');
    expect(sameBehaviour(run('pictures-by-pixels', 'on-and-off'), run('pictures-by-pixels', 'flip-twice')).same).toBe(
      true
    );
    expect(came('pictures-by-pixels', 'three-pixels').pictures.at(-1)!.what.split(' ')[2][3]).toBe('#');
  });
  it('From eight blocks to four: the loop does the same; face 90 makes one corner; counting on comes home', () => {
    expect(sameBehaviour(run('eight-to-four', 'eight'), run('eight-to-four', 'loop')).same).toBe(true);
    const { programs } = lesson('eight-to-four');
    expect(countBlocks(programs.eight.program)).toBe(8);
    expect(countBlocks(programs.loop.program)).toBeLessThan(5);
    const facing = run('eight-to-four', 'face90');
    // one side down, three ahead: away by the square root of 1 + 9 sides of 30 cm
    const { x, y } = endOf(facing);
    expect(Math.hypot(x - startOf(facing).x, y - startOf(facing).y) * 100).toBeCloseTo(30 * Math.sqrt(10), -0.7);
    const home = run('eight-to-four', 'heading');
    expect(Math.hypot(endOf(home).x - startOf(home).x, endOf(home).y - startOf(home).y)).toBeLessThan(0.02);
    const five = run('eight-to-four', 'five');
    expect(Math.hypot(endOf(five).x - startOf(five).x, endOf(five).y - startOf(five).y)).toBeLessThan(0.05);
    expect(eventsOf(five, 'touch')).toEqual([]);
  });
  it('The path by two sensors: with the table it comes round; blind, swapped and looked once it does not', () => {
    const way = (name: string) => travelled(run('path-by-two-sensors', name));
    expect(way('table')).toBeGreaterThan(1);
    for (const name of ['blind', 'swapped', 'once']) expect(way(name)).toBeLessThan(0.7);
    expect(came('path-by-two-sensors', 'blind').findings.join()).toMatch(/blind for up to 1200 ms and 8\.\d cm/);
  });
  it('Left means left: both forward spins; one of them back drives ahead, as the wheels do; it drifts while it coasts', () => {
    const spins = run('left-means-left', 'spins');
    expect(Math.hypot(endOf(spins).x - startOf(spins).x, endOf(spins).y - startOf(spins).y)).toBeLessThan(0.01);
    const straight = run('left-means-left', 'straight');
    expect(endOf(straight).x - startOf(straight).x).toBeGreaterThan(0.2);
    expect(sameBehaviour(straight, run('left-means-left', 'by-wheels')).same).toBe(true);
    expect(came('left-means-left', 'coasting').findings.join()).toContain('It still rolled');
    expect(came('left-means-left', 'rested').findings).toEqual([]);
    // facing up the mat at first, so its own left is to the left on it
    const left = run('left-means-left', 'left');
    expect(startOf(left).facingDeg).toBe(0);
    expect(startOf(left).x - endOf(left).x).toBeGreaterThan(0.15);
  });
});
