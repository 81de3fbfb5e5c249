/** What begins a stack and when, what waits and for what, and how often a loop goes round. */
import { describe, expect, it } from 'vitest';
import { trowel } from '../kit/kit.ts';
import type { Step } from '../language/program.ts';
import { b, cmp, list, log, logs, program, run, start, sum, variable, wait } from '../testing/build.ts';
import { worn } from '../testing/kits.ts';
import { stateAt } from '../trace/query.ts';
import type { Input, TimedInput, Trace } from '../trace/trace.ts';

const at = (ms: number, input: Input): TimedInput => ({ tUs: ms * 1000, input });
/** Logs with the millisecond in which each was written. */
const told = (trace: Trace): string[] =>
  trace.events.flatMap((e) => (e.type === 'log' ? [`${Math.round(e.tUs / 1000)} ${e.text}`] : []));
const began = (trace: Trace): string[] =>
  trace.events.flatMap((e) => (e.type === 'began' ? [`${Math.round(e.tUs / 1000)} ${e.trigger}`] : []));
const heard = (begin: Step, inputs: TimedInput[], options = {}) =>
  told(run(program([begin, log('.')]), { inputs, limitS: 2, ...options })).map((t) => Number(t.split(' ')[0]));

describe('stacks', () => {
  it('before setting off come first and alone; then the word is awaited, with the wheels held', () => {
    const p = program(
      [b('begin.before'), log('prepare'), wait(0.1), log('ready')],
      start(log('start')),
      [b('begin.off'), log('off')],
      [b('begin.button'), log('button')]
    );
    const trace = run(p, { inputs: [at(50, { press: 'Bar' }), at(500, { word: true })], limitS: 2 });
    expect(told(trace).map((t) => t.split(' ')[1])).toEqual(['prepare', 'ready', 'start', 'off']);
    expect(trace.events.find((e) => e.type === 'ready')!.tUs / 1000).toBeCloseTo(100, -0.5);
    expect(Number(told(trace)[2].split(' ')[0])).toBe(500);
    expect(began(trace).map((t) => t.split(' ')[1])).toEqual(['before', 'start', 'set']);
    // the wheels are held until then
    const drives = run(program([b('begin.before'), b('wheels.run', { left: 50, right: 50 })]), { limitS: 1 });
    expect(drives.events.find((e) => e.type === 'error')).toMatchObject({ kind: 'not-yet' });
    // without the word nothing begins
    expect(logs(run(p, { limitS: 1 }))).toEqual(['prepare', 'ready']);
    // the word given early is kept
    expect(told(run(p, { inputs: [at(20, { word: true })], limitS: 2 }))[2]).toMatch(/^10\d start$/);
    // without anything to prepare both begin at once
    expect(logs(run(program(start(log('start')), [b('begin.off'), log('off')])))).toEqual(['start', 'off']);
  });
  it('come every so often from the first time on, and what does not fit is missed, not made up for', () => {
    const every = (time: number, unit: string, ...more: Step[]) =>
      run(program([b('begin.every', { time, unit }), log('.'), ...more]), { limitS: 1.05 });
    expect(told(every(0.25, 's'))).toEqual(['250 .', '500 .', '750 .', '1000 .']);
    expect(told(every(200, 'ms'))).toEqual(['200 .', '400 .', '600 .', '800 .', '1000 .']);
    const slow = every(200, 'ms', wait(0.3));
    expect(told(slow)).toEqual(['200 .', '600 .', '1000 .']);
    expect(slow.events.filter((e) => e.type === 'missed').map((e) => [Math.round(e.tUs / 1000), e.trigger])).toEqual([
      [400, 'every'],
      [800, 'every']
    ]);
  });
  it('come when something becomes true, not while it is, and not if it was so from the start', () => {
    const when = (condition: Step, inputs: TimedInput[] = []) => heard(b('begin.when', { condition }), inputs);
    const timer = b('sense.timer');
    const after = when(cmp(timer, '>', 0.3));
    expect(after).toEqual([expect.closeTo(301, -1)]);
    expect(when(cmp(timer, '>', -1))).toEqual([]);
    const dot = b('sense.button', { button: 'Dot' });
    const press = (ms: number) => [at(ms, { press: 'Dot' }), at(ms + 100, { release: 'Dot' })];
    expect(when(dot, [...press(200), ...press(600)])).toEqual([200, 600]);
    // an error in the question ends the run, at its starter
    const begin = b('begin.when', { condition: cmp(b('calc.sum', { a: 1, sign: '÷', b: 0 }), '>', 1) });
    const trace = run(program([begin, log('.')]), { limitS: 1 });
    expect(trace.ended).toBe('error');
    expect(trace.events.find((e) => e.type === 'error')).toMatchObject({ block: begin.id, kind: 'division-by-zero' });
  });
  it('come by what is pressed, touched, leaned, and by messages', () => {
    const key = (event: string) => b('begin.key', { key: 'W', event });
    const keys = [
      at(100, { key: 'W', down: true }),
      at(150, { key: 'W', down: true }),
      at(300, { key: 'W', down: false })
    ];
    expect(heard(key('pressed'), keys)).toEqual([100]);
    expect(heard(key('released'), keys)).toEqual([300]);
    expect(heard(key('pressed'), [at(100, { key: 'S', down: true })])).toEqual([]);
    const edge = (event: string) => b('begin.touch', { what: 'left edge', event });
    const edges = [at(100, { edge: 'left', touched: true }), at(300, { edge: 'left', touched: false })];
    expect(heard(edge('is touched'), edges, { kit: trowel })).toEqual([100]);
    expect(heard(edge('is free'), edges, { kit: trowel })).toEqual([300]);
    expect(heard(b('begin.touch', { what: 'right edge' }), edges, { kit: trowel })).toEqual([]);
    const nose = [at(100, { nose: true }), at(300, { nose: false })];
    expect(heard(b('begin.touch', { what: 'nose', event: 'is touched' }), nose)).toEqual([expect.closeTo(100, -1)]);
    expect(heard(b('begin.touch', { what: 'nose', event: 'is free' }), nose)).toEqual([expect.closeTo(300, -1)]);
    const lean = [at(100, { lean: { sideways: 40 } })];
    expect(heard(b('begin.dip', { edge: 'right', angle: 25 }), lean, { kit: trowel })).toEqual([
      expect.closeTo(200, -1)
    ]);
    expect(heard(b('begin.dip', { edge: 'left', angle: 25 }), lean, { kit: trowel })).toEqual([]);
    expect(heard(b('begin.message', { name: 'go' }), [at(100, { message: 'go' }), at(300, { message: 'no' })])).toEqual(
      [100]
    );
  });
});

