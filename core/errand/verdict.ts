/** What came of a try of an errand, from its trace alone. */
import { findings, type Finding } from '../trace/findings/findings.ts';
import type { Kit } from '../kit/kit.ts';
import type { Program } from '../language/program.ts';
import { channel, endUs, type Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';
import { countBlocks } from './goals/built.ts';
import { stateAt } from '../trace/query.ts';
import { counts, judge, walkGoals, type Verdict } from './goals.ts';
import type { TryResult } from '../trace/tried.ts';
import type { Task } from './task.ts';

/** Whether a goal of the errand compares with what the program did at first. */
export const asksBefore = ({ goals }: Pick<Task, 'goals'>): boolean =>
  [...walkGoals(goals)].some((g) => g.kind === 'same');

/** What is told beside the bell: what was done, but not well. */
const NOT_WELL = new Set(['still-driving', 'touched', 'tipped', 'slipped', 'error', 'taken-over']);
export const notWell = (trace: Trace, kit: Kit, program?: Program): Finding[] =>
  findings(trace, kit, program).filter((f) => NOT_WELL.has(f.rule));

/** @param toUs up to which moment; its end where it is left out */
export const judged = (
  { goals }: Pick<Task, 'goals'>,
  seen: { trace: Trace; mat: Mat; program?: Program; before?: Trace },
  toUs = endUs(seen.trace)
): Verdict => judge(goals, { ...seen, fromUs: 0, toUs });

/** What came of a try in all its yards: met where it is met in each; otherwise the first that was missed. */
export function together(verdicts: readonly Verdict[]): { met: boolean; first: number; missed: number[] } {
  const missed = verdicts.flatMap((v, i) => (v.met ? [] : [i]));
  return { met: !missed.length, first: missed[0] ?? 0, missed };
}

/** What is kept of it. */
export function resultFrom(
  task: Pick<Task, 'id'>,
  verdict: Verdict,
  trace: Trace,
  program?: Program
): Omit<TryResult, 'changed'> {
  const { results, met, atUs, nearest } = verdict;
  const { x, y } = stateAt(trace, endUs(trace));
  const off = nearest === undefined ? undefined : results[nearest].off;
  return {
    errand: task.id,
    met,
    got: results.filter(counts).length,
    of: results.length,
    goals: results.map(counts),
    ...(channel(trace, 'x') ? { stop: { x, y } } : {}),
    ...(met ? { seconds: atUs / 1e6 } : {}),
    ...(program ? { blocks: countBlocks(program) } : {}),
    ...(nearest === undefined ? {} : { nearest: { goal: nearest, ...off } })
  };
}
