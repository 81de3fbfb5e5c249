/** wheel-still: a wheel that was told to turn and did not: nothing drives it, or something holds it. */
import { wheelKey } from '../../kit/keys.ts';
import { say } from '../../words.ts';
import { channel, endUs, type TraceEvent } from '../trace.ts';
import { extremes, tickAt } from '../query.ts';
import { blocksOf, nextOf, one, type Found, type Rule } from './finding.ts';

/** So long it was told, µs, with so much, percent: less does not overcome its friction. */
const TOLD_US = 400_000;
const LEAST_PERCENT = 15;
const STILL_CM_S = 0.3;

export const wheelStill: Rule = ({ trace, kit }) => {
  const commands = trace.events.filter((e) => ['wheels', 'motor', 'move', 'slide'].includes(e.type));
  const told = (e: TraceEvent): [string, number][] => {
    if (e.type === 'motor' && e.how === 'power') {
      const part = kit.parts.find((p) => p.type === 'motor' && p.socket === e.socket);
      return part?.type === 'motor' && part.drives ? [[part.drives, e.power]] : [];
    }
    return e.type === 'wheels' && e.how === 'power'
      ? kit.wheels.flatMap(({ id, at }): [string, number][] =>
          at.yMm === 0 || Math.abs(at.deg) > 1 ? [] : [[id, at.yMm > 0 ? e.left : e.right]]
        )
      : [];
  };
  return commands.flatMap((e, i): Found[] => {
    const toUs = nextOf(commands, i, (n) => n.type !== 'motor' || e.type !== 'motor' || n.socket === e.socket)?.tUs;
    const untilUs = toUs ?? endUs(trace);
    if (untilUs - e.tUs < TOLD_US) return [];
    return told(e).flatMap(([id, power]): Found[] => {
      const speed = channel(trace, wheelKey('speed', id));
      if (!speed || Math.abs(power) < LEAST_PERCENT) return [];
      const [low, high] = extremes(speed, tickAt(e.tUs, trace.ticks) + 1, tickAt(untilUs, trace.ticks));
      if (low < -STILL_CM_S || high > STILL_CM_S) return [];
      return [
        {
          rule: 'wheel-still',
          weight: 84,
          says: say('The {name} was told {power} %, and did not turn.', {
            name: kit.wheels.find((w) => w.id === id)!.name,
            power: one(power)
          }),
          todo: say('Look whether a motor is plugged in for it on the kit sheet, and whether something holds it.'),
          figures: [
            {
              value: power,
              sum: [{ take: 'event', type: e.type, field: fieldOf(e, power), atUs: e.tUs, block: e.block }]
            }
          ],
          blocks: blocksOf(e),
          fromUs: e.tUs,
          toUs: untilUs,
          lanes: [wheelKey('power', id), wheelKey('speed', id)]
        }
      ];
    });
  });
};
/** Which number of the command it was. */
const fieldOf = (e: TraceEvent, power: number): string =>
  e.type === 'wheels' ? (e.left === power ? 'left' : 'right') : 'power';
