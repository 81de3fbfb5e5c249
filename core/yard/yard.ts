/**
 * One device on a site: its motors, wheels, servos, battery, sensors, and what a hand does to it. SI units, counter-clockwise
 * angles, as planck has them; the language's centimetres and clockwise degrees begin in run/machine.ts.
 */
import { testOverlap, Vec2, type Body, type Contact, type Shape, type World } from 'planck';
import { inSockets, hasWheels, motorOf, placesOf, reckoned, type Kit, type Part } from '../kit/kit.ts';
import type { PartOf, Place } from '../kit/parts/part.ts';
import { asBuilt, isFaultless, noQuirks, type Quirks } from '../kit/quirks.ts';
import { FURTHEST_CM } from '../kit/ranges.ts';
import { normals } from '../random.ts';
import { GRAVITY } from '../units.ts';
import { Battery } from './battery.ts';
import { colourName } from './colour.ts';
import { rays, reading, PERIOD_MS, STEEPEST_DEG } from './distance.ts';
import { groundForce } from './ground.ts';
import { makeBody, planeAngle } from './bodies.ts';
import type { Floor, Mat, Pose } from './mat.ts';
import { Motor, motorConstants } from './motor.ts';
import { Servo, SpinServo } from './servo.ts';
import { DT, RAD, rub, Site } from './site.ts';
import { loads } from './statics.ts';
import { Tilt } from './tilt.ts';

const LINE_NOISE = 1.5;
const GYRO_NOISE = 0.03;
/** A hand is no faster than this, m/s and rad/s, and reaches its place in so many seconds (our choice). */
const HAND = { speed: 1.2, turn: 6, reachS: 0.06 };
/** Friction of a body that lies on its side, or of a board on the mat (our choice). */
const LYING_FRICTION = 0.4;
const COS_STEEPEST = Math.cos(STEEPEST_DEG * RAD);

export type Touch = { x: number; y: number; speed: number; what: string; nose: boolean; rim?: number };
/** How stiff a shell of plastic and what it meets are together, N/m: about 2 mm under the weight of 4 kg (from memory). */
const SHELL_N_M = 20_000;
/** What it let go of: seconds, and the largest force, N. */
export type LetGo = { what: string; seconds: number; newton: number };
/** Apart for so many ticks it has let go. */
const APART_TICKS = 40;
export type YardOptions = {
  kit: Kit;
  mat: Mat;
  start?: Pose;
  seed: number;
  quirks?: Quirks;
  noise?: boolean;
  onBattery?: boolean;
  /** where other devices are already */
  site?: Site;
};
/** A push by a hand: newtons along and across the device (to its left), newton metres about its middle. */
export type Push = { along: number; across: number; torque: number; seconds: number };
type Wheel = {
  motor: Motor | undefined;
  /** its place from the origin, ahead and to the left, and from the centre of mass; m */
  x: number;
  y: number;
  ahead: number;
  aside: number;
  /** of the direction in which it rolls */
  cos: number;
  sin: number;
  tyre: boolean;
  radius: number;
  /** r^2 / J, 1/kg */
  inert: number;
  /** N on it */
  load: number;
};

/** Where a sensor sits, m and rad, and what it read last. */
type Spot = { x: number; y: number; looks: number };
type LineSensor = Spot & { reads: number; noise: () => number };
type DistanceSensor = Spot & { reads: { cm: number; echo: boolean }; noise: () => number };
const spotOf = (at: Place): Spot => ({ x: at.xMm / 1000, y: at.yMm / 1000, looks: at.deg * RAD });

