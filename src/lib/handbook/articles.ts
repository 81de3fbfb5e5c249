/** The short articles of the handbook: Markdown files of ours, in the order of their numbers, a folder a translation. */
import { marked } from 'marked';
import { tongue } from '../../../core/words.ts';

const files = import.meta.glob('./articles/**/*.md', { query: '?raw', import: 'default', eager: true }) as Record<
  string,
  string
>;
export type Article = { slug: string; title: string; text: string };
/** All articles, in the language of the moment; in English where they are not translated. */
export const articles = (): Article[] =>
  Object.keys(files)
    .filter((path) => path.split('/').length === 3)
    .sort()
    .map((path) => {
      const file = files[path.replace('articles/', `articles/${tongue().code}/`)] ?? files[path];
      return {
        slug: /\d+-(.*)\.md$/.exec(path)![1],
        title: /^# (.*)$/m.exec(file)![1],
        text: file.replace(/^# .*\n/, '')
      };
    });
/** The words of an article as HTML; they are ours, so nothing in them needs to be cleaned. */
export const html = (article: Article): string => marked.parse(article.text, { async: false });
