/** The errands that ship: sound on the kit sheet and on stand-ins, in both languages, one thing each that is easily got wrong. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readErrand, type Errand } from '../core/errand/errand.ts';
import { standInsOf, unsound } from '../core/errand/proof.ts';
import type { Told } from '../core/errand/task.ts';

const FOLDER = new URL('errands/', import.meta.url);
const files = readdirSync(FOLDER).sort();
const errands = files.map((file): Errand => {
  const read = readErrand(readFileSync(new URL(file, FOLDER), 'utf8'), file);
  if (!read.ok) throw new Error(read.problem);
  return read.errand;
});

it('are thirteen, each in the file of its name', () => {
  expect(errands).toHaveLength(13);
  expect(files).toEqual(errands.map((e) => `${e.id}.mossbell-errand.json`).sort());
});
describe.each(errands.map((e) => [e.id, e] as const))('%s', (_, errand) => {
  it('is sound: its model meets all goals, its wrong programs miss the goal meant', () => {
    expect(unsound(errand)).toEqual([]);
    expect(errand.wrong.length).toBeGreaterThanOrEqual(2);
  });
  it('says everything in English and in German', () => {
    const all: Told[] = [errand.name, errand.story, ...errand.hints, ...errand.wrong.map((w) => w.shows)];
    for (const told of all) {
      expect(Object.keys(told as object)).toEqual(['en', 'de']);
      const { en, de } = told as { en: string; de: string };
      expect(de).not.toBe(en);
    }
    expect(errand.hints.length).toBeGreaterThanOrEqual(2);
  });
});
it('where it says so, the model is tried on three stand-ins', () => {
  const on = errands.filter((e) => e.standIns);
  expect(on.map((e) => e.id)).toEqual(['first-delivery', 'the-gravel-path', 'there-and-back']);
  for (const errand of on) expect(standInsOf(errand)).toHaveLength(3);
});
