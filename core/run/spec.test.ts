import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { quirksOf } from '../kit/quirks.ts';
import { b, hall, log, program, run, start, wait } from '../testing/build.ts';
import { anyInput, anyLife, live } from '../testing/lives.ts';
import { long } from '../testing/long.ts';
import { traceBytes } from '../trace/files.ts';
import { parseInputs, writeInputs } from '../trace/inputs.ts';
import { recordedInputs } from '../trace/track.ts';
import { readRun, writeRun } from '../trace/runfile.ts';
import type { TimedInput } from '../trace/trace.ts';
import { Bench } from './bench.ts';
import { Interpreter, rehearse } from './interpreter.ts';
import { hashesOf, specOf, specOfRun } from './spec.ts';

describe('a run', () => {
  long('is made again from its file byte for byte, whatever was done to it', async () => {
    const ends = new Map<string, number>();
    await fc.assert(
      fc.asyncProperty(anyLife, async (life) => {
        const bench = live(life);
        const { trace } = bench;
        ends.set(trace.ended!, (ends.get(trace.ended!) ?? 0) + 1);
        const text = await writeRun({ name: '', kind: 'rehearsal', project: life.project, trace }, false);
        const read = await readRun(text);
        if (!read.ok) throw new Error(read.problem);
        expect(read.missing).toEqual([]);
        const made = new Bench(specOfRun(read.run.project!, read.run.trace));
        new Interpreter(made).advance(Infinity);
        const again = made.trace;
        // a sentence for the first difference, then the bytes
        expect(again.events).toEqual(trace.events);
        expect([again.ended, again.ticks]).toEqual([trace.ended, trace.ticks]);
        expect(Buffer.from(traceBytes(again)).equals(Buffer.from(traceBytes(trace)))).toBe(true);
        // and so are the other devices in its yard, with what was done to them
        expect(made.beside.map((b) => b.bench.trace.events)).toEqual(bench.beside.map((b) => b.bench.trace.events));
      }),
      { numRuns: 200, seed: 20261128 }
    );
    for (const ended of ['stopped', 'time limit', 'error']) expect(ends.get(ended), ended).toBeGreaterThan(5);
  });
  it('has inputs that read back from their file as the recorder wrote them', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 400_000 }), anyInput), { maxLength: 12 }), (done) => {
        const inputs = done.map(([tUs, input]): TimedInput => ({ tUs, input }));
        const trace = run([b('var.set', { variable: 'v1', value: 1 }), wait(0.5)], { inputs });
        const recorded = recordedInputs(trace);
        expect(parseInputs(writeInputs(recorded))).toEqual({ ok: true, inputs: recorded });
      })
    );
  });
  it('that was stopped ends at that moment again', () => {
    const p = program(start(b('wheels.run', { left: 40, right: 40 }), wait(5)));
    const bench = new Bench({ program: p, kit: barrow, mat: hall, seed: 1 });
    const interpreter = new Interpreter(bench);
    interpreter.advance(3_000_000);
    bench.input({ tUs: bench.now, input: { stop: true } });
    expect(interpreter.advance(Infinity)).toBe('ended');
    expect(bench.trace).toMatchObject({ ended: 'stopped', ticks: 3001 });
    const inputs = recordedInputs(bench.trace);
    expect(inputs).toEqual([{ tUs: 3_001_000, input: { stop: true } }]);
    expect(rehearse({ program: p, kit: barrow, mat: hall, seed: 1, inputs })).toMatchObject({
      ended: 'stopped',
      ticks: 3001
    });
  });
  it('that rests before a step is stopped before that step', () => {
    const p = program(start(wait(0.2), log('said')));
    const bench = new Bench({ program: p, kit: barrow, mat: hall, seed: 1 });
    const interpreter = new Interpreter(bench);
    const said = p.stacks[0].steps[2].id;
    interpreter.stopBefore = (block) => block === said;
    expect(interpreter.advance(Infinity)).toBe('paused');
    bench.input({ tUs: bench.now, input: { stop: true } });
    interpreter.stopBefore = undefined;
    interpreter.advance(Infinity);
    expect(bench.trace.ended).toBe('stopped');
    expect(bench.trace.events.some((e) => e.type === 'log')).toBe(false);
  });
  it('is another one when anything that decides it is another', () => {
    const base = { program: program(start(wait(1))), kit: barrow, mat: hall, seed: 1 };
    const hash = (more: object): string => hashesOf(specOf({ ...base, ...more })).run;
    const others = [
      {},
      { seed: 2 },
      { start: { x: 0.5, y: 0.5, facingDeg: 0 } },
      { limitS: 3 },
      { noise: false },
      { onBattery: true },
      { open: true },
      { quirks: quirksOf('MB-BAR-0003', barrow) },
      { text: 'run(main)' },
      { kit: { ...barrow, name: 'mine' } },
      { mat: { ...hall, airC: 25 } },
      { program: program(start(wait(2))) },
      { others: [{ name: 'b', program: base.program, kit: barrow }] }
    ].map(hash);
    expect(new Set(others).size).toBe(others.length);
    expect(hash({ limitS: 120, noise: true, start: { ...hall.start } })).toBe(others[0]);
  });
});
