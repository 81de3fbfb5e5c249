/**
 * What two measured runs say of a device: 1 m straight gives the diameters of the wheels, four full turns on the spot how
 * far they stand from the middle (the idea of measured runs: Borenstein and Feng, "Measurement and correction of systematic
 * odometry errors in mobile robots", 1996). How a wheel rolls in a motion is a row of the drive's matrix (kit/drive.ts), so
 * this holds for any set of wheels.
 */
import { Drive, type Motion } from './drive.ts';
import { placesOf, type Kit } from './kit.ts';

export const STRAIGHT_CM = 100;
export const TURNS = 4;
const RAD = Math.PI / 180;

export type Calibration = {
  /** what the ruler found: cm driven, degrees it bent clockwise, degrees turned in four turns */
  drivenCm: number;
  bentDeg: number;
  turnedDeg: number;
  /** what follows, mm, by the wheels' ids */
  wheels: Record<string, { diameterMm: number; xMm: number; yMm: number }>;
};
/** One run: how the machine moved, m and rad, and how far each wheel turned, in turns, in the kit's order. */
export type MeasuredRun = { motion: Motion; turns: readonly number[] };

/** A wheel says its diameter in the run in which it rolls more than this, m. */
const ENOUGH = 0.05;

/** @param straight mostly ahead @param spin on the spot */
export function calibration(kit: Kit, straight: MeasuredRun, spin: MeasuredRun): Calibration {
  const { rows } = new Drive(placesOf(kit.wheels));
  // how far apart they stand says how much the wheels differ, and their diameters say how far apart: a few rounds settle it
  let spread = 1;
  let diameters = kit.wheels.map((w) => w.diameterMm / 1000);
  const rolled = (i: number, { ahead, left, turn }: Motion): number =>
    rows[i][0] * ahead + rows[i][1] * left + rows[i][2] * spread * turn;
  for (let round = 0; round < 12; round++) {
    diameters = rows.map((_, i) => {
      const run = Math.abs(rolled(i, straight.motion)) > ENOUGH ? straight : spin;
      const turns = Math.PI * run.turns[i];
      return turns === 0 ? diameters[i] : rolled(i, run.motion) / turns;
    });
    // least squares over all wheels of what turning on the spot asks of each
    let above = 0;
    let below = 0;
    rows.forEach(([ahead, left, round], i) => {
      const { motion, turns } = spin;
      const asked = round * motion.turn;
      above += (Math.PI * diameters[i] * turns[i] - ahead * motion.ahead - left * motion.left) * asked;
      below += asked * asked;
    });
    spread = above / below;
  }
  const hundredths = (v: number): number => Math.round(v * 100) / 100;
  return {
    drivenCm: hundredths(straight.motion.ahead * 100),
    bentDeg: hundredths(-straight.motion.turn / RAD),
    turnedDeg: hundredths(-spin.motion.turn / RAD),
    wheels: Object.fromEntries(
      kit.wheels.map(({ id, at }, i) => [
        id,
        // to a hundredth in diameter and in how far two wheels stand apart
        {
          diameterMm: hundredths(diameters[i] * 1000),
          xMm: hundredths(2 * at.xMm * spread) / 2,
          yMm: hundredths(2 * at.yMm * spread) / 2
        }
      ])
    )
  };
}
/** @param device whose measures these are */
export const calibrated = (kit: Kit, device: string, { wheels }: Calibration): Kit => ({
  ...kit,
  measured: { device, wheels }
});
