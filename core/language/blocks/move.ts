import { choice, defineBlock, number, part, type Path, type Way } from '../define.ts';
import type { Measure } from '../meaning.ts';
import type { Step } from '../program.ts';

const ending = {
  ...choice('brake', 'coast'),
  hint: 'Brake shorts the motors, so that they hold back; coast lets go, and the robot rolls on.'
} as const;
const power = (value: number) => number({ default: value, unit: '%', min: 0, max: 100 });
const signed = (value: number) => number({ default: value, unit: '%', min: -100, max: 100 });
/** How units are written in the text. */
const UNITS = { cm: 'cm', 'wheel turns': 'turns', s: 'seconds', '°': 'degrees', turns: 'turns' };
const side = choice('left', 'right');
const measure = (amount: number, unit: string): Measure => ({ amount, unit: unit as Measure['unit'] });

/** From 0 to less than 360. */
const heading = (deg: number): number => ((deg % 360) + 360) % 360;
const turned = ({ slots }: Step, way: Way): Path => ({ turnDeg: (slots.side === 'left' ? -1 : 1) * way.n('angle') });

export const drive = defineBlock({
  kind: 'drive.measure',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: ({ slots }, way) => ({ lengthM: way.length(0) * (slots.way === 'back' ? -1 : 1) }),
  words: 'drive {way} {amount} {unit} at {power} %, ending in {ending}',
  label: ['Drive', 'distance, turns, time'],
  also: 'forward, forwards, backward, backwards, reverse, straight, go',
  slots: {
    way: choice('ahead', 'back'),
    amount: number({ default: 30, min: 0, max: 100000 }),
    unit: choice('cm', 'wheel turns', 's'),
    power: power(45),
    ending
  },
  needs: ['drive'],
  help: 'Drives straight by the distance, measured by the wheel encoders, with a soft start and, ending in brake, a soft stop on the mark.',
  *run({ device }, { way, amount, unit, power, ending }) {
    yield { move: device.drive(way, measure(amount, unit), power, ending) };
  },
  spell: { way: { ahead: 'drive', back: 'back' }, unit: UNITS },
  python: 'await wheels.{way}({unit}={amount}, power={power}, ending="{ending}")'
});

export const turnAngle = defineBlock({
  kind: 'turn.angle',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: turned,
  words: 'turn {side} by {angle} ° at {power} %, ending in {ending}',
  label: ['Turn on the spot', 'by an angle'],
  also: 'rotate, left, right',
  slots: {
    side,
    angle: number({ default: 60, unit: '°', min: 0, max: 36000 }),
    power: power(35),
    ending
  },
  needs: ['drive'],
  help: 'Turns both wheels against each other until the robot has turned by the angle, as measured by its wheel encoders.',
  *run({ device }, { side, angle, power, ending }) {
    yield { move: device.turn(side, angle, power, ending) };
  },
  python: 'await wheels.turn({side}={angle}, power={power}, ending="{ending}")'
});

export const wheelsRun = defineBlock({
  kind: 'wheels.run',
  section: 'move',
  shape: 'step',
  leaves: 'running',
  words: 'run wheels left {left} right {right} %',
  label: ['Run both wheels', 'until told otherwise'],
  also: 'power, motors',
  slots: { left: signed(35), right: signed(35) },
  needs: ['wheels'],
  help: 'Gives each wheel its power and goes on at once. The wheels run until another block tells them otherwise.',
  example: `wheels.run(35, 35)
wait(1)
wheels.stop("brake")`,
  run({ device }, { left, right }) {
    device.runWheels(left, right);
  },
  python: 'wheels.run({left}, {right})'
});

export const wheelsSpan = defineBlock({
  kind: 'wheels.span',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: (_, way) => way.sides(way.n('left') / 100, way.n('right') / 100),
  words: 'run wheels left {left} right {right} % for {amount} {unit}, ending in {ending}',
  label: ['Run both wheels for', 'time, turns, distance'],
  slots: {
    left: signed(35),
    right: signed(20),
    amount: number({ default: 1.5, min: 0, max: 100000 }),
    unit: choice('s', 'wheel turns', 'cm'),
    ending
  },
  needs: ['wheels'],
  help: 'Runs both wheels, each with its own power, for a time or until the faster one has rolled so far.',
  *run({ device }, { left, right, amount, unit, ending }) {
    yield { move: device.spanWheels(left, right, measure(amount, unit), ending) };
  },
  spell: { unit: UNITS },
  python: 'await wheels.run_for({left}, {right}, {unit}={amount}, ending="{ending}")'
});

