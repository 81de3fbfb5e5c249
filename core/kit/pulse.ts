/** Pulses of 1.0 to 2.0 ms, 50 a second, stand for 0 to 180 degrees, 1.5 ms being the middle (common practice). */
/** @returns the pulse that stands for an angle, ms */
export const pulseFor = (angleDeg: number, fromMs = 1, toMs = 2): number => fromMs + ((toMs - fromMs) * angleDeg) / 180;
