/** What the channels of a trace are called that belong to a wheel or to a sensor. */
import type { Kit } from './kit.ts';

/** The first line sensor on each side goes by that side, any other by its socket. */
export function lineKey(kit: Kit, socket: string): string {
  const first = (way: number): string | undefined =>
    kit.parts.find((p) => p.type === 'line' && Math.sign(p.at.yMm) === way)?.socket;
  return first(1) === socket ? 'lineLeft' : first(-1) === socket ? 'lineRight' : `line${socket}`;
}
/** The channel of a wheel, by its id. */
export const wheelKey = (what: 'power' | 'speed' | 'turns', id: string): string =>
  what + id.charAt(0).toUpperCase() + id.slice(1);
