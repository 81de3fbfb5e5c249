import type { Kit } from '../../kit/kit.ts';
import { lineKey, motorKey, sideKeys, wheelKey } from '../../kit/keys.ts';
import { FURTHEST_CM, NEAREST_CM } from '../../kit/ranges.ts';
import { choice, defineBlock, named, part, type Interval } from '../define.ts';

/** No faster than its motors turn with no load, on a slope or pushed twice that; cm/s. */
function topSpeed({ motor, wheels }: Kit): Interval {
  const top = 2 * motor.freeTurnsPerS * Math.PI * (Math.max(0, ...wheels.map((w) => w.diameterMm)) / 10);
  return [-top, top];
}
/** The channels of the wheel that the block's slot says. */
const ofWheel =
  (what: 'turns' | 'speed') =>
  ({ wheel }: Readonly<Record<string, string>>, kit: Kit): string[] =>
    sideKeys(kit, what, wheel);
/** The sticks of a gamepad, each with its two ways. */
export const STICKS = ['left, left-right', 'left, up-down', 'right, left-right', 'right, up-down'] as const;

export const distance = defineBlock({
  kind: 'sense.distance',
  section: 'sense',
  shape: 'value',
  reads: ['distance'],
  lies: [NEAREST_CM, FURTHEST_CM],
  noisy: true,
  outside: true,
  gives: 'number',
  words: 'distance ahead, cm',
  label: ['Distance ahead', '4 to 180 cm'],
  also: 'ultrasonic, obstacle, range',
  slots: {},
  needs: ['distance'],
  help: 'How far the nearest thing ahead is, in cm, by the echo. With no echo it reads 180.',
  value: (device) => device.distance(),
  python: 'distance.cm()'
});

export const ahead = defineBlock({
  kind: 'sense.ahead',
  section: 'sense',
  shape: 'value',
  reads: ['distance'],
  outside: true,
  gives: 'condition',
  words: 'something is ahead',
  label: ['Something is ahead', 'there is an echo'],
  slots: {},
  needs: ['distance'],
  help: 'True if the distance sensor hears an echo.',
  value: (device) => device.somethingAhead(),
  python: 'distance.sees()'
});

export const nose = defineBlock({
  kind: 'sense.nose',
  section: 'sense',
  shape: 'value',
  reads: ['nose'],
  outside: true,
  gives: 'condition',
  words: 'nose is touched',
  label: ['Nose is touched', 'the bar in front'],
  slots: {},
  needs: ['nose'],
  help: 'True while something presses on the touch bar in front.',
  value: (device) => device.noseTouched(),
  python: 'nose.touched()'
});

export const rim = defineBlock({
  kind: 'sense.rim',
  section: 'sense',
  shape: 'value',
  reads: ['rim'],
  outside: true,
  gives: 'condition',
  words: 'rim is touched',
  label: ['Rim is touched', 'anywhere round it'],
  slots: {},
  needs: ['rim'],
  help: 'True while something presses on the rim, wherever that is.',
  example: `wheels.slide_on(heading=0, power=30)
wait_until(lambda: rim.touched())
wheels.stop("brake")`,
  value: (device) => device.rimTouched(),
  python: 'rim.touched()'
});

export const rimPlace = defineBlock({
  kind: 'sense.rimplace',
  section: 'sense',
  shape: 'value',
  reads: ['rim'],
  lies: [0, 360],
  gives: 'number',
  words: 'where the rim is touched, °',
  label: ['Where the rim is touched', 'degrees from the notch'],
  also: 'bumper, side, collision',
  slots: {},
  needs: ['rim'],
  help: 'Where the rim was touched last: 0 at the notch, growing clockwise up to 360. Before the first touch it is 0.',
  example: `wait_until(rim.touched)
wheels.slide(180 + rim.place(), cm=10, power=40, ending="brake")`,
  value: (device) => device.rimPlace(),
  python: 'rim.place()'
});

export const buttonHeld = defineBlock({
  kind: 'sense.button',
  section: 'sense',
  shape: 'value',
  outside: true,
  gives: 'condition',
  words: 'button {button} is held',
  label: ['Button is held', 'Dot or Bar'],
  slots: { button: choice('Dot', 'Bar') },
  help: 'True while the button is down.',
  value: (device, { button }) => device.buttonHeld(button),
  spell: { button: { Dot: 'dot', Bar: 'bar' } },
  python: '{button}.is_held()'
});

export const heading = defineBlock({
  kind: 'sense.heading',
  section: 'sense',
  shape: 'value',
  reads: ['heading'],
  // a whole turn is 0 again
  lies: [0, 359.999],
  noisy: true,
  counts: 'turned',
  gives: 'number',
  words: 'heading, °',
  label: ['Heading', '0 to 359, clockwise'],
  also: 'compass, gyro, direction',
  slots: {},
  needs: ['gyro'],
  help: 'Which way the robot faces, by its gyro: 0 as at the start, growing clockwise up to 360.',
  value: (device) => device.heading(),
  python: 'gyro.heading()'
});

