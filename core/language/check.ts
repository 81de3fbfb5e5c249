/** Whether a program holds together: what its schema cannot say. */
import { say } from '../words.ts';
import { bodiesOf, catalogue, slotSpec } from './catalogue.ts';
import { allSteps, isStep, type Program, type Step } from './program.ts';

/** What the schema cannot say: known blocks, known slots, ids used once. */
export function checkProgram(program: Program): string | undefined {
  const ids = new Set<string>();
  for (const list of [program.stacks, program.routines, program.variables]) for (const one of list) ids.add(one.id);
  for (const routine of program.routines) for (const input of routine.inputs ?? []) ids.add(input.id);
  for (const holder of [...program.stacks, ...program.routines]) {
    const wrong = checkList(holder.steps);
    if (wrong) return wrong;
  }
  for (const step of allSteps(program)) {
    const wrong = checkStep(step, program);
    if (wrong) return wrong;
    if (ids.has(step.id)) return say('the id "{id}" is used twice.', { id: step.id });
    ids.add(step.id);
  }
  return undefined;
}
/** Nothing can stand below a block that ends its list. */
function checkList(list: readonly Step[]): string | undefined {
  for (const [i, step] of list.entries()) {
    if (i < list.length - 1 && catalogue.get(step.kind)?.shape === 'end')
      return say('nothing can stand below block "{id}" ({kind}), which ends its list.', {
        id: step.id,
        kind: step.kind
      });
    for (const body of Object.values(step.bodies ?? {})) {
      const wrong = checkList(body);
      if (wrong) return wrong;
    }
  }
  return undefined;
}
const NOT_A_BLOCK = new Set(['choice', 'part', 'variable', 'list', 'routine', 'input', 'name', 'rows']);
const MAY_BE_EMPTY = new Set(['condition', 'items']);
function checkStep(step: Step, program: Program): string | undefined {
  const def = catalogue.get(step.kind);
  if (!def)
    return say('block "{id}" is of the kind "{kind}", which this Moss Bell does not know.', {
      id: step.id,
      kind: step.kind
    });
  for (const [name, slot] of Object.entries(step.slots)) {
    const spec = slotSpec(step, name, program);
    if (!spec) return say('block "{id}" ({kind}) has no slot "{name}".', { id: step.id, kind: step.kind, name });
    if (isStep(slot)) {
      const inner = catalogue.get(slot.kind);
      if (inner && inner.shape !== 'value')
        return say('block "{id}" ({kind}) cannot sit in a slot.', { id: slot.id, kind: slot.kind });
      if (NOT_A_BLOCK.has(spec.type))
        return say('slot "{name}" of block "{id}" cannot hold a block.', { name, id: step.id });
    } else if (spec.type === 'choice' && !spec.options.includes(String(slot)))
      return say('slot "{name}" of block "{id}" ({kind}) has {stringify}; it takes {n}.', {
        name,
        id: step.id,
        kind: step.kind,
        stringify: JSON.stringify(slot),
        n: spec.options.join(', ')
      });
    else if (MAY_BE_EMPTY.has(spec.type))
      return say('slot "{name}" of block "{id}" takes a {x}.', {
        name,
        id: step.id,
        x: spec.type === 'condition' ? say('condition') : say('list')
      });
  }
  for (const [name, spec] of Object.entries(def.slots))
    if (!MAY_BE_EMPTY.has(spec.type) && step.slots[name] === undefined && !(def.grows && /\d$/.test(name)))
      return say('block "{id}" ({kind}) lacks "{name}".', { id: step.id, kind: step.kind, name });
  const bodies = bodiesOf(step);
  const named = Object.keys(step.bodies ?? {});
  for (const name of named)
    if (!bodies.includes(name) && !(step.kind === 'choose.table' && /^[yn]{2,3}$/.test(name)))
      return say('block "{id}" ({kind}) has no body "{name}".', { id: step.id, kind: step.kind, name });
  for (const body of bodies)
    if (!step.bodies?.[body])
      return say('block "{id}" ({kind}) lacks its body "{body}".', { id: step.id, kind: step.kind, body });
  return undefined;
}
