/** The kits that ship, as data: board, chassis, wheels, parts. Values without a source are Moss Bell's own choice. */
import { later } from '../words.ts';
import { displayOf, type Display } from './display.ts';
import type { Chassis, Kit, Wheel } from './kit.ts';

/** A chassis with its four corners cut off. */
const cut = (rear: number, front: number, half: number, by: number): Chassis['outline'] =>
  [
    [rear, -half + by],
    [rear + by, -half],
    [front - by, -half],
    [front, -half + by],
    [front, half - by],
    [front - by, half],
    [rear + by, half],
    [rear, half - by]
  ].map(([xMm, yMm]) => ({ xMm, yMm }));
/** Two wheels on one axle, as far apart as the track. */
const axle = (diameterMm: number, widthMm: number, trackMm: number): Wheel[] =>
  (
    [
      ['left', later('left wheel'), 1],
      ['right', later('right wheel'), -1]
    ] as const
  ).map(([id, name, way]) => ({
    id,
    name,
    at: { xMm: 0, yMm: (way * trackMm) / 2, deg: 0 },
    diameterMm,
    widthMm,
    rim: 'tyre'
  }));

/** The matrix they all have, its middle so far ahead. */
const matrix = (xMm: number): Display => displayOf('matrix', { at: { xMm, yMm: 0, deg: 0 }, turnedDeg: 0 });

