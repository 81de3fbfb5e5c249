import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import type { Program, Step } from '../language/program.ts';
import { b, hall, list, log, program, start, sum, variable, wait } from '../testing/build.ts';
import { traceBytes } from '../trace/files.ts';
import { recordedInputs } from '../trace/track.ts';
import type { TimedInput } from '../trace/trace.ts';
import { Bench } from './bench.ts';
import { Interpreter } from './interpreter.ts';
import { snapshot } from './snapshot.ts';
import { Stops, type Go, type Stop } from './stops.ts';

/** A run that can be stopped and looked at, as the worker has it. */
function session(p: Program, list: Stop[] = [], inputs: TimedInput[] = []) {
  const bench = new Bench({ program: p, kit: barrow, mat: hall, seed: 1, noise: false, limitS: 20, inputs });
  const interpreter = new Interpreter(bench);
  const stops = new Stops(bench, (task) => interpreter.running.some((t) => t.id === task));
  stops.set(list);
  interpreter.stopBefore = (...at) => stops.before(...at);
  return {
    bench,
    interpreter,
    stops,
    /** @returns the block before which it stands, 'between' for a stop between blocks, 'over' for the end */
    go(how: Go = 'on'): string {
      stops.start(how);
      for (;;) {
        const state = interpreter.advance(bench.worldUs + 1000);
        if (state === 'ended') return 'over';
        if (state === 'paused') return interpreter.here!;
        if (stops.looksAtTicks && stops.tick()) return 'between';
      }
    }
  };
}
const steps = (...list: Step[]): Program => program(start(...list));

describe('stops', () => {
  it('stops before a block, from the n-th time on, and if its test holds', () => {
    const body = b('var.change', { variable: 'v1' });
    const p = steps(b('repeat.times', { count: 5 }, { do: [body, wait(0.1)] }));
    const every = session(p, [{ on: 'block', block: body.id }]);
    expect([every.go(), every.go(), every.go(), every.go(), every.go(), every.go()]).toEqual([
      ...Array<string>(5).fill(body.id),
      'over'
    ]);
    const fourth = session(p, [{ on: 'block', block: body.id, times: 4 }]);
    expect(fourth.go()).toBe(body.id);
    expect(fourth.bench.recorder.held('count')).toBe(3);
    const tested = session(p, [{ on: 'block', block: body.id, test: { of: { variable: 'count' }, is: '>', than: 2 } }]);
    expect(tested.go()).toBe(body.id);
    expect(tested.bench.recorder.held('count')).toBe(3);
    expect(tested.stops.why).toMatchObject({ stop: { on: 'block' } });
    expect(session(p, [{ on: 'block', block: body.id, off: true }]).go()).toBe('over');
  });

  it('goes into, over and out of loops and routines', () => {
    const inner = log('inner');
    const call = b('routine.do', { routine: 'r1' });
    const after = log('after');
    const loop = b('repeat.times', { count: 2 }, { do: [call, after] });
    const last = log('last');
    const p: Program = {
      ...steps(loop, last),
      routines: [{ id: 'r1', name: 'r', x: 0, y: 0, steps: [inner, log('second')] }]
    };
    const s = session(p);
    expect(s.go('into')).toBe(loop.id);
    expect(s.go('into')).toBe(call.id);
    expect(s.go('over')).toBe(after.id);
    expect(s.go('over')).toBe(call.id);
    expect(s.go('into')).toBe(inner.id);
    expect(s.go('out')).toBe(after.id);
    expect(s.go('out')).toBe(last.id);
    const whole = session(p);
    expect(whole.go('into')).toBe(loop.id);
    expect(whole.go('over')).toBe(last.id);
    expect(session(p).go({ to: after.id })).toBe(after.id);
  });
  it('steps over in one task while another one runs on', () => {
    const long = wait(0.5);
    const next = log('next');
    const p = program(start(long, next), start(b('repeat.times', { count: 20 }, { do: [wait(0.1)] })));
    const s = session(p);
    expect(s.go({ to: long.id })).toBe(long.id);
    expect(s.go('over')).toBe(next.id);
  });

  it('stops when a variable changes, when a sensor passes a limit, and on contact', () => {
    const set = b('var.set', { variable: 'v1', value: 7 });
    const after = log('after');
    const change = session(steps(wait(0.2), set, after), [{ on: 'change', of: { variable: 'count' } }]);
    expect(change.go()).toBe(after.id);
    expect(change.bench.recorder.held('count')).toBe(7);

    const drive = steps(b('wheels.run', { left: 50, right: 50 }), wait(8), b('wheels.stop'));
    const near = session(drive, [{ on: 'limit', test: { of: { channel: 'distance' }, is: '<', than: 100 } }]);
    expect(near.go()).toBe('between');
    const cm = near.bench.machine.reading('distance')!;
    expect(cm).toBeLessThan(100);
    expect(cm).toBeGreaterThan(98);
    // it stands at the moment itself, in the middle of a wait
    expect(near.interpreter.here).toBeUndefined();
    expect(near.go()).not.toBe('between');

    const touch = session(drive, [{ on: 'contact' }]);
    expect(touch.go()).toBe('between');
    expect(touch.bench.trace.events.at(-1)).toMatchObject({ type: 'touch' });
  });

  it('does not change the run: the same bytes with stops and without', () => {
    const p = steps(
      b('repeat.times', { count: 4 }, { do: [b('drive.measure', { amount: 5 }), b('var.change', { variable: 'v1' })] })
    );
    const plain = session(p);
    plain.go();
    const stopped = session(p, [
      { on: 'change', of: { variable: 'count' } },
      { on: 'limit', test: { of: { channel: 'speedLeft' }, is: '>', than: 5 } }
    ]);
    let stands = 0;
    while (stopped.go() !== 'over') stands++;
    expect(stands).toBeGreaterThan(6);
    expect(traceBytes(stopped.bench.trace)).toEqual(traceBytes(plain.bench.trace));
  });
});

