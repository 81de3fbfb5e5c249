/** sensing-rate: how often a loop looked at its sensors, and how far it went blind. */
import { isStep, liveSteps, walkSteps } from '../../language/program.ts';
import { say } from '../../words.ts';
import { rowsOfBlock } from '../apart.ts';
import { lanesOf, one, pathBetween, sensorsOf, type Found, type Rule } from './finding.ts';

const BLIND_CM = 4;
export const sensing: Rule = ({ trace, kit, program }) => {
  if (!program) return [];
  const { start, times } = trace.spans;
  return [...liveSteps(program)].flatMap((loop): Found[] => {
    if (!loop.kind.startsWith('repeat.') || !loop.bodies) return [];
    const body = (loop.bodies.do ?? []).filter((s) => !s.off);
    const looks = body.filter((s) => s.kind.startsWith('choose.') && sensorsOf(s, kit).length > 0);
    const asks = isStep(loop.slots.condition) && sensorsOf(loop, kit).length > 0;
    const marker = looks[0] ?? (asks ? body[0] : undefined);
    const turns = marker && rowsOfBlock(trace, marker.id);
    if (!turns || turns.length < 2) return [];
    let longest = 0;
    let furthest = 0;
    let [at, atEnd] = [start[turns[0]], start[turns[0]]];
    let looked = 0;
    let blindFrom = start[turns[0]];
    for (let i = 1; i < turns.length; i++) {
      looked += times[turns[i - 1]];
      // within a bundle the looks follow closely: what counts is the way from its last one to the next row
      const [a, b] = [times[turns[i - 1]] > 1 ? trace.spans.end[turns[i - 1]] : start[turns[i - 1]], start[turns[i]]];
      const way = pathBetween(trace, a, b);
      if (b - a > longest) [longest, blindFrom] = [b - a, a];
      if (way > furthest) {
        furthest = way;
        [at, atEnd] = [a, b];
      }
    }
    if (furthest < BLIND_CM) return [];
    const rate = (looked * 1e6) / (start[turns[turns.length - 1]] - start[turns[0]]);
    // whole moves between two looks are meant so; what is not is a wait
    const slow = [...walkSteps(body)].find((s) => s.kind === 'wait.time');
    if (!slow || [...walkSteps(body)].some((s) => /\.(measure|facing|angle|gyro|face|span)$/.test(s.kind))) return [];
    return [
      {
        rule: 'sensing-rate',
        weight: 65,
        says: say(
          'This loop looked {rate} times a second: between two looks it was blind for up to {ms} ms and {cm} cm.',
          {
            rate: one(rate),
            ms: Math.round(longest / 1000),
            cm: one(furthest)
          }
        ),
        figures: [
          { value: furthest, sum: [{ take: 'path', fromUs: at, toUs: atEnd }] },
          { value: longest / 1000, sum: [{ take: 'ms', fromUs: blindFrom, toUs: blindFrom + longest }] },
          {
            value: rate,
            sum: [{ take: 'rate', block: marker.id, fromUs: start[turns[0]], toUs: start[turns[turns.length - 1]] }]
          }
        ],
        todo: say('Take the wait out of the loop, or make it much shorter.'),
        blocks: [slow.id],
        fromUs: at,
        toUs: at + longest,
        lanes: [...new Set([...looks, loop].flatMap((s) => lanesOf({ ...s, bodies: {} }, kit)))]
      }
    ];
  });
};
