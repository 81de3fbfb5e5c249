import { choice, defineBlock, part, PREC } from '../define.ts';
import type { Device } from '../meaning.ts';

export const distance = defineBlock({
  kind: 'sense.distance',
  section: 'sense',
  shape: 'value',
  gives: 'number',
  words: 'distance ahead, cm',
  label: ['Distance ahead', '4 to 180 cm'],
  slots: {},
  needs: ['distance'],
  help: 'How far the nearest thing ahead is, in cm, by the echo. With no echo it reads 180.',
  value: (device) => device.distance(),
  python: (p) => [`${p.thing('distance')}.cm()`, PREC.atom]
});

export const ahead = defineBlock({
  kind: 'sense.ahead',
  section: 'sense',
  shape: 'value',
  gives: 'condition',
  words: 'something is ahead',
  label: ['Something is ahead', 'there is an echo'],
  slots: {},
  needs: ['distance'],
  help: 'True if the distance sensor hears an echo.',
  value: (device) => device.somethingAhead(),
  python: (p) => [`${p.thing('distance')}.sees()`, PREC.atom]
});

export const nose = defineBlock({
  kind: 'sense.nose',
  section: 'sense',
  shape: 'value',
  gives: 'condition',
  words: 'nose is touched',
  label: ['Nose is touched', 'the bar in front'],
  slots: {},
  needs: ['wheels'],
  help: 'True while something presses on the touch bar in front.',
  value: (device) => device.noseTouched(),
  python: (p) => [`${p.thing('nose')}.touched()`, PREC.atom]
});

export const buttonHeld = defineBlock({
  kind: 'sense.button',
  section: 'sense',
  shape: 'value',
  gives: 'condition',
  words: 'button {button} is held',
  label: ['Button is held', 'Dot or Bar'],
  slots: { button: choice('Dot', 'Bar') },
  help: 'True while the button is down.',
  value: (device, { button }) => device.buttonHeld(button),
  python: (p) => [`${p.thing(p.choice('button').toLowerCase() as 'dot')}.is_held()`, PREC.atom]
});

export const heading = defineBlock({
  kind: 'sense.heading',
  section: 'sense',
  shape: 'value',
  gives: 'number',
  words: 'heading, °',
  label: ['Heading', '0 to 359, clockwise'],
  slots: {},
  needs: ['wheels'],
  help: 'Which way the robot faces, by its gyro: 0 as at the start, growing clockwise up to 360.',
  value: (device) => device.heading(),
  python: (p) => [`${p.thing('gyro')}.heading()`, PREC.atom]
});

export const wheelTurns = defineBlock({
  kind: 'sense.turns',
  section: 'sense',
  shape: 'value',
  gives: 'number',
  words: 'wheel {wheel} turns',
  label: ['Wheel turns', 'since the start'],
  slots: { wheel: choice('left', 'right') },
  needs: ['wheels'],
  help: 'How many turns the wheel has rolled ahead since the start, by its encoder; backwards counts down.',
  value: (device, { wheel }) => device.wheelTurns(wheel),
  python: (p) => [`${p.thing('wheels')}.turns("${p.choice('wheel')}")`, PREC.atom]
});

export const lineReads = defineBlock({
  kind: 'sense.line',
  section: 'sense',
  shape: 'value',
  gives: 'number',
  words: 'line {sensor} reads',
  label: ['Line reads', '0 dark to 100 light'],
  slots: { sensor: part('line', '20') },
  needs: ['line'],
  help: 'How light the floor is under the sensor, from 0 (black) to 100 (white). It is never quite still.',
  value: (device, { sensor }) => device.lineReads(sensor),
  python: (p) => [`${p.name('sensor')}.reads()`, PREC.atom]
});

export const lineOver = defineBlock({
  kind: 'sense.over',
  section: 'sense',
  shape: 'value',
  gives: 'condition',
  words: 'line {sensor} is over {what}',
  label: ['Line is over', 'dark or light'],
  slots: { sensor: part('line', '20'), what: choice('dark', 'light') },
  needs: ['line'],
  help: 'True if the floor under the sensor is darker (or lighter) than the threshold half way between.',
  value: (device, { sensor, what }) => device.lineOver(sensor, what),
  python: (p) => [`${p.name('sensor')}.over("${p.choice('what')}")`, PREC.atom]
});

export const timer = defineBlock({
  kind: 'sense.timer',
  section: 'sense',
  shape: 'value',
  gives: 'number',
  words: 'timer, s',
  label: ['Timer', 'seconds since the start'],
  slots: {},
  help: 'Seconds since the run set off.',
  value: (device: Device) => device.timer(),
  python: (_) => ['timer()', PREC.atom]
});