describe('waiting', () => {
  it('is over at its time, when something is so, at the most after a time, or when something is touched', () => {
    const timer = b('sense.timer');
    const waits = (step: Step, inputs: TimedInput[] = []) =>
      Number(told(run([step, log('.')], { inputs, limitS: 3 }))[0]?.split(' ')[0]);
    expect(waits(wait(0.25))).toBe(250);
    expect(waits(wait(250, 'ms'))).toBe(250);
    expect(waits(b('wait.until', { condition: cmp(timer, '>', 0.4) }))).toBeCloseTo(401, -1);
    expect(waits(b('wait.limit', { condition: cmp(timer, '>', 0.4), time: 1 }))).toBeCloseTo(401, -1);
    expect(waits(b('wait.limit', { condition: cmp(timer, '>', 2), time: 1 }))).toBeCloseTo(1000, -0.5);
    expect(waits(b('wait.limit', { condition: cmp(timer, '>', 2), time: 0 }))).toBeLessThan(2);
    expect(waits(b('wait.touch', { what: 'nose' }), [at(300, { nose: true })])).toBeCloseTo(300, -1);
  });
});

describe('loops', () => {
  const add = b('var.change', { variable: 'v1' });
  const count = variable('v1');
  const turns = (step: Step): string[] => logs(run([step, log(variable('v1'))], { limitS: 3 }));
  it('go round so often, while, until, for so long, and look before or after', () => {
    expect(turns(b('repeat.times', { count: 4 }, { do: [add] }))).toEqual(['4']);
    expect(turns(b('repeat.times', { count: 0 }, { do: [add] }))).toEqual(['0']);
    const until = (look: string, limit: number) =>
      turns(b('repeat.until', { condition: cmp(count, '≥', limit), look }, { do: [add] }));
    expect([until('before', 3), until('after', 3), until('before', 0), until('after', 0)]).toEqual([
      ['3'],
      ['3'],
      ['0'],
      ['1']
    ]);
    const as = (look: string, limit: number) =>
      turns(b('repeat.while', { condition: cmp(count, '<', limit), look }, { do: [add] }));
    expect([as('before', 3), as('after', 3), as('before', 0), as('after', 0)]).toEqual([['3'], ['3'], ['0'], ['1']]);
    expect(turns(b('repeat.for', { time: 0.35 }, { do: [add, wait(0.1)] }))).toEqual(['4']);
    expect(turns(b('repeat.for', { time: 0 }, { do: [add] }))).toEqual(['0']);
  });
  it('count in steps either way, both ends included, and go through a list', () => {
    const counted = (from: number, to: number, step: number) =>
      logs(run([b('repeat.count', { variable: 'v1', from, to, step }, { do: [log(count)] })])).join(' ');
    expect(counted(1, 7, 3)).toBe('1 4 7');
    expect(counted(1, 6, 3)).toBe('1 4');
    expect(counted(3, 1, -1)).toBe('3 2 1');
    expect(counted(3, 1, 1)).toBe('');
    const each = run([
      b('list.add', { value: 5, list: 'l1' }),
      b('list.add', { value: 'x', list: 'l1' }),
      b('repeat.each', { variable: 'v1', list: list('l1') }, { do: [log(count)] })
    ]);
    expect(logs(each)).toEqual(['5', 'x']);
  });
  it('are left, and their turns skipped, the innermost first', () => {
    const when = (n: number, ...steps: Step[]) => b('choose.if', { if1: cmp(count, '=', n) }, { then1: steps });
    const left = b('repeat.ever', {}, { do: [add, when(3, b('repeat.leave')), log(count)] });
    expect(logs(run([left, log('out')]))).toEqual(['1', '2', 'out']);
    const skipped = b('repeat.times', { count: 3 }, { do: [add, when(2, b('repeat.next')), log(count)] });
    expect(logs(run([skipped]))).toEqual(['1', '3']);
    const inner = b(
      'repeat.times',
      { count: 2 },
      { do: [b('repeat.ever', {}, { do: [add, b('repeat.leave')] }), log(count)] }
    );
    expect(logs(run([inner]))).toEqual(['1', '2']);
  });
  it('choose the first that holds, else the rest', () => {
    const chosen = (n: number) =>
      logs(
        run([
          b('var.set', { variable: 'v1', value: n }),
          b(
            'choose.if',
            { if1: cmp(count, '<', 2), if2: cmp(count, '<', 4) },
            { then1: [log('low')], then2: [log('middle')], otherwise: [log('high')] }
          ),
          log(sum(count, '+', 1))
        ])
      );
    expect([chosen(1), chosen(3), chosen(4)]).toEqual([
      ['low', '2'],
      ['middle', '4'],
      ['high', '5']
    ]);
  });
});
describe('what counts from when', () => {
  it('every: each time is one span after the last, however long its stack takes', () => {
    // beside a stack that is never idle: what it comes late by is not added to the next
    const p = program(
      [b('begin.every', { time: 33.3, unit: 'ms' }), log('.'), wait(20, 'ms')],
      start(b('repeat.ever', {}, { do: [b('var.change', { variable: 'v1' })] }))
    );
    const times = told(run(p, { limitS: 1.05 })).map((t) => Number(t.split(' ')[0]));
    expect(times.length).toBeGreaterThanOrEqual(30);
    times.forEach((ms, i) => expect(Math.abs(ms - 33.3 * (i + 1))).toBeLessThanOrEqual(1.5));
  });
  it('when: what is true at the start must first be false', () => {
    // there is nothing within 1 cm, from the start on
    const far = cmp(b('sense.distance'), '>', 1);
    expect(told(run(program(start(wait(0.5)), [b('begin.when', { condition: far }), log('when')])))).toEqual([]);
    const again = [b('begin.when', { condition: b('sense.button', { button: 'Dot' }) }), log('when')];
    const presses = [at(300, { press: 'Dot' }), at(500, { release: 'Dot' }), at(700, { press: 'Dot' })];
    expect(told(run(program(start(wait(1)), again), { inputs: presses, limitS: 2 }))).toHaveLength(2);
  });
  it('the time limit: what is waited for the word is not counted', () => {
    const p = program([b('begin.before'), log('ready')], [b('begin.off'), log('off'), wait(0.8), log('over')]);
    expect(logs(run(p, { inputs: [at(3000, { word: true })], limitS: 1 }))).toEqual(['ready', 'off', 'over']);
  });
  it('turned: zeroing the heading zeroes what was turned too', () => {
    const turn = b('turn.angle', { side: 'right', angle: 90, ending: 'brake' });
    const trace = run([
      turn,
      b('sense.zeroheading'),
      log(b('sense.turned')),
      b('turn.angle', { side: 'right', angle: 45, ending: 'brake' }),
      log(b('sense.turned'))
    ]);
    const [zero, more] = logs(trace).map(Number);
    expect(Math.abs(zero)).toBeLessThan(1);
    expect(Math.abs(more - 45)).toBeLessThan(3);
  });
  it('face: with wheels that are not what the kit sheet says, the gyro brings it to within a quarter of a degree', () => {
    const quirks = worn({ left: { diameter: 1.2 }, right: { diameter: 1.2 } });
    const trace = run([b('turn.face', { heading: 120 }), wait(0.3)], { quirks });
    const moved = trace.events.find((e) => e.type === 'moved')!;
    const facing = stateAt(trace, moved.tUs).facingDeg - trace.header.run.start.facingDeg;
    expect(Math.abs(((facing - 120 + 540) % 360) - 180)).toBeLessThan(0.3);
  });
});
