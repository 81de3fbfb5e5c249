/** Tidying a program without changing what it does: repeated blocks become a loop or a routine; two stacks are compared. */
import { addInput, addRoutine, addVariable, copySteps, fillSlot, listAround, mapSteps } from './edit.ts';
import { definition, saidWords, slotSpec } from './catalogue.ts';
import { inputSlot } from './blocks/reuse.ts';
import {
  allIds,
  freshId,
  isPicture,
  isStep,
  walkSteps,
  type InputType,
  type Program,
  type Slot,
  type Step
} from './program.ts';
import { say } from '../words.ts';

export type Refactored = { ok: true; program: Program; made: string } | { ok: false; why: string };
const no = (why: string): Refactored => ({ ok: false, why });

/** Steps without their ids and notes: what they do. */
function shape(step: Step): unknown {
  return {
    kind: step.kind,
    off: step.off,
    slots: Object.keys(step.slots)
      .sort()
      .map((name) => [name, isStep(step.slots[name]) ? shape(step.slots[name] as Step) : step.slots[name]]),
    bodies: Object.keys(step.bodies ?? {})
      .sort()
      .map((name) => [name, step.bodies![name].map(shape)])
  };
}
const same = (a: Step, b: Step): boolean => JSON.stringify(shape(a)) === JSON.stringify(shape(b));

/** A literal that differs from one place to another: which slot of which step, counted in reading order. */
type Hole = { step: number; slot: string; type: InputType };
const HOLE_TYPES: Record<string, InputType> = { number: 'number', any: 'number', text: 'text', picture: 'picture' };
/**
 * The slots in which two lists of steps differ, where they differ in literals alone; undefined where they differ otherwise.
 * Starters, choices and names must be the same.
 */
function holes(a: readonly Step[], b: readonly Step[], program: Program): Hole[] | undefined {
  const [x, y] = [[...walkSteps(a)], [...walkSteps(b)]];
  if (x.length !== y.length) return undefined;
  const found: Hole[] = [];
  for (let i = 0; i < x.length; i++) {
    const [s, t] = [x[i], y[i]];
    const names = Object.keys(s.slots);
    if (s.kind !== t.kind || s.off !== t.off || names.length !== Object.keys(t.slots).length) return undefined;
    if (JSON.stringify(bodySizes(s)) !== JSON.stringify(bodySizes(t))) return undefined;
    for (const slot of names) {
      const [u, v] = [s.slots[slot], t.slots[slot]];
      if (isStep(u) || isStep(v)) {
        if (!isStep(u) || !isStep(v)) return undefined;
        continue;
      }
      if (JSON.stringify(u) === JSON.stringify(v)) continue;
      const spec = slotSpec(s, slot, program);
      const type = spec && HOLE_TYPES[spec.type];
      if (!type || t.slots[slot] === undefined) return undefined;
      const own: InputType = isPicture(u)
        ? 'picture'
        : typeof u === 'number' && typeof v === 'number'
          ? 'number'
          : type === 'picture'
            ? 'picture'
            : 'text';
      found.push({ step: i, slot, type: own });
    }
  }
  return found;
}
const bodySizes = (s: Step): unknown => Object.entries(s.bodies ?? {}).map(([name, body]) => [name, body.length]);
const literalAt = (steps: readonly Step[], { step, slot }: Hole): Slot => [...walkSteps(steps)][step].slots[slot];
/** The steps with a value block put into a slot. */
function filled(steps: readonly Step[], into: { hole: Hole; value: () => Step }[]): Step[] {
  let n = -1;
  const one = (step: Step): Step => {
    const here = ++n;
    const slots: Step['slots'] = {};
    for (const [name, slot] of Object.entries(step.slots)) slots[name] = isStep(slot) ? one(slot) : slot;
    const bodies = step.bodies && Object.fromEntries(Object.entries(step.bodies).map(([k, v]) => [k, v.map(one)]));
    const own: Step = { ...step, slots, ...(bodies ? { bodies } : {}) };
    return into
      .filter(({ hole }) => hole.step === here)
      .reduce((s, { hole, value }) => fillSlot(s, hole.slot, value()), own);
  };
  return steps.map(one);
}

