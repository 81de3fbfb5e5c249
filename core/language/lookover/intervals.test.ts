import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { Interpreter } from '../../run/interpreter.ts';
import { Bench } from '../../run/bench.ts';
import { b, hall, log, program, start } from '../../testing/build.ts';
import { RunError } from '../meaning.ts';
import type { Slot, Step } from '../program.ts';
import { Ranges } from './intervals.ts';

const of = (slot: Slot) => new Ranges(program(start(log(slot))), barrow).of(slot);
const stick = (): Step => b('sense.stick');
const sum = (a: Slot, sign: string, c: Slot): Step => b('calc.sum', { a, sign, b: c });

describe('intervals', () => {
  it('are those of the corners (Moore, Kearfott and Cloud, Introduction to Interval Analysis)', () => {
    expect(of(sum(stick(), '+', 5))).toEqual([-95, 105]);
    expect(of(sum(stick(), '−', stick()))).toEqual([-200, 200]);
    expect(of(sum(stick(), '×', -2))).toEqual([-200, 200]);
    expect(of(sum(stick(), '×', stick()))).toEqual([-10_000, 10_000]);
    expect(of(sum(10, '÷', b('sense.distance')))[0]).toBeCloseTo(10 / 180, 12);
    expect(of(sum(10, '÷', b('sense.distance')))[1]).toBe(2.5);
    expect(of(sum(10, '÷', stick()))).toEqual([-Infinity, Infinity]);
    expect(of(b('calc.map', { value: stick(), a: -100, b: 100, c: 0, d: 180 }))).toEqual([0, 180]);
    expect(of(b('calc.keep', { value: stick(), low: 0, high: 50 }))).toEqual([0, 50]);
    expect(of(b('calc.function', { fn: 'absolute', x: stick() }))).toEqual([0, 100]);
    expect(of('letters')).toEqual([-Infinity, Infinity]);
  });
  it('hold what really comes: arithmetic on sticks that stand anywhere', () => {
    const names = ['left, left-right', 'left, up-down', 'right, left-right', 'right, up-down'];
    const value: fc.Arbitrary<Slot> = fc.letrec<{ v: Slot }>((tie) => ({
      v: fc.oneof(
        { depthSize: 'small', withCrossShrink: true },
        fc.integer({ min: -50, max: 50 }),
        fc.constantFrom(...names).map((s) => b('sense.stick', { stick: s })),
        fc.tuple(tie('v'), fc.constantFrom('+', '−', '×', '÷'), tie('v')).map(([a, s, c]) => sum(a, s, c)),
        tie('v').map((x) => b('calc.negative', { a: x })),
        fc
          .tuple(tie('v'), tie('v'), fc.constantFrom('smaller', 'larger'))
          .map(([x, y, which]) => b('calc.pick', { which, a: x, b: y })),
        fc
          .tuple(tie('v'), fc.constantFrom('absolute', 'floor', 'ceiling', 'round', 'sine'))
          .map(([x, fn]) => b('calc.function', { fn, x })),
        tie('v').map((x) => b('calc.keep', { value: x, low: -20, high: 30 })),
        tie('v').map((x) => b('calc.map', { value: x, a: -100, b: 100, c: 180, d: 0 })),
        tie('v').map((x) => b('calc.rest', { a: x, b: 7 }))
      )
    })).v;
    fc.assert(
      fc.property(value, fc.array(fc.integer({ min: -100, max: 100 }), { minLength: 4, maxLength: 4 }), (slot, at) => {
        if (typeof slot !== 'object' || !('kind' in slot)) return;
        const p = program(start(log(slot)));
        const bench = new Bench({
          program: p,
          kit: barrow,
          mat: hall,
          seed: 1,
          inputs: names.map((stick, i) => ({ tUs: 0, input: { stick, at: at[i] } }))
        });
        const interpreter = new Interpreter(bench);
        let comes: unknown;
        try {
          comes = interpreter.valueNow(slot);
        } catch (error) {
          if (error instanceof RunError) return;
          throw error;
        }
        const [low, high] = new Ranges(p, barrow).of(slot);
        expect(comes as number).toBeGreaterThanOrEqual(low - 1e-9 * Math.abs(low));
        expect(comes as number).toBeLessThanOrEqual(high + 1e-9 * Math.abs(high));
      }),
      { numRuns: 400 }
    );
  });
});
