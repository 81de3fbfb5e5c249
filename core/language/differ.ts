/** What differs between two versions of a program, block by block: blocks are known by their ids. */
import { isStep, type Program, type Step } from './program.ts';

export type Difference = { what: 'gone' | 'new' | 'changed' | 'moved'; was?: Step; is?: Step };

/** A block and where it stands: in what, and after which block that both versions have there. */
type Placed = { step: Step; within: string };
function placed(program: Program): Map<string, Placed> {
  const found = new Map<string, Placed>();
  const walk = (list: readonly Step[], within: string): void => {
    for (const step of list) {
      found.set(step.id, { step, within });
      for (const [name, slot] of Object.entries(step.slots)) if (isStep(slot)) walk([slot], `${step.id} ${name}`);
      for (const [name, body] of Object.entries(step.bodies ?? {})) walk(body, `${step.id} ${name}`);
    }
  };
  for (const stack of program.stacks) walk(stack.steps, stack.id);
  for (const routine of program.routines) walk(routine.steps, routine.id);
  for (const loose of program.loose) walk([loose.value], '');
  return found;
}
/** What a block says by itself: its kind, its own slots, whether it is off; not the blocks in it. */
const own = ({ kind, slots, off, note }: Step): string =>
  JSON.stringify([kind, Object.entries(slots).map(([k, v]) => [k, isStep(v) ? v.id : v]), off ?? false, note ?? '']);
/**
 * Of the blocks that two lists both have, the fewest that were moved: all that are not in a longest common subsequence. Each id
 * is there once, so that is a longest rising run of places (patience sorting).
 */
function outOfOrder(was: readonly string[], is: readonly string[]): Set<string> {
  const place = new Map(was.map((id, i) => [id, i]));
  const both = is.filter((id) => place.has(id));
  /** of each length the end of the run that ends lowest; and what stands before each */
  const ends: string[] = [];
  const before = new Map<string, string | undefined>();
  for (const id of both) {
    const at = place.get(id)!;
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (place.get(ends[middle])! < at) low = middle + 1;
      else high = middle;
    }
    before.set(id, ends[low - 1]);
    ends[low] = id;
  }
  const stayed = new Set<string>();
  for (let id = ends.at(-1); id !== undefined; id = before.get(id)) stayed.add(id);
  return new Set(both.filter((id) => !stayed.has(id)));
}

/** In the order in which they are read in the newer one; what is gone comes last. */
export function differences(was: Program, is: Program): Difference[] {
  const [old, now] = [placed(was), placed(is)];
  const lists = (of: Map<string, Placed>): Map<string, string[]> => {
    const by = new Map<string, string[]>();
    for (const [id, { within }] of of) by.set(within, [...(by.get(within) ?? []), id]);
    return by;
  };
  const [before, after] = [lists(old), lists(now)];
  const shuffled = new Set([...after].flatMap(([within, ids]) => [...outOfOrder(before.get(within) ?? [], ids)]));
  const found: Difference[] = [];
  for (const [id, { step, within }] of now) {
    const known = old.get(id);
    if (!known) found.push({ what: 'new', is: step });
    else if (own(known.step) !== own(step)) found.push({ what: 'changed', was: known.step, is: step });
    else if (known.within !== within || shuffled.has(id)) found.push({ what: 'moved', was: known.step, is: step });
  }
  for (const [id, { step }] of old) if (!now.has(id)) found.push({ what: 'gone', was: step });
  return found;
}
