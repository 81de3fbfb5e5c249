/** Painting a picture: a grid like the display with x and y along its edges, levels or colours, tools, pictures to take. */
import { PICTURES } from '../../../../../core/language/blocks/pictures.ts';
import {
  darkOf,
  fitted,
  isSeen,
  colourOf,
  COLOURS,
  letterOf,
  levelOf,
  pixelAt,
  resized,
  signOf,
  sizeOf,
  withPixel
} from '../../../../../core/language/pixels.ts';
import { inverted, mirrored, rolled, shownAs } from '../../../../../core/language/painting.ts';
import { say, word } from '../../../../../core/words.ts';
import { GLOW, pixelColour } from '../../../ui/lamp-colours.ts';
import { album, cellSize, followFace, placeOf, raster as displayRaster } from './album.ts';

export function painter(
  start: string,
  put: (picture: string) => void
): { element: HTMLElement; focus: () => void; close: () => void } {
  const raster = displayRaster();
  const { columns, rows, levels, colours } = raster;
  const dark = darkOf(raster);
  let picture = start ? fitted(start, raster) : dark;
  /** what the brush paints */
  let paint = colours ? letterOf('green') : '#';
  let brush: string | undefined;
  const element = document.createElement('div');
  element.className = 'mb-painter';
  const grid = document.createElement('div');
  grid.className = 'grid';
  const where = document.createElement('output');
  where.textContent = say('x counts to the right, y down, both from 0');
  /** how it will be seen, where the display is not mounted upright */
  const turned = album.display().turnedDeg;
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
      const sign = pixelAt(picture, i % columns, Math.floor(i / columns));
      const now = levelOf(sign);
      const [x, y] = [i % columns, Math.floor(i / columns)];
      cell.setAttribute('aria-pressed', String(now > 0));
      cell.style.background = pixelColour(sign, colours);
      const what = now > 0 && now < 100 ? `, ${now} %` : now && colours ? `, ${word(colourOf(sign))}` : '';
      cell.setAttribute('aria-label', `x ${x}, y ${y}${what}`);
    });
  };
  const label = (text: string): HTMLElement => {
    const e = document.createElement('small');
    e.textContent = text;
    e.ariaHidden = 'true';
    return e;
  };
  grid.append(label(''));
  const { cell: size, gap } = cellSize(24);
  grid.style.cssText = `--cell: ${size}px; --columns: ${columns}; gap: ${gap}px`;
  element.style.width = `${Math.max(250, columns * (size + gap) + 50)}px`;
  /** every one, or every fourth where they are small */
  const counted = (n: number): string => (size >= 16 || n % 4 === 0 ? String(n) : '');
  for (let x = 0; x < columns; x++) grid.append(label(counted(x)));
  for (let y = 0; y < rows; y++) {
    grid.append(label(counted(y)));
    for (let x = 0; x < columns; x++) {
      const cell = document.createElement('button');
      cell.type = 'button';
      cell.classList.toggle('unseen', !isSeen(x, y, turned, raster));
      const stroke = (): void => change(withPixel(picture, x, y, brush!));
      const choose = (): void => {
        brush = pixelAt(picture, x, y) === paint ? '.' : paint;
      };
      const point = (): void => {
        where.textContent = placeOf(x, y);
        album.point({ x, y });
      };
      cell.onpointerdown = (e) => {
        cell.releasePointerCapture(e.pointerId);
        choose();
        stroke();
      };
      cell.onpointerenter = (e) => {
        point();
        if (e.buttons && brush) stroke();
      };
      cell.onfocus = point;
      cell.onkeydown = (e) => {
        if (e.key === ' ' || e.key === 'Enter') {
          e.preventDefault();
          choose();
          stroke();
        }
        const i = y * columns + x;
        const to = { ArrowRight: i + 1, ArrowLeft: i - 1, ArrowDown: i + columns, ArrowUp: i - columns }[e.key];
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
  tool(say('Clear'), say('Clear: all dark'), () => change(dark));
  const brushes = document.createElement(colours ? 'div' : 'label');
  brushes.className = 'bright';
  brushes.append(say('Brush'));
  if (colours) {
    const swatches = COLOURS.map((colour) => {
      const e = document.createElement('button');
      e.type = 'button';
      e.className = 'swatch';
      e.title = word(colour);
      e.setAttribute('aria-label', say('Brush: {colour}', { colour: word(colour) }));
      e.style.background = GLOW[colour];
      e.onclick = () => {
        paint = letterOf(colour);
        swatches.forEach((s) => s.setAttribute('aria-pressed', String(s === e)));
      };
      e.setAttribute('aria-pressed', String(letterOf(colour) === paint));
      return e;
    });
    brushes.append(...swatches);
  } else {
    const range = document.createElement('input');
    const step = String(100 / (levels - 1));
    Object.assign(range, { type: 'range', min: step, max: '100', step, value: '100' });
    range.setAttribute('aria-label', say('Brightness of the brush'));
    const percent = document.createElement('span');
    percent.textContent = '100 %';
    range.oninput = () => {
      paint = signOf(Number(range.value), levels);
      percent.textContent = `${range.value} %`;
    };
    brushes.append(range, percent);
  }
  const shelf = document.createElement('div');
  shelf.className = 'shelf';
  const fill = (): void => {
    shelf.replaceChildren(
      ...Object.entries({ ...album.named(), ...(columns >= 7 && rows >= 5 ? PICTURES : {}) }).map(([name, own]) => {
        const pixels = resized(own, raster);
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
  element.append(
    grid,
    where,
    ...(turned ? [mounted] : []),
    tools,
    ...(colours || levels > 2 ? [brushes] : []),
    shelf,
    naming
  );
  fill();
  draw();
  return { element, focus: () => cells[0].focus(), close: followFace(cells, where) };
}
/** A picture as a small drawing. */
export function thumb(picture: string): string {
  const { columns, rows } = sizeOf(picture);
  const { colours } = displayRaster();
  let out = '';
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++)
      out += `<rect x="${x * 4}" y="${y * 4}" width="3" height="3" rx=".6" fill="${pixelColour(pixelAt(picture, x, y), colours)}"/>`;
  const [w, h] = [columns * 4 + 3, rows * 4 + 3];
  return `<svg viewBox="-2 -2 ${w} ${h}" width="34" height="${Math.max(8, Math.min(34, (34 * h) / w))}" aria-hidden="true"><rect x="-2" y="-2" width="${w}" height="${h}" rx="3" fill="#26352c"/>${out}</svg>`;
}
