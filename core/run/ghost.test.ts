import { describe, expect, it } from 'vitest';
import { barrow, saucer } from '../kit/kit.ts';
import { b, end, hall, run } from '../testing/build.ts';
import { ghostOf } from './ghost.ts';

const from = hall.start;
const last = (step: ReturnType<typeof b>) => ghostOf(step, barrow, from, from.facingDeg)!.at(-1)!;

describe('the ghost of a step', () => {
  it('is where the robot really comes to, within a few millimetres, for every move', () => {
    for (const step of [
      b('drive.measure', { amount: 40 }),
      b('drive.measure', { way: 'back', amount: 0.5, unit: 'wheel turns' }),
      b('drive.measure', { amount: 2, unit: 's', power: 50 }),
      b('turn.angle', { side: 'left', angle: 130 }),
      b('turn.gyro', { side: 'right', angle: 75 }),
      b('turn.face', { heading: 300 }),
      b('drive.facing', { amount: 25, heading: 0 }),
      b('wheels.span', { left: -20, right: -40, amount: 0.5, unit: 'wheel turns', ending: 'brake' }),
      b('wheels.span', { left: 30, right: -30, amount: 1.2, unit: 's', ending: 'brake' }),
      b('curve.angle', { side: 'left', radius: 25, angle: 80 }),
      b('curve.angle', { side: 'right', radius: 12, angle: 200 }),
      b('wheels.span', { left: 40, right: 20, amount: 30, unit: 'cm', ending: 'brake' })
    ]) {
      const ghost = last(step);
      const real = end(run([step]));
      expect(Math.hypot(real.x - ghost.x, real.y - ghost.y), step.kind).toBeLessThan(0.012);
      const off = ((real.facingDeg - ghost.facingDeg + 540) % 360) - 180;
      expect(Math.abs(off), step.kind).toBeLessThan(2);
    }
  });
  it('of a machine that slides goes aside and faces as before; one with tyres has none', () => {
    for (const step of [
      b('slide.measure', { direction: 130, amount: 30 }),
      b('slide.measure', { direction: -20, amount: 0.8, unit: 'wheel turns' }),
      b('slide.measure', { direction: 90, amount: 1.2, unit: 's', power: 60 }),
      b('drive.measure', { amount: 1.5, unit: 's' })
    ]) {
      const ghost = ghostOf(step, saucer, from, from.facingDeg)!.at(-1)!;
      const real = end(run([step], { kit: saucer }));
      expect(Math.hypot(real.x - ghost.x, real.y - ghost.y), JSON.stringify(step.slots)).toBeLessThan(0.012);
      expect(ghost.facingDeg).toBe(from.facingDeg);
    }
    expect(ghostOf(b('slide.measure'), barrow, from, 0)).toBeUndefined();
  });
  it('of a quarter circle ends beside its centre: a radius ahead and a radius to the side', () => {
    // facing right (90 degrees), curving left about a centre 30 cm to the left
    const p = last(b('curve.angle', { side: 'left', radius: 30, angle: 90 }));
    expect([p.x - from.x, p.y - from.y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.3, 0.3]);
    expect(p.facingDeg).toBeCloseTo(0, 9);
  });
  it('turns to the heading that is faced before it drives, counted from the start', () => {
    const p = ghostOf(b('drive.facing', { amount: 30, heading: 90 }), barrow, from, 90)!;
    expect(p[0].facingDeg).toBe(180);
    const end = p.at(-1)!;
    expect([end.x - from.x, end.y - from.y].map((v) => Math.round(v * 1e6) / 1e6 || 0)).toEqual([0, -0.3]);
    expect(ghostOf(b('drive.facing', { amount: 30, heading: -450 }), barrow, from, 90)!.at(-1)!.facingDeg).toBe(0);
  });
  it('is nothing where a number is worked out, or where nothing moves', () => {
    expect(ghostOf(b('drive.measure', { amount: b('sense.timer') }), barrow, from, 0)).toBeUndefined();
    expect(ghostOf(b('sound.beep'), barrow, from, 0)).toBeUndefined();
  });
});
