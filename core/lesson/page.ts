/**
 * A lesson's text as a page: steps, and in each of them words and pieces. The text is Markdown (CommonMark, read by marked):
 * the heading of the first level is the lesson's name, each of the second level begins a step, and a fenced block whose first
 * word is a piece's is that piece. Other programs show the same text as Markdown.
 */
import crc32 from 'crc-32';
import { marked, type Token, type Tokens } from 'marked';
import { say } from '../words.ts';
import { isPiece, pieceDef, PIECES, PLAIN, type PieceKind } from './pieces.ts';

export type Answer = { text: string; right: boolean };
export type Piece = {
  kind: PieceKind;
  /** what it names: programs, or an errand */
  names: string[];
  /** its words, as Markdown; the answers are not among them */
  markdown: string;
  /** of a question: what can be chosen; none where it is written */
  answers: Answer[];
  /** by what its answer is remembered: another text is another question */
  key: string;
};
export type Part = { words: string } | Piece;
export type Step = { title: string; parts: Part[] };
/** What is wrong in the text: from 0, the place of its first sign, and a sentence. */
export type Problem = { from: number; to: number; says: string };
export type Page = {
  title: string;
  /** what stands before the first heading of the second level is a step without a title */
  steps: Step[];
  problems: Problem[];
};
/** What a text may name. */
export type Known = {
  programs: ReadonlySet<string>;
  errands: ReadonlySet<string>;
  /** whether a page of the handbook is there; all are where this is left out */
  page?: (path: string) => boolean;
};

const tokensOf = (text: string): Token[] => marked.lexer(text.replaceAll('\r\n', '\n'));
const plainOf = (tokens: readonly Token[] = []): string =>
  tokens.map((t) => ('tokens' in t && t.tokens ? plainOf(t.tokens) : 'text' in t ? String(t.text) : '')).join('');

