/**
 * Runs a program on a bench, block by block. Tasks share one processor and give way at waits, at steps that take time and
 * at the end of every turn of a loop (design: running.md). mossbell.py has the same scheduler for the stand-in and a real
 * board: when one changes, so must the other, and the conformance tests hold them together.
 */
import { listOf } from '../language/values.ts';
import { RunError, type Device, type Doing, type Signal, type Task, type Wait } from '../language/meaning.ts';
import type { Ask } from '../language/define.ts';
import { isLive, type Program, type Stack, type Step, type Value } from '../language/program.ts';
import type { Trace } from '../trace/trace.ts';
import { Bench, Halt, inputsFor } from './bench.ts';
import type { RunOptions } from './spec.ts';
import { compile, evaluation, type Compiled, type CompiledProgram, type CompiledStack } from './compile.ts';

const DEEPEST = 100;
/** Yielded by a task that was stopped before a step by the person, not by the program. */
const PAUSE = { pause: true } as unknown as Wait;

const NOTHING: Compiled[] = [];
const NO_INPUTS: Record<string, Value> = {};

class Running implements Task {
  wait: Wait = null;
  wakeUs = 0;
  seen = 0;
  current: Compiled | undefined;
  depth = 0;
  /** how deep the list of steps is nested that it is in, routines counted */
  level = 0;
  given: Value = 0;
  private inputs = NO_INPUTS;
  readonly doing: Doing;
  constructor(
    private readonly interpreter: Interpreter,
    readonly id: number,
    readonly stack: Stack,
    steps: Compiled[]
  ) {
    this.doing = this.list(steps);
  }
  get device(): Device {
    return this.interpreter.bench.machine;
  }
  get nowUs(): number {
    return this.interpreter.bench.now;
  }
  /** @param around the step whose body this is: it is the current one again when the body is over */
  *list(steps: Compiled[], around?: Compiled): Doing {
    const { interpreter } = this;
    const { bench } = interpreter;
    const { recorder, machine } = bench;
    const { stepUs } = bench.spec.kit.board;
    this.level++;
    for (let i = 0; i < steps.length; i++) {
      const compiled = steps[i];
      this.current = compiled;
      bench.charge(stepUs);
      machine.block = compiled.step.id;
      if (interpreter.stopBefore?.(compiled.step.id, this.id, this.level)) yield PAUSE;
      // what was done while it rested comes before the step, as it does when the run is made again
      if (bench.hasSets) interpreter.takeSets();
      const row = recorder.begin(compiled.index, this.id, bench.now);
      const args = compiled.slowArgs ? yield* compiled.slowArgs(this) : compiled.args(this);
      const doing = compiled.run(this, args as never, compiled.step);
      const signal: Signal = typeof doing === 'object' ? yield* doing : doing;
      recorder.end(row, bench.now);
      if (compiled.changes) interpreter.changed(compiled.changes);
      if (signal) {
        this.back(around);
        return signal;
      }
    }
    this.back(around);
  }
  private back(around: Compiled | undefined): void {
    this.level--;
    if (!around) return;
    this.current = around;
    this.interpreter.bench.machine.block = around.step.id;
  }
  steps(body: string): Doing {
    const here = this.current!;
    return this.list(here.bodies[body] ?? NOTHING, here);
  }
  turn(): boolean {
    const { interpreter } = this;
    interpreter.bench.charge(interpreter.bench.spec.kit.board.stepUs);
    return interpreter.othersWait;
  }
  *callRoutine(id: string, inputs: Record<string, Value>): Doing {
    const here = this.current!;
    const routine = this.interpreter.compiled.routines.get(id);
    if (!routine) return;
    if (++this.depth > DEEPEST) throw new RunError('too-deep');
    const outer = this.inputs;
    this.inputs = inputs;
    yield* this.list(routine.steps, here);
    this.inputs = outer;
    this.depth--;
  }
  /** what the routine that runs was given, by its inputs' ids */
  get routineInputs(): Readonly<Record<string, Value>> {
    return this.inputs;
  }
  input(id: string): Value {
    return this.inputs[id] ?? 0;
  }
  get(variable: string): Value {
    return this.interpreter.variables[variable] ?? 0;
  }
  set(variable: string, value: Value): void {
    if (this.interpreter.lists.has(variable)) listOf(value);
    this.interpreter.variables[variable] = value;
    this.interpreter.changed(variable);
  }
}

