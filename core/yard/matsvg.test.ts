import { describe, expect, it } from 'vitest';
import { hall } from '../testing/build.ts';
import type { Mat } from './mat.ts';
import { matToSvg, svgToMat, type Drawing, type Shape } from './matsvg.ts';

const shape = (
  tag: string,
  attrs: Record<string, string>,
  text = '',
  matrix: Shape['matrix'] = [1, 0, 0, 1, 0, 0]
): Shape => ({ tag, attrs, text, matrix });
/** A drawing of 100 by 50 units of 1 cm each. */
const draw = (shapes: Shape[], more: Partial<Drawing> = {}) =>
  svgToMat({ name: 'x', attrs: {}, box: [0, 0, 100, 50], shapes, ...more }, 0.01);

describe('a mat written as SVG', () => {
  const full: Mat = {
    ...hall,
    name: 'A & <b> "c"',
    width: 2,
    height: 1,
    colour: '#eeeeee',
    start: { x: 0.5, y: 0.25, facingDeg: 90 },
    areas: [
      {
        points: [
          [0, 0],
          [0.4, 0],
          [0.4, 0.3]
        ],
        colour: '#808080',
        reflectance: 50,
        friction: 0.4
      }
    ],
    lines: [
      {
        points: [
          [0.1, 0.1],
          [0.3, 0.2]
        ],
        width: 0.02,
        colour: '#000000',
        reflectance: 5
      },
      {
        points: [
          [1, 0.1],
          [1.2, 0.1],
          [1.2, 0.3]
        ],
        width: 0.01,
        colour: '#111111',
        reflectance: 6,
        closed: true
      }
    ],
    damp: [{ x: 0.1, y: 0.9, radius: 0.05, moisture: 70 }],
    warmth: [{ x: 0.2, y: 0.8, radius: 0.06, celsius: 31 }],
    lamps: [{ x: 0.3, y: 0.7, height: 0.4, brightness: 55 }],
    hoops: [{ x: 1.5, y: 0.5, radius: 0.1, name: 'Bench' }],
    marks: [{ x: 0.6, y: 0.6, text: '10' }],
    walls: [
      { x: 1, y: 0.75, width: 0.4, height: 0.1, colour: '#b9c9a6' },
      { x: 1.8, y: 0.75, width: 0.2, height: 0.1, turnDeg: 30, colour: '#b9c9a6' }
    ],
    things: [{ x: 1.2, y: 0.4, radius: 0.04, massKg: 0.25, colour: '#b8795a', name: 'pot' }]
  };
  // SVG has y downwards and turns clockwise (SVG 1.1, 7.3); a point at y of the mat lies at height - y
  it('has each thing where it is, in millimetres from the top left, numbered from 1', () => {
    const lines = matToSvg(full).split('\n');
    const all = (begin: string) => lines.filter((l) => l.startsWith(begin));
    expect(lines[0]).toContain('width="2000mm" height="1000mm" viewBox="0 0 2000 1000"');
    expect(lines[0]).toContain('data-name="A &amp; &lt;b&gt; &quot;c&quot;"');
    expect(lines[1]).toBe('<title>A &amp; &lt;b&gt; &quot;c&quot;</title>');
    expect(lines[2]).toBe('<rect id="floor" width="2000" height="1000" fill="#eeeeee"/>');
    expect(lines[3]).toBe(
      '<polygon id="area-1" points="0,1000 400,1000 400,700" fill="#808080" data-reflectance="50" data-friction="0.4"/>'
    );
    expect(lines.slice(4, 6)).toEqual([
      '<polyline id="line-1" points="100,900 300,800" fill="none" stroke="#000000" stroke-width="20" stroke-linejoin="round" data-reflectance="5"/>',
      '<polygon id="line-2" points="1000,900 1200,900 1200,700" fill="none" stroke="#111111" stroke-width="10" stroke-linejoin="round" data-reflectance="6"/>'
    ]);
    expect(all('<circle')).toEqual([
      '<circle id="damp-1" cx="100" cy="100" r="50" fill="#4d6b5c" fill-opacity="0.3" data-moisture="70"/>',
      '<circle id="warmth-1" cx="200" cy="200" r="60" fill="#d2602f" fill-opacity="0.25" data-celsius="31"/>',
      '<circle id="lamp-1" cx="300" cy="300" r="14" fill="#ffd25e" data-height="400" data-brightness="55"/>',
      '<circle id="hoop-1" cx="1500" cy="500" r="100" fill="none" stroke="#b5842a" stroke-width="5" data-name="Bench"/>',
      '<circle id="thing-1" cx="1200" cy="600" r="40" fill="#b8795a" data-mass-g="250" data-name="pot"/>'
    ]);
    expect(all('<text')).toEqual(['<text id="mark-1" x="600" y="400" text-anchor="middle" font-size="26">10</text>']);
    expect(all('<rect id="wall')).toEqual([
      '<rect id="wall-1" x="800" y="200" width="400" height="100" fill="#b9c9a6"/>',
      '<rect id="wall-2" x="1700" y="200" width="200" height="100" fill="#b9c9a6" transform="rotate(-30 1800 250)"/>'
    ]);
    expect(all('<path')[0]).toContain('transform="translate(500 750) rotate(90)"');
    expect(lines.slice(-2)).toEqual(['</svg>', '']);
  });
});

