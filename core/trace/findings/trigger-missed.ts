/** trigger-missed: a trigger came while its own stack still ran. */
import { retell, say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import type { TraceEvent } from '../trace.ts';
import { blocksOf, type Rule } from './finding.ts';

export const missed: Rule = ({ trace }) => {
  const counts = new Map<string, { first: TraceEvent; last: TraceEvent; n: number }>();
  for (const e of eventsOf(trace, 'missed')) {
    const one = counts.get(e.trigger);
    if (!one) counts.set(e.trigger, { first: e, last: e, n: e.times ?? 1 });
    else {
      one.last = e;
      one.n += e.times ?? 1;
    }
  }
  return [...counts].map(([trigger, { first, last, n }]) => ({
    rule: 'trigger-missed',
    weight: 60,
    says: say('"{trigger}" came {n, plural, one {once} other {# times}} while its stack still ran, and was missed.', {
      trigger: retell(trigger),
      n
    }),
    todo: say('Make the stack shorter, or let it send a message to another one.'),
    figures: [{ value: n, sum: [{ take: 'missed' as const, trigger }] }],
    blocks: blocksOf(first),
    fromUs: first.tUs,
    toUs: last.tUs,
    lanes: ['blocks']
  }));
};
