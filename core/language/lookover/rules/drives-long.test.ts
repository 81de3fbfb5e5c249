import { cases } from '../../../testing/cases.ts';

cases('drives-long', {
  fires: {
    'seconds for milliseconds': `wheels.run(35, 35)
wait(500)
wheels.stop("brake")`,
    'a slide': `wheels.slide_on(heading=0, power=45)
wait(600)
wheels.stop("brake")`
  },
  silent: {
    'some seconds': `wheels.run(35, 35)
wait(5)
wheels.stop("brake")`,
    'turning on the spot': `wheels.run(35, -35)
wait(500)
wheels.stop("brake")`,
    'after it stopped': `wheels.run(35, 35)
wait(1)
wheels.stop("brake")
wait(500)`
  }
});
