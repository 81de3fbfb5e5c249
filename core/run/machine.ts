/**
 * The device's own electronics and firmware: it turns the language's centimetres, degrees and percents into duties for the
 * yard's motors, runs measured moves, keeps lamps, display and buttons, and writes events into the trace.
 */
import { partAt, wheelMotor, type Kit, type Part } from '../kit/kit.ts';
import {
  RunError,
  type Device,
  type Ending,
  type Measure,
  type MoveId,
  type Side,
  type Switch
} from '../language/meaning.ts';
import type { Picture, Value } from '../language/program.ts';
import { show, sound } from '../language/values.ts';
import { stream, wholeBetween, type Source } from '../random.ts';
import type { Recorder } from '../trace/recorder.ts';
import { DARK } from '../trace/query.ts';
import type { Input, TraceEvent } from '../trace/trace.ts';
import type { Motor } from '../yard/motor.ts';
import { Follower, lengthIn, profile } from '../yard/profile.ts';
import type { Yard } from '../yard/yard.ts';
import { channelsOf, type ReadChannel } from './channels.ts';
import { Moves, round6, type Clock, type Following } from './moves.ts';

/** 100 % of a measured move, m/s. */
export const FULL_SPEED = 0.4;
const DEG = 180 / Math.PI;
const WIDTH = 7;
const HEIGHT = 5;
const HOLD_US = 1_000_000;

/** An event without its time and block, which the machine adds. */
type NewEvent = TraceEvent extends infer E ? (E extends TraceEvent ? Omit<E, 'tUs' | 'block'> : never) : never;

export class Machine implements Device {
  /** the block on whose behalf commands are given */
  block: string | undefined;
  readonly buttons: Record<string, { down: boolean; heldAtUs: number }> = {
    Dot: { down: false, heldAtUs: -1 },
    Bar: { down: false, heldAtUs: -1 }
  };
  /** triggers that fired and that no runner has picked up yet */
  triggers: string[] = [];
  noseByHand = false;
  toneUntilUs = 0;
  picture = DARK;
  readonly lamps = { left: { on: false, colour: 'amber' }, right: { on: false, colour: 'amber' } };
  private readonly moves: Moves;
  private pending: (() => void)[] = [];
  private readonly chanceSource: Source;
  private leftSocket: string | undefined;
  private rightSocket: string | undefined;
  private readonly distancePart: boolean;
  private readonly servoSockets: string[];
  private readonly channels: ReadChannel[];
  private readonly values: Float64Array;

  constructor(
    public kit: Kit,
    readonly yard: Yard,
    private readonly clock: Clock,
    private readonly recorder: Recorder,
    seed: number
  ) {
    this.chanceSource = stream(seed, 'program');
    this.leftSocket = wheelMotor(kit, 'left')?.socket;
    this.rightSocket = wheelMotor(kit, 'right')?.socket;
    this.distancePart = kit.parts.some((p) => p.type === 'distance');
    this.servoSockets = kit.parts.filter((p) => p.type === 'servo').map((p) => p.socket);
    this.channels = channelsOf(kit);
    this.values = new Float64Array(this.channels.length);
    this.moves = new Moves(clock, recorder);
  }

  /** The wheels as the program's text has them: sockets, diameters and track that measured moves reckon with. */
  useWheels(left: string, right: string, leftDiameterMm: number, rightDiameterMm: number, trackMm: number): void {
    this.leftSocket = left;
    this.rightSocket = right;
    this.kit = { ...this.kit, wheels: { ...this.kit.wheels, leftDiameterMm, rightDiameterMm, trackMm } };
  }

