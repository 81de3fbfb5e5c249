/**
 * The device's own electronics and firmware: it turns the language's centimetres, degrees and percents into duties for the
 * yard's motors, runs measured moves, keeps lamps, display and buttons, and writes events into the trace.
 */
import { currentOf } from '../circuit/led.ts';
import { Drive, type Motion } from '../kit/drive.ts';
import { FULL_SPEED } from '../kit/ranges.ts';
import {
  diameterMm,
  meanDiameterMm,
  motorOf,
  partAt,
  placesOf,
  rasterFor,
  reckoned,
  resized,
  wheelOf,
  wheelsAt,
  type Kit,
  type Part
} from '../kit/kit.ts';
import type { Place } from '../kit/parts/part.ts';
import { RunError, type Device, type Ending, type Measure, type MoveId, type Side } from '../language/meaning.ts';
import { remainder, show, sound } from '../language/values.ts';
import { stream, uniform, wholeBetween, type Source } from '../random.ts';
import type { Recorder } from '../trace/recorder.ts';
import type { Input } from '../trace/trace.ts';
import { Hand } from '../yard/hand.ts';
import type { Motor } from '../yard/motor.ts';
import { Follower, lengthIn, profile } from '../yard/profile.ts';
import { lightAt, moistureAt, warmthAt } from '../yard/surroundings.ts';
import type { Yard } from '../yard/yard.ts';
import { channelsOf, type ReadChannel } from './channels.ts';
import { Face } from './face.ts';
import { Moves, round6, type Clock, type Following, type Steering } from './moves.ts';

const DEG = 180 / Math.PI;
const HOLD_US = 1_000_000;
/** How fast what it has turned away is turned back while it slides on, 1/s (our choice). */
const FACES_PER_S = 4;

export class Machine extends Face implements Device {
  readonly buttons: Record<string, { down: boolean; heldAtUs: number }> = {
    Dot: { down: false, heldAtUs: -1 },
    Bar: { down: false, heldAtUs: -1 }
  };
  noseByHand = false;
  rimByHand = false;
  /** before setting off: the wheels may not move; and whether the person gave the word */
  holdWheels = false;
  word = false;
  /** all is prepared, and the person has not given the word yet */
  waits = false;
  readonly hand = new Hand();
  private readonly keys = new Set<string>();
  private readonly edges = { left: false, right: false };
  private readonly sticks: Record<string, number> = {};
  /** what a person says it is like where the device is held, in place of what the mat has */
  private around: { light?: number; temperature?: number; moisture?: number } = {};
  private inSoil = false;
  private wasStalled = new Set<string>();
  private wasFallen = false;
  /** when a person last did something */
  touchedUs = 0;
  private readonly mirrored = new Set<string>();
  private readonly keepsSpeed = new Set<string>();
  /** motors that are held at a speed: how fast their rims go, m/s, and since when */
  private readonly held = new Map<Motor, { follower: Follower; speed: number; x: number }>();
  private readonly ramps: { socket: string; from: number; to: number; fromUs: number; toUs: number }[] = [];
  private readonly spins = new Map<string, number>();
  private readonly zero = { heading: 0, spun: 0, timerUs: 0, motors: new Map<string, number>() };
  /** turned since the run began, degrees clockwise; zeroing the heading leaves it */
  private spunDeg = 0;
  private rimDeg = 0;
  private lastHeading = 0;
  private rateDegS = 0;
  private velocity = { x: 0, y: 0 };
  /** what feels a touch and is waited for, and whether it was touched at the last tick */
  private readonly watched = new Map<'nose' | 'rim', boolean>();
  /** slides on towards a heading, degrees clockwise, m/s over the ground, and keeps facing as it did by the gyro */
  private slides: { heading: number; speed: number; facing: number } | undefined;
  private readonly moves: Moves;
  private pending: (() => void)[] = [];
  private readonly chanceSource: Source;
  /** of each wheel's motor, in the kit's order */
  private wheelSockets: readonly (string | undefined)[];
  private readonly firstDistance: string | undefined;
  private readonly servoSockets: string[];
  private readonly channels: ReadChannel[];
  private readonly values: Float64Array;

  /** the kit with the wheels that measured moves reckon with, and what these make of a motion */
  kit: Kit;
  private drives: Drive;

