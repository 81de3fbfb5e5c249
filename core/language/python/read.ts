/**
 * Text -> program, for what the printer prints: every form of every block is matched against the text's tree, and what fits
 * becomes that block. Text beyond that is refused line by line, with the reason.
 */
import type { SyntaxNode } from '@lezer/common';
import { parser } from '@lezer/python';
import { caseCount, tableRows } from '../blocks/choose.ts';
import { inputSlot } from '../blocks/reuse.ts';
import { catalogue, emptySlot, newStep, slotSpec } from '../catalogue.ts';
import type { BlockDef, SlotSpec } from '../define.ts';
import type * as z from 'zod';
import { checkProgram } from '../check.ts';
import {
  emptyProgram,
  programSchema,
  type InputType,
  type Program,
  type RoutineInput,
  type Slot,
  type Step
} from '../program.ts';
import { COLOURS, isPictureText, letterOf } from '../pixels.ts';
import { ANNOTATIONS, isYesOrNo } from './print.ts';
import { counterpart } from './counterparts.ts';
import { formOf, type Form, type Segment } from './form.ts';
import { renewedText } from '../../kit/before.ts';
import { renewedPicture } from '../../kit/repaint.ts';
import type { Kit } from '../../kit/kit.ts';
import { deviceOf } from './fit.ts';
import { natural } from './names.ts';
import { BUILT_IN, typeOf } from './parts.ts';
import { syntaxProblem } from './syntax.ts';
import { say, word } from '../../words.ts';

export type ReadProblem = {
  line: number;
  message: string;
  /** a word that is none of those that can stand there: it says so when the text runs, too */
  word?: { from: number; to: number };
};
export type ReadText =
  | { ok: true; program: Program; /** comments that no block takes up */ lost: ReadProblem[] }
  | { ok: false; problems: ReadProblem[] };

/** A form of a block with one set of choices, as a tree to be matched. */
type Pattern = { def: BlockDef; choices: Record<string, Slot>; form: Form; node: SyntaxNode };
type Bound = Map<string, SyntaxNode>;

