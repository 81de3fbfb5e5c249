/**
 * Boards as data: the sockets in one row, what each takes, and what is built in. Sockets are labelled J1, J2, ... as
 * connectors are on circuit boards (reference designators, IEEE 315).
 */
import { later } from '../words.ts';

export type SocketKind = 'motor' | 'servo' | 'sensor' | 'lamp';
export type Board = {
  /** what it is, for those who choose one */
  about: string;
  sockets: Readonly<Record<string, SocketKind>>;
  /** the mat that a new project of it begins with */
  mat: string;
  /** what its blocks need and is always there */
  builtIn: readonly string[];
};
/** One row of sockets: so many of each kind, in this order. */
const row = (...kinds: readonly (readonly [SocketKind, number])[]): Board['sockets'] =>
  Object.fromEntries(
    kinds.flatMap(([kind, n]) => Array.from({ length: n }, () => kind)).map((kind, i) => [`J${i + 1}`, kind])
  );
export const BOARDS = {
  barrow: {
    about: later('two-wheeled robot'),
    mat: 'Long aisle',
    sockets: row(['motor', 3], ['servo', 3], ['sensor', 4]),
    builtIn: ['lamps', 'motion', 'gyro', 'nose']
  },
  saucer: {
    about: later('round robot that slides'),
    mat: 'Potting floor',
    sockets: row(['motor', 3], ['sensor', 3]),
    builtIn: ['lamps', 'motion', 'gyro', 'rim']
  },
  hauler: {
    about: later('four-wheeled carrier with a bed that tips'),
    mat: 'Compost yard',
    sockets: row(['motor', 4], ['servo', 2], ['sensor', 3]),
    builtIn: ['lamps', 'motion', 'gyro', 'nose']
  },
  trowel: {
    about: later('board for the hand'),
    mat: 'Frost bench',
    sockets: row(['servo', 1], ['lamp', 1]),
    builtIn: ['motion', 'edges', 'light', 'temperature', 'moisture']
  }
} as const satisfies Record<string, Board>;
export type BoardName = keyof typeof BOARDS;
