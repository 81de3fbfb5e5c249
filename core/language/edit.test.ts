import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkProgram } from './check.ts';
import { barrow } from '../kit/kit.ts';
import { hashesOf, specOf } from '../run/spec.ts';
import { b, cmp, list, log, program, start, sum, variable, wait } from '../testing/build.ts';
import { anyProgram } from '../testing/random.ts';
import { cannot, questions } from './blocks/choose.ts';
import { inputSlot } from './blocks/reuse.ts';
import { differences } from './differ.ts';
import * as edit from './edit.ts';
import { printPython } from './python/print.ts';
import { putIntoLoop } from './refactor.ts';
import { longAisle } from '../yard/mats.ts';
import { allSteps, isStep, type Program, type Step } from './program.ts';

const only = (p: Program): Step => p.stacks[0].steps[1];
const kinds = (p: Program): string[][] => p.stacks.map((s) => s.steps.map((step) => step.kind));

describe('blocks that grow', () => {
  it('get and lose branches, cases and places, one at a time, and keep at least one', () => {
    let p = program(start(b('choose.if', {}, { then1: [wait(1)] })));
    const id = only(p).id;
    p = edit.reshape(edit.reshape(p, id, 'more'), id, 'otherwise');
    expect(Object.keys(only(p).bodies!)).toEqual(['then1', 'then2', 'otherwise']);
    expect(checkProgram(p)).toBeUndefined();
    p = edit.reshape(edit.reshape(edit.reshape(p, id, 'less'), id, 'less'), id, 'no otherwise');
    expect(Object.keys(only(p).bodies!)).toEqual(['then1']);
    expect(only(p).bodies!.then1).toHaveLength(1);
    let m = program(start(b('choose.match', { value: 1, c1: 1 }, { do1: [] })));
    m = edit.reshape(m, only(m).id, 'more');
    expect([only(m).slots.c2, checkProgram(m)]).toEqual([2, undefined]);
    let l = program(start(log(b('list.new', { i1: 4 }))));
    const inner = (only(l).slots.value as Step).id;
    l = edit.reshape(edit.reshape(edit.reshape(l, inner, 'less'), inner, 'less'), inner, 'more');
    expect((only(l).slots.value as Step).slots).toEqual({ i1: 4, i2: 0 });
  });
  it('a table keeps its steps under "yes" when a third question comes, and gives them back when it goes', () => {
    const rows = { yy: [wait(1)], yn: [], ny: [wait(2)], nn: [] };
    const before = program(start(b('choose.table', { cannot: 'nn' }, rows)));
    const id = only(before).id;
    const three = edit.reshape(before, id, 'more');
    expect([questions(only(three)), Object.keys(only(three).bodies!)]).toEqual([
      3,
      ['yyy', 'yyn', 'yny', 'ynn', 'nyy', 'nyn', 'nny', 'nnn']
    ]);
    expect([only(three).bodies!.yyy.length, only(three).bodies!.yyn.length]).toEqual([1, 0]);
    expect(cannot(only(three))).toEqual(['nny', 'nnn']);
    expect(checkProgram(three)).toBeUndefined();
    const two = edit.reshape(three, id, 'less');
    expect(only(two).bodies).toEqual(only(before).bodies);
    expect(cannot(only(two))).toEqual(['nn']);
    expect(cannot(only(edit.reshape(two, id, 'can nn')))).toEqual([]);
  });
});

describe('names', () => {
  const call = b('routine.do', { routine: 'r1' });
  const p: Program = {
    ...program(start(call, b('var.set', { variable: 'v1', value: variable('v1') }), b('list.add', { list: 'l1' }))),
    routines: [{ id: 'r1', name: 'ring', x: 0, y: 0, steps: [b('message.send', { name: 'go' })] }]
  };
  it('know where they are used, each block once', () => {
    expect(edit.usesOf(p, 'r1')).toEqual([call.id]);
    expect(edit.usesOf(p, 'v1')).toHaveLength(2);
    expect(edit.usesOf(p, 'l1')).toHaveLength(1);
    expect(edit.usesOf(p, 'nobody')).toEqual([]);
    expect(edit.messagesOf(p)).toEqual(['go']);
    expect(edit.messagesOf(edit.renameMessage(p, 'go', 'ring'))).toEqual(['ring']);
  });
  it('an input gives every block that does the routine a place, and takes it away again', () => {
    const { program: one, input } = edit.addInput(p, 'r1', 'angle', 'number');
    expect(only(one).slots[inputSlot(input.id)]).toBe(1);
    const { program: two, input: second } = edit.addInput(one, 'r1', 'really', 'condition');
    expect(inputSlot(second.id) in only(two).slots).toBe(false);
    expect(checkProgram(two)).toBeUndefined();
    const back = edit.removeInput(edit.removeInput(two, 'r1', input.id), 'r1', second.id);
    expect(back).toEqual(p);
    expect(edit.regrow(p)).toBe(p);
  });
  it('lie elsewhere and are the same, but not with another number, even one called x', () => {
    const two = program(start(b('pixel.set', { x: 1, y: 2 })), start(wait(1)));
    const [first, second] = two.stacks;
    const pushed = { ...two, stacks: [second, { ...first, x: first.x + 40, y: -7 }] };
    expect(edit.sameButPlaces(two, pushed)).toBe(true);
    expect(edit.sameButPlaces(two, edit.setSlot(two, only(two).id, 'x', 0))).toBe(false);
    expect(edit.sameButPlaces(two, { ...two, stacks: [first] })).toBe(false);
    expect(edit.sameButPlaces(two, { ...two, variables: [{ id: 'v1', name: 'n' }] })).toBe(false);
  });
  it('that are taken out leave the blocks that used them', () => {
    expect([...allSteps(edit.removeVariable(p, 'v1'))]).toHaveLength([...allSteps(p)].length);
    expect(edit.removeRoutine(p, 'r1').routines).toEqual([]);
  });
});