export const wheelTurns = defineBlock({
  kind: 'sense.turns',
  section: 'sense',
  shape: 'value',
  reads: ofWheel('turns'),
  noisy: true,
  counts: 'rolled',
  gives: 'number',
  words: 'wheel {wheel} turns',
  label: ['Wheel turns', 'since they were zeroed'],
  slots: { wheel: choice('left', 'right') },
  needs: ['wheels'],
  help: 'How many turns the wheel has rolled ahead since the start or since it was zeroed, by its encoder; backwards counts down.',
  value: (device, { wheel }) => device.wheelTurns(wheel),
  python: 'wheels.turns("{wheel}")'
});

export const lineReads = defineBlock({
  kind: 'sense.line',
  section: 'sense',
  shape: 'value',
  reads: ({ sensor }, kit) => [lineKey(kit, sensor)],
  lies: [0, 100],
  noisy: true,
  outside: true,
  gives: 'number',
  words: 'line {sensor} reads',
  label: ['Line reads', '0 dark to 100 light'],
  slots: { sensor: part('line', 'J8') },
  needs: ['line'],
  help: 'How light the floor is under the sensor, from 0 (black) to 100 (white). It is never quite still.',
  value: (device, { sensor }) => device.lineReads(sensor),
  python: '{sensor}.reads()'
});

export const lineOver = defineBlock({
  kind: 'sense.over',
  section: 'sense',
  shape: 'value',
  reads: ({ sensor }, kit) => [lineKey(kit, sensor)],
  outside: true,
  gives: 'condition',
  words: 'line {sensor} is over {what}',
  label: ['Line is over', 'dark or light'],
  slots: { sensor: part('line', 'J8'), what: choice('dark', 'light') },
  needs: ['line'],
  help: 'True if the floor under the sensor is darker (or lighter) than the threshold half way between.',
  value: (device, { sensor, what }) => device.lineOver(sensor, what),
  python: '{sensor}.over("{what}")'
});

export const colourBelow = defineBlock({
  kind: 'sense.colour',
  section: 'sense',
  shape: 'value',
  gives: 'text',
  words: 'colour below, by {sensor}',
  label: ['Colour below', 'its name'],
  slots: { sensor: part('colour', 'J10') },
  needs: ['colour'],
  help: 'The name of the colour of the floor under the sensor: black, grey, white, red, orange, yellow, green, blue, violet or brown, whichever is nearest. Compare it with a text.',
  value: (device, { sensor }) => device.colourBelow(sensor),
  python: '{sensor}.colour()'
});

export const timer = defineBlock({
  kind: 'sense.timer',
  section: 'sense',
  shape: 'value',
  lies: [0, Infinity],
  noisy: true,
  gives: 'number',
  words: 'timer, s',
  label: ['Timer', 'seconds'],
  slots: {},
  help: 'Seconds since the run set off, or since the timer was restarted.',
  value: (device) => device.timer(),
  python: 'timer()'
});

export const keyHeld = defineBlock({
  kind: 'sense.key',
  section: 'sense',
  shape: 'value',
  outside: true,
  gives: 'condition',
  words: 'key {key} is held',
  label: ['Key is held', 'of the computer'],
  slots: { key: named('W') },
  help: 'True while a key of the computer is down, while rehearsing or plugged in.',
  value: (device, { key }) => device.keyHeld(key),
  python: 'key_is_held("{key}")'
});

export const stick = defineBlock({
  kind: 'sense.stick',
  section: 'sense',
  shape: 'value',
  lies: [-100, 100],
  outside: true,
  gives: 'number',
  words: 'stick {stick}, %',
  label: ['Stick', '−100 to 100 %'],
  slots: { stick: choice(...STICKS) },
  help: 'How far a stick of the gamepad is pushed: right and up count up to 100, left and down to −100.',
  value: (device, { stick }) => device.stick(stick),
  python: 'stick("{stick}")'
});

export const turnedSince = defineBlock({
  kind: 'sense.turned',
  section: 'sense',
  shape: 'value',
  reads: ['heading'],
  noisy: true,
  counts: 'turned',
  gives: 'number',
  words: 'turned since zero, °',
  label: ['Turned since zero', 'signed, on and on'],
  also: 'gyro',
  slots: {},
  needs: ['gyro'],
  help: 'How far the robot has turned since the heading was zeroed: clockwise counts up, on and on beyond 360.',
  value: (device) => device.turned(),
  python: 'gyro.turned()'
});

