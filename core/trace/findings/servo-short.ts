/** servo-short, servo-still: a servo that was asked for another angle before it had come to the first; one that did not move. */
import { say } from '../../words.ts';
import { eventsOf } from '../apart.ts';
import { channel, endUs, type TraceEvent } from '../trace.ts';
import { blocksOf, eventOf, nextOf, one, valueAt, type Found, type Rule } from './finding.ts';

/** So far from where it was asked to go it did not get there, degrees. */
const SHORT_DEG = 12;
/** A servo that is asked to go on by no more than this follows something, as a stick, and is always a little behind. */
const FOLLOWS_DEG = 25;
/** So long it has to move before it is said that it does not, µs. */
const STILL_US = 200_000;
const STILL_DEG = 0.5;

type Angle = TraceEvent & { type: 'servo'; angle: number };
export const servoShort: Rule = ({ trace, kit }) => {
  const asked = eventsOf(trace, 'servo').filter((e): e is Angle => 'angle' in e);
  const name = (socket: string): string => kit.parts.find((p) => p.socket === socket)?.name ?? socket;
  return asked.flatMap((e, i): Found[] => {
    const key = `servo${e.socket}`;
    if (!channel(trace, key)) return [];
    const next = nextOf(asked, i, (n) => n.socket === e.socket);
    const untilUs = next?.tUs ?? endUs(trace);
    const from = valueAt(trace, key, e.tUs);
    const to = valueAt(trace, key, untilUs);
    const way = Math.abs(e.angle - from);
    const words = { name: name(e.socket), asked: one(e.angle), got: one(to), next: one(next?.angle ?? 0) };
    const figures = [
      {
        value: e.angle,
        sum: [{ take: 'event' as const, type: 'servo' as const, field: 'angle', atUs: e.tUs, block: e.block }]
      },
      { value: to, sum: [{ take: 'reads' as const, channel: key, atUs: untilUs }] }
    ];
    const span = {
      figures,
      blocks: [...blocksOf(e), ...(next ? blocksOf(next) : [])],
      fromUs: e.tUs,
      toUs: untilUs,
      lanes: [key]
    };
    if (way > SHORT_DEG && untilUs - e.tUs > STILL_US && Math.abs(to - from) < STILL_DEG)
      return [
        {
          rule: 'servo-still',
          weight: 84,
          says: say('{name}: asked {asked} °, and it did not move.', words),
          todo: say('Look which way round its plug is, and whether something holds its horn.'),
          ...span
        }
      ];
    if (
      !next ||
      way <= SHORT_DEG ||
      Math.abs(next.angle - e.angle) < FOLLOWS_DEG ||
      Math.abs(e.angle - to) <= SHORT_DEG
    )
      return [];
    return [
      {
        rule: 'servo-short',
        weight: 62,
        says: say('{name}: asked {asked} °, it had come to {got} ° when it was asked for {next} °.', words),
        todo: say('Give it time: put a wait between the two, 0.12 s for each 60 °.'),
        ...span,
        figures: [...figures, eventOf(next, 'angle')]
      }
    ];
  });
};
