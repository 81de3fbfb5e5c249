/** Each command of a device, and what comes of it: events, motors without wheels, servos, readings, refusals. */
import { describe, expect, it } from 'vitest';
import { barrow, trowel, type Kit, resized } from '../kit/kit.ts';
import type { Step } from '../language/program.ts';
import { channelSpecs } from './channels.ts';
import { b, end, hall, logs, log, program, run, start, wait } from '../testing/build.ts';
import { KITS } from '../testing/kits.ts';
import { sampleAt } from '../trace/query.ts';
import { channel, type Trace, type TraceEvent } from '../trace/trace.ts';

const of = <T extends TraceEvent['type']>(trace: Trace, type: T) =>
  trace.events
    .filter((e): e is Extract<TraceEvent, { type: T }> => e.type === type)
    .map(({ tUs: _, block: __, ...e }) => e);
const failed = (steps: Step[], kit: Kit = barrow): string => {
  const e = run(steps, { kit }).events.find((one) => one.type === 'error');
  return e?.type === 'error' ? `${e.kind}: ${/\((.*)\)$/.exec(e.message)?.[1] ?? ''}` : 'no error';
};
const at = (trace: Trace, key: string, seconds: number): number =>
  sampleAt(channel(trace, key)!, Math.round(seconds * 1000) - 1);
const round = (v: number, places = 3): number => Number(v.toFixed(places));
/** Barrow with a motor in R that drives no wheel, and a spin servo in W. */
const hoist: Kit = {
  ...barrow,
  parts: [
    ...barrow.parts,
    { socket: 'J3', type: 'motor', name: 'hoist', mounted: 'normal' },
    { socket: 'J6', type: 'spin', name: 'fan' }
  ]
};

