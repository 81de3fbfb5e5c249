"""A `machine` that records: what is done to which pin, when; and what its inputs read, as a test sets them."""

import time

log = []  # (microseconds, what, pin, value)
inputs = {}  # by pin: what Pin.value, ADC.read_u16 and time_pulse_us read
registers = {}  # of the chip on I2C: two bytes each
heard = []  # lines that come in on the UART


def _note(what, pin, value):
    log.append((time.ticks_us(), what, pin, value))


class Pin:
    IN, OUT, PULL_UP, IRQ_RISING = 0, 1, 2, 1

    def __init__(self, number, mode=-1, pull=-1):
        self.number = number

    def value(self, to=None):
        if to is None:
            return inputs.get(self.number, 1)
        _note("pin", self.number, to)

    def irq(self, handler, trigger):
        handlers[self.number] = handler


handlers = {}


class PWM:
    def __init__(self, pin):
        self.pin = pin

    def freq(self, hertz):
        _note("freq", self.pin.number, hertz)

    def duty_u16(self, share):
        _note("duty", self.pin.number, share)

    def duty_ns(self, ns):
        _note("ns", self.pin.number, ns)


class ADC:
    def __init__(self, pin):
        self.pin = pin

    def read_u16(self):
        return inputs.get(self.pin.number, 0)


class I2C:
    def __init__(self, number, scl, sda, freq=400000):
        pass

    def writeto_mem(self, address, register, data):
        _note("i2c", register, data[0])

    def readfrom_mem(self, address, register, count):
        return registers.get(register, bytes(count))


class UART:
    def __init__(self, number, baud, tx, rx):
        self.tx = tx.number

    def write(self, text):
        _note("uart", self.tx, text)

    def any(self):
        return len(heard)

    def readline(self):
        return heard.pop(0)


def bitstream(pin, encoding, timing, data):
    _note("bits", pin.number, bytes(data))


def time_pulse_us(pin, level, limit):
    return inputs.get(pin.number, -2)


def unique_id():
    return b"\x01\x02\xfe"
