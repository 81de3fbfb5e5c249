"""Moss Bell board library: the verbs that the blocks print.

It has two layers. The verbs are here. What drives pins and motors is the port layer, `mossbell_port`: on the stand-in a
module of the simulator, on a real board a small file printed from the kit sheet. Runs on MicroPython 1.20 and later.
"""

import mossbell_port as port

VERSION = "1.8"
_LARGEST = 9007199254740992  # 2 ** 53


class ProgramError(Exception):
    """An error of the person's program: its kind and the values that led to it, as 'kind|values'."""


def _ok(answer):
    """What the port answers: an error comes as '!kind|values', a large whole number as '#digits'."""
    if type(answer) is str and answer[:1] == "#":
        return int(answer[1:])
    if type(answer) is str and answer[:1] == "!":
        if answer == "!halt":
            raise KeyboardInterrupt
        raise ProgramError(answer[1:])
    return answer


def _f(value):
    """Whole numbers beyond 31 bits cross the port as floats."""
    if type(value) is int and not -2147483648 <= value <= 2147483647:
        return float(value)
    return value


def _called(value):
    """What an error calls a value: its kind."""
    return _NAMES.get(type(value).__name__, "something else")


_NAMES = {
    "str": "a text",
    "int": "a number",
    "float": "a number",
    "bool": "yes or no",
    "list": "a list",
    "tuple": "a list",
    "Picture": "a picture",
    "NoneType": "nothing",
    "function": "a routine",
    "generator": "a routine",
}


def _n(value):
    """The result of arithmetic, refused beyond 2 ** 53."""
    if type(value) is not str and type(value) is not list and not -_LARGEST <= value <= _LARGEST:
        raise ProgramError("too-large|")
    return value


def _strict(value):
    """As _n, for programs of blocks: there, arithmetic is for numbers alone."""
    if type(value) is str or type(value) is list:
        raise ProgramError("not-a-number|here is " + _called(value))
    if not -_LARGEST <= value <= _LARGEST:
        raise ProgramError("too-large|")
    return value


def _num(value):
    """A number, or an error."""
    if type(value) is int or type(value) is float:
        return value
    if type(value) is bool:
        return 1 if value else 0
    raise ProgramError("not-a-number|here is " + _called(value))


# ---- waiting: a plain program waits here, a program of several tasks gives way to the others ----

_together = False


class _Turn:
    """The end of a loop's turn. One object serves all tasks: it yields once each time it is awaited."""

    def __iter__(self):
        self.once = True
        return self

    def __next__(self):
        if self.once:
            self.once = False
            return None
        raise StopIteration


class _Wait:
    """Yields the number of an alarm or a move, once."""

    def __init__(self, handle):
        self.handle = handle

    def __iter__(self):
        return self

    def __next__(self):
        handle = self.handle
        if handle is None:
            raise StopIteration
        self.handle = None
        return handle


class _Until:
    """Yields its condition, once, if it is not true already."""

    def __init__(self, condition):
        self.condition = condition

    def __iter__(self):
        return self

    def __next__(self):
        condition = self.condition
        if condition is None or condition():
            raise StopIteration
        self.condition = None
        return condition


class _UntilBy:
    """As _Until, but not longer than an alarm: yields both."""

    def __init__(self, condition, handle):
        self.both = (condition, handle)

    def __iter__(self):
        return self

    def __next__(self):
        both = self.both
        if both is None:
            raise StopIteration
        self.both = None
        if port.ready(both[1]):
            raise StopIteration
        if both[0]():
            port.drop(both[1])
            raise StopIteration
        return both


def _true():
    return True


class _Tick:
    """Yields once, until the next tick."""

    def __iter__(self):
        self.once = True
        return self

    def __next__(self):
        if self.once:
            self.once = False
            return _true
        raise StopIteration


turn = _Turn()
tick = _Tick()


def _pause(handle):
    if _together:
        return _Wait(handle)
    _ok(port.finish(handle))


def wait(seconds):
    return _pause(_ok(port.alarm(_f(seconds), 1000000)))


def wait_ms(milliseconds):
    return _pause(_ok(port.alarm(_f(milliseconds), 1000)))


