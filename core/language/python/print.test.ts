import { describe, expect, it } from 'vitest';
import { barrow, changePart, movePart, resized } from '../../kit/kit.ts';
import { b, cmp, log, program, start, sum, wait } from '../../testing/build.ts';
import type { Program, Slot, Step } from '../program.ts';
import { printPython } from './print.ts';

const body = (p: Program): string[] =>
  printPython(p, barrow)
    .text.split('\n')
    .filter((l) => /^ {4}/.test(l))
    .map((l) => l.slice(4));
const lines = (...steps: Step[]): string[] => body(program(start(...steps)));
const value = (v: Slot): string => lines(log(v))[0].replace(/^log\((.*)\)$/, '$1');

describe('expressions', () => {
  it('have brackets where Python needs them, and nowhere else', () => {
    expect(value(sum(sum(1, '+', 2), '×', 3))).toBe('(1 + 2) * 3');
    expect(value(sum(1, '+', sum(2, '×', 3)))).toBe('1 + 2 * 3');
    expect(value(sum(1, '−', sum(2, '−', 3)))).toBe('1 - (2 - 3)');
    expect(value(sum(sum(1, '−', 2), '−', 3))).toBe('1 - 2 - 3');
    expect(value(sum(8, '÷', sum(4, '×', 2)))).toBe('8 / (4 * 2)');
    expect(value(sum(-1, '×', -2))).toBe('-1 * -2');
    expect(value(cmp(sum(1, '+', 1), '≤', b('sense.distance')))).toBe('1 + 1 <= distance.cm()');
    expect(value(cmp(cmp(1, '<', 2), '=', cmp(3, '<', 4)))).toBe('(1 < 2) == (3 < 4)');
    const [x, y] = [cmp(1, '<', 2), cmp(3, '>', 4)];
    expect(value(b('calc.not', { a: b('calc.logic', { a: x, word: 'or', b: y }) }))).toBe('not (1 < 2 or 3 > 4)');
    expect(
      value(
        b('calc.logic', { a: b('calc.logic', { a: x, word: 'or', b: y }), word: 'and', b: b('calc.not', { a: y }) })
      )
    ).toBe('(1 < 2 or 3 > 4) and (not 3 > 4)');
  });
  it('keep text and numbers apart, and quote what is quoted', () => {
    expect(value('12')).toBe('"12"');
    expect(value('twelve')).toBe('"twelve"');
    expect(value('say "moss" \\ bell')).toBe('"say \\"moss\\" \\\\ bell"');
    expect(value('')).toBe('""');
  });
  it('go through whole() where a count is worked out', () => {
    expect(lines(b('repeat.times', { count: 4 }, { do: [] }))).toEqual(['for _ in range(4):', '    pass']);
    expect(lines(b('repeat.times', { count: sum(2, '+', 2) }, { do: [] }))[0]).toBe('for _ in range(whole(2 + 2)):');
    expect(lines(b('pixel.set', { x: sum(1, '+', 1), y: 2 }))[0]).toBe('display.pixel(whole(1 + 1), 2, "on")');
  });
  it('are False for an empty condition', () => {
    expect(lines(b('wait.until'))).toEqual(['wait_until(lambda: False)']);
  });
});

describe('loops and decisions', () => {
  it('print before and after each turn in texts of their own', () => {
    const condition = b('sense.nose');
    expect(lines(b('repeat.until', { condition, look: 'before' }, { do: [log(1)] }))).toEqual([
      'while not (nose.touched()):',
      '    log(1)'
    ]);
    expect(lines(b('repeat.until', { condition, look: 'after' }, { do: [log(1)] }))).toEqual([
      'while True:',
      '    log(1)',
      '    if until(nose.touched()):',
      '        break'
    ]);
    expect(lines(b('repeat.ever', {}, { do: [] }))).toEqual(['while True:', '    pass']);
  });
  it('print every branch of an if', () => {
    const step = b(
      'choose.if',
      { if1: b('sense.ahead'), if2: b('sense.over') },
      { then1: [log(1)], then2: [], otherwise: [log(3)] }
    );
    expect(lines(step)).toEqual([
      'if distance.sees():',
      '    log(1)',
      'elif left_line.over("dark"):',
      '    pass',
      'else:',
      '    log(3)'
    ]);
  });
});

describe('several tasks', () => {
  it('are printed with async and await, and each loop gives way', () => {
    const { text } = printPython(
      program(start(b('repeat.ever', {}, { do: [wait(1)] })), start(log('two')), [
        b('begin.button', { button: 'Bar', event: 'held' }),
        b('sound.beep')
      ]),
      barrow
    );
    expect(text).toContain('async def main():\n    while True:\n        await wait(1)\n        await turn\n');
    expect(text).toContain('async def main_2():\n    log("two")\n');
    expect(text).toContain('async def on_bar_held():\n    await beep()\n');
    expect(text).toContain('\n\nrun(main, main_2, when(bar.held, on_bar_held))\n');
  });
  it('get names of their own when two start alike', () => {
    const press = () => [b('begin.button'), log('x')];
    expect(printPython(program(press(), press()), barrow).text).toContain(
      'run(when(dot.pressed, on_dot_pressed), when(dot.pressed, on_dot_pressed_2))'
    );
  });
});

