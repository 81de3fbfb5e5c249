/** rolled-on after a stop of wheels or motors that were simply run: power was kept on until the mark. */
import { wheelOf } from '../../kit/kit.ts';
import { say } from '../../words.ts';
import type { TraceEvent } from '../trace.ts';
import { blocksOf, isMoving, nextOf, one, powers, rolledOn, speeds, type Found, type Rule } from './finding.ts';

/** Motors that are stopped one after the other, closer than this, are stopped at once. */
const AT_ONCE_US = 5000;

export const stops: Rule = ({ trace, kit }) => {
  const drives = new Set(kit.parts.filter((p) => wheelOf(kit, p)).map((p) => p.socket));
  const running = new Set<string>();
  /** one of the motors that were let go with this stop coasts */
  let coasts = false;
  const { events } = trace;
  /** whether this event leaves every wheel without power, and another does not follow at once */
  const letsGo = (e: TraceEvent, i: number): e is TraceEvent & { type: 'wheels' | 'motor' } => {
    if (e.type === 'slide' || (e.type === 'wheels' && e.how === 'power')) for (const d of drives) running.add(d);
    else if (e.type === 'wheels') {
      running.clear();
      coasts = e.how === 'coast';
      return true;
    } else if (e.type === 'motor' && drives.has(e.socket)) {
      if (e.how === 'power') {
        if (!running.size) coasts = false;
        running.add(e.socket);
        return false;
      }
      coasts ||= e.how === 'coast';
      if (running.delete(e.socket) && running.size === 0) {
        const next = nextOf(events, i, (n) => n.type === 'motor' || n.type === 'wheels' || n.type === 'move');
        return !next || next.tUs - e.tUs > AT_ONCE_US;
      }
    }
    return false;
  };
  return events.flatMap((e, i): Found[] => {
    if (!letsGo(e, i) || e.how === 'power' || !isMoving(trace, e.tUs)) return [];
    const on = rolledOn(trace, e.tUs);
    // a brake needs its way too: what is told is more than that
    const [cm, deg] = coasts ? [1, 2] : [2.5, 4];
    if (on.cm <= cm && Math.abs(on.deg) <= deg) return [];
    return [
      {
        rule: 'rolled-on',
        weight: 64,
        says: says(on.cm, Math.abs(on.deg)),
        todo: coasts
          ? say('Stop with brake, stop a little earlier, or use a block that drives a distance.')
          : say('Stop a little earlier or drive slower before it, or use a block that drives a distance.'),
        figures: [
          ...(on.cm >= 0.5
            ? [{ value: on.cm, sum: [{ take: 'crow' as const, fromUs: e.tUs, toUs: on.untilUs }] }]
            : []),
          ...(Math.abs(on.deg) >= 1
            ? [
                {
                  value: Math.abs(on.deg),
                  sum: [{ take: 'turned' as const, fromUs: e.tUs, toUs: on.untilUs, times: Math.sign(on.deg) }]
                }
              ]
            : [])
        ],
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: on.untilUs,
        lanes: [...speeds(trace), ...powers(trace)]
      }
    ];
  });
};
const says = (cm: number, deg: number): string => {
  const by = { cm: one(cm), deg: one(deg) };
  // what nobody would see is not told
  if (deg < 1) return say('After the stop it went on by {cm} cm: its momentum carried it.', by);
  if (cm < 0.5) return say('After the stop it turned on by {deg} °: its momentum carried it.', by);
  return say('After the stop it went on by {cm} cm and turned by {deg} °: its momentum carried it.', by);
};
