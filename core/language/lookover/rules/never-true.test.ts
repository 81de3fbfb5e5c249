import { cases } from '../../../testing/cases.ts';

cases('never-true', {
  fires: {
    'nothing is both': `wait_until(lambda: distance.cm() < 20 and distance.cm() > 40)`,
    'further than the sensor hears': `wait_until(lambda: distance.cm() > 180)`,
    'a line sensor beyond 100': `wait_until(lambda: left_line.reads() >= 101)`,
    'a stick halved': `wait_until(lambda: stick("left, up-down") / 2 > 50)`,
    'a number kept small': `while True:
    if keep_between(distance.cm(), 0, 50) > 60:
        beep()
    wait(0.1)`,
    'a variable that holds a stick': `speed = stick("left, up-down") + 10
wait_until(lambda: speed - distance.cm() > 200)
log(speed)`,
    'between numbers that it never has': `wait_until(lambda: lies_from_to(left_line.reads(), 150, 200))`,
    'a text is no number': `wait_until(lambda: last_message() == 5)`,
    'a number typed as a text': `while True:
    if distance.cm() == "5":
        beep()
    wait(0.1)`,
    'a die that is thrown for more than it has': `if chance(1, 2) == 3:
    beep()`,
    'more than 8 g along one axis': `wait_until(lambda: motion.acceleration("x") > 8.5)`,
    'a heading of a whole turn, at the end of a count': `for n in from_to(90, 360, 90):
    wheels.run(20, -20)
    wait_until(lambda: gyro.heading() >= n)
    wheels.stop("brake")`
  },
  silent: {
    'a die': `if chance(1, 6) == 6:
    beep()`,
    'more than 8 g in all': `wait_until(lambda: motion.acceleration("total") > 8.5)`,
    'two texts': `if as_text(5) == "5":
    beep()`,
    'a heading that a count stays below': `for n in from_to(90, 270, 90):
    wheels.run(20, -20)
    wait_until(lambda: gyro.heading() >= n)
    wheels.stop("brake")`,
    'between two numbers': `wait_until(lambda: distance.cm() > 20 and distance.cm() < 40)`,
    'outside of two numbers': `wait_until(lambda: distance.cm() < 20 or distance.cm() > 40)`,
    'of two sensors': `wait_until(lambda: left_line.reads() < 20 and right_line.reads() > 40)`,
    'within its range': `wait_until(lambda: distance.cm() > 100)`,
    'at the very end of its range': `wait_until(lambda: distance.cm() >= 180)`,
    'two plain numbers, which may be meant': `while 1 < 2:
    beep()
    wait(1)`,
    'a variable that grows': `while not (count > 500):
    count += 1`,
    'a loop that counts': `for n in from_to(1, 9, 1):
    if n > 5:
        beep()
    wait(0.1)`,
    'a timer, which has no end': `wait_until(lambda: timer() > 600)`
  }
});
