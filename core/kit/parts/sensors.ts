import * as z from 'zod';
import { later, say } from '../../words.ts';
import { partOf, place, type PartDef, type PartOf, type Place } from './part.ts';

export const linePart = partOf('line', {
  /** the spot of the mat that it looks at */
  at: place,
  /** below it what is under the sensor is dark */
  threshold: z.number().min(0).max(100)
});
export const distancePart = partOf('distance', { at: place });
export const colourPart = partOf('colour', { at: place });

/** Where a pair of line sensors looks on a machine that has none yet (our choice). */
const PAIR = { aheadMm: 45, asideMm: 9 };
export const line: PartDef<PartOf<'line'>> = {
  words: [later('line sensor'), later('a line sensor')],
  fits: 'sensor',
  className: 'Line',
  // left, then right of the middle, beside the one there is
  comesWith: (kit) => {
    const others = kit.parts.filter((p) => p.type === 'line');
    const hasLeft = others.some((p) => p.at.yMm > 0);
    const side = hasLeft ? 'right' : 'left';
    const { xMm, yMm } = others[0]?.at ?? { xMm: PAIR.aheadMm, yMm: PAIR.asideMm };
    const aside = Math.abs(yMm) || PAIR.asideMm;
    return {
      name: side,
      at: { xMm, yMm: hasLeft ? -aside : aside, deg: 0 },
      threshold: others[0]?.threshold ?? 50
    };
  },
  sits: (part, kit) => {
    const { xMm, yMm } = part.at;
    const other = yMm && kit.parts.some((p) => p.type === 'line' && p.at.yMm === -yMm && p.at.xMm === xMm);
    return other
      ? say('line, {apartMm} mm apart', { apartMm: Math.abs(2 * yMm) })
      : say('line, {aheadMm} mm ahead', { aheadMm: part.at.xMm });
  }
};
/** In front of the chassis, looking ahead: as far as its outline goes, and what bumps ahead of it. */
const inFront = (kit: { chassis: { outline: { xMm: number }[]; bars: { to: { xMm: number } }[] } }): Place => ({
  xMm: Math.max(...kit.chassis.outline.map((p) => p.xMm), ...kit.chassis.bars.map((b) => b.to.xMm)),
  yMm: 0,
  deg: 0
});
export const distance: PartDef<PartOf<'distance'>> = {
  words: [later('distance sensor'), later('a distance sensor')],
  fits: 'sensor',
  className: 'Distance',
  comesWith: (kit) => ({ name: 'nose', at: inFront(kit) }),
  sits: () => say('4 to 180 cm, 22° cone')
};
export const colour: PartDef<PartOf<'colour'>> = {
  words: [later('colour sensor'), later('a colour sensor')],
  fits: 'sensor',
  className: 'Colour',
  comesWith: (kit) => {
    const line = kit.parts.find((p) => p.type === 'line');
    return { name: 'colour', at: { xMm: line?.at.xMm ?? PAIR.aheadMm, yMm: 0, deg: 0 } };
  },
  sits: ({ at }) => say('looks down, {aheadMm} mm ahead', { aheadMm: at.xMm })
};
