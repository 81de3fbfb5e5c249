/** Programs as pupils write them: correct ones, in which the look-over has nothing to say, and ones with one mistake each. */
export const CORRECT: Record<string, string> = {
  'there and back': `wheels.drive(cm=65, power=45, ending="brake")
wheels.turn(right=180, power=35, ending="brake")
wheels.drive(cm=65, power=45, ending="brake")`,
  'five sides': `for _ in range(5):
    wheels.drive(cm=25, power=45, ending="brake")
    wheels.turn(right=72, power=35, ending="brake")`,
  'wheels for a while': `wheels.run(40, 40)
wait(2)
wheels.stop("brake")`,
  'two pictures': `display.show(Picture("...#... .#.#.#. ..###.. .#.#.#. ...#..."))
wait(1)
display.show(Picture("...#... ...#... ...#... ..###.. ..###.."))
wait(1)
display.dark()`,
  'stop short': `wheels.run(40, 40)
while not (distance.cm() < 15):
    wait_ms(20)
wheels.stop("brake")`,
  'stop short by waiting': `wheels.run(35, 35)
wait_until(lambda: distance.cm() < 20)
wheels.stop("brake")
beep()`,
  'keeps to the line': `for _ in seconds(10):
    if left_line.over("dark"):
        wheels.run(5, 25)
    else:
        wheels.run(25, 5)
    wait_ms(20)
wheels.stop("brake")`,
  'keeps to the line by a number': `while True:
    if left_line.reads() < 50:
        wheels.run(8, 24)
    else:
        wheels.run(24, 8)
    wait_ms(25)`,
  'steers in proportion': `for _ in seconds(12):
    speed = (left_line.reads() - 50) * 0.3
    wheels.run(keep_between(20 + speed, -100, 100), keep_between(20 - speed, -100, 100))
    wait_ms(20)
wheels.stop("brake")`,
  'knocks three times': `for _ in range(3):
    striker.angle(120)
    wait(0.3)
    striker.angle(60)
    wait(0.3)`,
  'a stick for the pan': `while True:
    pan.angle(map_range(stick("left, left-right"), -100, 100, 0, 180))
    wait_ms(20)`,
  'a stick for the wheels': `while True:
    wheels.run(stick("left, up-down"), stick("right, up-down"))
    wait_ms(20)`,
  'counts turns': `for n in from_to(1, 4, 1):
    display.write(n)
    wheels.drive(cm=20, power=45, ending="brake")
    wheels.turn(left=90, power=35, ending="brake")`,
  'grows a spiral': `side = 5
for _ in range(8):
    wheels.drive(cm=side, power=45, ending="brake")
    wheels.turn(right=90, power=35, ending="brake")
    side += 4`,
  'a list of angles': `put_at_end(90, things)
put_at_end(45, things)
put_at_end(120, things)
for n in each(things):
    wheels.turn(right=n, power=35, ending="brake")
    wait(0.3)`,
  'places from 0': `put_at_end(262, things)
put_at_end(330, things)
put_at_end(392, things)
for n in from_to(0, how_many(things) - 1, 1):
    tone(place_of(whole(n), things), 0.3)`,
  'lights a row': `for n in from_to(0, 6, 1):
    display.pixel(whole(n), 2, "on")
    wait(0.2)
display.dark()`,
  'corners of the display': `display.pixel(0, 0, "on")
display.pixel(6, 0, "on")
display.pixel(0, 4, "on")
display.pixel(6, 4, "on")
wait(2)`,
  'faces four ways': `wheels.face(90, power=35)
wait(0.5)
wheels.face(180, power=35)
wait(0.5)
wheels.face(270, power=35)
wait(0.5)
wheels.face(0, power=35)`,
  'turns by zeroing': `for _ in range(4):
    wheels.drive(cm=20, power=45, ending="brake")
    gyro.zero()
    wheels.run(20, -20)
    wait_until(lambda: gyro.turned() > 85)
    wheels.stop("brake")
    wait(0.3)`,
  'keeps its heading': `for _ in range(3):
    wheels.drive_facing(cm=20, heading=0, power=45, ending="brake")
    wait(0.5)`,
  'a routine with an input': `def corner(angle):
    wheels.drive(cm=20, power=45, ending="brake")
    wheels.turn(right=angle, power=35, ending="brake")


def main():
    corner(90)
    corner(60)


run(main)`,
  'a routine that counts down': `def down(left):
    if left > 0:
        display.write(left)
        wait(0.5)
        down(left - 1)


def main():
    down(3)


run(main)`,
  'a key drives': `def on():
    wheels.run(40, 40)


def off():
    wheels.stop("brake")


run(when(key("W", "pressed"), on), when(key("W", "released"), off))`,
  buttons: `def dot_pressed():
    wheels.run(30, 30)


def bar_pressed():
    wheels.stop("brake")


run(when(dot.pressed, dot_pressed), when(bar.pressed, bar_pressed))`,
  'two things at once': `async def drive():
    await wheels.drive(cm=60, power=45, ending="brake")


async def sing():
    for _ in range(3):
        await tone(392, 0.3)
        await wait(0.4)
        await turn


run(drive, sing)`,
  'a song': `tempo(120)
play("G4 A4 B4*2 - D5")`,
  'rolls the dice': `while True:
    wait_until(lambda: dot.is_held())
    display.write(chance(1, 6))
    wait(0.5)`,
  'timer and log': `restart_timer()
wheels.drive(cm=50, power=45, ending="brake")
log(timer())`,
  'rounded distance': `while not (rounded(distance.cm()) == 20):
    wheels.run(15, 15)
    wait_ms(20)
wheels.stop("brake")`,
  'lies between': `wheels.run(20, 20)
wait_until(lambda: lies_from_to(distance.cm(), 18, 22))
wheels.stop("brake")`,
  'one motor each': `left_wheel.run(40)
right_wheel.run(-40)
wait(1)
left_wheel.stop("brake")
right_wheel.stop("brake")`,
  'lamps in turn': `for _ in range(10):
    left_lamp.on()
    right_lamp.off()
    wait(0.4)
    left_lamp.off()
    right_lamp.on()
    wait(0.4)
right_lamp.off()`,
  'waits at most': `wheels.run(30, 30)
wait_until(lambda: nose.touched(), at_most=4)
wheels.stop("brake")`,
  'back off at a touch': `while True:
    wheels.run(30, 30)
    wait_until(lambda: nose.touched())
    wheels.stop("brake")
    wheels.back(cm=15, power=45, ending="brake")
    wheels.turn(right=100, power=35, ending="brake")`,
  'leaves the loop': `while True:
    wheels.drive(cm=10, power=45, ending="brake")
    if distance.cm() < 30:
        break
beep()`,
  'long rest while it stands': `while True:
    if distance.cm() < 20:
        wheels.stop("brake")
        wait(2)
    else:
        wheels.run(25, 25)
    wait_ms(20)`,
  'a loop for ever with a way out of it': `while True:
    display.write(rounded(distance.cm()))
    wait(0.2)`,
  'plots what it sees': `for _ in seconds(5):
    plot(distance.cm(), "ahead")
    wait_ms(50)`,
  'sends a message': `async def first():
    await wheels.drive(cm=30, power=45, ending="brake")
    send("arrived")


async def second():
    await beep()


run(first, when(message("arrived"), second))`,
  'decides by table': `for _ in seconds(8):
    row = table(left_line.over("dark"), right_line.over("dark"))
    if row == (True, True):
        wheels.run(24, 24)
    elif row == (True, False):
        wheels.run(8, 26)
    elif row == (False, True):
        wheels.run(26, 8)
    elif row == (False, False):
        wheels.run(-4, 20)
    wait_ms(35)
wheels.stop("brake")`,
  'zeroes the wheels': `for _ in range(2):
    wheels.zero()
    wheels.run(40, 40)
    wait_until(lambda: wheels.driven() > 20)
    wheels.stop("brake")
    wait(0.5)`
};

