/** A battery whose open-circuit voltage falls in a straight line with its charge, with a resistance inside (Ohm's law). */
import type { Kit } from '../kit/kit.ts';

export class Battery {
  volts: number;
  /** @param charge share of the charge left, 0..1, or undefined to hold the rated voltage (rehearsal) */
  constructor(
    private readonly kit: Kit,
    public charge: number | undefined
  ) {
    this.volts = charge === undefined ? kit.motor.volts : this.open;
  }
  private get open(): number {
    const { fullV, emptyV } = this.kit.battery;
    return emptyV + (fullV - emptyV) * (this.charge ?? 1);
  }
  /** @param ampere what board, motors and servos draw; motors that are driven against their turning give some back */
  draw(ampere: number, dt: number): void {
    if (this.charge === undefined) return;
    this.charge = Math.min(1, Math.max(0, this.charge - (ampere * dt) / (3600 * this.kit.battery.ampereHours)));
    this.volts = Math.max(0, this.open - ampere * this.kit.battery.ohm);
  }
  get flat(): boolean {
    return this.charge !== undefined && this.charge <= 0;
  }
}