export const wheelsStop = defineBlock({
  kind: 'wheels.stop',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  words: 'stop the wheels with {ending}',
  label: ['Stop the wheels', 'brake or coast'],
  also: 'halt',
  slots: { ending },
  needs: ['drive'],
  help: 'Brake shorts the motors, so that they hold back; coast lets go, and the robot rolls on.',
  example: `wheels.run(35, 35)
wait(1)
wheels.stop("coast")`,
  run({ device }, { ending }) {
    device.stopWheels(ending);
  },
  python: 'wheels.stop("{ending}")'
});

export const motorRun = defineBlock({
  kind: 'motor.run',
  section: 'move',
  shape: 'step',
  leaves: 'running',
  words: 'run motor {motor} at {power} %',
  label: ['Run a motor', 'until told otherwise'],
  slots: { motor: part('motor', 'J1'), power: signed(35) },
  needs: ['motor'],
  help: 'Turns the shaft of one motor, as it is mounted: a mirrored motor turns the other way.',
  example: `left_motor.run(35)
wait(1)
left_motor.stop("brake")`,
  run({ device }, { motor, power }) {
    device.runMotor(motor, power);
  },
  python: '{motor}.run({power})'
});

export const motorSpan = defineBlock({
  kind: 'motor.span',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  words: 'run motor {motor} at {power} % for {amount} {unit}, ending in {ending}',
  label: ['Run a motor for', 'time, degrees, turns'],
  slots: {
    motor: part('motor', 'J1'),
    power: signed(35),
    amount: number({ default: 0.8, min: 0, max: 100000 }),
    unit: choice('s', '°', 'turns'),
    ending
  },
  needs: ['motor'],
  help: 'Turns the shaft of one motor for a time or by an amount, as its encoder measures it.',
  *run({ device }, { motor, power, amount, unit, ending }) {
    yield { move: device.spanMotor(motor, power, measure(amount, unit), ending) };
  },
  spell: { unit: UNITS },
  python: 'await {motor}.run_for({power}, {unit}={amount}, ending="{ending}")'
});

export const motorStop = defineBlock({
  kind: 'motor.stop',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  words: 'stop motor {motor} with {ending}',
  label: ['Stop a motor', 'brake or coast'],
  slots: { motor: part('motor', 'J1'), ending },
  needs: ['motor'],
  help: 'Stops one motor. Brake shorts it, so that it holds back; coast lets go, and it rolls on.',
  example: `left_motor.run(35)
wait(1)
left_motor.stop("coast")`,
  run({ device }, { motor, ending }) {
    device.stopMotor(motor, ending);
  },
  python: '{motor}.stop("{ending}")'
});

export const servoAngle = defineBlock({
  kind: 'servo.angle',
  section: 'move',
  shape: 'step',
  words: 'servo {servo} to {angle} °',
  label: ['Servo to angle', '0 to 180 degrees'],
  also: 'arm, lever',
  slots: { servo: part('servo', 'J4'), angle: number({ default: 60, unit: '°', min: 0, max: 180 }) },
  needs: ['servo'],
  help: 'Tells the servo where to go and goes on at once; the servo needs 0.12 s for each 60°. Wait, if its arm must have arrived.',
  run({ device }, { servo, angle }) {
    device.servo(servo, angle);
  },
  python: '{servo}.angle({angle})'
});

export const servoMiddle = defineBlock({
  kind: 'servo.middle',
  section: 'move',
  shape: 'step',
  words: 'all servos to the middle',
  label: ['All servos to the middle', '90 degrees'],
  slots: {},
  needs: ['servo'],
  help: 'Sends every servo to 90°.',
  run({ device }) {
    device.servosMiddle();
  },
  python: 'servos_to_middle()'
});

