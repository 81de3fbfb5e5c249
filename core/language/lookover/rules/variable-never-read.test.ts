import { cases } from '../../../testing/cases.ts';

cases('variable-never-read', {
  fires: {
    set: `side = 20
beep()`,
    counted: `for _ in range(3):
    count += 1
    beep()`,
    'a list that is only filled': `put_at_end(1, things)
beep()`
  },
  silent: {
    shown: `count += 1
display.write(count)
wait(1)`,
    'a loop that only counts': `for n in from_to(1, 3, 1):
    beep()`
  }
});
