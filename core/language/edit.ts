/** Pure edits of a program: each takes a program and returns a new one, sharing whatever did not change. */
import { bodiesOf, slotSpec } from './catalogue.ts';
import {
  allIds,
  freshId,
  isStep,
  type Program,
  type Routine,
  type Stack,
  type Step,
  type Variable
} from './program.ts';

/** Every step rewritten by `change`, inner ones first; lists without a change keep their identity. */
export function mapSteps(program: Program, change: (step: Step) => Step | undefined): Program {
  const one = (step: Step): Step | undefined => {
    let next = step;
    for (const [name, slot] of Object.entries(step.slots))
      if (isStep(slot)) {
        const inner = one(slot);
        if (inner !== slot) {
          const slots = { ...next.slots };
          if (inner) slots[name] = inner;
          else delete slots[name];
          next = { ...next, slots };
        }
      }
    for (const [name, body] of Object.entries(step.bodies ?? {})) {
      const inner = list(body);
      if (inner !== body) next = { ...next, bodies: { ...next.bodies, [name]: inner } };
    }
    return change(next);
  };
  const list = (steps: Step[]): Step[] => {
    let same = true;
    const out: Step[] = [];
    for (const s of steps) {
      const n = one(s);
      if (n !== s) same = false;
      if (n) out.push(n);
    }
    return same ? steps : out;
  };
  const withSteps = <T extends { steps: Step[] }>(holder: T): T => {
    const steps = list(holder.steps);
    return steps === holder.steps ? holder : { ...holder, steps };
  };
  return {
    ...program,
    stacks: program.stacks.map(withSteps).filter((s) => s.steps.length > 0),
    routines: program.routines.map(withSteps),
    loose: program.loose.flatMap((l) => {
      const value = one(l.value);
      return value === l.value ? [l] : value ? [{ ...l, value }] : [];
    })
  };
}

export const changeStep = (program: Program, id: string, change: (step: Step) => Step): Program =>
  mapSteps(program, (s) => (s.id === id ? change(s) : s));
export const setSlot = (program: Program, id: string, slot: string, value: Step['slots'][string]): Program =>
  changeStep(program, id, (s) => ({ ...s, slots: { ...s.slots, [slot]: value } }));
export const removeStep = (program: Program, id: string): Program =>
  mapSteps(program, (s) => (s.id === id ? undefined : s));
export const switchStep = (program: Program, id: string, off: boolean): Program =>
  changeStep(program, id, (s) => {
    const { off: _, ...rest } = s;
    return off ? { ...rest, off: true } : rest;
  });
export const noteOn = (program: Program, id: string, note: string): Program =>
  changeStep(program, id, (s) => {
    const { note: _, ...rest } = s;
    return note ? { ...rest, note } : rest;
  });

/** A copy of steps with ids of its own. */
export function copySteps(steps: readonly Step[], taken: Set<string>): Step[] {
  const one = (s: Step): Step => {
    const id = freshId(taken);
    taken.add(id);
    return {
      ...s,
      id,
      slots: Object.fromEntries(Object.entries(s.slots).map(([k, v]) => [k, isStep(v) ? one(v) : v])),
      ...(s.bodies ? { bodies: Object.fromEntries(Object.entries(s.bodies).map(([k, v]) => [k, v.map(one)])) } : {})
    };
  };
  return steps.map(one);
}

/** Puts steps after the step `after`, in the same list, or into the first body of a wrap when `inside` is asked for. */
export function insertAfter(program: Program, after: string, steps: Step[], inside?: string): Program {
  const put = (list: Step[]): Step[] =>
    list.flatMap((s) => {
      const bodies = s.bodies && Object.fromEntries(Object.entries(s.bodies).map(([k, v]) => [k, put(v)]));
      const own = bodies ? { ...s, bodies } : s;
      if (s.id !== after) return [own];
      if (inside && own.bodies)
        return [{ ...own, bodies: { ...own.bodies, [inside]: [...steps, ...own.bodies[inside]] } }];
      return [own, ...steps];
    });
  return {
    ...program,
    stacks: program.stacks.map((s) => ({ ...s, steps: put(s.steps) })),
    routines: program.routines.map((r) => ({ ...r, steps: put(r.steps) }))
  };
}

export const addStack = (program: Program, stack: Stack): Program => ({
  ...program,
  stacks: [...program.stacks, stack]
});
export const parkStack = (program: Program, id: string, parked: boolean): Program => ({
  ...program,
  stacks: program.stacks.map((s) => {
    if (s.id !== id) return s;
    const { parked: _, ...rest } = s;
    return parked ? { ...rest, parked: true } : rest;
  })
});
export function addVariable(program: Program, name: string): { program: Program; variable: Variable } {
  const variable = { id: freshId(allIds(program), 'v'), name };
  return { program: { ...program, variables: [...program.variables, variable] }, variable };
}
export function addRoutine(
  program: Program,
  name: string,
  x: number,
  y: number
): { program: Program; routine: Routine } {
  const routine = { id: freshId(allIds(program), 'r'), name, x, y, steps: [] };
  return { program: { ...program, routines: [...program.routines, routine] }, routine };
}
export const rename = (program: Program, id: string, name: string): Program => ({
  ...program,
  variables: program.variables.map((v) => (v.id === id ? { ...v, name } : v)),
  routines: program.routines.map((r) => (r.id === id ? { ...r, name } : r))
});

/** Blocks follow a part that moved to another socket; what was there changes places with it. */
export function followPart(program: Program, from: string, to: string): Program {
  return mapSteps(program, (step) => {
    let next = step;
    for (const [name, slot] of Object.entries(step.slots)) {
      if (slotSpec(step, name)?.type !== 'part') continue;
      const moved = slot === from ? to : slot === to ? from : undefined;
      if (moved) next = { ...next, slots: { ...next.slots, [name]: moved } };
    }
    return next;
  });
}
/** Adds or takes away branches of an if. */
export function reshapeIf(
  program: Program,
  id: string,
  change: 'more' | 'less' | 'otherwise' | 'no otherwise'
): Program {
  return changeStep(program, id, (step) => {
    const bodies = { ...step.bodies };
    const slots = { ...step.slots };
    const count = bodiesOf(step).filter((b) => b.startsWith('then')).length;
    if (change === 'more') bodies[`then${count + 1}`] = [];
    else if (change === 'less' && count > 1) {
      delete bodies[`then${count}`];
      delete slots[`if${count}`];
    } else if (change === 'otherwise') bodies.otherwise ??= [];
    else if (change === 'no otherwise') delete bodies.otherwise;
    return { ...step, slots, bodies };
  });
}
