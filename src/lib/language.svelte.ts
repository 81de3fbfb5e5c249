/** The language that the person reads: kept in a cookie, so that the server's pages speak it too. */
import { browser } from '$app/environment';
import { ENGLISH, speakFrom, type Tongue } from '../../core/words.ts';
import { tongueOf, type MessageFile } from './messages.ts';

export const LANGUAGES = { en: 'English', de: 'Deutsch' } as const;
export type Code = keyof typeof LANGUAGES;
const FILES: Record<Exclude<Code, 'en'>, () => Promise<{ default: MessageFile }>> = {
  de: () => import('../../messages/de.json')
};
export const isCode = (code: string | undefined): code is Code => code !== undefined && code in LANGUAGES;

class Language {
  tongue = $state.raw<Tongue>(ENGLISH);
  get code(): Code {
    return this.tongue.code as Code;
  }
  /** Loads the language's messages and speaks it from then on; what is open stays open. */
  async choose(code: Code): Promise<void> {
    if (code === this.tongue.code) return;
    this.tongue = code === 'en' ? ENGLISH : tongueOf(code, (await FILES[code]()).default);
    document.documentElement.lang = code;
    document.cookie = `mossbell.language=${code}; path=/; max-age=31536000; samesite=lax`;
  }
}
export const language = new Language();
// on the server each request has its own: see hooks.server.ts
if (browser) speakFrom(() => language.tongue);