export const turningRate = defineBlock({
  kind: 'sense.rate',
  section: 'sense',
  shape: 'value',
  noisy: true,
  gives: 'number',
  words: 'turning rate, °/s',
  label: ['Turning rate', 'degrees a second'],
  slots: {},
  needs: ['gyro'],
  help: 'How fast the robot turns now, by its gyro: clockwise counts up. At rest it is nearly 0, never quite.',
  value: (device) => device.turningRate(),
  python: 'gyro.rate()'
});

export const acceleration = defineBlock({
  kind: 'sense.acceleration',
  section: 'sense',
  shape: 'value',
  reads: ({ axis }) => [`accel${axis.charAt(0).toUpperCase()}${axis.slice(1)}`],
  // up to 8 g along each of its axes
  lies: (_, { axis }) => (axis === 'total' ? [0, 14] : [-8, 8]),
  noisy: true,
  outside: true,
  gives: 'number',
  words: 'acceleration {axis}, g',
  label: ['Acceleration', 'in g'],
  slots: { axis: choice('x', 'y', 'z', 'total') },
  needs: ['motion'],
  help: 'How hard the board is pushed, in multiples of the weight: at rest the total is 1 g, in free fall 0. x points right, y away from you, z up.',
  value: (device, { axis }) => device.acceleration(axis),
  python: 'motion.acceleration("{axis}")'
});

export const lean = defineBlock({
  kind: 'sense.lean',
  section: 'sense',
  shape: 'value',
  reads: ({ way }) => [`lean${way.charAt(0).toUpperCase()}${way.slice(1)}`],
  lies: [-180, 180],
  noisy: true,
  outside: true,
  gives: 'number',
  words: 'lean {way}, °',
  label: ['Lean', 'how far it is tilted'],
  also: 'tilt, slope',
  slots: { way: choice('sideways', 'forwards', 'turned') },
  needs: ['motion'],
  help: 'How far the board is leaned: sideways counts up to the right, forwards counts up away from you, turned counts clockwise.',
  value: (device, { way }) => device.lean(way),
  python: 'motion.lean("{way}")'
});

export const wheelDegrees = defineBlock({
  kind: 'sense.degrees',
  section: 'sense',
  shape: 'value',
  reads: ofWheel('turns'),
  noisy: true,
  counts: 'rolled',
  gives: 'number',
  words: 'wheel {wheel} degrees',
  label: ['Wheel degrees', 'since it was zeroed'],
  slots: { wheel: choice('left', 'right') },
  needs: ['wheels'],
  help: 'How many degrees the wheel has turned ahead since it was zeroed: 360 are one turn.',
  value: (device, { wheel }) => device.wheelTurns(wheel) * 360,
  python: 'wheels.degrees("{wheel}")'
});

export const wheelSpeed = defineBlock({
  kind: 'sense.wheelspeed',
  section: 'sense',
  shape: 'value',
  reads: ofWheel('speed'),
  lies: topSpeed,
  noisy: true,
  gives: 'number',
  words: 'wheel {wheel} speed, cm/s',
  label: ['Wheel speed', 'at its rim'],
  slots: { wheel: choice('left', 'right') },
  needs: ['wheels'],
  help: 'How fast the rim of the wheel moves, by its encoder; backwards is negative.',
  value: (device, { wheel }) => device.wheelSpeed(wheel),
  python: 'wheels.speed_of("{wheel}")'
});

export const driven = defineBlock({
  kind: 'sense.driven',
  section: 'sense',
  shape: 'value',
  reads: (_, kit) => kit.wheels.map(({ id }) => wheelKey('turns', id)),
  noisy: true,
  counts: 'rolled',
  gives: 'number',
  words: 'distance driven, cm',
  label: ['Distance driven', 'since the wheels were zeroed'],
  slots: {},
  needs: ['drive'],
  help: 'How far the middle of the robot has rolled, by both encoders; backwards counts down.',
  value: (device) => device.driven(),
  python: 'wheels.driven()'
});

export const speed = defineBlock({
  kind: 'sense.speed',
  section: 'sense',
  shape: 'value',
  reads: (_, kit) => kit.wheels.map(({ id }) => wheelKey('speed', id)),
  lies: topSpeed,
  noisy: true,
  gives: 'number',
  words: 'speed, cm/s',
  label: ['Speed', 'of the robot'],
  slots: {},
  needs: ['drive'],
  help: 'How fast the robot rolls, by both encoders; backwards is negative.',
  value: (device) => device.speed(),
  python: 'wheels.speed()'
});

