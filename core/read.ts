/** Files of JSON that come from outside: what is wrong with one, where, and what to do. */
import { parseTree, printParseErrorCode, type ParseError } from 'jsonc-parser';
import type * as z from 'zod';
import { say } from './words.ts';
import { LARGEST_FILE } from './write.ts';

/** @param ending what files of this kind end in */
export function jsonOf(text: string, name: string, ending: string): { json: unknown } | { problem: string } {
  const other = otherThanText(text);
  if (other)
    return { problem: say('{name} is {other}. Choose a file that ends in {ending}.', { name, other, ending }) };
  if (text.length > LARGEST_FILE)
    return {
      problem: say('{name} is {round} MB long. A project is at most 8 MB. Is it another kind of file?', {
        name,
        round: Math.round(text.length / 1e6)
      })
    };
  let json: unknown;
  try {
    json = parsed(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    if (error instanceof TooDeep) return { problem: nestedTooDeep(name) };
    return {
      problem: say('{name} is not a file of Moss Bell: it is not JSON{where}. Choose a file that ends in {ending}.', {
        name,
        where: where(text),
        ending
      })
    };
  }
  return { json };
}
/** What is nested deeper than this is nobody's program: it is made to break what reads it. */
const DEEPEST = 600;
class TooDeep extends SyntaxError {}
export const nestedTooDeep = (name: string): string => say('{name} nests its blocks more than 200 deep.', { name });
/** A JSON text as a value; how deep it goes is looked at before it is read. @throws where it is no JSON, or too deep */
export function parsed(text: string): unknown {
  let depth = 0;
  let inText = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (inText) {
      if (code === 92) i++;
      else if (code === 34) inText = false;
    } else if (code === 34) inText = true;
    else if (code === 91 || code === 123) {
      if (++depth > DEEPEST) throw new TooDeep();
    } else if (code === 93 || code === 125) depth--;
  }
  return JSON.parse(text);
}
/** What a file is that holds no text, by the bytes that it begins with (their formats' own documents), read as text. */
function otherThanText(text: string): string | undefined {
  const head = text.slice(0, 1000);
  const begins = (...beginning: string[]): boolean => beginning.some((w) => head.startsWith(w));
  const film = head.slice(4, 8) === 'ftyp';
  if (begins('GIF8', '\uFFFDPNG', '\uFFFD\uFFFD\uFFFD') || head.slice(8, 12) === 'WEBP') return say('a picture');
  if (film && /^(heic|avif|mif1)/.test(head.slice(8))) return say('a picture');
  if (begins('%PDF')) return say('a document to print');
  if (begins('PK\u0003\u0004')) return say('an archive');
  if (film || begins('ID3', 'OggS', 'RIFF', '\u001aE\uFFFD\uFFFD')) return say('a sound or a film');
  // text has no such signs
  return [...head].some((c) => c < '\t' || c === '\uFFFD') ? say('no text, but something else') : undefined;
}
/** The first thing that is wrong, and at which place. */
export const whatIsWrong = (error: z.ZodError, name: string): string =>
  say('{name} cannot be opened: {issue} Nothing was changed.', { name, issue: issueOf(error) });
/** The same without the file that it is in. */
export function issueOf({ issues }: z.ZodError): string {
  const { path, message } = deepest(issues[0]);
  return say('at {place}, {issue}.', {
    place: place(path),
    issue: message.charAt(0).toLowerCase() + message.slice(1)
  });
}

/** Line, column and the word at which the text stops being JSON. */
function where(text: string): string {
  const errors: ParseError[] = [];
  parseTree(text.slice(0, 200_000), errors, { disallowComments: true });
  if (!errors.length) return '';
  const { offset, error } = errors[0];
  const before = text.slice(0, offset).split('\n');
  const word = text.slice(offset, offset + 12).split(/[\s,}\]]/)[0];
  const what = printParseErrorCode(error)
    .replace(/([A-Z])/g, ' $1')
    .trim()
    .toLowerCase();
  return say(' at line {n}, column {x}{x2} ({what})', {
    n: before.length,
    x: before[before.length - 1].length + 1,
    x2: word ? `, near "${word}"` : '',
    what
  });
}
const place = (path: readonly PropertyKey[]): string =>
  path.length ? path.map((p) => (typeof p === 'number' ? `[${p + 1}]` : `"${String(p)}"`)).join(' ') : 'the top';

type Issue = z.core.$ZodIssue;
/** Unions hide what went wrong inside them: the branch that got furthest tells. */
function deepest(issue: Issue, path: PropertyKey[] = []): { path: PropertyKey[]; message: string } {
  const here = [...path, ...issue.path];
  if (issue.code === 'invalid_union' && issue.errors.length) {
    const branches = issue.errors.filter((e) => e.length).map((e) => deepest(e[0], here));
    return branches.reduce((a, b) => (b.path.length > a.path.length ? b : a));
  }
  return { path: here, message: issue.message };
}
/** A value that nests further than any program does. */
export function tooDeep(value: unknown, depth = 0): boolean {
  if (typeof value !== 'object' || value === null) return false;
  if (depth > DEEPEST) return true;
  for (const key in value) if (tooDeep((value as Record<string, unknown>)[key], depth + 1)) return true;
  return false;
}