describe('a drawing read as a mat', () => {
  it('takes the outline of every kind of shape', () => {
    const { areas } = draw([
      shape('rect', { x: '10', y: '5', width: '20', height: '10', fill: '#ff0000' }),
      shape('polygon', { points: ' 1,2 3,4, 5 6 7', fill: '#00ff00' }),
      shape('circle', { cx: '50', cy: '20', r: '10', fill: '#0000ff' }),
      shape('ellipse', { cx: '50', cy: '20', rx: '10', ry: '5', fill: '#0000ff' })
    ]).mat;
    expect(areas[0].points).toEqual([
      [0.1, 0.45],
      [0.3, 0.45],
      [0.3, 0.35],
      [0.1, 0.35]
    ]);
    expect(areas[1].points).toEqual([
      [0.01, 0.48],
      [0.03, 0.46],
      [0.05, 0.44]
    ]);
    // a quarter of the way round, and half of it: to the right, below, left in the drawing
    expect([0, 12, 24].map((i) => areas[2].points[i])).toEqual([
      [0.6, 0.3],
      [0.5, 0.2],
      [0.4, 0.3]
    ]);
    expect([0, 12, 24].map((i) => areas[3].points[i])).toEqual([
      [0.6, 0.3],
      [0.5, 0.25],
      [0.4, 0.3]
    ]);
    expect(draw([shape('line', { x1: '1', y1: '2', x2: '3', y2: '4', stroke: 'red' })]).mat.lines[0]).toMatchObject({
      points: [
        [0.01, 0.48],
        [0.03, 0.46]
      ],
      colour: '#ff0000',
      width: 0.01
    });
  });
  it('closes a path that ends in z, and tells of one that is none', () => {
    const path = (d: string) => draw([shape('path', { d, stroke: '#000', fill: 'none' })]);
    expect(path('M0 0L10 0L10 10Z ').mat.lines[0]).toMatchObject({ closed: true });
    expect(path('M0 0L10 0L10 10').mat.lines[0].closed).toBeUndefined();
    // 24 stretches of one length each
    const { points } = path('M0 0L12 0').mat.lines[0];
    expect([points.length, points[1], points[12], points.at(-1)]).toEqual([25, [0.005, 0.5], [0.06, 0.5], [0.12, 0.5]]);
    expect(path('M0 0L12 0L12 12').mat.lines[0].points).toHaveLength(49);
    for (const d of ['', 'Q', 'M0 0']) {
      const { mat, ignored } = path(d);
      expect([mat.lines, ignored], d).toEqual([[], ['<path>: nothing to see']]);
    }
  });
  it('leaves out what has no size', () => {
    const none = (attrs: Record<string, string>) => draw([shape('rect', { fill: '#123456', ...attrs })]).ignored;
    expect(none({ width: '0', height: '5' })).toEqual(['<rect>: nothing to see']);
    expect(none({ width: '5', height: '0' })).toEqual(['<rect>: nothing to see']);
    expect(draw([shape('rect', { id: 'wall', width: '5', height: '0' })]).ignored).toEqual([
      '<rect> "wall": a wall without a size'
    ]);
    expect(draw([shape('circle', { fill: 'none', r: '5' })]).ignored).toEqual([
      '<circle>: neither filled nor drawn with a line'
    ]);
    expect(draw([shape('image', {})]).ignored).toEqual(['<image>: this kind of shape is not known here']);
  });
  it('knows colours as SVG 1.1 writes them (4.2): three digits, six, rgb(), names; black when none is said', () => {
    const of = (attrs: Record<string, string>) =>
      draw([shape('rect', { width: '5', height: '5', ...attrs })]).mat.areas[0]?.colour;
    expect(of({ fill: '#F80' })).toBe('#ff8800');
    expect(of({ fill: ' #A1B2C3 ' })).toBe('#a1b2c3');
    expect(of({ fill: 'rgb(1, 22,  255 )' })).toBe('#0116ff');
    expect(of({ fill: 'rgb(0 128 300)' })).toBe('#0080ff');
    expect(of({ fill: 'rgb(10%, 0, 0)' })).toBeUndefined();
    expect(of({ fill: 'grey' })).toBe('#808080');
    expect(of({})).toBe('#000000');
    expect(of({ stroke: '#fff' })).toBeUndefined();
    expect(of({ fill: 'none' })).toBeUndefined();
  });
  it('is a line or an area by its look, or by what its id says', () => {
    const both = { fill: '#ffffff', stroke: '#000000', 'stroke-width': '2', width: '9', height: '9' };
    const kinds = (attrs: Record<string, string>) => {
      const { areas, lines } = draw([shape('rect', attrs)]).mat;
      return [areas.length, lines.length];
    };
    expect(kinds(both)).toEqual([1, 0]);
    expect(kinds({ ...both, id: 'Line 4' })).toEqual([0, 1]);
    expect(kinds({ ...both, id: 'area' })).toEqual([1, 0]);
    expect(kinds({ ...both, fill: 'none' })).toEqual([0, 1]);
    expect(kinds({ ...both, fill: 'none', id: 'area' })).toEqual([0, 0]);
    expect(draw([shape('line', { fill: '#123456', x2: '4' })]).mat.areas).toEqual([]);
    expect(draw([shape('line', { fill: '#123456', x2: '4' })]).ignored).toHaveLength(1);
  });
  it('works transforms out: enlarged twice, turned by 30 degrees, moved', () => {
    const twice = draw(
      [
        shape('circle', { id: 'thing', cx: '5', cy: '5', r: '2', 'data-mass-g': '80' }, '', [2, 0, 0, 2, 10, 4]),
        shape('ellipse', { id: 'hoop_a', cx: '5', cy: '5', rx: '3' }, '', [2, 0, 0, 2, 10, 4])
      ],
      { box: [2, 1, 100, 50] }
    ).mat;
    expect(twice.things).toEqual([{ x: 0.18, y: 0.37, radius: 0.04, massKg: 0.08, colour: '#000000' }]);
    expect(twice.hoops).toEqual([{ x: 0.18, y: 0.37, radius: 0.06, name: 'hoop_a' }]);
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    // SVG turns clockwise, the yard counter-clockwise
    const turned = draw([
      shape('rect', { id: 'wall', x: '10', y: '0', width: '20', height: '10', fill: 'url(#x)' }, '', [
        c,
        s,
        -s,
        c,
        50,
        10
      ])
    ]).mat.walls[0];
    expect(turned).toEqual({
      x: 0.6482,
      y: 0.2567,
      width: 0.2,
      height: 0.1,
      turnDeg: -30,
      colour: '#b9c9a6'
    });
    const start = draw([shape('path', { id: 'start', d: 'M0 0' }, '', [c, s, -s, c, 50, 10])]).mat.start;
    expect(start).toEqual({ x: 0.5, y: 0.4, facingDeg: 30 });
    // mirrored shapes have a size too
    expect(draw([shape('circle', { id: 'thing', r: '2' }, '', [1, 0, 0, -1, 0, 9])]).mat.things[0].radius).toBe(0.02);
  });
  it('fills in what is not said', () => {
    const { mat } = draw([shape('rect', { id: 'floor', fill: '#777777' })], { name: '  ' });
    expect(mat).toMatchObject({ name: 'A mat', width: 1, height: 0.5, colour: '#777777', reflectance: 50, airC: 20 });
    expect(mat.start).toEqual({ x: 0.5, y: 0.25, facingDeg: 0 });
    expect(mat.daylight).toBeUndefined();
    const said = draw([shape('rect', { id: 'floor' })], {
      attrs: { 'data-air': '12', 'data-daylight': '140', 'data-reflectance': '33' }
    }).mat;
    expect(said).toMatchObject({ airC: 12, daylight: 100, reflectance: 33 });
    expect(draw([shape('circle', { id: 'lamp', cx: '1', cy: '1', r: '1' })]).mat.lamps).toEqual([
      { x: 0.01, y: 0.49, height: 0.3, brightness: 60 }
    ]);
    expect(draw([shape('circle', { id: 'damp', cx: '1', cy: '1', r: '1' })]).mat.damp![0].moisture).toBe(80);
    expect(draw([shape('circle', { id: 'warmth', cx: '1', cy: '1', r: '1' })]).mat.warmth![0].celsius).toBe(20);
    expect(draw([shape('circle', { id: 'thing', cx: '1', cy: '1', fill: 'none' })]).mat.things[0]).toEqual({
      x: 0.01,
      y: 0.49,
      radius: 0.005,
      massKg: 0.15,
      colour: '#b8795a'
    });
  });
  it('takes words as marks, spaces made one, and no empty ones', () => {
    const marks = draw([shape('text', { x: '5', y: '45' }, ' ten \n  cm '), shape('text', {}, '  ')]).mat.marks;
    expect(marks).toEqual([{ x: 0.05, y: 0.05, text: 'ten cm' }]);
  });
  it('thins out an outline of more than 400 points evenly', () => {
    const ring = (n: number) =>
      draw([
        shape('polygon', {
          fill: '#123456',
          points: Array.from({ length: n }, (_, i) => `${i / 10},${(i * i) / 1e5}`).join(' ')
        })
      ]).mat.areas[0].points;
    expect(ring(400)).toHaveLength(400);
    const thin = ring(800);
    expect(thin).toHaveLength(400);
    expect([thin[1][0], thin[399][0]]).toEqual([0.002, 0.798]);
  });
  it('says how large a drawing would be that cannot be a mat, and where another is wrong', () => {
    expect(() => draw([], { box: [0, 0, 100, 5000] })).toThrow('The drawing would be 1 m by 50 m.');
    expect(() => draw([shape('circle', { id: 'thing', cx: '1e9', cy: '0', r: '1' })])).toThrow(
      /^The drawing cannot become a mat: at things 0 x, /
    );
  });
});
