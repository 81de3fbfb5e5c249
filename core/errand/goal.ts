/**
 * What a goal is: one definition says its words, its form, how it is looked for in a trace, and what it draws on the mat.
 * A goal is looked for from the trace alone (what the program is built of, from the program), up to any moment of it: so it
 * is told live while a run plays, and the same of a rehearsal, of a device and of a text.
 */
import * as z from 'zod';
import { isPictureText } from '../language/pixels.ts';
import type { Program } from '../language/program.ts';
import { say } from '../words.ts';
import { endUs, type Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';

/** A field of a goal's form: what may stand in it, and what stands there at first. */
export type Field = { label: string } & (
  | { type: 'number'; unit: string; min: number; max: number; first: number }
  | { type: 'numbers'; unit: string; min: number; max: number; first: readonly number[] }
  | { type: 'text'; first: string }
  | { type: 'picture'; first: string }
  | { type: 'choice'; of: Readonly<Record<string, string>>; first: string }
  /** a hoop of the mat, a lamp of the device, a socket with a servo, a channel of the trace, a block that reads a sensor */
  | { type: 'hoop' | 'lamp' | 'servo' | 'channel' | 'sensor' }
);
type Values<F extends Readonly<Record<string, Field>>> = {
  -readonly [K in keyof F]: F[K]['type'] extends 'number' ? number : F[K]['type'] extends 'numbers' ? number[] : string;
};
const valueSchema = (f: Field): z.ZodType => {
  switch (f.type) {
    case 'number':
      return z.number().min(f.min).max(f.max);
    case 'numbers':
      return z.array(z.number().min(f.min).max(f.max)).min(1).max(60);
    case 'choice':
      return z.enum(Object.keys(f.of) as [string, ...string[]]);
    case 'picture':
      return z.string().max(2000).refine(isPictureText, 'a picture: rows of signs with a space between');
    default:
      return z.string().trim().min(1).max(200);
  }
};

/** What a goal is looked for in. */
export type Look = {
  trace: Trace;
  mat: Mat;
  /** what ran, where it is made of blocks */
  program?: Program;
  /** a run of what the errand began with: what is to be the same as before */
  before?: Trace;
  /** from when on, and up to when, µs */
  fromUs: number;
  toUs: number;
  /** the very same goal was met at `fromUs`: this is to be once more */
  anew?: boolean;
};
/** Whether a moment is looked at. */
export const inLook = ({ fromUs, toUs, anew }: Pick<Look, 'fromUs' | 'toUs' | 'anew'>, tUs: number): boolean =>
  tUs <= toUs && (anew ? tUs > fromUs : tUs >= fromUs);
/** Whether the run is over at the moment up to which it is looked at. */
export const isOver = ({ trace, toUs }: Pick<Look, 'trace' | 'toUs'>): boolean =>
  trace.ended !== undefined && toUs >= endUs(trace);

export type Result = {
  /** `holds`: nothing spoke against it yet, and something still may */
  state: 'met' | 'holds' | 'open' | 'missed';
  says: string;
  /** when it was met, or came nearest */
  atUs?: number;
  /** where on the mat that was, m */
  at?: { x: number; y: number };
  /** by how much it was missed */
  off?: { amount: number; unit: string };
  /** of goals of goals, what came of each */
  parts?: Result[];
};
/** What a goal shows on the mat. */
export type Drawn = { x: number; y: number; radius: number; door?: boolean };

export type GoalDef = {
  kind: string;
  /** its name where goals are chosen */
  label: string;
  fields: Readonly<Record<string, Field>>;
  schema: z.ZodType;
  /** what is asked, in a line */
  words: (goal: never) => string;
  check: (goal: never, look: Look) => Result;
  /** of what can stay so from one moment to another: the first moment looked at at which it is not so */
  broken?: (goal: never, look: Look) => number | undefined;
  draws?: (goal: never, mat: Mat) => Drawn[];
  /** what of the mat it speaks of */
  needs?: (goal: never) => { hoop?: string };
};
export function defineGoal<const K extends string, const F extends Readonly<Record<string, Field>>>(def: {
  kind: K;
  label: string;
  fields: F;
  words: (goal: Values<F>) => string;
  check: (goal: Values<F>, look: Look) => Result;
  broken?: (goal: Values<F>, look: Look) => number | undefined;
  draws?: (goal: Values<F>, mat: Mat) => Drawn[];
  needs?: (goal: Values<F>) => { hoop?: string };
}): GoalDef {
  const fields = Object.entries(def.fields).map(([key, f]) => [key, valueSchema(f)] as const);
  return { ...def, schema: z.strictObject({ kind: z.literal(def.kind), ...Object.fromEntries(fields) }) } as GoalDef;
}

/** So many places; of what would be nothing then, its first digit: nobody misses by 0. */
export const num = (value: number, digits = 1): string => {
  const rounded = Number(value.toFixed(digits));
  return String(rounded || (Math.abs(value) >= 0.001 ? Number(value.toPrecision(1)) : 0) || 0);
};
export const sec = (us: number): string => (us / 1e6).toFixed(us < 10e6 ? 2 : 1);
/** Not yet, or no more. */
export const wanting = (look: Look, says: string, more: Omit<Result, 'state' | 'says'> = {}): Result => ({
  state: isOver(look) ? 'missed' : 'open',
  says,
  ...more
});
export const met = (atUs: number, more: Omit<Result, 'state' | 'says' | 'atUs'> = {}): Result => ({
  state: 'met',
  says: say('met at {s} s', { s: sec(atUs) }),
  atUs,
  ...more
});
