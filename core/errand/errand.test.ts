/** An errand's file: what comes in, what is refused with which sentence, and what a pupil may change. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { setSlot } from '../language/edit.ts';
import { readProject, writeProject } from '../project.ts';
import { fromText } from '../testing/text.ts';
import { speakFrom, ENGLISH } from '../words.ts';
import { checkErrand, projectOf, readErrand, taskOf, writeErrand, type Errand } from './errand.ts';
import { mayNot } from './may.ts';
import { unsound } from './proof.ts';
import { toldIn } from './task.ts';

const text = readFileSync(new URL('../../demo/errands/first-delivery.mossbell-errand.json', import.meta.url), 'utf8');
const first = (): Errand => JSON.parse(text) as Errand;
const problem = (errand: unknown): string => {
  const read = checkErrand(errand, 'It');
  return read.ok ? '' : read.problem;
};

describe('an errand’s file', () => {
  it('is read, and written as it was', () => {
    const read = readErrand(text);
    expect(read.ok && writeErrand(read.errand)).toBe(text);
  });
  it('becomes a project whose file keeps the task, and neither model nor wrong programs', () => {
    const project = projectOf(first());
    expect(project.program).toEqual(first().given);
    expect(Object.keys(taskOf(first()))).not.toContain('model');
    const file = writeProject(project);
    expect(file).not.toContain('momentum');
    const read = readProject(file);
    // and with it what its own yard is known by
    expect(read.ok && read.project.errand).toEqual({
      ...taskOf(first()),
      yard: expect.stringMatching(/^[0-9a-f]{8}$/)
    });
  });
  it('says its words in the language of the moment, in English where there is none', () => {
    expect(toldIn({ en: 'Path', de: 'Weg' })).toBe('Path');
    speakFrom(() => ({ code: 'de', messages: {}, told: {} }));
    expect([toldIn({ en: 'Path', de: 'Weg' }), toldIn({ en: 'Path' }), toldIn('as it is')]).toEqual([
      'Weg',
      'Path',
      'as it is'
    ]);
    speakFrom(() => ENGLISH);
  });
});
describe('what is no good is said, and where', () => {
  const cases: [string, (e: Errand) => unknown, RegExp][] = [
    ['another format', (e) => ({ ...e, format: 'mossbell.project' }), /not an errand of Moss Bell/],
    [
      'a newer version',
      (e) => ({ ...e, version: 9 }),
      /newer Moss Bell \(errands of version 9; this one reads up to 2\)/
    ],
    [
      'a hoop that the mat lacks',
      (e) => ({ ...e, mat: { ...e.mat, hoops: [] } }),
      /speaks of the hoop bench, and the mat Long aisle has none/
    ],
    [
      'a hoop in a goal of goals',
      (e) => ({ ...e, goals: [{ kind: 'never', goal: { kind: 'pass', hoop: 'x', within: 0 } }] }),
      /the hoop x/
    ],
    [
      'a goal of no known kind',
      (e) => ({ ...e, goals: [{ kind: 'order', goals: [{ kind: 'fly' }] }] }),
      /does not know: "fly"/
    ],
    ['no goals', (e) => ({ ...e, goals: [] }), /at "goals"/],
    ['a hint that is a list', (e) => ({ ...e, hints: [['a']] }), /at "hints" \[1\]/],
    ['a name with a language that is none', (e) => ({ ...e, name: { german: 'x' } }), /at "name"/],
    [
      'a wrong program for a goal that there is not',
      (e) => ({ ...e, wrong: [{ ...e.wrong[0], misses: [7] }] }),
      /a goal that there is not/
    ],
    ['inputs that are none', (e) => ({ ...e, inputs: '{"t": 1, "sing": true}' }), /line 1/i],
    [
      'a block that there is not',
      (e) => ({
        ...e,
        model: { ...e.model, stacks: [{ id: 's', x: 0, y: 0, steps: [{ id: 'b', kind: 'fly.away', slots: {} }] }] }
      }),
      /fly\.away/
    ],
    ['a field too many', (e) => ({ ...e, script: 'alert(1)' }), /script/],
    ['what is no object', () => null, /not an errand/]
  ];
  it.each(cases)('%s', (_, change, says) => {
    expect(problem(change(first()))).toMatch(says);
  });
  it('what is no JSON, with line and column', () => {
    const read = readErrand('{\n  "format": oops }', 'lost.mossbell-errand.json');
    expect(!read.ok && read.problem).toMatch(/line 2.*near "oops".*mossbell-errand\.json/);
  });
  it('prototype keys do nothing', () => {
    const evil = JSON.parse(text.replace('"format"', '"__proto__": {"met": true}, "format"')) as unknown;
    expect(problem(evil)).not.toBe('');
    expect(({} as { met?: boolean }).met).toBeUndefined();
  });
});
it('a model that misses its goals, and a wrong program that meets them, make it unsound', () => {
  const errand = { ...first(), standIns: undefined };
  expect(unsound(errand)).toEqual([]);
  const swapped = { ...errand, model: errand.wrong[1].program, wrong: [{ ...errand.wrong[0], program: errand.model }] };
  const [model, wrong] = unsound(swapped);
  expect(model).toMatch(/^The model misses the goal 1, Stop in the hoop bench: Stopped 14\.\d cm past/);
  expect(wrong).toMatch(/^The wrong program 1 \(A motor that was started .*\) meets the goal Stop in the hoop bench/);
});

describe('what may be changed', () => {
  const before = fromText('wheels.drive(cm=40, power=50, ending="brake")\nwait(1)');
  const [, drive, pause] = before.stacks[0].steps;
  const numbers = fromText('wheels.drive(cm=65, power=30, ending="brake")\nwait(2)');
  const ending = fromText('wheels.drive(cm=40, power=50, ending="coast")\nwait(1)');
  const more = fromText('wheels.drive(cm=40, power=50, ending="brake")\nwait(1)\nbeep()');
  it('all', () => expect(mayNot({ may: 'all' }, before, more)).toBeUndefined());
  it('numbers alone', () => {
    const may = { may: 'numbers' as const };
    expect(mayNot(may, before, numbers)).toBeUndefined();
    expect(mayNot(may, before, ending)).toMatch(/numbers alone/);
    expect(mayNot(may, before, more)).toMatch(/numbers alone/);
    expect(mayNot(may, before, before)).toBeUndefined();
    // an editor writes the fields in an order of its own
    const { amount, ...rest } = numbers.stacks[0].steps[1].slots;
    const [begin, , last] = numbers.stacks[0].steps;
    const turned = { ...numbers.stacks[0].steps[1], slots: { ...rest, amount } };
    expect(
      mayNot(may, before, { ...numbers, stacks: [{ ...numbers.stacks[0], steps: [begin, turned, last] }] })
    ).toBeUndefined();
  });
  it('these blocks alone, and they stay', () => {
    const may = { may: [drive.id] };
    const slot = (id: string, key: string, value: number) => setSlot(before, id, key, value);
    expect(mayNot(may, before, slot(drive.id, 'amount', 65))).toBeUndefined();
    expect(mayNot(may, before, slot(pause.id, 'time', 9))).toMatch(/marked blocks/);
    const without = { ...before, stacks: [{ ...before.stacks[0], steps: [before.stacks[0].steps[0], pause] }] };
    expect(mayNot(may, before, without)).toMatch(/marked blocks/);
  });
  it('a note and a place are nobody’s concern', () => {
    const noted = {
      ...before,
      stacks: [{ ...before.stacks[0], x: 500, steps: [before.stacks[0].steps[0], { ...drive, note: 'why' }, pause] }]
    };
    expect(mayNot({ may: 'numbers' }, before, noted)).toBeUndefined();
    expect(mayNot({ may: [pause.id] }, before, noted)).toBeUndefined();
  });
});
