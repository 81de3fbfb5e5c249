/** Blocks on their way from one program to another: what was copied, with the names that it uses. */
import { copySteps, insertAfter, listAround } from './edit.ts';
import { definition, slotSpec } from './catalogue.ts';
import {
  allIds,
  freshId,
  isStep,
  walkSteps,
  type Program,
  type Routine,
  type Slot,
  type Step,
  type Variable
} from './program.ts';

export type Clip = {
  format: 'mossbell.blocks';
  version: 1;
  stacks: Step[][];
  variables: Variable[];
  routines: Routine[];
};
const NAMES = new Set(['variable', 'list', 'routine']);

/** What stands in these steps and must come along: variables, and routines with what they use. */
export function clipOf(program: Program, stacks: Step[][]): Clip {
  const variables = new Set<string>();
  const routines = new Set<string>();
  const look = (steps: readonly Step[]): void => {
    for (const step of walkSteps(steps))
      for (const [name, slot] of Object.entries(step.slots)) {
        const type = slotSpec(step, name, program)?.type;
        if (type === 'variable' || type === 'list') variables.add(String(slot));
        if (type !== 'routine' || routines.has(String(slot))) continue;
        routines.add(String(slot));
        look(program.routines.find((r) => r.id === slot)?.steps ?? []);
      }
  };
  stacks.forEach(look);
  return {
    format: 'mossbell.blocks',
    version: 1,
    stacks,
    variables: program.variables.filter((v) => variables.has(v.id)),
    routines: program.routines.filter((r) => routines.has(r.id))
  };
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
