/** What a classroom does to a program: far too much of it, far too deep, and names of every kind. On both runners. */
import { describe, expect, it } from 'vitest';
import { runOnStandIn } from '../../cli/standin.ts';
import { barrow } from '../../core/kit/kit.ts';
import { LONGEST } from '../../core/language/values.ts';
import { lookOver } from '../../core/language/lookover/lookover.ts';
import { allSteps, type Program, type Step } from '../../core/language/program.ts';
import { printPython } from '../../core/language/python/print.ts';
import { readPython } from '../../core/language/python/read.ts';
import { syntaxProblem } from '../../core/language/python/syntax.ts';
import { checkProgram } from '../../core/language/check.ts';
import { newProject, readProject, writeProject } from '../../core/project.ts';
import { b, hall, list, log, logs, program, run, start, variable } from '../../core/testing/build.ts';
import { longAisle } from '../../core/yard/mats.ts';
import type { Trace } from '../../core/trace/trace.ts';

const both = async (p: Program): Promise<[Trace, Trace]> => {
  expect(checkProgram(p)).toBeUndefined();
  const options = { noise: false, limitS: 20 };
  return [run(p, options), await runOnStandIn({ program: p, kit: barrow, mat: hall, seed: 1, ...options })];
};
const error = (t: Trace) => {
  const found = t.events.find((e) => e.type === 'error');
  return found?.type === 'error' ? { kind: found.kind, block: found.block } : undefined;
};

describe('a list that would hold itself', () => {
  const two: Program = {
    ...program(),
    variables: [
      { id: 'l1', name: 'things', list: true },
      { id: 'l2', name: 'more', list: true }
    ]
  };
  const ways: [string, Step[]][] = [
    ['at its end', [b('list.add', { value: list('l1'), list: 'l1' })]],
    ['at a place', [b('list.insert', { value: list('l1'), list: 'l1' })]],
    [
      'in place of a thing',
      [b('list.add', { value: 1, list: 'l1' }), b('list.replace', { value: list('l1'), list: 'l1' })]
    ],
    [
      'by way of another',
      [b('list.add', { value: list('l1'), list: 'l2' }), b('list.add', { value: list('l2'), list: 'l1' })]
    ]
  ];
  it.each(ways)('stops the program there, with a sentence: %s', async (_, steps) => {
    const p = { ...two, stacks: program(start(...steps, log('never'))).stacks };
    const [blocks, python] = await both(p);
    for (const trace of [blocks, python]) {
      expect(error(trace)).toEqual({ kind: 'list-in-itself', block: steps.at(-1)!.id });
      expect(logs(trace)).toEqual([]);
      expect(trace.ended).toBe('error');
    }
  });
  it('a list inside another one is none', async () => {
    const steps = [b('list.add', { value: 'leaf', list: 'l1' }), b('list.add', { value: list('l1'), list: 'l2' })];
    const traces = await both({
      ...two,
      stacks: program(start(...steps, b('list.add', { value: list('l1'), list: 'l2' }), log(list('l2')))).stacks
    });
    for (const trace of traces) expect([error(trace), logs(trace)]).toEqual([undefined, ['[["leaf"], ["leaf"]]']]);
  });
  it('lists and passing words without end take no more room than a few', async () => {
    const ever = b(
      'repeat.times',
      { count: 300 },
      {
        do: [b('var.set', { variable: 'v1', value: b('list.new') }), log(variable('v1'))]
      }
    );
    const [blocks, python] = await both(program(start(ever)));
    expect(logs(python)).toEqual(logs(blocks));
    expect(logs(python)).toHaveLength(300);
  });
});

describe('names', () => {
  const NAMES = [
    'for',
    'None',
    'print',
    'wheels',
    'run',
    '🌱',
    '🌱🌱',
    'שלום',
    'مرحبا',
    'Länge in cm',
    'länge in cm',
    '数',
    '12 pots',
    'a"b\\c',
    '\u202Eright to left',
    'é',
    'e\u0301',
    'x'.repeat(60)
  ];
  it('of every kind become names of Python, each its own, and come back from the text', async () => {
    const variables = NAMES.map((name, i) => ({ id: `v${i}`, name }));
    const steps = variables.flatMap((v, i): Step[] => [
      b('var.set', { variable: v.id, value: i }),
      log(variable(v.id))
    ]);
    const routines = NAMES.map((name, i) => ({ id: `r${i}`, name, x: 0, y: 0, steps: [log(name)] }));
    const calls = routines.map((r) => b('routine.do', { routine: r.id }));
    const p: Program = { ...program(start(...steps, ...calls)), variables, routines };
    const { text } = printPython(p, barrow);
    expect(syntaxProblem(text)).toBeUndefined();
    const read = readPython(text);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.program.variables.map((v) => v.name)).toEqual(NAMES);
    expect(read.program.routines.map((r) => r.name)).toEqual(NAMES);
    const [here, there] = await both(p);
    expect(logs(here)).toEqual([...NAMES.map((_, i) => String(i)), ...NAMES]);
    expect(logs(there)).toEqual(logs(here));
  });
  it('of 10,000 characters are refused by the file with a sentence, and notes and text as long are kept', async () => {
    const long = 'ab '.repeat(3334);
    const project = { ...newProject('long', barrow, longAisle), program: program(start(log(1))) };
    const named = { ...project, program: { ...project.program, variables: [{ id: 'v', name: long }] } };
    const refused = readProject(writeProject(named), 'long.mossbell.json');
    expect(refused.ok ? '' : refused.problem).toMatch(/^long\.mossbell\.json cannot be opened: at .*name/);
    const p = program(start({ ...log('x'), note: 'why '.repeat(400).trim() }));
    expect(readPython(printPython(p, barrow).text)).toMatchObject({ ok: true });
  });
});