def wait_until(condition, at_most=None):
    if at_most is None:
        if _together:
            return _Until(condition)
        while not condition():
            _ok(port.next_tick())
        return
    handle = _ok(port.alarm(_f(at_most), 1000000))
    if _together:
        return _UntilBy(condition, handle)
    ticks = -1
    while not port.ready(handle):
        if ticks != port.ticks():
            ticks = port.ticks()
            if condition():
                port.drop(handle)
                return
        _ok(port.idle())


def until(condition):
    """Ends a loop that is looked at after each turn."""
    return condition


def again(condition):
    """Goes on with a loop that is looked at after each turn."""
    return condition


def seconds(span):
    """Turns of a loop until the time is over."""
    end = _ok(port.now()) + int(_num(span) * 1000000 + 0.5)
    while _ok(port.now()) < end:
        yield None


def within(span):
    """Looks at a condition until the time is over."""
    return seconds(span)


def from_to(first, last, step):
    """Numbers from the first to the last, which is included."""
    first, last, step = _num(first), _num(last), _num(step)
    if step == 0:
        raise ProgramError("out-of-range|steps of 0")
    n = 0
    while True:
        value = first + n * step
        if (step > 0 and value > last) or (step < 0 and value < last):
            return
        yield value
        n += 1


def each(things):
    """The things of a list, one after the other; the list may grow meanwhile."""
    _list(things)
    n = 0
    while n < len(things):
        yield things[n]
        n += 1


def table(*answers):
    """Yes-or-no readings, taken at once."""
    return tuple([bool(a) for a in answers])


def cannot_happen():
    pass


def which(value, cases):
    """The place of the first case that is equal to the value, or None."""
    n = 0
    for case in cases:
        if value == case:
            return n
        n += 1
    return None


def given(value):
    """What a routine gave back."""
    if value is None:
        raise ProgramError("gives-nothing|")
    return value


# ---- parts ----


def _measure(cm, turns, seconds, degrees):
    for unit, amount in (("cm", cm), ("wheel turns", turns), ("s", seconds), ("°", degrees)):
        if amount is not None:
            return _f(amount), unit
    raise ProgramError("not-a-number|no amount")


def _one(word, words):
    """A word that is one of those that can stand there."""
    if type(word) is not str:
        raise ProgramError("not-a-text|here is " + _called(word))
    if word in words:
        return word
    raise ProgramError("no-such-word|" + word + "; " + ", ".join(words))


_ENDINGS = ("brake", "coast")
_SIDES = ("left", "right")
_LAMPS = ("left", "right", "one", "two", "three", "four", "five", "six")
_COLOURS = ("amber", "red", "green", "blue", "violet", "white")
_TOUCHES = ("nose", "left edge", "right edge", "rim")
_STICKS = ("left, left-right", "left, up-down", "right, left-right", "right, up-down")


def _sockets(names):
    return names if type(names) is str else " ".join(names)