describe('the face', () => {
  it('lights lamps: on, off, flipped, at a level, in a colour; the same again is no event', () => {
    const lamp = (to: string) => b('lamp.set', { lamp: 'right', to });
    const trace = run([
      lamp('flip'),
      lamp('on'),
      lamp('off'),
      lamp('off'),
      b('lamp.level', { lamp: 'right', level: 120 }),
      b('lamp.level', { lamp: 'right', level: 0 }),
      b('lamp.level', { lamp: 'right', level: -5 }),
      b('lamp.colour', { lamp: 'right', colour: 'green' })
    ]);
    const amber = { type: 'lamp', lamp: 'right', colour: 'amber' };
    expect(of(trace, 'lamp')).toEqual([
      { ...amber, on: true },
      { ...amber, on: false },
      { ...amber, on: true, level: 100 },
      { ...amber, on: false, level: 0 },
      { type: 'lamp', lamp: 'right', colour: 'green', on: true }
    ]);
    expect(of(trace, 'clipped')).toEqual([
      { type: 'clipped', what: 'level', asked: 120, used: 100 },
      { type: 'clipped', what: 'level', asked: -5, used: 0 }
    ]);
  });
  it('writes, and tells what of it was cut off', () => {
    const write = (what: string | number) => b('display.write', { what });
    const trace = run([write('hello'), write('hello'), write('no'), write('hello')]);
    expect(of(trace, 'cut')).toEqual(Array(2).fill({ type: 'cut', text: 'hello', shown: 'HE' }));
    expect(of(trace, 'display')).toHaveLength(3);
    expect(of(run([write('x'.repeat(60))]), 'cut')[0].text).toHaveLength(40);
    expect(of(run([write(12)]), 'cut')).toEqual([]);
  });
  it('sets pixels on, off, flipped and at a level, within the display', () => {
    const pixel = (x: number, y: number, to: string) => b('pixel.set', { x, y, to });
    const pictures = of(
      run([
        pixel(0, 0, 'on'),
        pixel(6, 4, 'flip'),
        pixel(6, 4, 'flip'),
        pixel(0, 0, 'on'),
        pixel(0, 0, 'off'),
        b('pixel.level', { x: 3, y: 2, level: 100 }),
        b('display.dark')
      ]),
      'display'
    ).map((e) => e.picture);
    const dark = '....... ....... ....... ....... .......';
    expect(pictures).toEqual([
      '#...... ....... ....... ....... .......',
      '#...... ....... ....... ....... ......#',
      '#...... ....... ....... ....... .......',
      dark,
      '....... ....... ...#... ....... .......',
      dark
    ]);
    for (const [x, y] of [
      [-1, 0],
      [7, 0],
      [0, -1],
      [0, 5]
    ])
      expect(failed([pixel(x, y, 'on')])).toBe(`out-of-range: x ${x}, y ${y}; x goes from 0 to 6, y from 0 to 4`);
  });
  it('shows pictures, letters and levels as its own display can', () => {
    const shown = (kit: Kit, ...steps: Step[]) => of(run(steps, { kit }), 'display').map((e) => e.picture);
    const { kit: screen } = KITS['with a colour screen'];
    const rows = shown(screen, b('pixel.colour', { x: 11, y: 0, colour: 'blue' }))[0].split(' ');
    expect([rows.length, rows[0], rows[1]]).toEqual([12, '...........b', '............']);
    // what a larger one was painted for is cut, what has colours is lit
    expect(shown(barrow, b('picture.show', { picture: { picture: 'rg........b' } }))).toEqual([
      '##..... ....... ....... ....... .......'
    ]);
    const { kit: strip } = KITS['with a strip'];
    expect(shown(strip, b('picture.show', { picture: { picture: 'rg........b' } }), b('display.dark'))).toEqual([
      'rg........b',
      '...........'
    ]);
    const { kit: wide } = KITS['with lamps of three levels'];
    const level = (n: number) => b('pixel.level', { x: 15, y: 7, level: n });
    expect(shown(wide, level(60), level(10), level(80)).map((p) => p.at(-1))).toEqual(['+', '.', '#']);
    expect(of(run([b('display.write', { what: 'hello' })], { kit: wide }), 'cut')).toEqual([
      { type: 'cut', text: 'hello', shown: 'HELL' }
    ]);
    expect(failed([b('pixel.set', { x: 0, y: 1 })], strip)).toBe(
      'out-of-range: x 0, y 1; x goes from 0 to 10, y from 0 to 0'
    );
  });
  it('says that it has no display, whatever is to be shown', () => {
    const { kit } = KITS['without a display'];
    for (const kind of [
      'picture.show',
      'picture.at',
      'pixel.set',
      'pixel.level',
      'pixel.colour',
      'display.dark',
      'display.write'
    ])
      expect(failed([b(kind)], kit), kind).toBe('no-display: ');
    expect(failed([b('display.write', { what: 'hi', how: 'passing' })], kit)).toBe('no-display: ');
  });
  it('sounds, speaks, logs, plots and marks', () => {
    const trace = run([
      b('sound.volume', { percent: 30 }),
      b('sound.volume', { percent: 130 }),
      b('sound.tone', { pitch: 440, time: 0.1 }),
      b('sound.start', { pitch: 20 }),
      b('sound.start', { pitch: 20 }),
      b('sound.silence'),
      b('sound.silence'),
      b('sound.start', { pitch: 10000 }),
      b('sound.say', { words: 'good day' }),
      b('log.plot', { value: 3, name: 'steps' }),
      b('log.mark', { words: 'half' }),
      log('end')
    ]);
    expect(of(trace, 'volume')).toEqual([
      { type: 'volume', percent: 30 },
      { type: 'volume', percent: 100 }
    ]);
    expect(of(trace, 'tone')).toEqual([
      { type: 'tone', hertz: 440, seconds: 0.1 },
      { type: 'tone', hertz: 20 },
      { type: 'tone', hertz: 0 },
      { type: 'tone', hertz: 10000 }
    ]);
    expect(of(trace, 'speech')).toEqual([{ type: 'speech', text: 'good day' }]);
    expect(of(trace, 'plot')).toEqual([{ type: 'plot', name: 'steps', value: 3 }]);
    expect(of(trace, 'mark')).toEqual([{ type: 'mark', text: 'half' }]);
    expect(failed([b('sound.start', { pitch: 19 })])).toBe('out-of-range: 19 Hz; from 20 to 10000');
    expect(failed([b('sound.start', { pitch: 10001 })])).toContain('10001 Hz');
    expect(failed([b('sound.tempo', { beats: 9 })])).toBe('out-of-range: 9 beats a minute; from 10 to 600');
    expect(failed([b('sound.tempo', { beats: 601 })])).toContain('601 beats');
    expect([failed([b('sound.tempo', { beats: 10 })]), failed([b('sound.tempo', { beats: 600 })])]).toEqual([
      'no error',
      'no error'
    ]);
  });
  it('sends messages to its own stacks and to others, and remembers the last', () => {
    const trace = run(
      program(
        start(
          log(b('sense.message')),
          b('message.send', { name: 'go', whom: 'my stacks' }),
          log(b('sense.message')),
          wait(0.05)
        ),
        [b('begin.message', { name: 'go' }), log('heard')]
      )
    );
    expect(logs(trace).sort()).toEqual(['', 'go', 'heard']);
    expect(of(trace, 'message')).toEqual([{ type: 'message', name: 'go', nearby: false }]);
  });
  it('shows the current of a bare LED while it is lit, and burns one that gets too much', () => {
    const led = (ohm: number): Kit => ({
      ...trowel,
      parts: trowel.parts.map((p) => (p.type === 'lamp' ? { ...p, ohm, colour: 'red' as const } : p))
    });
    const lit = run(
      [b('lamp.set', { lamp: 'left', to: 'on' }), wait(0.05), b('lamp.set', { lamp: 'left', to: 'off' }), wait(0.05)],
      {
        kit: led(220)
      }
    );
    const mA = at(lit, 'lampMa', 0.03);
    // (3.3 V - about 2 V) / 220 ohm and what the pin adds: a few mA (Ohm; common practice for a red LED)
    expect(mA).toBeGreaterThan(2);
    expect(mA).toBeLessThan(8);
    expect(at(lit, 'lampMa', 0.09)).toBe(0);
    expect(of(lit, 'burnt')).toEqual([]);
    const burnt = run([b('lamp.set', { lamp: 'left', to: 'on' }), b('lamp.set', { lamp: 'left', to: 'on' })], {
      kit: led(0)
    });
    expect(of(burnt, 'burnt')).toHaveLength(1);
    expect(of(burnt, 'lamp').some((e) => e.on)).toBe(false);
  });
});

