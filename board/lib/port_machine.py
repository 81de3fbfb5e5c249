"""Moss Bell port layer for boards that run MicroPython: what the board library calls, done with `machine`.

It lies on the board as `lib/mossbell_port.py`. Which part hangs on which pin stands in `lib/mossbell_pins.py`, which is
printed from the kit sheet. Motors hang on a driver with two inputs, or with power and direction (PWM, 1 kHz); servos take
pulses of 1.0 to 2.0 ms, 50 a second; lamps and a matrix are addressable (24 bits each, green first); distance is an
ultrasonic sensor with trigger and echo (10 us start it, sound goes 343 m/s at 20 C); line, light and moisture are voltages;
heading and motion come from a sensor on I2C (registers of the MPU-6050, from memory). Errors go back as '!kind|values'.
"""

import math
import time

import machine
import mossbell_pins as pins

_FREQUENCY = 1000
_SERVO_FREQUENCY = 50
_FULL = 65535
_STEP_US = 5000  # how often a move is looked at
_SPEED_US = 50000
_LIMIT_US = 30000  # an echo from 5 m
_US_PER_CM = 58.31  # there and back at 343 m/s
_STEERS = 0.12  # m/s that the gyro adds to a wheel at the most
_PUT_RIGHT_S = 0.15  # in which a heading that is off is put right
_FAR = 1000000.0  # m
_NEAR_DEG = 0.25  # a move by the gyro is over when less than this is left
_LONGER_S = 1.5  # or after so much more
_COLOURS = {"white": (255, 255, 255), "red": (255, 0, 0), "amber": (255, 140, 0), "green": (0, 255, 0), "blue": (0, 0, 255), "violet": (160, 0, 255)}
_SIGNS = {".": 0, "-": 25, "+": 50, "*": 75, "#": 100}
_LETTERS = {"w": "white", "r": "red", "a": "amber", "g": "green", "b": "blue", "v": "violet"}
_HERTZ = {"c": 0, "d": 2, "e": 4, "f": 5, "g": 7, "a": 9, "b": 11}


class _Problem(Exception):
    """An error of the program, told as '!kind|values'."""


def _guard(function):
    def call(*given):
        try:
            return function(*given)
        except _Problem as problem:
            return "!" + problem.args[0]

    return call


# ---- time: microseconds since the run began ----

_last = time.ticks_us()
_now = 0


def _clock():
    global _last, _now
    tick = time.ticks_us()
    _now += time.ticks_diff(tick, _last)
    _last = tick
    return _now


# ---- pins ----

_made = {}


def _lead(of, name):
    """The pin of a part's lead, or an error that says what is missing."""
    number = pins.LEADS.get(of + "." + name)
    if number is None:
        raise _Problem("python|The pins page of the kit sheet gives no pin for the " + name + " of " + of + ".")
    return number


def _has(of, name):
    return pins.LEADS.get(of + "." + name) is not None


def _pwm(number, frequency):
    pwm = _made.get(number)
    if pwm is None:
        pwm = _made[number] = machine.PWM(machine.Pin(number))
        pwm.freq(frequency)
    return pwm


def _input(number):
    pin = _made.get(number)
    if pin is None:
        pin = _made[number] = machine.Pin(number, machine.Pin.IN, machine.Pin.PULL_UP)
    return pin


def _voltage(of):
    """0 to 100 of the board's supply."""
    number = _lead(of, "signal")
    adc = _made.get(number)
    if adc is None:
        adc = _made[number] = machine.ADC(machine.Pin(number))
    return adc.read_u16() * 100 / _FULL


def _part(socket, kinds):
    part = pins.PARTS.get(socket)
    if part is None:
        raise _Problem("empty-socket|socket " + socket)
    if part["type"] not in kinds:
        raise _Problem("wrong-part|socket " + socket + " holds the " + part["name"])
    return part


def _between(value, low, high):
    return low if value < low else high if value > high else value


# ---- motors ----


