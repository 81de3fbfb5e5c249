/**
 * Each device is an individual: a stand-in has small faults, drawn once from its serial number and kept. The ranges are
 * uniform (devices.md): wheel diameter +-1 %, a motor's torque and its free speed +-4 % each, track +-1.5 %, servo offset +-3 degrees.
 */
import { stream, uniform } from '../random.ts';

export type Quirks = {
  leftDiameter: number;
  rightDiameter: number;
  track: number;
  /** torque at stall, and how fast it turns free */
  leftMotor: number;
  rightMotor: number;
  leftFree: number;
  rightFree: number;
  gyroBiasDegS: number;
  servoOffsetDeg: number;
  /** share of the charge that is left, 0 to 1 */
  charge: number;
  /** the drive units were built in on each other's side: each wheel gets what is meant for the other one */
  swapped?: true;
};

export const noQuirks: Quirks = {
  leftDiameter: 1,
  rightDiameter: 1,
  track: 1,
  leftMotor: 1,
  rightMotor: 1,
  leftFree: 1,
  rightFree: 1,
  gyroBiasDegS: 0,
  servoOffsetDeg: 0,
  charge: 1
};

/** Whether a device is just as its kit sheet says, whatever its battery has left. */
export const isFaultless = ({ charge: _, ...quirks }: Quirks): boolean =>
  Object.entries(quirks).every(([name, value]) => value === noQuirks[name as keyof Quirks]);

/** The one that was put together again in a hurry: its left wheel gets what is meant for the right one. */
export const SWAPPED = 'MB-BAR-0007';

/** @param serial the device's serial number, such as 'MB-BAR-0003' */
export function quirksOf(serial: string): Quirks {
  let seed = 2166136261;
  for (const c of serial) seed = Math.imul(seed ^ c.charCodeAt(0), 16777619);
  const source = stream(seed | 0, 'quirks');
  const about = (centre: number, spread: number) => centre + spread * (2 * uniform(source) - 1);
  return {
    leftDiameter: about(1, 0.01),
    rightDiameter: about(1, 0.01),
    track: about(1, 0.015),
    leftMotor: about(1, 0.04),
    rightMotor: about(1, 0.04),
    leftFree: about(1, 0.04),
    rightFree: about(1, 0.04),
    gyroBiasDegS: about(0, 0.1),
    servoOffsetDeg: about(0, 3),
    charge: about(0.8, 0.15),
    ...(serial === SWAPPED ? { swapped: true as const } : {})
  };
}
