import * as z from 'zod';
import { later, say } from '../../words.ts';
import type { Kit } from '../kit.ts';
import { partOf, place, type PartDef, type PartOf, type Place } from './part.ts';

const measures = {
  /** its axle on the chassis; a servo of a board for the hand sits beside it */
  at: place.optional(),
  /** where its horn stands at 0, degrees */
  hornDeg: z.number().min(-90).max(90).optional(),
  /** how its plug is put in; the wrong way round it is dead */
  plug: z.enum(['right', 'wrong']).optional()
};
export const servoPart = partOf('servo', {
  ...measures,
  /** a bed that it tips backwards: flat at 90 degrees, mm */
  tips: z.strictObject({ lengthMm: z.number().min(10).max(500), widthMm: z.number().min(10).max(500) }).optional(),
  /** angles beyond which something is in the horn's way, degrees */
  freeFromDeg: z.number().min(0).max(180).optional(),
  freeToDeg: z.number().min(0).max(180).optional()
});
export const spinPart = partOf('spin', measures);

/** Left of the middle, right of it, then in a row behind (our choice). */
const SEATS: readonly Place[] = [26, -22, 2].map((yMm, i) => ({ xMm: i < 2 ? 6 : -20, yMm, deg: 0 }));
const wrong = ({ name, socket, plug }: PartOf<'servo' | 'spin'>): string | undefined =>
  plug === 'wrong'
    ? say('The plug of the {name} in {socket} is the wrong way round: it stays dead. Turn the plug.', { name, socket })
    : undefined;
const seat = ({ wheels, parts }: Kit): { at?: Place } => {
  const free = SEATS.find(
    ({ xMm, yMm }) => !parts.some((p) => 'at' in p && p.at && p.at.xMm === xMm && p.at.yMm === yMm)
  );
  return wheels.length ? { at: free ?? SEATS[0] } : {};
};
export const servo: PartDef<PartOf<'servo'>> = {
  words: [later('angle servo'), later('an angle servo')],
  fits: 'servo',
  className: 'Servo',
  comesWith: (kit) => ({ name: 'servo', hornDeg: 0, ...seat(kit) }),
  wrong,
  sits: ({ hornDeg = 0 }) =>
    hornDeg ? say('horn fitted at {x}{hornDeg}°', { x: hornDeg > 0 ? '+' : '', hornDeg }) : say('horn at 0°')
};
export const spin: PartDef<PartOf<'spin'>> = {
  words: [later('spin servo'), later('a spin servo')],
  fits: 'servo',
  className: 'Spin',
  comesWith: (kit) => ({ name: 'servo', hornDeg: 0, ...seat(kit) }),
  wrong,
  sits: () => say('turns round and round')
};