/** What a part is put in with: its device, how that differs from its sheet, and a source of noise of its own for each name. */
type How = { kit: Kit; quirks: Quirks; noiseOf: (name: string) => () => number };
/** How each kind of part acts and senses in the yard: what stands for it there. A lamp in a socket does nothing in it. */
const PUT_IN: { readonly [T in Part['type']]: (yard: Yard, part: PartOf<T>, how: How) => void } = {
  motor: (yard, { socket, drives }, { kit, quirks }) => {
    const { torque, free } = quirks.wheels[drives ?? ''] ?? asBuilt;
    yard.motors.set(socket, new Motor(motorConstants(kit, torque, free)));
  },
  servo: (yard, { socket, plug, freeFromDeg, freeToDeg }, { quirks }) =>
    void yard.servos.set(
      socket,
      new Servo({ offsetDeg: quirks.servoOffsetDeg, dead: plug === 'wrong', fromDeg: freeFromDeg, toDeg: freeToDeg })
    ),
  spin: (yard, { socket, plug }) => void yard.spins.set(socket, new SpinServo(plug === 'wrong')),
  line: (yard, { socket, at }, { noiseOf }) => {
    const side = at.yMm > 0 ? 'left' : at.yMm < 0 ? 'right' : 'middle';
    yard.lines.set(socket, { ...spotOf(at), reads: 0, noise: noiseOf(`line ${side}`) });
  },
  distance: (yard, { socket, at }, { noiseOf }) =>
    void yard.distances.set(socket, {
      ...spotOf(at),
      reads: { cm: FURTHEST_CM, echo: false },
      noise: noiseOf('distance')
    }),
  colour: (yard, { socket, at }) => void yard.colours.set(socket, spotOf(at)),
  lamp: () => {}
};
export class Yard {
  readonly world: World;
  readonly robot: Body;
  readonly things: Body[];
  readonly floor: Floor;
  readonly battery: Battery;
  /** by socket */
  readonly motors = new Map<string, Motor>();
  readonly servos = new Map<string, Servo>();
  readonly spins = new Map<string, SpinServo>();
  readonly site: Site;
  readonly tilt: Tilt;
  /** held up by a hand, and where that hand carries it */
  lifted = false;
  private carryTo: Pose | undefined;
  private liftedAt = -1;
  private pushes: (Push & { untilTick: number })[] = [];
  private readonly rolls: boolean;
  /** in the kit's order */
  readonly wheels: readonly Wheel[];
  /** by socket, as their parts come in the kit */
  readonly lines = new Map<string, LineSensor>();
  readonly distances = new Map<string, DistanceSensor>();
  readonly colours = new Map<string, Spot>();
  readonly start: Pose;
  /** readings as of the last tick */
  headingDeg = 0;
  rateDegS = 0;
  slips = false;
  touches: Touch[] = [];
  letGo: LetGo[] = [];
  /** what is being touched: since when, how many places, since when none, and how hard */
  private readonly contacts = new Map<
    string,
    { since: number; places: number; apart: number; newton: number; felt: number; pressed: number }
  >();
  private readonly bars: ReadonlySet<unknown>;
  private barContacts = 0;
  private rimContacts = 0;
  private readonly perMass: number;
  /** how long its shell takes to give way, s: sqrt(m / k) of a mass on a spring (Den Hartog, Mechanical Vibrations, chapter 2) */
  private readonly softnessS: number;
  private readonly feltInATick: number;
  /** the centre of mass */
  private readonly middle: { x: number; y: number };
  private readonly bias: number;
  private readonly gyroNoise: () => number;
  private readonly force = { along: 0, across: 0, slips: false };
  private readonly shove = new Vec2(0, 0);
  private readonly motorList: Motor[];
  private readonly servoList: (Servo | SpinServo)[];
  private readonly lineList: LineSensor[];
  private readonly distanceList: DistanceSensor[];
  private tick = 0;

