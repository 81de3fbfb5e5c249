/** One device on its site, without a program: what it touches, what a hand does, where its sensors are. */
import { describe, expect, it } from 'vitest';
import { barrow, motorsAt, plugged, trowel, type Kit } from '../kit/kit.ts';
import { noQuirks } from '../kit/quirks.ts';
import { hall } from '../testing/build.ts';
import type { Mat } from './mat.ts';
import { Site } from './site.ts';
import { Yard, type YardOptions } from './yard.ts';

const wall = (x: number, y: number, width: number, height: number) => ({ x, y, width, height, colour: '#888888' });
const post = (x: number, y: number, name?: string) => ({
  x,
  y,
  radius: 0.03,
  massKg: 0.2,
  colour: '#888888',
  ...(name ? { name } : {})
});
/** In the middle of a hall of 3 by 3 m, looking to the right unless told otherwise. */
const yardOf = (mat: Partial<Mat> = {}, more: Partial<YardOptions> = {}) =>
  new Yard({
    kit: barrow,
    mat: { ...hall, walls: [], start: { x: 1.5, y: 1.5, facingDeg: 90 }, ...mat },
    seed: 1,
    noise: false,
    ...more
  });
const ticks = (yard: Yard, n: number, each?: (i: number) => void) => {
  for (let i = 0; i < n; i++) {
    each?.(i);
    yard.step();
  }
};
/** Both wheels held as by a brake, or driven with a duty. */
const wheels = (yard: Yard, left: number, right = left) => {
  for (const [wheel, duty] of [
    [yard.wheels[0], left],
    [yard.wheels[1], right]
  ] as const) {
    wheel.motor!.state = 'driven';
    wheel.motor!.duty = duty;
  }
};
const FRONT = 0.065;

describe('what a device touches', () => {
  it('is told once while it lasts, with where, how fast and by the nose; let go of after 40 ms apart', () => {
    // the nose is 6 mm ahead of the front, the wall 5 cm ahead of the nose
    const face = 1.5 + FRONT + 0.006 + 0.05;
    const yard = yardOf({ walls: [wall(face + 0.05, 1.5, 0.1, 1)] });
    wheels(yard, 0.4);
    let speed = 0;
    let at = -1;
    for (let i = 0; at < 0; i++) {
      speed = yard.robot.getLinearVelocity().x;
      yard.step();
      if (yard.touches.length) at = i;
      expect(i).toBeLessThan(2000);
    }
    expect(yard.touches).toEqual([
      {
        x: expect.closeTo(face, 2),
        y: expect.closeTo(1.5, 1),
        speed: expect.closeTo(speed, 1),
        what: 'a wall',
        nose: true
      }
    ]);
    expect(yard.noseTouched).toBe(true);
    ticks(yard, 300);
    expect(yard.touches.filter((t) => t.nose)).toHaveLength(1);
    expect(yard.letGo).toEqual([]);
    wheels(yard, -0.6);
    let since = 0;
    ticks(yard, 1000, (i) => {
      if (yard.noseTouched) since = i;
    });
    expect(yard.noseTouched).toBe(false);
    const [gone, ...rest] = yard.letGo;
    expect(rest).toEqual([]);
    // 300 ms against the wall and until it got away
    expect(gone).toEqual({
      what: 'a wall',
      seconds: expect.closeTo((300 + since) / 1000, 2),
      newton: expect.any(Number)
    });
    // the blow of a mass on a spring is v sqrt(k m) at the most (Den Hartog, Mechanical Vibrations, chapter 2), whatever the step
    const blow = speed * Math.sqrt(20_000 * barrow.chassis.massKg);
    expect(gone.newton).toBeGreaterThan(0.6 * blow);
    expect(gone.newton).toBeLessThan(1.2 * blow);
  });
  it('goes on while it comes back within 40 ms, and is told of when the run is over', () => {
    const yard = yardOf({ walls: [wall(1.5 + FRONT + 0.006 + 0.05, 1.5, 0.08, 1)] });
    wheels(yard, 0.4);
    ticks(yard, 1500);
    const before = yard.touches.length;
    expect(before).toBeGreaterThan(0);
    yard.lettingGo(true);
    expect(yard.letGo.map((l) => l.what)).toEqual(['a wall']);
    expect(yard.letGo[0].seconds).toBeGreaterThan(0.5);
    expect(yard.letGo[0].seconds).toBeLessThan(1.5);
    // what it still touches is told once
    yard.lettingGo(true);
    expect(yard.letGo).toHaveLength(1);
  });
  it('tells each thing by its name, and what touches another device is none of its own', () => {
    const mat = {
      ...hall,
      walls: [],
      start: { x: 1, y: 1, facingDeg: 90 },
      things: [post(1 + FRONT + 0.1, 1.045, 'pot'), post(2 + FRONT + 0.04, 2)]
    };
    const site = new Site(mat);
    const options = { kit: barrow, mat, seed: 1, noise: false, site };
    const one = new Yard(options);
    const two = new Yard({ ...options, start: { x: 2, y: 2, facingDeg: 90 } });
    wheels(one, 0.4);
    wheels(two, 0.4);
    ticks(one, 700);
    expect(new Set(one.touches.map((t) => t.what))).toEqual(new Set(['pot']));
    // the pot stands beside the nose's middle: the body's corner meets it, or the nose
    expect(new Set(two.touches.map((t) => t.what))).toEqual(new Set(['a thing']));
    expect(two.noseTouched).toBe(true);
    one.lettingGo(true);
    two.lettingGo(true);
    expect(new Set(one.letGo.map((l) => l.what))).toEqual(new Set(['pot']));
    expect(new Set(two.letGo.map((l) => l.what))).toEqual(new Set(['a thing']));
  });
});