describe('far too much', () => {
  it('ten thousand blocks are checked, looked over, printed, read again and run', async () => {
    // a list holds at most 5000
    const part = (k: number) =>
      Array.from({ length: 2500 }, (_, n) => b('var.set', { variable: 'v1', value: 2500 * k + n }));
    const routines = [1, 2, 3].map((k) => ({ id: `r${k}`, name: `part ${k}`, x: 0, y: 0, steps: part(k) }));
    const p = {
      ...program(start(...part(0), ...routines.map(({ id }) => b('routine.do', { routine: id })))),
      routines
    };
    expect(lookOver({ program: p, kit: barrow }).map((r) => r.rule)).toEqual(['variable-never-read']);
    const { text } = printPython(p, barrow);
    const read = readPython(text);
    expect(read.ok && [...allSteps(read.program)].length).toBe(10_004);
    const [here, there] = await both(p);
    expect([here.ended, there.ended]).toEqual(['done', 'done']);
    expect(here.variables.v1).toBe(9999);
  });
  it('a nest 190 deep runs on both; one of 200 is refused by the file with a sentence, and breaks nothing', async () => {
    const nest = (deep: number): Step => {
      let step = log('in the middle');
      for (let i = 0; i < deep; i++) step = b('repeat.times', { count: 1 }, { do: [step] });
      return step;
    };
    const [here, there] = await both(program(start(nest(190))));
    expect([logs(here), logs(there)]).toEqual([['in the middle'], ['in the middle']]);
    const deep = { ...newProject('deep', barrow, longAisle), program: program(start(nest(210))) };
    const refused = readProject(writeProject(deep), 'deep.mossbell.json');
    expect(refused.ok ? '' : refused.problem).toBe('deep.mossbell.json nests its blocks more than 200 deep.');
    // what is just allowed can be looked over and printed
    const most = program(start(nest(190)));
    expect(lookOver({ program: most, kit: barrow })).toEqual([]);
    expect(readPython(printPython(most, barrow).text)).toMatchObject({ ok: true });
  });
  it('a routine that does itself for ever stops with a sentence, at the same block', async () => {
    const call = b('routine.do', { routine: 'r' });
    const p: Program = {
      ...program(start(b('routine.do', { routine: 'r' }))),
      routines: [{ id: 'r', name: 'again', x: 0, y: 0, steps: [call] }]
    };
    const [here, there] = await both(p);
    expect([error(here), error(there)]).toEqual([
      { kind: 'too-deep', block: call.id },
      { kind: 'too-deep', block: call.id }
    ]);
  });
  it('a list that grows to a million stops with a sentence at its limit', async () => {
    const add = b('list.add', { list: 'l1', value: 1 });
    const p = program(start(b('repeat.times', { count: 1_000_000 }, { do: [add] })));
    const [here, there] = await both(p);
    for (const t of [here, there]) expect(error(t)).toEqual({ kind: 'list-too-long', block: add.id });
    expect((here.variables.l1 as unknown[]).length).toBe(LONGEST);
    const count = program(
      start(
        b('repeat.times', { count: LONGEST }, { do: [b('list.add', { list: 'l1' })] }),
        log(b('list.count', { list: list('l1') }))
      )
    );
    expect(logs(run(count, { limitS: 20 }))).toEqual([String(LONGEST)]);
  });
  it('a loop without a wait ends at the time limit and blocks nothing', async () => {
    const [here, there] = await both(
      program(start(b('repeat.ever', {}, { do: [b('var.change', { variable: 'v1' })] })))
    );
    expect([here.ended, there.ended]).toEqual(['time limit', 'time limit']);
  });
});

describe('a picture in a text', () => {
  const text = (picture: string): string =>
    `from mossbell import *\n\ndisplay = Display()\n\n\ndef main():\n    display.show(Picture("${picture}"))\n    wait(0.1)\n\n\nrun(main)\n`;
  const shown = async (picture: string, kit = barrow): Promise<Trace> =>
    runOnStandIn({ program: program(), kit, mat: hall, seed: 1, noise: false, limitS: 5 }, text(picture));
  it('of before, with digits, is read to the nearest sign', async () => {
    const trace = await shown('159.... .......');
    expect(trace.events.flatMap((e) => (e.type === 'display' ? [e.picture] : []))).toEqual([
      '-+#.... ....... ....... ....... .......'
    ]);
    expect(error(trace)).toBeUndefined();
  });
  it.each(['x', '', '## #', '..\\n..', '#'.repeat(200)])(
    'that is none stops the program with a sentence: %s',
    async (rows) => {
      expect(error(await shown(rows))?.kind).toBe('not-a-picture');
    }
  );
});
