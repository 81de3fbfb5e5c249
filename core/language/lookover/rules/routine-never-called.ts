/** routine-never-called: a routine that nothing does. */
import { liveSteps, type Program } from '../../program.ts';
import { removeRoutine } from '../../edit.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

const called = (program: Program): Set<string> =>
  new Set(
    [...liveSteps(program)].flatMap((s) =>
      s.kind === 'routine.do' || s.kind === 'routine.value' ? [String(s.slots.routine)] : []
    )
  );

export const routineNeverCalled: Rule = ({ program }) => {
  const names = called(program);
  return program.routines
    .filter((r) => r.steps.some((s) => !s.off) && !names.has(r.id))
    .map((r): Remark => ({
      rule: 'routine-never-called',
      severity: 'probably not meant',
      blocks: [r.id],
      says: say('The routine {name} is defined, but nothing does it: its blocks never run.', { name: r.name }),
      todo: say('Put a block "do {name}" into a stack, or take the routine out.', { name: r.name }),
      mends: [{ label: say('Take it out'), apply: (p, kit) => ({ program: removeRoutine(p, r.id), kit }) }]
    }));
};
