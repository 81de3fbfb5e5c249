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
  it('is thrown with an even push, flies by its speed, and is caught over the same way', () => {
    // height h needs v = sqrt(2 g h); a push over 10 cm is v^2 / (2 g 0.1) = h / 0.1 g beside its weight, for 2 * 0.1 / v
    const h = 0.5;
    const v = Math.sqrt(2 * 9.80665 * h);
    const hand = new Hand();
    hand.toss(h, 0);
    const seen: number[] = [];
    const heights: number[] = [];
    hold(hand, 900, () => {
      seen.push(hand.total);
      heights.push(hand.height);
    });
    const push = (0.2 / v) * 1000;
    expect(Math.max(...seen.slice(0, push))).toBeCloseTo(1 + h / 0.1, 0);
    expect(seen.findIndex((g) => g < 0.3)).toBeGreaterThan(push);
    const top = heights.indexOf(Math.max(...heights));
    expect(heights[top]).toBeCloseTo(h, 3);
    expect(top + 1).toBeCloseTo(push + (v / 9.80665) * 1000, -1);
    expect(heights.at(-1)).toBe(0);
    const caught = seen.slice(Math.ceil(push + airTime(h) * 1000));
    expect(Math.max(...caught)).toBeCloseTo(1 + h / 0.1, 0);
    expect(caught.findLastIndex((g) => g > 1.5)).toBeLessThan(push + 40);
  });
  it('falls for sqrt(2 h / g) and is stopped within 3 cm', () => {
    const hand = new Hand();
    hand.leanTo({ forwards: 90 });
    hold(hand, 100);
    hand.drop(0.08, 100_000);
    const seen: number[] = [];
    for (let t = 101; t <= 400; t++) {
      hand.step(t * 1000, 0, 0);
      seen.push(hand.seen.y);
      if (t === 101) expect(hand.height).toBeCloseTo(0.08, 3);
      if (t === 100 + 64) expect(hand.height).toBeCloseTo(0.08 - (9.80665 * 0.064 ** 2) / 2, 3);
    }
    // it lies on its side: what stops it is felt along y, 1 + h / 0.03 g for 2 * 0.03 / v = 48 ms
    expect(Math.min(...seen)).toBeGreaterThan(-1 - 0.08 / 0.03);
    expect(Math.min(...seen)).toBeCloseTo(-1 - 0.08 / 0.03, 1);
    expect(seen.at(-1)).toBeCloseTo(-1, 3);
  });
  it('is pressed down as it is lifted, and light before it stands; the other way as it is lowered', () => {
    // 10 cm in 0.4 s by a sine: most 2 pi h / T^2 = 3.93 m/s^2 = 0.400 g after a quarter of the time
    for (const [up, way] of [
      [true, 1],
      [false, -1]
    ] as const) {
      const hand = new Hand();
      hold(hand, 100);
      hand.lift(up, 100_000);
      const at: Record<number, number> = {};
      for (let t = 101; t <= 700; t++) {
        hand.step(t * 1000, 0, 0);
        at[t] = hand.seen.z - 1;
      }
      const all = Object.values(at);
      expect(Math.max(...all)).toBeCloseTo(0.4, 1);
      expect(Math.min(...all)).toBeCloseTo(-0.4, 1);
      expect(way * at[200]).toBeGreaterThan(0.3);
      expect(way * at[400]).toBeLessThan(-0.3);
      expect(at[700]).toBeCloseTo(0, 3);
    }
  });
  it('has a new value every 10 ms and not between', () => {
    const hand = new Hand();
    hand.shake(1, 0);
    let last = hand.seen.x;
    let changes = 0;
    hold(hand, 100, (t) => {
      if (hand.seen.x !== last) {
        expect(t % 10).toBe(0);
        changes++;
      }
      last = hand.seen.x;
    });
    expect(changes).toBe(10);
  });
  it('tells dips to each side by their own angle', () => {
    for (const [side, lean, other] of [
      ['left', { sideways: -30 }, { sideways: 30 }],
      ['right', { sideways: 30 }, { sideways: -30 }],
      ['near', { forwards: -30 }, { forwards: 30 }],
      ['far', { forwards: 30 }, { forwards: -30 }]
    ] as const) {
      const fired = (to: object) => {
        const hand = new Hand();
        hand.watch(`dip ${side} 25`);
        return hold(hand, 400, (t) => t === 50 && hand.leanTo(to)).length;
      };
      expect([fired(lean), fired(other)], side).toEqual([1, 0]);
    }
  });
  it('was dipped already as the program began: that is no dip', () => {
    const hand = new Hand();
    hand.leanTo({ sideways: 30 });
    hand.watch('dip right 25');
    expect(hold(hand, 400)).toEqual([]);
  });
  it('is set down only when it was moved and lies level and still for 0.3 s, once', () => {
    const hand = new Hand();
    hand.watch('moved set down');
    const fired = hold(hand, 3000, (t) => {
      if (t === 200) hand.leanTo({ sideways: 12 });
      if (t === 400) hand.leanTo({ sideways: 8, forwards: 12 });
      if (t === 600) hand.leanTo({ sideways: 8, forwards: -8 });
      // moved without a lean: lifted and set down
      if (t === 1500) hand.lift(true, 1_500_000);
    });
    expect(fired.map(([, t]) => Math.round(t / 100))).toEqual([9, 22]);
  });
  it('is shaken where it goes to and fro: three turns within half a second, and not a single push', () => {
    const hand = new Hand();
    hand.watch('shaken 0.1');
    expect(
      hold(hand, 2000, (t) => {
        // to and fro once a second: never three turns within half of one
        const way = Math.sin((2 * Math.PI * t) / 1000);
        hand.step(t * 1000, way * 3 * 9.80665, 0);
      })
    ).toEqual([]);
    const shaken = new Hand();
    shaken.watch('shaken 0.1');
    shaken.shake(1, 0);
    const [[, first]] = hold(shaken, 2000);
    // 4 times a second is a turn each 125 ms; the first half is a push, three turns more are 0.4 s, then 0.1 s
    expect(first).toBeGreaterThan(450);
    expect(first).toBeLessThan(650);
  });
});