const CONDITION: SlotSpec = { type: 'condition' };
const NONE = emptyProgram();
let patterns: Map<string, Pattern[]> | undefined;
/** Every form of every block that does not grow, by what stands at its head. */
function allPatterns(): Map<string, Pattern[]> {
  if (patterns) return patterns;
  patterns = new Map();
  for (const def of catalogue.values()) {
    if (def.grows || def.shape === 'starter') continue;
    for (const choices of combinations(def)) {
      const step: Step = { ...newStep(def.kind, 'p'), slots: { ...newStep(def.kind, 'p').slots, ...choices } };
      const form = formOf(step, NONE);
      let node = parser.parse(form.pattern).topNode.firstChild!;
      if (node.name === 'ExpressionStatement' && def.shape === 'value') node = node.firstChild!;
      const head = headOf(node, form.pattern);
      patterns.set(head, [...(patterns.get(head) ?? []), { def, choices, form, node }]);
    }
  }
  return patterns;
}
function combinations(def: BlockDef): Record<string, Slot>[] {
  let all: Record<string, Slot>[] = [{}];
  for (const [name, spec] of Object.entries(def.slots))
    if (spec.type === 'choice') all = all.flatMap((one) => spec.options.map((o) => ({ ...one, [name]: o })));
  return all;
}
let waiting: Set<string> | undefined;
/** What is awaited where several stacks run, by what stands at the head of its call. */
function takingTime(): ReadonlySet<string> {
  if (waiting) return waiting;
  waiting = new Set();
  for (const list of allPatterns().values())
    for (const { form } of list)
      for (const [, call] of form.pattern.matchAll(/await ([\w.]+)\(/g))
        waiting.add(call.includes('.') ? call.slice(call.lastIndexOf('.')) : call);
  return waiting;
}
const text = (n: SyntaxNode, source: string): string => source.slice(n.from, n.to);
const children = (n: SyntaxNode): SyntaxNode[] => {
  const out: SyntaxNode[] = [];
  for (let c = n.firstChild; c; c = c.nextSibling) if (c.name !== 'Comment') out.push(c);
  return out;
};
/** What a piece of text is looked up by: what it calls, or its kind of statement and sign. */
function headOf(node: SyntaxNode, source: string): string {
  const n = bare(node);
  switch (n.name) {
    case 'ExpressionStatement':
      return headOf(n.firstChild!, source);
    case 'CallExpression': {
      const callee = n.firstChild!;
      return callee.name === 'MemberExpression' ? `.${text(callee.lastChild!, source)}` : text(callee, source);
    }
    case 'BinaryExpression':
    case 'UpdateStatement':
    case 'UnaryExpression':
      return `${n.name} ${text(n.name === 'UnaryExpression' ? n.firstChild! : n.firstChild!.nextSibling!, source)}`;
    case 'VariableName':
      return /^h_\d+$/.test(text(n, source)) ? 'name' : text(n, source);
    case 'ForStatement': {
      const over = children(n).find((c) => c.name === 'in')?.nextSibling;
      return `for ${over ? headOf(over, source) : ''}`;
    }
    default:
      return n.name;
  }
}
/** Without await and without brackets. */
const bare = (n: SyntaxNode): SyntaxNode => (n.name === 'AwaitExpression' ? bare(n.lastChild!) : n);
function unbracketed(n: SyntaxNode): SyntaxNode {
  const b = bare(n);
  return b.name === 'ParenthesizedExpression' ? unbracketed(b.firstChild!.nextSibling!) : b;
}

class Unreadable extends Error {
  constructor(
    readonly node: SyntaxNode,
    message: string,
    readonly isWord = false
  ) {
    super(message);
  }
}
/** What a name in the text means. */
type Meaning =
  | { what: 'variable'; id: string; list: boolean }
  | { what: 'routine'; id: string }
  | { what: 'input'; id: string }
  | { what: 'part'; socket: string; type: string };

const MARK = /^(\s*)# (off|parked|loose): ?/;

export function readPython(source: string, kit?: Kit): ReadText {
  const reader = new Reader();
  try {
    const text = source.replace(/\r\n?/g, '\n');
    const spoilt = syntaxProblem(text);
    if (spoilt) return { ok: false, problems: [{ line: spoilt.line, message: spoilt.message }] };
    const program = reader.read(renewedText(text, (kit ?? deviceOf(text)).device));
    // what comes out passes the check that a file passes: nothing is made of a text that cannot be saved
    const parsed = programSchema.safeParse(program);
    const wrong = parsed.success ? checkProgram(program) : parsed.error.issues[0].message;
    if (wrong === undefined) return { ok: true, program, lost: reader.lost };
    const line = reader.lineOfBlock(
      parsed.success ? (/"(b\d+)"/.exec(wrong)?.[1] ?? '') : pathId(program, parsed.error)
    );
    return { ok: false, problems: [{ line, message: say('Blocks cannot hold this: {wrong}', { wrong }) }] };
  } catch (error) {
    if (error instanceof Problems) return { ok: false, problems: error.list };
    throw error;
  }
}
/** The block that an issue of the schema is about. */
function pathId(program: Program, { issues: [{ path }] }: z.ZodError): string {
  let at: unknown = program;
  let id = '';
  for (const key of path) {
    at = (at as Record<PropertyKey, unknown>)?.[key];
    id = (at as { kind?: string; id?: string } | undefined)?.kind ? (at as Step).id : id;
  }
  return id;
}
/** One expression that needs no names, as a slot holds it. */
export function readExpression(source: string): Slot | undefined {
  return new Reader().expression(source);
}
class Problems extends Error {
  constructor(readonly list: ReadProblem[]) {
    super('text that blocks cannot say');
  }
}

class Reader {
  private source = '';
  private lines: string[] = [];
  /** how often each line is switched off, by `# off:` */
  private off: number[] = [];
  private starts: number[] = [];
  private readonly names = new Map<string, Meaning>();
  private scope = new Map<string, Meaning>();
  private readonly program: Program = emptyProgram();
  private readonly problems: ReadProblem[] = [];
  private ids = 0;
  private readonly usedComments = new Set<number>();
  /** comments that are no block's note: what would be lost */
  readonly lost: ReadProblem[] = [];

  private id(stem = 'b'): string {
    return `${stem}${++this.ids}`;
  }
  private lineOf(at: number): number {
    let low = 0;
    let high = this.starts.length - 1;
    while (low < high) {
      const mid = (low + high + 1) >> 1;
      if (this.starts[mid] <= at) low = mid;
      else high = mid - 1;
    }
    return low;
  }
  private t(n: SyntaxNode): string {
    return text(n, this.source);
  }
  private problem(n: SyntaxNode, message: string, isWord = false): void {
    const line = this.lineOf(n.from);
    const at = n.from - this.starts[line];
    const word = isWord ? { word: { from: at, to: at + n.to - n.from } } : {};
    this.problems.push({ line, message, ...word });
  }

  read(source: string): Program {
    const lines = source.split('\n');
    // what is parked or loose is text of its own, in comments; each is read with the names of the whole
    const asides: { from: number; kind: 'parked' | 'loose'; lines: string[] }[] = [];
    const main = lines.map((line, i) => {
      const found = /^# (parked|loose): ?/.exec(line);
      if (!found) return line;
      const kind = found[1] as 'parked' | 'loose';
      const last = asides.at(-1);
      const inner = line.slice(found[0].length);
      if (last && last.kind === kind && last.from + last.lines.length === i) last.lines.push(inner);
      else asides.push({ from: i, kind, lines: [inner] });
      return '';
    });
    // a stack whose starter is off is a comment as a whole, with a run() of its own at its end
    const offStacks: { from: number; lines: string[] }[] = [];
    for (let i = 0; i < main.length; i++) {
      if (!main[i].startsWith('# off: ')) continue;
      const group: string[] = [];
      const from = i;
      for (; i < main.length && main[i].startsWith('# off:'); i++) {
        group.push(main[i].replace(/^# off: ?/, ''));
        main[i] = '';
      }
      offStacks.push({ from, lines: group });
    }

    this.open(main, 0);
    this.top(parser.parse(this.source).topNode);
    const order = new Map(this.program.stacks.map((s, i) => [s.id, this.stackLines[i]]));
    for (const { from, lines } of offStacks) this.aside(from, lines, { off: true, parked: false, order });
    for (const { from, kind, lines } of asides) {
      const isOff = kind === 'parked' && lines.every((l) => l.startsWith('# off:'));
      this.aside(from, isOff ? lines.map((l) => l.replace(/^# off: ?/, '')) : lines, {
        off: isOff,
        parked: kind === 'parked',
        order
      });
    }
    if (this.problems.length) throw new Problems(this.problems.sort((a, b) => a.line - b.line));
    this.program.stacks.sort((a, b) => order.get(a.id)! - order.get(b.id)!);
    return this.program;
  }
  expression(source: string): Slot | undefined {
    this.open([source], 0);
    const top = parser.parse(this.source).topNode;
    if (this.firstError(top) || top.firstChild?.name !== 'ExpressionStatement' || top.firstChild.nextSibling)
      return undefined;
    try {
      return this.value(top.firstChild.firstChild!, { type: 'any', default: 0 });
    } catch (error) {
      if (error instanceof Unreadable) return undefined;
      throw error;
    }
  }
  private stackLines: number[] = [];

  /** Takes up lines as the text to be read: switched-off lines become plain ones, and are remembered. */
  private open(lines: readonly string[], from: number): void {
    this.off = [];
    this.lines = lines.map((line, i) => {
      let depth = 0;
      let plain = line;
      for (let found = MARK.exec(plain); found?.[2] === 'off'; found = MARK.exec(plain)) {
        plain = found[1] + plain.slice(found[0].length);
        depth++;
      }
      this.off[i] = depth;
      return plain;
    });
    // the same line numbers as in the whole text
    this.lines.unshift(...Array.from({ length: from }, () => ''));
    this.off.unshift(...Array.from({ length: from }, () => 0));
    this.source = this.lines.join('\n') + '\n';
    this.starts = [0];
    for (let i = 0; i < this.source.length; i++) if (this.source[i] === '\n') this.starts.push(i + 1);
  }
  private firstError(top: SyntaxNode): boolean {
    let found: SyntaxNode | undefined;
    top.tree!.iterate({
      enter: (n) => {
        if (n.type.isError && !found) found = n.node;
      }
    });
    if (found) this.problem(found, say('This line cannot be read as Python.'));
    return !!found;
  }

  private top(node: SyntaxNode): void {
    if (this.firstError(node)) return;
    const functions = new Map<string, SyntaxNode>();
    let run: SyntaxNode | undefined;
    for (const n of children(node)) {
      const line = this.t(n);
      if (n.name === 'FunctionDefinition') functions.set(this.t(this.part(n, 'VariableName')!), n);
      else if (n.name === 'ImportStatement') {
        if (line.trim() !== 'from mossbell import *') this.problem(n, say('Blocks know nothing of other libraries.'));
      } else if (n.name === 'AssignStatement') this.declare(n);
      else if (n.name === 'ExpressionStatement' && /^run\(/.test(line)) run = n;
      else this.problem(n, say('Blocks stand in functions: this line stands outside of all of them.'));
    }
    if (!run) {
      this.problem(node, say('There is no run(...) at the end, so nothing would start.'));
      return;
    }
    // what run() is given at the end of each of its arguments begins a stack; every other function is a routine
    const stacks = new Set(
      this.args(run.firstChild!).flatMap((arg) => {
        const last = arg.name === 'CallExpression' ? this.args(arg).at(-1) : arg;
        return last?.name === 'VariableName' ? [this.t(last)] : [];
      })
    );
    for (const [name, n] of functions) if (!stacks.has(name)) this.declareRoutine(name, n);
    const starters = this.starters(run);
    this.several = starters.size !== 1 || [...starters.values()].some((s) => s.kind !== 'begin.start');
    for (const [name, n] of functions) {
      if (stacks.has(name)) {
        // a text without any block prints an empty main
        const steps = this.functionBody(n);
        const known = starters.get(name);
        if (!known) continue;
        const starter = { ...known, ...this.noteAbove(n) };
        if (stacks.size === 1 && this.isEmptyMain(starter, steps, n)) continue;
        this.program.stacks.push({ id: this.id('s'), x: 0, y: 0, steps: [starter, ...steps] });
        this.stackLines.push(this.lineOf(n.from));
      }
    }
    this.beginWith();
    for (const [name, n] of functions) if (!stacks.has(name)) this.routine(name, n);
    for (const name of stacks)
      if (!functions.has(name)) this.problem(run, say('There is no function {name}.', { name }));
    node.tree!.iterate({
      enter: (n) => {
        const at = this.lineOf(n.from);
        if (n.name === 'Comment' && !this.usedComments.has(at))
          this.lost.push({ line: at, message: say('This comment belongs to no block and would be lost.') });
      }
    });
  }
  /** What the printer writes where no stack can run. */
  private isEmptyMain(starter: Step, steps: Step[], n: SyntaxNode): boolean {
    return (
      starter.kind === 'begin.start' &&
      steps.length === 0 &&
      !starter.note &&
      /^async def main\(\):\n {4}pass$/.test(this.t(n).trim())
    );
  }
  private part(n: SyntaxNode, name: string): SyntaxNode | undefined {
    return children(n).find((c) => c.name === name);
  }

  /** A line at the top: a variable, a list, or a part of the device. */
  private declare(n: SyntaxNode): void {
    const [target, , value] = children(n);
    const name = this.t(target);
    const line = this.lineOf(n.from);
    const told = /#\s?(.*)$/.exec(this.lines[line].slice(n.to - this.starts[line]))?.[1];
    const given = this.t(value);
    if (given === '0' || given === '[]') {
      const id = this.id('v');
      this.names.set(name, { what: 'variable', id, list: given === '[]' });
      this.program.variables.push({ id, name: told ?? natural(name), ...(given === '[]' ? { list: true } : {}) });
      if (told !== undefined) this.usedComments.add(line);
      return;
    }
    const part = /^(\w+)\("([^"]*)"\)$/.exec(given);
    if (['Number', 'String', 'Boolean', 'UnaryExpression'].includes(value.name)) {
      const id = this.id('v');
      this.names.set(name, { what: 'variable', id, list: false });
      this.program.variables.push({ id, name: told ?? natural(name) });
      if (told !== undefined) this.usedComments.add(line);
      this.begins.push({ id, value });
      return;
    }
    const type = part && typeOf(part[1]);
    if (type) this.names.set(name, { what: 'part', socket: part[2], type });
    else if (!BUILT_IN.some((known) => given.startsWith(`${known}(`)))
      this.problem(
        n,
        say(
          'At the top stand parts of the device and variables that begin as a number, a text, yes or no, or an empty list [].'
        )
      );
  }
  /** variables that begin as something else than 0: they are set first of all, where one stack alone begins */
  private readonly begins: { id: string; value: SyntaxNode }[] = [];
  private beginWith(): void {
    if (!this.begins.length) return;
    const live = this.program.stacks.filter((s) => !s.parked);
    const [stack] = live;
    if (live.length !== 1 || stack.steps[0].kind !== 'begin.start') {
      for (const { value } of this.begins)
        this.problem(value, say('In blocks a variable begins as 0. Give it this value in a function.'));
      return;
    }
    const sets = this.begins.flatMap(({ id, value }): Step[] => {
      const step: Step = { id: this.id(), kind: 'var.set', slots: { variable: id } };
      try {
        this.put(step, 'value', value, { type: 'any', default: 0 });
        return [step];
      } catch (error) {
        if (!(error instanceof Unreadable)) throw error;
        this.problem(error.node, error.message, error.isWord);
        return [];
      }
    });
    stack.steps.splice(1, 0, ...sets);
  }
  private declareRoutine(name: string, n: SyntaxNode): void {
    const id = this.id('r');
    const line = this.lineOf(n.from);
    const head = this.lines[line];
    const told = /:\s{2}# (.*)$/.exec(head)?.[1];
    let all: string[] = [];
    const inputs: RoutineInput[] = [];
    const params = children(this.part(n, 'ParamList')!);
    for (let i = 0; i < params.length; i++) {
      if (params[i].name !== 'VariableName') continue;
      const type = params[i + 1]?.name === 'TypeDef' ? this.t(params[i + 1].lastChild!) : '';
      const known = (Object.keys(ANNOTATIONS) as InputType[]).find((k) => ANNOTATIONS[k] === type);
      if (!known) this.problem(params[i], say('Blocks know no inputs of the type {type}.', { type }));
      inputs.push({ id: this.id('i'), name: this.t(params[i]), type: known ?? 'number' });
    }
    if (told !== undefined) {
      this.usedComments.add(line);
      try {
        all = inputs.length ? (JSON.parse(`[${told.replace(/" "/g, '","')}]`) as string[]) : [told];
      } catch {
        all = [];
      }
    }
    this.names.set(name, { what: 'routine', id });
    this.program.routines.push({
      id,
      name: all[0] ?? natural(name),
      ...(inputs.length ? { inputs: inputs.map((i, k) => ({ ...i, name: all[k + 1] ?? natural(i.name) })) } : {}),
      x: 0,
      y: 0,
      steps: []
    });
    this.params.set(id, new Map(inputs.map((i) => [i.name, { what: 'input', id: i.id }])));
  }
  private readonly params = new Map<string, Map<string, Meaning>>();
  private routine(name: string, n: SyntaxNode): void {
    const meaning = this.names.get(name)!;
    const routine = this.program.routines.find((r) => r.id === (meaning as { id: string }).id)!;
    this.scope = this.params.get(routine.id)!;
    routine.steps = this.functionBody(n);
    Object.assign(routine, this.noteAbove(n));
    this.scope = new Map();
  }
  private functionBody(n: SyntaxNode): Step[] {
    this.meansTheSame(n);
    return this.body(this.part(n, 'Body')!, 0);
  }
  /**
   * What Python and blocks would take differently in a function, though each could read it: names that are set in it without
   * being global, `await` where it is missing or too many, loops that never give way, `break` outside of any loop.
   */
  private meansTheSame(n: SyntaxNode): void {
    const isAsync = n.firstChild!.name === 'async';
    const name = this.t(this.part(n, 'VariableName')!);
    const globals = new Set<string>();
    const used = new Set<string>();
    const set: SyntaxNode[] = [];
    let givesWay = false;
    const walk = (at: SyntaxNode, loops: number): void => {
      const all = children(at);
      switch (at.name) {
        case 'ScopeStatement':
          for (const c of all) {
            if (c.name !== 'VariableName') continue;
            globals.add(this.t(c));
            if (used.has(this.t(c)))
              this.problem(
                c,
                say('"global {name}" stands before {name} is used: write it at the top.', { name: this.t(c) })
              );
          }
          return;
        case 'VariableName':
          used.add(this.t(at));
          break;
        case 'AssignStatement':
        case 'UpdateStatement':
          set.push(all[0]);
          break;
        case 'BreakStatement':
        case 'ContinueStatement':
          if (!loops)
            this.problem(at, say('"{word}" stands in a loop, and there is none round it.', { word: this.t(at) }));
          break;
        case 'ForStatement':
          set.push(all[1]);
          break;
        case 'CallExpression': {
          const callee = at.firstChild!;
          const head = callee.name === 'MemberExpression' ? `.${this.t(callee.lastChild!)}` : this.t(callee);
          const takes = this.names.get(head)?.what === 'routine' || takingTime().has(head);
          const waits = at.parent?.name === 'AwaitExpression';
          givesWay ||= takes;
          const call = this.t(callee);
          if (isAsync && takes && !waits)
            this.problem(at, say('{call} takes time: in an "async def" write await {call}(...).', { call }));
          else if (waits && !isAsync)
            this.problem(at, say('"await" stands in an "async def" alone: leave it out here.'));
          else if (waits && !takes) this.problem(at, say('{call} takes no time: leave out the "await".', { call }));
        }
      }
      const isLoop = at.name === 'ForStatement' || at.name === 'WhileStatement';
      givesWay ||= isLoop;
      if (isLoop && isAsync) this.givesWay(at);
      for (const c of all) walk(c, loops + (isLoop ? 1 : 0));
    };
    walk(this.part(n, 'Body')!, 0);
    for (const target of set) {
      const text = this.t(target);
      if (target.name !== 'VariableName' || this.names.get(text)?.what !== 'variable' || globals.has(text)) continue;
      this.problem(
        target,
        say('Here {name} would be another variable, which ends with the function: write "global {name}" at its top.', {
          name: text
        })
      );
    }
    if (!isAsync && this.several && givesWay)
      this.problem(
        n,
        say(
          'Where several stacks run, each is an "async def" with await before what takes time: write async def {name}.',
          {
            name
          }
        )
      );
  }
  /** Where several stacks run, a loop gives way at the end of each turn, and there alone. */
  private givesWay(loop: SyntaxNode): void {
    const list = children(this.part(loop, 'Body')!).filter((c) => c.name !== ':');
    if (list.some((c) => /^await tick$/.test(this.t(c)))) return;
    const isTurn = (c: SyntaxNode | undefined): boolean => !!c && this.t(c) === 'await turn';
    const tail = list.at(-1);
    const looks = tail?.name === 'IfStatement' && /^if (not again|until)\(/.test(this.t(tail));
    const last = looks ? list.at(-2) : tail;
    const depth = this.off[this.lineOf(loop.from)];
    const on = list.filter((c) => this.off[this.lineOf(c.from)] === depth && !(looks && c === tail)).at(-1);
    if (isTurn(last) || /^(BreakStatement|ContinueStatement|ReturnStatement)$/.test(on?.name ?? '')) return;
    this.problem(
      loop,
      say('Where several stacks run, the last line of a loop is "await turn": without it no other gets its turn.')
    );
  }
  /** whether more than one plain start can run, so that the text needs its awaits */
  private several = false;

  /** run(main, when(dot.pressed, strike), every(2, s, measure)): the starter of each function. */
  private starters(run: SyntaxNode): Map<string, Step> {
    const found = new Map<string, Step>();
    for (const arg of this.args(run.firstChild!)) {
      const made = this.starter(arg);
      if (made instanceof Unreadable) this.problem(made.node, made.message, made.isWord);
      else if (made) found.set(made.f, made.step);
      else this.problem(arg, say('No starter block says "{t}".', { t: this.t(arg) }));
    }
    return found;
  }
  private starter(arg: SyntaxNode): { f: string; step: Step } | Unreadable | undefined {
    let why: Unreadable | undefined;
    for (const def of catalogue.values()) {
      if (def.shape !== 'starter') continue;
      for (const choices of combinations(def)) {
        const step: Step = { ...newStep(def.kind, this.id()), slots: { ...newStep(def.kind, 'p').slots, ...choices } };
        const form = formOf(step, NONE);
        const pattern = parser.parse(form.pattern).topNode.firstChild!.firstChild!;
        const bound: Bound = new Map();
        if (!this.match(pattern, form.pattern, arg, bound)) continue;
        const f = form.holes.findIndex((h) => 'f' in h);
        const name = bound.get(`h_${f}`);
        if (name?.name !== 'VariableName') continue;
        try {
          this.fill(step, form, bound);
        } catch (error) {
          if (!(error instanceof Unreadable)) throw error;
          why ??= error;
          continue;
        }
        return { f: this.t(name), step };
      }
    }
    return why;
  }
  private args(call: SyntaxNode): SyntaxNode[] {
    const list = this.part(bare(call), 'ArgList');
    return list ? children(list).filter((c) => !['(', ')', ','].includes(c.name)) : [];
  }

  private aside(
    from: number,
    lines: string[],
    how: { off: boolean; parked: boolean; order: Map<string, number> }
  ): void {
    this.open(lines, from);
    const top = parser.parse(this.source).topNode;
    if (this.firstError(top)) return;
    const list = children(top);
    const add = (steps: Step[]): void => {
      const id = this.id('s');
      this.program.stacks.push({ id, x: 0, y: 0, steps, ...(how.parked ? { parked: true } : {}) });
      how.order.set(id, from);
    };
    const definition = list.find((n) => n.name === 'FunctionDefinition');
    if (definition) {
      const run = list.find((n) => n.name === 'ExpressionStatement');
      const starters = run && this.starters(run);
      const starter = starters?.get(this.t(this.part(definition, 'VariableName')!));
      if (!starter) return this.problem(definition, say('This stack does not say how it begins.'));
      add([
        { ...starter, ...this.noteAbove(definition), ...(how.off ? { off: true } : {}) },
        ...this.functionBody(definition)
      ]);
      return;
    }
    if (list.length === 1 && list[0].name === 'ExpressionStatement' && !how.parked) {
      // a value block that lies loose
      try {
        const value = this.value(list[0].firstChild!, { type: 'any', default: 0 }, true);
        if (typeof value === 'object' && 'kind' in value) {
          this.program.loose.push({ x: 0, y: 0, value });
          return;
        }
      } catch (error) {
        if (!(error instanceof Unreadable)) throw error;
      }
    }
    add(this.body(top, how.off ? -1 : 0));
  }

  /** Comment lines right above, with the same indentation and as often switched off, are the note. */
  private noteAbove(n: SyntaxNode): { note?: string } {
    const line = this.lineOf(n.from);
    const indent = n.from - this.starts[line];
    const note: string[] = [];
    for (let i = line - 1; i >= 0; i--) {
      const found = /^(\s*)#(:)? ?(.*)$/.exec(this.lines[i]);
      if (!found || found[1].length !== indent || this.off[i] !== this.off[line]) break;
      this.usedComments.add(i);
      note.unshift(found[3]);
    }
    // what is written behind a line of its own belongs to it too
    const behind =
      this.lineOf(n.to) === line && /^[ \t]*# ?(.*)$/.exec(this.lines[line].slice(n.to - this.starts[line]));
    if (behind && n.name !== 'FunctionDefinition') {
      this.usedComments.add(line);
      note.push(behind[1]);
    }
    return note.length ? { note: note.join('\n') } : {};
  }

  /** The steps of a body; what only the text needs (pass, global, await turn) is left out. */
  private body(body: SyntaxNode, depth: number): Step[] {
    const steps: Step[] = [];
    const list = children(body).filter((c) => c.name !== ':');
    for (let i = 0; i < list.length; i++) {
      const n = list[i];
      if (n.name === 'PassStatement' || n.name === 'ScopeStatement') continue;
      const isTurn = this.t(n) === 'await turn';
      // await turn, a look at the loop's condition, continue: what ends a turn early
      let k = isTurn ? i + 1 : i;
      if (list[k]?.name === 'IfStatement' && /^if (not again|until)\(/.test(this.t(list[k]))) k++;
      if (list[k]?.name === 'ContinueStatement') {
        i = k;
        steps.push(this.finish(newStep('repeat.next', this.id()), n, depth));
        continue;
      }
      if (isTurn || this.tails.has(n.from)) continue;
      const line = this.lineOf(n.from);
      const own = this.off[line];
      const above = steps.at(-1);
      if (above && catalogue.get(above.kind)?.shape === 'end') {
        this.problem(n, say('Nothing can stand below a block that ends its list: this line is never reached.'));
        return steps;
      }
      try {
        const { step, used } = this.statement(list, i, own);
        i += used - 1;
        steps.push(this.finish(step, n, depth));
      } catch (error) {
        if (!(error instanceof Unreadable)) throw error;
        this.problem(error.node, error.message, error.isWord);
      }
    }
    return steps;
  }
  /** the line that each block of a list stands in */
  private readonly blockLines = new Map<string, number>();
  lineOfBlock(id: string): number {
    return this.blockLines.get(id) ?? 0;
  }
  private finish(step: Step, n: SyntaxNode, depth: number): Step {
    this.blockLines.set(step.id, this.lineOf(n.from));
    const off = this.off[this.lineOf(n.from)] > depth;
    return { ...step, ...this.noteAbove(n), ...(off ? { off: true } : {}) };
  }

  /** What no block says, and what to write in its place where that is known. */
  private noBlock(n: SyntaxNode): Unreadable {
    const given = this.t(n);
    const none = say('No block says "{n}".', { n: given.split('\n')[0].slice(0, 60) });
    const known = counterpart(given);
    return new Unreadable(n, known ? `${none} ${known}` : none);
  }
  /** One statement, or two where a block prints two. */
  private statement(list: SyntaxNode[], at: number, depth: number): { step: Step; used: number } {
    const n = list[at];
    const one = (step: Step | undefined, used = 1) => step && { step, used };
    const found =
      one(this.ifStep(n, depth)) ??
      one(this.table(n, list[at + 1], depth), 2) ??
      one(this.match2(n, list[at + 1], depth), 2) ??
      one(this.waiting(n)) ??
      one(this.takenFrom(n)) ??
      one(this.call(n)) ??
      one(this.give(n)) ??
      one(this.pattern(n, depth));
    if (!found) throw this.noBlock(n);
    return found;
  }

  private bodies(n: SyntaxNode): SyntaxNode[] {
    return children(n).filter((c) => c.name === 'Body');
  }
  /** The conditions of if and elif, in order. */
  private conditions(n: SyntaxNode): SyntaxNode[] {
    return children(n).flatMap((c) => (c.name === 'if' || c.name === 'elif' ? [c.nextSibling!] : []));
  }
  private ifStep(n: SyntaxNode, depth: number): Step | undefined {
    if (n.name !== 'IfStatement') return undefined;
    const step: Step = { id: this.id(), kind: 'choose.if', slots: {}, bodies: {} };
    const bodies = this.bodies(n);
    this.conditions(n).forEach((c, i) => this.put(step, `if${i + 1}`, c, { type: 'condition' }));
    bodies.forEach((b, i) => {
      step.bodies![i < this.conditions(n).length ? `then${i + 1}` : 'otherwise'] = this.body(b, depth);
    });
    return step;
  }
  private table(n: SyntaxNode, next: SyntaxNode | undefined, depth: number): Step | undefined {
    if (n.name !== 'AssignStatement' || !/^row = table\(/.test(this.t(n)) || next?.name !== 'IfStatement')
      return undefined;
    const asked = this.args(children(n)[2]);
    const rows = tableRows(asked.length);
    const step: Step = { id: this.id(), kind: 'choose.table', slots: { cannot: '' }, bodies: {} };
    asked.forEach((a, i) => this.put(step, `q${i + 1}`, a, { type: 'condition' }));
    const bodies = this.bodies(next);
    if (bodies.length !== rows.length || ![2, 3].includes(asked.length))
      throw new Unreadable(next, say('A table has one branch for each row.'));
    const cannot: string[] = [];
    rows.forEach((row, i) => {
      if (/^:?\s*cannot_happen\(\)\s*$/.test(this.t(bodies[i]))) {
        cannot.push(row);
        step.bodies![row] = [];
      } else step.bodies![row] = this.body(bodies[i], depth);
    });
    step.slots.cannot = cannot.join(' ');
    return step;
  }
  private match2(n: SyntaxNode, next: SyntaxNode | undefined, depth: number): Step | undefined {
    if (n.name !== 'AssignStatement' || !/^found = which\(/.test(this.t(n)) || next?.name !== 'IfStatement')
      return undefined;
    const [value, cases] = this.args(children(n)[2]);
    const step: Step = { id: this.id(), kind: 'choose.match', slots: {}, bodies: {} };
    this.put(step, 'value', value, { type: 'any', default: 1 });
    children(cases)
      .filter((c) => !['[', ']', ','].includes(c.name))
      .forEach((c, i) => this.put(step, `c${i + 1}`, c, { type: 'any', default: '' }));
    const bodies = this.bodies(next);
    const count = this.conditions(next).length;
    bodies.forEach((b, i) => (step.bodies![i < count ? `do${i + 1}` : 'otherwise'] = this.body(b, depth)));
    if (caseCount(step) !== count) throw new Unreadable(next, say('A match has one branch for each case.'));
    return step;
  }
  /** A wait whose condition asks a routine, as it is printed among several tasks. */
  private waiting(n: SyntaxNode): Step | undefined {
    const body = this.part(n, 'Body');
    if (n.name === 'WhileStatement' && body && /^:\s*await tick$/.test(this.t(body).trim())) {
      const step: Step = { id: this.id(), kind: 'wait.until', slots: {} };
      this.put(step, 'condition', children(n)[1].lastChild!, { type: 'condition' });
      return step;
    }
    if (n.name === 'ForStatement' && /^for _ in within\(/.test(this.t(n)) && body) {
      const step: Step = { id: this.id(), kind: 'wait.limit', slots: {} };
      const test = children(body).find((c) => c.name === 'IfStatement');
      if (test) this.put(step, 'condition', this.args(this.conditions(test)[0])[0], { type: 'condition' });
      this.put(step, 'time', this.args(children(n).find((c) => c.name === 'CallExpression')!)[0], {
        type: 'number',
        default: 5
      });
      return step;
    }
    return undefined;
  }
  /** `n -= 2` is a block that adds -2. */
  private takenFrom(n: SyntaxNode): Step | undefined {
    const [name, sign, by] = children(n);
    if (n.name !== 'UpdateStatement' || this.t(sign) !== '-=' || !by) return undefined;
    const step = newStep('var.change', this.id());
    this.put(step, 'variable', name, slotSpec(step, 'variable', this.program)!);
    const amount = this.value(by, slotSpec(step, 'amount', this.program)!);
    step.slots.amount = typeof amount === 'number' ? -amount : this.negative(amount);
    return step;
  }
  private negative(of: Slot | undefined): Step {
    const step: Step = { id: this.id(), kind: 'calc.negative', slots: {} };
    if (of !== undefined) step.slots.a = of;
    return step;
  }
  private callOf(n: SyntaxNode): { id: string; args: SyntaxNode[] } | undefined {
    const call = bare(n);
    if (call.name !== 'CallExpression' || call.firstChild!.name !== 'VariableName') return undefined;
    const name = this.t(call.firstChild!);
    const meaning = this.names.get(name);
    if (meaning?.what === 'routine') return { id: meaning.id, args: this.args(call) };
    if (/^nameless_routine(_\d+)?$/.test(name) && !meaning) return { id: '', args: [] };
    return undefined;
  }
  private putInputs(step: Step, args: SyntaxNode[], n: SyntaxNode): Step {
    const inputs = this.program.routines.find((r) => r.id === step.slots.routine)?.inputs ?? [];
    if (inputs.length !== args.length)
      throw new Unreadable(
        n,
        say('This routine needs {n, plural, one {# value} other {# values}}.', { n: inputs.length })
      );
    inputs.forEach((input, i) => {
      const slot = inputSlot(input.id);
      this.put(step, slot, args[i], slotSpec(step, slot, this.program)!);
    });
    return step;
  }
  private call(n: SyntaxNode): Step | undefined {
    if (n.name !== 'ExpressionStatement') return undefined;
    const found = this.callOf(n.firstChild!);
    return found && this.putInputs({ id: this.id(), kind: 'routine.do', slots: { routine: found.id } }, found.args, n);
  }
  private give(n: SyntaxNode): Step | undefined {
    if (n.name !== 'ReturnStatement') return undefined;
    const step: Step = { id: this.id(), kind: 'routine.give', slots: {} };
    if (n.lastChild!.name === 'return') throw new Unreadable(n, say('A block that gives back needs a value.'));
    this.put(step, 'value', n.lastChild!, { type: 'any', default: 0 });
    return step;
  }

  private pattern(n: SyntaxNode, depth: number): Step | undefined {
    let why: Unreadable | undefined;
    for (const { def, choices, form, node } of this.candidates(n)) {
      if (def.shape === 'value') continue;
      const bound: Bound = new Map();
      if (!this.match(node, form.pattern, n, bound)) continue;
      const step: Step = { ...newStep(def.kind, this.id()), slots: { ...choices } };
      try {
        this.fill(step, form, bound);
      } catch (error) {
        if (!(error instanceof Unreadable)) throw error;
        // a misspelt word tells more than another block that it is not
        if (!why?.isWord) why = error;
        continue;
      }
      for (const [name, b] of bound) if (name.startsWith('body ')) step.bodies![name.slice(5)] = this.body(b, depth);
      return step;
    }
    if (why) throw why;
    return undefined;
  }
  private candidates(n: SyntaxNode): Pattern[] {
    const all = allPatterns();
    return all.get(headOf(n, this.source)) ?? [];
  }

  /** Whether the text has the pattern's shape; its holes are bound to what stands there. */
  private match(pattern: SyntaxNode, of: string, n: SyntaxNode, bound: Bound): boolean {
    const p = bare(pattern);
    const s = bare(n);
    if (p.name === 'VariableName') {
      const name = text(p, of);
      if (/^h_\d+$/.test(name)) {
        bound.set(name, s);
        return true;
      }
    }
    if (p.name !== s.name) return false;
    if (p.name === 'Body') return this.matchBody(p, of, s, bound);
    const ps = children(p);
    const ss = children(s);
    if (ps.length === 0) return text(p, of) === this.t(s);
    if (ps.length !== ss.length) return false;
    const own = p.name === 'ArgList' ? this.inOrder(ps, of, ss) : ss;
    return ps.every((c, i) => this.match(c, of, own[i], bound));
  }
  /** What is given by name may come in any order, where no call could be made before another one by that. */
  private inOrder(ps: SyntaxNode[], of: string, ss: SyntaxNode[]): SyntaxNode[] {
    const cut = (list: SyntaxNode[], name: (n: SyntaxNode) => string): Map<string, SyntaxNode[]> | undefined => {
      const found = new Map<string, SyntaxNode[]>();
      for (let i = 1; i < list.length; i += 4) {
        if (list[i + 1]?.name !== 'AssignOp' || !list[i + 2] || (list[i + 3] && !/^[,)]$/.test(list[i + 3].name)))
          return undefined;
        found.set(name(list[i]), list.slice(i, i + 3));
      }
      return found;
    };
    const [wanted, given] = [cut(ps, (n) => text(n, of)), cut(ss, (n) => this.t(n))];
    if (!wanted || !given || wanted.size !== given.size || [...wanted.keys()].some((k) => !given.has(k))) return ss;
    const calls = [...given.values()].filter(([, , value]) => this.t(value).includes('(')).length;
    if (calls > 1) return ss;
    const out = [ss[0]];
    [...wanted.keys()].forEach((key, i) => out.push(...given.get(key)!, ss[4 * i + 4]));
    return out;
  }
  /** A body with a hole for steps and perhaps a look at the loop's condition at its end. */
  private matchBody(p: SyntaxNode, of: string, s: SyntaxNode, bound: Bound): boolean {
    const list = children(p).filter((c) => c.name !== ':');
    const own = children(s).filter((c) => c.name !== ':');
    const hole = /^h_body\("(.*)"\)$/.exec(text(list[0], of));
    if (!hole) return list.length === own.length && list.every((c, i) => this.match(c, of, own[i], bound));
    const tail = list.slice(1);
    const last = own.at(-1);
    const looks = (n: SyntaxNode | undefined): boolean =>
      n?.name === 'IfStatement' && /^if (not again|until)\(/.test(this.t(n));
    if (tail.length === 0 && looks(last)) return false;
    if (tail.length === 1 && !(looks(last) && this.match(tail[0], of, last!, bound))) return false;
    bound.set(`body ${hole[1]}`, s);
    if (tail.length) this.tails.add(last!.from);
    return true;
  }
  /** where looks at a loop's condition stand, which are no steps of their own */
  private readonly tails = new Set<number>();

  /** it is a variable that is set to a whole other value: a list can be, too */
  private setting = false;
  private fill(step: Step, form: Form, bound: Bound): void {
    this.setting = step.kind === 'var.set';
    form.holes.forEach((hole, i) => {
      const n = bound.get(`h_${i}`);
      if (!n || 'f' in hole || 'text' in hole) return;
      this.put(step, slotName(hole), n, slotSpec(step, slotName(hole), this.program)!, hole);
    });
  }
  private put(step: Step, name: string, n: SyntaxNode, spec: SlotSpec, hole?: Segment): void {
    if (hole && 'quoted' in hole) {
      if (n.name !== 'String') throw new Unreadable(n, say('A name in quotes belongs here.'));
      const given = this.string(n);
      if (spec.type === 'choice' && !spec.options.includes(given))
        throw new Unreadable(
          n,
          say('{given} is none of the words that can stand here: {options}.', {
            given: this.t(n),
            options: spec.options.map((o) => `"${o}"`).join(', ')
          }),
          true
        );
      step.slots[name] = given;
      return;
    }
    let from = n;
    if (hole && 'slot' in hole && hole.whole) {
      const call = bare(n);
      const isWhole = call.name === 'CallExpression' && this.t(call.firstChild!) === 'whole';
      const plain = unbracketed(n);
      if (isWhole) [from] = this.args(call);
      else if (!/^-?\s*\d+$/.test(this.t(plain)))
        throw new Unreadable(n, say('A whole number belongs here: write whole(...) around it.'));
    }
    if (step.kind === 'var.set' && name === 'value') from = this.listFor(String(step.slots.variable), from);
    const value = this.value(from, spec);
    if (value === undefined) delete step.slots[name];
    else step.slots[name] = value;
  }

  /** What a variable for a list is set to: a list for certain, or what is looked at when it runs. */
  private listFor(variable: string, n: SyntaxNode): SyntaxNode {
    const plain = unbracketed(n);
    const looked =
      plain.name === 'CallExpression' && this.t(plain.firstChild!) === 'a_list' ? this.args(plain)[0] : undefined;
    if (!this.program.variables.find((v) => v.id === variable)?.list) return n;
    const meaning = this.names.get(this.t(plain));
    const isList = plain.name === 'ArrayExpression' || (meaning?.what === 'variable' && meaning.list);
    if (looked || isList) return looked ?? n;
    throw new Unreadable(n, say('A list is set here, and this may be none: write a_list(...) around it.'));
  }

  /** An expression as what a slot holds; `undefined` for an empty slot. */
  private value(n: SyntaxNode, spec: SlotSpec, asBlock = false): Slot | undefined {
    const inner = unbracketed(n);
    const given = this.t(inner);
    if (['variable', 'list', 'routine', 'input', 'part'].includes(spec.type)) return this.named(inner, spec);
    if (inner.name === 'Boolean') {
      if (spec.type === 'condition' && given === 'False') return undefined;
      if (spec.type === 'any') return given === 'True';
      throw new Unreadable(inner, say('No block says {given} here.', { given }));
    }
    if (inner.name === 'None') {
      if (spec.type === 'items' || spec.type === 'number' || spec.type === 'picture' || spec.type === 'text')
        return emptySlot({ type: 'items' });
      throw new Unreadable(inner, say('Blocks have no None here.'));
    }
    if (spec.type === 'condition' && (['Number', 'String'].includes(inner.name) || /^-\s*[\d.]+$/.test(given)))
      throw new Unreadable(
        inner,
        say('Blocks ask here for something that is so or not, such as a comparison: {given} alone is none.', {
          given: given.slice(0, 40)
        })
      );
    if (inner.name === 'Number' || (inner.name === 'UnaryExpression' && /^-\s*[\d.]/.test(given))) {
      if (/^-?\s*0\d/.test(given)) throw new Unreadable(inner, say('A number does not begin with 0.'));
      const number = Number(given.replace(/\s|_/g, ''));
      if (!/[.ej]/i.test(given) && !Number.isSafeInteger(number))
        throw new Unreadable(inner, say('{given} is too large: blocks count to 9007199254740991.', { given }));
      if (!Number.isFinite(number))
        throw new Unreadable(inner, say('"{given}" is not a number that blocks know.', { given }));
      if (spec.type === 'text') throw new Unreadable(inner, say('Text in quotes belongs here.'));
      return number;
    }
    if (inner.name === 'String') {
      const held = this.string(inner);
      if (spec.type === 'number')
        throw new Unreadable(inner, say('A number belongs here. Two texts are put together by join(a, b).'));
      return held;
    }
    const painted = /^Picture\((".*")\)$/.exec(given);
    if (painted) {
      const picture = { picture: renewedPicture(JSON.parse(painted[1]) as string) };
      if (!isPictureText(picture.picture))
        throw new Unreadable(
          inner,
          say('The rows of a picture are equally long, one sign a pixel: . - + * # or {letters}.', {
            letters: COLOURS.map(letterOf).join(' ')
          })
        );
      const plain = spec.type === 'picture' && bare(n).name !== 'ParenthesizedExpression' && !asBlock;
      return plain ? picture : { id: this.id(), kind: 'picture.value', slots: { pixels: picture } };
    }
    if (inner.name === 'CallExpression' && this.t(inner.firstChild!) === 'bool') {
      const [of, ...more] = this.args(inner);
      const logic = of && unbracketed(of);
      if (of && !more.length && (spec.type === 'condition' || this.isLogic(logic))) return this.value(of, CONDITION);
      throw this.noBlock(inner);
    }
    const step = this.block(inner);
    if (this.isLogic(inner) && spec.type !== 'condition' && !asBlock && !isYesOrNo(step))
      throw new Unreadable(
        inner,
        say('Here Python gives one of the two values, and blocks give yes or no: write bool(...) around it.')
      );
    return step;
  }
  /** a comparison without brackets round it */
  private isComparison(n: SyntaxNode): boolean {
    return n.name === 'BinaryExpression' && /^([<>]=?|[!=]=|in|is|not)$/.test(this.t(n.firstChild!.nextSibling!));
  }
  private isLogic(n: SyntaxNode | undefined): boolean {
    return n?.name === 'BinaryExpression' && ['and', 'or'].includes(this.t(n.firstChild!.nextSibling!));
  }
  private string(n: SyntaxNode): string {
    const given = this.t(n);
    try {
      if (given.length > 2000)
        throw new Unreadable(n, say('This text has {n} characters: a block holds at most 2000.', { n: given.length }));
      if (/^('''|"""|.*\\\/)/s.test(given)) throw new Error();
      if (!given.startsWith("'")) return JSON.parse(given) as string;
      // the same text in double quotes
      return JSON.parse(
        `"${given
          .slice(1, -1)
          .replace(/\\'/g, "'")
          .replace(/(\\.)|"/g, (all, kept) => kept ?? `\\${all}`)}"`
      ) as string;
    } catch (error) {
      if (error instanceof Unreadable) throw error;
      throw new Unreadable(n, say('{n} is a kind of text that blocks do not write.', { n: given.slice(0, 40) }));
    }
  }
  private named(n: SyntaxNode, spec: SlotSpec): string {
    const name = this.t(n);
    const meaning = this.scope.get(name) ?? this.names.get(name);
    if (n.name === 'VariableName' && !meaning && new RegExp(`^nameless_${spec.type}(_\\d+)?$`).test(name)) return '';
    if (n.name === 'VariableName' && meaning) {
      if (meaning.what === 'part' && spec.type === 'part' && meaning.type === spec.part) return meaning.socket;
      if (meaning.what === 'variable' && spec.type === 'variable') {
        if (!meaning.list || this.setting) return meaning.id;
        throw new Unreadable(n, say('{name} is a list: it cannot count. Take another variable.', { name }));
      }
      if (meaning.what === 'variable' && spec.type === 'list' && meaning.list) return meaning.id;
      if (meaning.what === 'input' && spec.type === 'input') return meaning.id;
      if (meaning.what === 'routine' && spec.type === 'routine') return meaning.id;
    }
    const known = n.name === 'MemberExpression' ? counterpart(`${name} = 0`) : undefined;
    if (known) throw new Unreadable(n, known);
    throw new Unreadable(
      n,
      say('There is no {x} called {name}.', { x: word(spec.type === 'part' ? spec.part : spec.type), name })
    );
  }
  /** A value block. */
  private block(n: SyntaxNode): Step {
    const operand = n.name === 'UnaryExpression' ? n.lastChild! : n;
    if (n.name === 'UnaryExpression' && this.t(n.firstChild!) === 'not' && operand.name === 'BinaryExpression') {
      // the grammar takes "not a and b" for "not (a and b)", which Python does not
      const sign = this.t(operand.firstChild!.nextSibling!);
      if (sign === 'and' || sign === 'or')
        throw new Unreadable(n, say('Put brackets round the "not": (not ...) and ...'));
    }
    if (n.name === 'UnaryExpression' && this.t(n.firstChild!) === '-' && operand.name !== 'ParenthesizedExpression')
      return this.negative(this.value(operand, { type: 'number', default: 0 }));
    if (n.name === 'BinaryExpression' && this.isComparison(n)) {
      const [a, , b] = children(n).filter((c) => c.name !== 'Comment');
      if (this.isComparison(bare(a)) || (b && this.isComparison(bare(b))))
        throw new Unreadable(
          n,
          say(
            'Python reads a < b < c as "a < b and b < c". Write it so, or lies_from_to(b, a, c) where the ends count.'
          )
        );
    }
    if (n.name === 'VariableName') {
      const name = this.t(n);
      const meaning = this.scope.get(name) ?? this.names.get(name);
      if (meaning?.what === 'input') return { id: this.id(), kind: 'routine.input', slots: { input: meaning.id } };
      if (meaning?.what === 'variable')
        return meaning.list
          ? { id: this.id(), kind: 'list.value', slots: { list: meaning.id } }
          : { id: this.id(), kind: 'var.value', slots: { variable: meaning.id } };
      const nameless = /^nameless_(variable|list|input)/.exec(name);
      if (nameless && !meaning) {
        const kind = { variable: 'var.value', list: 'list.value', input: 'routine.input' }[nameless[1]]!;
        return { id: this.id(), kind, slots: { [nameless[1]]: '' } };
      }
    }
    if (n.name === 'ArrayExpression') {
      const step: Step = { id: this.id(), kind: 'list.new', slots: {} };
      children(n)
        .filter((c) => !['[', ']', ','].includes(c.name))
        .forEach((c, i) => this.put(step, `i${i + 1}`, c, { type: 'any', default: 0 }));
      return step;
    }
    if (n.name === 'CallExpression' && this.t(n.firstChild!) === 'given') {
      const found = this.callOf(this.args(n)[0] ?? n);
      if (found)
        return this.putInputs({ id: this.id(), kind: 'routine.value', slots: { routine: found.id } }, found.args, n);
    }
    let why: Unreadable | undefined;
    for (const { def, choices, form, node } of this.candidates(n)) {
      if (def.shape !== 'value') continue;
      const bound: Bound = new Map();
      if (!this.match(node, form.pattern, n, bound)) continue;
      const step: Step = { id: this.id(), kind: def.kind, slots: { ...choices } };
      try {
        this.fill(step, form, bound);
        return step;
      } catch (error) {
        if (!(error instanceof Unreadable)) throw error;
        // a misspelt word tells more than another block that it is not
        if (!why?.isWord) why = error;
      }
    }
    throw why ?? this.noBlock(n);
  }
}
const slotName = (hole: Exclude<Segment, { text: string } | { f: true }>): string =>
  'slot' in hole ? hole.slot : 'name' in hole ? hole.name : hole.quoted;
