import { cases } from '../../../testing/cases.ts';

cases('two-stacks-one-motor', {
  fires: {
    'both drive': `async def one():
    await wheels.drive(cm=50, power=45, ending="brake")


async def two():
    await wheels.turn(right=90, power=35, ending="brake")


run(one, two)`,
    'a motor and both wheels': `async def one():
    left_wheel.run(30)
    await wait(1)
    left_wheel.stop("brake")


async def two():
    await wheels.drive(cm=20, power=45, ending="brake")


run(one, two)`,
    'through a routine': `async def there():
    await wheels.drive(cm=20, power=45, ending="brake")


async def one():
    await there()


async def two():
    await wheels.turn(left=20, power=35, ending="brake")


run(one, two)`
  },
  silent: {
    'one after the other, by a flag': `async def one():
    global n
    await wheels.drive(cm=20, power=45, ending="brake")
    n = 1


async def two():
    await wait_until(lambda: n == 1)
    await wheels.turn(right=90, power=35, ending="brake")


run(one, two)`,
    'drives and sings': `async def one():
    await wheels.drive(cm=50, power=45, ending="brake")


async def two():
    await beep()


run(one, two)`,
    'a motor each': `async def one():
    await left_wheel.run_for(30, seconds=1, ending="brake")


async def two():
    await right_wheel.run_for(30, seconds=1, ending="brake")


run(one, two)`,
    'buttons, which somebody presses': `async def one():
    await wheels.drive(cm=50, power=45, ending="brake")


async def two():
    wheels.stop("brake")


run(one, when(bar.pressed, two))`
  }
});
