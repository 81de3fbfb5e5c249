/** lit-briefly, heard-briefly: a lamp that was on, or a tone that lasted, for so short that nobody can notice it. */
import { say, word } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { endUs } from '../trace.ts';
import { blocksOf, BRIEF_US, nextOf, one, type Found, type Rule } from './finding.ts';

/** Shorter than this a tone is a click at the most, µs (common practice). */
const CLICK_US = 10_000;

export const litBriefly: Rule = ({ trace }) => {
  const all = eventsOf(trace, 'lamp');
  return all.flatMap((e, i): Found[] => {
    const next = e.on ? nextOf(all, i, (n) => n.lamp === e.lamp) : undefined;
    if (!next || next.on || next.tUs - e.tUs >= BRIEF_US) return [];
    // many times a second on and off is how a lamp is dimmed by hand
    const again = nextOf(all, all.indexOf(next, i), (n) => n.lamp === e.lamp);
    if (again && again.tUs - next.tUs < BRIEF_US) return [];
    return [
      {
        rule: 'lit-briefly',
        weight: 66,
        says: say('The lamp {lamp} was on for {x} ms: nobody can see it.', {
          lamp: word(e.lamp),
          x: one((next.tUs - e.tUs) / 1000)
        }),
        todo: say('Put a wait between switching it on and off.'),
        figures: [{ value: (next.tUs - e.tUs) / 1000, sum: [{ take: 'ms', fromUs: e.tUs, toUs: next.tUs }] }],
        blocks: [...blocksOf(e), ...blocksOf(next)],
        fromUs: e.tUs,
        toUs: next.tUs,
        lanes: ['lamps']
      }
    ];
  });
};
export const heardBriefly: Rule = ({ trace }) => {
  const all = eventsOf(trace, 'tone');
  return all.flatMap((e, i): Found[] => {
    const next = all[i + 1]?.tUs ?? endUs(trace);
    const us = Math.min((e.seconds ?? Infinity) * 1e6, next - e.tUs);
    // a tone that the end of the run cuts off, or a sweep of many, is heard as what it is part of
    if (e.hertz === 0 || us >= CLICK_US || (e.seconds === undefined && (!all[i + 1] || all[i + 1].hertz !== 0)))
      return [];
    return [
      {
        rule: 'heard-briefly',
        weight: 66,
        says: say('This tone lasted {x} ms: nobody can hear it.', { x: one(us / 1000) }),
        todo: say('Let it last a tenth of a second or more, or put a wait after it.'),
        figures: [{ value: us / 1000, sum: [{ take: 'ms', fromUs: e.tUs, toUs: e.tUs + us }] }],
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: e.tUs + us,
        lanes: ['tone']
      }
    ];
  });
};
