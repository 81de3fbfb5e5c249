import { strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { newProject, VERSION } from '../project.ts';
import { hall } from '../testing/build.ts';
import { fromText } from '../testing/text.ts';
import { rehearse } from '../run/interpreter.ts';
import { happened } from './happened.ts';
import {
  checkLesson,
  filesOf,
  fromFiles,
  LESSON_VERSION,
  newLesson,
  readLesson,
  zipLesson,
  type Lesson
} from './lesson.ts';

const project = (text: string) => ({ ...newProject('Forty', barrow, hall), program: fromText(text) });
const forty = project('wheels.drive(cm=40, power=50, ending="brake")');
const lesson: Lesson = {
  ...newLesson('two-tongues', ''),
  text: { en: '# Two tongues\n\n```program forty\n```\n', de: '# Zwei Zungen\n' },
  programs: { forty }
};
const problem = (read: { ok: boolean; problem?: string }): string => read.problem ?? '';

describe('a lesson as a file', () => {
  it('is a zip of plain files, and comes back as it was', () => {
    const bytes = zipLesson({ lesson, errands: [] });
    expect(Object.keys(unzipSync(bytes)).sort()).toEqual([
      'lesson.de.md',
      'lesson.en.md',
      'lesson.json',
      'programs/forty.mossbell.json'
    ]);
    expect(readLesson(bytes, 'a.zip')).toEqual({ ok: true, lesson, errands: [] });
    const one: Lesson = { ...lesson, text: '# One tongue' };
    expect(readLesson(zipLesson({ lesson: one, errands: [] }), 'a.zip')).toMatchObject({ lesson: { text: one.text } });
    // folders that other programs put into a zip are no files
    expect(readLesson(zipSync({ ...filesOf({ lesson, errands: [] }), 'programs/': new Uint8Array() }), 'a').ok).toBe(
      true
    );
  });
  it('says of a bad one what is wrong, and where', () => {
    const files = filesOf({ lesson, errands: [] });
    const of = (change: Record<string, string | undefined>): string => {
      const all = { ...files };
      for (const [path, text] of Object.entries(change)) {
        if (text === undefined) delete all[path];
        else all[path] = strToU8(text);
      }
      return problem(fromFiles(all, 'well.zip'));
    };
    expect(of({ 'lesson.json': undefined })).toBe('well.zip has no lesson.json: it is not a lesson of Moss Bell.');
    expect(of({ 'lesson.json': '{' })).toContain('well.zip: lesson.json is not a file of Moss Bell: it is not JSON');
    expect(
      of({ 'lesson.json': JSON.stringify({ format: 'mossbell.lesson', version: LESSON_VERSION + 1, id: 'x' }) })
    ).toContain('was written by a newer Moss Bell (lessons of version 2; this one reads up to 1)');
    expect(of({ 'lesson.json': JSON.stringify({ format: 'mossbell.lesson', version: 1, id: '../up' }) })).toContain(
      'at "id"'
    );
    expect(of({ 'lesson.en.md': undefined, 'lesson.de.md': undefined })).toContain('has no text');
    expect(of({ 'programs/forty.mossbell.json': '{}' })).toContain(
      'well.zip: programs/forty.mossbell.json is JSON, but not'
    );
    expect(of({ 'programs/forty.mossbell.json': JSON.stringify({ ...forty, version: VERSION + 1 }) })).toContain(
      'newer Moss Bell'
    );
    expect(of({ 'errands/x.mossbell-errand.json': '[]' })).toContain(
      'errands/x.mossbell-errand.json is JSON, but not an errand'
    );
    expect(problem(readLesson(strToU8('PNG'), 'a.png'))).toContain('a.png is not a zip file, or only a part of one');
    const whole = zipLesson({ lesson, errands: [] });
    expect(problem(readLesson(whole.slice(0, whole.length / 2), 'half.zip'))).toContain('only a part of one');
  });
  it('refuses what unpacks to very much, without unpacking it', () => {
    const bomb = zipSync({ 'lesson.json': new Uint8Array(30_000_000) });
    expect(bomb.length).toBeLessThan(100_000);
    expect(problem(readLesson(bomb, 'bomb.zip'))).toContain('unpacks to more than 20 MB');
  });
  it('takes no value that is none, and no key that is not asked for', () => {
    expect(problem(checkLesson(null))).toContain('is not a lesson of Moss Bell');
    expect(problem(checkLesson({ ...lesson, more: 1 }))).toContain('cannot be opened');
    expect(problem(checkLesson({ ...lesson, text: '' }))).toContain('"text"');
    expect(problem(checkLesson({ ...lesson, programs: { 'not a slug': forty } }))).toContain('cannot be opened');
    expect(problem(checkLesson({ ...lesson, programs: { forty: { ...forty, kit: 0 } } }))).toContain(
      'The program forty'
    );
    const many = Object.fromEntries(Array.from({ length: 61 }, (_, i) => [`p${i}`, forty]));
    expect(problem(checkLesson({ ...lesson, programs: many }))).toContain('more than 60 programs');
  });
});

describe('what a run did, in a line', () => {
  const of = (text: string) => {
    const p = project(text);
    return happened(rehearse({ ...p, seed: 1, limitS: 20 }), p);
  };
  it('tells how far it drove and how far away it stands', () => {
    // three sides of a square of 20 cm: 60 cm of way, one side away from the start
    const corner = 'wheels.drive(cm=20, power=40, ending="brake")\nwheels.turn(right=90, power=30, ending="brake")\n';
    const { says } = of(`${corner}${corner}wheels.drive(cm=20, power=40, ending="brake")`);
    const [, way, away] = /· ([\d.]+) cm driven · ([\d.]+) cm from the start · heading (?:179|180|181)°/.exec(says)!;
    expect(Number(way)).toBeCloseTo(60, -0.3);
    expect(Number(away)).toBeCloseTo(20, -0.3);
    // no way where it did not drive; a run is looked at for half a second after its program
    expect(of('wait(2)').says).toBe('2.50 s');
  });
  it('tells pictures with their times, tones, the log, and what is to be known', () => {
    const { says, pictures, logs } = of(
      'display.show(Picture("#...... ....... ....... ....... ......."))\nwait(0.5)\ndisplay.dark()\nlog("five")\ntone(440, 0.2)\nwait(0.3)'
    );
    expect(says).toContain('1 tone');
    expect(logs).toEqual(['five']);
    expect((pictures[0].toUs - pictures[0].fromUs) / 1e6).toBeCloseTo(0.5, 2);
    expect(of('wheels.run(30, 30)\nwait(1)').findings.join()).toContain('nothing stopped it');
  });
});
