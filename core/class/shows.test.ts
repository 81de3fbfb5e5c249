/** What a class shows, of runs made up here: each number can be counted by hand. */
import { expect, it } from 'vitest';
import { b, program, start } from '../testing/build.ts';
import { shows, type Work } from './shows.ts';

const drives = (amount: number, id = 'b7') => program(start({ ...b('drive.measure', { amount, power: 50 }), id }));
const result = (goals: boolean[], x: number) => ({
  errand: 'e',
  met: goals.every(Boolean),
  got: goals.filter(Boolean).length,
  of: goals.length,
  goals,
  stop: { x, y: 0.3 },
  changed: []
});
const rolled = (says: string) => ({ rule: 'rolled-on-stop', says, blocks: ['b7'] });
const works: Work[] = [
  {
    nickname: 'Wren',
    projectId: 'w',
    remarks: [{ rule: 'never-stopped', says: 'runs on' }],
    tries: [
      { at: 1, result: result([false, true], 0.4), told: [rolled('by 5')], program: drives(40) },
      { at: 4, result: result([true, true], 0.65), told: [], program: drives(65) }
    ]
  },
  {
    nickname: 'Newt',
    projectId: 'n',
    remarks: [],
    tries: [
      {
        at: 2,
        result: result([false, false], 0.9),
        told: [rolled('by 9'), { rule: 'touched', says: 'a bench', blocks: [] }],
        program: drives(90)
      },
      { at: 3, told: [rolled('by 8')], program: drives(90) }
    ]
  },
  { nickname: 'Linnet', projectId: 'l', remarks: [{ rule: 'never-stopped', says: 'runs on too' }], tries: [] }
];

it('goals are missed by whoever has met them in no try; who has not tried does not count', () => {
  expect(shows(works, 2).goals).toEqual([
    { missedBy: ['Newt'], of: 2 },
    { missedBy: ['Newt'], of: 2 }
  ]);
});
it('findings come the commonest first, counted once a pupil, with the newest as an example', () => {
  expect(shows(works, 2).found).toEqual([
    { rule: 'rolled-on-stop', says: 'by 8', pupils: 2, nickname: 'Newt', projectId: 'n' },
    { rule: 'touched', says: 'a bench', pupils: 1, nickname: 'Newt', projectId: 'n' }
  ]);
});
it('remarks of the look-over are counted too, also of those who have not tried it', () => {
  expect(shows(works, 2).remarks).toEqual([
    { rule: 'never-stopped', says: 'runs on', pupils: 2, nickname: 'Wren', projectId: 'w' }
  ]);
});
it('numbers that were tried: each slot of which more than one value was, by pupil and try', () => {
  const { slots } = shows(works, 2);
  expect(slots.map((s) => s.key.slot)).toEqual(['amount']);
  expect(slots[0].series).toEqual([
    {
      nickname: 'Wren',
      points: [
        { at: 1, value: 40, met: false },
        { at: 4, value: 65, met: true }
      ]
    },
    {
      nickname: 'Newt',
      points: [
        { at: 2, value: 90, met: false },
        { at: 3, value: 90, met: false }
      ]
    }
  ]);
});
it('stopping places are those of every try that stopped somewhere; the last of each is told', () => {
  expect(shows(works, 2).stops.map(({ nickname, x, met, last }) => [nickname, x, met, last])).toEqual([
    ['Wren', 0.4, false, false],
    ['Wren', 0.65, true, true],
    ['Newt', 0.9, false, false]
  ]);
});