class Wheels:
    def __init__(self, left=(), right=(), diameter_mm=0, track_mm=0, at=()):
        # the motors of each side; or, where wheels roll in several directions, each with its place and direction
        if at:
            for i, (socket, x, y, deg) in enumerate(at):
                d = diameter_mm[i] if type(diameter_mm) is tuple else diameter_mm
                _ok(port.wheel_at(i, socket, x, y, deg, d))
            return
        both = diameter_mm if type(diameter_mm) is tuple else (diameter_mm, diameter_mm)
        _ok(port.wheels(_sockets(left), _sockets(right), both[0], both[1], track_mm))

    def drive(self, power, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.drive("ahead", amount, unit, _f(power), _one(ending, _ENDINGS))))

    def back(self, power, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.drive("back", amount, unit, _f(power), _one(ending, _ENDINGS))))

    def turn(self, power, ending, left=None, right=None):
        if left is not None:
            return _pause(_ok(port.turn_on_spot("left", _f(left), _f(power), _one(ending, _ENDINGS))))
        return _pause(_ok(port.turn_on_spot("right", _f(right), _f(power), _one(ending, _ENDINGS))))

    def run(self, left, right):
        _ok(port.run_wheels(_f(left), _f(right)))

    def run_for(self, left, right, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.span_wheels(_f(left), _f(right), amount, unit, _one(ending, _ENDINGS))))

    def stop(self, ending):
        _ok(port.stop_wheels(_one(ending, _ENDINGS)))

    def drive_facing(self, cm, heading, power, ending):
        return _pause(_ok(port.drive_facing(_f(cm), _f(heading), _f(power), _one(ending, _ENDINGS))))

    def turn_gyro(self, power, ending, left=None, right=None):
        if left is not None:
            return _pause(_ok(port.turn_gyro("left", _f(left), _f(power), _one(ending, _ENDINGS))))
        return _pause(_ok(port.turn_gyro("right", _f(right), _f(power), _one(ending, _ENDINGS))))

    def face(self, heading, power):
        return _pause(_ok(port.face(_f(heading), _f(power))))

    def curve(self, radius_cm, power, ending, left=None, right=None):
        if left is not None:
            return _pause(_ok(port.curve("left", _f(radius_cm), _f(left), _f(power), _one(ending, _ENDINGS))))
        return _pause(_ok(port.curve("right", _f(radius_cm), _f(right), _f(power), _one(ending, _ENDINGS))))

    def slide(self, direction, power, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.slide(_f(direction), amount, unit, _f(power), _one(ending, _ENDINGS))))

    def slide_on(self, heading, power):
        _ok(port.slide_on(_f(heading), _f(power)))

    def turns(self, side):
        return _ok(port.wheel_turns(_one(side, _SIDES)))

    def degrees(self, side):
        return _ok(port.wheel_turns(_one(side, _SIDES))) * 360

    def speed_of(self, side):
        return _ok(port.wheel_speed(_one(side, _SIDES)))

    def driven(self):
        return _ok(port.driven())

    def speed(self):
        return _ok(port.speed())

    def zero(self):
        _ok(port.zero_wheels())


class Motor:
    def __init__(self, socket):
        self.socket = socket

    def run(self, power):
        _ok(port.run_motor(self.socket, _f(power)))

    def run_for(self, power, ending, seconds=None, degrees=None, turns=None):
        amount, unit = _measure(None, turns, seconds, degrees)
        return _pause(_ok(port.span_motor(self.socket, _f(power), amount, unit, _one(ending, _ENDINGS))))

    def stop(self, ending):
        _ok(port.stop_motor(self.socket, _one(ending, _ENDINGS)))

    def counts(self, side):
        _ok(port.motor_side(self.socket, _one(side, ("mirrored", "normal"))))

    def keeps(self, what):
        _ok(port.motor_keeps(self.socket, _one(what, ("speed", "power"))))

    def turns(self):
        return _ok(port.motor_turns(self.socket))

    def degrees(self):
        return _ok(port.motor_turns(self.socket)) * 360

    def speed(self):
        return _ok(port.motor_speed(self.socket))


class Servo:
    def __init__(self, socket):
        self.socket = socket

    def angle(self, degrees):
        _ok(port.servo(self.socket, _f(degrees)))

    def share(self, percent):
        _ok(port.servo(self.socket, _num(percent) * 1.8))

    def slowly(self, degrees, seconds):
        _ok(port.servo_slow(self.socket, _f(degrees), _f(seconds)))
        return wait(seconds)


class Spin:
    """A servo that goes round."""

    def __init__(self, socket):
        self.socket = socket

    def spin(self, power):
        _ok(port.spin(self.socket, _f(power)))


def servos_to_middle():
    _ok(port.servos_middle())


class Lamp:
    def __init__(self, side):
        self.side = _one(side, _LAMPS)

    def on(self):
        _ok(port.lamp(self.side, "on"))

    def off(self):
        _ok(port.lamp(self.side, "off"))

    def flip(self):
        _ok(port.lamp(self.side, "flip"))

    def colour(self, name):
        _ok(port.lamp_colour(self.side, _one(name, _COLOURS)))

    def level(self, percent):
        _ok(port.lamp_level(self.side, _f(percent)))


class Picture:
    """Rows with a space between, one sign a pixel: '.' dark, '-' 25 %, '+' 50 %, '*' 75 %, '#' full, or the first letter of a colour."""

    def __init__(self, rows):
        self.rows = rows

    def __eq__(self, other):
        return type(other) is Picture and other.rows == self.rows

    def __hash__(self):
        return hash(self.rows)


