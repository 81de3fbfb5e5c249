import { cases } from '../../../testing/cases.ts';

cases('counts-on', {
  fires: {
    'three times three beeps': `for _ in range(3):
    while not (count >= 3):
        count += 1
        beep()
        wait(0.2)
    wait(1)`,
    'at each press': `async def dot_pressed():
    global count
    while count < 4:
        await wheels.drive(cm=10, power=45, ending="brake")
        count += 1
        await turn


run(when(dot.pressed, dot_pressed))`
  },
  silent: {
    'set back before': `for _ in range(3):
    count = 0
    while not (count >= 3):
        count += 1
        beep()
        wait(0.2)
    wait(1)`,
    'set back after': `for _ in range(3):
    while not (count >= 3):
        count += 1
        beep()
        wait(0.2)
    count = 0`,
    once: `while not (count >= 3):
    count += 1
    beep()
    wait(0.2)`,
    'counted down as well': `while True:
    while not (count >= 3):
        count += 1
        wait(0.2)
    while not (count <= 0):
        count += -1
        wait(0.2)`
  }
});
