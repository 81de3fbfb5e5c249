/** The short articles of the handbook: Markdown files of ours, in the order of their numbers. */
import { marked } from 'marked';

const files = import.meta.glob('./articles/*.md', { query: '?raw', import: 'default', eager: true }) as Record<
  string,
  string
>;
export type Article = { slug: string; title: string; text: string };
export const articles: readonly Article[] = Object.keys(files)
  .sort()
  .map((path) => ({
    slug: /\d+-(.*)\.md$/.exec(path)![1],
    title: /^# (.*)$/m.exec(files[path])![1],
    text: files[path].replace(/^# .*\n/, '')
  }));
/** The words of an article as HTML; they are ours, so nothing in them needs to be cleaned. */
export const html = (article: Article): string => marked.parse(article.text, { async: false });