describe('what a hand does', () => {
  it('carries no faster than a hand is, the shorter way round, and stays where it is told', () => {
    const yard = yardOf({ start: { x: 0.5, y: 1.5, facingDeg: 350 } });
    yard.lift();
    // without a place to go to it is held still
    wheels(yard, 1);
    ticks(yard, 200);
    expect(yard.pose).toEqual({ x: expect.closeTo(0.5, 9), y: 1.5, facingDeg: expect.closeTo(350, 9) });
    yard.carry({ x: 2.5, y: 1.5, facingDeg: 20 });
    let most = 0;
    let turned = 0;
    let last = yard.facingDeg;
    ticks(yard, 3000, () => {
      most = Math.max(most, yard.robot.getLinearVelocity().length());
      const step = ((yard.facingDeg - last + 540) % 360) - 180;
      turned += Math.abs(step);
      last = yard.facingDeg;
    });
    expect(yard.pose).toEqual({
      x: expect.closeTo(2.5, 4),
      y: expect.closeTo(1.5, 4),
      facingDeg: expect.closeTo(20, 2)
    });
    expect(most).toBeGreaterThan(1.1);
    expect(most).toBeLessThan(1.2 + 6 * 0.02);
    expect(turned).toBeCloseTo(30, 1);
    // let go on the way it is where it is, not where it was to be
    yard.lift();
    yard.carry({ x: 0.5, y: 1.5, facingDeg: 20 });
    ticks(yard, 500);
    yard.setDown();
    expect(yard.pose.x).toBeGreaterThan(1.5);
    expect(yard.pose.x).toBeLessThan(2.2);
    yard.lift();
    yard.carry({ x: 2.5, y: 1.5, facingDeg: 20 });
    ticks(yard, 1500);
    yard.setDown();
    yard.lift();
    yard.setDown();
    expect(yard.pose.x).toBeCloseTo(2.5, 4);
    expect(yard.robot.getLinearVelocity().length()).toBe(0);
    expect(yard.robot.getAngularVelocity()).toBe(0);
  });
  it('sets it down at the nearest place that is free, a centimetre at a time, and lets it collide again', () => {
    // a wall from x = 1.5 on: the nose must come back by its own way ahead of the axle
    const yard = yardOf({ walls: [wall(2, 1.5, 1, 3)], start: { x: 0.6, y: 1.5, facingDeg: 90 } });
    yard.lift();
    yard.carry({ x: 1.45, y: 1.5, facingDeg: 90 });
    ticks(yard, 1500);
    expect(yard.pose.x).toBeCloseTo(1.45, 3);
    expect(yard.isFree()).toBe(false);
    yard.setDown();
    expect(yard.isFree()).toBe(true);
    const limit = 1.5 - FRONT - 0.006;
    expect(yard.pose.x).toBeLessThanOrEqual(limit + 1e-6);
    expect(yard.pose.x).toBeGreaterThan(limit - 0.0101);
    expect(yard.pose.y).toBeCloseTo(1.5, 1);
    wheels(yard, 0.5);
    ticks(yard, 1000);
    expect(yard.touches.map((t) => t.what)).toContain('a wall');
    expect(yard.pose.x).toBeLessThan(limit + 0.002);
  });
  it('stands free only within the mat, whichever edge', () => {
    for (const [x, y] of [
      [0.02, 1.5],
      [2.98, 1.5],
      [1.5, 0.02],
      [1.5, 2.98]
    ])
      expect(yardOf({ start: { x, y, facingDeg: 90 } }).isFree(), `${x} ${y}`).toBe(false);
    expect(yardOf().isFree()).toBe(true);
    expect(yardOf({ things: [post(1.5, 1.5)] }).isFree()).toBe(false);
  });
  it('pushes along, across to its left, and about its middle, for as long as it pushes', () => {
    const moved = (push: object, facingDeg = 0) => {
      const yard = yardOf({ start: { x: 1.5, y: 1.5, facingDeg } }, { kit: trowel });
      yard.push({ along: 0, across: 0, torque: 0, seconds: 0.1, ...push });
      ticks(yard, 1500);
      const { x, y, facingDeg: to } = yard.pose;
      return [x - 1.5, y - 1.5, ((to - facingDeg + 540) % 360) - 180];
    };
    const { massKg } = trowel.chassis;
    // F - mu m g for 0.1 s, then mu g until it rests (Coulomb): s = a t^2 / 2 + (a t)^2 / (2 mu g)
    const friction = 0.4 * 9.80665;
    const a = 0.4 / massKg - friction;
    const way = (a * 0.01) / 2 + (a * 0.1) ** 2 / (2 * friction);
    const ahead = moved({ along: 0.4 });
    expect(ahead[1]).toBeGreaterThan(way * 0.95);
    expect(ahead[1]).toBeLessThan(Math.max(way * 1.05, way + 0.01));
    expect(Math.abs(ahead[0])).toBeLessThan(0.001);
    const left = moved({ across: 0.4 });
    expect(left[0]).toBeCloseTo(-ahead[1], 3);
    expect(moved({ across: 0.4 }, 90)[1]).toBeCloseTo(ahead[1], 3);
    expect(moved({ torque: 0.002 })[2]).toBeLessThan(-0.5);
    expect(moved({ along: 0.4, seconds: 0 })).toEqual([0, 0, 0]);
  });
});