/** Whether blocks can be moved into a list of their own: nothing in them may reach out of it. */
function closed(steps: readonly Step[]): string | undefined {
  const look = (list: readonly Step[], inLoop: boolean): string | undefined => {
    for (const s of list) {
      if (s.kind === 'routine.give')
        return say('"Give back" ends the routine that it stands in: it cannot be moved out of it.');
      if ((s.kind === 'repeat.leave' || s.kind === 'repeat.next') && !inLoop)
        return say('A block that leaves a loop or goes to its next turn must stay in that loop.');
      const loop = 'loop' in definition(s.kind) && (definition(s.kind) as { loop?: true }).loop;
      for (const body of Object.values(s.bodies ?? {})) {
        const why = look(body, inLoop || !!loop);
        if (why) return why;
      }
    }
    return undefined;
  };
  return look(steps, false);
}

/** The chosen steps as one stretch of a list, in its order. */
export function stretch(
  program: Program,
  ids: readonly string[]
): { list: Step[]; from: number; steps: Step[] } | undefined {
  const list = ids.length ? listAround(program, ids[0]) : undefined;
  if (!list) return undefined;
  const chosen = new Set(ids);
  const places = list.flatMap((s, i) => (chosen.has(s.id) ? [i] : []));
  const [from, to] = [places[0], places[places.length - 1]];
  if (to - from + 1 !== places.length || places.length !== chosen.size) return undefined;
  const steps = list.slice(from, to + 1);
  return definition(steps[0].kind).shape === 'starter' ? undefined : { list, from, steps };
}
/** The program with a stretch of a list replaced. */
export function replaced(program: Program, list: readonly Step[], from: number, count: number, by: Step[]): Program {
  const put = (steps: Step[]): Step[] =>
    steps === list
      ? [...steps.slice(0, from), ...by, ...steps.slice(from + count)]
      : steps.map((s) =>
          s.bodies ? { ...s, bodies: Object.fromEntries(Object.entries(s.bodies).map(([k, v]) => [k, put(v)])) } : s
        );
  return {
    ...program,
    stacks: program.stacks.map((s) => ({ ...s, steps: put(s.steps) })),
    routines: program.routines.map((r) => ({ ...r, steps: put(r.steps) }))
  };
}

/**
 * Chosen blocks that repeat become a loop. Where one number changes in equal steps from turn to turn, a variable counts;
 * blocks that do not repeat are put into a loop of one turn.
 */
