/** Several devices in one yard, each with its own program. */
import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../kit/kit.ts';
import { b, hall, log, logs, program, start, wait } from '../testing/build.ts';
import { parseInputs, writeInputs } from '../trace/inputs.ts';
import { stateAt } from '../trace/query.ts';
import { recordedInputs } from '../trace/track.ts';
import { Bench } from './bench.ts';
import type { RunOptions } from './spec.ts';
import { Interpreter } from './interpreter.ts';

function together(options: Partial<RunOptions>): Bench {
  const bench = new Bench({ program: program(), kit: barrow, mat: hall, seed: 1, noise: false, ...options });
  const interpreter = new Interpreter(bench);
  while (interpreter.advance(Infinity) !== 'ended');
  return bench;
}
const NEARBY = 'my stacks and devices nearby';
const send = (name: string, whom: string) => b('message.send', { name, whom });
const heard = (message: string, ...steps: ReturnType<typeof b>[]) => [b('begin.message', { name: message }), ...steps];

describe('two devices in one yard', () => {
  it('talk by radio: a message arrives at the next boundary, and starts a stack there', () => {
    const bench = together({
      program: program(start(wait(0.5), send('open', NEARBY), wait(1))),
      others: [{ name: 'Trowel', kit: trowel, program: program(heard('open', log('heard it'))) }]
    });
    const other = bench.beside[0].bench.trace;
    expect(logs(other)).toEqual(['heard it']);
    const at = other.events.find((e) => e.type === 'heard')!;
    expect(at).toMatchObject({ name: 'open', from: 'Rehearsal' });
    expect(at.tUs).toBeGreaterThanOrEqual(500_000);
    expect(at.tUs).toBeLessThanOrEqual(502_000);
  });
  it('do not hear what is sent to one’s own stacks alone', () => {
    const bench = together({
      program: program(start(send('open', 'my stacks'), wait(0.2))),
      others: [{ name: 'Trowel', kit: trowel, program: program(heard('open', log('heard it'))) }]
    });
    expect(logs(bench.beside[0].bench.trace)).toEqual([]);
  });
  it('answer one another, over and over, in simulated time', () => {
    const bench = together({
      program: program(
        start(send('ping', NEARBY), wait(1)),
        heard('pong', log('pong'), wait(0.1), send('ping', NEARBY))
      ),
      others: [{ name: 'B', kit: trowel, program: program(heard('ping', wait(0.1), send('pong', NEARBY))) }],
      limitS: 2.05
    });
    // a round takes 0.2 s and a few boundaries
    expect(logs(bench.trace).length).toBeGreaterThanOrEqual(9);
    expect(logs(bench.trace).length).toBeLessThanOrEqual(10);
  });
  it('feel what is done to each of them, and the run made again from its record has it too', () => {
    const pressed = [b('begin.button', { button: 'Dot' }), send('here', NEARBY)];
    const options: Partial<RunOptions> = {
      program: program(heard('here', log('it was pressed')), [b('begin.button', { button: 'Dot' }), log('me')]),
      others: [{ name: 'B', kit: trowel, program: program(pressed) }],
      limitS: 1
    };
    const first = new Bench({ program: program(), kit: barrow, mat: hall, seed: 1, noise: false, ...options });
    const interpreter = new Interpreter(first);
    interpreter.advance(300_000);
    first.input({ tUs: first.worldUs, input: { press: 'Dot' }, to: 'B' });
    interpreter.advance(600_000);
    first.input({ tUs: first.worldUs, input: { lean: { sideways: 40 } }, to: 'B' });
    first.input({ tUs: first.worldUs, input: { lean: { sideways: 50 } }, to: 'nobody' });
    while (interpreter.advance(Infinity) !== 'ended');
    expect(logs(first.trace)).toEqual(['it was pressed']);
    const inputs = recordedInputs(first.trace);
    expect(inputs[0]).toEqual({ tUs: 301_000, input: { press: 'Dot' }, to: 'B' });
    expect(parseInputs(writeInputs(inputs))).toEqual({ ok: true, inputs });
    const again = together({ ...options, inputs });
    for (const of of [(b: Bench) => b.trace, (b: Bench) => b.beside[0].bench.trace])
      expect([...of(again).events]).toEqual([...of(first).events]);
    const lean = (b: Bench) => stateAt(b.beside[0].bench.trace, 900_000).values.leanSideways;
    expect([lean(first), lean(again)]).toEqual([40, 40]);
    // at the very beginning too
    const atOnce = together({ ...options, inputs: [{ tUs: 0, input: { press: 'Dot' }, to: 'B' }] });
    expect(logs(atOnce.trace)).toEqual(['it was pressed']);
    expect(recordedInputs(atOnce.trace)).toEqual([{ tUs: 0, input: { press: 'Dot' }, to: 'B' }]);
  });
  it('are all recorded to the last tick when the run is stopped', () => {
    const far = program(start(wait(5)));
    const { trace, beside } = together({
      program: far,
      others: [{ name: 'B', kit: barrow, program: far, start: { x: 1, y: 1, facingDeg: 0 } }],
      inputs: [{ tUs: 200_000, input: { stop: true } }]
    });
    const other = beside[0].bench.trace;
    expect([trace.ended, other.ended, trace.ticks, other.ticks]).toEqual(['stopped', 'stopped', 200, 200]);
    const at = (tick: number) => stateAt(other, tick * 1000).values.distance;
    expect(at(199)).toBeGreaterThan(50);
    expect(at(200)).toBe(at(199));
  });
  it('are known by name where a message comes over the air; a person who plays one is nobody', () => {
    const at = (tUs: number, from?: string) => ({ tUs, input: { message: 'open', ...(from ? { from } : {}) } });
    const { trace } = together({
      program: program(heard('open', log('open'))),
      inputs: [at(1e5, 'Trowel 2'), at(3e5)]
    });
    expect(logs(trace)).toEqual(['open', 'open']);
    expect(trace.events.filter((e) => e.type === 'heard')).toEqual([
      { tUs: 100_000, type: 'heard', name: 'open', from: 'Trowel 2' }
    ]);
  });
  it('push one another: both live in the same world', () => {
    const bench = together({
      program: program(start(b('drive.measure', { amount: 60 }))),
      others: [{ name: 'B', kit: barrow, program: program(), start: { x: 1.85, y: 1.5, facingDeg: 0 } }]
    });
    const other = bench.beside[0].bench.trace;
    expect(stateAt(other, other.ticks * 1000).x).toBeGreaterThan(1.87);
    expect(bench.trace.events.some((e) => e.type === 'touch')).toBe(true);
  });
  it('run each on its own clock, so that a busy one does not slow the other down', () => {
    const busy = [
      b('begin.start'),
      b('repeat.for', { time: 1 }, { do: [b('var.change', { amount: 1, variable: 'v1' })] })
    ];
    const bench = together({
      program: program(start(wait(1), log('now'))),
      others: [{ name: 'B', kit: trowel, program: program(busy) }]
    });
    const at = bench.trace.events.find((e) => e.type === 'log')!.tUs;
    expect(at).toBeGreaterThanOrEqual(1_000_000);
    expect(at).toBeLessThan(1_001_000);
  });
  it('are the same, byte for byte, when they run again', () => {
    const options: Partial<RunOptions> = {
      noise: true,
      program: program(start(b('drive.measure', { amount: 20 }))),
      others: [
        {
          name: 'B',
          kit: barrow,
          program: program(start(b('drive.measure', { amount: 10 }))),
          start: { x: 2, y: 2, facingDeg: 0 }
        }
      ]
    };
    const of = (bench: Bench) => JSON.stringify(bench.beside[0].bench.trace.channels.map((c) => c.low));
    expect(of(together(options))).toBe(of(together(options)));
  });
  it('go on while one still has something to do, and end together', () => {
    const bench = together({
      program: program(start(log('done at once'))),
      others: [{ name: 'B', kit: trowel, program: program(start(wait(2), log('later'))) }]
    });
    expect(logs(bench.beside[0].bench.trace)).toEqual(['later']);
    expect(bench.ended).toBe('done');
  });
});
