/** The language that the person reads: kept in a cookie, so that the server's pages speak it too. */
import { browser } from '$app/environment';
import { ENGLISH, speakFrom, type Tongue } from '../../core/words.ts';
import { tongueOf, type MessageFile } from './messages.ts';

export const LANGUAGES = { en: 'English', de: 'Deutsch' } as const;
export type Code = keyof typeof LANGUAGES;
const FILES: Record<Exclude<Code, 'en'>, () => Promise<[{ default: MessageFile }, object]>> = {
  de: () => Promise.all([import('../../messages/de.json'), import('blockly/msg/de')])
};
export const isCode = (code: string | undefined): code is Code => code !== undefined && code in LANGUAGES;

class Language {
  tongue = $state.raw<Tongue>(ENGLISH);
  /** the words of the block library itself, in another language than English */
  library: Record<string, string> | undefined;
  get code(): Code {
    return this.tongue.code as Code;
  }
  /** Loads the language's messages and speaks it from then on; what is open stays open. */
  async choose(code: Code): Promise<void> {
    if (code === this.tongue.code) return;
    if (code === 'en') {
      this.library = undefined;
      this.tongue = ENGLISH;
    } else {
      const [words, library] = await FILES[code]();
      this.library = library as Record<string, string>;
      this.tongue = tongueOf(code, words.default);
    }
    document.documentElement.lang = code;
    document.cookie = `mossbell.language=${code}; path=/; max-age=31536000; samesite=lax`;
  }
}
export const language = new Language();
// on the server each request has its own: see hooks.server.ts
if (browser) speakFrom(() => language.tongue);
