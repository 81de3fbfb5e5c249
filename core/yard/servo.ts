/** An angle servo: 0.12 s for 60 degrees (devices.md), towards its target and holding there. */
export const SERVO_SPEED = 60 / 0.12; // degrees/s

export class Servo {
  target = 90;
  angle = 90;
  /** @param offsetDeg how far this one misses its mark, degrees */
  constructor(private readonly offsetDeg = 0) {}
  get moving(): boolean {
    return this.angle !== this.goal;
  }
  private get goal(): number {
    return Math.max(0, Math.min(180, this.target + this.offsetDeg));
  }
  step(dt: number): void {
    const rest = this.goal - this.angle;
    if (rest === 0) return;
    const most = SERVO_SPEED * dt;
    this.angle = Math.abs(rest) <= most ? this.goal : this.angle + Math.sign(rest) * most;
  }
}
