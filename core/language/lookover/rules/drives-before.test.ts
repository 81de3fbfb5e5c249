import { b, program, wait } from '../../../testing/build.ts';
import { cases } from '../../../testing/cases.ts';

cases('drives-before', {
  fires: {
    'a drive': program([b('begin.before'), b('drive.measure')], [b('begin.off'), b('drive.measure')]),
    'the motor of a wheel': program([
      b('begin.before'),
      b('motor.run', { motor: 'J1' }),
      wait(1),
      b('motor.stop', { motor: 'J1' })
    ])
  },
  silent: {
    'a servo': program([b('begin.before'), b('servo.middle')], [b('begin.off'), b('drive.measure')]),
    'after the word': program([b('begin.before'), b('display.dark')], [b('begin.off'), b('drive.measure')])
  }
});
