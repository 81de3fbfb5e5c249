/** Displays as data: a matrix of lamps, a strip of them, a colour screen. Pictures of a program have their columns and rows. */
import * as z from 'zod';
import { place } from './parts/part.ts';

const count = (most: number) => z.number().int().min(1).max(most);
/** how many columns or rows a picture can have */
export const LARGEST = 64;
const mounted = {
  /** its middle on the chassis; 0: the top of a picture points ahead */
  at: place,
  /** clockwise about its middle; what falls beside it is not seen */
  turnedDeg: z.literal([0, 90, 180, 270])
};
export const displaySchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('matrix'),
    columns: count(LARGEST),
    rows: count(LARGEST),
    /** how many are told apart, dark and full among them */
    levels: z.literal([2, 3, 5]),
    ...mounted
  }),
  /** lamps in one row, each in any colour of the palette */
  z.strictObject({ type: z.literal('strip'), lamps: count(LARGEST), ...mounted }),
  /** drawn on by a grid of columns and rows */
  z.strictObject({
    type: z.literal('screen'),
    widthPx: count(1024),
    heightPx: count(1024),
    columns: count(LARGEST),
    rows: count(LARGEST),
    ...mounted
  })
]);
export type Display = z.infer<typeof displaySchema>;
export type DisplayType = Display['type'];
export type Turned = Display['turnedDeg'];

/** What a picture for a display is made of. */
export type Raster = { columns: number; rows: number; levels: 2 | 3 | 5; colours: boolean };
export const rasterOf = (d: Display): Raster =>
  d.type === 'strip'
    ? { columns: d.lamps, rows: 1, levels: 5, colours: true }
    : {
        columns: d.columns,
        rows: d.rows,
        levels: d.type === 'matrix' ? d.levels : 5,
        colours: d.type === 'screen'
      };
/** Columns and rows of a character of the font, and the column between two. */
export const LETTER = { columns: 3, rows: 5 };
/** How many characters stand side by side on it. */
export const fitting = ({ columns }: Raster): number => Math.max(1, Math.floor((columns + 1) / (LETTER.columns + 1)));
/** What blocks need of a display. */
export function displayAbilities(display: Display | undefined): string[] {
  if (!display) return [];
  const { columns, rows, levels, colours } = rasterOf(display);
  return [
    'display',
    ...(columns >= LETTER.columns && rows >= LETTER.rows ? ['letters'] : []),
    ...(levels > 2 ? ['levels'] : []),
    ...(colours ? ['colours'] : [])
  ];
}
/** The display of another type in the same place. */
export const displayOf = (type: DisplayType, { at, turnedDeg }: Pick<Display, 'at' | 'turnedDeg'>): Display =>
  type === 'matrix'
    ? { type, columns: 7, rows: 5, levels: 5, at, turnedDeg }
    : type === 'strip'
      ? { type, lamps: 11, at, turnedDeg }
      : { type, widthPx: 192, heightPx: 192, columns: 12, rows: 12, at, turnedDeg };
