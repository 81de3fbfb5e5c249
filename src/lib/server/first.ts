/** The words with which the first teacher is made from another computer: the terminal prints them, and nothing keeps them. */
import { timingSafeEqual } from 'node:crypto';
import { digestOf, drawWords, plainSecret } from './secrets.ts';

/** The same for the server that prints them and the pages that ask, which are built apart from it. */
const KEY = 'MOSSBELL_FIRST_WORDS';
export const firstWords = (): string => (process.env[KEY] ??= drawWords('en'));
export const areFirstWords = (typed: string): boolean =>
  timingSafeEqual(Buffer.from(digestOf(plainSecret(typed))), Buffer.from(digestOf(firstWords())));
/** Whether a request was made on this computer itself, and not handed on by another program for somebody elsewhere. */
export const isHere = (address: string, headers: Headers): boolean =>
  /^(::ffff:)?127\.|^::1$/.test(address) && !headers.has('x-forwarded-for') && !headers.has('forwarded');
