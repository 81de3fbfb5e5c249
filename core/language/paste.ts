/** What was copied, as it comes in from outside: it is checked, and put into a program. */
import * as z from 'zod';
import { repainted } from '../kit/repaint.ts';
import { say } from '../words.ts';
import { checkProgram } from './check.ts';
import type { Clip } from './clip.ts';
import { definition, slotSpec } from './catalogue.ts';
import { copySteps, insertAfter, listAround } from './edit.ts';
import {
  allIds,
  freshId,
  isStep,
  programSchema,
  walkSteps,
  type Program,
  type Routine,
  type Slot,
  type Step
} from './program.ts';

const NAMES = new Set(['variable', 'list', 'routine']);
const clipSchema = z.strictObject({
  format: z.literal('mossbell.blocks'),
  version: z.literal(1),
  stacks: z.array(programSchema.shape.stacks.element.shape.steps).max(500),
  variables: programSchema.shape.variables,
  routines: programSchema.shape.routines
});
/** A clip from outside, or a sentence on what is wrong with it. */
export function readClip(text: string): Clip | string {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return say('What was copied is not JSON.');
  }
  const parsed = clipSchema.safeParse(repainted(value));
  if (!parsed.success) return say('What was copied are no blocks of Moss Bell.');
  const clip = parsed.data as Clip;
  const wrong = checkProgram({
    stacks: clip.stacks.map((steps, i) => ({ id: `clip${i}`, x: 0, y: 0, steps })),
    routines: clip.routines,
    variables: clip.variables,
    loose: []
  });
  return wrong ? say('What was copied cannot be pasted: {wrong}', { wrong }) : clip;
}

/**
 * Puts a clip into a program, as stacks of their own from a place on; what hangs together and has no starter joins below the
 * block `below`, where one is given that something can hang below. Variables and routines of the same name are taken for the
 * same; others come along.
 */
export function paste(
  program: Program,
  clip: Clip,
  x: number,
  y: number,
  below?: string
): { program: Program; pasted: string[] } {
  const taken = allIds(program);
  const fresh = (stem: string): string => {
    const id = freshId(taken, stem);
    taken.add(id);
    return id;
  };
  const ids = new Map<string, string>();
  const variables = [...program.variables];
  for (const v of clip.variables) {
    const known = variables.find((o) => o.name === v.name && !!o.list === !!v.list);
    ids.set(v.id, known?.id ?? fresh('v'));
    if (!known) variables.push({ ...v, id: ids.get(v.id)! });
  }
  const brought: Routine[] = [];
  for (const r of clip.routines) {
    const inputs = r.inputs ?? [];
    const known = program.routines.find(
      (o) => o.name === r.name && (o.inputs ?? []).map((i) => i.type).join() === inputs.map((i) => i.type).join()
    );
    ids.set(r.id, known?.id ?? fresh('r'));
    inputs.forEach((input, i) => ids.set(input.id, known?.inputs?.[i].id ?? fresh('i')));
    if (!known) brought.push(r);
  }
  const translated = (step: Step): Step => {
    const slots: Record<string, Slot> = {};
    for (const [name, slot] of Object.entries(step.slots)) {
      const type = slotSpec(step, name)?.type ?? '';
      const own = name.startsWith('in:') ? `in:${ids.get(name.slice(3)) ?? name.slice(3)}` : name;
      slots[own] = isStep(slot)
        ? translated(slot)
        : (NAMES.has(type) || type === 'input') && ids.has(String(slot))
          ? ids.get(String(slot))!
          : slot;
    }
    return {
      ...step,
      slots,
      ...(step.bodies
        ? { bodies: Object.fromEntries(Object.entries(step.bodies).map(([k, v]) => [k, v.map(translated)])) }
        : {})
    };
  };
  const routines = brought.map((r, n): Routine => ({
    ...r,
    id: ids.get(r.id)!,
    ...(r.inputs ? { inputs: r.inputs.map((i) => ({ ...i, id: ids.get(i.id)! })) } : {}),
    x: x + 320,
    y: y + n * 120,
    steps: copySteps(r.steps.map(translated), taken)
  }));
  let down = y;
  const pasted: string[] = [];
  const stacks = [...program.stacks];
  const loose = [...program.loose];
  for (const steps of clip.stacks) {
    const copy = copySteps(steps.map(translated), taken);
    if (copy.length === 0) continue;
    pasted.push(copy[0].id);
    if (copy.length === 1 && isValue(copy[0])) loose.push({ x, y: down, value: copy[0] });
    else stacks.push({ id: fresh('s'), x, y: down, steps: copy });
    down += 40 + 36 * [...walkSteps(copy)].length;
  }
  const next = { ...program, variables, stacks, loose, routines: [...program.routines, ...routines] };
  const [only] = stacks.slice(program.stacks.length);
  const joins =
    below !== undefined &&
    pasted.length === 1 &&
    only &&
    definition(only.steps[0].kind).shape !== 'starter' &&
    !ends(program, below);
  if (!joins) return { program: next, pasted };
  const apart = { ...next, stacks: next.stacks.filter((s) => s !== only) };
  return { program: insertAfter(apart, below, only.steps), pasted };
}
/** Nothing hangs below it: it ends its stack, or is no step in a stack. */
const ends = (program: Program, id: string): boolean => {
  const kind = listAround(program, id)?.find((s) => s.id === id)?.kind;
  return kind === undefined || definition(kind).shape === 'end';
};
const isValue = (step: Step): boolean => definition(step.kind).shape === 'value';
