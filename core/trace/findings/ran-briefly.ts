/** ran-briefly: a motor was stopped within 30 ms of its start. */
import { say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import type { TraceEvent } from '../trace.ts';
import { blocksOf, BRIEF_US, one, powers, type Found, type Rule } from './finding.ts';

export const ranBriefly: Rule = ({ trace }) => {
  const out: Found[] = [];
  const stopped = eventsOf(trace, 'input').some((e) => 'stop' in e.input);
  let ran: TraceEvent | undefined;
  for (const e of trace.events)
    if (e.type === 'wheels' || e.type === 'motor') {
      if (ran && e.how !== 'power' && e.tUs - ran.tUs < BRIEF_US && !stopped)
        out.push({
          rule: 'ran-briefly',
          weight: 66,
          says: say('The motor ran for {x} ms.', { x: one((e.tUs - ran.tUs) / 1000) }),
          todo: say('Put a wait between starting and stopping it.'),
          figures: [{ value: (e.tUs - ran.tUs) / 1000, sum: [{ take: 'ms', fromUs: ran.tUs, toUs: e.tUs }] }],
          blocks: blocksOf(ran),
          fromUs: ran.tUs,
          toUs: e.tUs,
          lanes: powers(trace)
        });
      // a new power while it runs is the same running
      ran = e.how === 'power' ? (ran ?? e) : undefined;
    } else if (e.type === 'move') ran = undefined;
  return out;
};
