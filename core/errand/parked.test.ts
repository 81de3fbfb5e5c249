import { describe, expect, it } from 'vitest';
import { rehearse } from '../run/interpreter.ts';
import { barrow } from '../kit/kit.ts';
import { b, hall, program, start } from '../testing/build.ts';
import { travelled } from '../trace/query.ts';
import { otherSolution } from './parked.ts';

const drives = (amount: number) => start(b('drive.measure', { amount }));
const way = (p: ReturnType<typeof program>): number =>
  travelled(rehearse({ program: p, kit: barrow, mat: hall, seed: 1 })) * 100;

describe('a solution that is parked beside the one that runs', () => {
  const both = program(drives(20), drives(40), [b('drive.measure', { amount: 90 })]);
  both.stacks[1].parked = true;
  both.stacks[2].parked = true;
  it('runs in its stead, and the other one is parked; turned twice it is as it was', () => {
    const other = otherSolution(both)!;
    expect(way(both)).toBeCloseTo(20, 0);
    expect(way(other)).toBeCloseTo(40, 0);
    // what hangs on no starter is no solution, and stays as it is
    expect(other.stacks.map((s) => !!s.parked)).toEqual([true, false, true]);
    expect(otherSolution(other)).toEqual(both);
  });
  it('is none where nothing that could begin is parked', () => {
    expect(otherSolution(program(drives(20)))).toBeUndefined();
    const loose = program(drives(20), [b('drive.measure')]);
    loose.stacks[1].parked = true;
    expect(otherSolution(loose)).toBeUndefined();
  });
});
