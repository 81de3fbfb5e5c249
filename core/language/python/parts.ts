/** What the text calls the kinds of part that are plugged in: as their definitions have it, for the printer, the reader and the look-over. */
import type { Part } from '../../kit/kit.ts';
import { PARTS, PART_TYPES } from '../../kit/parts/parts.ts';

/** Kinds of part that a text names with their socket. A lamp is named by its side. */
export type NamedType = Exclude<Part['type'], 'lamp'>;
/** The library's class of each. */
export const CLASSES = Object.fromEntries(
  PART_TYPES.flatMap((type) => (PARTS[type].className ? [[type, PARTS[type].className]] : []))
) as Readonly<Record<NamedType, string>>;
const TYPES = new Map<string, NamedType>(Object.entries(CLASSES).map(([type, name]) => [name, type as NamedType]));
/** The kind of part that a class of the text stands for; nothing for another class. */
export const typeOf = (className: string): NamedType | undefined => TYPES.get(className);
/** Classes of what is on the board itself: nothing is plugged in for them. */
export const BUILT_IN = ['Wheels', 'Display', 'Gyro', 'Motion', 'Nose', 'Rim', 'Lamp', 'Edge', 'Button'] as const;
