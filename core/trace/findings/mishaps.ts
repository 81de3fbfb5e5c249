/** tipped, burnt, stalled: what happened to the device itself. */
import { say } from '../../words.ts';
import { eventsOf, lastBy } from '../apart.ts';
import { blocksOf, eventOf, one, running, speeds, type Found, type Rule } from './finding.ts';

export const mishaps: Rule = ({ trace }) =>
  trace.events.flatMap((e): Found[] => {
    if (e.type === 'tipped')
      return [
        {
          rule: 'tipped',
          weight: 95,
          says: say('The robot tipped over onto its side.'),
          todo: say('Drive the curve slower, or wider: what is heavy and high tips first.'),
          blocks: running(trace, e.tUs),
          fromUs: e.tUs,
          toUs: e.tUs,
          lanes: ['accelX', ...speeds(trace)]
        }
      ];
    if (e.type === 'burnt')
      return [
        {
          rule: 'burnt',
          weight: 97,
          says: say('The LED got {mA} mA and burnt: it is dark from here on. It takes 20 mA.', { mA: one(e.mA) }),
          figures: [eventOf(e, 'mA')],
          todo: say('Put a resistor before it on the kit sheet; the reckoner tells which.'),
          blocks: blocksOf(e),
          fromUs: e.tUs,
          toUs: e.tUs,
          lanes: ['lampMa']
        }
      ];
    if (e.type !== 'stalled') return [];
    const asked = lastBy(
      eventsOf(trace, 'servo').filter((s) => s.socket === e.socket),
      e.tUs
    );
    return [
      {
        rule: 'stalled',
        weight: 74,
        says: say('The servo in {socket} was stopped at {angle}°: something is in the way of its horn.', {
          socket: e.socket,
          angle: one(e.angle)
        }),
        todo: say('Ask for an angle that the horn can reach.'),
        figures: [eventOf(e, 'angle')],
        blocks: asked ? blocksOf(asked) : [],
        fromUs: e.tUs,
        toUs: e.tUs,
        lanes: [`servo${e.socket}`]
      }
    ];
  });
