/** What stands under a number while it is typed: a slider over its range, a dial for an angle, keys for a pitch. */
import { isSeen } from '../../../../../core/language/pixels.ts';
import { hertzOf, noteOf } from '../../../../../core/language/notes.ts';
import { album, cellSize, followFace, placeOf, raster, type Pixel } from './album.ts';
import { say } from '../../../../../core/words.ts';

type Instrument = { element: HTMLElement; follow: (n: number) => void };
type Range = { min?: number; max?: number; whole?: boolean; unit?: string; default: number };

/** Where a slider goes: the range of the slot, or as far as is of use around its usual number. */
export function sliderRange({ min, max, default: usual }: Range): [low: number, high: number, step: number] {
  const wide = max === undefined || max > 1000;
  const low = min === undefined ? -Math.max(10, Math.abs(usual) * 4) : min;
  const high = wide ? Math.max(10, Math.abs(usual) * 4) : max;
  const span = high - low;
  return [low, high, span <= 20 ? 0.1 : 1];
}
export function numberSlider(now: number, put: (n: number) => void, range: Range): Instrument {
  const [low, high, step] = sliderRange(range);
  const element = document.createElement('label');
  element.className = 'mb-slider';
  const input = document.createElement('input');
  input.type = 'range';
  Object.assign(input, { min: String(low), max: String(high), step: String(range.whole ? 1 : step) });
  input.value = String(now);
  input.setAttribute(
    'aria-label',
    say('Slider from {low} to {high}{x}', { low, high, x: range.unit ? ` ${range.unit}` : '' })
  );
  const [from, to] = [low, high].map((n) => Object.assign(document.createElement('small'), { textContent: String(n) }));
  input.oninput = () => put(Number(input.value));
  element.append(from, input, to);
  return { element, follow: (n) => (input.value = String(n)) };
}

const SVG = 'http://www.w3.org/2000/svg';
const make = (name: string, attributes: Record<string, string | number>, parent: Element): SVGElement => {
  const e = document.createElementNS(SVG, name);
  for (const [k, v] of Object.entries(attributes)) e.setAttribute(k, String(v));
  parent.append(e);
  return e;
};
/** 0 at the top, growing clockwise, as headings and turns do; steps of 5 degrees by hand. */
export function angleDial(now: number, put: (n: number) => void, range: Range): Instrument {
  const half = range.max === 180;
  const size = 148;
  const r = 52;
  const svg = document.createElementNS(SVG, 'svg') as SVGSVGElement;
  svg.setAttribute('viewBox', `${-size / 2} ${-size / 2} ${size} ${size}`);
  svg.setAttribute('width', String(size));
  svg.setAttribute('height', String(size));
  svg.setAttribute('class', 'mb-dial');
  svg.setAttribute('role', 'img');
  svg.setAttribute('aria-label', say('Dial: drag round to choose the angle'));
  make('circle', { r, class: 'rim' }, svg);
  for (let a = 0; a < 360; a += 15) {
    if (half && a > 180) continue;
    const t = ((a - 90) * Math.PI) / 180;
    const inner = a % 90 === 0 ? r - 10 : a % 45 === 0 ? r - 7 : r - 4;
    make(
      'line',
      { x1: Math.cos(t) * inner, y1: Math.sin(t) * inner, x2: Math.cos(t) * r, y2: Math.sin(t) * r, class: 'tick' },
      svg
    );
    if (a % 90 === 0) {
      const label = make(
        'text',
        { x: Math.cos(t) * (r + 8), y: Math.sin(t) * (r + 8) + 3.5, 'text-anchor': 'middle' },
        svg
      );
      label.textContent = String(a);
    }
  }
  const sweep = make('path', { class: 'sweep' }, svg);
  const hand = make('line', { x1: 0, y1: 0, class: 'hand' }, svg);
  const knob = make('circle', { r: 5, class: 'knob' }, svg);
  const follow = (n: number): void => {
    const t = ((n - 90) * Math.PI) / 180;
    const [x, y] = [Math.cos(t) * (r - 6), Math.sin(t) * (r - 6)];
    hand.setAttribute('x2', String(x));
    hand.setAttribute('y2', String(y));
    knob.setAttribute('cx', String(x));
    knob.setAttribute('cy', String(y));
    const turn = Math.max(-359.9, Math.min(359.9, n));
    const end = ((turn - 90) * Math.PI) / 180;
    const s = 22;
    sweep.setAttribute(
      'd',
      `M0,0 L0,${-s} A${s},${s} 0 ${Math.abs(turn) > 180 ? 1 : 0},${turn < 0 ? 0 : 1} ${Math.cos(end) * s},${Math.sin(end) * s} Z`
    );
  };
  const drag = (e: PointerEvent): void => {
    const box = svg.getBoundingClientRect();
    const a = (Math.atan2(e.clientX - box.x - box.width / 2, -(e.clientY - box.y - box.height / 2)) * 180) / Math.PI;
    let n = Math.round((((a % 360) + 360) % 360) / 5) * 5;
    if (half && n > 180) n = n > 270 ? 0 : 180;
    follow(n);
    put(n % 360);
  };
  svg.onpointerdown = (e) => {
    e.preventDefault();
    svg.setPointerCapture(e.pointerId);
    drag(e);
  };
  svg.onpointermove = (e) => {
    if (e.buttons & 1) drag(e);
  };
  follow(now);
  const element = document.createElement('div');
  element.append(svg);
  return { element, follow };
}

