/** error: the program stopped at a block. */
import { retell, say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { blocksOf, type Rule } from './finding.ts';

export const error: Rule = ({ trace }) =>
  eventsOf(trace, 'error').map((e) => ({
    rule: 'error',
    weight: 100,
    says: say('The program stopped here: {message}', { message: retell(e.message) }),
    todo: say('Look at the block and at the values that it was given.'),
    blocks: blocksOf(e),
    fromUs: e.tUs,
    toUs: e.tUs,
    lanes: ['variables']
  }));
