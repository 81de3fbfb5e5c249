/**
 * A mat as an SVG drawing in millimetres, and shapes of an SVG drawing as a mat. What a shape is, its id or its look says:
 * ids that begin with wall, area, line, thing, hoop, mark, lamp or start; otherwise a filled shape is an area, a stroke a line,
 * a text a mark. docs/formats/mat.md has the rules.
 */
import { svgPathProperties } from 'svg-path-properties';
import { say } from '../words.ts';
import { matSchema, type Mat } from './mat.ts';
import { lightness } from './matedit.ts';

const mm = (m: number): number => Math.round(m * 1e4) / 10;
const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

export function matToSvg(mat: Mat): string {
  const H = mat.height;
  const points = (list: readonly (readonly [number, number])[]): string =>
    list.map(([x, y]) => `${mm(x)},${mm(H - y)}`).join(' ');
  const attrs = (of: Record<string, string | number | undefined>): string =>
    Object.entries(of)
      .filter(([, v]) => v !== undefined)
      .map(([k, v]) => ` ${k}="${escape(String(v))}"`)
      .join('');
  const place = (o: { x: number; y: number }) => ({ cx: mm(o.x), cy: mm(H - o.y) });
  const lines = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(mat.width)}mm" height="${mm(H)}mm" viewBox="0 0 ${mm(mat.width)} ${mm(H)}"${attrs({ 'data-name': mat.name, 'data-reflectance': mat.reflectance, 'data-air': mat.airC, 'data-daylight': mat.daylight })}>`,
    `<title>${escape(mat.name)}</title>`,
    `<rect id="floor" width="${mm(mat.width)}" height="${mm(H)}" fill="${mat.colour}"/>`,
    ...mat.areas.map(
      (a, i) =>
        `<polygon${attrs({ id: `area-${i + 1}`, points: points(a.points), fill: a.colour, 'data-reflectance': a.reflectance, 'data-friction': a.friction, 'data-name': a.name })}/>`
    ),
    ...mat.lines.map(
      (l, i) =>
        `<${l.closed ? 'polygon' : 'polyline'}${attrs({ id: `line-${i + 1}`, points: points(l.points), fill: 'none', stroke: l.colour, 'stroke-width': mm(l.width), 'stroke-linejoin': 'round', 'data-reflectance': l.reflectance })}/>`
    ),
    ...(mat.damp ?? []).map(
      (p, i) =>
        `<circle${attrs({ id: `damp-${i + 1}`, ...place(p), r: mm(p.radius), fill: '#4d6b5c', 'fill-opacity': 0.3, 'data-moisture': p.moisture })}/>`
    ),
    ...(mat.warmth ?? []).map(
      (p, i) =>
        `<circle${attrs({ id: `warmth-${i + 1}`, ...place(p), r: mm(p.radius), fill: '#d2602f', 'fill-opacity': 0.25, 'data-celsius': p.celsius })}/>`
    ),
    ...(mat.lamps ?? []).map(
      (p, i) =>
        `<circle${attrs({ id: `lamp-${i + 1}`, ...place(p), r: 14, fill: '#ffd25e', 'data-height': mm(p.height), 'data-brightness': p.brightness })}/>`
    ),
    ...mat.hoops.map(
      (h, i) =>
        `<circle${attrs({ id: `hoop-${i + 1}`, ...place(h), r: mm(h.radius), fill: 'none', stroke: '#b5842a', 'stroke-width': 5, 'data-name': h.name })}/>`
    ),
    ...mat.marks.map(
      (m, i) =>
        `<text${attrs({ id: `mark-${i + 1}`, x: mm(m.x), y: mm(H - m.y), 'text-anchor': 'middle', 'font-size': 26 })}>${escape(m.text)}</text>`
    ),
    ...mat.walls.map(
      (w, i) =>
        `<rect${attrs({ id: `wall-${i + 1}`, x: mm(w.x - w.width / 2), y: mm(H - w.y - w.height / 2), width: mm(w.width), height: mm(w.height), fill: w.colour, transform: w.turnDeg ? `rotate(${-w.turnDeg} ${mm(w.x)} ${mm(H - w.y)})` : undefined })}/>`
    ),
    ...mat.things.map(
      (t, i) =>
        `<circle${attrs({ id: `thing-${i + 1}`, ...place(t), r: mm(t.radius), fill: t.colour, 'data-mass-g': Math.round(t.massKg * 1e4) / 10, 'data-name': t.name })}/>`
    ),
    `<path${attrs({ id: 'start', d: 'M0 -30L14 12L0 4L-14 12Z', fill: 'none', stroke: '#26352c', 'stroke-width': 4, transform: `translate(${mm(mat.start.x)} ${mm(H - mat.start.y)}) rotate(${mat.start.facingDeg})` })}/>`,
    '</svg>'
  ];
  return lines.join('\n') + '\n';
}

