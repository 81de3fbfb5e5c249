/** The parts that a text names at its top, taken into a kit: their sockets and the measures of the wheels. */
import {
  boardOf,
  doesNotFit,
  kits,
  partAt,
  reckoned,
  socketsFor,
  typeName,
  wheelMotor,
  type Kit,
  type Part
} from '../../kit/kit.ts';
import { renewedText } from '../../kit/before.ts';
import type { Board } from '../../kit/boards.ts';
import { PARTS } from '../../kit/parts/parts.ts';
import { say } from '../../words.ts';
import { identifier, natural } from './names.ts';
import { CLASSES, typeOf, type NamedType } from './parts.ts';
import { partIdentifier } from './print.ts';

type NamedPart = { line: number; name: string; type: NamedType; socket: string };
type NamedWheels = {
  line: number;
  left?: string;
  right?: string;
  leftDiameterMm?: number;
  rightDiameterMm?: number;
  trackMm?: number;
};
const PART = /^([A-Za-z_]\w*)\s*=\s*([A-Z]\w*)\(\s*["'](\w+)["']\s*\)/;
const WHEELS = /^[A-Za-z_]\w*\s*=\s*Wheels\((.*)\)/;

/** What stands at the top of a text, line by line; lines count from 0. */
function namedIn(text: string): { parts: NamedPart[]; wheels?: NamedWheels } {
  const parts: NamedPart[] = [];
  let wheels: NamedWheels | undefined;
  text.split('\n').forEach((source, line) => {
    const part = PART.exec(source);
    const type = part && typeOf(part[2]);
    if (type) parts.push({ line, name: part[1], type, socket: part[3] });
    const given = WHEELS.exec(source)?.[1];
    if (given === undefined) return;
    const of = (key: string): string | undefined =>
      new RegExp(`\\b${key}\\s*=\\s*(\\([^)]*\\)|"[^"]*"|'[^']*'|[\\d.]+)`).exec(given)?.[1];
    const socket = (key: string): string | undefined => of(key)?.replace(/["']/g, '');
    const [one, two] = (of('diameter_mm') ?? '').replace(/[()\s]/g, '').split(',');
    const mm = (t: string | undefined): number | undefined => (t ? Number(t) : undefined);
    wheels = {
      line,
      left: socket('left'),
      right: socket('right'),
      leftDiameterMm: mm(one),
      rightDiameterMm: mm(two || one),
      trackMm: mm(of('track_mm'))
    };
  });
  return { parts, ...(wheels ? { wheels } : {}) };
}

/** What a text may name that not every board has. */
const NAMED: readonly (readonly [RegExp, (board: Board) => boolean])[] = [
  [/\bWheels\b/, (board) => board.wheels],
  ...Object.entries({
    nose: 'Nose',
    gyro: 'Gyro',
    edges: 'Edge|edge',
    light: 'light',
    temperature: 'temperature',
    moisture: 'moisture'
  }).map(
    ([needs, names]) => [new RegExp(`\\b(${names})\\b`), (board: Board) => board.builtIn.includes(needs)] as const
  ),
  ...Object.entries(CLASSES).map(
    ([type, name]) =>
      [
        new RegExp(`\\b${name}\\b`),
        (board: Board) => Object.values(board.sockets).includes(PARTS[type as NamedType].fits)
      ] as const
  )
];
/** The device that a text is for: the one that lacks the least of what it names; the first of several. */
export function deviceOf(text: string): Kit {
  const code = text.replace(/#.*/g, '');
  const named = NAMED.filter(([name]) => name.test(code));
  const lacks = (kit: Kit): number => named.filter(([, has]) => !has(boardOf(kit))).length;
  return Object.values(kits).reduce<Kit>(
    (best, kit) => (lacks(kit) < lacks(best) ? kit : best),
    Object.values(kits)[0]
  );
}

/** @returns the kit with what the text says of it, and line by line what of that could not be taken */
export function fitted(text: string, kit: Kit): { kit: Kit; lost: { line: number; message: string }[] } {
  const { parts: named, wheels } = namedIn(renewedText(text, kit.device));
  const lost: { line: number; message: string }[] = [];
  let parts: Part[] = kit.parts.map((p) => ({ ...p }));
  const at = (socket: string): Part | undefined => parts.find((p) => p.socket === socket);
  const claimed = new Set([...named.map((n) => n.socket), wheels?.left, wheels?.right]);
  /** a part of that kind comes into a socket: the one that the text names nowhere, or a new one */
  const plug = (line: number, type: NamedType, socket: string, keep: (p: Part) => boolean): Part | undefined => {
    const there = at(socket);
    if (there?.type === type) return there;
    if (!socketsFor(kit, type).includes(socket)) {
      lost.push({ line, message: doesNotFit(kit, type, socket) });
      return undefined;
    }
    if (there && claimed.has(socket) && named.some((n) => n.socket === socket && n.type === there.type)) {
      lost.push({ line, message: say('Two parts are in socket {socket}. Move one of them.', { socket }) });
      return undefined;
    }
    const free = parts.find((p) => p.type === type && !claimed.has(p.socket) && keep(p));
    parts = parts.filter((p) => p !== there);
    if (free) free.socket = socket;
    else parts.push({ socket, type, name: typeName(type) });
    return at(socket);
  };
  for (const { line, name, type, socket } of named) {
    const part = plug(line, type, socket, (p) => !p.drives);
    if (!part || type === 'distance') continue;
    const now = identifier(partIdentifier(part, type, socket));
    // it is called as the text calls it
    if (name !== now && !name.startsWith(`${now}_`) && identifier(part.name) !== name) part.name = natural(name);
  }
  let sizes = { ...kit.wheels };
  let measured = kit.measured;
  if (wheels) {
    for (const side of ['left', 'right'] as const) {
      const socket = wheels[side];
      if (!socket || wheelMotor({ ...kit, parts }, side)?.socket === socket) continue;
      const before = parts.find((p) => p.drives === side);
      const motor = plug(wheels.line, 'motor', socket, (p) => p.drives === side);
      if (!motor) continue;
      if (before && before !== motor) {
        const { drives: _, ...rest } = before;
        parts = parts.map((p) => (p === before ? rest : p));
      }
      motor.drives = side;
    }
    const is = reckoned(kit);
    const range = { leftDiameterMm: [20, 200], rightDiameterMm: [20, 200], trackMm: [40, 500] } as const;
    for (const key of Object.keys(range) as (keyof typeof range)[]) {
      const mm = wheels[key];
      const [low, high] = range[key];
      if (mm === undefined || mm === is[key]) continue;
      if (mm >= low && mm <= high) {
        if (measured) sizes = { ...sizes, ...is };
        measured = undefined;
        sizes = { ...sizes, [key]: mm };
      } else
        lost.push({
          line: wheels.line,
          message: say('A wheel can be from {low} to {high} mm; {value} was not taken.', { low, high, value: mm })
        });
    }
  }
  const { measured: _, ...rest } = kit;
  return { kit: { ...rest, ...(measured ? { measured } : {}), wheels: sizes, parts }, lost };
}
/** Sockets that the wheels of a text name and that hold no motor. */
export const missingMotors = (text: string, kit: Kit): { line: number; socket: string; there?: Part }[] => {
  const { wheels } = namedIn(renewedText(text, kit.device));
  return (['left', 'right'] as const).flatMap((side) => {
    const socket = wheels?.[side];
    const there = socket === undefined ? undefined : partAt(kit, socket);
    return wheels && socket !== undefined && there?.type !== 'motor'
      ? [{ line: wheels.line, socket, ...(there ? { there } : {}) }]
      : [];
  });
};