function pieceOf({ lang = '', text, raw }: Tokens.Code): Piece {
  const [kind, ...names] = lang.split(/\s+/).filter(Boolean);
  const tokens: Tokens.Generic[] = kind === 'question' ? marked.lexer(text) : [];
  const list = tokens.find(({ type, items }) => type === 'list' && (items as Tokens.ListItem[]).some((i) => i.task)) as
    Tokens.List | undefined;
  return {
    kind: kind as PieceKind,
    names,
    markdown: (list ? text.replace(list.raw, '\n') : text).trim(),
    answers: list
      ? list.items.map((item) => ({ text: item.text.replace(/^\[[ x]\]\s*/i, '').trim(), right: !!item.checked }))
      : [],
    key: (crc32.str(raw) >>> 0).toString(16)
  };
}
function problemOf({ kind, names, markdown, answers }: Piece, known: Known): string | undefined {
  const { names: wants } = pieceDef(kind);
  const { least = 0, most = 0 } = wants ?? {};
  if (names.length < least || names.length > most)
    return least === most
      ? say('"{kind}" names {n, plural, one {# thing} other {# things}} after its word, and here {given}.', {
          kind,
          n: most,
          given: names.length
        })
      : say('"{kind}" names {least} to {most} things after its word, and here {given}.', {
          kind,
          least,
          most,
          given: names.length
        });
  for (const name of names) {
    if (wants?.of === 'program' && !known.programs.has(name))
      return say('The lesson has no program that is called "{name}". Put in a program, or mend the name.', {
        name
      });
    if (wants?.of === 'errand' && !known.errands.has(name))
      return say('There is no errand "{name}" on this computer. Open its file on the shelf, or mend the name.', {
        name
      });
  }
  if (kind !== 'question') return undefined;
  if (!markdown) return say('This question asks nothing: write it above its answers.');
  if (answers.length && !answers.some((a) => a.right)) return say('None of the answers is marked as right by [x].');
  return undefined;
}
/** What is wrong with a link or a picture: it must lead to the handbook, to the web, or be here. */
function linkProblem(href: string, picture: boolean, known: Known): string | undefined {
  if (picture)
    return /^data:image\/(png|jpeg|gif|webp);base64,/.test(href)
      ? undefined
      : say('This picture lies elsewhere ({href}): a lesson works without a network. Show a program instead.', {
          href: href.slice(0, 60)
        });
  if (/^https?:\/\/[^\s/]+/.test(href) || /^#/.test(href)) return undefined;
  const path = /^(\/handbook(?:\/[a-z0-9./-]*)?)(?:#.*)?$/.exec(href)?.[1];
  if (path !== undefined && (known.page?.(path) ?? true)) return undefined;
  return say('This link leads nowhere: {href}. Links lead to pages of the handbook (/handbook/...) or to the web.', {
    href: href.slice(0, 60)
  });
}

/** Everything that a token holds. */
function* within(token: Token): Generator<Token> {
  yield token;
  const held = token as { tokens?: Token[]; items?: Token[]; header?: Tokens.TableCell[]; rows?: Tokens.TableCell[][] };
  for (const inner of [
    ...(held.tokens ?? []),
    ...(held.items ?? []),
    ...[held.header ?? [], ...(held.rows ?? [])].flat().flatMap((c) => c.tokens)
  ])
    yield* within(inner);
}
/** What is wrong in it, and the words that are. */
const links = (token: Token, known: Known): { says: string; raw: string }[] =>
  [...within(token)].flatMap((t) => {
    const says =
      t.type === 'link' || t.type === 'image'
        ? linkProblem((t as Tokens.Link).href, t.type === 'image', known)
        : t.type === 'html'
          ? say('HTML is not shown in a lesson: {html}', { html: t.raw.trim().slice(0, 40) })
          : undefined;
    return says === undefined ? [] : [{ says, raw: t.raw }];
  });

/** Reads a lesson's text. It never fails: what is wrong is told, and what is right is shown. */
export function pageOf(text: string, known: Known): Page {
  const page: Page = { title: '', steps: [{ title: '', parts: [] }], problems: [] };
  let at = 0;
  for (const token of tokensOf(text)) {
    const from = at;
    at += token.raw.length;
    const step = page.steps[page.steps.length - 1];
    /** @param raw the words that are wrong; all of it where they are not found */
    const wrong = ({ says, raw = token.raw }: { says: string; raw?: string }): void => {
      const start = from + Math.max(0, token.raw.indexOf(raw));
      page.problems.push({ from: start, to: start + raw.trimEnd().length, says });
    };
    if (token.type === 'heading' && token.depth === 1 && !page.title) page.title = plainOf(token.tokens);
    else if (token.type === 'heading' && token.depth === 2)
      page.steps.push({ title: plainOf(token.tokens), parts: [] });
    else if (token.type === 'code' && isPiece(wordOf(token as Tokens.Code))) {
      const piece = pieceOf(token as Tokens.Code);
      const problem = problemOf(piece, known);
      if (problem) wrong({ says: problem });
      for (const inner of marked.lexer(piece.markdown)) links(inner, known).forEach(wrong);
      // what names something that is not there cannot be shown
      if (!problem || piece.kind === 'question') step.parts.push({ ...piece, names: problem ? [] : piece.names });
    } else {
      const word = token.type === 'code' ? wordOf(token as Tokens.Code) : '';
      if (!PLAIN.includes(word))
        wrong({
          says: say('There is no piece that is called "{word}". Pieces are: {list}.', {
            word: word.slice(0, 40),
            list: Object.keys(PIECES).join(', ')
          })
        });
      links(token, known).forEach(wrong);
      const last = step.parts.at(-1);
      if (last && 'words' in last) last.words += token.raw;
      else if (token.raw.trim()) step.parts.push({ words: token.raw });
    }
  }
  if (!page.title)
    page.problems.push({ from: 0, to: 0, says: say('The lesson has no name. Begin with a line "# " and its name.') });
  if (page.steps.length > 1 && !page.steps[0].parts.length) page.steps.shift();
  return page;
}
const wordOf = ({ lang = '' }: Tokens.Code): string => lang.trim().split(/\s+/)[0];

const isNote = (token: Token): boolean => token.type === 'code' && wordOf(token as Tokens.Code) === 'teacher';
/** The text as a pupil may have it: without the teacher's notes, and without a list or a quotation that holds one. */
export const forPupils = (text: string): string =>
  tokensOf(text)
    .filter((token) => ![...within(token)].some(isNote))
    .map((token) => token.raw)
    .join('');
/** Names of programs or errands in it. */
export const namedIn = (text: string, of: 'program' | 'errand'): string[] => [
  ...new Set(
    tokensOf(text).flatMap((token) => {
      if (token.type !== 'code' || !isPiece(wordOf(token as Tokens.Code))) return [];
      const { kind, names } = pieceOf(token as Tokens.Code);
      return pieceDef(kind).names?.of === of ? names : [];
    })
  )
];
/** The same text with another name for an errand. */
export const renamedErrand = (text: string, from: string, to: string): string =>
  text.replace(/^(\s{0,3}(?:`{3,}|~{3,})\s*errand\s+)(\S+)(\s*)$/gm, (line, before, name, after) =>
    name === from ? `${before}${to}${after}` : line
  );
