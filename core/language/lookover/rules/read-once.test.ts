import { cases } from '../../../testing/cases.ts';

cases('read-once', {
  fires: {
    'drives until a number that does not change': `n = distance.cm()
wheels.run(30, 30)
while not (n < 20):
    wait_ms(20)
wheels.stop("brake")`,
    'asks it in a loop for ever': `n = distance.cm()
while True:
    if n < 20:
        beep()
    wait(0.1)`
  },
  silent: {
    'read at each turn': `n = distance.cm()
while not (n < 20):
    n = distance.cm()
    wait_ms(20)`,
    'a threshold measured at first': `side = left_line.reads()
while not (left_line.reads() < side - 20):
    wait_ms(20)`,
    'a count of measured turns': `n = distance.cm()
count = 0
while count < n:
    count += 1
    wait_ms(20)`,
    'a loop of one turn': `n = distance.cm()
for _ in range(1):
    if n < 20:
        beep()`,
    'asked once': `n = distance.cm()
if n < 20:
    beep()`
  }
});
