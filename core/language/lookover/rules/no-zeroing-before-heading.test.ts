import { cases } from '../../../testing/cases.ts';

cases('no-zeroing-before-heading', {
  fires: {
    'in a loop': `for _ in range(4):
    wheels.run(20, -20)
    wait_until(lambda: gyro.turned() > 85)
    wheels.stop("brake")`,
    'twice in a row': `wheels.run(40, 40)
wait_until(lambda: wheels.driven() > 20)
wheels.stop("brake")
wait(1)
wheels.run(-40, -40)
wait_until(lambda: wheels.driven() > 20)
wheels.stop("brake")`
  },
  silent: {
    'a loop of one turn': `for _ in range(1):
    wheels.run(20, -20)
    wait_until(lambda: gyro.turned() > 85)
    wheels.stop("brake")`,
    'a limit that is set in the loop': `for _ in range(4):
    count = count + 90
    wheels.run(20, -20)
    wait_until(lambda: gyro.turned() > count)
    wheels.stop("brake")`,
    'another sensor': `for _ in range(4):
    wheels.run(20, 20)
    wait_until(lambda: distance.cm() < 20)
    wheels.stop("brake")`,
    zeroed: `for _ in range(4):
    gyro.zero()
    wheels.run(20, -20)
    wait_until(lambda: gyro.turned() > 85)
    wheels.stop("brake")`,
    'the limit goes on with it': `for _ in range(4):
    count += 90
    wheels.run(20, -20)
    wait_until(lambda: gyro.turned() > count)
    wheels.stop("brake")`,
    once: `wheels.run(20, -20)
wait_until(lambda: gyro.turned() > 85)
wheels.stop("brake")`,
    'further each time': `wheels.run(20, -20)
wait_until(lambda: gyro.turned() > 85)
wheels.stop("brake")
wait(1)
wheels.run(20, -20)
wait_until(lambda: gyro.turned() > 175)
wheels.stop("brake")`
  }
});
