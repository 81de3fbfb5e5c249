/**
 * The port of boards that run MicroPython, on a MicroPython that is not simulated: what each verb of the library does to
 * which pin, and when, against what the rehearsal of the same program does.
 */
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { utf8 } from '../../core/bytes.ts';
import { barrow, saucer, type Kit } from '../../core/kit/kit.ts';
import { FULL_SPEED } from '../../core/kit/ranges.ts';
import { pulseFor } from '../../core/kit/pulse.ts';
import { FONT, written } from '../../core/language/letters.ts';
import { printPython } from '../../core/language/python/print.ts';
import type { Step } from '../../core/language/program.ts';
import { boardFiles } from '../../core/link/board.ts';
import { programFile } from '../../core/link/file.ts';
import { chooseProgram, typeLine } from '../../core/link/programs.ts';
import { RawRepl } from '../../core/link/repl.ts';
import { identify, send } from '../../core/link/send.ts';
import { b, end, program, run, start, wait } from '../../core/testing/build.ts';
import { askedAndGot } from '../../core/trace/query.ts';
import type { Trace } from '../../core/trace/trace.ts';
import { library } from '../standin/bed.ts';
import { ChildBoard } from './child.ts';

const PINS = {
  'J1.forward': 2,
  'J1.back': 3,
  'J2.forward': 4,
  'J2.back': 5,
  'J4.signal': 6,
  'J5.signal': 7,
  'J7.trigger': 8,
  'J7.echo': 9,
  'J8.signal': 26,
  'J9.signal': 27,
  'Dot.signal': 10,
  'Bar.signal': 11,
  'lamps.data': 12,
  'display.data': 13,
  'sounder.signal': 14,
  'nose.signal': 15,
  'wire.sda': 16,
  'wire.scl': 17,
  'radio.tx': 18,
  'radio.rx': 19,
  'battery.signal': 28
};
const kit: Kit = { ...barrow, pins: PINS };
const port = readFileSync(new URL('../lib/port_machine.py', import.meta.url), 'utf8');
type Note = { us: number; what: string; pin: number; value: number | string };

let board: ChildBoard;
beforeAll(() => (board = new ChildBoard()));
afterAll(() => board.close());

const put = (text: string, name: string, of: Kit = kit): ReturnType<typeof send> =>
  send(board, {
    file: utf8(programFile(text, { name, at: 0, device: of.device })),
    device: of.device,
    library,
    files: boardFiles(of, port),
    mayInstall: async () => true,
    progress: () => {}
  });
/** Sends a text, lets it run, and reads what was done to the pins and what the program said. */
async function played(
  text: string,
  of: Kit = kit,
  before = '',
  earlier = ''
): Promise<{ notes: Note[]; said: string[] }> {
  await put(text, 'played', of);
  const repl = new RawRepl(board);
  await repl.enter();
  const out = (
    await repl.exec(
      `import sys, machine\nfor _n in ('mossbell', 'mossbell_port', 'mossbell_pins'):\n    sys.modules.pop(_n, None)\nmachine.log.clear()\nmachine.inputs.clear()\n${before}\nimport mossbell, time\n${earlier}_t = time.ticks_us()\nmossbell.launch()\nprint('----')\nfor _e in machine.log:\n    print(time.ticks_diff(_e[0], _t), _e[1], _e[2], _e[3] if type(_e[3]) is not bytes else _e[3].hex())`,
      30_000
    )
  ).replaceAll('\r\n', '\n');
  await repl.leave();
  const [said, listed] = out.split('----\n');
  return {
    said: said.split('\n').filter(Boolean),
    notes: listed
      .split('\n')
      .filter(Boolean)
      .map((line) => {
        const [us, what, pin, ...rest] = line.split(' ');
        const value = rest.join(' ');
        return {
          us: Number(us),
          what,
          pin: Number(pin),
          value: what === 'bits' || what === 'uart' ? value : Number(value)
        };
      })
  };
}
const rehearsed = (steps: Step[], of: Kit = kit): Trace => run(program(start(...steps)), { kit: of });
const both = async (steps: Step[], of: Kit = kit, before = '') => ({
  trace: rehearsed(steps, of),
  ...(await played(printPython(program(start(...steps)), of).text, of, before))
});
/** From when to when a pin was driven, s: its duty is not 0. */
function driven(notes: Note[], ...pins: number[]): [number, number] {
  const all = notes.filter((n) => n.what === 'duty' && pins.includes(n.pin));
  const on = all.filter((n) => Number(n.value) > 0 && Number(n.value) < 65535);
  return [on[0].us / 1e6, (all.find((n) => n.us > on.at(-1)!.us)?.us ?? on.at(-1)!.us) / 1e6];
}
const peak = (notes: Note[], pin: number): number =>
  Math.max(
    0,
    ...notes.filter((n) => n.what === 'duty' && n.pin === pin && Number(n.value) < 65535).map((n) => Number(n.value))
  ) / 65535;

