import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { quirksOf } from '../kit/quirks.ts';
import { b, end, run } from '../testing/build.ts';
import { calibrated } from '../kit/calibration.ts';
import { calibrate } from './calibrate.ts';

describe('calibrating a device', () => {
  it('finds the diameters and the track that the device really has', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (n) => {
        const quirks = quirksOf(`MB-BAR-${n}`, barrow);
        const found = calibrate(barrow, quirks);
        const { left, right } = found.wheels;
        expect(left.diameterMm / (68 * quirks.wheels.left.diameter)).toBeCloseTo(1, 3);
        expect(right.diameterMm / (68 * quirks.wheels.right.diameter)).toBeCloseTo(1, 3);
        expect((left.yMm - right.yMm) / (124 * quirks.spread)).toBeCloseTo(1, 3);
      }),
      { numRuns: 12 }
    );
  });
  it('brings Barrow 5 to within 5 mm in 80 cm, where it missed by more before', () => {
    const quirks = quirksOf('MB-BAR-0005', barrow);
    const kit = calibrated(barrow, 'Barrow 5', calibrate(barrow, quirks));
    const off = (kit: typeof barrow) => {
      const { x, y } = end(run([b('drive.measure', { amount: 80 })], { kit, quirks, onBattery: true, noise: true }));
      return Math.hypot(x - 2.3, y - 1.5);
    };
    expect(off(barrow)).toBeGreaterThan(0.005);
    expect(off(kit)).toBeLessThan(0.005);
  });
});
