"""Moss Bell board library: the verbs that the blocks print.

It has two layers. The verbs are here. What drives pins and motors is the port layer, `mossbell_port`: on the stand-in a
module of the simulator, on a real board a small file printed from the kit sheet. Runs on MicroPython 1.20 and later.
"""

import mossbell_port as port

VERSION = "1.0"
_LARGEST = 9007199254740992  # 2 ** 53


class ProgramError(Exception):
    """An error of the person's program: its kind and the values that led to it, as 'kind|values'."""


def _ok(answer):
    """What the port answers; an error comes as '!kind|values'."""
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


def _n(value):
    """The result of arithmetic, refused beyond 2 ** 53."""
    if type(value) is not str and not -_LARGEST <= value <= _LARGEST:
        raise ProgramError("too-large|")
    return value


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


turn = _Turn()


def _pause(handle):
    if _together:
        return _Wait(handle)
    _ok(port.finish(handle))


def wait(seconds):
    return _pause(_ok(port.alarm(_f(seconds), 1000000)))


def wait_ms(milliseconds):
    return _pause(_ok(port.alarm(_f(milliseconds), 1000)))


def wait_until(condition):
    if _together:
        return _Until(condition)
    while not condition():
        _ok(port.next_tick())


def until(condition):
    """Ends a loop that is looked at after each turn."""
    return condition


# ---- parts ----


def _measure(cm, turns, seconds, degrees):
    for unit, amount in (("cm", cm), ("wheel turns", turns), ("s", seconds), ("°", degrees)):
        if amount is not None:
            return _f(amount), unit
    raise ProgramError("not-a-number|no amount")


class Wheels:
    def __init__(self, left, right, diameter_mm, track_mm):
        both = diameter_mm if type(diameter_mm) is tuple else (diameter_mm, diameter_mm)
        _ok(port.wheels(left, right, both[0], both[1], track_mm))

    def drive(self, power, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.drive("ahead", amount, unit, _f(power), ending)))

    def back(self, power, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.drive("back", amount, unit, _f(power), ending)))

    def turn(self, power, ending, left=None, right=None):
        if left is not None:
            return _pause(_ok(port.turn_on_spot("left", _f(left), _f(power), ending)))
        return _pause(_ok(port.turn_on_spot("right", _f(right), _f(power), ending)))

    def run(self, left, right):
        _ok(port.run_wheels(_f(left), _f(right)))

    def run_for(self, left, right, ending, cm=None, turns=None, seconds=None):
        amount, unit = _measure(cm, turns, seconds, None)
        return _pause(_ok(port.span_wheels(_f(left), _f(right), amount, unit, ending)))

    def stop(self, ending):
        _ok(port.stop_wheels(ending))

    def turns(self, side):
        return _ok(port.wheel_turns(side))


class Motor:
    def __init__(self, socket):
        self.socket = socket

    def run(self, power):
        _ok(port.run_motor(self.socket, _f(power)))

    def run_for(self, power, ending, seconds=None, degrees=None, turns=None):
        amount, unit = _measure(None, turns, seconds, degrees)
        return _pause(_ok(port.span_motor(self.socket, _f(power), amount, unit, ending)))

    def stop(self, ending):
        _ok(port.stop_motor(self.socket, ending))


class Servo:
    def __init__(self, socket):
        self.socket = socket

    def angle(self, degrees):
        _ok(port.servo(self.socket, _f(degrees)))


def servos_to_middle():
    _ok(port.servos_middle())


class Lamp:
    def __init__(self, side):
        self.side = side

    def on(self):
        _ok(port.lamp(self.side, "on"))

    def off(self):
        _ok(port.lamp(self.side, "off"))

    def flip(self):
        _ok(port.lamp(self.side, "flip"))

    def colour(self, name):
        _ok(port.lamp_colour(self.side, name))


class Picture:
    """Five rows of seven: '#' lit, '.' dark, a space between rows."""

    def __init__(self, rows):
        self.rows = rows

    def __eq__(self, other):
        return type(other) is Picture and other.rows == self.rows

    def __hash__(self):
        return hash(self.rows)


def _plain(value):
    """A value as it crosses the port; a picture is told from text by what stands before it."""
    if type(value) is Picture:
        return "picture " + value.rows
    if type(value) is str:
        return "text " + value
    return _f(value)


class Display:
    def pixel(self, x, y, to):
        _ok(port.pixel(_f(x), _f(y), to))

    def show(self, picture):
        _ok(port.show(_plain(picture)))

    def dark(self):
        _ok(port.dark())


def tone(hertz, seconds):
    _ok(port.tone(_f(hertz), _f(seconds)))
    return wait(seconds)


def beep():
    return tone(990, 0.15)


class Distance:
    def __init__(self, socket):
        self.socket = socket

    def cm(self):
        return _ok(port.distance())

    def sees(self):
        return _ok(port.something_ahead())


