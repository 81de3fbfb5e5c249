import * as z from 'zod';
import { later, say, word } from '../../words.ts';
import { partOf, type PartDef, type PartOf } from './part.ts';

export const motorPart = partOf('motor', {
  /** the wheel that it turns, if it turns one */
  drives: z.string().min(1).max(40).optional(),
  /** mirrored turns the wheel the other way */
  mounted: z.enum(['normal', 'mirrored']).optional()
});
export const motor: PartDef<PartOf<'motor'>> = {
  words: [later('motor'), later('a motor')],
  fits: 'motor',
  className: 'Motor',
  // the first that comes drives the wheel that has none
  comesWith: (kit) => {
    const missing = kit.wheels.find((w) => !kit.parts.some((p) => p.type === 'motor' && p.drives === w.id));
    return { mounted: 'normal', ...(missing ? { drives: missing.id, name: word(missing.name) } : { name: 'motor' }) };
  },
  sits: (part) => `${word(part.mounted ?? 'normal')}${part.drives ? '' : say(', no wheel')}`
};