export const motorTurns = defineBlock({
  kind: 'sense.motor',
  section: 'sense',
  shape: 'value',
  reads: ({ motor, what }, kit) => [motorKey(kit, what === 'speed' ? 'speed' : 'turns', motor)],
  counts: 'rolled',
  noisy: true,
  gives: 'number',
  words: 'motor {motor} {what}',
  label: ['Motor turns', 'or degrees, or speed'],
  slots: { motor: part('motor', 'J1'), what: choice('turns', 'degrees', 'speed') },
  needs: ['motor'],
  help: 'How far a motor has turned since it was zeroed, as it is mounted, or how fast, in degrees a second.',
  value: (device, { motor, what }) =>
    what === 'speed' ? device.motorSpeed(motor) : device.motorTurns(motor) * (what === 'turns' ? 1 : 360),
  python: '{motor}.{what}()'
});

export const light = defineBlock({
  kind: 'sense.light',
  section: 'sense',
  shape: 'value',
  reads: ['light'],
  lies: [0, 100],
  gives: 'number',
  words: 'light',
  label: ['Light', '0 to 100'],
  slots: {},
  needs: ['light'],
  help: 'How bright it is, from 0 (dark) to 100.',
  value: (device) => device.light(),
  python: 'light()'
});

export const temperature = defineBlock({
  kind: 'sense.temperature',
  section: 'sense',
  shape: 'value',
  reads: ['temperature'],
  gives: 'number',
  words: 'temperature, °C',
  label: ['Temperature', 'of the air'],
  slots: {},
  needs: ['temperature'],
  help: 'How warm it is, in degrees Celsius.',
  value: (device) => device.temperature(),
  python: 'temperature()'
});

export const moisture = defineBlock({
  kind: 'sense.moisture',
  section: 'sense',
  shape: 'value',
  reads: ['moisture'],
  lies: [0, 100],
  gives: 'number',
  words: 'moisture',
  label: ['Moisture', '0 to 100, of the soil'],
  slots: {},
  needs: ['moisture'],
  help: 'How wet the soil is between the two contacts of the foot, from 0 (dry) to 100.',
  value: (device) => device.moisture(),
  python: 'moisture()'
});

export const edgeTouched = defineBlock({
  kind: 'sense.edge',
  section: 'sense',
  shape: 'value',
  outside: true,
  gives: 'condition',
  words: 'edge {edge} is touched',
  label: ['Edge is touched', 'left or right'],
  slots: { edge: choice('left', 'right') },
  needs: ['edges'],
  help: 'True while the touch edge is touched.',
  value: (device, { edge }) => device.edgeTouched(edge),
  python: '{edge}_edge.touched()'
});

export const battery = defineBlock({
  kind: 'sense.battery',
  section: 'sense',
  shape: 'value',
  lies: [0, 100],
  gives: 'number',
  words: 'battery, %',
  label: ['Battery', 'how full it is'],
  slots: {},
  help: 'How full the battery is, from 0 to 100 %.',
  value: (device) => device.battery(),
  python: 'battery()'
});

export const lastMessage = defineBlock({
  kind: 'sense.message',
  section: 'sense',
  shape: 'value',
  gives: 'text',
  words: 'last message',
  label: ['Last message', 'its name'],
  slots: {},
  help: 'The name of the message that arrived last; empty before the first.',
  value: (device) => device.lastMessage(),
  python: 'last_message()'
});

export const zeroHeading = defineBlock({
  kind: 'sense.zeroheading',
  section: 'sense',
  shape: 'step',
  zeroes: 'turned',
  words: 'zero the heading',
  label: ['Zero the heading', 'this way is 0'],
  slots: {},
  needs: ['gyro'],
  help: 'From here on the way it faces now is heading 0, and it has turned by 0.',
  example: `wheels.turn(right=90, power=35, ending="brake")
gyro.zero()
log(gyro.heading())`,
  run({ device }) {
    device.zeroHeading();
  },
  python: 'gyro.zero()'
});

export const zeroWheels = defineBlock({
  kind: 'sense.zerowheels',
  section: 'sense',
  shape: 'step',
  zeroes: 'rolled',
  words: 'zero the wheels',
  label: ['Zero the wheels', 'counts begin anew'],
  slots: {},
  needs: ['drive'],
  help: 'Turns, degrees and the distance driven count from 0 again.',
  example: `wheels.drive(cm=20, power=45, ending="brake")
wheels.zero()
log(wheels.driven())`,
  run({ device }) {
    device.zeroWheels();
  },
  python: 'wheels.zero()'
});

export const restartTimer = defineBlock({
  kind: 'sense.restart',
  section: 'sense',
  shape: 'step',
  words: 'restart the timer',
  label: ['Restart the timer', 'from 0'],
  slots: {},
  help: 'The timer counts from 0 again.',
  example: `wait(1)
restart_timer()
log(timer())`,
  run({ device }) {
    device.restartTimer();
  },
  python: 'restart_timer()'
});
