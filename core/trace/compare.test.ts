import { describe, expect, it } from 'vitest';
import { b, log, program, run, start, variable, wait } from '../testing/build.ts';
import { apart, compareRuns, differences, shiftOf } from './compare.ts';

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
