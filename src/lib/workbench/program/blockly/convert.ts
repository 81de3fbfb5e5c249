/** Program <-> the block library's workspace. The program is the truth; the workspace is brought in line with it. */
import * as Blockly from 'blockly/core';
import { catalogue, definition, slotSpec, wordsOf } from '../../../../../core/language/catalogue.ts';
import { holdsValue, pieces, type SlotSpec } from '../../../../../core/language/define.ts';
import {
  isPicture,
  isStep,
  type Literal,
  type Program,
  type Routine,
  type Slot,
  type Stack,
  type Step
} from '../../../../../core/language/program.ts';
import { coveredIn, isTyped } from '../../../../../core/language/edit.ts';
import { asTyped, show, typedNumber, typedValue } from '../../../../../core/language/values.ts';
import { grownOf, specOf, type Growing } from './blocks.ts';
import { word } from '../../../../../core/words.ts';

type State = Blockly.serialization.blocks.State;
/** What a block carries beside its slots, in the block library's own data field. */
export type Tags = { parked?: true; note?: string };
export const tagsOf = (block: Blockly.Block): Tags => (block.data ? (JSON.parse(block.data) as Tags) : {});
const tags = ({ parked, note }: Tags): string | null => (parked || note ? JSON.stringify({ parked, note }) : null);

const LITERAL: Partial<Record<SlotSpec['type'], string>> = {
  number: 'lit.number',
  text: 'lit.text',
  picture: 'lit.picture',
  any: 'lit.any'
};
/** What was typed into a slot, also below the value block that covers it. */
const typedIn = (step: Step, name: string, spec: SlotSpec): Literal | undefined => {
  const slot = step.slots[name];
  return slot === undefined || isStep(slot) ? coveredIn(step, name, spec) : slot;
};
/** What a slot's own shadow holds. */
function shadow(typed: Literal | undefined, spec: SlotSpec): State {
  const value = typed ?? (spec as { default: Literal }).default;
  const text = isPicture(value)
    ? value.picture
    : spec.type === 'any' && typeof value === 'string'
      ? asTyped(value)
      : typeof value === 'number'
        ? show(value)
        : String(value);
  return { type: LITERAL[spec.type]!, fields: { V: text } };
}

/** A step as the block library would save it. @param program what names in it mean */
export function stateOf(step: Step, program: Program): State {
  const state: State = { type: step.kind, id: step.id, fields: {}, inputs: {} };
  const def = definition(step.kind);
  for (const piece of wordsOf(step, program)) {
    if ('body' in piece) {
      const inner = chain(step.bodies?.[piece.body] ?? [], program);
      if (inner) state.inputs![piece.body] = { block: inner };
    } else if ('slot' in piece) {
      const name = piece.slot;
      const spec = slotSpec(step, name, program);
      if (!spec) continue;
      const slot = step.slots[name];
      if (step.kind === 'picture.value') state.fields![name] = (slot as { picture: string }).picture;
      else if (!holdsValue(spec)) state.fields![name] = String(slot ?? '');
      else {
        const input: { shadow?: State; block?: State } = {};
        if (LITERAL[spec.type]) input.shadow = shadow(typedIn(step, name, spec), spec);
        if (isStep(slot)) input.block = stateOf(slot, program);
        if (input.shadow || input.block) state.inputs![name] = input;
      }
    }
  }
  if (def.grows) state.extraState = grownOf(step, program);
  if (step.note) state.data = tags({ note: step.note })!;
  if (step.off) state.disabledReasons = ['off'];
  return state;
}
function chain(steps: readonly Step[], program: Program): State | undefined {
  let next: State | undefined;
  for (let i = steps.length - 1; i >= 0; i--) {
    const state = stateOf(steps[i], program);
    if (next) state.next = { block: next };
    next = state;
  }
  return next;
}
const routineState = (r: Routine): State => ({
  type: 'routine.define',
  id: r.id,
  fields: { NAME: r.name },
  ...(r.inputs?.length ? { extraState: { needs: r.inputs.map((i) => `${i.name} (${word(i.type)})`).join(', ') } } : {}),
  ...(r.note ? { data: tags({ note: r.note })! } : {})
});

