/** What programs work out: the interpreter against plain arithmetic, and the printed text against both. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import type { Slot, Step } from '../language/program.ts';
import { printPython } from '../language/python/print.ts';
import { show } from '../language/values.ts';
import { b, cmp, log, logs, program, run, start, sum, wait } from '../testing/build.ts';

type Tree = number | { sign: '+' | '−' | '×' | '÷'; a: Tree; c: Tree };
const tree: fc.Arbitrary<Tree> = fc.letrec<{ tree: Tree }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    fc.integer({ min: -20, max: 20 }).map((n) => n || 1),
    fc.record({
      sign: fc.constantFrom('+' as const, '−' as const, '×' as const, '÷' as const),
      a: tie('tree'),
      c: tie('tree')
    })
  )
})).tree;
const slot = (t: Tree): Slot => (typeof t === 'number' ? t : sum(slot(t.a), t.sign, slot(t.c)));
const plain = (t: Tree): number => {
  if (typeof t === 'number') return t;
  const [a, c] = [plain(t.a), plain(t.c)];
  return t.sign === '+' ? a + c : t.sign === '−' ? a - c : t.sign === '×' ? a * c : a / c;
};

describe('arithmetic', () => {
  it('is the arithmetic of IEEE doubles, and the text says the same thing', () => {
    fc.assert(
      fc.property(tree, (t) => {
        const expected = plain(t);
        fc.pre(Number.isFinite(expected) && Math.abs(expected) < 9e15 && !Number.isNaN(expected));
        const p = program(start(log(slot(t))));
        const trace = run(p, { limitS: 1 });
        fc.pre(!trace.events.some((e) => e.type === 'error'));
        expect(logs(trace)).toEqual([show(expected)]);
        // + - * / bind alike in Python and JavaScript: the printed expression is worked out as it stands
        const text = /log\((.*)\)/.exec(printPython(p, barrow).text)![1];
        expect(
          Object.is(Number(new Function(`return ${text}`)()), expected) ||
            Number(new Function(`return ${text}`)()) === expected
        ).toBe(true);
      }),
      { numRuns: 150 }
    );
  });
  it('counts yes as 1 and no as 0', () => {
    expect(
      logs(
        run([
          b('var.set', { variable: 'v1', value: cmp(1, '<', 2) }),
          log(sum(b('var.value', { variable: 'v1' }), '+', 1)),
          log(cmp(b('var.value', { variable: 'v1' }), '=', 1))
        ])
      )
    ).toEqual(['2', 'True']);
  });
});

describe('conditions', () => {
  const truth = (value: boolean): Step => cmp(1, value ? '=' : '≠', 1);
  it('follow the truth tables of and, or, not', () => {
    for (const x of [false, true])
      for (const y of [false, true]) {
        const lines = logs(
          run([
            log(b('calc.logic', { a: truth(x), word: 'and', b: truth(y) })),
            log(b('calc.logic', { a: truth(x), word: 'or', b: truth(y) })),
            log(b('calc.not', { a: truth(x) }))
          ])
        );
        expect(lines).toEqual([x && y, x || y, !x].map((v) => (v ? 'True' : 'False')));
      }
  });
  it('do not look at the second where the first decides', () => {
    const breaks = cmp(sum(1, '÷', 0), '=', 1);
    expect(
      logs(
        run([
          log(b('calc.logic', { a: truth(false), word: 'and', b: breaks })),
          log(b('calc.logic', { a: truth(true), word: 'or', b: breaks }))
        ])
      )
    ).toEqual(['False', 'True']);
    expect(run([log(b('calc.logic', { a: truth(true), word: 'and', b: breaks }))]).ended).toBe('error');
  });
  it('compare numbers as numbers and text as text, and unlike things are not equal', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (x, y) => {
          const said = logs(
            run(
              ['<', '≤', '=', '≥', '>', '≠'].map((sign) => log(cmp(x, sign, y))),
              { limitS: 0.1 }
            )
          );
          expect(said).toEqual([x < y, x <= y, x === y, x >= y, x > y, x !== y].map((v) => (v ? 'True' : 'False')));
        }
      ),
      { numRuns: 25 }
    );
    expect(
      logs(run([log(cmp('fern', '<', 'moss')), log(cmp('3 pots', '=', 3)), log(cmp(b('picture.value'), '=', 'leaf'))]))
    ).toEqual(['True', 'False', 'False']);
  });
});

describe('decisions and loops', () => {
  it('take the first branch that is true, and no other', () => {
    for (const n of [1, 2, 3, 4]) {
      const step = b(
        'choose.if',
        { if1: cmp(n, '<', 2), if2: cmp(n, '<', 3), if3: cmp(n, '<', 4) },
        { then1: [log('one')], then2: [log('two')], then3: [log('three')], otherwise: [log('many')] }
      );
      expect(logs(run([step]))).toEqual([['one', 'two', 'three', 'many'][n - 1]]);
    }
    expect(logs(run([b('choose.if', { if1: cmp(1, '>', 2) }, { then1: [log('no')] }), log('on')]))).toEqual(['on']);
  });
  it('repeat as often as asked, inside one another too', () => {
    fc.assert(
      fc.property(fc.integer({ min: -2, max: 6 }), fc.integer({ min: 0, max: 5 }), (outer, inner) => {
        const trace = run(
          [b('repeat.times', { count: outer }, { do: [b('repeat.times', { count: inner }, { do: [log('x')] })] })],
          { limitS: 2 }
        );
        expect(logs(trace)).toHaveLength(Math.max(0, outer) * inner);
      }),
      { numRuns: 15 }
    );
  });
  it('look before or after each turn', () => {
    const turns = (look: string, from: number): number => {
      const step = b(
        'repeat.until',
        { condition: cmp(b('var.value', { variable: 'v1' }), '≥', 3), look },
        { do: [b('var.change', { variable: 'v1' }), log('turn')] }
      );
      return logs(run([b('var.set', { variable: 'v1', value: from }), step])).length;
    };
    expect([turns('before', 0), turns('after', 0), turns('before', 5), turns('after', 5)]).toEqual([3, 3, 0, 1]);
  });
});

describe('variables', () => {
  it('are 0 before they are set, hold anything, and are shared by all stacks', () => {
    const v = (id: string): Step => b('var.value', { variable: id });
    expect(
      logs(
        run([
          log(v('v1')),
          b('var.set', { variable: 'v1', value: 'moss' }),
          log(v('v1')),
          b('var.set', { variable: 'v1', value: b('picture.value') }),
          log(v('v1'))
        ])
      )
    ).toEqual(['0', 'moss', 'picture']);
    const both = run(program(start(wait(0.1), log(v('v1'))), start(b('var.change', { variable: 'v1', amount: 7 }))));
    expect(logs(both)).toEqual(['7']);
    expect(both.variables).toEqual({ v1: 7, l1: [] });
  });
  it('refuse to add to what is no number', () => {
    const trace = run([b('var.set', { variable: 'v1', value: 'pots' }), b('var.change', { variable: 'v1' })]);
    expect(trace.events.find((e) => e.type === 'error')).toMatchObject({
      kind: 'not-a-number',
      message: 'A number belongs here. (here is a text)'
    });
  });
});
