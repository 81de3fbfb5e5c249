import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Drive } from './drive.ts';
import type { WheelPlace } from './rolling.ts';

/** Two wheels on one axle: left, then right. */
const axle = (trackMm: number): WheelPlace[] =>
  [1, -1].map((side) => ({ x: 0, y: (side * trackMm) / 2000, rolls: 0, rim: 'tyre' }));
const THIRD = (2 * Math.PI) / 3;
/** Wheels on a ring, each rolling along the ring, clockwise seen from above: direction = place - 90 degrees. */
const ring = (r: number, places: number[]): WheelPlace[] =>
  places.map((a) => ({ x: r * Math.cos(a), y: r * Math.sin(a), rolls: a - Math.PI / 2, rim: 'rollers' }));
const four = (trackM: number, baseM: number, rim: WheelPlace['rim'] = 'tyre'): WheelPlace[] =>
  [1, -1].flatMap((front) =>
    [1, -1].map((side): WheelPlace => ({ x: (front * baseM) / 2, y: (side * trackM) / 2, rolls: 0, rim }))
  );
const close = (got: Record<string, number>, want: Record<string, number>): void => {
  for (const [key, value] of Object.entries(want)) expect(got[key], key).toBeCloseTo(value, 9);
};

describe('the drive of two wheels', () => {
  const drive = new Drive(axle(2000));
  it('is the worked example of the differential drive', () => {
    // Siegwart, Nourbakhsh, Scaramuzza, Introduction to Autonomous Mobile Robots, section 3.2.2: r = 1, l = 1, the right
    // wheel at 4, the left one at 2 rad/s: 3 ahead, 0 aside, 1 round (values from memory)
    close(drive.motion([2, 4]), { ahead: 3, left: 0, turn: 1 });
  });
  it('rolls angle x track / 2 on the spot, and each wheel its own circle in an arc', () => {
    // Dudek and Jenkin, Computational Principles of Mobile Robotics: v_l = omega (R - l/2), v_r = omega (R + l/2)
    expect(drive.rims({ ahead: 0, left: 0, turn: Math.PI / 2 })).toEqual([-Math.PI / 2, Math.PI / 2]);
    expect(drive.rims({ ahead: 3 * 0.5, left: 0, turn: 0.5 })).toEqual([0.5 * (3 - 1), 0.5 * (3 + 1)]);
    expect(drive.can).toEqual({ drive: true, turn: true, slide: false });
  });
});
describe('three wheels with rollers', () => {
  it('are the worked example of the omnidirectional robot', () => {
    // the same book, section 3.2.5, Swedish wheels at 60, 180 and -60 degrees, r = 1, l = 1, turning at 4, 1, 2 rad/s:
    // (2 / sqrt 3, -4 / 3) and 7 / 3 round, clockwise as these roll (values from memory; the matrix is worked out here)
    const drive = new Drive(ring(1, [Math.PI / 3, Math.PI, -Math.PI / 3]));
    close(drive.motion([4, 1, 2]), { ahead: 2 / Math.sqrt(3), left: -4 / 3, turn: -7 / 3 });
    expect(drive.can).toEqual({ drive: true, turn: true, slide: true });
  });
  it('have the matrix of the three-wheeled omnidirectional robot of another book', () => {
    // Lynch and Park, Modern Robotics, section 13.2: u = 1/r [-d 1 0; -d -1/2 -sin 60; -d -1/2 sin 60] (omega, vx, vy)
    // (from memory)
    const d = 0.7;
    const sin = Math.sin(Math.PI / 3);
    // its wheels stand at 90, -30 and 210 degrees and roll ahead, to the back right, to the back left
    const places = [Math.PI / 2, -Math.PI / 6, (7 * Math.PI) / 6];
    const { rows } = new Drive(ring(d, places));
    [
      [1, 0, -d],
      [-0.5, -sin, -d],
      [-0.5, sin, -d]
    ].forEach((row, i) => row.forEach((v, k) => expect(rows[i][k], `${i} ${k}`).toBeCloseTo(v, 9)));
  });
  it('lose their slide with one tyre among them, and at two wheels what cannot be told apart', () => {
    const [a, b, c] = ring(1, [0, THIRD, 2 * THIRD]);
    expect(new Drive([a, b, { ...c, rim: 'tyre' }]).can.slide).toBe(false);
    expect(new Drive([{ x: 0, y: 0, rolls: 0, rim: 'tyre' }]).can).toEqual({ drive: true, turn: false, slide: false });
    // both on one side: driving and turning roll them alike
    const side = [0.1, -0.1].map((x): WheelPlace => ({ x, y: 0.1, rolls: 0, rim: 'tyre' }));
    expect(new Drive(side).can.turn).toBe(false);
    expect(new Drive([]).can).toEqual({ drive: false, turn: false, slide: false });
    expect(new Drive([]).motion([])).toEqual({ ahead: 0, left: 0, turn: 0 });
  });
});
describe('four wheels that roll ahead', () => {
  const drive = new Drive(four(0.3, 0.2));
  it('drive and turn as two of their sides would (skid steering: v = mean, omega = difference / track)', () => {
    expect(drive.can).toEqual({ drive: true, turn: true, slide: false });
    close(drive.motion([0.2, 0.5, 0.2, 0.5]), { ahead: 0.35, left: 0, turn: 0.3 / 0.3 });
    // of wheels that disagree the mean of each side
    close(drive.motion([0.1, 0.5, 0.3, 0.5]), { ahead: 0.35, left: 0, turn: 1 });
  });
});
it('what the wheels of any machine roll for a motion that it can make is told as that motion again', () => {
  const metres = fc.double({ min: -2, max: 2, noNaN: true });
  fc.assert(
    fc.property(metres, metres, metres, fc.constantFrom('two', 'three', 'four'), (ahead, left, turn, which) => {
      const slides = which === 'three';
      const drive = new Drive(
        slides ? ring(0.1, [0.3, 0.3 + THIRD, 0.3 + 2 * THIRD]) : which === 'two' ? axle(124) : four(0.3, 0.2)
      );
      const motion = { ahead, left: slides ? left : 0, turn };
      close(drive.motion(drive.rims(motion)), motion);
    }),
    { numRuns: 200, seed: 3 }
  );
});
