import { isLive } from '../../program.ts';
import { isSlow } from '../../python/print.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** slow-trigger: a routine that would take time in a condition that starts a stack. */
export const slowTrigger: Rule = ({ program }) =>
  program.stacks
    .filter((s) => isLive(s) && s.steps[0].kind === 'begin.when' && isSlow(s.steps[0].slots.condition))
    .map(({ steps: [starter] }): Remark => ({
      rule: 'slow-trigger',
      severity: 'will not work',
      blocks: [starter.id],
      says: say(
        'A routine cannot be asked in the condition of a starter, since it takes time: the program cannot start.'
      ),
      todo: say('Let a stack ask it in a loop, and send a message.'),
      mends: []
    }));
