import { describe, expect, it } from 'vitest';
import { displayOf, rasterOf, type Display } from '../kit/display.ts';
import { PICTURES } from './blocks/pictures.ts';
import { passing, written } from './letters.ts';
import { inverted, mirrored, rolled, shownAs } from './painting.ts';
import * as px from './pixels.ts';

const seat = { at: { xMm: 0, yMm: 0, deg: 0 }, turnedDeg: 0 } as const;
const matrix = displayOf('matrix', seat);
const seven = rasterOf(matrix);
const screen = rasterOf(displayOf('screen', seat));
const strip = rasterOf(displayOf('strip', seat));
const DARK = px.darkOf(seven);

const corner = '#...... ....... ....... ....... ......+';
describe('pictures', () => {
  it('are shifted, rolled, mirrored, inverted and laid over one another', () => {
    expect(px.shifted(corner, 1, 1)).toBe('....... .#..... ....... ....... .......');
    expect(px.shifted(corner, -1, 0)).toBe('....... ....... ....... ....... .....+.');
    expect(rolled(corner, -1, 0)).toBe('......# ....... ....... ....... .....+.');
    expect(rolled(rolled(corner, 3, 2), -3, -2)).toBe(corner);
    expect(mirrored(corner, 'sideways')).toBe('......# ....... ....... ....... +......');
    expect(mirrored(mirrored(corner, 'upside down'), 'upside down')).toBe(corner);
    expect(inverted(DARK)).toBe('####### ####### ####### ####### #######');
    expect(inverted(inverted(corner))).toBe(corner);
    expect(px.overlay('-...... ....... ....... ....... .......', corner)).toBe(corner.replace('#', '-'));
  });
  it('have five levels, of which a display shows the nearest that it has', () => {
    expect([0, 12, 13, 50, 87, 88, 100].map((n) => px.signOf(n))).toEqual(['.', '.', '-', '+', '*', '#', '#']);
    expect([24, 25, 74, 75].map((n) => px.signOf(n, 3))).toEqual(['.', '+', '+', '#']);
    expect([49, 50].map((n) => px.signOf(n, 2))).toEqual(['.', '#']);
    expect(['.', '-', '+', '*', '#', 'r', undefined, 'x'].map((c) => px.levelOf(c))).toEqual([
      0, 25, 50, 75, 100, 100, 0, 0
    ]);
    expect(px.pixelAt(corner, 6, 4)).toBe('+');
    expect(px.pixelAt(px.withPixel(corner, 6, 4, '#'), 6, 4)).toBe('#');
  });
  it('show two characters side by side, one in the middle, letters with marks as their plain letter', () => {
    expect(written('7', seven).picture).toBe('..###.. ....#.. ....#.. ...#... ...#...');
    expect(written('10', seven).picture).toBe('.#..### ##..#.# .#..#.# .#..#.# ###.###');
    expect(written('é', seven).picture).toBe(written('E', seven).picture);
    expect(written('🌱', seven).picture).toBe(written('木', seven).picture);
    expect(written('', seven).picture).toBe(DARK);
  });
  it('pass from right to left, a column at a time, until the matrix is dark', () => {
    const all = passing('HI', seven);
    expect(all).toHaveLength(2 * 4 + 7);
    expect(all.at(-1)!.picture).toBe(DARK);
    // once all of the first letter is in, it stands at the right edge
    expect(all[2].picture).toBe('....#.# ....#.# ....### ....#.# ....#.#');
  });
  it('are shown turned about the middle pixel by a display that is mounted so', () => {
    const two = px.withPixel(px.withPixel(DARK, 0, 0, '#'), 3, 1, '#');
    expect(shownAs(two, 0)).toBe(two);
    expect(shownAs(two, 180)).toBe(px.withPixel(px.withPixel(DARK, 6, 4, '#'), 3, 3, '#'));
    // a quarter turn clockwise: what was above the middle is right of it; the far corner falls beside
    expect(shownAs(two, 90)).toBe(px.withPixel(DARK, 4, 2, '#'));
    expect(shownAs(two, 270)).toBe(px.withPixel(DARK, 2, 2, '#'));
  });
  it('tells which pixel of the program a lamp shows, however the display is mounted', () => {
    for (const deg of [0, 90, 180, 270] as const)
      for (let x = 0; x < 7; x++)
        for (let y = 0; y < 5; y++) {
          const rows = Array.from({ length: 5 }, (_, r) =>
            r === y ? '.'.repeat(x) + '#' + '.'.repeat(6 - x) : '.......'
          );
          const shown = shownAs(rows.join(' '), deg).split(' ');
          shown.forEach((row, r) =>
            [...row].forEach((c, k) => {
              const at = px.pixelShownAt(k, r, deg, seven);
              expect(c === '#', `${deg} ${k} ${r}`).toBe(at?.x === x && at.y === y);
            })
          );
        }
    for (const deg of [0, 90, 180, 270] as const)
      for (let x = 0; x < 7; x++)
        for (let y = 0; y < 5; y++)
          expect(px.isSeen(x, y, deg, seven), `${x} ${y} ${deg}`).toBe(
            shownAs(px.withPixel(DARK, x, y, '#'), deg).includes('#')
          );
    expect([px.isSeen(6, 4, 180, seven), px.isSeen(0, 2, 90, seven), px.isSeen(1, 0, 270, seven)]).toEqual([
      true,
      false,
      true
    ]);
    expect(px.pixelShownAt(0, 0, 180, seven)).toEqual({ x: 6, y: 4 });
    expect(px.pixelShownAt(0, 0, 90, seven)).toBeUndefined();
  });
  it('have the size that their text has, and as text are rows of equal length with known signs alone', () => {
    expect([corner, 'r', '....', '# . -'].map(px.sizeOf)).toEqual([
      { columns: 7, rows: 5 },
      { columns: 1, rows: 1 },
      { columns: 4, rows: 1 },
      { columns: 1, rows: 3 }
    ]);
    const good = ['.', 'argbvw', '.-+*# #*+-.', '.'.repeat(64), Array(64).fill('#').join(' ')];
    const bad = ['', ' ', '.. .', '.  .', '.. ..\n', '3', 'x', 'R', '.'.repeat(65), Array(65).fill('#').join(' ')];
    expect(good.map(px.isPictureText)).toEqual(good.map(() => true));
    expect(bad.map(px.isPictureText)).toEqual(bad.map(() => false));
  });
  it('have colours on a display that has them, and are lit in full where it has none', () => {
    expect(px.COLOURS.map((c) => px.colourOf(px.letterOf(c)))).toEqual([...px.COLOURS]);
    expect(new Set(px.COLOURS.map(px.letterOf)).size).toBe(px.COLOURS.length);
    expect([px.colourOf('#'), px.colourOf('-'), px.colourOf(undefined)]).toEqual(['white', 'white', 'white']);
    expect(px.fitted('rg. -', seven).split(' ')).toEqual(['##.....', '-......', '.......', '.......', '.......']);
    expect(px.fitted('rg.', strip)).toBe('rg.........');
    expect(px.fitted('#*+-.', { columns: 5, rows: 1, levels: 2, colours: false })).toBe('###..');
  });
  it('are cut by a display from their upper left corner, and made as large as one in the middle, or thinned out', () => {
    expect(px.fitted(px.resized(corner, screen), seven)).not.toBe(corner);
    const large = px.resized(PICTURES.bell, screen).split(' ');
    expect([large.length, large[0].length]).toEqual([12, 12]);
    expect(
      large
        .slice(3, 8)
        .map((row) => row.slice(2, 9))
        .join(' ')
    ).toBe(PICTURES.bell);
    expect([...large.slice(0, 3), ...large.slice(8)].join('')).not.toContain('#');
    expect(px.resized('#..#..#..#..', { columns: 4, rows: 1, levels: 5, colours: false })).toBe('....');
    expect(px.resized('.#..#..#..#.', { columns: 4, rows: 1, levels: 5, colours: false })).toBe('####');
    for (const picture of Object.values(PICTURES)) {
      expect(px.resized(picture, seven)).toBe(picture);
      expect(px.isPictureText(px.resized(picture, strip))).toBe(true);
    }
  });
  it('write as many characters as a display has room for', () => {
    // 12 columns: three characters of 3 with a column between them, in the middle of 12 rows
    const rows = written('ABCD', screen).picture.split(' ');
    expect(rows[3]).toBe('.#..##...##.');
    expect(rows.map((r) => r.includes('#'))).toEqual([
      ...Array(3).fill(false),
      ...Array(5).fill(true),
      ...Array(4).fill(false)
    ]);
    expect(passing('AB', screen)).toHaveLength(8 + 12);
    expect(passing('AB', screen).at(-1)!.picture).toBe(px.darkOf(screen));
  });
  it('are shown by every display, however it is mounted, lamp by lamp', () => {
    const turned = (display: Display, deg: 0 | 90 | 180 | 270): string =>
      px
        .shownOn({ ...display, turnedDeg: deg }, corner)
        .map((dot) => dot.sign)
        .join('');
    expect(turned(matrix, 0)).toBe(corner.replaceAll(' ', ''));
    expect(turned(matrix, 180)).toBe([...corner.replaceAll(' ', '')].reverse().join(''));
    expect(turned(matrix, 90)).not.toMatch(/[#+]/);
    // a square one loses nothing
    expect(turned(displayOf('screen', seat), 90).match(/[#+]/g)).toHaveLength(2);
    // before anything is put up, and where there is no pixel, it is dark
    expect(px.shownOn(matrix, '').every((dot) => dot.sign === '.')).toBe(true);
    expect(px.shownOn({ ...matrix, turnedDeg: 90 }, corner)[0].pixel).toBeUndefined();
  });
});
