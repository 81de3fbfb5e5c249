/** The mats that ship: invented places of the Hollowmere Glasshouse. */
import type { Mat } from './mat.ts';

const SIDE = 0.4;
const EDGE = 0.062;

/** Corners of the five-sided path, counter-clockwise, from the one where a round starts; first side straight up. */
function corners(): [number, number][] {
  const points: [number, number][] = [];
  let x = 0.92;
  let y = 0.4;
  for (let i = 0; i < 5; i++) {
    points.push([Number(x.toFixed(4)), Number(y.toFixed(4))]);
    const angle = ((90 + 72 * i) * Math.PI) / 180;
    x += SIDE * Math.cos(angle);
    y += SIDE * Math.sin(angle);
  }
  return points;
}
function shrunk(points: [number, number][], by: number): [number, number][] {
  const cx = points.reduce((s, p) => s + p[0], 0) / points.length;
  const cy = points.reduce((s, p) => s + p[1], 0) / points.length;
  return points.map(([x, y]) => [Number((cx + (x - cx) * by).toFixed(4)), Number((cy + (y - cy) * by).toFixed(4))]);
}
const path = corners();

export const fernBed: Mat = {
  name: 'Fern bed',
  width: 1.3,
  height: 1.2,
  colour: '#f7f6ee',
  reflectance: 88,
  airC: 20,
  start: { x: path[0][0], y: path[0][1], facingDeg: 0 },
  areas: [{ points: shrunk(path, 0.62), colour: '#cfdcc0', reflectance: 62, name: 'fern bed' }],
  lines: [
    { points: path, width: EDGE, colour: '#d8cfb6', reflectance: 72, closed: true },
    // a dark edging board across the path, for the line sensors
    {
      points: [
        [path[1][0] - 0.075, path[1][1] - 0.12],
        [path[1][0] + 0.075, path[1][1] - 0.12]
      ],
      width: 0.025,
      colour: '#4a4438',
      reflectance: 8
    }
  ],
  walls: [
    { x: 0.65, y: 1.13, width: 1.16, height: 0.07, colour: '#b9c9a6' },
    { x: 0.4, y: 0.07, width: 0.66, height: 0.07, colour: '#b9c9a6' }
  ],
  things: [{ x: 1.17, y: 0.2, radius: 0.04, massKg: 0.15, colour: '#b8795a', name: 'pot' }],
  hoops: [{ x: path[0][0], y: path[0][1], radius: 0.1, name: 'home' }],
  marks: []
};

export const longAisle: Mat = {
  name: 'Long aisle',
  width: 1.5,
  height: 0.6,
  colour: '#f7f6ee',
  reflectance: 88,
  airC: 20,
  start: { x: 0.3, y: 0.3, facingDeg: 90 },
  areas: [
    {
      points: [
        [0, 0.17],
        [1.5, 0.17],
        [1.5, 0.43],
        [0, 0.43]
      ],
      colour: '#efe9d8',
      reflectance: 80,
      name: 'aisle'
    }
  ],
  lines: Array.from({ length: 10 }, (_, i) => ({
    points: [
      [0.3 + 0.1 * (i + 1), 0.17],
      [0.3 + 0.1 * (i + 1), 0.22]
    ] as [number, number][],
    width: 0.004,
    colour: '#4a4438',
    reflectance: 10
  })),
  walls: [
    { x: 0.75, y: 0.52, width: 1.44, height: 0.09, colour: '#b9c9a6' },
    { x: 0.75, y: 0.08, width: 1.44, height: 0.09, colour: '#b9c9a6' }
  ],
  things: [],
  hoops: [{ x: 1.1, y: 0.3, radius: 0.1, name: '80 cm' }],
  marks: Array.from({ length: 10 }, (_, i) => ({ x: 0.3 + 0.1 * (i + 1), y: 0.145, text: `${(i + 1) * 10}` }))
};

/** Free floor to drive on, with the corners of a bed of 40 cm marked. */
export const pottingFloor: Mat = {
  name: 'Potting floor',
  width: 1.8,
  height: 1.3,
  colour: '#f7f6ee',
  reflectance: 88,
  airC: 20,
  start: { x: 0.6, y: 0.4, facingDeg: 0 },
  areas: [
    {
      points: [
        [0.68, 0.48],
        [0.92, 0.48],
        [0.92, 0.72],
        [0.68, 0.72]
      ],
      colour: '#cfdcc0',
      reflectance: 62,
      name: 'seedbed'
    }
  ],
  lines: [],
  walls: [],
  things: [],
  hoops: [{ x: 0.6, y: 0.4, radius: 0.09, name: 'home' }],
  marks: [
    { x: 0.6, y: 0.86, text: 'A' },
    { x: 1.06, y: 0.8, text: 'B' },
    { x: 1.06, y: 0.38, text: 'C' }
  ]
};

/** A dark path of gravel round the bed, 34 mm wide, with wide bends: for two line sensors. */
export const gravelPath: Mat = {
  name: 'Gravel path',
  width: 1.6,
  height: 1.2,
  colour: '#f7f6ee',
  reflectance: 88,
  airC: 20,
  start: { x: 1.3, y: 0.6, facingDeg: 0 },
  areas: [],
  lines: [
    {
      // an oval: two straights and two half circles
      points: [...arc(1.0, 0.6, 0.3, -90, 90), ...arc(0.6, 0.6, 0.3, 90, 270)],
      width: 0.034,
      colour: '#5b544a',
      reflectance: 12,
      closed: true
    }
  ],
  walls: [],
  things: [{ x: 0.8, y: 0.6, radius: 0.06, massKg: 0.4, colour: '#b8795a', name: 'urn' }],
  hoops: [{ x: 1.3, y: 0.6, radius: 0.09, name: 'gate' }],
  marks: []
};
/** Points of an arc round a centre, anticlockwise, degrees from the right. */
function arc(cx: number, cy: number, r: number, from: number, to: number): [number, number][] {
  return Array.from({ length: 19 }, (_, i) => {
    const a = ((from + ((to - from) * i) / 18) * Math.PI) / 180;
    return [Number((cx + r * Math.cos(a)).toFixed(4)), Number((cy + r * Math.sin(a)).toFixed(4))];
  });
}