  constructor(readonly options: YardOptions) {
    const { kit, mat, seed } = options;
    const quirks = options.quirks ?? noQuirks;
    const noise = options.noise ?? true;
    this.start = options.start ?? mat.start;
    this.site = options.site ?? new Site(mat);
    this.world = this.site.world;
    this.things = this.site.things;
    this.floor = this.site.floor;
    const { robot, bars } = makeBody(this.world, kit, this.start);
    this.robot = robot;
    this.bars = bars;
    this.site.dwellers.push(this);
    this.rolls = hasWheels(kit);
    const { massKg, massAt, heightOfMassMm, supports } = kit.chassis;
    const reaches = Math.max(0, ...kit.wheels.map((w) => Math.abs(w.at.yMm)));
    this.tilt = new Tilt(reaches / 1000, heightOfMassMm / 1000);
    this.battery = new Battery(kit, options.onBattery ? quirks.charge : undefined);
    const none = () => 0;
    const source = (name: string) => (noise ? normals(seed, name) : none);
    const named = new Map<string, number>();
    const noiseOf = (name: string) => {
      const n = (named.get(name) ?? 0) + 1;
      named.set(name, n);
      return source(n === 1 ? name : `${name} ${n}`);
    };
    const how: How = { kit, quirks, noiseOf };
    for (const part of inSockets(kit))
      (PUT_IN[part.type] as (yard: Yard, part: Part, how: How) => void)(this, part, how);
    this.motorList = [...this.motors.values()];
    this.servoList = [...this.servos.values(), ...this.spins.values()];
    this.lineList = [...this.lines.values()];
    this.distanceList = [...this.distances.values()];
    // a device is as it was built, with its quirks; without any it is as the kit sheet knows it
    const { wheels } = isFaultless(quirks) ? reckoned(kit) : kit;
    this.middle = { x: massAt.xMm / 1000, y: massAt.yMm / 1000 };
    const places = placesOf(wheels).map((p) => ({ ...p, x: p.x * quirks.spread, y: p.y * quirks.spread }));
    const fromMiddle = (at: { x: number; y: number }) => ({ x: at.x - this.middle.x, y: at.y - this.middle.y });
    const carried = loads(massKg * GRAVITY, [
      ...places.map(fromMiddle),
      ...supports.map((s) => fromMiddle({ x: s.xMm / 1000, y: s.yMm / 1000 }))
    ]);
    this.wheels = places.map(({ x, y, rolls, rim }, i): Wheel => {
      const { id, diameterMm } = wheels[i];
      const part = motorOf(kit, quirks.swapped ? wheels[(i + 1) % wheels.length].id : id);
      const radius = (diameterMm * (quirks.wheels[id] ?? asBuilt).diameter) / 2000;
      const from = fromMiddle({ x, y });
      return {
        motor: part && this.motors.get(part.socket),
        x,
        y,
        ahead: from.x,
        aside: from.y,
        cos: Math.cos(rolls),
        sin: Math.sin(rolls),
        tyre: rim === 'tyre',
        radius,
        inert: (radius * radius) / kit.motor.inertiaKgM2,
        load: carried[i]
      };
    });
    this.perMass = places.length / massKg;
    this.softnessS = Math.sqrt(massKg / SHELL_N_M);
    this.feltInATick = 1 - Math.exp(-DT / this.softnessS);
    this.bias = quirks.gyroBiasDegS + (noise ? 0.05 * source('gyro bias')() : 0);
    this.gyroNoise = source('gyro');
    this.world.on('begin-contact', (c) => this.touch(c, true));
    this.world.on('end-contact', (c) => this.touch(c, false));
    this.world.on('post-solve', (c, impulse) => this.press(c, impulse.normalImpulses));
    this.world.step(1e-9, 1, 1); // contacts that are there from the start
    this.sense();
  }

  private touch(contact: Contact, begins: boolean): void {
    const a = contact.getFixtureA();
    const b = contact.getFixtureB();
    const own = a.getBody() === this.robot ? a : b.getBody() === this.robot ? b : undefined;
    if (!own) return;
    const other = own === a ? b : a;
    const nose = this.bars.has(own);
    if (nose) this.barContacts += begins ? 1 : -1;
    const rim = this.options.kit.chassis.rim && own.getUserData() === 'body';
    if (rim) this.rimContacts += begins ? 1 : -1;
    const what = String(other.getUserData());
    const known = this.contacts.get(what);
    if (!begins) {
      if (known && --known.places <= 0) known.apart = this.tick;
      return;
    }
    if (known) {
      known.places++;
      known.apart = -1;
    } else
      this.contacts.set(what, {
        since: this.tick,
        places: 1,
        apart: -1,
        newton: 0,
        felt: 0,
        pressed: this.tick
      });
    const manifold = contact.getWorldManifold(null);
    const at = manifold?.points[0] ?? this.robot.getPosition();
    const v = this.robot.getLinearVelocity();
    const place = this.robot.getLocalPoint(at);
    const deg = -Math.atan2(place.y, place.x) / RAD;
    this.touches.push({
      ...(rim ? { rim: deg < 0 ? deg + 360 : deg } : {}),
      x: at.x,
      y: at.y,
      speed: Math.sqrt(v.x * v.x + v.y * v.y),
      what,
      nose
    });
  }