  private event(event: NewEvent): void {
    this.recorder.event({ tUs: this.clock.now, ...(this.block ? { block: this.block } : {}), ...event } as TraceEvent);
  }
  /** Commands act from the next tick's boundary, in the order they were given. */
  private command(act: () => void): void {
    if (this.clock.now === this.clock.worldUs && this.pending.length === 0) act();
    else this.pending.push(act);
  }
  private motorAt(socket: string): { motor: Motor; sign: number; part: Part } {
    const part = partAt(this.kit, socket);
    const motor = this.yard.motors.get(socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (!motor) throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    return { motor, sign: part.drives && part.mounted === 'mirrored' ? -1 : 1, part };
  }
  private wheels(): { left: Motor; right: Motor } {
    const left = this.leftSocket && this.yard.motors.get(this.leftSocket);
    const right = this.rightSocket && this.yard.motors.get(this.rightSocket);
    if (!left || !right) throw new RunError('empty-socket', 'the motors of the wheels');
    return { left, right };
  }
  private percent(what: string, value: number, low: number): number {
    const used = value < low ? low : value > 100 ? 100 : value;
    if (used !== value) this.event({ type: 'clipped', what, asked: value, used });
    return used;
  }

  drive(way: 'ahead' | 'back', measure: Measure, power: number, ending: Ending): MoveId {
    const { left, right } = this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    const w = this.kit.wheels;
    const mean = (w.leftDiameterMm + w.rightDiameterMm) / 2000;
    const length = this.length(measure, speed, mean, ending);
    const sign = (way === 'ahead' ? 1 : -1) * Math.sign(length);
    const { x, y } = this.yard.robot.getPosition();
    const angle = this.yard.robot.getAngle();
    const got = (): number => {
      const p = this.yard.robot.getPosition();
      return ((p.x - x) * Math.cos(angle) + (p.y - y) * Math.sin(angle)) * 100 * (way === 'ahead' ? 1 : -1);
    };
    return this.begin(
      `drive ${way}`,
      length * 100,
      'cm',
      [this.follow(left, sign, w.leftDiameterMm), this.follow(right, sign, w.rightDiameterMm)],
      Math.abs(length),
      speed,
      ending,
      got
    );
  }

  turn(side: Side, angleDeg: number, power: number, ending: Ending): MoveId {
    const { left, right } = this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    const w = this.kit.wheels;
    const way = side === 'left' ? -1 : 1;
    const sign = way * Math.sign(angleDeg);
    // on the spot each wheel rolls angle x track / 2 (Dudek and Jenkin, Computational Principles of Mobile Robotics)
    const length = ((Math.abs(angleDeg) / DEG) * w.trackMm) / 2000;
    const from = this.yard.robot.getAngle();
    const got = (): number => (this.yard.robot.getAngle() - from) * DEG * -way;
    return this.begin(
      `turn ${side}`,
      angleDeg,
      '°',
      [this.follow(left, sign, w.leftDiameterMm), this.follow(right, -sign, w.rightDiameterMm)],
      length,
      speed,
      ending,
      got
    );
  }

  runWheels(left: number, right: number): void {
    const motors = this.wheels();
    const l = this.percent('power', left, -100);
    const r = this.percent('power', right, -100);
    this.event({ type: 'wheels', left: l, right: r, how: 'power' });
    this.command(() => {
      this.setMotor(motors.left, 'driven', l / 100);
      this.setMotor(motors.right, 'driven', r / 100);
    });
  }

  spanWheels(left: number, right: number, measure: Measure, ending: Ending): MoveId {
    const motors = this.wheels();
    const l = this.percent('power', left, -100);
    const r = this.percent('power', right, -100);
    const top = Math.max(Math.abs(l), Math.abs(r));
    const speed = (top / 100) * FULL_SPEED;
    const w = this.kit.wheels;
    const faster = Math.abs(l) >= Math.abs(r) ? w.leftDiameterMm : w.rightDiameterMm;
    const length = this.length(measure, speed, faster / 1000, ending);
    const share = (p: number): number => (top > 0 ? (p / top) * Math.sign(length) : 0);
    const list = [
      this.follow(motors.left, share(l), w.leftDiameterMm),
      this.follow(motors.right, share(r), w.rightDiameterMm)
    ];
    const lead = Math.abs(l) >= Math.abs(r) ? list[0] : list[1];
    return this.begin(
      'run wheels',
      length * 100,
      'cm',
      list,
      Math.abs(length),
      speed,
      ending,
      () => lead.follower.travelled(lead.motor.counts) * 100 * Math.sign(lead.follower.share || 1)
    );
  }

  stopWheels(ending: Ending): void {
    const { left, right } = this.wheels();
    this.event({ type: 'wheels', left: 0, right: 0, how: ending });
    this.command(() => {
      this.setMotor(left, ending, 0);
      this.setMotor(right, ending, 0);
    });
  }

  runMotor(socket: string, power: number): void {
    const { motor, sign } = this.motorAt(socket);
    const p = this.percent('power', power, -100);
    this.event({ type: 'motor', socket, power: p, how: 'power' });
    this.command(() => this.setMotor(motor, 'driven', (sign * p) / 100));
  }

  spanMotor(socket: string, power: number, measure: Measure, ending: Ending): MoveId {
    const { motor, sign, part } = this.motorAt(socket);
    const p = this.percent('power', power, -100);
    const speed = (Math.abs(p) / 100) * FULL_SPEED;
    const diameterMm = part.drives === 'right' ? this.kit.wheels.rightDiameterMm : this.kit.wheels.leftDiameterMm;
    const length = this.length(measure, speed, diameterMm / 1000, ending);
    const one = this.follow(motor, sign * Math.sign(p) * Math.sign(length), diameterMm);
    const round = Math.PI * diameterMm * 0.001;
    return this.begin(
      `run motor ${part.name}`,
      length / round,
      'turns',
      [one],
      Math.abs(length),
      speed,
      ending,
      () => Math.abs(one.follower.travelled(motor.counts)) / round
    );
  }

  stopMotor(socket: string, ending: Ending): void {
    const { motor } = this.motorAt(socket);
    this.event({ type: 'motor', socket, power: 0, how: ending });
    this.command(() => this.setMotor(motor, ending, 0));
  }

  /** metres at the rim; a negative amount goes the other way */
  private length(m: Measure, speed: number, diameter: number, ending: Ending): number {
    switch (m.unit) {
      case 'cm':
        return m.amount / 100;
      case '°':
        return (m.amount / 360) * Math.PI * diameter;
      case 's':
        return m.amount <= 0 || speed === 0
          ? 0
          : lengthIn(m.amount, speed, this.kit.board.accelerationCmS2 / 100, ending === 'brake');
      default:
        return m.amount * Math.PI * diameter;
    }
  }
  private follow(motor: Motor, share: number, diameterMm: number): Following {
    const { freeTurnsPerS, countsPerTurn } = this.kit.motor;
    return {
      motor,
      follower: new Follower(share, motor.counts, diameterMm / 1000, countsPerTurn, freeTurnsPerS * 2 * Math.PI)
    };
  }
  private begin(
    what: string,
    asked: number,
    unit: 'cm' | '°' | 'turns',
    list: Following[],
    length: number,
    speed: number,
    ending: Ending,
    got: () => number
  ): MoveId {
    const { id, go } = this.moves.plan({
      list,
      profile: profile(length, speed || 1, this.kit.board.accelerationCmS2 / 100, ending === 'brake'),
      ending,
      // without speed it can never get there
      never: speed === 0 && length > 0,
      block: this.block,
      got
    });
    this.event({ type: 'move', id, what, asked: sound(asked), unit });
    this.command(go);
    return id;
  }
  moveOver(id: MoveId): boolean {
    return this.moves.isOver(id);
  }
  private setMotor(motor: Motor, state: Motor['state'], duty: number): void {
    this.moves.release(motor);
    motor.state = state;
    motor.duty = duty;
  }

  servo(socket: string, angleDeg: number): void {
    const part = partAt(this.kit, socket);
    const servo = this.yard.servos.get(socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (!servo) throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    const angle = angleDeg < 0 ? 0 : angleDeg > 180 ? 180 : angleDeg;
    if (angle !== angleDeg) this.event({ type: 'clipped', what: 'angle', asked: angleDeg, used: angle });
    this.event({ type: 'servo', socket, angle });
    this.command(() => void (servo.target = angle));
  }
  servosMiddle(): void {
    for (const socket of this.servoSockets) this.servo(socket, 90);
  }
  lamp(side: Side, to: Switch): void {
    const lamp = this.lamps[side];
    lamp.on = to === 'flip' ? !lamp.on : to === 'on';
    this.event({ type: 'lamp', lamp: side, on: lamp.on, colour: lamp.colour });
  }
  lampColour(side: Side, colour: string): void {
    this.lamps[side] = { on: true, colour };
    this.event({ type: 'lamp', lamp: side, on: true, colour });
  }
  pixel(x: number, y: number, to: Switch): void {
    if (x < 0 || x >= WIDTH || y < 0 || y >= HEIGHT)
      throw new RunError('out-of-range', `x ${show(x)}, y ${show(y)}; x goes from 0 to 6, y from 0 to 4`);
    const at = y * (WIDTH + 1) + x;
    const lit = to === 'flip' ? this.picture[at] !== '#' : to === 'on';
    this.putUp(this.picture.slice(0, at) + (lit ? '#' : '.') + this.picture.slice(at + 1));
  }
  show(picture: Picture): void {
    this.putUp(picture.picture);
  }
  dark(): void {
    this.putUp(DARK);
  }
  private putUp(picture: string): void {
    this.picture = picture;
    this.event({ type: 'display', picture });
  }
  tone(hertz: number, seconds: number): void {
    if (hertz < 20 || hertz > 10000) throw new RunError('out-of-range', `${show(hertz)} Hz; from 20 to 10000`);
    this.toneUntilUs = this.clock.now + Math.round(seconds * 1e6);
    this.event({ type: 'tone', hertz, seconds });
  }
  log(value: Value): void {
    this.event({ type: 'log', text: show(value) });
  }

  private need(found: boolean, what: string): void {
    if (!found) throw new RunError('empty-socket', `no ${what}`);
  }
  distance(): number {
    this.need(this.distancePart, 'distance sensor');
    return this.yard.distance.cm;
  }
  somethingAhead(): boolean {
    this.need(this.distancePart, 'distance sensor');
    return this.yard.distance.echo;
  }
  noseTouched(): boolean {
    return this.noseByHand || this.yard.noseTouched;
  }
  buttonHeld(button: string): boolean {
    return this.buttons[button].down;
  }
  heading(): number {
    return this.yard.headingDeg;
  }
  wheelTurns(side: Side): number {
    return this.wheels()[side].counts / this.kit.motor.countsPerTurn;
  }
  lineReads(socket: string): number {
    const part = partAt(this.kit, socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (part.type !== 'line') throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    return part.side === 'right' ? this.yard.lineRight : this.yard.lineLeft;
  }
  lineOver(socket: string, what: 'dark' | 'light'): boolean {
    return this.lineReads(socket) < this.kit.lineSensors.threshold === (what === 'dark');
  }
  timer(): number {
    return this.clock.now / 1e6;
  }
  chance(from: number, to: number): number {
    if (from > to) throw new RunError('out-of-range', `from ${show(from)} to ${show(to)}`);
    return wholeBetween(this.chanceSource, from, to);
  }

  /** What a person does; at a tick's boundary. */
  input(input: Input): void {
    this.recorder.event({ tUs: this.clock.worldUs, type: 'input', input });
    if ('nose' in input) this.noseByHand = input.nose;
    else if ('press' in input) {
      const button = this.buttons[input.press];
      if (!button.down) {
        button.down = true;
        button.heldAtUs = this.clock.worldUs + HOLD_US;
        this.triggers.push(`button ${input.press} pressed`);
      }
    } else {
      const button = this.buttons[input.release];
      if (button.down) this.triggers.push(`button ${input.release} released`);
      button.down = false;
      button.heldAtUs = -1;
    }
  }

  /** Before the world moves: measured moves steer their motors. */
  beforeTick(): void {
    this.moves.steer();
  }
  /** After it, at the new boundary: which moves are over, touches, held buttons, waiting commands. */
  afterTick(): void {
    const { worldUs } = this.clock;
    this.moves.settle();
    for (const touch of this.yard.touches.splice(0))
      this.recorder.event({
        tUs: worldUs,
        type: 'touch',
        x: round6(touch.x),
        y: round6(touch.y),
        speedCmS: round6(touch.speed * 100),
        what: touch.what,
        nose: touch.nose
      });
    for (const name in this.buttons) {
      const button = this.buttons[name];
      if (button.heldAtUs >= 0 && worldUs >= button.heldAtUs) {
        button.heldAtUs = -1;
        this.triggers.push(`button ${name} held`);
      }
    }
    if (this.pending.length) {
      const acts = this.pending;
      this.pending = [];
      for (const act of acts) act();
    }
    for (let i = 0; i < this.channels.length; i++) this.values[i] = this.channels[i].read(this);
    this.recorder.sample(this.values);
  }

  /** Everything off: the person stopped the run, or the program failed. */
  letGo(): void {
    this.pending = [];
    this.moves.letGo();
    for (const motor of this.yard.motors.values()) {
      motor.state = 'coast';
      motor.duty = 0;
    }
  }
  /** Whether anything still moves. */
  get still(): boolean {
    const { yard } = this;
    const v = yard.robot.getLinearVelocity();
    if (v.x * v.x + v.y * v.y > 2.5e-7 || Math.abs(yard.robot.getAngularVelocity()) > 0.005) return false;
    for (const motor of yard.motors.values()) if (Math.abs(motor.omega) > 0.02) return false;
    for (const servo of yard.servos.values()) if (servo.moving) return false;
    for (const thing of yard.things) if (thing.getLinearVelocity().lengthSquared() > 2.5e-7) return false;
    return this.clock.worldUs >= this.toneUntilUs && !this.moves.going;
  }
}