export const barrow: Kit = {
  device: 'barrow',
  name: 'Barrow',
  chassis: {
    outline: cut(-85, 65, 52, 12),
    massKg: 0.62,
    massAt: { xMm: -12, yMm: 0 },
    heightOfMassMm: 45,
    fromMm: 27,
    toMm: 67,
    lamps: [
      { name: 'left', at: { xMm: 49, yMm: 34 } },
      { name: 'right', at: { xMm: 49, yMm: -34 } }
    ],
    supports: [{ xMm: -60, yMm: 0 }],
    rim: false,
    bars: [{ name: 'nose', from: { xMm: 65, yMm: -21 }, to: { xMm: 71, yMm: 21 } }]
  },
  display: matrix(-54),
  wheels: axle(68, 14, 124),
  motor: { stallNm: 0.14, freeTurnsPerS: 2.3, frictionNm: 0.012, inertiaKgM2: 6e-4, countsPerTurn: 480, volts: 7.4 },
  battery: { fullV: 8.4, emptyV: 6.6, ohm: 0.25, ampereHours: 1.2 },
  board: { stepUs: 100, accelerationCmS2: 60 },
  parts: [
    { socket: 'J1', type: 'motor', name: 'left wheel', drives: 'left', mounted: 'mirrored' },
    { socket: 'J2', type: 'motor', name: 'right wheel', drives: 'right', mounted: 'normal' },
    { socket: 'J4', type: 'servo', name: 'striker', hornDeg: 20, at: { xMm: 6, yMm: 26, deg: 0 } },
    { socket: 'J5', type: 'servo', name: 'pan', hornDeg: 0, at: { xMm: 6, yMm: -22, deg: 0 } },
    { socket: 'J7', type: 'distance', name: 'nose', at: { xMm: 71, yMm: 0, deg: 0 } },
    { socket: 'J8', type: 'line', name: 'left', at: { xMm: 45, yMm: 9, deg: 0 }, threshold: 50 },
    { socket: 'J9', type: 'line', name: 'right', at: { xMm: 45, yMm: -9, deg: 0 }, threshold: 50 }
  ]
};
/** A board for the hand, shaped like a plant label: no wheels. `volts` is the rated voltage of its battery. */
export const trowel: Kit = {
  ...barrow,
  device: 'trowel',
  name: 'Trowel',
  chassis: {
    // square at its head, pointed at its foot
    outline: [
      { xMm: -46, yMm: 0 },
      { xMm: -20.24, yMm: -17 },
      { xMm: 46, yMm: -17 },
      { xMm: 46, yMm: 17 },
      { xMm: -20.24, yMm: 17 }
    ],
    massKg: 0.028,
    massAt: { xMm: 0, yMm: 0 },
    heightOfMassMm: 4,
    fromMm: 2,
    toMm: 6,
    lamps: [{ name: 'left', at: { xMm: -1, yMm: 8 } }],
    supports: [{ xMm: 0, yMm: 0 }],
    rim: false,
    bars: []
  },
  display: matrix(31),
  wheels: [],
  motor: { ...barrow.motor, volts: 3 },
  battery: { fullV: 3.2, emptyV: 2.2, ohm: 0.4, ampereHours: 0.7 },
  sleepMin: 0,
  parts: [
    { socket: 'J1', type: 'servo', name: 'vent', hornDeg: 0 },
    { socket: 'J2', type: 'lamp', name: 'lamp' }
  ]
};
/** So far from its middle, in that direction: degrees counter-clockwise from ahead. */
const polar = (mm: number, deg: number): { xMm: number; yMm: number } => {
  const tidy = (v: number): number => Math.round(v * 100) / 100 || 0;
  return { xMm: tidy(mm * Math.cos((deg * Math.PI) / 180)), yMm: tidy(mm * Math.sin((deg * Math.PI) / 180)) };
};
const SAUCER = { radiusMm: 85, ringMm: 66, lampsMm: 70 };
/** A flat round robot on three wheels with rollers, 120 degrees apart: it slides to every side. Its notch is ahead. */
export const saucer: Kit = {
  ...barrow,
  device: 'saucer',
  name: 'Saucer',
  chassis: {
    outline: Array.from({ length: 36 }, (_, i) => polar(SAUCER.radiusMm, i * 10)),
    massKg: 0.54,
    massAt: { xMm: 0, yMm: 0 },
    heightOfMassMm: 26,
    fromMm: 22,
    toMm: 46,
    lamps: ['one', 'two', 'three', 'four', 'five', 'six'].map((name, i) => ({
      name,
      at: polar(SAUCER.lampsMm, -30 - 60 * i)
    })),
    supports: [],
    rim: true,
    bars: []
  },
  display: matrix(0),
  // each rolls along the ring, clockwise
  wheels: [
    ['left', later('left wheel'), 60],
    ['back', later('back wheel'), 180],
    ['right', later('right wheel'), 300]
  ].map(([id, name, deg]) => ({
    id: String(id),
    name: String(name),
    at: { ...polar(SAUCER.ringMm, Number(deg)), deg: Number(deg) - 90 },
    diameterMm: 48,
    widthMm: 18,
    rim: 'rollers'
  })),
  motor: { stallNm: 0.09, freeTurnsPerS: 3.6, frictionNm: 0.008, inertiaKgM2: 3e-4, countsPerTurn: 600, volts: 7.4 },
  battery: { ...barrow.battery, ampereHours: 0.9 },
  parts: [
    { socket: 'J1', type: 'motor', name: 'left wheel', drives: 'left', mounted: 'normal' },
    { socket: 'J2', type: 'motor', name: 'back wheel', drives: 'back', mounted: 'normal' },
    { socket: 'J3', type: 'motor', name: 'right wheel', drives: 'right', mounted: 'normal' },
    { socket: 'J4', type: 'distance', name: 'eye', at: { xMm: 85, yMm: 0, deg: 0 } },
    { socket: 'J5', type: 'line', name: 'middle', at: { xMm: 40, yMm: 0, deg: 0 }, threshold: 50 }
  ]
};
/** A four-wheeled carrier that its builder gave names to: willow and alder on its left, hazel and rowan on its right. */
export const hauler: Kit = {
  ...barrow,
  device: 'hauler',
  name: 'Hauler',
  chassis: {
    outline: cut(-190, 190, 116, 20),
    massKg: 3.2,
    massAt: { xMm: 0, yMm: 0 },
    heightOfMassMm: 70,
    fromMm: 34,
    toMm: 84,
    lamps: [
      { name: 'left', at: { xMm: 166, yMm: 84 } },
      { name: 'right', at: { xMm: 166, yMm: -84 } }
    ],
    supports: [],
    rim: false,
    bars: [{ name: 'nose', from: { xMm: 190, yMm: -70 }, to: { xMm: 198, yMm: 70 } }]
  },
  display: matrix(128),
  wheels: [
    ['frontLeft', later('front left wheel'), 1, 1],
    ['rearLeft', later('rear left wheel'), -1, 1],
    ['frontRight', later('front right wheel'), 1, -1],
    ['rearRight', later('rear right wheel'), -1, -1]
  ].map(([id, name, along, side]) => ({
    id: String(id),
    name: String(name),
    at: { xMm: 70 * Number(along), yMm: 136 * Number(side), deg: 0 },
    diameterMm: 80,
    widthMm: 26,
    rim: 'tyre'
  })),
  motor: { stallNm: 0.9, freeTurnsPerS: 2.1, frictionNm: 0.03, inertiaKgM2: 1.2e-3, countsPerTurn: 720, volts: 11.1 },
  battery: { fullV: 12.6, emptyV: 9.9, ohm: 0.12, ampereHours: 2.6 },
  board: { stepUs: 100, accelerationCmS2: 50 },
  parts: [
    { socket: 'J1', type: 'motor', name: 'willow', drives: 'frontLeft', mounted: 'mirrored' },
    { socket: 'J2', type: 'motor', name: 'alder', drives: 'rearLeft', mounted: 'mirrored' },
    { socket: 'J3', type: 'motor', name: 'hazel', drives: 'frontRight', mounted: 'normal' },
    { socket: 'J4', type: 'motor', name: 'rowan', drives: 'rearRight', mounted: 'normal' },
    {
      socket: 'J5',
      type: 'servo',
      name: 'bed',
      hornDeg: 0,
      at: { xMm: -50, yMm: 0, deg: 0 },
      tips: { lengthMm: 220, widthMm: 190 }
    },
    { socket: 'J7', type: 'distance', name: 'lookout', at: { xMm: 198, yMm: 0, deg: 0 } }
  ]
};
export const kits = { barrow, saucer, hauler, trowel } as const;
