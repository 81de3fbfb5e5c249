import { expect, it } from 'vitest';
import { b, program, start } from '../testing/build.ts';
import { differences } from './differ.ts';
import type { Program } from './program.ts';

const told = (was: Program, is: Program): string[] =>
  differences(was, is).map((d) => `${d.what} ${(d.is ?? d.was)!.kind}`);
const copy = (of: Program): Program => structuredClone(of);
const drive = b('drive.measure', { amount: 40 });
const turn = b('turn.angle', { angle: 60 });
const loop = b('repeat.times', { count: 3 }, { do: [b('wait.time', { time: 1 })] });
const before = program(start(drive, turn, loop));

it('the same program has none, whatever was dragged about on the sheet', () => {
  const moved = copy(before);
  Object.assign(moved.stacks[0], { x: 400, y: 90 });
  expect(told(before, moved)).toEqual([]);
});
it('another number is a change of its block alone, and a wait in a loop of the wait alone', () => {
  const after = copy(before);
  after.stacks[0].steps[1].slots.amount = 65;
  after.stacks[0].steps[3].bodies!.do[0].slots.time = 2;
  expect(told(before, after)).toEqual(['changed drive.measure', 'changed wait.time']);
  const [change] = differences(before, after);
  expect([change.was!.slots.amount, change.is!.slots.amount]).toEqual([40, 65]);
});
it('a block that is put in makes no other one moved; one that is taken out is gone, with what is in it', () => {
  const after = copy(before);
  after.stacks[0].steps.splice(1, 0, b('sound.tone'));
  expect(told(before, after)).toEqual(['new sound.tone']);
  expect(told(after, before)).toEqual(['gone sound.tone']);
  const without = copy(before);
  without.stacks[0].steps.pop();
  expect(told(before, without)).toEqual(['gone repeat.times', 'gone wait.time']);
});
it('a block that goes into a loop, and two that change places, are moved', () => {
  const into = copy(before);
  const [gone] = into.stacks[0].steps.splice(2, 1);
  into.stacks[0].steps[2].bodies!.do.push(gone);
  expect(told(before, into)).toEqual(['moved turn.angle']);
  const swapped = copy(before);
  swapped.stacks[0].steps.splice(1, 2, swapped.stacks[0].steps[2], swapped.stacks[0].steps[1]);
  expect(told(before, swapped)).toContain('moved turn.angle');
  expect(told(before, swapped).every((d) => d.startsWith('moved'))).toBe(true);
});
it('a value block in a slot is new, and its block is changed', () => {
  const after = copy(before);
  after.stacks[0].steps[1].slots.amount = b('sense.distance');
  expect(told(before, after)).toEqual(['changed drive.measure', 'new sense.distance']);
});
