import { describe, expect, it } from 'vitest';
import { readdirSync, readFileSync } from 'node:fs';
import { checkProject } from '../project.ts';
import { parseInputs } from '../trace/inputs.ts';
import { rehearse } from '../run/interpreter.ts';
import { longAisle } from '../yard/mats.ts';
import { projectOf, readErrand, type Errand } from './errand.ts';
import { tryOptions, tryOut } from './try.ts';
import { inItsYard, untouched, yardsOf } from './yards.ts';

const FOLDER = new URL('../../demo/errands/', import.meta.url);
const errands = readdirSync(FOLDER).map((file): Errand => {
  const read = readErrand(readFileSync(new URL(file, FOLDER), 'utf8'), file);
  if (!read.ok) throw new Error(read.problem);
  return read.errand;
});
const vent = errands.find((e) => e.id === 'vent-at-noon')!;
const run = (errand: Errand, more = {}) =>
  rehearse({ ...tryOptions(errand, yardsOf(errand, errand)[0], errand.model), ...more });

describe('the yard of an errand', () => {
  it.each(errands.map((e) => [e.id, e] as const))(
    '%s: a project that is begun has it, also once it was saved',
    (_, e) => {
      const read = checkProject(JSON.parse(JSON.stringify(projectOf(e))));
      if (!read.ok) throw new Error(read.problem);
      expect(inItsYard(read.project.errand!, read.project)).toBe(true);
    }
  );
  it('is another one where a hoop, the start or a neighbour is otherwise; the kit may be measured', () => {
    const project = projectOf(errands.find((e) => e.id === 'first-delivery')!);
    const has = (change: Partial<typeof project>) => inItsYard(project.errand!, { ...project, ...change });
    const { mat } = project;
    expect(has({ start: mat.start })).toBe(true);
    expect(has({ start: { ...mat.start, x: mat.start.x + 0.01 } })).toBe(false);
    expect(has({ mat: { ...mat, hoops: mat.hoops.map((h) => ({ ...h, radius: h.radius + 0.01 })) } })).toBe(false);
    expect(has({ mat: { ...longAisle, name: mat.name } })).toBe(false);
    expect(has({ others: [{ name: 'Another', program: project.program, kit: project.kit }] })).toBe(false);
    expect(has({ kit: { ...project.kit, name: 'Measured' } })).toBe(true);
    // one that was begun before yards were known by anything
    const { yard: _, ...before } = project.errand!;
    expect(inItsYard(before, { ...project, mat: longAisle })).toBe(true);
  });
});

describe('what a hand did', () => {
  it.each(errands.map((e) => [e.id, e] as const))(
    '%s: nothing, where the errand’s own inputs alone are done',
    (_, e) => {
      expect(untouched(e, tryOut(e, yardsOf(e, e)[0], e.model))).toBe(true);
    }
  );
  it('counts where it moved the device, changed the world or a variable, and not where it pressed a button', () => {
    const of = (line: string) => {
      const read = parseInputs(`${vent.inputs}\n${line}`);
      if (!read.ok) throw new Error(read.problem);
      return untouched(vent, run(vent, { inputs: read.inputs }));
    };
    expect(of('{"t":3,"press":"Dot"}')).toBe(true);
    expect(of('{"t":3,"around":{"light":90}}')).toBe(false);
    expect(of('{"t":3,"carry":{"x":40,"y":30,"facing":0}}')).toBe(false);
    // nor is it tried where the sun does not shine at all
    expect(untouched(vent, run(vent, { inputs: [] }))).toBe(false);
  });
});