class _Motor:
    def __init__(self, socket):
        part = _part(socket, ("motor",))
        self.sign = -1 if part.get("mirrored") else 1
        self.keeps = False
        self.seen = (0.0, _clock())
        self.measured = 0.0
        self.driver = _has(socket, "direction")
        self.one = _pwm(_lead(socket, "power" if self.driver else "forward"), _FREQUENCY)
        if self.driver:
            self.way = machine.Pin(_lead(socket, "direction"), machine.Pin.OUT)
        else:
            self.two = _pwm(_lead(socket, "back"), _FREQUENCY)
        self.counts = 0
        self.duty = 0
        if _has(socket, "encoder"):
            encoder = machine.Pin(_lead(socket, "encoder"), machine.Pin.IN)
            encoder.irq(self.count, machine.Pin.IRQ_RISING)
            self.encoder = encoder
        else:
            self.encoder = None
            # without one it reckons by time what it should have turned
            self.since = _clock()
            self.turned = 0.0
        self.zero = 0.0

    def count(self, _):
        self.counts += 1 if self.duty >= 0 else -1

    def turns(self):
        """Turns of the wheel, positive where it drives ahead."""
        if self.encoder:
            return self.sign * self.counts / pins.COUNTS
        now = _clock()
        self.turned += self.duty * pins.FREE_TURNS * (now - self.since) / 1000000
        self.since = now
        return self.turned

    def speed(self):
        """Turns a second; with an encoder as it counts them, over the last twentieth of a second."""
        if not self.encoder:
            return self.duty * pins.FREE_TURNS
        before, since = self.seen
        now = _clock()
        if now - since >= _SPEED_US:
            turns = self.turns()
            self.measured = (turns - before) * 1000000 / (now - since)
            self.seen = (turns, now)
        return self.measured

    def power(self, share):
        """-1 to 1, positive where its wheel drives ahead."""
        self.turns()
        share = _between(share, -1, 1)
        self.duty = share
        size = int(abs(share) * _FULL + 0.5)
        ahead = share * self.sign >= 0
        if self.driver:
            self.way.value(1 if ahead else 0)
            self.one.duty_u16(size)
        else:
            self.one.duty_u16(size if ahead else 0)
            self.two.duty_u16(0 if ahead else size)

    def rest(self, ending):
        self.turns()
        self.duty = 0
        if self.driver:
            self.one.duty_u16(0)
            return
        # both inputs high: its leads are connected, and it brakes
        both = _FULL if ending == "brake" else 0
        self.one.duty_u16(both)
        self.two.duty_u16(both)


_motors = {}
_wheels = []  # (motor, diameter in m, x, y in m, direction in radians, side)


def _motor(socket):
    motor = _motors.get(socket)
    if motor is None:
        motor = _motors[socket] = _Motor(socket)
    return motor


def _wheels_now():
    if _holds:
        raise _Problem("not-yet|")
    if not _wheels:
        raise _Problem("empty-socket|the motors of the wheels")
    return _wheels


def _percent(power, low):
    return _between(power, low, 100)


class _Move:
    """A trapezoid: it sets off and slows down with the same acceleration; every wheel goes its share of it.

    Where the gyro steers it, `off` tells by how many degrees clockwise it is off at a share of its way.
    """

    def __init__(self, shares, length, speed, ending, off=None):
        a = pins.ACCELERATION
        self.shares = shares
        self.length = length
        self.speed = speed or 1.0
        self.ending = ending
        self.off = off
        self.rims = _rims(0, 0, -1) if off else [0 for _ in shares]
        self.bias = 0.0
        self.stops = ending == "brake"
        self.never = speed == 0 and length > 0
        self.from_turns = [motor.turns() for motor, share, diameter in shares]
        v = self.speed
        ramp = v * v / (2 * a)
        if self.stops:
            self.time = length / v + v / a if length >= 2 * ramp else 2 * math.sqrt(length / a)
        else:
            self.time = length / v + v / (2 * a) if length >= ramp else math.sqrt(2 * length / a)
        self.began = self.looked = _clock()
        self.over = length <= 0
        if self.over:
            self.end()
        else:
            self.step()

    def reference(self, t):
        """Where the wheel that goes furthest should be, m, and how fast, m/s."""
        a = pins.ACCELERATION
        top = min(self.speed, math.sqrt(self.length * a)) if self.stops else self.speed
        ramp = top / a
        if self.stops and t >= self.time:
            return self.length, 0.0
        if self.stops and t > self.time - ramp:
            left = self.time - t
            return self.length - a * left * left / 2, a * left
        if t < ramp:
            return a * t * t / 2, a * t
        return top * top / (2 * a) + top * (t - ramp), top

    def step(self):
        if self.over or self.never:
            return
        now = _clock()
        t = (now - self.began) / 1000000
        x, v = self.reference(t)
        off = rate = 0.0
        if self.off:
            off = self.off(min(1, x / self.length))
            fastest = _STEERS / max([abs(rim) for rim in self.rims])
            rate = _between(math.radians(off) / _PUT_RIGHT_S, -fastest, fastest)
            self.bias += rate * (now - self.looked) / 1000000
        self.looked = now
        for i, (motor, share, diameter) in enumerate(self.shares):
            rim = math.pi * diameter
            duty = (share * v + rate * self.rims[i]) / (pins.FREE_TURNS * rim)
            if motor.encoder:
                gone = (motor.turns() - self.from_turns[i]) * rim
                duty += 4 * (share * x + self.bias * self.rims[i] - gone)
            motor.power(duty)
        if t >= self.time and (not self.stops or abs(off) < _NEAR_DEG or t >= self.time + _LONGER_S):
            self.end()

    def end(self):
        self.over = True
        for motor, _, _ in self.shares:
            motor.rest(self.ending)


_moves = {}
_handles = 0
_looked = 0


def _service():
    """Moves go on, also while a program of several tasks does something else."""
    global _looked
    now = _clock()
    if now - _looked < _STEP_US:
        return
    _looked = now
    if _bus is not None:
        _follow_heading()
    for motor in _motors.values():
        motor.speed()
    for move in _moves.values():
        move.step()
    for ramp in list(_ramps.values()):
        ramp.step(now)


def _drop_moves(motors):
    for handle in [h for h, m in _moves.items() if any([part[0] in motors for part in m.shares])]:
        _moves.pop(handle).over = True


