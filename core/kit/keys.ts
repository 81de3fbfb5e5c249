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
/** The channel of a motor: that of the wheel that it drives, or its own. A motor that drives no wheel has no speed there. */
export function motorKey(kit: Kit, what: 'power' | 'speed' | 'turns', socket: string): string {
  const part = kit.parts.find((p) => p.type === 'motor' && p.socket === socket);
  return part?.type === 'motor' && part.drives ? wheelKey(what, part.drives) : what + socket;
}
/** The channels of the wheels on one side; a kit's own left and right wheel go by that name. */
export function sideKeys(kit: Kit, what: 'power' | 'speed' | 'turns', side: string): string[] {
  const named = kit.wheels.filter(({ id }) => id === side);
  const way = side === 'left' ? 1 : -1;
  return (named.length ? named : kit.wheels.filter(({ at }) => Math.sign(at.yMm) === way)).map(({ id }) =>
    wheelKey(what, id)
  );
}