describe('a motor that drives no wheel', () => {
  const motor = (power: number) => b('motor.run', { motor: 'J3', power });
  const circumference = (Math.PI * barrow.wheels[0].diameterMm) / 1000;
  it('runs either way, mirrored or not, and is told of once', () => {
    const turnsOf = (...steps: Step[]) => {
      const trace = run([...steps, wait(1), log(b('sense.motor', { motor: 'J3', what: 'turns' }))], { kit: hoist });
      return { turns: at(trace, 'turnsJ3', 1), logged: Number(logs(trace)[0]), trace };
    };
    const ahead = turnsOf(motor(50), motor(50));
    expect(ahead.turns).toBeGreaterThan(0.5);
    expect(ahead.logged).toBeCloseTo(ahead.turns, 1);
    expect(at(ahead.trace, 'powerJ3', 0.5)).toBe(50);
    expect(of(ahead.trace, 'motor')).toEqual([{ type: 'motor', socket: 'J3', power: 50, how: 'power' }]);
    expect(turnsOf(motor(-50)).turns).toBeCloseTo(-ahead.turns, 3);
    const mirrored = turnsOf(b('motor.side', { motor: 'J3', side: 'mirrored' }), motor(50));
    expect(mirrored.turns).toBeCloseTo(-ahead.turns, 3);
    // what the program is told follows its own sense of turning
    expect(mirrored.logged).toBeCloseTo(ahead.logged, 2);
    const back = turnsOf(
      b('motor.side', { motor: 'J3', side: 'mirrored' }),
      b('motor.side', { motor: 'J3', side: 'normal' }),
      motor(50)
    );
    expect(back.turns).toBeCloseTo(ahead.turns, 3);
    expect(of(run([motor(150)], { kit: hoist }), 'clipped')[0]).toMatchObject({ what: 'power', asked: 150, used: 100 });
  });
  it('keeps a speed: 100 % are 40 cm/s at a rim of the wheels (devices.md), and plain power again', () => {
    const keeps = (what: string) => b('motor.keeps', { motor: 'J3', what });
    const turnsIn2s = (...steps: Step[]) => at(run([...steps, wait(2)], { kit: hoist }), 'turnsJ3', 2);
    const kept = turnsIn2s(keeps('speed'), motor(40));
    // 16 cm/s for 2 s, less the run-up
    expect(kept).toBeGreaterThan((0.16 * 1.9) / circumference);
    expect(kept).toBeLessThan((0.16 * 2.02) / circumference);
    expect(turnsIn2s(keeps('speed'), motor(-40))).toBeCloseTo(-kept, 1);
    const plain = turnsIn2s(motor(40));
    expect(Math.abs(plain - kept)).toBeGreaterThan(0.05);
    expect(turnsIn2s(keeps('speed'), keeps('power'), motor(40))).toBeCloseTo(plain, 3);
  });
  it('runs for turns, degrees or seconds, and counts from where it was zeroed', () => {
    const span = (slots: object) => b('motor.span', { motor: 'J3', power: 60, ending: 'brake', ...slots });
    const turnsAfter = (slots: object) => {
      const trace = run([span(slots), wait(0.3)], { kit: hoist });
      return round(at(trace, 'turnsJ3', trace.ticks / 1000), 1);
    };
    expect(turnsAfter({ amount: 2, unit: 'turns' })).toBe(2);
    expect(turnsAfter({ amount: 720, unit: '°' })).toBe(2);
    expect(turnsAfter({ amount: 2, unit: 'turns', power: -60 })).toBe(-2);
    const timed = run([span({ amount: 1, unit: 's' }), log('over')], { kit: hoist });
    const over = timed.events.find((e) => e.type === 'log')!.tUs / 1e6;
    expect(over).toBeGreaterThan(0.98);
    expect(over).toBeLessThan(1.2);
    const moved = of(run([span({ amount: 2, unit: 'turns' })], { kit: hoist }), 'moved')[0];
    expect(moved).toMatchObject({ got: expect.closeTo(2, 1), ended: 'done' });
    const zeroed = run(
      [
        span({ amount: 1, unit: 'turns' }),
        log(b('sense.motor', { motor: 'J3', what: 'degrees' })),
        b('sense.zerowheels'),
        log(b('sense.motor', { motor: 'J3', what: 'turns' })),
        motor(50),
        wait(0.5),
        log(b('sense.motor', { motor: 'J3', what: 'speed' })),
        b('motor.stop', { motor: 'J3', ending: 'brake' }),
        wait(0.5),
        log(b('sense.motor', { motor: 'J3', what: 'speed' }))
      ],
      { kit: hoist }
    );
    const [degrees, none, speed, still] = logs(zeroed).map(Number);
    expect(degrees).toBeCloseTo(360, -1);
    expect(Math.abs(none)).toBeLessThan(0.02);
    expect(speed).toBeGreaterThan(200);
    expect(Math.abs(still)).toBeLessThan(1);
  });
  it('and the others that stand in the wrong socket are refused by name', () => {
    expect(failed([b('motor.run', { motor: 'J4', power: 10 })])).toBe('wrong-part: socket J4 holds the striker');
    expect(failed([b('motor.run', { motor: 'J3', power: 10 })])).toBe('empty-socket: socket J3');
    expect(failed([log(b('sense.motor', { motor: 'J4', what: 'turns' }))])).toBe(
      'wrong-part: socket J4 holds the striker'
    );
    expect(failed([log(b('sense.motor', { motor: 'J3', what: 'turns' }))])).toBe('empty-socket: socket J3');
    expect(failed([b('servo.spin', { servo: 'J4', power: 10 })])).toBe('wrong-part: socket J4 holds the striker');
    expect(failed([b('servo.spin', { servo: 'J6', power: 10 })])).toBe('empty-socket: socket J6');
    expect(failed([b('servo.angle', { servo: 'J6', angle: 10 })])).toBe('empty-socket: socket J6');
    expect(failed([b('servo.angle', { servo: 'J1', angle: 10 })])).toBe('wrong-part: socket J1 holds the left wheel');
    expect(failed([log(b('sense.line', { sensor: 'J7' }))])).toBe('wrong-part: socket J7 holds the nose');
    expect(failed([log(b('sense.line', { sensor: 'J10' }))])).toBe('empty-socket: socket J10');
    expect(failed([log(b('sense.colour', { sensor: 'J8' }))])).toBe('wrong-part: socket J8 holds the left');
    expect(failed([log(b('sense.colour', { sensor: 'J10' }))])).toBe('empty-socket: socket J10');
    const blind = { ...barrow, parts: barrow.parts.filter((p) => p.type !== 'distance') };
    expect(failed([log(b('sense.distance'))], blind)).toBe('empty-socket: no distance sensor');
  });
});

