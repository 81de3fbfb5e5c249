/** The device's own electronics, block by block: what it shows, what it limits, what it refuses. */
import { worn } from '../testing/kits.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { noQuirks } from '../kit/quirks.ts';
import { barrow, changePart, movePart, type Kit } from '../kit/kit.ts';
import { ERRORS } from '../language/meaning.ts';
import type { Step } from '../language/program.ts';
import { b, cmp, end, hall, log, logs, program, run, sum, wait } from '../testing/build.ts';
import { sampleAt, stateAt } from '../trace/query.ts';
import { channel, type Trace, type TraceEvent } from '../trace/trace.ts';
import { channelSpecs, channelsOf } from './channels.ts';

const failure = (trace: Trace): (TraceEvent & { type: 'error' }) | undefined =>
  trace.events.find((e) => e.type === 'error');
const of = <T extends TraceEvent['type']>(trace: Trace, type: T) =>
  trace.events.filter((e): e is TraceEvent & { type: T } => e.type === type);

describe('the servos of one device', () => {
  it('stand off by a few degrees of their own, and never beyond their ends', () => {
    const horn = (offset: number, angle: number): number => {
      const trace = run([b('servo.angle', { servo: 'J4', angle }), wait(1.2)], {
        quirks: { ...noQuirks, servoOffsetDeg: offset }
      });
      return stateAt(trace, 1_100_000).values.servoJ4;
    };
    expect([horn(0, 60), horn(2.5, 60), horn(-3, 60), horn(2.5, 180), horn(-3, 0)]).toEqual([60, 62.5, 57, 180, 0]);
  });
});

describe('the face', () => {
  it('lights, flips and darkens pixels, x to the right and y down', () => {
    const trace = run([
      b('pixel.set', { x: 0, y: 0 }),
      b('pixel.set', { x: 6, y: 4 }),
      b('pixel.set', { x: 3, y: 2, to: 'flip' }),
      b('pixel.set', { x: 0, y: 0, to: 'flip' })
    ]);
    expect(of(trace, 'display').map((e) => e.picture.split(' '))).toEqual([
      ['#......', '.......', '.......', '.......', '.......'],
      ['#......', '.......', '.......', '.......', '......#'],
      ['#......', '.......', '...#...', '.......', '......#'],
      ['.......', '.......', '...#...', '.......', '......#']
    ]);
    expect(end(run([b('picture.show'), b('display.dark')])).picture).toBe('....... ....... ....... ....... .......');
  });
  it('refuses pixels that are not there, and says where they end', () => {
    for (const [x, y] of [
      [7, 0],
      [0, 5],
      [-1, 0]
    ])
      expect(failure(run([b('pixel.set', { x: sum(x, '+', 0), y })]))?.message).toBe(
        `This number is outside of what is possible here. (x ${x}, y ${y}; x goes from 0 to 6, y from 0 to 4)`
      );
  });
  it('keeps the colour of a lamp when it is switched off and on again', () => {
    const trace = run([
      b('lamp.colour', { lamp: 'right', colour: 'blue' }),
      b('lamp.set', { lamp: 'right', to: 'off' }),
      wait(0.1),
      b('lamp.set', { lamp: 'right', to: 'flip' })
    ]);
    expect(of(trace, 'lamp').map((e) => [e.on, e.colour])).toEqual([
      [true, 'blue'],
      [false, 'blue'],
      [true, 'blue']
    ]);
    expect(stateAt(trace, 50_000).lamps.right).toEqual({ on: false, colour: 'blue' });
    expect(stateAt(trace, 50_000).lamps.left).toBeUndefined();
  });
  it('sounds a tone as long as it was asked to, and the program waits for its end', () => {
    const trace = run([b('sound.tone', { pitch: 440, time: 0.25 }), log(b('sense.timer'))]);
    expect(Number(logs(trace)[0])).toBeCloseTo(0.2503, 3);
    expect([stateAt(trace, 100_000).tone?.hertz, stateAt(trace, 260_000).tone]).toEqual([440, undefined]);
    expect(failure(run([b('sound.tone', { pitch: sum(2, '×', 3) })]))?.kind).toBe('out-of-range');
  });
});

