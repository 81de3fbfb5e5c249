import { any, choice, choiceOf, defineBlock, number, pictureSlot } from '../define.ts';
import { COLOURS, overlay, shifted } from '../pixels.ts';
import { pictureOf, whole } from '../values.ts';
import { LEAF } from './pictures.ts';

/** lamps at the sides, or round the rim: clockwise from the notch */
const lamp = choiceOf('lamps', 'left', 'right', 'one', 'two', 'three', 'four', 'five', 'six');
/** a pixel of the display: its column and its row */
const x = number({ default: 2, whole: true, pixel: 'x' });
const y = number({ default: 0, whole: true, pixel: 'y' });
const level = number({ default: 50, unit: '%', min: 0, max: 100 });

export const lampSet = defineBlock({
  kind: 'lamp.set',
  section: 'light',
  shape: 'step',
  words: 'lamp {lamp} {to}',
  label: ['Lamp', 'on, off, flip'],
  also: 'LED, light, blink',
  slots: { lamp, to: choice('on', 'off', 'flip') },
  needs: ['lamps'],
  help: 'Switches a lamp on or off, or to the other of the two.',
  run({ device }, { lamp, to }) {
    device.lamp(lamp, to);
  },
  python: '{lamp}_lamp.{to}()'
});

export const lampLevel = defineBlock({
  kind: 'lamp.level',
  section: 'light',
  shape: 'step',
  words: 'lamp {lamp} at {level} %',
  label: ['Lamp at a level', '0 to 100 % bright'],
  also: 'LED, dim',
  slots: { lamp, level: number({ default: 60, unit: '%', min: 0, max: 100 }) },
  needs: ['lamps'],
  help: 'Lights a lamp as brightly as the percentage says; 0 is off.',
  run({ device }, { lamp, level }) {
    device.lampLevel(lamp, level);
  },
  python: '{lamp}_lamp.level({level})'
});

export const lampColour = defineBlock({
  kind: 'lamp.colour',
  section: 'light',
  shape: 'step',
  words: 'lamp {lamp} in {colour}',
  label: ['Lamp in colour', 'switches it on too'],
  also: 'LED, RGB',
  slots: { lamp, colour: choice(...COLOURS) },
  needs: ['lamps'],
  help: 'Lights a lamp in a colour.',
  run({ device }, { lamp, colour }) {
    device.lampColour(lamp, colour);
  },
  python: '{lamp}_lamp.colour("{colour}")'
});

export const pixelSet = defineBlock({
  kind: 'pixel.set',
  section: 'light',
  shape: 'step',
  words: 'pixel x {x} y {y} {to}',
  label: ['Pixel', 'on, off, flip'],
  slots: { x, y, to: choice('on', 'off', 'flip') },
  needs: ['display'],
  help: 'Switches one lamp of the display. x counts to the right, y counts down, both from 0.',
  example: `for count in from_to(0, 6, 1):
    display.pixel(whole(count), 2, "on")
    wait(0.2)`,
  mistake: 'Both count from 0: of 7 columns the last is x 6, of 5 rows the last is y 4.',
  run({ device }, { x, y, to }) {
    device.pixel(whole(x), whole(y), to);
  },
  python: 'display.pixel({x!}, {y!}, "{to}")'
});

export const pixelLevel = defineBlock({
  kind: 'pixel.level',
  section: 'light',
  shape: 'step',
  words: 'pixel x {x} y {y} at {level} % bright',
  label: ['Pixel at a level', '0 to 100 % bright'],
  slots: { x, y, level },
  needs: ['levels'],
  help: 'Lights one lamp of the display as brightly as the percentage says, to the nearest level that it has: a quarter, a half, three quarters, full.',
  run({ device }, { x, y, level }) {
    device.pixelLevel(whole(x), whole(y), level);
  },
  python: 'display.level({x!}, {y!}, {level})'
});

export const pixelColour = defineBlock({
  kind: 'pixel.colour',
  section: 'light',
  shape: 'step',
  words: 'pixel x {x} y {y} in {colour}',
  label: ['Pixel in colour', 'on a display with colours'],
  slots: { x, y, colour: choice(...COLOURS) },
  needs: ['colours'],
  help: 'Lights one pixel of the display in a colour. x counts to the right, y counts down, both from 0.',
  run({ device }, { x, y, colour }) {
    device.pixelColour(whole(x), whole(y), colour);
  },
  python: 'display.colour({x!}, {y!}, "{colour}")'
});