class Line:
    def __init__(self, socket):
        self.socket = socket

    def reads(self):
        return _ok(port.line_reads(self.socket))

    def over(self, what):
        return _ok(port.line_over(self.socket, what))


class Nose:
    def touched(self):
        return _ok(port.nose())


class Gyro:
    def heading(self):
        return _ok(port.heading())


class Button:
    def __init__(self, name):
        self.name = name
        self.pressed = "button " + name + " pressed"
        self.released = "button " + name + " released"
        self.held = "button " + name + " held"

    def is_held(self):
        return _ok(port.button(self.name))


def timer():
    return _ok(port.timer())


def log(value):
    _ok(port.log(_plain(value)))


def whole(value):
    """A whole number within 1e-9, or an error: counts, places and pixels."""
    if type(value) is int:
        return value
    nearest = round(value)
    if not -1e-9 <= value - nearest <= 1e-9:
        raise ProgramError("not-whole|here is " + repr(value))
    return nearest


def chance(first, last):
    return int(_ok(port.chance(_f(first), _f(last))))


# ---- running: tasks share one processor and give way at `await` ----


class when:
    """A trigger and the function that runs each time it fires."""

    def __init__(self, trigger, function):
        self.trigger = trigger
        self.function = function


class _Task:
    def __init__(self, function, number):
        self.function = function
        self.number = number
        self.steps = function()
        self.wait = None
        self.seen = 0


def run(*parts):
    """Runs functions, and the functions of triggers when they fire. One plain function alone is simply called."""
    global _together
    starters = [p for p in parts if type(p) is when]
    mains = [p for p in parts if type(p) is not when]
    _together = len(parts) != 1 or len(starters) > 0
    if not _together:
        port.began("start")
        port.task(1)
        mains[0]()
        return
    tasks = []
    count = 0
    for main in mains:
        count += 1
        tasks.append(_Task(main, count))
        port.began("start")
    while True:
        fired = port.fired()
        if fired:
            for trigger in fired.split("\n"):
                for starter in starters:
                    if starter.trigger == trigger:
                        if any([t.function is starter.function for t in tasks]):
                            port.missed(trigger)
                        else:
                            count += 1
                            tasks.append(_Task(starter.function, count))
                            port.began(trigger)
        ran = False
        i = 0
        while i < len(tasks):
            task = tasks[i]
            waits = task.wait
            port.task(task.number)
            if waits is None:
                ready = True
            elif type(waits) is int:
                ready = port.ready(waits)
            elif task.seen == port.ticks():
                ready = False
            else:
                task.seen = port.ticks()
                ready = waits()
            if ready:
                ran = True
                try:
                    task.wait = task.steps.send(None)
                    task.seen = port.ticks()
                except StopIteration:
                    tasks.pop(i)
                    continue
            i += 1
        if not ran:
            if not tasks and not starters:
                return
            _ok(port.idle())


# ---- the launcher: what main.py calls ----


def _stop():
    raise KeyboardInterrupt


def _enter():
    if port.enter():
        raise ProgramError("too-deep|")


def _checked(path):
    """The text of a program file if the checksum in its last line holds, or None."""
    import binascii

    try:
        with open(path, "rb") as f:
            data = f.read()
    except OSError:
        return None
    cut = data.rfind(b"# moss bell crc ")
    if cut < 0 or binascii.crc32(data[:cut]) != int(data[cut + 16 : cut + 24], 16):
        return None
    return data[:cut].decode()


def _active():
    """The program that the button starts: the one in p/active, or the newest whose checksum holds."""
    import os

    try:
        with open("p/active") as f:
            path = "p/" + f.read().split()[0] + ".py"
        text = _checked(path)
        if text is not None:
            return path, text
    except (OSError, IndexError):
        pass
    try:
        numbers = sorted([int(n[:-3]) for n in os.listdir("p") if n.endswith(".py")])
    except OSError:
        numbers = []
    while numbers:
        path = "p/" + str(numbers.pop()) + ".py"
        text = _checked(path)
        if text is not None:
            return path, text
    return None, None


def _kind(error):
    """An error as 'kind|values', of the closed list that the interpreter has too."""
    if type(error) is ProgramError:
        return error.args[0]
    if type(error) is ZeroDivisionError:
        return "division-by-zero|"
    text = str(error)
    if type(error) is TypeError:
        for name in ("__lt__", "__gt__", "__le__", "__ge__"):
            if name in text:
                return "unlike-things|" + text
        return "not-a-number|" + text
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
    space = {"_s": port.step, "_t": port.turn_over, "_x": _stop, "_n": _n, "_in": _enter, "_out": port.leave, "__name__": "program"}
    try:
        exec(compile(marked, path, "exec"), space)
        port.over("done", "")
    except KeyboardInterrupt:
        port.over("stopped", "")
    except Exception as error:
        port.over("error", _kind(error))
