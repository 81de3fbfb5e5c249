// @vitest-environment jsdom
/** Program and sheet of blocks: one is the other, whatever is on the sheet already. */
import * as Blockly from 'blockly/core';
import fc from 'fast-check';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { barrow } from '../../../../../core/kit/kit.ts';
import { catalogue } from '../../../../../core/language/catalogue.ts';
import * as edit from '../../../../../core/language/edit.ts';
import { allSteps, type Program, type Step } from '../../../../../core/language/program.ts';
import { b, cmp, log, program, start, sum, variable, wait } from '../../../../../core/testing/build.ts';
import { anyProgram } from '../../../../../core/testing/random.ts';
import { around, defineBlocks } from './blocks.ts';
import { bringIn, readStep, readWorkspace, tagsOf } from './convert.ts';
import { anew, written } from './written.ts';

/** A sheet that is not drawn: sizes are nobody's business here. */
function sheet(): Blockly.WorkspaceSvg {
  return Object.assign(new Blockly.Workspace(), { setResizesEnabled: () => {} }) as unknown as Blockly.WorkspaceSvg;
}
const bring = (ws: Blockly.WorkspaceSvg, p: Program): void => {
  around.program = p;
  bringIn(ws, p);
};
/** As the sheet keeps it: stacks with nothing in them are not on it, and the order of stacks says nothing. */
const plain = (p: Program): Program => {
  const byId = <T extends { id: string }>(list: readonly T[]): T[] => [...list].sort((a, c) => (a.id < c.id ? -1 : 1));
  return {
    ...p,
    stacks: byId(p.stacks.filter((s) => s.steps.length)),
    routines: byId(p.routines),
    loose: [...p.loose].sort((a, c) => (a.value.id < c.value.id ? -1 : 1))
  };
};
beforeAll(() => {
  around.kit = barrow;
  around.program = program();
  defineBlocks();
});

