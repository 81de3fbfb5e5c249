/** All kinds of goals, goals of goals, and what a trace says to each. */
import * as z from 'zod';
import { say } from '../words.ts';
import type { Mat } from '../yard/mat.ts';
import { orderedText } from '../ordered.ts';
import { endUs } from '../trace/trace.ts';
import { isOver, met, num, sec, type Drawn, type GoalDef, type Look, type Result } from './goal.ts';
import { few, same, used, uses } from './goals/built.ts';
import { lit, rests, still } from './goals/lasting.ts';
import { hears, pressed, reads } from './goals/moments.ts';
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
  rests,
  lit,
  still,
  logs,
  sends,
  pressed,
  reads,
  hears,
  few,
  uses,
  used,
  same
];
/** Those of files from before too. */
const READ: readonly GoalDef[] = [...GOALS, facesOnMat];
const byKind = new Map(READ.map((def) => [def.kind, def]));
export const goalDef = (kind: string): GoalDef | undefined => byKind.get(kind);

/**
 * A goal as it stands in a file: its kind and its fields; or goals in an order, all of them, one that must never be, one that
 * must follow each time that another comes to be, or one that stays so from one moment to another (to the end without `to`).
 * Times are seconds.
 */
export type Goal =
  | ({ kind: string } & Readonly<Record<string, unknown>>)
  | { kind: 'order' | 'all'; goals: readonly Goal[] }
  | { kind: 'never'; goal: Goal }
  | Each
  | Stays;
type Each = { kind: 'each'; when: Goal; within: number; goal: Goal };
type Stays = { kind: 'stays'; goal: Goal; from: Goal; to?: Goal };
/** Goals of goals, by what they are called. */
export const GROUPS: ReadonlySet<string> = new Set(['order', 'all', 'never', 'each', 'stays']);
const MOST = 20;
/** Whether something can stay so. */
const canStay = (goal: Goal): boolean => !!goalDef(goal.kind)?.broken;
export const goalSchema: z.ZodType<Goal> = z.lazy(() =>
  z.union([
    ...READ.map((def) => def.schema),
    z.strictObject({ kind: z.enum(['order', 'all']), goals: z.array(goalSchema).min(1).max(MOST) }),
    z.strictObject({ kind: z.literal('never'), goal: goalSchema }),
    z.strictObject({
      kind: z.literal('each'),
      when: goalSchema,
      within: z.number().min(0.02).max(600),
      goal: goalSchema
    }),
    z.strictObject({
      kind: z.literal('stays'),
      goal: goalSchema.refine(canStay, 'something that can stay so: a picture, a lamp, a servo, standing still'),
      from: goalSchema,
      to: goalSchema.optional()
    })
  ] as unknown as [z.ZodType<Goal>, z.ZodType<Goal>])
);
export const goalsSchema = z.array(goalSchema).min(1).max(MOST);

const isGroup = (goal: Goal): goal is { kind: 'order' | 'all'; goals: readonly Goal[] } => 'goals' in goal;
const isNever = (goal: Goal): goal is { kind: 'never'; goal: Goal } => goal.kind === 'never';
const isEach = (goal: Goal): goal is Each => goal.kind === 'each';
const isStays = (goal: Goal): goal is Stays => goal.kind === 'stays';
/** The goals right within a goal. */
const within = (goal: Goal): readonly Goal[] =>
  isGroup(goal)
    ? goal.goals
    : isNever(goal)
      ? [goal.goal]
      : isEach(goal)
        ? [goal.when, goal.goal]
        : isStays(goal)
          ? [goal.goal, goal.from, ...(goal.to ? [goal.to] : [])]
          : [];
/** A goal and all goals within it. */
export function* walkGoals(goals: readonly Goal[]): Generator<Goal> {
  for (const goal of goals) {
    yield goal;
    yield* walkGoals(within(goal));
  }
}

