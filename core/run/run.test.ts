/** How programs run: time, tasks, endings, errors, repeatability (design: running.md). */
import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { b, hall, log, logs, program, run, start, sum, wait } from '../testing/build.ts';
import { randomProgram } from '../testing/random.ts';
import { traceBytes } from '../trace/files.ts';
import { ranWhen, runningAt } from '../trace/query.ts';
import type { TimedInput } from '../trace/trace.ts';
import { fernBed } from '../yard/mats.ts';
import { Bench } from './bench.ts';
import { Interpreter } from './interpreter.ts';

const press = (t: number, button: 'Dot' | 'Bar' = 'Dot'): TimedInput => ({ tUs: t * 1e6, input: { press: button } });
const release = (t: number, button: 'Dot' | 'Bar' = 'Dot'): TimedInput => ({
  tUs: t * 1e6,
  input: { release: button }
});
const at = (trace: ReturnType<typeof run>): [number, string][] =>
  trace.events.flatMap((e) => (e.type === 'log' ? [[e.tUs, e.text] as [number, string]] : []));

describe('time', () => {
  it('costs 100 us a step and 100 us a turn of a loop', () => {
    const trace = run([b('repeat.times', { count: 3 }, { do: [log('x')] }), log('end')]);
    // repeat 100; log 200, turn 300; log 400, turn 500; log 600, turn 700; log 800
    expect(at(trace)).toEqual([
      [200, 'x'],
      [400, 'x'],
      [600, 'x'],
      [800, 'end']
    ]);
  });
  it('wakes waits at their exact microsecond: 100 times 10 ms last 1 s and their steps', () => {
    const trace = run([b('repeat.times', { count: 100 }, { do: [wait(10, 'ms')] }), log('end')]);
    expect(at(trace)).toEqual([[1_000_000 + 100 + 200 * 100 + 100, 'end']]);
  });
  it('never freezes in an endless tight loop: it ends at the limit and says so', () => {
    const trace = run([b('repeat.ever', {}, { do: [] })], { limitS: 2 });
    expect(trace.ended).toBe('time limit');
    expect(trace.ticks).toBe(2000);
  });
  it('is the same run however it is cut into slices', () => {
    const p = program(
      start(b('drive.measure', { amount: 20 }), b('turn.angle'), log(b('sense.distance'))),
      start(b('repeat.times', { count: 50 }, { do: [wait(7, 'ms'), b('lamp.set', { to: 'flip' })] })),
      [b('begin.button'), log('pressed')]
    );
    const options = { program: p, kit: barrow, mat: fernBed, seed: 4, inputs: [press(0.5)], limitS: 2 };
    const whole = new Bench(options);
    const one = new Interpreter(whole);
    while (one.advance(Infinity) !== 'ended');
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 3000, max: 700_000 }), { minLength: 1, maxLength: 40 }), (steps) => {
        const bench = new Bench(options);
        const other = new Interpreter(bench);
        let i = 0;
        while (other.advance(bench.worldUs + steps[i++ % steps.length]) !== 'ended');
        expect(traceBytes(bench.trace)).toEqual(traceBytes(whole.trace));
      }),
      { numRuns: 5 }
    );
  });
});

describe('tasks', () => {
  it('share the processor in the order they were started', () => {
    const trace = run(program(start(log('a'), wait(0.01), log('c')), start(log('b'), wait(0.005), log('d'))));
    expect(logs(trace)).toEqual(['a', 'b', 'd', 'c']);
  });
  it('ignore a trigger while their own stack still runs, and record it as missed', () => {
    const trace = run(program([b('begin.button'), log('go'), wait(1)]), {
      inputs: [press(0.1), release(0.2), press(0.5), release(0.6), press(1.5)],
      limitS: 3
    });
    expect(logs(trace)).toEqual(['go', 'go']);
    expect(trace.events.filter((e) => e.type === 'missed')).toHaveLength(1);
  });
  it('begin on held one second after pressed, and pressed fires too', () => {
    const trace = run(
      program(
        [b('begin.button', { event: 'held' }), log('held')],
        [b('begin.button'), log('pressed')],
        [b('begin.button', { event: 'released' }), log('released')]
      ),
      { inputs: [press(0.5), release(2)], limitS: 3 }
    );
    expect(at(trace).map(([t, text]) => [Math.round(t / 1000), text])).toEqual([
      [500, 'pressed'],
      [1500, 'held'],
      [2000, 'released']
    ]);
  });
  it('let the later of two commands for one motor win, and say "taken over"', () => {
    const trace = run(
      program(start(b('drive.measure', { amount: 90 }), log('over')), start(wait(1), b('wheels.stop')))
    );
    expect(trace.events.find((e) => e.type === 'moved')).toMatchObject({ ended: 'taken over' });
    expect(at(trace)[0][0]).toBeLessThan(1_010_000);
  });
});

