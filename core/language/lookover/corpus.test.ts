import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { CORRECT, MISTAKEN } from '../../testing/corpus.ts';
import { fromText } from '../../testing/text.ts';
import { lookOver } from './lookover.ts';

describe('the look-over on programs as pupils write them', () => {
  it('has enough of them', () => {
    expect(Object.keys(CORRECT).length).toBeGreaterThanOrEqual(40);
    expect(Object.keys(MISTAKEN).length).toBeGreaterThanOrEqual(40);
  });
  for (const [name, text] of Object.entries(CORRECT))
    it(`says nothing of: ${name}`, () => {
      const remarks = lookOver({ program: fromText(text), kit: barrow });
      expect(remarks.filter((r) => r.severity !== 'consider').map((r) => `${r.rule}: ${r.says}`)).toEqual([]);
    });
  it('finds at least 36 of 40 planted mistakes, and by the rule that is meant for it', () => {
    const missed = Object.entries(MISTAKEN).filter(
      ([, [rule, text]]) => !lookOver({ program: fromText(text), kit: barrow }).some((r) => r.rule === rule)
    );
    expect(missed.map(([name, [rule]]) => `${name}: ${rule}`)).toEqual([]);
    expect(Object.keys(MISTAKEN).length - missed.length).toBeGreaterThanOrEqual(36);
  });
});
