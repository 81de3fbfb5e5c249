/**
 * The place that devices share: the planck world with its walls and loose things, and the floor. Each device brings its own
 * body and forces (yard.ts); a tick is: every device drives, loose things rub on the floor, planck, every device senses.
 */
import { Box, Circle, Settings, Vec2, World, type Body } from 'planck';
import { GRAVITY } from '../units.ts';
import { Floor, type Mat } from './mat.ts';

// planck is made for metres, and these bodies are centimetres: set before any shape exists.
Settings.linearSlop = 1e-4;
Settings.aabbExtension = 0.01;
Settings.velocityThreshold = 0.05;

export const DT = 0.001;
export const RAD = Math.PI / 180;
/** Half of how thick the yard's edge is, m. */
const EDGE = 0.25;
/** Coulomb friction of a loose thing on the mat (our choice: pots of clay). */
const THING_FRICTION = 0.5;

/** Whatever lives on the site for a tick. */
type Dweller = { readonly robot: Body; drive(): void; settle(): void };

export class Site {
  readonly world = new World({ gravity: new Vec2(0, 0), continuousPhysics: false, allowSleep: false });
  readonly things: Body[];
  readonly floor: Floor;
  readonly dwellers: Dweller[] = [];

  constructor(readonly mat: Mat) {
    const { world } = this;
    const { width: w, height: h } = mat;
    const ground = world.createBody();
    // thick, so that what is squeezed against it comes back in
    for (const [x, y, across, up] of [
      [w / 2, -EDGE, w / 2 + 2 * EDGE, EDGE],
      [w / 2, h + EDGE, w / 2 + 2 * EDGE, EDGE],
      [-EDGE, h / 2, EDGE, h / 2],
      [w + EDGE, h / 2, EDGE, h / 2]
    ])
      ground.createFixture({
        shape: new Box(across, up, new Vec2(x, y), 0),
        friction: 0.3,
        userData: 'the edge of the yard'
      });
    for (const wall of mat.walls)
      ground.createFixture({
        shape: new Box(wall.width / 2, wall.height / 2, new Vec2(wall.x, wall.y), (wall.turnDeg ?? 0) * RAD),
        friction: 0.3,
        userData: 'a wall'
      });
    this.things = mat.things.map((thing) => {
      const body = world.createBody({ type: 'dynamic', position: new Vec2(thing.x, thing.y) });
      body.createFixture({
        shape: new Circle(thing.radius),
        density: thing.massKg / (Math.PI * thing.radius * thing.radius),
        friction: 0.3,
        userData: thing.name ?? 'a thing'
      });
      return body;
    });
    this.floor = new Floor(mat);
  }

  step(): void {
    for (const one of this.dwellers) one.drive();
    for (const thing of this.things) rub(thing, THING_FRICTION * GRAVITY);
    this.world.step(DT, 6, 2);
    for (const thing of this.things) this.keepIn(thing);
    for (const one of this.dwellers) this.keepIn(one.robot);
    for (const one of this.dwellers) one.settle();
  }
  /** Whatever began inside a wall and was squeezed out of the yard is put back at its edge, at rest. */
  private keepIn(body: Body): void {
    const { x, y } = body.getPosition();
    const { width, height } = this.mat;
    if (x > 0 && y > 0 && x < width && y < height) return;
    const inside = (v: number, most: number): number => Math.max(0.001, Math.min(most - 0.001, v));
    body.setTransform(new Vec2(inside(x, width), inside(y, height)), body.getAngle());
    body.setLinearVelocity(new Vec2(0, 0));
    body.setAngularVelocity(0);
  }
}

/** A body that lies on the mat: Coulomb friction, clamped at zero. @param slowing mu g, m/s^2 */
export function rub(body: Body, slowing: number): void {
  const v = body.getLinearVelocity();
  const speed = Math.sqrt(v.x * v.x + v.y * v.y);
  const spin = body.getAngularVelocity();
  if (speed > 0) {
    const share = Math.max(0, 1 - (slowing * DT) / speed);
    body.setLinearVelocity(new Vec2(v.x * share, v.y * share));
  }
  if (spin !== 0) body.setAngularVelocity(spin * 0.99);
}
