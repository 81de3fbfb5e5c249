import Ajv from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import * as z from 'zod';
import { demoProjects } from '../../demo/seed.ts';
import { abilities, barrow, movePart, saucer } from '../kit/kit.ts';
import { KITS } from '../testing/kits.ts';
import { checkProgram } from './check.ts';
import { checkProject, newProject, projectSchema, readProject, writeProject, type Project } from '../project.ts';
import { b, log, program, run, start, wait } from '../testing/build.ts';
import { randomProgram } from '../testing/random.ts';
import { longAisle } from '../yard/mats.ts';
import { catalogue, definition, newStep, sentence, specFor } from './catalogue.ts';
import { FAMILIES, pieces, SECTIONS } from './define.ts';
import {
  addVariable,
  copySteps,
  followPart,
  insertAfter,
  noteOn,
  parkStack,
  removeStep,
  rename,
  reshape,
  setSlot,
  switchStep
} from './edit.ts';
import { allIds, allSteps, freshId, isLive, programSchema } from './program.ts';
import { identifier, Names } from './python/names.ts';
import { printPython } from './python/print.ts';
import { asTyped, show, typedNumber, typedValue, whole } from './values.ts';

describe('a definition says everything about its block', () => {
  it.each([...catalogue.values()].map((d) => [d.kind, d] as const))('%s', (_kind, def) => {
    expect(def.label[0]).toBeTruthy();
    expect(def.help.length).toBeGreaterThan(10);
    expect(SECTIONS[def.section]).toBeDefined();
    const named = pieces(def.words).flatMap((p) => ('slot' in p ? [p.slot] : []));
    // rows that cannot happen are marked at the rows themselves
    expect(named.sort()).toEqual(
      Object.keys(def.slots)
        .filter((s) => def.slots[s].type !== 'rows')
        .sort()
    );
    const p = { ...program(start()), routines: [{ id: 'r1', name: 'ring', x: 0, y: 0, steps: [] }] };
    const step = newStep(def.kind, 'fresh', p);
    expect(checkProgram({ ...p, loose: [{ x: 0, y: 0, value: step }] })).toBeUndefined();
    expect(sentence(step, p)).not.toContain('{');
  });
  it('takes on a kit what that kit has: lamps, columns and rows, pictures', () => {
    const slot = (kind: string, name: string, kit = barrow) => specFor(definition(kind).slots[name], kit);
    const screen = KITS['with a colour screen'].kit;
    expect(slot('pixel.set', 'x')).toMatchObject({ min: 0, max: 6, default: 2 });
    expect(slot('pixel.set', 'y', screen)).toMatchObject({ min: 0, max: 11, default: 0 });
    expect(slot('picture.at', 'x', screen)).toMatchObject({ min: -12, max: 12, default: 1 });
    expect(slot('pixel.level', 'level', screen)).toEqual(definition('pixel.level').slots.level);
    expect(slot('lamp.set', 'lamp', saucer)).toMatchObject({
      options: expect.arrayContaining(['six']),
      default: 'one'
    });
    const [row] = Object.values(newStep('picture.show', 'x', undefined, KITS['with a strip'].kit).slots);
    expect(row).toEqual({ picture: expect.stringMatching(/^[.#]{11}$/) });
    const none = KITS['without a display'].kit;
    for (const name of ['pixel.set', 'picture.show', 'display.write', 'display.dark'])
      expect(definition(name).needs!.every((n) => abilities(none).has(n))).toBe(false);
    expect(['letters', 'levels', 'colours'].map((n) => abilities(KITS['with a strip'].kit).has(n))).toEqual([
      false,
      true,
      true
    ]);
  });
  it('belongs to one of four families', () => {
    expect(new Set(Object.values(SECTIONS).map((s) => s.family))).toEqual(new Set(FAMILIES));
  });
});

describe('values', () => {
  it('show as Python shows them, without a trailing .0', () => {
    // from Python 3: repr(0.1 + 0.2), repr(1 / 3), repr(1e-05), repr(123456789012345.0), repr(2 / 3 * 1e-07)
    expect([0.1 + 0.2, 1 / 3, 0.00001, 123456789012345, (2 / 3) * 1e-7, 5, -0, 0.0001].map(show)).toEqual([
      '0.30000000000000004',
      '0.3333333333333333',
      '1e-05',
      '123456789012345',
      '6.666666666666665e-08',
      '5',
      '0',
      '0.0001'
    ]);
  });
  it('read typed numbers with point or comma, and nothing else', () => {
    expect(['3', '0,5', ' -2.25 ', '.5', '1e3', '−4'].map(typedNumber)).toEqual([3, 0.5, -2.25, 0.5, 1000, -4]);
    const typed = fc.oneof(
      fc.string(),
      fc.constantFrom('7', '"7"', '""7""', '007', ' 1 ', '"', '""', '"a"', '"', '1e5', '5"')
    );
    fc.assert(
      fc.property(typed, (text) => {
        expect(typedValue(asTyped(text))).toBe(text);
      })
    );
    expect(['7', '"7"', '""7""', '"a"', ' 7', '"'].map(typedValue)).toEqual([7, '7', '"7"', '"a"', 7, '"']);
    expect([7, '7', '"7"', 'a', 0.5].map(asTyped)).toEqual(['7', '"7"', '""7""', 'a', '0.5']);
    expect(['', 'abc', '3a', '1..2', 'NaN', 'Infinity'].map(typedNumber)).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
      undefined,
      undefined
    ]);
  });
  it('are whole within 1e-9', () => {
    expect(whole(2.9999999999)).toBe(3);
    expect(() => whole(2.9)).toThrow('A whole number belongs here.');
  });
});

describe('edits', () => {
  const base = program(
    start(
      b('repeat.times', {}, { do: [log('x'), wait(1)] }),
      b('choose.if', { if1: b('sense.nose') }, { then1: [b('servo.angle')] })
    )
  );
  const inner = [...allSteps(base)].find((s) => s.kind === 'log.line')!;
  it('return new programs and leave the old one as it was', () => {
    const before = JSON.stringify(base);
    const edits = [
      removeStep(base, inner.id),
      setSlot(base, inner.id, 'value', 'y'),
      switchStep(base, inner.id, true),
      noteOn(base, inner.id, 'why'),
      parkStack(base, 's0', true),
      rename(base, 'v1', 'total'),
      insertAfter(base, inner.id, [log('z')]),
      addVariable(base, 'n').program,
      followPart(base, 'J4', 'J6')
    ];
    for (const e of edits) {
      expect(JSON.stringify(e)).not.toBe(before);
      expect(checkProgram(e)).toBeUndefined();
    }
    expect(JSON.stringify(base)).toBe(before);
    // what did not change keeps its identity: undo costs nothing
    expect(setSlot(base, inner.id, 'value', 'y').stacks[0].steps[2]).toBe(base.stacks[0].steps[2]);
  });
  it('give copies ids of their own', () => {
    fc.assert(
      fc.property(randomProgram, (p) => {
        const taken = allIds(p);
        const copy = copySteps(p.stacks[0].steps, new Set(taken));
        for (const s of allSteps(program(copy))) expect(taken.has(s.id)).toBe(false);
        expect(freshId(taken)).not.toBe(freshId(new Set([...taken, freshId(taken)])));
      }),
      { numRuns: 30 }
    );
  });
  it('add and take away branches of an if', () => {
    const id = base.stacks[0].steps[2].id;
    const more = reshape(reshape(base, id, 'more'), id, 'otherwise');
    expect(Object.keys(more.stacks[0].steps[2].bodies!)).toEqual(['then1', 'then2', 'otherwise']);
    expect(reshape(reshape(more, id, 'less'), id, 'no otherwise')).toEqual(base);
  });
  it('let blocks follow a part to its new socket: the program keeps its meaning', () => {
    const p = program(start(b('servo.angle', { servo: 'J4', angle: 10 }), b('motor.run', { motor: 'J1' })));
    const moved = { p: followPart(p, 'J4', 'J6'), kit: movePart(barrow, 'J4', 'J6') };
    expect(moved.p.stacks[0].steps[1].slots.servo).toBe('J6');
    const events = (trace: ReturnType<typeof run>) =>
      trace.events.filter((e) => e.type === 'error' || e.type === 'servo').map((e) => e.type);
    expect(events(run(moved.p, { kit: moved.kit, limitS: 1 }))).toEqual(events(run(p, { limitS: 1 })));
    expect(followPart(moved.p, 'J6', 'J4')).toEqual(p);
  });
});

describe('the Python text', () => {
  it('reads as a pupil would write it, and knows the block of each line', () => {
    const drive = b('drive.measure', { amount: 30 });
    const p = program(
      start(
        b('servo.angle', { servo: 'J4', angle: 60 }),
        b(
          'repeat.times',
          { count: 5 },
          { do: [{ ...drive, note: 'one side' }, b('turn.angle', { side: 'left', angle: 72 })] }
        ),
        b(
          'choose.if',
          { if1: b('calc.compare', { a: b('sense.distance'), sign: '<', b: 20 }) },
          { then1: [b('var.change', { variable: 'v2' })], otherwise: [] }
        )
      )
    );
    const { text, blocks } = printPython(p, barrow);
    expect(text.split('\n').slice(0, -1)).toEqual([
      'from mossbell import *',
      '',
      'striker = Servo("J4")',
      'wheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)',
      'distance = Distance("J7")',
      '',
      'count = 0',
      'lange = 0  # Länge',
      'things = []',
      '',
      '',
      'def main():',
      '    global lange',
      '    striker.angle(60)',
      '    for _ in range(5):',
      '        # one side',
      '        wheels.drive(cm=30, power=45, ending="brake")',
      '        wheels.turn(left=72, power=35, ending="brake")',
      '    if distance.cm() < 20:',
      '        lange += 1',
      '    else:',
      '        pass',
      '',
      '',
      'run(main)'
    ]);
    expect(blocks[16]).toBe(drive.id);
    expect(blocks[0]).toBe(null);
  });
  it('makes valid names of any language, without collisions', () => {
    expect(
      ['Ring the bell', 'Zähler', '3rd', 'wait', 'числo', ''].map(identifier).every((n) => /^[a-z_][a-z0-9_]*$/.test(n))
    ).toBe(true);
    const names = new Names();
    expect([
      names.give('a', 'speed'),
      names.give('b', 'Speed'),
      names.give('c', 'for'),
      names.give('a', 'speed')
    ]).toEqual(['speed', 'speed_2', 'for_2', 'speed']);
  });
  it('is accepted by CPython, where this machine has it', () => {
    let python = '';
    for (const name of ['python3', 'python']) {
      try {
        execFileSync(name, ['--version'], { stdio: 'pipe' });
        python = name;
        break;
      } catch {
        // not on this machine
      }
    }
    if (!python) return;
    const texts = [...fc.sample(randomProgram, 25), ...demoProjects().map(([, p]) => p.program)].map(
      (p) => printPython(p, barrow).text
    );
    const out = execFileSync(
      python,
      ['-c', 'import ast, json, sys\nfor t in json.load(sys.stdin): ast.parse(t)\nprint("ok")'],
      { input: JSON.stringify(texts) }
    ).toString();
    expect(out.trim()).toBe('ok');
  });
});

describe('project files', () => {
  const project = (): Project => ({ ...newProject('Pots', barrow, longAisle), program: program(start(log('x'))) });
  const problem = (text: string): string => {
    const read = readProject(text, 'pots.mossbell.json');
    return read.ok ? '' : read.problem;
  };
  it('come back as they were written', () => {
    fc.assert(
      fc.property(randomProgram, (p) => {
        const written = { ...project(), program: p };
        expect(readProject(writeProject(written))).toEqual({ ok: true, project: written });
      }),
      { numRuns: 30 }
    );
  });
  it('get a sentence with what and where when they are no good', () => {
    expect(problem('{"format": "mossbell.project",\n "x": NaN}')).toMatch(/not JSON at line 2, column 7, near "NaN"/);
    expect(problem('hello')).toMatch(/not JSON/);
    expect(problem('{"format":"something.else"}')).toMatch(/its "format" is "something.else"/);
    expect(problem('[]')).toMatch(/its "format" is missing/);
    expect(problem(JSON.stringify({ ...project(), version: 7 }))).toMatch(/newer Moss Bell \(format 7/);
    const unknown = project();
    unknown.program.stacks[0].steps[1].kind = 'fly.away';
    expect(problem(JSON.stringify(unknown))).toMatch(
      /block "b\d+" is of the kind "fly.away", which this Moss Bell does not know/
    );
    const letters = project();
    (letters.program.stacks[0] as { x: unknown }).x = 'left';
    expect(problem(JSON.stringify(letters))).toMatch(/at "program" "stacks" \[1\] "x", invalid input/);
    const twice = project();
    twice.program.stacks.push({ ...twice.program.stacks[0], id: 'other' });
    expect(problem(JSON.stringify(twice))).toMatch(/is used twice/);
    const choice = project();
    choice.program.stacks[0].steps.push(b('lamp.set', { to: 'explode' }));
    expect(problem(JSON.stringify(choice))).toMatch(/it takes on, off, flip/);
    expect(problem(' '.repeat(50e6))).toMatch(/is 50 MB long/);
    let deep: unknown = 1;
    for (let i = 0; i < 5000; i++) deep = { a: deep };
    expect(checkProject({ ...project(), program: deep }).ok).toBe(false);
  });
  it('keep letters in a number slot, and the program does not start', () => {
    const read = readProject(
      JSON.stringify({ ...project(), program: program(start(b('drive.measure', { amount: 'abc' }))) })
    );
    expect(read.ok).toBe(true);
  });
  it('have a published JSON Schema that is up to date and takes every demo project', () => {
    const schema = JSON.parse(readFileSync(new URL('../../docs/formats/program.schema.json', import.meta.url), 'utf8'));
    expect(schema).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(projectSchema))));
    const validate = new Ajv({ strict: false }).compile(schema);
    for (const [name, p] of demoProjects())
      expect(validate(p), `${name} ${JSON.stringify(validate.errors)}`).toBe(true);
    expect(validate({ format: 'mossbell.project' })).toBe(false);
    expect(programSchema.safeParse({ stacks: [] }).success).toBe(false);
  });
});

it('a stack runs only with a starter that is on, and when it is not parked', () => {
  const live = (change: object, steps = start(log('x'))) => isLive({ id: 's', x: 0, y: 0, steps, ...change });
  expect([
    live({}),
    live({ parked: true }),
    live({}, [log('x')]),
    live({}, [{ ...b('begin.start'), off: true }])
  ]).toEqual([true, false, false, false]);
  expect(definition('begin.start').shape).toBe('starter');
});
