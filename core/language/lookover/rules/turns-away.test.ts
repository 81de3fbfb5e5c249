import { cases } from '../../../testing/cases.ts';

cases('turns-away', {
  fires: {
    'left, and it waits for the right':
      'gyro.zero()\nwheels.run(-20, 20)\nwait_until(lambda: gyro.turned() > 90)\nwheels.stop("brake")',
    'right, and it waits for the left':
      'gyro.zero()\nwheels.run(20, -20)\nwait_until(lambda: gyro.turned() < -90)\nwheels.stop("brake")'
  },
  silent: {
    'the same way': 'gyro.zero()\nwheels.run(20, -20)\nwait_until(lambda: gyro.turned() > 90)\nwheels.stop("brake")',
    'a stop between': 'wheels.run(-20, 20)\nwait(1)\nwheels.stop("brake")\nwait_until(lambda: gyro.turned() > 90)',
    'straight on': 'wheels.run(20, 20)\nwait_until(lambda: gyro.turned() > 90)\nwheels.stop("brake")'
  }
});
