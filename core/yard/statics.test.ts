import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loads, type Support } from './statics.ts';

describe('a weight on its supports', () => {
  it('of three is shared as the moments say (statics, any textbook)', () => {
    // 12 ahead of the mass two wheels, 48 behind it one caster: 48 / 60 of the weight on the wheels
    const [l, r, caster] = loads(10, [
      { x: 0.012, y: 0.062 },
      { x: 0.012, y: -0.062 },
      { x: -0.048, y: 0 }
    ]);
    expect([l, r, caster].map((n) => Math.round(n * 1e9) / 1e9)).toEqual([4, 4, 2]);
    // a three-legged table with the weight over one leg
    expect(
      loads(7, [
        { x: 0, y: 0 },
        { x: 1, y: 0 },
        { x: 0, y: 1 }
      ]).map((n) => Math.round(n * 1e9))
    ).toEqual([7e9, 0, 0]);
  });
  it('of four equal ones is shared alike, and leans to where it is', () => {
    const table = (x: number, y: number) =>
      loads(8, [
        { x: 1 - x, y: 1 - y },
        { x: 1 - x, y: -1 - y },
        { x: -1 - x, y: 1 - y },
        { x: -1 - x, y: -1 - y }
      ]).map((n) => Math.round(n * 1e6) / 1e6);
    expect(table(0, 0)).toEqual([2, 2, 2, 2]);
    // a rigid plate on equal springs: N = W/4 (1 + x/a + y/b)
    expect(table(0.25, 0)).toEqual([2.5, 2.5, 1.5, 1.5]);
    expect(table(0.25, 0.25)).toEqual([3, 2, 2, 1]);
    // so far out that one leg would have to pull: it carries nothing, and the others are in balance
    const far = table(0.6, 0.6);
    expect(far[3]).toBe(0);
    expect(far.reduce((a, b) => a + b)).toBeCloseTo(8, 5);
  });
  it('never pulls, is all there, and is in balance wherever the mass is among them', () => {
    const place = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: place, y: place }), { minLength: 1, maxLength: 6 }),
        (supports: Support[]) => {
          const carried = loads(5, supports);
          expect(Math.min(...carried)).toBeGreaterThanOrEqual(0);
          expect(carried.reduce((a, b) => a + b, 0)).toBeCloseTo(5, 6);
        }
      ),
      { numRuns: 300, seed: 9 }
    );
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.1, max: 1, noNaN: true }), { minLength: 3, maxLength: 6 }), (radii) => {
        // round the mass, so that it is among them
        const supports = radii.map((r, i) => {
          const a = (2 * Math.PI * i) / radii.length;
          return { x: r * Math.cos(a), y: r * Math.sin(a) };
        });
        const carried = loads(5, supports);
        for (const axis of ['x', 'y'] as const)
          expect(carried.reduce((sum, n, i) => sum + n * supports[i][axis], 0)).toBeCloseTo(0, 6);
      }),
      { numRuns: 300, seed: 9 }
    );
  });
});
