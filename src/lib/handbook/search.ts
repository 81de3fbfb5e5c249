/** Finding pages of the handbook by words. */
import { catalogue } from '../../../core/language/catalogue.ts';
import { SECTIONS } from '../../../core/language/define.ts';
import { articles } from './articles.ts';
import { say, word } from '../../../core/words.ts';

export type Page = { href: string; title: string; line: string; group: string; words: string };
export const pages = (): Page[] => [
  ...articles().map((a) => ({
    href: `/handbook/${a.slug}`,
    title: a.title,
    line: '',
    group: say('Articles'),
    words: a.text
  })),
  ...[...catalogue.values()].map((d) => ({
    href: `/handbook/block/${d.kind}`,
    title: word(d.label[0]),
    line: word(d.label[1]),
    group: word(SECTIONS[d.section].title),
    words: `${word(d.words)} ${word(d.help)} ${word(d.mistake ?? '')}`
  }))
];
/** Pages that have all of the words, those with them in the title first. */
export function found(text: string): Page[] {
  const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.length) return pages();
  const at = (p: Page): number =>
    [p.title, `${p.title} ${p.line}`, `${p.title} ${p.line} ${p.group} ${p.words}`].findIndex((t) =>
      words.every((w) => t.toLowerCase().includes(w))
    );
  return pages()
    .map((page) => ({ page, at: at(page) }))
    .filter((p) => p.at >= 0)
    .sort((a, b) => a.at - b.at)
    .map((p) => p.page);
}
