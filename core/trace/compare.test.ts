import { describe, expect, it } from 'vitest';
import { b, log, program, run, start, variable, wait } from '../testing/build.ts';
import { compareRuns } from './compare.ts';

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