def _plain(value):
    """A value as it crosses the port; what it is stands before it."""
    if type(value) is Picture:
        return "picture " + value.rows
    if type(value) is str:
        return "text " + value
    if value is None:
        return "text None"
    if type(value) is list:
        port.open_list()
        for thing in value:
            port.put(_plain(thing))
        return port.close_list()
    return _f(value)


def _answer(text):
    """Text from the port comes after an '='."""
    return _ok(text)[1:]


def _rows(picture):
    if type(picture) is not Picture:
        raise ProgramError("not-a-picture|here is " + _called(picture))
    return picture.rows


def over(top, under):
    """Two pictures in one."""
    return Picture(_answer(port.overlay(_rows(top), _rows(under))))


class Display:
    def pixel(self, x, y, to):
        _ok(port.pixel(_f(x), _f(y), _one(to, ("on", "off", "flip"))))

    def level(self, x, y, percent):
        _ok(port.pixel_level(_f(x), _f(y), _f(percent)))

    def colour(self, x, y, name):
        _ok(port.pixel_colour(_f(x), _f(y), _one(name, _COLOURS)))

    def show(self, picture, right=None, down=None):
        if right is None:
            _ok(port.show(_plain(picture)))
        else:
            _ok(port.show_moved(_plain(picture), _f(right), _f(down)))

    def dark(self):
        _ok(port.dark())

    def write(self, value):
        _ok(port.write(_plain(value)))

    def pass_by(self, value):
        count = _ok(port.passing(_plain(value)))
        if _together:
            return _passing(count)
        for n in range(count):
            _ok(port.show_passing(n))
            wait_ms(100)


async def _passing(count):
    # the pictures are kept by the port until the next text passes
    number = port.passing_number()
    for n in range(count):
        _ok(port.show_passing(n, number))
        await wait_ms(100)


def tone(hertz, seconds):
    _ok(port.tone(_f(hertz), _f(seconds)))
    return wait(seconds)


def start_tone(hertz):
    _ok(port.start_tone(_f(hertz)))


def silence():
    _ok(port.silence())


def beep():
    return tone(990, 0.15)


def volume(percent):
    _ok(port.volume(_f(percent)))


def tempo(beats):
    _ok(port.tempo(_f(beats)))


def play(notes):
    """Notes such as 'C4 E4*2 - G4/2', one beat each."""
    plan = _answer(port.notes(_plain(notes)))
    pairs = [p.split(" ") for p in plan.split(";")] if plan else []
    if _together:
        return _play(pairs)
    for hertz, us in pairs:
        _ok(port.play_note(float(hertz), int(us)))
        _ok(port.finish(_ok(port.alarm(int(us), 1))))


async def _play(pairs):
    for hertz, us in pairs:
        _ok(port.play_note(float(hertz), int(us)))
        await _Wait(_ok(port.alarm(int(us), 1)))


def say(value):
    _ok(port.say(_plain(value)))


class Distance:
    def __init__(self, socket):
        self.socket = socket

    def cm(self):
        return _ok(port.distance(self.socket))

    def sees(self):
        return _ok(port.something_ahead(self.socket))


class Line:
    def __init__(self, socket):
        self.socket = socket

    def reads(self):
        return _ok(port.line_reads(self.socket))

    def over(self, what):
        return _ok(port.line_over(self.socket, _one(what, ("dark", "light"))))


class Colour:
    """The name of the colour of the floor below."""

    def __init__(self, socket):
        self.socket = socket

    def colour(self):
        return _ok(port.colour(self.socket))


class Nose:
    def touched(self):
        return _ok(port.nose())


class Rim:
    """A rim that feels a touch, and where."""

    def touched(self):
        return _ok(port.rim())

    def place(self):
        return _ok(port.rim_place())


class Edge:
    """A touch edge."""

    def __init__(self, side):
        self.side = _one(side, _SIDES)

    def touched(self):
        return _ok(port.edge(self.side))


class Gyro:
    def heading(self):
        return _ok(port.heading())

    def turned(self):
        return _ok(port.turned())

    def rate(self):
        return _ok(port.turning_rate())

    def zero(self):
        _ok(port.zero_heading())


class Motion:
    """The accelerometer."""

    def acceleration(self, axis):
        return _ok(port.acceleration(_one(axis, ("x", "y", "z", "total"))))

    def lean(self, axis):
        return _ok(port.lean(_one(axis, ("sideways", "forwards", "turned"))))


