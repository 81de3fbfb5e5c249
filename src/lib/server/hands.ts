/**
 * Phones and tablets as hands: pairs of a workbench that listens and a page that tells, by a short code. In memory alone.
 * The first phone that comes is the hand; another one is let in by the workbench only, which has the room's key.
 */
import { randomBytes, randomInt } from 'node:crypto';

/** Letters that are not taken for one another. */
export const LETTERS = 'BCDFGHJKLMNPQRSTVWXZ';
const LONG = 6;
const KEPT_MS = 15 * 60_000;
/** A hand that says nothing for so long has left: the next one need not ask. */
const SILENT_MS = 4000;
const MOST = 200;
type Listener = (message: string) => void;
type Room = {
  key: string;
  /** the project that the workbench has open, told to its hand */
  name: string;
  listeners: Set<Listener>;
  usedAt: number;
  /** the phone that is the hand, and when it last said something */
  hand?: { phone: string; at: number };
  /** those that asked, and those that were turned away */
  asked: Set<string>;
  refused: Set<string>;
};
const rooms = new Map<string, Room>();
const inUse = (room: Room): boolean => room.listeners.size > 0;

/** @returns a code of six letters that nobody has and the key of who listens; undefined where every room is in use */
export function openRoom(name = '', now = Date.now()): { code: string; key: string } | undefined {
  for (const [code, room] of rooms) if (!inUse(room) && now - room.usedAt > KEPT_MS) rooms.delete(code);
  if (rooms.size >= MOST) {
    // one that nobody listens to makes room; one in use never does
    const idle = [...rooms].find(([, room]) => !inUse(room));
    if (!idle) return undefined;
    rooms.delete(idle[0]);
  }
  let code: string;
  do code = Array.from({ length: LONG }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  while (rooms.has(code));
  const key = randomBytes(12).toString('hex');
  rooms.set(code, { key, name, listeners: new Set(), usedAt: now, asked: new Set(), refused: new Set() });
  return { code, key };
}
export const hasRoom = (code: string): boolean => rooms.has(code);
/** What the workbench of a code has open. */
export const nameOf = (code: string): string => rooms.get(code)?.name ?? '';
const opened = (code: string, key: string | null): Room | undefined => {
  const room = rooms.get(code);
  return room?.key === key ? room : undefined;
};
/** @returns how to leave, or undefined where there is no such room under this key */
export function listen(code: string, key: string | null, listener: Listener): (() => void) | undefined {
  const room = opened(code, key);
  if (!room) return undefined;
  room.listeners.add(listener);
  return () => {
    room.listeners.delete(listener);
    room.usedAt = Date.now();
  };
}
const toAll = (room: Room, message: string): void => room.listeners.forEach((listener) => listener(message));

export type Told = 'heard' | 'waiting' | 'refused' | 'nobody';
/** @param bye it leaves: the next phone need not ask. @returns what became of it */
export function tell(code: string, phone: string, message: string, bye = false, now = Date.now()): Told {
  const room = rooms.get(code);
  if (!room || !inUse(room)) return 'nobody';
  room.usedAt = now;
  if (room.refused.has(phone)) return 'refused';
  if (room.hand && room.hand.phone !== phone && now - room.hand.at > SILENT_MS) room.hand = undefined;
  room.hand ??= { phone, at: now };
  if (room.hand.phone !== phone) {
    if (!room.asked.has(phone)) toAll(room, JSON.stringify({ asks: phone }));
    room.asked.add(phone);
    return 'waiting';
  }
  room.hand.at = now;
  toAll(room, message);
  if (bye) room.hand = undefined;
  return 'heard';
}
/** The workbench's answer to a phone that asked. @returns false where nobody asked there */
export function answer(code: string, key: string | null, phone: string, yes: boolean, now = Date.now()): boolean {
  const room = opened(code, key);
  if (!room?.asked.delete(phone)) return false;
  if (yes) {
    if (room.hand) room.refused.add(room.hand.phone);
    room.hand = { phone, at: now };
  } else room.refused.add(phone);
  return true;
}
