import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { hall } from '../testing/build.ts';
import type { Mat } from './mat.ts';
import {
  align,
  arcPoints,
  boundsOf,
  changeItem,
  duplicateItems,
  lightness,
  matTroubles,
  moveItems,
  removeItems,
  reorder,
  same,
  snapTo,
  type Item
} from './matedit.ts';
import { mats } from './mats.ts';
import { matToSvg, svgToMat, type Drawing, type Shape } from './matsvg.ts';

const wall = (x: number, y: number, width = 0.2, height = 0.1, turnDeg = 0): Mat['walls'][number] => ({
  x,
  y,
  width,
  height,
  colour: '#888888',
  ...(turnDeg ? { turnDeg } : {})
});
const mat: Mat = {
  ...hall,
  walls: [wall(0.5, 0.5), wall(1, 2, 0.4, 0.2)],
  areas: [
    {
      points: [
        [0, 0],
        [0.4, 0],
        [0.4, 0.3]
      ],
      colour: '#808080',
      reflectance: 50
    }
  ],
  things: [{ x: 2, y: 2, radius: 0.05, massKg: 0.1, colour: '#888888', locked: true }]
};
const [w0, w1, a0, t0]: Item[] = [
  { kind: 'walls', index: 0 },
  { kind: 'walls', index: 1 },
  { kind: 'areas', index: 0 },
  { kind: 'things', index: 0 }
];

describe('changing a mat', () => {
  it('moves what is chosen, and leaves what is locked', () => {
    const moved = moveItems(mat, [w0, a0, t0], 0.1, -0.2);
    expect(moved.walls[0]).toMatchObject({ x: 0.6, y: 0.3 });
    expect(moved.areas[0].points[2]).toEqual([0.5, 0.1]);
    expect(moved.things[0]).toEqual(mat.things[0]);
    expect(moved.walls[1]).toBe(mat.walls[1]);
  });
  it('duplicates beside, removes, and changes the order of layers', () => {
    const twice = duplicateItems(mat, [w0]);
    expect(twice.mat.walls).toHaveLength(3);
    expect(twice.mat.walls[2]).toMatchObject({ x: 0.55, y: 0.45 });
    expect(removeItems(twice.mat, twice.items)).toEqual(mat);
    expect(reorder(mat, w0, 1).mat.walls.map((w) => w.x)).toEqual([1, 0.5]);
    expect(reorder(mat, w1, 1).mat).toBe(mat);
  });
  it('aligns by edges and middles', () => {
    const boxes = (edge: Parameters<typeof align>[2]) => {
      const done = align(mat, [w0, w1], edge);
      return [boundsOf(done, w0), boundsOf(done, w1)];
    };
    expect(boxes('left').map((b) => Number(b.left.toFixed(6)))).toEqual([0.4, 0.4]);
    expect(boxes('top').map((b) => Number(b.top.toFixed(6)))).toEqual([2.1, 2.1]);
    const [p, q] = boxes('middle');
    expect((p.left + p.right) / 2).toBeCloseTo((q.left + q.right) / 2, 6);
  });
  it('knows the box of a turned wall (plane geometry)', () => {
    const b = boundsOf({ ...mat, walls: [wall(1, 1, 0.2, 0.1, 90)] }, w0);
    expect([b.left, b.right, b.bottom, b.top].map((v) => Number(v.toFixed(6)))).toEqual([0.95, 1.05, 0.9, 1.1]);
  });
  it('knows the box of an outline and of what is round, and aligns those too', () => {
    const b = (item: Item, of: Mat = mat) => {
      const { left, right, bottom, top } = boundsOf(of, item);
      return [left, right, bottom, top].map((v) => Number(v.toFixed(6)));
    };
    expect(b(a0)).toEqual([0, 0.4, 0, 0.3]);
    expect(b(t0)).toEqual([1.95, 2.05, 1.95, 2.05]);
    // what has no size of its own is 2 cm each way
    expect(b({ kind: 'start', index: 0 }, { ...mat, start: { x: 1, y: 2, facingDeg: 0 } })).toEqual([
      0.98, 1.02, 1.98, 2.02
    ]);
    const at = (edge: Parameters<typeof align>[2]) => {
      const done = align(mat, [w0, w1, a0], edge);
      return [w0, w1, a0].map((i) => b(i, done));
    };
    // middles of the three boxes: x 0.5, 1, 0.2; y 0.5, 2, 0.15
    const mean = (1.7 / 3).toFixed(3);
    expect(at('middle').map(([l, r]) => ((l + r) / 2).toFixed(3))).toEqual([mean, mean, mean]);
    expect(at('middle').map(([, , bottom]) => bottom)).toEqual([0.45, 1.9, 0]);
    const level = (2.65 / 3).toFixed(3);
    expect(at('centre').map(([, , y, t]) => ((y + t) / 2).toFixed(3))).toEqual([level, level, level]);
    expect(at('centre').map(([left]) => left)).toEqual([0.4, 0.8, 0]);
    expect(at('right').map(([, right, bottom]) => [right, bottom])).toEqual([
      [1.2, 0.45],
      [1.2, 1.9],
      [1.2, 0]
    ]);
    expect(at('bottom').map(([left, , bottom]) => [left, bottom])).toEqual([
      [0.4, 0],
      [0.8, 0],
      [0, 0]
    ]);
  });
  it('tells one item from another by its kind and its place', () => {
    expect(same(w0, { kind: 'walls', index: 0 })).toBe(true);
    expect([same(w0, w1), same(w0, a0)]).toEqual([false, false]);
  });
  it('snaps to a grid, and to a tenth of a millimetre without one', () => {
    expect([snapTo(0.123, 0.05), snapTo(0.128, 0.05), snapTo(0.123456, 0)]).toEqual([0.1, 0.15, 0.1235]);
  });
  it('draws arcs: a half turn over 2 is half a circle about the middle; its length is radius times angle', () => {
    const half = arcPoints([0, 0], [2, 0], 180);
    for (const [x, y] of half) expect(Math.hypot(x - 1, y)).toBeCloseTo(1, 3);
    // a left turn from right to right bulges to the right of the way, below it
    expect(half[Math.floor(half.length / 2)][1]).toBeCloseTo(-1, 3);
    const quarter = arcPoints([0, 0], [1, 1], 90);
    const length = quarter.slice(1).reduce((s, [x, y], i) => s + Math.hypot(x - quarter[i][0], y - quarter[i][1]), 0);
    expect(length).toBeCloseTo(Math.PI / 2, 2);
  });
  it('draws an arc from where it begins to where it ends, wherever that is, straight where it hardly turns', () => {
    // a chord from (1, 2) to (1, 4), so upwards: a left turn by 90 has its centre 1 to the left, (0, 3), radius sqrt 2
    const arc = arcPoints([1, 2], [1, 4], 90);
    expect([arc[0], arc.at(-1)]).toEqual([
      [1, 2],
      [1, 4]
    ]);
    for (const [x, y] of arc) expect(Math.hypot(x, y - 3)).toBeCloseTo(Math.SQRT2, 3);
    const right = arcPoints([1, 2], [1, 4], -90);
    for (const [x, y] of right) expect(Math.hypot(x - 2, y - 3)).toBeCloseTo(Math.SQRT2, 3);
    // more than a half turn has its centre on the other side
    const most = arcPoints([0, 0], [2, 0], 270);
    for (const [x, y] of most) expect(Math.hypot(x - 1, y + 1)).toBeCloseTo(Math.SQRT2, 3);
    expect(arcPoints([0, 0], [2, 0], 0.01)).toEqual([
      [0, 0],
      [2, 0]
    ]);
  });
  it('knows how light a colour is: L* of CIE 15', () => {
    // black 0, white 100; sRGB middle grey #777777 has L* 50 (published conversion tables)
    expect([lightness('#000000'), lightness('#ffffff'), lightness('#777777')]).toEqual([0, 100, 50]);
  });
});

