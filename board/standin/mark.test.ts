import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../../core/kit/kit.ts';
import { printPython } from '../../core/language/python/print.ts';
import { randomProgram } from '../../core/testing/random.ts';
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
      '        a = _n(a + ( _n(1 * b)))',
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
    expect(mark('def main():\n    x = = 2\n')).toEqual({ line: 1, message: 'line 2 cannot be read as Python' });
  });
  it('marks just the lines that the printer calls steps, whatever the program', () => {
    fc.assert(
      fc.property(randomProgram, (p) => {
        const { text, steps } = printPython(p, barrow);
        const m = marked(text);
        const lines = new Set([...m.text.matchAll(/if _s\((\d+)\)/g)].map((x) => Number(x[1])));
        const inBodies = steps.flatMap((step, i) =>
          step && /^\s/.test(text.split('\n')[i]) && !/^\s*(pass|#|await turn)/.test(text.split('\n')[i]) ? [i] : []
        );
        expect([...lines].sort((a, b) => a - b)).toEqual(inBodies);
        // every line of the original is in the copy once, in order, and its own line is known
        expect(m.text.split('\n').length - 1).toBe(m.lines.length);
        expect([...new Set(m.lines)]).toEqual(text.split('\n').map((_, i) => i));
      }),
      { numRuns: 60 }
    );
  });
});
