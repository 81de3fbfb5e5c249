/**
 * How a weight rests on what carries it: forces and moments in balance (statics, any textbook). Three supports carry exactly
 * that; of more, the loads that balance and are least in the sum of their squares, as equal springs give; a support that
 * would have to pull carries nothing.
 */
import { Matrix, pseudoInverse } from 'ml-matrix';

/** m from the centre of mass, in the plane. */
export type Support = { x: number; y: number };

/** @param weight N @returns N on each support, in their order */
export function loads(weight: number, supports: readonly Support[]): number[] {
  let carrying = supports.map((_, i) => i);
  for (;;) {
    const places = carrying.map((i) => supports[i]);
    if (!places.length) return supports.map(() => 0);
    const balance = new Matrix([places.map(() => 1), places.map((s) => s.x), places.map((s) => s.y)]);
    const found = pseudoInverse(balance)
      .mmul(Matrix.columnVector([weight, 0, 0]))
      .to1DArray();
    const pulls = found.findIndex((n) => n < -1e-9 * weight);
    if (pulls >= 0) {
      const worst = found.indexOf(Math.min(...found));
      carrying = carrying.filter((_, i) => i !== worst);
      continue;
    }
    // where two are left beside the centre of mass nothing balances: they carry all of it, and it leans on them
    const whole = weight / found.reduce((sum, n) => sum + n, 0);
    return supports.map((_, i) => (carrying.includes(i) ? Math.max(0, found[carrying.indexOf(i)] * whole) : 0));
  }
}
