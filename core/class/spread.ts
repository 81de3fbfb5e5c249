/** How guesses lie about one another, and about where it really stopped. */
import { deviation, mean, median } from 'd3-array';

export type Place = { x: number; y: number };
export type Spread = {
  n: number;
  /** the middle of the guesses, m */
  middle: Place;
  /** half of the guesses lie in this ellipse, if they scatter evenly about their middle: half axes in m, its long one to x in degrees */
  half?: { a: number; b: number; turnedDeg: number };
  /** how far the guesses are from where it stopped, cm: the middle one of them, and the nearest */
  offCm?: { median: number; nearest: number };
};
/** The square of the radius within which half of a two-dimensional normal distribution lies: chi-square, two degrees of freedom. */
const HALF = 2 * Math.LN2;

/** @param stop where it stopped, once that is known; @returns undefined without a guess */
export function spread(guesses: readonly Place[], stop?: Place): Spread | undefined {
  if (!guesses.length) return undefined;
  const middle = { x: mean(guesses, (g) => g.x)!, y: mean(guesses, (g) => g.y)! };
  const off =
    stop && guesses.map((g) => Math.sqrt((g.x - stop.x) * (g.x - stop.x) + (g.y - stop.y) * (g.y - stop.y)) * 100);
  return {
    n: guesses.length,
    middle,
    ...(guesses.length > 2 ? { half: ellipse(guesses, middle) } : {}),
    ...(off ? { offCm: { median: median(off)!, nearest: Math.min(...off) } } : {})
  };
}
/** From the covariance of the guesses: its eigenvectors are the axes. */
function ellipse(guesses: readonly Place[], middle: Place): Spread['half'] {
  const [sx, sy] = [deviation(guesses, (g) => g.x)!, deviation(guesses, (g) => g.y)!];
  let sum = 0;
  for (const g of guesses) sum += (g.x - middle.x) * (g.y - middle.y);
  const sxy = sum / (guesses.length - 1);
  const [half, diff] = [(sx * sx + sy * sy) / 2, (sx * sx - sy * sy) / 2];
  const root = Math.sqrt(diff * diff + sxy * sxy);
  return {
    a: Math.sqrt(HALF * (half + root)),
    b: Math.sqrt(HALF * Math.max(0, half - root)),
    turnedDeg: (Math.atan2(2 * sxy, sx * sx - sy * sy) * 90) / Math.PI
  };
}
