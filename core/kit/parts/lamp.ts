import { later, say } from '../../words.ts';
import type { PartDef } from './part.ts';

export const lamp: PartDef = {
  words: [later('lamp'), later('a lamp')],
  fits: 'lamp',
  comesWith: () => ({ name: 'lamp' }),
  abilities: ['lamps'],
  sits: ({ ohm }) => (ohm === undefined ? say('a lamp with its own resistor') : say('{ohm} Ω before it', { ohm }))
};