describe('the sheet', () => {
  it('shows any program, and the program that is read off it is the same', () => {
    fc.assert(
      fc.property(anyProgram, (p) => {
        const ws = sheet();
        bring(ws, p);
        expect(plain(readWorkspace(ws, p))).toEqual(plain(p));
        ws.dispose();
      }),
      { numRuns: 150, seed: 20261128 }
    );
  });
  it('comes from any program to any other: what is left over is taken out, what is there is taken over', () => {
    fc.assert(
      fc.property(anyProgram, anyProgram, (one, two) => {
        const ws = sheet();
        bring(ws, one);
        bring(ws, two);
        expect(plain(readWorkspace(ws, two))).toEqual(plain(two));
        // as the library writes it: nothing is left behind, and what blocks cover is what the program says
        expect(written(ws)).toBe(anew(two));
        bring(ws, one);
        expect(written(ws)).toBe(anew(one));
        expect(plain(readWorkspace(ws, one))).toEqual(plain(one));
        ws.dispose();
      }),
      { numRuns: 80, seed: 7 }
    );
  });
  it('takes a value out and back again, and what was typed below it is kept on the sheet too', () => {
    const n = variable('v1');
    const p = program(start({ ...b('wait.time', { time: n }), covered: { time: 7 } }));
    const out = edit.removeStep(p, n.id);
    const ws = sheet();
    bring(ws, p);
    for (const next of [out, p, edit.setSlot(p, p.stacks[0].steps[1].id, 'time', sum(n, '+', 1)), p, out]) {
      bring(ws, next);
      expect(written(ws)).toBe(anew(next));
      expect(plain(readWorkspace(ws, next))).toEqual(plain(next));
    }
    expect(ws.getTopBlocks(false)).toHaveLength(1);
  });
  it('follows an edit with the blocks that it has: only what differs is touched', () => {
    const p = program(
      start(
        b(
          'repeat.until',
          { condition: cmp(b('sense.distance'), '<', 20) },
          { do: [wait(0.1), log(sum(variable('v1'), '+', 1))] }
        ),
        wait(1),
        b('picture.show')
      )
    );
    const [, loop, rest, shows] = p.stacks[0].steps;
    const ws = sheet();
    bring(ws, p);
    const before = new Map(ws.getAllBlocks(false).map((block) => [block.id, block]));
    const steps: Program[] = [
      edit.setSlot(p, rest.id, 'time', 2.5),
      edit.setSlot(p, rest.id, 'time', sum(1, '+', 2)),
      edit.setSlot(p, shows.id, 'picture', { picture: '#...... ....... ....... ....... ......#' }),
      { ...p, stacks: [{ ...p.stacks[0], x: 300, y: -40, parked: true }] },
      {
        ...p,
        stacks: [{ ...p.stacks[0], steps: [p.stacks[0].steps[0], rest, { ...loop, note: 'why', off: true }, shows] }]
      },
      p
    ];
    for (const next of steps) {
      bring(ws, next);
      expect(plain(readWorkspace(ws, next))).toEqual(plain(next));
      for (const id of [loop.id, rest.id, shows.id, loop.bodies!.do[1].id])
        expect(ws.getBlockById(id), id).toBe(before.get(id));
    }
  });
  it('tells nobody of what it is brought in line with', () => {
    const ws = sheet();
    const heard: string[] = [];
    ws.addChangeListener((e) => heard.push(e.type));
    for (const p of fc.sample(anyProgram, { numRuns: 6, seed: 3 })) bring(ws, p);
    expect(heard).toEqual([]);
    expect(Blockly.Events.isEnabled()).toBe(true);
  });
  it('is made anew from the program when it cannot be brought in line, and says why in the console', () => {
    const ws = sheet();
    const [one, two] = fc.sample(anyProgram, { numRuns: 2, seed: 11 });
    bring(ws, one);
    const said = vi.spyOn(console, 'error').mockImplementation(() => {});
    const find = ws.getBlockById.bind(ws);
    let broken = true;
    ws.getBlockById = (id) => {
      if (!broken) return find(id);
      broken = false;
      throw new Error('a sheet that is out of order');
    };
    bring(ws, two);
    expect(said).toHaveBeenCalledOnce();
    said.mockRestore();
    expect(plain(readWorkspace(ws, two))).toEqual(plain(two));
  });
  it('has every block of the language as it comes out of the tray, and a made-up one is an error', () => {
    const ws = sheet();
    for (const def of catalogue.values()) {
      const step: Step = b(def.kind);
      const p: Program =
        def.shape === 'value'
          ? { ...program(), loose: [{ x: 5, y: 6, value: step }] }
          : def.shape === 'starter'
            ? program([step])
            : program(start(step));
      bring(ws, p);
      const read = [...allSteps(readWorkspace(ws, p))].find((s) => s.kind === def.kind)!;
      expect(read, def.kind).toEqual([...allSteps(p)].find((s) => s.kind === def.kind));
      expect(readStep(ws.getBlockById(read.id)!)).toEqual(read);
    }
    expect(() => ws.newBlock('nonsense')).toThrow();
  });
  it('keeps beside a block whether it is parked and what was noted', () => {
    const p = program(start({ ...wait(1), note: 'a\n"b" {c}' }));
    const ws = sheet();
    bring(ws, { ...p, stacks: [{ ...p.stacks[0], parked: true }] });
    const [first, second] = p.stacks[0].steps.map((s) => tagsOf(ws.getBlockById(s.id)!));
    expect([first, second]).toEqual([{ parked: true }, { note: 'a\n"b" {c}' }]);
    bring(ws, program(start({ ...p.stacks[0].steps[1], note: undefined })));
    expect(tagsOf(ws.getBlockById(p.stacks[0].steps[1].id)!)).toEqual({});
  });
  it('gives a stack that was pulled apart on it an id of its own, and stacks that were there keep theirs', () => {
    const p = program(start(wait(1), wait(2), wait(3)));
    const ws = sheet();
    bring(ws, p);
    const [, , second] = p.stacks[0].steps;
    ws.getBlockById(second.id)!.unplug(false);
    const read = readWorkspace(ws, p);
    expect(read.stacks.map((s) => s.id).sort()).toEqual([p.stacks[0].id, `s-${second.id}`].sort());
    expect(read.stacks.find((s) => s.id === p.stacks[0].id)!.steps).toHaveLength(2);
    // the stack that is named after a block goes on without it: both have a name, and not the same
    const [, first] = p.stacks[0].steps;
    const block = (id: string) => ws.getBlockById(id)!;
    block(first.id).unplug(true);
    block(first.id).nextConnection!.connect(block(second.id).previousConnection!);
    const joined = readWorkspace(ws, read);
    const named = { ...joined, stacks: joined.stacks.map((s, i) => ({ ...s, id: i ? `s-${second.id}` : s.id })) };
    block(second.id).unplug(true);
    expect(new Set(readWorkspace(ws, named).stacks.map((s) => s.id)).size).toBe(3);
  });
});
