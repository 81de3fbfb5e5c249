import { describe, expect, it } from 'vitest';
import { b, end, log, logs, program, run, start, variable, wait } from '../testing/build.ts';
import { lookOver } from './lookover/lookover.ts';
import { barrow } from '../kit/kit.ts';
import { just } from './just.ts';

describe('a part of a program on its own', () => {
  const one = log('one');
  const two = log('two');
  const three = log('three');
  const loop = b('repeat.times', { count: 2 }, { do: [two, wait(0.1)] });
  const p = {
    ...program(start(one, loop, three), [b('begin.button'), log('dot')]),
    routines: [
      {
        id: 'r1',
        name: 'corner',
        x: 0,
        y: 0,
        inputs: [{ id: 'i1', name: 'angle', type: 'number' as const }],
        steps: [
          log(b('routine.input', { input: 'i1' })),
          b('turn.angle', { side: 'right', angle: b('routine.input', { input: 'i1' }) })
        ]
      }
    ]
  };
  const of = (...ids: string[]) => just(p, new Set(ids));
  it('is some blocks, a loop with what is in it, a stack', () => {
    expect(logs(run(of(one.id, three.id)!))).toEqual(['one', 'three']);
    expect(logs(run(of(loop.id)!))).toEqual(['two', 'two']);
    expect(logs(run(of(two.id)!))).toEqual(['two']);
    expect(logs(run(of(loop.id, two.id)!))).toEqual(['two', 'two']);
    expect(logs(run(of(p.stacks[1].steps[0].id)!))).toEqual(['dot']);
    expect(logs(run(of(p.stacks[0].steps[0].id)!))).toEqual(['one', 'two', 'two', 'three']);
  });
  it('is a routine with what it is given', () => {
    const alone = just(p, new Set(['r1']), { i1: 45 })!;
    const trace = run(alone);
    expect(logs(trace)).toEqual(['45']);
    expect(end(trace).facingDeg).toBeCloseTo(135, 0);
  });
  it('keeps the ids, so that the same blocks light up', () => {
    const ids = of(loop.id)!.stacks[0].steps.map((s) => s.id);
    expect(ids).toContain(loop.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(lookOver({ program: of(loop.id)!, kit: barrow }).filter((r) => r.severity === 'will not work')).toEqual([]);
  });
  it('begins with values that are set at its start', () => {
    const alone = just(program(start(log(variable('v1')))), new Set(['x']));
    expect(alone).toBeUndefined();
    const asks = log(variable('v1'));
    const q = program(start(b('var.set', { variable: 'v1', value: 3 }), asks));
    const trace = run(just(q, new Set([asks.id]))!, {
      inputs: [{ tUs: 0, input: { set: { variable: 'count', to: 9 } } }]
    });
    expect(logs(trace)).toEqual(['9']);
  });
  it('cannot be what leaves a loop that is not there, nor what reads a routine’s input', () => {
    const leave = b('repeat.leave');
    const q = program(start(b('repeat.ever', {}, { do: [wait(1), leave] })));
    expect(just(q, new Set([leave.id]))).toBeUndefined();
    expect(of(p.routines[0].steps[0].id)).toBeUndefined();
  });
});
