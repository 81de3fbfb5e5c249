/**
 * What lies in the yard. Metres, x to the right and y up, the origin in the lower left corner; directions in degrees,
 * clockwise from up, as a compass has them. Reflectance is 0 (black) to 100 (white).
 */
import * as z from 'zod';
import { bytesOf } from '../bytes.ts';

const metre = z.number().min(-10).max(10);
/** Where a device stands: m, and degrees clockwise from up. */
export const poseSchema = z.strictObject({ x: metre, y: metre, facingDeg: z.number().min(-3600).max(3600) });
const point = z.tuple([metre, metre]);
const colour = z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour as #rrggbb');
const reflectance = z.number().min(0).max(100);
const size = (min: number, max: number) => z.number().min(min).max(max);
/** kept from being moved in the editor */
const locked = z.boolean().optional();

export const matSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  width: size(0.2, 10),
  height: size(0.2, 10),
  colour: colour,
  reflectance,
  airC: z.number().min(-20).max(60),
  start: poseSchema,
  /** painted first */
  areas: z
    .array(
      z.strictObject({
        points: z.array(point).min(3).max(400),
        colour,
        reflectance,
        friction: size(0, 2).optional(),
        name: z.string().max(60).optional(),
        locked
      })
    )
    .max(200),
  lines: z
    .array(
      z.strictObject({
        points: z.array(point).min(2).max(2000),
        width: size(0.001, 1),
        colour,
        reflectance,
        closed: z.boolean().optional(),
        locked
      })
    )
    .max(200),
  /** boxes that stand fast; `turnDeg` counter-clockwise about the centre */
  walls: z
    .array(
      z.strictObject({
        x: metre,
        y: metre,
        width: size(0.002, 10),
        height: size(0.002, 10),
        turnDeg: z.number().optional(),
        colour,
        locked
      })
    )
    .max(300),
  /** loose round things that can be pushed */
  things: z
    .array(
      z.strictObject({
        x: metre,
        y: metre,
        radius: size(0.005, 1),
        massKg: size(0.005, 50),
        colour,
        name: z.string().max(60).optional(),
        locked
      })
    )
    .max(100),
  hoops: z
    .array(z.strictObject({ x: metre, y: metre, radius: size(0.01, 2), name: z.string().max(60), locked }))
    .max(60),
  marks: z.array(z.strictObject({ x: metre, y: metre, text: z.string().max(40), locked })).max(300),
  /** light that is everywhere, 0 to 100, and lamps that hang over a place: what they add right below */
  daylight: reflectance.optional(),
  lamps: z
    .array(z.strictObject({ x: metre, y: metre, height: size(0.02, 3), brightness: reflectance, locked }))
    .max(60)
    .optional(),
  /** places that are warmer or colder than the air in their middle, and places of damp soil */
  warmth: z
    .array(z.strictObject({ x: metre, y: metre, radius: size(0.01, 5), celsius: z.number().min(-20).max(80), locked }))
    .max(60)
    .optional(),
  damp: z
    .array(z.strictObject({ x: metre, y: metre, radius: size(0.01, 5), moisture: reflectance, locked }))
    .max(60)
    .optional(),
  /** a picture under everything, over the whole mat: how it looks, and its reflectance a cell, row by row from the top */
  floor: z
    .strictObject({
      png: z
        .string()
        .max(3_000_000)
        .regex(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/=]+$/, 'a picture as a data address'),
      columns: z.number().int().min(1).max(2000),
      rows: z.number().int().min(1).max(2000),
      /** one byte a cell, 0 to 100, base64 */
      grey: z.string().max(6_000_000)
    })
    .optional()
});
export type Mat = z.infer<typeof matSchema>;
export type Pose = { x: number; y: number; facingDeg: number };

/** Friction of rubber wheels on the mat; areas carry their own (devices.md). */
export const MAT_FRICTION = 0.8;

type XY = readonly [number, number];
export function inside(points: readonly XY[], x: number, y: number): boolean {
  let odd = false;
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [xi, yi] = points[i];
    const [xj, yj] = points[j];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) odd = !odd;
  }
  return odd;
}
/** Squared distance from a point to a stretch of line. */
export function distance2(x: number, y: number, [ax, ay]: XY, [bx, by]: XY): number {
  const dx = bx - ax;
  const dy = by - ay;
  const length2 = dx * dx + dy * dy;
  const t = length2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length2)) : 0;
  const ex = x - ax - t * dx;
  const ey = y - ay - t * dy;
  return ex * ex + ey * ey;
}

type Box = { left: number; right: number; bottom: number; top: number };
function box(points: readonly XY[], reach: number): Box {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return {
    left: Math.min(...xs) - reach,
    right: Math.max(...xs) + reach,
    bottom: Math.min(...ys) - reach,
    top: Math.max(...ys) + reach
  };
}
const outside = (b: Box, x: number, y: number): boolean => x < b.left || x > b.right || y < b.bottom || y > b.top;

const CELL = 0.001;
const SPOT = 0.002;
const UNKNOWN = -1;

