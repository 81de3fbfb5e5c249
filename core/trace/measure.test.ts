import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { b, log, program, run, start, sum, variable, wait } from '../testing/build.ts';
import { header } from '../testing/header.ts';
import { changesOf, heldAt, measure, statistics } from './measure.ts';
import { Recorder } from './recorder.ts';
import { channel, type ChannelSpec } from './trace.ts';

const spec: ChannelSpec = { key: 'a', title: 'a', unit: 'V', scale: 0.5 };
function recorded(samples: readonly number[]) {
  const recorder = new Recorder({ ...header, blocks: [] }, [spec]);
  for (const s of samples) recorder.sample(Float64Array.of(s * 0.5));
  recorder.finish('done', samples.length * 1000);
  return recorder.trace;
}

describe('a heading between two cursors', () => {
  const heading = (samples: readonly number[]) => {
    const recorder = new Recorder({ ...header, blocks: [] }, [{ key: 'heading', title: '', unit: '°', scale: 0.02 }]);
    for (const s of samples) recorder.sample(Float64Array.of(s));
    recorder.finish('done', samples.length * 1000);
    return recorder.trace;
  };
  it('is followed across north, both ways, and has a circular mean', () => {
    // a turn of +90 from 300: told as +90, not as -270; its middle is 345
    const right = heading(Array.from({ length: 91 }, (_, i) => (300 + i) % 360));
    const m = measure(right.channels[0], right.ticks, 1000, 91_000)!;
    expect(m).toMatchObject({ a: 300, b: 30, difference: 90, smallest: 300, largest: 390 });
    expect(m.mean).toBeCloseTo(345, 6);
    expect(m.slope).toBeCloseTo(1000, 6);
    const left = heading(Array.from({ length: 21 }, (_, i) => (370 - i) % 360));
    const n = measure(left.channels[0], left.ticks, 1000, 21_000)!;
    expect(n.difference).toBe(-20);
    expect(n.mean).toBeCloseTo(0, 6);
    expect(n).toMatchObject({ smallest: -10, largest: 10 });
    // the mean lies between the least and the largest, however they are counted
    const over = heading(Array.from({ length: 21 }, (_, i) => (350 + i) % 360));
    const o = measure(over.channels[0], over.ticks, 1000, 21_000)!;
    expect(o).toMatchObject({ smallest: 350, largest: 370, mean: expect.closeTo(360, 6) });
    expect(measure(left.channels[0], left.ticks, 21_000, 1000)!.difference).toBe(20);
  });
});

describe('between two cursors', () => {
  it('measures a straight line: slope, mean and area as in any book of calculus', () => {
    // 0, 0.5, 1.0 ... : half a volt a millisecond
    const trace = recorded(Array.from({ length: 3001 }, (_, i) => i));
    const m = measure(trace.channels[0], trace.ticks, 1_001_000, 2_001_000)!;
    expect(m).toMatchObject({ a: 500, b: 1000, difference: 500, smallest: 500, largest: 1000 });
    expect(m.slope).toBeCloseTo(500, 9);
    expect(m.mean).toBeCloseTo(750, 9);
    // a trapezium of 500 and 1000 over one second
    expect(m.area).toBeCloseTo(750, 6);
    const back = measure(trace.channels[0], trace.ticks, 2_001_000, 1_001_000)!;
    expect([back.difference, back.slope, back.mean]).toEqual([-500, m.slope, m.mean]);
  });
  it('is the same as looking at every sample', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -200, max: 200 }), { minLength: 2, maxLength: 2600 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (samples, p, q) => {
          const trace = recorded(samples);
          const [i, k] = [p, q].map((x) => Math.floor(x * (samples.length - 1))).sort((x, y) => x - y);
          const m = measure(trace.channels[0], trace.ticks, (i + 1) * 1000, (k + 1) * 1000)!;
          const part = samples.slice(i, k + 1).map((s) => s * 0.5);
          expect(m.smallest).toBe(Math.min(...part));
          expect(m.largest).toBe(Math.max(...part));
          expect(m.mean).toBeCloseTo(part.reduce((s, x) => s + x, 0) / part.length, 9);
          expect([m.a, m.b]).toEqual([part[0], part[part.length - 1]]);
        }
      ),
      { numRuns: 60 }
    );
  });
  it('has nothing to measure in an empty trace', () => {
    expect(measure(recorded([]).channels[0], 0, 0, 5)).toBeUndefined();
  });
});

describe('times of blocks and values of variables', () => {
  const body = wait(0.1);
  const add = b('var.change', { variable: 'v1' });
  const name = b('var.set', { variable: 'v2', value: 'moss' });
  const p = program(
    start(name, b('repeat.times', { count: 3 }, { do: [body, add] }), wait(0.5), log(sum(variable('v1'), '+', 0)))
  );
  const trace = run(p);
  it('count how often and how long', () => {
    const row = statistics(trace).find((r) => r.block === body.id)!;
    expect(row.times).toBe(3);
    for (const us of [row.shortestUs, row.meanUs, row.longestUs]) expect(us / 1e6).toBeCloseTo(0.1, 2);
    expect(statistics(trace)[0].block).toBe(p.stacks[0].steps[3].id);
  });
  it('keep every change with its moment', () => {
    const list = changesOf(trace, 'count');
    expect(list.map((c) => c.value)).toEqual([1, 2, 3]);
    expect(list.every((c, i) => i === 0 || c.tUs > list[i - 1].tUs)).toBe(true);
    expect(changesOf(trace, 'Länge')).toMatchObject([{ text: 'moss' }]);
    expect(changesOf(trace, 'nobody')).toEqual([]);
    expect([...heldAt(trace, list[1].tUs)]).toEqual([
      ['Länge', 'moss'],
      ['count', '2']
    ]);
    expect(heldAt(trace, 0).size).toBe(0);
    expect(channel(trace, 'x')).toBeDefined();
  });
  it('stay small when a variable changes all the time', () => {
    const busy = run(program(start(b('repeat.ever', {}, { do: [b('var.change', { variable: 'v1' })] }))), {
      limitS: 100
    });
    // one a turn at first, then one a tick: 100 s are 100,000 ticks
    expect(busy.changes.count).toBeLessThan(320_000);
    expect(busy.changes.value[busy.changes.count - 1]).toBe(busy.variables.v1);
  });
});
