/**
 * What a device is made of: board, chassis, parts in sockets, with names and measures. Millimetres, degrees and grams are
 * the units of a kit sheet; the yard turns them into metres and kilograms. Values without a source are Moss Bell's own
 * choice for the invented device.
 */
import * as z from 'zod';
import { BOARDS, type Board, type BoardName } from './boards.ts';
import { displayAbilities, displaySchema, rasterOf, type Raster } from './display.ts';
import { canOf, type WheelPlace } from './rolling.ts';
import { impossible } from './possible.ts';
import { place } from './parts/part.ts';
import { PARTS, partSchema } from './parts/parts.ts';
export { barrow, hauler, kits, saucer, trowel } from './kits.ts';

const mm = (min: number, max: number) => z.number().min(min).max(max);
/** The sockets of its board that a kind of part fits. */
export const socketsFor = (kit: Kit, type: Part['type']): readonly string[] =>
  socketsOf(kit).filter((socket) => boardOf(kit).sockets[socket] === PARTS[type].fits);
export const boardOf = (kit: Kit): Board => BOARDS[kit.device];
export const socketsOf = (kit: Kit): readonly string[] => Object.keys(boardOf(kit).sockets);
/** Where a block that names such a part looks first: at the first one there is, or where one would go. */
export const firstSocket = (kit: Kit, type: Part['type']): string | undefined =>
  kit.parts.find((p) => p.type === type)?.socket ?? socketsFor(kit, type).find((s) => !partAt(kit, s));

export type Part = z.infer<typeof partSchema>;

const point = z.strictObject({ xMm: z.number().min(-1000).max(1000), yMm: z.number().min(-1000).max(1000) });
/** Ahead is x, to the left is y; the origin is the point that measured moves reckon with. */
const chassis = z.strictObject({
  outline: z.array(point).min(3).max(64),
  massKg: z.number().min(0.01).max(20),
  massAt: point,
  heightOfMassMm: mm(1, 300),
  /** the body lies between these heights above the floor */
  fromMm: mm(0, 400),
  toMm: mm(1, 600),
  lamps: z.array(z.strictObject({ name: z.string().min(1).max(20), at: point })).max(12),
  /** where it stands on something that is no wheel */
  supports: z.array(point).max(8),
  /** its whole outline feels a touch, and where */
  rim: z.boolean(),
  /** bars that feel a touch: rectangles from one corner to the other */
  bars: z.array(z.strictObject({ name: z.string().min(1).max(20), from: point, to: point })).max(4)
});
export type Chassis = z.infer<typeof chassis>;
const wheel = z.strictObject({
  /** a motor says by it which wheel it drives */
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1).max(40),
  /** `deg`: the direction in which it rolls, 0 is ahead */
  at: place,
  diameterMm: mm(20, 200),
  widthMm: mm(2, 60),
  /** a tyre resists sideways, rollers do not */
  rim: z.enum(['tyre', 'rollers'])
});
export type Wheel = z.infer<typeof wheel>;
export type Side = 'left' | 'right';