/** The floor as sensors and wheels meet it; each cell is worked out when it is first asked for. */
export class Floor {
  private readonly columns: number;
  private readonly rows: number;
  private readonly spots: Map<number, Float32Array> = new Map();
  private readonly rough: boolean;
  private readonly lineBoxes: Box[];
  private readonly areaBoxes: Box[];
  private readonly grey: Uint8Array | undefined;
  constructor(private readonly mat: Mat) {
    this.columns = Math.ceil(mat.width / CELL);
    this.rows = Math.ceil(mat.height / CELL);
    this.lineBoxes = mat.lines.map((l) => box(l.points, l.width / 2));
    this.areaBoxes = mat.areas.map((a) => box(a.points, 0));
    this.rough = mat.areas.some((a) => a.friction !== undefined);
    this.grey = mat.floor && bytesOf(mat.floor.grey);
  }

  /** Reflectance 0..100 at one point. */
  at(x: number, y: number): number {
    return this.paint(x, y)?.reflectance ?? this.bare(x, y);
  }
  /** The colour at one point, #rrggbb. Of a floor picture only its lightness is known. */
  colourAt(x: number, y: number): string {
    const paint = this.paint(x, y);
    if (paint) return paint.colour;
    if (!this.grey) return this.mat.colour;
    const level = Math.round(this.bare(x, y) * 2.55)
      .toString(16)
      .padStart(2, '0');
    return `#${level}${level}${level}`;
  }
  /** The line or area that is on top here. */
  private paint(x: number, y: number): { reflectance: number; colour: string } | undefined {
    const { mat, lineBoxes, areaBoxes } = this;
    for (let i = mat.lines.length - 1; i >= 0; i--) {
      if (outside(lineBoxes[i], x, y)) continue;
      const line = mat.lines[i];
      const { points, width, closed } = line;
      const reach = (width * width) / 4;
      for (let k = closed ? 0 : 1; k < points.length; k++)
        if (distance2(x, y, points[k === 0 ? points.length - 1 : k - 1], points[k]) <= reach) return line;
    }
    for (let i = mat.areas.length - 1; i >= 0; i--)
      if (!outside(areaBoxes[i], x, y) && inside(mat.areas[i].points, x, y)) return mat.areas[i];
    return undefined;
  }
  /** The floor under everything: one reflectance, or a picture's. */
  private bare(x: number, y: number): number {
    const { mat, grey } = this;
    if (!grey || !mat.floor) return mat.reflectance;
    const { columns, rows } = mat.floor;
    const column = Math.min(columns - 1, Math.max(0, Math.floor((x / mat.width) * columns)));
    const row = Math.min(rows - 1, Math.max(0, Math.floor((1 - y / mat.height) * rows)));
    return grey[row * columns + column] ?? mat.reflectance;
  }

  /** Mean reflectance under a spot of 4 mm across: between the middles of the four cells round it (bilinear). */
  spot(x: number, y: number): number {
    if (x < 0 || y < 0 || x >= this.columns * CELL || y >= this.rows * CELL) return this.mat.reflectance;
    const [across, up] = [x / CELL - 0.5, y / CELL - 0.5];
    const [column, row] = [Math.floor(across), Math.floor(up)];
    const [u, v] = [across - column, up - row];
    const [a, b] = [this.cell(column, row), this.cell(column + 1, row)];
    const [c, d] = [this.cell(column, row + 1), this.cell(column + 1, row + 1)];
    if (a === b && a === c && a === d) return a;
    return (a * (1 - u) + b * u) * (1 - v) + (c * (1 - u) + d * u) * v;
  }
  /** The same about the middle of a cell, kept once it is worked out; at the edge of the mat, of the last one. */
  private cell(i: number, j: number): number {
    const column = Math.max(0, Math.min(this.columns - 1, i));
    const row = Math.max(0, Math.min(this.rows - 1, j));
    const key = (row >> 6) * 16384 + (column >> 6);
    let tile = this.spots.get(key);
    if (!tile) this.spots.set(key, (tile = new Float32Array(4096).fill(UNKNOWN)));
    const at = ((row & 63) << 6) | (column & 63);
    if (tile[at] === UNKNOWN) {
      const cx = (column + 0.5) * CELL;
      const cy = (row + 0.5) * CELL;
      let sum = 0;
      let count = 0;
      for (let i = -2; i <= 2; i++)
        for (let j = -2; j <= 2; j++) {
          const dx = (i * SPOT) / 2;
          const dy = (j * SPOT) / 2;
          if (dx * dx + dy * dy > SPOT * SPOT) continue;
          sum += this.at(cx + dx, cy + dy);
          count++;
        }
      tile[at] = sum / count;
    }
    return tile[at];
  }

  /** Friction between a wheel and the floor at this place. */
  friction(x: number, y: number): number {
    if (!this.rough) return MAT_FRICTION;
    for (let i = this.mat.areas.length - 1; i >= 0; i--) {
      const { friction, points } = this.mat.areas[i];
      if (friction !== undefined && inside(points, x, y)) return friction;
    }
    return MAT_FRICTION;
  }
}
