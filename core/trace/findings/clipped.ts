/** clipped: more was asked for than the device can do. */
import { retell, say } from '../../words.ts';
import { blocksOf, one, type Found, type Rule } from './finding.ts';

export const clipped: Rule = ({ trace }) => {
  return trace.events.flatMap((e): Found[] => {
    if (e.type !== 'clipped') return [];
    return [
      {
        rule: 'clipped',
        weight: 50,
        says: say(
          e.what === 'angle'
            ? 'An angle of {one} was asked for; the device can do {one2}.'
            : 'A {what} of {one} was asked for; the device can do {one2}.',
          { what: retell(e.what), one: one(e.asked), one2: one(e.used) }
        ),
        todo: say('Map the number to what the device can do.'),
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: e.tUs,
        lanes: ['variables']
      }
    ];
  });
};
