import * as z from 'zod';
import { currentOf, LED_COLOURS, PIN_A, rightOhm } from '../../circuit/led.ts';
import { later, say } from '../../words.ts';
import { partOf, type PartDef, type PartOf } from './part.ts';

export const lampPart = partOf('lamp', {
  /** a bare LED in the socket: the resistor before it, ohms, and its colour; a lamp without these has its own */
  ohm: z.number().min(0).max(1e6).optional(),
  colour: z.enum(LED_COLOURS).optional()
});
export const lamp: PartDef<PartOf<'lamp'>> = {
  words: [later('lamp'), later('a lamp')],
  fits: 'lamp',
  comesWith: () => ({ name: 'lamp' }),
  abilities: ['lamps'],
  wrong: (part) => {
    const ampere = currentOf(part);
    if (ampere === undefined || ampere <= PIN_A) return undefined;
    return say('{mA} mA would flow through the LED in {socket}; it and the pin take 20 mA. Put {ohm} Ω before it.', {
      mA: Math.round(ampere * 1000),
      socket: part.socket,
      ohm: rightOhm(part.colour)
    });
  },
  sits: ({ ohm }) => (ohm === undefined ? say('a lamp with its own resistor') : say('{ohm} Ω before it', { ohm }))
};
