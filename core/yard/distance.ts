/** An ultrasonic distance sensor: the nearest echo in a cone of 11 degrees each side, by time of flight. */
import { FURTHEST_CM, NEAREST_CM } from '../kit/ranges.ts';

export const HALF_CONE_DEG = 11;
/** A surface that is turned further than this off facing the sensor throws the sound past it: our choice. */
export const STEEPEST_DEG = 60;
/** A new value every 30 ms. */
export const PERIOD_MS = 30;
const SIGMA_CM = 0.3;
/** So many that a round post of 3 cm, of which 2.6 cm send an echo, is met anywhere within range: every 2.5 cm at 180 cm. */
const RAYS = 29;

/** Speed of sound in dry air, m/s (standard linear approximation 331.3 + 0.606 T, T in degrees Celsius). */
export const speedOfSound = (airC: number): number => 331.3 + 0.606 * airC;

/** Directions of the rays, radians from straight ahead. */
export const rays: readonly number[] = Array.from(
  { length: RAYS },
  (_, i) => ((i / (RAYS - 1)) * 2 - 1) * ((HALF_CONE_DEG * Math.PI) / 180)
);

/**
 * What the sensor says.
 * @param metres to the nearest surface that sends an echo back, or undefined
 * @param noise a normal value with deviation 1
 * @returns cm, to 0.1; 180 without an echo
 */
export function reading(metres: number | undefined, airC: number, noise: number): { cm: number; echo: boolean } {
  if (metres === undefined) return { cm: FURTHEST_CM, echo: false };
  // the sensor measures time and takes the air to be at 20 degrees
  const cm = metres * 100 * (speedOfSound(20) / speedOfSound(airC)) + noise * SIGMA_CM;
  if (cm >= FURTHEST_CM) return { cm: FURTHEST_CM, echo: false };
  return { cm: Math.round(Math.max(NEAREST_CM, cm) * 10) / 10, echo: true };
}
