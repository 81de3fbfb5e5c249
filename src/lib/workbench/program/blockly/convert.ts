/** Program <-> the block library's workspace. The program is the truth; the workspace is brought in line with it. */
import * as Blockly from 'blockly/core';
import { catalogue, definition, slotSpec, slotsOf, wordsOf } from '../../../../../core/language/catalogue.ts';
import { branches, hasOtherwise } from '../../../../../core/language/blocks/choose.ts';
import { isPicture, isStep, type Program, type Slot, type Step } from '../../../../../core/language/program.ts';
import { show, typedNumber } from '../../../../../core/language/values.ts';

type State = Blockly.serialization.blocks.State;
/** What a block carries beside its slots, in the block library's own data field. */
export type Tags = { parked?: true; note?: string };
export const tagsOf = (block: Blockly.Block): Tags => (block.data ? (JSON.parse(block.data) as Tags) : {});
const tags = (t: Tags): { data?: string } => (t.parked || t.note ? { data: JSON.stringify(t) } : {});

/** What a slot's own shadow holds. */
function shadow(slot: Slot | undefined, type: string, fallback: Slot): State {
  const value = slot !== undefined && !isStep(slot) ? slot : fallback;
  if (type === 'picture') return { type: 'lit.picture', fields: { V: isPicture(value) ? value.picture : '' } };
  const text = typeof value === 'number' ? show(value) : String(isPicture(value) ? '' : value);
  return { type: type === 'number' ? 'lit.number' : 'lit.any', fields: { V: text } };
}

export function stateOf(step: Step): State {
  const state: State = { type: step.kind, id: step.id, fields: {}, inputs: {} };
  for (const name of slotsOf(step)) {
    const spec = slotSpec(step, name)!;
    const slot = step.slots[name];
    if (step.kind === 'picture.value') state.fields![name] = (slot as { picture: string }).picture;
    else if (spec.type === 'number' || spec.type === 'any' || spec.type === 'picture') {
      state.inputs![name] = { shadow: shadow(slot, spec.type, spec.default) };
      if (isStep(slot)) state.inputs![name].block = stateOf(slot);
    } else if (spec.type === 'condition') {
      if (isStep(slot)) state.inputs![name] = { block: stateOf(slot) };
    } else state.fields![name] = String(slot ?? '');
  }
  for (const piece of wordsOf(step))
    if ('body' in piece) {
      const inner = chain(step.bodies?.[piece.body] ?? []);
      if (inner) state.inputs![piece.body] = { block: inner };
    }
  if (step.kind === 'choose.if') state.extraState = { branches: branches(step), otherwise: hasOtherwise(step) };
  if (step.note) Object.assign(state, tags({ note: step.note }));
  if (step.off) state.disabledReasons = ['off'];
  return state;
}
function chain(steps: readonly Step[]): State | undefined {
  let next: State | undefined;
  for (let i = steps.length - 1; i >= 0; i--) {
    const state = stateOf(steps[i]);
    if (next) state.next = { block: next };
    next = state;
  }
  return next;
}
/** Each top-level thing of a program: its key in the workspace is the id of its first block. */
export function tops(program: Program): Map<string, State> {
  const found = new Map<string, State>();
  for (const stack of program.stacks) {
    const state = chain(stack.steps);
    if (state)
      found.set(state.id!, {
        ...state,
        x: stack.x,
        y: stack.y,
        ...tags({
          ...(stack.parked ? { parked: true } : {}),
          ...(stack.steps[0].note ? { note: stack.steps[0].note } : {})
        })
      });
  }
  for (const r of program.routines) {
    const next = chain(r.steps);
    found.set(r.id, {
      type: 'routine.define',
      id: r.id,
      fields: { NAME: r.name },
      x: r.x,
      y: r.y,
      ...(next ? { next: { block: next } } : {}),
      ...tags({ note: r.note })
    });
  }
  for (const l of program.loose) found.set(l.value.id, { ...stateOf(l.value), x: l.x, y: l.y });
  return found;
}

