/** Questions to a trace, answered of traces that are written by hand. */
import { describe, expect, it } from 'vitest';
import { written, type Written } from '../testing/trace.ts';
import {
  askedAndGot,
  envelope,
  extremes,
  followed,
  ranWhen,
  rowsAt,
  runningAt,
  sampleAt,
  stateAt,
  tickAt,
  travelled
} from './query.ts';
import { channel, emptySpans, PAGE, pushSpan, putSpan, type TraceEvent } from './trace.ts';

const RAD = Math.PI / 180;
/** Goes at so many cm/s the way it faces from one moment to another, ms. */
const rolls = (facing: number, legs: readonly [from: number, to: number, cmS: number][]) => {
  const cm = (t: number): number =>
    legs.reduce((sum, [from, to, v]) => sum + (Math.max(0, Math.min(t, to) - from) * v) / 1000, 0);
  return {
    facing,
    x: (t: number) => (cm(t) / 100) * Math.sin(facing * RAD),
    y: (t: number) => (cm(t) / 100) * Math.cos(facing * RAD)
  };
};
const turns = (legs: readonly [from: number, to: number, degS: number][], first = 0) => ({
  facing: (t: number) =>
    (((first + legs.reduce((sum, [from, to, v]) => sum + (Math.max(0, Math.min(t, to) - from) * v) / 1000, 0)) % 360) +
      360) %
    360
});
const move = (
  fromMs: number,
  toMs: number,
  asked: number,
  unit: 'cm' | '°' | 'turns',
  got = asked,
  id = 1
): TraceEvent[] => [
  {
    tUs: fromMs * 1000,
    type: 'move',
    id,
    what: unit === '°' ? 'turn right' : 'drive ahead',
    asked,
    unit,
    block: `m${id}`
  },
  { tUs: toMs * 1000, type: 'moved', id, got, ended: 'done' }
];
const asked = (of: Written) => askedAndGot(written(of))[0];

describe('a sample and a moment', () => {
  const trace = written({ ms: 2500, channels: { x: (t) => t / 1000, volts: (t) => (t === 1500 ? 3 : 4.5) } });
  it('are found by tick, with the first and the last beyond the ends', () => {
    const x = channel(trace, 'x')!;
    expect([-5, 0, 999, 1000, 2499, 9999].map((t) => Math.round(sampleAt(x, t) * 1000))).toEqual([
      1, 1, 1000, 1001, 2500, 2500
    ]);
    expect(sampleAt({ ...x, chunks: [] }, 0)).toBe(0);
    expect([0, 999, 1000, 1999, 2000, 9e6].map((t) => tickAt(t, 2500))).toEqual([0, 0, 0, 0, 1, 2499]);
  });
  it('have a smallest and a largest, over whole seconds and parts of them', () => {
    const volts = channel(trace, 'volts')!;
    expect(extremes(volts, 0, 1000)).toEqual([4.5, 4.5]);
    const near = (pair: readonly number[]) => pair.map((v) => Math.round(v * 1000) / 1000);
    expect(near(extremes(volts, 1000, 2000))).toEqual([3, 4.5]);
    expect(near(extremes(volts, 1000, 1499))).toEqual([4.5, 4.5]);
    expect(near(extremes(volts, 1499, 1500))).toEqual([3, 3]);
    expect(near(extremes(volts, 500, 2400))).toEqual([3, 4.5]);
    const x = channel(trace, 'x')!;
    expect(near(extremes(x, 200, 2201))).toEqual([0.201, 2.201]);
  });
  it('are drawn on from where a growing trace was drawn', () => {
    const x = channel(trace, 'x')!;
    const first = [...envelope(x, 1200, 0, 2_500_000, 5)];
    expect(
      first.slice(4).filter((v) => Math.round(v * 1000) / 1000 !== 1.001 && Math.round(v * 1000) / 1000 !== 1.2)
    ).toHaveLength(4);
    const all = [...envelope(x, 2500, 0, 2_500_000, 5)];
    expect(all.map((v) => Math.round(v * 1000))).toEqual([1, 500, 501, 1000, 1001, 1500, 1501, 2000, 2001, 2500]);
    // a part that begins before the trace
    const early = [...envelope(x, 2500, -1_000_000, 1_000_000, 4)];
    expect(early.slice(0, 4).every(Number.isNaN)).toBe(true);
    expect(early.slice(4).map((v) => Math.round(v * 1000))).toEqual([1, 500, 501, 1000]);
  });
  it('come to a way along the path', () => {
    const there = written({ ms: 4000, channels: { x: (t) => (t <= 2000 ? t : 4000 - t) / 4000 } });
    expect(travelled(there)).toBeCloseTo(1, 6);
    expect(travelled(there, 1_001_000)).toBeCloseTo(0.25, 2);
    expect(travelled(there, 3_001_000)).toBeCloseTo(0.75, 2);
    // the way from where it started counts
    const away = written({ ms: 1500, start: { x: 2, y: 1, facingDeg: 0 }, channels: { x: 2, y: (t) => 1 + t / 1000 } });
    expect(travelled(away)).toBeCloseTo(1.5, 6);
    expect(travelled({ ...there, channels: [] })).toBe(0);
  });
});