describe('limits', () => {
  it('are kept without a word to the program, and told in the trace', () => {
    const trace = run([
      b('wheels.run', { left: 300, right: -300 }),
      wait(0.1),
      b('wheels.stop'),
      b('servo.angle', { angle: -40 })
    ]);
    expect(of(trace, 'clipped').map((e) => [e.what, e.asked, e.used])).toEqual([
      ['power', 300, 100],
      ['power', -300, -100],
      ['angle', -40, 0]
    ]);
    expect(sampleAt(channel(trace, 'powerLeft')!, 50)).toBe(100);
    // a measured move has no power below nothing
    expect(of(run([b('drive.measure', { power: -20 })]), 'clipped')[0]).toMatchObject({ asked: -20, used: 0 });
  });
  it('end a move without power as blocked, at once', () => {
    const trace = run([b('drive.measure', { power: 0 }), log('on')]);
    expect(of(trace, 'moved')[0]).toMatchObject({ ended: 'blocked', got: 0 });
    expect(logs(trace)).toEqual(['on']);
  });
  it('let a move of nothing be done at once', () => {
    for (const step of [
      b('drive.measure', { amount: 0 }),
      b('turn.angle', { angle: 0 }),
      b('motor.span', { amount: 0 })
    ]) {
      const trace = run([step, log(b('sense.timer'))]);
      expect(of(trace, 'moved')[0].ended).toBe('done');
      expect(Number(logs(trace)[0])).toBeLessThan(0.002);
    }
  });
});

describe('sockets', () => {
  const lacking = (...sockets: string[]): Kit => ({
    ...barrow,
    parts: barrow.parts.filter((p) => !sockets.includes(p.socket))
  });
  const cases: [string, Kit, Step, string][] = [
    ['a drive without its right motor', lacking('J2'), b('drive.measure'), 'empty-socket'],
    ['an empty motor socket', barrow, b('motor.run', { motor: 'J3' }), 'empty-socket'],
    ['a servo where a motor was meant', movePart(barrow, 'J4', 'J3'), b('motor.run', { motor: 'J3' }), 'wrong-part'],
    ['a line sensor that is out', lacking('J8'), log(b('sense.line', { sensor: 'J8' })), 'empty-socket'],
    [
      'a distance sensor in place of a line sensor',
      movePart(lacking('J8'), 'J7', 'J8'),
      log(b('sense.line', { sensor: 'J8' })),
      'wrong-part'
    ],
    ['no distance sensor', lacking('J7'), log(b('sense.distance')), 'empty-socket'],
    ['a servo that is out', lacking('J4'), b('servo.angle', { servo: 'J4' }), 'empty-socket']
  ];
  it.each(cases)('%s stops the program with its kind', (_, kit, step, kind) => {
    const trace = run([step, log('never')], { kit });
    expect(failure(trace)).toMatchObject({ kind, block: step.id });
    expect(failure(trace)!.message.startsWith(ERRORS[kind as keyof typeof ERRORS])).toBe(true);
    expect(logs(trace)).toEqual([]);
  });
  it('make motor blocks turn the shaft, so that a mirrored motor rolls its wheel back', () => {
    const rolled = (kit: Kit, motor: string): number => {
      const trace = run([b('motor.span', { motor, power: 40, amount: 0.5, unit: 'turns' })], { kit });
      return sampleAt(channel(trace, motor === 'J1' ? 'turnsLeft' : 'turnsRight')!, trace.ticks - 1);
    };
    expect(rolled(barrow, 'J1')).toBeCloseTo(-0.5, 1);
    expect(rolled(barrow, 'J2')).toBeCloseTo(0.5, 1);
    expect(rolled(changePart(barrow, 'J1', { mounted: 'normal' }), 'J1')).toBeCloseTo(0.5, 1);
  });
  it('let drive and turn correct for the mounting, whatever it is', () => {
    const x = (kit: Kit): number => end(run([b('drive.measure', { amount: 20 })], { kit })).x;
    expect(x(changePart(changePart(barrow, 'J1', { mounted: 'normal' }), 'J2', { mounted: 'mirrored' }))).toBe(
      x(barrow)
    );
  });
  it('run a spare motor without a wheel, and record it', () => {
    const kit: Kit = {
      ...barrow,
      parts: [...barrow.parts, { socket: 'J3', type: 'motor', name: 'pump', mounted: 'normal' }]
    };
    const trace = run([b('motor.span', { motor: 'J3', power: 50, amount: 2, unit: 'turns' })], { kit });
    expect(sampleAt(channel(trace, 'turnsJ3')!, trace.ticks - 1)).toBeCloseTo(2, 1);
    expect(end(trace).x).toBe(1.5);
    expect(channelSpecs(kit, hall).map((c) => c.key)).toContain('powerJ3');
  });
});

