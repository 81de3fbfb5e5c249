import { choice, defineBlock, number, part, type Printer } from '../define.ts';
import type { Measure } from '../meaning.ts';

const ending = choice('brake', 'coast');
const power = (value: number) => number({ default: value, unit: '%', min: 0, max: 100 });
const signed = (value: number) => number({ default: value, unit: '%', min: -100, max: 100 });
const MEASURE: Record<string, string> = {
  cm: 'cm',
  'wheel turns': 'turns',
  s: 'seconds',
  '°': 'degrees',
  turns: 'turns'
};
const measured = (p: Printer): string => `${MEASURE[p.choice('unit')]}=${p.slot('amount')}`;
const measure = (amount: number, unit: string): Measure => ({ amount, unit: unit as Measure['unit'] });

export const drive = defineBlock({
  kind: 'drive.measure',
  section: 'move',
  shape: 'step',
  words: 'drive {way} {amount} {unit} at {power} %, ending in {ending}',
  label: ['Drive', 'distance, turns, time'],
  slots: {
    way: choice('ahead', 'back'),
    amount: number({ default: 30, min: 0, max: 100000 }),
    unit: choice('cm', 'wheel turns', 's'),
    power: power(45),
    ending
  },
  needs: ['wheels'],
  help: 'Drives straight by the distance, measured by the wheel encoders, with a soft start and, ending in brake, a soft stop on the mark.',
  *run({ device }, { way, amount, unit, power, ending }) {
    yield { move: device.drive(way, measure(amount, unit), power, ending) };
  },
  python: (p) =>
    p.line(
      `${p.wait}${p.thing('wheels')}.${p.choice('way') === 'ahead' ? 'drive' : 'back'}(${measured(p)}, power=${p.slot('power')}, ending="${p.choice('ending')}")`
    )
});

export const turnAngle = defineBlock({
  kind: 'turn.angle',
  section: 'move',
  shape: 'step',
  words: 'turn {side} by {angle} ° at {power} %, ending in {ending}',
  label: ['Turn on the spot', 'by an angle'],
  slots: {
    side: choice('left', 'right'),
    angle: number({ default: 60, unit: '°', min: 0, max: 36000 }),
    power: power(35),
    ending
  },
  needs: ['wheels'],
  help: 'Turns both wheels against each other until the robot has turned by the angle, as measured by its wheel encoders.',
  *run({ device }, { side, angle, power, ending }) {
    yield { move: device.turn(side, angle, power, ending) };
  },
  python: (p) =>
    p.line(
      `${p.wait}${p.thing('wheels')}.turn(${p.choice('side')}=${p.slot('angle')}, power=${p.slot('power')}, ending="${p.choice('ending')}")`
    )
});

export const wheelsRun = defineBlock({
  kind: 'wheels.run',
  section: 'move',
  shape: 'step',
  words: 'run wheels left {left} right {right} %',
  label: ['Run both wheels', 'until told otherwise'],
  slots: { left: signed(35), right: signed(35) },
  needs: ['wheels'],
  help: 'Gives each wheel its power and goes on at once. The wheels run until another block tells them otherwise.',
  run({ device }, { left, right }) {
    device.runWheels(left, right);
  },
  python: (p) => p.line(`${p.thing('wheels')}.run(${p.slot('left')}, ${p.slot('right')})`)
});

export const wheelsSpan = defineBlock({
  kind: 'wheels.span',
  section: 'move',
  shape: 'step',
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
  python: (p) =>
    p.line(
      `${p.wait}${p.thing('wheels')}.run_for(${p.slot('left')}, ${p.slot('right')}, ${measured(p)}, ending="${p.choice('ending')}")`
    )
});

export const wheelsStop = defineBlock({
  kind: 'wheels.stop',
  section: 'move',
  shape: 'step',
  words: 'stop the wheels with {ending}',
  label: ['Stop the wheels', 'brake or coast'],
  slots: { ending },
  needs: ['wheels'],
  help: 'Brake shorts the motors, so that they hold back; coast lets go, and the robot rolls on.',
  run({ device }, { ending }) {
    device.stopWheels(ending);
  },
  python: (p) => p.line(`${p.thing('wheels')}.stop("${p.choice('ending')}")`)
});

export const motorRun = defineBlock({
  kind: 'motor.run',
  section: 'move',
  shape: 'step',
  words: 'run motor {motor} at {power} %',
  label: ['Run a motor', 'until told otherwise'],
  slots: { motor: part('motor', 'P'), power: signed(35) },
  needs: ['motor'],
  help: 'Turns the shaft of one motor, as it is mounted: a mirrored motor turns the other way.',
  run({ device }, { motor, power }) {
    device.runMotor(motor, power);
  },
  python: (p) => p.line(`${p.name('motor')}.run(${p.slot('power')})`)
});

export const motorSpan = defineBlock({
  kind: 'motor.span',
  section: 'move',
  shape: 'step',
  words: 'run motor {motor} at {power} % for {amount} {unit}, ending in {ending}',
  label: ['Run a motor for', 'time, degrees, turns'],
  slots: {
    motor: part('motor', 'P'),
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
  python: (p) =>
    p.line(`${p.wait}${p.name('motor')}.run_for(${p.slot('power')}, ${measured(p)}, ending="${p.choice('ending')}")`)
});

export const motorStop = defineBlock({
  kind: 'motor.stop',
  section: 'move',
  shape: 'step',
  words: 'stop motor {motor} with {ending}',
  label: ['Stop a motor', 'brake or coast'],
  slots: { motor: part('motor', 'P'), ending },
  needs: ['motor'],
  help: 'Stops one motor.',
  run({ device }, { motor, ending }) {
    device.stopMotor(motor, ending);
  },
  python: (p) => p.line(`${p.name('motor')}.stop("${p.choice('ending')}")`)
});

export const servoAngle = defineBlock({
  kind: 'servo.angle',
  section: 'move',
  shape: 'step',
  words: 'servo {servo} to {angle} °',
  label: ['Servo to angle', '0 to 180 degrees'],
  slots: { servo: part('servo', 'U'), angle: number({ default: 60, unit: '°', min: 0, max: 180 }) },
  needs: ['servo'],
  help: 'Tells the servo where to go and goes on at once; the servo needs 0.12 s for each 60°. Wait, if its arm must have arrived.',
  run({ device }, { servo, angle }) {
    device.servo(servo, angle);
  },
  python: (p) => p.line(`${p.name('servo')}.angle(${p.slot('angle')})`)
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
  python: (p) => p.line('servos_to_middle()')
});
