import { cases } from '../../../testing/cases.ts';

cases('key-without-release', {
  fires: {
    'one key': `def on():
    wheels.run(40, 40)


run(when(key("W", "pressed"), on))`,
    'a motor': `def on():
    left_wheel.run(40)


run(when(key("A", "pressed"), on))`,
    'another key has its release': `def on():
    wheels.run(40, 40)


def right():
    wheels.run(40, 10)


def off():
    wheels.stop("brake")


run(when(key("W", "pressed"), on), when(key("D", "pressed"), right), when(key("D", "released"), off))`,
    'its release does something else': `def on():
    wheels.run(40, 40)


async def off():
    await beep()


run(when(key("W", "pressed"), on), when(key("W", "released"), off))`
  },
  silent: {
    'its release lets the wheels stand': `def on():
    wheels.run(40, 40)


def off():
    wheels.run(0, 0)


run(when(key("W", "pressed"), on), when(key("W", "released"), off))`,
    'with its release': `def on():
    wheels.run(40, 40)


def off():
    wheels.stop("brake")


run(when(key("W", "pressed"), on), when(key("W", "released"), off))`,
    'its release calls a routine that stops': `def on():
    wheels.run(40, 40)


async def off():
    await halt()


async def halt():
    wheels.stop("brake")


run(when(key("W", "pressed"), on), when(key("W", "released"), off))`,
    'a move that ends': `async def on():
    await wheels.drive(cm=10, power=45, ending="brake")


run(when(key("W", "pressed"), on))`,
    'another key stops': `def on():
    wheels.run(40, 40)


def off():
    wheels.stop("brake")


run(when(key("W", "pressed"), on), when(key("S", "pressed"), off))`
  }
});
