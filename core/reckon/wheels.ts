/** Reckoning with wheels: plain geometry. Lengths in cm, diameters and track in cm, angles in degrees. */

/** Circumference of a wheel: pi d. */
export const circumference = (diameterCm: number): number => Math.PI * diameterCm;
/** Turns that roll a distance: s / (pi d). */
export const turnsForDistance = (distanceCm: number, diameterCm: number): number =>
  distanceCm / circumference(diameterCm);
/** Distance that each wheel rolls for a turn on the spot: half the track times the angle (in radians). */
export const rollForAngle = (angleDeg: number, trackCm: number): number => (angleDeg / 360) * Math.PI * trackCm;
/** Turns of each wheel, against each other, for a turn on the spot: angle x track / (360 d). */
export const turnsForAngle = (angleDeg: number, trackCm: number, diameterCm: number): number =>
  rollForAngle(angleDeg, trackCm) / circumference(diameterCm);
