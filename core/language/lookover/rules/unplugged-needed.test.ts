import { cases } from '../../../testing/cases.ts';

cases('unplugged-needed', {
  fires: {
    'keys that drive': `def on():
    wheels.run(40, 40)


def off():
    wheels.stop("brake")


run(when(key("W", "pressed"), on), when(key("W", "released"), off))`
  },
  silent: {
    'its own buttons': `def on():
    wheels.run(40, 40)


def off():
    wheels.stop("brake")


run(when(dot.pressed, on), when(bar.pressed, off))`,
    'a key that only writes': `def on():
    display.write(1)


run(when(key("W", "pressed"), on))`
  }
});
