/**
 * The words that a person reads. English stands in the code, as in gettext; a message file gives another language's for it
 * (ICU MessageFormat, by intl-messageformat). What travels or is kept (a trace, what a worker
 * tells) stays English and is retold where it is shown, so that no file and no trace depends on a language.
 */
import { IntlMessageFormat } from 'intl-messageformat';

/** English -> another language's. A key may end in " @" and a context: "left @turn.angle". */
export type Messages = Readonly<Record<string, string>>;
/** `told`: those among the messages by which a sentence that was made elsewhere is known again. */
export type Tongue = { code: string; messages: Messages; told: Messages };
export const ENGLISH: Tongue = { code: 'en', messages: {}, told: {} };

let source: () => Tongue = () => ENGLISH;
/** Tells where the language of the moment comes from: a page's choice, a request's, or English alone. */
export function speakFrom(of: () => Tongue): void {
  source = of;
}
export const tongue = (): Tongue => source();

/** How dates and the time of day are written: in English as in Britain. */
export const clockIn = (): string => (source().code === 'en' ? 'en-GB' : source().code);

/** Fixed words, as they stand in the message file; what has braces keeps them. */
export function word(english: string, context?: string): string {
  const { messages } = source();
  return (context && messages[`${english} @${context}`]) || messages[english] || english;
}
/** Words that are translated in this context alone, since elsewhere they may be a person's own. */
export const wordIn = (context: string, english: string): string =>
  source().messages[`${english} @${context}`] ?? english;

const PLACE = /\{(\w+)\}/g;
const GRAMMAR = /\{[^}]*,|'|<|#/;
const formats = new Map<string, IntlMessageFormat>();
/** A sentence with its values put in: {name} and plurals, in the order that the language wants. */
export function say(english: string, values?: Readonly<Record<string, string | number>>): string {
  if (!values) return word(english);
  const { code, messages } = source();
  const text = messages[english] ?? english;
  // names alone need no grammar: plurals and the like have a comma in their braces, and an apostrophe would quote
  if (!GRAMMAR.test(text)) return text.replace(PLACE, (_, name: string) => String(values[name] ?? ''));
  const key = `${code} ${text}`;
  let format = formats.get(key);
  if (!format) formats.set(key, (format = new IntlMessageFormat(text, code, undefined, { ignoreTag: true })));
  return String(format.format(values));
}
/** Marks words that are said later, by say() or word() of a variable. */
export const later = <const T extends string>(english: T): T => english;

type Template = { english: string; names: string[]; match: RegExp; weight: number };
let known: { messages: Messages; templates: Template[] } | undefined;
const SHORT = 4;
function templatesOf(messages: Messages): Template[] {
  if (known?.messages === messages) return known.templates;
  const templates = Object.keys(messages)
    .filter((k) => k.includes('{') && !k.includes(', plural,') && !k.includes(' @'))
    .map((english): Template => {
      const names = [...english.matchAll(PLACE)].map((m) => m[1]);
      const source = english
        .split(/\{\w+\}/)
        .map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
        .join('([^]*?)');
      return { english, names, match: new RegExp(`^${source}$`), weight: english.replace(PLACE, '').trim().length };
    })
    .sort((a, b) => b.weight - a.weight);
  known = { messages, templates };
  return templates;
}
/** An English sentence that was made elsewhere, in the language of the moment: its message is found by its words. */
export function retell(english: string, depth = 0): string {
  const { code, messages, told } = source();
  if (code === 'en' || !english) return english;
  if (messages[english] !== undefined) return messages[english];
  // a sentence with the values that led to it
  const [, sentence, values] = /^([^(]+) \((.+)\)$/.exec(english) ?? [];
  if (sentence && messages[sentence] !== undefined) return `${messages[sentence]} (${retell(values, depth + 1)})`;
  for (const t of templatesOf(told)) {
    // short words such as "and" tell something only where values are told
    if (depth === 0 && t.weight <= SHORT) continue;
    const found = t.match.exec(english);
    if (found)
      return say(
        t.english,
        Object.fromEntries(t.names.map((name, i) => [name, depth < 2 ? retell(found[i + 1], depth + 1) : found[i + 1]]))
      );
  }
  return english;
}
