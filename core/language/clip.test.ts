import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProgram } from './check.ts';
import { b, log, program, start, variable, wait } from '../testing/build.ts';
import { anyProgram } from '../testing/random.ts';
import { clipOf, type Clip } from './clip.ts';
import { paste, readClip } from './paste.ts';
import { allSteps, emptyProgram, type Program } from './program.ts';

const unique = (p: Program): void => {
  const all = [...allSteps(p)].map((s) => s.id);
  expect(new Set(all).size).toBe(all.length);
};

describe('blocks that are copied', () => {
  it('have their pictures in the signs of now where they were copied before', () => {
    const text = JSON.stringify(clipOf(program(), [[b('picture.show', { picture: { picture: '..3.. #..9.' } })]]));
    const clip = readClip(text) as Clip;
    expect(clip.stacks[0][0].slots.picture).toEqual({ picture: '..-.. #..#.' });
  });
  it('bring the names along that they use, through routines too', () => {
    const p: Program = {
      ...program(start(b('routine.do', { routine: 'r1' }), log(2))),
      variables: [
        { id: 'v1', name: 'count' },
        { id: 'v2', name: 'unused' }
      ],
      routines: [{ id: 'r1', name: 'ring', x: 0, y: 0, steps: [b('var.set', { variable: 'v1', value: 1 })] }]
    };
    const clip = clipOf(p, [p.stacks[0].steps.slice(1, 2)]);
    expect([clip.variables.map((v) => v.name), clip.routines.map((r) => r.name)]).toEqual([['count'], ['ring']]);
    const { program: next, pasted } = paste(emptyProgram(), clip, 40, 40);
    expect(checkProgram(next)).toBeUndefined();
    expect([next.variables.map((v) => v.name), next.routines.map((r) => r.name)]).toEqual([['count'], ['ring']]);
    expect(next.stacks[0].steps[0].id).toBe(pasted[0]);
  });
  it('take a variable of the same name for the same, and a list for another', () => {
    const p = { ...program(start(log(variable('v1')))), variables: [{ id: 'v1', name: 'count' }] };
    const clip = clipOf(p, [p.stacks[0].steps]);
    const into = (list: boolean): Program => ({
      ...emptyProgram(),
      variables: [{ id: 'x9', name: 'count', ...(list ? { list: true } : {}) }]
    });
    const value = (q: Program) => (q.stacks[0].steps[1].slots.value as { slots: { variable: string } }).slots.variable;
    expect(value(paste(into(false), clip, 0, 0).program)).toBe('x9');
    expect(paste(into(true), clip, 0, 0).program.variables).toHaveLength(2);
  });
  it('are the same blocks again after a way through text, for any program, beside what is there', () => {
    fc.assert(
      fc.property(anyProgram, (p) => {
        const stacks = p.stacks.map((s) => s.steps).filter((s) => s.length);
        const clip = readClip(JSON.stringify(clipOf(p, stacks))) as Clip;
        expect(typeof clip).toBe('object');
        const { program: next } = paste(p, clip, 0, 0);
        expect(checkProgram(next)).toBeUndefined();
        unique(next);
        expect(next.variables).toEqual(p.variables);
        expect([...allSteps(next)].length).toBeGreaterThanOrEqual(stacks.flat().length * 2);
      }),
      { numRuns: 60, seed: 4 }
    );
  });
  it('join below the chosen block, in a body too; a starter, a value and what comes after an end do not', () => {
    const inner = wait(1);
    const last = b('repeat.leave');
    const into = program(start(b('repeat.times', { n: 2 }, { do: [inner] }), log(1), last));
    const clip = clipOf(program(start(wait(2), log(3))), [[wait(2), log(3)]]);
    const joined = paste(into, clip, 0, 0, inner.id);
    expect(joined.program.stacks).toHaveLength(1);
    expect(joined.program.stacks[0].steps[1].bodies!.do.map((s) => s.kind)).toEqual([
      'wait.time',
      'wait.time',
      'log.line'
    ]);
    expect(joined.program.stacks[0].steps[1].bodies!.do[1].id).toBe(joined.pasted[0]);
    unique(joined.program);
    const apart = (c: Clip, below: string | undefined) => paste(into, c, 0, 0, below).program.stacks.length;
    expect(apart(clip, undefined)).toBe(2);
    expect(apart(clip, last.id)).toBe(2);
    expect(apart(clip, 'nobody')).toBe(2);
    expect(apart(clipOf(into, [start(wait(1))]), inner.id)).toBe(2);
    expect(apart(clipOf(into, [[wait(1)], [wait(2)]]), inner.id)).toBe(3);
  });
  it('are refused with a sentence when they are not ours, broken, or of a kind that is not known', () => {
    expect(readClip('{"format"')).toBe('What was copied is not JSON.');
    expect(readClip('{"format":"other"}')).toBe('What was copied are no blocks of Moss Bell.');
    const clip = clipOf(emptyProgram(), [[wait(1)]]);
    const odd = JSON.stringify(clip).replace('wait.time', 'wait.ages');
    expect(readClip(odd)).toMatch(/^What was copied cannot be pasted: block .* of the kind "wait.ages"/);
  });
});
