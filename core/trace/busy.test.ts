/** Programs that never wait: what is bundled, what is told all the same, and how little it takes. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import type { Step } from '../language/program.ts';
import { Bench } from '../run/bench.ts';
import { channelSpecs } from '../run/channels.ts';
import { Interpreter, rehearse } from '../run/interpreter.ts';
import { b, cmp, end, hall, program, run, start, wait } from '../testing/build.ts';
import { long } from '../testing/long.ts';
import { gravelPath } from '../yard/mats.ts';
import { eventsOf } from './apart.ts';
import { bytesOfTrace, traceBytes } from './files.ts';
import { findings } from './findings/findings.ts';
import { changesOf, statistics } from './measure.ts';
import { ranWhen, runningAt, stateAt } from './query.ts';
import { Follow } from './recorder.ts';
import { endUs, type Trace } from './trace.ts';

const ever = (...body: Step[]): Step => b('repeat.ever', {}, { do: body });
const flicker = () =>
  ever(b('display.dark'), b('pixel.set', { x: 3, y: 2, to: 'on' }), b('var.change', { variable: 'v1' }));
const times = (trace: Trace, id: string): number => statistics(trace).find((r) => r.block === id)!.times;

describe('a tight loop in the trace', () => {
  it('counts every run of every block, and knows when it ran', () => {
    const add = b('var.change', { variable: 'v1' });
    const flip = b('lamp.set', { to: 'flip' });
    const last = b('display.write', { value: 7 });
    const p = program(start(b('repeat.times', { count: 5000 }, { do: [add, flip] }), last));
    const trace = run(p);
    expect([times(trace, add.id), times(trace, flip.id), times(trace, last.id)]).toEqual([5000, 5000, 1]);
    expect(end(trace).blocks).toEqual([]);
    expect(trace.spans.count).toBeLessThan(1200);
    // steps of 100 µs, a turn of the loop 100 µs more: 0.3 ms a turn
    const all = ranWhen(trace, add.id);
    expect(all[0]).toEqual([200, 200]);
    expect(all[1][0] - all[0][0]).toBe(300);
    for (let i = 1; i < all.length; i++) expect(all[i][0]).toBeGreaterThanOrEqual(all[i - 1][1]);
    expect(all.at(-1)![1]).toBe(200 + 4999 * 300);
    // at any moment in the loop it is found to run, to within a bundle
    const loop = p.stacks[0].steps[1].id;
    expect(runningAt(trace, 1_000_000)).toContain(loop);
    expect(all.some(([from, to]) => from <= 1_000_000 && to >= 980_000)).toBe(true);
    expect(changesOf(trace, 'count').at(-1)!.value).toBe(5000);
    // what is between the runs is no time of the block
    expect(statistics(trace).find((r) => r.block === add.id)!.meanUs).toBe(0);
  });
  it('is bundled by itself alone: slow loops, waits and other tasks stay row by row', () => {
    const slow = wait(20, 'ms');
    const trace = run(program(start(b('repeat.times', { count: 400 }, { do: [slow] }))));
    expect(ranWhen(trace, slow.id)).toHaveLength(400);
    expect(times(trace, slow.id)).toBe(400);
    expect(statistics(trace).find((r) => r.block === slow.id)).toMatchObject({ shortestUs: 20_000, longestUs: 20_000 });
  });
  it('finds a loop that began long ago at once: it still runs', () => {
    const loop = ever(wait(10, 'ms'), b('lamp.set', { to: 'flip' }));
    const trace = run(program(start(loop)), { limitS: 40 });
    expect(runningAt(trace, 39_000_000)).toContain(loop.id);
    expect(runningAt(trace, 39_000_000)).not.toContain('nobody');
  });
  it('is the same whenever it is looked at, there and where it is followed', () => {
    const count = () => b('var.change', { variable: 'v1' });
    // past every limit: of rows, of events of a kind, of changes
    const loops = [
      start(ever(b('display.dark'), b('pixel.set', { x: 3, y: 2, to: 'on' }), count(), count(), count(), count())),
      start(ever(wait(1, 'ms')))
    ];
    const options = { program: program(...loops), kit: barrow, mat: hall, seed: 3, limitS: 20 };
    const bytes = Buffer.from(traceBytes(rehearse(options)));
    const same = (trace: Trace): boolean => bytes.equals(traceBytes(trace));
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 20_000, max: 4_000_000 }), { minLength: 1, maxLength: 9 }), (slices) => {
        const bench = new Bench(options);
        const interpreter = new Interpreter(bench);
        const follow = new Follow(bench.trace.header, channelSpecs(barrow, hall));
        for (let i = 0, state; state !== 'ended'; i++) {
          state = interpreter.advance(bench.worldUs + slices[i % slices.length]);
          follow.add(structuredClone(bench.recorder.drain()));
        }
        Object.assign(follow.trace.variables, bench.trace.variables);
        expect([same(bench.trace), same(follow.trace)]).toEqual([true, true]);
        expect([follow.trace.spans.latest, follow.trace.spans.open]).toEqual([
          bench.trace.spans.latest,
          bench.trace.spans.open
        ]);
      }),
      { numRuns: 4 }
    );
  });
});

describe('events of a loop without a wait', () => {
  it('are changes alone: the same command again is none', () => {
    const again = b(
      'repeat.times',
      { count: 50 },
      {
        do: [
          b('wheels.run', { left: 20, right: 30 }),
          b('lamp.set', { to: 'on' }),
          b('servo.angle', { angle: 40 }),
          b('display.write', { value: 7 }),
          b('sound.start', { tone: 440 })
        ]
      }
    );
    const trace = run([again, b('drive.measure', { amount: 1 }), b('wheels.run', { left: 20, right: 30 })], {
      limitS: 4
    });
    const count = (type: 'wheels' | 'lamp' | 'servo' | 'display' | 'tone'): number => eventsOf(trace, type).length;
    expect(['lamp', 'servo', 'display', 'tone'].map((t) => count(t as 'lamp'))).toEqual([1, 1, 1, 1]);
    // after a move the same power is a command anew
    expect(count('wheels')).toBe(2);
  });
  it('stand for how many they were, and the state at any moment is one that was', () => {
    const trace = run(program(start(flicker())), { limitS: 30 });
    const shown = eventsOf(trace, 'display');
    const all = shown.reduce((n, e) => n + (e.times ?? 1), 0);
    // two changes in each turn of 400 µs
    expect(all / (2 * (30e6 / 400))).toBeCloseTo(1, 3);
    expect(shown.length).toBeLessThan(24_000);
    for (let i = 1; i < trace.events.length; i++)
      expect(trace.events[i].tUs).toBeGreaterThanOrEqual(trace.events[i - 1].tUs);
    expect(['......', '#']).toContain(stateAt(trace, 29_500_000).picture[17] === '#' ? '#' : '......');
  });
  it('say nothing of those that they stand for: a level, a length', () => {
    const body = [b('lamp.level', { level: 30 }), b('lamp.set', { to: 'off' }), b('lamp.set', { to: 'on' })];
    const trace = run(program(start(ever(...body))), { limitS: 12 });
    const bundled = eventsOf(trace, 'lamp').filter((e) => e.times);
    expect(bundled.length).toBeGreaterThan(100);
    for (const e of eventsOf(trace, 'lamp'))
      expect([e.on, e.level]).toEqual(e.block === body[0].id ? [true, 30] : [e.block === body[2].id, undefined]);
  });
  it('that a trigger missed are all counted, sixty thousand of them', () => {
    const p = program([b('begin.every', { time: 1, unit: 'ms' }), ever(b('var.change', { variable: 'v1' }))]);
    const trace = run(p, { limitS: 60 });
    const missed = findings(trace, barrow, p).find((f) => f.rule === 'trigger-missed')!;
    // one a millisecond, but for the first, which begins it, and what is due as it ends
    expect(Number(/came ([\d,]+) times/.exec(missed.says)![1].replace(',', ''))).toBeGreaterThan(59_990);
    expect(trace.events.length).toBeLessThan(30_000);
  });
});

describe('findings of long runs', () => {
  it('come of 150,000 turns of a loop, and of a robot that still drives after them', () => {
    const p = program(
      start(
        b('wheels.run', { left: 5, right: 9 }),
        b('repeat.times', { count: 150_000 }, { do: [b('lamp.set', { to: 'flip' })] })
      )
    );
    const found = findings(run(p), barrow, p);
    expect(found.find((f) => f.rule === 'still-driving')!.says).toContain('was over at 30.00 s');
  });
});

describe('ten minutes of a line follower that never waits', () => {
  long('take less than 60 MB, and tell when each of its blocks ran', () => {
    const left = b('wheels.run', { left: 10, right: 30 });
    const p = program(
      start(
        ever(
          b(
            'choose.if',
            { if1: cmp(b('sense.line'), '<', 50) },
            { then1: [left], otherwise: [b('wheels.run', { left: 30, right: 10 })] }
          ),
          b('var.set', { variable: 'v1', value: b('sense.line') })
        )
      )
    );
    const trace = rehearse({ program: p, kit: barrow, mat: gravelPath, seed: 1, limitS: 600 });
    expect(endUs(trace)).toBe(600e6);
    expect(bytesOfTrace(trace)).toBeLessThan(60e6);
    expect(ranWhen(trace, left.id).length).toBeGreaterThan(1000);
    expect(findings(trace, barrow, p).map((f) => f.rule)).toEqual(['time-limit']);
  });
});
