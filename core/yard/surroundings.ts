/** What it is like at a place of the mat: light from lamps and daylight, warmth and dampness of places. */
import type { Mat } from './mat.ts';

/** Where a mat says nothing of it. */
export const DAYLIGHT = 60;

/**
 * Light on the mat, 0 to 100. A lamp hangs over its place: inverse-square law with Lambert's cosine, E = I h / (h^2 + d^2)^(3/2)
 * (any handbook of photometry), so that `brightness` is what is added right below it.
 */
export function lightAt(mat: Mat, x: number, y: number): number {
  let sum = mat.daylight ?? DAYLIGHT;
  for (const lamp of mat.lamps ?? []) {
    const dx = x - lamp.x;
    const dy = y - lamp.y;
    const h2 = lamp.height * lamp.height;
    const share = h2 / (h2 + dx * dx + dy * dy);
    sum += lamp.brightness * share * Math.sqrt(share);
  }
  return sum > 100 ? 100 : sum;
}

type Spot = { x: number; y: number; radius: number };
/** 1 in the middle of a place, 0 at its rim and beyond, falling in a straight line. */
const nearness = (spot: Spot, x: number, y: number): number => {
  const dx = x - spot.x;
  const dy = y - spot.y;
  return Math.max(0, 1 - Math.sqrt(dx * dx + dy * dy) / spot.radius);
};
/**
 * Temperature, degrees Celsius: a mean of the places that are near, each by its nearness, and of the air for what is left
 * of 1 (our choice); so two warm places are no warmer than the warmer of them.
 */
export function warmthAt(mat: Mat, x: number, y: number): number {
  let sum = 0;
  let share = 0;
  for (const place of mat.warmth ?? []) {
    const near = nearness(place, x, y);
    sum += place.celsius * near;
    share += near;
  }
  return share > 1 ? sum / share : sum + mat.airC * (1 - share);
}
/** Moisture of the soil, 0 to 100: as the dampest place here has it. */
export const moistureAt = (mat: Mat, x: number, y: number): number =>
  (mat.damp ?? []).reduce((most, place) => Math.max(most, place.moisture * nearness(place, x, y)), 0);
