import { cases } from '../../../testing/cases.ts';

cases('beyond-range', {
  fires: {
    'a stick for a share': `while True:
    striker.share(stick("left, left-right"))
    wait_ms(20)`,
    'a stick for an angle': `while True:
    pan.angle(stick("right, up-down"))
    wait_ms(20)`,
    'a distance as power': `for _ in seconds(5):
    left_wheel.run(distance.cm())
    wait_ms(20)
left_wheel.stop("brake")`
  },
  silent: {
    mapped: `while True:
    striker.share(map_range(stick("left, left-right"), -100, 100, 0, 100))
    wait_ms(20)`,
    'kept between': `while True:
    striker.share(keep_between(stick("left, left-right"), 0, 100))
    wait_ms(20)`,
    'a stick for the wheels, which go both ways': `while True:
    wheels.run(stick("left, up-down"), stick("left, up-down"))
    wait_ms(20)`,
    'a value of the program alone': `striker.share(side)
side = 200
log(side)`
  }
});