describe('what is wrong with a mat', () => {
  it('is nothing for those that ship', () => {
    for (const m of mats) expect(matTroubles(m, barrow), m.name).toEqual([]);
  });
  it('a start in a wall or beyond the edge, a thing in a wall, walls that overlap, thin walls', () => {
    const of = (change: Partial<Mat>) => matTroubles({ ...hall, ...change }, barrow).join(' ');
    expect(of({ walls: [wall(1.5, 1.5)] })).toContain('The start stands in a wall');
    expect(of({ start: { x: 0.01, y: 1, facingDeg: 0 } })).toContain('The start stands in a wall or beyond the edge');
    expect(of({ walls: [wall(0.5, 0.5), wall(0.55, 0.52)] })).toContain('overlap');
    expect(of({ walls: [wall(0.5, 0.5), wall(0.7, 0.5)] })).toBe('');
    expect(of({ walls: [wall(0.5, 0.5, 0.002, 0.3)] })).toBe(
      'The wall at x 50, y 50 cm is under 4 mm thick: hard to see, and hard for a sensor to meet.'
    );
    // two walls of 20 cm, 14.1 cm apart along a slope: turned that way they meet, turned across they do not
    expect(of({ walls: [wall(0.5, 0.5, 0.2, 0.02, 45), wall(0.6, 0.6, 0.2, 0.02, 45)] })).toBe(
      'The wall at x 50, y 50 cm and the wall at x 60, y 60 cm overlap. They work, but count as two when they are touched.'
    );
    expect(of({ walls: [wall(0.5, 0.5, 0.2, 0.02, -45), wall(0.6, 0.6, 0.2, 0.02, -45)] })).toBe('');
    const hoop = (x: number, y: number) => of({ hoops: [{ x, y, radius: 0.1, name: 'A' }] });
    for (const [x, y] of [
      [-0.01, 1],
      [1, -0.01],
      [3.01, 1],
      [1, 3.01]
    ])
      expect(hoop(x, y)).toBe('The hoop "A" lies beyond the edge of the mat.');
    for (const [x, y] of [
      [0, 0],
      [3, 3]
    ])
      expect(hoop(x, y)).toBe('');
    expect(
      of({
        walls: [wall(0.5, 0.5)],
        things: [{ x: 0.5, y: 0.5, radius: 0.02, massKg: 0.1, colour: '#888888', name: 'pot' }]
      })
    ).toContain('Pot stands inside');
  });
});

