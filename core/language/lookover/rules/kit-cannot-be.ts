/** kit-cannot-be: two parts in one socket, two motors on one wheel, measures that no machine has. */
import { cannotBe } from '../../../kit/wiring.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const kitCannotBe: Rule = ({ kit }) =>
  cannotBe(kit).map(({ text }): Remark => ({
    rule: 'kit-cannot-be',
    severity: 'will not work',
    blocks: [],
    says: text,
    todo: say('Put it right on the kit sheet.'),
    mends: []
  }));
