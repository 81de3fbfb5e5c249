import { describe, expect, it } from 'vitest';
import { b, log, program, run, start, variable, wait } from '../testing/build.ts';
import { written, type Written } from '../testing/trace.ts';
import { apart, compareRuns, differences, shiftOf, told } from './compare.ts';
import type { TraceEvent } from './trace.ts';

describe('two runs', () => {
  const noise = { noise: false } as const;
  it('are the same where only board time and bookkeeping differ', () => {
    const a = run([log(1), log(1), log(1)], noise);
    const c = run([b('repeat.times', { count: 3 }, { do: [log(1)] })], noise);
    expect(compareRuns(a, c)).toEqual({ same: true, events: 3 });
  });
  it('part at the first event that is another, or comes at another time, or is missing', () => {
    const a = run([log(1), wait(1), log(2)], noise);
    const other = compareRuns(a, run([log(1), wait(1), log(3)], noise));
    expect(other).toMatchObject({ same: false, a: { text: '2' }, b: { text: '3' } });
    const late = compareRuns(a, run([log(1), wait(1.2), log(2)], noise));
    expect(late).toMatchObject({ same: false });
    expect(!late.same && late.at / 1e6).toBeCloseTo(1, 2);
    expect(compareRuns(a, run([log(1), wait(1)], noise))).toMatchObject({
      same: false,
      a: { text: '2' },
      b: undefined
    });
  });
  it('forgive what a loop costs over a long time, and no more', () => {
    const long = (turns: number) =>
      program(start(b('repeat.times', { count: turns }, { do: [wait(0.1)] }), log(variable('v1'))));
    expect(compareRuns(run(long(100), noise), run(long(101), noise))).toMatchObject({ same: true });
    expect(compareRuns(run(long(100), noise), run(long(104), noise))).toMatchObject({ same: false });
  });
});

describe('two runs laid over one another', () => {
  const late = (ms: number) =>
    run(program(start(wait(ms, 'ms'), b('log.mark', { words: 'go' }), b('drive.measure', { amount: 30 }))));
  it('lie by their start, by a mark or by the first movement', () => {
    const [a, c] = [late(200), late(700)];
    expect(shiftOf(a, c, 'start')).toBe(0);
    expect(shiftOf(a, c, 'mark')! / 1000).toBeCloseTo(-500, -1);
    expect(shiftOf(a, c, 'movement')! / 1000).toBeCloseTo(-500, -1);
    expect(shiftOf(a, run(program(start(log('x')))), 'movement')).toBeUndefined();
    const [one] = differences(a, c, 0);
    expect(one.says).toMatch(/came 0\.50 s apart/);
    expect(differences(a, c, shiftOf(a, c, 'mark')!).map((d) => d.says)).toEqual([]);
  });
  it('tell the first moment at which they part, with the block', () => {
    const turn = b('turn.angle', { angle: 60 });
    const a = run(program(start(b('drive.measure', { amount: 20 }), turn)));
    const c = run(program(start(b('drive.measure', { amount: 20 }), { ...turn, slots: { ...turn.slots, angle: 90 } })));
    const list = differences(a, c, 0);
    expect(list[0]).toMatchObject({ block: turn.id });
    expect(list[0].says).toContain('This run: turn left 60 °; the other one: turn left 90 °');
    expect(list.some((d) => d.says.includes('face more than'))).toBe(true);
    const shaded = apart(a, c, 'heading', 0);
    expect(shaded.length).toBe(1);
    expect(shaded[0][0]).toBeGreaterThan(list[0].atUs);
    expect(apart(a, a, 'heading', 0)).toEqual([]);
    expect(differences(a, a, 0)).toEqual([]);
  });
  it('are compared from where each of them started', () => {
    const p = program(start(b('drive.measure', { amount: 30 }), b('turn.angle', { angle: 45 })));
    const a = run(p);
    const c = run(p, { start: { x: 1, y: 2, facingDeg: 200 } });
    expect(differences(a, c, 0)).toEqual([]);
  });
});