/** The shapes of a drawing as the browser hands them over, for drawings that this program wrote. */
function read(svg: string): Drawing {
  const attrsOf = (text: string) =>
    Object.fromEntries([...text.matchAll(/([\w-]+)="([^"]*)"/g)].map((a) => [a[1], a[2]]));
  const root = /<svg ([^>]*)>/.exec(svg)![1];
  const shapes = [
    ...svg.matchAll(/<(rect|polygon|polyline|circle|text|path|line)\b([^>]*?)\/?>(?:([^<]*)<\/text>)?/g)
  ].map(([, tag, text, inner]): Shape => {
    const attrs = attrsOf(text);
    const t = attrs.transform ?? '';
    const rotate = /rotate\(([-\d.]+)(?: ([-\d.]+) ([-\d.]+))?\)/.exec(t);
    const translate = /translate\(([-\d.]+) ([-\d.]+)\)/.exec(t);
    const a = (Number(rotate?.[1] ?? 0) * Math.PI) / 180;
    const [cx, cy] = [Number(rotate?.[2] ?? 0), Number(rotate?.[3] ?? 0)];
    const [tx, ty] = [Number(translate?.[1] ?? 0), Number(translate?.[2] ?? 0)];
    const [c, s] = [Math.cos(a), Math.sin(a)];
    return {
      tag,
      attrs,
      text: inner ?? '',
      matrix: [c, s, -s, c, tx + cx - c * cx + s * cy, ty + cy - s * cx - c * cy]
    };
  });
  const attrs = attrsOf(root);
  return { shapes, box: attrs.viewBox.split(' ').map(Number) as Drawing['box'], name: attrs['data-name'] ?? '', attrs };
}
describe('a mat as an SVG drawing', () => {
  it('comes back as it was, for every mat that ships', () => {
    for (const m of mats) {
      const { mat: back, ignored } = svgToMat(read(matToSvg(m)), 0.001);
      expect(ignored, m.name).toEqual([]);
      const rough = (v: unknown): unknown =>
        typeof v === 'number'
          ? Math.round(v * 500) / 500
          : Array.isArray(v)
            ? v.map(rough)
            : v && typeof v === 'object'
              ? Object.fromEntries(
                  Object.entries(v)
                    .filter(([, x]) => x !== undefined)
                    .map(([k, x]) => [k, rough(x)])
                )
              : v;
      expect(rough(back), m.name).toEqual(rough(m));
    }
  });
  it('becomes what colours and ids say, and lists what is ignored', () => {
    const shape = (tag: string, attrs: Record<string, string>, text = ''): Shape => ({
      tag,
      attrs,
      text,
      matrix: [1, 0, 0, 1, 0, 0]
    });
    const { mat: m, ignored } = svgToMat(
      {
        name: 'x',
        attrs: {},
        box: [0, 0, 100, 50],
        shapes: [
          shape('path', { d: 'M10 10H60', stroke: '#000', fill: 'none', 'stroke-width': '2' }),
          shape('rect', { x: '0', y: '0', width: '10', height: '10', fill: 'white' }),
          shape('rect', { id: 'wall_left', x: '20', y: '20', width: '10', height: '5', fill: '#777' }),
          shape('rect', { id: 'wall2', x: '1', y: '1', width: '0', height: '5' }),
          shape('text', { x: '5', y: '45' }, ' A '),
          shape('image', { href: 'x.png' })
        ]
      },
      0.01
    );
    expect(m.lines[0]).toMatchObject({ width: 0.02, colour: '#000000', reflectance: 0 });
    expect(m.lines[0].points[0]).toEqual([0.1, 0.4]);
    expect(m.areas[0]).toMatchObject({ colour: '#ffffff', reflectance: 100 });
    expect(m.walls).toEqual([{ x: 0.25, y: 0.275, width: 0.1, height: 0.05, colour: '#777777' }]);
    expect(m.marks).toEqual([{ x: 0.05, y: 0.05, text: 'A' }]);
    expect(ignored).toHaveLength(2);
    expect(ignored[0]).toContain('a wall without a size');
    expect(ignored[1]).toContain('<image>');
  });
  it('refuses a drawing of 100 m with a sentence', () => {
    expect(() => svgToMat({ name: '', attrs: {}, box: [0, 0, 10000, 100], shapes: [] }, 0.01)).toThrow(
      /100 m by 1 m.*0\.2 to 10 m/
    );
  });
  it('can be changed in one property', () => {
    expect(changeItem(mat, w0, { width: 0.33 }).walls[0].width).toBe(0.33);
    expect(changeItem(mat, { kind: 'start', index: 0 }, { x: 1 }).start.x).toBe(1);
  });
});
