/**
 * What the wheels of a machine make of a motion, and what they tell of one: a matrix from the wheels' places. A wheel at
 * (x, y) that rolls in direction b moves over the ground at `cos b * vx + sin b * vy + (x sin b - y cos b) * omega`
 * (Siegwart, Nourbakhsh, Scaramuzza, Introduction to Autonomous Mobile Robots, chapter 3; Lynch and Park, Modern Robotics,
 * chapter 13). Back again by the pseudo-inverse: where there are more wheels than motions, the motion that fits them best.
 */
import { Matrix, pseudoInverse } from 'ml-matrix';

/** Metres and radians in the machine's frame: x ahead, y to the left, counter-clockwise, from the point that is reckoned with. */
export type WheelPlace = {
  x: number;
  y: number;
  /** the direction in which it rolls: 0 is ahead */
  rolls: number;
  /** a tyre resists sideways, rollers do not */
  rim: 'tyre' | 'rollers';
};
/** m and rad, or both a second: ahead, to the left, counter-clockwise. */
export type Motion = { ahead: number; left: number; turn: number };
/** What the wheels can make of it, each by itself. */
export type Can = { drive: boolean; turn: boolean; slide: boolean };

/** Beyond what numbers of double precision tell apart here. */
const tidy = (v: number): number => Math.round(v * 1e12) / 1e12 || 0;

export class Drive {
  /** a row a wheel */
  readonly rows: readonly (readonly [number, number, number])[];
  private readonly back: readonly (readonly number[])[];
  readonly can: Can;
  constructor(readonly wheels: readonly WheelPlace[]) {
    this.rows = wheels.map(({ x, y, rolls }) => {
      const [cos, sin] = [tidy(Math.cos(rolls)), tidy(Math.sin(rolls))];
      return [cos, sin, x * sin - y * cos || 0];
    });
    const matrix = new Matrix(this.rows.map((r) => [...r]));
    this.back = wheels.length
      ? pseudoInverse(matrix)
          .to2DArray()
          .map((row) => row.map(tidy))
      : [];
    const moves = (column: number): boolean => this.rows.some((r) => Math.abs(r[column]) > 1e-9);
    // what is told apart from driving by the wheels is a motion of its own
    const apart = (column: number): boolean =>
      moves(column) &&
      this.back[column].some((v) => v !== 0) &&
      Math.abs(this.motion(this.rows.map((r) => r[column])).ahead) < 1e-6;
    this.can = {
      drive: moves(0),
      turn: moves(2) && apart(2),
      slide: moves(1) && apart(1) && wheels.every((w) => w.rim === 'rollers')
    };
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
