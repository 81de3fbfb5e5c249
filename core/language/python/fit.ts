/** The parts that a text names at its top, taken into a kit: their sockets and the measures of the wheels. */
import {
  boardOf,
  hasWheels,
  kits,
  motorOf,
  partAt,
  plugged,
  reckoned,
  resized,
  socketsFor,
  trackMm,
  wheelsAt,
  type Kit,
  type Part,
  type Wheel
} from '../../kit/kit.ts';
import { doesNotFit } from '../../kit/wiring.ts';
import { renewedText } from '../../kit/before.ts';
import type { Board } from '../../kit/boards.ts';
import { PARTS, typeName } from '../../kit/parts/parts.ts';
import { say } from '../../words.ts';
import { identifier, natural } from './names.ts';
import { CLASSES, typeOf, type NamedType } from './parts.ts';
import { partIdentifier } from './print.ts';

type NamedPart = { line: number; name: string; type: NamedType; socket: string };
type NamedWheels = {
  line: number;
  left: string[];
  right: string[];
  diametersMm: number[];
  trackMm?: number;
  /** wheels that roll in several directions, or stand not alike on both sides: socket, mm ahead and to the left, degrees */
  at: { socket: string; xMm: number; yMm: number; deg: number }[];
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
    const of = (key: string): string =>
      new RegExp(`\\b${key}\\s*=\\s*(\\((?:[^()]|\\([^()]*\\))*\\)|"[^"]*"|'[^']*'|[\\d.]+)`).exec(given)?.[1] ?? '';
    const names = (text: string): string[] => [...text.matchAll(/["']([^"']*)["']/g)].map((m) => m[1]);
    const numbers = (text: string): number[] => [...text.matchAll(/-?\d+(\.\d+)?/g)].map((m) => Number(m[0]));
    const track = numbers(of('track_mm'))[0];
    wheels = {
      line,
      left: names(of('left')),
      right: names(of('right')),
      diametersMm: numbers(of('diameter_mm')),
      ...(track === undefined ? {} : { trackMm: track }),
      at: [...of('at').matchAll(/\(\s*(["']\w+["'])([^()]*)\)/g)].map(([, name, rest]) => {
        const [xMm = 0, yMm = 0, deg = 0] = numbers(rest);
        return { socket: names(name)[0], xMm, yMm, deg };
      })
    };
  });
  return { parts, ...(wheels ? { wheels } : {}) };
}

/** What a text may name that not every board has; wheels are the kit's. */
const NAMED: readonly (readonly [RegExp, (board: Board) => boolean])[] = [
  ...Object.entries({
    nose: 'Nose',
    rim: 'Rim',
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
  const { wheels } = namedIn(code);
  // as many on a side as the text names; or as many in all, where they roll in several directions
  const fits = (kit: Kit, { left, at }: NamedWheels): boolean =>
    at.length
      ? !!wheelsAt(kit, 'left').length === at.every((w) => w.deg === 0) && kit.wheels.length === at.length
      : wheelsAt(kit, 'left').length === left.length;
  const lacksWheels = (kit: Kit): boolean =>
    /\bWheels\b/.test(code) && (!hasWheels(kit) || (!!wheels && !fits(kit, wheels)));
  const lacks = (kit: Kit): number => named.filter(([, has]) => !has(boardOf(kit))).length + (lacksWheels(kit) ? 1 : 0);
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
  const claimed = new Set([...named.map((n) => n.socket), ...socketsOf(wheels)]);
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
    else parts.push({ ...plugged({ ...kit, parts }, socket, type), name: typeName(type) });
    return at(socket);
  };
  for (const { line, name, type, socket } of named) {
    const part = plug(line, type, socket, (p) => p.type !== 'motor' || !p.drives);
    if (!part || type === 'distance') continue;
    const now = identifier(partIdentifier(part, type, socket));
    // it is called as the text calls it
    if (name !== now && !name.startsWith(`${now}_`) && identifier(part.name) !== name) part.name = natural(name);
  }
  const withParts = (): Kit => ({ ...kit, parts });
  for (const { wheel, socket } of wheels ? asked(kit, wheels) : []) {
    if (motorOf(withParts(), wheel.id)?.socket === socket) continue;
    const before = motorOf(withParts(), wheel.id);
    const motor = plug(wheels!.line, 'motor', socket, (p) => p.type === 'motor' && p.drives === wheel.id);
    if (motor?.type !== 'motor') continue;
    if (before && before !== motor) {
      const { drives: _, ...rest } = before;
      parts = parts.map((p) => (p === before ? rest : p));
    }
    motor.drives = wheel.id;
  }
  const sized = wheels ? measuredBy(withParts(), wheels, lost) : withParts();
  return { kit: sized, lost };
}
/** Every socket that the wheels of a text name. */
const socketsOf = (wheels: NamedWheels | undefined): string[] =>
  wheels ? [...wheels.left, ...wheels.right, ...wheels.at.map((w) => w.socket)] : [];
/** Which wheel each of them turns: one after another on their side, or as they come in the kit. */
const asked = (kit: Kit, { left, right, at }: NamedWheels): { wheel: Wheel; socket: string }[] => {
  const list = (wheels: Wheel[], sockets: string[]) =>
    wheels.flatMap((wheel, i) => (sockets[i] ? [{ wheel, socket: sockets[i] }] : []));
  return at.length
    ? list(
        kit.wheels,
        at.map((w) => w.socket)
      )
    : [...list(wheelsAt(kit, 'left'), left), ...list(wheelsAt(kit, 'right'), right)];
};
const LIMITS = { diameter: [20, 200], track: [40, 500], place: [-1000, 1000] } as const;
/** The kit with the measures that the text gives its wheels; what was measured of a device holds as long as they are the same. */
function measuredBy(kit: Kit, given: NamedWheels, lost: { line: number; message: string }[]): Kit {
  const is = reckoned(kit);
  const within = (what: keyof typeof LIMITS, value: number): boolean => {
    const [low, high] = LIMITS[what];
    if (value >= low && value <= high) return true;
    lost.push({
      line: given.line,
      message: say('A wheel can be from {low} to {high} mm; {value} was not taken.', { low, high, value })
    });
    return false;
  };
  const { diametersMm, at } = given;
  const same = (a: Kit, b: Kit): boolean =>
    a.wheels.every((w, i) => {
      const v = b.wheels[i];
      return w.diameterMm === v.diameterMm && w.at.xMm === v.at.xMm && w.at.yMm === v.at.yMm && w.at.deg === v.at.deg;
    });
  let to: Kit;
  if (at.length)
    to = {
      ...is,
      wheels: is.wheels.map((w, i) => {
        const { xMm, yMm, deg } = at[i] ?? w.at;
        const diameterMm = diametersMm[i] ?? diametersMm[0] ?? w.diameterMm;
        return {
          ...w,
          at: within('place', xMm) && within('place', yMm) ? { xMm, yMm, deg } : w.at,
          diameterMm: diameterMm === w.diameterMm || within('diameter', diameterMm) ? diameterMm : w.diameterMm
        };
      })
    };
  else {
    const [left, right = left] = diametersMm;
    const new_ = (now: number | undefined, value: number | undefined, what: keyof typeof LIMITS) =>
      value !== undefined && value !== now && within(what, value) ? value : undefined;
    to = resized(is, {
      left: new_(wheelsAt(is, 'left')[0]?.diameterMm, left, 'diameter'),
      right: new_(wheelsAt(is, 'right')[0]?.diameterMm, right, 'diameter'),
      ...(new_(trackMm(is), given.trackMm, 'track') === undefined ? {} : { trackMm: given.trackMm })
    });
  }
  return same(to, is) ? kit : to;
}
/** Sockets that the wheels of a text name and that hold no motor. */
export const missingMotors = (text: string, kit: Kit): { line: number; socket: string; there?: Part }[] => {
  const { wheels } = namedIn(renewedText(text, kit.device));
  return socketsOf(wheels).flatMap((socket) => {
    const there = partAt(kit, socket);
    return there?.type === 'motor' ? [] : [{ line: wheels!.line, socket, ...(there ? { there } : {}) }];
  });
};
