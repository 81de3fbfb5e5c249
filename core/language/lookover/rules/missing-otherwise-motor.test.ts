import { cases } from '../../../testing/cases.ts';

cases('missing-otherwise-motor', {
  fires: {
    'only when dark': `while True:
    if left_line.over("dark"):
        wheels.run(5, 25)
    wait_ms(20)`,
    'a motor': `while True:
    if distance.cm() < 30:
        left_wheel.run(-20)
    wait_ms(20)`
  },
  silent: {
    'with otherwise': `while True:
    if left_line.over("dark"):
        wheels.run(5, 25)
    else:
        wheels.run(25, 5)
    wait_ms(20)`,
    'two choices': `while True:
    if left_line.over("dark"):
        wheels.run(5, 25)
    if left_line.over("light"):
        wheels.run(25, 5)
    wait_ms(20)`,
    'told before': `while True:
    wheels.run(20, 20)
    if distance.cm() < 20:
        wheels.run(-20, 20)
    wait_ms(20)`,
    'a whole move': `while True:
    if distance.cm() < 20:
        wheels.turn(right=90, power=35, ending="brake")
    wait_ms(20)`,
    'it leaves the loop': `while True:
    if distance.cm() < 20:
        wheels.run(-20, -20)
        break
    wait_ms(20)`,
    'it stops again': `while True:
    if distance.cm() < 20:
        wheels.run(-20, -20)
        wait(0.5)
        wheels.stop("brake")
    wait_ms(20)`,
    'a second case': `while True:
    if distance.cm() < 20:
        wheels.run(-20, -20)
    elif distance.cm() < 40:
        wheels.run(10, 10)
    wait_ms(20)`,
    'it stops': `wheels.run(20, 20)
while True:
    if distance.cm() < 20:
        wheels.stop("brake")
    wait_ms(20)`
  }
});