class Button:
    def __init__(self, name):
        self.name = _one(name, ("Dot", "Bar"))
        self.pressed = "button " + name + " pressed"
        self.released = "button " + name + " released"
        self.held = "button " + name + " held"

    def is_held(self):
        return _ok(port.button(self.name))


def key_is_held(key):
    return _ok(port.key(key))


def stick(name):
    return _ok(port.stick(_one(name, _STICKS)))


def light():
    return _ok(port.light())


def temperature():
    return _ok(port.temperature())


def moisture():
    return _ok(port.moisture())


def battery():
    return _ok(port.charge())


def timer():
    return _ok(port.timer())


def restart_timer():
    _ok(port.restart_timer())


def log(value):
    _ok(port.log(_plain(value)))


def print(*values, sep=" ", end=""):
    """As in Python, into the log."""
    log(sep.join([as_text(value) for value in values]))


def plot(value, name):
    _ok(port.plot(name, _f(value)))


def mark(value):
    _ok(port.flag(_plain(value)))


def send(message, nearby=False):
    _ok(port.send(message, nearby))


def last_message():
    return _answer(port.last_message())


# ---- working things out ----

pi = 3.141592653589793


def whole(value):
    """A whole number within 1e-9, or an error: counts, places and pixels."""
    if type(value) is int:
        return value
    value = _num(value)
    nearest = round(value)
    if not -1e-9 <= value - nearest <= 1e-9:
        raise ProgramError("not-whole|here is " + repr(value))
    return nearest


def chance(first, last):
    return int(_ok(port.chance(_f(first), _f(last))))


def any_chance():
    return _ok(port.any_chance())


def coin():
    return chance(0, 1) == 1


def remainder(a, b):
    return _num(a) % _num(b)


def to_the_power(a, b):
    return _ok(port.power(_f(a), _f(b)))


def lies_from_to(value, low, high):
    return _num(low) <= _num(value) <= _num(high)


def smaller(a, b):
    a, b = _num(a), _num(b)
    return b if b < a else a


def larger(a, b):
    a, b = _num(a), _num(b)
    return b if b > a else a


def keep_between(value, low, high):
    value, low, high = _num(value), _num(low), _num(high)
    return low if value < low else high if value > high else value


def map_range(value, a, b, c, d):
    """Carries a number from the range a..b to the range c..d."""
    value, a, b, c, d = _num(value), _num(a), _num(b), _num(c), _num(d)
    return _strict(c + ((value - a) * (d - c)) / (b - a))


def rounded(x):
    return _ok(port.calc("round", _f(x)))


def floor(x):
    return _ok(port.calc("floor", _f(x)))


def ceiling(x):
    return _ok(port.calc("ceiling", _f(x)))


def absolute(x):
    return _ok(port.calc("absolute", _f(x)))


def square_root(x):
    return _ok(port.calc("square root", _f(x)))


def sine(x):
    return _ok(port.calc("sine", _f(x)))


def cosine(x):
    return _ok(port.calc("cosine", _f(x)))


def tangent(x):
    return _ok(port.calc("tangent", _f(x)))


def arc_sine(x):
    return _ok(port.calc("arc sine", _f(x)))


def arc_cosine(x):
    return _ok(port.calc("arc cosine", _f(x)))


def arc_tangent(x):
    return _ok(port.calc("arc tangent", _f(x)))


def arc_tangent_2(y, x):
    return _ok(port.arc_tangent_2(_f(y), _f(x)))


def as_text(value):
    return _answer(port.text(_plain(value)))


def as_number(value):
    if type(value) is int or type(value) is float:
        return value
    return _ok(port.number(_plain(value)))


def join(a, b):
    text = as_text(a) + as_text(b)
    if len(text) > 10000:
        raise ProgramError("text-too-long|")
    return text


def characters(text):
    return len(as_text(text))


def character(place, text):
    text = as_text(text)
    return text[_place(place, len(text))]


# ---- lists; places count from 0 ----


def _list(value):
    if type(value) is not list:
        raise ProgramError("not-a-list|here is " + ("nothing" if value is None else _called(value)))
    return value