describe('endings', () => {
  it('switch nothing off: a program that forgets to stop drives on', () => {
    const trace = run([b('wheels.run', { left: 10, right: 10 })], {
      mat: { ...hall, width: 9, height: 9, start: { x: 1, y: 4, facingDeg: 90 } }
    });
    expect(trace.ended).toBe('still driving');
    expect(trace.ticks).toBe(10_000);
  });
  it('wait until all has been still for 0.5 s', () => {
    const trace = run([b('drive.measure', { amount: 10, ending: 'coast' })]);
    expect(trace.ended).toBe('done');
    const over = trace.events.find((e) => e.type === 'moved')!;
    expect(trace.ticks * 1000 - over.tUs).toBeGreaterThan(700_000);
  });
  it('stop at the block that failed, with the values that led to it, and let the motors go', () => {
    const bad = log(sum(b('var.value', { variable: 'v1' }), '÷', 0));
    const trace = run([b('wheels.run'), b('var.set', { variable: 'v1', value: 7 }), bad, log('never')]);
    expect(trace.ended).toBe('error');
    expect(trace.events.find((e) => e.type === 'error')).toMatchObject({
      kind: 'division-by-zero',
      block: bad.id,
      message: 'Nothing can be divided by zero.'
    });
    expect(logs(trace)).toEqual([]);
  });
  it('come at 100 routines deep, with a plain error', () => {
    const p = program(start(b('routine.do', { routine: 'r' })));
    const trace = run({
      ...p,
      routines: [{ id: 'r', name: 'again', x: 0, y: 0, steps: [b('routine.do', { routine: 'r' })] }]
    });
    expect(trace.events.find((e) => e.type === 'error')).toMatchObject({ kind: 'too-deep' });
  });
});

describe('stepping', () => {
  it('stops before each block, and the world stands still meanwhile', () => {
    const steps = [log('one'), wait(0.1), log('two')];
    const bench = new Bench({ program: program(start(...steps)), kit: barrow, mat: hall, seed: 1 });
    const interpreter = new Interpreter(bench);
    interpreter.stopBefore = () => true;
    const here: (string | undefined)[] = [];
    for (;;) {
      if (interpreter.advance(Infinity) === 'ended') break;
      here.push(interpreter.here);
      const stood = bench.worldUs;
      expect(bench.worldUs).toBe(stood);
    }
    expect(here).toEqual(steps.map((s) => s.id));
    expect(logs(bench.trace)).toEqual(['one', 'two']);
  });
});

describe('the trace', () => {
  it('knows when each block ran', () => {
    const [first, second] = [wait(0.2), b('drive.measure', { amount: 10 })];
    const trace = run([first, second]);
    expect(ranWhen(trace, first.id)).toEqual([[100, 200_100]]);
    expect(runningAt(trace, 100_000)).toEqual([first.id]);
    expect(runningAt(trace, 600_000)).toEqual([second.id]);
  });
  it('is the same, byte for byte, for the same five inputs, and another for another seed', () => {
    const p = program(start(b('drive.measure', { amount: 20 }), log(b('calc.chance')), log(b('sense.distance'))));
    const hash = (seed: number) =>
      createHash('sha256')
        .update(traceBytes(run(p, { seed, noise: true, mat: fernBed })))
        .digest('hex');
    expect(hash(3)).toBe(hash(3));
    expect(hash(3)).not.toBe(hash(4));
  });
});

it('random programs end, with whole numbers of microseconds and events in order', () => {
  fc.assert(
    fc.property(randomProgram, (p) => {
      const trace = run(p, { limitS: 3 });
      expect(trace.ended).toBeDefined();
      let before = 0;
      for (const e of trace.events) {
        expect(Number.isInteger(e.tUs)).toBe(true);
        expect(e.tUs).toBeGreaterThanOrEqual(before - 1000);
        before = Math.max(before, e.tUs);
      }
    }),
    { numRuns: 60 }
  );
});
