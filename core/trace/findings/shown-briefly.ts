/**
 * shown-briefly: something was on the display that nobody could see. What counts is each state of the face that lasts: between
 * two of those a picture may be built or taken down pixel by pixel, which shows nothing that is in neither of the two.
 */
import { allSteps } from '../../language/program.ts';
import { say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { endUs } from '../trace.ts';
import { blocksOf, BRIEF_US, one, type Found, type Rule } from './finding.ts';

const lit = (picture: string): number[] => [...picture].flatMap((c, i) => (c === '.' || c === ' ' ? [] : [i]));
const isLit = (picture: string, at: number): boolean => picture[at] !== undefined && picture[at] !== '.';

export const shownBriefly: Rule = ({ trace, program }) => {
  const shows = eventsOf(trace, 'display');
  const pixels = new Set(
    [...(program ? allSteps(program) : [])].flatMap((s) => (s.kind.startsWith('pixel.') ? [s.id] : []))
  );
  const out: Found[] = [];
  const untilUs = (i: number): number => shows[i + 1]?.tUs ?? endUs(trace);
  const rests = (i: number): boolean => untilUs(i) - shows[i].tUs >= BRIEF_US;
  let before = '';
  for (let i = 0; i < shows.length; i++) {
    if (rests(i)) {
      before = shows[i].picture;
      continue;
    }
    let rest = i;
    while (rest + 1 < shows.length && !rests(rest)) rest++;
    const after = shows[rest].picture;
    for (let k = i; k < rest; k++) {
      const { picture, tUs } = shows[k];
      const on = lit(picture);
      const unseen = on.filter((at) => !isLit(before, at) && !isLit(after, at));
      // the dark between a picture and the same picture, made by hand, is a blink that nobody sees
      const blink = !on.length && after === before && lit(after).length > 0 && pixels.has(shows[k].block ?? '');
      if (!blink && (!on.length || unseen.length <= on.length / 2)) continue;
      const next = shows[k + 1];
      const ms = { x: one((next.tUs - tUs) / 1000) };
      out.push({
        rule: 'shown-briefly',
        weight: 66,
        says: blink
          ? say('The display was dark for {x} ms, then it showed the same again: nobody can see it.', ms)
          : say('This picture was shown for {x} ms, then it was replaced: nobody can see it.', ms),
        todo: say('Put a wait of half a second or more between the two.'),
        figures: [{ value: (next.tUs - tUs) / 1000, sum: [{ take: 'ms', fromUs: tUs, toUs: next.tUs }] }],
        blocks: [...new Set([...blocksOf(shows[k]), ...blocksOf(next)])],
        fromUs: tUs,
        toUs: next.tUs,
        lanes: ['display']
      });
    }
    i = rest - 1;
    if (rest === shows.length - 1 && !rests(rest)) break;
  }
  return out;
};