describe('what was so', () => {
  const trace = written({
    ms: 3000,
    start: { x: 1, y: 2, facingDeg: 30 },
    channels: { x: 1.5, y: 2.5, facing: 45 },
    events: [
      { tUs: 100_000, type: 'lamp', lamp: 'left', on: true, colour: 'red', level: 40 },
      { tUs: 200_000, type: 'tone', hertz: 440, seconds: 0.5 },
      { tUs: 300_000, type: 'display', picture: '#...... ....... ....... ....... .......' },
      { tUs: 900_000, type: 'volume', percent: 30 },
      { tUs: 1_000_000, type: 'tone', hertz: 262 },
      { tUs: 1_500_000, type: 'lamp', lamp: 'right', on: true, colour: 'green' },
      { tUs: 2_000_000, type: 'tone', hertz: 0 },
      { tUs: 2_500_000, type: 'lamp', lamp: 'left', on: false, colour: 'red' }
    ]
  });
  it('at first: where it started, dark, silent', () => {
    expect(stateAt(trace, 0)).toMatchObject({
      x: 1,
      y: 2,
      facingDeg: 30,
      tone: undefined,
      picture: '',
      lamps: {}
    });
    expect(stateAt(trace, 999).x).toBe(1);
    expect(stateAt(trace, 1000)).toMatchObject({ x: 1.5, y: 2.5, facingDeg: 45 });
    expect(stateAt(written({ ms: 0, start: { x: 1, y: 2, facingDeg: 3 } }), 9000)).toMatchObject({
      x: 1,
      y: 2,
      facingDeg: 3
    });
  });
  it('is the newest of each lamp, picture, tone and volume', () => {
    expect(stateAt(trace, 699_999).tone).toEqual({ hertz: 440, sinceUs: 200_000, level: 100 });
    expect(stateAt(trace, 700_000).tone).toBeUndefined();
    expect(stateAt(trace, 1_600_000)).toMatchObject({
      tone: { hertz: 262, sinceUs: 1_000_000, level: 30 },
      picture: '#...... ....... ....... ....... .......',
      lamps: { left: { on: true, colour: 'red', level: 40 }, right: { on: true, colour: 'green' } }
    });
    expect(stateAt(trace, 2_600_000)).toMatchObject({
      tone: undefined,
      lamps: { left: { on: false }, right: { on: true } }
    });
  });
});

