/**
 * What a device is made of: board, chassis, parts in sockets, with names and measures. Millimetres, degrees and grams are
 * the units of a kit sheet; the yard turns them into metres and kilograms. Values without a source are Moss Bell's own
 * choice for the invented device.
 */
import * as z from 'zod';
import { BOARDS, type Board, type BoardName } from './boards.ts';
import { PARTS } from './parts/parts.ts';
import { currentOf, LED_COLOURS, PIN_A, rightOhm } from '../circuit/led.ts';
import { say, word } from '../words.ts';

const mm = (min: number, max: number) => z.number().min(min).max(max);
/** The sockets of its board that a kind of part fits. */
export const socketsFor = (kit: Kit, type: Part['type']): readonly string[] =>
  socketsOf(kit).filter((socket) => boardOf(kit).sockets[socket] === PARTS[type].fits);
export const boardOf = (kit: Kit): Board => BOARDS[kit.device];
export const socketsOf = (kit: Kit): readonly string[] => Object.keys(boardOf(kit).sockets);
/** Where a block that names such a part looks first: at the first one there is, or where one would go. */
export const firstSocket = (kit: Kit, type: Part['type']): string | undefined =>
  kit.parts.find((p) => p.type === type)?.socket ?? socketsFor(kit, type).find((s) => !partAt(kit, s));

export const partSchema = z.strictObject({
  socket: z.string().min(1).max(8),
  type: z.enum(['motor', 'servo', 'spin', 'line', 'distance', 'colour', 'lamp']),
  /** what the builder calls it; shown in the blocks and printed in the text */
  name: z.string().trim().min(1).max(40),
  /** a motor that drives a wheel says which */
  drives: z.enum(['left', 'right']).optional(),
  /** how a motor is mounted: mirrored turns the wheel the other way */
  mounted: z.enum(['normal', 'mirrored']).optional(),
  /** where a servo's horn stands at 0, degrees */
  hornDeg: z.number().min(-90).max(90).optional(),
  /** how its plug is put in; the wrong way round a servo is dead */
  plug: z.enum(['right', 'wrong']).optional(),
  /** angles beyond which something is in the horn's way, degrees */
  freeFromDeg: z.number().min(0).max(180).optional(),
  freeToDeg: z.number().min(0).max(180).optional(),
  /** a bare LED in the lamp's socket: the resistor before it, ohms, and its colour; a lamp without these has its own */
  ohm: z.number().min(0).max(1e6).optional(),
  colour: z.enum(LED_COLOURS).optional(),
  /** a line sensor sits left or right of the middle */
  side: z.enum(['left', 'right']).optional()
});
export type Part = z.infer<typeof partSchema>;

export const kitSchema = z.strictObject({
  device: z.enum(Object.keys(BOARDS) as [BoardName, ...BoardName[]]),
  name: z.string().trim().min(1).max(60),
  body: z.strictObject({
    lengthMm: mm(40, 600),
    widthMm: mm(20, 600),
    axleFromRearMm: mm(0, 600),
    massKg: z.number().min(0.01).max(20),
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
  /** what was measured of one device: its program reckons with this instead */
  measured: z
    .strictObject({
      device: z.string().min(1).max(60),
      leftDiameterMm: mm(10, 300),
      rightDiameterMm: mm(10, 300),
      trackMm: mm(20, 700)
    })
    .optional(),
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
    fullV: z.number().min(0.5).max(60),
    emptyV: z.number().min(0).max(60),
    ohm: z.number().min(0).max(20),
    ampereHours: z.number().min(0.05).max(50)
  }),
  lineSensors: z.strictObject({ apartMm: mm(4, 200), aheadMm: mm(0, 300), threshold: z.number().min(0).max(100) }),
  /** a board for the hand: how its display is turned, and after how many minutes without a touch it sleeps (0: never) */
  display: z.strictObject({ turnedDeg: z.literal([0, 90, 180, 270]) }).optional(),
  sleepMin: z.number().min(0).max(120).optional(),
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
    { socket: 'J1', type: 'motor', name: 'left wheel', drives: 'left', mounted: 'mirrored' },
    { socket: 'J2', type: 'motor', name: 'right wheel', drives: 'right', mounted: 'normal' },
    { socket: 'J4', type: 'servo', name: 'striker', hornDeg: 20 },
    { socket: 'J5', type: 'servo', name: 'pan', hornDeg: 0 },
    { socket: 'J7', type: 'distance', name: 'nose' },
    { socket: 'J8', type: 'line', name: 'left', side: 'left' },
    { socket: 'J9', type: 'line', name: 'right', side: 'right' }
  ]
};
/**
 * A board for the hand, shaped like a plant label: no wheels. What a kit says of wheels and motors holds for none of its
 * parts; `volts` is the rated voltage of its battery.
 */
