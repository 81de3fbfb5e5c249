/**
 * Files and texts from before. Version 1: sockets were not one row but P Q R, U V W, 10 to 40, and L on the board for the
 * hand. Version 2: a kit had two wheels and a pair of line sensors, told by their measures. Version 3: every display was a
 * matrix of 7 x 5, and a digit in a picture stood for its tens of percent.
 */
import type { BoardName } from './boards.ts';
import { renewedPicture, repainted, repaintedText } from './repaint.ts';

const row = (sockets: string): ReadonlyMap<string, string> =>
  new Map(sockets.split(' ').map((socket, i) => [socket, `J${i + 1}`]));
/** Of a run of then there is only whether its machine had wheels. */
export const boardBefore = (wheels: boolean): BoardName => (wheels ? 'barrow' : 'trowel');
const BEFORE: Readonly<Partial<Record<BoardName, ReadonlyMap<string, string>>>> = {
  barrow: row('P Q R U V W 10 20 30 40'),
  trowel: row('U L')
};
/** @returns the socket as it is called now; one that never was stays */
export const renewedSocket = (socket: string, board: BoardName): string => BEFORE[board]?.get(socket) ?? socket;

const PART = /^(\s*[A-Za-z_]\w*\s*=\s*(?:Motor|Servo|Spin|Line|Colour|Distance)\(\s*["'])(\w+)(["'])/gm;
const WHEEL = /(\b(?:left|right)\s*=\s*["'])(\w+)(["'])/g;
/** A text of Python with the sockets in its lines on top as they are called now. */
export const renewedText = (text: string, board: BoardName): string => {
  const renewed = (_: string, before: string, socket: string, after: string): string =>
    `${before}${renewedSocket(socket, board)}${after}`;
  return text
    .replace(PART, renewed)
    .replace(/^[A-Za-z_]\w*\s*=\s*Wheels\(.*\)/gm, (line) => line.replace(WHEEL, renewed));
};

type Json = Record<string, unknown>;
const isJson = (value: unknown): value is Json => typeof value === 'object' && value !== null;
/** Slots that name a socket, in every kind of block of then. */
const NAMING = ['motor', 'servo', 'sensor'];
/** A program of then, whatever is in it: its blocks name the sockets as they are called now. */
function renewedBlocks(value: unknown, board: BoardName): unknown {
  if (Array.isArray(value)) return value.map((one) => renewedBlocks(one, board));
  if (!isJson(value)) return value;
  const out = Object.fromEntries(Object.entries(value).map(([key, one]) => [key, renewedBlocks(one, board)]));
  const { kind, slots } = out;
  if (typeof kind !== 'string' || !isJson(slots)) return out;
  for (const name of NAMING) {
    const socket = slots[name];
    if (typeof socket === 'string') slots[name] = renewedSocket(socket, board);
  }
  return out;
}
const renewedKit = (kit: Json, board: BoardName): Json => ({
  ...kit,
  ...(Array.isArray(kit.parts)
    ? {
        parts: kit.parts.map((p: unknown) =>
          isJson(p) && typeof p.socket === 'string' ? { ...p, socket: renewedSocket(p.socket, board) } : p
        )
      }
    : {})
});
/** The project, and the other devices in its yard, each as it is now. */
const ofEach = (project: Json, now: (one: Json) => Json): Json => {
  const { others } = project;
  return {
    ...now(project),
    ...(Array.isArray(others) ? { others: others.map((o: unknown) => (isJson(o) ? now(o) : o)) } : {})
  };
};
/** A project of version 1 as one of version 2; what is wrong with it is left for the check. */
export function renewedProject(project: Json): Json {
  const renewed = (one: Json): Json => {
    const board = boardBefore(!isJson(one.kit) || one.kit.device !== 'trowel');
    return {
      ...one,
      ...('program' in one ? { program: renewedBlocks(one.program, board) } : {}),
      ...(isJson(one.kit) ? { kit: renewedKit(one.kit, board) } : {}),
      ...(typeof one.text === 'string' ? { text: renewedText(one.text, board) } : {})
    };
  };
  return ofEach(project, renewed);
}

const numbers = (value: unknown, names: readonly string[]): Record<string, number> | undefined =>
  isJson(value) && names.every((n) => typeof value[n] === 'number')
    ? Object.fromEntries(names.map((n) => [n, value[n] as number]))
    : undefined;
const BODY = [
  'lengthMm',
  'widthMm',
  'axleFromRearMm',
  'massKg',
  'massBehindAxleMm',
  'casterBehindMassMm',
  'heightOfMassMm'
];
const at = (xMm: number, yMm: number): Json => ({ xMm, yMm });
/** The kit of version 2 as one of version 3: its body as a chassis, its wheels and sensors each with a place. */
function placedKit(kit: Json): Json {
  const body = numbers(kit.body, BODY);
  const wheels = numbers(kit.wheels, ['leftDiameterMm', 'rightDiameterMm', 'widthMm', 'trackMm']);
  const line = numbers(kit.lineSensors, ['apartMm', 'aheadMm', 'threshold']);
  if (!body || !wheels || !line || !Array.isArray(kit.parts)) return kit;
  const { body: _, wheels: _w, lineSensors: _l, measured, ...rest } = kit;
  const rear = -body.axleFromRearMm;
  const front = rear + body.lengthMm;
  const half = body.widthMm / 2;
  const rolls = kit.device !== 'trowel';
  const shoulder = rear + body.lengthMm * 0.28;
  const cut = 12;
  const outline = rolls
    ? [
        at(rear, -half + cut),
        at(rear + cut, -half),
        at(front - cut, -half),
        at(front, -half + cut),
        at(front, half - cut),
        at(front - cut, half),
        at(rear + cut, half),
        at(rear, half - cut)
      ]
    : [at(rear, 0), at(shoulder, -half), at(front, -half), at(front, half), at(shoulder, half)];
  const sides = [
    ['left', 1],
    ['right', -1]
  ] as const;
  const was = numbers(measured, ['leftDiameterMm', 'rightDiameterMm', 'trackMm']);
  const seats = [
    [6, 26],
    [6, -22],
    [-20, 2]
  ].map(([x, y]) => ({ ...at(x, y), deg: 0 }));
  let seated = 0;
  const placed = (p: Json): Json => {
    const { side, ...part } = p;
    if ((p.type === 'servo' || p.type === 'spin') && rolls) return { ...part, at: seats[Math.min(seated++, 2)] };
    if (p.type === 'distance') return { ...part, at: { ...at(front + 6, 0), deg: 0 } };
    if (p.type === 'colour') return { ...part, at: { ...at(line.aheadMm, 0), deg: 0 } };
    if (p.type !== 'line') return part;
    const aside = (line.apartMm / 2) * (side === 'right' ? -1 : 1);
    return { ...part, at: { ...at(line.aheadMm, aside), deg: 0 }, threshold: line.threshold };
  };
  return {
    ...rest,
    chassis: {
      outline,
      massKg: body.massKg,
      massAt: at(-body.massBehindAxleMm || 0, 0),
      heightOfMassMm: body.heightOfMassMm,
      ...(rolls
        ? {
            fromMm: 27,
            toMm: 67,
            face: { ...at(rear + 31, 0), deg: 0 },
            lamps: [
              { name: 'left', at: at(front - 16, half - 18) },
              { name: 'right', at: at(front - 16, 18 - half) }
            ]
          }
        : { fromMm: 2, toMm: 6, face: { ...at(31, 0), deg: 0 }, lamps: [{ name: 'left', at: at(-1, 8) }] }),
      supports: [rolls ? at(-body.massBehindAxleMm - body.casterBehindMassMm, 0) : at(0, 0)],
      rim: false,
      bars: rolls ? [{ name: 'nose', from: at(front, -21), to: at(front + 6, 21) }] : []
    },
    wheels: rolls
      ? sides.map(([id, way]) => ({
          id,
          name: `${id} wheel`,
          at: { ...at(0, (way * wheels.trackMm) / 2), deg: 0 },
          diameterMm: wheels[`${id}DiameterMm`],
          widthMm: wheels.widthMm,
          rim: 'tyre'
        }))
      : [],
    ...(was && isJson(measured)
      ? {
          measured: {
            device: measured.device,
            wheels: Object.fromEntries(
              sides.map(([id, way]) => [id, { diameterMm: was[`${id}DiameterMm`], ...at(0, (way * was.trackMm) / 2) }])
            )
          }
        }
      : {}),
    parts: kit.parts.map((p: unknown) => (isJson(p) ? placed(p) : p))
  };
}
/** A project of version 2 as one of version 3. */
export function placedProject(project: Json): Json {
  const placed = (one: Json): Json => (isJson(one.kit) ? { ...one, kit: placedKit(one.kit) } : one);
  return ofEach(project, placed);
}
/** The kit of version 3 as one of version 4: its display as what it is and where. */
function displayedKit(kit: Json): Json {
  if (!isJson(kit.chassis) || !('face' in kit.chassis)) return kit;
  const { face, ...chassis } = kit.chassis;
  const turnedDeg = isJson(kit.display) ? kit.display.turnedDeg : 0;
  return { ...kit, chassis, display: { type: 'matrix', columns: 7, rows: 5, levels: 5, at: face, turnedDeg } };
}
/** A project of version 3 as one of version 4. */
export function displayedProject(project: Json): Json {
  const renewed = ofEach(project, (one) => ({
    ...one,
    ...('program' in one ? { program: repainted(one.program) } : {}),
    ...(isJson(one.kit) ? { kit: displayedKit(one.kit) } : {}),
    ...(typeof one.text === 'string' ? { text: repaintedText(one.text) } : {})
  }));
  const { pictures } = renewed;
  if (!isJson(pictures)) return renewed;
  const painted = Object.entries(pictures).map(([name, p]) => [name, typeof p === 'string' ? renewedPicture(p) : p]);
  return { ...renewed, pictures: Object.fromEntries(painted) };
}
/** The quirks of a run of then, by its wheels. */
export function placedQuirks(quirks: unknown): unknown {
  if (!isJson(quirks) || !('leftDiameter' in quirks)) return quirks;
  const { leftDiameter, rightDiameter, track, leftMotor, rightMotor, leftFree, rightFree, ...rest } = quirks;
  return {
    ...rest,
    wheels: {
      left: { diameter: leftDiameter, torque: leftMotor, free: leftFree },
      right: { diameter: rightDiameter, torque: rightMotor, free: rightFree }
    },
    spread: track
  };
}
