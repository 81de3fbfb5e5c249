/** An errand while it is made: its goals in rows, and what becomes of them. */
import type { NamedChange } from '../language/changes.ts';
import type { Kit } from '../kit/kit.ts';
import type { Program } from '../language/program.ts';
import type { Project } from '../project.ts';
import { say } from '../words.ts';
import type { Mat } from '../yard/mat.ts';
import { checkErrand, ERRAND_VERSION, type Errand } from './errand.ts';
import type { Goal, Verdict } from './goals.ts';
import { situationOf, type Otherwise } from './otherwise.ts';
import type { Task } from './task.ts';

/** A goal as it is made: by itself, in the order of the rows, or as one that must never be. */
export type Row = { goal: Goal; how: 'by itself' | 'in order' | 'never' };
export type Wrong = { shows: string; program: Program; name: string };
export type Making = {
  name: string;
  story: string;
  level: Errand['level'];
  rows: Row[];
  hints: string[];
  may: 'all' | 'numbers';
  /** the tray has the kinds of the model alone */
  offersModel: boolean;
  predictFirst: boolean;
  mat: Mat;
  wrong: Wrong[];
  /** what is otherwise in the other yards of a try */
  situations: Otherwise[];
  /** changes of the model that are right too, each with a word why */
  alsoRight: { says: string; why: string; change: NamedChange }[];
  /** what the pupil begins with: nothing but the starters of the model, all of it, or a wrong one by its place */
  given: 'nothing' | 'model' | number;
};
export const newMaking = ({ name, mat }: Project): Making => ({
  name,
  story: '',
  level: 1,
  rows: [],
  hints: [],
  may: 'all',
  offersModel: false,
  predictFirst: false,
  mat,
  wrong: [],
  situations: [],
  alsoRight: [],
  given: 'nothing'
});

/** The goals that rows make: those in an order are one goal, where the first of them stands. */
export function goalsOf(rows: readonly Row[]): Goal[] {
  const ordered = rows.filter((r) => r.how === 'in order').map((r) => r.goal);
  const out: Goal[] = [];
  let placed = false;
  for (const { goal, how } of rows) {
    if (how === 'never') out.push({ kind: 'never', goal });
    else if (how === 'by itself') out.push(goal);
    else if (!placed) {
      placed = true;
      out.push(ordered.length > 1 ? { kind: 'order', goals: ordered } : goal);
    }
  }
  return out;
}
/** The model without what the pupil is to find: the starters of its stacks, its variables. */
const begun = ({ stacks, variables }: Program): Program => ({
  stacks: stacks
    .filter((s) => s.steps[0]?.kind.startsWith('begin.'))
    .map((s) => ({ ...s, steps: s.steps.slice(0, 1) })),
  variables,
  routines: [],
  loose: []
});
export const givenOf = ({ given, wrong }: Making, model: Program): Program =>
  given === 'nothing' ? begun(model) : given === 'model' ? model : (wrong[given]?.program ?? begun(model));
/** What is tried in it. */
export const taskFor = (making: Making, model: Program): Pick<Task, 'goals' | 'given'> => ({
  goals: goalsOf(making.rows),
  given: givenOf(making, model)
});

/** Those of one reason together. */
function rightOf(alsoRight: Making['alsoRight']): Errand['alsoRight'] {
  const byWhy = new Map<string, NamedChange[]>();
  for (const { why, change } of alsoRight) {
    const reason = why.trim() || say('its author says so');
    byWhy.set(reason, [...(byWhy.get(reason) ?? []), change]);
  }
  return [...byWhy].map(([why, changes]) => ({ why, changes }));
}
/** @param verdicts what came of each wrong program: the goals that it misses are those that it is to miss */
export function errandFrom(
  making: Making,
  {
    id,
    kit,
    model,
    start,
    others,
    offers,
    verdicts
  }: {
    id: string;
    kit: Kit;
    model: Program;
    start?: Project['start'];
    others?: Project['others'];
    offers: string[];
    verdicts: readonly Verdict[];
  }
): ReturnType<typeof checkErrand> {
  const { name, story, level, hints, may, predictFirst, mat, wrong, situations, alsoRight } = making;
  const world = { kit, mat, start, others };
  const misses = (i: number): number[] =>
    (verdicts[i]?.results ?? []).flatMap((r, g) => (r.state === 'met' || r.state === 'holds' ? [] : [g]));
  const errand: Errand = {
    format: 'mossbell.errand',
    version: ERRAND_VERSION,
    id,
    name: name.trim() || id,
    story: story.trim() || name.trim() || id,
    level,
    kit,
    mat,
    ...(start ? { start } : {}),
    ...(others ? { others } : {}),
    ...taskFor(making, model),
    hints: hints.map((h) => h.trim()).filter(Boolean),
    may,
    ...(making.offersModel && offers.length ? { offers } : {}),
    predictFirst,
    model,
    wrong: wrong.flatMap(({ shows, program, name: of }, i) =>
      misses(i).length ? [{ shows: shows.trim() || of, program, misses: misses(i) }] : []
    ),
    ...(situations.length ? { situations: situations.map((s) => situationOf(s, world)) } : {}),
    alsoRight: rightOf(alsoRight)
  };
  return checkErrand(errand, name);
}
