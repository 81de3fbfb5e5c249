import { catalogue } from '../../catalogue.ts';
import { removeStep } from '../../edit.ts';
import type { Remark, Rule } from '../remark.ts';
import { fresh } from '../walk.ts';
import { say } from '../../../words.ts';

/** not-joined: a stack without a starter never runs. */
export const notJoined: Rule = ({ program }) => [
  ...program.stacks
    .filter((s) => !s.parked && s.steps.length > 0 && catalogue.get(s.steps[0].kind)?.shape !== 'starter')
    .map((stack): Remark => ({
      rule: 'not-joined',
      severity: 'probably not meant',
      blocks: [stack.steps[0].id],
      says: say('These blocks hang on no starter: they never run.'),
      todo: say('Join them to a stack, park them, or take them out.'),
      mends: [
        {
          label: say('Put "at the start" on top'),
          apply: (p, kit) => ({
            program: {
              ...p,
              stacks: p.stacks.map((s) =>
                s.id === stack.id ? { ...s, steps: [fresh(p, 'begin.start'), ...s.steps] } : s
              )
            },
            kit
          })
        },
        {
          label: say('Park them'),
          apply: (p, kit) => ({
            program: { ...p, stacks: p.stacks.map((s) => (s.id === stack.id ? { ...s, parked: true } : s)) },
            kit
          })
        }
      ]
    })),
  ...program.loose.map((l): Remark => ({
    rule: 'not-joined',
    severity: 'consider',
    blocks: [l.value.id],
    says: say('This value lies loose: nothing uses it.'),
    todo: say('Put it into a slot, or take it out.'),
    mends: [{ label: say('Take it out'), apply: (p, kit) => ({ program: removeStep(p, l.value.id), kit }) }]
  }))
];