/** GPIO numbers of common boards (common practice: none has more) */
export const LAST_PIN = 63;
const kitShape = z.strictObject({
  device: z.enum(Object.keys(BOARDS) as [BoardName, ...BoardName[]]),
  name: z.string().trim().min(1).max(60),
  chassis,
  /** none: a board for the hand */
  wheels: z.array(wheel).max(8),
  /** what was measured of one device, by its wheels' ids: its program reckons with this instead */
  measured: z
    .strictObject({
      device: z.string().min(1).max(60),
      wheels: z.record(
        z.string(),
        z.strictObject({
          diameterMm: mm(10, 300),
          xMm: z.number().min(-1000).max(1000),
          yMm: z.number().min(-1000).max(1000)
        })
      )
    })
    .optional(),
  /** the motors that come with the kit, all alike: at the wheel, at `volts` */
  motor: z.strictObject({
    stallNm: z.number().min(0.01).max(5),
    freeTurnsPerS: z.number().min(0.1).max(20),
    frictionNm: z.number().min(0).max(1),
    inertiaKgM2: z.number().min(1e-6).max(0.1),
    countsPerTurn: z.number().int().min(4).max(10000),
    volts: z.number().min(1).max(48)
  }),
  battery: z.strictObject({
    fullV: z.number().min(0.5).max(60),
    emptyV: z.number().min(0).max(60),
    ohm: z.number().min(0).max(20),
    ampereHours: z.number().min(0.05).max(50)
  }),
  display: displaySchema.optional(),
  /** a board for the hand: after how many minutes without a touch it sleeps (0: never) */
  sleepMin: z.number().min(0).max(120).optional(),
  board: z.strictObject({ stepUs: z.number().int().min(10).max(10000), accelerationCmS2: z.number().min(5).max(500) }),
  parts: z.array(partSchema).max(30),
  /** on a board of one's own: which lead hangs on which pin */
  pins: z.record(z.string().max(40), z.number().int().min(0).max(LAST_PIN)).optional()
});
export type Kit = z.infer<typeof kitShape>;
/** What no bench can be built from is refused; whatever else cannot be is told where the kit is looked at. */
export const kitSchema = kitShape.superRefine((kit, context) => {
  for (const { at, text, refused } of impossible(kit))
    if (refused) context.addIssue({ code: 'custom', path: at, message: text });
});

export const hasWheels = (kit: Kit): boolean => kit.wheels.length > 0;

/** How far a chassis reaches from its origin, mm. */
export function reach({ chassis: { outline } }: Kit): { rear: number; front: number; right: number; left: number } {
  const [x, y] = [outline.map((p) => p.xMm), outline.map((p) => p.yMm)];
  return { rear: Math.min(...x), front: Math.max(...x), right: Math.min(...y), left: Math.max(...y) };
}
/** The kit that measured moves reckon with: with its wheels as they were measured, or as the kit sheet has them. */
export const reckoned = ({ measured, ...kit }: Kit): Kit => ({
  ...kit,
  wheels: kit.wheels.map((w) => {
    const m = measured?.wheels[w.id];
    return m ? { ...w, diameterMm: m.diameterMm, at: { ...w.at, xMm: m.xMm, yMm: m.yMm } } : w;
  })
});
/** Where the wheels stand, for the drive; metres and radians. */
export const placesOf = (wheels: readonly Wheel[]): WheelPlace[] =>
  wheels.map(({ at, rim }) => ({ x: at.xMm / 1000, y: at.yMm / 1000, rolls: (at.deg * Math.PI) / 180, rim }));
/** The wheels of one side, where all of them roll ahead; of wheels that roll in several directions there are no sides. */
export const wheelsAt = ({ wheels }: Kit, side: Side): Wheel[] =>
  wheels.every((w) => w.at.deg === 0) ? wheels.filter((w) => (side === 'left' ? w.at.yMm > 0 : w.at.yMm < 0)) : [];
/** How far apart the sides are, mm; 0 where there are none. */
export function trackMm(kit: Kit): number {
  const mean = (side: Side): number => wheelsAt(kit, side).reduce((sum, w, _, all) => sum + w.at.yMm / all.length, 0);
  return mean('left') - mean('right');
}
/** The diameter of the wheels of a side: of the first one, mm. */
export const diameterMm = (kit: Kit, side: Side): number => wheelsAt(kit, side)[0]?.diameterMm ?? 0;
/** Of all wheels, for a way that is told in wheel turns, mm. */
export const meanDiameterMm = ({ wheels }: Kit): number =>
  wheels.reduce((sum, w) => sum + w.diameterMm, 0) / wheels.length;
/** The kit with other measures of its sides. */
export const resized = (kit: Kit, to: { left?: number; right?: number; trackMm?: number }): Kit => ({
  ...kit,
  wheels: kit.wheels.map((w) => ({
    ...w,
    diameterMm: (w.at.yMm > 0 ? to.left : to.right) ?? w.diameterMm,
    at: to.trackMm === undefined ? w.at : { ...w.at, yMm: (Math.sign(w.at.yMm) * to.trackMm) / 2 }
  }))
});