describe('its parts', () => {
  it('are where the kit has them: swapped wheels drive the other side', () => {
    const turn = (quirks: object) => {
      const yard = yardOf({}, { quirks: { ...noQuirks, ...quirks } });
      const motor = yard.motors.get(motorsAt(barrow, 'left')[0].socket)!;
      motor.state = 'driven';
      motor.duty = 0.5;
      const other = yard.motors.get(motorsAt(barrow, 'right')[0].socket)!;
      other.state = 'brake';
      ticks(yard, 400);
      return ((yard.facingDeg - 90 + 540) % 360) - 180;
    };
    expect(turn({})).toBeGreaterThan(5);
    expect(turn({ swapped: true })).toBeCloseTo(-turn({}), 1);
  });
  it('a spin servo turns where it is plugged in rightly, another part does not', () => {
    const kit: Kit = {
      ...barrow,
      parts: [
        ...barrow.parts.filter((p) => p.type !== 'servo'),
        { type: 'spin', socket: 'J4', name: 'a' },
        { type: 'spin', socket: 'J5', name: 'b', plug: 'wrong' }
      ] as Kit['parts']
    };
    const yard = yardOf({}, { kit });
    for (const s of yard.spins.values()) s.power = 50;
    ticks(yard, 100);
    expect([...yard.spins].map(([socket, s]) => [socket, s.angle])).toEqual([
      ['J4', expect.closeTo(15, 6)],
      ['J5', 0]
    ]);
    expect([...yard.servos.keys()]).toEqual([]);
  });
  it('the line sensors lie ahead of the axle, apart to both sides, whichever way it faces', () => {
    // devices.md: 18 mm apart, 45 mm ahead of the axle
    const [ahead, apart] = [0.045, 0.009];
    const kit: Kit = { ...barrow, parts: [...barrow.parts, plugged(barrow, 'J10', 'colour')] };
    for (const [facingDeg, dx, dy] of [
      [90, 1, 0],
      [0, 0, 1],
      [270, -1, 0],
      [180, 0, -1]
    ]) {
      // a dark square of 6 mm under the left one only
      const [x, y] = [1.5 + dx * ahead - dy * apart, 1.5 + dy * ahead + dx * apart];
      const square = (cx: number, cy: number) => ({
        points: [
          [cx - 0.005, cy - 0.005],
          [cx + 0.005, cy - 0.005],
          [cx + 0.005, cy + 0.005],
          [cx - 0.005, cy + 0.005]
        ] as [number, number][],
        colour: '#c8322b',
        reflectance: 10
      });
      const yard = yardOf({ start: { x: 1.5, y: 1.5, facingDeg }, reflectance: 90, areas: [square(x, y)] });
      expect(
        [...yard.lines.values()].map((l) => l.reads),
        String(facingDeg)
      ).toEqual([10, 90]);
      const middle = yardOf(
        {
          start: { x: 1.5, y: 1.5, facingDeg },
          colour: '#f5f5f0',
          areas: [square(1.5 + dx * ahead, 1.5 + dy * ahead)]
        },
        { kit }
      );
      expect(middle.colourBelow('J10')).toBe('red');
      expect(yardOf({ start: { x: 1.5, y: 1.5, facingDeg }, colour: '#f5f5f0' }, { kit }).colourBelow('J10')).toBe(
        'white'
      );
    }
  });
  it('the distance sensor looks from the nose, has a value every 30 ms, and none where there is no sensor', () => {
    const yard = yardOf({ walls: [wall(2.5, 1.5, 0.1, 1)], airC: 20 });
    const seenBy = (yard: Yard) => yard.distances.get('J7')!.reads;
    const gap = (2.45 - 1.5 - FRONT - 0.006) * 100;
    expect(seenBy(yard)).toEqual({ cm: expect.closeTo(gap, 0), echo: true });
    const seen = new Set<number>();
    wheels(yard, 0.5);
    ticks(yard, 300, () => seen.add(seenBy(yard).cm));
    expect(seen.size).toBeLessThanOrEqual(11);
    expect(seen.size).toBeGreaterThan(6);
    const none = { ...barrow, parts: barrow.parts.filter((p) => p.type !== 'distance') };
    expect(yardOf({ walls: [wall(2.5, 1.5, 0.1, 1)] }, { kit: none }).distances.size).toBe(0);
    // turned by 61 degrees off its normal the wall sends nothing back; by 59 it does
    const turned = (deg: number) => seenBy(yardOf({ walls: [{ ...wall(2, 1.5, 0.02, 2), turnDeg: deg }] }));
    expect(turned(72).echo).toBe(false);
    expect(turned(40).echo).toBe(true);
  });
});
