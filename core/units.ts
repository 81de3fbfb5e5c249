/** Standard acceleration of free fall, m/s² (ISO 80000-3): what 1 g is everywhere. */
export const GRAVITY = 9.80665;

/** An angle as a heading: 0 <= h < 360. */
const turnOf = (deg: number): number => deg - 360 * Math.floor(deg / 360);
/** A heading rounded to so many places, still below 360: 359.97 is 0, not 360. */
export function headingAt(deg: number, places = 1): number {
  const one = Math.pow(10, places);
  return turnOf(Math.round(deg * one) / one);
}

/** A number as it is read: with so many places, or 2 below 10, 1 below 100 and none from there on; never "-0". */
export function figure(v: number, places = Math.abs(v) >= 100 ? 0 : Math.abs(v) >= 10 ? 1 : 2): string {
  return v.toFixed(places).replace(/^-(?=[0.]+$)/, '');
}
/** What a channel shows at a moment: a heading, which is below 360, or any other number. */
export const reading = (key: string, v: number, places?: number): string =>
  key === 'heading' || key === 'facing' ? headingAt(v, places ?? 1).toFixed(places ?? 1) : figure(v, places);
