/** Each block runs in the interpreter and, printed and marked, on a real MicroPython: same events, order, millisecond. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import CRC32 from 'crc-32';
import { barrow } from '../../core/kit/kit.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import { catalogue } from '../../core/language/catalogue.ts';
import { printPython } from '../../core/language/python/print.ts';
import { walkSteps, type Program, type Step } from '../../core/language/program.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import type { TimedInput, Trace, TraceEvent } from '../../core/trace/trace.ts';
import { b, cmp, log, program, start, sum, wait } from '../../core/testing/build.ts';
import { fernBed, longAisle } from '../../core/yard/mats.ts';
import { programFile } from './program-file.ts';
import { utf8 } from '../../core/bytes.ts';
import { StandIn, type LoadMicroPython } from './standin.ts';

const library = readFileSync(new URL('../lib/mossbell.py', import.meta.url));
const s = wait;

export async function onStandIn(p: Program, inputs: TimedInput[], mat = longAisle): Promise<Trace> {
  const { text, blocks } = printPython(p, barrow);
  let trace: Trace | undefined;
  const file = programFile(text);
  const standIn = await StandIn.boot({
    serial: 'TEST',
    name: 'Test',
    load: loadMicroPython as unknown as LoadMicroPython,
    flash: { 'lib/mossbell.py': library, 'p/1.py': utf8(file), 'p/active': utf8('1') },
    host: { write: () => {}, began: () => {}, tick: () => {}, ended: (t) => (trace = t) },
    quirks: noQuirks,
    noise: false,
    onBattery: false,
    seed: 5,
    limitS: 20,
    inputs,
    blocksOf: (crc) => (crc === CRC32.str(text) >>> 0 ? blocks : undefined)
  });
  standIn.place = { kit: barrow, mat, pose: mat.start };
  const message = standIn.start();
  if (!trace) throw new Error(`${message}\n${text}`);
  return trace;
}

/** What both must agree on. A starter's block is not known to the text's scheduler. */
const essence = (trace: Trace): unknown[] =>
  trace.events.map((e: TraceEvent) => {
    const { block, ...rest } = e;
    return {
      ...rest,
      tUs: Math.floor(e.tUs / 1000),
      ...(e.type === 'began' || e.type === 'missed' || e.type === 'moved' ? {} : { block }),
      ...(e.type === 'error' ? { message: undefined } : {})
    };
  });

async function agree(p: Program, inputs: TimedInput[] = [], mat = longAisle): Promise<Trace> {
  const here = rehearse({ program: p, kit: barrow, mat, seed: 5, noise: false, limitS: 20, inputs });
  const there = await onStandIn(p, inputs, mat);
  expect(essence(there)).toEqual(essence(here));
  expect(there.ended).toBe(here.ended);
  expect(there.ticks).toBe(here.ticks);
  return here;
}

