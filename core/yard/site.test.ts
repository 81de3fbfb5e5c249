import { Vec2, type Box, type Fixture } from 'planck';
import { describe, expect, it } from 'vitest';
import { hall } from '../testing/build.ts';
import { rub, Site } from './site.ts';

const pot = { x: 1, y: 1, radius: 0.05, massKg: 0.2, colour: '#888888' };
const mat = {
  ...hall,
  width: 3,
  height: 2,
  walls: [{ x: 2, y: 0.5, width: 0.4, height: 0.1, turnDeg: 90, colour: '#888888' }],
  things: [pot, { ...pot, x: 2.5, name: 'jar' }]
};

describe('the place that devices share', () => {
  it('has an edge all round, its walls turned, and things of their mass', () => {
    const site = new Site(mat);
    let ground = site.world.getBodyList();
    while (ground && ground.isDynamic()) ground = ground.getNext();
    const boxes: Record<string, number[][]> = {};
    for (let f: Fixture | null = ground!.getFixtureList(); f; f = f.getNext()) {
      const points = (f.getShape() as Box).m_vertices;
      const xs = points.map((p) => p.x);
      const ys = points.map((p) => p.y);
      (boxes[f.getUserData() as string] ??= []).push(
        [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map((v) => Math.round(v * 1e4) / 1e4 || 0)
      );
    }
    expect(boxes['a wall']).toEqual([[1.95, 2.05, 0.3, 0.7]]);
    // half a metre thick outside of 0 to 3 and 0 to 2, corners included
    expect(boxes['the edge of the yard'].sort()).toEqual(
      [
        [-0.5, 0, 0, 2],
        [-0.5, 3.5, -0.5, 0],
        [-0.5, 3.5, 2, 2.5],
        [3, 3.5, 0, 2]
      ].sort()
    );
    expect(site.things.map((t) => [t.getPosition().x, t.getMass(), t.getFixtureList()!.getUserData()])).toEqual([
      [1, expect.closeTo(0.2, 9), 'a thing'],
      [2.5, expect.closeTo(0.2, 9), 'jar']
    ]);
  });
  it('puts back what was squeezed out: just inside, at rest', () => {
    for (const [x, y, inX, inY] of [
      [-1, 1, 0.001, 1],
      [4, 1, 2.999, 1],
      [1, -1, 1, 0.001],
      [1, 3, 1, 1.999]
    ]) {
      const site = new Site({ ...mat, walls: [] });
      site.things[0].setTransform(new Vec2(x, y), 0.3);
      site.things[0].setLinearVelocity(new Vec2(0, 0));
      site.step();
      const p = site.things[0].getPosition();
      expect([p.x, p.y]).toEqual([expect.closeTo(inX, 6), expect.closeTo(inY, 6)]);
      expect(site.things[0].getLinearVelocity().length()).toBe(0);
      expect(site.things[0].getAngularVelocity()).toBe(0);
    }
  });
  it('lets a thing slide v^2 / (2 mu g) before it rests (Coulomb; any handbook of mechanics)', () => {
    const site = new Site({ ...mat, walls: [] });
    const [thing] = site.things;
    thing.setLinearVelocity(new Vec2(0.6, 0.8));
    thing.setAngularVelocity(2);
    for (let i = 0; i < 600; i++) site.step();
    const p = thing.getPosition();
    expect(Math.hypot(p.x - 1, p.y - 1)).toBeCloseTo(1 / (2 * 0.5 * 9.80665), 3);
    expect((p.y - 1) / (p.x - 1)).toBeCloseTo(4 / 3, 6);
    expect(thing.getLinearVelocity().length()).toBe(0);
    // a hundredth of its turning is lost a tick (our choice)
    expect(thing.getAngularVelocity()).toBeCloseTo(2 * 0.99 ** 600, 9);
    rub(thing, 1);
    expect(thing.getLinearVelocity().length()).toBe(0);
  });
});
