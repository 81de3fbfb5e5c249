/**
 * The physical world: one robot on a mat. SI units, counter-clockwise angles, as planck has them; the language's
 * centimetres and clockwise degrees begin in run/machine.ts.
 */
import { Box, Circle, Edge, Polygon, Settings, Vec2, World, type Body, type Contact, type Fixture } from 'planck';
import { partAt, wheelMotor, type Kit } from '../kit/kit.ts';
import { noQuirks, type Quirks } from '../kit/quirks.ts';
import { normals } from '../random.ts';
import { Battery } from './battery.ts';
import { rays, reading, PERIOD_MS, STEEPEST_DEG, FURTHEST_CM } from './distance.ts';
import { GRAVITY, groundForce } from './ground.ts';
import { Floor, type Mat, type Pose } from './mat.ts';
import { Motor, motorConstants } from './motor.ts';
import { Servo } from './servo.ts';

// planck is made for metres, and these bodies are centimetres: set before any shape exists.
Settings.linearSlop = 1e-4;
Settings.aabbExtension = 0.01;
Settings.velocityThreshold = 0.05;

export const DT = 0.001;
const LINE_NOISE = 1.5;
const GYRO_NOISE = 0.03;
const WHEEL_SHARE = 0.4; // each wheel carries two fifths of the weight
const RAD = Math.PI / 180;
const COS_STEEPEST = Math.cos(STEEPEST_DEG * RAD);

export type Touch = { x: number; y: number; speed: number; what: string; nose: boolean };
export type YardOptions = {
  kit: Kit;
  mat: Mat;
  start?: Pose;
  seed: number;
  quirks?: Quirks;
  noise?: boolean;
  onBattery?: boolean;
};
type Wheel = { motor: Motor | undefined; y: number; radius: number; rim: number };

/** Directions of a compass (degrees clockwise from up) to angles of the plane (radians counter-clockwise from right). */
export const planeAngle = (facingDeg: number): number => (90 - facingDeg) * RAD;

/** The world of the robot's own bodies; also what the speed measurement steps bare. */
export function makeWorld(
  kit: Kit,
  mat: Mat,
  start: Pose
): { world: World; robot: Body; nose: Fixture; things: Body[] } {
  const world = new World({ gravity: new Vec2(0, 0), continuousPhysics: false, allowSleep: false });
  const { width: w, height: h } = mat;
  const ground = world.createBody();
  for (const [a, b] of [
    [
      [0, 0],
      [w, 0]
    ],
    [
      [w, 0],
      [w, h]
    ],
    [
      [w, h],
      [0, h]
    ],
    [
      [0, h],
      [0, 0]
    ]
  ])
    ground.createFixture({
      shape: new Edge(new Vec2(a[0], a[1]), new Vec2(b[0], b[1])),
      friction: 0.3,
      userData: 'the edge of the yard'
    });
  for (const wall of mat.walls)
    ground.createFixture({
      shape: new Box(wall.width / 2, wall.height / 2, new Vec2(wall.x, wall.y), (wall.turnDeg ?? 0) * RAD),
      friction: 0.3,
      userData: 'a wall'
    });
  const things = mat.things.map((thing) => {
    const body = world.createBody({ type: 'dynamic', position: new Vec2(thing.x, thing.y) });
    const area = Math.PI * thing.radius * thing.radius;
    body.createFixture({
      shape: new Circle(thing.radius),
      density: thing.massKg / area,
      friction: 0.3,
      userData: thing.name ?? 'a thing'
    });
    return body;
  });
  const b = kit.body;
  const rear = -b.axleFromRearMm / 1000;
  const front = rear + b.lengthMm / 1000;
  const half = b.widthMm / 2000;
  const c = 0.012;
  const robot = world.createBody({
    type: 'dynamic',
    position: new Vec2(start.x, start.y),
    angle: planeAngle(start.facingDeg)
  });
  const hull = [
    [rear, -half + c],
    [rear + c, -half],
    [front - c, -half],
    [front, -half + c],
    [front, half - c],
    [front - c, half],
    [rear + c, half],
    [rear, half - c]
  ];
  robot.createFixture({
    shape: new Polygon(hull.map(([x, y]) => new Vec2(x, y))),
    density: 1,
    friction: 0.3,
    userData: 'body'
  });
  const nose = robot.createFixture({
    shape: new Box(0.003, 0.021, new Vec2(front + 0.003, 0), 0),
    density: 0,
    friction: 0.3,
    userData: 'nose'
  });
  const track = kit.wheels.trackMm / 1000;
  for (const [side, d] of [
    [1, kit.wheels.leftDiameterMm],
    [-1, kit.wheels.rightDiameterMm]
  ])
    robot.createFixture({
      shape: new Box(d / 2000, kit.wheels.widthMm / 2000, new Vec2(0, (side * track) / 2), 0),
      density: 0,
      friction: 0.3,
      userData: 'wheel'
    });
  const mass = b.massKg;
  const back = b.massBehindAxleMm / 1000;
  // a box of even weight about the centre of mass: m (l^2 + w^2) / 12, and planck wants it about the origin
  const inertia = (mass * (b.lengthMm * b.lengthMm + b.widthMm * b.widthMm) * 1e-6) / 12;
  robot.setMassData({ mass, center: new Vec2(-back, 0), I: inertia + mass * back * back });
  return { world, robot, nose, things };
}

