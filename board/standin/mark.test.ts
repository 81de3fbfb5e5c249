import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../../core/kit/kit.ts';
import { printPython } from '../../core/language/python/print.ts';
import { b, log, program, start } from '../../core/testing/build.ts';
import { anyProgram } from '../../core/testing/random.ts';
import { mark, type Marked } from './mark.ts';

const marked = (text: string): Marked => {
  const m = mark(text);
  if ('message' in m) throw new Error(m.message);
  return m;
};

describe('the marked copy', () => {
  it('has a mark before every step and at the end of every turn, before the task gives way', () => {
    const text =
      'async def main():\n    global a\n    while True:\n        a += 1 * b\n        await turn\n        if until(a > 4):\n            break\n    for _ in range(2):\n        pass\n';
    expect(marked(text).text.trimEnd().split('\n')).toEqual([
      'async def main():',
      '    global a',
      '    _in()',
      '    if _s(2): _x()',
      '    while True:',
      '        if _s(3): _x()',
      '        a = _n(a + ( _n(1 * b))); _v("a", a)',
      '        if _t(): _x()',
      '        await turn',
      '        if until(a > 4):',
      '            break',
      '    if _s(7): _x()',
      '    for _ in range(2):',
      '        pass',
      '        if _t(): _x()',
      '    _out()'
    ]);
  });
  it('says which line cannot be read', () => {
    expect(mark('def main():\n    x = = 2\n')).toEqual({
      line: 1,
      message: 'line 2: This line cannot be read as Python.'
    });
  });
  it('takes bodies on the same line, and several statements on one', () => {
    const text =
      'def main():\n    if a < 1: log("a"); log("b")  # why\n    else: log("c")\n    while a: a = 0\n    wait(1); log(2)\n';
    const m = marked(text);
    expect(m.text.trimEnd().split('\n')).toEqual([
      'def main():',
      '    _in()',
      '    if _s(1): _x()',
      '    if a < 1:',
      '        if _s(1): _x()',
      '        log("a")',
      '        if _s(1): _x()',
      '        log("b")  # why',
      '    else:',
      '        if _s(2): _x()',
      '        log("c")',
      '    if _s(3): _x()',
      '    while a:',
      '        if _s(3): _x()',
      '        a = 0',
      '        if _t(): _x()',
      '    if _s(4): _x()',
      '    wait(1)',
      '    if _s(4): _x()',
      '    log(2)',
      '    _out()'
    ]);
    expect(m.lines.length).toBe(m.text.split('\n').length - 1);
    expect(m.functions.get('main')).toBe(0);
  });
  it('keeps every line of the original once, in order, and knows its own, whatever the program', () => {
    fc.assert(
      fc.property(anyProgram, (p) => {
        const { text } = printPython(p, barrow);
        const m = marked(text);
        expect(m.text.split('\n').length - 1).toBe(m.lines.length);
        expect([...new Set(m.lines)]).toEqual(text.split('\n').map((_, i) => i));
      }),
      { numRuns: 100 }
    );
  });
  it('marks no line that is not a step of its own: what a turn ends with, what a table or a match decided', () => {
    const p = program(
      start(
        b('choose.table', {}),
        b('choose.match', {}),
        b(
          'repeat.until',
          { condition: b('sense.nose'), look: 'after' },
          { do: [b('choose.if', {}, { then1: [b('repeat.next')] })] }
        )
      ),
      start(log('x'))
    );
    const { text } = printPython(p, barrow);
    const lines = text.split('\n');
    const stepped = [...marked(text).text.matchAll(/if _s\((\d+)\)/g)].map((x) => lines[Number(x[1])].trim());
    expect(stepped).toEqual([
      'row = table(False, False)',
      'found = which(1, [1])',
      'while True:',
      'if False:',
      'continue',
      'log("x")'
    ]);
  });
});