describe('a variable changed by hand', () => {
  const shown = log(variable('v1'));
  const p = steps(
    b('var.set', { variable: 'v1', value: 1 }),
    wait(0.25),
    shown,
    wait(0.1),
    log(sum(variable('v1'), '+', 1))
  );
  it('takes effect before the block where the run stands, and the run replays from its inputs', () => {
    const s = session(p);
    expect(s.go({ to: shown.id })).toBe(shown.id);
    s.bench.input({ tUs: s.bench.now, input: { set: { variable: 'count', to: 41 } } });
    s.interpreter.takeSets();
    expect(snapshot(s.interpreter).variables.find((v) => v.name === 'count')?.shown).toBe('41');
    expect(s.go()).toBe('over');
    const said = s.bench.trace.events.flatMap((e) => (e.type === 'log' ? [e.text] : []));
    expect(said).toEqual(['41', '42']);
    const again = session(p, [], recordedInputs(s.bench.trace));
    again.go();
    expect(traceBytes(again.bench.trace)).toEqual(traceBytes(s.bench.trace));
  });
  it('waits for the next block where the run stands between two', () => {
    const s = session(p, [{ on: 'limit', test: { of: { channel: 'x' }, is: '>', than: 99 } }]);
    while (s.bench.worldUs < 100_000) s.interpreter.advance(s.bench.worldUs + 1000);
    s.bench.input({ tUs: s.bench.now, input: { set: { variable: 'count', to: 5 } } });
    expect(snapshot(s.interpreter).variables[0]).toMatchObject({ shown: '5', waits: true });
    s.go();
    const again = session(p, [], recordedInputs(s.bench.trace));
    again.go();
    expect(traceBytes(again.bench.trace)).toEqual(traceBytes(s.bench.trace));
    expect(again.bench.trace.events.flatMap((e) => (e.type === 'log' ? [e.text] : []))[0]).toBe('5');
  });
});

