import { later, say, word } from '../../words.ts';
import type { PartDef } from './part.ts';

export const motor: PartDef = {
  words: [later('motor'), later('a motor')],
  fits: 'motor',
  className: 'Motor',
  // the first that comes drives the wheel that has none
  comesWith: (kit) => {
    const missing = (['left', 'right'] as const).find((side) => !kit.parts.some((p) => p.drives === side));
    return {
      mounted: 'normal',
      ...(missing
        ? { drives: missing, name: missing === 'left' ? say('left wheel') : say('right wheel') }
        : { name: 'motor' })
    };
  },
  sits: (part) => `${word(part.mounted ?? 'normal')}${part.drives ? '' : say(', no wheel')}`
};