function readSlot(block: Blockly.Block, name: string, spec: SlotSpec): Slot | undefined {
  const target = block.getInputTargetBlock(name);
  if (!target || target.isInsertionMarker()) return undefined;
  return target.type.startsWith('lit.') ? literal(String(target.getFieldValue('V') ?? ''), spec) : readStep(target);
}
function literal(text: string, spec: SlotSpec): Literal {
  if (spec.type === 'picture') return { picture: text };
  if (spec.type === 'any') return typedValue(text);
  return spec.type === 'text' ? text : (typedNumber(text) ?? text);
}
export function readStep(block: Blockly.Block): Step {
  const def = definition(block.type);
  const step: Step = { id: block.id, kind: block.type, slots: {} };
  const { grown_ } = block as Growing;
  const words = def.grows ? pieces(grown_?.words ?? def.words) : pieces(def.words);
  for (const piece of words) {
    if ('body' in piece) (step.bodies ??= {})[piece.body] = readChain(block.getInputTargetBlock(piece.body));
    else if ('slot' in piece) {
      const name = piece.slot;
      const spec = specOf(block, name);
      if (!spec) continue;
      if (def.kind === 'picture.value') step.slots[name] = { picture: String(block.getFieldValue(name)) };
      else if (!holdsValue(spec)) step.slots[name] = String(block.getFieldValue(name) ?? '');
      else {
        const slot = readSlot(block, name, spec);
        if (slot !== undefined) step.slots[name] = slot;
        const below = isStep(slot) && block.getInput(name)!.connection!.getShadowState();
        const typed = below ? literal(String(below.fields!.V), spec) : undefined;
        if (typed !== undefined && isTyped(typed, spec)) (step.covered ??= {})[name] = typed;
        if (slot === undefined && 'default' in spec) step.slots[name] = spec.default;
      }
    }
  }
  if (grown_?.cannot !== undefined) {
    step.slots.cannot = grown_.cannot;
    for (const row of grown_.cannot.split(' ').filter(Boolean)) (step.bodies ??= {})[row] ??= [];
  }
  const { note } = tagsOf(block);
  if (note) step.note = note;
  if (block.hasDisabledReason('off')) step.off = true;
  return step;
}
function readChain(first: Blockly.Block | null): Step[] {
  const steps: Step[] = [];
  for (let b = first; b; b = b.getNextBlock())
    if (!b.isInsertionMarker() && catalogue.has(b.type)) steps.push(readStep(b));
  return steps;
}

/** The program as the workspace shows it; what is not in the workspace (variables, inputs) comes from `before`. */
export function readWorkspace(ws: Blockly.WorkspaceSvg, before: Program): Program {
  const stackIds = new Map(before.stacks.map((s) => [s.steps[0]?.id, s.id]));
  const tops = ws.getTopBlocks(true);
  const taken = new Set<string>();
  const kept = new Set(tops.flatMap((b) => stackIds.get(b.id) ?? []));
  const freeStackId = (wish: string): string => {
    let id = wish;
    while (taken.has(id) || kept.has(id)) id += '+';
    return id;
  };
  const program: Program = { stacks: [], routines: [], variables: before.variables, loose: [] };
  for (const block of tops) {
    if (block.isInsertionMarker() || block.isShadow()) continue;
    const { x, y } = block.getRelativeToSurfaceXY();
    const at = { x: Math.round(x), y: Math.round(y) };
    if (block.type === 'routine.define') {
      const { note } = tagsOf(block);
      const inputs = before.routines.find((r) => r.id === block.id)?.inputs;
      program.routines.push({
        id: block.id,
        name: String(block.getFieldValue('NAME')),
        ...(inputs ? { inputs } : {}),
        ...at,
        steps: readChain(block.getNextBlock()),
        ...(note ? { note } : {})
      });
    } else if (block.outputConnection) program.loose.push({ ...at, value: readStep(block) });
    else {
      // a stack that was named after this block may still be there, without it
      const known = stackIds.get(block.id);
      const id = known !== undefined && !taken.has(known) ? known : freeStackId(`s-${block.id}`);
      taken.add(id);
      program.stacks.push({ id, ...at, steps: readChain(block), ...(tagsOf(block).parked ? { parked: true } : {}) });
    }
  }
  return program;
}

