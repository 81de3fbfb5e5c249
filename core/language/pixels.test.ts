import { describe, expect, it } from 'vitest';
import * as px from './pixels.ts';

const corner = '#...... ....... ....... ....... ......5';
describe('pictures', () => {
  it('are shifted, rolled, mirrored, inverted and laid over one another', () => {
    expect(px.shifted(corner, 1, 1)).toBe('....... .#..... ....... ....... .......');
    expect(px.shifted(corner, -1, 0)).toBe('....... ....... ....... ....... .....5.');
    expect(px.rolled(corner, -1, 0)).toBe('......# ....... ....... ....... .....5.');
    expect(px.rolled(px.rolled(corner, 3, 2), -3, -2)).toBe(corner);
    expect(px.mirrored(corner, 'sideways')).toBe('......# ....... ....... ....... 5......');
    expect(px.mirrored(px.mirrored(corner, 'upside down'), 'upside down')).toBe(corner);
    expect(px.inverted(px.DARK)).toBe('####### ####### ####### ####### #######');
    expect(px.inverted(px.inverted(corner))).toBe(corner);
    expect(px.overlay('3...... ....... ....... ....... .......', corner)).toBe(corner.replace('#', '3'));
  });
  it('have levels in tens', () => {
    expect([0, 4, 5, 50, 94, 95, 100].map(px.charOf)).toEqual(['.', '.', '1', '5', '9', '#', '#']);
    expect(['.', '1', '9', '#', undefined, 'x'].map((c) => px.levelOf(c))).toEqual([0, 10, 90, 100, 0, 0]);
    expect(px.pixelAt(corner, 6, 4)).toBe('5');
    expect(px.pixelAt(px.withPixel(corner, 6, 4, '#'), 6, 4)).toBe('#');
  });
  it('show two characters side by side, one in the middle, letters with marks as their plain letter', () => {
    expect(px.written('7').picture).toBe('..###.. ....#.. ....#.. ...#... ...#...');
    expect(px.written('10').picture).toBe('.#..### ##..#.# .#..#.# .#..#.# ###.###');
    expect(px.written('é').picture).toBe(px.written('E').picture);
    expect(px.written('🌱').picture).toBe(px.written('木').picture);
    expect(px.written('').picture).toBe(px.DARK);
  });
  it('pass from right to left, a column at a time, until the matrix is dark', () => {
    const all = px.passing('HI');
    expect(all).toHaveLength(2 * 4 + px.WIDTH);
    expect(all.at(-1)!.picture).toBe(px.DARK);
    // once all of the first letter is in, it stands at the right edge
    expect(all[2].picture).toBe('....#.# ....#.# ....### ....#.# ....#.#');
  });
  it('are shown turned about the middle pixel by a display that is mounted so', () => {
    const two = px.withPixel(px.withPixel(px.DARK, 0, 0, '#'), 3, 1, '#');
    expect(px.shownAs(two, 0)).toBe(two);
    expect(px.shownAs(two, 180)).toBe(px.withPixel(px.withPixel(px.DARK, 6, 4, '#'), 3, 3, '#'));
    // a quarter turn clockwise: what was above the middle is right of it; the far corner falls beside
    expect(px.shownAs(two, 90)).toBe(px.withPixel(px.DARK, 4, 2, '#'));
    expect(px.shownAs(two, 270)).toBe(px.withPixel(px.DARK, 2, 2, '#'));
  });
  it('tells which pixel of the program a lamp shows, however the display is mounted', () => {
    for (const deg of [0, 90, 180, 270] as const)
      for (let x = 0; x < 7; x++)
        for (let y = 0; y < 5; y++) {
          const rows = Array.from({ length: 5 }, (_, r) =>
            r === y ? '.'.repeat(x) + '#' + '.'.repeat(6 - x) : '.......'
          );
          const shown = px.shownAs(rows.join(' '), deg).split(' ');
          shown.forEach((row, r) =>
            [...row].forEach((c, k) => {
              const at = px.pixelShownAt(k, r, deg);
              expect(c === '#', `${deg} ${k} ${r}`).toBe(at?.x === x && at.y === y);
            })
          );
        }
    for (const deg of [0, 90, 180, 270] as const)
      for (let x = 0; x < 7; x++)
        for (let y = 0; y < 5; y++)
          expect(px.isSeen(x, y, deg), `${x} ${y} ${deg}`).toBe(
            px.shownAs(px.withPixel(px.DARK, x, y, '#'), deg).includes('#')
          );
    expect([px.isSeen(6, 4, 180), px.isSeen(0, 2, 90), px.isSeen(1, 0, 270)]).toEqual([true, false, true]);
    expect(px.pixelShownAt(0, 0, 180)).toEqual({ x: 6, y: 4 });
    expect(px.pixelShownAt(0, 0, 90)).toBeUndefined();
  });
});