def _handle(what):
    global _handles
    _handles += 1
    _waiting[_handles] = what
    return _handles


def _begin(shares, length, speed, ending, off=None):
    _drop_moves([part[0] for part in shares])
    move = _Move(shares, length, speed, ending, off)
    handle = _handle(move)
    if not move.over:
        _moves[handle] = move
    return handle


def _rims(ahead, left, turn):
    """How far each wheel rolls for a motion of the chassis, m (Lynch and Park, Modern Robotics)."""
    return [ahead * math.cos(deg) + left * math.sin(deg) + turn * (x * math.sin(deg) - y * math.cos(deg)) for _, _, x, y, deg, _ in _wheels_now()]


def _go(rims, speed, ending, off=None):
    length = max([abs(rim) for rim in rims])
    shares = [(wheel[0], rim / length if length else 0, wheel[1]) for wheel, rim in zip(_wheels, rims)]
    return _begin(shares, length, speed, ending, off)


def _length(amount, unit, speed, diameter, ending):
    """m at the rim for a measure; a negative amount goes the other way."""
    if unit == "cm":
        return amount / 100
    if unit == "\u00b0":
        return amount / 360 * math.pi * diameter
    if unit == "s":
        if amount <= 0 or speed == 0:
            return 0
        a = pins.ACCELERATION
        ramp = speed / a
        if ending == "brake":
            return speed * (amount - ramp) if amount >= 2 * ramp else a * amount * amount / 4
        return speed * (amount - ramp / 2) if amount >= ramp else a * amount * amount / 2
    return amount * math.pi * diameter


def wheels(left, right, left_mm, right_mm, track_mm):
    _wheels.clear()
    half = track_mm / 2000
    for names, mm, y, side in ((left, left_mm, half, "left"), (right, right_mm, -half, "right")):
        for socket in names.split(" "):
            if socket:
                _wheels.append((_motor(socket), mm / 1000, 0.0, y, 0.0, side))


def wheel_at(i, socket, x, y, deg, mm):
    if i == 0:
        _wheels.clear()
    side = "left" if y > 0 else "right"
    _wheels.append((_motor(socket), mm / 1000, x / 1000, y / 1000, math.radians(deg), side))


def _diameter():
    return sum([wheel[1] for wheel in _wheels_now()]) / len(_wheels)


def _towards(ahead, left, amount, unit, power, ending):
    speed = _percent(power, 0) / 100 * pins.FULL_SPEED
    most = max([abs(rim) for rim in _rims(ahead, left, 0)]) or 1
    rolls = _length(amount, unit, speed * most, _diameter(), ending)
    length = rolls if unit == "cm" else rolls / most
    return _go(_rims(ahead * length, left * length, 0), speed * most, ending)


def drive(way, amount, unit, power, ending):
    return _towards(1 if way == "ahead" else -1, 0, amount, unit, power, ending)


def _turn(angle, power, ending):
    """Anticlockwise, degrees."""
    return _go(_rims(0, 0, math.radians(angle)), _percent(power, 0) / 100 * pins.FULL_SPEED, ending)


def turn_on_spot(side, angle, power, ending):
    return _turn(angle if side == "left" else -angle, power, ending)


def curve(side, radius, angle, power, ending):
    a = math.radians(angle)
    return _go(_rims(abs(radius) / 100 * a, 0, a if side == "left" else -a), _percent(power, 0) / 100 * pins.FULL_SPEED, ending)


def slide(direction, amount, unit, power, ending):
    _may_slide()
    d = math.radians(direction)
    return _towards(math.cos(d), -math.sin(d), amount, unit, power, ending)


def _may_slide():
    if not any([math.sin(wheel[4]) ** 2 > 0.01 for wheel in _wheels_now()]):
        raise _Problem("no-slide|")


def slide_on(heading_deg, power):
    _may_slide()
    d = math.radians(heading_deg - heading())
    speed = _percent(power, 0) / 100 * pins.FULL_SPEED
    _drop_moves([wheel[0] for wheel in _wheels])
    for wheel, rim in zip(_wheels, _rims(math.cos(d) * speed, -math.sin(d) * speed, 0)):
        wheel[0].power(rim / (pins.FREE_TURNS * math.pi * wheel[1]))


def _short_way(degrees):
    return (degrees + 180) % 360 - 180


def drive_facing(cm, heading_deg, power, ending):
    heading()  # where there is no motion sensor this says so
    return _go(_rims(abs(cm) / 100, 0, 0), _percent(power, 0) / 100 * pins.FULL_SPEED, ending, lambda share: _short_way(heading_deg - heading()))


def _turn_gyro(by, power, ending):
    """Until the gyro has turned by so many degrees, clockwise."""
    heading()
    came = _heading
    speed = _percent(power, 0) / 100 * pins.FULL_SPEED

    def off(share):
        _follow_heading()
        return by * share - (_heading - came)

    return _go(_rims(0, 0, -math.radians(by)), speed, ending, off)


def turn_gyro(side, angle, power, ending):
    return _turn_gyro(-angle if side == "left" else angle, power, ending)