export function putIntoLoop(program: Program, ids: readonly string[]): Refactored {
  const found = stretch(program, ids);
  if (!found) return no(say('Choose blocks that hang together in one stack, without its starter.'));
  const { list, from, steps } = found;
  const why = closed(steps);
  if (why) return no(why);
  if (definition(steps[steps.length - 1].kind).shape === 'end')
    return no(say('Nothing can repeat after a block that ends its list.'));
  const times = (count: number, body: Step[]): Refactored => {
    const loop: Step = { id: freshId(allIds(program)), kind: 'repeat.times', slots: { count }, bodies: { do: body } };
    return { ok: true, program: replaced(program, list, from, steps.length, [loop]), made: loop.id };
  };
  for (let unit = 1; unit < steps.length; unit++) {
    if (steps.length % unit) continue;
    const turns = steps.length / unit;
    const first = steps.slice(0, unit);
    const all = Array.from({ length: turns }, (_, n) => steps.slice(n * unit, (n + 1) * unit));
    const differing = new Map<string, Hole>();
    if (!all.every((turn) => holes(first, turn, program)?.every((h) => differing.set(`${h.step} ${h.slot}`, h))))
      continue;
    const changing = [...differing.values()];
    if (changing.length === 0) return times(turns, first);
    const counted = progression(all, changing);
    if (!counted) continue;
    const made = addVariable(program, freeName(program, 'n'));
    const ids = allIds(made.program);
    const next = (): string => {
      const id = freshId(ids);
      ids.add(id);
      return id;
    };
    const value = (): Step => ({ id: next(), kind: 'var.value', slots: { variable: made.variable.id } });
    const loop: Step = {
      id: next(),
      kind: 'repeat.count',
      slots: {
        variable: made.variable.id,
        from: counted.from,
        to: counted.from + (turns - 1) * counted.by,
        step: counted.by
      },
      bodies: {
        do: filled(
          first,
          changing.map((hole) => ({ hole, value }))
        )
      }
    };
    return { ok: true, program: replaced(made.program, list, from, steps.length, [loop]), made: loop.id };
  }
  return times(1, steps);
}
/** One whole number that changes in equal steps, in every place that changes. */
function progression(turns: Step[][], changing: Hole[]): { from: number; by: number } | undefined {
  let found: { from: number; by: number } | undefined;
  for (const hole of changing) {
    const values = turns.map((t) => literalAt(t, hole));
    if (!values.every((v): v is number => typeof v === 'number' && Number.isInteger(v))) return undefined;
    const by = values[1] - values[0];
    if (by === 0 || !values.every((v, n) => v === values[0] + n * by)) return undefined;
    if (found && (found.from !== values[0] || found.by !== by)) return undefined;
    found = { from: values[0], by };
  }
  return found;
}
const freeName = (program: Program, stem: string): string => {
  const taken = new Set([...program.variables, ...program.routines].map((v) => v.name));
  let name = stem;
  for (let n = 2; taken.has(name); n++) name = `${stem} ${n}`;
  return name;
};

/**
 * Chosen blocks become a routine, and every other place of the program that has the same blocks does it too. Where their
 * literals differ, the routine needs an input.
 */
export function makeRoutine(program: Program, ids: readonly string[], name: string): Refactored {
  const found = stretch(program, ids);
  if (!found) return no(say('Choose blocks that hang together in one stack, without its starter.'));
  const { steps } = found;
  const why = closed(steps);
  if (why) return no(why);
  if (definition(steps[steps.length - 1].kind).shape === 'end')
    return no(say('A block that ends its stack cannot be in the middle of another.'));
  if ([...walkSteps(steps)].some((s) => s.kind === 'routine.input'))
    return no(say('These blocks use an input of the routine that they stand in: it would mean nothing elsewhere.'));

  // every stretch of every list that has the same blocks, none overlapping
  const places: { list: Step[]; from: number }[] = [{ list: found.list, from: found.from }];
  const lists = function* (list: Step[]): Generator<Step[]> {
    yield list;
    for (const s of list) for (const body of Object.values(s.bodies ?? {})) yield* lists(body);
  };
  for (const holder of [...program.stacks.filter((s) => !s.parked), ...program.routines])
    for (const list of lists(holder.steps))
      for (let i = 0; i + steps.length <= list.length; i++) {
        if (places.some((p) => p.list === list && Math.abs(p.from - i) < steps.length)) continue;
        if (inside(steps, list)) continue;
        if (holes(steps, list.slice(i, i + steps.length), program)) places.push({ list, from: i });
      }
  const differing = new Map<string, Hole>();
  for (const { list, from } of places)
    for (const h of holes(steps, list.slice(from, from + steps.length), program)!)
      differing.set(`${h.step} ${h.slot}`, h);

  let { program: next, routine } = addRoutine(program, freeName(program, name), 420, 40);
  const inputs: { id: string; hole: Hole }[] = [];
  for (const hole of differing.values()) {
    const made = addInput(next, routine.id, inputName(steps, hole, inputs.length), hole.type);
    next = made.program;
    inputs.push({ id: made.input.id, hole });
  }
  const taken = allIds(next);
  const fresh = (): string => {
    const id = freshId(taken);
    taken.add(id);
    return id;
  };
  const body = filled(
    copySteps(steps, taken),
    inputs.map(({ id, hole }) => ({
      hole,
      value: () => ({ id: fresh(), kind: 'routine.input', slots: { input: id } })
    }))
  );
  // from the back, so that places in the same list stay where they are
  for (const { list, from } of [...places].sort((a, b) => b.from - a.from)) {
    const here = list.slice(from, from + steps.length);
    const call: Step = {
      id: fresh(),
      kind: 'routine.do',
      slots: {
        routine: routine.id,
        ...Object.fromEntries(inputs.map(({ id, hole }) => [inputSlot(id), literalAt(here, hole)]))
      }
    };
    next = swapStretch(next, here, call);
  }
  routine = { ...next.routines.find((r) => r.id === routine.id)!, steps: body };
  return {
    ok: true,
    program: { ...next, routines: next.routines.map((r) => (r.id === routine.id ? routine : r)) },
    made: routine.id
  };
}
const inside = (steps: readonly Step[], list: Step[]): boolean =>
  steps.some((s) => Object.values(s.bodies ?? {}).some((b) => b === list || inside(b, list)));
