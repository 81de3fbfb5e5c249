import { cases } from '../../../testing/cases.ts';

cases('equals-on-a-noisy-value', {
  fires: {
    distance: `wait_until(lambda: distance.cm() == 15)`,
    'the number first': `wait_until(lambda: 15 == distance.cm())`,
    'a sum with a sensor in it': `wait_until(lambda: distance.cm() + 5 == 20)`,
    unlike: `while distance.cm() != 20:
    wait_ms(20)`,
    'wheel turns': `wait_until(lambda: wheels.turns("left") == 3)`
  },
  silent: {
    rounded: `wait_until(lambda: rounded(distance.cm()) == 15)`,
    smaller: `wait_until(lambda: distance.cm() < 15)`,
    'a variable': `count = 3
wait_until(lambda: count == 3)`,
    'a colour, which is a word': `wait_until(lambda: last_message() == "go")`
  }
});
