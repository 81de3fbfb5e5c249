/** Turns steps into what the interpreter runs: slots as functions, literals worked out once. */
import { bodiesOf, definition, slotsOf, slotSpec } from '../language/catalogue.ts';
import type { Ask, SlotSpec, Slots, StepDef, ValueDef } from '../language/define.ts';
import { sets } from '../language/facts.ts';
import { RunError, type Doing, type Signal, type Task, type Wait } from '../language/meaning.ts';
import { isStep, type Program, type Slot, type Stack, type Step, type Value } from '../language/program.ts';
import { isSlow } from '../language/python/print.ts';
import { kindOf, listOf, num, pictureOf, show, textOf, truth, typedNumber, whole } from '../language/values.ts';

type Eval = (task: Task) => unknown;
/** As Eval, where a routine's value is in it: that takes time. */
type SlowEval = (task: Task) => Generator<Wait, unknown, void>;
export type Compiled = {
  step: Step;
  index: number;
  run: (task: Task, args: never, step: Step) => Signal | Doing;
  args: Eval;
  slowArgs?: SlowEval;
  bodies: Record<string, Compiled[]>;
  /** the list that it changes */
  changes?: string;
};
export type CompiledStack = {
  stack: Stack;
  /** the starter's slots, worked out when the run sets off */
  args: Eval;
  trigger: (task: Task) => string;
  steps: Compiled[];
};
export type CompiledRoutine = { steps: Compiled[]; inputs: string[] };
export type CompiledProgram = { stacks: CompiledStack[]; routines: Map<string, CompiledRoutine> };

export function compile(
  program: Program,
  index: ReadonlyMap<string, number>,
  live: (stack: Stack) => boolean
): CompiledProgram {
  const steps = (list: readonly Step[]): Compiled[] => list.filter((s) => !s.off).map(one);
  const one = (step: Step): Compiled => {
    const def = definition(step.kind) as StepDef<Slots>;
    const { fast, slow } = argsOf(step, program);
    return {
      step,
      index: index.get(step.id) ?? 0,
      run: def.run as Compiled['run'],
      args: fast,
      ...(slow ? { slowArgs: slow } : {}),
      ...(sets(step) === 'list' ? { changes: String(step.slots.list) } : {}),
      bodies: Object.fromEntries(bodiesOf(step).map((b) => [b, steps(step.bodies?.[b] ?? [])]))
    };
  };
  const stacks = program.stacks.filter(live).map((stack): CompiledStack => {
    const starter = stack.steps[0];
    const def = definition(starter.kind);
    const { fast } = argsOf(starter, program);
    return {
      stack,
      args: fast,
      trigger: (task) =>
        def.shape === 'starter' ? def.trigger({ ...starter, slots: shownSlots(fast(task), starter) }) : '',
      steps: steps(stack.steps.slice(1))
    };
  });
  return {
    stacks,
    routines: new Map(
      program.routines.map((r) => [r.id, { steps: steps(r.steps), inputs: (r.inputs ?? []).map((i) => i.id) }])
    )
  };
}
/** What a value block comes to, asked outside of a run's steps. */
export const evaluation = (step: Step, program: Program): ((task: Task) => Value) =>
  valueOf(step, { type: 'any', default: 0 }, program).fast as (task: Task) => Value;
/** Slots of a starter as its trigger writes them. */
const shownSlots = (args: unknown, starter: Step): Step['slots'] =>
  Object.fromEntries(
    Object.entries(args as Record<string, unknown>).map(([name, value]) => [
      name,
      typeof value === 'number' ? show(value) : typeof value === 'function' ? starter.slots[name] : (value as Slot)
    ])
  );

