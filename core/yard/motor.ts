/**
 * A permanent-magnet DC motor at the wheel: torque falls in a straight line from stall to the free speed, in proportion
 * to the voltage (any handbook on electric drives): tau = tau_stall (u - omega / omega_0), u = duty x volts / rated volts.
 */
import type { Kit } from '../kit/kit.ts';

export type MotorConstants = {
  /** N m at rated voltage, and rad/s where the torque line meets zero */
  stallNm: number;
  freeRadS: number;
  frictionNm: number;
  inertiaKgM2: number;
  ratedV: number;
  countsPerTurn: number;
};
/** @param torque, speed how much stronger and faster than its kit sheet says one motor is */
export const motorConstants = (kit: Kit, torque = 1, speed = 1): MotorConstants => ({
  stallNm: kit.motor.stallNm * torque,
  freeRadS: kit.motor.freeTurnsPerS * 2 * Math.PI * speed,
  frictionNm: kit.motor.frictionNm,
  inertiaKgM2: kit.motor.inertiaKgM2,
  ratedV: kit.motor.volts,
  countsPerTurn: kit.motor.countsPerTurn
});

/** Positive is ahead for a motor that drives a wheel, and the shaft's own positive turn for any other. */
export class Motor {
  /** what the board does to it: a duty from -1 to 1, shorted terminals, or nothing connected */
  duty = 0;
  state: 'driven' | 'brake' | 'coast' = 'coast';
  omega = 0;
  angle = 0;
  current = 0;
  constructor(readonly constants: MotorConstants) {}

  /** Torque on the wheel in N m, before friction. */
  torque(volts: number): number {
    if (this.state === 'coast') return 0;
    const { stallNm, freeRadS, ratedV } = this.constants;
    const u = this.state === 'brake' ? 0 : (this.duty * volts) / ratedV;
    return stallNm * (u - this.omega / freeRadS);
  }

  /** Motor torque, then Coulomb friction clamped at zero. The ground comes after: see Yard.step. */
  spin(dt: number, volts: number): void {
    const { frictionNm, inertiaKgM2, freeRadS, ratedV } = this.constants;
    const torque = this.torque(volts);
    // torque x omega_0 / V: the torque constant of the same straight line
    this.current = this.state === 'driven' ? (torque * freeRadS) / ratedV : 0;
    const omega = this.omega + (torque / inertiaKgM2) * dt;
    const loss = (frictionNm / inertiaKgM2) * dt;
    this.omega = omega > loss ? omega - loss : omega < -loss ? omega + loss : 0;
  }

  turn(dt: number): void {
    this.angle += this.omega * dt;
  }
  /** Whole encoder counts since the start. */
  get counts(): number {
    return Math.floor((this.angle / (2 * Math.PI)) * this.constants.countsPerTurn);
  }
}
