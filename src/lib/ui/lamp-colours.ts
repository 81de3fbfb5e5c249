/** How the lamps of a device look when they are lit. */
import { colourOf, levelOf } from '../../../core/language/pixels.ts';

export const LAMP_COLOURS: Record<string, string> = {
  amber: '#e0a100',
  red: '#d2402f',
  green: '#3f9a3a',
  blue: '#3b76d6',
  violet: '#8c55c4',
  white: '#f4f4ea'
};
/** The same as they glow on a dark display. */
export const GLOW: Record<string, string> = {
  amber: '#ffcf5a',
  red: '#ff8571',
  green: '#8fd16f',
  blue: '#86b4ff',
  violet: '#c9a3f2',
  white: '#ffffff'
};
const DARK = '#43564a';
/** How a sign of a picture looks on a display with colours, and on one of amber lamps. */
export function pixelColour(sign: string, colours: boolean): string {
  const level = levelOf(sign);
  return level ? `color-mix(in srgb, ${GLOW[colours ? colourOf(sign) : 'amber']} ${20 + level * 0.8}%, ${DARK})` : DARK;
}