describe('one block', () => {
  it('that goes leaves its neighbour: below, above, what holds it, or nobody', () => {
    const [first, last, inner, value] = [wait(1), wait(2), wait(3), variable('v1')];
    const wrap = b('repeat.times', { n: value }, { do: [inner] });
    const begin = start(first, wrap, last);
    const shown = b('routine.value');
    const p: Program = {
      ...program(begin),
      routines: [{ id: 'r1', name: 'ring', x: 0, y: 0, steps: [wait(4)] }],
      loose: [{ x: 0, y: 0, value: shown }]
    };
    const next = (...ids: string[]) => edit.neighbour(p, ids);
    expect(next(first.id)).toBe(wrap.id);
    expect(next(last.id)).toBe(wrap.id);
    expect(next(first.id, wrap.id)).toBe(last.id);
    expect(next(last.id, wrap.id)).toBe(first.id);
    expect([next(inner.id), next(value.id)]).toEqual([wrap.id, wrap.id]);
    expect(next(p.routines[0].steps[0].id)).toBe('r1');
    expect(next(begin[0].id)).toBe(first.id);
    expect([next(shown.id), next(...begin.map((s) => s.id)), next('nobody')]).toEqual([
      undefined,
      undefined,
      undefined
    ]);
  });
  it('is pulled out of its stack while the rest joins; notes go on blocks and on routines', () => {
    const p = program(start(wait(1), b('sound.beep'), wait(2)));
    const [, , beep] = p.stacks[0].steps;
    expect(kinds(edit.pullOut(p, beep.id, 200, 40))).toEqual([
      ['begin.start', 'wait.time', 'wait.time'],
      ['sound.beep']
    ]);
    expect(edit.pullOut(p, 'nobody', 0, 0)).toBe(p);
    const off = edit.switchBelow(p, beep.id, true);
    expect(off.stacks[0].steps.map((s) => !!s.off)).toEqual([false, false, true, true]);
    expect(edit.switchBelow(off, beep.id, false)).toEqual(p);
    const noted = edit.noteOn(p, beep.id, 'wake up');
    expect(noted.stacks[0].steps[2].note).toBe('wake up');
    expect(edit.noteOn(noted, beep.id, '')).toEqual(p);
    const routine = { ...p, routines: [{ id: 'r', name: 'r', x: 0, y: 0, steps: [] }] };
    expect(edit.noteOn(routine, 'r', 'why').routines[0].note).toBe('why');
  });
  it('can be taken out of any program, pulled out of it and switched, and the program stays sound', () => {
    fc.assert(
      fc.property(anyProgram, fc.nat(), (p, n) => {
        const steps = [...allSteps(p)].filter((s) => s.kind.split('.')[0] !== 'begin');
        if (!steps.length) return;
        const { id } = steps[n % steps.length];
        expect(checkProgram(edit.removeStep(p, id))).toBeUndefined();
        expect(checkProgram(edit.switchBelow(p, id, true))).toBeUndefined();
        const places = (q: Program) => [...allSteps(q)].length;
        expect(places(edit.pullOut(p, id, 0, 0))).toBe(places(p));
      }),
      { numRuns: 100, seed: 5 }
    );
  });
  it('that holds others is put round blocks to the end of their list, wherever it stood before', () => {
    const p = program(start(wait(1), b('sound.beep'), log(1)));
    const [, one, beep] = p.stacks[0].steps;
    const alone = b('repeat.times', { count: 2 }, { do: [] });
    const both = { ...p, stacks: [...p.stacks, { id: 'x', x: 0, y: 0, steps: [alone] }] };
    const round = edit.takeIn(both, alone.id, 'do', beep.id);
    expect(kinds(round)).toEqual([['begin.start', 'wait.time', 'repeat.times']]);
    expect(round.stacks[0].steps[2].bodies!.do.map((s) => s.kind)).toEqual(['sound.beep', 'log.line']);
    expect(checkProgram(round)).toBeUndefined();
    // it had been put between them already
    const between = {
      ...p,
      stacks: [{ ...p.stacks[0], steps: [p.stacks[0].steps[0], alone, ...p.stacks[0].steps.slice(1)] }]
    };
    expect(kinds(edit.takeIn(between, alone.id, 'do', one.id))).toEqual([['begin.start', 'repeat.times']]);
    expect(edit.takeIn(p, 'nobody', 'do', one.id)).toBe(p);
  });
  it('a list value is found where it stands', () => {
    const p = program(start(b('repeat.each', { variable: 'v1', list: list('l1') }, { do: [wait(1)] })));
    const inner = only(p).bodies!.do[0];
    expect(edit.listAround(p, inner.id)).toBe(only(p).bodies!.do);
    expect(edit.listAround(p, 'nobody')).toBeUndefined();
  });
});

