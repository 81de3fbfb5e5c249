/** An errand in the workbench: what a run comes to so far, and at its end. Loaded where there is an errand. */
import { goalDraws, type Verdict } from '../../../../core/errand/goals.ts';
import type { Result } from '../../../../core/errand/goal.ts';
import type { TryResult } from '../../../../core/trace/tried.ts';
import type { Task } from '../../../../core/errand/task.ts';
import { inItsYard, untouched } from '../../../../core/errand/yards.ts';
import { asksBefore, judged, resultFrom, together } from '../../../../core/errand/verdict.ts';
import { programOf } from '../../../../core/language/program.ts';
import type { Trace } from '../../../../core/trace/trace.ts';
import type { Mat } from '../../../../core/yard/mat.ts';
import { say } from '../../../../core/words.ts';
import type { Run, Runs } from '../runs.svelte.ts';
import { elsewhereOf } from './elsewhere.svelte.ts';

/** A ring that a goal draws, in metres, and how it looks. */
export type Ring = { x: number; y: number; radius: number; look: Result['state'] | 'door' };
export const ringsOf = (task: Task, mat: Mat, verdict?: Verdict): Ring[] =>
  task.goals.flatMap((goal, i) =>
    goalDraws(goal, mat).map(({ door, ...ring }): Ring => ({
      ...ring,
      look: door ? 'door' : (verdict?.results[i].state ?? 'open')
    }))
  );

/** Runs of what an errand began with, to be compared with. */
const befores = new WeakMap<Task, Promise<Trace>>();
export async function beforeOf(runs: Runs, task: Task, project: Run['project']): Promise<Trace | undefined> {
  if (!project || !asksBefore(task)) return undefined;
  let before = befores.get(task);
  if (!before) befores.set(task, (before = runs.traceOf({ ...project, text: undefined, program: task.given })));
  return before;
}
/** @returns why the bell does not wait for what ran; undefined where it does */
export function staysHere(task: Task, { kind, project, trace }: Run): string | undefined {
  if (kind === 'device')
    return task.situations
      ? say('This is what the device does here. The bell waits for a rehearsal in all situations.')
      : undefined;
  if (!project) return undefined;
  if (!inItsYard(task, project)) return say('This was not in the yard of the errand: the bell waits for a try there.');
  if (!untouched(task, trace))
    return say('A hand changed something in this run: the bell waits for a try in which none does.');
  return project.text !== undefined && project.others?.length
    ? say('A text runs alone, without the other device: for the bell, turn it into blocks.')
    : undefined;
}
/** @param toUs up to which moment; its end where it is left out */
export async function verdictOf(runs: Runs, task: Task, run: Run, toUs?: number): Promise<Verdict | undefined> {
  const mat = run.project?.mat;
  if (!mat) return undefined;
  return judged(
    task,
    { trace: run.trace, mat, program: programOf(run.project), before: await beforeOf(runs, task, run.project) },
    toUs
  );
}
/** What is kept of a try that is over. @param changed what was done since the one before */
export async function resultOf(
  runs: Runs,
  task: Task,
  run: Run,
  changed: readonly string[]
): Promise<TryResult | undefined> {
  const verdict = await verdictOf(runs, task, run);
  if (!verdict) return undefined;
  const all = [{ run, verdict }, ...(await elsewhereOf(runs, task, run).whole())];
  const { met, first } = together(all.map((one) => one.verdict));
  return {
    ...resultFrom(task, all[first].verdict, all[first].run.trace, programOf(run.project)),
    met: met && !staysHere(task, run),
    ...(all.length > 1 ? { situations: all.map((one) => one.verdict.met) } : {}),
    changed: [...new Set(changed)].slice(-6)
  };
}
