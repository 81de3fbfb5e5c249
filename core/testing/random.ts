import fc from 'fast-check';
import type { Slot, Step } from '../language/program.ts';
import { b, cmp, log, program, start, sum, wait } from './build.ts';

/** Random programs of this blocks that always end. */
const value = (depth: number): fc.Arbitrary<Slot> =>
  depth === 0
    ? fc.oneof(
        fc.integer({ min: -9, max: 9 }),
        fc.constant(0).map(() => b('sense.timer')),
        fc.constant(0).map(() => b('var.value', { variable: 'v1' }))
      )
    : fc
        .tuple(value(depth - 1), fc.constantFrom('+', '−', '×', '÷'), value(depth - 1))
        .map(([x, sign, y]) => sum(x, sign, y));
const step = (depth: number): fc.Arbitrary<Step> => {
  const plain = [
    fc.tuple(fc.integer({ min: 0, max: 20 })).map(([n]) => wait(n, 'ms')),
    value(1).map((v) => log(v)),
    value(1).map((v) => b('var.set', { variable: 'v1', value: v })),
    fc.integer({ min: -120, max: 120 }).map((n) => b('wheels.run', { left: n, right: n === 0 ? 0 : -n })),
    fc.integer({ min: 0, max: 7 }).map((x) => b('pixel.set', { x, y: 1, to: 'flip' }))
  ];
  if (depth === 0) return fc.oneof(...plain);
  const body = fc.array(step(depth - 1), { maxLength: 3 });
  return fc.oneof(
    ...plain,
    fc.tuple(fc.integer({ min: 0, max: 4 }), body).map(([n, list]) => b('repeat.times', { count: n }, { do: list })),
    fc
      .tuple(value(1), value(1), body, body)
      .map(([x, y, yes, no]) => b('choose.if', { if1: cmp(x, '<', y) }, { then1: yes, otherwise: no }))
  );
};
export const randomProgram = fc
  .array(fc.array(step(2), { minLength: 1, maxLength: 5 }), { minLength: 1, maxLength: 3 })
  .map((stacks) => program(...stacks.map((steps) => start(...steps))));
