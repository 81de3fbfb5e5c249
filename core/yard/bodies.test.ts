import { Vec2, World, type Fixture, type PolygonShape } from 'planck';
import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../kit/kit.ts';
import { makeBody } from './bodies.ts';

/** Corners of each fixture in millimetres in the device's own frame, sorted by x, then y. */
function corners(kit: Parameters<typeof makeBody>[1]) {
  const { robot, bars } = makeBody(new World(), kit, { x: 1, y: 2, facingDeg: 90 });
  const out: Record<string, [number, number][][]> = {};
  for (let f: Fixture | null = robot.getFixtureList(); f; f = f.getNext()) {
    const points = (f.getShape() as PolygonShape).m_vertices.map(({ x, y }): [number, number] => [
      Math.round(x * 1e5) / 100 || 0,
      Math.round(y * 1e5) / 100 || 0
    ]);
    (out[f.getUserData() as string] ??= []).push(points.sort((p, q) => p[0] - q[0] || p[1] - q[1]));
  }
  const [nose] = bars.keys();
  return { robot, nose, bars, out };
}

describe('the body of a device', () => {
  it('is the outline of the kit: a box with cut corners, its wheels at the ends of the axle, a nose in front', () => {
    // devices.md: 150 x 104 mm, the axle 85 mm from the rear
    const { out, nose } = corners(barrow);
    const [rear, front, half, c] = [-85, 65, 52, 12];
    expect(out.body).toEqual([
      [
        [rear, -half + c],
        [rear, half - c],
        [rear + c, -half],
        [rear + c, half],
        [front - c, -half],
        [front - c, half],
        [front, -half + c],
        [front, half - c]
      ]
    ]);
    expect(nose!.getUserData()).toBe('nose');
    expect(out.nose[0][0]).toEqual([front, -21]);
    expect(out.nose[0][3]).toEqual([front + 6, 21]);
    const middles = out.wheel.map((w) => (w[0][1] + w[3][1]) / 2).sort((p, q) => p - q);
    expect(middles).toEqual([-62, 62]);
    for (const w of out.wheel) expect([w[3][0] - w[0][0], w[3][1] - w[0][1]]).toEqual([68, 14]);
  });
  it('is pointed at its foot where it is held in the hand', () => {
    const { out, nose } = corners(trowel);
    const [lengthMm, rear, half] = [92, -46, 17];
    const shoulder = Math.round((rear + 0.28 * lengthMm) * 100) / 100;
    expect(out.body).toEqual([
      [
        [rear, 0],
        [shoulder, -half],
        [shoulder, half],
        [rear + lengthMm, -half],
        [rear + lengthMm, half]
      ]
    ]);
    expect([nose, out.wheel]).toEqual([undefined, undefined]);
  });
  it('may have a rounder outline than one polygon takes: pieces that fill it', () => {
    const outline = Array.from({ length: 24 }, (_, i) => ({
      xMm: 60 * Math.cos((i * Math.PI) / 12),
      yMm: 60 * Math.sin((i * Math.PI) / 12)
    }));
    const { out } = corners({ ...barrow, wheels: [], chassis: { ...barrow.chassis, bars: [], outline } });
    expect(out.body.length).toBe(4);
    const { robot } = makeBody(
      new World(),
      { ...barrow, wheels: [], chassis: { ...barrow.chassis, outline } },
      { x: 0, y: 0, facingDeg: 90 }
    );
    const inside = (x: number, y: number): boolean => {
      for (let f = robot.getFixtureList(); f; f = f.getNext()) if (f.testPoint(new Vec2(x, y))) return true;
      return false;
    };
    for (let deg = 0; deg < 360; deg += 7) {
      const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
      expect([inside(0.059 * c, 0.059 * s), inside(0.0605 * c, 0.0605 * s) && c < 0.9], String(deg)).toEqual([
        true,
        false
      ]);
    }
  });
  // a thin plate of even weight about its middle: m (a^2 + b^2) / 12; about another axis m d^2 more (Steiner; any handbook of mechanics)
  it('turns as a plate of its mass does, about its centre of mass behind the axle', () => {
    const { robot } = corners(barrow);
    const [massKg, lengthMm, widthMm, massBehindAxleMm] = [0.62, 150, 104, 12];
    expect(robot.getMass()).toBe(massKg);
    expect(robot.getLocalCenter().x * 1000).toBeCloseTo(-massBehindAxleMm, 9);
    const plate = (massKg * ((lengthMm / 1000) ** 2 + (widthMm / 1000) ** 2)) / 12;
    expect(robot.getInertia()).toBeCloseTo(plate + massKg * (massBehindAxleMm / 1000) ** 2, 9);
    expect([robot.getPosition().x, robot.getPosition().y, robot.getAngle()]).toEqual([1, 2, 0]);
  });
});
