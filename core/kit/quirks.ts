/**
 * Each device is an individual: a stand-in has small faults, drawn once from its serial number and kept. The ranges are
 * uniform (devices.md): wheel diameter +-1 %, a motor's torque and its free speed +-4 % each, how far apart the wheels stand
 * +-1.5 %, servo offset +-3 degrees.
 */
import * as z from 'zod';
import { stream, uniform } from '../random.ts';
import type { Kit } from './kit.ts';

/** Of a wheel and of the motor that turns it, as shares of what the kit sheet says: torque at stall, and how fast it turns free. */
const wheelQuirks = z.object({ diameter: z.number(), torque: z.number(), free: z.number() });
export const quirksSchema = z.object({
  /** by the wheel's id */
  wheels: z.record(z.string(), wheelQuirks),
  /** how far from the middle the wheels stand, as a share */
  spread: z.number(),
  gyroBiasDegS: z.number(),
  servoOffsetDeg: z.number(),
  /** share of the charge that is left, 0 to 1 */
  charge: z.number(),
  /** its drive units were built in on each other's place: each wheel gets what is meant for the next one */
  swapped: z.literal(true).optional()
});
export type Quirks = z.infer<typeof quirksSchema>;
export type WheelQuirks = z.infer<typeof wheelQuirks>;

export const noQuirks: Quirks = { wheels: {}, spread: 1, gyroBiasDegS: 0, servoOffsetDeg: 0, charge: 1 };
export const asBuilt: WheelQuirks = { diameter: 1, torque: 1, free: 1 };

/** Whether a device is just as its kit sheet says, whatever its battery has left. */
export const isFaultless = ({ charge: _, wheels, ...rest }: Quirks): boolean =>
  Object.entries(rest).every(([name, value]) => value === noQuirks[name as keyof Quirks]) &&
  Object.values(wheels).every((w) => w.diameter === 1 && w.torque === 1 && w.free === 1);

/** The one that was put together again in a hurry: its left wheel gets what is meant for the right one. */
export const SWAPPED = 'MB-BAR-0007';

/** @param serial the device's serial number, such as 'MB-BAR-0003' @param wheels of the kit that it is one of */
export function quirksOf(serial: string, { wheels }: Pick<Kit, 'wheels'>): Quirks {
  let seed = 2166136261;
  for (const c of serial) seed = Math.imul(seed ^ c.charCodeAt(0), 16777619);
  const source = stream(seed | 0, 'quirks');
  const about = (centre: number, spread: number) => centre + spread * (2 * uniform(source) - 1);
  const each = (spread: number): number[] => wheels.map(() => about(1, spread));
  const diameters = each(0.01);
  const spread = about(1, 0.015);
  const torques = each(0.04);
  const frees = each(0.04);
  return {
    wheels: Object.fromEntries(
      wheels.map(({ id }, i) => [id, { diameter: diameters[i], torque: torques[i], free: frees[i] }])
    ),
    spread,
    gyroBiasDegS: about(0, 0.1),
    servoOffsetDeg: about(0, 3),
    charge: about(0.8, 0.15),
    ...(serial === SWAPPED ? { swapped: true as const } : {})
  };
}
