import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { anyProgram } from '../../testing/random.ts';
import { printPython } from './print.ts';
import { syntaxProblem } from './syntax.ts';

describe('a text that cannot be read', () => {
  it.each([
    ['def main():\n    log("moss)\n', 1, 'A quote mark is open'],
    ['def main():\n    log(1\n\n\nrun(main)\n', 1, 'a ) is missing'],
    ['def main():\n    log(1))\n', 1, 'a ) too many'],
    ['def main()\n    log(1)\n', 0, 'A colon : is missing'],
    ['def main():\n    if x = 3:\n        log(1)\n', 1, 'write == with two signs'],
    ['def main():\n\tlog(1)\n', 1, 'with a tab'],
    ['def main():\n    log(1)\n      log(2)\n', 2, 'moved in further than the one before'],
    ['def main():\n    if x:\n        log(1)\n      log(2)\n', 3, 'under none of the lines above'],
    ['def main():\nlog(1)\n', 0, 'something must stand moved in'],
    ['def main():\n    while True:\n    log(1)\n', 1, 'something must stand moved in'],
    [' log(1)\n', 0, 'moved in further']
  ])('says where and why: %j', (text, line, why) => {
    const problem = syntaxProblem(text)!;
    expect(problem.line).toBe(line);
    expect(problem.message).toContain(why);
  });
  it.each([
    'def main():\n    log(larger(1,\n  2))\n    log(2)\n',
    'def main():\n    if x:  # why: not\n\n        # a note\n        log("a:")\n    log(2)\n',
    'text = """a\n   b:\n"""\nlog(text)\n',
    'x = 1 + \\\n    2\nlog(x)\n',
    'def main():\n  if x: log(1)\n  else: log(2)\n'
  ])('is not found where there is none: %j', (text) => {
    expect(syntaxProblem(text)).toBeUndefined();
  });
  it('is none that the printer prints', () => {
    fc.assert(
      fc.property(anyProgram, (p) => {
        expect(syntaxProblem(printPython(p, barrow).text)).toBeUndefined();
      }),
      { numRuns: 100 }
    );
  });
});