describe('servos', () => {
  it('go slowly in a straight line of time, from where they were told to be', () => {
    const trace = run([
      b('servo.angle', { servo: 'J4', angle: 30 }),
      wait(0.5),
      b('servo.slow', { servo: 'J4', angle: 150, time: 2 }),
      wait(3)
    ]);
    // 30 degrees at 0.5 s, 60 a second from there
    for (const [s, angle] of [
      [0.5, 30],
      [1, 60],
      [1.5, 90],
      [2, 120],
      [2.5, 150],
      [3, 150]
    ])
      expect(at(trace, 'servoJ4', s + 0.002), `${s} s`).toBeCloseTo(angle, 0);
    // what another stack tells it ends the slow one
    const gone = run(
      program(
        start(b('servo.slow', { servo: 'J4', angle: 150, time: 2 })),
        start(wait(0.5), b('servo.angle', { servo: 'J4', angle: 10 }))
      )
    );
    expect(at(gone, 'servoJ4', 0.5)).toBeCloseTo(105, 0);
    expect(at(gone, 'servoJ4', 1.4)).toBe(10);
    const atOnce = run([b('servo.slow', { servo: 'J4', angle: 150, time: 0 }), wait(0.3)]);
    expect(at(atOnce, 'servoJ4', 0.29)).toBe(150);
  });
  it('go to a share of their sweep, and all to the middle', () => {
    const trace = run([
      b('servo.share', { servo: 'J4', share: 25 }),
      b('servo.angle', { servo: 'J5', angle: 10 }),
      wait(0.5),
      b('servo.middle'),
      wait(0.5)
    ]);
    expect([at(trace, 'servoJ4', 0.49), at(trace, 'servoJ5', 0.49)]).toEqual([45, 10]);
    expect([at(trace, 'servoJ4', 0.99), at(trace, 'servoJ5', 0.99)]).toEqual([90, 90]);
  });
  it('that spin go round at their power, and are told of once', () => {
    const trace = run(
      [b('servo.spin', { servo: 'J6', power: -50 }), b('servo.spin', { servo: 'J6', power: -50 }), wait(1)],
      {
        kit: hoist
      }
    );
    expect(at(trace, 'servoJ6', 1)).toBeCloseTo(210, 0);
    expect(of(trace, 'servo')).toEqual([{ type: 'servo', socket: 'J6', power: -50 }]);
  });
});