/** A stack that begins at a trigger, and what the trigger needs to remember. */
type Starter = Omit<CompiledStack, 'trigger'> & {
  trigger: string;
  /** for "every": microseconds between, and when next */
  period?: number;
  dueUs: number;
  /** for "when it becomes true" */
  ask?: Ask;
  was: boolean;
};
const AT_START = ['start', 'before', 'set off'];

export class Interpreter {
  readonly compiled: CompiledProgram;
  readonly variables: Record<string, Value>;
  /** variables that hold a list, whatever they are set to */
  readonly lists: ReadonlySet<string>;
  /** asked before every step; true stops there */
  stopBefore: ((block: string, task: number, level: number) => boolean) | undefined;
  /** names of variables by id, and the other way round */
  private readonly nameOf: ReadonlyMap<string, string>;
  private readonly starters: Starter[];
  private readonly tasks: Running[] = [];
  private started = 0;
  private at = 0;
  private ran = false;
  private passing = false;
  private paused = false;
  private untilUs = 0;
  private failed = false;
  /** whether there is something to do before setting off, and whether the word has been given */
  private readonly prepares: boolean;
  private isOff = false;
  private isReady = false;
  private readonly asks: boolean;
  private looked = -1;
  private nextDue = Infinity;

  constructor(readonly bench: Bench) {
    const { program, others = [], mat, seed, noise, inputs } = bench.spec;
    for (const { name, ...other } of others) {
      const its = new Bench({ ...other, mat, seed, noise, device: name, name, inputs: inputsFor(name, inputs) }, bench);
      const interpreter = new Interpreter(its);
      bench.beside.push({
        name,
        bench: its,
        catchUp: (us) => void (its.now < us && interpreter.advance(us)),
        get busy() {
          return interpreter.tasks.length > 0;
        }
      });
    }
    this.compiled = compile(program, bench.blockIndex, isLive);
    this.variables = initial(program);
    this.lists = new Set(program.variables.flatMap((v) => (v.list ? [v.id] : [])));
    this.nameOf = new Map(program.variables.map((v) => [v.id, v.name]));
    // starters' numbers are worked out as the run sets off, by a task that never runs
    const asker = new Running(this, 0, { id: '', x: 0, y: 0, steps: [] }, NOTHING);
    this.starters = this.compiled.stacks.map((compiled): Starter => {
      const trigger = compiled.trigger(asker);
      const args = { ...(compiled.args(asker) as { condition?: Ask; time?: number; unit?: string }) };
      const period =
        trigger === 'every' ? Math.max(1, Math.round(args.time! * (args.unit === 'ms' ? 1e3 : 1e6))) : undefined;
      bench.machine.watch(trigger);
      return {
        ...compiled,
        trigger,
        period,
        dueUs: period ?? Infinity,
        ask: args.condition,
        was: true /* what is so at the start must first be otherwise */
      };
    });
    this.asks = this.starters.some((s) => s.ask);
    this.prepares = this.starters.some((s) => s.trigger === 'before');
    bench.machine.holdWheels = this.prepares;
    this.nextDue = Math.min(...this.starters.map((s) => s.dueUs));
    for (const starter of this.starters)
      if (this.prepares ? starter.trigger === 'before' : AT_START.includes(starter.trigger))
        this.begin(starter, starter.trigger);
    this.isOff = !this.prepares;
  }
  private begin({ stack, steps }: Pick<CompiledStack, 'stack' | 'steps'>, trigger: string): void {
    const task = new Running(this, ++this.started, stack, steps);
    this.tasks.push(task);
    this.bench.recorder.event({ tUs: this.bench.now, block: stack.steps[0].id, type: 'began', task: task.id, trigger });
  }
  private fire(starter: Starter, trigger: string): void {
    if (this.tasks.some((t) => t.stack === starter.stack))
      this.bench.recorder.event({
        tUs: this.bench.now,
        block: starter.stack.steps[0].id,
        type: 'missed',
        trigger
      });
    else this.begin(starter, trigger);
  }
  /** Somebody else could use the processor: other tasks, a trigger, or the one who asked to run only so far. */
  get othersWait(): boolean {
    const { bench } = this;
    return (
      this.tasks.length > 1 ||
      bench.machine.triggers.length > 0 ||
      bench.now >= this.nextDue ||
      (this.asks && this.looked !== bench.ticks) ||
      bench.reached >= this.untilUs
    );
  }
  private get canStillBegin(): boolean {
    return this.starters.some((s) => !AT_START.includes(s.trigger)) || !this.isOff;
  }