/** What is asked, in a line. */
export function goalWords(goal: Goal): string {
  if (isNever(goal)) return say('Never: {goal}', { goal: goalWords(goal.goal) });
  if (isGroup(goal)) {
    const goals = goal.goals.map(goalWords).join(' · ');
    return goal.kind === 'order' ? say('In this order: {goals}', { goals }) : goals;
  }
  if (isEach(goal))
    return say('Each time, within {s} s · {when} → {goal}', {
      when: goalWords(goal.when),
      s: num(goal.within, 2),
      goal: goalWords(goal.goal)
    });
  if (isStays(goal)) {
    const words = { goal: goalWords(goal.goal), from: goalWords(goal.from) };
    return goal.to
      ? say('From {from} to {to} it stays so: {goal}', { ...words, to: goalWords(goal.to) })
      : say('From {from} on it stays so: {goal}', words);
  }
  return goalDef(goal.kind)!.words(goal as never);
}
/** What is drawn of it on the mat; `door`: it is not to be entered. */
export function goalDraws(goal: Goal, mat: Mat): Drawn[] {
  if (isNever(goal)) return goalDraws(goal.goal, mat).map((d) => ({ ...d, door: !d.door }));
  const inner = within(goal);
  if (inner.length) return inner.flatMap((one) => goalDraws(one, mat));
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
  if (isEach(goal)) return checkEach(goal, look);
  if (isStays(goal)) return checkStays(goal, look);
  if (!isGroup(goal)) return goalDef(goal.kind)!.check(goal as never, look);
  let { fromUs } = look;
  const parts: Result[] = [];
  let wrong: Result | undefined;
  // the very same once more is another one
  const again = (i: number): boolean =>
    goal.kind === 'order' && i > 0 ? orderedText(goal.goals[i]) === orderedText(goal.goals[i - 1]) : !!look.anew;
  goal.goals.forEach((one, i) => {
    // in an order nothing is looked for before what comes first is there
    const waits = wrong && goal.kind === 'order';
    const result: Result = waits ? { state: 'open', says: '' } : checkGoal(one, { ...look, fromUs, anew: again(i) });
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

/** Each time that one comes to be, the other follows in time; and it did come to be. */
function checkEach({ when, within: s, goal }: Each, look: Look): Result {
  let [fromUs, anew, lastUs, n] = [look.fromUs, !!look.anew, look.fromUs, 0];
  for (;;) {
    const came = checkGoal(when, { ...look, fromUs, anew });
    // what is met at the same moment for ever is met once
    if (came.state !== 'met' || came.atUs === undefined || (n > 0 && came.atUs <= fromUs))
      return n ? (isOver(look) ? met(lastUs) : { state: 'holds', says: say('{n} times so far', { n }) }) : came;
    const fromWhen = came.atUs;
    const until = fromWhen + s * 1e6;
    const result = checkGoal(goal, { ...look, fromUs: fromWhen, toUs: Math.min(look.toUs, until), anew: false });
    // a run that was cut off has no time left for it
    if (!counts(result) && !(look.trace.ended === 'time limit' && until > endUs(look.trace))) {
      const late = look.toUs >= until || isOver(look);
      return {
        ...result,
        state: late ? 'missed' : 'open',
        says: say('{when}, at {s} s: {says}', { when: goalWords(when), s: sec(fromWhen), says: result.says }),
        atUs: result.atUs ?? fromWhen
      };
    }
    n++;
    lastUs = Math.max(lastUs, result.atUs ?? fromWhen);
    [fromUs, anew] = [fromWhen, true];
  }
}
/** From one moment to another it does not stop being so. */
function checkStays({ goal, from, to }: Stays, look: Look): Result {
  const begins = checkGoal(from, look);
  if (begins.state !== 'met' || begins.atUs === undefined) return begins;
  const fromUs = begins.atUs;
  const anew = !!to && orderedText(from) === orderedText(to);
  const ends = to && checkGoal(to, { ...look, fromUs, anew });
  const toUs = ends?.state === 'met' ? (ends.atUs ?? look.toUs) : look.toUs;
  const brokenUs = goalDef(goal.kind)!.broken?.(goal as never, { ...look, fromUs, toUs, anew: false });
  if (brokenUs !== undefined && brokenUs < toUs)
    return { state: 'missed', says: say('At {s} s it was not so any more.', { s: sec(brokenUs) }), atUs: brokenUs };
  if (ends ? ends.state === 'met' : isOver(look)) return met(toUs);
  return ends && isOver(look) ? ends : { state: 'holds', says: say('it stays so') };
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
