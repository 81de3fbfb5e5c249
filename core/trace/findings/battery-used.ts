/** battery-used: so much lower at its end that the motors are weaker. */
import { say } from '../../words.ts';
import { sampleAt } from '../query.ts';
import { channel, endUs } from '../trace.ts';
import { type Rule } from './finding.ts';

const WEAKER_V = 0.3;
export const battery: Rule = ({ trace }) => {
  const volts = channel(trace, 'volts');
  if (!volts || trace.ticks < 1000) return [];
  const [from, to] = [sampleAt(volts, 0), sampleAt(volts, trace.ticks - 1)];
  if (from - to < WEAKER_V) return [];
  return [
    {
      rule: 'battery-used',
      weight: 15,
      says: say('The battery sank from {from} V to {to} V: the motors are weaker than at the start.', {
        from: from.toFixed(2),
        to: to.toFixed(2)
      }),
      todo: say('Charge it. A move that is measured does not mind, plain power does.'),
      figures: [
        { value: from, sum: [{ take: 'reads', channel: 'volts', atUs: 0 }] },
        { value: to, sum: [{ take: 'reads', channel: 'volts', atUs: endUs(trace) }] }
      ],
      blocks: [],
      fromUs: 0,
      toUs: endUs(trace),
      lanes: ['volts']
    }
  ];
};
