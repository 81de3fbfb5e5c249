/**
 * shown-briefly: a picture was replaced before anyone could see it. Judged when the display has come to rest: what was on
 * its way to the picture that then stood there was being built, and is no picture of its own.
 */
import { say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { endUs } from '../trace.ts';
import { blocksOf, BRIEF_US, one, type Found, type Rule } from './finding.ts';

const lit = (picture: string): number[] => [...picture].flatMap((c, i) => (c === '.' || c === ' ' ? [] : [i]));
/** Share of what was lit that is lit in the other one too. */
const kept = (before: string, now: string): number => {
  const on = lit(before);
  return on.filter((i) => now[i] !== '.').length / on.length;
};

export const shownBriefly: Rule = ({ trace }) => {
  const shows = eventsOf(trace, 'display');
  const out: Found[] = [];
  const untilUs = (i: number): number => shows[i + 1]?.tUs ?? endUs(trace);
  for (let i = 0; i < shows.length; i++) {
    // a picture that stood at rest was seen
    if (untilUs(i) - shows[i].tUs >= BRIEF_US) continue;
    let rest = i;
    while (rest + 1 < shows.length && untilUs(rest) - shows[rest].tUs < BRIEF_US) rest++;
    const next = shows[i + 1];
    if (!next || lit(shows[i].picture).length === 0) continue;
    // a step of building: it grows, or most of it is there in the end
    if (kept(shows[i].picture, next.picture) >= 0.5) continue;
    if (kept(shows[i].picture, shows[rest].picture) > 0.5) continue;
    out.push({
      rule: 'shown-briefly',
      weight: 66,
      says: say('This picture was shown for {x} ms, then it was replaced: nobody can see it.', {
        x: one((next.tUs - shows[i].tUs) / 1000)
      }),
      todo: say('Put a wait of half a second or more between the two.'),
      blocks: [...new Set([...blocksOf(shows[i]), ...blocksOf(next)])],
      fromUs: shows[i].tUs,
      toUs: next.tUs,
      lanes: ['display']
    });
  }
  return out;
};