export const trowel: Kit = {
  ...barrow,
  device: 'trowel',
  name: 'Trowel',
  body: {
    lengthMm: 92,
    widthMm: 34,
    axleFromRearMm: 46,
    massKg: 0.028,
    massBehindAxleMm: 0,
    casterBehindMassMm: 1,
    heightOfMassMm: 4
  },
  motor: { ...barrow.motor, volts: 3 },
  battery: { fullV: 3.2, emptyV: 2.2, ohm: 0.4, ampereHours: 0.7 },
  display: { turnedDeg: 0 },
  sleepMin: 0,
  parts: [
    { socket: 'J1', type: 'servo', name: 'vent', hornDeg: 0 },
    { socket: 'J2', type: 'lamp', name: 'lamp' }
  ]
};
export const kits = { barrow, trowel } as const;
export const hasWheels = (kit: Kit): boolean => boardOf(kit).wheels;

/** The wheels that measured moves reckon with: as measured, or as the kit sheet has them. */
export const reckoned = ({ wheels, measured }: Kit): Kit['wheels'] =>
  measured
    ? {
        ...wheels,
        leftDiameterMm: measured.leftDiameterMm,
        rightDiameterMm: measured.rightDiameterMm,
        trackMm: measured.trackMm
      }
    : wheels;

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
    ...kit.parts.flatMap((p) => [p.type, ...(PARTS[p.type].abilities ?? [])]),
    ...boardOf(kit).builtIn,
    ...(hasWheels(kit) && wheelMotor(kit, 'left') && wheelMotor(kit, 'right') ? ['wheels'] : [])
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
    const ampere = part.type === 'lamp' ? currentOf(part) : undefined;
    if (ampere !== undefined && ampere > PIN_A)
      found.push({
        socket: part.socket,
        text: say('{mA} mA would flow through the LED in {socket}; it and the pin take 20 mA. Put {ohm} Ω before it.', {
          mA: Math.round(ampere * 1000),
          socket: part.socket,
          ohm: rightOhm(part.colour)
        })
      });
    if (part.type === 'servo' && part.plug === 'wrong')
      found.push({
        socket: part.socket,
        text: say('The plug of the {name} in {socket} is the wrong way round: it stays dead. Turn the plug.', {
          name: part.name,
          socket: part.socket
        })
      });
    if (!socketsOf(kit).includes(part.socket))
      found.push({
        socket: part.socket,
        text: say('{name} has no socket {socket}.', { name: kit.name, socket: part.socket })
      });
    else if (!socketsFor(kit, part.type).includes(part.socket))
      found.push({ socket: part.socket, text: doesNotFit(kit, part.type, part.socket) });
  }
  for (const side of hasWheels(kit) ? (['left', 'right'] as const) : [])
    if (kit.parts.filter((p) => p.drives === side).length !== 1)
      found.push({ socket: '', text: say('The {side} wheel needs exactly one motor.', { side }) });
  return found;
}
/** What is said of a part in a socket that does not take it. */
export function doesNotFit(kit: Kit, type: Part['type'], socket: string): string {
  const n = socketsFor(kit, type).join(', ');
  return n
    ? say('A {typeName} does not fit socket {socket}. It goes into {n}.', { typeName: typeName(type), socket, n })
    : say('{name} has no socket for {aPart}.', { name: kit.name, aPart: aPart(type) });
}
export const typeName = (type: Part['type']): string => word(PARTS[type].words[0]);
/** The part as it is when it is plugged in. */
export const plugged = (kit: Kit, socket: string, type: Part['type']): Part => ({
  socket,
  type,
  ...PARTS[type].comesWith(kit)
});

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
export const aPart = (type: Part['type']): string => word(PARTS[type].words[1]);