/** One shape of a drawing, its transform worked out: a b c d e f of the SVG matrix, into the drawing's user units. */
export type Shape = {
  tag: string;
  attrs: Record<string, string>;
  text: string;
  matrix: [number, number, number, number, number, number];
};
export type Drawing = {
  shapes: Shape[];
  box: [number, number, number, number];
  name: string;
  attrs: Record<string, string>;
};
export type FromSvg = { mat: Mat; ignored: string[] };

const num = (text: string | undefined, otherwise = 0): number => {
  const n = parseFloat(text ?? '');
  return Number.isFinite(n) ? n : otherwise;
};
const clamp = (v: number, low: number, high: number): number => (v < low ? low : v > high ? high : v);
const tidy = (v: number): number => Math.round(v * 1e4) / 1e4 || 0;
const NAMED: Record<string, string> = {
  black: '#000000',
  white: '#ffffff',
  red: '#ff0000',
  green: '#008000',
  blue: '#0000ff',
  gray: '#808080',
  grey: '#808080',
  yellow: '#ffff00',
  brown: '#a52a2a',
  orange: '#ffa500'
};
function colourOf(text: string | undefined): string | undefined {
  const t = (text ?? '').trim().toLowerCase();
  if (/^#[0-9a-f]{6}$/.test(t)) return t;
  if (/^#[0-9a-f]{3}$/.test(t)) return `#${[...t.slice(1)].map((c) => c + c).join('')}`;
  const rgb = /^rgb\(\s*(\d+)[ ,]+(\d+)[ ,]+(\d+)\s*\)$/.exec(t);
  if (rgb)
    return `#${rgb
      .slice(1)
      .map((v) => clamp(Number(v), 0, 255).toString(16).padStart(2, '0'))
      .join('')}`;
  return NAMED[t];
}

/**
 * @param metres how long one user unit of the drawing is
 * @returns the mat, and a sentence for each shape that could not become part of it
 */
export function svgToMat(drawing: Drawing, metres: number): FromSvg {
  const [bx, by, bw, bh] = drawing.box;
  const ignored: string[] = [];
  const width = tidy(bw * metres);
  const height = tidy(bh * metres);
  const mat: Mat = {
    name: drawing.name.trim().slice(0, 60) || say('A mat'),
    width,
    height,
    colour: '#ffffff',
    reflectance: 95,
    airC: num(drawing.attrs['data-air'], 20),
    start: { x: tidy(width / 2), y: tidy(height / 2), facingDeg: 0 },
    areas: [],
    lines: [],
    walls: [],
    things: [],
    hoops: [],
    marks: []
  };
  if (drawing.attrs['data-daylight'] !== undefined) mat.daylight = clamp(num(drawing.attrs['data-daylight']), 0, 100);
  for (const shape of drawing.shapes) {
    const { tag, attrs, matrix: m } = shape;
    const id = attrs.id ?? '';
    const said = /^(wall|area|line|thing|hoop|mark|lamp|start|floor|damp|warmth)/i.exec(id)?.[1].toLowerCase();
    const label = `<${tag}>${id ? ` "${id}"` : ''}`;
    const put = (x: number, y: number): [number, number] => [
      tidy((m[0] * x + m[2] * y + m[4] - bx) * metres),
      tidy(height - (m[1] * x + m[3] * y + m[5] - by) * metres)
    ];
    const scale = Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2])) * metres;
    const fill =
      attrs.fill === 'none'
        ? undefined
        : (colourOf(attrs.fill) ?? (attrs.fill || attrs.stroke ? undefined : '#000000'));
    const stroke = colourOf(attrs.stroke);
    const reflectance = (colour: string): number => clamp(num(attrs['data-reflectance'], lightness(colour)), 0, 100);
    const name = attrs['data-name'];
    const round = (): { x: number; y: number; radius: number } => {
      const [x, y] = put(num(attrs.cx), num(attrs.cy));
      return { x, y, radius: tidy(clamp(num(attrs.r, num(attrs.rx)) * scale, 0.005, 2)) };
    };
    if (tag === 'text') {
      const text = shape.text.trim().replace(/\s+/g, ' ').slice(0, 40);
      const [x, y] = put(num(attrs.x), num(attrs.y));
      if (text) mat.marks.push({ x, y, text });
      continue;
    }
    if (said === 'start') {
      const [x, y] = put(num(attrs.cx, num(attrs.x)), num(attrs.cy, num(attrs.y)));
      mat.start = { x, y, facingDeg: Math.round((Math.atan2(m[1], m[0]) * 1800) / Math.PI) / 10 || 0 };
      continue;
    }
    const circle = tag === 'circle' || tag === 'ellipse';
    if (circle && said === 'thing') {
      mat.things.push({
        ...round(),
        massKg: clamp(num(attrs['data-mass-g'], 150) / 1000, 0.005, 50),
        colour: fill ?? '#b8795a',
        ...(name ? { name } : {})
      });
      continue;
    }
    if (circle && said === 'hoop') {
      mat.hoops.push({ ...round(), name: name ?? id });
      continue;
    }
    if (circle && said === 'lamp') {
      const { x, y } = round();
      (mat.lamps ??= []).push({
        x,
        y,
        height: clamp(num(attrs['data-height'], 300) / 1000, 0.02, 3),
        brightness: clamp(num(attrs['data-brightness'], 60), 0, 100)
      });
      continue;
    }
    if (circle && said === 'damp') {
      (mat.damp ??= []).push({ ...round(), moisture: clamp(num(attrs['data-moisture'], 80), 0, 100) });
      continue;
    }
    if (circle && said === 'warmth') {
      (mat.warmth ??= []).push({ ...round(), celsius: clamp(num(attrs['data-celsius'], 20), -20, 80) });
      continue;
    }
    if (tag === 'rect' && (said === 'wall' || said === 'floor')) {
      const [w, h] = [num(attrs.width), num(attrs.height)];
      if (said === 'floor') {
        mat.colour = fill ?? '#ffffff';
        mat.reflectance = clamp(num(drawing.attrs['data-reflectance'], lightness(mat.colour)), 0, 100);
        continue;
      }
      if (!(w > 0) || !(h > 0)) {
        ignored.push(say('{shape}: a wall without a size', { shape: label }));
        continue;
      }
      const [x, y] = put(num(attrs.x) + w / 2, num(attrs.y) + h / 2);
      const turnDeg = Math.round((-Math.atan2(m[1], m[0]) * 1800) / Math.PI) / 10 || 0;
      mat.walls.push({
        x,
        y,
        width: tidy(Math.max(0.002, w * scale)),
        height: tidy(Math.max(0.002, h * scale)),
        ...(turnDeg ? { turnDeg } : {}),
        colour: fill ?? '#b9c9a6'
      });
      continue;
    }
    const outline = outlineOf(shape);
    if (!outline || outline.points.length < 2) {
      ignored.push(
        outline === undefined
          ? say('{shape}: this kind of shape is not known here', { shape: label })
          : say('{shape}: nothing to see', { shape: label })
      );
      continue;
    }
    const points = outline.points.map(([x, y]) => put(x, y));
    if (said !== 'area' && stroke && (said === 'line' || !fill))
      mat.lines.push({
        points: points.slice(0, 2000),
        width: tidy(clamp(num(attrs['stroke-width'], 1) * scale, 0.001, 1)),
        colour: stroke,
        reflectance: reflectance(stroke),
        ...(outline.closed ? { closed: true } : {})
      });
    else if (fill && points.length >= 3)
      mat.areas.push({
        points: thinned(points, 400),
        colour: fill,
        reflectance: reflectance(fill),
        ...(attrs['data-friction'] ? { friction: clamp(num(attrs['data-friction']), 0, 2) } : {}),
        ...(name ? { name } : {})
      });
    else ignored.push(say('{shape}: neither filled nor drawn with a line', { shape: label }));
  }
  const parsed = matSchema.safeParse(mat);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    throw new Error(
      issue.path[0] === 'width' || issue.path[0] === 'height'
        ? say(
            'The drawing would be {width} m by {height} m. A mat is from 0.2 to 10 m on each side: say how wide it is.',
            { width, height }
          )
        : say('The drawing cannot become a mat: at {place}, {issue}.', {
            place: issue.path.join(' '),
            issue: issue.message
          })
    );
  }
  return { mat: parsed.data, ignored };
}
const thinned = <T>(points: T[], most: number): T[] =>
  points.length <= most
    ? points
    : Array.from({ length: most }, (_, i) => points[Math.floor((i * points.length) / most)]);

