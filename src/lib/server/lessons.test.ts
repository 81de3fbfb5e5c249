import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import type { Errand } from '../../../core/errand/errand.ts';
import { newLesson, type Lesson } from '../../../core/lesson/lesson.ts';
import { demoLessons, ship } from '../../../demo/seed.ts';
import { openDatabase } from './database.ts';
import { listErrands, openErrand, putAway } from './errands.ts';
import { addLesson, errandsOf, listLessons, openLesson, saveLesson, shipLessons } from './lessons.ts';
import { lessons } from './schema.ts';

const folder = mkdtempSync(join(tmpdir(), 'mossbell-lessons-'));
const store = openDatabase(folder);
afterAll(() => rmSync(folder, { recursive: true }));
const own = (text: string): Lesson => newLesson('well', text);

describe('the lessons of a school computer', () => {
  it('has those that ship, with their errands, and renews them without doubling', () => {
    ship(store);
    expect(listLessons(store).map((l) => l.id)).toEqual(demoLessons().map((l) => l.id));
    expect(shipLessons(store, demoLessons())).toBe(0);
    const [card] = listLessons(store);
    expect(card).toMatchObject({
      name: { en: 'First wheels', de: 'Die ersten Räder' },
      objective: { en: expect.stringContaining('Afterwards you can make Barrow drive') },
      steps: 6,
      ships: true
    });
    const { lesson } = openLesson(store, card.id)!;
    // their solutions are for teachers
    expect(errandsOf(store, lesson, { id: 'ash', role: 'teacher', nickname: 'Ash' }).map((e) => e.id)).toEqual([
      'first-delivery'
    ]);
    for (const role of ['pupil', 'guest'] as const)
      expect(errandsOf(store, lesson, { id: 'wren', role, nickname: '' })).toEqual([]);
    const [first] = demoLessons();
    shipLessons(store, [{ ...first, text: '# Otherwise' }]);
    expect(openLesson(store, first.id)!.lesson.text).toBe('# Otherwise');
    expect(saveLesson(store, first, openLesson(store, first.id)!.changedAt)).toBe('ships');
    expect(putAway(store, lessons, first.id, true)).toBe(false);
  });
  it('takes a lesson in, and its errands; one whose id is taken gets another, and the text names it by that', () => {
    const errand = JSON.parse(
      readFileSync(new URL('../../../demo/errands/first-delivery.mossbell-errand.json', import.meta.url), 'utf8')
    ) as Errand;
    const count = listErrands(store).length;
    // the same errand is here already
    const id = addLesson(store, { lesson: own('# Well\n\n```errand first-delivery\n```\n'), errands: [errand] });
    expect([id, listErrands(store).length]).toEqual(['well', count]);
    // another that is called so is not
    const other = { ...errand, story: 'Otherwise.' };
    const second = addLesson(store, { lesson: own('# Well\n\n```errand first-delivery\n```\n'), errands: [other] });
    expect(second).toBe('well-2');
    expect(openErrand(store, 'first-delivery-2')!.story).toBe('Otherwise.');
    expect(openLesson(store, second)!.lesson.text).toContain('```errand first-delivery-2\n');
    expect(openLesson(store, 'well')!.lesson.text).toContain('```errand first-delivery\n');
  });
  it('saves what was written, and refuses what was written from an older state', () => {
    const { changedAt } = openLesson(store, 'well')!;
    const saved = saveLesson(store, own('# Well, written'), changedAt, changedAt, 'mine');
    if (typeof saved === 'string') throw new Error(saved);
    expect(saved.changedAt).toBeGreaterThan(changedAt);
    expect(saveLesson(store, own('# Overwritten'), changedAt)).toBe('older');
    expect(saveLesson(store, own('# Overwritten'), changedAt, changedAt, 'theirs')).toBe('older');
    expect(openLesson(store, 'well')!.lesson.text).toBe('# Well, written');
    expect(listLessons(store).find((l) => l.id === 'well')!.name).toBe('Well, written');
    // the tab whose answer was lost saves again
    const again = saveLesson(store, own('# Well, written'), changedAt, changedAt, 'mine');
    expect(again).toMatchObject({ changedAt: saved.changedAt + 1 });
    expect(saveLesson(store, newLesson('gone', '# x'), 0)).toBe('none');
  });
  it('puts one of its own away, and back', () => {
    expect(putAway(store, lessons, 'well', true)).toBe(true);
    expect(openLesson(store, 'well')).toBeUndefined();
    expect(saveLesson(store, own('# x'), 0)).toBe('none');
    expect(putAway(store, lessons, 'well', false)).toBe(true);
    expect(openLesson(store, 'well')!.lesson.text).toBe('# Well, written');
  });
});
