/**
 * What a block may ask for while it runs. `run/` implements these for the interpreter, and the stand-in's port layer
 * calls the same Device, so that both runners drive the same simulated parts.
 */
import type { Colour } from './pixels.ts';
import type { Picture, Value } from './program.ts';

export type Ending = 'brake' | 'coast';
import type { Side } from '../kit/kit.ts';
export type { Side };
export type Switch = 'on' | 'off' | 'flip';
/** Amount and unit of a measured move. */
export type Measure = { amount: number; unit: 'cm' | 'wheel turns' | 's' | '°' | 'turns' };
/** The number of a move that was started; ask `moveOver` whether it is done, blocked or taken over. */
export type MoveId = number;
/** A note or a rest to be played: 0 Hz is a rest. */
export type PlayedNote = { hertz: number; us: number };

/** The simulated parts, in the units of the language: cm, degrees, %, seconds. Errors are thrown as RunError. */
export interface Device {
  drive(way: 'ahead' | 'back', measure: Measure, power: number, ending: Ending): MoveId;
  driveFacing(cm: number, facingDeg: number, power: number, ending: Ending): MoveId;
  turn(side: Side, angleDeg: number, power: number, ending: Ending): MoveId;
  turnByGyro(side: Side, angleDeg: number, power: number, ending: Ending): MoveId;
  face(headingDeg: number, power: number, ending: Ending): MoveId;
  curve(side: Side, radiusCm: number, angleDeg: number, power: number, ending: Ending): MoveId;
  runWheels(left: number, right: number): void;
  spanWheels(left: number, right: number, measure: Measure, ending: Ending): MoveId;
  stopWheels(ending: Ending): void;
  runMotor(socket: string, power: number): void;
  spanMotor(socket: string, power: number, measure: Measure, ending: Ending): MoveId;
  stopMotor(socket: string, ending: Ending): void;
  motorSide(socket: string, side: 'normal' | 'mirrored'): void;
  motorKeeps(socket: string, what: 'speed' | 'power'): void;
  moveOver(move: MoveId): boolean;
  servo(socket: string, angleDeg: number): void;
  servoSlow(socket: string, angleDeg: number, seconds: number): void;
  servosMiddle(): void;
  spin(socket: string, power: number): void;
  /** lamps by their names */
  lamp(name: string, to: Switch): void;
  lampLevel(name: string, level: number): void;
  lampColour(name: string, colour: string): void;
  pixel(x: number, y: number, to: Switch): void;
  pixelLevel(x: number, y: number, level: number): void;
  pixelColour(x: number, y: number, colour: Colour): void;
  show(picture: Picture): void;
  dark(): void;
  write(value: Value): void;
  /** pictures of a text that passes by, one after the other; see display.ts */
  passing(value: Value): Picture[];
  /** starts a tone; the block waits for its end */
  tone(hertz: number, seconds: number): void;
  startTone(hertz: number): void;
  silence(): void;
  volume(percent: number): void;
  tempo(beats: number): void;
  notes(text: string): PlayedNote[];
  say(value: Value): void;
  send(message: string, nearby: boolean): void;
  log(value: Value): void;
  plot(name: string, value: number): void;
  mark(value: Value): void;
  distance(): number;
  somethingAhead(): boolean;
  noseTouched(): boolean;
  rimTouched(): boolean;
  /** degrees clockwise from the notch, where it was touched last */
  rimPlace(): number;
  /** @param directionDeg clockwise from ahead */
  slide(directionDeg: number, measure: Measure, power: number, ending: Ending): MoveId;
  slideOn(headingDeg: number, power: number): void;
  edgeTouched(side: Side): boolean;
  buttonHeld(button: string): boolean;
  keyHeld(key: string): boolean;
  stick(stick: string): number;
  heading(): number;
  turned(): number;
  turningRate(): number;
  zeroHeading(): void;
  wheelTurns(side: Side): number;
  wheelSpeed(side: Side): number;
  zeroWheels(): void;
  driven(): number;
  speed(): number;
  motorTurns(socket: string): number;
  motorSpeed(socket: string): number;
  acceleration(axis: string): number;
  lean(axis: string): number;
  lineReads(socket: string): number;
  /** the name of the nearest of the named colours */
  colourBelow(socket: string): string;
  lineOver(socket: string, what: 'dark' | 'light'): boolean;
  light(): number;
  temperature(): number;
  moisture(): number;
  battery(): number;
  timer(): number;
  restartTimer(): void;
  lastMessage(): string;
  chance(from: number, to: number): number;
  anyChance(): number;
}

/** What a task waits for when it gives way: the next turn, a time span, a condition, or the end of a move. */
export type Wait = null | { us: number } | { until: () => boolean; byUs?: number } | { move: MoveId };
/** How a list of steps ended: at its end, or because a block left the loop, went to its next turn, or gave back a value. */
export type Signal = void | 'leave' | 'next' | 'give';
export type Doing = Generator<Wait, Signal, void>;

/** One running stack, as its blocks see it. */
export interface Task {
  readonly device: Device;
  /** board time, microseconds */
  readonly nowUs: number;
  /** runs the steps of a body */
  steps(body: string): Doing;
  /** to be called at the end of every turn of a loop: costs board time; yields when others are waiting */
  turn(): boolean;
  /** runs a routine with its inputs in the order of its definition */
  callRoutine(id: string, inputs: Record<string, Value>): Doing;
  /** what the routine that is running was given, by the input's id */
  input(id: string): Value;
  /** what a routine gave back last */
  given: Value;
  get(variable: string): Value;
  set(variable: string, value: Value): void;
}

/** The closed list of errors that end a program, each with its sentence for a pupil. */
export const ERRORS = {
  'no-sides': 'These wheels do not stand in two rows, left and right.',
  'no-display': 'This device has no display.',
  'no-slide': 'These wheels cannot slide: each holds its way sideways.',
  'division-by-zero': 'Nothing can be divided by zero.',
  'not-a-number': 'A number belongs here.',
  'not-a-picture': 'A picture belongs here.',
  'not-a-list': 'A list belongs here.',
  'not-a-text': 'Text belongs here.',
  'no-number-in-text': 'This text cannot be read as a number.',
  'not-whole': 'A whole number belongs here.',
  'too-large': 'This number is too large.',
  'unlike-things': 'These two cannot be compared: one is not a number.',
  'out-of-range': 'This number is outside of what is possible here.',
  'no-result': 'This cannot be worked out: there is no such number.',
  'no-such-place': 'There is no such place. Places count from 0.',
  'not-in-list': 'The list does not hold this.',
  'list-in-itself': 'A list cannot hold itself.',
  'list-too-long': 'A list holds at most 10000 things.',
  'text-too-long': 'A text holds at most 10000 characters.',
  'no-such-word': 'This word is none of those that can stand here.',
  'not-a-note': 'This cannot be played. Write notes such as C4 D4 E4.',
  'not-yet': 'The wheels may not move before setting off.',
  'gives-nothing': 'The routine gave nothing back.',
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
