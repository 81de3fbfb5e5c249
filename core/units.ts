/** Standard acceleration of free fall, m/s² (ISO 80000-3): what 1 g is everywhere. */
export const GRAVITY = 9.80665;

/** An angle as a heading: 0 <= h < 360. */
const turnOf = (deg: number): number => deg - 360 * Math.floor(deg / 360);
/** A heading rounded to so many places, still below 360: 359.97 is 0, not 360. */
export function headingAt(deg: number, places = 1): number {
  const one = Math.pow(10, places);
  return turnOf(Math.round(deg * one) / one);
}
