/** Names of every language: which are one, and in which order they stand. */
import { describe, expect, it } from 'vitest';
import { nickname } from './class.ts';
import { folded, freeName, sortKey } from './folded.ts';

describe('one name, however it is typed', () => {
  // full case folding: CaseFolding.txt of Unicode, rows of status C and F (from memory)
  it.each([
    ['Özlem', 'özlem'],
    ['Ümit', 'ÜMIT'],
    ['Émile', 'émile'],
    ['Łukasz', 'łUKASZ'],
    ['Æther', 'æther'],
    ['Weiß', 'WEISS'],
    ['Σίσυφος', 'ΣΊΣΥΦΟΣ'],
    ['Жанна', 'жАННА'],
    ['ﬁn', 'FIN'],
    ['Նարեկ', 'նարեկ'],
    ['𐐀shi', '𐐨shi']
  ])('%s and %s', (one, other) => expect(folded(one)).toBe(folded(other)));
  // practice of keyboards: a phone without these letters, or one that puts them in by itself
  it.each([
    ['İpek', 'ipek'],
    ['Ilgın', 'ılgın'],
    ['D’Arcy', "d'arcy"],
    ['Zoé', 'Zoe\u0301'],
    ['  Red   Newt ', 'red newt'],
    ['Red\u00a0Newt', 'red newt'],
    ['می\u200cنا', 'مینا']
  ])('%s and %s', (one, other) => expect(folded(one)).toBe(folded(other)));
  it.each([
    ['Weiß', 'Weiẞ'],
    ['ΟΔΥΣΣΕΥΣ', 'Οδυσσεύσ'.replace('ύ', 'υ')]
  ])('%s and %s: capitals that are seldom', (one, other) => expect(folded(one)).toBe(folded(other)));
  it.each([
    ['Zoe', 'Zoé'],
    ['Otto', 'Ötto'],
    ['Newt', 'Newt 2']
  ])('%s and %s are two', (one, other) => expect(folded(one)).not.toBe(folded(other)));
  const CASED = Array.from({ length: 0x1ffff }, (_, i) => (/^\p{Cased}$/u.test(String.fromCodePoint(i)) ? i : -1))
    .filter((i) => i >= 0)
    .map((i) => String.fromCodePoint(i));
  it('every letter that has a case, as the engine itself folds it (simple case folding of its Unicode library)', () => {
    expect(CASED.length).toBeGreaterThan(2500);
    const apart = CASED.flatMap((letter) =>
      [letter.toLowerCase(), letter.toUpperCase()]
        .filter((other) => [...other].length === 1 && new RegExp(`^${letter}$`, 'iu').test(other))
        .filter((other) => folded(other) !== folded(letter))
        .map((other) => `${letter} ${other}`)
    );
    expect(apart).toEqual([]);
  });
  it('what is stored does not change when it is folded again', () => {
    expect(CASED.filter((letter) => folded(folded(`a${letter}b`)) !== folded(`a${letter}b`))).toEqual([]);
  });
});
it('names are kept composed, with single spaces, and may have the signs of many scripts', () => {
  expect(nickname.parse('  Zoe\u0301   B ')).toBe('Zoé B');
  for (const name of ['Özlem', '小明', 'D’Arcy', 'می\u200cنا', 'ನೀಲಾ', 'Gal·la', 'Newt 2'])
    expect(nickname.safeParse(name).success).toBe(true);
  for (const name of ['=1+1', '<b>', 'a\u202eb', 'a\tb\n', '\u200dab', '', 'x'.repeat(25)])
    expect([name, nickname.safeParse(name).success]).toEqual([name, name === 'a\tb\n']);
});
it('they stand by their letters, not by their codes', () => {
  const names = ['Zoé', 'Özlem', 'otto', 'Émile', 'Łukasz', 'Anna'];
  expect(names.toSorted((a, b) => (sortKey(a) < sortKey(b) ? -1 : 1))).toEqual(
    ['Anna', 'Émile', 'otto', 'Özlem', 'Zoé', 'Łukasz'] // ł has no mark that could be taken off
  );
});
it('a name that is taken gets the first number that is free, and stays within its length', () => {
  const taken = new Set(['newt', 'newt 2', 'a'.repeat(24)].map(folded));
  expect(freeName('NEWT', taken, 24)).toBe('NEWT 3');
  expect(freeName('Wren', taken, 24)).toBe('Wren');
  expect(freeName('A'.repeat(24), taken, 24)).toBe(`${'A'.repeat(22)} 2`);
});
