import { cases } from '../../../testing/cases.ts';

cases('variable-never-set', {
  fires: {
    never: `wheels.drive(cm=side, power=45, ending="brake")`
  },
  silent: {
    set: `side = 20
wheels.drive(cm=side, power=45, ending="brake")`,
    'counted by a loop': `for n in from_to(1, 3, 1):
    display.write(n)
    wait(0.3)`,
    'added to': `count += 1
log(count)`
  }
});
