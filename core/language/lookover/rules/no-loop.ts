import { misplaced } from '../misplaced.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** no-loop: a block that leaves a loop or goes to its next turn stands in none. */
export const noLoop: Rule = ({ program }) =>
  misplaced(
    program,
    (step, { inLoop }) => (step.kind === 'repeat.leave' || step.kind === 'repeat.next') && !inLoop
  ).map((step): Remark => ({
    rule: 'no-loop',
    severity: 'will not work',
    blocks: [step.id],
    says: say('This block stands in no loop, so there is nothing to leave: the program cannot start.'),
    todo: say('Put it into a loop, or take it out.'),
    mends: []
  }));
