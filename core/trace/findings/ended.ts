/** still-driving, time-limit, asleep, battery: how the run came to its end. */
import { say } from '../../words.ts';
import { endUs } from '../trace.ts';
import { blocksOf, momentOf, powers, seconds, speeds, type Rule } from './finding.ts';

export const ended: Rule = ({ trace }) => {
  const at = endUs(trace);
  const rest = { blocks: [], fromUs: at, toUs: at };
  switch (trace.ended) {
    case 'still driving': {
      const started = trace.events.findLast((e) => (e.type === 'wheels' || e.type === 'motor') && e.how === 'power');
      const over = trace.spans.count ? trace.spans.latest.reduce((a, b) => Math.max(a, b), 0) : at;
      return [
        {
          rule: 'still-driving',
          weight: 70,
          says: say('The program was over at {s} s, but a motor ran on: nothing stopped it.', { s: seconds(over) }),
          todo: say('Wait as long as it should run, then stop it.'),
          figures: [momentOf(over)],
          blocks: started ? blocksOf(started) : [],
          fromUs: started?.tUs ?? at,
          toUs: at,
          lanes: [...powers(trace), ...speeds(trace)]
        }
      ];
    }
    case 'time limit':
      return [
        {
          rule: 'time-limit',
          weight: 20,
          says: say('The run was ended at its limit of {e6} s.', { e6: at / 1e6 }),
          figures: [momentOf(at)],
          todo: say('If it should end by itself, look for what it waits for.'),
          ...rest,
          lanes: []
        }
      ];
    case 'asleep':
      return [
        {
          rule: 'asleep',
          weight: 60,
          says: say('The device fell asleep: nobody had touched it for as long as its kit sheet says.'),
          todo: say('Touch it now and then, or let it sleep later on its kit sheet.'),
          ...rest,
          lanes: []
        }
      ];
    case 'battery flat':
      return [
        {
          rule: 'battery',
          weight: 96,
          says: say('The battery is flat.'),
          todo: say('Charge it, or use a fresh one.'),
          ...rest,
          lanes: ['volts']
        }
      ];
    default:
      return [];
  }
};
