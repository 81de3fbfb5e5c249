/**
 * The port layer of the stand-in: what `import mossbell_port` gives to mossbell.py. Every verb goes to the same Machine
 * that the interpreter drives. Errors come back as '!kind|values'; a JavaScript exception must never cross MicroPython.
 */
import { renewedSocket } from '../../core/kit/before.ts';
import { renewedPicture } from '../../core/kit/repaint.ts';
import { RunError, type Ending, type Measure, type Side, type Switch } from '../../core/language/meaning.ts';
import {
  arcTangent2,
  FUNCTIONS,
  kindOf,
  num,
  power,
  sound,
  textOf,
  typedNumber,
  whole
} from '../../core/language/values.ts';
import { isPictureText, overlay, shifted, type Colour } from '../../core/language/pixels.ts';
import { isPicture, type Picture, type Value } from '../../core/language/program.ts';
import { Halt, type Bench } from '../../core/run/bench.ts';

type Answer = number | boolean | string | null;
/** What the stand-in does for its port beside the bench. */
export type PortHost = {
  bench(): Bench;
  /** the line where the text's function of that name begins */
  lineOf(name: string): number | undefined;
  /** makes the bench for this text; the marked copy, or '!why not' */
  mark(path: string, text: string): string;
  over(how: string, info: string): void;
  /** whether the person or the cable wants the program to stop */
  interrupted(): boolean;
  serial: string;
  /** which kit its board is for */
  device: string;
  chooses(number: number): void;
  shows(): void;
  charge(): number;
  /** whether to stop before this line and look; what it found; and to wait until the person goes on (false: to end) */
  pausesAt(line: number, task: number, level: number): boolean;
  paused(line: number, values: Record<string, Value>): boolean;
};

/** A list or a passing text is asked for soon after it came: the newest few are kept, not every one there ever was. */
const KEPT_LISTS = 64;
const DEEPEST = 101; // the outermost function and 100 routines

