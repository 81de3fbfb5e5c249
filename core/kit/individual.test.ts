/** One device among others: its faults, what two measured runs say of it, the pulses for its servos. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calibrated, calibration } from './calibration.ts';
import { barrow, reckoned } from './kit.ts';
import { pulseFor } from './pulse.ts';
import { isFaultless, noQuirks, quirksOf, SWAPPED } from './quirks.ts';
import { standIn, STAND_INS } from './units.ts';

describe('two measured runs', () => {
  // the differential drive of Dudek and Jenkin: each wheel rolls pi d n, the turn is their difference over the track
  const measured = (leftMm: number, rightMm: number, trackMm: number) => {
    const roll = (mm: number, turns: number): number => (Math.PI * mm * turns) / 1000;
    const n = 4.7;
    const around = 7.3;
    return {
      driven: (roll(leftMm, n) + roll(rightMm, n)) / 2,
      bent: ((roll(leftMm, n) - roll(rightMm, n)) * 1000) / trackMm,
      turned: ((roll(leftMm, around) + roll(rightMm, around)) * 1000) / trackMm,
      left: n,
      right: n,
      around
    };
  };
  it('give back the wheels and the track that made them, whatever they are', () => {
    const near = (mm: number) => fc.double({ min: mm * 0.97, max: mm * 1.03, noNaN: true });
    fc.assert(
      fc.property(near(68), near(68), near(124), (l, r, track) => {
        const c = calibration(barrow, measured(l, r, track));
        // told to a hundredth of a millimetre
        expect(Math.abs(c.leftDiameterMm - l)).toBeLessThan(0.02);
        expect(Math.abs(c.rightDiameterMm - r)).toBeLessThan(0.02);
        expect(Math.abs(c.trackMm - track)).toBeLessThan(0.04);
      })
    );
  });
  it('are told as a ruler and a protractor have them', () => {
    const c = calibration(barrow, measured(68, 66, 124));
    expect(c.drivenCm).toBe(98.93);
    // 4.7 turns of 2 mm more diameter, over 124 mm: 0.2382 rad to the right
    expect(c.bentDeg).toBe(13.65);
    // 7.3 turns of both over the track: 7.3 x (68 + 66) / 124 x 180 degrees
    expect(c.turnedDeg).toBe(1419.97);
  });
  it('go onto the kit sheet beside what stands there, with the name of the device', () => {
    const c = calibration(barrow, measured(67, 68.5, 125));
    const kit = calibrated(barrow, 'Barrow 3', c);
    expect(kit.measured).toEqual({ device: 'Barrow 3', leftDiameterMm: 67, rightDiameterMm: 68.5, trackMm: 125 });
    expect(kit.wheels).toBe(barrow.wheels);
    expect(reckoned(kit)).toEqual({ ...barrow.wheels, leftDiameterMm: 67, rightDiameterMm: 68.5, trackMm: 125 });
  });
});

describe('a servo’s pulse', () => {
  it('goes from 1 to 2 ms with the middle at 1.5 ms (common practice), or over the range of its own', () => {
    expect([0, 45, 90, 180].map((deg) => pulseFor(deg))).toEqual([1, 1.25, 1.5, 2]);
    expect([0, 90, 180].map((deg) => pulseFor(deg, 0.5, 2.5))).toEqual([0.5, 1.5, 2.5]);
  });
});

describe('an individual', () => {
  it('is drawn from its serial number within the ranges of the design, once and for all', () => {
    const all = Array.from({ length: 2000 }, (_, i) => quirksOf(`MB-BAR-${i}`));
    for (const [name, centre, spread] of [
      ['leftDiameter', 1, 0.01],
      ['rightDiameter', 1, 0.01],
      ['track', 1, 0.015],
      ['leftMotor', 1, 0.04],
      ['rightMotor', 1, 0.04],
      ['leftFree', 1, 0.04],
      ['rightFree', 1, 0.04],
      ['gyroBiasDegS', 0, 0.1],
      ['servoOffsetDeg', 0, 3],
      ['charge', 0.8, 0.15]
    ] as const) {
      const values = all.map((q) => q[name]);
      const mean = values.reduce((a, b) => a + b) / values.length;
      const variance = values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length;
      expect(Math.max(...values), name).toBeLessThanOrEqual(centre + spread);
      expect(Math.min(...values), name).toBeGreaterThanOrEqual(centre - spread);
      // a uniform distribution: its mean is the middle, its standard deviation half its width over the root of three
      expect(Math.abs(mean - centre), name).toBeLessThan(spread * 0.06);
      expect(Math.abs(Math.sqrt(variance) - spread / Math.sqrt(3)), name).toBeLessThan(spread * 0.05);
    }
    expect(quirksOf('MB-BAR-0003')).toEqual(quirksOf('MB-BAR-0003'));
    expect(new Set(all.map((q) => q.track)).size).toBe(all.length);
    // its faults have nothing to do with one another
    const by = (a: (q: (typeof all)[0]) => number, b: (q: (typeof all)[0]) => number) =>
      Math.abs(all.reduce((sum, q) => sum + (a(q) - 1) * (b(q) - 1), 0) / all.length);
    expect(
      by(
        (q) => q.leftDiameter * 1,
        (q) => q.rightDiameter
      )
    ).toBeLessThan(0.01 ** 2 / 20);
  });
  it('of which one was put together with its sides swapped', () => {
    expect(STAND_INS.filter((s) => quirksOf(s.serial).swapped).map((s) => s.name)).toEqual(['Barrow 7']);
    expect(standIn(SWAPPED)).toMatchObject({ name: 'Barrow 7', library: true, device: 'barrow' });
    expect(standIn('MB-TRO-0002')!.device).toBe('trowel');
    expect(standIn('nobody')).toBeUndefined();
  });
  it('is faultless only as its kit sheet has it, whatever its battery holds', () => {
    expect(isFaultless(noQuirks)).toBe(true);
    expect(isFaultless({ ...noQuirks, charge: 0.3 })).toBe(true);
    expect(isFaultless({ ...noQuirks, track: 1.001 })).toBe(false);
    expect(isFaultless({ ...noQuirks, swapped: true })).toBe(false);
    expect(isFaultless(quirksOf('MB-BAR-0003'))).toBe(false);
  });
});
