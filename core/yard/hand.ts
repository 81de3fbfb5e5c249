/**
 * How a device is held: leaned, shaken, tossed by a hand, and what its accelerometer and its motion triggers make of it.
 * The accelerometer shows proper acceleration in the board's frame, in g: x to the right, y away from the person, z up; at
 * rest 1 g in all, in free fall 0. Limits are those of devices.md.
 */
import { GRAVITY as G } from '../units.ts';

const RAD = Math.PI / 180;
/** The sensor's range, g, and its low-pass filter of 50 Hz as a share a millisecond. */
const RANGE = 8;
const SHARE = 0.001 / (0.001 + 1 / (2 * Math.PI * 50));
/** A shake of the hand: g to and fro unless told otherwise, times a second. */
const SHAKE = { g: 2.6, hertz: 4 };
/** A toss is pushed up and caught over so many metres each; what is dropped stops on the soft mat within so many. */
const CATCH_M = 0.1;
const LANDING_M = 0.03;
/** Lifted up and set down over so many metres in so many seconds. */
const LIFT = { m: 0.1, s: 0.4 };
/** The sensor has a new value every 10 ms. */
const VALUE_US = 10_000;
const DIP_US = 100_000;
const FALL = { g: 0.3, us: 60_000 };
const STILL_US = 300_000;

const NONE: string[] = [];
const clip = (v: number): number => (v < -RANGE ? -RANGE : v > RANGE ? RANGE : v);
export type Lean = { sideways: number; forwards: number; turned: number };
export const LEVEL: Lean = { sideways: 0, forwards: 0, turned: 0 };

/** Seconds in the air of a toss to a height: h = g t^2 / 8. */
export const airTime = (heightM: number): number => Math.sqrt((8 * heightM) / G);

type Watch = { trigger: string; holds: () => boolean; forUs: number; sinceUs: number; fired: boolean };

export class Hand {
  lean: Lean = LEVEL;
  /** what the sensor shows, g */
  readonly seen = { x: 0, y: 0, z: 1 };
  private nowUs = 0;
  private shakeFromUs = -1;
  private shakeToUs = -1;
  private shakeG = SHAKE.g;
  /** pushed up, in the air, stopped: since when, how long each, with what speed it leaves and comes down, over what way it is stopped */
  private flight:
    { fromUs: number; pushS: number; airS: number; upMps: number; downMps: number; stopM: number } | undefined;
  private liftUs = -1;
  private liftWay = 1;
  /** before the sensor's 100 values a second, g */
  private readonly filtered = { x: 0, y: 0, z: 1 };
  /** above where it is held, m */
  height = 0;
  private readonly watches: Watch[] = [];
  private readonly reversals: number[] = [];
  private lastSign = 0;
  private wasMoved = false;

  get total(): number {
    const { x, y, z } = this.seen;
    return Math.sqrt(x * x + y * y + z * z);
  }
  leanTo(lean: Partial<Lean>): void {
    this.lean = { ...this.lean, ...lean };
  }
  shake(seconds: number, nowUs: number, g = SHAKE.g): void {
    this.shakeG = g;
    this.shakeFromUs = nowUs;
    this.shakeToUs = nowUs + seconds * 1e6;
  }
  /** Thrown straight up and caught again. @param heightM how high */
  toss(heightM: number, nowUs: number): void {
    const speed = Math.sqrt(2 * G * heightM);
    // an even push over the way: v^2 / (2 g s) beside its weight, for 2 s / v
    const pushS = speed > 0 ? (2 * CATCH_M) / speed : 0;
    this.flight = { fromUs: nowUs, pushS, airS: airTime(heightM), upMps: speed, downMps: speed, stopM: CATCH_M };
  }
  /** Let fall to the floor: sqrt(2 h / g) in the air. @param heightM from how high */
  drop(heightM: number, nowUs: number): void {
    const downMps = Math.sqrt(2 * G * heightM);
    this.flight = { fromUs: nowUs, pushS: 0, airS: downMps / G, upMps: 0, downMps, stopM: LANDING_M };
  }
  /** Raised by a hand, or lowered: a half way of speeding up, a half of slowing down (sine). */
  lift(up: boolean, nowUs: number): void {
    this.liftUs = nowUs;
    this.liftWay = up ? 1 : -1;
  }

