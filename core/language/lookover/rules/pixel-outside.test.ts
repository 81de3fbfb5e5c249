import { cases } from '../../../testing/cases.ts';

cases('pixel-outside', {
  fires: {
    'x and y swapped': `display.pixel(3, 6, "on")
wait(1)`,
    'one too far right': `display.pixel(7, 2, "on")
wait(1)`,
    'one too far down': `display.level(2, 5, 50)
wait(1)`,
    'a loop from 1 to 7': `for n in from_to(1, 7, 1):
    display.pixel(whole(n), 0, "on")
    wait(0.1)`,
    'a sum beyond': `for n in from_to(0, 4, 1):
    display.pixel(whole(n + 4), 0, "on")
    wait(0.1)`
  },
  silent: {
    'the four corners': `display.pixel(0, 0, "on")
display.pixel(6, 0, "on")
display.pixel(0, 4, "on")
display.pixel(6, 4, "on")
wait(1)`,
    'a loop from 0 to 6': `for n in from_to(0, 6, 1):
    display.pixel(whole(n), 0, "on")
    wait(0.1)`,
    'a number that nobody knows': `count = wheels.driven()
display.pixel(whole(count), 0, "on")
wait(1)`
  }
});
