/** What is met on blocks is met on MicroPython: the errands that ship, their models and what each of them is to catch. */
import { describe, expect, it } from 'vitest';
import { projectOf, type Errand } from '../core/errand/errand.ts';
import { printPython } from '../core/language/python/print.ts';
import type { Program } from '../core/language/program.ts';
import { allShipped, tryIn } from './errand.ts';

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