describe('runs that are written by hand', () => {
  const said = (ms: number, text: string): TraceEvent => ({ tUs: ms * 1000, type: 'log', text, block: 'l' });
  const of = (more: Partial<Written>) => written({ ms: 2000, ...more });
  it('lie apart from the first to the last moment at which they do, 5 % of the larger range', () => {
    const bump = (from: number, to: number, high: number) => (t: number) =>
      t > from && t <= to ? high : t === 5 ? 100 : 0;
    const flat = of({ channels: { distance: bump(0, 0, 0) } });
    const at = (from: number, to: number, high: number, shiftMs = 0) =>
      apart(flat, of({ channels: { distance: bump(from, to, high) } }), 'distance', shiftMs * 1000);
    expect(at(100, 300, 50)).toEqual([[100_000, 300_000]]);
    expect(at(100, 300, 4.9)).toEqual([]);
    expect(at(100, 300, 5.2)).toHaveLength(1);
    // shorter than 60 ms is noise
    expect(at(100, 160, 50)).toEqual([[100_000, 160_000]]);
    expect(at(100, 140, 50)).toEqual([]);
    expect(at(1900, 2000, 50)).toEqual([[1_900_000, 1_980_000]]);
    // later by a shift, and no further than both go
    expect(at(100, 300, 50, 400)).toEqual([[500_000, 700_000]]);
    expect(at(100, 300, 50, -40)).toEqual([[60_000, 260_000]]);
    expect(at(1900, 2000, 50, 400)).toEqual([]);
    expect(apart(flat, flat, 'nothing', 0)).toEqual([]);
    expect(apart(flat, of({ ms: 0 }), 'distance', 0)).toEqual([]);
    expect(apart(of({}), of({}), 'distance', 0)).toEqual([]);
    // a heading has no jump at north
    const heading = (deg: number) => of({ channels: { heading: (t) => (t < 9 ? (t < 5 ? 0 : 359.9) : deg) } });
    expect(apart(heading(359), heading(1), 'heading', 0)).toEqual([]);
    expect(apart(heading(350), heading(20), 'heading', 0)).toHaveLength(1);
  });
  it('part where an event differs, or is missing, in the order of time', () => {
    const a = of({ events: [said(100, 'one'), said(500, 'two')], spans: [['w', 0, 2000]] });
    const says = (b: Partial<Written>, shiftMs = 0) =>
      differences(a, of(b), shiftMs * 1000).map((d) => [d.atUs / 1000, d.says, d.block]);
    expect(says({ events: [said(100, 'one'), said(500, 'two')] })).toEqual([]);
    expect(says({ events: [said(100, 'one')] })).toEqual([[500, 'Only this run did: log: two', 'l']]);
    expect(says({ events: [said(100, 'one'), said(500, 'two'), said(600, 'three')] })).toEqual([
      [600, 'Only the other run did: log: three', 'l']
    ]);
    expect(says({ events: [said(100, 'one'), said(490, 'six')] })).toEqual([
      [490, 'This run: log: two; the other one: log: six', 'l']
    ]);
    expect(says({ events: [said(100, 'one'), said(700, 'two')] })).toEqual([[500, 'log: two came 0.20 s apart', 'l']]);
    // 0.05 s, and a hundredth of the time gone by
    expect(says({ events: [said(100, 'one'), said(555, 'two')] })).toEqual([]);
    expect(says({ events: [said(100, 'one'), said(556, 'two')] })).toHaveLength(1);
    expect(says({ ms: 1900, events: [said(0, 'one'), said(700, 'two')] }, 100)).toEqual([
      [500, 'log: two came 0.30 s apart', 'l']
    ]);
    // a place that lies apart comes before an event that differs later
    const elsewhere = of({ events: [said(1000, 'x')], channels: { x: (t) => (t > 400 ? 0.03 : 0) } });
    const here = of({ events: [said(1000, 'y')], spans: [['w', 0, 2000]] });
    expect(differences(here, elsewhere, 0).map((d) => [d.atUs, d.block])).toEqual([
      [400_000, 'w'],
      [1_000_000, 'l']
    ]);
  });
  it('part where they stand more than 2 cm or face more than 4 ° apart, and last longer', () => {
    const a = of({ spans: [['w', 0, 2000]] });
    const first = (channels: Written['channels'], ms = 2000) => differences(a, of({ ms, channels }), 0)[0];
    expect(first({ x: (t) => (t > 400 ? 0.021 : 0) })).toMatchObject({
      atUs: 400_000,
      block: 'w',
      says: 'From here on the two robots are more than 2 cm apart.'
    });
    expect(first({ y: (t) => (t > 400 ? -0.021 : 0) })).toBeDefined();
    expect(first({ x: 0.0141, y: 0.014 })).toBeUndefined();
    expect(first({ x: 0.0145, y: 0.0145 })).toBeDefined();
    expect(first({ facing: 4.1 })).toMatchObject({ says: 'From here on the two robots face more than 4 ° apart.' });
    expect(first({ facing: 355.9 })).toBeDefined();
    expect(first({ facing: 356.1 })).toBeUndefined();
    expect(first({}, 1901)).toBeUndefined();
    expect(first({}, 1899)).toMatchObject({ atUs: 1_899_000, says: 'This run lasted 2.00 s, the other one 1.90 s.' });
    // a device without a place has none to compare
    const bare = { ...of({}), channels: [] };
    expect(differences(bare, of({ channels: { x: 9 } }), 0)).toEqual([]);
    expect(differences(of({ channels: { x: 9 } }), bare, 0)).toEqual([]);
  });
  it('are told from where each started: the same way from elsewhere is the same', () => {
    // both 1 m ahead: one up from (1, 1), one to the right from (0, 2)
    const up = of({ start: { x: 1, y: 1, facingDeg: 0 }, channels: { x: 1, y: (t) => 1 + t / 2000, facing: 0 } });
    const right = (bend: number) =>
      of({
        start: { x: 0, y: 2, facingDeg: 90 },
        channels: { x: (t) => t / 2000, y: (t) => 2 + (bend * t) / 2000, facing: 90 }
      });
    expect(differences(up, right(0), 0)).toEqual([]);
    expect(differences(up, right(0.03), 0)).toHaveLength(1);
    expect(differences(right(0), up, 0)).toEqual([]);
  });
  it('begin to move where a wheel is faster than 1 cm/s', () => {
    const from = (ms: number, v: number, side = 'speedLeft') => of({ channels: { [side]: (t) => (t > ms ? v : 0) } });
    expect(shiftOf(from(300, 5), from(100, -5, 'speedRight'), 'movement')).toBe(200_000);
    expect(shiftOf(from(300, 5), from(100, 0.9), 'movement')).toBeUndefined();
    expect(shiftOf(from(300, 1.1), from(300, 1.2), 'movement')).toBe(0);
  });
});

