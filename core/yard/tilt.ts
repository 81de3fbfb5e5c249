/**
 * Tipping sideways over a wheel: the rigid block rocking about its edge (Housner, "The behavior of inverted pendulum
 * structures during earthquakes", 1963): I phi'' = m (a h - g b) near upright, I = 4/3 m (h^2 + b^2). Statics, its first
 * line: nothing lifts below a = g b / h (devices.md). Past the angle atan(b / h) it falls.
 */
import { GRAVITY } from '../units.ts';

export class Tilt {
  /** radians; 0 on all wheels */
  phi = 0;
  private rate = 0;
  fallen = false;
  private readonly edge: number;
  /** @param b half the track, m; @param h height of the centre of mass, m */
  constructor(
    private readonly b: number,
    private readonly h: number
  ) {
    this.edge = Math.atan2(b, h);
  }
  /** Sideways acceleration at which a wheel lifts, m/s^2. */
  get lifts(): number {
    return (GRAVITY * this.b) / this.h;
  }
  /** One tick. @param across size of the sideways acceleration of the centre of mass, m/s^2 */
  step(across: number, dt: number): void {
    if (this.fallen || (this.phi === 0 && across <= this.lifts)) return;
    const { b, h, edge } = this;
    const arm2 = b * b + h * h;
    const arm = Math.sqrt(arm2);
    const rest = edge - this.phi;
    this.rate += ((across * arm * Math.cos(rest) - GRAVITY * arm * Math.sin(rest)) / ((4 / 3) * arm2)) * dt;
    this.phi += this.rate * dt;
    if (this.phi <= 0) this.phi = this.rate = 0;
    else if (this.phi >= edge) this.fallen = true;
  }
  right(): void {
    this.phi = this.rate = 0;
    this.fallen = false;
  }
}
