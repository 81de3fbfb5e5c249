/**
 * The marked copy of a program's text that the stand-in runs, never shown: `_s(line)` before every step and `_t()` at the
 * end of every turn of a loop, so that time is charged, the running line is known and every loop can be interrupted. The
 * grammar finds the places (Lezer's Python), so programs from blocks and programs typed by hand are marked alike.
 */
import type { SyntaxNode } from '@lezer/common';
import { parser } from '@lezer/python';
import { syntaxProblem } from '../../core/language/python/syntax.ts';

export type Marked = {
  text: string;
  /** line of the original for each line of the copy, both from 0 */ lines: number[];
  /** where each function begins, by its name */ functions: ReadonlyMap<string, number>;
};
export type MarkProblem = { line: number; message: string };

const UNCOUNTED = new Set([
  'ScopeStatement',
  'PassStatement',
  'FunctionDefinition',
  'ClassDefinition',
  'ImportStatement',
  'Comment'
]);
const COMPOUND = new Set(['IfStatement', 'WhileStatement', 'ForStatement', 'TryStatement', 'WithStatement']);
const CHANGES_LIST = /^(put_at_end|put_at|swap_at|take_out)\(/;
const ARITHMETIC = new Set(['+', '-', '*', '/']);

/**
 * Every statement on a line of its own: `if n < 1: log("a"); log("b")` becomes three lines, so that a mark can stand before
 * each. `lines` says which line of the original each one is.
 */
function apart(source: string): { text: string; lines: number[] } {
  const cuts: { from: number; to: number; indent: string }[] = [];
  const indentAt = (at: number): string => /^[ \t]*/.exec(source.slice(source.lastIndexOf('\n', at - 1) + 1))![0];
  const walk = (n: SyntaxNode, indent: string): void => {
    const list: SyntaxNode[] = [];
    const take = (of: SyntaxNode): void => {
      for (let c = of.firstChild; c; c = c.nextSibling)
        if (c.name === 'StatementGroup') take(c);
        else if (![':', ';', 'Comment'].includes(c.name)) list.push(c);
    };
    take(n);
    list.forEach((c, i) => {
      const before = i > 0 ? list[i - 1] : undefined;
      const isFirst = !source.slice(source.lastIndexOf('\n', c.from - 1) + 1, c.from).trim();
      if (before && !isFirst) cuts.push({ from: before.to, to: c.from, indent });
      inner(c, indent);
    });
  };
  const inner = (n: SyntaxNode, indent: string): void => {
    for (let c = n.firstChild; c; c = c.nextSibling)
      if (c.name === 'Body') {
        let first = c.firstChild;
        while (first && (first.name === ':' || first.name === 'Comment')) first = first.nextSibling;
        if (!first) continue;
        const colon = c.firstChild!;
        const own = source.slice(colon.to, first.from).includes('\n') ? indentAt(first.from) : `${indent}    `;
        if (own !== indentAt(first.from)) cuts.push({ from: colon.to, to: first.from, indent: own });
        walk(c, own);
      } else if (c.firstChild) inner(c, indent);
  };
  walk(parser.parse(source).topNode, '');
  cuts.sort((a, b) => a.from - b.from);
  let text = '';
  let at = 0;
  const cutAt: number[] = [];
  for (const { from, to, indent } of cuts) {
    text += source.slice(at, from);
    cutAt.push(text.length);
    text += `\n${indent}`;
    at = to;
  }
  text += source.slice(at);
  const lines: number[] = [0];
  let cut = 0;
  for (let i = 0; i < text.length; i++)
    if (text[i] === '\n') {
      const made = cutAt[cut] === i;
      if (made) cut++;
      lines.push(lines[lines.length - 1] + (made ? 0 : 1));
    }
  return { text, lines };
}

export function mark(original: string): Marked | MarkProblem {
  const wrong = syntaxProblem(original);
  if (wrong) return { line: wrong.line, message: `line ${wrong.line + 1}: ${wrong.message}` };
  const { text: source, lines: given } = apart(original);
  const tree = parser.parse(source);
  const starts = [0];
  for (let i = 0; i < source.length; i++) if (source[i] === '\n') starts.push(i + 1);
  const lineOf = (at: number): number => {
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const mid = (low + high + 1) >> 1;
      if (starts[mid] <= at) low = mid;
      else high = mid - 1;
    }
    return low;
  };
  const textOf = (n: SyntaxNode): string => source.slice(n.from, n.to);
  const children = (n: SyntaxNode): SyntaxNode[] => {
    const out: SyntaxNode[] = [];
    for (let c = n.firstChild; c; c = c.nextSibling) out.push(c);
    return out;
  };
  /** what goes in before a line, and what is put in place of stretches within lines */
  const before = new Map<number, string[]>();
  const put = (line: number, indent: number, text: string): void => {
    if (!before.has(line)) before.set(line, []);
    before.get(line)!.push(' '.repeat(indent) + text);
  };
  const swaps: { from: number; to: number; text: string }[] = [];
  const insert = (at: number, text: string): void => void swaps.push({ from: at, to: at, text });
  const column = (at: number): number => at - starts[lineOf(at)];
  const isTurn = (n: SyntaxNode): boolean => n.name === 'ExpressionStatement' && textOf(n) === 'await turn';
  const isNothing = (n: SyntaxNode): boolean => textOf(n) === 'cannot_happen()';
  /** a look at a loop's condition, and what a table or a match decided: no steps of their own */
  const isUntil = (n: SyntaxNode): boolean => n.name === 'IfStatement' && /^if (until|not again)\(/.test(textOf(n));
  const isDecided = (n: SyntaxNode, before: SyntaxNode | undefined): boolean =>
    n.name === 'IfStatement' && !!before && /^(row = table|found = which)\(/.test(textOf(before));
  /** waits for a condition that asks a routine: one step, however often it looks */
  const isWaiting = (n: SyntaxNode): boolean =>
    (n.name === 'WhileStatement' && /:\s*await tick$/.test(textOf(n).trim())) ||
    (n.name === 'ForStatement' && textOf(n).startsWith('for _ in within('));

  const wrapSums = (n: SyntaxNode): void => {
    for (const c of children(n)) {
      if (c.name === 'Body') continue;
      if (c.name === 'BinaryExpression' && children(c).some((o) => o.name === 'ArithOp' && ARITHMETIC.has(textOf(o)))) {
        insert(c.from, '_n(');
        wrapSums(c);
        insert(c.to, ')');
      } else wrapSums(c);
    }
  };
  /** names that are the whole program's, where a function says so */
  let shared = new Set<string>();
  /** x = 5 becomes x = 5; _v("x", x), and so do the verbs that change a list: the trace has every value */
  const tellChange = (n: SyntaxNode): void => {
    const name = changedBy(n);
    if (name !== undefined) insert(n.to, `; _v("${name}", ${name})`);
  };
  const changedBy = (n: SyntaxNode): string | undefined => {
    if (n.name === 'AssignStatement' || n.name === 'UpdateStatement') {
      const [target, op] = children(n);
      const plain = target?.name === 'VariableName' && (op?.name === 'AssignOp' || op?.name === 'UpdateOp');
      return plain && shared.has(textOf(target)) ? textOf(target) : undefined;
    }
    const verb = n.name === 'ExpressionStatement' && CHANGES_LIST.exec(textOf(n))?.[1];
    if (!verb) return undefined;
    const args = children(children(n)[0]).find((c) => c.name === 'ArgList');
    const given = args ? children(args).filter((c) => !['(', ')', ','].includes(c.name)) : [];
    const list = given[verb === 'swap_at' ? 1 : given.length - 1];
    return list?.name === 'VariableName' ? textOf(list) : undefined;
  };
  const statements = (body: SyntaxNode, loop: boolean): void => {
    const list = children(body).filter((c) => c.name !== ':' && c.name !== 'Comment');
    for (let i = 0; i < list.length; i++) {
      const n = list[i];
      const line = lineOf(n.from);
      if (n.name === 'FunctionDefinition') {
        functionBody(n);
        continue;
      }
      // the last lines of a turn that ends early are one step with the continue
      let k = i;
      if (isTurn(list[k])) k++;
      if (list[k] && isUntil(list[k])) k++;
      if (list[k]?.name === 'ContinueStatement') {
        put(line, column(n.from), `if _s(${given[lineOf(list[k].from)]}): _x()`);
        put(line, column(n.from), '_t() and _x()');
        for (let j = i; j <= k; j++) wrapSums(list[j]);
        i = k;
        continue;
      }
      if (!UNCOUNTED.has(n.name) && !isTurn(n) && !isNothing(n) && !isUntil(n) && !isDecided(n, list[i - 1]))
        put(line, column(n.from), `if _s(${given[line]}): _x()`);
      wrapSums(n);
      if (n.name === 'ReturnStatement') leave(n);
      if (n.name === 'ForStatement') {
        const target = children(n)[1];
        const inner = children(n).find((c) => c.name === 'Body');
        const first = inner && children(inner).find((c) => c.name !== ':' && c.name !== 'Comment');
        if (first && target?.name === 'VariableName' && shared.has(textOf(target)))
          put(lineOf(first.from), column(first.from), `_v("${textOf(target)}", ${textOf(target)})`);
      }
      if (isWaiting(n)) continue;
      if (n.name === 'UpdateStatement') updateSum(n);
      tellChange(n);
      if (COMPOUND.has(n.name) && !isUntil(n))
        for (const inner of children(n))
          if (inner.name === 'Body') statements(inner, n.name === 'WhileStatement' || n.name === 'ForStatement');
    }
    if (loop && list.length) {
      // the turn is charged before the task gives way and before the condition is looked at
      let last = list.length;
      while (last > 0 && (isTurn(list[last - 1]) || isUntil(list[last - 1]))) last--;
      const indent = column(list[0].from);
      if (last < list.length) put(lineOf(list[last].from), indent, 'if _t(): _x()');
      else after(body, indent, 'if _t(): _x()');
    }
  };
  const after = (body: SyntaxNode, indent: number, text: string): void => {
    const list = children(body);
    put(lineOf(list[list.length - 1].to - 1) + 1, indent, text);
  };
  /** x += y becomes x = _n(x + (y)) */
  const updateSum = (n: SyntaxNode): void => {
    const [target, op, value] = children(n);
    const sign = op && textOf(op).slice(0, -1);
    if (!value || !ARITHMETIC.has(sign)) return;
    swaps.push({ from: op.from, to: op.to, text: `= _n(${textOf(target)} ${sign} (` });
    insert(n.to, '))');
  };
  /** return x becomes return _out(x): x is worked out first */
  const leave = (n: SyntaxNode): void => {
    const value = children(n)[1];
    insert(value ? value.from : n.to, value ? '_out(' : ' _out()');
    if (value) insert(n.to, ')');
  };
  const functionBody = (n: SyntaxNode): void => {
    const body = children(n).find((c) => c.name === 'Body');
    if (!body) return;
    const list = children(body).filter((c) => c.name !== ':' && c.name !== 'Comment');
    const first = list.find((c) => c.name !== 'ScopeStatement');
    const indent = column(list[0].from);
    shared = new Set(
      list
        .flatMap((c) => (c.name === 'ScopeStatement' ? textOf(c).replace(/^\w+/, '').split(',') : []))
        .map((t) => t.trim())
    );
    if (first) put(lineOf(first.from), indent, '_in()');
    statements(body, false);
    after(body, indent, '_out()');
  };
  const functions = new Map<string, number>();
  for (const n of children(tree.topNode))
    if (n.name === 'FunctionDefinition') {
      const name = n.getChild('VariableName');
      const def = children(n).find((c) => c.name === 'def');
      if (name && def) functions.set(textOf(name), given[lineOf(def.from)]);
      functionBody(n);
    }

  swaps.sort((a, b) => a.from - b.from);
  const out: string[] = [];
  const lines: number[] = [];
  const count = starts.length;
  let next = 0;
  for (let line = 0; line < count; line++) {
    for (const text of orderByIndent(before.get(line) ?? [])) {
      out.push(text);
      lines.push(given[line]);
    }
    const to = line + 1 < count ? starts[line + 1] - 1 : source.length;
    let text = '';
    let at = starts[line];
    for (; next < swaps.length && swaps[next].from <= to; next++) {
      text += source.slice(at, swaps[next].from) + swaps[next].text;
      at = swaps[next].to;
    }
    out.push(text + source.slice(at, to));
    lines.push(given[line]);
  }
  for (const text of orderByIndent(before.get(count) ?? [])) {
    out.push(text);
    lines.push(given[count - 1]);
  }
  return { text: out.join('\n') + '\n', lines, functions };
}
/** Lines that close bodies are deeper than the lines that open the next statement: the deeper come first. */
const orderByIndent = (texts: string[]): string[] => {
  const indent = (t: string): number => t.length - t.trimStart().length;
  const closes = (t: string): boolean => /^\s*(if _t\(|_out\()/.test(t);
  return [...texts].sort((a, b) => Number(closes(b)) - Number(closes(a)) || (closes(a) ? indent(b) - indent(a) : 0));
};
