/** Each request speaks its own language: that of its cookie. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { ENGLISH, speakFrom, type Tongue } from '../../../core/words.ts';
import de from '../../../messages/de.json';
import { tongueOf } from '../messages.ts';

const tongues: Record<string, Tongue> = { en: ENGLISH, de: tongueOf('de', de) };
const speaking = new AsyncLocalStorage<Tongue>();
speakFrom(() => speaking.getStore() ?? ENGLISH);

/** The language that a request asks for: its cookie, or else what the browser prefers. */
export function languageOf(cookie: string | undefined, accept: string | null): string {
  if (cookie && cookie in tongues) return cookie;
  const wishes = (accept ?? '').split(',').map((w) => w.trim().slice(0, 2).toLowerCase());
  return wishes.find((w) => w in tongues) ?? 'en';
}
export const speaks = <T>(code: string, act: () => T): T => speaking.run(tongues[code] ?? ENGLISH, act);
