/** cut-off: more was written than the display shows at once. */
import { say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { blocksOf, type Rule } from './finding.ts';

export const cutOff: Rule = ({ trace }) =>
  eventsOf(trace, 'cut').map((e) => ({
    rule: 'cut-off',
    weight: 57,
    says: say('"{text}" was written, and the display shows "{shown}": {n} characters fit.', {
      text: e.text,
      shown: e.shown,
      n: [...e.shown].length
    }),
    todo: say('Let it pass by, or make it shorter: round it, or show a part of it.'),
    blocks: blocksOf(e),
    fromUs: e.tUs,
    toUs: e.tUs,
    lanes: ['display']
  }));
