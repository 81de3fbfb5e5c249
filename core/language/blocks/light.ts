import { choice, defineBlock, number, pictureSlot } from '../define.ts';
import { pictureOf, whole } from '../values.ts';

export const COLOURS = ['amber', 'red', 'green', 'blue', 'violet', 'white'] as const;
/** A leaf: the picture that the block comes with. */
export const LEAF = '....##. ..####. .####.. .##.... #......';

export const lampSet = defineBlock({
  kind: 'lamp.set',
  section: 'light',
  shape: 'step',
  words: 'lamp {lamp} {to}',
  label: ['Lamp', 'on, off, flip'],
  slots: { lamp: choice('left', 'right'), to: choice('on', 'off', 'flip') },
  help: 'Switches a lamp on or off, or to the other of the two.',
  run({ device }, { lamp, to }) {
    device.lamp(lamp, to);
  },
  python: (p) => p.line(`${p.thing(`${p.choice('lamp')}_lamp` as 'left_lamp')}.${p.choice('to')}()`)
});

export const lampColour = defineBlock({
  kind: 'lamp.colour',
  section: 'light',
  shape: 'step',
  words: 'lamp {lamp} in {colour}',
  label: ['Lamp in colour', 'switches it on too'],
  slots: { lamp: choice('left', 'right'), colour: choice(...COLOURS) },
  help: 'Lights a lamp in a colour.',
  run({ device }, { lamp, colour }) {
    device.lampColour(lamp, colour);
  },
  python: (p) => p.line(`${p.thing(`${p.choice('lamp')}_lamp` as 'left_lamp')}.colour("${p.choice('colour')}")`)
});

export const pixelSet = defineBlock({
  kind: 'pixel.set',
  section: 'light',
  shape: 'step',
  words: 'pixel x {x} y {y} {to}',
  label: ['Pixel', 'on, off, flip'],
  slots: {
    x: number({ default: 2, min: 0, max: 6, whole: true }),
    y: number({ default: 0, min: 0, max: 4, whole: true }),
    to: choice('on', 'off', 'flip')
  },
  help: 'Switches one lamp of the matrix. x counts to the right from 0 to 6, y counts down from 0 to 4.',
  run({ device }, { x, y, to }) {
    device.pixel(whole(x), whole(y), to);
  },
  python: (p) => p.line(`${p.thing('display')}.pixel(${p.whole('x')}, ${p.whole('y')}, "${p.choice('to')}")`)
});

export const pictureValue = defineBlock({
  kind: 'picture.value',
  section: 'light',
  shape: 'value',
  gives: 'picture',
  words: 'picture {pixels}',
  label: ['Picture', 'painted, 7 by 5'],
  slots: { pixels: pictureSlot(LEAF) },
  help: 'A picture for the matrix, 7 wide and 5 high. Click it to paint.',
  value: (_, { pixels }) => pixels,
  python: (p) => [`Picture(${JSON.stringify((p.step.slots.pixels as { picture: string }).picture)})`, 9]
});

export const pictureShow = defineBlock({
  kind: 'picture.show',
  section: 'light',
  shape: 'step',
  words: 'put up picture {picture}',
  label: ['Put up picture', 'until the next one'],
  slots: { picture: pictureSlot(LEAF) },
  help: 'Puts a picture on the matrix. It stays until another one is put up. To see two, wait between them.',
  run({ device }, { picture }) {
    device.show(pictureOf(picture));
  },
  python: (p) => p.line(`${p.thing('display')}.show(${p.slot('picture')})`)
});

export const dark = defineBlock({
  kind: 'display.dark',
  section: 'light',
  shape: 'step',
  words: 'darken the display',
  label: ['Darken the display', 'all pixels off'],
  slots: {},
  help: 'Switches every pixel of the matrix off.',
  run({ device }) {
    device.dark();
  },
  python: (p) => p.line(`${p.thing('display')}.dark()`)
});
