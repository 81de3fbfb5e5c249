/** What a kind of part is, told once: everything that asks for its words, its sockets or its name in the text asks here. */
import type { SocketKind } from '../boards.ts';
import type { Kit, Part } from '../kit.ts';

export type PartDef = {
  /** its name; and as something that a person has or needs */
  words: readonly [string, string];
  /** the sockets that it fits */
  fits: SocketKind;
  /** the class of the board's library that it is in a text; a lamp is named by its side there */
  className?: string;
  /** what it is called, and how it is set, when it is plugged in */
  comesWith: (kit: Kit) => Pick<Part, 'name'> & Partial<Part>;
  /** what blocks need that is there with it, beyond the part itself */
  abilities?: readonly string[];
  /** one line for the kit sheet: how it sits there */
  sits: (part: Part, kit: Kit) => string;
};
