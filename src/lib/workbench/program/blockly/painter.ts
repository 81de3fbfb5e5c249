/** Painting a picture: a grid of 7 x 5 with x and y along its edges, levels, tools, our own pictures and the project's. */
import { PICTURES } from '../../../../../core/language/blocks/pictures.ts';
import {
  charOf,
  DARK,
  HEIGHT,
  inverted,
  isSeen,
  levelOf,
  mirrored,
  pixelAt,
  rolled,
  shownAs,
  WIDTH,
  withPixel
} from '../../../../../core/language/pixels.ts';
import { say } from '../../../../../core/words.ts';
import { album, followFace, placeOf } from './album.ts';

export function painter(
  start: string,
  put: (picture: string) => void
): { element: HTMLElement; focus: () => void; close: () => void } {
  let picture = start || DARK;
  let level = 100;
  let brush: string | undefined;
  const element = document.createElement('div');
  element.className = 'mb-painter';
  const grid = document.createElement('div');
  grid.className = 'grid';
  const where = document.createElement('output');
  where.textContent = say('x counts to the right, y down, both from 0');
  /** how it will be seen, where the display is not mounted upright */
  const turned = album.turned();
  const mounted = document.createElement('small');
  mounted.className = 'mounted';
  const cells: HTMLButtonElement[] = [];
  const change = (next: string): void => {
    picture = next;
    draw();
    put(next);
  };
  const draw = (): void => {
    mounted.innerHTML = turned ? `${thumb(shownAs(picture, turned))} ${say('as it is mounted')}` : '';
    cells.forEach((cell, i) => {
      const now = levelOf(pixelAt(picture, i % WIDTH, Math.floor(i / WIDTH)));
      cell.setAttribute('aria-pressed', String(now > 0));
      cell.style.setProperty('--level', `${now}%`);
      cell.setAttribute(
        'aria-label',
        `x ${i % WIDTH}, y ${Math.floor(i / WIDTH)}${now > 0 && now < 100 ? `, ${now} %` : ''}`
      );
    });
  };
  const label = (text: string): HTMLElement => {
    const e = document.createElement('small');
    e.textContent = text;
    e.ariaHidden = 'true';
    return e;
  };
  grid.append(label(''));
  for (let x = 0; x < WIDTH; x++) grid.append(label(String(x)));
  for (let y = 0; y < HEIGHT; y++) {
    grid.append(label(String(y)));
    for (let x = 0; x < WIDTH; x++) {
      const cell = document.createElement('button');
      cell.type = 'button';
      cell.classList.toggle('unseen', !isSeen(x, y, turned));
      const paint = (): void => change(withPixel(picture, x, y, brush!));
      const choose = (): void => {
        const c = charOf(level);
        brush = pixelAt(picture, x, y) === c ? '.' : c;
      };
      const point = (): void => {
        where.textContent = placeOf(x, y);
        album.point({ x, y });
      };
      cell.onpointerdown = (e) => {
        cell.releasePointerCapture(e.pointerId);
        choose();
        paint();
      };
      cell.onpointerenter = (e) => {
        point();
        if (e.buttons && brush) paint();
      };
      cell.onfocus = point;
      cell.onkeydown = (e) => {
        if (e.key === ' ' || e.key === 'Enter') {
          e.preventDefault();
          choose();
          paint();
        }
        const i = y * WIDTH + x;
        const to = { ArrowRight: i + 1, ArrowLeft: i - 1, ArrowDown: i + WIDTH, ArrowUp: i - WIDTH }[e.key];
        if (to !== undefined) {
          e.preventDefault();
          e.stopPropagation();
          cells[to]?.focus();
        }
      };
      grid.append(cell);
      cells.push(cell);
    }
  }
  grid.onpointerleave = () => {
    brush = undefined;
    album.point(undefined);
  };
  const tools = document.createElement('div');
  tools.className = 'tools';
  const tool = (text: string, title: string, act: () => void): HTMLButtonElement => {
    const e = document.createElement('button');
    e.type = 'button';
    e.textContent = text;
    e.title = title;
    e.setAttribute('aria-label', title);
    e.onclick = act;
    tools.append(e);
    return e;
  };
  tool('←', say('Shift left'), () => change(rolled(picture, -1, 0)));
  tool('→', say('Shift right'), () => change(rolled(picture, 1, 0)));
  tool('↑', say('Shift up'), () => change(rolled(picture, 0, -1)));
  tool('↓', say('Shift down'), () => change(rolled(picture, 0, 1)));
  tool(say('Mirror'), say('Mirror sideways'), () => change(mirrored(picture, 'sideways')));
  tool(say('Flip'), say('Turn upside down'), () => change(mirrored(picture, 'upside down')));
  tool(say('Invert'), say('Invert: lit becomes dark'), () => change(inverted(picture)));
  tool(say('Clear'), say('Clear: all dark'), () => change(DARK));
  const bright = document.createElement('label');
  bright.className = 'bright';
  const range = document.createElement('input');
  Object.assign(range, { type: 'range', min: '10', max: '100', step: '10', value: '100' });
  range.setAttribute('aria-label', say('Brightness of the brush'));
  const percent = document.createElement('span');
  percent.textContent = '100 %';
  range.oninput = () => {
    level = Number(range.value);
    percent.textContent = `${level} %`;
  };
  bright.append(say('Brush'), range, percent);
  const shelf = document.createElement('div');
  shelf.className = 'shelf';
  const fill = (): void => {
    shelf.replaceChildren(
      ...Object.entries({ ...album.named(), ...PICTURES }).map(([name, pixels]) => {
        const e = document.createElement('button');
        e.type = 'button';
        e.title = say('Take: {name}', { name });
        e.setAttribute('aria-label', e.title);
        e.innerHTML = thumb(pixels);
        e.onclick = () => change(pixels);
        return e;
      })
    );
  };
  const naming = document.createElement('form');
  naming.className = 'bright';
  const name = document.createElement('input');
  name.className = 'field';
  name.placeholder = say('Name it, to use it again');
  name.setAttribute('aria-label', say('Name of this picture'));
  name.maxLength = 40;
  const keep = document.createElement('button');
  keep.textContent = say('Keep');
  naming.onsubmit = (e) => {
    e.preventDefault();
    if (!name.value.trim()) return;
    album.name(name.value.trim(), picture);
    name.value = '';
    fill();
  };
  naming.onkeydown = (e) => e.stopPropagation();
  naming.append(name, keep);
  element.append(grid, where, ...(turned ? [mounted] : []), tools, bright, shelf, naming);
  fill();
  draw();
  return { element, focus: () => cells[0].focus(), close: followFace(cells, where) };
}
/** A picture as a small drawing. */
export function thumb(picture: string): string {
  let out = '';
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const now = levelOf(pixelAt(picture, x, y));
      out += `<rect x="${x * 4}" y="${y * 4}" width="3" height="3" rx=".6" fill="#ffcf5a" fill-opacity="${now ? 0.2 + now * 0.008 : 0.12}"/>`;
    }
  return `<svg viewBox="-2 -2 31 23" width="34" height="25" aria-hidden="true"><rect x="-2" y="-2" width="31" height="23" rx="3" fill="#26352c"/>${out}</svg>`;
}