  /** @param impulses N s of this tick */
  private press(contact: Contact, impulses: readonly number[]): void {
    const [a, b] = [contact.getFixtureA(), contact.getFixtureB()];
    const other = a.getBody() === this.robot ? b : b.getBody() === this.robot ? a : undefined;
    const known = other && this.contacts.get(String(other.getUserData()));
    if (!known) return;
    let sum = 0;
    for (let i = 0; i < contact.getManifold().pointCount; i++) sum += impulses[i] ?? 0;
    // a shell gives way: a blow J is felt as J / softness at the most, a lasting push as what it is, whatever the step
    const gone = this.tick - known.pressed;
    known.felt = known.felt * Math.exp((-gone * DT) / this.softnessS) + (sum / DT) * this.feltInATick;
    known.pressed = this.tick;
    if (known.felt > known.newton) known.newton = known.felt;
  }
  /** @param all also what it still touches: the run is over */
  lettingGo(all = false): void {
    for (const [what, c] of this.contacts)
      if (all || (c.apart >= 0 && this.tick - c.apart >= APART_TICKS)) {
        const until = c.apart >= 0 ? c.apart : this.tick;
        this.letGo.push({ what, seconds: (until - c.since) * DT, newton: c.newton });
        this.contacts.delete(what);
      }
  }

  get noseTouched(): boolean {
    return this.barContacts > 0;
  }
  get rimTouched(): boolean {
    return this.rimContacts > 0;
  }
  /** Degrees clockwise from up, 0 to 360. */
  get facingDeg(): number {
    const facing = 90 - this.robot.getAngle() / RAD;
    return facing - 360 * Math.floor(facing / 360);
  }
  get pose(): Pose {
    const { x, y } = this.robot.getPosition();
    return { x, y, facingDeg: this.facingDeg };
  }

  /** One tick of the whole site. */
  step(): void {
    this.site.step();
  }
  private ampere = 0;
  private acrossBefore = 0;

  /** Before planck: motors, Coulomb friction, slip against the ground, the hand. */
  drive(): void {
    const volts = this.battery.flat ? 0 : this.battery.volts;
    const { robot } = this;
    const { c: cos, s: sin } = robot.getTransform().q;
    let ampere = 0.15;
    for (const motor of this.motorList) {
      motor.spin(DT, volts);
      // the bridge connects the battery for the duty's share of the time, and the other way round for a negative one
      ampere += motor.duty * motor.current;
    }
    for (const servo of this.servoList) {
      ampere += servo.ampere;
      servo.step(DT);
    }
    this.ampere = ampere;
    if (this.pushes.length) this.pushed(cos, sin);
    if (this.lifted || this.tilt.fallen || !this.rolls) {
      for (const motor of this.motorList) motor.turn(DT);
      if (this.lifted) this.carried();
      else rub(robot, LYING_FRICTION * GRAVITY);
      return;
    }
    const v = robot.getLinearVelocity();
    const turn = robot.getAngularVelocity();
    const along = v.x * cos + v.y * sin;
    const across = -v.x * sin + v.y * cos;
    const position = robot.getPosition();
    let fx = 0;
    let fy = 0;
    let torque = 0;
    this.slips = false;
    for (const wheel of this.wheels) {
      const { motor, x, y, ahead, aside, cos: c, sin: s } = wheel;
      const floor = this.floor.friction(position.x + cos * x - sin * y, position.y + sin * x + cos * y);
      // over the ground where the wheel stands, in the machine's frame
      const vx = along - turn * aside;
      const vy = across + turn * ahead;
      const slip = motor ? motor.omega * wheel.radius - (c * vx + s * vy) : 0;
      const side = wheel.tyre ? c * vy - s * vx : 0;
      groundForce(slip, side, wheel.inert, this.perMass, DT, floor * wheel.load, this.force);
      if (this.force.slips) this.slips = true;
      if (motor) motor.omega -= ((this.force.along * wheel.radius) / motor.constants.inertiaKgM2) * DT;
      const px = c * this.force.along - s * this.force.across;
      const py = s * this.force.along + c * this.force.across;
      fx += px;
      fy += py;
      torque += py * ahead - px * aside;
    }
    for (const motor of this.motorList) motor.turn(DT);
    this.shove.set(fx * cos - fy * sin, fx * sin + fy * cos);
    robot.applyForceToCenter(this.shove, true);
    robot.applyTorque(torque, true);
  }
  /** After planck: battery, tipping, sensors. */
  settle(): void {
    this.battery.draw(this.ampere, DT);
    this.tick++;
    if (this.contacts.size) this.lettingGo();
    if (this.rolls && !this.lifted) this.mayTip();
    this.sense();
  }
  private mayTip(): void {
    const v = this.robot.getLinearVelocity();
    const { c: cos, s: sin } = this.robot.getTransform().q;
    const across = -v.x * sin + v.y * cos;
    // the change of the sideways speed, and turning while driving ahead (centripetal)
    const turn = this.robot.getAngularVelocity();
    const along = v.x * cos + v.y * sin;
    const a = (across - this.acrossBefore) / DT + turn * along;
    this.acrossBefore = across;
    this.tilt.step(a < 0 ? -a : a, DT);
  }

