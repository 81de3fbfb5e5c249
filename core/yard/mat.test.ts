import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { hall } from '../testing/build.ts';
import { Battery } from './battery.ts';
import { colourName } from './colour.ts';
import { groundForce, SLIP } from './ground.ts';
import { distance2, Floor, inside, matSchema } from './mat.ts';
import { fernBed, longAisle, mats } from './mats.ts';
import { Servo, SpinServo } from './servo.ts';

describe('mats', () => {
  it('that ship are as the file format has them', () => {
    for (const mat of mats) expect(matSchema.parse(mat)).toEqual(mat);
    expect(mats.map((m) => m.name)).toEqual([
      'Fern bed',
      'Long aisle',
      'Potting floor',
      'Gravel path',
      'Narrow aisle',
      'Compost yard',
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

describe('a floor of its own', () => {
  const line = (points: [number, number][], width: number, closed = false) => ({
    points,
    width,
    colour: '#102030',
    reflectance: 10,
    ...(closed ? { closed } : {})
  });
  it('is painted where a line or an area lies, and nowhere beside them', () => {
    const floor = new Floor({
      ...hall,
      colour: '#eeeeee',
      reflectance: 90,
      areas: [
        {
          points: [
            [2, 2],
            [2.2, 2],
            [2.2, 2.3],
            [2, 2.3]
          ],
          colour: '#405060',
          reflectance: 40
        }
      ],
      lines: [
        line(
          [
            [1, 1],
            [1.4, 1],
            [1.4, 1.2]
          ],
          0.02,
          true
        )
      ]
    });
    const at = (x: number, y: number) => [floor.at(x, y), floor.colourAt(x, y)];
    const [bare, ink, area] = [
      [90, '#eeeeee'],
      [10, '#102030'],
      [40, '#405060']
    ];
    // on its three stretches, the closing one too, and at half its width beside and beyond its ends
    for (const [x, y] of [
      [1.2, 1],
      [1.4, 1.1],
      [1.2, 1.1],
      [1.2, 0.9901],
      [0.9901, 1],
      [1.4099, 1.2],
      [1.4, 1.2099]
    ])
      expect(at(x, y), `${x} ${y}`).toEqual(ink);
    for (const [x, y] of [
      [1.2, 0.9899],
      [0.9899, 1],
      [1.4101, 1.1],
      [1.4, 1.2101],
      [1.3, 1.05],
      [1.99, 2.1],
      [2.1, 2.31],
      [2.21, 2.1],
      [2.1, 1.99]
    ])
      expect(at(x, y), `${x} ${y}`).toEqual(bare);
    expect(at(2.1, 2.29)).toEqual(area);
  });
  it('is a picture where the mat has one: the cell under the place, from the top left, its grey as its colour', () => {
    const grey = btoa(String.fromCharCode(0, 40, 100, 20, 60, 80));
    const floor = new Floor({ ...hall, width: 3, height: 2, floor: { columns: 3, rows: 2, grey } });
    const cells = [1.5, 0.5].map((y) => [0.5, 1.5, 2.5].map((x) => floor.at(x, y)));
    expect(cells).toEqual([
      [0, 40, 100],
      [20, 60, 80]
    ]);
    // at the edges the outermost cells, and beyond them
    expect([floor.at(0, 2), floor.at(3, 2), floor.at(0, 0), floor.at(3, 0), floor.at(9, -9), floor.at(-9, 9)]).toEqual([
      0, 100, 20, 80, 80, 0
    ]);
    expect([floor.colourAt(0.5, 1.5), floor.colourAt(1.5, 1.5), floor.colourAt(2.5, 0.5)]).toEqual([
      '#000000',
      '#666666',
      '#cccccc'
    ]);
  });
  it('shares a spot between both sides in the measure of its area', () => {
    const floor = new Floor({
      ...hall,
      reflectance: 90,
      areas: [
        {
          points: [
            [1, 0],
            [3, 0],
            [3, 3],
            [1, 3]
          ],
          colour: '#000000',
          reflectance: 10
        }
      ]
    });
    // so much of a disc of radius r lies beyond a line at the distance d from its middle (circular segment, Bronstein, Taschenbuch der Mathematik)
    const beyond = (d: number): number => {
      const q = Math.max(-1, Math.min(1, d / 0.002));
      return (Math.acos(q) - q * Math.sqrt(1 - q * q)) / Math.PI;
    };
    for (let mm = -4; mm <= 4; mm += 0.1) {
      const dark = (90 - floor.spot(1 + mm / 1000, 1.0004)) / 80;
      expect(Math.abs(dark - beyond(-mm / 1000)), `${mm} mm`).toBeLessThan(0.045);
    }
    expect(floor.spot(1, 1)).toBeCloseTo(50, 3);
    expect(floor.spot(-0.01, 1)).toBe(90);
    expect(floor.spot(1, 3.01)).toBe(90);
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
  it('a servo takes 0.12 s for 60 degrees, and what the current of its state is (devices.md)', () => {
    const servo = new Servo({ toDeg: 150 });
    expect([servo.moving, servo.stalled, servo.ampere]).toEqual([false, false, 0]);
    servo.target = 150;
    for (let i = 0; i < 119; i++) servo.step(0.001);
    expect(servo.angle).toBeCloseTo(149.5, 9);
    expect([servo.moving, servo.stalled, servo.ampere]).toEqual([true, false, 0.25]);
    servo.step(0.001);
    // on its mark to the bit, not beside it: it does not tremble
    expect([servo.angle, servo.moving, servo.ampere]).toEqual([150, false, 0]);
    servo.target = 170;
    servo.step(0.001);
    expect([servo.angle, servo.moving, servo.stalled, servo.ampere]).toEqual([150, false, true, 0.7]);
    const dead = new Servo({ dead: true });
    dead.target = 0;
    dead.step(0.1);
    expect([dead.angle, dead.moving, dead.stalled, dead.ampere]).toEqual([90, false, false, 0]);
  });
  it('a spin servo goes round at 300 degrees a second for 100 %, either way, and takes current only then', () => {
    const spin = new SpinServo();
    expect(spin.ampere).toBe(0);
    spin.power = 50;
    for (let i = 0; i < 1000; i++) spin.step(0.001);
    expect(spin.angle).toBeCloseTo(150, 6);
    expect(spin.ampere).toBe(0.25);
    spin.power = -100;
    for (let i = 0; i < 1000; i++) spin.step(0.001);
    expect(spin.angle).toBeCloseTo(210, 6);
    const dead = new SpinServo(true);
    dead.power = 100;
    dead.step(1);
    expect([dead.angle, dead.ampere]).toEqual([0, 0]);
  });
});

describe('names of colours', () => {
  it('are those of the nearest, each time one asks', () => {
    for (let twice = 0; twice < 2; twice++)
      expect(['#000000', '#ff0000', '#00a000', '#fafafa', '#0000ff'].map(colourName)).toEqual([
        'black',
        'red',
        'green',
        'white',
        'violet'
      ]);
  });
});
