import { cases } from '../../../testing/cases.ts';

cases('no-power', {
  fires: {
    'a drive': `wheels.drive(cm=20, power=0, ending="brake")`,
    'a turn': `wheels.turn(left=90, power=0, ending="brake")`,
    'one motor for some turns': `left_wheel.run_for(0, turns=2, ending="brake")`
  },
  silent: {
    'some power': `wheels.drive(cm=20, power=5, ending="brake")`,
    'run at nothing, which stops it': `wheels.run(30, 30)
wait(1)
wheels.run(0, 0)`,
    'a power that is worked out': `wheels.drive(cm=20, power=speed, ending="brake")
speed = 30`
  }
});
