/** A try of an errand: the run of a program in its yard, and in each of its other situations. */
import type { Program } from '../language/program.ts';
import { rehearse } from '../run/interpreter.ts';
import type { RunOptions } from '../run/spec.ts';
import type { Trace } from '../trace/trace.ts';
import type { Verdict } from './goals.ts';
import { inputsOf, type Task } from './task.ts';
import { asksBefore, judged } from './verdict.ts';
import type { Yard } from './yards.ts';

/** Each try is of the same world; its seed is that of a rehearsal. */
const SEED = 1;
/** What a rehearsal of a program in a yard of an errand is made of. */
export const tryOptions = (
  { limitS }: Pick<Task, 'limitS'>,
  { kit, mat, start, others, inputs }: Yard,
  program: Program
): RunOptions => ({
  program,
  kit,
  mat,
  start,
  others,
  seed: SEED,
  inputs: inputsOf({ inputs }),
  limitS
});
/** Runs it in one yard. */
export const tryOut = (
  task: Pick<Task, 'limitS'>,
  yard: Yard,
  program: Program,
  more: Partial<RunOptions> = {}
): Trace => rehearse({ ...tryOptions(task, yard, program), ...more });
/** What a run in one yard comes to; what the errand began with runs there too, where a goal compares with it. */
export const verdictIn = (task: Task, yard: Yard, trace: Trace, program?: Program): Verdict =>
  judged(task, {
    trace,
    mat: yard.mat,
    program,
    before: asksBefore(task) ? tryOut(task, yard, task.given) : undefined
  });