/** The stretch that begins with the first of these steps becomes one block. */
function swapStretch(program: Program, here: readonly Step[], by: Step): Program {
  const gone = new Set(here.slice(1).map((s) => s.id));
  return mapSteps(program, (s) => (s.id === here[0].id ? by : gone.has(s.id) ? undefined : s));
}
/** What an input is called: the word before its slot, or its unit. */
function inputName(steps: readonly Step[], { step, slot }: Hole, n: number): string {
  const owner = [...walkSteps(steps)][step];
  const plain = slot.replace(/^in:.*/, 'value').replace(/\d+$/, '');
  const name =
    plain.length > 1 ? plain : (saidWords(owner).find((p) => 'text' in p) as { text: string } | undefined)?.text;
  return `${name ?? 'value'}${n ? ` ${n + 1}` : ''}`.slice(0, 60);
}

/** One line of a comparison of two stacks. */
export type Difference = {
  a?: Step;
  b?: Step;
  what: 'same' | 'changed' | 'only in the first' | 'only in the second';
  /** how deep in loops and branches */
  depth: number;
};
/** Two lists block by block, and what is in their loops and branches: a longest common run of equal blocks, and what stands between. */
export function compareLists(a: readonly Step[], b: readonly Step[], depth = 0): Difference[] {
  const longest = Array.from({ length: a.length + 1 }, () => new Array<number>(b.length + 1).fill(0));
  for (let i = a.length - 1; i >= 0; i--)
    for (let k = b.length - 1; k >= 0; k--)
      longest[i][k] = same(a[i], b[k]) ? longest[i + 1][k + 1] + 1 : Math.max(longest[i + 1][k], longest[i][k + 1]);
  const out: Difference[] = [];
  let [i, k] = [0, 0];
  while (i < a.length || k < b.length) {
    if (i < a.length && k < b.length && same(a[i], b[k])) out.push({ a: a[i++], b: b[k++], what: 'same', depth });
    else if (i < a.length && k < b.length && a[i].kind === b[k].kind && longest[i + 1][k + 1] === longest[i][k])
      out.push(...unlike(a[i++], b[k++], depth));
    else if (k >= b.length || (i < a.length && longest[i + 1][k] >= longest[i][k + 1]))
      out.push({ a: a[i++], what: 'only in the first', depth });
    else out.push({ b: b[k++], what: 'only in the second', depth });
  }
  return out;
}
/** Two blocks of one kind that are not the same: themselves, and then what they hold. */
function unlike(a: Step, b: Step, depth: number): Difference[] {
  const shell = (step: Step): Step => ({ ...step, bodies: {} });
  const names = [...new Set([...Object.keys(a.bodies ?? {}), ...Object.keys(b.bodies ?? {})])];
  return [
    { a, b, what: same(shell(a), shell(b)) ? 'same' : 'changed', depth },
    ...names.flatMap((name) => compareLists(a.bodies?.[name] ?? [], b.bodies?.[name] ?? [], depth + 1))
  ];
}
