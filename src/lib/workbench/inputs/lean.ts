/**
 * How a phone is held, as the lean of a board. Angles of the W3C "DeviceOrientation Event Specification": alpha about the axis
 * up from the screen, beta about the one to the right (top edge up is positive), gamma about the one along the phone (right
 * edge down is positive), all anticlockwise.
 */
import type { Lean } from '../../../../core/yard/hand.ts';

const half = (deg: number): number => deg - 360 * Math.round(deg / 360);
/** @param zeroAlpha the direction in which it counts as not turned, degrees */
export const leanOf = (alpha: number, beta: number, gamma: number, zeroAlpha: number): Lean => ({
  sideways: Math.round(gamma * 10) / 10 || 0,
  forwards: Math.round(-beta * 10) / 10 || 0,
  turned: Math.round(half(zeroAlpha - alpha) * 10) / 10 || 0
});
