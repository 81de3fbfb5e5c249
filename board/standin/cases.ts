/** For each block a small program that uses it; the conformance test runs them in both runners. */
import type { Program, Step } from '../../core/language/program.ts';
import { b, cmp, list, log, program, start, sum, variable, wait } from '../../core/testing/build.ts';
import type { Input, TimedInput } from '../../core/trace/trace.ts';
import { fernBed } from '../../core/yard/mats.ts';

const s = wait;
export type Case = { p: Program; inputs?: TimedInput[]; mat?: typeof fernBed; /** of KITS */ kit?: string };
const at = (seconds: number, input: Input): TimedInput => ({ tUs: Math.round(seconds * 1e6), input });
const routine = (p: Program, name: string, types: ('number' | 'condition')[], steps: Step[]): Program => ({
  ...p,
  routines: [
    {
      id: 'r1',
      name,
      inputs: types.map((type, i) => ({ id: `a${i}`, name: `input ${i}`, type })),
      x: 0,
      y: 0,
      steps
    }
  ]
});
const given = (i: number): Step => b('routine.input', { input: `a${i}` });
/** values worked out and logged, one after the other */
const logged = (...values: Parameters<typeof log>[0][]): Case => ({ p: program(start(...values.map((v) => log(v)))) });
const drivenThenLogged = (kind: string, slots = {}): Case => ({
  p: program(
    start(
      b('wheels.run', { left: 40, right: 30 }),
      s(0.6),
      log(b(kind, slots)),
      b('wheels.stop'),
      s(0.4),
      log(b(kind, slots))
    )
  )
});

