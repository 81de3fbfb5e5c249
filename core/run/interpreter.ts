/**
 * Runs a program on a bench, block by block. Tasks share one processor and give way at waits, at steps that take time and
 * at the end of every turn of a loop (design: running.md). mossbell.py has the same scheduler for the stand-in and a real
 * board: when one changes, so must the other, and the conformance tests hold them together.
 */
import { RunError, type Doing, type Device, type Task, type Wait } from '../language/meaning.ts';
import { isLive, type Stack, type Value } from '../language/program.ts';
import { Bench, Halt } from './bench.ts';
import { compile, type Compiled, type CompiledProgram } from './compile.ts';

const DEEPEST = 100;
/** Yielded by a task that was stopped before a step by the person, not by the program. */
const PAUSE = { pause: true } as unknown as Wait;

const NOTHING: Compiled[] = [];

class Running implements Task {
  wait: Wait = null;
  wakeUs = 0;
  seen = 0;
  current: Compiled | undefined;
  depth = 0;
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
  /** @param around the step whose body this is: it is the current one again when the body is over */
  *list(steps: Compiled[], around?: Compiled): Doing {
    const { interpreter } = this;
    const { bench } = interpreter;
    const { recorder, machine } = bench;
    const { stepUs } = bench.options.kit.board;
    for (let i = 0; i < steps.length; i++) {
      const compiled = steps[i];
      this.current = compiled;
      bench.charge(stepUs);
      const row = recorder.begin(compiled.index, this.id, bench.now);
      machine.block = compiled.step.id;
      if (interpreter.stopBefore?.(compiled.step.id)) yield PAUSE;
      const doing = compiled.run(this, compiled.args(this) as never, compiled.step);
      if (doing) yield* doing;
      recorder.end(row, bench.now);
    }
    if (around) {
      this.current = around;
      machine.block = around.step.id;
    }
  }
  steps(body: string): Doing {
    const here = this.current!;
    return this.list(here.bodies[body] ?? NOTHING, here);
  }
  turn(): boolean {
    const { interpreter } = this;
    interpreter.bench.charge(interpreter.bench.options.kit.board.stepUs);
    return interpreter.othersWait;
  }
  *callRoutine(id: string): Doing {
    const here = this.current!;
    const steps = this.interpreter.compiled.routines.get(id);
    if (!steps) return;
    if (++this.depth > DEEPEST) throw new RunError('too-deep');
    yield* this.list(steps, here);
    this.depth--;
  }
  get(variable: string): Value {
    return this.interpreter.variables[variable] ?? 0;
  }
  set(variable: string, value: Value): void {
    this.interpreter.variables[variable] = value;
  }
}

export class Interpreter {
  readonly compiled: CompiledProgram;
  readonly variables: Record<string, Value> = {};
  /** asked before every step; true stops there */
  stopBefore: ((block: string) => boolean) | undefined;
  private readonly tasks: Running[] = [];
  private started = 0;
  private at = 0;
  private ran = false;
  private passing = false;
  private paused = false;
  private untilUs = 0;
  private failed = false;

  constructor(readonly bench: Bench) {
    this.compiled = compile(bench.options.program, bench.blockIndex, isLive);
    for (const { trigger, stack, steps } of this.compiled.stacks)
      if (trigger === 'start') this.begin(stack, steps, 'start');
  }
  private begin(stack: Stack, steps: Compiled[], trigger: string): void {
    const task = new Running(this, ++this.started, stack, steps);
    this.tasks.push(task);
    this.bench.recorder.event({ tUs: this.bench.now, block: stack.steps[0].id, type: 'began', task: task.id, trigger });
  }
  /** Somebody else could use the processor: other tasks, a trigger, or the one who asked to run only so far. */
  get othersWait(): boolean {
    return this.tasks.length > 1 || this.bench.machine.triggers.length > 0 || this.bench.worldUs >= this.untilUs;
  }
  private get canStillBegin(): boolean {
    return this.compiled.stacks.some((s) => s.trigger !== 'start');
  }

  /** Runs until the world has reached `untilUs`, the run has ended, or it stops before a step. */
  advance(untilUs: number): 'running' | 'paused' | 'ended' {
    this.untilUs = untilUs;
    const { bench } = this;
    try {
      while (!bench.ended) {
        if (this.failed) {
          if (bench.worldUs >= untilUs) return 'running';
          bench.runOut('error');
          continue;
        }
        if (!this.passing) {
          this.pickUp();
          this.passing = true;
          this.ran = false;
          this.at = 0;
        }
        if (this.pass() === 'paused') return 'paused';
        this.passing = false;
        if (!this.ran) {
          if (this.tasks.length === 0 && !this.canStillBegin) bench.runOut('done');
          else bench.idle(this.nextWake());
        }
        if (bench.worldUs >= untilUs) return bench.ended ? 'ended' : 'running';
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

  private pickUp(): void {
    const { machine, recorder } = this.bench;
    if (machine.triggers.length === 0) return;
    const fired = machine.triggers;
    machine.triggers = [];
    for (const trigger of fired)
      for (const { stack, steps, trigger: own } of this.compiled.stacks) {
        if (own !== trigger) continue;
        if (this.tasks.some((t) => t.stack === stack))
          recorder.event({ tUs: this.bench.now, block: stack.steps[0].id, type: 'missed', trigger });
        else this.begin(stack, steps, trigger);
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
        if (error instanceof RunError) return void this.fail(task, error);
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
    if (task.seen === this.bench.ticks) return false;
    task.seen = this.bench.ticks;
    return wait.until();
  }
  private nextWake(): number {
    let next = Infinity;
    for (const { wait, wakeUs } of this.tasks) if (wait && 'us' in wait && wakeUs < next) next = wakeUs;
    return next;
  }
  private fail(task: Running, error: RunError): void {
    const { bench } = this;
    bench.recorder.event({
      tUs: bench.now,
      ...(task.current ? { block: task.current.step.id } : {}),
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

/** A whole run, as fast as it goes. */
export function rehearse(options: import('./bench.ts').RunOptions): import('../trace/trace.ts').Trace {
  const bench = new Bench(options);
  const interpreter = new Interpreter(bench);
  while (interpreter.advance(Infinity) !== 'ended');
  return bench.trace;
}