export const pictureValue = defineBlock({
  kind: 'picture.value',
  section: 'light',
  shape: 'value',
  gives: 'picture',
  words: 'picture {pixels}',
  label: ['Picture', 'painted'],
  slots: { pixels: pictureSlot(LEAF) },
  needs: ['display'],
  help: 'A picture as large as the display of the device. Click it to paint.',
  value: (_, { pixels }) => pixels,
  python: '{pixels}'
});

export const pictureOver = defineBlock({
  kind: 'picture.over',
  section: 'light',
  shape: 'value',
  gives: 'picture',
  words: '{top} over {under}',
  label: ['Picture over picture', 'two pictures in one'],
  slots: { top: pictureSlot('...#... ....... ....... ....... .......'), under: pictureSlot(LEAF) },
  needs: ['display'],
  help: 'Both pictures in one: where the upper one is lit it hides the lower one.',
  value: (_, { top, under }) => ({ picture: overlay(top.picture, under.picture) }),
  python: 'over({top}, {under})'
});

export const pictureShow = defineBlock({
  kind: 'picture.show',
  section: 'light',
  shape: 'step',
  shows: true,
  words: 'put up picture {picture}',
  label: ['Put up picture', 'until the next one'],
  also: 'image, icon, show',
  slots: { picture: pictureSlot(LEAF) },
  needs: ['display'],
  help: 'Puts a picture on the display. It stays until another one is put up. To see two, wait between them.',
  example: `display.show(Picture("....##. ..####. .####.. .##.... #......"))
wait(1)
display.show(Picture("...#... ..###.. .#####. .#####. ..###.."))
wait(1)`,
  mistake: 'Two pictures without a wait between them: only the second is seen.',
  run({ device }, { picture }) {
    device.show(pictureOf(picture));
  },
  python: 'display.show({picture})'
});

export const pictureAt = defineBlock({
  kind: 'picture.at',
  section: 'light',
  shape: 'step',
  shows: true,
  words: 'put up picture {picture} moved right {x} down {y}',
  label: ['Put up picture, moved', 'right and down'],
  slots: {
    picture: pictureSlot(LEAF),
    x: number({ default: 1, whole: true, by: 'x' }),
    y: number({ default: 0, whole: true, by: 'y' })
  },
  needs: ['display'],
  help: 'Puts a picture on the display, moved by whole pixels; negative numbers move it left and up. What is pushed over the edge is not seen.',
  example: `for count in from_to(-6, 6, 1):
    display.show(Picture(".###... #.#.#.# ###.#.# .....## #######"), right=whole(count), down=0)
    wait(0.2)`,
  run({ device }, { picture, x, y }) {
    device.show({ picture: shifted(pictureOf(picture).picture, whole(x), whole(y)) });
  },
  python: 'display.show({picture}, right={x!}, down={y!})'
});

export const dark = defineBlock({
  kind: 'display.dark',
  section: 'light',
  shape: 'step',
  shows: true,
  words: 'darken the display',
  label: ['Darken the display', 'all pixels off'],
  slots: {},
  needs: ['display'],
  help: 'Switches every pixel of the display off.',
  example: `display.show(Picture("....##. ..####. .####.. .##.... #......"))
wait(1)
display.dark()`,
  run({ device }) {
    device.dark();
  },
  python: 'display.dark()'
});

export const write = defineBlock({
  kind: 'display.write',
  section: 'light',
  shape: 'step',
  shows: true,
  takesTime: ({ slots }) => slots.how === 'passing',
  words: 'write {what} on the display, {how}',
  label: ['Write', 'a number or a text'],
  also: 'print, text, show',
  slots: { what: any(12), how: choice('still', 'passing') },
  needs: ['letters'],
  help: 'Still shows as many characters side by side as fit, two on a display of 7 columns, and goes on at once. Passing moves the whole text through from right to left, a column each 0.1 s, and waits until it is gone.',
  *run({ device }, { what, how }) {
    if (how === 'still') return void device.write(what);
    for (const picture of device.passing(what)) {
      device.show(picture);
      yield { us: PASS_US };
    }
  },
  python: ({ how }) => (how === 'still' ? 'display.write({what})' : 'await display.pass_by({what})')
});
/** A passing text moves one column in this time. */
export const PASS_US = 100_000;
