/**
 * Pictures as text, one sign a pixel, rows with a space between: '.' dark, '-' 25 %, '+' 50 %, '*' 75 %, '#' full; on a
 * display with colours also a letter of the palette. A picture has the size that its text has.
 */
import { LARGEST, rasterOf, type Display, type Raster, type Turned } from '../kit/display.ts';

const SIGNS = '.-+*#';
/** The colours of lamps and of pixels: in a picture each is its first letter. */
export const COLOURS = ['amber', 'red', 'green', 'blue', 'violet', 'white'] as const;
export type Colour = (typeof COLOURS)[number];
export const letterOf = (colour: Colour): string => colour[0];
const LETTERS = COLOURS.map(letterOf).join('');

/** Level of a sign, 0 to 100 %; a colour is lit in full. */
export const levelOf = (c: string | undefined): number =>
  c === undefined ? 0 : LETTERS.includes(c) ? 100 : Math.max(0, SIGNS.indexOf(c)) * 25;
/** The colour of a sign; white where it says a level alone. */
export const colourOf = (c: string | undefined): Colour => COLOURS.find((colour) => letterOf(colour) === c) ?? 'white';
/** The sign for a level, to the nearest of those that a display can show. */
export function signOf(level: number, levels: Raster['levels'] = 5): string {
  const steps = levels - 1;
  const nearest = Math.round((level / 100) * steps) / steps;
  return SIGNS[Math.max(0, Math.min(4, nearest * 4))];
}
/** Rows of signs, all of the same length. */
const PICTURE = new RegExp(`^[${SIGNS.replace('-', '\\-')}${LETTERS} ]+$`);
export function isPictureText(text: string): boolean {
  const rows = text.split(' ');
  const { length } = rows[0];
  return (
    PICTURE.test(text) &&
    length > 0 &&
    length <= LARGEST &&
    rows.length <= LARGEST &&
    rows.every((r) => r.length === length)
  );
}
type Size = { columns: number; rows: number };
export function sizeOf(picture: string): Size {
  const at = picture.indexOf(' ');
  const columns = at < 0 ? picture.length : at;
  return { columns, rows: (picture.length + 1) / (columns + 1) };
}
const inside = (x: number, y: number, { columns, rows }: Size): boolean => x >= 0 && x < columns && y >= 0 && y < rows;
/** The sign of a pixel; dark beside the picture. */
export function pixelAt(picture: string, x: number, y: number): string {
  const size = sizeOf(picture);
  return inside(x, y, size) ? picture[y * (size.columns + 1) + x] : '.';
}
export function withPixel(picture: string, x: number, y: number, c: string): string {
  const at = y * (sizeOf(picture).columns + 1) + x;
  return picture.slice(0, at) + c + picture.slice(at + 1);
}
/** A picture of that size, pixel by pixel. */
export const painted = ({ columns, rows }: Size, at: (x: number, y: number) => string): string =>
  Array.from({ length: rows }, (_, y) => Array.from({ length: columns }, (_, x) => at(x, y)).join('')).join(' ');
export const darkOf = (size: Size): string => painted(size, () => '.');
/** As a display takes it: as large as that is, from its upper left corner, with signs that it can show. */
export function fitted(picture: string, raster: Raster): string {
  return painted(raster, (x, y) => {
    const sign = pixelAt(picture, x, y);
    return raster.colours ? sign : signOf(levelOf(sign), raster.levels);
  });
}
/** The same in another size: in the middle where there is more room, every so-many-th pixel where there is less. */
export function resized(picture: string, to: Raster): string {
  const from = sizeOf(picture);
  if (from.columns > to.columns || from.rows > to.rows) {
    const near = (at: number, of: number, all: number): number => Math.floor(((at + 0.5) * all) / of);
    return painted(to, (x, y) => pixelAt(picture, near(x, to.columns, from.columns), near(y, to.rows, from.rows)));
  }
  const [dx, dy] = [Math.floor((to.columns - from.columns) / 2), Math.floor((to.rows - from.rows) / 2)];
  return painted(to, (x, y) => pixelAt(picture, x - dx, y - dy));
}

/** Moved right and down by whole pixels; what leaves is lost. */
export const shifted = (picture: string, dx: number, dy: number): string =>
  painted(sizeOf(picture), (x, y) => pixelAt(picture, x - dx, y - dy));
/** The pixel of the program that a lamp of a display shows which is mounted turned; none in the corners of a wide one. */
export function pixelShownAt(
  x: number,
  y: number,
  turnedDeg: Turned,
  size: Size
): { x: number; y: number } | undefined {
  const [cx, cy] = [(size.columns - 1) / 2, (size.rows - 1) / 2];
  const [cos, sin] = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] }[turnedDeg];
  const [dx, dy] = [x - cx, y - cy];
  // where one side is even and the other odd, the middles lie between pixels
  const at = { x: Math.floor(cx + cos * dx + sin * dy), y: Math.floor(cy - sin * dx + cos * dy) };
  return inside(at.x, at.y, size) ? at : undefined;
}
/** What the lamps of a display show, row by row, however it is mounted; and which pixel of the program each of them is. */
export function shownOn(display: Display, picture: string): { sign: string; pixel?: { x: number; y: number } }[] {
  const raster = rasterOf(display);
  const { columns, rows } = raster;
  const whole = picture && fitted(picture, raster);
  return Array.from({ length: columns * rows }, (_, i) => {
    const pixel = pixelShownAt(i % columns, Math.floor(i / columns), display.turnedDeg, raster);
    return pixel ? { sign: whole ? pixelAt(whole, pixel.x, pixel.y) : '.', pixel } : { sign: '.' };
  });
}
/** Whether a display that is mounted so has a lamp for this pixel of the program. */
export const isSeen = (x: number, y: number, turnedDeg: Turned, size: Size): boolean =>
  pixelShownAt(x, y, ((360 - turnedDeg) % 360) as Turned, size) !== undefined;
/** The upper one hides the lower one where it is lit; as large as the larger of the two. */
export function overlay(top: string, under: string): string {
  const [a, b] = [sizeOf(top), sizeOf(under)];
  return painted({ columns: Math.max(a.columns, b.columns), rows: Math.max(a.rows, b.rows) }, (x, y) =>
    pixelAt(top, x, y) === '.' ? pixelAt(under, x, y) : pixelAt(top, x, y)
  );
}
