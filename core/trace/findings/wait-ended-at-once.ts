/** wait-ended-at-once: a wait whose condition was already true; what was read, and the limit. */
import type { Kit } from '../../kit/kit.ts';
import { asksCondition, channelsRead, isLoop, valueDef, zeroes } from '../../language/facts.ts';
import { isStep, liveSteps, walkSteps, type Program, type Step } from '../../language/program.ts';
import { typedNumber } from '../../language/values.ts';
import { say } from '../../words.ts';
import { rowsOfBlock } from '../apart.ts';
import { channel as channelOf, endUs, type Trace } from '../trace.ts';
import { lanesOf, one, seconds, sensorsOf, valueAt, type Found, type Rule } from './finding.ts';

const AT_ONCE_US = 1500;
/**
 * The comparison that a wait asks, and the number it is held against; the channel where the trace has just what is read there,
 * and nothing is worked out with it.
 */
function comparison(
  step: Step,
  trace: Trace,
  kit: Kit
): { channel?: string; sign: string; limit: number; reads: Step } | undefined {
  const { condition } = step.slots;
  if (!isStep(condition) || condition.kind !== 'calc.compare') return undefined;
  const { a, b, sign } = condition.slots;
  const [reads, other] = isStep(a) ? [a, b] : [b, a];
  const limit = typeof other === 'number' ? other : typeof other === 'string' ? typedNumber(other) : undefined;
  if (!isStep(reads) || limit === undefined) return undefined;
  if (!sensorsOf(reads, kit).length) return undefined;
  const own = channelsRead(reads, kit);
  const plain = own.length === 1 && !valueDef(reads)!.counts && channelOf(trace, own[0]) ? own[0] : undefined;
  return { ...(plain ? { channel: plain } : {}), sign: String(sign), limit, reads };
}
/** Whether a block that zeroes it stands right before, in the same list. */
function zeroedBefore(program: Program, step: Step): boolean {
  const lists = [...program.stacks.map((s) => s.steps), ...program.routines.map((r) => r.steps)].flatMap((list) => [
    list,
    ...[...walkSteps(list)].flatMap((s) => Object.values(s.bodies ?? {}))
  ]);
  return lists.some((list) => {
    const at = list.findIndex((s) => s.id === step.id);
    return at > 0 && list.slice(Math.max(0, at - 3), at).some(zeroes);
  });
}
function todo(program: Program, step: Step, trace: Trace, kit: Kit, atUs: number): string {
  const asks = comparison(step, trace, kit);
  if (asks?.reads.kind === 'sense.heading' && valueAt(trace, 'heading', atUs) > 300)
    return say('Just left of 0 the heading is 359, not -1: ask for "turned", which has no jump, or face the heading.');
  if (zeroedBefore(program, step))
    return say('Look which way the value goes from 0, and at the sign of the comparison.');
  return asks && valueDef(asks.reads)?.counts
    ? say('Zero what it measures before it, or ask for "turn by" instead of "turn to".')
    : say('Look at the live value, and choose a number between the two that it shows.');
}

export const waits: Rule = ({ trace, kit, program }) => {
  if (!program) return [];
  const { start, end, times, busy } = trace.spans;
  return [...liveSteps(program)].flatMap((step): Found[] => {
    if (!asksCondition(step) || isLoop(step)) return [];
    let all = 0;
    let n = 0;
    let nth = 0;
    let first = -1;
    for (const row of rowsOfBlock(trace, step.id)) {
      if (end[row] && end[row] < endUs(trace) && busy[row] / times[row] < AT_ONCE_US) {
        n += times[row];
        if (first < 0) [first, nth] = [row, all + 1];
      }
      all += times[row];
    }
    if (first < 0) return [];
    const asks = comparison(step, trace, kit);
    const words = {
      s: seconds(start[first]),
      n,
      all,
      nth,
      value: asks?.channel ? one(valueAt(trace, asks.channel, start[first])) : '',
      sign: asks?.sign ?? '',
      limit: asks ? one(asks.limit) : ''
    };
    return [
      {
        rule: 'wait-ended-at-once',
        weight: 72,
        says:
          all === 1
            ? asks?.channel
              ? say('This wait ended at once, at {s} s: it read {value}, and {sign} {limit} was already true.', words)
              : say('This wait ended at once, at {s} s: its condition was already true.', words)
            : say(
                'This wait ended at once {n} of {all} times, first the time number {nth}, at {s} s: its condition was already true.',
                words
              ),
        todo: todo(program, step, trace, kit, start[first]),
        figures:
          all === 1 && asks?.channel
            ? [
                {
                  value: valueAt(trace, asks.channel, start[first]),
                  sum: [{ take: 'reads', channel: asks.channel, atUs: start[first] }]
                }
              ]
            : all > 1
              ? [{ value: all, sum: [{ take: 'times', block: step.id, fromUs: 0, toUs: endUs(trace) }] }]
              : [],
        blocks: [step.id],
        fromUs: start[first],
        toUs: end[first],
        lanes: lanesOf(step, kit)
      }
    ];
  });
};