  /** A variable has another value now. */
  changed(id: string): void {
    this.bench.recorder.change(this.nameOf.get(id) ?? id, this.bench.now, this.variables[id] ?? 0);
  }
  /** What a person changed by hand takes effect. */
  takeSets(): void {
    for (const { variable, to } of this.bench.takeSets()) {
      const id = [...this.nameOf].find(([, name]) => name === variable)?.[0];
      if (id === undefined) continue;
      this.variables[id] = to;
      this.changed(id);
    }
  }
  /** The tasks there are, the one that comes next first in `at`. */
  get running(): readonly {
    id: number;
    stack: Stack;
    wait: Wait;
    wakeUs: number;
    current: string | undefined;
    level: number;
  }[] {
    return this.tasks.map((t) => ({
      id: t.id,
      stack: t.stack,
      wait: t.wait,
      wakeUs: t.wakeUs,
      current: t.current?.step.id,
      level: t.level
    }));
  }
  /** The task that is stopped before a step. */
  get stopped(): number | undefined {
    return this.paused ? this.tasks[this.at]?.id : undefined;
  }
  /** The routine that the task which comes next is in, and what it was given. */
  get inputsNow(): { name: string; value: Value }[] {
    const given = this.tasks[this.paused ? this.at : 0]?.routineInputs ?? NO_INPUTS;
    return this.bench.spec.program.routines.flatMap((r) =>
      (r.inputs ?? []).filter((i) => i.id in given).map((i) => ({ name: i.name, value: given[i.id] }))
    );
  }
  /** What a value block comes to now; it must ask nothing that changes the run. */
  valueNow(step: Step): Value {
    const task =
      this.tasks[this.paused ? this.at : 0] ?? new Running(this, 0, { id: '', x: 0, y: 0, steps: [] }, NOTHING);
    return evaluation(step, this.bench.spec.program)(task);
  }

  /** Runs until the world has reached `untilUs`, the run has ended, or it stops before a step. */
  advance(untilUs: number): 'running' | 'paused' | 'ended' {
    this.untilUs = untilUs;
    const { bench } = this;
    try {
      while (!bench.ended) {
        if (this.failed) {
          if (bench.lead || bench.worldUs >= untilUs) return 'running';
          bench.runOut('error');
          continue;
        }
        if (!this.passing) {
          this.pickUp();
          if (this.failed) continue;
          this.passing = true;
          this.ran = false;
          this.at = 0;
        }
        if (this.pass() === 'paused') return 'paused';
        this.passing = false;
        if (!this.ran) {
          if (this.tasks.length === 0 && !this.canStillBegin && !bench.spec.open && !bench.lead) bench.runOut('done');
          else bench.idle(this.nextWake());
        }
        if (bench.reached >= untilUs) return bench.ended ? 'ended' : 'running';
      }
    } catch (error) {
      if (!(error instanceof Halt)) throw error;
    }
    Object.assign(bench.trace.variables, this.variables);
    return 'ended';
  }
  /** Where the person's attention belongs while paused: the step that comes next. */
  get here(): string | undefined {
    return this.paused ? this.tasks[this.at]?.current?.step.id : undefined;
  }

