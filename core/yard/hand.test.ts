import { describe, expect, it } from 'vitest';
import { airTime, Hand } from './hand.ts';

/** Milliseconds of a hand, and what fired when. */
function hold(hand: Hand, ms: number, each?: (t: number) => void): [string, number][] {
  const fired: [string, number][] = [];
  for (let t = 1; t <= ms; t++) {
    for (const f of hand.step(t * 1000, 0, 0)) fired.push([f, t]);
    each?.(t);
  }
  return fired;
}

describe('a device in the hand', () => {
  it('shows 1 g at rest whatever way it is leaned, along the axis that points up', () => {
    // proper acceleration at rest is g upwards: general physics; the sensor's axes are those of devices.md
    for (const [lean, x, y, z] of [
      [{}, 0, 0, 1],
      [{ sideways: 90 }, -1, 0, 0],
      [{ forwards: 90 }, 0, -1, 0],
      [{ sideways: 180 }, 0, 0, -1],
      [{ sideways: 30 }, -0.5, 0, Math.sqrt(3) / 2]
    ] as const) {
      const hand = new Hand();
      hand.leanTo(lean);
      hold(hand, 200);
      expect([hand.seen.x, hand.seen.y, hand.seen.z].map((v) => Math.round(v * 1e6) / 1e6 || 0)).toEqual(
        [x, y, z].map((v) => Math.round(v * 1e6) / 1e6 || 0)
      );
      expect(hand.total).toBeCloseTo(1, 9);
    }
  });
  it('is in the air for t with h = g t^2 / 8, weightless, and feels the catch', () => {
    // thrown up with 9.80665 m/s a body rises for 1 s, to 4.903325 m, and is back after 2 s (any textbook of mechanics)
    expect(airTime(4.903325)).toBeCloseTo(2, 9);
    // as a fall that is stepped through: up with sqrt(2 g h), down again
    for (const h of [0.2, 0.5, 1]) {
      let [v, y, t] = [Math.sqrt(2 * 9.80665 * h), 0, 0];
      do {
        y += v * 1e-5 - (9.80665 * 1e-10) / 2;
        v -= 9.80665 * 1e-5;
        t += 1e-5;
      } while (y > 0);
      expect(airTime(h)).toBeCloseTo(t, 3);
    }
    const hand = new Hand();
    hand.toss(0.5, 0);
    let least = Infinity;
    let most = 0;
    hold(hand, 1200, (t) => {
      if (t > 100 && t < airTime(0.5) * 1000) least = Math.min(least, hand.total);
      most = Math.max(most, hand.total);
    });
    expect(least).toBeLessThan(0.01);
    expect(most).toBeGreaterThan(2.2);
    expect(hand.total).toBeCloseTo(1, 3);
  });
  it('tells of a dip after a tenth of a second, once, and again when it was level between', () => {
    const hand = new Hand();
    hand.watch('dip left 25');
    const fired = hold(hand, 900, (t) => {
      if (t === 100) hand.leanTo({ sideways: -30 });
      if (t === 150) hand.leanTo({ sideways: 0 });
      if (t === 300) hand.leanTo({ sideways: -30 });
      if (t === 600) hand.leanTo({ sideways: 10 });
      if (t === 700) hand.leanTo({ sideways: -26 });
    });
    expect(fired).toEqual([
      ['dip left 25', 401],
      ['dip left 25', 801]
    ]);
  });
  it('tells when it is let go, turned over, set down, shaken and jolted', () => {
    const names = (watch: string, act: (hand: Hand, t: number) => void, ms = 2500): number => {
      const hand = new Hand();
      hand.watch(watch);
      return hold(hand, ms, (t) => act(hand, t)).length;
    };
    const toss = (hand: Hand, t: number) => void (t === 200 && hand.toss(0.6, 200_000));
    expect(names('moved let go', toss)).toBe(1);
    // in free fall for t = √(2h/g): 1 cm is 45 ms, 3 cm are 78 ms; what lasts less than 60 ms is no letting go
    const fall = (cm: number) => (hand: Hand, t: number) => void (t === 200 && hand.drop(cm / 100, 200_000));
    expect([names('moved let go', fall(1)), names('moved let go', fall(3))]).toEqual([0, 1]);
    // thrown and caught
    expect(names('jolt 2.2', toss)).toBe(2);
    expect(names('jolt 9', toss)).toBe(0);
    const over = (hand: Hand, t: number) => {
      if (t === 200) hand.leanTo({ sideways: 180 });
      if (t === 900) hand.leanTo({ sideways: 0 });
    };
    expect(names('moved turned over', over)).toBe(1);
    expect(names('moved set down', over)).toBe(1);
    expect(names('moved set down', () => {})).toBe(0);
    const shake = (hand: Hand, t: number) => void (t === 200 && hand.shake(1.5, 200_000));
    expect(names('shaken 0.4', shake)).toBe(1);
    expect(names('shaken 0.4', (hand, t) => void (t === 200 && hand.shake(0.2, 200_000)))).toBe(0);
  });
});