describe('what there is to see while the run stands still', () => {
  it('tells every variable, list and task, and the value of every block that can be asked', () => {
    const asked = sum(variable('v1'), '×', 3);
    const coin = b('calc.chance', { from: 1, to: 6 });
    const here = log(asked);
    const p = program(
      start(
        b('var.set', { variable: 'v1', value: 4 }),
        b('list.add', { list: 'l1', value: 'leaf' }),
        here,
        log(coin),
        log(b('list.count', { list: list('l1') })),
        log(b('sense.distance'))
      ),
      start(b('drive.measure', { amount: 60 })),
      start(b('wait.until', { condition: b('sense.nose') }))
    );
    const s = session(p);
    expect(s.go({ to: here.id })).toBe(here.id);
    const seen = snapshot(s.interpreter);
    expect(seen.variables.map((v) => [v.name, v.shown])).toEqual([
      ['count', '4'],
      ['Länge', '0'],
      ['things', '["leaf"]']
    ]);
    expect(seen.values[asked.id]).toBe('12');
    expect(seen.values[coin.id]).toBeUndefined();
    expect(Object.values(seen.values)).toContain('1');
    expect(seen.tasks[0]).toMatchObject({ block: here.id, next: true, waits: { for: 'its turn' } });
    for (let i = 0; i < 20; i++) s.go('into');
    // asking changed nothing: the same chance comes as in a run that nobody looked into
    const plain = session(p);
    plain.go({ to: here.id });
    for (let i = 0; i < 20; i++) plain.go('into');
    expect(s.bench.trace.events).toEqual(plain.bench.trace.events);
    const late = log('late');
    const tasks = session(
      program(
        start(wait(0.3), late),
        start(b('drive.measure', { amount: 60 })),
        start(b('wait.until', { condition: b('sense.nose') })),
        start(wait(2))
      )
    );
    tasks.go({ to: late.id });
    expect(snapshot(tasks.interpreter).tasks.map((t) => t.waits)).toMatchObject([
      { for: 'its turn' },
      { for: 'move' },
      { for: 'condition' },
      { for: 'time', untilUs: 2_000_400 }
    ]);
  });
  it('shows what the sensors say before the first tick, and what a routine was given', () => {
    const inner = log(b('routine.input', { input: 'a' }));
    const p: Program = {
      ...program(start(b('routine.do', { routine: 'r', 'in:a': 42 }))),
      routines: [
        { id: 'r', name: 'tell', inputs: [{ id: 'a', name: 'number', type: 'number' }], x: 0, y: 0, steps: [inner] }
      ]
    };
    const s = session(p);
    s.go('into');
    const first = snapshot(s.interpreter);
    expect(s.bench.trace.ticks).toBe(0);
    expect(first.readings.distance).toBeGreaterThan(100);
    expect(first.readings.volts).toBe(7.4);
    expect(first.inputs).toEqual([]);
    expect(s.go('into')).toBe(inner.id);
    expect(snapshot(s.interpreter).inputs).toEqual([{ name: 'number', shown: '42' }]);
  });
  it('shows a value set by hand only from when it was set', () => {
    const p = steps(wait(0.2), b('var.set', { variable: 'v1', value: 1 }), wait(0.5));
    const s = session(p, [], [{ tUs: 400_000, input: { set: { variable: 'count', to: 9 } } }]);
    s.interpreter.stopBefore = undefined;
    s.interpreter.advance(300_000);
    expect(snapshot(s.interpreter).variables.find((v) => v.name === 'count')).toMatchObject({ shown: '1' });
    s.interpreter.advance(450_000);
    expect(snapshot(s.interpreter).variables.find((v) => v.name === 'count')).toMatchObject({
      shown: '9',
      waits: true
    });
  });
});