it('every kind of event is told in a few words', () => {
  const list: [TraceEvent['type'], object, string][] = [
    ['wheels', { left: 20, right: -30, how: 'power' }, 'wheels 20 %, -30 %'],
    ['wheels', { left: 0, right: 0, how: 'brake' }, 'wheels stop'],
    ['motor', { socket: 'J1', power: 5, how: 'power' }, 'motor J1 5 %'],
    ['move', { what: 'turn left', asked: 90, unit: '°' }, 'turn left 90 °'],
    ['servo', { socket: 'S', angle: 40 }, 'servo S to 40°'],
    ['servo', { socket: 'S', power: 40 }, 'servo S at 40 %'],
    ['lamp', { lamp: 'left', on: true }, 'a lamp goes on'],
    ['lamp', { lamp: 'left', on: false }, 'a lamp goes out'],
    ['display', {}, 'the display changes'],
    ['tone', { hertz: 261.6 }, 'a tone of 262 Hz'],
    ['tone', { hertz: 0 }, 'silence begins'],
    ['log', { text: 'a' }, 'log: a'],
    ['mark', { text: 'a' }, 'mark: a'],
    ['touch', { what: 'a wall' }, 'touches a wall'],
    ['error', { message: 'm' }, 'm'],
    ['message', { name: 'n' }, 'message n'],
    ['input', { input: { press: 'Dot' } }, 'a hand: press'],
    ['began', { trigger: 'g' }, 'a stack begins: g'],
    ['missed', { trigger: 'g' }, 'missed: g'],
    ['plot', { name: 'n', value: 3 }, 'n = 3'],
    ['tipped', {}, 'tipped']
  ];
  for (const [type, rest, words] of list) expect(told({ tUs: 0, type, ...rest } as TraceEvent), type).toBe(words);
});
