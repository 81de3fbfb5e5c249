import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { b, cmp, log, program, run, start } from '../testing/build.ts';
import { randomProgram } from '../testing/random.ts';
import { flowsOf, type Flow } from './outline.ts';
import { allSteps, isLive, type Program } from './program.ts';

const plain = (s: string): string => s;
const lines = (flow: Flow): string[] => {
  const name = (id: string) => flow.nodes.find((n) => n.id === id)!.text || 'o';
  return flow.edges.map((e) => `${name(e.from)} -${e.label ?? ''}-> ${name(e.to)}`);
};
const of = (...steps: Parameters<typeof start>): string[] => lines(flowsOf(program(start(...steps)), plain)[0]);

describe('the flow of a stack', () => {
  it('goes from terminator to terminator, and back for every turn of a loop', () => {
    expect(of(log(1), b('repeat.times', { count: 3 }, { do: [log(2)] }), log(3))).toEqual([
      'at the start --> log 1',
      'log 1 --> turns left of 3?',
      'turns left of 3? -yes-> log 2',
      'log 2 --> turns left of 3?',
      'turns left of 3? -no-> log 3',
      'log 3 --> end'
    ]);
  });
  it('asks after a turn below it, and has no end after for ever', () => {
    const nose = b('sense.nose');
    expect(of(b('repeat.until', { condition: nose, look: 'after' }, { do: [log(1)] }))).toEqual([
      'at the start --> o',
      'o --> log 1',
      'log 1 --> nose is touched?',
      'nose is touched? -no-> o',
      'nose is touched? -yes-> end'
    ]);
    expect(of(b('repeat.ever', {}, { do: [log(1)] }))).toEqual(['at the start --> o', 'o --> log 1', 'log 1 --> o']);
  });
  it('leaves a loop, and goes on with its next turn', () => {
    const loop = b(
      'repeat.ever',
      {},
      { do: [b('choose.if', { if1: cmp(1, '<', 2) }, { then1: [b('repeat.leave')], otherwise: [b('repeat.next')] })] }
    );
    expect(of(loop, log('out'))).toEqual([
      'at the start --> o',
      'o --> 1 < 2?',
      '1 < 2? -yes-> leave the loop',
      '1 < 2? -no-> next turn of the loop',
      'next turn of the loop --> o',
      'leave the loop --> log out',
      'log out --> end'
    ]);
  });
  it('keeps a table in one symbol, without the rows that cannot happen', () => {
    const table = {
      ...b('choose.table', { q1: b('sense.nose'), q2: b('sense.ahead'), cannot: 'nn' }),
      bodies: { yy: [log(1)], yn: [], ny: [], nn: [] }
    };
    const [flow] = flowsOf(program(start(table)), plain);
    expect(flow.nodes.filter((n) => n.kind === 'table')).toHaveLength(1);
    expect(flow.edges.map((e) => e.label).filter(Boolean)).toEqual(['yes, yes', 'yes, no', 'no, yes']);
  });
});

/** Blocks that can follow a block: what is reached without passing another block that does something itself. */
function followers(flow: Flow): (from: string | undefined, to: string) => boolean {
  return (from, to) => {
    const seen = new Set<string>();
    let next = flow.nodes.filter((n) => (from ? n.block === from : n === flow.nodes[0])).map((n) => n.id);
    while (next.length) {
      const reached = flow.edges.filter((e) => next.includes(e.from) && !seen.has(e.to)).map((e) => e.to);
      for (const id of reached) seen.add(id);
      const found = flow.nodes.filter((n) => reached.includes(n.id));
      if (found.some((n) => n.block === to)) return true;
      // a loop or a choice that was entered before is asked again without being begun again
      next = found.filter((n) => ['decision', 'junction', 'table'].includes(n.kind)).map((n) => n.id);
    }
    return false;
  };
}
it('of any program is what the interpreter does: every step that follows another is reached by an arrow', () => {
  let walked = 0;
  fc.assert(
    fc.property(randomProgram, (p: Program) => {
      const stacks = p.stacks.filter(isLive);
      const impossible = new Set<string | undefined>([...allSteps(p)].filter((s) => s.slots.cannot).map((s) => s.id));
      const flows = flowsOf(p, plain);
      const trace = run(p, { limitS: 0.4 });
      const tasks = trace.events.flatMap((e) => (e.type === 'began' ? [{ task: e.task, block: e.block }] : []));
      for (const { task, block } of tasks) {
        const at = stacks.findIndex((s) => s.steps[0].id === block);
        const own = new Set(flows[at].nodes.map((n) => n.block));
        const follows = followers(flows[at]);
        let before: string | undefined;
        for (let row = 0; row < Math.min(trace.spans.count, 300); row++) {
          const id = trace.header.blocks[trace.spans.block[row]];
          if (trace.spans.task[row] !== task || !own.has(id)) continue;
          // a row that cannot happen has no arrow; when it does happen all the same, the program goes on
          if (!impossible.has(before)) expect(follows(before, id), `${before} -> ${id}`).toBe(true);
          before = id;
          walked++;
        }
      }
    }),
    { numRuns: 250, seed: 4 }
  );
  expect(walked).toBeGreaterThan(1000);
});
