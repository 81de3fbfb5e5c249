/** What the text calls the kinds of part that are plugged in: one table for the printer, the reader and the look-over. */
import type { Part } from '../../kit/kit.ts';

/** Kinds of part that a text names with their socket, and the library's class of each. A lamp is named by its side. */
export const CLASSES = {
  motor: 'Motor',
  servo: 'Servo',
  spin: 'Spin',
  line: 'Line',
  colour: 'Colour',
  distance: 'Distance'
} as const satisfies Partial<Record<Part['type'], string>>;
export type NamedType = keyof typeof CLASSES;
const TYPES = new Map<string, NamedType>(Object.entries(CLASSES).map(([type, name]) => [name, type as NamedType]));
/** The kind of part that a class of the text stands for; nothing for another class. */
export const typeOf = (className: string): NamedType | undefined => TYPES.get(className);
/** Classes of what is on the board itself: nothing is plugged in for them. */
export const BUILT_IN = ['Wheels', 'Display', 'Gyro', 'Motion', 'Nose', 'Lamp', 'Edge', 'Button'] as const;
