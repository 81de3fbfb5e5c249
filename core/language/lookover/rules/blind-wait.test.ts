import { cases } from '../../../testing/cases.ts';

cases('blind-wait', {
  fires: {
    // 40 % is 16 cm/s: 26 hundredths of a second are 4.2 cm
    'a little more than four centimetres': `wheels.run(40, 40)
while not (distance.cm() < 20):
    wait(0.26)
wheels.stop("brake")`,
    'a second at the line': `while True:
    if left_line.over("dark"):
        wheels.run(10, 40)
    else:
        wheels.run(40, 10)
    wait(1)`,
    'one motor': `while True:
    if left_line.over("dark"):
        left_wheel.run(40)
    wait(1)`,
    'while it looks for a wall': `wheels.run(60, 60)
while not (distance.cm() < 20):
    wait_ms(400)
wheels.stop("brake")`
  },
  silent: {
    'wheels that stand': `while True:
    if left_line.over("dark"):
        left_lamp.on()
    wait(1)`,
    'a little less than four centimetres': `wheels.run(40, 40)
while not (distance.cm() < 20):
    wait(0.24)
wheels.stop("brake")`,
    'twenty milliseconds': `while True:
    if left_line.over("dark"):
        wheels.run(10, 40)
    else:
        wheels.run(40, 10)
    wait_ms(20)`,
    'slowly enough': `wheels.run(5, 5)
while not (distance.cm() < 20):
    wait_ms(300)
wheels.stop("brake")`,
    'a loop without sensors': `for _ in range(4):
    wheels.run(40, 40)
    wait(1)
    wheels.stop("brake")
    wait(1)`,
    'after a stop': `while True:
    wheels.run(30, 30)
    wait_until(lambda: distance.cm() < 20)
    wheels.stop("brake")
    wait(2)`
  }
});
