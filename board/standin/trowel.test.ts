/** The board for the hand on MicroPython: what a hand does to it comes out the same as in the interpreter. */
import { describe, expect, it } from 'vitest';
import { runOnStandIn } from '../../cli/standin.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import type { RunOptions } from '../../core/run/spec.ts';
import type { TimedInput, Trace } from '../../core/trace/trace.ts';
import { demoProjects } from '../../demo/seed.ts';

const demos = new Map(demoProjects());
const at = (seconds: number, input: TimedInput['input']): TimedInput => ({ tUs: seconds * 1e6, input });
const seen = (trace: Trace): unknown[] =>
  trace.events.flatMap((e) =>
    e.type === 'log'
      ? [['log', e.text, Math.round(e.tUs / 1000)]]
      : e.type === 'display'
        ? [['display', e.picture, Math.round(e.tUs / 1000)]]
        : e.type === 'tone'
          ? [['tone', Math.round(e.hertz), Math.round(e.tUs / 1000)]]
          : []
  );
async function both(name: string, inputs: TimedInput[], limitS: number): Promise<[unknown[], unknown[]]> {
  const project = demos.get(name)!;
  const options: RunOptions = { ...project, seed: 1, inputs, limitS, noise: false };
  return [seen(rehearse(options)), seen(await runOnStandIn(options))];
}

describe('Trowel on the stand-in', () => {
  it('is tossed and caught as in the rehearsal', async () => {
    const [blocks, python] = await both('catch-the-trowel', [at(1, { toss: 60 })], 3);
    expect(blocks.length).toBeGreaterThan(3);
    expect(python).toEqual(blocks);
  });
  it('is leaned, and the picture follows', async () => {
    const inputs = [at(0.5, { lean: { sideways: 30 } }), at(1, { lean: { sideways: -40, forwards: 20 } })];
    const [blocks, python] = await both('rolling-drop', inputs, 1.5);
    // a loop of many pictures: the same ones, a few milliseconds apart at the most
    const pictures = (list: unknown[]) => [...new Set(list.map((e) => (e as string[])[1]))];
    expect(pictures(blocks)).toHaveLength(3);
    expect(pictures(python)).toEqual(pictures(blocks));
  });
  it('feels frost where it is carried, and damp soil at its foot', async () => {
    const inputs = [
      at(0.2, { lift: true }),
      at(0.3, { carry: { x: 76, y: 46, facing: 0 } }),
      at(2, { carry: { x: 14, y: 47, facing: 0 } }),
      at(3, { soil: true }),
      at(3.5, { press: 'Bar' })
    ];
    const [blocks, python] = await both('frost-alarm', inputs, 4.5);
    expect(blocks.filter((e) => (e as string[])[0] === 'log')).toHaveLength(1);
    expect(python).toEqual(blocks);
  });
});
