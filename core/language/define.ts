/**
 * A block is defined once. The tray, the block editor, the interpreter, the Python printer and reader, the look-over, the
 * file check and the handbook all read this one definition.
 */
import type { Device, Doing, Signal, Task, Wait } from './meaning.ts';
import type { Kit } from '../kit/kit.ts';
import type { Picture, Program, Step, Value } from './program.ts';

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

export type PartType = 'motor' | 'servo' | 'spin' | 'line' | 'distance' | 'colour';
type NumberSpec = {
  type: 'number';
  default: number;
  unit?: string;
  min?: number;
  max?: number;
  whole?: boolean;
  /** it is a column or a row of the display */
  pixel?: 'x' | 'y';
  /** it is so many of its columns or rows, either way */
  by?: 'x' | 'y';
};
export type SlotSpec =
  | NumberSpec
  | {
      type: 'choice';
      options: readonly string[];
      default: string;
      /** what the words to choose from mean */
      hint?: string;
      /** of these a kit has some: its lamps, what of it feels a touch */
      of?: 'lamps' | 'touches';
    }
  /** a socket of the kit; the block shows the name of the part that sits there */
  | { type: 'part'; part: PartType; default: string }
  /** the id of a variable, of a list, of a routine, of an input of the routine that the block stands in */
  | { type: 'variable' }
  | { type: 'list' }
  | { type: 'routine' }
  | { type: 'input' }
  /** the name of a message, of a plotted value, of a key */
  | { type: 'name'; default: string }
  /** rows of a table that cannot happen, such as 'yn nn' */
  | { type: 'rows'; default: string }
  | { type: 'condition' }
  | { type: 'picture'; default: Picture }
  /** always text, whatever is typed */
  | { type: 'text'; default: string }
  /** a list, from a value block */
  | { type: 'items' }
  /** anything at all: what is typed is a number if it reads as one, otherwise text */
  | { type: 'any'; default: number | string };
export type Slots = Record<string, SlotSpec>;

export const number = (o: Omit<NumberSpec, 'type'>) => ({ type: 'number', ...o }) as const;
export const choice = <const T extends readonly string[]>(...options: T) =>
  ({ type: 'choice', options, default: options[0] }) as const;
/** A choice of what kits have: each is offered what is its own. */
export const choiceOf = <const T extends readonly string[]>(of: 'lamps' | 'touches', ...options: T) =>
  ({ type: 'choice', of, options, default: options[0] }) as const;
export const part = <const T extends PartType>(type: T, socket: string) =>
  ({ type: 'part', part: type, default: socket }) as const;
export const condition = () => ({ type: 'condition' }) as const;
export const variable = () => ({ type: 'variable' }) as const;
export const list = () => ({ type: 'list' }) as const;
export const items = () => ({ type: 'items' }) as const;
export const routine = () => ({ type: 'routine' }) as const;
export const input = () => ({ type: 'input' }) as const;
export const any = (value: number | string) => ({ type: 'any', default: value }) as const;
export const text = (value: string) => ({ type: 'text', default: value }) as const;
export const named = (value: string) => ({ type: 'name', default: value }) as const;
export const rows = () => ({ type: 'rows', default: '' }) as const;
export const pictureSlot = (value: string) => ({ type: 'picture', default: { picture: value } }) as const;
/** Slots that hold a value block; the others hold a choice or a name. */
export const holdsValue = (spec: SlotSpec): boolean =>
  ['number', 'any', 'text', 'picture', 'condition', 'items'].includes(spec.type);

/**
 * A condition as the meaning of a block gets it: a question, to be asked when needed. Where a routine's value is in it,
 * asking takes time, and `slow` must be used instead.
 */
export type Ask = (() => boolean) & { slow?: () => Generator<Wait, boolean, void> };
/** What the meaning of a block gets for each of its slots. */
export type Args<S extends Slots> = {
  [K in keyof S]: S[K] extends { type: 'number' }
    ? number
    : S[K] extends { type: 'choice'; options: readonly (infer O)[] }
      ? O
      : S[K] extends { type: 'condition' }
        ? Ask
        : S[K] extends { type: 'picture' }
          ? Picture
          : S[K] extends { type: 'items' | 'list' }
            ? Value[]
            : S[K] extends { type: 'any' }
              ? Value
              : string;
};

/** From, to, both included; endless where nothing is known. */
export type Interval = readonly [number, number];
export type Counted = 'turned' | 'rolled';
/** A way over the mat: so far and so much turned clockwise on it; towards another direction than ahead; faced first. */
export type Path = { lengthM?: number; turnDeg?: number; towardsDeg?: number; facingDeg?: number };
/** What a block's own way is worked out with. Degrees clockwise. */
export type Way = {
  /** the number that is typed into a slot; NaN where there is none */
  n: (slot: string) => number;
  /** as it faces when the block begins, and as it did when the program began */
  facingDeg: number;
  startFacingDeg: number;
  /** how far a measured move of this step goes in a direction, m */
  length: (towardsDeg: number) => number;
  /** how it goes with the wheels of its sides at these powers, -1 to 1 */
  sides: (left: number, right: number) => Path;
};

