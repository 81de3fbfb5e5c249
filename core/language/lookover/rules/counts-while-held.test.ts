import { cases } from '../../../testing/cases.ts';

cases('counts-while-held', {
  fires: {
    'a button in a loop for ever': `while True:
    if dot.is_held():
        count += 1
        display.write(count)`,
    'with a short wait': `for _ in seconds(9):
    if nose.touched():
        count += 1
    wait_ms(20)
log(count)`
  },
  silent: {
    'waits until it is let go': `while True:
    if dot.is_held():
        count += 1
        wait_until(lambda: not dot.is_held())
    display.write(count)`,
    'a long turn': `while True:
    if dot.is_held():
        count += 1
    display.write(count)
    wait(0.3)`,
    'a press of its own': `def dot_pressed():
    global count
    count += 1
    log(count)


run(when(dot.pressed, dot_pressed))`,
    'a power that grows while it is held': `while True:
    if dot.is_held():
        speed += 5
    wheels.run(speed, speed)
    wait_ms(20)`,
    'counted once, then the loop ends': `while True:
    if dot.is_held():
        count += 1
        break
log(count)`
  }
});
