/** Changing a mat: pure edits, what is where, and what is wrong with it. Metres, y up, as the mat has them. */
import { say } from '../words.ts';
import type { Kit } from '../kit/kit.ts';
import { inside, type Mat } from './mat.ts';
import { Yard } from './yard.ts';

/** Painted in this order. */
export const KINDS = ['areas', 'lines', 'damp', 'warmth', 'lamps', 'hoops', 'marks', 'walls', 'things'] as const;
export type Kind = (typeof KINDS)[number];
/** One thing on a mat, or the place of the start. */
export type Item = { kind: Kind; index: number } | { kind: 'start'; index: 0 };
export type Any = { x?: number; y?: number; points?: [number, number][]; locked?: boolean; radius?: number };
export type Box = { left: number; right: number; bottom: number; top: number };

export const same = (a: Item, b: Item): boolean => a.kind === b.kind && a.index === b.index;
export const listOf = (mat: Mat, kind: Kind): readonly Any[] => (mat[kind] ?? []) as readonly Any[];
export const itemAt = (mat: Mat, item: Item): Any | undefined =>
  item.kind === 'start' ? mat.start : listOf(mat, item.kind)[item.index];
const tidy = (v: number): number => Math.round(v * 1e4) / 1e4 || 0;

export function changeItem(mat: Mat, item: Item, change: object): Mat {
  if (item.kind === 'start') return { ...mat, start: { ...mat.start, ...change } };
  const list = listOf(mat, item.kind).map((one, i) => (i === item.index ? { ...one, ...change } : one));
  return { ...mat, [item.kind]: list };
}
/** What is locked stays where it is. */
export function moveItems(mat: Mat, items: readonly Item[], dx: number, dy: number): Mat {
  return items.reduce((now, item) => {
    const one = itemAt(now, item);
    if (!one || one.locked) return now;
    return changeItem(
      now,
      item,
      one.points
        ? { points: one.points.map(([x, y]) => [tidy(x + dx), tidy(y + dy)]) }
        : { x: tidy(one.x! + dx), y: tidy(one.y! + dy) }
    );
  }, mat);
}
export function addItem(mat: Mat, kind: Kind, one: object): { mat: Mat; item: Item } {
  const list = listOf(mat, kind);
  return { mat: { ...mat, [kind]: [...list, one] }, item: { kind, index: list.length } };
}
export function removeItems(mat: Mat, items: readonly Item[]): Mat {
  const next = { ...mat };
  for (const kind of KINDS) {
    const gone = new Set(items.filter((i) => i.kind === kind).map((i) => i.index));
    if (gone.size) Object.assign(next, { [kind]: listOf(mat, kind).filter((_, i) => !gone.has(i)) });
  }
  return next;
}
export function duplicateItems(mat: Mat, items: readonly Item[], by = 0.05): { mat: Mat; items: Item[] } {
  let next = mat;
  const made: Item[] = [];
  for (const item of items) {
    if (item.kind === 'start') continue;
    const added = addItem(next, item.kind, { ...itemAt(next, item), locked: undefined });
    next = moveItems(added.mat, [added.item], by, -by);
    made.push(added.item);
  }
  return { mat: next, items: made };
}
/** One step up or down among its own kind. */
export function reorder(mat: Mat, item: Item, by: 1 | -1): { mat: Mat; item: Item } {
  if (item.kind === 'start') return { mat, item };
  const list = [...listOf(mat, item.kind)];
  const to = item.index + by;
  if (to < 0 || to >= list.length) return { mat, item };
  [list[item.index], list[to]] = [list[to], list[item.index]];
  return { mat: { ...mat, [item.kind]: list }, item: { kind: item.kind, index: to } };
}

