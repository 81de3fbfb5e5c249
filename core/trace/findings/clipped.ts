/** clipped: more was asked for than the device can do. */
import { allSteps } from '../../language/program.ts';
import { retell, say } from '../../words.ts';
import { blocksOf, one, type Found, type Rule } from './finding.ts';

/** A share of a sweep of 180 degrees. */
const SWEEP_DEG = 180;

export const clipped: Rule = ({ trace, program }) => {
  const shares = new Set(
    [...(program ? allSteps(program) : [])].flatMap((s) => (s.kind === 'servo.share' ? [s.id] : []))
  );
  return trace.events.flatMap((e): Found[] => {
    if (e.type !== 'clipped') return [];
    if (e.what === 'angle' && e.block && shares.has(e.block))
      return [
        {
          rule: 'clipped',
          weight: 50,
          says: say('{asked} % of its sweep was asked for; the servo goes from 0 to 100 %.', {
            asked: one((e.asked / SWEEP_DEG) * 100)
          }),
          todo:
            e.asked < 0
              ? say('Half of what comes in does nothing: map it, as from -100 to 100 onto 0 to 100.')
              : say('Map the number to what the device can do.'),
          blocks: blocksOf(e),
          fromUs: e.tUs,
          toUs: e.tUs,
          lanes: ['variables']
        }
      ];
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
        figures: (['asked', 'used'] as const).map((field) => ({
          value: e[field],
          sum: [{ take: 'event', type: 'clipped', field, atUs: e.tUs, block: e.block }]
        })),
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: e.tUs,
        lanes: ['variables']
      }
    ];
  });
};