export const CASES: Record<string, () => Case> = {
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
      start(b('motor.run', { motor: 'J1', power: 40 }), s(0.5), b('motor.run', { motor: 'J2', power: 40 }), s(0.5))
    )
  }),
  'motor.span': () => ({
    p: program(
      start(
        b('motor.span', { motor: 'J2' }),
        b('motor.span', { motor: 'J1', amount: 90, unit: '°' }),
        b('motor.span', { motor: 'J1', power: -30, amount: 0.5, unit: 'turns', ending: 'coast' })
      )
    )
  }),
  'motor.stop': () => ({ p: program(start(b('motor.run'), s(0.3), b('motor.stop'))) }),
  'servo.angle': () => ({
    p: program(
      start(b('servo.angle', { servo: 'J4', angle: 120 }), s(0.3), b('servo.angle', { servo: 'J5', angle: 200 }))
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
    p: program(start(log(b('sense.line')), log(b('sense.line', { sensor: 'J9' })))),
    mat: fernBed
  }),
  'sense.colour': () => ({ p: program(start(log(b('sense.colour')), log('not reached'))) }),
  'sense.over': () => ({
    p: program(
      start(
        b('wheels.run', { left: 25, right: 25 }),
        b('wait.until', { condition: b('sense.over', { sensor: 'J9' }) }),
        b('wheels.stop'),
        log(b('sense.over', { what: 'light' }))
      )
    ),
    mat: fernBed
  }),
  'sense.timer': () => ({ p: program(start(s(0.1), log(b('sense.timer')))) }),
  // ---- begin ----
  'begin.before': () => ({
    p: program(
      [b('begin.before'), b('servo.angle', { angle: 20 }), s(0.2), log('prepared')],
      [b('begin.off'), b('wheels.run'), s(0.3), b('wheels.stop')],
      start(log('off we go'))
    ),
    inputs: [at(0.7, { word: true })]
  }),
  'begin.off': () => ({ p: program([b('begin.off'), log('at once')], start(log('too'))) }),
  'begin.key': () => ({
    p: program(
      [b('begin.key', { key: 'W', event: 'pressed' }), log('w')],
      [b('begin.key', { key: 'Up', event: 'released' }), log('up')]
    ),
    inputs: [
      at(0.1, { key: 'W', down: true }),
      at(0.2, { key: 'W', down: false }),
      at(0.3, { key: 'Up', down: true }),
      at(0.4, { key: 'Up', down: false })
    ]
  }),
  'begin.touch': () => ({
    p: program(
      [b('begin.touch', { what: 'nose', event: 'is touched' }), log('nose')],
      [b('begin.touch', { what: 'nose', event: 'is free' }), log('free')],
      [b('begin.touch', { what: 'left edge', event: 'is touched' }), log('edge')]
    ),
    inputs: [at(0.1, { nose: true }), at(0.3, { nose: false }), at(0.5, { edge: 'left', touched: true })]
  }),
  'begin.dip': () => ({
    p: program(
      [b('begin.dip', { edge: 'left', angle: 25 }), log('left')],
      [b('begin.dip', { edge: 'far', angle: 12.5 }), log('far')]
    ),
    inputs: [
      at(0.2, { lean: { sideways: -40 } }),
      at(0.5, { lean: { sideways: 0, forwards: 20 } }),
      at(0.9, { lean: { sideways: -26 } })
    ]
  }),
  'begin.moved': () => ({
    p: program(
      [b('begin.moved', { how: 'turned over' }), log('over')],
      [b('begin.moved', { how: 'let go' }), log('let go')],
      [b('begin.moved', { how: 'set down' }), log('set down')]
    ),
    inputs: [at(0.2, { lean: { sideways: 170 } }), at(0.6, { lean: { sideways: 0 } }), at(1.2, { toss: 60 })]
  }),
  'begin.shaken': () => ({
    p: program([b('begin.shaken', { time: 0.4 }), log('shaken')]),
    inputs: [at(0.2, { shake: 1.5 })]
  }),
  'begin.jolt': () => ({
    p: program([b('begin.jolt', { amount: 2.2 }), log('jolt')]),
    inputs: [at(0.5, { toss: 40 })]
  }),
  'begin.when': () => ({
    p: program([b('begin.when', { condition: b('sense.nose') }), log('bump'), s(0.3)], start(s(0.05), log('running'))),
    inputs: [
      at(0.1, { nose: true }),
      at(0.2, { nose: false }),
      at(0.3, { nose: true }),
      at(0.6, { nose: false }),
      at(0.7, { nose: true })
    ]
  }),
  'begin.every': () => ({
    p: program(
      [b('begin.every', { time: 0.25, unit: 's' }), log('quarter'), s(0.1)],
      [b('begin.every', { time: 70, unit: 'ms' }), log('seventy'), s(0.09)],
      start(b('repeat.times', { count: 40 }, { do: [s(13, 'ms')] }))
    )
  }),
  'begin.message': () => ({
    p: program(
      [b('begin.message', { name: 'ring' }), log('ring'), s(0.2)],
      start(
        b('message.send', { name: 'ring' }),
        log('sent'),
        s(0.1),
        b('message.send', { name: 'ring' }),
        s(0.3),
        b('message.send', { name: 'ring' })
      )
    )
  }),
  // ---- wait, choose, repeat ----
  'wait.limit': () => ({
    p: program(
      start(
        b('wait.limit', { condition: b('sense.nose'), time: 0.5 }),
        log(b('sense.timer')),
        b('wait.limit', { condition: b('sense.nose'), time: 0.0123 }),
        log(b('sense.timer')),
        b('wait.limit', { condition: b('sense.nose'), time: 5 }),
        log(b('sense.timer'))
      )
    ),
    inputs: [at(0.2, { nose: true }), at(0.3, { nose: false }), at(1, { nose: true })]
  }),
  'wait.touch': () => ({
    p: program(start(b('wait.touch'), log('nose'), b('wait.touch', { what: 'right edge' }), log('edge'))),
    inputs: [at(0.2, { nose: true }), at(0.5, { edge: 'right', touched: true })]
  }),
  'choose.table': () => ({
    p: program(
      start(
        b(
          'repeat.count',
          { variable: 'v1', from: 0, to: 3 },
          {
            do: [
              {
                ...b('choose.table', {
                  q1: cmp(variable('v1'), '<', 2),
                  q2: cmp(variable('v1'), '>', 0),
                  cannot: 'nn'
                }),
                bodies: { yy: [log('both')], yn: [log('first')], ny: [log('second')], nn: [] }
              }
            ]
          }
        )
      )
    )
  }),
  'choose.match': () => ({
    p: program(
      start(
        b(
          'repeat.each',
          { variable: 'v1', list: b('list.new', { i1: 1, i2: 'x', i3: 7 }) },
          {
            do: [
              b(
                'choose.match',
                { value: variable('v1'), c1: 1, c2: 'x' },
                { do1: [log('one')], do2: [log('ex')], otherwise: [log('other')] }
              )
            ]
          }
        )
      )
    )
  }),
  'repeat.while': () => ({
    p: program(
      start(
        b(
          'repeat.while',
          { condition: cmp(variable('v1'), '<', 3) },
          { do: [b('var.change', { variable: 'v1' }), log(variable('v1'))] }
        ),
        b('repeat.while', { condition: cmp(1, '>', 2), look: 'after' }, { do: [log('once')] }),
        b(
          'repeat.while',
          { condition: b('calc.not', { a: cmp(variable('v1'), '>', 4) }) },
          { do: [b('var.change', { variable: 'v1' })] }
        ),
        log(variable('v1'))
      )
    )
  }),
  'repeat.for': () => ({
    p: program(
      start(
        b('repeat.for', { time: 0.1 }, { do: [s(0.03), log(b('sense.timer'))] }),
        b('repeat.for', { time: 0 }, { do: [log('never')] })
      )
    )
  }),
  'repeat.count': () => ({
    p: program(
      start(
        b('repeat.count', { variable: 'v1', from: 1, to: 3 }, { do: [log(variable('v1'))] }),
        b('repeat.count', { variable: 'v2', from: 1, to: 0, step: -0.25 }, { do: [log(variable('v2'))] }),
        b('repeat.count', { variable: 'v1', from: 5, to: 1 }, { do: [log('never')] }),
        log(variable('v1'))
      ),
      start(s(0.001), log('meanwhile'))
    )
  }),
  'repeat.each': () => ({
    p: program(
      start(
        ...[3, 1, 4].map((n) => b('list.add', { list: 'l1', value: n })),
        b(
          'repeat.each',
          { variable: 'v1', list: list('l1') },
          {
            do: [
              log(variable('v1')),
              b('choose.if', { if1: cmp(variable('v1'), '=', 1) }, { then1: [b('list.add', { list: 'l1', value: 9 })] })
            ]
          }
        )
      )
    )
  }),
  'repeat.leave': () => ({
    p: program(
      start(
        b(
          'repeat.ever',
          {},
          {
            do: [
              b('var.change', { variable: 'v1' }),
              b('repeat.times', { count: 5 }, { do: [log('inner'), b('repeat.leave')] }),
              b('choose.if', { if1: cmp(variable('v1'), '=', 3) }, { then1: [b('repeat.leave')] }),
              log(variable('v1'))
            ]
          }
        ),
        log('never'),
        log('left')
      ),
      start(s(0.002), log('other'))
    )
  }),
  'repeat.next': () => {
    const skips = (kind: string, slots: Step['slots']) =>
      b(kind, slots, {
        do: [
          b('var.change', { variable: 'v1' }),
          b(
            'choose.if',
            { if1: cmp(b('calc.rest', { a: variable('v1'), b: 2 }), '=', 0) },
            { then1: [b('repeat.next')] }
          ),
          log(variable('v1'))
        ]
      });
    return {
      p: program(
        start(
          skips('repeat.times', { count: 4 }),
          skips('repeat.until', { condition: cmp(variable('v1'), '≥', 8), look: 'after' }),
          skips('repeat.while', { condition: cmp(variable('v1'), '<', 12), look: 'after' }),
          log('end')
        ),
        start(s(0.001), log('other'))
      )
    };
  },
  // ---- reuse ----
  'routine.input': () => ({
    p: routine(
      program(
        start(
          b('routine.do', { routine: 'r1', 'in:a0': sum(1, '+', 1), 'in:a1': cmp(1, '<', 2) }),
          b('routine.do', { routine: 'r1', 'in:a0': 5, 'in:a1': cmp(2, '<', 1) })
        )
      ),
      'Turn by!',
      ['number', 'condition'],
      [
        log(given(0)),
        log(given(1)),
        b(
          'choose.if',
          { if1: cmp(given(0), '<', 4) },
          { then1: [b('routine.do', { routine: 'r1', 'in:a0': sum(given(0), '+', 1), 'in:a1': cmp(1, '<', 2) })] }
        ),
        log(given(0))
      ]
    )
  }),
  'routine.give': () => ({
    p: routine(
      program(
        start(
          b('routine.do', { routine: 'r1', 'in:a0': 3 }),
          log('after'),
          b('repeat.times', {}, { do: [b('routine.give', { value: 1 })] }),
          log('never')
        )
      ),
      'early',
      ['number'],
      [b('repeat.ever', {}, { do: [log(given(0)), b('routine.give', { value: given(0) })] })]
    )
  }),
  'routine.value': () => {
    // the factorial by recursion, waits inside, and conditions that ask routines
    const call = (x: Step['slots'][string]) => b('routine.value', { routine: 'r1', 'in:a0': x });
    return {
      p: routine(
        program(
          start(
            log(call(5)),
            log(sum(call(3), '+', call(2))),
            b(
              'repeat.until',
              { condition: cmp(call(variable('v1')), '>', 5) },
              { do: [b('var.change', { variable: 'v1' })] }
            ),
            b(
              'choose.if',
              {
                if1: b('calc.logic', {
                  a: cmp(call(2), '=', 2),
                  word: 'and',
                  b: b('calc.not', { a: cmp(call(1), '=', 2) })
                })
              },
              { then1: [log('yes')] }
            ),
            b('wait.until', { condition: cmp(call(1), '=', 1) }),
            b('wait.limit', { condition: cmp(call(1), '=', 2), time: 0.1 }),
            log(b('sense.timer'))
          ),
          start(b('repeat.times', { count: 5 }, { do: [s(0.01), log('other')] }))
        ),
        'factorial',
        ['number'],
        [
          b('choose.if', { if1: cmp(given(0), '≤', 1) }, { then1: [b('routine.give', { value: 1 })] }),
          s(0.002),
          b('routine.give', { value: sum(given(0), '×', call(sum(given(0), '−', 1))) })
        ]
      )
    };
  },
  'message.send': () => ({
    p: program(
      [b('begin.message', { name: 'here "now"' }), log(b('sense.message'))],
      start(b('message.send', { name: 'here "now"', whom: 'my stacks and devices nearby' }), s(0.1))
    )
  }),
  // ---- move ----
  'drive.facing': () => ({
    p: program(
      start(
        b('drive.facing', { amount: 20, heading: 0 }),
        b('drive.facing', { amount: 25, heading: 30, ending: 'coast' }),
        s(0.5),
        log(b('sense.heading'))
      )
    )
  }),
  'turn.gyro': () => ({
    p: program(
      start(
        b('turn.gyro', { side: 'right', angle: 90 }),
        log(b('sense.heading')),
        b('turn.gyro', { side: 'left', angle: 200, ending: 'coast' })
      )
    )
  }),
  'turn.face': () => ({
    p: program(
      start(
        b('turn.face', { heading: 120 }),
        log(b('sense.heading')),
        b('turn.face', { heading: 350 }),
        log(b('sense.heading')),
        b('turn.face', { heading: 350 })
      )
    )
  }),
  'curve.angle': () => ({
    p: program(
      start(
        b('curve.angle', { radius: 20, angle: 60 }),
        b('curve.angle', { side: 'right', radius: 5, angle: 45, ending: 'coast' }),
        log(b('sense.heading'))
      )
    )
  }),
  'slide.measure': () => ({
    kit: 'on rollers',
    p: program(
      start(
        b('slide.measure', { direction: 90, amount: 12 }),
        b('slide.measure', { direction: sum(200, '+', 15), amount: 0.5, unit: 'wheel turns', ending: 'coast' }),
        s(0.4),
        b('slide.measure', { direction: -40, amount: 0.7, unit: 's', power: 130 }),
        b('drive.measure', { amount: 8 }),
        b('turn.angle', { angle: 70 }),
        log(b('sense.heading'))
      )
    )
  }),
  'slide.run': () => ({
    kit: 'on rollers',
    p: program(
      start(
        b('slide.run', { heading: 40, power: 50 }),
        s(0.6),
        b('slide.run', { heading: sum(100, '+', 30) }),
        s(0.5),
        b('wheels.stop', { ending: 'brake' }),
        s(0.4),
        b('slide.run', { heading: 0, power: 20 }),
        s(0.3),
        b('motor.run', { motor: 'J1', power: 60 }),
        s(0.3),
        b('wheels.stop', { ending: 'coast' }),
        log(b('sense.speed'))
      )
    )
  }),
  'sense.rim': () => ({
    kit: 'on rollers',
    p: program(
      start(b('wait.until', { condition: b('sense.rim') }), log('touched'), s(0.3), log(b('sense.rim'))),
      start(b('wait.touch', { what: 'rim' }), log('waited')),
      [b('begin.touch', { what: 'rim', event: 'is touched' }), log('begins')],
      [b('begin.touch', { what: 'rim', event: 'is free' }), log('free')]
    ),
    inputs: [at(0.2, { rim: 75, touched: true }), at(0.4, { rim: 75, touched: false })]
  }),
  'sense.rimplace': () => ({
    kit: 'on rollers',
    p: program(start(log(b('sense.rimplace')), s(0.3), log(b('sense.rimplace')), s(0.3), log(b('sense.rimplace')))),
    inputs: [
      at(0.2, { rim: 75.5, touched: true }),
      at(0.4, { rim: 75.5, touched: false }),
      at(0.5, { rim: 359, touched: true })
    ]
  }),
  'motor.side': () => ({
    p: program(
      start(
        b('motor.side'),
        b('motor.run', { motor: 'J1' }),
        s(0.3),
        log(b('sense.motor')),
        b('motor.side', { side: 'normal' }),
        b('motor.run', { motor: 'J1' }),
        s(0.3),
        b('motor.stop')
      )
    )
  }),
  'motor.keeps': () => ({
    p: program(
      start(
        b('motor.keeps'),
        b('motor.run', { motor: 'J1', power: 40 }),
        s(0.6),
        log(b('sense.motor', { what: 'speed' })),
        b('motor.keeps', { what: 'power' }),
        b('motor.run', { motor: 'J1', power: 40 }),
        s(0.4),
        b('motor.stop')
      )
    )
  }),
  'servo.share': () => ({
    p: program(start(b('servo.share', { share: 75 }), s(0.3), b('servo.share', { servo: 'J5', share: 130 })))
  }),
  'servo.slow': () => ({
    p: program(start(b('servo.slow', { angle: 150, time: 0.4 }), log('there'), b('servo.slow', { angle: 20, time: 0 })))
  }),
  'servo.spin': () => ({ p: program(start(b('servo.spin'), log('not reached'))) }),
  // ---- sound ----
  'sound.start': () => ({
    p: program(start(b('sound.start', { pitch: 440 }), s(0.2), b('sound.start', { pitch: 10 })))
  }),
  'sound.silence': () => ({ p: program(start(b('sound.start'), s(0.1), b('sound.silence'))) }),
  'sound.play': () => ({
    p: program(
      start(
        b('sound.tempo', { beats: 240 }),
        b('sound.play', { notes: 'A4 - C#5*2 Bb3/2' }),
        log('after'),
        b('sound.play', { notes: 'A4 H9' })
      ),
      start(s(0.3), log('meanwhile'))
    )
  }),
  'sound.tempo': () => ({
    p: program(start(b('sound.tempo', { beats: 120 }), b('sound.play', { notes: 'E4' }), log(b('sense.timer'))))
  }),
  'sound.volume': () => ({ p: program(start(b('sound.volume', { percent: 120 }))) }),
  'sound.say': () => ({ p: program(start(b('sound.say'), b('sound.say', { words: sum(1, '+', 2) }))) }),
  // ---- light up ----
  'lamp.level': () => ({ p: program(start(b('lamp.level'), b('lamp.level', { lamp: 'right', level: 0 }))) }),
  'pixel.level': () => ({
    p: program(
      start(
        b('pixel.level'),
        b('pixel.level', { x: 6, y: 4, level: 94.9 }),
        b('pixel.level', { x: 0, y: 0, level: 300 })
      )
    )
  }),
  'pixel.colour': () => ({
    kit: 'with a colour screen',
    p: program(
      start(
        b('pixel.colour'),
        b('pixel.colour', { x: 11, y: sum(5, '+', 6), colour: 'blue' }),
        b('pixel.set', { x: 11, y: 11, to: 'flip' }),
        b('pixel.colour', { x: 12, y: 0, colour: 'red' })
      )
    )
  }),
  'picture.over': () => ({
    p: program(
      start(
        b('picture.show', { picture: b('picture.over') }),
        b('picture.show', { picture: b('picture.over', { top: variable('v1') }) })
      )
    )
  }),
  'picture.at': () => ({
    p: program(
      start(b('picture.at'), s(0.1), b('picture.at', { picture: b('picture.value'), x: -3, y: sum(1, '+', 1) }))
    )
  }),
  'display.write': () => ({
    p: program(
      start(
        b('display.write', { what: 42 }),
        s(0.1),
        b('display.write', { what: 'Ä!', how: 'passing' }),
        log(b('sense.timer')),
        b('display.write', { what: 7 })
      ),
      start(b('display.write', { what: 'ok', how: 'passing' }), log('second'))
    )
  }),
  // ---- remember ----
  'list.new': () => logged(b('list.new'), b('list.new', { i1: 'a', i2: 2.5, i3: b('list.new') })),
  'list.value': () => ({
    p: program(
      start(
        b('list.add', { list: 'l1', value: 'moss' }),
        log(list('l1')),
        b('var.set', { variable: 'v1', value: list('l1') }),
        b('list.add', { list: 'l1', value: 2 }),
        log(variable('v1')),
        log(cmp(variable('v1'), '=', list('l1')))
      )
    )
  }),
  'list.add': () => ({
    p: program(
      start(
        b('list.add', { list: 'l1', value: 1 }),
        b('list.add', { list: 'l1', value: b('picture.value') }),
        log(list('l1'))
      )
    )
  }),
  'list.insert': () => ({
    p: program(
      start(
        ...[1, 2, 3].map((n) => b('list.insert', { list: 'l1', place: 0, value: n })),
        b('list.insert', { list: 'l1', place: 3, value: 'end' }),
        log(list('l1')),
        b('list.insert', { list: 'l1', place: 9 })
      )
    )
  }),
  'list.replace': () => ({
    p: program(
      start(
        b('list.add', { list: 'l1', value: 1 }),
        b('list.replace', { list: 'l1', place: 0, value: 'new' }),
        log(list('l1')),
        b('list.replace', { list: 'l1', place: 1 })
      )
    )
  }),
  'list.take': () => ({
    p: program(
      start(
        ...[1, 2, 3].map((n) => b('list.add', { list: 'l1', value: n })),
        b('list.take', { list: 'l1', place: 1 }),
        log(list('l1')),
        b('list.take', { list: 'l1', place: -1 })
      )
    )
  }),
  'list.at': () =>
    logged(b('list.at', { place: 2, list: b('list.new') }), b('list.at', { place: 3, list: b('list.new') })),
  'list.count': () =>
    logged(
      b('list.count', { list: list('l1') }),
      b('list.count', { list: b('list.new') }),
      b('list.count', { list: variable('v1') })
    ),
  'list.has': () =>
    logged(
      b('list.has', { value: 4, list: b('list.new') }),
      b('list.has', { value: '4', list: b('list.new') }),
      b('list.has', { value: 5, list: b('list.new') })
    ),
  'list.where': () =>
    logged(b('list.where', { value: 4, list: b('list.new') }), b('list.where', { value: 9, list: b('list.new') })),
  'log.plot': () => ({
    p: program(start(b('log.plot', { value: sum(1, '÷', 3), name: 'third' }), b('log.plot', { value: 'x' })))
  }),
  'log.mark': () => ({ p: program(start(b('log.mark'), s(0.1), b('log.mark', { words: 3 }))) }),
  // ---- work out ----
  'calc.rest': () =>
    logged(
      ...[
        [7, 3],
        [-7, 3],
        [7, -3],
        [-7, -3],
        [7.5, 2],
        [6, 3],
        [1, 0]
      ].map(([x, y]) => b('calc.rest', { a: x, b: y }))
    ),
  'calc.power': () =>
    logged(
      ...[
        [2, 10],
        [2, -1],
        [2.5, 2],
        [0, 0],
        [-2, 3],
        [9, 0.5],
        [-9, 0.5]
      ].map(([x, y]) => b('calc.power', { a: x, b: y }))
    ),
  'calc.negative': () =>
    logged(
      b('calc.negative'),
      b('calc.negative', { a: -2.5 }),
      b('calc.negative', { a: 0 }),
      b('calc.negative', { a: b('calc.negative') })
    ),
  'calc.between': () => logged(...[0, 1, 5, 10, 11].map((value) => b('calc.between', { value }))),
  'calc.any': () => ({ p: program(start(b('repeat.times', { count: 8 }, { do: [log(b('calc.any'))] }))) }),
  'calc.coin': () => ({ p: program(start(b('repeat.times', { count: 12 }, { do: [log(b('calc.coin'))] }))) }),
  'calc.function': () => ({
    p: program(
      start(
        ...['round', 'floor', 'ceiling', 'absolute'].flatMap((fn) =>
          [2.5, 3.5, -2.5, -0.4, 7].map((x) => log(b('calc.function', { fn, x })))
        ),
        ...['square root', 'sine', 'cosine', 'tangent', 'arc tangent'].flatMap((fn) =>
          [0, 30, 45.5, 360].map((x) => log(b('calc.function', { fn, x })))
        ),
        ...['arc sine', 'arc cosine'].flatMap((fn) => [-1, 0.5, 1].map((x) => log(b('calc.function', { fn, x })))),
        log(b('calc.function', { fn: 'square root', x: -1 }))
      )
    )
  }),
  'calc.direction': () =>
    logged(
      ...[
        [1, 1],
        [0, -1],
        [-3, 4],
        [0, 0]
      ].map(([y, x]) => b('calc.direction', { x, y }))
    ),
  'calc.pick': () => logged(b('calc.pick'), b('calc.pick', { which: 'larger', a: 2, b: 2.5 })),
  'calc.keep': () => logged(...[-5, 50, 130].map((value) => b('calc.keep', { value }))),
  'calc.map': () =>
    logged(...[-100, 0, 50, 130].map((value) => b('calc.map', { value })), b('calc.map', { a: 1, b: 1 })),
  'calc.pi': () => logged(b('calc.pi'), sum(b('calc.pi'), '×', 6.8)),
  'text.join': () =>
    logged(
      b('text.join'),
      b('text.join', { a: 'Zähler ', b: 0.5 }),
      b('text.join', { a: b('list.new'), b: cmp(1, '<', 2) })
    ),
  'text.length': () =>
    logged(b('text.length'), b('text.length', { text: 'Zähler 🌱' }), b('text.length', { text: 1234.5 })),
  'text.at': () => logged(b('text.at', { place: 1, text: 'Zähler' }), b('text.at', { place: 6, text: 'Zähler' })),
  'text.of': () =>
    logged(b('text.of'), b('text.join', { a: b('text.of', { value: 3 }), b: b('text.of', { value: 'x' }) })),
  'text.number': () =>
    logged(
      sum(b('text.number', { text: b('text.join', { a: 1, b: 2 }) }), '+', 1),
      b('text.number', { text: 3 }),
      b('text.number', { text: 'twelve' })
    ),
  // ---- sense ----
  'sense.key': () => ({
    p: program(start(log(b('sense.key')), s(0.2), log(b('sense.key')))),
    inputs: [at(0.1, { key: 'W', down: true })]
  }),
  'sense.stick': () => ({
    p: program(start(log(b('sense.stick')), s(0.2), log(b('sense.stick')))),
    inputs: [at(0.1, { stick: 'left, left-right', at: -40 })]
  }),
  'sense.edge': () => ({
    p: program(start(log(b('sense.edge')), s(0.2), log(b('sense.edge')))),
    inputs: [at(0.1, { edge: 'left', touched: true })]
  }),
  'sense.turned': () => drivenThenLogged('sense.turned'),
  'sense.rate': () => drivenThenLogged('sense.rate'),
  'sense.degrees': () => drivenThenLogged('sense.degrees', { wheel: 'right' }),
  'sense.wheelspeed': () => drivenThenLogged('sense.wheelspeed'),
  'sense.driven': () => drivenThenLogged('sense.driven'),
  'sense.speed': () => drivenThenLogged('sense.speed'),
  'sense.motor': () => ({
    p: program(
      start(
        b('motor.run', { motor: 'J2' }),
        s(0.5),
        ...['turns', 'degrees', 'speed'].map((what) => log(b('sense.motor', { motor: 'J2', what }))),
        b('motor.stop', { motor: 'J2' })
      )
    )
  }),
  'sense.acceleration': () => ({
    p: program(
      start(
        log(b('sense.acceleration', { axis: 'total' })),
        s(0.3),
        ...['x', 'y', 'z'].map((axis) => log(b('sense.acceleration', { axis })))
      )
    ),
    inputs: [at(0.05, { lean: { sideways: 30, forwards: -20 } })]
  }),
  'sense.lean': () => ({
    p: program(start(s(0.1), ...['sideways', 'forwards', 'turned'].map((way) => log(b('sense.lean', { way }))))),
    inputs: [at(0.05, { lean: { sideways: 30, forwards: -20, turned: 5 } })]
  }),
  'sense.zeroheading': () => ({
    p: program(
      start(
        b('turn.angle', { side: 'right', angle: 50 }),
        b('sense.zeroheading'),
        log(b('sense.turned')),
        b('turn.face', { heading: 350 }),
        log(b('sense.heading')),
        log(b('sense.turned'))
      )
    )
  }),
  'sense.zerowheels': () => ({
    p: program(
      start(
        b('drive.measure', { amount: 10 }),
        b('sense.zerowheels'),
        log(b('sense.turns')),
        b('drive.measure', { amount: 5 }),
        log(b('sense.driven')),
        log(b('sense.motor', { motor: 'J1' }))
      )
    )
  }),
  'sense.light': () => ({
    p: program(start(log(b('sense.light')), s(0.2), log(b('sense.light')))),
    inputs: [at(0.1, { around: { light: 12 } })]
  }),
  'sense.temperature': () => ({
    p: program(start(log(b('sense.temperature')), s(0.2), log(b('sense.temperature')))),
    inputs: [at(0.1, { around: { temperature: -2.5 } })]
  }),
  'sense.moisture': () => ({
    p: program(start(log(b('sense.moisture')), s(0.2), log(b('sense.moisture')))),
    inputs: [at(0.1, { around: { moisture: 80 } })]
  }),
  'sense.battery': () => ({ p: program(start(log(b('sense.battery')))) }),
  'sense.restart': () => ({ p: program(start(s(0.5), b('sense.restart'), s(0.1), log(b('sense.timer')))) }),
  'sense.message': () => ({
    p: program(
      start(
        log(b('sense.message')),
        b('message.send', { name: 'one' }),
        s(0.1),
        log(b('sense.message')),
        s(0.2),
        log(b('sense.message'))
      )
    ),
    inputs: [at(0.2, { message: 'from afar' })]
  })
};