/** One mistake each, and the rule that finds it. */
export const MISTAKEN: Record<string, [rule: string, text: string]> = {
  'a servo where none is': ['socket-empty', 'servo_w.angle(90)\nwait(1)'],
  'a motor where none is': ['socket-empty', 'motor_r.run_for(40, seconds=1, ending="brake")'],
  'drives on for ever': ['never-stopped', 'wheels.run(40, 40)\nwait(2)\nbeep()'],
  'one wheel drives on': ['never-stopped', 'left_wheel.run(40)\nwait(1)\nright_wheel.stop("brake")'],
  'stopped at once': ['stop-at-once', 'wheels.run(50, 50)\nwheels.stop("brake")\nbeep()'],
  'motor stopped at once': ['stop-at-once', 'left_wheel.run(50)\nleft_wheel.stop("coast")'],
  'picture upon picture': [
    'shown-for-no-time',
    'display.show(Picture("...#... .#.#.#. ..###.. .#.#.#. ...#..."))\ndisplay.show(Picture("...#... ...#... ...#... ..###.. ..###.."))\nwait(1)'
  ],
  'writes and darkens': [
    'shown-for-no-time',
    'for _ in range(3):\n    display.write(5)\n    display.dark()\n    wait(0.5)'
  ],
  'both shafts the same way': [
    'mirrored-motor',
    'left_wheel.run(40)\nright_wheel.run(40)\nwait(1)\nwheels.stop("brake")'
  ],
  'below a loop for ever': [
    'after-for-ever',
    'while True:\n    beep()\n    wait(1)\nwheels.drive(cm=20, power=45, ending="brake")'
  ],
  'further than it hears': [
    'always-true',
    'wheels.run(30, 30)\nwait_until(lambda: distance.cm() < 250)\nwheels.stop("brake")'
  ],
  'nearer than it hears': [
    'never-true',
    'wheels.run(30, 30)\nwait_until(lambda: distance.cm() < 2)\nwheels.stop("brake")'
  ],
  'darker than dark': [
    'never-true',
    'wheels.run(30, 30)\nwait_until(lambda: left_line.reads() > 120)\nwheels.stop("brake")'
  ],
  'heading beyond a turn': [
    'never-true',
    'wheels.run(20, -20)\nwait_until(lambda: gyro.heading() > 400)\nwheels.stop("brake")'
  ],
  'sum of a stick': [
    'never-true',
    'while True:\n    if stick("left, up-down") + 50 > 180:\n        beep()\n    wait_ms(20)'
  ],
  'exactly so far': [
    'equals-on-a-noisy-value',
    'wheels.run(30, 30)\nwait_until(lambda: distance.cm() == 20)\nwheels.stop("brake")'
  ],
  'exactly so turned': [
    'equals-on-a-noisy-value',
    'wheels.run(20, -20)\nwait_until(lambda: gyro.turned() == 90)\nwheels.stop("brake")'
  ],
  'exactly after': [
    'equals-on-a-noisy-value',
    'wheels.run(20, 20)\nwait_until(lambda: timer() == 3)\nwheels.stop("brake")'
  ],
  'half of the stick': ['beyond-range', 'while True:\n    striker.share(stick("left, left-right"))\n    wait_ms(20)'],
  'a light for a sweep': ['beyond-range', 'while True:\n    pan.angle(distance.cm() * 4)\n    wait_ms(50)'],
  'long blink on the line': [
    'blind-wait',
    'for _ in seconds(10):\n    if left_line.over("dark"):\n        wheels.run(10, 40)\n    else:\n        wheels.run(40, 10)\n    wait(0.8)\nwheels.stop("brake")'
  ],
  'looks once a second': [
    'blind-wait',
    'wheels.run(50, 50)\nwhile not (distance.cm() < 20):\n    wait(1)\nwheels.stop("brake")'
  ],
  'a routine nobody does': [
    'routine-never-called',
    'def song():\n    play("G4 A4")\n\n\ndef main():\n    wheels.drive(cm=20, power=45, ending="brake")\n\n\nrun(main)'
  ],
  'does itself again': [
    'routine-calls-itself-for-ever',
    'def again():\n    beep()\n    again()\n\n\ndef main():\n    again()\n\n\nrun(main)'
  ],
  'two that do each other': [
    'routine-calls-itself-for-ever',
    'def tick():\n    beep()\n    tock()\n\n\ndef tock():\n    wait(0.5)\n    tick()\n\n\ndef main():\n    tick()\n\n\nrun(main)'
  ],
  'counts for nobody': ['variable-never-read', 'for _ in range(4):\n    beep()\n    count += 1'],
  'always 0': ['variable-never-set', 'wheels.drive(cm=side, power=45, ending="brake")'],
  'two at the wheels': [
    'two-stacks-one-motor',
    'async def one():\n    await wheels.drive(cm=50, power=45, ending="brake")\n\n\nasync def two():\n    await wait(0.5)\n    await wheels.turn(right=90, power=35, ending="brake")\n\n\nrun(one, two)'
  ],
  'only when dark': [
    'missing-otherwise-motor',
    'while True:\n    if left_line.over("dark"):\n        wheels.run(5, 25)\n    wait_ms(20)'
  ],
  'only when near': [
    'missing-otherwise-motor',
    'for _ in seconds(10):\n    if distance.cm() < 20:\n        wheels.run(-20, 20)\n    wait_ms(20)\nwheels.stop("brake")'
  ],
  'x and y the wrong way': ['pixel-outside', 'display.pixel(4, 6, "on")\nwait(1)'],
  'a pixel from 1': [
    'pixel-outside',
    'for n in from_to(1, 7, 1):\n    display.pixel(whole(n), 2, "on")\n    wait(0.1)'
  ],
  'faces the same four times': [
    'face-or-turn-by',
    'for _ in range(4):\n    wheels.drive(cm=20, power=45, ending="brake")\n    wheels.face(90, power=35)'
  ],
  'faces it twice': [
    'face-or-turn-by',
    'wheels.face(120, power=35)\nwheels.drive(cm=10, power=45, ending="brake")\nwheels.face(120, power=35)'
  ],
  'never zeroed': [
    'no-zeroing-before-heading',
    'for _ in range(4):\n    wheels.drive(cm=20, power=45, ending="brake")\n    wheels.run(20, -20)\n    wait_until(lambda: gyro.turned() > 85)\n    wheels.stop("brake")'
  ],
  'wheels never zeroed': [
    'no-zeroing-before-heading',
    'for _ in range(2):\n    wheels.run(40, 40)\n    wait_until(lambda: wheels.driven() > 20)\n    wheels.stop("brake")\n    wait(0.5)'
  ],
  'a key that sticks': [
    'key-without-release',
    'def on():\n    wheels.run(40, 40)\n\n\nrun(when(key("W", "pressed"), on))'
  ],
  'one place too far': ['place-out-of-list', 'put_at_end(3, things)\nput_at_end(1, things)\nlog(place_of(2, things))'],
  'from 1 to how many': [
    'place-out-of-list',
    'put_at_end(3, things)\nput_at_end(1, things)\nfor n in from_to(1, how_many(things), 1):\n    log(place_of(whole(n), things))'
  ],
  'an empty loop': ['empty-loop', 'for _ in range(3):\n    pass\nbeep()'],
  'a share beyond': ['out-of-range', 'striker.share(140)\nwait(1)'],
  'wrong kind of part': ['socket-wrong-part', 'wheels.drive(cm=10, power=45, ending="brake")\nmotor_u.run(20)']
};
