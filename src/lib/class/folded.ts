/** How names are told apart, found and put in order: the same in the page, on the server and in the database. */
import { tongue } from '../../../core/words.ts';

/** What is not seen in a name: joiners, which some scripts write letters with. */
const UNSEEN = /[\u200c\u200d]/g;
/**
 * One form of a name in whatever capitals, composed or not, with whatever spaces and apostrophe: two names that have the
 * same are one. Small, capital, small again is full case folding (The Unicode Standard, 3.13: ß and SS, σ and ς are one);
 * beyond it ı, i and İ are one here, since a keyboard has one of them.
 */
export const folded = (name: string): string =>
  name
    .normalize('NFC')
    .replace(UNSEEN, '')
    .replaceAll('’', "'")
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase()
    .toUpperCase()
    .toLowerCase()
    .replaceAll('i\u0307', 'i')
    .replaceAll('ς', 'σ')
    .normalize('NFC');
/** By its letters without their marks, so that Özlem stands beside Otto where a database sorts by code. */
export const sortKey = (name: string): string =>
  folded(name)
    .normalize('NFD')
    .replace(/\p{M}+/gu, '');
/** What is kept of a name. */
export const named = (nickname: string): { nickname: string; folded: string } => ({
  nickname,
  folded: folded(nickname)
});
/** As a reader of the language at hand orders them; a number in them counts as one. */
export const inOrder = (a: string, b: string): number => a.localeCompare(b, tongue().code, { numeric: true });
/** A name that nobody has yet: itself, or with the first number that is free. @param taken folded ones */
export function freeName(name: string, taken: ReadonlySet<string>, most: number): string {
  let free = name;
  for (let n = 2; taken.has(folded(free)); n++)
    free = `${[...name]
      .slice(0, most - ` ${n}`.length)
      .join('')
      .trim()} ${n}`;
  return free;
}
