/** Kits that cannot be: what is wrong with one whatever is plugged in, and which of it no bench can be built from. */
import { say, word } from '../words.ts';
import { canOf } from './rolling.ts';
import type { Kit } from './kit.ts';

export type Impossible = { at: (string | number)[]; text: string; /** no bench can be built from it */ refused?: true };
type Point = { xMm: number; yMm: number };
type Measures = Pick<Kit, 'chassis' | 'wheels' | 'motor' | 'battery'>;

/** Less than a square centimetre is no chassis. */
const SMALLEST_MM2 = 100;
/** Wheels nearer than this to one another stand on one spot, mm. */
const SPOT_MM = 1;

export function impossible({ chassis, wheels, motor, battery }: Measures): Impossible[] {
  const found: Impossible[] = [];
  const is = (wrong: boolean, at: (string | number)[], text: () => string, refused?: true): void => {
    if (wrong) found.push({ at, text: text(), ...(refused ? { refused } : {}) });
  };
  const { outline } = chassis;
  is(
    crosses(outline),
    ['chassis', 'outline'],
    () => say('The outline crosses itself. Put its corners in order.'),
    true
  );
  is(
    area(outline) < SMALLEST_MM2,
    ['chassis', 'outline'],
    () => say('The outline has no area. Give it three corners that do not lie on one line.'),
    true
  );
  is(
    chassis.fromMm >= chassis.toMm,
    ['chassis', 'fromMm'],
    () =>
      say('The body ends at {to} mm above the floor, and begins at {from} mm: it must begin below its end.', {
        from: chassis.fromMm,
        to: chassis.toMm
      }),
    true
  );
  wheels.forEach(({ id, name, at }, i) => {
    const before = wheels.slice(0, i);
    is(
      before.some((w) => w.id === id),
      ['wheels', i, 'id'],
      () => say('Two wheels have the id "{id}". Give each its own.', { id }),
      true
    );
    const other = before.find((w) => Math.abs(w.at.xMm - at.xMm) < SPOT_MM && Math.abs(w.at.yMm - at.yMm) < SPOT_MM);
    is(!!other, ['wheels', i, 'at'], () =>
      say('The {one} and the {two} stand on one spot. Move one of them.', { one: word(other!.name), two: word(name) })
    );
  });
  is(battery.emptyV >= battery.fullV, ['battery'], () =>
    say('The empty battery has {empty} V, the full one {full} V: it must have less when it is empty.', {
      empty: battery.emptyV,
      full: battery.fullV
    })
  );
  if (!wheels.length) return found;
  is(motor.frictionNm >= motor.stallNm, ['motor'], () =>
    say('The friction of the motors is above their stall torque: they never turn.')
  );
  const { massAt, supports } = chassis;
  is(!isCarried(massAt, [...wheels.map((w) => w.at), ...supports]), ['chassis', 'massAt'], () =>
    say('The weight lies outside of what carries it: it tips over. Move the mass, a wheel or a support.')
  );
  const places = wheels.map((w) => ({ x: w.at.xMm, y: w.at.yMm, rolls: (w.at.deg * Math.PI) / 180, rim: w.rim }));
  const can = canOf(places);
  is(wheels.every((w) => w.rim === 'rollers') && !can.slide, ['wheels'], () =>
    say(
      'Its wheels have rollers and all roll one way: nothing keeps it from sliding sideways. Give it tyres, or a wheel that rolls across.'
    )
  );
  return found;
}

/** Twice the area of a triangle, signed: on which side of a line through two points a third one lies. */
const side = (a: Point, b: Point, c: Point): number =>
  (b.xMm - a.xMm) * (c.yMm - a.yMm) - (b.yMm - a.yMm) * (c.xMm - a.xMm);
/** The shoelace formula (Gauss), mm². */
const area = (points: readonly Point[]): number =>
  Math.abs(points.reduce((sum, p, i) => sum + side({ xMm: 0, yMm: 0 }, p, points[(i + 1) % points.length]), 0)) / 2;
/** Whether two edges that are no neighbours meet. */
function crosses(points: readonly Point[]): boolean {
  const n = points.length;
  for (let i = 0; i < n; i++)
    for (let k = i + 2; k < n; k++) {
      if (i === 0 && k === n - 1) continue;
      const [a, b, c, d] = [points[i], points[(i + 1) % n], points[k], points[(k + 1) % n]];
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return true;
    }
  return false;
}
/** Whether a weight rests on its supports: seen from it, no half of all directions is without one. */
function isCarried(mass: Point, supports: readonly Point[]): boolean {
  const reach = supports.map((s) => [s.xMm - mass.xMm, s.yMm - mass.yMm]);
  // one right below it carries it; on the line between two it balances, as a see-saw
  if (reach.some(([x, y]) => Math.abs(x) < SPOT_MM && Math.abs(y) < SPOT_MM)) return true;
  const angles = reach.map(([x, y]) => Math.atan2(y, x)).sort((a, b) => a - b);
  const gaps = angles.map((a, i) => (i + 1 < angles.length ? angles[i + 1] : angles[0] + 2 * Math.PI) - a);
  return Math.max(...gaps) <= Math.PI + 1e-6;
}
