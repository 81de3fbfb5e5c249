/** The bodies of the devices as planck has them, in metres, facing right, the point that moves reckon with at the origin. */
import { Box, Polygon, Vec2, type Body, type Fixture, type Shape, type World } from 'planck';
import { reach, type Kit } from '../kit/kit.ts';
import type { Pose } from './mat.ts';
import { RAD } from './site.ts';

/** Directions of a compass (degrees clockwise from up) to angles of the plane (radians counter-clockwise from right). */
export const planeAngle = (facingDeg: number): number => (90 - facingDeg) * RAD;

const metres = (mm: number): number => mm / 1000;
/** Planck's polygons have at most so many corners; a rounder outline is cut into pieces, like a fan from its first corner. */
const CORNERS = 8;
const pieces = <T>(outline: readonly T[]): T[][] => {
  if (outline.length <= CORNERS) return [[...outline]];
  const out: T[][] = [];
  for (let i = 1; i < outline.length - 1; i += CORNERS - 2)
    out.push([outline[0], ...outline.slice(i, i + CORNERS - 1)]);
  return out;
};

/** @returns the body, and the bars that feel a touch */
export function makeBody(world: World, kit: Kit, start: Pose): { robot: Body; bars: Set<Fixture> } {
  const robot = world.createBody({
    type: 'dynamic',
    position: new Vec2(start.x, start.y),
    angle: planeAngle(start.facingDeg)
  });
  const { outline, massKg: mass, massAt, bars } = kit.chassis;
  const fixture = (shape: Shape, density: number, userData: string): Fixture =>
    robot.createFixture({ shape, density, friction: 0.3, userData });
  for (const piece of pieces(outline))
    fixture(new Polygon(piece.map((p) => new Vec2(metres(p.xMm), metres(p.yMm)))), 1, 'body');
  const touched = new Set<Fixture>();
  for (const { name, from, to } of bars)
    touched.add(
      fixture(
        new Box(
          metres(Math.abs(to.xMm - from.xMm)) / 2,
          metres(Math.abs(to.yMm - from.yMm)) / 2,
          new Vec2(metres(from.xMm + to.xMm) / 2, metres(from.yMm + to.yMm) / 2),
          0
        ),
        0,
        name
      )
    );
  for (const { at, diameterMm, widthMm } of kit.wheels)
    fixture(
      new Box(metres(diameterMm) / 2, metres(widthMm) / 2, new Vec2(metres(at.xMm), metres(at.yMm)), at.deg * RAD),
      0,
      'wheel'
    );
  const { rear, front, left, right } = reach(kit);
  const [length, width] = [metres(front - rear), metres(left - right)];
  const centre = new Vec2(metres(massAt.xMm), metres(massAt.yMm));
  // a box of even weight about the centre of mass: m (l^2 + w^2) / 12, and planck wants it about the origin
  const inertia = (mass * (length * length + width * width)) / 12;
  robot.setMassData({ mass, center: centre, I: inertia + mass * centre.lengthSquared() });
  return { robot, bars: touched };
}