def a_list(value):
    """The same, where it is a list: what a variable for a list is set to."""
    return _list(value)


def _place(place, length):
    if not 0 <= place < length:
        raise ProgramError("no-such-place|place " + str(place) + (" of " + str(length) + ", which go from 0 to " + str(length - 1) if length else ", and nothing is there"))
    return place


def _room(things):
    if len(_list(things)) >= 10000:
        raise ProgramError("list-too-long|")
    return things


def _fits(value, things):
    # a list that holds itself would have no end
    if isinstance(value, list):
        if value is things:
            raise ProgramError("list-in-itself|")
        for v in value:
            _fits(v, things)
    return value


def put_at_end(value, things):
    _room(things).append(_fits(value, things))


def put_at(value, place, things):
    _place(place, len(_list(things)) + 1)
    _room(things).insert(place, _fits(value, things))


def swap_at(place, things, value):
    # the place first: Python works out the right side of an assignment before the left
    place = _place(place, len(_list(things)))
    things[place] = _fits(value, things)


def take_out(place, things):
    things.pop(_place(place, len(_list(things))))


def place_of(place, things):
    return things[_place(place, len(_list(things)))]


def how_many(things):
    return len(_list(things))


def is_in(value, things):
    return value in _list(things)


def where_in(value, things):
    n = 0
    for thing in _list(things):
        if thing == value:
            return n
        n += 1
    raise ProgramError("not-in-list|")


# ---- running: tasks share one processor and give way at `await` ----


s = "s"
ms = "ms"


class when:
    """A trigger, or a condition that becomes true, and the function that runs each time."""

    def __init__(self, trigger, function):
        self.trigger = trigger
        self.function = function
        self.was = True


class every:
    """A span of time, and the function that runs again and again."""

    def __init__(self, time, unit, function):
        self.span = max(1, int(_num(time) * (1000000 if unit == "s" else 1000) + 0.5))
        self.due = self.span
        self.trigger = "every"
        self.function = function


class before:
    """The function that prepares: the wheels may not move before the word to set off."""

    def __init__(self, function):
        self.trigger = "before"
        self.function = function


class set_off:
    """The function that runs on the word to set off."""

    def __init__(self, function):
        self.trigger = "set off"
        self.function = function


def key(name, event):
    return "key " + name + " " + _one(event, ("pressed", "released"))


def touch(what, event):
    return "touch " + _one(what, _TOUCHES) + " " + _one(event, ("is touched", "is free"))


def moved(how):
    return "moved " + _one(how, ("turned over", "let go", "set down"))


def message(name):
    return "message " + name


def dip(edge, degrees):
    return "dip " + _one(edge, ("left", "right", "near", "far")) + " " + as_text(_num(degrees))


def shaken(span):
    return "shaken " + as_text(_num(span))


def jolt(g):
    return "jolt " + as_text(_num(g))


def _name(function):
    """What a function is called in the text."""
    return getattr(function, "__name__", "")


class _Task:
    def __init__(self, function, number):
        self.function = function
        self.number = number
        self.steps = function()
        self.wait = None
        self.seen = 0


