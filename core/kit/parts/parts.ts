/** Every kind of part there is. */
import * as z from 'zod';
import { word } from '../../words.ts';
import type { Kit, Part } from '../kit.ts';
import { lamp, lampPart } from './lamp.ts';
import { motor, motorPart } from './motor.ts';
import type { PartDef, PartOf } from './part.ts';
import { colour, colourPart, distance, distancePart, line, linePart } from './sensors.ts';
import { servo, servoPart, spin, spinPart } from './servo.ts';

export const partSchema = z.discriminatedUnion('type', [
  motorPart,
  servoPart,
  spinPart,
  linePart,
  distancePart,
  colourPart,
  lampPart
]);
export const PARTS: { readonly [T in Part['type']]: PartDef<PartOf<T>> } = {
  motor,
  servo,
  spin,
  line,
  distance,
  colour,
  lamp
};
export const PART_TYPES = Object.keys(PARTS) as Part['type'][];
export const typeName = (type: Part['type']): string => word(PARTS[type].words[0]);
/** With its article. */
export const aPart = (type: Part['type']): string => word(PARTS[type].words[1]);
/** Why it cannot work as it is put in, in a sentence. */
export const wrongWith = (part: Part): string | undefined => (PARTS[part.type] as PartDef).wrong?.(part);
/** How it sits there, in one line. */
export const sits = (part: Part, kit: Kit): string => (PARTS[part.type] as PartDef).sits(part, kit);
