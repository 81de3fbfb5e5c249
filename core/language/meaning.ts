/**
 * What a block may ask for while it runs. `run/` implements these for the interpreter, and the stand-in's port layer
 * calls the same Device, so that both runners drive the same simulated parts.
 */
import type { Picture, Value } from './program.ts';

export type Ending = 'brake' | 'coast';
export type Side = 'left' | 'right';
export type Switch = 'on' | 'off' | 'flip';
/** Amount and unit of a measured move. */
export type Measure = { amount: number; unit: 'cm' | 'wheel turns' | 's' | '°' | 'turns' };
/** The number of a move that was started; ask `moveOver` whether it is done, blocked or taken over. */
export type MoveId = number;

/** The simulated parts, in the units of the language: cm, degrees, %, seconds. Errors are thrown as RunError. */
export interface Device {
  drive(way: 'ahead' | 'back', measure: Measure, power: number, ending: Ending): MoveId;
  turn(side: Side, angleDeg: number, power: number, ending: Ending): MoveId;
  runWheels(left: number, right: number): void;
  spanWheels(left: number, right: number, measure: Measure, ending: Ending): MoveId;
  stopWheels(ending: Ending): void;
  runMotor(socket: string, power: number): void;
  spanMotor(socket: string, power: number, measure: Measure, ending: Ending): MoveId;
  stopMotor(socket: string, ending: Ending): void;
  moveOver(move: MoveId): boolean;
  servo(socket: string, angleDeg: number): void;
  servosMiddle(): void;
  lamp(side: Side, to: Switch): void;
  lampColour(side: Side, colour: string): void;
  pixel(x: number, y: number, to: Switch): void;
  show(picture: Picture): void;
  dark(): void;
  /** starts a tone; the block waits for its end */
  tone(hertz: number, seconds: number): void;
  log(value: Value): void;
  distance(): number;
  somethingAhead(): boolean;
  noseTouched(): boolean;
  buttonHeld(button: string): boolean;
  heading(): number;
  wheelTurns(side: Side): number;
  lineReads(socket: string): number;
  lineOver(socket: string, what: 'dark' | 'light'): boolean;
  timer(): number;
  chance(from: number, to: number): number;
}

/** What a task waits for when it gives way: the next turn, a time span, a condition, or the end of a move. */
export type Wait = null | { us: number } | { until: () => boolean } | { move: MoveId };
export type Doing = Generator<Wait, void, void>;

/** One running stack, as its blocks see it. */
export interface Task {
  readonly device: Device;
  /** runs the steps of a body */
  steps(body: string): Doing;
  /** to be called at the end of every turn of a loop: costs board time; yields when others are waiting */
  turn(): boolean;
  callRoutine(id: string): Doing;
  get(variable: string): Value;
  set(variable: string, value: Value): void;
}

/** The closed list of errors that end a program, each with its sentence for a pupil. */
export const ERRORS = {
  'division-by-zero': 'Nothing can be divided by zero.',
  'not-a-number': 'A number belongs here.',
  'not-a-picture': 'A picture belongs here.',
  'not-whole': 'A whole number belongs here.',
  'too-large': 'This number is too large.',
  'unlike-things': 'These two cannot be compared: one is not a number.',
  'out-of-range': 'This number is outside of what is possible here.',
  'empty-socket': 'Nothing is plugged in there.',
  'wrong-part': 'Another kind of part is plugged in there.',
  'too-deep': 'The routine calls itself more than 100 times deep.'
} as const;
export type ErrorKind = keyof typeof ERRORS;

/** An error of the person's program: its kind, and the values that led to it. */
export class RunError extends Error {
  constructor(
    readonly kind: ErrorKind,
    readonly values: string = ''
  ) {
    super(ERRORS[kind] + (values ? ` (${values})` : ''));
    this.name = 'RunError';
  }
}