describe('which blocks ran', () => {
  it('is told from the inmost row back, a block that took no time too', () => {
    const trace = written({
      ms: 100,
      spans: [
        ['loop', 0, 90],
        ['a', 10, 20],
        ['b', 20, 20],
        ['c', 20, 40]
      ]
    });
    expect(runningAt(trace, 15_000)).toEqual(['loop', 'a']);
    expect(runningAt(trace, 20_000)).toEqual(['loop', 'c']);
    expect(runningAt(trace, 50_000)).toEqual(['loop']);
    expect(runningAt(trace, 90_000)).toEqual([]);
    expect(ranWhen(trace, 'b')).toEqual([[20_000, 20_000]]);
    expect(ranWhen(trace, 'nobody')).toEqual([]);
    const instant = written({
      ms: 100,
      spans: [
        ['loop', 0, 90],
        ['b', 20, 20]
      ]
    });
    expect(runningAt(instant, 20_000)).toEqual(['loop', 'b']);
    expect(runningAt(instant, 20_001)).toEqual(['loop']);
  });
  it('leaves out whole pages that were over, and none that still runs or ended later', () => {
    const spans = emptySpans();
    const put = (start: number, end: number) => putSpan(spans, pushSpan(spans, 0, 0, start), end, 1, 0);
    put(1, 5000);
    for (let i = 1; i < PAGE; i++) put(i, i + 1);
    for (let i = 0; i < PAGE; i++) put(1000 + i, 1001 + i);
    put(2000, 2001);
    const trace = { ...written({ ms: 10 }), spans };
    expect([...rowsAt(trace, 3000)]).toEqual([0]);
    expect([...rowsAt(trace, 5000)]).toEqual([]);
    expect([...rowsAt(trace, 2000)]).toEqual([2 * PAGE, 0]);
    putSpan(spans, 0, 0, 1, 0);
    expect([...rowsAt(trace, 6000)]).toEqual([0]);
  });
});

describe('what a move came to at rest', () => {
  it.each([0, 30, 90, 200, 315])('ahead and back, facing %i', (facing) => {
    const on = asked({
      ms: 2000,
      channels: rolls(facing, [
        [0, 1000, 20],
        [1000, 1200, 10]
      ]),
      events: move(0, 1000, 20, 'cm')
    });
    expect(on).toMatchObject({ got: 20, block: 'm1', fromUs: 0, toUs: 1_000_000, ended: 'done' });
    expect(on.rest).toBeCloseTo(22, 2);
    expect(on.peak).toBeCloseTo(22, 2);
    // three times 10 ms at rest
    expect(on.restUs).toBe(1_230_000);
    const back = asked({
      ms: 2000,
      channels: rolls(facing, [
        [0, 1000, -20],
        [1000, 1200, -10]
      ]),
      events: move(0, 1000, -20, 'cm')
    });
    expect(back.rest).toBeCloseTo(-22, 2);
    // with swapped motors it went the other way: rolling on makes it more of that
    const other = asked({
      ms: 2000,
      channels: rolls(facing, [
        [0, 1000, -20],
        [1000, 1200, -10]
      ]),
      events: move(0, 1000, 20, 'cm')
    });
    expect(other.rest).toBeCloseTo(22, 2);
  });
  it('swung on and back: the furthest, and where it stands', () => {
    const m = asked({
      ms: 2000,
      channels: turns(
        [
          [0, 900, 100],
          [900, 1000, 60],
          [1000, 1050, -80]
        ],
        300
      ),
      events: move(0, 900, 90, '°')
    });
    expect(m.peak).toBeCloseTo(96, 1);
    expect(m.rest).toBeCloseTo(92, 1);
    const left = asked({
      ms: 2000,
      channels: turns(
        [
          [0, 900, -100],
          [900, 1000, -60]
        ],
        20
      ),
      events: move(0, 900, -90, '°')
    });
    expect(left.rest).toBeCloseTo(-96, 1);
  });
  it.each<[string, 'cm' | '°', TraceEvent, boolean]>([
    ['a touch', 'cm', { tUs: 0, type: 'touch', x: 0, y: 0, speedCmS: 1, what: 'a wall', nose: true }, true],
    ['a motor', '°', { tUs: 0, type: 'motor', socket: 'L', power: 3, how: 'power' }, true],
    ['a hand that lifts', '°', { tUs: 0, type: 'input', input: { lift: true } }, true],
    ['a hand that carries', 'cm', { tUs: 0, type: 'input', input: { carry: { x: 1, y: 1, facing: 0 } } }, true],
    ['a push', 'cm', { tUs: 0, type: 'input', input: { push: { seconds: 1 } } as never }, true],
    ['a hand on another device', 'cm', { tUs: 0, type: 'input', input: { lift: true }, to: 'Wren' }, false],
    ['a button', 'cm', { tUs: 0, type: 'input', input: { press: 'Dot' } }, false],
    ['a line of the log', '°', { tUs: 0, type: 'log', text: 'x' }, false],
    ['wheels, in a drive', 'cm', { tUs: 0, type: 'wheels', left: 20, right: 20, how: 'power' }, true],
    ['wheels that stop, in a drive', 'cm', { tUs: 0, type: 'wheels', left: 0, right: 0, how: 'brake' }, true],
    ['wheels straight on, in a turn', '°', { tUs: 0, type: 'wheels', left: 20, right: 20, how: 'power' }, false],
    ['wheels that turn, in a turn', '°', { tUs: 0, type: 'wheels', left: 20, right: -20, how: 'power' }, true],
    ['wheels that stop, in a turn', '°', { tUs: 0, type: 'wheels', left: 0, right: 20, how: 'brake' }, false],
    ['a drive, in a drive', 'cm', { tUs: 0, type: 'move', id: 2, what: 'drive ahead', asked: 5, unit: 'cm' }, true],
    ['a drive, in a turn', '°', { tUs: 0, type: 'move', id: 2, what: 'drive ahead', asked: 5, unit: 'cm' }, false],
    ['a turn, in a turn', '°', { tUs: 0, type: 'move', id: 2, what: 'turn left', asked: 5, unit: '°' }, true],
    [
      'wheels for a while, in a turn',
      '°',
      { tUs: 0, type: 'move', id: 2, what: 'run wheels', asked: 5, unit: 's' },
      true
    ]
  ])('is counted until what it is told next: %s', (_, unit, event, ends) => {
    const channels = unit === 'cm' ? rolls(40, [[0, 2000, 20]]) : turns([[0, 2000, 20]]);
    const m = asked({
      ms: 2000,
      channels,
      events: [...move(0, 1000, 20, unit), { ...event, tUs: 1_300_000 } as TraceEvent]
    });
    expect(m.rest).toBeCloseTo(ends ? 26 : 40, 1);
    expect(m.restUs).toBe(ends ? 1_300_000 : 2_000_000);
  });
  it('is what it got where it did not end by itself, or is no way and no angle', () => {
    const channels = rolls(0, [[0, 2000, 20]]);
    const [from, over] = move(0, 1000, 20, 'cm');
    expect(
      asked({ ms: 2000, channels, events: [from, { ...over, ended: 'blocked', got: 7 } as TraceEvent] })
    ).toMatchObject({
      got: 7,
      rest: 7,
      peak: 7,
      restUs: 1_000_000,
      ended: 'blocked'
    });
    expect(asked({ ms: 2000, channels, events: move(0, 1000, 2, 'turns') })).toMatchObject({
      rest: 2,
      peak: 2,
      restUs: 1_000_000
    });
    expect(askedAndGot(written({ ms: 10, events: [over] }))).toEqual([]);
  });
});

