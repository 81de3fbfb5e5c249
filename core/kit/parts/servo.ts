import * as z from 'zod';
import { later, say } from '../../words.ts';
import { partOf, type PartDef, type PartOf } from './part.ts';

const measures = {
  /** where its horn stands at 0, degrees */
  hornDeg: z.number().min(-90).max(90).optional(),
  /** how its plug is put in; the wrong way round it is dead */
  plug: z.enum(['right', 'wrong']).optional()
};
export const servoPart = partOf('servo', {
  ...measures,
  /** angles beyond which something is in the horn's way, degrees */
  freeFromDeg: z.number().min(0).max(180).optional(),
  freeToDeg: z.number().min(0).max(180).optional()
});
export const spinPart = partOf('spin', measures);

export const servo: PartDef<PartOf<'servo'>> = {
  words: [later('angle servo'), later('an angle servo')],
  fits: 'servo',
  className: 'Servo',
  comesWith: () => ({ name: 'servo', hornDeg: 0 }),
  sits: ({ hornDeg = 0 }) =>
    hornDeg ? say('horn fitted at {x}{hornDeg}°', { x: hornDeg > 0 ? '+' : '', hornDeg }) : say('horn at 0°')
};
export const spin: PartDef<PartOf<'spin'>> = {
  words: [later('spin servo'), later('a spin servo')],
  fits: 'servo',
  className: 'Spin',
  comesWith: () => ({ name: 'servo', hornDeg: 0 }),
  sits: () => say('turns round and round')
};
