/**
 * The port layer of the stand-in: what `import mossbell_port` gives to mossbell.py. Every verb goes to the same Machine
 * that the interpreter drives. Errors come back as '!kind|values'; a JavaScript exception must never cross MicroPython.
 */
import { RunError, type Ending, type Measure, type Side, type Switch } from '../../core/language/meaning.ts';
import { num, whole } from '../../core/language/values.ts';
import type { Value } from '../../core/language/program.ts';
import { Halt, type Bench } from '../../core/run/bench.ts';

type Answer = number | boolean | string | null;
/** What the stand-in does for its port beside the bench. */
export type PortHost = {
  bench(): Bench;
  /** makes the bench for this text; the marked copy, or '!why not' */
  mark(path: string, text: string): string;
  over(how: string, info: string): void;
  /** whether the person or the cable wants the program to stop */
  interrupted(): boolean;
  serial: string;
  charge(): number;
};

const DEEPEST = 101; // the outermost function and 100 routines

export function makePort(host: PortHost, indexOfLine: () => readonly number[]) {
  type Waiting = { us: number } | { move: number };
  let waiting = new Map<number, Waiting>();
  let handles = 0;
  let task = 1;
  let rows = new Map<number, number>();
  let lines = new Map<number, number>();
  let depths = new Map<number, number>();

  const guard = (act: () => Answer | void): Answer => {
    try {
      return act() ?? null;
    } catch (error) {
      if (error instanceof RunError) return `!${error.kind}|${error.values}`;
      if (error instanceof Halt) return '!halt';
      return `!python|${(error as Error).message}`;
    }
  };
  const machine = () => host.bench().machine;
  /** A value that may be a number only: text and pictures come marked, or as Python objects. */
  const n = (value: unknown): number => {
    if (typeof value === 'number' || typeof value === 'boolean' || typeof value === 'string') return num(value);
    throw new RunError('not-a-number', value === null ? 'nothing' : 'a picture');
  };
  const handle = (w: Waiting): number => {
    waiting.set(++handles, w);
    return handles;
  };
  const isReady = (h: number): boolean => {
    const w = waiting.get(h);
    const over = !w || ('us' in w ? host.bench().now >= w.us : machine().moveOver(w.move));
    if (over) waiting.delete(h);
    return over;
  };
  const nextAlarm = (): number => {
    let next = Infinity;
    for (const w of waiting.values()) if ('us' in w && w.us < next) next = w.us;
    return next;
  };
  const value = (v: unknown): Value => {
    if (typeof v === 'string') return v.startsWith('picture ') ? { picture: v.slice(8) } : v.slice(5);
    return typeof v === 'boolean' ? v : n(v);
  };
  const measure = (amount: unknown, unit: unknown): Measure => ({ amount: n(amount), unit: unit as Measure['unit'] });
  const setBlock = (): void => {
    const line = lines.get(task);
    const bench = host.bench();
    machine().block = line === undefined ? undefined : bench.trace.header.blocks[indexOfLine()[line]];
  };

  const module = {
    // ---- time and steps ----
    step(line: number): number {
      if (host.interrupted()) return 1;
      const bench = host.bench();
      try {
        const row = rows.get(task);
        if (row !== undefined) bench.recorder.end(row, bench.now);
        bench.charge(bench.options.kit.board.stepUs);
        rows.set(task, bench.recorder.begin(indexOfLine()[line], task, bench.now));
        lines.set(task, line);
        setBlock();
      } catch (error) {
        if (error instanceof Halt) return 1;
        throw error;
      }
      return host.interrupted() ? 1 : 0;
    },
    turn_over(): number {
      const bench = host.bench();
      try {
        bench.charge(bench.options.kit.board.stepUs);
      } catch (error) {
        if (error instanceof Halt) return 1;
        throw error;
      }
      return host.interrupted() ? 1 : 0;
    },
    enter(): Answer {
      const depth = (depths.get(task) ?? 0) + 1;
      depths.set(task, depth);
      return depth > DEEPEST ? 1 : 0;
    },
    leave(): void {
      depths.set(task, (depths.get(task) ?? 1) - 1);
    },
    alarm: (amount: unknown, us: number) =>
      guard(() => handle({ us: host.bench().now + Math.max(0, Math.round(n(amount) * us)) })),
    ready: (h: number) => isReady(h),
    ticks: () => host.bench().ticks,
    idle: () =>
      guard(() => {
        if (host.interrupted()) return '!halt';
        host.bench().idle(nextAlarm());
      }),
    next_tick: () =>
      guard(() => {
        if (host.interrupted()) return '!halt';
        host.bench().idle(Infinity);
      }),
    finish: (h: number) =>
      guard(() => {
        while (!isReady(h)) {
          if (host.interrupted()) return '!halt';
          host.bench().idle(nextAlarm());
        }
      }),
    // ---- tasks ----
    task(number: number): void {
      task = number;
      setBlock();
    },
    began(trigger: string): void {
      const bench = host.bench();
      bench.recorder.event({ tUs: bench.now, type: 'began', task: ++startedTasks, trigger });
    },
    missed(trigger: string): void {
      const bench = host.bench();
      bench.recorder.event({ tUs: bench.now, type: 'missed', trigger });
    },
    fired(): string {
      const fired = machine().triggers.join('\n');
      machine().triggers = [];
      return fired;
    },
    // ---- parts ----
    wheels: (left: string, right: string, dl: number, dr: number, track: number) =>
      guard(() => machine().useWheels(left, right, dl, dr, track)),
    drive: (way: 'ahead' | 'back', amount: unknown, unit: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().drive(way, measure(amount, unit), n(power), ending) })),
    turn_on_spot: (side: Side, angle: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().turn(side, n(angle), n(power), ending) })),
    run_wheels: (left: unknown, right: unknown) => guard(() => machine().runWheels(n(left), n(right))),
    span_wheels: (left: unknown, right: unknown, amount: unknown, unit: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().spanWheels(n(left), n(right), measure(amount, unit), ending) })),
    stop_wheels: (ending: Ending) => guard(() => machine().stopWheels(ending)),
    run_motor: (socket: string, power: unknown) => guard(() => machine().runMotor(socket, n(power))),
    span_motor: (socket: string, power: unknown, amount: unknown, unit: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().spanMotor(socket, n(power), measure(amount, unit), ending) })),
    stop_motor: (socket: string, ending: Ending) => guard(() => machine().stopMotor(socket, ending)),
    servo: (socket: string, angle: unknown) => guard(() => machine().servo(socket, n(angle))),
    servos_middle: () => guard(() => machine().servosMiddle()),
    lamp: (side: Side, to: Switch) => guard(() => machine().lamp(side, to)),
    lamp_colour: (side: Side, colour: string) => guard(() => machine().lampColour(side, colour)),
    pixel: (x: unknown, y: unknown, to: Switch) => guard(() => machine().pixel(whole(n(x)), whole(n(y)), to)),
    show: (picture: unknown) =>
      guard(() => {
        const v = value(picture);
        if (typeof v !== 'object')
          throw new RunError('not-a-picture', `here is ${typeof v === 'string' ? `the text "${v}"` : v}`);
        machine().show(v);
      }),
    dark: () => guard(() => machine().dark()),
    tone: (hertz: unknown, seconds: unknown) => guard(() => machine().tone(n(hertz), n(seconds))),
    log: (v: unknown) => guard(() => machine().log(value(v))),
    distance: () => guard(() => machine().distance()),
    something_ahead: () => guard(() => machine().somethingAhead()),
    line_reads: (socket: string) => guard(() => machine().lineReads(socket)),
    line_over: (socket: string, what: 'dark' | 'light') => guard(() => machine().lineOver(socket, what)),
    nose: () => guard(() => machine().noseTouched()),
    heading: () => guard(() => machine().heading()),
    button: (name: string) => guard(() => machine().buttonHeld(name)),
    wheel_turns: (side: Side) => guard(() => machine().wheelTurns(side)),
    timer: () => guard(() => machine().timer()),
    chance: (from: unknown, to: unknown) => guard(() => String(machine().chance(whole(n(from)), whole(n(to))))),
    // ---- the board ----
    mark: (path: string, text: string) => host.mark(path, text),
    over: (how: string, info: string) => host.over(how, info),
    serial: () => host.serial,
    battery: () => Math.round(host.charge() * 100)
  };
  let startedTasks = 0;
  /** forgets the last run */
  const reset = (): void => {
    waiting = new Map();
    rows = new Map();
    lines = new Map();
    depths = new Map();
    handles = 0;
    task = 1;
    startedTasks = 0;
  };
  return { module, reset };
}
