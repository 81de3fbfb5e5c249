/** drifted: a turn, or wheels that turn it, began while the robot still rolled: it comes past its place. */
import { retell, say } from '../../words.ts';
import { firstAfter } from '../apart.ts';
import type { Asked } from '../query.ts';
import type { Trace } from '../trace.ts';
import {
  endsInBrake,
  one,
  seconds,
  speeds,
  STILL_CM_S,
  turnedBetween,
  valueAt,
  wentBetween,
  type Found,
  type Rule
} from './finding.ts';

/** What was before has come to rest after so long. */
const SETTLES_US = 600_000;
/** Who set the wheels moving last by a time, another block than the one that is asked about. */
type Movers = (tUs: number, but: string | undefined) => string | undefined;
function movers(trace: Trace): Movers {
  const list = trace.events.filter((e) => e.type === 'wheels' || e.type === 'move');
  // of each the nearest one before it that has another block
  const other = new Int32Array(list.length).fill(-1);
  for (let i = 1; i < list.length; i++) other[i] = list[i - 1].block !== list[i].block ? i - 1 : other[i - 1];
  return (tUs, but) => {
    const at = firstAfter(list, tUs) - 1;
    return (at >= 0 && list[at].block === but ? list[other[at]] : list[at])?.block;
  };
}
/** A turn on the spot; of wheels that are run for a while, by what they did. */
const isTurn = (trace: Trace, m: Asked): boolean =>
  (m.unit === '°' && !m.what.startsWith('curve')) ||
  (m.what === 'run wheels' && Math.abs(turnedBetween(trace, m.fromUs, m.toUs)) > 30);

export const drifted: Rule = ({ trace, program, moves }) => {
  const setMoving = movers(trace);
  return moves.flatMap((m, i): Found[] => {
    if (m.ended === 'blocked' || !isTurn(trace, m)) return [];
    // what took the wheels away from another move is told as that
    if (moves[i - 1]?.ended === 'taken over' && moves[i - 1].toUs >= m.fromUs - 2000) return [];
    const [left, right] = speeds(trace).map((key) => valueAt(trace, key, m.fromUs));
    const rolls = Math.abs(left + right) / 2;
    if (rolls <= STILL_CM_S) return [];
    const until = Math.min(m.toUs, m.fromUs + SETTLES_US);
    let cm = 0;
    for (let t = m.fromUs; t <= until; t += 10_000) cm = Math.max(cm, wentBetween(trace, m.fromUs, t).cm);
    if (cm < 1) return [];
    // the block that set it moving is the one to change
    const mover = setMoving(m.fromUs, m.block);
    return [
      {
        rule: 'drifted',
        weight: 78,
        says: say('It still rolled with {v} cm/s when {what} began, at {s} s: it drifted {cm} cm past the place.', {
          v: one(rolls),
          what: retell(m.what),
          s: seconds(m.fromUs),
          cm: one(cm)
        }),
        todo: endsInBrake(program, mover)
          ? say('Wait until it stands before the next move.')
          : say('Let it end in brake, or wait until it stands, before the next move.'),
        figures: [
          {
            value: rolls,
            sum: speeds(trace).map((channel) => ({
              take: 'reads' as const,
              channel,
              atUs: m.fromUs,
              times: Math.sign(left + right) / 2
            }))
          },
          { value: cm, sum: [{ take: 'furthest cm', fromUs: m.fromUs, toUs: until }] }
        ],
        blocks: [mover, m.block].filter((b): b is string => !!b),
        fromUs: m.fromUs,
        toUs: until,
        lanes: [...speeds(trace), 'heading']
      }
    ];
  });
};
