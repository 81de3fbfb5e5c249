import { later, say } from '../../words.ts';
import type { PartDef } from './part.ts';

export const servo: PartDef = {
  words: [later('angle servo'), later('an angle servo')],
  fits: 'servo',
  className: 'Servo',
  comesWith: () => ({ name: 'servo', hornDeg: 0 }),
  sits: ({ hornDeg = 0 }) =>
    hornDeg ? say('horn fitted at {x}{hornDeg}°', { x: hornDeg > 0 ? '+' : '', hornDeg }) : say('horn at 0°')
};
export const spin: PartDef = {
  words: [later('spin servo'), later('a spin servo')],
  fits: 'servo',
  className: 'Spin',
  comesWith: () => ({ name: 'servo', hornDeg: 0 }),
  sits: () => say('turns round and round')
};