export const driveFacing = defineBlock({
  kind: 'drive.facing',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: (_, way) => ({ facingDeg: heading(way.startFacingDeg + way.n('heading')), lengthM: way.n('amount') / 100 }),
  words: 'drive {amount} cm facing {heading} ° at {power} %, ending in {ending}',
  label: ['Drive facing', 'straight, kept by the gyro'],
  slots: {
    amount: number({ default: 30, unit: 'cm', min: 0, max: 100000 }),
    heading: number({ default: 0, unit: '°' }),
    power: power(45),
    ending
  },
  needs: ['drive'],
  help: 'Drives ahead by the distance and steers by the gyro, so that the robot keeps facing the heading: 0 as at the start, growing clockwise.',
  mistake: 'If it does not face that way yet, it drives a bend: face the heading first.',
  *run({ device }, { amount, heading, power, ending }) {
    yield { move: device.driveFacing(amount, heading, power, ending) };
  },
  python: 'await wheels.drive_facing(cm={amount}, heading={heading}, power={power}, ending="{ending}")'
});

export const turnGyro = defineBlock({
  kind: 'turn.gyro',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: turned,
  words: 'turn {side} by {angle} ° with the gyro at {power} %, ending in {ending}',
  label: ['Turn with the gyro', 'on the spot, by an angle'],
  slots: { side, angle: number({ default: 60, unit: '°', min: 0, max: 36000 }), power: power(35), ending },
  needs: ['drive'],
  help: 'Turns on the spot until the gyro has turned by the angle. Worn wheels and a wrong track width do not matter to it.',
  *run({ device }, { side, angle, power, ending }) {
    yield { move: device.turnByGyro(side, angle, power, ending) };
  },
  python: 'await wheels.turn_gyro({side}={angle}, power={power}, ending="{ending}")'
});

export const turnFace = defineBlock({
  kind: 'turn.face',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: (_, way) => ({ turnDeg: heading(way.startFacingDeg + way.n('heading') - way.facingDeg + 180) - 180 }),
  words: 'face {heading} ° at {power} %',
  label: ['Face a heading', 'the short way round'],
  slots: { heading: number({ default: 120, unit: '°' }), power: power(35) },
  needs: ['drive'],
  help: 'Turns on the spot, the short way round, until the robot faces the heading: 0 as at the start, 90 to the right of it.',
  mistake: 'Face 90 twice turns once: it says where to look, not how far to turn.',
  *run({ device }, { heading, power }) {
    yield { move: device.face(heading, power, 'brake') };
  },
  python: 'await wheels.face({heading}, power={power})'
});

export const curve = defineBlock({
  kind: 'curve.angle',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: (step, way) => ({ lengthM: (way.n('radius') / 100) * way.n('angle') * (Math.PI / 180), ...turned(step, way) }),
  words: 'curve {side}, radius {radius} cm, by {angle} ° at {power} %, ending in {ending}',
  label: ['Curve', 'along a circle, by an angle'],
  also: 'arc, bend, circle',
  slots: {
    side,
    radius: number({ default: 20, unit: 'cm', min: 0, max: 10000 }),
    angle: number({ default: 60, unit: '°', min: 0, max: 36000 }),
    power: power(45),
    ending
  },
  needs: ['drive'],
  help: 'Drives along a circle: the radius goes from its centre to the middle of the robot. The outer wheel has the power.',
  *run({ device }, { side, radius, angle, power, ending }) {
    yield { move: device.curve(side, radius, angle, power, ending) };
  },
  python: 'await wheels.curve({side}={angle}, radius_cm={radius}, power={power}, ending="{ending}")'
});

export const slideMeasure = defineBlock({
  kind: 'slide.measure',
  section: 'move',
  shape: 'step',
  leaves: 'standing',
  takesTime: true,
  path: (_, way) => ({ lengthM: way.length(way.n('direction')), towardsDeg: way.n('direction') }),
  words: 'slide towards {direction} ° by {amount} {unit} at {power} %, ending in {ending}',
  label: ['Slide', 'to any side, without turning'],
  also: 'sideways, strafe, omni, diagonal',
  slots: {
    direction: number({ default: 90, unit: '°' }),
    amount: number({ default: 30, min: 0, max: 100000 }),
    unit: choice('cm', 'wheel turns', 's'),
    power: power(45),
    ending
  },
  needs: ['slide'],
  help: 'Moves in a direction and keeps facing as it did. The direction goes from its notch: 0 is ahead, 90 is to its right.',
  mistake:
    'A direction of 90 slides to its right, whichever way that is in the yard; a heading goes from where it faced at the start.',
  example: 'wheels.slide(90, cm=30, power=45, ending="brake")',
  *run({ device }, { direction, amount, unit, power, ending }) {
    yield { move: device.slide(direction, measure(amount, unit), power, ending) };
  },
  spell: { unit: UNITS },
  python: 'await wheels.slide({direction}, {unit}={amount}, power={power}, ending="{ending}")'
});

