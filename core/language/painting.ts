/** What the painter does with a whole picture. */
import type { Turned } from '../kit/display.ts';
import { levelOf, painted, pixelAt, pixelShownAt, signOf, sizeOf } from './pixels.ts';

/** Moved round: what leaves on one side comes in on the other. */
export function rolled(picture: string, dx: number, dy: number): string {
  const size = sizeOf(picture);
  return painted(size, (x, y) =>
    pixelAt(picture, (x - dx + size.columns) % size.columns, (y - dy + size.rows) % size.rows)
  );
}
/** As a display shows it that is mounted turned clockwise about its middle; what falls beside it is not seen. */
export function shownAs(picture: string, turnedDeg: Turned): string {
  if (turnedDeg === 0) return picture;
  const size = sizeOf(picture);
  return painted(size, (x, y) => {
    const at = pixelShownAt(x, y, turnedDeg, size);
    return at ? pixelAt(picture, at.x, at.y) : '.';
  });
}
export const inverted = (picture: string): string =>
  painted(sizeOf(picture), (x, y) => signOf(100 - levelOf(pixelAt(picture, x, y))));
export function mirrored(picture: string, way: 'sideways' | 'upside down'): string {
  const size = sizeOf(picture);
  return painted(size, (x, y) =>
    way === 'sideways' ? pixelAt(picture, size.columns - 1 - x, y) : pixelAt(picture, x, size.rows - 1 - y)
  );
}
