import { cases } from '../../../testing/cases.ts';

cases('face-or-turn-by', {
  fires: {
    'four sides': `for _ in range(4):
    wheels.drive(cm=20, power=45, ending="brake")
    wheels.face(90, power=35)`,
    'twice in a row': `wheels.face(90, power=35)
wait(1)
wheels.face(90, power=35)`
  },
  silent: {
    'four headings': `wheels.face(90, power=35)
wheels.face(180, power=35)
wheels.face(270, power=35)`,
    'zeroed each time': `for _ in range(4):
    gyro.zero()
    wheels.drive(cm=20, power=45, ending="brake")
    wheels.face(90, power=35)`,
    'turned in between': `wheels.face(90, power=35)
wheels.turn(left=30, power=35, ending="brake")
wheels.face(90, power=35)`,
    'a heading that is worked out': `for n in from_to(0, 270, 90):
    wheels.drive(cm=20, power=45, ending="brake")
    wheels.face(n, power=35)`
  }
});
