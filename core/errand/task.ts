/** What a pupil gets to see of an errand: it is kept with the project in which it is done. */
import * as z from 'zod';
import { programSchema, type Program } from '../language/program.ts';
import { parseInputs } from '../trace/inputs.ts';
import type { TimedInput } from '../trace/trace.ts';
import { tongue } from '../words.ts';
import { matSchema, poseSchema, type Mat, type Pose } from '../yard/mat.ts';
import { goalsSchema, type Goal } from './goals.ts';

/** A text in one language, or in several by their codes. */
export const told = (most: number) =>
  z.union([
    z.string().trim().min(1).max(most),
    z.record(z.string().regex(/^[a-z]{2}$/), z.string().trim().min(1).max(most))
  ]);
export type Told = string | Readonly<Record<string, string>>;
/** In the language of the moment; in English, or whatever there is, where that is wanting. */
export const toldIn = (text: Told): string =>
  typeof text === 'string' ? text : (text[tongue().code] ?? text.en ?? Object.values(text)[0] ?? '');

/** A name for the computer. */
export const slug = z
  .string()
  .min(1)
  .max(60)
  .regex(/^[a-z0-9-]+$/, 'small letters, digits and hyphens');
/** Another yard in which each try runs too: what of it is otherwise than in the errand's own. */
export const situationSchema = z.strictObject({
  says: told(200),
  mat: matSchema.optional(),
  start: poseSchema.optional(),
  inputs: z.string().max(100_000).optional()
});
export type Situation = {
  says: Told;
  mat?: Mat;
  start?: Pose;
  inputs?: string;
};
export const MOST_SITUATIONS = 5;
export const taskSchema = z.strictObject({
  id: slug,
  name: told(80),
  story: told(400),
  goals: goalsSchema,
  /** opened one at a time */
  hints: z.array(told(600)).max(10),
  /** what may be changed: everything, numbers alone, or these blocks by their ids */
  may: z.union([z.enum(['all', 'numbers']), z.array(z.string()).min(1).max(200)]),
  /** kinds of blocks in the tray; all where it is wanting */
  offers: z.array(z.string().max(40)).min(1).max(200).optional(),
  /** where it will stop is said before each try */
  predictFirst: z.boolean(),
  /** what a person does in each try: lines of an inputs file; and how long a try lasts at the most, s */
  inputs: z.string().max(100_000).optional(),
  limitS: z.number().int().min(1).max(600).optional(),
  /** the yards beside the first in which each try runs: the bell waits for all */
  situations: z.array(situationSchema).min(1).max(MOST_SITUATIONS).optional(),
  /** the program that it begins with */
  given: programSchema
});
/** As a project has it. */
export const taskInProject = taskSchema.extend({
  /** what the errand's own yard is known by: the bell rings in it alone; wanting in projects that were begun before */
  yard: z.string().max(20).optional()
});
export type Task = {
  id: string;
  name: Told;
  story: Told;
  goals: Goal[];
  hints: Told[];
  may: 'all' | 'numbers' | string[];
  offers?: string[];
  predictFirst: boolean;
  inputs?: string;
  limitS?: number;
  situations?: Situation[];
  given: Program;
  yard?: string;
};
/** What a person does in each try of it. */
export function inputsOf({ inputs = '' }: Pick<Task, 'inputs'>): readonly TimedInput[] {
  const read = parseInputs(inputs);
  return read.ok ? read.inputs : [];
}
