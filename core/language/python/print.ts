/** Program -> MicroPython text that a pupil can read, with a line <-> block map. */
import { partAt, wheelMotor, type Kit } from '../../kit/kit.ts';
import { definition, slotSpec } from '../catalogue.ts';
import { PREC, type Printer, type Text, type Thing } from '../define.ts';
import { isLive, isPicture, isStep, liveSteps, type Program, type Step } from '../program.ts';
import { show, typedNumber } from '../values.ts';
import { Names } from './names.ts';

export type Printed = {
  text: string;
  /** the block of each line, or null; lines count from 0 */
  blocks: (string | null)[];
  /** lines that run as one step each; the others belong to the text only */
  steps: boolean[];
};

class Sheet {
  readonly lines: string[] = [];
  readonly blocks: (string | null)[] = [];
  readonly steps: boolean[] = [];
  add(text: string, block: string | null = null, step = false): void {
    for (const line of text.split('\n')) {
      this.lines.push(line);
      this.blocks.push(block);
      this.steps.push(step);
    }
  }
}

export function printPython(program: Program, kit: Kit): Printed {
  const live = program.stacks.filter(isLive);
  const several = live.length !== 1 || live.some((s) => s.steps[0].kind !== 'begin.start');
  const names = new Names();
  const tops = new Map<string, string>();
  const sheet = new Sheet();
  const body = new Sheet();
  const used = new Set<string>();
  for (const v of program.variables) names.give(v.id, v.name);
  for (const r of program.routines) names.give(r.id, r.name);

  const thing = (name: Thing): string => {
    const w = kit.wheels;
    const same = w.leftDiameterMm === w.rightDiameterMm;
    const socket = (side: 'left' | 'right') => `"${wheelMotor(kit, side)?.socket ?? ''}"`;
    const top: Record<Thing, string> = {
      wheels: `Wheels(left=${socket('left')}, right=${socket('right')}, diameter_mm=${same ? show(w.leftDiameterMm) : `(${show(w.leftDiameterMm)}, ${show(w.rightDiameterMm)})`}, track_mm=${show(w.trackMm)})`,
      display: 'Display()',
      gyro: 'Gyro()',
      nose: 'Nose()',
      distance: `Distance("${kit.parts.find((p) => p.type === 'distance')?.socket ?? '10'}")`,
      left_lamp: 'Lamp("left")',
      right_lamp: 'Lamp("right")',
      dot: 'Button("Dot")',
      bar: 'Button("Bar")'
    };
    tops.set(name, `${name} = ${top[name]}`);
    return name;
  };
  const partOf = (socket: string, type: string): string => {
    const part = partAt(kit, socket);
    const suffix = type === 'line' ? ' line' : type === 'motor' && part?.drives ? ' motor' : '';
    const name = names.give(`part ${type} ${socket}`, part ? `${part.name}${suffix}` : `${type} ${socket}`);
    const cls = { servo: 'Servo', motor: 'Motor', line: 'Line', distance: 'Distance' }[type];
    tops.set(name, `${name} = ${cls}("${socket}")`);
    return name;
  };

  const slotText = (step: Step, name: string): Text => {
    const slot = step.slots[name];
    const spec = slotSpec(step, name);
    if (isStep(slot)) {
      if (slot.off) return [spec?.type === 'condition' ? 'False' : '0', PREC.atom];
      const def = definition(slot.kind);
      return def.shape === 'value' ? def.python(printer(slot, 0)) : ['None', PREC.atom];
    }
    if (slot === undefined || slot === '')
      return [spec?.type === 'condition' ? 'False' : spec?.type === 'any' ? '""' : 'None', PREC.atom];
    if (isPicture(slot)) return [`Picture(${JSON.stringify(slot.picture)})`, PREC.atom];
    if (typeof slot === 'boolean') return [slot ? 'True' : 'False', PREC.atom];
    const n = typeof slot === 'number' ? slot : typedNumber(slot);
    if (n !== undefined) return [show(n), n < 0 ? PREC.unary : PREC.atom];
    return [JSON.stringify(slot), PREC.atom];
  };
  const bracket = ([text, prec]: Text, atLeast: number): string => (prec < atLeast ? `(${text})` : text);

  const printer = (step: Step, indent: number): Printer => {
    const pad = '    '.repeat(indent);
    return {
      step,
      wait: several ? 'await ' : '',
      slot: (name, precedence = 0) => bracket(slotText(step, name), precedence),
      whole: (name) => {
        const slot = step.slots[name];
        const n = typeof slot === 'number' ? slot : typeof slot === 'string' ? typedNumber(slot) : undefined;
        return n !== undefined && Number.isInteger(n) ? show(n) : `whole(${slotText(step, name)[0]})`;
      },
      choice: (name) => String(step.slots[name]),
      name: (slot) => {
        const spec = slotSpec(step, slot);
        const value = String(step.slots[slot]);
        if (spec?.type === 'part') return partOf(value, spec.part);
        if (spec?.type === 'variable') {
          const variable = program.variables.find((v) => v.id === value);
          used.add(value);
          return names.give(value || 'nothing', variable?.name ?? 'nameless');
        }
        return names.give(
          value || 'no routine',
          program.routines.find((r) => r.id === value)?.name ?? 'nameless routine'
        );
      },
      thing,
      line: (text) => body.add(pad + text, step.id, !/^\s*(elif |else:|if until\(|break$)/.test(text)),
      body: (name, end) => {
        const steps = (step.bodies?.[name] ?? []).filter((s) => !s.off);
        for (const inner of steps) printStep(inner, indent + 1);
        if (end === 'turn' && several) body.add(`${pad}    await turn`, step.id);
        else if (steps.length === 0 && !(step.kind === 'repeat.until' && step.slots.look === 'after'))
          body.add(`${pad}    pass`, step.id);
      }
    };
  };
  const printStep = (step: Step, indent: number): void => {
    const def = definition(step.kind);
    if (def.shape === 'value' || def.shape === 'starter') return;
    if (step.note) for (const line of step.note.split('\n')) body.add(`${'    '.repeat(indent)}# ${line}`, step.id);
    def.python(printer(step, indent));
  };
  const assigned = (steps: readonly Step[]): string[] => {
    const ids = new Set<string>();
    const look = (list: readonly Step[]): void => {
      for (const s of list) {
        if (s.off) continue;
        if (s.kind === 'var.set' || s.kind === 'var.change') ids.add(String(s.slots.variable));
        for (const b of Object.values(s.bodies ?? {})) look(b);
      }
    };
    look(steps);
    return [...ids].map((id) =>
      names.give(id || 'nothing', program.variables.find((v) => v.id === id)?.name ?? 'nameless')
    );
  };
  const define = (name: string, steps: readonly Step[], note: string | undefined, owner: string): void => {
    body.add('\n');
    body.add(`${several ? 'async ' : ''}def ${name}():`, owner);
    if (note) for (const line of note.split('\n')) body.add(`    # ${line}`, owner);
    const globals = assigned(steps);
    if (globals.length) body.add(`    global ${globals.join(', ')}`);
    const on = steps.filter((s) => !s.off);
    for (const step of on) printStep(step, 1);
    if (on.length === 0 && globals.length === 0) body.add('    pass');
  };

  const triggers: string[] = [];
  const starts: string[] = [];
  const functions = new Names();
  for (const stack of live) {
    const starter = stack.steps[0];
    const def = definition(starter.kind);
    if (def.shape !== 'starter') continue;
    const { name: wanted, trigger } = def.python(printer(starter, 0));
    const name =
      wanted === 'main'
        ? starts.length
          ? names.give(stack.id, `main_${starts.length + 1}`)
          : 'main'
        : names.give(stack.id, functions.give(stack.id, wanted));
    if (trigger) triggers.push(`when(${trigger}, ${name})`);
    else starts.push(name);
    define(name, stack.steps.slice(1), starter.note, starter.id);
  }
  if (live.length === 0) define('main', [], undefined, '');
  const called = new Set(
    [...liveSteps(program)].filter((s) => s.kind === 'routine.do').map((s) => String(s.slots.routine))
  );
  for (const routine of program.routines)
    if (called.has(routine.id)) define(names.give(routine.id, routine.name), routine.steps, routine.note, routine.id);
  if (called.has('')) define(names.give('no routine', 'nameless routine'), [], undefined, '');

  sheet.add('from mossbell import *');
  if (tops.size) sheet.add('');
  for (const line of tops.values()) sheet.add(line);
  const variables = program.variables.filter((v) => used.has(v.id));
  if (variables.length) sheet.add('');
  for (const v of variables) sheet.add(`${names.give(v.id, v.name)} = 0`);
  for (let i = 0; i < body.lines.length; i++) {
    sheet.lines.push(body.lines[i]);
    sheet.blocks.push(body.blocks[i] || null);
    sheet.steps.push(body.steps[i]);
  }
  sheet.add('\n');
  sheet.add(
    `run(${[...(starts.length || live.length === 0 ? (starts.length ? starts : ['main']) : []), ...triggers].join(', ')})`
  );
  sheet.lines.push('');
  return { text: sheet.lines.join('\n'), blocks: sheet.blocks, steps: sheet.steps };
}