/** Brings the workspace in line with a program, block by block, by id: only what differs is touched. */
export function bringIn(ws: Blockly.WorkspaceSvg, program: Program): void {
  Blockly.Events.disable();
  // as the library does it where it loads a whole sheet: sizes are worked out once, at the end
  ws.setResizesEnabled(false);
  Blockly.utils.dom.startTextWidthCache();
  try {
    try {
      new Sync(ws, program).all();
    } catch (problem) {
      // the program is the truth: whatever the sheet came to, it is made anew from it
      console.error(problem);
      ws.clear();
      new Sync(ws, program).all();
    }
  } finally {
    Blockly.utils.dom.stopTextWidthCache();
    ws.setResizesEnabled(true);
    Blockly.Events.enable();
  }
}

class Sync {
  private readonly wanted = new Set<string>();
  constructor(
    private readonly ws: Blockly.WorkspaceSvg,
    private readonly program: Program
  ) {}

  all(): void {
    const { program, ws } = this;
    for (const r of program.routines) this.wanted.add(r.id);
    // what a block has no place for any more (a routine's input that is gone) is not shown
    const note = (steps: readonly Step[]): void => {
      for (const s of steps) {
        this.wanted.add(s.id);
        for (const piece of wordsOf(s, program)) {
          if ('body' in piece) note(s.bodies?.[piece.body] ?? []);
          else if ('slot' in piece && isStep(s.slots[piece.slot]) && slotSpec(s, piece.slot, program))
            note([s.slots[piece.slot] as Step]);
        }
      }
    };
    for (const s of [...program.stacks, ...program.routines]) note(s.steps);
    note(program.loose.map((l) => l.value));
    for (const stack of program.stacks) {
      const { steps, x, y } = stack;
      if (!steps.length) continue;
      // a stack that is not there yet is made in one piece, which is much faster
      const fresh = this.fresh(steps) && this.make({ ...chain(steps, program)!, x, y });
      this.top(stack, fresh || this.list(steps, undefined)!);
    }
    for (const r of program.routines) {
      const { steps, x, y } = r;
      if (!ws.getBlockById(r.id) && this.fresh(steps)) {
        const next = chain(steps, program);
        this.make({ ...routineState(r), ...(next ? { next: { block: next } } : {}), x, y });
        continue;
      }
      const head = this.routine(r);
      this.below(head, steps);
      this.top(r, head);
    }
    for (const l of program.loose) this.top(l, this.one(l.value));
    // what is left over was taken out
    for (const block of ws.getAllBlocks(false))
      // what a block holds goes with it
      if (!block.isDeadOrDying() && !block.isShadow() && !block.isInsertionMarker() && !this.wanted.has(block.id))
        block.dispose(true);
  }
  private top(place: { x: number; y: number } | Stack, block: Blockly.BlockSvg): void {
    const parent = block.previousConnection?.targetConnection ?? block.outputConnection?.targetConnection;
    if (parent) (block.previousConnection ?? block.outputConnection)!.disconnect();
    const at = block.getRelativeToSurfaceXY();
    if (Math.round(at.x) !== place.x || Math.round(at.y) !== place.y) block.moveBy(place.x - at.x, place.y - at.y);
    // who heads a parked stack says so
    if ('steps' in place && 'parked' in place && place.parked) block.data = tags({ ...tagsOf(block), parked: true });
  }
  private make(state: State): Blockly.BlockSvg {
    return Blockly.serialization.blocks.append(state, this.ws) as Blockly.BlockSvg;
  }
  private routine(r: Routine): Blockly.BlockSvg {
    const state = routineState(r);
    let block = this.ws.getBlockById(r.id);
    if (!block) return this.make(state);
    const needs = (state.extraState as { needs?: string } | undefined)?.needs;
    if (((block as unknown as { needs_?: string }).needs_ ?? undefined) !== needs) {
      const next = block.getNextBlock();
      next?.previousConnection?.disconnect();
      const { x, y } = block.getRelativeToSurfaceXY();
      block.dispose(false);
      block = this.make({ ...state, x, y });
      return block;
    }
    if (block.getFieldValue('NAME') !== r.name) block.setFieldValue(r.name, 'NAME');
    block.data = state.data ?? null;
    return block;
  }
  /** The blocks of a list, joined in its order; the first of them. @param inside where it hangs */
  private list(steps: readonly Step[], inside: Blockly.Connection | undefined): Blockly.BlockSvg | undefined {
    let first: Blockly.BlockSvg | undefined;
    let above: Blockly.Connection | null | undefined = inside;
    for (const step of steps) {
      const block = this.one(step);
      first ??= block;
      if (above) join(above, block.previousConnection);
      above = block.nextConnection;
    }
    this.cut(above, steps.length > 0 || inside !== undefined);
    return first;
  }
  private below(head: Blockly.BlockSvg, steps: readonly Step[]): void {
    let above: Blockly.Connection = head.nextConnection!;
    for (const step of steps) {
      const block = this.one(step);
      join(above, block.previousConnection);
      if (!block.nextConnection) return;
      above = block.nextConnection;
    }
    this.cut(above, true);
  }
  /** What hangs on below belongs elsewhere, or nowhere. */
  private cut(above: Blockly.Connection | null | undefined, at: boolean): void {
    if (at && above?.isConnected() && !above.targetBlock()?.isInsertionMarker()) above.disconnect();
  }
  private one(step: Step): Blockly.BlockSvg {
    let block = this.ws.getBlockById(step.id);
    const def = definition(step.kind);
    const words = def.grows ? grownOf(step, this.program) : undefined;
    if (
      block &&
      (block.type !== step.kind ||
        (words && JSON.stringify((block as Growing & Blockly.BlockSvg).grown_) !== JSON.stringify(words)))
    ) {
      // it has another shape: made anew; what it holds is taken over by id
      for (const input of block.inputList) {
        const inner = input.connection?.targetBlock();
        if (inner && !inner.isShadow()) input.connection!.disconnect();
      }
      if (block.nextConnection?.targetBlock()) block.nextConnection.disconnect();
      const { x, y } = block.getRelativeToSurfaceXY();
      block.dispose(false);
      block = this.make({ ...bareState(step, this.program), x, y });
    }
    block ??= this.make((this.fresh([step]) ? stateOf : bareState)(step, this.program));
    for (const piece of wordsOf(step, this.program)) {
      if ('body' in piece) {
        const connection = block.getInput(piece.body)?.connection;
        if (connection) this.list(step.bodies?.[piece.body] ?? [], connection);
      } else if ('slot' in piece) this.slot(block, step, piece.slot);
    }
    block.data = tags(step.note ? { note: step.note } : {});
    if (block.hasDisabledReason('off') !== !!step.off) block.setDisabledReason(!!step.off, 'off');
    return block;
  }
  /** Whether none of the blocks of these steps is there yet. */
  private fresh(steps: readonly Step[]): boolean {
    return steps.every(
      (s) =>
        !this.ws.getBlockById(s.id) &&
        Object.values(s.slots).every((slot) => !isStep(slot) || this.fresh([slot])) &&
        Object.values(s.bodies ?? {}).every((body) => this.fresh(body))
    );
  }
  private slot(block: Blockly.BlockSvg, step: Step, name: string): void {
    const spec = slotSpec(step, name, this.program);
    if (!spec) return;
    const value = step.slots[name];
    if (!holdsValue(spec) || step.kind === 'picture.value') {
      const text = isPicture(value) ? value.picture : String(value ?? '');
      if (block.getField(name) && String(block.getFieldValue(name)) !== text) block.setFieldValue(text, name);
      return;
    }
    const connection = block.getInput(name)?.connection;
    if (!connection) return;
    const target = connection.targetBlock();
    const want = LITERAL[spec.type] && shadow(typedIn(step, name, spec), spec);
    if (isStep(value)) {
      const inner = this.one(value);
      if (target !== inner) join(connection, inner.outputConnection);
      if (want && connection.getShadowState()?.fields?.V !== want.fields!.V) connection.setShadowState(want);
      return;
    }
    if (target && !target.isShadow()) connection.disconnect();
    if (!want) return;
    const literal = connection.targetBlock();
    if (!literal) connection.setShadowState(want);
    else if (String(literal.getFieldValue('V')) !== want.fields!.V) literal.setFieldValue(want.fields!.V, 'V');
  }
}
/** A step as a block that holds no other blocks yet. */
function bareState(step: Step, program: Program): State {
  const bare: Step = {
    ...step,
    slots: Object.fromEntries(Object.entries(step.slots).filter(([, s]) => !isStep(s))),
    bodies: step.bodies && Object.fromEntries(Object.keys(step.bodies).map((b) => [b, []]))
  };
  return stateOf(bare, program);
}
function join(above: Blockly.Connection, below: Blockly.Connection | null): void {
  if (!below || above.targetConnection === below) return;
  // a shadow goes by itself where a block takes its place: taken off by hand it would stay loose on the sheet
  if (above.targetBlock()?.isShadow() === false) above.disconnect();
  if (below.isConnected()) below.disconnect();
  above.connect(below);
}
