/**
 * What two measured runs say of a device: 1 m straight gives the sum and the difference of the wheel diameters, four full
 * turns on the spot give the track (geometry of the differential drive: Dudek and Jenkin, Computational Principles of Mobile
 * Robotics; the idea of measured runs: Borenstein and Feng, "Measurement and correction of systematic odometry errors in
 * mobile robots", 1996).
 */
import type { Kit } from './kit.ts';

export const STRAIGHT_CM = 100;
export const TURNS = 4;
const RAD = Math.PI / 180;

export type Calibration = {
  /** what the ruler found: cm driven, degrees it bent clockwise, degrees turned in four turns */
  drivenCm: number;
  bentDeg: number;
  turnedDeg: number;
  /** what follows, mm */
  leftDiameterMm: number;
  rightDiameterMm: number;
  trackMm: number;
};

/**
 * @param driven metres along the way of the straight run, and `bent` radians clockwise in it
 * @param turned radians of the turns on the spot
 * @param left, right, around turns of the wheels: in the straight run, and on the spot on average
 */
export function calibration(
  kit: Kit,
  {
    driven,
    bent,
    turned,
    left: l,
    right: r,
    around
  }: Record<'driven' | 'bent' | 'turned' | 'left' | 'right' | 'around', number>
): Calibration {
  // the track says how much the wheels differ, and their mean diameter says the track: two rounds settle it
  let track = kit.wheels.trackMm / 1000;
  let [left, right] = [0, 0];
  for (let round = 0; round < 3; round++) {
    left = (driven + (bent * track) / 2) / (Math.PI * l);
    right = (driven - (bent * track) / 2) / (Math.PI * r);
    track = (Math.PI * (left + right) * around) / turned;
  }
  const mm = (metres: number): number => Math.round(metres * 1e5) / 100;
  const deg = (radians: number): number => Math.round((radians / RAD) * 100) / 100;
  return {
    drivenCm: Math.round(driven * 1e4) / 100,
    bentDeg: deg(bent),
    turnedDeg: deg(turned),
    leftDiameterMm: mm(left),
    rightDiameterMm: mm(right),
    trackMm: mm(track)
  };
}
/** @param device whose measures these are */
export const calibrated = (kit: Kit, device: string, c: Calibration): Kit => ({
  ...kit,
  measured: { device, leftDiameterMm: c.leftDiameterMm, rightDiameterMm: c.rightDiameterMm, trackMm: c.trackMm }
});