/** Points along a shape, in its own units; undefined where the shape is of a kind that has none. */
function outlineOf({ tag, attrs }: Shape): { points: [number, number][]; closed: boolean } | undefined {
  const n = (key: string): number => num(attrs[key]);
  if (tag === 'polygon' || tag === 'polyline') {
    const all = (attrs.points ?? '')
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const points: [number, number][] = [];
    for (let i = 0; i + 1 < all.length; i += 2) points.push([all[i], all[i + 1]]);
    return { points: points.filter((p) => p.every(Number.isFinite)), closed: tag === 'polygon' };
  }
  if (tag === 'line')
    return {
      points: [
        [n('x1'), n('y1')],
        [n('x2'), n('y2')]
      ],
      closed: false
    };
  if (tag === 'rect') {
    const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
    return {
      points:
        w > 0 && h > 0
          ? [
              [x, y],
              [x + w, y],
              [x + w, y + h],
              [x, y + h]
            ]
          : [],
      closed: true
    };
  }
  if (tag === 'circle' || tag === 'ellipse') {
    const [rx, ry] = tag === 'circle' ? [n('r'), n('r')] : [n('rx'), n('ry')];
    return {
      points: Array.from({ length: 48 }, (_, i) => {
        const a = (i / 48) * 2 * Math.PI;
        return [n('cx') + rx * Math.cos(a), n('cy') + ry * Math.sin(a)];
      }),
      closed: true
    };
  }
  if (tag === 'path') {
    try {
      const path = new svgPathProperties(attrs.d ?? '');
      const length = path.getTotalLength();
      if (!(length > 0)) return { points: [], closed: false };
      const count = Math.min(400, Math.max(24, path.getParts().length * 24));
      const points = Array.from({ length: count + 1 }, (_, i): [number, number] => {
        const p = path.getPointAtLength((length * i) / count);
        return [p.x, p.y];
      });
      const closed = /z\s*$/i.test(attrs.d ?? '');
      return { points: closed ? points.slice(0, -1) : points, closed };
    } catch {
      return { points: [], closed: false };
    }
  }
  return undefined;
}
