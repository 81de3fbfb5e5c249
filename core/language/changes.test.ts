/** The small changes that a pupil makes: each is one, and leaves a program that can be saved. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { b, cmp, program, start, wait } from '../testing/build.ts';
import { anyProgram } from '../testing/random.ts';
import { AMOUNTS, smallChanges, WRONG } from './changes.ts';
import { checkProgram } from './check.ts';
import { differences } from './differ.ts';
import { allSteps } from './program.ts';

describe('small changes', () => {
  it('are of every kind, each once where it can be made', () => {
    const drive = b('drive.measure', { way: 'ahead', ending: 'brake' });
    const loop = b('repeat.times', { count: 3 }, { do: [wait(1), b('lamp.set', { lamp: 'left' })] });
    const asks = b('wait.until', { condition: cmp(b('sense.distance'), '<', 20) });
    const runs = b('wheels.run', { left: 30, right: 30 });
    const held = b('wait.until', { condition: b('sense.button', { button: 'Dot' }) });
    const p = program(start(drive, loop, asks, runs, held));
    const kinds = [...smallChanges(p)].map((c) => c.kind);
    expect(new Set(kinds)).toEqual(new Set([...WRONG, ...AMOUNTS]));
    const of = (kind: string) => kinds.filter((k) => k === kind).length;
    expect([
      of('left out'),
      of('moved out of its loop'),
      of('coast for brake'),
      of('< for >'),
      of('other button')
    ]).toEqual([7, 1, 1, 1, 1]);
    // drive and loop, loop and wait until, wait until and run, run and the last; and the two in the loop
    expect(of('swapped with the next')).toBe(5);
  });
  it('of any program can be saved, differ from it, and name blocks that it has', () => {
    fc.assert(
      fc.property(anyProgram, (p) => {
        const ids = new Set([...allSteps(p)].map((s) => s.id));
        for (const change of smallChanges(p)) {
          expect(checkProgram(change.program)).toBeUndefined();
          expect(differences(p, change.program).length).toBeGreaterThan(0);
          expect(change.blocks.every((id) => ids.has(id))).toBe(true);
        }
      }),
      { numRuns: 25, seed: 20_261_201 }
    );
  });
});
