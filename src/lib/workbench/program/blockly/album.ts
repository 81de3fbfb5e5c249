/** What the painter and the fields of pixels share with the page. */
import { displayOf, rasterOf, type Display, type Raster } from '../../../../../core/kit/display.ts';
import { isSeen } from '../../../../../core/language/pixels.ts';
import { say } from '../../../../../core/words.ts';

/** What pictures are painted for where a kit has no display. */
export const USUAL = displayOf('matrix', { at: { xMm: 0, yMm: 0, deg: 0 }, turnedDeg: 0 });
/** Pictures of the project, by name; the pixel under the pointer, here and on the face; the display. */
export const album: {
  named: () => Record<string, string>;
  name: (name: string, picture: string) => void;
  point: (at: Pixel | undefined) => void;
  /** whoever shows pixels now is told which one is pointed at on the face */
  onFace?: (at: Pixel | undefined) => void;
  display: () => Display;
} = { named: () => ({}), name: () => {}, point: () => {}, display: () => USUAL };
export const raster = (): Raster => rasterOf(album.display());

export type Pixel = { x: number; y: number };
/** Marks the cell of the pixel that is pointed at on the face, while the cells are shown. @returns to end it */
export function followFace(cells: readonly HTMLElement[], where: HTMLElement): () => void {
  album.onFace = (at) => {
    cells.forEach((cell, i) => cell.classList.toggle('faced', !!at && i === at.y * raster().columns + at.x));
    if (at) where.textContent = `x ${at.x}, y ${at.y}`;
  };
  return () => {
    album.onFace = undefined;
    album.point(undefined);
  };
}
/** Where a pixel is, and whether the display as it is mounted shows it at all. */
export function placeOf(x: number, y: number): string {
  const size = raster();
  const deg = album.display().turnedDeg;
  if (x < 0 || x >= size.columns || y < 0 || y >= size.rows) return `x ${x}, y ${y}${say(': beyond the display')}`;
  const unseen = isSeen(x, y, deg, size) ? '' : say(': not seen, the display is mounted turned by {deg}°', { deg });
  return `x ${x}, y ${y}${unseen}`;
}
/** How large the cells of a grid of the display are drawn, and how far apart, pixels. */
export function cellSize(large: number): { cell: number; gap: number } {
  const { columns } = raster();
  const cell = Math.max(7, Math.min(large, Math.floor(320 / columns) - 3));
  return { cell, gap: cell >= 16 ? 4 : cell >= 10 ? 2 : 1 };
}