describe('a heading as it is drawn', () => {
  const drawn = (ms: number, heading: (t: number) => number, count: number): number[] => {
    const trace = written({ ms, channels: { heading: (t) => ((heading(t) % 360) + 360) % 360 } });
    return [...followed(channel(trace, 'heading')!, trace.ticks, 0, ms * 1000, count)];
  };
  it('goes on across north: twice round is 720, and a little to both sides stays about 0', () => {
    const twice = drawn(4000, (t) => (t * 720) / 4000, 40);
    expect(twice.at(-1)).toBeGreaterThan(710);
    expect(twice.every((v, i) => i === 0 || v >= twice[i - 1] - 1e-9)).toBe(true);
    const still = drawn(1000, (t) => (t % 2 ? 0.4 : -0.4), 30);
    expect(Math.max(...still.map(Math.abs))).toBeLessThan(0.5);
    // half an hour in 30 columns, of which none is skipped
    const long = drawn(60_000, (t) => -t / 100, 30);
    expect(long.at(-2)).toBeLessThan(-590);
  });
  it('of a run that goes on is the same as of the whole', () => {
    const trace = written({ ms: 3000, channels: { heading: (t) => (350 + t / 50) % 360 } });
    const c = channel(trace, 'heading')!;
    const whole = [...followed(c, 3000, 0, 3_000_000, 50)];
    for (const ticks of [700, 1400, 2100]) followed(c, ticks, 0, 3_000_001, 50);
    const grown = [...followed(c, 3000, 0, 3_000_001, 50)];
    grown.forEach((v, i) => expect(v).toBeCloseTo(whole[i], 0));
  });
});
