import { misplaced } from '../misplaced.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** input-elsewhere: an input of a routine is read outside of that routine. */
export const inputElsewhere: Rule = ({ program }) =>
  misplaced(
    program,
    (step, { routine }) => step.kind === 'routine.input' && !routine?.inputs?.some((i) => i.id === step.slots.input)
  ).map((step): Remark => ({
    rule: 'input-elsewhere',
    severity: 'will not work',
    blocks: [step.id],
    says: say('This input belongs to a routine and means nothing outside of it: the program cannot start.'),
    todo: say('Put the block into its routine, or use a variable.'),
    mends: []
  }));