const CASES: Record<string, () => { p: Program; inputs?: TimedInput[]; mat?: typeof fernBed }> = {
  'begin.start': () => ({
    p: program(start(log('one'), s(0.01), log('two')), start(log('three'), s(0.005), log('four')))
  }),
  'begin.button': () => ({
    p: program(
      [b('begin.button', { button: 'Dot', event: 'pressed' }), log('down'), s(0.2), log('late')],
      [b('begin.button', { button: 'Dot', event: 'released' }), log('up')],
      [b('begin.button', { button: 'Bar', event: 'held' }), log('held')]
    ),
    inputs: [
      [0.1, 'press', 'Dot'],
      [0.15, 'release', 'Dot'],
      [0.2, 'press', 'Dot'],
      [0.5, 'release', 'Dot'],
      [1, 'press', 'Bar'],
      [2.5, 'release', 'Bar']
    ].map(([t, k, v]) => ({ tUs: (t as number) * 1e6, input: { [k as string]: v } as never }))
  }),
  'wait.time': () => ({
    p: program(
      start(
        s(0.25),
        log('a'),
        b('wait.time', { time: 3.3, unit: 'ms' }),
        log('b'),
        b('wait.time', { time: sum(1, '÷', 3) }),
        log('c')
      )
    )
  }),
  'wait.until': () => ({
    p: program(
      start(
        b('wheels.run'),
        b('wait.until', { condition: cmp(b('sense.turns'), '>', 0.5) }),
        b('wheels.stop'),
        log(b('sense.turns'))
      ),
      start(b('wait.until', { condition: cmp(1, '=', 1) }), log('at once'))
    )
  }),
  'choose.if': () => ({
    p: program(
      start(
        ...[1, 2, 3].map((n) =>
          b(
            'choose.if',
            { if1: cmp(n, '=', 1), if2: cmp(n, '=', 2) },
            { then1: [log('one')], then2: [log('two')], otherwise: [log('other')] }
          )
        )
      )
    )
  }),
  'repeat.times': () => ({
    p: program(
      start(
        b('repeat.times', { count: 4 }, { do: [log('x')] }),
        b('repeat.times', { count: 100 }, { do: [b('wait.time', { time: 10, unit: 'ms' })] }),
        log(b('sense.timer')),
        b('repeat.times', { count: sum(1, '+', 1) }, { do: [b('repeat.times', { count: 2 }, { do: [log('y')] })] })
      )
    )
  }),
  'repeat.ever': () => ({
    p: program(
      start(
        b(
          'repeat.ever',
          {},
          { do: [b('var.change', { variable: 'v1', amount: 1 }), s(3), log(b('var.value', { variable: 'v1' }))] }
        )
      ),
      start(b('repeat.ever', {}, { do: [log('tick'), s(4)] }))
    )
  }),
  'repeat.until': () => ({
    p: program(
      start(
        b(
          'repeat.until',
          { condition: cmp(b('var.value', { variable: 'v1' }), '≥', 3), look: 'before' },
          { do: [b('var.change', { variable: 'v1' })] }
        ),
        log(b('var.value', { variable: 'v1' })),
        b('repeat.until', { condition: cmp(1, '<', 2), look: 'after' }, { do: [log('once')] }),
        b('repeat.until', { condition: cmp(1, '<', 2), look: 'before' }, { do: [log('never')] })
      )
    )
  }),
  'routine.do': () => {
    const p = program(
      start(b('routine.do', { routine: 'r1' }), log('back'), b('routine.do', { routine: 'r1' })),
      start(s(0.01), b('routine.do', { routine: 'r1' }))
    );
    return {
      p: { ...p, routines: [{ id: 'r1', name: 'Ring it', x: 0, y: 0, steps: [log('ring'), s(0.02), b('sound.beep')] }] }
    };
  },
  'drive.measure': () => ({
    p: program(
      start(
        b('drive.measure', { amount: 20 }),
        b('drive.measure', { way: 'back', amount: 0.5, unit: 'wheel turns', ending: 'coast' }),
        b('drive.measure', { amount: 1, unit: 's', power: 60 }),
        log('done')
      )
    )
  }),
  'turn.angle': () => ({
    p: program(
      start(
        b('turn.angle', { side: 'right', angle: 90 }),
        b('turn.angle', { side: 'left', angle: sum(30, '×', 2), ending: 'coast' })
      )
    )
  }),
  'wheels.run': () => ({
    p: program(
      start(
        b('wheels.run', { left: 50, right: 30 }),
        s(1),
        b('wheels.run', { left: -20, right: 150 }),
        s(0.5),
        b('wheels.run', { left: 0, right: 0 })
      )
    )
  }),
  'wheels.span': () => ({
    p: program(
      start(
        b('wheels.span'),
        b('wheels.span', { left: -30, right: 60, amount: 1, unit: 'wheel turns' }),
        b('wheels.span', { amount: 12, unit: 'cm', ending: 'coast' })
      )
    )
  }),
  'wheels.stop': () => ({
    p: program(start(b('wheels.run'), s(0.6), b('wheels.stop', { ending: 'coast' }), s(0.5), b('wheels.stop')))
  }),
  'motor.run': () => ({
    p: program(
      start(b('motor.run', { motor: 'P', power: 40 }), s(0.5), b('motor.run', { motor: 'Q', power: 40 }), s(0.5))
    )
  }),
  'motor.span': () => ({
    p: program(
      start(
        b('motor.span', { motor: 'Q' }),
        b('motor.span', { motor: 'P', amount: 90, unit: '°' }),
        b('motor.span', { motor: 'P', power: -30, amount: 0.5, unit: 'turns', ending: 'coast' })
      )
    )
  }),
  'motor.stop': () => ({ p: program(start(b('motor.run'), s(0.3), b('motor.stop'))) }),
  'servo.angle': () => ({
    p: program(
      start(b('servo.angle', { servo: 'U', angle: 120 }), s(0.3), b('servo.angle', { servo: 'V', angle: 200 }))
    )
  }),
  'servo.middle': () => ({ p: program(start(b('servo.angle', { angle: 10 }), b('servo.middle'))) }),
  'sound.tone': () => ({ p: program(start(b('sound.tone', { pitch: 440, time: 0.2 }), log('after'))) }),
  'sound.beep': () => ({ p: program(start(b('sound.beep'), b('sound.beep'))) }),
  'lamp.set': () => ({
    p: program(
      start(
        b('lamp.set'),
        b('lamp.set', { lamp: 'right', to: 'flip' }),
        b('lamp.set', { lamp: 'right', to: 'flip' }),
        b('lamp.set', { to: 'off' })
      )
    )
  }),
  'lamp.colour': () => ({ p: program(start(b('lamp.colour', { colour: 'violet' }), b('lamp.set', { to: 'off' }))) }),
  'pixel.set': () => ({
    p: program(
      start(
        b('pixel.set', { x: 6, y: 4 }),
        b('pixel.set', { x: sum(1, '+', 2), y: 0, to: 'flip' }),
        b('pixel.set', { x: 6, y: 4, to: 'off' })
      )
    )
  }),
  'picture.show': () => ({
    p: program(
      start(
        b('picture.show'),
        s(0.1),
        b('picture.show', { picture: { picture: '#.....# ....... ....... ....... #.....#' } })
      )
    )
  }),
  'picture.value': () => ({
    p: program(
      start(
        b('var.set', { variable: 'v1', value: b('picture.value') }),
        b('picture.show', { picture: b('var.value', { variable: 'v1' }) }),
        log(b('var.value', { variable: 'v1' })),
        log(cmp(b('var.value', { variable: 'v1' }), '=', b('picture.value')))
      )
    )
  }),
  'display.dark': () => ({ p: program(start(b('picture.show'), s(0.1), b('display.dark'))) }),
  'var.set': () => ({
    p: program(
      start(
        b('var.set', { variable: 'v2', value: 'moss' }),
        log(b('var.value', { variable: 'v2' })),
        b('var.set', { variable: 'v2', value: 2.5 }),
        log(b('var.value', { variable: 'v2' }))
      )
    )
  }),
  'var.change': () => ({
    p: program(
      start(
        b('var.change', { variable: 'v1', amount: 2 }),
        b('var.change', { variable: 'v1', amount: -0.5 }),
        log(b('var.value', { variable: 'v1' }))
      )
    )
  }),
  'var.value': () => ({ p: program(start(log(b('var.value', { variable: 'v1' })))) }),
  'log.line': () => ({
    p: program(
      start(
        log('text'),
        log(3),
        log(0.1),
        log(cmp(1, '<', 2)),
        log(sum(0.1, '+', 0.2)),
        log(sum(1, '÷', 3)),
        log(sum(1, '÷', 100000)),
        log('wörter'),
        log('"quoted" \\ back')
      )
    )
  }),
  'calc.sum': () => ({
    p: program(
      start(
        log(sum(7, '+', 2)),
        log(sum(sum(7, '−', 2), '−', sum(3, '−', 1))),
        log(sum(2, '×', sum(3, '+', 4))),
        log(sum(7, '÷', 2)),
        log(sum(8, '÷', 2)),
        log(sum(sum(2, '+', 3), '×', sum(-1, '×', -4))),
        log(sum(3000000000, '×', 2))
      )
    )
  }),
  'calc.compare': () => ({
    p: program(
      start(
        ...['<', '=', '>', '≤', '≥', '≠'].flatMap((sign) => [
          log(cmp(2, sign, 3)),
          log(cmp(3, sign, 3)),
          log(cmp('b', sign, 'a'))
        ]),
        log(cmp('3a', '=', 3))
      )
    )
  }),
  'calc.logic': () => ({
    p: program(
      start(
        ...['and', 'or'].flatMap((word) => [
          log(b('calc.logic', { a: cmp(1, '=', 1), word, b: cmp(1, '=', 2) })),
          log(
            b('calc.logic', {
              a: b('calc.logic', { a: cmp(1, '=', 2), word: 'and', b: cmp(1, '=', 1) }),
              word,
              b: cmp(2, '=', 2)
            })
          )
        ]),
        log(b('calc.logic', { word: 'or' }))
      )
    )
  }),
  'calc.not': () => ({
    p: program(
      start(
        log(b('calc.not', { a: cmp(1, '=', 2) })),
        log(b('calc.not', { a: b('calc.logic', { a: cmp(1, '=', 1), word: 'and', b: cmp(1, '=', 1) }) }))
      )
    )
  }),
  'calc.chance': () => ({
    p: program(
      start(
        b('repeat.times', { count: 12 }, { do: [log(b('calc.chance'))] }),
        log(b('calc.chance', { from: -5, to: 5000000000 }))
      )
    )
  }),
  'sense.distance': () => ({
    p: program(start(log(b('sense.distance')), b('drive.measure', { amount: 20 }), log(b('sense.distance'))))
  }),
  'sense.ahead': () => ({ p: program(start(log(b('sense.ahead')))) }),
  'sense.nose': () => ({
    p: program(start(log(b('sense.nose')), s(0.2), log(b('sense.nose')))),
    inputs: [{ tUs: 100000, input: { nose: true } }]
  }),
  'sense.button': () => ({
    p: program(start(log(b('sense.button')), s(0.2), log(b('sense.button')))),
    inputs: [{ tUs: 100000, input: { press: 'Dot' } }]
  }),
  'sense.heading': () => ({
    p: program(start(b('turn.angle', { angle: 45, side: 'right' }), s(0.5), log(b('sense.heading'))))
  }),
  'sense.turns': () => ({
    p: program(
      start(b('drive.measure', { amount: 10 }), log(b('sense.turns')), log(b('sense.turns', { wheel: 'right' })))
    )
  }),
  'sense.line': () => ({
    p: program(start(log(b('sense.line')), log(b('sense.line', { sensor: '30' })))),
    mat: fernBed
  }),
  'sense.over': () => ({
    p: program(
      start(
        b('wheels.run', { left: 25, right: 25 }),
        b('wait.until', { condition: b('sense.over', { sensor: '30' }) }),
        b('wheels.stop'),
        log(b('sense.over', { what: 'light' }))
      )
    ),
    mat: fernBed
  }),
  'sense.timer': () => ({ p: program(start(s(0.1), log(b('sense.timer')))) })
};

