/** Pure edits of a program: each takes a program and returns a new one, sharing whatever did not change. */
import { cannot, questions, tableRows } from './blocks/choose.ts';
import { itemCount } from './blocks/remember.ts';
import { inputSlot, inputSpec } from './blocks/reuse.ts';
import { bodiesOf, definition, emptySlot, slotSpec } from './catalogue.ts';
import type { SlotSpec } from './define.ts';
import {
  allIds,
  allSteps,
  freshId,
  isPicture,
  isStep,
  type InputType,
  type Literal,
  type Slot,
  type Program,
  type RoutineInput,
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
          // where a value block was taken out, what was typed there before it, or what the slot comes with, is there again
          const spec = slotSpec(step, name, program);
          const left = inner ?? (spec && (coveredIn(next, name, spec) ?? emptySlot(spec, program)));
          if (left === undefined) delete slots[name];
          else slots[name] = left;
          next = inner ? { ...next, slots } : uncovered({ ...next, slots }, name);
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

const uncovered = ({ covered, ...step }: Step, slot: string): Step => {
  const { [slot]: _, ...left } = covered ?? {};
  return Object.keys(left).length ? { ...step, covered: left } : step;
};
/** Puts something into a slot of a step. What was typed there is kept as long as a value block covers it. */
export function fillSlot(step: Step, slot: string, value: Slot, program?: Program): Step {
  const next = { ...step, slots: { ...step.slots, [slot]: value } };
  const was = step.slots[slot];
  if (!isStep(value)) return uncovered(next, slot);
  if (isStep(was) || was === undefined) return next;
  const spec = slotSpec(step, slot, program);
  return spec && isTyped(was, spec) ? { ...next, covered: { ...step.covered, [slot]: was } } : uncovered(next, slot);
}
/** What was typed into a slot before a value block covered it, where the slot takes such a thing at all. */
export function coveredIn({ covered }: Step, slot: string, spec: SlotSpec): Literal | undefined {
  const value = covered && Object.hasOwn(covered, slot) ? covered[slot] : undefined;
  const takes =
    spec.type === 'picture' ? isPicture(value) : ['number', 'text', 'any'].includes(spec.type) && !isPicture(value);
  return takes ? value : undefined;
}
/** Whether something stands in a slot that it does not come with. */
export const isTyped = (value: Literal, spec: SlotSpec): boolean =>
  JSON.stringify(value) !== JSON.stringify(emptySlot(spec));

export const changeStep = (program: Program, id: string, change: (step: Step) => Step): Program =>
  mapSteps(program, (s) => (s.id === id ? change(s) : s));
export const setSlot = (program: Program, id: string, slot: string, value: Step['slots'][string]): Program =>
  changeStep(program, id, (s) => fillSlot(s, slot, value, program));
export const removeStep = (program: Program, id: string): Program =>
  mapSteps(program, (s) => (s.id === id ? undefined : s));
export const switchStep = (program: Program, id: string, off: boolean): Program =>
  changeStep(program, id, (s) => {
    const { off: _, ...rest } = s;
    return off ? { ...rest, off: true } : rest;
  });
/** A note on a block or on a routine; an empty one takes it off. */
export function noteOn(program: Program, id: string, note: string): Program {
  const noted = <T extends { note?: string }>(one: T): T => {
    const { note: _, ...rest } = one;
    return (note ? { ...rest, note } : rest) as T;
  };
  if (program.routines.some((r) => r.id === id))
    return { ...program, routines: program.routines.map((r) => (r.id === id ? noted(r) : r)) };
  return changeStep(program, id, noted);
}

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

/** Puts steps after the step `after` (before it where it ends its list), in the same list, or into the first body of a wrap when `inside` is asked for. */
export function insertAfter(program: Program, after: string, steps: Step[], inside?: string): Program {
  const put = (list: Step[]): Step[] =>
    list.flatMap((s) => {
      const bodies = s.bodies && Object.fromEntries(Object.entries(s.bodies).map(([k, v]) => [k, put(v)]));
      const own = bodies ? { ...s, bodies } : s;
      if (s.id !== after) return [own];
      if (inside && own.bodies)
        return [{ ...own, bodies: { ...own.bodies, [inside]: [...steps, ...own.bodies[inside]] } }];
      // nothing can stand below a block that ends its list: before it then
      return definition(s.kind).shape === 'end' ? [...steps, own] : [own, ...steps];
    });
  return {
    ...program,
    stacks: program.stacks.map((s) => ({ ...s, steps: put(s.steps) })),
    routines: program.routines.map((r) => ({ ...r, steps: put(r.steps) }))
  };
}

/** Puts steps before the step `before`, in the same list. */
export function insertBefore(program: Program, before: string, steps: Step[]): Program {
  const list = listAround(program, before);
  const at = list?.findIndex((s) => s.id === before) ?? -1;
  if (!list || at < 0) return program;
  if (at > 0) return insertAfter(program, list[at - 1].id, steps);
  // the first of a body: after it, and then it goes below
  const put = (all: Step[]): Step[] =>
    all.flatMap((s) => {
      const own = s.bodies
        ? { ...s, bodies: Object.fromEntries(Object.entries(s.bodies).map(([k, v]) => [k, put(v)])) }
        : s;
      return s.id === before ? [...steps, own] : [own];
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
export function addVariable(program: Program, name: string, list = false): { program: Program; variable: Variable } {
  const variable: Variable = { id: freshId(allIds(program), 'v'), name, ...(list ? { list: true } : {}) };
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
/** A variable, a list, a routine or an input gets another name: it is that everywhere, since blocks refer to its id. */
export const rename = (program: Program, id: string, name: string): Program => ({
  ...program,
  variables: program.variables.map((v) => (v.id === id ? { ...v, name } : v)),
  routines: program.routines.map((r) => {
    const own = r.id === id ? { ...r, name } : r;
    return own.inputs?.some((i) => i.id === id)
      ? { ...own, inputs: own.inputs.map((i) => (i.id === id ? { ...i, name } : i)) }
      : own;
  })
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
/** What a block that grows can be told in its menu. */
export type Reshape = 'more' | 'less' | 'otherwise' | 'no otherwise' | `cannot ${string}` | `can ${string}`;
const STEMS: Record<string, [body: string, slot: string]> = {
  'choose.if': ['then', 'if'],
  'choose.match': ['do', 'c']
};

/** Adds or takes away branches, cases, places of a list, questions of a table; marks rows that cannot happen. */
export function reshape(program: Program, id: string, change: Reshape): Program {
  return changeStep(program, id, (step) => {
    const bodies = { ...step.bodies };
    const slots = { ...step.slots };
    if (step.kind === 'list.new') {
      const n = itemCount(step);
      if (change === 'more') slots[`i${n + 1}`] = 0;
      else if (n > 0) delete slots[`i${n}`];
      return { ...step, slots };
    }
    if (step.kind === 'choose.table') return reshapeTable(step, change);
    const [stem, asks] = STEMS[step.kind] ?? [];
    if (!stem) return step;
    const count = bodiesOf(step).filter((b) => b.startsWith(stem)).length;
    if (change === 'more') {
      bodies[`${stem}${count + 1}`] = [];
      if (step.kind === 'choose.match') slots[`c${count + 1}`] = count + 1;
    } else if (change === 'less' && count > 1) {
      delete bodies[`${stem}${count}`];
      delete slots[`${asks}${count}`];
    } else if (change === 'otherwise') bodies.otherwise ??= [];
    else if (change === 'no otherwise') delete bodies.otherwise;
    return { ...step, slots, bodies };
  });
}
function reshapeTable(step: Step, change: Reshape): Step {
  const rows = new Set(cannot(step));
  if (change.startsWith('cannot ')) rows.add(change.slice(7));
  if (change.startsWith('can ')) rows.delete(change.slice(4));
  const now = questions(step);
  const n = change === 'more' ? 3 : change === 'less' ? 2 : now;
  const bodies: Record<string, Step[]> = {};
  // with a third question each row becomes two, and keeps its steps where the answer is yes
  for (const row of tableRows(n))
    bodies[row] =
      step.bodies?.[row] ??
      (n > now ? (row.endsWith('y') ? step.bodies?.[row.slice(0, 2)] : []) : step.bodies?.[`${row}y`]) ??
      [];
  const kept = tableRows(n).filter((r) => rows.has(r) || (n !== now && rows.has(n > now ? r.slice(0, 2) : `${r}y`)));
  const slots: Step['slots'] = { ...step.slots, cannot: kept.join(' ') };
  if (n === 2) delete slots.q3;
  return { ...step, slots, bodies };
}

/** A routine is told one thing more; every block that does it gets a place for it. */
export function addInput(
  program: Program,
  routine: string,
  name: string,
  type: InputType
): { program: Program; input: RoutineInput } {
  const input: RoutineInput = { id: freshId(allIds(program), 'i'), name, type };
  const next = {
    ...program,
    routines: program.routines.map((r) => (r.id === routine ? { ...r, inputs: [...(r.inputs ?? []), input] } : r))
  };
  return { program: regrow(next), input };
}
export function removeInput(program: Program, routine: string, input: string): Program {
  return regrow({
    ...program,
    routines: program.routines.map((r) => {
      if (r.id !== routine) return r;
      const { inputs: _, ...rest } = r;
      const left = (r.inputs ?? []).filter((i) => i.id !== input);
      return left.length ? { ...rest, inputs: left } : rest;
    })
  });
}
/** Whether two programs differ in nothing but where their stacks, routines and loose values lie on the sheet. */
export function sameButPlaces(a: Program, b: Program): boolean {
  const shape = ({ stacks, routines, loose, ...rest }: Program): string => {
    const lying = [...stacks, ...routines, ...loose].map((one) => JSON.stringify({ ...one, x: 0, y: 0 })).sort();
    return JSON.stringify([rest, lying]);
  };
  return shape(a) === shape(b);
}
/** Blocks that do a routine have a slot for each of its inputs, and no others. The same program where that is so already. */
export function regrow(program: Program): Program {
  let changed = false;
  const next = mapSteps(program, (step) => {
    if (step.kind !== 'routine.do' && step.kind !== 'routine.value') return step;
    const inputs = program.routines.find((r) => r.id === step.slots.routine)?.inputs ?? [];
    const wanted = inputs.map((i) => inputSlot(i.id));
    const have = Object.keys(step.slots).filter((s) => s.startsWith('in:'));
    const missing = inputs.filter(
      (i) => !(inputSlot(i.id) in step.slots) && emptySlot(inputSpec(i.type)) !== undefined
    );
    if (missing.length === 0 && have.every((h) => wanted.includes(h))) return step;
    changed = true;
    const slots = Object.fromEntries(
      Object.entries(step.slots).filter(([s]) => !s.startsWith('in:') || wanted.includes(s))
    );
    for (const i of missing) slots[inputSlot(i.id)] = emptySlot(inputSpec(i.type), program)!;
    return { ...step, slots };
  });
  return changed ? next : program;
}

/** Where a variable, a list, a routine, an input or a message is used: ids of steps. */
export function usesOf(program: Program, id: string): string[] {
  const found: string[] = [];
  for (const step of allSteps(program))
    for (const [name, slot] of Object.entries(step.slots)) {
      const spec = slotSpec(step, name, program);
      if (spec && NAMING.has(spec.type) && slot === id) {
        found.push(step.id);
        break;
      }
    }
  return found;
}
const NAMING = new Set(['variable', 'list', 'routine', 'input', 'name']);
/** A message has no entry of its own: its name is changed wherever it stands. */
export const renameMessage = (program: Program, from: string, to: string): Program =>
  mapSteps(program, (s) =>
    (s.kind === 'message.send' || s.kind === 'begin.message') && s.slots.name === from
      ? { ...s, slots: { ...s.slots, name: to } }
      : s
  );
export const messagesOf = (program: Program): string[] => [
  ...new Set(
    [...allSteps(program)]
      .filter((s) => s.kind === 'message.send' || s.kind === 'begin.message')
      .map((s) => String(s.slots.name))
  )
];
/** Takes a variable out; blocks that use it stay, and ask for another. */
export const removeVariable = (program: Program, id: string): Program => ({
  ...program,
  variables: program.variables.filter((v) => v.id !== id)
});
export const removeRoutine = (program: Program, id: string): Program => ({
  ...program,
  routines: program.routines.filter((r) => r.id !== id)
});

/** A block that holds others is put round the blocks from one on, to the end of their list. */
export function takeIn(program: Program, wrap: string, body: string, from: string): Program {
  const block = [...allSteps(program)].find((s) => s.id === wrap);
  if (!block) return program;
  const without = removeStep(program, wrap);
  const list = listAround(without, from);
  const at = list?.findIndex((s) => s.id === from) ?? -1;
  if (!list || at < 0) return program;
  const taken = list.slice(at);
  const round: Step = { ...block, bodies: { ...block.bodies, [body]: [...taken, ...(block.bodies?.[body] ?? [])] } };
  const gone = new Set(taken.slice(1).map((s) => s.id));
  return mapSteps(without, (s) => (s.id === from ? round : gone.has(s.id) ? undefined : s));
}

/** One block out of its list; what hung below it joins what was above. It becomes a stack of its own at a place. */
export function pullOut(program: Program, id: string, x: number, y: number): Program {
  const step = [...allSteps(program)].find((s) => s.id === id);
  if (!step) return program;
  const without = removeStep(program, id);
  return addStack(without, { id: freshId(allIds(program), 's'), x, y, steps: [step] });
}
/** Switches a block and all below it in its list on or off. */
export function switchBelow(program: Program, id: string, off: boolean): Program {
  const below = listAround(program, id);
  const from = below?.findIndex((s) => s.id === id) ?? -1;
  return (below?.slice(Math.max(0, from)) ?? []).reduce((p, s) => switchStep(p, s.id, off), program);
}
/** The list that a step stands in. */
export function listAround(program: Program, id: string): Step[] | undefined {
  const look = (list: Step[]): Step[] | undefined => {
    if (list.some((s) => s.id === id)) return list;
    for (const s of list)
      for (const body of Object.values(s.bodies ?? {})) {
        const found = look(body);
        if (found) return found;
      }
    return undefined;
  };
  for (const holder of [...program.stacks, ...program.routines]) {
    const found = look(holder.steps);
    if (found) return found;
  }
  return undefined;
}

/** What is nearest to blocks that go: what hangs below them, what is above, what holds them. */
export function neighbour(program: Program, ids: readonly string[]): string | undefined {
  const gone = new Set(ids);
  const look = (list: readonly Step[], holder: string | undefined): { next: string | undefined } | undefined => {
    for (const [i, s] of list.entries()) {
      if (gone.has(s.id)) {
        const left = (one: Step): boolean => !gone.has(one.id);
        return { next: (list.slice(i).find(left) ?? list.slice(0, i).findLast(left))?.id ?? holder };
      }
      for (const inner of [
        ...Object.values(s.slots)
          .filter(isStep)
          .map((v) => [v]),
        ...Object.values(s.bodies ?? {})
      ]) {
        const found = look(inner, s.id);
        if (found) return found;
      }
    }
    return undefined;
  };
  for (const { steps } of program.stacks) {
    const found = look(steps, undefined);
    if (found) return found.next;
  }
  for (const { id, steps } of program.routines) {
    const found = look(steps, id);
    if (found) return found.next;
  }
  return program.loose.map((l) => look([l.value], undefined)).find((found) => found)?.next;
}

/** Stacks and routines one below the other, for a program whose places nobody chose. */
export function placed(program: Program): Program {
  let y = 24;
  const rows = (steps: readonly Step[]): number =>
    steps.reduce((n, s) => n + 1 + Object.values(s.bodies ?? {}).reduce((m, b) => m + 1 + rows(b), 0), 0);
  const down = <T extends { steps: Step[] }>(holder: T): T => {
    const at = { ...holder, x: 24, y };
    y += 70 + 38 * rows(holder.steps);
    return at;
  };
  return {
    ...program,
    stacks: program.stacks.map(down),
    routines: program.routines.map(down),
    loose: program.loose.map((l) => ({ ...l, x: 24, y: (y += 50) - 50 }))
  };
}
