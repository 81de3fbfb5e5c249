/**
 * The Python of a block, as its definition writes it, taken apart: what is fixed, where slots go, and how tightly each slot
 * must bind. The printer fills forms in, the reader matches them, so that both directions come from one text.
 */
import type { SyntaxNode } from '@lezer/common';
import { parser } from '@lezer/python';
import { definition, slotSpec } from '../catalogue.ts';
import { holdsValue, type BlockDef } from '../define.ts';
import type { Program, Step } from '../program.ts';

/** Python's precedence, weakest first. */
export const PREC = { bare: 0.5, or: 1, and: 2, not: 3, compare: 4, add: 5, multiply: 6, unary: 7, atom: 9 } as const;

export type Segment =
  | { text: string }
  /** a slot that holds a value */
  | { slot: string; precedence: number; whole: boolean }
  /** an identifier: a part, a variable, a list, a routine, an input */
  | { name: string }
  /** a choice or a name as a string */
  | { quoted: string }
  /** the function of a starter */
  | { f: true };
export type FormLine = { indent: number; segments: Segment[] } | { indent: number; body: string };
export type Form = {
  lines: FormLine[];
  precedence: number;
  /** the text with every hole as an identifier, for matching */
  pattern: string;
  holes: Segment[];
};

const forms = new Map<string, Form>();
/** The form of this step, with its choices made; {slot} of a choice that is not in quotes becomes part of the fixed text. */
export function formOf(step: Step, program: Program): Form {
  const def = definition(step.kind);
  const text =
    typeof def.python === 'string' ? def.python : def.python(step.slots as Record<string, string>, step, program);
  let key = `${step.kind} ${text}`;
  for (const name in def.slots) {
    const { type } = def.slots[name];
    if (type === 'choice') key += ` ${String(step.slots[name])}`;
  }
  let form = forms.get(key);
  if (!form) forms.set(key, (form = makeForm(text, def, step, program)));
  return form;
}

function makeForm(text: string, def: BlockDef, step: Step, program: Program): Form {
  const holes: Segment[] = [];
  const spelled = (slot: string): string => {
    const value = String(step.slots[slot]);
    return def.spell?.[slot]?.[value] ?? value;
  };
  const cut = (line: string): Segment[] =>
    line
      .split(/("\{[^}]+\}"|\{[^}]+\})/)
      .filter(Boolean)
      .map((part): Segment => {
        const quoted = /^"\{([^}]+)\}"$/.exec(part);
        if (quoted) return { quoted: quoted[1] };
        const found = /^\{([^}!]+)(!?)\}$/.exec(part);
        if (!found) return { text: part };
        const slot = found[1];
        if (slot === 'f') return { f: true };
        const spec = slotSpec(step, slot, program)!;
        if (spec.type === 'choice') return { text: spelled(slot) };
        if (holdsValue(spec)) return { slot, precedence: 0, whole: found[2] === '!' };
        return { name: slot };
      })
      .reduce((list: Segment[], segment) => {
        const last = list.at(-1);
        if (last && 'text' in last && 'text' in segment) list[list.length - 1] = { text: last.text + segment.text };
        else list.push(segment);
        return list;
      }, []);
  const lines = text.split('\n').map((line): FormLine => {
    const indent = (line.length - line.trimStart().length) / 4;
    const body = /^\s*\{>([^}]+)\}$/.exec(line);
    return body ? { indent, body: body[1] } : { indent, segments: cut(line.trim()) };
  });
  const pattern = lines
    .map((line) => {
      const pad = '    '.repeat(line.indent);
      if ('body' in line) return `${pad}h_body("${line.body}")`;
      return (
        pad +
        line.segments
          .map((segment) => {
            if ('text' in segment) return segment.text;
            holes.push(segment);
            return `h_${holes.length - 1}`;
          })
          .join('')
      );
    })
    .join('\n');
  const tree = parser.parse(pattern);
  let top: SyntaxNode = tree.topNode.firstChild!;
  tree.iterate({
    enter: (node) => {
      if (node.name !== 'VariableName') return;
      const found = /^h_(\d+)$/.exec(pattern.slice(node.from, node.to));
      const hole = found && holes[Number(found[1])];
      if (hole && 'slot' in hole) hole.precedence = neededAt(node.node, pattern);
    }
  });
  if (top.name === 'ExpressionStatement') top = top.firstChild!;
  return { lines, precedence: precedenceOf(top, pattern), pattern, holes };
}

const OPERATORS: Record<string, number> = {
  or: PREC.or,
  and: PREC.and,
  '+': PREC.add,
  '-': PREC.add,
  '*': PREC.multiply,
  '/': PREC.multiply
};
const operator = (node: SyntaxNode, text: string): string => {
  const sign = node.firstChild!.nextSibling!;
  return text.slice(sign.from, sign.to);
};
/** How tightly an expression binds. */
function precedenceOf(node: SyntaxNode, text: string): number {
  if (node.name === 'BinaryExpression') return OPERATORS[operator(node, text)] ?? PREC.compare;
  // "not" gets brackets beside and, or: (not a) and b reads without doubt, and the grammar of @lezer/python has doubts
  if (node.name === 'UnaryExpression') return text.slice(node.from, node.from + 3) === 'not' ? PREC.bare : PREC.unary;
  return PREC.atom;
}
/**
 * How tightly what is put here must bind. The right side of any sign needs its brackets: a + (b + c) must round as written;
 * so do both sides of a comparison.
 */
function neededAt(node: SyntaxNode, text: string): number {
  const parent = node.parent!;
  if (parent.name === 'BinaryExpression') {
    const precedence = precedenceOf(parent, text);
    if (precedence === PREC.compare) return PREC.add;
    return node.from === parent.from ? precedence : precedence + 1;
  }
  if (parent.name === 'UnaryExpression') return Math.max(PREC.not, precedenceOf(parent, text));
  if (parent.name === 'MemberExpression' && node.from === parent.from) return PREC.atom;
  return 0;
}