  // ---- what a hand does ----
  lift(): void {
    if (this.lifted) return;
    this.lifted = true;
    this.liftedAt = this.tick;
    this.collides(false);
  }
  carry(to: Pose): void {
    this.carryTo = to;
  }
  /** Set down where it is held; where there is no room, at the nearest place that is free. */
  setDown(): void {
    if (!this.lifted) return;
    this.lifted = false;
    // lifted, carried and set down while time stands still: the hand is there at once
    if (this.carryTo && this.liftedAt === this.tick) {
      const { x, y, facingDeg } = this.carryTo;
      this.robot.setTransform(new Vec2(x, y), planeAngle(facingDeg));
    }
    this.carryTo = undefined;
    this.tilt.right();
    this.acrossBefore = 0;
    this.robot.setLinearVelocity(new Vec2(0, 0));
    this.robot.setAngularVelocity(0);
    const { x, y } = this.robot.getPosition();
    const angle = this.robot.getAngle();
    search: for (let ring = 0; ring <= 60; ring++)
      for (let k = 0; k < Math.max(1, ring * 6); k++) {
        const a = (2 * Math.PI * k) / Math.max(1, ring * 6);
        this.robot.setTransform(new Vec2(x + 0.01 * ring * Math.cos(a), y + 0.01 * ring * Math.sin(a)), angle);
        if (this.isFree()) break search;
      }
    this.collides(true);
  }
  push(push: Push): void {
    this.pushes.push({ ...push, untilTick: this.tick + Math.round(push.seconds / DT) });
  }
  /** Whether the device stands inside the mat and in nothing else. */
  isFree(): boolean {
    const { width, height } = this.options.mat;
    const own = this.robot.getTransform();
    for (let f = this.robot.getFixtureList(); f; f = f.getNext()) {
      const shape = f.getShape() as Shape & { m_vertices: Vec2[] };
      for (const corner of shape.m_vertices) {
        const p = this.robot.getWorldPoint(corner);
        if (p.x < 0 || p.y < 0 || p.x > width || p.y > height) return false;
      }
      for (let body = this.world.getBodyList(); body; body = body.getNext()) {
        if (body === this.robot) continue;
        for (let g = body.getFixtureList(); g; g = g.getNext())
          if (testOverlap(shape, 0, g.getShape(), 0, own, body.getTransform())) return false;
      }
    }
    return true;
  }
  private collides(does: boolean): void {
    for (let f = this.robot.getFixtureList(); f; f = f.getNext())
      f.setFilterData({ groupIndex: 0, categoryBits: 1, maskBits: does ? 0xffff : 0 });
  }
  /** The hand moves it towards its place, no faster than hands are. */
  private carried(): void {
    const { robot, carryTo } = this;
    if (!carryTo) {
      robot.setLinearVelocity(new Vec2(0, 0));
      robot.setAngularVelocity(0);
      return;
    }
    const { x, y } = robot.getPosition();
    let vx = (carryTo.x - x) / HAND.reachS;
    let vy = (carryTo.y - y) / HAND.reachS;
    const speed = Math.sqrt(vx * vx + vy * vy);
    if (speed > HAND.speed) [vx, vy] = [(vx * HAND.speed) / speed, (vy * HAND.speed) / speed];
    // about the origin, not the centre of mass
    const turns = (planeAngle(carryTo.facingDeg) - robot.getAngle()) / (2 * Math.PI);
    const turn = Math.max(-HAND.turn, Math.min(HAND.turn, ((turns - Math.round(turns)) * 2 * Math.PI) / HAND.reachS));
    const { c, s } = robot.getTransform().q;
    const { x: ahead, y: aside } = this.middle;
    robot.setAngularVelocity(turn);
    robot.setLinearVelocity(new Vec2(vx - turn * (s * ahead + c * aside), vy + turn * (c * ahead - s * aside)));
  }
  private pushed(cos: number, sin: number): void {
    for (const { along, across, torque, untilTick } of this.pushes) {
      if (this.tick >= untilTick) continue;
      this.robot.applyForceToCenter(new Vec2(along * cos - across * sin, along * sin + across * cos), true);
      this.robot.applyTorque(torque, true);
    }
    this.pushes = this.pushes.filter((p) => p.untilTick > this.tick);
  }

