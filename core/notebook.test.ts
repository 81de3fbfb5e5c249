import fc from 'fast-check';
import { expect, it } from 'vitest';
import { notebookLines, notebookText } from './notebook.ts';

it('lines of the notebook come back as they were written', () => {
  const line = fc.record({
    text: fc.stringMatching(/^[A-Za-zäöü ,.!?]{0,40}$/).map((s) => s.trim()),
    indent: fc.integer({ min: 0, max: 6 }),
    done: fc.boolean(),
    tie: fc.option(fc.constantFrom('b1', 's-x2', 'r_3'), { nil: undefined })
  });
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 6 }), (lines) => {
      const plain = lines.map(({ tie, ...l }) => (tie ? { ...l, tie } : l));
      expect(notebookLines(notebookText(plain))).toEqual(plain);
    })
  );
});
it('plain text from before is taken line by line', () => {
  expect(notebookLines('first it drives\n  then it rings')).toEqual([
    { text: 'first it drives', indent: 0, done: false },
    { text: 'then it rings', indent: 1, done: false }
  ]);
});
