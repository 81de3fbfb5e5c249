import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { hall } from '../testing/build.ts';
import { Battery } from './battery.ts';
import { groundForce, SLIP } from './ground.ts';
import { distance2, Floor, inside, matSchema } from './mat.ts';
import { fernBed, longAisle, mats } from './mats.ts';
import { Servo } from './servo.ts';

describe('mats', () => {
  it('that ship are as the file format has them', () => {
    for (const mat of mats) expect(matSchema.parse(mat)).toEqual(mat);
    expect(mats.map((m) => m.name)).toEqual([
      'Fern bed',
      'Long aisle',
      'Potting floor',
      'Gravel path',
      'Narrow aisle',
      'Frost bench'
    ]);
  });
  it('Fern bed has five sides of 40 cm that close, and the path lies on its floor', () => {
    const { points } = fernBed.lines[0];
    expect(points).toHaveLength(5);
    points.forEach(([x, y], i) => {
      const [nx, ny] = points[(i + 1) % 5];
      expect(Math.sqrt((nx - x) * (nx - x) + (ny - y) * (ny - y))).toBeCloseTo(0.4, 3);
    });
    const floor = new Floor(fernBed);
    expect(floor.at((points[0][0] + points[1][0]) / 2, points[0][1] + 0.1)).toBe(72);
    expect(floor.at(fernBed.start.x - 0.3, fernBed.start.y + 0.15)).toBe(62);
  });
  it('Long aisle has its hoop at 80 cm from the start, and a mark each 10 cm', () => {
    expect(longAisle.hoops[0].x - longAisle.start.x).toBeCloseTo(0.8, 9);
    expect(longAisle.marks.map((m) => Math.round((m.x - longAisle.start.x) * 100))).toEqual([
      10, 20, 30, 40, 50, 60, 70, 80, 90, 100
    ]);
  });
  it('with nonsense in them are refused', () => {
    const bad = (change: object): boolean => matSchema.safeParse({ ...hall, ...change }).success;
    expect(bad({})).toBe(true);
    expect([
      bad({ width: 100 }),
      bad({ reflectance: 101 }),
      bad({ colour: 'green' }),
      bad({ walls: [{ x: 1, y: 1, width: 0, height: 1, colour: '#000000' }] }),
      bad({ extra: 1 })
    ]).toEqual([false, false, false, false, false]);
  });
});

describe('the floor', () => {
  it('knows the inside of a polygon as winding round it does', () => {
    const square = [
      [1, 1],
      [2, 1],
      [2, 2],
      [1, 2]
    ] as [number, number][];
    fc.assert(
      fc.property(fc.double({ min: 0, max: 3, noNaN: true }), fc.double({ min: 0, max: 3, noNaN: true }), (x, y) => {
        fc.pre([x, y].every((v) => Math.abs(v - 1) > 1e-9 && Math.abs(v - 2) > 1e-9));
        expect(inside(square, x, y)).toBe(x > 1 && x < 2 && y > 1 && y < 2);
      })
    );
  });
  it('measures the distance to a stretch of line, its ends included', () => {
    expect(distance2(0, 3, [-5, 0], [5, 0])).toBeCloseTo(9, 9);
    expect(distance2(8, 4, [-5, 0], [5, 0])).toBeCloseTo(25, 9);
    expect(distance2(3, 4, [0, 0], [0, 0])).toBeCloseTo(25, 9);
  });
  it('gives the spot of 4 mm between what lies on both sides of an edge, whatever the place', () => {
    const floor = new Floor({
      ...hall,
      reflectance: 90,
      lines: [
        {
          points: [
            [0, 1],
            [3, 1]
          ],
          width: 0.02,
          colour: '#000000',
          reflectance: 10
        }
      ]
    });
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 2.9, noNaN: true }),
        fc.double({ min: 0.95, max: 1.05, noNaN: true }),
        (x, y) => {
          const value = floor.spot(x, y);
          const off = Math.abs(y - 1);
          if (off < 0.007) expect(value).toBe(10);
          else if (off > 0.013) expect(value).toBe(90);
          else expect(value >= 10 && value <= 90).toBe(true);
        }
      )
    );
  });
});

describe('parts against closed forms', () => {
  it('a battery loses I t of its charge, and sags by I R (Ohm)', () => {
    const battery = new Battery(barrow, 0.5);
    expect(battery.volts).toBeCloseTo(7.5, 9);
    for (let i = 0; i < 1000; i++) battery.draw(1.2, 0.36);
    // 1.2 A for 360 s are 0.12 Ah of 1.2 Ah
    expect(battery.charge).toBeCloseTo(0.4, 9);
    expect(battery.volts).toBeCloseTo(6.6 + 1.8 * 0.4 - 1.2 * 0.25, 6);
    for (let i = 0; i < 100; i++) battery.draw(100, 60);
    expect(battery.flat).toBe(true);
    const held = new Battery(barrow, undefined);
    held.draw(50, 100);
    expect([held.volts, held.flat]).toEqual([7.4, false]);
  });
  it('a wheel pulls in proportion to its slip, and never beyond the friction circle', () => {
    const out = { along: 0, across: 0, slips: false };
    groundForce(0.001, 0, 0, 0, 1e-6, 10, out);
    expect(out.along).toBeCloseTo(SLIP * 0.001, 6);
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        (slip, side, limit) => {
          groundForce(slip, side, 1.9, 3.2, 0.001, limit, out);
          expect(Math.sqrt(out.along * out.along + out.across * out.across)).toBeLessThanOrEqual(limit * (1 + 1e-12));
          // it always works against the slip: no energy comes out of the floor
          expect(out.along * slip).toBeGreaterThanOrEqual(0);
          expect(out.across * side).toBeLessThanOrEqual(0);
        }
      )
    );
  });
  it('a servo goes to its target and holds there, off by its own offset, within 0 and 180', () => {
    const servo = new Servo({ offsetDeg: 3 });
    servo.target = 180;
    for (let i = 0; i < 300; i++) servo.step(0.001);
    expect([servo.angle, servo.moving]).toEqual([180, false]);
    servo.target = 20;
    for (let i = 0; i < 400; i++) servo.step(0.001);
    expect(servo.angle).toBe(23);
  });
});
