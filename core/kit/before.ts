/** Files and texts from before sockets were one row: P Q R, U V W, 10 to 40, and L on the board for the hand. */
import type { BoardName } from './boards.ts';

const row = (sockets: string): ReadonlyMap<string, string> =>
  new Map(sockets.split(' ').map((socket, i) => [socket, `J${i + 1}`]));
/** Of a run of then there is only whether its machine had wheels. */
export const boardBefore = (wheels: boolean): BoardName => (wheels ? 'barrow' : 'trowel');
const BEFORE: Readonly<Record<BoardName, ReadonlyMap<string, string>>> = {
  barrow: row('P Q R U V W 10 20 30 40'),
  trowel: row('U L')
};
/** @returns the socket as it is called now; one that never was stays */
export const renewedSocket = (socket: string, board: BoardName): string => BEFORE[board].get(socket) ?? socket;

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
  const { others } = project;
  return {
    ...renewed(project),
    ...(Array.isArray(others) ? { others: others.map((o: unknown) => (isJson(o) ? renewed(o) : o)) } : {})
  };
}