describe('measured moves', () => {
  it('take as long as their trapezoid: length / speed + speed / acceleration', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 120 }), fc.integer({ min: 20, max: 100 }), (cm, power) => {
        const trace = run([b('drive.measure', { amount: cm, power })], {
          mat: { ...hall, start: { x: 0.4, y: 1.5, facingDeg: 90 } }
        });
        const [move, moved] = [of(trace, 'move')[0], of(trace, 'moved')[0]];
        const v = (power / 100) * 0.4;
        const expected = cm / 100 >= (v * v) / 0.6 ? cm / 100 / v + v / 0.6 : 2 * Math.sqrt(cm / 100 / 0.6);
        const took = (moved.tUs - move.tUs) / 1e6;
        expect(took).toBeGreaterThan(expected - 0.002);
        expect(took).toBeLessThan(expected + 0.51);
      }),
      { numRuns: 15 }
    );
  });
  it('of so many seconds take so many seconds, and back is back', () => {
    const trace = run([b('drive.measure', { way: 'back', amount: 2, unit: 's' })]);
    const [move, moved] = [of(trace, 'move')[0], of(trace, 'moved')[0]];
    expect((moved.tUs - move.tUs) / 1e6).toBeCloseTo(2, 1);
    expect(end(trace).x).toBeLessThan(1.2);
    expect(moved.got).toBeCloseTo(move.asked, 0);
  });
  it('go the other way for a negative amount', () => {
    expect(end(run([b('drive.measure', { amount: -10 })])).x).toBeCloseTo(1.4, 2);
    expect(end(run([b('turn.angle', { side: 'left', angle: -30 })])).facingDeg).toBeCloseTo(120, 0);
  });
  it('hold their speed on a weak motor, where plain power does not', () => {
    const weak = worn({ left: { torque: 0.9, free: 0.9 } });
    const measured = end(run([b('drive.measure', { amount: 60 })], { quirks: weak }));
    const plain = end(run([b('wheels.run', { left: 45, right: 45 }), wait(3), b('wheels.stop')], { quirks: weak }));
    expect(Math.abs(measured.facingDeg - 90)).toBeLessThan(0.6);
    // the weaker left wheel makes it bend to the left
    expect(plain.facingDeg).toBeLessThan(80);
  });
});

describe('buttons', () => {
  it('fire once a press, however often the press is told', () => {
    const p = program([b('begin.button'), log('pressed')], [b('begin.button', { event: 'released' }), log('released')]);
    const inputs = [0.1, 0.2, 0.3].map((t) => ({ tUs: t * 1e6, input: { press: 'Dot' as const } }));
    const trace = run(p, {
      inputs: [...inputs, { tUs: 4e5, input: { release: 'Dot' } }, { tUs: 5e5, input: { release: 'Dot' } }],
      limitS: 1
    });
    expect(logs(trace)).toEqual(['pressed', 'released']);
    expect(of(trace, 'input')).toHaveLength(5);
  });
  it('are not held when let go within a second', () => {
    const p = program([b('begin.button', { event: 'held' }), log('held')]);
    const at = (t: number, input: object) => ({ tUs: t * 1e6, input: input as { press: 'Dot' } });
    expect(logs(run(p, { inputs: [at(0.1, { press: 'Dot' }), at(1, { release: 'Dot' })], limitS: 3 }))).toEqual([]);
    expect(logs(run(p, { inputs: [at(0.1, { press: 'Dot' }), at(1.2, { release: 'Dot' })], limitS: 3 }))).toEqual([
      'held'
    ]);
  });
  it('end a wait that asks whether they are held', () => {
    const trace = run([b('wait.until', { condition: b('sense.button', { button: 'Bar' }) }), log(b('sense.timer'))], {
      inputs: [{ tUs: 700_000, input: { press: 'Bar' } }]
    });
    expect(Number(logs(trace)[0])).toBeCloseTo(0.7, 2);
  });
});

it('every channel is read off the machine, with a key of its own', () => {
  const keys = channelsOf(barrow, 0).map((c) => c.key);
  expect(new Set(keys).size).toBe(keys.length);
  const trace = run([b('drive.measure', { amount: 30 }), b('servo.angle', { angle: 30 }), wait(0.5)]);
  expect(trace.channels.map((c) => c.key)).toEqual(keys);
  for (const key of [
    'x',
    'speedLeft',
    'speedRight',
    'turnsLeft',
    'turnsRight',
    'powerLeft',
    'powerRight',
    'distance',
    'servoJ4'
  ]) {
    const c = channel(trace, key)!;
    expect(Math.min(...c.low) !== Math.max(...c.high), key).toBe(true);
  }
  expect(sampleAt(channel(trace, 'turnsLeft')!, trace.ticks - 1)).toBeCloseTo(30 / 21.36, 2);
});

it('by chance, both ends come up and nothing beyond them', () => {
  const rolls = logs(run([b('repeat.times', { count: 200 }, { do: [log(b('calc.chance', { from: 1, to: 6 }))] })])).map(
    Number
  );
  expect([...new Set(rolls)].sort()).toEqual([1, 2, 3, 4, 5, 6]);
  // each face about 33 times of 200: a fair die leaves 14 to 56 hardly ever (binomial, six sigma)
  for (const face of [1, 2, 3, 4, 5, 6]) expect(rolls.filter((r) => r === face).length).toBeGreaterThan(12);
  expect(failure(run([log(b('calc.chance', { from: 6, to: 1 }))]))?.kind).toBe('out-of-range');
  expect(logs(run([log(cmp(b('calc.chance', { from: 3, to: 3 }), '=', 3))]))).toEqual(['True']);
});
