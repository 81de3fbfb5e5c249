/**
 * What a program is: plain JSON, with stable ids. The trace, look-over remarks, breakpoints and text lines all refer to
 * these ids. The block editor's own state is converted to and from this type at the edge and never stored.
 */
import * as z from 'zod';
import { isPictureText } from './pixels.ts';

/** A picture: one sign a pixel, rows with a space between; the signs are those of pixels.ts. */
export type Picture = { picture: string };
/** What a variable or a value block can hold while a program runs. */
export type Value = number | string | boolean | Picture | Value[];

export type Step = {
  id: string;
  /** which block: a key of the catalogue, such as 'turn.angle' */
  kind: string;
  /** a literal, a painted picture, or the value block that sits in the slot */
  slots: Record<string, Slot>;
  /** what was typed into a slot that a value block covers now, for when it is taken out; it means nothing till then */
  covered?: Record<string, Literal>;
  bodies?: Record<string, Step[]>;
  note?: string;
  /** switched off: kept, skipped when running */
  off?: boolean;
};
/** What is written into a slot itself: typed, chosen or painted. */
export type Literal = number | string | boolean | Picture;
export type Slot = Literal | Step;

export type Stack = { id: string; x: number; y: number; steps: Step[]; parked?: boolean };
/** A list is a variable that begins as an empty list instead of 0. */
export type Variable = { id: string; name: string; list?: true };
export const INPUT_TYPES = ['number', 'text', 'condition', 'picture', 'list'] as const;
export type InputType = (typeof INPUT_TYPES)[number];
/** What a routine needs to be told; its value is read inside the routine and cannot be set. */
export type RoutineInput = { id: string; name: string; type: InputType };
/** A routine is a stack with a name; it has a place of its own among the stacks. */
export type Routine = {
  id: string;
  name: string;
  inputs?: RoutineInput[];
  x: number;
  y: number;
  steps: Step[];
  note?: string;
};
/** A value block that lies loose among the stacks. */
export type Loose = { x: number; y: number; value: Step };

export type Program = { stacks: Stack[]; routines: Routine[]; variables: Variable[]; loose: Loose[] };

export const emptyProgram = (): Program => ({ stacks: [], routines: [], variables: [], loose: [] });

const id = z.string().min(1).max(64);
const place = z.number().min(-1e6).max(1e6);
const name = z.string().trim().min(1).max(60);
/** a picture as text */
export const pictureText = z
  .string()
  .max(5000)
  .refine(
    isPictureText,
    'rows of equal length, one sign a pixel (. - + * # or a letter of the palette), with a space between'
  );
const picture = z.strictObject({
  picture: pictureText
});

const literalSchema = z.union([z.number(), z.string().max(2000), z.boolean(), picture]);
export const stepSchema: z.ZodType<Step> = z.lazy(() =>
  z.strictObject({
    id,
    kind: z.string().min(1).max(60),
    slots: z.record(z.string().max(40), slotSchema),
    covered: z.record(z.string().max(40), literalSchema).optional(),
    bodies: z.record(z.string().max(40), z.array(stepSchema).max(5000)).optional(),
    note: z.string().max(2000).optional(),
    off: z.boolean().optional()
  })
);
export const slotSchema: z.ZodType<Slot> = z.lazy(() => z.union([literalSchema, stepSchema]));

const steps = z.array(stepSchema).max(5000);
export const programSchema = z.strictObject({
  stacks: z.array(z.strictObject({ id, x: place, y: place, steps, parked: z.boolean().optional() })).max(500),
  routines: z
    .array(
      z.strictObject({
        id,
        name,
        inputs: z
          .array(z.strictObject({ id, name, type: z.enum(INPUT_TYPES) }))
          .max(20)
          .optional(),
        x: place,
        y: place,
        steps,
        note: z.string().max(2000).optional()
      })
    )
    .max(200),
  variables: z.array(z.strictObject({ id, name, list: z.literal(true).optional() })).max(500),
  loose: z.array(z.strictObject({ x: place, y: place, value: stepSchema })).max(500)
});

export const isStep = (slot: Slot | undefined): slot is Step =>
  typeof slot === 'object' && slot !== null && 'kind' in slot;
export const isPicture = (value: unknown): value is Picture =>
  typeof value === 'object' && value !== null && 'picture' in value;

/** Every step of a list, nested ones and value blocks too, outer before inner, in the order they are read. */
export function* walkSteps(list: readonly Step[]): Generator<Step> {
  for (const step of list) {
    yield step;
    for (const slot of Object.values(step.slots)) if (isStep(slot)) yield* walkSteps([slot]);
    for (const body of Object.values(step.bodies ?? {})) yield* walkSteps(body);
  }
}

/** Every step of the program, parked stacks and loose values too. */
export function* allSteps(program: Program): Generator<Step> {
  for (const stack of program.stacks) yield* walkSteps(stack.steps);
  for (const routine of program.routines) yield* walkSteps(routine.steps);
  for (const loose of program.loose) yield* walkSteps([loose.value]);
}

/** The steps that can run: stacks that are not parked and begin with a starter, and routines; nothing switched off. */
export function* liveSteps(program: Program): Generator<Step> {
  const live = function* (list: readonly Step[]): Generator<Step> {
    for (const step of list) {
      if (step.off) continue;
      yield step;
      for (const slot of Object.values(step.slots)) if (isStep(slot)) yield* live([slot]);
      for (const body of Object.values(step.bodies ?? {})) yield* live(body);
    }
  };
  for (const stack of program.stacks) if (isLive(stack)) yield* live(stack.steps);
  for (const routine of program.routines) yield* live(routine.steps);
}

/** A stack runs if it begins with a starter that is on, and is not parked. */
export const isLive = (stack: Stack): boolean =>
  !stack.parked && stack.steps.length > 0 && stack.steps[0].kind.startsWith('begin.') && !stack.steps[0].off;

const ALPHABET = 'abcdefghijkmnpqrstuvwxyz23456789';
/** A fresh id, unlike any in `taken`. Ids need no secrecy, so a counter does. */
export function freshId(taken: ReadonlySet<string>, stem = 'b'): string {
  for (let n = taken.size + 1; ; n++) {
    let text = '';
    for (let rest = n; rest > 0; rest = Math.floor(rest / 32)) text = ALPHABET[rest % 32] + text;
    if (!taken.has(stem + text)) return stem + text;
  }
}
export const allIds = (program: Program): Set<string> => {
  const ids = new Set<string>();
  for (const step of allSteps(program)) ids.add(step.id);
  for (const list of [program.stacks, program.routines, program.variables]) for (const one of list) ids.add(one.id);
  for (const routine of program.routines) for (const input of routine.inputs ?? []) ids.add(input.id);
  return ids;
};

/** The blocks of a project; where it is a text, there are none that tell what it does. */
export const programOf = (project: { program: Program; text?: string } | undefined): Program | undefined =>
  project && project.text === undefined ? project.program : undefined;
