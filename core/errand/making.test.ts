import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { newProject } from '../project.ts';
import { fromText } from '../testing/text.ts';
import { mats } from '../yard/mats.ts';
import { errandFrom, givenOf, goalsOf, newMaking, taskFor, type Making, type Row } from './making.ts';
import { tried, unsound } from './proof.ts';

const aisle = mats.find((m) => m.name === 'Long aisle')!;
const model = fromText('wheels.drive(cm=80, power=40, ending="brake")');
const stop = { kind: 'stop', hoop: '80 cm', within: 0 };
const pass = { kind: 'pass', hoop: '80 cm', within: 0 };
const quiet = { kind: 'touch-nothing' };
const row = (goal: Row['goal'], how: Row['how'] = 'by itself'): Row => ({ goal, how });
const making = (change: Partial<Making>): Making => ({
  ...newMaking(newProject('Eighty', barrow, aisle)),
  ...change
});
const wrong = (text: string) => ({ name: 'Wrong', shows: '', program: fromText(text) });

describe('an errand that is made', () => {
  it('makes goals of rows: by themselves, in the order of those that have one, and what must never be', () => {
    expect(goalsOf([row(stop), row(quiet, 'never')])).toEqual([stop, { kind: 'never', goal: quiet }]);
    expect(goalsOf([row(pass, 'in order'), row(quiet), row(stop, 'in order')])).toEqual([
      { kind: 'order', goals: [pass, stop] },
      quiet
    ]);
    // one alone is in no order
    expect(goalsOf([row(quiet), row(pass, 'in order')])).toEqual([quiet, pass]);
    expect(goalsOf([])).toEqual([]);
  });
  it('begins with the starters alone, with the model, or with a wrong program', () => {
    const one = making({ wrong: [wrong('wait(1)')] });
    expect(givenOf(one, model).stacks.map((s) => s.steps.map((b) => b.kind))).toEqual([['begin.start']]);
    expect(givenOf({ ...one, given: 'model' }, model)).toBe(model);
    expect(givenOf({ ...one, given: 0 }, model)).toBe(one.wrong[0].program);
    // one that is not there any more
    expect(givenOf({ ...one, given: 3 }, model).stacks[0].steps).toHaveLength(1);
  });
  it('becomes an errand that is sound: wrong programs are to miss what they missed, those that miss nothing are left out', () => {
    const made = making({
      rows: [row(stop), row(quiet)],
      hints: [' Count the marks. ', ''],
      wrong: [wrong('wheels.drive(cm=40, power=40, ending="brake")'), { ...wrong(''), program: model }],
      offersModel: true
    });
    const of = (program: typeof model) =>
      tried({ ...taskFor(made, model), kit: barrow, mat: aisle, model } as never, program);
    const read = errandFrom(made, {
      id: 'eighty',
      kit: barrow,
      model,
      offers: ['begin.start', 'drive.measure'],
      verdicts: made.wrong.map((w) => of(w.program))
    });
    if (!read.ok) throw new Error(read.problem);
    expect(unsound(read.errand)).toEqual([]);
    expect(read.errand).toMatchObject({
      name: 'Eighty',
      story: 'Eighty',
      hints: ['Count the marks.'],
      offers: ['begin.start', 'drive.measure'],
      wrong: [{ shows: 'Wrong', misses: [0] }]
    });
    // a goal of a hoop that was taken away is told
    const gone = errandFrom(
      { ...made, mat: { ...aisle, hoops: [] } },
      { id: 'eighty', kit: barrow, model, offers: [], verdicts: [] }
    );
    expect(gone).toMatchObject({ ok: false, problem: expect.stringContaining('A goal speaks of the hoop 80 cm') });
  });
  it('lists any number of changes that are right too, those of one reason together', () => {
    const [, drive] = model.stacks[0].steps;
    const one = (slot: string, why: string) => ({
      says: slot,
      why,
      change: { kind: 'twice', block: drive.id, slot } as const
    });
    const alsoRight = [
      ...Array.from({ length: 20 }, () => one('power', ' It is only faster. ')),
      one('amount', ''),
      one('power', '')
    ];
    const made = errandFrom(
      { ...making({ rows: [row(stop)], alsoRight }) },
      { id: 'eighty', kit: barrow, model, offers: [], verdicts: [] }
    );
    if (!made.ok) throw new Error(made.problem);
    expect(made.errand.alsoRight.map((a) => [a.why, 'changes' in a ? a.changes.length : 0])).toEqual([
      ['It is only faster.', 20],
      ['its author says so', 2]
    ]);
  });
});
