/** A try of an errand: the run of a program, and what came of it. */
import type { Kit } from '../kit/kit.ts';
import { findings, type Finding } from '../trace/findings/findings.ts';
import type { Program } from '../language/program.ts';
import type { Project } from '../project.ts';
import { rehearse } from '../run/interpreter.ts';
import type { RunOptions } from '../run/spec.ts';
import { endUs, type Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';
import { judge, walkGoals, type Verdict } from './goals.ts';
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

/** Whether a goal of the errand compares with what the program did at first. */
export const asksBefore = ({ goals }: Pick<Task, 'goals'>): boolean =>
  [...walkGoals(goals)].some((g) => g.kind === 'same');

/** What is told beside the bell: what was done, but not well. */
const NOT_WELL = new Set(['still-driving', 'touched', 'rolled-on-stop', 'tipped', 'slipped', 'error', 'taken-over']);
export const notWell = (trace: Trace, program?: Program): Finding[] =>
  findings(trace, program).filter((f) => NOT_WELL.has(f.rule));

/** @param toUs up to which moment; its end where it is left out */
export const judged = (
  { goals }: Pick<Task, 'goals'>,
  seen: { trace: Trace; mat: Mat; program?: Program; before?: Trace },
  toUs = endUs(seen.trace)
): Verdict => judge(goals, { ...seen, fromUs: 0, toUs });