  constructor(
    kit: Kit,
    readonly yard: Yard,
    clock: Clock,
    recorder: Recorder,
    seed: number
  ) {
    super(clock, recorder, rasterFor(kit));
    this.kit = reckoned(kit);
    this.drives = new Drive(placesOf(this.kit.wheels));
    this.chanceSource = stream(seed, 'program');
    this.wheelSockets = kit.wheels.map((w) => motorOf(kit, w.id)?.socket);
    this.firstDistance = kit.parts.find((p) => p.type === 'distance')?.socket;
    this.servoSockets = kit.parts.filter((p) => p.type === 'servo').map((p) => p.socket);
    this.ledAmpere = kit.parts.map((p) => (p.type === 'lamp' ? currentOf(p) : undefined)).find((a) => a !== undefined);
    this.channels = channelsOf(kit, yard.things.length);
    this.values = new Float64Array(this.channels.length);
    this.moves = new Moves(clock, recorder);
    // what its sensors say before the first tick
    for (let i = 0; i < this.channels.length; i++) this.values[i] = this.channels[i].read(this);
  }

  /** The sides as the program's text has them: sockets, diameters and track that measured moves reckon with. */
  useSides(
    sockets: Readonly<Record<Side, readonly string[]>>,
    leftDiameterMm: number,
    rightDiameterMm: number,
    trackMm: number
  ): void {
    this.kit = resized(this.kit, { left: leftDiameterMm, right: rightDiameterMm, trackMm });
    const [left, right] = (['left', 'right'] as const).map((side) => wheelsAt(this.kit, side));
    this.wheelSockets = this.kit.wheels.map((w) =>
      left.includes(w) ? sockets.left[left.indexOf(w)] : sockets.right[right.indexOf(w)]
    );
    this.drives = new Drive(placesOf(this.kit.wheels));
  }

  /** One wheel of several that roll in their own directions, as the program's text has it. @param index in the kit's order */
  useWheel(index: number, socket: string, at: Place, diameterMm: number): void {
    const one = this.kit.wheels[index];
    if (!one) throw new RunError('out-of-range', `wheel ${index + 1} of ${this.kit.wheels.length}`);
    const instead = <T>(list: readonly T[], value: T): T[] => list.map((v, i) => (i === index ? value : v));
    this.kit = { ...this.kit, wheels: instead(this.kit.wheels, { ...one, at, diameterMm }) };
    this.wheelSockets = instead(this.wheelSockets, socket);
    this.drives = new Drive(placesOf(this.kit.wheels));
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
    if (wheelOf(this.kit, part)) this.mayMove();
    return { motor, sign: this.signOf(part), part };
  }
  /** A motor that is mounted mirrored turns its wheel the other way; so does one that counts mirrored from here on. */
  private signOf(part: Part): number {
    const mounted = part.type === 'motor' && !!part.drives && part.mounted === 'mirrored';
    return mounted !== this.mirrored.has(part.socket) ? -1 : 1;
  }
  private mayMove(): void {
    if (this.holdWheels) throw new RunError('not-yet');
  }
  private wheels(): Motor[] {
    this.mayMove();
    return this.wheelMotors();
  }
  /** Where the wheels stand in two sides. */
  private sided(): Motor[] {
    if (!wheelsAt(this.kit, 'left').length) throw new RunError('no-sides');
    return this.wheels();
  }
  /** In the kit's order. */
  private wheelMotors(): Motor[] {
    const motors = this.wheelSockets.flatMap((socket) => (socket && this.yard.motors.get(socket)) || []);
    if (!motors.length || motors.length < this.kit.wheels.length)
      throw new RunError('empty-socket', 'the motors of the wheels');
    return motors;
  }
  private sideOf(index: number): Side {
    return this.kit.wheels[index].at.yMm > 0 ? 'left' : 'right';
  }
  /** Of the wheels of a side the first one, where there are sides. */
  private wheelAt(side: Side): { motor: Motor; socket: string; radiusM: number } {
    const motors = this.wheelMotors();
    const wheel = wheelsAt(this.kit, side)[0];
    if (!wheel) throw new RunError('no-sides');
    const i = this.kit.wheels.indexOf(wheel);
    return { motor: motors[i], socket: this.wheelSockets[i]!, radiusM: wheel.diameterMm / 2000 };
  }
  drive(way: 'ahead' | 'back', measure: Measure, power: number, ending: Ending): MoveId {
    this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    const { length, rims } = this.lengthTowards({ ahead: 1, left: 0, turn: 0 }, measure, speed, ending);
    const rolled = this.rolled({ ahead: way === 'ahead' ? length : -length, left: 0, turn: 0 });
    const { x, y } = this.yard.robot.getPosition();
    const angle = this.yard.robot.getAngle();
    const got = (): number => {
      const p = this.yard.robot.getPosition();
      return ((p.x - x) * Math.cos(angle) + (p.y - y) * Math.sin(angle)) * 100 * (way === 'ahead' ? 1 : -1);
    };
    return this.begin(`drive ${way}`, length * 100, 'cm', rolled.list, rolled.length, speed * rims, ending, got);
  }