type Common<S extends Slots> = {
  kind: string;
  section: Section;
  /** {slot} for a slot, {>body} for a body; the rest is wording */
  words: string;
  /** its card in the tray: title and one line */
  label: readonly [string, string];
  /** what else a person may call it, for the search */
  also?: string;
  slots: S;
  /** what a kit must have for the block to be offered */
  needs?: readonly string[];
  help: string;
  /** what goes wrong with it most often, for the handbook */
  mistake?: string;
  /** lines of Python for the handbook's example; by default the block as it comes out of the tray */
  example?: string;
  /**
   * Its text in Python, read in both directions. {slot} for a slot, {slot!} for one that must be whole, {>body} for a body,
   * await where it gives way (left out where the program has one task). Where the words of the text depend on a choice, a
   * function of the choices; a block that grows has the step too.
   */
  python: string | ((choice: Record<string, string>, step: Step, program: Program) => string);
  /** how the options of a choice are written in the text; as they are by default */
  spell?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** a block that grows: its words and slots depend on how far this very step has grown */
  grows?: {
    /** the wording in them, phrase by phrase, for other languages */
    phrases: readonly string[];
    words: (step: Step, program?: Program) => string;
    slot: (name: string, program?: Program, step?: Step) => SlotSpec | undefined;
  };
};
export type StarterDef<S extends Slots> = Common<S> & {
  shape: 'starter';
  /** the icon of its trigger; that of its section where none is said */
  icon?: string;
  /** the trigger as the device knows it; 'start' for the start of the run; a condition and a period are looked at by the runner */
  trigger: (step: Step) => string;
  /** what its function is called in the text; `python` is what run() is given, with {f} for that function */
  fname: (step: Step) => string;
};
export type StepDef<S extends Slots> = Common<S> & {
  shape: 'step' | 'wrap' | 'end';
  /** its bodies are turns of a loop: a task gives way at the end of each, and the loop can be left */
  loop?: true;
  /** time passes in it, so that what was shown or started before it lasts; not in every such step where a function says so */
  takesTime?: true | ((step: Step) => boolean);
  /** what it commands turns when it is over, or stands */
  leaves?: 'running' | 'standing';
  /** it puts something on the display that stays */
  shows?: true;
  /** what it puts something into: the variable or the list of its slot */
  sets?: 'variable' | 'list';
  /** what counts on from it */
  zeroes?: Counted;
  /** the way that it asks for, by geometry alone */
  path?: (step: Step, way: Way) => Path;
  run: (task: Task, args: Args<S>, step: Step) => Signal | Doing;
};
export type ValueDef<S extends Slots> = Common<S> & {
  shape: 'value';
  gives: 'number' | 'text' | 'condition' | 'picture' | 'list' | 'any';
  /** channels of the trace, or 'variables', that it is read from: where a slot chooses, those of what the slot says */
  reads?: readonly string[] | ((slots: Readonly<Record<string, string>>, kit: Kit) => readonly string[]);
  /** between what its value lies, both included */
  lies?: Interval | ((kit: Kit, slots: Readonly<Record<string, string>>) => Interval);
  /** it is measured and never quite still */
  noisy?: true;
  /** a person or the world decides it, so that it may be otherwise later */
  outside?: true;
  /** asking it takes the run on: chance moves, a routine runs */
  goesOn?: true;
  /** it counts on from when that was zeroed */
  counts?: Counted;
  value: (device: Device, args: Args<S>, task: Task, step: Step) => Value;
  /** as `value`, where asking one of its conditions takes time */
  slowly?: (args: Args<S>, task: Task, step: Step) => Generator<Wait, Value, void>;
};
export type BlockDef = StarterDef<Slots> | StepDef<Slots> | ValueDef<Slots>;

export function defineBlock<const S extends Slots>(def: StarterDef<S>): StarterDef<S>;
export function defineBlock<const S extends Slots>(def: StepDef<S>): StepDef<S>;
export function defineBlock<const S extends Slots>(def: ValueDef<S>): ValueDef<S>;
export function defineBlock(def: unknown): unknown {
  return def;
}

export type Piece = { text: string } | { slot: string } | { body: string };
const cut = new Map<string, Piece[]>();
/** The words of a block cut into wording, slots and bodies. */
export function pieces(words: string): Piece[] {
  let found = cut.get(words);
  if (!found) {
    found = words
      .split(/(\{[^}]*\})/)
      .map((part): Piece | undefined => {
        if (part.startsWith('{>')) return { body: part.slice(2, -1) };
        if (part.startsWith('{')) return { slot: part.slice(1, -1) };
        return part.trim() ? { text: part.trim() } : undefined;
      })
      .filter((p): p is Piece => p !== undefined);
    cut.set(words, found);
  }
  return found;
}
