/** One device among others: its faults, what two measured runs say of it, the pulses for its servos. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calibrated, calibration, type MeasuredRun } from './calibration.ts';
import { Drive, type Motion } from './drive.ts';
import { barrow, placesOf, reckoned, resized, type Kit } from './kit.ts';
import { pulseFor } from './pulse.ts';
import { asBuilt, isFaultless, noQuirks, quirksOf, SWAPPED, type Quirks } from './quirks.ts';
import { standIn, STAND_INS } from './units.ts';

describe('two measured runs', () => {
  // the differential drive of Dudek and Jenkin: each wheel rolls pi d n, the turn is their difference over the track
  const measured = (leftMm: number, rightMm: number, trackMm: number): [MeasuredRun, MeasuredRun] => {
    const roll = (mm: number, turns: number): number => (Math.PI * mm * turns) / 1000;
    const n = 4.7;
    const around = 7.3;
    const motion = (left: number, right: number): Motion => ({
      ahead: (left + right) / 2,
      left: 0,
      turn: ((right - left) * 1000) / trackMm
    });
    return [
      { motion: motion(roll(leftMm, n), roll(rightMm, n)), turns: [n, n] },
      { motion: { ...motion(roll(leftMm, around), -roll(rightMm, around)), ahead: 0 }, turns: [around, -around] }
    ];
  };
  it('give back the wheels and the track that made them, whatever they are', () => {
    const near = (mm: number) => fc.double({ min: mm * 0.97, max: mm * 1.03, noNaN: true });
    fc.assert(
      fc.property(near(68), near(68), near(124), (l, r, track) => {
        const { left, right } = calibration(barrow, ...measured(l, r, track)).wheels;
        // told to a hundredth of a millimetre
        expect(Math.abs(left.diameterMm - l)).toBeLessThan(0.02);
        expect(Math.abs(right.diameterMm - r)).toBeLessThan(0.02);
        expect(Math.abs(left.yMm - right.yMm - track)).toBeLessThan(0.04);
      })
    );
  });
  it('give back three wheels on a ring, of which one does not turn while it drives ahead', () => {
    const ring = (r: number, diameterMm: number): Kit['wheels'] =>
      [60, 180, 300].map((deg) => ({
        id: `at ${deg}`,
        name: `${deg}`,
        at: { xMm: r * Math.cos((deg * Math.PI) / 180), yMm: r * Math.sin((deg * Math.PI) / 180), deg: deg - 90 },
        diameterMm,
        widthMm: 10,
        rim: 'rollers'
      }));
    const sheet = { ...barrow, wheels: ring(60, 48) };
    const real = { ...barrow, wheels: ring(61.2, 48).map((w, i) => ({ ...w, diameterMm: 48 + 0.3 * i })) };
    const drive = new Drive(placesOf(real.wheels));
    const run = (motion: Motion): MeasuredRun => ({
      motion,
      turns: drive.rims(motion).map((rim, i) => (rim / (Math.PI * real.wheels[i].diameterMm)) * 1000)
    });
    const c = calibration(sheet, run({ ahead: 1, left: 0.01, turn: 0.02 }), run({ ahead: 0, left: 0, turn: -25.1 }));
    for (const w of real.wheels) {
      expect(Math.abs(c.wheels[w.id].diameterMm - w.diameterMm), w.id).toBeLessThan(0.02);
      expect(Math.hypot(c.wheels[w.id].xMm, c.wheels[w.id].yMm), w.id).toBeCloseTo(61.2, 1);
    }
  });
  it('are told as a ruler and a protractor have them', () => {
    const c = calibration(barrow, ...measured(68, 66, 124));
    expect(c.drivenCm).toBe(98.93);
    // 4.7 turns of 2 mm more diameter, over 124 mm: 0.2382 rad to the right
    expect(c.bentDeg).toBe(13.65);
    // 7.3 turns of both over the track: 7.3 x (68 + 66) / 124 x 180 degrees
    expect(c.turnedDeg).toBe(1419.97);
  });
  it('go onto the kit sheet beside what stands there, with the name of the device', () => {
    const kit = calibrated(barrow, 'Barrow 3', calibration(barrow, ...measured(67, 68.5, 125)));
    const wheels = {
      left: { diameterMm: 67, xMm: 0, yMm: 62.5 },
      right: { diameterMm: 68.5, xMm: 0, yMm: -62.5 }
    };
    expect(kit.measured).toEqual({ device: 'Barrow 3', wheels });
    expect(kit.wheels).toBe(barrow.wheels);
    const { measured: _, ...used } = kit;
    expect(reckoned(kit)).toEqual(resized(used, { left: 67, right: 68.5, trackMm: 125 }));
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
    const all = Array.from({ length: 2000 }, (_, i) => quirksOf(`MB-BAR-${i}`, barrow));
    type Of = (q: Quirks) => number;
    const drawn: [string, Of, number, number][] = [
      ...['left', 'right'].flatMap((id): [string, Of, number, number][] => [
        [`${id} diameter`, (q) => q.wheels[id].diameter, 1, 0.01],
        [`${id} torque`, (q) => q.wheels[id].torque, 1, 0.04],
        [`${id} free speed`, (q) => q.wheels[id].free, 1, 0.04]
      ]),
      ['spread', (q) => q.spread, 1, 0.015],
      ['gyro bias', (q) => q.gyroBiasDegS, 0, 0.1],
      ['servo offset', (q) => q.servoOffsetDeg, 0, 3],
      ['charge', (q) => q.charge, 0.8, 0.15]
    ];
    for (const [name, of, centre, spread] of drawn) {
      const values = all.map(of);
      const mean = values.reduce((a, b) => a + b) / values.length;
      const variance = values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length;
      expect(Math.max(...values), name).toBeLessThanOrEqual(centre + spread);
      expect(Math.min(...values), name).toBeGreaterThanOrEqual(centre - spread);
      // a uniform distribution: its mean is the middle, its standard deviation half its width over the root of three
      expect(Math.abs(mean - centre), name).toBeLessThan(spread * 0.06);
      expect(Math.abs(Math.sqrt(variance) - spread / Math.sqrt(3)), name).toBeLessThan(spread * 0.05);
    }
    expect(quirksOf('MB-BAR-0003', barrow)).toEqual(quirksOf('MB-BAR-0003', barrow));
    expect(new Set(all.map((q) => q.spread)).size).toBe(all.length);
    // its faults have nothing to do with one another
    const by = (a: (q: (typeof all)[0]) => number, b: (q: (typeof all)[0]) => number) =>
      Math.abs(all.reduce((sum, q) => sum + (a(q) - 1) * (b(q) - 1), 0) / all.length);
    expect(
      by(
        (q) => q.wheels.left.diameter,
        (q) => q.wheels.right.diameter
      )
    ).toBeLessThan(0.01 ** 2 / 20);
  });
  it('of which one was put together with its sides swapped', () => {
    expect(STAND_INS.filter((s) => quirksOf(s.serial, barrow).swapped).map((s) => s.name)).toEqual(['Barrow 7']);
    expect(standIn(SWAPPED)).toMatchObject({ name: 'Barrow 7', comes: 'ready', device: 'barrow' });
    expect(standIn('MB-TRO-0002')!.device).toBe('trowel');
    expect(standIn('nobody')).toBeUndefined();
  });
  it('is faultless only as its kit sheet has it, whatever its battery holds', () => {
    expect(isFaultless(noQuirks)).toBe(true);
    expect(isFaultless({ ...noQuirks, charge: 0.3 })).toBe(true);
    expect(isFaultless({ ...noQuirks, spread: 1.001 })).toBe(false);
    expect(isFaultless({ ...noQuirks, swapped: true })).toBe(false);
    expect(isFaultless({ ...noQuirks, wheels: { left: asBuilt, right: { ...asBuilt, torque: 0.99 } } })).toBe(false);
    expect(isFaultless({ ...noQuirks, wheels: { left: asBuilt } })).toBe(true);
    expect(isFaultless(quirksOf('MB-BAR-0003', barrow))).toBe(false);
  });
});
