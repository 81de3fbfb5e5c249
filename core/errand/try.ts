/** A try of an errand: the run of a program in its yard. */
import type { Kit } from '../kit/kit.ts';
import type { Program } from '../language/program.ts';
import type { Project } from '../project.ts';
import { rehearse } from '../run/interpreter.ts';
import type { RunOptions } from '../run/spec.ts';
import type { Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';
import { inputsOf, type Task } from './task.ts';

/** Each try is of the same world; its seed is that of a rehearsal. */
const SEED = 1;
type World = { kit: Kit; mat: Mat; start?: Project['start']; others?: Project['others'] };
/** What a rehearsal of a program in an errand is made of. */
export const tryOptions = (
  task: Pick<Task, 'inputs' | 'limitS'>,
  { kit, mat, start, others }: World,
  program: Program
): RunOptions => ({
  program,
  kit,
  mat,
  start,
  others,
  seed: SEED,
  inputs: inputsOf(task),
  limitS: task.limitS
});
/** Runs it. */
export const tryOut = (
  task: Pick<Task, 'inputs' | 'limitS'>,
  world: World,
  program: Program,
  more: Partial<RunOptions> = {}
): Trace => rehearse({ ...tryOptions(task, world, program), ...more });