/** The box round an item, walls with their turn. */
export function boundsOf(mat: Mat, item: Item): Box {
  const one = itemAt(mat, item)!;
  if (item.kind === 'walls') {
    const w = mat.walls[item.index];
    const a = ((w.turnDeg ?? 0) * Math.PI) / 180;
    const [c, s] = [Math.abs(Math.cos(a)), Math.abs(Math.sin(a))];
    const [hx, hy] = [(w.width * c + w.height * s) / 2, (w.width * s + w.height * c) / 2];
    return { left: w.x - hx, right: w.x + hx, bottom: w.y - hy, top: w.y + hy };
  }
  if (one.points) {
    const xs = one.points.map((p) => p[0]);
    const ys = one.points.map((p) => p[1]);
    return { left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
  }
  const r = one.radius ?? 0.02;
  return { left: one.x! - r, right: one.x! + r, bottom: one.y! - r, top: one.y! + r };
}
export type Edge = 'left' | 'middle' | 'right' | 'top' | 'centre' | 'bottom';
/** All at the edge or the middle of the box round them together. */
export function align(mat: Mat, items: readonly Item[], edge: Edge): Mat {
  const boxes = items.map((i) => boundsOf(mat, i));
  const at = (b: Box): number =>
    edge === 'middle' ? (b.left + b.right) / 2 : edge === 'centre' ? (b.bottom + b.top) / 2 : b[edge];
  const goal =
    edge === 'left' || edge === 'bottom'
      ? Math.min(...boxes.map(at))
      : edge === 'right' || edge === 'top'
        ? Math.max(...boxes.map(at))
        : boxes.reduce((sum, b) => sum + at(b), 0) / boxes.length;
  const across = edge === 'left' || edge === 'middle' || edge === 'right';
  return items.reduce((now, item, i) => {
    const by = goal - at(boxes[i]);
    return moveItems(now, [item], across ? by : 0, across ? 0 : by);
  }, mat);
}
/** @param grid metres, or 0 for none */
export const snapTo = (v: number, grid: number): number => (grid > 0 ? tidy(Math.round(v / grid) * grid) : tidy(v));

/** Points of an arc from a to b that turns by so many degrees, to the left of the way when positive. */
export function arcPoints(a: [number, number], b: [number, number], deg: number): [number, number][] {
  const angle = (Math.max(-340, Math.min(340, deg)) * Math.PI) / 180;
  if (Math.abs(angle) < 1e-3) return [a, b];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const chord = Math.sqrt(dx * dx + dy * dy);
  const radius = chord / 2 / Math.sin(angle / 2);
  const off = radius * Math.cos(angle / 2);
  // the centre lies to the left of the way for a left turn
  const [cx, cy] = [(a[0] + b[0]) / 2 - (dy / chord) * off, (a[1] + b[1]) / 2 + (dx / chord) * off];
  const from = Math.atan2(a[1] - cy, a[0] - cx);
  const n = Math.max(6, Math.ceil(Math.abs(angle) * 10));
  const r = Math.abs(radius);
  return Array.from({ length: n + 1 }, (_, i) => {
    const t = from + (angle * i) / n;
    return [tidy(cx + r * Math.cos(t)), tidy(cy + r * Math.sin(t))];
  });
}

/** Lightness L* of a colour, 0 to 100 (CIE 15, with the sRGB luminance of IEC 61966-2-1): how light it looks to a line sensor. */
export function lightness(hex: string): number {
  const channel = (at: number): number => {
    const v = parseInt(hex.slice(at, at + 2), 16) / 255;
    return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
  };
  const y = 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5);
  return Math.round(y <= 216 / 24389 ? (y * 24389) / 27 : 116 * Math.pow(y, 1 / 3) - 16);
}

/** What is wrong with a mat, a sentence each: nothing of it keeps the mat from being used but what stands first. */
export function matTroubles(mat: Mat, kit: Kit): string[] {
  const found: string[] = [];
  const name = (w: Mat['walls'][number]): string =>
    say('the wall at x {x}, y {y} cm', { x: Math.round(w.x * 100), y: Math.round(w.y * 100) });
  const yard = new Yard({ kit, mat: { ...mat, things: [] }, seed: 1, noise: false });
  if (!yard.isFree())
    found.push(say('The start stands in a wall or beyond the edge: the robot has no room there. Move the start.'));
  const corners = (w: Mat['walls'][number]): [number, number][] => {
    const a = ((w.turnDeg ?? 0) * Math.PI) / 180;
    return [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1]
    ].map(([sx, sy]) => {
      const [x, y] = [(sx * w.width) / 2, (sy * w.height) / 2];
      return [w.x + x * Math.cos(a) - y * Math.sin(a), w.y + x * Math.sin(a) + y * Math.cos(a)];
    });
  };
  mat.walls.forEach((w, i) => {
    if (w.width < 0.004 || w.height < 0.004)
      found.push(
        say('{wall} is under 4 mm thick: hard to see, and hard for a sensor to meet.', { wall: capital(name(w)) })
      );
    const own = corners(w);
    mat.walls.slice(i + 1).forEach((v) => {
      const other = corners(v);
      if (overlaps(own, other))
        found.push(
          say('{wall} and {other} overlap. They work, but count as two when they are touched.', {
            wall: capital(name(w)),
            other: name(v)
          })
        );
    });
    for (const t of mat.things)
      if (inside(own, t.x, t.y))
        found.push(
          say('{thing} stands inside {wall}. Move it out.', {
            thing: capital(t.name ?? say('a loose thing')),
            wall: name(w)
          })
        );
  });
  for (const h of mat.hoops)
    if (h.x < 0 || h.y < 0 || h.x > mat.width || h.y > mat.height)
      found.push(say('The hoop "{name}" lies beyond the edge of the mat.', { name: h.name }));
  return found;
}
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
/** Two convex shapes overlap when no edge of either has the other wholly on its far side (separating axis theorem). */
function overlaps(a: [number, number][], b: [number, number][]): boolean {
  const apart = (p: [number, number][], q: [number, number][]): boolean =>
    p.some(([x1, y1], i) => {
      const [x2, y2] = p[(i + 1) % p.length];
      return q.every(([x, y]) => (x2 - x1) * (y - y1) - (y2 - y1) * (x - x1) <= 1e-9);
    });
  return !apart(a, b) && !apart(b, a);
}