class _Tasks:
    """Tasks share one processor and give way at `await`."""

    def __init__(self, parts):
        # a plain function is one that begins at the start
        self.starters = [p if type(p) in (when, every, before, set_off) else _Start(p) for p in parts]
        self.tasks = []
        self.count = 0
        self.prepares = any([p.trigger == "before" for p in self.starters])
        self.off = not self.prepares
        self.ready = False
        self.asks = [p for p in self.starters if type(p) is when and type(p.trigger) is not str]
        self.timed = [p for p in self.starters if type(p) is every]
        self.looked = -1
        for p in self.starters:
            port.watch(p.trigger if type(p.trigger) is str else "condition")
        self.set_dues()

    def set_dues(self):
        self.due = min([p.due for p in self.timed]) if self.timed else -1
        port.due(float(self.due))

    def begin(self, part, trigger):
        self.count += 1
        self.tasks.append(_Task(part.function, self.count))
        port.began(trigger, _name(part.function))

    def fire(self, part, trigger):
        if any([t.function is part.function for t in self.tasks]):
            port.missed(trigger, _name(part.function))
        else:
            self.begin(part, trigger)

    def start(self):
        port.hold(self.prepares)
        for p in self.starters:
            if p.trigger == "before" if self.prepares else p.trigger in ("start", "set off"):
                self.begin(p, p.trigger)

    def pick_up(self):
        """What begins now: triggers of the device, what is due, what has become true, in the order of the file."""
        if not self.off and not self.tasks:
            if not self.ready:
                self.ready = True
                port.prepared()
            if port.word():
                self.off = True
                port.hold(False)
                for p in self.starters:
                    if p.trigger in ("start", "set off"):
                        self.begin(p, p.trigger)
        fired = port.fired()
        if fired:
            for trigger in fired.split("\n"):
                for p in self.starters:
                    if p.trigger == trigger:
                        self.fire(p, trigger)
        if self.timed and _ok(port.now()) >= self.due:
            for p in self.timed:
                while _ok(port.now()) >= p.due:
                    self.fire(p, "every")
                    p.due += p.span
            self.set_dues()
        if self.asks and self.looked != port.ticks():
            first = self.looked < 0
            self.looked = port.ticks()
            for p in self.asks:
                now = bool(p.trigger())
                if now and not p.was and not first:
                    self.fire(p, "condition")
                p.was = now

    def round(self):
        """Each task that is ready goes on to its next wait; whether any did."""
        ran = False
        i = 0
        tasks = self.tasks
        while i < len(tasks):
            task = tasks[i]
            waits = task.wait
            port.task(task.number)
            if waits is None:
                ready = True
            elif type(waits) is int:
                ready = port.ready(waits)
            elif type(waits) is tuple and port.ready(waits[1]):
                ready = True
            elif task.seen == port.ticks():
                ready = False
            else:
                task.seen = port.ticks()
                if type(waits) is tuple:
                    ready = waits[0]()
                    if ready:
                        port.drop(waits[1])
                else:
                    ready = waits()
            if ready:
                ran = True
                try:
                    task.wait = task.steps.send(None)
                    task.seen = port.ticks()
                except StopIteration:
                    port.task_over()
                    tasks.pop(i)
                    continue
            i += 1
        return ran

    @property
    def over(self):
        if self.tasks or not self.off:
            return False
        return all([p.trigger in ("start", "before", "set off") for p in self.starters])


class _Start:
    def __init__(self, function):
        self.trigger = "start"
        self.function = function


def run(*parts):
    """Runs functions, and the functions of triggers when they fire. One plain function alone is simply called."""
    global _together
    _together = len(parts) != 1 or type(parts[0]) in (when, every, before, set_off)
    if not _together:
        port.began("start", _name(parts[0]))
        port.task(1)
        parts[0]()
        port.task_over()
        return
    tasks = _Tasks(parts)
    tasks.start()
    while True:
        tasks.pick_up()
        if not tasks.round():
            if tasks.over:
                return
            _ok(port.idle())


# ---- the launcher: what main.py calls ----


_space = {}


def _stop():
    """What a step does when the port asks for more than to go on: tells what every name holds, rests, or ends."""
    if port.looks():
        own = globals()
        for name in _space:
            value = _space[name]
            # what the library itself is called is no news
            if name[:1] != "_" and own.get(name) is not value and (value is None or type(value) in (int, float, bool, str, list, Picture)):
                port.holds(name, "None" if value is None else _plain(value))
    if port.rest():
        name = port.set_name()
        while name:
            _space[name] = port.set_value()
            name = port.set_name()
        return
    raise KeyboardInterrupt


def _changed(name, value):
    # of a long list only its beginning is told
    if type(value) is list:
        port.changed(name, _plain(value[:20]), len(value))
    else:
        port.changed(name, "None" if value is None else _plain(value), 0)


def _enter():
    if port.enter():
        raise ProgramError("too-deep|")


def _leave(value=None):
    port.leave()
    return value


def _checked(path):
    """The text of a program file if the checksum in its last line holds, or None."""
    import binascii

    try:
        with open(path, "rb") as f:
            data = f.read()
    except OSError:
        return None
    cut = data.rfind(b"# moss bell crc ")
    try:
        if cut < 0 or binascii.crc32(data[:cut]) != int(data[cut + 16 : cut + 24], 16):
            return None
    except ValueError:
        return None
    return data[:cut].decode()