export class Yard {
  readonly world: World;
  readonly robot: Body;
  readonly things: Body[];
  readonly floor: Floor;
  readonly battery: Battery;
  /** by socket */
  readonly motors = new Map<string, Motor>();
  readonly servos = new Map<string, Servo>();
  readonly left: Wheel;
  readonly right: Wheel;
  readonly start: Pose;
  /** readings as of the last tick */
  headingDeg = 0;
  rateDegS = 0;
  distance = { cm: FURTHEST_CM, echo: false };
  lineLeft = 0;
  lineRight = 0;
  slips = false;
  touches: Touch[] = [];
  private noseContacts = 0;
  private readonly weight: number;
  private readonly perMass: number;
  private readonly back: number;
  private readonly bias: number;
  private readonly gyroNoise: () => number;
  private readonly leftNoise: () => number;
  private readonly rightNoise: () => number;
  private readonly distanceNoise: () => number;
  private readonly force = { along: 0, across: 0, slips: false };
  private readonly push = new Vec2(0, 0);
  private readonly motorList: Motor[];
  private readonly servoList: Servo[];
  private readonly hasDistance: boolean;
  private readonly lineAhead: number;
  private readonly lineApart: number;
  private tick = 0;

  constructor(readonly options: YardOptions) {
    const { kit, mat, seed } = options;
    const quirks = options.quirks ?? noQuirks;
    const noise = options.noise ?? true;
    this.start = options.start ?? mat.start;
    const made = makeWorld(kit, mat, this.start);
    this.world = made.world;
    this.robot = made.robot;
    this.things = made.things;
    this.floor = new Floor(mat);
    this.battery = new Battery(kit, options.onBattery ? quirks.charge : undefined);
    for (const part of kit.parts) {
      if (part.type === 'motor') {
        const strength = part.drives === 'left' ? quirks.leftMotor : part.drives === 'right' ? quirks.rightMotor : 1;
        this.motors.set(part.socket, new Motor(motorConstants(kit, strength)));
      } else if (part.type === 'servo') this.servos.set(part.socket, new Servo(quirks.servoOffsetDeg));
    }
    this.motorList = [...this.motors.values()];
    this.servoList = [...this.servos.values()];
    const halfTrack = (kit.wheels.trackMm / 2000) * quirks.track;
    const wheel = (side: 'left' | 'right', diameterMm: number): Wheel => {
      const part = wheelMotor(kit, side);
      const radius = diameterMm / 2000;
      return {
        motor: part && this.motors.get(part.socket),
        y: side === 'left' ? halfTrack : -halfTrack,
        radius,
        rim: (radius * radius) / kit.motor.inertiaKgM2
      };
    };
    this.left = wheel('left', kit.wheels.leftDiameterMm * quirks.leftDiameter);
    this.right = wheel('right', kit.wheels.rightDiameterMm * quirks.rightDiameter);
    this.weight = kit.body.massKg * GRAVITY;
    this.perMass = 2 / kit.body.massKg;
    this.back = kit.body.massBehindAxleMm / 1000;
    const none = () => 0;
    const source = (name: string) => (noise ? normals(seed, name) : none);
    this.bias = quirks.gyroBiasDegS + (noise ? 0.05 * source('gyro bias')() : 0);
    this.gyroNoise = source('gyro');
    this.leftNoise = source('line left');
    this.rightNoise = source('line right');
    this.distanceNoise = source('distance');
    this.hasDistance = partAt(kit, '10')?.type === 'distance' || kit.parts.some((p) => p.type === 'distance');
    this.lineAhead = kit.lineSensors.aheadMm / 1000;
    this.lineApart = kit.lineSensors.apartMm / 2000;
    this.world.on('begin-contact', (c) => this.touch(c, true));
    this.world.on('end-contact', (c) => this.touch(c, false));
    this.world.step(1e-9, 1, 1); // contacts that are there from the start
    this.sense();
  }