describe('what stands at the top', () => {
  it('is what the program uses, with the names and sockets of the kit sheet', () => {
    const p = program(
      start(b('servo.angle', { servo: 'J6' }), b('motor.run', { motor: 'J1' }), b('lamp.set', { lamp: 'right' }))
    );
    const kit = changePart(movePart(barrow, 'J4', 'J6'), 'J6', { name: 'Big hammer' });
    const top = printPython(p, kit).text.split('\n').slice(2, 5);
    expect(top).toEqual(['big_hammer = Servo("J6")', 'left_wheel_motor = Motor("J1")', 'right_lamp = Lamp("right")']);
    expect(printPython({ ...program(start()), variables: [] }, barrow).text).toBe(
      'from mossbell import *\n\n\ndef main():\n    pass\n\n\nrun(main)\n'
    );
  });
  it('tells two wheels apart once they are measured', () => {
    const kit = resized(barrow, { right: 67.6 });
    expect(printPython(program(start(b('wheels.stop'))), kit).text).toContain('diameter_mm=(68, 67.6), track_mm=124)');
  });
  it('holds every variable with its own name, and functions say which of them they set', () => {
    const p = program(start(b('var.set', { variable: 'v1', value: 3 }), log(b('var.value', { variable: 'v2' }))));
    const { text } = printPython(p, barrow);
    expect(text).toContain('\ncount = 0\nlange = 0  # Länge\n');
    expect(text).toContain('def main():\n    global count\n    count = 3\n    log(lange)\n');
  });
});

describe('what does not run', () => {
  it('stands in comments: parked and loose stacks, switched-off blocks with all that they hold', () => {
    const p = program(
      start({ ...b('repeat.times', {}, { do: [log('inner')] }), off: true, note: 'later' }, log('on')),
      [log('loose')],
      start(log('parked'))
    );
    const parked = { ...p, stacks: p.stacks.map((s, i) => (i === 2 ? { ...s, parked: true } : s)) };
    expect(printPython(parked, barrow).text.split('\n').slice(7, -4)).toEqual([
      'def main():',
      '    # off: # later',
      '    # off: for _ in range(3):',
      '    # off:     log("inner")',
      '    log("on")',
      '',
      '',
      '# loose: log("loose")',
      '',
      '',
      '# parked: def main_2():',
      '# parked:     log("parked")',
      '# parked: run(main_2)'
    ]);
  });
});

describe('what grows', () => {
  it('is printed as a table, as cases, as inputs', () => {
    const table = {
      ...b('choose.table', { q1: b('sense.over'), q2: b('sense.over', { sensor: 'J9' }), cannot: 'nn' }),
      bodies: { yy: [log(1)], yn: [], ny: [log(3)], nn: [] }
    };
    expect(lines(table)).toEqual([
      'row = table(left_line.over("dark"), right_line.over("dark"))',
      'if row == (True, True):',
      '    log(1)',
      'elif row == (True, False):',
      '    pass',
      'elif row == (False, True):',
      '    log(3)',
      'elif row == (False, False):',
      '    cannot_happen()'
    ]);
    const match = b(
      'choose.match',
      { value: b('sense.timer'), c1: 1, c2: 'x' },
      { do1: [log(1)], do2: [], otherwise: [] }
    );
    expect(lines(match)).toEqual([
      'found = which(timer(), [1, "x"])',
      'if found == 0:',
      '    log(1)',
      'elif found == 1:',
      '    pass',
      'else:',
      '    pass'
    ]);
    const p: Program = {
      ...program(
        start(b('routine.do', { routine: 'r', 'in:a': 90 }), log(b('routine.value', { routine: 'r', 'in:a': 3 })))
      ),
      routines: [
        {
          id: 'r',
          name: 'turn by',
          x: 0,
          y: 0,
          inputs: [{ id: 'a', name: 'angle', type: 'number' }],
          steps: [b('routine.give', { value: b('routine.input', { input: 'a' }) })]
        }
      ]
    };
    const { text } = printPython(p, barrow);
    expect(text).toContain('    turn_by(90)\n    log(given(turn_by(3)))\n');
    expect(text).toContain('def turn_by(angle):\n    return angle\n');
  });
  it('goes on with the next turn as the end of the turn would', () => {
    const loop = (look: string) =>
      b(
        'repeat.until',
        { condition: b('sense.nose'), look },
        { do: [b('choose.if', {}, { then1: [b('repeat.next')] })] }
      );
    expect(body(program(start(loop('after')), start(log(1)))).slice(0, 9)).toEqual([
      'while True:',
      '    if False:',
      '        await turn',
      '        if until(nose.touched()):',
      '            break',
      '        continue',
      '    await turn',
      '    if until(nose.touched()):',
      '        break'
    ]);
    expect(lines(loop('before'))).toEqual(['while not (nose.touched()):', '    if False:', '        continue']);
  });
});