def _numbers():
    """The numbers of the programs on the device, in order."""
    import os

    try:
        return sorted([int(n[:-3]) for n in os.listdir("p") if n.endswith(".py") and n[:-3].isdigit()])
    except OSError:
        return []


def _active():
    """The program that the button starts: the one in p/active, or the newest whose checksum holds."""
    try:
        with open("p/active") as f:
            path = "p/" + f.read().split()[0] + ".py"
        text = _checked(path)
        if text is not None:
            return path, text
    except (OSError, IndexError):
        pass
    numbers = _numbers()
    while numbers:
        path = "p/" + str(numbers.pop()) + ".py"
        text = _checked(path)
        if text is not None:
            return path, text
    return None, None


_choice = 0


def choose_next():
    """While the device waits: Bar shows the number of the program that Dot starts, then of the next one that is whole."""
    global _choice
    path = _active()[0]
    if path is None:
        return port.chooses(0)
    if not _choice:
        _choice = int(path[2:-3])
    else:
        numbers = [n for n in _numbers() if _checked("p/" + str(n) + ".py") is not None]
        later = [n for n in numbers if n > _choice]
        _choice = later[0] if later else numbers[0]
    port.chooses(_choice)


def choose_take():
    """Dot takes the program whose number is shown: from now on it is the one that Dot starts."""
    global _choice
    import os, binascii

    if _choice:
        with open("p/" + str(_choice) + ".py", "rb") as f:
            crc = binascii.crc32(f.read())
        with open("p/active.tmp", "w") as f:
            f.write("%d %08x" % (_choice, crc))
        os.rename("p/active.tmp", "p/active")
    _choice = 0
    port.chooses(0)


def launcher():
    """What main.py of a board calls: waits for Dot, which starts the active program, and for Bar, which goes to the next."""
    while True:
        button = port.waits()
        if button == "Bar":
            choose_next()
        elif _choice:
            choose_take()
        else:
            launch()


def show_which():
    """Lamps blink and it beeps, so that people see which device it is."""
    port.show_which()


def _kind(error):
    """An error as 'kind|values', of the closed list that the interpreter has too."""
    if type(error) is ProgramError:
        return error.args[0]
    if type(error) is ZeroDivisionError:
        return "division-by-zero|"
    text = str(error)
    if type(error) is TypeError:
        # "unsupported types for __lt__: 'str', 'int'": in the words of the blocks
        kinds = [_NAMES.get(name, "something else") for name in text.split("'")[1::2]]
        for name in ("__lt__", "__gt__", "__le__", "__ge__"):
            if name in text:
                return "unlike-things|" + " and ".join(kinds)
        wrong = [kind for kind in kinds if kind != "a number" and kind != "yes or no"]
        if "argument" in text or "keyword" in text:
            return "python|The function was given too many values, or too few."
        if wrong:
            return "not-a-number|here is " + wrong[0]
        return "python|" + text
    if type(error) is NameError:
        if "'" in text:
            return "python|The name " + text.split("'")[1] + " means nothing here: is it written as elsewhere, and has it a value before this line?"
        return 'python|A name is used before it has a value here. A function that changes a name of the whole program says "global" first.'
    if type(error) is AttributeError and "'" in text:
        return "python|There is nothing called " + text.split("'")[-2] + " in this."
    if type(error) is MemoryError:
        return "python|The board's memory is full."
    if type(error) is RuntimeError:
        return "too-deep|"
    return "python|" + type(error).__name__ + ": " + text


def launch():
    """Runs the active program once. The port marks its text, so that every step can be followed and stopped."""
    path, text = _active()
    if text is None:
        return port.over("nothing", "")
    execute(path, text)


def execute(path, text):
    marked = port.mark(path, text)
    if marked[:1] == "!":
        return port.over("error", "python|" + marked[1:])
    strict = marked[:1] == "#"
    global _space
    space = {"_s": port.step, "_t": port.turn_over, "_x": _stop, "_n": _strict if strict else _n, "_v": _changed, "_in": _enter, "_out": _leave, "__name__": "program"}
    _space = space
    try:
        exec(compile(marked, path, "exec"), space)
        port.over("done", "")
    except KeyboardInterrupt:
        port.over("stopped", "")
    except Exception as error:
        port.over("error", _kind(error))
