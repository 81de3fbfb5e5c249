/**
 * What the wheels of a machine make of a motion, and what they tell of one: a matrix from the wheels' places. A wheel at
 * (x, y) that rolls in direction b moves over the ground at `cos b * vx + sin b * vy + (x sin b - y cos b) * omega`
 * (Siegwart, Nourbakhsh, Scaramuzza, Introduction to Autonomous Mobile Robots, chapter 3; Lynch and Park, Modern Robotics,
 * chapter 13). Back again by the pseudo-inverse: where there are more wheels than motions, the motion that fits them best.
 */
import { Matrix, pseudoInverse } from 'ml-matrix';
import { canOf, rowOf, tidy, type Can, type WheelPlace } from './rolling.ts';

/** m and rad, or both a second: ahead, to the left, counter-clockwise. */
export type Motion = { ahead: number; left: number; turn: number };
export class Drive {
  /** a row a wheel */
  readonly rows: readonly (readonly [number, number, number])[];
  private readonly back: readonly (readonly number[])[];
  readonly can: Can;
  constructor(readonly wheels: readonly WheelPlace[]) {
    this.rows = wheels.map(rowOf);
    const matrix = new Matrix(this.rows.map((r) => [...r]));
    this.back = wheels.length
      ? pseudoInverse(matrix)
          .to2DArray()
          .map((row) => row.map(tidy))
      : [];
    this.can = canOf(wheels);
  }
  /** How far each wheel rolls, m, or how fast, m/s. */
  rims({ ahead, left, turn }: Motion): number[] {
    return this.rows.map(([a, b, c]) => a * ahead + b * left + c * turn);
  }
  /** The motion that fits the wheels best. @param rims m or m/s, one a wheel */
  motion(rims: readonly number[]): Motion {
    const [ahead = 0, left = 0, turn = 0] = this.back.map((row) => row.reduce((sum, v, i) => sum + v * rims[i], 0));
    return { ahead, left, turn };
  }
}
