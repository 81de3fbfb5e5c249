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
/** Runs a program in an errand, as a rehearsal does. */
export const tryOut = (
  task: Pick<Task, 'inputs' | 'limitS'>,
  { kit, mat, start, others }: World,
  program: Program,
  more: Partial<RunOptions> = {}
): Trace =>
  rehearse({
    program,
    kit,
    mat,
    ...(start ? { start } : {}),
    ...(others ? { others } : {}),
    seed: SEED,
    inputs: inputsOf(task),
    ...(task.limitS === undefined ? {} : { limitS: task.limitS }),
    ...more
  });
