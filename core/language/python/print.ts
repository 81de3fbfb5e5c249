/** Program -> MicroPython text that a pupil can read, with a line <-> block map. */
import { motorOf, partAt, reckoned, trackMm, wheelsAt, type Kit, type Part } from '../../kit/kit.ts';
import { isInputSlot } from '../blocks/reuse.ts';
import { definition, slotSpec } from '../catalogue.ts';
import type { SlotSpec } from '../define.ts';
import {
  isLive,
  isPicture,
  isStep,
  type InputType,
  type Program,
  type Routine,
  type Slot,
  type Step,
  walkSteps
} from '../program.ts';
import { show, typedNumber } from '../values.ts';
import { formOf, PREC, type Segment } from './form.ts';
import { Names, natural } from './names.ts';
import { CLASSES, type NamedType } from './parts.ts';

export type Printed = {
  text: string;
  /** the block of each line, or null; lines count from 0 */
  blocks: (string | null)[];
};
type Text = [text: string, precedence: number];

/** Lines with their blocks. */
class Sheet {
  readonly lines: string[] = [];
  readonly blocks: (string | null)[] = [];
  add(text: string, block: string | null = null): void {
    for (const line of text.split('\n')) {
      this.lines.push(line);
      this.blocks.push(block);
    }
  }
  /** puts `mark` before every line from this one on, after the indentation */
  comment(from: number, indent: number, mark: string): void {
    const pad = '    '.repeat(indent);
    for (let i = from; i < this.lines.length; i++)
      this.lines[i] = `${pad}# ${mark}: ${this.lines[i].slice(pad.length)}`.trimEnd();
  }
}

const LAMPS = ['left', 'right', 'one', 'two', 'three', 'four', 'five', 'six'];
/** Parts of the device that a text names without a socket, and the line at the top that makes them. */
export const THINGS: Record<string, (kit: Kit) => string> = {
  wheels: (sheet) => {
    const kit = reckoned(sheet);
    const tuple = (all: string[]): string => (all.length === 1 ? all[0] : `(${all.join(', ')})`);
    const socket = (id: string): string => `"${motorOf(kit, id)?.socket ?? ''}"`;
    const diameters = (all: number[]): string => tuple([...new Set(all)].length > 1 ? all.map(show) : [show(all[0])]);
    const [left, right] = (['left', 'right'] as const).map((side) => wheelsAt(kit, side));
    const even = [...left, ...right].every((w) => Math.abs(Math.abs(w.at.yMm) - trackMm(kit) / 2) < 1e-6);
    if (left.length && right.length && even)
      return `Wheels(left=${tuple(left.map((w) => socket(w.id)))}, right=${tuple(right.map((w) => socket(w.id)))}, diameter_mm=${diameters([left[0].diameterMm, right[0].diameterMm])}, track_mm=${show(trackMm(kit))})`;
    // wheels that roll in several directions, or do not stand alike on both sides: each with its place, ahead and to the left, and its direction
    const at = kit.wheels.map((w) => `(${socket(w.id)}, ${[w.at.xMm, w.at.yMm, w.at.deg].map(show).join(', ')})`);
    return `Wheels(at=(${at.join(', ')}), diameter_mm=${diameters(kit.wheels.map((w) => w.diameterMm))})`;
  },
  display: () => 'Display()',
  gyro: () => 'Gyro()',
  motion: () => 'Motion()',
  nose: () => 'Nose()',
  rim: () => 'Rim()',
  distance: (kit) => `Distance("${kit.parts.find((p) => p.type === 'distance')?.socket ?? 'J7'}")`,
  ...Object.fromEntries(LAMPS.map((name) => [`${name}_lamp`, () => `Lamp("${name}")`])),
  left_edge: () => 'Edge("left")',
  right_edge: () => 'Edge("right")',
  dot: () => 'Button("Dot")',
  bar: () => 'Button("Bar")'
};
const THING = new RegExp(`\\b(${Object.keys(THINGS).join('|')})\\.`, 'g');
export const partIdentifier = (part: Part | undefined, type: string, socket: string): string =>
  part
    ? `${part.name}${type === 'line' && !/line/i.test(part.name) ? ' line' : type === 'motor' && part.type === 'motor' && part.drives ? ' motor' : ''}`
    : `${type} ${socket}`;