  /** A motion trigger that a program has, such as 'dip left 25'. */
  watch(trigger: string): void {
    const [what, ...rest] = trigger.split(' ');
    const amount = Number(rest.at(-1));
    const add = (holds: () => boolean, forUs: number): void => {
      this.watches.push({ trigger, holds, forUs, sinceUs: -1, fired: holds() });
    };
    if (what === 'dip') {
      const by: Record<string, () => number> = {
        left: () => -this.lean.sideways,
        right: () => this.lean.sideways,
        near: () => -this.lean.forwards,
        far: () => this.lean.forwards
      };
      add(() => by[rest[0]]() > amount, DIP_US);
    } else if (trigger === 'moved turned over') add(() => this.up().z < -0.5, DIP_US);
    else if (trigger === 'moved let go') add(() => this.total < FALL.g, FALL.us);
    else if (trigger === 'moved set down') add(() => this.isSetDown(), STILL_US);
    else if (what === 'shaken') add(() => this.isShaken(), amount * 1e6);
    else if (what === 'jolt') add(() => this.total > amount, 0);
  }

  /** The upward direction in the board's frame: what the sensor shows at rest. */
  private upward = { x: 0, y: 0, z: 1 };
  private upwardOf: Lean = LEVEL;
  private up(): { readonly x: number; readonly y: number; readonly z: number } {
    if (this.upwardOf === this.lean) return this.upward;
    this.upwardOf = this.lean;
    const { sideways, forwards } = this.lean;
    const [s, f] = [sideways * RAD, forwards * RAD];
    return (this.upward = { x: -Math.sin(s), y: -Math.cos(s) * Math.sin(f), z: Math.cos(s) * Math.cos(f) });
  }
  private isSetDown(): boolean {
    const level = Math.abs(this.lean.sideways) < 10 && Math.abs(this.lean.forwards) < 10;
    const still = Math.abs(this.total - 1) < 0.1;
    if (!level || !still) this.wasMoved = true;
    return level && still && this.wasMoved;
  }
  private isShaken(): boolean {
    const { reversals } = this;
    return reversals.length >= 3 && this.nowUs - reversals[reversals.length - 3] <= 500_000;
  }

  /**
   * One millisecond. @param ax, ay acceleration of the device along its own x and y, m/s^2
   * @returns triggers that fired
   */
  step(nowUs: number, ax: number, ay: number): string[] {
    this.nowUs = nowUs;
    let { x, y, z } = this.up();
    x += ax / G;
    y += ay / G;
    if (nowUs < this.shakeToUs)
      x += this.shakeG * Math.sin(2 * Math.PI * SHAKE.hertz * ((nowUs - this.shakeFromUs) / 1e6));
    if (this.liftUs >= 0) {
      const t = (nowUs - this.liftUs) / 1e6 / LIFT.s;
      if (t >= 1) this.liftUs = -1;
      // the second derivative of h (t - sin(2 pi t) / 2 pi)
      else z += (this.liftWay * 2 * Math.PI * LIFT.m * Math.sin(2 * Math.PI * t)) / (LIFT.s * LIFT.s * G);
    }
    const { flight } = this;
    if (flight) {
      const t = (nowUs - flight.fromUs) / 1e6 - flight.pushS;
      this.height = 0;
      if (t < 0) {
        const push = 1 + (flight.upMps * flight.upMps) / (2 * G * CATCH_M);
        [x, y, z] = [x * push, y * push, z * push];
      } else if (t < flight.airS) {
        x = y = z = 0;
        const above = flight.upMps > 0 ? 0 : (flight.downMps * flight.downMps) / (2 * G);
        this.height = above + flight.upMps * t - (G * t * t) / 2;
      } else if (t < flight.airS + (2 * flight.stopM) / flight.downMps) {
        // stopped with an even push over the way: 1 + v^2 / (2 g s)
        const push = 1 + (flight.downMps * flight.downMps) / (2 * G * flight.stopM);
        [x, y, z] = [x * push, y * push, z * push];
      } else this.flight = undefined;
    }
    const { seen, filtered } = this;
    filtered.x += SHARE * (clip(x) - filtered.x);
    filtered.y += SHARE * (clip(y) - filtered.y);
    filtered.z += SHARE * (clip(z) - filtered.z);
    if (nowUs % VALUE_US === 0) {
      seen.x = filtered.x;
      seen.y = filtered.y;
      seen.z = filtered.z;
    }
    const sign = seen.x > 1.5 ? 1 : seen.x < -1.5 ? -1 : 0;
    if (sign !== 0 && sign !== this.lastSign) {
      if (this.lastSign !== 0) this.reversals.push(nowUs);
      this.lastSign = sign;
    }
    if (!this.watches.length) return NONE;
    const fired: string[] = [];
    for (const w of this.watches) {
      if (!w.holds()) {
        w.sinceUs = -1;
        w.fired = false;
      } else if (!w.fired) {
        if (w.sinceUs < 0) w.sinceUs = nowUs;
        if (nowUs - w.sinceUs >= w.forUs) {
          w.fired = true;
          this.wasMoved = false;
          fired.push(w.trigger);
        }
      }
    }
    return fired;
  }
}
