import type { Kit } from '../kit/kit.ts';

/**
 * A measured move: one trapezoid X(t) for the wheel that goes furthest, and every other motor follows its share of it.
 * The controller is feed-forward from the torque line plus feedback from the encoder (devices.md).
 */
export type Profile = {
  /** m and m/s of the leading wheel, m/s^2 */
  length: number;
  speed: number;
  acceleration: number;
  /** whether it slows down to stand on the mark (brake), or runs on at speed until it is there (coast) */
  stops: boolean;
  /** s until X(t) = length */
  time: number;
};

export function profile(length: number, speed: number, acceleration: number, stops: boolean): Profile {
  const ramp = (speed * speed) / (2 * acceleration);
  let time: number;
  if (stops) time = length >= 2 * ramp ? length / speed + speed / acceleration : 2 * Math.sqrt(length / acceleration);
  else time = length >= ramp ? length / speed + speed / (2 * acceleration) : Math.sqrt((2 * length) / acceleration);
  return { length, speed, acceleration, stops, time };
}

/** The length that a move of `seconds` covers with the same trapezoid. */
export function lengthIn(seconds: number, speed: number, acceleration: number, stops: boolean): number {
  const rampTime = speed / acceleration;
  if (stops) return seconds >= 2 * rampTime ? speed * (seconds - rampTime) : (acceleration * seconds * seconds) / 4;
  return seconds >= rampTime ? speed * (seconds - rampTime / 2) : (acceleration * seconds * seconds) / 2;
}

/** Where the leading wheel should be at t, m; its speed and acceleration there. */
export function reference(p: Profile, t: number, out: { x: number; v: number; a: number }): void {
  const { length, acceleration: a } = p;
  if (t <= 0) {
    out.x = 0;
    out.v = 0;
    out.a = a;
    return;
  }
  const top = p.stops ? Math.min(p.speed, Math.sqrt(length * a)) : p.speed;
  const rampTime = top / a;
  if (p.stops && t >= p.time) {
    out.x = length;
    out.v = 0;
    out.a = 0;
  } else if (p.stops && t > p.time - rampTime) {
    const left = p.time - t;
    out.x = length - (a * left * left) / 2;
    out.v = a * left;
    out.a = -a;
  } else if (t < rampTime) {
    out.x = (a * t * t) / 2;
    out.v = a * t;
    out.a = a;
  } else {
    out.x = (top * top) / (2 * a) + top * (t - rampTime);
    out.v = top;
    out.a = 0;
  }
}

/** A move is on its mark when less than this is left, m: about a quarter of an encoder count. */
export const NEAR = 0.00012;

/** With the viscous slip model a held wheel still creeps by F / C, up to 10 mm/s: 12 counts of 480 in 0.5 s. */
const STUCK_COUNTS = 12;

/** One motor under control. Lengths are metres at the rim, worked out with the kit sheet's diameter. */
export class Follower {
  private readonly history = new Float64Array(20);
  private filled = 0;
  private at = 0;
  readonly startCounts: number;
  private readonly perCount: number;
  private readonly radius: number;
  private readonly freeRadS: number;
  /** s in which the motor with its share of the robot comes up to speed, and the duty that friction takes */
  private readonly lagS: number;
  private readonly friction: number;
  private stuckCounts: number;
  private stuckTicks = 0;
  duty = 0;
  blocked = false;
  /** m that the gyro adds to this wheel's way */
  bias = 0;
  /** @param share signed share of X(t), 1 for the leading wheel */
  constructor(
    readonly share: number,
    counts: number,
    diameter: number,
    kit: Pick<Kit, 'motor' | 'chassis' | 'wheels'>
  ) {
    this.startCounts = counts;
    this.stuckCounts = counts;
    this.radius = diameter / 2;
    const { stallNm, freeTurnsPerS, frictionNm, inertiaKgM2, countsPerTurn } = kit.motor;
    this.perCount = (Math.PI * diameter) / countsPerTurn;
    this.freeRadS = freeTurnsPerS * 2 * Math.PI;
    // half the mass rides on each wheel
    const inertia = inertiaKgM2 + (kit.chassis.massKg * this.radius * this.radius) / Math.max(1, kit.wheels.length);
    this.lagS = (inertia * this.freeRadS) / stallNm;
    this.friction = frictionNm / stallNm;
  }
  /** m since the start of the move; half a count for the place within the count. */
  travelled(counts: number): number {
    return (counts - this.startCounts + 0.5) * this.perCount;
  }
  control(ref: { x: number; v: number; a: number }, counts: number): number {
    const x = this.travelled(counts);
    const old = this.filled < 20 ? this.history[0] : this.history[this.at];
    const span = this.filled < 20 ? this.filled : 20;
    const v20 = span > 0 ? (x - old) / (span * 0.001) : 0;
    this.history[this.at] = x;
    this.at = (this.at + 1) % 20;
    if (this.filled < 20) this.filled++;
    const s = this.share;
    const v = s * ref.v;
    const rest = s * ref.x + this.bias - x;
    // at the end of the ramp the reference stands still: friction is fed forward towards what is left
    const way = v !== 0 ? Math.sign(v) : Math.abs(rest) > NEAR ? Math.sign(rest) : 0;
    const feed = (v + this.lagS * s * ref.a) / (this.freeRadS * this.radius) + this.friction * way;
    const u = feed + 1.0 * (v - v20) + 40 * rest;
    this.duty = u > 1 ? 1 : u < -1 ? -1 : u;
    // hardly a turn of the wheel in 0.5 s at a duty above 0.9: something holds it
    if (Math.abs(this.duty) <= 0.9 || Math.abs(counts - this.stuckCounts) > STUCK_COUNTS) {
      this.stuckTicks = 0;
      this.stuckCounts = counts;
    } else if (++this.stuckTicks >= 500) this.blocked = true;
    return this.duty;
  }
}
