/** All kinds of goals, goals of goals, and what a trace says to each. */
import * as z from 'zod';
import { say } from '../words.ts';
import type { Mat } from '../yard/mat.ts';
import { isOver, met, type Drawn, type GoalDef, type Look, type Result } from './goal.ts';
import { few, same, uses } from './goals/built.ts';
import { closes, faces, facesOnMat, pass, steady, stop, touchNothing, under } from './goals/place.ts';
import { blinks, logs, plays, sends, shows, swings } from './goals/shown.ts';

/** In the order in which they are offered. */
export const GOALS: readonly GoalDef[] = [
  stop,
  pass,
  faces,
  closes,
  touchNothing,
  steady,
  under,
  shows,
  blinks,
  plays,
  swings,
  logs,
  sends,
  few,
  uses,
  same
];
/** Those of files from before too. */
const READ: readonly GoalDef[] = [...GOALS, facesOnMat];
const byKind = new Map(READ.map((def) => [def.kind, def]));
export const goalDef = (kind: string): GoalDef | undefined => byKind.get(kind);

/** A goal as it stands in a file: its kind and its fields; or goals in an order, all of them, or one that must never be. */
export type Goal =
  | ({ kind: string } & Readonly<Record<string, unknown>>)
  | { kind: 'order' | 'all'; goals: readonly Goal[] }
  | { kind: 'never'; goal: Goal };
const MOST = 20;
export const goalSchema: z.ZodType<Goal> = z.lazy(() =>
  z.union([
    ...READ.map((def) => def.schema),
    z.strictObject({ kind: z.enum(['order', 'all']), goals: z.array(goalSchema).min(1).max(MOST) }),
    z.strictObject({ kind: z.literal('never'), goal: goalSchema })
  ] as unknown as [z.ZodType<Goal>, z.ZodType<Goal>])
);
export const goalsSchema = z.array(goalSchema).min(1).max(MOST);

const isGroup = (goal: Goal): goal is { kind: 'order' | 'all'; goals: readonly Goal[] } => 'goals' in goal;
const isNever = (goal: Goal): goal is { kind: 'never'; goal: Goal } => goal.kind === 'never';
/** A goal and all goals within it. */
export function* walkGoals(goals: readonly Goal[]): Generator<Goal> {
  for (const goal of goals) {
    yield goal;
    if (isGroup(goal)) yield* walkGoals(goal.goals);
    else if (isNever(goal)) yield* walkGoals([goal.goal]);
  }
}

/** What is asked, in a line. */
export function goalWords(goal: Goal): string {
  if (isNever(goal)) return say('Never: {goal}', { goal: goalWords(goal.goal) });
  if (isGroup(goal)) {
    const goals = goal.goals.map(goalWords).join(' · ');
    return goal.kind === 'order' ? say('In this order: {goals}', { goals }) : goals;
  }
  return goalDef(goal.kind)!.words(goal as never);
}
/** What is drawn of it on the mat; `door`: it is not to be entered. */
export function goalDraws(goal: Goal, mat: Mat): Drawn[] {
  if (isNever(goal)) return goalDraws(goal.goal, mat).map((d) => ({ ...d, door: !d.door }));
  if (isGroup(goal)) return goal.goals.flatMap((one) => goalDraws(one, mat));
  return goalDef(goal.kind)!.draws?.(goal as never, mat) ?? [];
}

/** What holds to the end is met. */
export const counts = ({ state }: Result): boolean => state === 'met' || state === 'holds';
/** What a trace says to a goal, up to the moment that `look` names. */
export function checkGoal(goal: Goal, look: Look): Result {
  if (isNever(goal)) {
    const inner = checkGoal(goal.goal, look);
    const holds: Result = isOver(look)
      ? { state: 'met', says: say('This did not happen.') }
      : { state: 'holds', says: say('not so far') };
    if (inner.state !== 'met') return holds;
    return { state: 'missed', says: say('This was not to be.'), atUs: inner.atUs, at: inner.at };
  }
  if (!isGroup(goal)) return goalDef(goal.kind)!.check(goal as never, look);
  let { fromUs } = look;
  const parts: Result[] = [];
  let wrong: Result | undefined;
  goal.goals.forEach((one, i) => {
    // in an order nothing is looked for before what comes first is there
    const waits = wrong && goal.kind === 'order';
    const result: Result = waits ? { state: 'open', says: '' } : checkGoal(one, { ...look, fromUs });
    parts.push(result);
    if (counts(result)) {
      if (goal.kind === 'order') fromUs = result.atUs ?? fromUs;
    } else
      wrong ??= {
        ...result,
        says: say('{n} of {of}, {goal}: {says}', {
          n: i + 1,
          of: goal.goals.length,
          goal: goalWords(one),
          says: result.says
        })
      };
  });
  const last = goal.kind === 'order' ? fromUs : Math.max(fromUs, ...parts.map((r) => r.atUs ?? 0));
  return { ...(wrong ?? met(last)), parts };
}

/** What came of a try. */
export type Verdict = {
  results: Result[];
  /** the bell rings */
  met: boolean;
  /** when the last of them was met */
  atUs: number;
  /** the goal that was missed by the least, where some were */
  nearest?: number;
};
/** So much of each unit weighs alike, to tell the nearest of several misses. */
const TYPICAL: Readonly<Record<string, number>> = { cm: 10, '°': 30, s: 1, g: 0.2, Hz: 50 };
export function judge(goals: readonly Goal[], look: Look): Verdict {
  const results = goals.map((goal) => checkGoal(goal, look));
  // what only holds is no deed: as long as a run goes on, something must have been done
  const rings = results.every(counts) && (isOver(look) || results.some((r) => r.state === 'met'));
  const missed = results.flatMap((r, i) => (counts(r) ? [] : [i]));
  const size = (i: number): number => {
    const { off } = results[i];
    return off ? off.amount / (TYPICAL[off.unit] ?? 1) : Infinity;
  };
  missed.sort((a, b) => size(a) - size(b) || a - b);
  return {
    results,
    met: rings,
    atUs: Math.max(0, ...results.map((r) => (r.state === 'met' ? (r.atUs ?? 0) : 0))),
    ...(rings || !missed.length ? {} : { nearest: missed[0] })
  };
}