def face(heading_deg, power):
    return _turn_gyro(_short_way(heading_deg - heading()), power, "brake")


def _sided():
    wheels_now = _wheels_now()
    if len(set([wheel[5] for wheel in wheels_now])) < 2 or any([wheel[4] for wheel in wheels_now]):
        raise _Problem("no-sides|")
    return wheels_now


def run_wheels(left, right):
    wheels_now = _sided()
    _drop_moves([wheel[0] for wheel in wheels_now])
    for wheel in wheels_now:
        wheel[0].power(_percent(left if wheel[5] == "left" else right, -100) / 100)


def span_wheels(left, right, amount, unit, ending):
    wheels_now = _sided()
    powers = {"left": _percent(left, -100), "right": _percent(right, -100)}
    top = max(abs(powers["left"]), abs(powers["right"]))
    faster = "left" if abs(powers["left"]) >= abs(powers["right"]) else "right"
    speed = top / 100 * pins.FULL_SPEED
    diameter = [wheel[1] for wheel in wheels_now if wheel[5] == faster][0]
    length = _length(amount, unit, speed, diameter, ending)
    way = -1 if length < 0 else 1
    shares = [(wheel[0], powers[wheel[5]] / top * way if top else 0, wheel[1]) for wheel in wheels_now]
    return _begin(shares, abs(length), speed, ending)


def stop_wheels(ending):
    wheels_now = _wheels_now()
    _drop_moves([wheel[0] for wheel in wheels_now])
    for wheel in wheels_now:
        wheel[0].rest(ending)


def _side_motor(side):
    for wheel in _sided():
        if wheel[5] == side:
            return wheel
    raise _Problem("no-sides|")


def wheel_turns(side):
    motor = _side_motor(side)[0]
    return motor.turns() - motor.zero


def wheel_speed(side):
    motor, diameter = _side_motor(side)[:2]
    return motor.speed() * math.pi * diameter * 100


def driven():
    return sum([(wheel[0].turns() - wheel[0].zero) * math.pi * wheel[1] for wheel in _wheels_now()]) / len(_wheels) * 100


def speed():
    return sum([wheel[0].speed() * math.pi * wheel[1] for wheel in _wheels_now()]) / len(_wheels) * 100


def zero_wheels():
    for wheel in _wheels_now():
        wheel[0].zero = wheel[0].turns()


def run_motor(socket, power):
    motor = _motor(socket)
    power = _percent(power, -100)
    if motor.keeps and power:
        # a move that does not end: it is held to where it should be by now
        way = 1 if power > 0 else -1
        return _begin([(motor, way, _motor_diameter(motor))], _FAR, abs(power) / 100 * pins.FULL_SPEED, "coast")
    _drop_moves([motor])
    motor.power(power / 100)


def span_motor(socket, power, amount, unit, ending):
    motor = _motor(socket)
    power = _percent(power, -100)
    diameter = _motor_diameter(motor)
    speed = abs(power) / 100 * pins.FULL_SPEED
    length = _length(amount, unit, speed, diameter, ending)
    way = (1 if power >= 0 else -1) * (-1 if length < 0 else 1)
    return _begin([(motor, way, diameter)], abs(length), speed, ending)


def _motor_diameter(motor):
    for wheel in _wheels:
        if wheel[0] is motor:
            return wheel[1]
    return pins.DIAMETER


def stop_motor(socket, ending):
    motor = _motor(socket)
    _drop_moves([motor])
    motor.rest(ending)


def motor_side(socket, side):
    motor = _motor(socket)
    mounted = pins.PARTS[socket].get("mirrored", False)
    motor.sign = -1 if mounted != (side == "mirrored") else 1


def motor_keeps(socket, what):
    _motor(socket).keeps = what == "speed"


def motor_turns(socket):
    motor = _motor(socket)
    return motor.turns() - motor.zero


def motor_speed(socket):
    motor = _motor(socket)
    return motor.speed() * math.pi * _motor_diameter(motor) * 100


# ---- servos ----

_angles = {}
_ramps = {}


def _pulse(socket, degrees):
    """A pulse of 1.0 to 2.0 ms stands for 0 to 180 degrees, 50 a second (common practice)."""
    _angles[socket] = degrees
    _pwm(_lead(socket, "signal"), _SERVO_FREQUENCY).duty_ns(int(1000000 + degrees * 1000000 / 180 + 0.5))


class _Ramp:
    def __init__(self, socket, to, us):
        self.socket = socket
        self.start = _angles.get(socket, 90)
        self.to = to
        self.us = us
        self.began = _clock()

    def step(self, now):
        share = _between((now - self.began) / self.us, 0, 1) if self.us > 0 else 1
        _pulse(self.socket, self.start + (self.to - self.start) * share)
        if share >= 1:
            _ramps.pop(self.socket, None)


def servo(socket, degrees):
    _part(socket, ("servo",))
    _ramps.pop(socket, None)
    _pulse(socket, _between(degrees, 0, 180))


def servo_slow(socket, degrees, seconds):
    _part(socket, ("servo",))
    if seconds <= 0:
        return servo(socket, degrees)
    _ramps[socket] = _Ramp(socket, _between(degrees, 0, 180), seconds * 1000000)