describe('what a program reads of its wheels', () => {
  it('is each wheel on its own, their mean, and the way between', () => {
    const kit: Kit = resized(barrow, { left: 68, right: 60 });
    const trace = run(
      [
        b('wheels.run', { left: 40, right: 20 }),
        wait(1),
        log(b('sense.wheelspeed', { wheel: 'left' })),
        log(b('sense.wheelspeed', { wheel: 'right' })),
        log(b('sense.speed')),
        log(b('sense.turns', { wheel: 'left' })),
        log(b('sense.turns', { wheel: 'right' })),
        log(b('sense.degrees', { wheel: 'left' })),
        log(b('sense.driven')),
        b('sense.zerowheels'),
        log(b('sense.turns', { wheel: 'left' })),
        log(b('sense.turns', { wheel: 'right' })),
        log(b('sense.driven'))
      ],
      { kit }
    );
    const [left, right, mean, lt, rt, ld, driven, ...zero] = logs(trace).map(Number);
    expect(left).toBeGreaterThan(right * 1.7);
    expect(mean).toBeCloseTo((left + right) / 2, 0);
    expect(ld).toBeCloseTo(lt * 360, -1);
    expect(driven).toBeCloseTo((lt * Math.PI * 6.8 + rt * Math.PI * 6) / 2, 0);
    for (const v of zero) expect(Math.abs(v)).toBeLessThan(0.3);
    // 40 % of the free speed at the rim, 2.1 turns a second (devices.md), less friction
    expect(end(trace).x).toBeGreaterThan(1.5);
  });
  it('the battery in per cent, full when it hangs on no battery; the pull of the earth as 1 g; chance within its bounds', () => {
    const [battery, total, z] = logs(
      run([
        log(b('sense.battery')),
        log(b('sense.acceleration', { axis: 'total' })),
        log(b('sense.acceleration', { axis: 'z' }))
      ])
    ).map(Number);
    expect([battery, total, z]).toEqual([100, 1, 1]);
    const dice = logs(run([b('repeat.times', { count: 60 }, { do: [log(b('calc.chance', { from: 2, to: 4 }))] })]));
    expect([...new Set(dice)].sort()).toEqual(['2', '3', '4']);
    expect(failed([log(b('calc.chance', { from: 5, to: 4 }))])).toBe('out-of-range: from 5 to 4');
  });
  it('a turn by the gyro that cannot be put right ends 1.5 s after its time', () => {
    // held up by a hand its wheels turn, and it does not
    const trace = run([wait(0.1), b('turn.gyro', { side: 'right', angle: 90, power: 50 }), log('over')], {
      inputs: [{ tUs: 1000, input: { lift: true } }],
      limitS: 8
    });
    const over = trace.events.find((e) => e.type === 'log')!.tUs / 1e6;
    // 90 degrees are pi / 2 x 62 mm at 20 cm/s and 60 cm/s^2: 0.82 s
    expect(over).toBeGreaterThan(0.1 + 0.8 + 1.45);
    expect(over).toBeLessThan(0.1 + 0.9 + 1.55);
  });
  it('a place that was left empty: no text, not true; a word where a number belongs is refused', () => {
    expect(logs(run([log('')]))).toEqual(['']);
    expect(logs(run([b('choose.if', { if1: '' }, { then1: [log('yes')] }), log('on')]))).toEqual(['on']);
    expect(failed([wait('soon' as never)])).toMatch(/^not-a-number: here is /);
    expect(logs(run([wait('0,25' as never), log(b('sense.timer'))])).map(Number)[0]).toBeCloseTo(0.25, 2);
  });
});

