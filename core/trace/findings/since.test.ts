/** What one change of the program did since the run before. */
import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { insertAfter, pullOut, removeStep, setSlot } from '../../language/edit.ts';
import type { Program } from '../../language/program.ts';
import { b, program, run, start, wait } from '../../testing/build.ts';
import { sinceBefore } from './since.ts';

const low = b('sound.tone', { pitch: 262, time: 0.3 });
const rest = wait(0.4);
const high = b('sound.tone', { pitch: 523, time: 0.3 });
const turn = b('turn.angle', { angle: 90 });
const song = program(start(low, rest, high, turn));
const told = (was: Program, is: Program) => {
  const of = (p: Program) => ({ trace: run(p, { limitS: 8 }), program: p, kit: barrow });
  return sinceBefore(of(was), of(is));
};

describe('since the run before', () => {
  it('a block is left out: what became of it, at its neighbours', () => {
    expect(told(song, removeStep(song, rest.id))).toMatchObject({
      rule: 'since-before',
      says: 'Since the run before, "wait 0.4 s" is left out. a tone of 523 Hz came 0.40 s apart',
      blocks: [low.id, high.id]
    });
    // one that holds others goes with them, and is one change
    const loop = b('repeat.times', { count: 2 }, { do: [turn] });
    const looped = program(start(low, loop, rest));
    expect(told(looped, removeStep(looped, loop.id))?.says).toMatch(/"repeat 2 times" is left out/);
  });
  it('a block is new, another number, or stands elsewhere', () => {
    const more = wait(1);
    expect(told(song, insertAfter(song, low.id, [more]))?.says).toMatch(/^Since the run before, "wait 1 s" is new\. /);
    const other = told(song, setSlot(song, turn.id, 'angle', 45));
    expect(other?.says).toMatch(/"turn left by 90 ° at 35 %, ending in brake" became "turn left by 45 °/);
    expect(other?.blocks).toContain(turn.id);
    const [head, ...steps] = song.stacks[0].steps;
    const moved = { ...song, stacks: [{ ...song.stacks[0], steps: [head, steps[1], steps[2], steps[3], steps[0]] }] };
    expect(told(song, moved)?.says).toMatch(/"tone .*" stands elsewhere\. /);
  });
  it('is silent where two things changed, where nothing is seen of it, and where nothing changed', () => {
    const two = setSlot(removeStep(song, rest.id), turn.id, 'angle', 45);
    expect(told(song, two)).toBeUndefined();
    expect(told(song, setSlot(song, rest.id, 'time', 0.401))).toBeUndefined();
    expect(told(song, song)).toBeUndefined();
    // another machine, another mat: nothing to compare with
    const of = (kit: typeof barrow, p: Program) => ({ trace: run(p, { kit, limitS: 8 }), program: p, kit });
    const heavier = { ...barrow, chassis: { ...barrow.chassis, massKg: 0.7 } };
    expect(sinceBefore(of(barrow, song), of(heavier, removeStep(song, rest.id)))).toBeUndefined();
    // a hand that did something else may be why: nothing is said of the change
    const pressed = (p: Program, atUs: number) => ({
      trace: run(p, { limitS: 8, inputs: [{ tUs: atUs, input: { press: 'Dot' } }] }),
      program: p,
      kit: barrow
    });
    const shorter = removeStep(song, rest.id);
    expect(sinceBefore(pressed(song, 100_000), pressed(shorter, 200_000))).toBeUndefined();
    expect(sinceBefore(pressed(song, 100_000), pressed(shorter, 100_000))).toBeDefined();
  });
  it('a block that was pulled out of its stack is one change', () => {
    expect(told(song, pullOut(song, rest.id, 300, 20))).toMatchObject({ rule: 'since-before' });
  });
});