const WHITE = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
/** Three octaves of keys with the note's name and its pitch. */
export function noteKeys(now: number, put: (n: number) => void): Instrument {
  const element = document.createElement('div');
  element.className = 'mb-keys';
  const says = document.createElement('output');
  const keys = document.createElement('div');
  const buttons: HTMLButtonElement[] = [];
  for (let octave = 3; octave <= 5; octave++)
    for (const letter of WHITE)
      for (const sign of ['', '#']) {
        if (sign && (letter === 'E' || letter === 'B')) continue;
        const name = `${letter}${sign}${octave}`;
        const key = document.createElement('button');
        key.type = 'button';
        key.className = sign ? 'black' : 'white';
        key.title = `${name}, ${hertzOf(name)} Hz`;
        key.setAttribute('aria-label', key.title);
        key.dataset.note = name;
        // the field keeps the focus
        key.onpointerdown = (e) => e.preventDefault();
        key.onclick = () => {
          put(hertzOf(name)!);
          follow(hertzOf(name)!);
        };
        if (!sign && letter === 'C') key.textContent = name;
        keys.append(key);
        buttons.push(key);
      }
  const follow = (n: number): void => {
    if (!(n >= 16)) return;
    const { name, cents } = noteOf(n);
    for (const key of buttons) key.setAttribute('aria-pressed', String(key.dataset.note === name && cents === 0));
    says.textContent = `${name}${cents ? ` ${cents > 0 ? '+' : '−'}${Math.abs(cents)} cents` : ''} · ${Math.round(n * 100) / 100} Hz`;
  };
  element.append(keys, says);
  follow(now);
  return { element, follow };
}

/** The display as a small grid: a click takes the place of a pixel, which is lit on the face while it is pointed at. */
export function pixelGrid(now: Pixel, put: (at: Pixel) => void, axis: 'x' | 'y'): Instrument & { close: () => void } {
  const element = document.createElement('div');
  element.className = 'mb-pixels';
  const grid = document.createElement('div');
  grid.className = 'grid';
  const where = document.createElement('output');
  const cells: HTMLButtonElement[] = [];
  const { columns, rows } = raster();
  const { cell: size, gap } = cellSize(20);
  grid.style.cssText = `--cell: ${size}px; --columns: ${columns}; gap: ${gap}px`;
  const at = { ...now };
  const show = (): void => {
    cells.forEach((cell, i) =>
      cell.setAttribute('aria-pressed', String(i === at.y * columns + at.x && at.x < columns))
    );
    where.textContent = placeOf(at.x, at.y);
    album.point({ ...at });
  };
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      const cell = document.createElement('button');
      cell.type = 'button';
      cell.tabIndex = -1;
      cell.classList.toggle('unseen', !isSeen(x, y, album.display().turnedDeg, { columns, rows }));
      cell.setAttribute('aria-label', `x ${x}, y ${y}`);
      // the field keeps the focus
      cell.onpointerdown = (e) => e.preventDefault();
      cell.onpointerenter = () => {
        where.textContent = placeOf(x, y);
        album.point({ x, y });
      };
      cell.onclick = () => put({ x, y });
      cells.push(cell);
    }
  grid.append(...cells);
  grid.onpointerleave = show;
  element.append(grid, where);
  show();
  const follow = (n: number): void => {
    at[axis] = Math.round(n);
    show();
  };
  return { element, follow, close: followFace(cells, where) };
}