  /** What begins now: triggers of the device, what is due, what has become true, in the order of the file. */
  private pickUp(): void {
    const { bench, starters } = this;
    const { machine } = bench;
    if (!this.isOff && this.tasks.length === 0) {
      if (!this.isReady) {
        this.isReady = true;
        machine.prepared();
      }
      if (machine.word) {
        this.isOff = true;
        machine.holdWheels = false;
        for (const s of starters) if (s.trigger === 'start' || s.trigger === 'set off') this.begin(s, s.trigger);
      }
    }
    if (machine.triggers.length > 0) {
      const fired = machine.triggers;
      machine.triggers = [];
      for (const trigger of fired) for (const s of starters) if (s.trigger === trigger) this.fire(s, trigger);
    }
    if (bench.now >= this.nextDue) {
      for (const s of starters) for (; bench.now >= s.dueUs; s.dueUs += s.period!) this.fire(s, 'every');
      this.nextDue = Math.min(...starters.map((s) => s.dueUs));
    }
    if (this.asks && this.looked !== bench.ticks) {
      this.looked = bench.ticks;
      for (const s of starters) {
        if (!s.ask) continue;
        const is = this.ask(s);
        if (is && !s.was) this.fire(s, 'condition');
        s.was = is;
      }
    }
  }
  private ask(starter: Starter): boolean {
    this.bench.machine.block = starter.stack.steps[0].id;
    try {
      return starter.ask!();
    } catch (error) {
      if (error instanceof RunError) this.fail(starter.stack.steps[0].id, error);
      else throw error;
      return false;
    }
  }
  private pass(): 'paused' | undefined {
    const { bench } = this;
    while (this.at < this.tasks.length) {
      const task = this.tasks[this.at];
      try {
        bench.machine.block = task.current?.step.id;
        if (this.paused || this.ready(task)) {
          this.paused = false;
          this.ran = true;
          const result = task.doing.next();
          if (result.done) {
            this.tasks.splice(this.at, 1);
            continue;
          }
          if (result.value === PAUSE) {
            this.paused = true;
            return 'paused';
          }
          this.settle(task, result.value);
        }
      } catch (error) {
        if (error instanceof RunError) return void this.fail(task.current?.step.id, error);
        throw error;
      }
      this.at++;
    }
    return undefined;
  }
  private settle(task: Running, wait: Wait): void {
    task.wait = wait;
    task.seen = this.bench.ticks;
    if (wait && 'us' in wait) task.wakeUs = this.bench.now + Math.max(0, wait.us);
  }
  private ready(task: Running): boolean {
    const { wait } = task;
    if (wait === null) return true;
    if ('us' in wait) return this.bench.now >= task.wakeUs;
    if ('move' in wait) return this.bench.machine.moveOver(wait.move);
    if (wait.byUs !== undefined && this.bench.now >= wait.byUs) return true;
    if (task.seen === this.bench.ticks) return false;
    task.seen = this.bench.ticks;
    return wait.until();
  }
  private nextWake(): number {
    let next = this.nextDue;
    for (const { wait, wakeUs } of this.tasks) {
      if (wait && 'us' in wait && wakeUs < next) next = wakeUs;
      if (wait && 'until' in wait && wait.byUs !== undefined && wait.byUs < next) next = wait.byUs;
    }
    return next;
  }
  private fail(block: string | undefined, error: RunError): void {
    const { bench } = this;
    bench.recorder.event({
      tUs: bench.now,
      ...(block ? { block } : {}),
      type: 'error',
      kind: error.kind,
      message: error.message
    });
    bench.machine.letGo();
    this.tasks.length = 0;
    this.passing = false;
    this.failed = true;
  }
}

/** Lists before anything is put into them; every other variable is 0 until it is set. */
const initial = (program: Program): Record<string, Value> =>
  Object.fromEntries(program.variables.filter((v) => v.list).map((v): [string, Value] => [v.id, []]));

/** A whole run, as fast as it goes. */
export function rehearse(options: RunOptions): Trace {
  const bench = new Bench(options);
  const interpreter = new Interpreter(bench);
  while (interpreter.advance(Infinity) !== 'ended');
  return bench.trace;
}
