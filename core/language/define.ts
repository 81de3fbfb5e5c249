/**
 * A block is defined once. The tray, the block editor, the interpreter, the Python printer, the look-over, the file
 * check and the handbook all read this one definition.
 */
import type { Device, Doing, Task } from './meaning.ts';
import type { Picture, Step, Value } from './program.ts';

export const FAMILIES = ['order', 'act', 'think', 'read'] as const;
export type Family = (typeof FAMILIES)[number];

/** Sections in the order of the rail, each with its family. */
export const SECTIONS = {
  begin: { title: 'Begin', family: 'order' },
  wait: { title: 'Wait', family: 'order' },
  choose: { title: 'Choose', family: 'order' },
  repeat: { title: 'Repeat', family: 'order' },
  reuse: { title: 'Reuse', family: 'order' },
  move: { title: 'Move', family: 'act' },
  sound: { title: 'Sound', family: 'act' },
  light: { title: 'Light up', family: 'act' },
  remember: { title: 'Remember', family: 'think' },
  work: { title: 'Work out', family: 'think' },
  sense: { title: 'Sense', family: 'read' }
} as const satisfies Record<string, { title: string; family: Family }>;
export type Section = keyof typeof SECTIONS;

export type PartType = 'motor' | 'servo' | 'line' | 'distance';
export type SlotSpec =
  | { type: 'number'; default: number; unit?: string; min?: number; max?: number; whole?: boolean }
  | { type: 'choice'; options: readonly string[]; default: string }
  /** a socket of the kit; the block shows the name of the part that sits there */
  | { type: 'part'; part: PartType; default: string }
  /** the id of a variable or of a routine */
  | { type: 'variable' }
  | { type: 'routine' }
  | { type: 'condition' }
  | { type: 'picture'; default: Picture }
  /** anything at all: what is typed is a number if it reads as one, otherwise text */
  | { type: 'any'; default: number | string };
export type Slots = Record<string, SlotSpec>;

export const number = (o: { default: number; unit?: string; min?: number; max?: number; whole?: boolean }) =>
  ({ type: 'number', ...o }) as const;
export const choice = <const T extends readonly string[]>(...options: T) =>
  ({ type: 'choice', options, default: options[0] }) as const;
export const part = <const T extends PartType>(type: T, socket: string) =>
  ({ type: 'part', part: type, default: socket }) as const;
export const condition = () => ({ type: 'condition' }) as const;
export const variable = () => ({ type: 'variable' }) as const;
export const routine = () => ({ type: 'routine' }) as const;
export const any = (value: number | string) => ({ type: 'any', default: value }) as const;
export const pictureSlot = (value: string) => ({ type: 'picture', default: { picture: value } }) as const;

/** What the meaning of a block gets for each of its slots; a condition comes as a question to be asked when needed. */
export type Args<S extends Slots> = {
  [K in keyof S]: S[K] extends { type: 'number' }
    ? number
    : S[K] extends { type: 'choice'; options: readonly (infer O)[] }
      ? O
      : S[K] extends { type: 'condition' }
        ? () => boolean
        : S[K] extends { type: 'picture' }
          ? Picture
          : S[K] extends { type: 'part' } | { type: 'variable' } | { type: 'routine' }
            ? string
            : Value;
};

/** Python's precedence, weakest first. */
export const PREC = { or: 1, and: 2, not: 3, compare: 4, add: 5, multiply: 6, unary: 7, atom: 9 } as const;
export type Text = [text: string, precedence: number];

/** What a definition needs to print itself; see python/print.ts. */
export interface Printer {
  readonly step: Step;
  /** 'await ' where the program is printed with several tasks */
  readonly wait: string;
  /** text of a slot, in brackets if it binds more weakly than `precedence` */
  slot(name: string, precedence?: number): string;
  /** as `slot`, through whole() unless it is a whole literal */
  whole(name: string): string;
  /** a choice as it is */
  choice(name: string): string;
  /** the name of a part, a variable or a routine in the text; asks for its line at the top */
  name(slot: string): string;
  /** a named thing of the library that needs a line at the top, such as 'wheels' */
  thing(name: Thing): string;
  line(text: string): void;
  /** the end of a loop's turn, where a task gives way */
  body(name: string, end?: 'turn'): void;
}
export type Thing = 'wheels' | 'display' | 'gyro' | 'nose' | 'distance' | 'left_lamp' | 'right_lamp' | 'dot' | 'bar';

type Common<S extends Slots> = {
  kind: string;
  section: Section;
  /** {slot} for a slot, {>body} for a body; the rest is wording */
  words: string;
  /** its card in the tray: title and one line */
  label: readonly [string, string];
  slots: S;
  /** what a kit must have for the block to be offered */
  needs?: readonly (PartType | 'wheels')[];
  help: string;
};
export type StarterDef<S extends Slots> = Common<S> & {
  shape: 'starter';
  /** the trigger as a port of the device knows it; 'start' for the start of the run */
  trigger: (step: Step) => string;
  /** function name and trigger expression in Python; nothing for a plain start */
  python: (p: Printer) => { name: string; trigger?: string };
};
export type StepDef<S extends Slots> = Common<S> & {
  shape: 'step' | 'wrap' | 'end';
  run: (task: Task, args: Args<S>, step: Step) => void | Doing;
  python: (p: Printer) => void;
};
export type ValueDef<S extends Slots> = Common<S> & {
  shape: 'value';
  gives: 'number' | 'condition' | 'picture' | 'any';
  value: (device: Device, args: Args<S>, task: Task) => Value;
  python: (p: Printer) => Text;
};
export type BlockDef = StarterDef<Slots> | StepDef<Slots> | ValueDef<Slots>;

export function defineBlock<const S extends Slots>(def: StarterDef<S>): StarterDef<S>;
export function defineBlock<const S extends Slots>(def: StepDef<S>): StepDef<S>;
export function defineBlock<const S extends Slots>(def: ValueDef<S>): ValueDef<S>;
export function defineBlock(def: unknown): unknown {
  return def;
}

export type Piece = { text: string } | { slot: string } | { body: string };
/** The words of a block cut into wording, slots and bodies. */
export function pieces(words: string): Piece[] {
  return words
    .split(/(\{[^}]*\})/)
    .map((part): Piece | undefined => {
      if (part.startsWith('{>')) return { body: part.slice(2, -1) };
      if (part.startsWith('{')) return { slot: part.slice(1, -1) };
      return part.trim() ? { text: part.trim() } : undefined;
    })
    .filter((p): p is Piece => p !== undefined);
}
