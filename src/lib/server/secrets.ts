/** Words of cards, passphrases, codes and tokens: how they are drawn, and what is kept of them. */
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { ENGLISH_WORDS } from './cards/english.ts';
import { GERMAN_WORDS } from './cards/german.ts';
import { LETTERS } from './hands.ts';
import { heavy } from './pool.ts';

export const WORDS_ON_A_CARD = 3;
export const CARD_WORDS: Readonly<Record<string, readonly string[]>> = { en: ENGLISH_WORDS, de: GERMAN_WORDS };
const CODE_LONG = 5;

const one = <T>(list: readonly T[] | string): T | string => list[randomInt(list.length)];
/** Three words of 1,024: 30 bits, which is enough where each wrong try is counted (guard.ts), and nowhere else. */
export const drawWords = (language: string): string =>
  Array.from({ length: WORDS_ON_A_CARD }, () => one(CARD_WORDS[language] ?? ENGLISH_WORDS)).join(' ');
export const drawCode = (): string => Array.from({ length: CODE_LONG }, () => one(LETTERS)).join('');
export const drawId = (): string => randomBytes(9).toString('base64url');
export const drawToken = (): string => randomBytes(24).toString('base64url');
/** What is kept of a token: whoever reads the database cannot sign in with it. */
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** As it was meant, however it was typed: capitals, hyphens, umlauts, spaces. */
export const plainSecret = (typed: string): string =>
  typed
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll('ä', 'ae')
    .replaceAll('ö', 'oe')
    .replaceAll('ü', 'ue')
    .replaceAll('ß', 'ss')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
export const hashSecret = (typed: string): Promise<string> =>
  heavy('hashed', { secret: plainSecret(typed), salt: new Uint8Array(randomBytes(16)) });
/** @param asker the address that asks */
export const isSecret = (typed: string, hash: string, asker?: string): Promise<boolean> =>
  heavy('verified', { secret: plainSecret(typed) || ' ', hash }, asker);