  /** The name of the colour under such a sensor. */
  colourBelow(socket: string): string {
    const spot = this.colours.get(socket)!;
    const { c, s } = this.robot.getTransform().q;
    const { x, y } = this.robot.getPosition();
    return colourName(this.floor.colourAt(x + c * spot.x - s * spot.y, y + s * spot.x + c * spot.y));
  }
  private sense(): void {
    const rate = -this.robot.getAngularVelocity() / RAD + this.bias + GYRO_NOISE * this.gyroNoise();
    this.rateDegS = rate;
    if (this.tick > 0) {
      const h = this.headingDeg + rate * DT;
      this.headingDeg = h >= 360 ? h - 360 : h < 0 ? h + 360 : h;
    }
    const { c: cos, s: sin } = this.robot.getTransform().q;
    const { x, y } = this.robot.getPosition();
    for (const one of this.lineList) {
      const over = this.floor.spot(x + cos * one.x - sin * one.y, y + sin * one.x + cos * one.y);
      one.reads = limit100(over + LINE_NOISE * one.noise());
    }
    if (this.tick % PERIOD_MS === 0)
      for (const one of this.distanceList) {
        const from = { x: x + cos * one.x - sin * one.y, y: y + sin * one.x + cos * one.y };
        one.reads = reading(this.nearest(from, this.robot.getAngle() + one.looks), this.options.mat.airC, one.noise());
      }
  }

  /** Metres to the nearest surface in the cone that is not met more than 60 degrees off its normal. */
  private nearest({ x, y }: { x: number; y: number }, angle: number): number | undefined {
    const from = new Vec2(x, y);
    const far = (FURTHEST_CM + 20) / 100;
    let best: number | undefined;
    for (const ray of rays) {
      const dx = Math.cos(angle + ray);
      const dy = Math.sin(angle + ray);
      let hit = 2;
      let echo = false;
      this.world.rayCast(from, new Vec2(from.x + dx * far, from.y + dy * far), (fixture, _point, normal, fraction) => {
        if (fixture.getBody() === this.robot) return -1;
        hit = fraction;
        echo = -(normal.x * dx + normal.y * dy) >= COS_STEEPEST;
        return fraction;
      });
      if (hit <= 1 && echo && (best === undefined || hit * far < best)) best = hit * far;
    }
    return best;
  }
}
const limit100 = (v: number): number => (v < 0 ? 0 : v > 100 ? 100 : v);