describe('interpreter and MicroPython agree', () => {
  it('has a case for every block, and each case uses its block', () => {
    expect(Object.keys(CASES).sort()).toEqual([...catalogue.keys()].sort());
    for (const [kind, make] of Object.entries(CASES)) {
      const { p } = make();
      const used = [...p.stacks, ...p.routines].flatMap((x) => [...walkSteps(x.steps)].map((step) => step.kind));
      expect(used, kind).toContain(kind);
    }
  });
  for (const [kind, make] of Object.entries(CASES))
    it(kind, async () => {
      const { p, inputs, mat } = make();
      const trace = await agree(p, inputs, mat);
      expect(trace.events.length).toBeGreaterThan(1);
    });

  it('two tasks that command the same wheels: the later wins', async () => {
    const trace = await agree(
      program(
        start(b('drive.measure', { amount: 60 }), log('first over')),
        start(s(0.7), b('turn.angle', { angle: 30 }), log('second over'))
      )
    );
    expect(trace.events.some((e) => e.type === 'moved' && e.ended === 'taken over')).toBe(true);
  });
  it('errors stop at the same block with the same kind', async () => {
    const bad: [string, Step][] = [
      ['division-by-zero', log(sum(1, '÷', 0))],
      ['not-a-number', b('servo.angle', { angle: b('var.value', { variable: 'v2' }) })],
      ['unlike-things', log(cmp('a', '<', 1))],
      ['empty-socket', b('servo.angle', { servo: 'W' })],
      ['wrong-part', b('motor.run', { motor: 'U' })],
      ['out-of-range', b('pixel.set', { x: sum(3, '+', 4) })],
      ['not-whole', b('repeat.times', { count: sum(1, '÷', 2) }, { do: [log('x')] })],
      ['too-large', log(sum(9007199254740992, '+', 5))],
      ['not-a-picture', b('picture.show', { picture: b('var.value', { variable: 'v2' }) })]
    ];
    for (const [kind, step] of bad) {
      const trace = await agree(
        program(start(b('var.set', { variable: 'v2', value: 'letters' }), b('wheels.run'), step, log('not reached')))
      );
      const error = trace.events.find((e) => e.type === 'error');
      expect(error).toMatchObject({ kind, block: step.id });
      expect(trace.ended).toBe('error');
    }
  });
  it('a routine that calls itself for ever ends with a plain error in both', async () => {
    const p = program(start(b('routine.do', { routine: 'r1' })));
    const trace = await agree({
      ...p,
      routines: [
        {
          id: 'r1',
          name: 'again',
          x: 0,
          y: 0,
          steps: [b('var.change', { variable: 'v1' }), b('routine.do', { routine: 'r1' })]
        }
      ]
    });
    expect(trace.events.find((e) => e.type === 'error')).toMatchObject({ kind: 'too-deep' });
    expect(trace.variables.v1).toBe(100);
  });
  it('switched-off blocks and empty loops run as nothing', async () => {
    await agree(
      program(
        start(
          { ...log('off'), off: true },
          b('repeat.times', { count: 3 }),
          b('choose.if', {}, { then1: [] }),
          log('on')
        )
      )
    );
  });
});
