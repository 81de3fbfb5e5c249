/** routine-calls-itself-for-ever: a routine that does itself again on every way through it. */
import type { Program, Step } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** Routines that are done for certain when these steps run, up to where they may end. */
function surely(list: readonly Step[]): string[] {
  const found: string[] = [];
  for (const s of list) {
    if (s.off) continue;
    if (s.kind === 'routine.do') found.push(String(s.slots.routine));
    if (s.kind === 'routine.give') break;
    if (s.kind === 'repeat.ever') {
      found.push(...surely(s.bodies?.do ?? []));
      break;
    }
    // a choice with a "give back" in it may end the routine: nothing below is certain
    if (Object.values(s.bodies ?? {}).some(gives)) break;
  }
  return found;
}
const gives = (list: readonly Step[]): boolean =>
  list.some((s) => s.kind === 'routine.give' || Object.values(s.bodies ?? {}).some(gives));

export const routineCallsItself: Rule = ({ program }: { program: Program }) => {
  const calls = new Map(program.routines.map((r) => [r.id, surely(r.steps)]));
  const reaches = (from: string, to: string, seen = new Set<string>()): boolean =>
    (calls.get(from) ?? []).some((next) => {
      if (next === to) return true;
      if (seen.has(next)) return false;
      seen.add(next);
      return reaches(next, to, seen);
    });
  return program.routines
    .filter((r) => reaches(r.id, r.id))
    .map((r): Remark => ({
      rule: 'routine-calls-itself-for-ever',
      severity: 'will not work',
      blocks: [r.id],
      says: say('The routine {name} does itself again, for ever: the program stops at 100 deep.', { name: r.name }),
      todo: say('Use a loop, or put the call into a choice that is not always so.'),
      mends: []
    }));
};
