/** Names of colours: the nearest in CIELAB (CIE 15, white point D65), by culori. */
import { differenceEuclidean, nearest } from 'culori';

export const NAMED_COLOURS: Readonly<Record<string, string>> = {
  black: '#1a1a1a',
  grey: '#808080',
  white: '#f5f5f0',
  red: '#c8322b',
  orange: '#e58a1f',
  yellow: '#f2d43a',
  green: '#4f8a3a',
  blue: '#2f63b8',
  violet: '#7d4aa8',
  brown: '#6b4a2f'
};
const names = Object.keys(NAMED_COLOURS);
const near = nearest(names, differenceEuclidean('lab65'), (name) => NAMED_COLOURS[name]);
const known = new Map<string, string>();

/** @param hex #rrggbb */
export function colourName(hex: string): string {
  let name = known.get(hex);
  if (!name) known.set(hex, (name = near(hex, 1)[0]));
  return name;
}