  turn(side: Side, angleDeg: number, power: number, ending: Ending): MoveId {
    this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    const way = side === 'left' ? -1 : 1;
    // on the spot each of two wheels rolls angle x track / 2 (Dudek and Jenkin, Computational Principles of Mobile Robotics)
    const rolled = this.rolled({ ahead: 0, left: 0, turn: (-way * angleDeg) / DEG });
    const from = this.yard.robot.getAngle();
    const got = (): number => (this.yard.robot.getAngle() - from) * DEG * -way;
    return this.begin(`turn ${side}`, angleDeg, '°', rolled.list, rolled.length, speed, ending, got);
  }

  runWheels(left: number, right: number): void {
    const motors = this.sided();
    const l = this.percent('power', left, -100);
    const r = this.percent('power', right, -100);
    this.tellWheels(l, r, 'power');
    this.command(() =>
      motors.forEach((motor, i) => this.setMotor(motor, 'driven', (this.sideOf(i) === 'left' ? l : r) / 100))
    );
  }

  private tellWheels(left: number, right: number, how: 'power' | Ending): void {
    this.tells('wheels', `${left} ${right} ${how}`, { type: 'wheels', left, right, how });
    for (const socket of this.wheelSockets) this.untold(`motor ${socket}`);
  }
  private tellMotor(socket: string, power: number, how: 'power' | Ending): void {
    if (wheelOf(this.kit, partAt(this.kit, socket))) this.untold('wheels');
    this.tells(`motor ${socket}`, `${power} ${how}`, { type: 'motor', socket, power, how });
  }

  spanWheels(left: number, right: number, measure: Measure, ending: Ending): MoveId {
    const motors = this.sided();
    const l = this.percent('power', left, -100);
    const r = this.percent('power', right, -100);
    const top = Math.max(Math.abs(l), Math.abs(r));
    const speed = (top / 100) * FULL_SPEED;
    const faster: Side = Math.abs(l) >= Math.abs(r) ? 'left' : 'right';
    const length = this.length(measure, speed, diameterMm(this.kit, faster) / 1000, ending);
    const share = (p: number): number => (top > 0 ? (p / top) * Math.sign(length) : 0);
    const list = motors.map((motor, i) =>
      this.follow(motor, share(this.sideOf(i) === 'left' ? l : r), this.kit.wheels[i].diameterMm)
    );
    const lead = list[motors.findIndex((_, i) => this.sideOf(i) === faster)];
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
    const motors = this.wheels();
    this.tellWheels(0, 0, ending);
    this.command(() => {
      for (const motor of motors) this.setMotor(motor, ending, 0);
    });
  }

  runMotor(socket: string, power: number): void {
    const { motor, sign } = this.motorAt(socket);
    const p = this.percent('power', power, -100);
    this.tellMotor(socket, p, 'power');
    if (!this.keepsSpeed.has(socket)) return this.command(() => this.setMotor(motor, 'driven', (sign * p) / 100));
    const { follower } = this.follow(motor, 1, this.diameterAt(socket));
    this.command(() => {
      this.setMotor(motor, 'driven', 0);
      this.held.set(motor, { follower, speed: ((sign * p) / 100) * FULL_SPEED, x: 0 });
    });
  }

  spanMotor(socket: string, power: number, measure: Measure, ending: Ending): MoveId {
    const { motor, sign, part } = this.motorAt(socket);
    const p = this.percent('power', power, -100);
    const speed = (Math.abs(p) / 100) * FULL_SPEED;
    const diameterMm = this.diameterAt(socket);
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
    this.tellMotor(socket, 0, ending);
    this.command(() => this.setMotor(motor, ending, 0));
  }

  private diameterAt(socket: string): number {
    const wheel = wheelOf(this.kit, partAt(this.kit, socket)) ?? this.kit.wheels[0];
    return wheel?.diameterMm ?? 0;
  }
  motorSide(socket: string, side: 'normal' | 'mirrored'): void {
    this.motorAt(socket);
    if (side === 'mirrored') this.mirrored.add(socket);
    else this.mirrored.delete(socket);
  }
  motorKeeps(socket: string, what: 'speed' | 'power'): void {
    this.motorAt(socket);
    if (what === 'speed') this.keepsSpeed.add(socket);
    else this.keepsSpeed.delete(socket);
  }