export const slideRun = defineBlock({
  kind: 'slide.run',
  section: 'move',
  shape: 'step',
  leaves: 'running',
  words: 'slide on towards heading {heading} ° at {power} %',
  label: ['Slide on', 'by heading and speed'],
  also: 'sideways, strafe, omni, until told otherwise',
  slots: { heading: number({ default: 0, unit: '°' }), power: power(45) },
  needs: ['slide'],
  help: 'Moves towards the heading and goes on at once with the next block, until another block stops or moves it: 0 as its notch pointed at the start, 90 to the right of it.',
  example: `wheels.slide_on(heading=90, power=45)
wait(2)
wheels.stop("brake")`,
  run({ device }, { heading, power }) {
    device.slideOn(heading, power);
  },
  python: 'wheels.slide_on(heading={heading}, power={power})'
});

export const motorSide = defineBlock({
  kind: 'motor.side',
  section: 'move',
  shape: 'step',
  words: 'motor {motor} counts {side} from here on',
  label: ['Motor counts mirrored', 'for motor blocks, from here on'],
  slots: { motor: part('motor', 'J1'), side: choice('mirrored', 'normal') },
  needs: ['motor'],
  help: 'Motor blocks of this motor turn the other way from here on, until the end of the run. Drive and turn blocks do not need it, and kit and wheels stay as they are.',
  example: `left_motor.counts("mirrored")
left_motor.run(35)
right_motor.run(35)
wait(1)
wheels.stop("brake")`,
  run({ device }, { motor, side }) {
    device.motorSide(motor, side);
  },
  python: '{motor}.counts("{side}")'
});

export const motorKeeps = defineBlock({
  kind: 'motor.keeps',
  section: 'move',
  shape: 'step',
  words: 'motor {motor} keeps {what}',
  label: ['Motor keeps speed', 'or plain power'],
  slots: { motor: part('motor', 'J1'), what: choice('speed', 'power') },
  needs: ['motor'],
  help: 'Speed: the encoder holds the speed of "run a motor", up a slope too. Power: a plain duty cycle, which a weak battery slows down.',
  example: `left_motor.keeps("speed")
left_motor.run(35)
wait(1)
left_motor.stop("brake")`,
  run({ device }, { motor, what }) {
    device.motorKeeps(motor, what);
  },
  python: '{motor}.keeps("{what}")'
});

export const servoShare = defineBlock({
  kind: 'servo.share',
  section: 'move',
  shape: 'step',
  words: 'servo {servo} to {share} % of its sweep',
  label: ['Servo to a share', '0 to 100 % of its sweep'],
  slots: { servo: part('servo', 'J4'), share: number({ default: 50, unit: '%', min: 0, max: 100 }) },
  needs: ['servo'],
  help: '0 % is one end of the sweep, 100 % the other, 50 % the middle. It goes on at once.',
  run({ device }, { servo, share }) {
    device.servo(servo, share * 1.8);
  },
  python: '{servo}.share({share})'
});

export const servoSlow = defineBlock({
  kind: 'servo.slow',
  section: 'move',
  shape: 'step',
  takesTime: true,
  words: 'servo {servo} to {angle} ° over {time} s',
  label: ['Servo slowly', 'to an angle, over a time'],
  slots: {
    servo: part('servo', 'J4'),
    angle: number({ default: 60, unit: '°', min: 0, max: 180 }),
    time: number({ default: 1, unit: 's', min: 0, max: 60 })
  },
  needs: ['servo'],
  help: 'Moves the servo evenly to the angle and waits until it is there.',
  *run({ device }, { servo, angle, time }) {
    device.servoSlow(servo, angle, time);
    yield { us: Math.round(time * 1e6) };
  },
  python: 'await {servo}.slowly({angle}, seconds={time})'
});

export const servoSpin = defineBlock({
  kind: 'servo.spin',
  section: 'move',
  shape: 'step',
  words: 'spin servo {servo} at {power} %',
  label: ['Spin a servo', 'one that goes round'],
  slots: { servo: part('spin', 'J6'), power: signed(30) },
  needs: ['spin'],
  help: 'A spin servo has no angle: its pulse sets how fast it goes round. 0 % stops it.',
  run({ device }, { servo, power }) {
    device.spin(servo, power);
  },
  python: '{servo}.spin({power})'
});
