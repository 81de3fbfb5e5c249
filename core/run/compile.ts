/** Turns steps into what the interpreter runs: slots as functions, literals worked out once. */
import { bodiesOf, definition, slotSpec } from '../language/catalogue.ts';
import type { BlockDef, StepDef, Slots, SlotSpec, ValueDef } from '../language/define.ts';
import { RunError, type Doing, type Task } from '../language/meaning.ts';
import {
  isStep,
  type Program,
  type Routine,
  type Slot,
  type Stack,
  type Step,
  type Value
} from '../language/program.ts';
import { num, pictureOf, truth, typedNumber } from '../language/values.ts';

type Eval = (task: Task) => unknown;
export type Compiled = {
  step: Step;
  index: number;
  run: (task: Task, args: never, step: Step) => void | Doing;
  args: (task: Task) => unknown;
  bodies: Record<string, Compiled[]>;
};
export type CompiledStack = { stack: Stack; trigger: string; steps: Compiled[] };
export type CompiledProgram = { stacks: CompiledStack[]; routines: Map<string, Compiled[]> };

export function compile(
  program: Program,
  index: ReadonlyMap<string, number>,
  live: (stack: Stack) => boolean
): CompiledProgram {
  const steps = (list: readonly Step[]): Compiled[] => list.filter((s) => !s.off).map(one);
  const one = (step: Step): Compiled => {
    const def = definition(step.kind) as StepDef<Slots>;
    return {
      step,
      index: index.get(step.id) ?? 0,
      run: def.run as Compiled['run'],
      args: argsOf(step, def),
      bodies: Object.fromEntries(bodiesOf(step).map((b) => [b, steps(step.bodies?.[b] ?? [])]))
    };
  };
  const stacks = program.stacks.filter(live).map((stack): CompiledStack => {
    const def = definition(stack.steps[0].kind);
    return {
      stack,
      trigger: def.shape === 'starter' ? def.trigger(stack.steps[0]) : '',
      steps: steps(stack.steps.slice(1))
    };
  });
  return { stacks, routines: new Map(program.routines.map((r: Routine) => [r.id, steps(r.steps)])) };
}

function argsOf(step: Step, def: BlockDef): Eval {
  const names =
    step.kind === 'choose.if'
      ? Object.keys(step.bodies ?? {})
          .filter((b) => b.startsWith('then'))
          .map((b) => `if${b.slice(4)}`)
      : Object.keys(def.slots);
  const evals = names.map((name): [string, Eval, boolean] => {
    const spec = slotSpec(step, name)!;
    const slot = step.slots[name];
    return [name, evalOf(slot, spec), !isStep(slot) && spec.type !== 'condition'];
  });
  if (evals.every(([, , fixed]) => fixed)) {
    let args: Record<string, unknown> | undefined;
    return (task) => (args ??= Object.freeze(Object.fromEntries(evals.map(([name, e]) => [name, e(task)]))));
  }
  // One object a step, filled anew each time: a meaning takes its slots out before it gives way for the first time.
  const args: Record<string, unknown> = {};
  for (const [name] of evals) args[name] = undefined;
  const list = evals.map(([, e]) => e);
  return (task) => {
    for (let i = 0; i < list.length; i++) args[names[i]] = list[i](task);
    return args;
  };
}

function evalOf(slot: Slot | undefined, spec: SlotSpec): Eval {
  const value = valueOf(slot, spec);
  if (spec.type === 'condition') {
    let asker: Task | undefined;
    let ask: (() => boolean) | undefined;
    return (task) => {
      if (task !== asker || !ask) {
        asker = task;
        ask = () => truth(value(task) as Value);
      }
      return ask;
    };
  }
  if (spec.type === 'number') return isStep(slot) ? (task) => num(value(task) as Value) : value;
  if (spec.type === 'picture') return isStep(slot) ? (task) => pictureOf(value(task) as Value) : value;
  return value;
}
function valueOf(slot: Slot | undefined, spec: SlotSpec): Eval {
  if (isStep(slot)) {
    if (slot.off) return () => (spec.type === 'condition' ? false : 0);
    const def = definition(slot.kind) as ValueDef<Slots>;
    const args = argsOf(slot, def as BlockDef);
    const fn = def.value as (device: Task['device'], args: unknown, task: Task) => Value;
    return (task) => fn(task.device, args(task), task);
  }
  // an empty condition is not true
  if (slot === undefined || slot === '')
    return spec.type === 'condition' ? () => false : spec.type === 'any' ? () => '' : () => slot;
  if (spec.type === 'number' && typeof slot === 'string') {
    const n = typedNumber(slot);
    return () => {
      if (n === undefined) throw new RunError('not-a-number', `here is "${slot}"`);
      return n;
    };
  }
  if (spec.type === 'any' && typeof slot === 'string') {
    const n = typedNumber(slot);
    return () => n ?? slot;
  }
  return () => slot;
}