describe('a board of one’s own', () => {
  it('takes library, port, pins and program over the same procedure, and only what differs the next time', async () => {
    const first = await put('from mossbell import *\n\n\ndef main():\n    log("hi")\n\n\nrun(main)\n', 'hi');
    expect([first.found.library, first.found.device, first.found.serial]).toEqual(['', '', '']);
    const told: string[] = [];
    const again = await send(board, {
      file: utf8(programFile('from mossbell import *\n', { name: 'x', at: 0, device: 'barrow' })),
      device: 'barrow',
      library,
      files: boardFiles(kit, port),
      mayInstall: async () => false,
      progress: (p) => told.push(p.stage)
    });
    expect(told).not.toContain('library');
    expect(again.found).toMatchObject({ library: '1.8', device: 'barrow', serial: '0102fe', micropython: '1.27' });
    expect((await chooseProgram(board, 1)).programs.map((p) => [p.number, p.starts])).toEqual([
      [2, false],
      [1, true]
    ]);
    expect(await typeLine(board, 'import mossbell_pins; print(mossbell_pins.LEADS["J1.back"])')).toBe('3');
    await expect(put('x', 'x', { ...saucer, pins: {} })).rejects.toThrow('This device is a Barrow');
    expect((await identify(board)).programs).toHaveLength(2);
  });

  const moves: [string, Step][] = [
    ['drive ahead', b('drive.measure', { amount: 12, power: 60 })],
    [
      'drive back, in turns of the wheels',
      b('drive.measure', { way: 'back', amount: 0.5, unit: 'wheel turns', power: 40 })
    ],
    ['drive for a time', b('drive.measure', { amount: 0.6, unit: 's', power: 50 })],
    ['drive, coasting', b('drive.measure', { amount: 12, power: 60, ending: 'coast' })],
    ['turn left', b('turn.angle', { side: 'left', angle: 60, power: 40 })],
    ['turn right', b('turn.angle', { side: 'right', angle: 45, power: 40 })],
    ['curve', b('curve.angle', { side: 'right', radius: 15, angle: 45, power: 50 })],
    ['wheels for a way', b('wheels.span', { left: 60, right: 30, amount: 12, unit: 'cm' })],
    ['a motor for a time', b('motor.span', { motor: 'J2', power: 50, amount: 0.5, unit: 's' })]
  ];
  it.each(moves)(
    '%s: its motors are on as long as in the rehearsal, the same way round and at its power',
    async (_, step) => {
      const { trace, notes } = await both([step]);
      const [move] = askedAndGot(trace);
      const event = trace.events.find((e) => e.type === 'move')!;
      const over = trace.events.find((e) => e.type === 'moved')!;
      const [from, to] = driven(notes, 2, 3, 4, 5);
      expect(move.ended).toBe('done');
      // in the yard a move is over when its wheels stand on their mark, which takes up to a fifth of a second more
      expect(Math.abs(to - from - (over.tUs - event.tUs) / 1e6), `${to - from} s`).toBeLessThan(0.25);
      // each wheel the same way round as the wheel in the yard turned
      for (const [wheel, forward, back, mirrored] of [
        ['turnsLeft', 2, 3, true],
        ['turnsRight', 4, 5, false]
      ] as const) {
        const last = end(trace).values[wheel];
        if (Math.abs(last) < 0.02) {
          expect(Math.max(peak(notes, forward), peak(notes, back))).toBe(0);
          continue;
        }
        const ahead = last > 0 !== mirrored ? forward : back;
        expect(peak(notes, ahead), wheel).toBeGreaterThan(0.05);
        expect(peak(notes, ahead === forward ? back : forward), wheel).toBe(0);
      }
    }
  );
  it('runs wheels and motors at their power, and ends in brake or coast', async () => {
    const steps = [
      b('wheels.run', { left: 70, right: -30 }),
      wait(0.1),
      b('wheels.stop', { ending: 'brake' }),
      wait(0.05),
      b('motor.run', { motor: 'J2', power: 40 }),
      wait(0.05),
      b('motor.stop', { motor: 'J2', ending: 'coast' })
    ];
    const { notes } = await both(steps);
    const duty = (pin: number) =>
      notes.filter((n) => n.what === 'duty' && n.pin === pin).map((n) => Math.round((Number(n.value) / 65535) * 100));
    // the left motor is mounted mirrored: ahead is its other input
    expect(duty(2)).toEqual([0, 100]);
    expect(duty(3)).toEqual([70, 100]);
    expect(duty(4)).toEqual([0, 100, 40, 0]);
    expect(duty(5)).toEqual([30, 100, 0, 0]);
    const [on, off] = driven(notes, 3);
    expect(off - on).toBeCloseTo(0.1, 1);
  });
  it('turns servos by pulses of 1.0 to 2.0 ms, 50 a second, at once and slowly (common practice)', async () => {
    const steps = [
      b('servo.angle', { servo: 'J4', angle: 0 }),
      b('servo.angle', { servo: 'J4', angle: 90 }),
      b('servo.angle', { servo: 'J4', angle: 180 }),
      b('servo.slow', { servo: 'J5', angle: 150, time: 0.4 })
    ];
    const { notes } = await both(steps);
    expect(notes.filter((n) => n.pin === 6 && n.what === 'freq').map((n) => n.value)).toEqual([50]);
    expect(notes.filter((n) => n.pin === 6 && n.what === 'ns').map((n) => Number(n.value) / 1e6)).toEqual(
      [0, 90, 180].map((deg) => pulseFor(deg))
    );
    const slow = notes.filter((n) => n.pin === 7 && n.what === 'ns');
    expect(Number(slow.at(-1)!.value) / 1e6).toBeCloseTo(pulseFor(150), 4);
    expect((slow.at(-1)!.us - slow[0].us) / 1e6).toBeCloseTo(0.4, 1);
    expect(slow.every((n, i) => i === 0 || n.value >= slow[i - 1].value)).toBe(true);
  });
  it('lights lamps and display: 24 bits each, green first', async () => {
    const steps = [
      b('lamp.set', { lamp: 'left', to: 'on' }),
      b('lamp.colour', { lamp: 'right', colour: 'red' }),
      b('display.write', { what: '7' }),
      b('display.dark')
    ];
    const { trace, notes } = await both(steps);
    const bits = (pin: number) => notes.filter((n) => n.what === 'bits' && n.pin === pin).map((n) => String(n.value));
    // amber, then red beside it
    expect(bits(12)).toEqual(['8cff00000000', '8cff0000ff00']);
    const picture = trace.events.find((e) => e.type === 'display')!.picture;
    expect(picture).toBe(written('7', { columns: 7, rows: 5, levels: 5, colours: false }).picture);
    const shown = [...picture.replaceAll(' ', '')].map((sign) => (sign === '#' ? 'ffffff' : '000000')).join('');
    expect(bits(13)).toEqual([shown, '000000'.repeat(35)]);
    expect(Object.keys(FONT)).toContain('7');
  });
  it('plays tones and notes at the pitches and for the lengths of the rehearsal', async () => {
    const steps = [
      b('sound.tone', { pitch: 440, time: 0.1 }),
      b('sound.tempo', { beats: 300 }),
      b('sound.play', { notes: 'C4 - E4*2' })
    ];
    const { trace, notes } = await both(steps);
    const asked = trace.events.flatMap((e) => (e.type === 'tone' && e.hertz > 0 ? [Math.round(e.hertz)] : []));
    const pitches = notes.filter((n) => n.what === 'freq' && n.pin === 14).map((n) => Number(n.value));
    expect([...new Set(pitches)].filter((hertz) => hertz !== 1000)).toEqual(asked);
    expect(asked).toEqual([440, 262, 330]);
    const last = notes.filter((n) => n.pin === 14 && n.what === 'duty');
    expect(last.at(-1)!.us / 1e6).toBeGreaterThan(0.1 + 3 * 0.2 - 0.05);
  });
  it('reads its sensors: echo, voltages, switches, the motion sensor', async () => {
    const text = `from mossbell import *

wheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)
nose = Distance("J7")
left = Line("J8")


def main():
    log(nose.cm())
    log(nose.sees())
    log(left.reads())
    log(left.over("dark"))
    log(Nose().touched())
    log(Button("Dot").is_held())
    log(battery())
    log(Motion().acceleration("z"))
    log(Gyro().rate())
    send("come", nearby=True)
    log(last_message())


run(main)
`;
    // 25 cm there and back at 343 m/s are 1458 us
    const { said, notes } = await played(
      text,
      kit,
      'machine.inputs.update({9: 1458, 26: 13107, 15: 0, 10: 1, 28: 49648})\nmachine.registers.update({0x3F: b"\\x40\\x00", 0x47: b"\\x00\\x00"})'
    );
    const logged = said.filter((line) => line.includes(' log ')).map((line) => line.slice(line.indexOf(' log ') + 5));
    expect(logged.slice(0, 6)).toEqual(['25', 'yes', '20', 'yes', 'yes', 'no']);
    expect(Number(logged[6])).toBeGreaterThan(35);
    expect(logged.slice(7)).toEqual(['1', '0', 'come']);
    // its trigger goes up for ten microseconds
    const trigger = notes.filter((n) => n.pin === 8).map((n) => n.value);
    expect(trigger.slice(0, 3)).toEqual([0, 1, 0]);
    expect(notes.find((n) => n.what === 'uart')!.value).toBe('come');
  });
  it('steers by the gyro as a weak motor pulls it off its way, and holds a motor to its speed by its encoder', async () => {
    // a plant of three lines: what a pin is driven with turns its wheel, the right one and the blade's weaker than the left
    const plant = `import math, time
import mossbell_pins as P
_weak = {2: 1, 4: 0.9}
_drives = {}
_counted = [0.0, time.ticks_us()]
_write = machine.PWM.duty_u16
def _turns(pin):
    mirrored = P.PARTS['J1' if pin == 2 else 'J2'].get('mirrored')
    share = (_drives.get(pin, 0) - _drives.get(pin + 1, 0)) / 65535
    return (-share if mirrored else share) * P.FREE_TURNS * _weak[pin]
def _duty(self, share):
    now = time.ticks_us()
    _counted[0] += abs(_turns(4)) * P.COUNTS * time.ticks_diff(now, _counted[1]) / 1000000
    _counted[1] = now
    while _counted[0] >= 1:
        _counted[0] -= 1
        if 21 in machine.handlers:
            machine.handlers[21](None)
    _drives[self.pin.number] = share
    _write(self, share)
def _rate(self, address, register, count):
    if register != 0x47:
        return bytes(2)
    spin = (_turns(2) - _turns(4)) * math.pi * 0.068 / 0.124
    raw = int(-math.degrees(spin) * 131) & 0xFFFF
    return bytes([raw >> 8, raw & 255])
machine.PWM.duty_u16 = _duty
machine.I2C.readfrom_mem = _rate
`;
    const text = (line: string): string =>
      `from mossbell import *\n\nwheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)\nblade = Motor("J2")\n\n\ndef main():\n    ${line}\n    log(Gyro().turned())\n\n\nrun(main)\n`;
    /** how far it turned, by its own gyro, degrees clockwise */
    const turned = async (line: string): Promise<number> => {
      board.close();
      board = new ChildBoard();
      const { said } = await played(text(line), kit, plant);
      return Number(said.find((l) => l.includes(' log '))!.split(' log ')[1]);
    };
    const byWheels = await turned('wheels.drive(cm=40, power=50, ending="brake")');
    expect(byWheels).toBeGreaterThan(8);
    const straight = await turned('wheels.drive_facing(cm=40, heading=0, power=50, ending="brake")');
    expect(Math.abs(straight)).toBeLessThan(1.5);
    const right = await turned('wheels.turn_gyro(right=90, power=30, ending="brake")');
    expect(Math.abs(right - 90)).toBeLessThan(1.5);
    const left = await turned('wheels.turn_gyro(left=90, power=30, ending="brake")');
    expect(Math.abs(left + 90)).toBeLessThan(1.5);
    // J2 reaches nine tenths of what it is driven with: what keeps its speed is driven with more
    const counted: Kit = { ...kit, pins: { ...PINS, 'J2.encoder': 21 } };
    const blade = async (line: string): Promise<[number, number]> => {
      board.close();
      board = new ChildBoard();
      const { notes, said } = await played(
        text(
          `${line}; blade.run(50); wait(0.6); a = blade.degrees(); s = timer(); wait(1); log((blade.degrees() - a) / 360 * 21.36 / (timer() - s)); blade.stop("brake")`
        ),
        counted,
        plant
      );
      const spoken = said.filter((l) => l.includes(' log ')).map((l) => Number(l.split(' log ')[1]));
      const on = notes.filter((n) => n.what === 'duty' && [4, 5].includes(n.pin) && Number(n.value) % 65535 > 0);
      // a stall of the machine that the test runs on is made up for by a burst: the middle one of all is what it is held at
      const duties = on.map((n) => Number(n.value) / 65535).sort((a, b) => a - b);
      return [duties[duties.length >> 1], spoken[0]];
    };
    const [byPower, slower] = await blade('blade.keeps("power")');
    const [bySpeed, held] = await blade('blade.keeps("speed")');
    expect(byPower).toBeCloseTo(0.5, 3);
    const unloaded = (0.5 * FULL_SPEED) / (barrow.motor.freeTurnsPerS * Math.PI * 0.068);
    expect(bySpeed / unloaded).toBeCloseTo(1 / 0.9, 1);
    expect(bySpeed).toBeGreaterThan(unloaded * 1.03);
    // 50 % of full speed, cm/s
    expect(Math.abs(held - 50 * FULL_SPEED)).toBeLessThan(1);
    expect(slower).not.toBeCloseTo(held, 0);
  });
  it('runs a second time as it did the first', async () => {
    const text = printPython(program(start(b('drive.measure', { amount: 6 }))), kit).text;
    const [once, twice] = [await played(text), await played(text, kit, '', 'mossbell.launch()\nmachine.log.clear()\n')];
    const [first, second] = [once, twice].map(({ notes }) => driven(notes, 2, 3, 4, 5));
    expect(second[1] - second[0]).toBeGreaterThan(0.3);
    expect(Math.abs(second[1] - second[0] - (first[1] - first[0]))).toBeLessThan(0.15);
  });
  it('runs several stacks, and tells an error as its kind', async () => {
    const text = `from mossbell import *


async def main():
    await wait(0.1)
    log("one")


async def other():
    await wait(0.05)
    log("two")


run(main, other)
`;
    const { said } = await played(text);
    expect(said.map((line) => line.split(' ').slice(1).join(' '))).toEqual(['log two', 'log one', 'ended done']);
    expect(Number(said[1].split(' ')[0])).toBeCloseTo(0.1, 1);
    const failed = await played('from mossbell import *\n\n\ndef main():\n    log(1 / 0)\n\n\nrun(main)\n');
    expect(failed.said.at(-2)).toContain('error division-by-zero|');
    const nowhere = await played('from mossbell import *\n\n\ndef main():\n    light()\n\n\nrun(main)\n');
    expect(nowhere.said.at(-2)).toContain('The pins page of the kit sheet gives no pin for the signal of light.');
  });
  it('has everything that the library asks of a port', () => {
    const asked = new Set(new TextDecoder().decode(library.file).match(/(?<=\bport\.)[a-z_0-9]+/g));
    const there = new Set(port.match(/(?<=^def )[a-z_0-9]+|^[a-z_]+(?= = )/gm));
    expect([...asked].filter((name) => !there.has(name))).toEqual([]);
    expect(asked.size).toBeGreaterThan(90);
  });
  const ARMS = 'arm = Servo("J4")\nround = Spin("J5")\n';
  const spins: Kit = {
    ...kit,
    parts: kit.parts.map((p) =>
      p.socket === 'J5' ? { socket: 'J5', type: 'spin', name: 'round', at: { xMm: 0, yMm: 0, deg: 0 } } : p
    ) as Kit['parts']
  };
  const lit = (...levels: number[]): string =>
    levels
      .map((l) =>
        Math.floor((l * 255) / 100 + 0.5)
          .toString(16)
          .padStart(2, '0')
          .repeat(3)
      )
      .join('');
  /** What a line does: to which pin, what, as it is noted. */
  const verbs: [string, number, string, (number | string)[]][] = [
    ['arm.share(50)', 6, 'ns', [1_500_000]],
    ['round.spin(100)', 7, 'ns', [2_000_000]],
    ['round.spin(-50)', 7, 'ns', [1_250_000]],
    ['servos_to_middle()', 6, 'ns', [1_500_000]],
    ['Lamp("left").level(50)', 12, 'bits', ['468000000000']],
    ['Lamp("left").flip()', 12, 'bits', ['8cff00000000']],
    ['Display().level(1, 0, 25)', 13, 'bits', [lit(0, 25, ...Array(33).fill(0))]],
    ['Display().colour(0, 0, "green")', 13, 'bits', ['ff0000' + '000000'.repeat(34)]],
    ['Display().pixel(6, 4, "on")', 13, 'bits', [lit(...Array(34).fill(0), 100)]],
    [
      'Display().show(Picture("#+ .* -"))',
      13,
      'bits',
      [lit(100, 50, 0, 0, 0, 0, 0, 0, 75, 0, 0, 0, 0, 0, 25, ...Array(20).fill(0))]
    ],
    [
      'Display().show(Picture("#"), right=2, down=1)',
      13,
      'bits',
      [lit(...Array(9).fill(0), 100, ...Array(25).fill(0))]
    ],
    ['start_tone(500); wait(0.02); silence()', 14, 'duty', [32767, 0]],
    ['volume(50); start_tone(500); wait(0.02); silence()', 14, 'duty', [16383, 0]],
    ['beep()', 14, 'freq', [990, 990]]
  ];
  it.each(verbs)('%s', async (line, pin, what, values) => {
    const { notes, said } = await played(
      `from mossbell import *\n\n${ARMS}\n\ndef main():\n    ${line}\n\n\nrun(main)\n`,
      spins
    );
    expect(said.at(-1)).toContain('ended done');
    expect(notes.filter((n) => n.pin === pin && n.what === what).map((n) => n.value)).toEqual(values);
  });
  it('lets a text pass, column by column, every tenth of a second', async () => {
    const { trace, notes } = await both([b('display.write', { what: 'I', how: 'passing' })]);
    const pictures = trace.events.flatMap((e) => (e.type === 'display' ? [e.picture] : []));
    const bits = notes.filter((n) => n.what === 'bits' && n.pin === 13);
    const shown = bits.map((n) =>
      (String(n.value).match(/.{6}/g) ?? []).map((hex) => (hex === '000000' ? '.' : '#')).join('')
    );
    // the trace tells a picture once where the next is the same
    const changes = shown.filter((picture, i) => picture !== (shown[i - 1] ?? '.'.repeat(35)));
    expect(changes).toEqual(pictures.map((picture) => picture.replaceAll(' ', '')));
    // a loaded machine is late, never early
    const tenths = (bits.at(-1)!.us - bits[0].us) / 1e5 / (bits.length - 1);
    expect(tenths).toBeGreaterThan(0.98);
    expect(tenths).toBeLessThan(1.5);
  });
  it('slides on three wheels with rollers as in the rehearsal', async () => {
    const round: Kit = {
      ...saucer,
      pins: Object.fromEntries(
        ['J1', 'J2', 'J3'].flatMap((j, i) => [
          [`${j}.power`, 20 + 2 * i],
          [`${j}.direction`, 21 + 2 * i]
        ])
      )
    };
    board.close();
    board = new ChildBoard();
    const { trace, notes } = await both([b('slide.measure', { direction: 90, amount: 10, power: 60 })], round);
    const moved = trace.events.find((e) => e.type === 'moved')!;
    const [from, to] = driven(notes, 20, 22, 24);
    expect(Math.abs(to - from - moved.tUs / 1e6)).toBeLessThan(0.25);
    const way = (pin: number): number => {
      const all = notes.filter((n) => n.what === 'pin' && n.pin === pin);
      return all[Math.floor(all.length / 2)].value ? 1 : -1;
    };
    // the wheel whose way is the direction goes furthest, the two others half of it and the other way round
    const shares = [20, 22, 24].map((pin) => peak(notes, pin) * way(pin + 1));
    const turned = saucer.wheels.map(({ id }) => end(trace).values[`turns${id[0].toUpperCase()}${id.slice(1)}`]);
    const [top, most] = [Math.max(...shares.map(Math.abs)), Math.max(...turned.map(Math.abs))];
    const mounted = saucer.wheels.map(({ id }) =>
      saucer.parts.some((p) => p.type === 'motor' && p.drives === id && p.mounted === 'mirrored') ? -1 : 1
    );
    shares.forEach((share, i) => expect(share / top).toBeCloseTo((mounted[i] * turned[i]) / most, 1));
  });
});
