import { later, say } from '../../words.ts';
import type { PartDef } from './part.ts';

export const line: PartDef = {
  words: [later('line sensor'), later('a line sensor')],
  fits: 'sensor',
  className: 'Line',
  comesWith: (kit) => {
    const side = kit.parts.some((p) => p.type === 'line' && p.side === 'left') ? 'right' : 'left';
    return { side, name: side };
  },
  sits: (_, kit) => say('line, {apartMm} mm apart', { apartMm: kit.lineSensors.apartMm })
};
export const distance: PartDef = {
  words: [later('distance sensor'), later('a distance sensor')],
  fits: 'sensor',
  className: 'Distance',
  comesWith: () => ({ name: 'nose' }),
  sits: () => say('4 to 180 cm, 22° cone')
};
export const colour: PartDef = {
  words: [later('colour sensor'), later('a colour sensor')],
  fits: 'sensor',
  className: 'Colour',
  comesWith: () => ({ name: 'colour' }),
  sits: (_, kit) => say('looks down, {aheadMm} mm ahead', { aheadMm: kit.lineSensors.aheadMm })
};