  driveFacing(cm: number, facingDeg: number, power: number, ending: Ending): MoveId {
    this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    const rolled = this.rolled({ ahead: Math.abs(cm) / 100, left: 0, turn: 0 });
    const { x, y } = this.yard.robot.getPosition();
    const zero = this.zero.heading;
    const from = (): number => {
      const p = this.yard.robot.getPosition();
      return Math.sqrt((p.x - x) * (p.x - x) + (p.y - y) * (p.y - y)) * 100;
    };
    return this.begin(
      'drive facing',
      cm,
      'cm',
      rolled.list,
      rolled.length,
      speed,
      ending,
      from,
      // the heading as it is zeroed now, whatever another stack does to it meanwhile
      { off: () => shortWay(facingDeg - (this.yard.headingDeg - zero)), rims: this.clockwise() }
    );
  }
  turnByGyro(side: Side, angleDeg: number, power: number, ending: Ending): MoveId {
    return this.gyroTurn(`turn ${side} with the gyro`, side === 'left' ? -angleDeg : angleDeg, angleDeg, power, ending);
  }
  face(headingDeg: number, power: number, ending: Ending): MoveId {
    const way = shortWay(headingDeg - this.heading());
    return this.gyroTurn('face', way, Math.abs(way), power, ending);
  }
  /** Turns on the spot until the gyro has turned by `by` degrees, clockwise positive. */
  private gyroTurn(what: string, by: number, asked: number, power: number, ending: Ending): MoveId {
    this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    const rolled = this.rolled({ ahead: 0, left: 0, turn: -by / DEG });
    const from = this.yard.robot.getAngle();
    const way = Math.sign(by);
    const began = this.spunDeg;
    return this.begin(
      what,
      asked,
      '°',
      rolled.list,
      rolled.length,
      speed,
      ending,
      () => (from - this.yard.robot.getAngle()) * DEG * (way || 1) * Math.sign(asked || 1),
      {
        // where the gyro should be by now: as far as the wheels' reference has come
        off: (share) => by * share - (this.spunDeg - began),
        rims: this.clockwise()
      }
    );
  }
  curve(side: Side, radiusCm: number, angleDeg: number, power: number, ending: Ending): MoveId {
    this.wheels();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    // each wheel rolls its own circle about the centre (Dudek and Jenkin, Computational Principles of Mobile Robotics)
    const angle = angleDeg / DEG;
    const rolled = this.rolled({
      ahead: (Math.abs(radiusCm) / 100) * angle,
      left: 0,
      turn: side === 'left' ? angle : -angle
    });
    const from = this.yard.robot.getAngle();
    return this.begin(
      `curve ${side}`,
      angleDeg,
      '°',
      rolled.list,
      rolled.length,
      speed,
      ending,
      () => (this.yard.robot.getAngle() - from) * DEG * (side === 'left' ? 1 : -1)
    );
  }

