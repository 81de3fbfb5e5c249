/**
 * Hobby servos. Pulses of 1.0 to 2.0 ms, 50 a second, stand for 0 to 180 degrees, or for -100 to 100 % of a spin servo's
 * speed, 1.5 ms being the middle (common practice).
 */
/** An angle servo takes 0.12 s for 60 degrees (devices.md). */
export const SERVO_SPEED = 60 / 0.12; // degrees/s
/** A spin servo at 100 %: 50 turns a minute (our choice). */
export const SPIN_SPEED = 300; // degrees/s
/** A: while it moves, and while something holds it (our choice). */
export const MOVING_A = 0.25;
export const STALLED_A = 0.7;

export type ServoFit = { offsetDeg?: number; dead?: boolean; fromDeg?: number; toDeg?: number };

export class Servo {
  target = 90;
  angle: number;
  /** of this one: how far it misses its mark, whether its plug is the wrong way round, where its horn is in the way */
  constructor(private readonly fit: ServoFit = {}) {
    this.angle = this.within(90);
  }
  private within(deg: number): number {
    const { fromDeg = 0, toDeg = 180 } = this.fit;
    return deg < fromDeg ? fromDeg : deg > toDeg ? toDeg : deg;
  }
  private get wanted(): number {
    return Math.max(0, Math.min(180, this.target + (this.fit.offsetDeg ?? 0)));
  }
  get moving(): boolean {
    return !this.fit.dead && this.angle !== this.within(this.wanted);
  }
  /** It pushes against what is in its way. */
  get stalled(): boolean {
    return !this.fit.dead && this.angle === this.within(this.wanted) && this.angle !== this.wanted;
  }
  get ampere(): number {
    return this.moving ? MOVING_A : this.stalled ? STALLED_A : 0;
  }
  step(dt: number): void {
    if (this.fit.dead) return;
    const goal = this.within(this.wanted);
    const rest = goal - this.angle;
    if (rest === 0) return;
    const most = SERVO_SPEED * dt;
    this.angle = Math.abs(rest) <= most ? goal : this.angle + Math.sign(rest) * most;
  }
}

/** A servo without stops: its pulse sets a speed. */
export class SpinServo {
  /** -100 to 100 % */
  power = 0;
  angle = 0;
  constructor(private readonly dead = false) {}
  get ampere(): number {
    return this.power !== 0 && !this.dead ? MOVING_A : 0;
  }
  step(dt: number): void {
    if (this.dead) return;
    const angle = this.angle + (this.power / 100) * SPIN_SPEED * dt;
    this.angle = angle - 360 * Math.floor(angle / 360);
  }
}