export function makePort(host: PortHost, indexOfLine: () => readonly number[]) {
  type Waiting = { us: number } | { move: number };
  let waiting = new Map<number, Waiting>();
  let handles = 0;
  let task = 1;
  let rows = new Map<number, number>();
  let lines = new Map<number, number>();
  /** of each task, the lines that called the functions it is in */
  let callers = new Map<number, (number | undefined)[]>();
  /** a stop before a line: whether it is on, and what the names hold */
  let looking = false;
  /** names that a person changed, to be handed over; and whether it stopped for these alone */
  let sets: { variable: string; to: number | string }[] = [];
  let setting = false;
  let held: Record<string, Value> = {};
  /** when the next "every" is due, microseconds; -1 for never */
  let due = -1;

  const guard = (act: () => Answer | void): Answer => {
    try {
      const answer = act() ?? null;
      // whole numbers cross with 32 bits; larger ones as digits
      return Number.isInteger(answer) && Math.abs(answer as number) > 0x7fffffff ? `#${String(answer)}` : answer;
    } catch (error) {
      if (error instanceof RunError) return `!${error.kind}|${error.values}`;
      if (error instanceof Halt) return '!halt';
      return `!python|${(error as Error).message}`;
    }
  };
  const machine = () => host.bench().machine;
  /** a program that was sent before the sockets were one row goes on running */
  const at = (socket: string): string => renewedSocket(socket, machine().kit.device);
  /** A value that may be a number only: text and pictures come marked, or as Python objects. */
  const n = (value: unknown): number => {
    if (typeof value === 'number' || typeof value === 'boolean') return num(value);
    const kind =
      typeof value === 'string' ? /^list |^picture /.exec(value)?.[0] : value === null ? 'nothing ' : 'picture ';
    throw new RunError('not-a-number', `here is ${kind === 'nothing ' ? 'nothing' : `a ${kind?.trim() ?? 'text'}`}`);
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
    return due >= 0 && due < next ? due : next;
  };
  /** lists that are being handed over, innermost last, and those that are whole */
  let open: Value[][] = [];
  let whole_: Value[][] = [];
  let lists = 0;
  const value = (v: unknown): Value => {
    if (typeof v === 'string') {
      if (v.startsWith('list ')) return whole_[Number(v.slice(5)) % KEPT_LISTS];
      return v.startsWith('picture ') ? { picture: renewedPicture(v.slice(8)) } : v.slice(5);
    }
    return typeof v === 'boolean' ? v : n(v);
  };
  const pictureIn = (v: unknown): Picture => {
    const picture = value(v);
    if (isPicture(picture) && isPictureText(picture.picture)) return picture;
    throw new RunError('not-a-picture', `here is ${kindOf(picture)}`);
  };
  let passing: Picture[][] = [];
  let passings = 0;
  /** text for the program: an error begins with '!' */
  const said = (text: string): string => `=${text}`;
  const measure = (amount: unknown, unit: unknown): Measure => ({ amount: n(amount), unit: unit as Measure['unit'] });
  const stackOf = (): (number | undefined)[] => {
    let stack = callers.get(task);
    if (!stack) callers.set(task, (stack = []));
    return stack;
  };
  /** the block that a function of the text hangs on, by its name */
  const blockOf = (name: string): { block?: string } => {
    const line = host.lineOf(name);
    const block = line === undefined ? undefined : host.bench().trace.header.blocks[indexOfLine()[line]];
    return block ? { block } : {};
  };
  const setBlock = (): void => {
    const line = lines.get(task);
    const bench = host.bench();
    machine().block = line === undefined ? undefined : bench.trace.header.blocks[indexOfLine()[line]];
  };

  /** @returns whether the run goes on */
  const takeSets = (): boolean => {
    try {
      sets.push(...host.bench().takeSets());
      return true;
    } catch (error) {
      if (error instanceof Halt) return false;
      throw error;
    }
  };

  const module = {
    // ---- time and steps ----
    step(line: number): number {
      if (host.interrupted()) return 1;
      const bench = host.bench();
      try {
        const row = rows.get(task);
        if (row !== undefined) bench.recorder.end(row, bench.now);
        bench.charge(bench.spec.kit.board.stepUs);
        rows.set(task, bench.recorder.begin(indexOfLine()[line], task, bench.now));
        lines.set(task, line);
        setBlock();
      } catch (error) {
        if (error instanceof Halt) return 1;
        throw error;
      }
      if (host.interrupted()) return 1;
      looking = host.pausesAt(line, task, stackOf().length);
      if (!looking && bench.hasSets && !takeSets()) return 1;
      setting = !looking && sets.length > 0;
      return looking || setting ? 2 : 0;
    },
    looks: () => looking,
    holds: (name: string, v: unknown) => void (held[name] = v === 'None' ? 'nothing' : value(v)),
    rest(): boolean {
      if (setting) return !(setting = false);
      if (!looking) return false;
      looking = false;
      const values = held;
      held = {};
      const goesOn = host.paused(lines.get(task) ?? 0, values);
      return goesOn && takeSets();
    },
    set_name: () => sets[0]?.variable ?? '',
    set_value(): number | string {
      const { variable, to } = sets.shift()!;
      host.bench().recorder.change(variable, host.bench().now, to);
      return to;
    },
    changed(name: string, v: unknown, length: number): void {
      const bench = host.bench();
      bench.recorder.change(name, bench.now, v === 'None' ? 'nothing' : value(v), length);
    },
    turn_over(): number {
      const bench = host.bench();
      try {
        bench.charge(bench.spec.kit.board.stepUs);
      } catch (error) {
        if (error instanceof Halt) return 1;
        throw error;
      }
      return host.interrupted() ? 1 : 0;
    },
    enter(): Answer {
      const stack = stackOf();
      stack.push(lines.get(task));
      return stack.length > DEEPEST ? 1 : 0;
    },
    /** back to the line that called: what it still does is its own */
    leave(): void {
      const caller = stackOf().pop();
      if (caller === undefined) return;
      lines.set(task, caller);
      setBlock();
    },
    alarm: (amount: unknown, us: number) =>
      guard(() => handle({ us: host.bench().now + Math.max(0, Math.round(n(amount) * us)) })),
    ready: (h: number) => isReady(h),
    drop: (h: number) => void waiting.delete(h),
    now: () => guard(() => host.bench().now),
    due: (us: number) => void (due = us),
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
    began(trigger: string, name: string): void {
      const bench = host.bench();
      bench.recorder.event({ tUs: bench.now, ...blockOf(name), type: 'began', task: ++startedTasks, trigger });
    },
    missed(trigger: string, name: string): void {
      const bench = host.bench();
      bench.recorder.event({ tUs: bench.now, ...blockOf(name), type: 'missed', trigger });
    },
    /** the task that ran last is at its end: its last line is over */
    task_over(): void {
      const row = rows.get(task);
      if (row !== undefined) host.bench().recorder.end(row, host.bench().now);
      rows.delete(task);
    },
    fired(): string {
      const fired = machine().triggers.join('\n');
      machine().triggers = [];
      return fired;
    },
    watch: (trigger: string) => guard(() => machine().watch(trigger)),
    hold: (on: boolean) => void (machine().holdWheels = on),
    word: () => machine().word,
    prepared(): void {
      machine().prepared();
    },
    // ---- values ----
    open_list: () => void open.push([]),
    put: (v: unknown) => guard(() => void open[open.length - 1].push(value(v))),
    close_list: () => {
      whole_[lists % KEPT_LISTS] = open.pop()!;
      return `list ${lists++}`;
    },
    text: (v: unknown) => guard(() => said(textOf(value(v)))),
    number: (v: unknown) =>
      guard(() => {
        const text = textOf(value(v));
        const found = typedNumber(text);
        if (found === undefined) throw new RunError('no-number-in-text', `"${text}"`);
        return sound(found);
      }),
    calc: (name: string, x: unknown) => guard(() => sound(FUNCTIONS[name](n(x)))),
    power: (a: unknown, b: unknown) => guard(() => power(n(a), n(b))),
    arc_tangent_2: (y: unknown, x: unknown) => guard(() => arcTangent2(n(y), n(x))),
    // ---- parts ----
    wheels: (left: string, right: string, dl: number, dr: number, track: number) =>
      guard(() => {
        const sockets = (names: string): string[] => names.split(' ').filter(Boolean).map(at);
        machine().useSides({ left: sockets(left), right: sockets(right) }, dl, dr, track);
      }),
    wheel_at: (i: number, socket: string, x: number, y: number, deg: number, d: number) =>
      guard(() => machine().useWheel(i, at(socket), { xMm: x, yMm: y, deg }, d)),
    drive: (way: 'ahead' | 'back', amount: unknown, unit: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().drive(way, measure(amount, unit), n(power), ending) })),
    turn_on_spot: (side: Side, angle: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().turn(side, n(angle), n(power), ending) })),
    drive_facing: (cm: unknown, heading: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().driveFacing(n(cm), n(heading), n(power), ending) })),
    turn_gyro: (side: Side, angle: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().turnByGyro(side, n(angle), n(power), ending) })),
    face: (heading: unknown, power: unknown) =>
      guard(() => handle({ move: machine().face(n(heading), n(power), 'brake') })),
    curve: (side: Side, radius: unknown, angle: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().curve(side, n(radius), n(angle), n(power), ending) })),
    slide: (direction: unknown, amount: unknown, unit: unknown, power: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().slide(n(direction), measure(amount, unit), n(power), ending) })),
    slide_on: (heading: unknown, power: unknown) => guard(() => machine().slideOn(n(heading), n(power))),
    motor_side: (socket: string, side: 'normal' | 'mirrored') => guard(() => machine().motorSide(at(socket), side)),
    motor_keeps: (socket: string, what: 'speed' | 'power') => guard(() => machine().motorKeeps(at(socket), what)),
    motor_turns: (socket: string) => guard(() => machine().motorTurns(at(socket))),
    motor_speed: (socket: string) => guard(() => machine().motorSpeed(at(socket))),
    run_wheels: (left: unknown, right: unknown) => guard(() => machine().runWheels(n(left), n(right))),
    span_wheels: (left: unknown, right: unknown, amount: unknown, unit: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().spanWheels(n(left), n(right), measure(amount, unit), ending) })),
    stop_wheels: (ending: Ending) => guard(() => machine().stopWheels(ending)),
    run_motor: (socket: string, power: unknown) => guard(() => machine().runMotor(at(socket), n(power))),
    span_motor: (socket: string, power: unknown, amount: unknown, unit: unknown, ending: Ending) =>
      guard(() => handle({ move: machine().spanMotor(at(socket), n(power), measure(amount, unit), ending) })),
    stop_motor: (socket: string, ending: Ending) => guard(() => machine().stopMotor(at(socket), ending)),
    servo: (socket: string, angle: unknown) => guard(() => machine().servo(at(socket), n(angle))),
    servo_slow: (socket: string, angle: unknown, seconds: unknown) =>
      guard(() => machine().servoSlow(at(socket), n(angle), n(seconds))),
    spin: (socket: string, power: unknown) => guard(() => machine().spin(at(socket), n(power))),
    servos_middle: () => guard(() => machine().servosMiddle()),
    lamp: (name: string, to: Switch) => guard(() => machine().lamp(name, to)),
    lamp_level: (name: string, level: unknown) => guard(() => machine().lampLevel(name, n(level))),
    lamp_colour: (name: string, colour: string) => guard(() => machine().lampColour(name, colour)),
    pixel: (x: unknown, y: unknown, to: Switch) => guard(() => machine().pixel(whole(n(x)), whole(n(y)), to)),
    pixel_colour: (x: unknown, y: unknown, colour: Colour) =>
      guard(() => machine().pixelColour(whole(n(x)), whole(n(y)), colour)),
    pixel_level: (x: unknown, y: unknown, level: unknown) =>
      guard(() => machine().pixelLevel(whole(n(x)), whole(n(y)), n(level))),
    show: (picture: unknown) => guard(() => machine().show(pictureIn(picture))),
    show_moved: (picture: unknown, x: unknown, y: unknown) =>
      guard(() => machine().show({ picture: shifted(pictureIn(picture).picture, whole(n(x)), whole(n(y))) })),
    overlay: (top: string, under: string) => guard(() => said(overlay(top, under))),
    write: (v: unknown) => guard(() => machine().write(value(v))),
    passing: (v: unknown) => guard(() => (passing[passings++ % KEPT_LISTS] = machine().passing(value(v))).length),
    passing_number: () => passings - 1,
    show_passing: (at: number, number = passings - 1) => guard(() => machine().show(passing[number % KEPT_LISTS][at])),
    dark: () => guard(() => machine().dark()),
    tone: (hertz: unknown, seconds: unknown) => guard(() => machine().tone(n(hertz), n(seconds))),
    start_tone: (hertz: unknown) => guard(() => machine().startTone(n(hertz))),
    silence: () => guard(() => machine().silence()),
    volume: (percent: unknown) => guard(() => machine().volume(n(percent))),
    tempo: (beats: unknown) => guard(() => machine().tempo(n(beats))),
    notes: (v: unknown) =>
      guard(() =>
        said(
          machine()
            .notes(textOf(value(v)))
            .map((note) => `${note.hertz} ${note.us}`)
            .join(';')
        )
      ),
    play_note: (hertz: number, us: number) => guard(() => (hertz > 0 ? machine().tone(hertz, us / 1e6) : undefined)),
    say: (v: unknown) => guard(() => machine().say(value(v))),
    log: (v: unknown) => guard(() => machine().log(value(v))),
    plot: (name: string, v: unknown) => guard(() => machine().plot(name, n(v))),
    flag: (v: unknown) => guard(() => machine().mark(value(v))),
    send: (message: string, nearby: boolean) => guard(() => machine().send(message, nearby)),
    last_message: () => guard(() => said(machine().lastMessage())),
    distance: (socket: string) => guard(() => machine().distance(at(socket))),
    something_ahead: (socket: string) => guard(() => machine().somethingAhead(at(socket))),
    colour: (socket: string) => guard(() => machine().colourBelow(at(socket))),
    line_reads: (socket: string) => guard(() => machine().lineReads(at(socket))),
    line_over: (socket: string, what: 'dark' | 'light') => guard(() => machine().lineOver(at(socket), what)),
    rim: () => guard(() => machine().rimTouched()),
    rim_place: () => guard(() => machine().rimPlace()),
    nose: () => guard(() => machine().noseTouched()),
    heading: () => guard(() => machine().heading()),
    button: (name: string) => guard(() => machine().buttonHeld(name)),
    turned: () => guard(() => machine().turned()),
    turning_rate: () => guard(() => machine().turningRate()),
    zero_heading: () => guard(() => machine().zeroHeading()),
    wheel_speed: (side: Side) => guard(() => machine().wheelSpeed(side)),
    zero_wheels: () => guard(() => machine().zeroWheels()),
    driven: () => guard(() => machine().driven()),
    speed: () => guard(() => machine().speed()),
    acceleration: (axis: string) => guard(() => machine().acceleration(axis)),
    lean: (axis: string) => guard(() => machine().lean(axis)),
    edge: (side: Side) => guard(() => machine().edgeTouched(side)),
    key: (key: string) => guard(() => machine().keyHeld(key)),
    stick: (stick: string) => guard(() => machine().stick(stick)),
    light: () => guard(() => machine().light()),
    temperature: () => guard(() => machine().temperature()),
    moisture: () => guard(() => machine().moisture()),
    charge: () => guard(() => machine().battery()),
    restart_timer: () => guard(() => machine().restartTimer()),
    any_chance: () => guard(() => machine().anyChance()),
    wheel_turns: (side: Side) => guard(() => machine().wheelTurns(side)),
    timer: () => guard(() => machine().timer()),
    chance: (from: unknown, to: unknown) => guard(() => machine().chance(whole(n(from)), whole(n(to)))),
    // ---- the board ----
    mark: (path: string, text: string) => host.mark(path, text),
    over: (how: string, info: string) => host.over(how, info),
    serial: () => host.serial,
    device: () => host.device,
    chooses: (number: number) => host.chooses(number),
    show_which: () => host.shows(),
    battery: () => Math.round(host.charge() * 100)
  };
  let startedTasks = 0;
  /** forgets the last run */
  const reset = (): void => {
    waiting = new Map();
    rows = new Map();
    lines = new Map();
    callers = new Map();
    handles = 0;
    due = -1;
    open = [];
    whole_ = [];
    passing = [];
    task = 1;
    startedTasks = 0;
    sets = [];
  };
  return { module, reset };
}
