/**
 * One LED in series with a resistor on a pin. The diode follows Shockley's law, I = Is (Math.exp(V / (n Vt)) - 1) (Shockley, The
 * theory of p-n junctions, 1949; n and Is are set so that it has its rated forward voltage at its rated current), and the
 * loop U = I R + V is solved with Newton's method.
 */
/** Thermal voltage at 20 °C, V: kT/q. */
export const THERMAL_V = 0.02526;
/** A usual small LED emits as n = 2; common practice. */
const EMISSION = 2;
/** Rated current of a small LED, A: common practice, as its data sheets have it. */
export const RATED_A = 0.02;
/** A pin of the board gives so much at the most, A (devices.md), and has so much resistance of its own, Ω. */
export const PIN_A = 0.02;
export const PIN_OHM = 25;
export const BOARD_V = 3.3;
/** Forward voltages by colour at the rated current, V: common practice. */
export const FORWARD_V: Readonly<Record<string, number>> = { red: 1.8, amber: 2.0, green: 2.1, blue: 3.0, white: 3.0 };

export const LED_COLOURS = ['red', 'amber', 'green', 'blue', 'white'] as const;
/** More than this burns a small LED (our choice: half as much again as it is rated for). */
export const BURNS_A = 0.03;

/** An LED that somebody put in with a resistor of their own: its current while it is fully on, A. */
export const currentOf = (part: { ohm?: number; colour?: string }): number | undefined =>
  part.ohm === undefined
    ? undefined
    : ledCurrent(BOARD_V, part.ohm + PIN_OHM, FORWARD_V[part.colour ?? 'red'] ?? FORWARD_V.red);
/** The resistor for about half of its rated current, from E24. */
export const rightOhm = (colour = 'red'): number =>
  nextE24((BOARD_V - (FORWARD_V[colour] ?? FORWARD_V.red)) / (RATED_A / 2) - PIN_OHM);

/**
 * @param volts across both, V  @param ohm in series, Ω  @param forwardV at the rated current, V
 * @returns the current, A
 */
export function ledCurrent(volts: number, ohm: number, forwardV: number): number {
  const nVt = EMISSION * THERMAL_V;
  const saturation = RATED_A / (Math.exp(forwardV / nVt) - 1);
  if (volts <= 0) return 0;
  if (ohm <= 0) return saturation * (Math.exp(Math.min(volts, forwardV + 1) / nVt) - 1);
  // in the diode's voltage the loop is f(v) = v + R I(v) - U, which grows and bends upwards: Newton from above converges
  let v = Math.min(volts, nVt * Math.log(volts / (ohm * saturation) + 1));
  for (let i = 0; i < 60; i++) {
    const e = Math.exp(v / nVt);
    const f = v + ohm * saturation * (e - 1) - volts;
    const next = v - f / (1 + (ohm * saturation * e) / nVt);
    if (Math.abs(next - v) < 1e-12) break;
    v = next;
  }
  return (volts - v) / ohm;
}

/** The E24 series of IEC 60063. */
export const E24 = [10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91];
/** The next value of the series that is not smaller, Ω. */
export function nextE24(ohm: number): number {
  if (!(ohm > 0) || !Number.isFinite(ohm)) return Number.NaN;
  let decade = 0.1;
  while (decade * 91 < ohm * (1 - 1e-9)) decade *= 10;
  const value = decade * E24.find((e) => decade * e >= ohm * (1 - 1e-9))!;
  return Number(value.toPrecision(3));
}
