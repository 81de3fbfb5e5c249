/**
 * What a device is made of: board, chassis, parts in sockets, with names and measures. Millimetres, degrees and grams are
 * the units of a kit sheet; the yard turns them into metres and kilograms. Values without a source are Moss Bell's own
 * choice for the invented device.
 */
import * as z from 'zod';
import { later, say, word } from '../words.ts';

const mm = (min: number, max: number) => z.number().min(min).max(max);
export const SOCKETS = {
  motor: ['P', 'Q', 'R'],
  servo: ['U', 'V', 'W'],
  sensor: ['10', '20', '30', '40']
} as const;
export const socketsFor = (type: Part['type']): readonly string[] =>
  type === 'motor' ? SOCKETS.motor : type === 'servo' || type === 'spin' ? SOCKETS.servo : SOCKETS.sensor;

export const partSchema = z.strictObject({
  socket: z.string().min(1).max(8),
  type: z.enum(['motor', 'servo', 'spin', 'line', 'distance']),
  /** what the builder calls it; shown in the blocks and printed in the text */
  name: z.string().trim().min(1).max(40),
  /** a motor that drives a wheel says which */
  drives: z.enum(['left', 'right']).optional(),
  /** how a motor is mounted: mirrored turns the wheel the other way */
  mounted: z.enum(['normal', 'mirrored']).optional(),
  /** where a servo's horn stands at 0, degrees */
  hornDeg: z.number().min(-90).max(90).optional(),
  /** a line sensor sits left or right of the middle */
  side: z.enum(['left', 'right']).optional()
});
export type Part = z.infer<typeof partSchema>;

export const kitSchema = z.strictObject({
  device: z.literal('barrow'),
  name: z.string().trim().min(1).max(60),
  body: z.strictObject({
    lengthMm: mm(60, 600),
    widthMm: mm(40, 600),
    axleFromRearMm: mm(0, 600),
    massKg: z.number().min(0.05).max(20),
    /** centre of mass behind the axle; caster behind the centre of mass */
    massBehindAxleMm: mm(-200, 200),
    casterBehindMassMm: mm(1, 300),
    heightOfMassMm: mm(1, 300)
  }),
  wheels: z.strictObject({
    leftDiameterMm: mm(20, 200),
    rightDiameterMm: mm(20, 200),
    widthMm: mm(2, 60),
    trackMm: mm(40, 500)
  }),
  /** at the wheel, at `volts` */
  motor: z.strictObject({
    stallNm: z.number().min(0.01).max(5),
    freeTurnsPerS: z.number().min(0.1).max(20),
    frictionNm: z.number().min(0).max(1),
    inertiaKgM2: z.number().min(1e-6).max(0.1),
    countsPerTurn: z.number().int().min(4).max(10000),
    volts: z.number().min(1).max(48)
  }),
  battery: z.strictObject({
    fullV: z.number(),
    emptyV: z.number(),
    ohm: z.number().min(0),
    ampereHours: z.number().min(0.05).max(50)
  }),
  lineSensors: z.strictObject({ apartMm: mm(4, 200), aheadMm: mm(0, 300), threshold: z.number().min(0).max(100) }),
  board: z.strictObject({ stepUs: z.number().int().min(10).max(10000), accelerationCmS2: z.number().min(5).max(500) }),
  parts: z.array(partSchema).max(30)
});
export type Kit = z.infer<typeof kitSchema>;

export const barrow: Kit = {
  device: 'barrow',
  name: 'Barrow',
  body: {
    lengthMm: 150,
    widthMm: 104,
    axleFromRearMm: 85,
    massKg: 0.62,
    massBehindAxleMm: 12,
    casterBehindMassMm: 48,
    heightOfMassMm: 45
  },
  wheels: { leftDiameterMm: 68, rightDiameterMm: 68, widthMm: 14, trackMm: 124 },
  motor: { stallNm: 0.14, freeTurnsPerS: 2.3, frictionNm: 0.012, inertiaKgM2: 6e-4, countsPerTurn: 480, volts: 7.4 },
  battery: { fullV: 8.4, emptyV: 6.6, ohm: 0.25, ampereHours: 1.2 },
  lineSensors: { apartMm: 18, aheadMm: 45, threshold: 50 },
  board: { stepUs: 100, accelerationCmS2: 60 },
  parts: [
    { socket: 'P', type: 'motor', name: 'left wheel', drives: 'left', mounted: 'mirrored' },
    { socket: 'Q', type: 'motor', name: 'right wheel', drives: 'right', mounted: 'normal' },
    { socket: 'U', type: 'servo', name: 'striker', hornDeg: 20 },
    { socket: 'V', type: 'servo', name: 'pan', hornDeg: 0 },
    { socket: '10', type: 'distance', name: 'nose' },
    { socket: '20', type: 'line', name: 'left', side: 'left' },
    { socket: '30', type: 'line', name: 'right', side: 'right' }
  ]
};
export const kits = { barrow } as const;

export const partAt = (kit: Kit, socket: string): Part | undefined => kit.parts.find((p) => p.socket === socket);
export const wheelMotor = (kit: Kit, side: 'left' | 'right'): Part | undefined =>
  kit.parts.find((p) => p.type === 'motor' && p.drives === side);

/** The name of what sits in a socket, with the socket beside it where two parts share the name, or where it is empty. */
export function partName(kit: Kit, socket: string): string {
  const part = partAt(kit, socket);
  if (!part) return `${socket} (empty)`;
  return kit.parts.some((p) => p !== part && p.type === part.type && p.name === part.name)
    ? `${part.name} (${socket})`
    : part.name;
}

/** What one can do with the kit, for offering blocks: part types, and 'wheels' where both wheels are driven. */
export const abilities = (kit: Kit): Set<string> =>
  new Set([
    ...kit.parts.map((p) => p.type),
    // every Barrow has them on its board
    'lamps',
    'motion',
    ...(wheelMotor(kit, 'left') && wheelMotor(kit, 'right') ? ['wheels'] : [])
  ]);

export type Wiring = { socket: string; text: string };
/** The wiring check: what cannot work about the kit itself, whatever the program is. */
export function checkWiring(kit: Kit): Wiring[] {
  const found: Wiring[] = [];
  const seen = new Set<string>();
  for (const part of kit.parts) {
    if (seen.has(part.socket))
      found.push({
        socket: part.socket,
        text: say('Two parts are in socket {socket}. Move one of them.', { socket: part.socket })
      });
    seen.add(part.socket);
    if (!socketsFor(part.type).includes(part.socket))
      found.push({
        socket: part.socket,
        text: say('A {typeName} does not fit socket {socket}. It goes into {n}.', {
          typeName: typeName(part.type),
          socket: part.socket,
          n: socketsFor(part.type).join(', ')
        })
      });
  }
  for (const side of ['left', 'right'] as const)
    if (kit.parts.filter((p) => p.drives === side).length !== 1)
      found.push({ socket: '', text: say('The {side} wheel needs exactly one motor.', { side }) });
  return found;
}
const TYPES: Record<Part['type'], readonly [string, string]> = {
  motor: [later('motor'), later('a motor')],
  servo: [later('angle servo'), later('an angle servo')],
  spin: [later('spin servo'), later('a spin servo')],
  line: [later('line sensor'), later('a line sensor')],
  distance: [later('distance sensor'), later('a distance sensor')]
};
export const typeName = (type: Part['type']): string => word(TYPES[type][0]);

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
  parts: kit.parts.map((p) => (p.socket === socket ? { ...p, ...change } : p))
});
/** With its article. */
export const aPart = (type: Part['type']): string => word(TYPES[type][1]);
