import { cases } from '../../../testing/cases.ts';

cases('always-true', {
  fires: {
    'one of the two always is': `wait_until(lambda: distance.cm() > 20 or distance.cm() < 40)`,
    'nearer than it always is': `wait_until(lambda: distance.cm() < 300)`,
    'a heading below a full turn': `wait_until(lambda: gyro.heading() < 400)`,
    'unlike what cannot be': `wait_until(lambda: left_line.reads() != 500)`
  },
  silent: {
    'a real limit': `wait_until(lambda: distance.cm() < 60)`,
    'turned on and on': `wait_until(lambda: gyro.turned() < 400)`
  }
});
