/** What the painter and the fields of pixels share with the page. */
import { HEIGHT, isSeen, WIDTH } from '../../../../../core/language/pixels.ts';
import { say } from '../../../../../core/words.ts';

/** Pictures of the project, by name; the pixel under the pointer, here and on the face; how the display is mounted. */
export const album: {
  named: () => Record<string, string>;
  name: (name: string, picture: string) => void;
  point: (at: Pixel | undefined) => void;
  /** whoever shows pixels now is told which one is pointed at on the face */
  onFace?: (at: Pixel | undefined) => void;
  turned: () => 0 | 90 | 180 | 270;
} = { named: () => ({}), name: () => {}, point: () => {}, turned: () => 0 };

export type Pixel = { x: number; y: number };
/** Marks the cell of the pixel that is pointed at on the face, while the cells are shown. @returns to end it */
export function followFace(cells: readonly HTMLElement[], where: HTMLElement): () => void {
  album.onFace = (at) => {
    cells.forEach((cell, i) => cell.classList.toggle('faced', !!at && i === at.y * WIDTH + at.x));
    if (at) where.textContent = `x ${at.x}, y ${at.y}`;
  };
  return () => {
    album.onFace = undefined;
    album.point(undefined);
  };
}
/** Where a pixel is, and whether the display as it is mounted shows it at all. */
export const placeOf = (x: number, y: number): string =>
  `x ${x}, y ${y}` +
  (x < 0 || x >= WIDTH || y < 0 || y >= HEIGHT
    ? say(': beyond the display')
    : isSeen(x, y, album.turned())
      ? ''
      : say(': not seen, the display is mounted turned by {deg}°', { deg: album.turned() }));