  private touch(contact: Contact, begins: boolean): void {
    const a = contact.getFixtureA();
    const b = contact.getFixtureB();
    const own = a.getBody() === this.robot ? a : b.getBody() === this.robot ? b : undefined;
    if (!own) return;
    const other = own === a ? b : a;
    const nose = own.getUserData() === 'nose';
    if (nose) this.noseContacts += begins ? 1 : -1;
    if (!begins) return;
    const manifold = contact.getWorldManifold(null);
    const at = manifold?.points[0] ?? this.robot.getPosition();
    const v = this.robot.getLinearVelocity();
    this.touches.push({
      x: at.x,
      y: at.y,
      speed: Math.sqrt(v.x * v.x + v.y * v.y),
      what: String(other.getUserData()),
      nose
    });
  }

  get noseTouched(): boolean {
    return this.noseContacts > 0;
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

  /** One tick: motors, Coulomb friction, slip against the ground, planck, then the sensors. */
  step(): void {
    const volts = this.battery.flat ? 0 : this.battery.volts;
    const { robot } = this;
    const angle = robot.getAngle();
    const cos = Math.cos(angle);
    const sin = Math.sin(angle);
    let ampere = 0.15;
    for (const motor of this.motorList) {
      motor.spin(DT, volts);
      ampere += Math.abs(motor.current);
    }
    for (const servo of this.servoList) {
      if (servo.moving) ampere += 0.25;
      servo.step(DT);
    }
    const v = robot.getLinearVelocity();
    const turn = robot.getAngularVelocity();
    const along = v.x * cos + v.y * sin;
    // the wheels stand ahead of the centre of mass
    const across = -v.x * sin + v.y * cos + turn * this.back;
    const position = robot.getPosition();
    let fx = 0;
    let fy = 0;
    let torque = 0;
    this.slips = false;
    for (const wheel of [this.left, this.right]) {
      const { motor, y } = wheel;
      const limit = this.floor.friction(position.x - sin * y, position.y + cos * y) * this.weight * WHEEL_SHARE;
      const ground = along - turn * y;
      const slip = motor ? motor.omega * wheel.radius - ground : 0;
      groundForce(slip, across, wheel.rim, this.perMass, DT, limit, this.force);
      if (this.force.slips) this.slips = true;
      if (motor) motor.omega -= ((this.force.along * wheel.radius) / motor.constants.inertiaKgM2) * DT;
      fx += this.force.along;
      fy += this.force.across;
      torque += this.force.across * this.back - this.force.along * y;
    }
    for (const motor of this.motorList) motor.turn(DT);
    this.push.set(fx * cos - fy * sin, fx * sin + fy * cos);
    robot.applyForceToCenter(this.push, true);
    robot.applyTorque(torque, true);
    for (const thing of this.things) this.drag(thing);
    this.world.step(DT, 6, 2);
    this.battery.draw(ampere, DT);
    this.tick++;
    this.sense();
  }

  /** Loose things stand on the mat: Coulomb friction, clamped at zero. */
  private drag(thing: Body): void {
    const v = thing.getLinearVelocity();
    const speed = Math.sqrt(v.x * v.x + v.y * v.y);
    const spin = thing.getAngularVelocity();
    if (speed > 0) {
      const share = Math.max(0, 1 - (0.5 * GRAVITY * DT) / speed);
      thing.setLinearVelocity(new Vec2(v.x * share, v.y * share));
    }
    if (spin !== 0) thing.setAngularVelocity(spin * 0.99);
  }

  private sense(): void {
    const rate = -this.robot.getAngularVelocity() / RAD + this.bias + GYRO_NOISE * this.gyroNoise();
    this.rateDegS = rate;
    if (this.tick > 0) {
      const h = this.headingDeg + rate * DT;
      this.headingDeg = h >= 360 ? h - 360 : h < 0 ? h + 360 : h;
    }
    const angle = this.robot.getAngle();
    const cos = Math.cos(angle);
    const sin = Math.sin(angle);
    const { x, y } = this.robot.getPosition();
    const lx = x + cos * this.lineAhead;
    const ly = y + sin * this.lineAhead;
    this.lineLeft = limit100(
      this.floor.spot(lx - sin * this.lineApart, ly + cos * this.lineApart) + LINE_NOISE * this.leftNoise()
    );
    this.lineRight = limit100(
      this.floor.spot(lx + sin * this.lineApart, ly - cos * this.lineApart) + LINE_NOISE * this.rightNoise()
    );
    if (this.hasDistance && this.tick % PERIOD_MS === 0)
      this.distance = reading(this.nearest(x, y, angle), this.options.mat.airC, this.distanceNoise());
  }

  /** Metres to the nearest surface in the cone that is not met more than 60 degrees off its normal. */
  private nearest(x: number, y: number, angle: number): number | undefined {
    const { kit } = this.options;
    const front = (kit.body.lengthMm - kit.body.axleFromRearMm + 6) / 1000;
    const from = new Vec2(x + Math.cos(angle) * front, y + Math.sin(angle) * front);
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
