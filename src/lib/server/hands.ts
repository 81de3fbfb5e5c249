/** Phones and tablets as hands: pairs of a workbench that listens and a page that tells, by a short code. In memory alone. */
import { randomInt } from 'node:crypto';

/** Letters that are not taken for one another. */
const LETTERS = 'BCDFGHJKLMNPQRSTVWXZ';
const KEPT_MS = 15 * 60_000;
const MOST = 200;
type Listener = (message: string) => void;
type Room = { listeners: Set<Listener>; usedAt: number };
const rooms = new Map<string, Room>();

/** @returns a code of four letters that nobody has */
export function openRoom(now = Date.now()): string {
  for (const [code, room] of rooms) if (!room.listeners.size && now - room.usedAt > KEPT_MS) rooms.delete(code);
  if (rooms.size >= MOST) rooms.delete(rooms.keys().next().value!);
  let code: string;
  do code = Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  while (rooms.has(code));
  rooms.set(code, { listeners: new Set(), usedAt: now });
  return code;
}
export const hasRoom = (code: string): boolean => rooms.has(code);
/** @returns how to leave, or undefined where there is no such room */
export function listen(code: string, listener: Listener): (() => void) | undefined {
  const room = rooms.get(code);
  if (!room) return undefined;
  room.listeners.add(listener);
  return () => {
    room.listeners.delete(listener);
    room.usedAt = Date.now();
  };
}
/** @returns whether somebody listens */
export function tell(code: string, message: string): boolean {
  const room = rooms.get(code);
  if (!room) return false;
  room.usedAt = Date.now();
  for (const listener of room.listeners) listener(message);
  return room.listeners.size > 0;
}
