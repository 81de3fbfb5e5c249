/** The bodies of the devices as planck has them, in metres, facing right, the middle of the axle at the origin. */
import { Box, Polygon, Vec2, type Body, type Fixture, type World } from 'planck';
import { hasWheels, type Kit } from '../kit/kit.ts';
import type { Pose } from './mat.ts';
import { RAD } from './site.ts';

/** Directions of a compass (degrees clockwise from up) to angles of the plane (radians counter-clockwise from right). */
export const planeAngle = (facingDeg: number): number => (90 - facingDeg) * RAD;

export function makeBody(world: World, kit: Kit, start: Pose): { robot: Body; nose: Fixture | undefined } {
  const robot = world.createBody({
    type: 'dynamic',
    position: new Vec2(start.x, start.y),
    angle: planeAngle(start.facingDeg)
  });
  const b = kit.body;
  const rear = -b.axleFromRearMm / 1000;
  const front = rear + b.lengthMm / 1000;
  const half = b.widthMm / 2000;
  const polygon = (points: number[][], userData: string): Fixture =>
    robot.createFixture({
      shape: new Polygon(points.map(([x, y]) => new Vec2(x, y))),
      density: 1,
      friction: 0.3,
      userData
    });
  let nose: Fixture | undefined;
  if (hasWheels(kit)) {
    const c = 0.012;
    polygon(
      [
        [rear, -half + c],
        [rear + c, -half],
        [front - c, -half],
        [front, -half + c],
        [front, half - c],
        [front - c, half],
        [rear + c, half],
        [rear, half - c]
      ],
      'body'
    );
    nose = robot.createFixture({
      shape: new Box(0.003, 0.021, new Vec2(front + 0.003, 0), 0),
      density: 0,
      friction: 0.3,
      userData: 'nose'
    });
    const track = kit.wheels.trackMm / 1000;
    for (const [side, d] of [
      [1, kit.wheels.leftDiameterMm],
      [-1, kit.wheels.rightDiameterMm]
    ])
      robot.createFixture({
        shape: new Box(d / 2000, kit.wheels.widthMm / 2000, new Vec2(0, (side * track) / 2), 0),
        density: 0,
        friction: 0.3,
        userData: 'wheel'
      });
  } else {
    // a plant label: square at its head, pointed at its foot
    const shoulder = rear + (b.lengthMm / 1000) * 0.28;
    polygon(
      [
        [rear, 0],
        [shoulder, -half],
        [front, -half],
        [front, half],
        [shoulder, half]
      ],
      'body'
    );
  }
  const mass = b.massKg;
  const back = b.massBehindAxleMm / 1000;
  // a box of even weight about the centre of mass: m (l^2 + w^2) / 12, and planck wants it about the origin
  const inertia = (mass * (b.lengthMm * b.lengthMm + b.widthMm * b.widthMm) * 1e-6) / 12;
  robot.setMassData({ mass, center: new Vec2(-back, 0), I: inertia + mass * back * back });
  return { robot, nose };
}