function readSlot(block: Blockly.Block, name: string, type: string): Slot | undefined {
  const target = block.getInputTargetBlock(name);
  if (!target || target.isInsertionMarker()) return undefined;
  if (!target.type.startsWith('lit.')) return readStep(target);
  const text = String(target.getFieldValue('V') ?? '');
  if (type === 'picture') return { picture: text };
  const n = typedNumber(text);
  return n ?? text;
}
function readStep(block: Blockly.Block): Step {
  const def = definition(block.type);
  const step: Step = { id: block.id, kind: block.type, slots: {} };
  if (block.type === 'choose.if') {
    const { branches_, otherwise_ } = block as unknown as { branches_: number; otherwise_: boolean };
    step.bodies = {};
    for (let n = 1; n <= branches_; n++) {
      const slot = readSlot(block, `if${n}`, 'condition');
      if (slot !== undefined) step.slots[`if${n}`] = slot;
      step.bodies[`then${n}`] = readChain(block.getInputTargetBlock(`then${n}`));
    }
    if (otherwise_) step.bodies.otherwise = readChain(block.getInputTargetBlock('otherwise'));
  } else {
    for (const [name, spec] of Object.entries(def.slots)) {
      if (block.type === 'picture.value') step.slots[name] = { picture: String(block.getFieldValue(name)) };
      else if (spec.type === 'number' || spec.type === 'any' || spec.type === 'picture' || spec.type === 'condition') {
        const slot = readSlot(block, name, spec.type);
        if (slot !== undefined) step.slots[name] = slot;
        else if (spec.type !== 'condition') step.slots[name] = spec.default;
      } else step.slots[name] = String(block.getFieldValue(name) ?? '');
    }
    for (const piece of wordsOf(step))
      if ('body' in piece) (step.bodies ??= {})[piece.body] = readChain(block.getInputTargetBlock(piece.body));
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

/** The program as the workspace shows it; what is not in the workspace (variables) comes from `before`. */
export function readWorkspace(ws: Blockly.WorkspaceSvg, before: Program): Program {
  const stackIds = new Map(before.stacks.map((s) => [s.steps[0]?.id, s.id]));
  const taken = new Set<string>();
  const program: Program = { stacks: [], routines: [], variables: before.variables, loose: [] };
  for (const block of ws.getTopBlocks(true)) {
    if (block.isInsertionMarker() || block.isShadow()) continue;
    const { x, y } = block.getRelativeToSurfaceXY();
    const at = { x: Math.round(x), y: Math.round(y) };
    if (block.type === 'routine.define') {
      const { note } = tagsOf(block);
      program.routines.push({
        id: block.id,
        name: String(block.getFieldValue('NAME')),
        ...at,
        steps: readChain(block.getNextBlock()),
        ...(note ? { note } : {})
      });
    } else if (block.outputConnection) program.loose.push({ ...at, value: readStep(block) });
    else {
      let id = stackIds.get(block.id) ?? `s-${block.id}`;
      if (taken.has(id)) id = `s-${block.id}`;
      taken.add(id);
      program.stacks.push({ id, ...at, steps: readChain(block), ...(tagsOf(block).parked ? { parked: true } : {}) });
    }
  }
  return program;
}

/** Brings the workspace in line: only top-level things that differ are made anew. */
export function bringIn(ws: Blockly.WorkspaceSvg, now: Program, program: Program): void {
  const have = tops(now);
  const want = tops(program);
  Blockly.Events.disable();
  try {
    for (const [id, state] of have) {
      if (JSON.stringify(state) !== JSON.stringify(want.get(id))) ws.getBlockById(id)?.dispose(false);
    }
    for (const [id, state] of want) if (!ws.getBlockById(id)) Blockly.serialization.blocks.append(state, ws);
  } finally {
    Blockly.Events.enable();
  }
}
