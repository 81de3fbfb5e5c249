/**
 * What a kind of part is, told once: its measures, its words, its sockets, its name in the text. Everything that asks for one
 * of these asks here.
 */
import * as z from 'zod';
import type { SocketKind } from '../boards.ts';
import type { Kit, Part } from '../kit.ts';

/** A part of that kind as a kit has it: where its cable goes, what the builder calls it, and measures of its own. */
export const partOf = <T extends string, M extends z.ZodRawShape>(type: T, measures: M) =>
  z.strictObject({
    socket: z.string().min(1).max(8),
    type: z.literal(type),
    /** shown in the blocks and printed in the text */
    name: z.string().trim().min(1).max(40),
    ...measures
  });
/** Where something sits on the chassis, and which way it looks or rolls: mm ahead and to the left of the origin, degrees counter-clockwise. */
export const place = z.strictObject({
  xMm: z.number().min(-1000).max(1000),
  yMm: z.number().min(-1000).max(1000),
  deg: z.number().min(-360).max(360)
});
export type Place = z.infer<typeof place>;

export type PartDef<P extends Part = Part> = {
  /** its name; and as something that a person has or needs */
  words: readonly [string, string];
  /** the sockets that it fits */
  fits: SocketKind;
  /** the class of the board's library that it is in a text; a lamp is named by its side there */
  className?: string;
  /** what it is called, and how it is set, when it is plugged in */
  comesWith: (kit: Kit) => Omit<P, 'socket' | 'type'>;
  /** what blocks need that is there with it, beyond the part itself */
  abilities?: readonly string[];
  /** why it cannot work as it is put in, if it cannot */
  wrong?: (part: P) => string | undefined;
  /** one line for the kit sheet: how it sits there */
  sits: (part: P, kit: Kit) => string;
};
export type PartOf<T extends Part['type']> = Extract<Part, { type: T }>;