describe('what was typed into a slot', () => {
  const n = variable('v1');
  const p = program(start(wait(7)));
  const [, waits] = p.stacks[0].steps;
  const of = (q: Program): Step => q.stacks[0].steps[1];
  it('is kept while a value covers it, and is there again when that is taken out', () => {
    const covered = edit.setSlot(p, waits.id, 'time', n);
    expect(of(covered)).toEqual({ ...waits, slots: { ...waits.slots, time: n }, covered: { time: 7 } });
    expect(edit.removeStep(covered, n.id)).toEqual(p);
    // another value on it, a value on that: what was typed is still below
    const twice = edit.setSlot(covered, waits.id, 'time', sum(n, '+', 1));
    expect(of(twice).covered).toEqual({ time: 7 });
    expect(of(edit.setSlot(twice, waits.id, 'time', 3))).toEqual({ ...waits, slots: { ...waits.slots, time: 3 } });
    expect(of(edit.removeStep(twice, n.id)).covered).toEqual({ time: 7 });
  });
  it('is not told apart from what the slot comes with', () => {
    const plain = edit.setSlot(p, waits.id, 'time', 0.5);
    expect(of(edit.setSlot(plain, waits.id, 'time', n))).not.toHaveProperty('covered');
  });
  it('is what the slot takes, whatever a file says: nothing comes of it that cannot be saved', () => {
    const asks = b('wait.until', { condition: cmp(b('sense.distance'), '<', 20) });
    const shows = b('picture.show', { picture: b('picture.value') });
    for (const [step, slot, value] of [
      [asks, 'condition', 5],
      [shows, 'picture', 7],
      [{ ...waits, slots: { ...waits.slots, time: n } }, 'time', { picture: '#' }],
      [{ ...waits, slots: { ...waits.slots, time: n } }, '__proto__', 3]
    ] as const) {
      const covered = JSON.parse(JSON.stringify({ [slot]: value })) as Record<string, number>;
      const q = program(start({ ...step, covered }));
      const inner = Object.values(step.slots).find(isStep)!;
      expect(checkProgram(edit.removeStep(q, inner.id)), slot).toBeUndefined();
      const left = Object.values(of(edit.removeStep(q, inner.id)).slots);
      expect(left).not.toContainEqual(value);
    }
  });
  it('below a loop that counts is kept where the loop is made of blocks', () => {
    const q = program(start(log(1), log(2), log(3)));
    const made = putIntoLoop(
      q,
      q.stacks[0].steps.slice(1).map((s) => s.id)
    );
    expect(made.ok && made.program.stacks[0].steps[1].bodies!.do[0].covered).toEqual({ value: 1 });
  });
  it('decides nothing: neither what a run is, nor whether two programs are the same, nor the text', () => {
    const covered = edit.setSlot(p, waits.id, 'time', n);
    const bare = edit.setSlot(edit.setSlot(p, waits.id, 'time', 0.5), waits.id, 'time', n);
    const hashes = (program: Program) => hashesOf(specOf({ program, kit: barrow, mat: longAisle, seed: 1 }));
    expect(hashes(covered)).toEqual(hashes(bare));
    expect(differences(covered, bare)).toEqual([]);
    const variables = [{ id: 'v1', name: 'n' }];
    const text = printPython({ ...covered, variables }, barrow).text;
    expect(text).toBe(printPython({ ...bare, variables }, barrow).text);
    expect(text).not.toContain('7');
  });
});