const bench = (x: number, y: number, width: number, height: number, turnDeg?: number) => ({
  x,
  y,
  width,
  height,
  ...(turnDeg ? { turnDeg } : {}),
  colour: '#b9c9a6'
});
/** A way between benches, 24 cm wide, with a bend: for a route in small steps, without touching. */
export const narrowAisle: Mat = {
  name: 'Narrow aisle',
  width: 1.6,
  height: 1.2,
  colour: '#f7f6ee',
  reflectance: 88,
  airC: 20,
  start: { x: 0.2, y: 0.22, facingDeg: 90 },
  areas: [
    {
      // wet moss before the bend: wheels slip on it
      points: [
        [0.78, 0.12],
        [0.98, 0.12],
        [0.98, 0.32],
        [0.78, 0.32]
      ],
      colour: '#7d9a63',
      reflectance: 40,
      friction: 0.15,
      name: 'wet moss'
    }
  ],
  lines: [],
  walls: [
    bench(0.62, 0.05, 1.16, 0.1),
    bench(0.49, 0.62, 0.9, 0.56),
    bench(1.32, 0.42, 0.24, 0.84),
    bench(0.8, 1.17, 1.5, 0.06)
  ],
  things: [{ x: 1.52, y: 1.05, radius: 0.035, massKg: 0.12, colour: '#b8795a', name: 'pot' }],
  hoops: [{ x: 0.25, y: 1.02, radius: 0.1, name: 'gate' }],
  marks: [
    { x: 1.07, y: 0.22, text: 'bend' },
    { x: 0.88, y: 0.22, text: 'moss' }
  ]
};

/** Benches for a board in the hand: lamps, a frosty corner, damp soil. */
export const frostBench: Mat = {
  name: 'Frost bench',
  width: 0.9,
  height: 0.6,
  colour: '#efe9d8',
  reflectance: 80,
  airC: 12,
  start: { x: 0.45, y: 0.3, facingDeg: 0 },
  areas: [
    {
      points: [
        [0.05, 0.38],
        [0.35, 0.38],
        [0.35, 0.56],
        [0.05, 0.56]
      ],
      colour: '#6f5a43',
      reflectance: 20,
      name: 'seed tray'
    },
    {
      points: [
        [0.58, 0.05],
        [0.86, 0.05],
        [0.86, 0.22],
        [0.58, 0.22]
      ],
      colour: '#cfdcc0',
      reflectance: 60,
      name: 'cuttings'
    }
  ],
  lines: [],
  walls: [],
  things: [],
  hoops: [],
  marks: [
    { x: 0.2, y: 0.34, text: 'seed tray' },
    { x: 0.72, y: 0.245, text: 'cuttings' },
    { x: 0.76, y: 0.57, text: 'cold frame' }
  ],
  daylight: 30,
  lamps: [{ x: 0.72, y: 0.14, height: 0.25, brightness: 65 }],
  warmth: [
    { x: 0.76, y: 0.46, radius: 0.22, celsius: -3 },
    { x: 0.72, y: 0.14, radius: 0.2, celsius: 24 }
  ],
  damp: [
    { x: 0.14, y: 0.47, radius: 0.12, moisture: 85 },
    { x: 0.3, y: 0.47, radius: 0.1, moisture: 30 }
  ]
};

/** Room for a large machine: a heap to load at, two beds to tip into, a shed and posts to go round. */
export const compostYard: Mat = {
  name: 'Compost yard',
  width: 4,
  height: 3,
  colour: '#eee8d6',
  reflectance: 78,
  airC: 16,
  start: { x: 0.7, y: 0.6, facingDeg: 90 },
  areas: [
    {
      points: [
        [2.9, 0.25],
        [3.6, 0.25],
        [3.6, 0.95],
        [2.9, 0.95]
      ],
      colour: '#8a6f4d',
      reflectance: 24,
      name: 'heap'
    },
    {
      points: [
        [2.7, 2.1],
        [3.7, 2.1],
        [3.7, 2.7],
        [2.7, 2.7]
      ],
      colour: '#cfdcc0',
      reflectance: 60,
      name: 'bed A'
    },
    {
      points: [
        [0.3, 2.1],
        [1.3, 2.1],
        [1.3, 2.7],
        [0.3, 2.7]
      ],
      colour: '#cfdcc0',
      reflectance: 60,
      name: 'bed B'
    }
  ],
  lines: [],
  walls: [{ x: 2, y: 1.55, width: 0.7, height: 0.5, colour: '#b9c9a6' }],
  things: [],
  hoops: [{ x: 0.7, y: 0.6, radius: 0.24, name: 'stand' }],
  marks: [
    { x: 3.25, y: 1.02, text: 'heap' },
    { x: 3.2, y: 2.02, text: 'A' },
    { x: 0.8, y: 2.02, text: 'B' }
  ]
};

export const mats: readonly Mat[] = [
  fernBed,
  longAisle,
  pottingFloor,
  gravelPath,
  narrowAisle,
  compostYard,
  frostBench
];