/** How the types of a routine's inputs are written; a number is not. */
export const ANNOTATIONS: Record<InputType, string> = {
  number: '',
  text: 'str',
  condition: 'bool',
  picture: 'Picture',
  list: 'list'
};

/** Whether a routine's value is in it, so that asking takes time. */
export const isSlow = (slot: unknown): boolean =>
  isStep(slot as Step) && [...walkSteps([slot as Step])].some((s) => s.kind === 'routine.value');
/** Whether a value is yes or no for certain, so that *and* and *or* of it are so in Python too. */
export const isYesOrNo = (slot: Slot | undefined): boolean =>
  isStep(slot)
    ? slot.kind === 'calc.logic'
      ? isYesOrNo(slot.slots.a) && isYesOrNo(slot.slots.b)
      : definition(slot.kind).shape === 'value' && (definition(slot.kind) as { gives?: string }).gives === 'condition'
    : slot === undefined || typeof slot === 'boolean';
/** Lines of a note, as comments: a line that would read as something else begins with `#:`. */
const noteLines = (note: string): string[] =>
  note
    .split('\n')
    .map((line) => (/^(\s|off:|parked:|loose:|:)/.test(line) ? `#: ${line}` : line ? `# ${line}` : '#').trimEnd());

export function printPython(program: Program, kit: Kit): Printed {
  const live = program.stacks.filter(isLive);
  const several = live.length !== 1 || live.some((s) => s.steps[0].kind !== 'begin.start');
  const names = new Names();
  const tops = new Map<string, string>();
  const body = new Sheet();
  for (const v of program.variables) names.give(v.id, v.name);
  for (const r of program.routines) names.give(r.id, r.name);
  /** names of the inputs of the routine that is being printed */
  let scope = names;

  const partOf = (socket: string, type: string): string => {
    const name = names.give(`part ${type} ${socket}`, partIdentifier(partAt(kit, socket), type, socket));
    tops.set(name, `${name} = ${CLASSES[type as NamedType]}("${socket}")`);
    return name;
  };
  const nameIn = (step: Step, slot: string, spec: SlotSpec): string => {
    const value = String(step.slots[slot]);
    if (spec.type === 'part') return partOf(value, spec.part);
    if (spec.type === 'input') return scope.give(value || 'no input', 'nameless input');
    const what = spec.type === 'routine' ? 'no routine' : spec.type === 'list' ? 'no list' : 'nothing';
    const known = spec.type === 'routine' ? program.routines : program.variables;
    return known.some((k) => k.id === value)
      ? names.give(value, '')
      : names.give(what, spec.type === 'routine' ? 'nameless routine' : `nameless ${spec.type}`);
  };
  const fixed = (text: string): string => {
    for (const [, thing] of text.matchAll(THING)) tops.set(thing, `${thing} = ${THINGS[thing](kit)}`);
    return several ? text : text.replaceAll('await ', '');
  };

  const slotText = (step: Step, name: string): Text => {
    const slot = step.slots[name];
    const spec = slotSpec(step, name, program)!;
    if (isStep(slot)) {
      const text = valueText(slot);
      // and, or: Python gives one of the two values, blocks give yes or no
      if (slot.kind === 'calc.logic' && (spec.type !== 'condition' || isInputSlot(name)) && !isYesOrNo(slot))
        return [`bool(${text[0]})`, PREC.atom];
      if (spec.type === 'condition' && isInputSlot(name) && !isYesOrNo(slot)) return [`bool(${text[0]})`, PREC.atom];
      // a painted picture as a block of its own, where a picture could be painted into the slot
      return spec.type === 'picture' && slot.kind === 'picture.value' ? [`(${text[0]})`, PREC.atom] : text;
    }
    // an empty slot for anything is the empty text, as it runs
    if (slot === undefined)
      return [spec.type === 'condition' ? 'False' : spec.type === 'any' ? '""' : 'None', PREC.atom];
    if (isPicture(slot)) return [`Picture(${JSON.stringify(slot.picture)})`, PREC.atom];
    if (typeof slot === 'boolean') return [slot ? 'True' : 'False', PREC.atom];
    if (spec.type === 'text') return [JSON.stringify(String(slot)), PREC.atom];
    // where texts are taken too, a text is one, whatever it looks like
    const n = typeof slot === 'number' ? slot : spec.type === 'any' ? undefined : typedNumber(slot);
    if (n !== undefined) return [show(n), n < 0 ? PREC.unary : PREC.atom];
    return [JSON.stringify(slot), PREC.atom];
  };
  const valueText = (step: Step): Text => {
    const form = formOf(step, program);
    const [line] = form.lines;
    return ['segments' in line ? line.segments.map((s) => fill(step, s)).join('') : '', form.precedence];
  };
  const fill = (step: Step, segment: Segment, f = ''): string => {
    if ('text' in segment) return fixed(segment.text);
    if ('quoted' in segment) return JSON.stringify(spelledAs(step, segment.quoted));
    if ('name' in segment) return nameIn(step, segment.name, slotSpec(step, segment.name, program)!);
    if ('f' in segment) return f;
    const { slot, precedence, whole } = segment;
    const [text, own] = slotText(step, slot);
    if (whole) {
      const value = step.slots[slot];
      const n = typeof value === 'number' ? value : typeof value === 'string' ? typedNumber(value) : undefined;
      return n !== undefined && Number.isInteger(n) ? text : `whole(${text})`;
    }
    return own < precedence ? `(${text})` : text;
  };
  const spelledAs = (step: Step, slot: string): string => {
    const value = String(step.slots[slot]);
    return definition(step.kind).spell?.[slot]?.[value] ?? value;
  };

  /** @param around the innermost loop that the list stands in */
  const printList = (steps: readonly Step[], indent: number, around: Step | undefined): void => {
    for (const step of steps) {
      const def = definition(step.kind);
      if (def.shape === 'value' || def.shape === 'starter') continue;
      const from = body.lines.length;
      if (step.note) for (const line of noteLines(step.note)) body.add('    '.repeat(indent) + line, step.id);
      printStep(step, indent, around);
      if (step.off) body.comment(from, indent, 'off');
    }
  };
  const printStep = (step: Step, indent: number, around: Step | undefined): void => {
    const pad = '    '.repeat(indent);
    if (several && step.kind === 'wait.until' && isSlow(step.slots.condition)) {
      body.add(`${pad}while not (${slotText(step, 'condition')[0]}):\n${pad}    await tick`, step.id);
      return;
    }
    if (several && step.kind === 'wait.limit' && isSlow(step.slots.condition)) {
      body.add(
        `${pad}for _ in within(${slotText(step, 'time')[0]}):\n${pad}    if until(${slotText(step, 'condition')[0]}):`,
        step.id
      );
      body.add(`${pad}        break\n${pad}    await tick`, step.id);
      return;
    }
    if (step.kind === 'repeat.next' && around) {
      // what the end of the turn would have done
      if (several) body.add(`${pad}await turn`, step.id);
      const after = formOf(around, program)
        .lines.slice(1)
        .filter((l) => 'segments' in l);
      for (const line of after)
        if ('segments' in line)
          body.add(pad + '    '.repeat(line.indent - 1) + line.segments.map((s) => fill(around, s)).join(''), step.id);
    }
    const def = definition(step.kind);
    const isLoop = 'loop' in def && def.loop;
    // a condition that begins with not, or the text would be that of "until"
    const condition = step.slots.condition;
    const bracketed = step.kind === 'repeat.while' && isStep(condition) && condition.kind === 'calc.not';
    for (const line of formOf(step, program).lines) {
      const inner = indent + line.indent;
      if ('segments' in line) {
        const text = line.segments
          .map((s) => ('slot' in s && bracketed ? `(${fill(step, s)})` : fill(step, s)))
          .join('');
        body.add('    '.repeat(inner) + text, step.id);
        continue;
      }
      const list = step.bodies?.[line.body] ?? [];
      printList(list, inner, isLoop ? step : around);
      const on = list.filter((s) => !s.off);
      if (isLoop && several && !['repeat.leave', 'repeat.next', 'routine.give'].includes(on.at(-1)?.kind ?? ''))
        body.add(`${'    '.repeat(inner)}await turn`, step.id);
      else if (on.length === 0 && !(step.slots.look === 'after')) body.add(`${'    '.repeat(inner)}pass`, step.id);
    }
  };

  const nameOfStep = (id: string): string => names.give(id, '');
  const assigned = (steps: readonly Step[]): string[] => {
    const ids = new Set<string>();
    for (const s of walkSteps(steps))
      if (['var.set', 'var.change', 'repeat.count', 'repeat.each'].includes(s.kind)) ids.add(String(s.slots.variable));
    return [...ids].map((id) =>
      program.variables.some((v) => v.id === id) ? nameOfStep(id) : names.give('nothing', 'nameless variable')
    );
  };
  const define = (head: string, steps: readonly Step[], note: string | undefined, owner: string): void => {
    if (note) for (const line of noteLines(note)) body.add(line, owner);
    body.add(`${several ? 'async ' : ''}def ${head}`, owner);
    const globals = assigned(steps);
    if (globals.length) body.add(`    global ${globals.join(', ')}`);
    printList(steps, 1, undefined);
    if (steps.every((s) => s.off) && globals.length === 0) body.add('    pass', owner);
  };
  /** the comment that keeps a name which its identifier does not tell */
  const told = (identifier: string, name: string): string => (natural(identifier) === name ? '' : `  # ${name}`);

  const starts: string[] = [];
  for (const stack of program.stacks) {
    const starter = definition(stack.steps[0]?.kind ?? 'log.line').shape === 'starter' ? stack.steps[0] : undefined;
    if (stack.steps.length === 0) continue;
    body.add('\n');
    const from = body.lines.length;
    if (!starter) {
      printList(stack.steps, 0, undefined);
      body.comment(from, 0, stack.parked ? 'parked' : 'loose');
      continue;
    }
    const def = definition(starter.kind);
    const wanted = def.shape === 'starter' ? def.fname(starter) : '';
    const name = wanted === 'main' && isLive(stack) && !starts.includes('main') ? 'main' : names.give(stack.id, wanted);
    define(`${name}():`, stack.steps.slice(1), starter.note, starter.id);
    const [line] = formOf(starter, program).lines;
    const trigger = 'segments' in line ? line.segments.map((s) => fill(starter, s, name)).join('') : name;
    if (isLive(stack)) starts.push(trigger);
    else {
      body.add(`run(${trigger})`, starter.id);
      if (starter.off) body.comment(from, 0, 'off');
      if (stack.parked) body.comment(from, 0, 'parked');
    }
  }
  if (live.length === 0) {
    body.add('\n');
    define('main():', [], undefined, '');
    starts.push('main');
  }
  for (const routine of program.routines) {
    body.add('\n');
    scope = new Names(names);
    define(routineHead(routine), routine.steps, routine.note, routine.id);
    scope = names;
  }
  function routineHead(routine: Routine): string {
    const own = names.give(routine.id, routine.name);
    const inputs = (routine.inputs ?? []).map((i) => ({ ...i, text: scope.give(i.id, i.name) }));
    const list = inputs.map((i) => i.text + (ANNOTATIONS[i.type] && `: ${ANNOTATIONS[i.type]}`)).join(', ');
    const plain = natural(own) === routine.name && inputs.every((i) => natural(i.text) === i.name);
    const all = [routine.name, ...inputs.map((i) => i.name)];
    return `${own}(${list}):${plain ? '' : `  # ${all.length > 1 ? all.map((n) => JSON.stringify(n)).join(' ') : all[0]}`}`;
  }
  for (const { value } of program.loose) {
    body.add('\n');
    const from = body.lines.length;
    body.add(valueText(value)[0], value.id);
    body.comment(from, 0, 'loose');
  }

  const sheet = new Sheet();
  sheet.add('from mossbell import *');
  if (tops.size) sheet.add('');
  for (const line of tops.values()) sheet.add(line);
  if (program.variables.length) sheet.add('');
  for (const v of program.variables) {
    const name = nameOfStep(v.id);
    sheet.add(`${name} = ${v.list ? '[]' : '0'}${told(name, v.name)}`);
  }
  sheet.lines.push(...body.lines);
  sheet.blocks.push(...body.blocks.map((b) => b || null));
  sheet.add('\n');
  sheet.add(`run(${starts.join(', ')})`);
  sheet.lines.push('');
  return { text: sheet.lines.join('\n'), blocks: sheet.blocks };
}