def spin(socket, power):
    _part(socket, ("spin",))
    _pulse(socket, 90 + _percent(power, -100) * 0.9)


def servos_middle():
    for socket, part in pins.PARTS.items():
        if part["type"] in ("servo", "spin"):
            _pulse(socket, 90)


# ---- lamps and display: addressable, 24 bits each, green first ----

_TIMING = (400, 850, 800, 450)
_lamps = {}
_pixels = None


def _send_bits(number, colours):
    data = bytearray()
    for red, green, blue in colours:
        data.extend(bytes((green, red, blue)))
    pin = _made.get(number)
    if pin is None:
        pin = _made[number] = machine.Pin(number, machine.Pin.OUT)
    machine.bitstream(pin, 0, _TIMING, data)


def _scaled(colour, level):
    return tuple([int(c * level / 100 + 0.5) for c in _COLOURS.get(colour, _COLOURS["white"])])


def _lamp(side):
    if side not in pins.LAMPS:
        raise _Problem("python|This device has no lamp called " + side + ".")
    if side not in _lamps:
        _lamps[side] = ["off", "amber", 100]
    return _lamps[side]


def _show_lamps():
    _send_bits(_lead("lamps", "data"), [_scaled(_lamp(side)[1], _lamp(side)[2] if _lamp(side)[0] == "on" else 0) for side in pins.LAMPS])


def lamp(side, to):
    state = _lamp(side)
    state[0] = ("off" if state[0] == "on" else "on") if to == "flip" else to
    _show_lamps()


def lamp_colour(side, colour):
    state = _lamp(side)
    state[0], state[1] = "on", colour
    _show_lamps()


def lamp_level(side, level):
    state = _lamp(side)
    state[0], state[2] = "on", _between(level, 0, 100)
    _show_lamps()


def _matrix():
    """Rows of (colour, level), as the display shows them."""
    global _pixels
    if not pins.DISPLAY:
        raise _Problem("no-display|")
    if _pixels is None:
        columns, rows = pins.DISPLAY
        _pixels = [[("white", 0)] * columns for _ in range(rows)]
    return _pixels


def _show_matrix():
    _send_bits(_lead("display", "data"), [_scaled(colour, level) for row in _matrix() for colour, level in row])


def _at(x, y):
    rows = _matrix()
    if not (0 <= x < len(rows[0]) and 0 <= y < len(rows)):
        raise _Problem("out-of-range|x %d, y %d; x goes from 0 to %d, y from 0 to %d" % (x, y, len(rows[0]) - 1, len(rows) - 1))
    return rows[int(y)]


def pixel(x, y, to):
    row = _at(x, y)
    colour, level = row[int(x)]
    row[int(x)] = (colour, (0 if level else 100) if to == "flip" else 100 if to == "on" else 0)
    _show_matrix()


def pixel_colour(x, y, colour):
    _at(x, y)[int(x)] = (colour, 100)
    _show_matrix()


def pixel_level(x, y, level):
    row = _at(x, y)
    row[int(x)] = (row[int(x)][0], _between(level, 0, 100))
    _show_matrix()


def _put_up(text, right=0, down=0):
    rows = text.split(" ")
    pixels = _matrix()
    for y, row in enumerate(pixels):
        for x in range(len(row)):
            a, b = x - right, y - down
            sign = rows[b][a] if 0 <= b < len(rows) and 0 <= a < len(rows[b]) else "."
            row[x] = (_LETTERS[sign], 100) if sign in _LETTERS else ("white", _SIGNS.get(sign, 0))
    _show_matrix()


def _picture(value):
    if type(value) is str and value[:8] == "picture ":
        return value[8:]
    raise _Problem("not-a-picture|")


def show(picture):
    _put_up(_picture(picture))


def show_moved(picture, right, down):
    _put_up(_picture(picture), int(right), int(down))


def dark():
    _put_up("")


def overlay(top, under):
    a, b = top.split(" "), under.split(" ")
    rows = []
    for y in range(max(len(a), len(b))):
        one, two = a[y] if y < len(a) else "", b[y] if y < len(b) else ""
        rows.append("".join([one[x] if x < len(one) and one[x] != "." else two[x] if x < len(two) else "." for x in range(max(len(one), len(two)))]))
    return "=" + " ".join(rows)


