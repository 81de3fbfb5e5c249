/** Everything there is to see of a run while it stands still: variables, tasks, what each waits for, the value of every block. */
import { definition } from '../language/catalogue.ts';
import { valueDef } from '../language/facts.ts';
import { RunError } from '../language/meaning.ts';
import { isStep, liveSteps, walkSteps, type Step } from '../language/program.ts';
import { show } from '../language/values.ts';
import { isSlow } from '../language/python/print.ts';
import { recorded } from '../trace/recorder.ts';
import type { Interpreter } from './interpreter.ts';

export type TaskSeen = {
  id: number;
  /** the starter that it hangs on, and the block where it stands */
  starter: string;
  block?: string;
  waits: { for: 'its turn' } | { for: 'time'; untilUs: number } | { for: 'move' } | { for: 'condition'; byUs?: number };
  /** it comes next */
  next?: true;
};
export type Snapshot = {
  tUs: number;
  variables: {
    name: string;
    shown: string;
    list: boolean;
    /** changed by hand, from the next step on */ waits?: true;
  }[];
  /** what the routine that runs was given */
  inputs: { name: string; shown: string }[];
  tasks: TaskSeen[];
  /** every channel as it is, in its unit */
  readings: Record<string, number>;
  /** what each value block would give now, by id */
  values: Record<string, string>;
};

/** What takes the run on is not asked: throwing a coin moves the source of chance. */
const canAsk = (step: Step): boolean => ![...walkSteps([step])].some((s) => valueDef(s)?.goesOn);

export function snapshot(interpreter: Interpreter): Snapshot {
  const { bench, variables } = interpreter;
  const { program } = bench.spec;
  const set = new Map(bench.waitingSets.map((s) => [s.variable, s.to]));
  const values: Record<string, string> = {};
  const look = (slot: Step): void => {
    if (!canAsk(slot) || isSlow(slot)) return;
    try {
      values[slot.id] = recorded(interpreter.valueNow(slot)).text ?? show(interpreter.valueNow(slot));
    } catch (error) {
      if (!(error instanceof RunError)) throw error;
      values[slot.id] = error.message;
    }
  };
  for (const step of liveSteps(program))
    if (definition(step.kind).shape === 'value') look(step);
    else for (const slot of Object.values(step.slots)) if (isStep(slot) && !(slot.id in values)) look(slot);
  return {
    tUs: bench.now,
    variables: program.variables.map(({ id, name, list }) => {
      const value = set.get(name) ?? variables[id] ?? 0;
      return {
        name,
        shown: recorded(value).text ?? show(value),
        list: !!list,
        ...(set.has(name) ? { waits: true as const } : {})
      };
    }),
    inputs: interpreter.inputsNow.map(({ name, value }) => ({ name, shown: recorded(value).text ?? show(value) })),
    readings: bench.machine.readings,
    tasks: interpreter.running.map(({ id, stack, wait, wakeUs, current }) => ({
      id,
      starter: stack.steps[0]?.id ?? '',
      ...(current ? { block: current } : {}),
      waits:
        !wait || interpreter.stopped === id
          ? { for: 'its turn' }
          : 'us' in wait
            ? { for: 'time', untilUs: wakeUs }
            : 'move' in wait
              ? { for: 'move' }
              : { for: 'condition', ...(wait.byUs === undefined ? {} : { byUs: wait.byUs }) },
      ...(interpreter.stopped === id ? { next: true as const } : {})
    })),
    values
  };
}
