/** What is met on blocks is met on MicroPython: the errands that ship, their models and what each of them is to catch. */
import { describe, expect, it } from 'vitest';
import { projectOf, type Errand } from '../core/errand/errand.ts';
import { printPython } from '../core/language/python/print.ts';
import type { Program } from '../core/language/program.ts';
import { tryOptions } from '../core/errand/try.ts';
import { untouched, yardsOf } from '../core/errand/yards.ts';
import { specOf } from '../core/run/spec.ts';
import { allShipped, tryIn } from './errand.ts';
import { runOnStandIn } from './standin.ts';

const both = async (errand: Errand, program: Program) => {
  const project = { ...projectOf(errand), program };
  const { text } = printPython(program, errand.kit);
  const [blocks, python] = [await tryIn(errand, 'blocks', project), await tryIn(errand, 'text', { ...project, text })];
  const told = ({ met, problem, situations, goals }: typeof blocks) => ({
    met,
    problem,
    situations: situations.map((s) => s.met),
    goals: goals.map((g) => `${g.goal}: ${g.state}`)
  });
  return [told(python), told(blocks)];
};

it.each(allShipped().flatMap((e) => (e.inputs && !e.others ? [[e.id, e] as const] : [])))(
  '%s: what the errand does to the world is no hand’s doing in a text either',
  async (_, errand) => {
    const [yard] = yardsOf(errand, errand);
    const trace = await runOnStandIn(specOf(tryOptions(errand, yard, errand.model)));
    expect(untouched(errand, trace)).toBe(true);
  }
);

describe.each(allShipped().map((e) => [e.id, e] as const))('%s', (_, errand) => {
  it('comes to the same on MicroPython, done rightly and wrongly', async () => {
    const [python, blocks] = await both(errand, errand.model);
    expect(python).toEqual(blocks);
    expect(python.met).toBe(true);
    const [wrongPython, wrongBlocks] = await both(errand, errand.wrong[0].program);
    expect(wrongPython).toEqual(wrongBlocks);
    expect(wrongPython.met).toBe(false);
  });
});