describe('what is recorded', () => {
  it('of a robot: each wheel, its sensors, the parts that the kit has, in their units', () => {
    const specs = channelSpecs(hoist, {
      ...hall,
      things: [{ x: 1, y: 1, radius: 0.1, massKg: 0.1, colour: '#888888' }]
    });
    expect(specs.map((s) => `${s.key} ${s.title} ${s.unit}`)).toEqual([
      'x Place x m',
      'y Place y m',
      'facing Facing °',
      'powerLeft Wheel power left %',
      'powerRight Wheel power right %',
      'speedLeft Wheel speed left cm/s',
      'speedRight Wheel speed right cm/s',
      'turnsLeft Wheel left turns',
      'turnsRight Wheel right turns',
      'distance Distance ahead cm',
      'heading Heading °',
      'lineLeft Line left ',
      'lineRight Line right ',
      'nose Nose ',
      'accelX Acceleration x g',
      'accelY Acceleration y g',
      'accelZ Acceleration z g',
      'accelTotal Acceleration g',
      'lifted Held by a hand ',
      'volts Battery V',
      'servoJ4 striker °',
      'servoJ5 pan °',
      'powerJ3 hoist %',
      'turnsJ3 hoist turns',
      'servoJ6 fan °',
      'thing0x Loose thing 1, x m',
      'thing0y Loose thing 1, y m'
    ]);
  });
  it('of a board for the hand: how it is held, and what is around it', () => {
    const lamp = { ...trowel, parts: trowel.parts.map((p) => (p.type === 'lamp' ? { ...p, ohm: 100 } : p)) };
    expect(channelSpecs(lamp, hall).map((s) => `${s.key} ${s.unit}`)).toEqual([
      'x m',
      'y m',
      'facing °',
      'leanSideways °',
      'leanForwards °',
      'leanTurned °',
      'height cm',
      'light ',
      'temperature °C',
      'moisture ',
      'edgeLeft ',
      'edgeRight ',
      'accelX g',
      'accelY g',
      'accelZ g',
      'accelTotal g',
      'lifted ',
      'volts V',
      ...lamp.parts.flatMap((p) =>
        p.type === 'servo' ? [`servo${p.socket} °`] : p.type === 'lamp' ? ['lampMa mA'] : []
      )
    ]);
  });
  it('follows what is done: a lean is felt along x and y, an edge is touched', () => {
    const trace = run([wait(0.5)], {
      kit: trowel,
      inputs: [
        { tUs: 1000, input: { lean: { sideways: 30, forwards: 0, turned: 15 } } },
        { tUs: 1000, input: { edge: 'left', touched: true } }
      ]
    });
    expect(
      ['accelX', 'accelY', 'leanSideways', 'leanTurned', 'edgeLeft', 'edgeRight'].map((k) =>
        round(at(trace, k, 0.4), 1)
      )
    ).toEqual([-0.5, 0, 30, 15, 1, 0]);
  });
});