export const partAt = (kit: Kit, socket: string): Part | undefined => kit.parts.find((p) => p.socket === socket);
type MotorPart = Extract<Part, { type: 'motor' }>;
export const motorOf = (kit: Kit, wheelId: string): MotorPart | undefined =>
  kit.parts.find((p): p is MotorPart => p.type === 'motor' && p.drives === wheelId);
/** What really is in the sockets: where a kit sheet has two parts in one, the first of them. */
export const inSockets = ({ parts }: Kit): Part[] =>
  parts.filter((p, i) => parts.findIndex((other) => other.socket === p.socket) === i);
/** The wheel that a part drives, if it drives one. */
export const wheelOf = (kit: Kit, part: Part | undefined): Wheel | undefined =>
  part?.type === 'motor' ? kit.wheels.find((w) => w.id === part.drives) : undefined;
/** The motors of a side, the first one first. */
export const motorsAt = (kit: Kit, side: Side): MotorPart[] =>
  wheelsAt(kit, side).flatMap((w) => motorOf(kit, w.id) ?? []);

/** What a picture for its display is made of, if it has one. */
export const rasterFor = ({ display }: Kit): Raster | undefined => display && rasterOf(display);
/** Its lamps by their names. */
export const lampsOf = ({ chassis }: Kit): string[] => [...new Set(chassis.lamps.map((l) => l.name))];
/** What of it feels a touch: a bar by its name, the rim, the edges of a board. */
export const touchesOf = (kit: Kit): string[] => [
  ...kit.chassis.bars.map((b) => b.name),
  ...(kit.chassis.rim ? ['rim'] : []),
  ...(boardOf(kit).builtIn.includes('edges') ? ['left edge', 'right edge'] : [])
];

/** The name of what sits in a socket, with the socket beside it where two parts share the name, or where it is empty. */
export function partName(kit: Kit, socket: string): string {
  const part = partAt(kit, socket);
  if (!part) return `${socket} (empty)`;
  return kit.parts.some((p) => p !== part && p.type === part.type && p.name === part.name)
    ? `${part.name} (${socket})`
    : part.name;
}

/** What one can do with the kit, for offering blocks: part types, and 'drive', 'slide' and 'wheels' for what its wheels can do. */
export const abilities = (kit: Kit): Set<string> =>
  new Set([
    ...kit.parts.flatMap((p) => [p.type, ...(PARTS[p.type].abilities ?? [])]),
    ...boardOf(kit).builtIn,
    ...displayAbilities(kit.display),
    ...drivenBy(kit)
  ]);
/** What its wheels can do, where each has a motor: drive and turn, slide, and be told side by side. */
function drivenBy(kit: Kit): string[] {
  if (!hasWheels(kit) || kit.wheels.some((w) => !motorOf(kit, w.id))) return [];
  const can = canOf(placesOf(kit.wheels));
  return [
    ...(can.drive && can.turn ? ['drive'] : []),
    ...(can.slide ? ['slide'] : []),
    ...(wheelsAt(kit, 'left').length && wheelsAt(kit, 'right').length ? ['wheels'] : [])
  ];
}
/** The part as it is when it is plugged in. */
export const plugged = (kit: Kit, socket: string, type: Part['type']): Part =>
  ({ socket, type, ...PARTS[type].comesWith(kit) }) as Part;

/**
 * Moves the part in `from` to `to`; what was in `to` changes places with it.
 * Sockets for other kinds of part are refused by checkWiring, not here.
 */
export function movePart(kit: Kit, from: string, to: string): Kit {
  const moved = (p: Part): Part =>
    p.socket === from ? { ...p, socket: to } : p.socket === to ? { ...p, socket: from } : p;
  return { ...kit, parts: kit.parts.map(moved) };
}
export const changePart = (kit: Kit, socket: string, change: Partial<Part>): Kit => ({
  ...kit,
  parts: kit.parts.map((p) => (p.socket === socket ? ({ ...p, ...change } as Part) : p))
});