type Check = (value: Value) => unknown;
type One = { name: string; fast: Eval; slow?: SlowEval; check?: Check; fixed: boolean };
/** As in Python: every slot is worked out first, in order, and only then looked at; whole() stands within its slot. */
function argsOf(step: Step, program: Program): { fast: Eval; slow?: SlowEval } {
  const all = slotsOf(step, program).map((name): One => {
    const spec = slotSpec(step, name, program)!;
    const slot = step.slots[name];
    const fixed = !isStep(slot) && !['condition', 'list', 'items'].includes(spec.type);
    // what a routine is given is looked at where it is used, as in Python
    const { check, ...way } = evalOf(slot, spec, program);
    return { name, fixed, ...way, ...(check && !name.startsWith('in:') ? { check } : {}) };
  });
  const checks = all.flatMap(({ name, check }) => (check ? [{ name, check }] : []));
  const slow: SlowEval | undefined = all.some((a) => a.slow)
    ? function* (task) {
        const args: Record<string, unknown> = {};
        for (const one of all) args[one.name] = one.slow ? yield* one.slow(task) : one.fast(task);
        for (const { name, check } of checks) args[name] = check(args[name] as Value);
        return args;
      }
    : undefined;
  if (all.every((a) => a.fixed)) {
    let args: Record<string, unknown> | undefined;
    return { fast: (task) => (args ??= Object.freeze(Object.fromEntries(all.map((a) => [a.name, a.fast(task)])))) };
  }
  // One object a step, filled anew each time: a meaning takes its slots out before it gives way for the first time.
  const args: Record<string, unknown> = {};
  for (const { name } of all) args[name] = undefined;
  const names = all.map((a) => a.name);
  const list = all.map((a) => a.fast);
  return {
    fast: (task) => {
      for (let i = 0; i < list.length; i++) args[names[i]] = list[i](task);
      for (let i = 0; i < checks.length; i++) args[checks[i].name] = checks[i].check(args[checks[i].name] as Value);
      return args;
    },
    ...(slow ? { slow } : {})
  };
}

const CHECKS: Partial<Record<SlotSpec['type'], Check>> = {
  number: num,
  picture: pictureOf,
  text: textOf,
  items: listOf
};
function evalOf(slot: Slot | undefined, spec: SlotSpec, program: Program): Omit<One, 'name' | 'fixed'> {
  const { fast: value, slow } = valueOf(slot, spec, program);
  if (spec.type === 'condition') {
    let asker: Task | undefined;
    let ask: Ask | undefined;
    return {
      fast: (task) => {
        if (task !== asker || !ask) {
          asker = task;
          ask = () => truth(value(task) as Value);
          if (slow)
            ask.slow = function* () {
              return truth((yield* slow(task)) as Value);
            };
        }
        return ask;
      }
    };
  }
  if (!isStep(slot)) return { fast: value };
  if (spec.type === 'number' && spec.whole)
    return {
      fast: (task) => whole(value(task) as Value),
      ...(slow
        ? {
            *slow(task: Task) {
              return whole((yield* slow(task)) as Value);
            }
          }
        : {})
    };
  const check = CHECKS[spec.type];
  return { fast: value, ...(slow ? { slow } : {}), ...(check ? { check } : {}) };
}
function valueOf(slot: Slot | undefined, spec: SlotSpec, program: Program): { fast: Eval; slow?: SlowEval } {
  if (isStep(slot)) {
    const def = definition(slot.kind) as ValueDef<Slots>;
    const { fast, slow } = argsOf(slot, program);
    const fn = def.value as (device: Task['device'], args: unknown, task: Task, step: Step) => Value;
    const slowly = def.slowly as ((args: unknown, task: Task, step: Step) => Generator<Wait, Value>) | undefined;
    const plain: Eval = (task) => fn(task.device, fast(task), task, slot);
    if (!isSlow(slot)) return { fast: plain };
    return {
      fast: plain,
      *slow(task) {
        const args = slow ? yield* slow(task) : fast(task);
        return slowly ? yield* slowly(args, task, slot) : fn(task.device, args, task, slot);
      }
    };
  }
  if (spec.type === 'list') {
    const id = String(slot ?? '');
    return { fast: (task) => listOf(task.get(id)) };
  }
  // an empty condition is not true, an empty place for a list holds none
  if (spec.type === 'items')
    return {
      fast: () => {
        throw new RunError('not-a-list', 'nothing is here');
      }
    };
  if (slot === undefined || slot === '')
    return { fast: spec.type === 'condition' ? () => false : spec.type === 'any' ? () => '' : () => slot };
  if (spec.type === 'number' && typeof slot === 'string') {
    const n = typedNumber(slot);
    return {
      fast: () => {
        if (n === undefined) throw new RunError('not-a-number', `here is ${kindOf(slot)}`);
        return n;
      }
    };
  }
  if (spec.type === 'text') return { fast: () => String(slot) };
  return { fast: () => slot };
}