  slide(directionDeg: number, measure: Measure, power: number, ending: Ending): MoveId {
    this.maySlide();
    const speed = (this.percent('power', power, 0) / 100) * FULL_SPEED;
    // clockwise from ahead, as headings are
    const [ahead, left] = [Math.cos(directionDeg / DEG), -Math.sin(directionDeg / DEG)];
    const { length, rims } = this.lengthTowards({ ahead, left, turn: 0 }, measure, speed, ending);
    const rolled = this.rolled({ ahead: ahead * length, left: left * length, turn: 0 });
    const { x, y } = this.yard.robot.getPosition();
    const way = this.yard.robot.getAngle() - directionDeg / DEG;
    const got = (): number => {
      const p = this.yard.robot.getPosition();
      return ((p.x - x) * Math.cos(way) + (p.y - y) * Math.sin(way)) * 100 * (Math.sign(length) || 1);
    };
    return this.begin('slide', length * 100, 'cm', rolled.list, rolled.length, speed * rims, ending, got);
  }
  slideOn(headingDeg: number, power: number): void {
    this.maySlide();
    const motors = this.wheels();
    const p = this.percent('power', power, 0);
    this.tells('wheels', `slide ${headingDeg} ${p}`, { type: 'slide', heading: sound(headingDeg), power: p });
    for (const socket of this.wheelSockets) this.untold(`motor ${socket}`);
    const slides = {
      heading: this.zero.heading + headingDeg,
      speed: (p / 100) * FULL_SPEED,
      facing: this.slides?.facing ?? this.spunDeg
    };
    this.command(() => {
      motors.forEach((motor, i) => {
        this.setMotor(motor, 'driven', 0);
        const { follower } = this.follow(motor, 1, this.kit.wheels[i].diameterMm);
        this.held.set(motor, { follower, speed: 0, x: 0 });
      });
      this.slides = slides;
    });
  }
  private maySlide(): void {
    if (!this.drives.can.slide) throw new RunError('no-slide');
  }
  /** What each wheel has to do now to go on towards the heading, whichever way it has turned meanwhile. */
  private slideAlong({ heading, speed, facing }: { heading: number; speed: number; facing: number }): void {
    const direction = (heading - this.yard.headingDeg) / DEG;
    const rims = this.drives.rims({
      ahead: speed * Math.cos(direction),
      left: -speed * Math.sin(direction),
      turn: (FACES_PER_S * (this.spunDeg - facing)) / DEG
    });
    this.wheelSockets.forEach((socket, i) => {
      const held = this.held.get(this.yard.motors.get(socket ?? '')!);
      if (held) held.speed = rims[i];
    });
  }
  /** How far to go for a measure in a direction, and how fast a rim goes there for 1 m/s over the ground. */
  private lengthTowards(
    towards: Motion,
    measure: Measure,
    speed: number,
    ending: Ending
  ): { length: number; rims: number } {
    const rims = this.drives.rims(towards).reduce((most, rim) => Math.max(most, Math.abs(rim)), 0) || 1;
    const rolls = this.length(measure, speed * rims, meanDiameterMm(this.kit) / 1000, ending);
    return { length: measure.unit === 'cm' ? rolls : rolls / rims, rims };
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
  /** What each wheel has to follow for a motion in metres and radians, and how far the one rolls that rolls furthest. */
  private rolled(motion: Motion): { list: Following[]; length: number } {
    const rims = this.drives.rims(motion);
    const length = rims.reduce((most, rim) => Math.max(most, Math.abs(rim)), 0);
    const { wheels } = this.kit;
    const list = this.wheelMotors().map((motor, i) =>
      this.follow(motor, length > 0 ? rims[i] / length : 0, wheels[i].diameterMm)
    );
    return { list, length };
  }
  private clockwise(): number[] {
    return this.drives.rims({ ahead: 0, left: 0, turn: -1 });
  }
  private follow(motor: Motor, share: number, diameterMm: number): Following {
    return { motor, follower: new Follower(share, motor.counts, diameterMm / 1000, this.kit) };
  }
  private begin(
    what: string,
    asked: number,
    unit: 'cm' | '°' | 'turns',
    list: Following[],
    length: number,
    speed: number,
    ending: Ending,
    got: () => number,
    heeds?: Steering
  ): MoveId {
    const { id, go } = this.moves.plan({
      heeds,
      list,
      profile: profile(length, speed || 1, this.kit.board.accelerationCmS2 / 100, ending === 'brake'),
      ending,
      // without speed it can never get there
      never: speed === 0 && length > 0,
      block: this.block,
      got
    });
    this.event({ type: 'move', id, what, asked: sound(asked), unit });
    this.untold('wheels');
    for (const socket of this.yard.motors.keys()) this.untold(`motor ${socket}`);
    this.command(() => {
      for (const { motor } of list) this.held.delete(motor);
      this.slides = undefined;
      go();
    });
    return id;
  }
  moveOver(id: MoveId): boolean {
    return this.moves.isOver(id);
  }
  private setMotor(motor: Motor, state: Motor['state'], duty: number): void {
    this.moves.release(motor);
    this.held.delete(motor);
    this.slides = undefined;
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
    if (this.ramps.some((r) => r.socket === socket)) this.untold(`servo ${socket}`);
    this.tells(`servo ${socket}`, angle, { type: 'servo', socket, angle });
    this.endRamp(socket);
    this.command(() => void (servo.target = angle));
  }
  servoSlow(socket: string, angleDeg: number, seconds: number): void {
    const servo = this.yard.servos.get(socket);
    const from = servo?.target ?? 90;
    this.servo(socket, angleDeg);
    if (seconds <= 0) return;
    this.untold(`servo ${socket}`);
    const to = servo!.target === from ? Math.max(0, Math.min(180, angleDeg)) : servo!.target;
    const fromUs = this.clock.now;
    this.command(() => {
      servo!.target = from;
      this.ramps.push({ socket, from, to, fromUs, toUs: fromUs + Math.round(seconds * 1e6) });
    });
  }
  private endRamp(socket: string): void {
    const at = this.ramps.findIndex((r) => r.socket === socket);
    if (at >= 0) this.ramps.splice(at, 1);
  }
  spin(socket: string, power: number): void {
    const part = partAt(this.kit, socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (part.type !== 'spin') throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    const p = this.percent('power', power, -100);
    this.spins.set(socket, p);
    this.tells(`servo ${socket}`, p, { type: 'servo', socket, power: p });
    const servo = this.yard.spins.get(socket);
    this.command(() => void (servo!.power = p));
  }
  spinning(socket: string): number {
    return this.spins.get(socket) ?? 0;
  }
  servosMiddle(): void {
    for (const socket of this.servoSockets) this.servo(socket, 90);
  }
  /** @param socket where a text says that it is plugged in */
  private lookAhead(socket: string | undefined): { cm: number; echo: boolean } {
    if (!this.firstDistance) throw new RunError('empty-socket', 'no distance sensor');
    const at = socket ?? this.firstDistance;
    const part = partAt(this.kit, at);
    if (!part) throw new RunError('empty-socket', `socket ${at}`);
    if (part.type !== 'distance') throw new RunError('wrong-part', `socket ${at} holds the ${part.name}`);
    return this.yard.distances.get(at)!.reads;
  }
  distance(socket?: string): number {
    return this.lookAhead(socket).cm;
  }
  somethingAhead(socket?: string): boolean {
    return this.lookAhead(socket).echo;
  }
  rimTouched(): boolean {
    return this.rimByHand || this.yard.rimTouched;
  }
  /** whole degrees */
  rimPlace(): number {
    return Math.round(this.rimDeg) % 360;
  }
  noseTouched(): boolean {
    return this.noseByHand || this.yard.noseTouched;
  }
  buttonHeld(button: string): boolean {
    return this.buttons[button].down;
  }
  edgeTouched(side: Side): boolean {
    return this.edges[side];
  }
  keyHeld(key: string): boolean {
    return this.keys.has(key);
  }
  stick(stick: string): number {
    return this.sticks[stick] ?? 0;
  }
  heading(): number {
    const h = remainder(this.yard.headingDeg - this.zero.heading, 360);
    return h;
  }
  turned(): number {
    return this.spunDeg - this.zero.spun;
  }
  turningRate(): number {
    return this.rateDegS;
  }
  zeroHeading(): void {
    this.zero.heading = this.yard.headingDeg;
    this.zero.spun = this.spunDeg;
  }
  private turnsSince(motor: Motor, socket: string): number {
    return (motor.counts - (this.zero.motors.get(socket) ?? 0)) / this.kit.motor.countsPerTurn;
  }
  wheelTurns(side: Side): number {
    const { motor, socket } = this.wheelAt(side);
    return this.turnsSince(motor, socket);
  }
  wheelSpeed(side: Side): number {
    const { motor, radiusM } = this.wheelAt(side);
    return motor.omega * radiusM * 100;
  }
  zeroWheels(): void {
    this.wheelMotors();
    for (const [socket, motor] of this.yard.motors) this.zero.motors.set(socket, motor.counts);
  }
  driven(): number {
    const rolled = this.wheelMotors().map(
      (motor, i) => Math.PI * this.turnsSince(motor, this.wheelSockets[i]!) * (this.kit.wheels[i].diameterMm / 1000)
    );
    return this.drives.motion(rolled).ahead * 100;
  }
  speed(): number {
    const rims = this.wheelMotors().map((motor, i) => motor.omega * (this.kit.wheels[i].diameterMm / 2000));
    return this.drives.motion(rims).ahead * 100;
  }
  private shaft(socket: string): { motor: Motor; sign: number } {
    const part = partAt(this.kit, socket);
    const motor = this.yard.motors.get(socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (!motor) throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    return { motor, sign: this.signOf(part) };
  }
  motorTurns(socket: string): number {
    const { motor, sign } = this.shaft(socket);
    return sign * this.turnsSince(motor, socket) || 0;
  }
  motorSpeed(socket: string): number {
    const { motor, sign } = this.shaft(socket);
    return sign * motor.omega * DEG || 0;
  }
  acceleration(axis: string): number {
    return axis === 'total' ? this.hand.total : this.hand.seen[axis as 'x'];
  }
  lean(axis: string): number {
    return this.hand.lean[axis as 'turned'];
  }
  light(): number {
    const { x, y } = this.yard.robot.getPosition();
    return this.around.light ?? Math.round(lightAt(this.yard.options.mat, x, y));
  }
  temperature(): number {
    const { x, y } = this.yard.robot.getPosition();
    return this.around.temperature ?? Math.round(warmthAt(this.yard.options.mat, x, y) * 10) / 10;
  }
  /** Of the soil at its foot; in the air there is none. */
  moisture(): number {
    const { x, y } = this.yard.robot.getPosition();
    return this.around.moisture ?? (this.inSoil ? Math.round(moistureAt(this.yard.options.mat, x, y)) : 0);
  }
  battery(): number {
    return Math.max(0, Math.min(100, (this.yard.battery.charge ?? 1) * 100));
  }
  lineReads(socket: string): number {
    const part = partAt(this.kit, socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (part.type !== 'line') throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    return this.yard.lines.get(socket)!.reads;
  }
  colourBelow(socket: string): string {
    const part = partAt(this.kit, socket);
    if (!part) throw new RunError('empty-socket', `socket ${socket}`);
    if (part.type !== 'colour') throw new RunError('wrong-part', `socket ${socket} holds the ${part.name}`);
    return this.yard.colourBelow(socket);
  }
  lineOver(socket: string, what: 'dark' | 'light'): boolean {
    const reads = this.lineReads(socket);
    const part = partAt(this.kit, socket);
    return reads < (part?.type === 'line' ? part.threshold : 50) === (what === 'dark');
  }
  timer(): number {
    return (this.clock.now - this.zero.timerUs) / 1e6;
  }
  restartTimer(): void {
    this.zero.timerUs = this.clock.now;
  }
  chance(from: number, to: number): number {
    if (from > to) throw new RunError('out-of-range', `from ${show(from)} to ${show(to)}`);
    return wholeBetween(this.chanceSource, from, to);
  }
  anyChance(): number {
    return uniform(this.chanceSource);
  }

  /** All is prepared: from here on it waits for the word. */
  prepared(): void {
    this.recorder.event({ tUs: this.clock.now, type: 'ready' });
    this.waits = !this.word;
  }
  /** A trigger that a program waits for: what has to be looked at for it. */
  watch(trigger: string): void {
    if (/^(dip|moved|shaken|jolt) /.test(trigger)) this.hand.watch(trigger);
    for (const what of ['nose', 'rim'] as const) if (trigger.startsWith(`touch ${what}`)) this.watched.set(what, false);
  }

  /** What a person does; at a tick's boundary. */
  input(input: Input): void {
    if ('set' in input || 'stop' in input) return;
    this.recorder.event({ tUs: this.clock.worldUs, type: 'input', input });
    const { worldUs } = this.clock;
    this.touchedUs = worldUs;
    if ('nose' in input) this.noseByHand = input.nose;
    else if ('rim' in input) {
      this.rimByHand = input.touched;
      if (input.touched) this.rimDeg = input.rim;
    } else if ('word' in input) {
      this.word = true;
      this.waits = false;
    } else if ('key' in input) {
      if (input.down === this.keys.has(input.key)) return;
      if (input.down) this.keys.add(input.key);
      else this.keys.delete(input.key);
      this.triggers.push(`key ${input.key} ${input.down ? 'pressed' : 'released'}`);
    } else if ('edge' in input) {
      if (this.edges[input.edge] === input.touched) return;
      this.edges[input.edge] = input.touched;
      this.triggers.push(`touch ${input.edge} edge ${input.touched ? 'is touched' : 'is free'}`);
    } else if ('stick' in input) this.sticks[input.stick] = input.at;
    else if ('lean' in input) this.hand.leanTo(input.lean);
    else if ('shake' in input) this.hand.shake(input.shake, worldUs, input.g);
    else if ('toss' in input) this.hand.toss(input.toss / 100, worldUs);
    else if ('drop' in input) this.hand.drop(input.drop / 100, worldUs);
    else if ('lift' in input) {
      if (input.lift === this.yard.lifted) return;
      if (input.lift) this.yard.lift();
      else this.yard.setDown();
      this.hand.lift(input.lift, worldUs);
    } else if ('carry' in input) {
      const { x, y, facing } = input.carry;
      this.yard.carry({ x: x / 100, y: y / 100, facingDeg: facing });
    } else if ('push' in input) {
      const { ahead = 0, right = 0, turn = 0, seconds } = input.push;
      this.yard.push({ along: ahead, across: -right, torque: -turn / 100, seconds });
    } else if ('soil' in input) this.inSoil = input.soil;
    else if ('around' in input) this.around = { ...this.around, ...input.around };
    else if ('message' in input) {
      if (input.from === undefined) this.arrives(input.message);
      else this.hear(input.message, input.from);
    } else if ('press' in input) {
      const button = this.buttons[input.press];
      if (!button.down) {
        button.down = true;
        button.heldAtUs = worldUs + HOLD_US;
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
    if (this.slides) this.slideAlong(this.slides);
    for (const [motor, held] of this.held) {
      held.x += held.speed * 0.001;
      motor.duty = held.follower.control({ x: held.x, v: held.speed, a: 0 }, motor.counts);
    }
    for (let i = this.ramps.length - 1; i >= 0; i--) {
      const r = this.ramps[i];
      const share = Math.min(1, Math.max(0, (this.clock.worldUs - r.fromUs) / (r.toUs - r.fromUs)));
      this.yard.servos.get(r.socket)!.target = r.from + (r.to - r.from) * share;
      if (share === 1) this.ramps.splice(i, 1);
    }
  }
  /** After it, at the new boundary: which moves are over, touches, held buttons, waiting commands. */
  afterTick(): void {
    const { worldUs } = this.clock;
    this.moves.settle();
    const step = shortWay(this.yard.headingDeg - this.lastHeading);
    this.lastHeading = this.yard.headingDeg;
    this.spunDeg += step;
    this.rateDegS = step * 1000;
    this.moveHand(worldUs);
    this.watchBody();
    for (const [what, before] of this.watched) {
      const now = what === 'nose' ? this.noseTouched() : this.rimTouched();
      if (now === before) continue;
      this.watched.set(what, now);
      this.triggers.push(`touch ${what} ${now ? 'is touched' : 'is free'}`);
    }
    for (const touch of this.yard.touches.splice(0)) {
      if (touch.rim !== undefined) this.rimDeg = touch.rim;
      this.recorder.event({
        tUs: worldUs,
        type: 'touch',
        x: round6(touch.x),
        y: round6(touch.y),
        speedCmS: round6(touch.speed * 100),
        what: touch.what,
        nose: touch.nose,
        ...(touch.rim === undefined ? {} : { rim: round6(touch.rim) })
      });
    }
    this.tellFree();
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

  private tellFree(): void {
    for (const { what, seconds, newton } of this.yard.letGo.splice(0))
      this.recorder.event({
        tUs: this.clock.worldUs,
        type: 'free',
        what,
        seconds: round6(seconds),
        newton: round6(newton)
      });
  }
  /** The run is over: what it still touches is told. */
  over(): void {
    this.yard.lettingGo(true);
    this.tellFree();
  }
  /** Horns that something is in the way of, and the robot on its side. */
  private watchBody(): void {
    const { servos, tilt } = this.yard;
    for (const [socket, servo] of servos) {
      if (servo.stalled === this.wasStalled.has(socket)) continue;
      if (servo.stalled) {
        this.wasStalled.add(socket);
        this.recorder.event({ tUs: this.clock.worldUs, type: 'stalled', socket, angle: round6(servo.angle) });
      } else this.wasStalled.delete(socket);
    }
    if (tilt.fallen === this.wasFallen) return;
    this.wasFallen = tilt.fallen;
    if (tilt.fallen) this.recorder.event({ tUs: this.clock.worldUs, type: 'tipped' });
  }
  /** A message over the radio from another device. */
  hear(name: string, from: string): void {
    this.recorder.event({ tUs: this.clock.worldUs, type: 'heard', name, from });
    this.arrives(name);
  }
  /** What the accelerometer feels of the robot's own driving, and of the hand. */
  private moveHand(worldUs: number): void {
    const v = this.yard.robot.getLinearVelocity();
    const ax = (v.x - this.velocity.x) * 1000;
    const ay = (v.y - this.velocity.y) * 1000;
    this.velocity.x = v.x;
    this.velocity.y = v.y;
    const { c, s } = this.yard.robot.getTransform().q;
    // ahead is the board's y, right its x
    const fired = this.hand.step(worldUs, ax * s - ay * c, ax * c + ay * s);
    if (fired.length) this.triggers.push(...fired);
  }

  /** The current of a bare LED now, mA. */
  lampMa(): number {
    return this.lamps.left.on && this.ledAmpere !== undefined ? this.ledAmpere * 1000 : 0;
  }
  /** Everything off: the person stopped the run, or the program failed. */
  letGo(): void {
    this.pending = [];
    this.held.clear();
    this.slides = undefined;
    this.ramps.length = 0;
    this.spins.clear();
    for (const servo of this.yard.spins.values()) servo.power = 0;
    this.moves.letGo();
    for (const motor of this.yard.motors.values()) {
      motor.state = 'coast';
      motor.duty = 0;
    }
  }
  /** The newest sample of a channel, in its unit. */
  reading(key: string): number | undefined {
    const at = this.channels.findIndex((c) => c.key === key);
    return at < 0 ? undefined : this.values[at];
  }
  /** The newest sample of every channel, by its key, in its unit. */
  get readings(): Record<string, number> {
    return Object.fromEntries(this.channels.map(({ key }, i) => [key, this.values[i]]));
  }
  /** Whether anything still moves. */
  get still(): boolean {
    const { yard } = this;
    const v = yard.robot.getLinearVelocity();
    if (v.x * v.x + v.y * v.y > 2.5e-7 || Math.abs(yard.robot.getAngularVelocity()) > 0.005) return false;
    for (const motor of yard.motors.values()) if (Math.abs(motor.omega) > 0.02) return false;
    for (const servo of yard.servos.values()) if (servo.moving) return false;
    for (const thing of yard.things) if (thing.getLinearVelocity().lengthSquared() > 2.5e-7) return false;
    return this.clock.worldUs >= this.toneUntilUs && !this.moves.going && this.ramps.length === 0;
  }
}

/** An angle between two headings, from -180 to 180 degrees. */
const shortWay = (deg: number): number => remainder(deg + 180, 360) - 180;
