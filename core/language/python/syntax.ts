/** What is wrong with a text as Python: the first place, in a sentence. */
import { parser } from '@lezer/python';
import { say } from '../../words.ts';

export type SyntaxProblem = { line: number; column: number; from: number; to: number; message: string };

/** @returns the first place that cannot be read, lines and columns from 0; nothing if all of it can */
export function syntaxProblem(text: string): SyntaxProblem | undefined {
  let at: { from: number; to: number } | undefined;
  parser.parse(text).iterate({
    enter: (n) => {
      if (n.type.isError && !at) at = { from: n.from, to: n.to };
    }
  });
  const indent = /^( *)\t/m.exec(text);
  const stands = indent ? undefined : wrongIndent(text);
  if (stands && (!at || stands.from <= at.from)) return stands;
  if (!at && !indent) return undefined;
  const from = at?.from ?? indent!.index;
  const before = text.slice(0, from).split('\n');
  // an error at the start of a line mostly means the end of the line before
  let line = before.length - 1;
  let column = before[line].length;
  while (line > 0 && !before[line].trim() && column === before[line].length && text.slice(from).match(/^\s*(\n|$)/)) {
    line--;
    column = before[line].length;
  }
  // a bracket that is left open shows only where the next thing begins
  const lines = text.split('\n');
  if (lines.slice(0, line).reduce((sum, l) => sum + opened(l), 0) > 0) {
    line = lines.findLastIndex((l, i) => i < line && opened(l) > 0);
    column = lines[line].length;
  }
  return {
    line,
    column,
    from,
    to: Math.max(at?.to ?? from, from + 1),
    message: reason(lines[line] ?? '', !at)
  };
}
/** The first line that does not stand where a line can stand, as Python counts it; the grammar does not mind. */
function wrongIndent(text: string): SyntaxProblem | undefined {
  const stack = [0];
  let depth = 0;
  let quote = '';
  let opens = false;
  let before = 0;
  let start = 0;
  let last = '';
  for (const [line, source] of text.split('\n').entries()) {
    const indent = source.length - source.trimStart().length;
    const isNew = depth === 0 && !quote && last !== '\\' && source.trim() !== '' && !source.trimStart().startsWith('#');
    if (isNew) {
      const told = (at: number, message: string): SyntaxProblem => {
        const from = at === line ? start : text.split('\n').slice(0, at).join('\n').length + (at ? 1 : 0);
        const length = text.split('\n')[at].length;
        return { line: at, column: 0, from, to: Math.max(from + 1, from + length), message };
      };
      const top = stack[stack.length - 1];
      if (opens && indent <= top)
        return told(before, say('After this line, something must stand moved in by four spaces.'));
      if (indent > top) {
        if (!opens)
          return told(
            line,
            say('This line is moved in further than the one before it, and nothing above it asks for that.')
          );
        stack.push(indent);
      }
      while (indent < stack[stack.length - 1]) stack.pop();
      if (indent !== stack[stack.length - 1])
        return told(
          line,
          say('This line stands under none of the lines above it: move it in as far as the lines that it belongs to.')
        );
      before = line;
    }
    // brackets and texts that go over several lines
    let code = '';
    for (let i = 0; i < source.length; i++) {
      const c = source[i];
      if (quote) {
        if (c === '\\') i++;
        else if (source.startsWith(quote, i)) {
          i += quote.length - 1;
          quote = '';
        }
        continue;
      }
      if (c === '#') break;
      if (c === '"' || c === "'") {
        quote = source.startsWith(c.repeat(3), i) ? c.repeat(3) : c;
        i += quote.length - 1;
        code += '""';
        continue;
      }
      if ('([{'.includes(c)) depth++;
      if (')]}'.includes(c)) depth--;
      code += c;
    }
    if (quote.length === 1) quote = '';
    code = code.trimEnd();
    if (code) opens = code.endsWith(':') && depth === 0;
    last = code.at(-1) ?? '';
    start += source.length + 1;
  }
  return undefined;
}
/** Round brackets that a line opens and does not close. */
function opened(line: string): number {
  const code = line.replace(/"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'/g, '').replace(/#.*/, '');
  return code.split('(').length - code.split(')').length;
}
function reason(line: string, tab: boolean): string {
  if (tab) return say('This line is moved in with a tab. Use four spaces.');
  const code = line.replace(/"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'/g, '""').replace(/#.*/, '');
  const count = (c: string): number => code.split(c).length - 1;
  if (count('"') % 2 || count("'") % 2) return say('A quote mark is open: text begins and ends with one.');
  if (count('(') > count(')')) return say('A bracket is open: a ) is missing.');
  if (count(')') > count('(')) return say('There is a ) too many, or its ( is missing.');
  if (count('[') !== count(']')) return say('A [ has no ], or the other way round.');
  if (/^\s*(if|elif|else|for|while|def|async def)\b/.test(code) && !/:\s*$/.test(code))
    return say('A colon : is missing at the end.');
  if (/^\s*(if|elif|while)\b.*[^=!<>]=[^=]/.test(code))
    return say('To compare, write == with two signs; one sign sets a name.');
  if (/:\s*$/.test(code)) return say('After this line, something must stand moved in by four spaces.');
  return say('This line cannot be read as Python.');
}