def _letters(text, at, columns, rows):
    """Rows of a text whose first column stands at `at`; letters are 3 wide and 5 high."""
    glyphs = [pins.FONT.get(c) or pins.FONT.get(c.upper()) or "77777" for c in text]
    top = max(0, (rows - 5) // 2)
    out = []
    for y in range(rows):
        line = ""
        for x in range(columns):
            column, row = x - at, y - top
            n, bit = column // 4, column % 4
            lit = column >= 0 and n < len(glyphs) and bit < 3 and 0 <= row < 5 and (int(glyphs[n][row]) >> (2 - bit)) & 1
            line += "#" if lit else "."
        out.append(line)
    return " ".join(out)


def write(value):
    rows = _matrix()
    text = _as_text(value)
    columns = len(rows[0])
    text = text[: max(1, (columns + 1) // 4)]
    _put_up(_letters(text, max(0, (columns - (len(text) * 4 - 1)) // 2), columns, len(rows)))


_passing = ""


def passing(value):
    global _passing
    _passing = _as_text(value)
    return len(_passing) * 4 + len(_matrix()[0])


def passing_number():
    return 0


def show_passing(n, number=0):
    rows = _matrix()
    columns = len(rows[0])
    _put_up(_letters(_passing, columns - 1 - n, columns, len(rows)))


# ---- sound ----

_volume = 100
_beats = 96


def _sound(hertz):
    if not 20 <= hertz <= 10000:
        raise _Problem("out-of-range|%s Hz; from 20 to 10000" % hertz)
    pwm = _pwm(_lead("sounder", "signal"), int(hertz + 0.5))
    pwm.freq(int(hertz + 0.5))
    pwm.duty_u16(_FULL // 2 * _volume // 100)


_silent_at = -1


def tone(hertz, seconds):
    global _silent_at
    _sound(hertz)
    _silent_at = _clock() + int(seconds * 1000000)


def start_tone(hertz):
    global _silent_at
    _silent_at = -1
    _sound(hertz)


def silence():
    global _silent_at
    _silent_at = -1
    _pwm(_lead("sounder", "signal"), 1000).duty_u16(0)


def _hush():
    if 0 <= _silent_at <= _clock():
        silence()


def volume(percent):
    global _volume
    _volume = int(_between(percent, 0, 100))


def tempo(beats):
    global _beats
    if not 10 <= beats <= 600:
        raise _Problem("out-of-range|%s beats a minute; from 10 to 600" % beats)
    _beats = beats


def notes(value):
    """Hertz and microseconds of each note, in equal temperament with A4 = 440 Hz (ISO 16)."""
    out = []
    for word in _as_text(value).split():
        name, by = word, 1.0
        for sign in "*/":
            if sign in word:
                name, count = word.split(sign)
                by = float(count) if sign == "*" else 1 / float(count)
        if name == "-":
            hertz = 0
        elif len(name) in (2, 3) and name[0].lower() in _HERTZ and name[-1].isdigit():
            n = 12 * (int(name[-1]) + 1) + _HERTZ[name[0].lower()] + (0 if len(name) == 2 else 1 if name[1] == "#" else -1)
            hertz = round(440 * 2 ** ((n - 69) / 12) * 100) / 100
        else:
            raise _Problem('not-a-note|"' + word + '"')
        out.append("%s %d" % (hertz, int(60000000 / _beats * by + 0.5)))
    return "=" + ";".join(out)


def play_note(hertz, us):
    if hertz > 0:
        tone(hertz, us / 1000000)
    else:
        silence()


# ---- sensors ----


def _echo(socket):
    """cm, or None where nothing answers."""
    _part(socket, ("distance",))
    number = _lead(socket, "trigger")
    trigger = _made.get(number)
    if trigger is None:
        trigger = _made[number] = machine.Pin(number, machine.Pin.OUT)
    echo = _made.get(_lead(socket, "echo"))
    if echo is None:
        echo = _made[_lead(socket, "echo")] = machine.Pin(_lead(socket, "echo"), machine.Pin.IN)
    trigger.value(0)
    time.sleep_us(2)
    trigger.value(1)
    time.sleep_us(10)
    trigger.value(0)
    us = machine.time_pulse_us(echo, 1, _LIMIT_US)
    return us / _US_PER_CM if us > 0 else None


def distance(socket):
    cm = _echo(socket)
    return 180 if cm is None else _between(round(cm * 10) / 10, 4, 180)


def something_ahead(socket):
    cm = _echo(socket)
    return cm is not None and cm <= 180


def line_reads(socket):
    _part(socket, ("line",))
    return _voltage(socket)


def line_over(socket, what):
    dark = line_reads(socket) < pins.PARTS[socket].get("threshold", 50)
    return dark if what == "dark" else not dark


def colour(socket):
    raise _Problem("python|A colour sensor cannot be read on this board yet.")


def _touched(of):
    return not _input(_lead(of, "signal")).value()


def nose():
    return _touched("nose")


def rim():
    return _touched("rim")


def rim_place():
    raise _Problem("python|Where its rim is touched cannot be felt on this board.")


def edge(side):
    return _touched("edge " + side)


def button(name):
    return _touched(name)


def key(name):
    return False


def stick(name):
    return 0


def light():
    return _voltage("light")


def moisture():
    return _voltage("moisture")


def temperature():
    return _motion(0x41) / 340 + 36.53


def charge():
    """A voltage divider gives a third of the battery's voltage; the board's supply is 3.3 V."""
    volts = _voltage("battery") / 100 * 3.3 * 3
    return _between((volts - pins.EMPTY_V) / (pins.FULL_V - pins.EMPTY_V) * 100, 0, 100)


_bus = None
_MOTION = 0x68
_heading = 0.0
_rate_at = 0
_turned_zero = 0.0
_drift = 0.0


def _motion(register):
    """A 16-bit register pair of the motion sensor."""
    global _bus, _rate_at, _drift
    if _bus is None:
        _bus = machine.I2C(0, scl=machine.Pin(_lead("wire", "scl")), sda=machine.Pin(_lead("wire", "sda")), freq=400000)
        _bus.writeto_mem(_MOTION, 0x6B, b"\x00")
        # at rest: what it tells now is its drift
        _drift = sum([_signed(_bus.readfrom_mem(_MOTION, 0x47, 2)) for _ in range(50)]) / 50
        _rate_at = _clock()
    return _signed(_bus.readfrom_mem(_MOTION, register, 2))


def _signed(pair):
    value = pair[0] << 8 | pair[1]
    return value - 65536 if value & 0x8000 else value


def turning_rate():
    """Degrees a second, clockwise."""
    return -(_motion(0x47) - _drift) / 131


def _follow_heading():
    global _heading, _rate_at
    rate = turning_rate()
    now = _clock()
    _heading += rate * (now - _rate_at) / 1000000
    _rate_at = now


def heading():
    if not _has("wire", "sda"):
        raise _Problem("python|The pins page of the kit sheet gives no motion sensor.")
    _follow_heading()
    return _heading % 360


def turned():
    _follow_heading()
    return _heading - _turned_zero


def zero_heading():
    global _heading, _turned_zero
    _follow_heading()
    _heading = _turned_zero = 0.0


_AXES = {"x": 0x3B, "y": 0x3D, "z": 0x3F}


def acceleration(axis):
    if axis in _AXES:
        return _motion(_AXES[axis]) / 16384
    return math.sqrt(sum([acceleration(a) ** 2 for a in "xyz"]))


def lean(axis):
    z = acceleration("z")
    return math.degrees(math.atan2(acceleration("y") if axis == "sideways" else acceleration("x"), z))


# ---- what a program says ----

_uart = None
_newest = ""
_fired = []


def _radio():
    """Messages to devices nearby travel as lines."""
    global _uart
    if _uart is None and _has("radio", "tx"):
        _uart = machine.UART(1, 9600, tx=machine.Pin(_lead("radio", "tx")), rx=machine.Pin(_lead("radio", "rx")))
    return _uart


def _told(kind, text):
    print("%.3f %s %s" % (_clock() / 1000000, kind, text))


def say(value):
    _told("say", _as_text(value))


def log(value):
    _told("log", _as_text(value))


def plot(name, value):
    _told("plot", name + " " + str(value))


def flag(value):
    _told("mark", _as_text(value))


def send(message, nearby):
    global _newest
    if nearby and _radio():
        _radio().write(message + "\n")
    _newest = message
    _fired.append("message " + message)


def last_message():
    return "=" + _newest


# ---- values ----

_lists = []
_open = []


def open_list():
    _open.append([])


def put(value):
    _open[-1].append(value)


def close_list():
    _lists.append(_open.pop())
    if len(_lists) > 64:
        _lists[len(_lists) - 65] = None
    return "list " + str(len(_lists) - 1)


def _as_text(value):
    if type(value) is str:
        if value[:5] == "text ":
            return value[5:]
        if value[:5] == "list ":
            return "[" + ", ".join([_as_text(v) for v in _lists[int(value[5:])]]) + "]"
        return value[8:] if value[:8] == "picture " else value
    if type(value) is bool:
        return "yes" if value else "no"
    if type(value) is float and value == int(value):
        return str(int(value))
    return str(value)


def text(value):
    return "=" + _as_text(value)


def number(value):
    words = _as_text(value).strip().replace(",", ".")
    try:
        return float(words) if "." in words else int(words)
    except ValueError:
        raise _Problem('no-number-in-text|"' + words + '"')


def _root(x):
    if x < 0:
        raise _Problem("no-result|the square root of " + str(x))
    return math.sqrt(x)


_CALC = {
    "round": lambda x: math.floor(x + 0.5),
    "floor": math.floor,
    "ceiling": math.ceil,
    "absolute": abs,
    "square root": _root,
    "sine": lambda x: math.sin(math.radians(x)),
    "cosine": lambda x: math.cos(math.radians(x)),
    "tangent": lambda x: math.tan(math.radians(x)),
    "arc sine": lambda x: math.degrees(math.asin(x)),
    "arc cosine": lambda x: math.degrees(math.acos(x)),
    "arc tangent": lambda x: math.degrees(math.atan(x)),
}


def calc(name, x):
    try:
        return _CALC[name](x)
    except ValueError:
        raise _Problem("no-result|the " + name + " of " + str(x))


def power(a, b):
    try:
        return a**b
    except (ValueError, ZeroDivisionError):
        raise _Problem("no-result|%s to the power of %s" % (a, b))


def arc_tangent_2(y, x):
    return math.degrees(math.atan2(y, x))


def chance(first, last):
    import random

    return random.randint(int(first), int(last))


def any_chance():
    import random

    return random.random()


# ---- waiting and tasks ----

_waiting = {}
_due = -1
_holds = False
_watched = []
_before = {}
_timer = 0


def _pace():
    _service()
    _hush()


def now():
    _pace()
    return _clock()


def ticks():
    return _clock() // 1000


def alarm(amount, us):
    return _handle(_clock() + max(0, int(amount * us + 0.5)))


def ready(handle):
    _pace()
    what = _waiting.get(handle)
    if what is None:
        return True
    over = what.over if type(what) is _Move else _clock() >= what
    if over:
        _waiting.pop(handle)
        _moves.pop(handle, None)
    return over


def drop(handle):
    _waiting.pop(handle, None)


def idle():
    _pace()
    time.sleep_us(200)


next_tick = idle


def finish(handle):
    while not ready(handle):
        idle()


def due(us):
    global _due
    _due = us


def task(number):
    _pace()


def began(trigger, name):
    pass


missed = began


def task_over():
    pass


def watch(trigger):
    _watched.append(trigger)


def _edges():
    """Buttons and touches whose state changed since they were last looked at become triggers."""
    for trigger in _watched:
        words = trigger.split(" ")
        if words[0] == "button" and len(words) == 3 and words[2] in ("pressed", "released"):
            is_down = _touched(words[1])
        elif words[0] == "touch" and len(words) >= 3:
            is_down = _touched(" ".join(words[1:-1]))
        else:
            continue
        was = _before.get(trigger, False)
        _before[trigger] = is_down
        if is_down != was and is_down == (words[-1] in ("pressed", "touched")):
            _fired.append(trigger)


def _hear():
    global _newest
    uart = _radio()
    if uart and uart.any():
        line = uart.readline()
        if line:
            _newest = line.decode().strip()
            _fired.append("message " + _newest)


def fired():
    _edges()
    _hear()
    out = "\n".join(_fired)
    _fired.clear()
    return out


def hold(on):
    global _holds
    _holds = on


def word():
    # the word to set off is a press on Dot
    return _touched("Dot")


def prepared():
    _told("log", "ready")


def timer():
    return (_clock() - _timer) / 1000000


def restart_timer():
    global _timer
    _timer = _clock()


# ---- steps: texts run as they are ----


def step(line):
    return 0


def turn_over():
    return 0


def enter():
    return 0


def leave():
    pass


def looks():
    return False


def holds(name, value):
    pass


def rest():
    return False


def set_name():
    return ""


def set_value():
    return 0


def changed(name, value, length):
    pass


# ---- the board ----


def mark(path, text):
    global _now, _last, _timer, _holds, _silent_at, _bus, _rate_at, _looked
    if _has("wire", "sda"):
        # it stands still before it sets off: what the motion sensor tells of turning now is its drift
        _bus = None
        try:
            zero_heading()
        except OSError:
            _bus = None
    _last = time.ticks_us()
    _now = _timer = _rate_at = _looked = 0
    _silent_at = -1
    _holds = False
    for kept in (_moves, _waiting, _ramps, _before, _watched, _fired, _lists, _open):
        kept.clear()
    return text


def over(how, info):
    """A run is over: its moves end, and what went wrong is told."""
    for motor in _motors.values():
        _drop_moves([motor])
    for ramp in list(_ramps.values()):
        ramp.step(_clock())
    if how == "nothing":
        _told("error", "There is no program on this device yet.")
    elif how == "error":
        _told("error", info)
        for motor in _motors.values():
            motor.rest("coast")
    elif how == "stopped":
        for motor in _motors.values():
            motor.rest("brake")
    _told("ended", how)


def serial():
    return "".join(["%02x" % b for b in machine.unique_id()])


def device():
    return pins.DEVICE


def battery():
    return int(charge()) if _has("battery", "signal") else -1


def chooses(number):
    if number and pins.DISPLAY:
        write("text " + str(number))
    elif pins.DISPLAY:
        dark()
    _told("choose", str(number))


def show_which():
    for _ in range(3):
        if pins.LAMPS and _has("lamps", "data"):
            _send_bits(_lead("lamps", "data"), [(255, 140, 0)] * len(pins.LAMPS))
        if _has("sounder", "signal"):
            _sound(990)
        time.sleep_ms(200)
        if pins.LAMPS and _has("lamps", "data"):
            _send_bits(_lead("lamps", "data"), [(0, 0, 0)] * len(pins.LAMPS))
        if _has("sounder", "signal"):
            silence()
        time.sleep_ms(200)


def waits():
    """While no program runs: the button that is pressed, once it is let go."""
    while True:
        for name in ("Dot", "Bar"):
            if _has(name, "signal") and _touched(name):
                while _touched(name):
                    time.sleep_ms(5)
                return name
        time.sleep_ms(5)


for _name in (
    "wheels wheel_at drive turn_on_spot curve slide slide_on drive_facing turn_gyro face run_wheels span_wheels stop_wheels wheel_turns wheel_speed driven speed zero_wheels "
    "run_motor span_motor stop_motor motor_side motor_keeps motor_turns motor_speed servo servo_slow spin servos_middle lamp lamp_colour lamp_level pixel pixel_colour pixel_level "
    "show show_moved dark write passing show_passing tone start_tone silence volume tempo notes play_note distance something_ahead line_reads line_over colour nose rim rim_place edge "
    "button light moisture temperature charge turning_rate heading turned zero_heading acceleration lean number calc power"
).split(" "):
    globals()[_name] = _guard(globals()[_name])
