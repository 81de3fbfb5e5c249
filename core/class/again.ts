/** What was handed in runs once more, in the world of the errand as the teacher gave it. */
import { resultFrom, together } from '../errand/verdict.ts';
import type { Errand } from '../errand/errand.ts';
import { tryOut, verdictIn } from '../errand/try.ts';
import { situationSays, yardsOf, type World, type Yard } from '../errand/yards.ts';
import type { Task } from '../errand/task.ts';
import type { Project } from '../project.ts';
import { rehearse } from '../run/interpreter.ts';
import { findings } from '../trace/findings/findings.ts';
import { stateAt } from '../trace/query.ts';
import { endUs } from '../trace/trace.ts';
import { toldOf } from '../trace/told.ts';
import type { Told } from '../trace/tried.ts';

/** What runs without an errand is looked at for so long, s. */
const LIMIT_S = 60;
export type Again =
  | { text: true }
  | {
      /** of each goal, in the first situation that was missed; none without an errand */
      goals: boolean[];
      met: boolean;
      /** of each situation, where there are several: what it is called, and whether all goals were met in it */
      situations: { says: string; met: boolean }[];
      /** when the last goal was met */
      seconds?: number;
      blocks?: number;
      ended: string;
      /** where it stopped: m, degrees clockwise from up */
      stop: { x: number; y: number; facingDeg: number };
      told: Told[];
    };

/**
 * @param errand as the teacher has it: goals, mat and start are its own, so that nothing that was changed in the pupil's
 * project can make it easier. Kit and program are the pupil's.
 */
export function runAgain(project: Project, errand?: Errand): Again {
  // text runs on MicroPython, not on this bench
  if (project.text !== undefined) return { text: true };
  const { program, kit } = project;
  const task: Task | undefined = errand ?? project.errand;
  const world: World = errand
    ? { kit, mat: errand.mat, start: errand.start, others: errand.others }
    : { kit, mat: project.mat, start: project.start, others: project.others };
  const came = (task ? yardsOf(task, world) : [world]).map((yard: Yard) => {
    const trace = task ? tryOut(task, yard, program) : rehearse({ program, ...world, seed: 1, limitS: LIMIT_S });
    return { yard, trace, verdict: task && verdictIn(task, yard, trace, program) };
  });
  const all = together(came.flatMap((c) => c.verdict ?? []));
  const { trace, verdict } = came[all.first];
  const result = task && verdict && resultFrom(task, verdict, trace, program);
  const { x, y, facingDeg } = stateAt(trace, endUs(trace));
  return {
    goals: result?.goals ?? [],
    met: !!task && all.met,
    situations: came.length > 1 ? came.map((c) => ({ says: situationSays(c.yard), met: !!c.verdict?.met })) : [],
    ...(result?.seconds === undefined ? {} : { seconds: result.seconds }),
    ...(result?.blocks === undefined ? {} : { blocks: result.blocks }),
    ended: trace.ended ?? '',
    stop: { x, y, facingDeg },
    told: toldOf(findings(trace, kit, program))
  };
}
