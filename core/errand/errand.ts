/**
 * An errand: a task with a device, a mat, goals and hints. Its file ends in .mossbell-errand.json. Everything from outside
 * comes in through `readErrand`, which says what is wrong, where, and what to do.
 */
import * as z from 'zod';
import { kitSchema, type Kit } from '../kit/kit.ts';
import { CHANGES, type NamedChange } from '../language/changes.ts';
import { checkProgram } from '../language/check.ts';
import { allSteps, programSchema, type Program } from '../language/program.ts';
import { newProject, projectSchema, type Project } from '../project.ts';
import { jsonOf, nestedTooDeep, tooDeep, whatIsWrong } from '../read.ts';
import { parseInputs } from '../trace/inputs.ts';
import { say } from '../words.ts';
import { matSchema, poseSchema, type Mat, type Pose } from '../yard/mat.ts';
import { goalDef, GROUPS, walkGoals } from './goals.ts';
import { yardMark } from './yards.ts';
import { taskSchema, told, toldIn, type Task, type Told } from './task.ts';

/** Version 1 had none that are also right. */
export const ERRAND_VERSION = 2;
export const LEVELS = [1, 2, 3] as const;
export const errandSchema = z.strictObject({
  format: z.literal('mossbell.errand'),
  version: z.literal(ERRAND_VERSION),
  ...taskSchema.shape,
  /** easy, middling, hard */
  level: z.literal(LEVELS),
  kit: kitSchema,
  mat: matSchema,
  start: poseSchema.optional(),
  others: projectSchema.shape.others,
  /** a program that meets all goals; on stand-ins too, as they are or once the kit sheet is measured */
  model: programSchema,
  standIns: z.enum(['as they are', 'calibrated']).optional(),
  /** programs that do not, what each shows, and the places of the goals that it misses */
  wrong: z
    .array(
      z.strictObject({ shows: told(400), program: programSchema, misses: z.array(z.number().int().min(0)).min(1) })
    )
    .max(6),
  /** what meets all goals though it does otherwise than the model, and why that is right: small changes of it, or another way */
  alsoRight: z
    .array(
      z.union([
        z.strictObject({ why: told(400), program: programSchema }),
        z.strictObject({
          why: told(400),
          changes: z
            .array(z.strictObject({ kind: z.enum(CHANGES), block: z.string(), slot: z.string().optional() }))
            .min(1)
            .max(60)
        })
      ])
    )
    .max(12)
    .default([])
});
export type AlsoRight = { why: Told; program: Program } | { why: Told; changes: NamedChange[] };
export type Errand = Task & {
  format: 'mossbell.errand';
  version: typeof ERRAND_VERSION;
  level: (typeof LEVELS)[number];
  kit: Kit;
  mat: Mat;
  start?: Pose;
  others?: NonNullable<Project['others']>;
  model: Program;
  standIns?: 'as they are' | 'calibrated';
  wrong: { shows: Told; program: Program; misses: number[] }[];
  alsoRight: AlsoRight[];
};
export type ErrandRead = { ok: true; errand: Errand } | { ok: false; problem: string };

/** @param text contents of a file; @param name how to call it in a message */
export function readErrand(text: string, name = 'This file'): ErrandRead {
  const value = jsonOf(text, name, '.mossbell-errand.json');
  return 'problem' in value ? { ok: false, problem: value.problem } : checkErrand(value.json, name);
}
export function checkErrand(value: unknown, name = 'This file'): ErrandRead {
  const no = (problem: string): ErrandRead => ({ ok: false, problem });
  const head = value as { format?: unknown; version?: unknown; goals?: unknown } | null;
  if (typeof head !== 'object' || head === null || head.format !== 'mossbell.errand')
    return no(
      say('{name} is JSON, but not an errand of Moss Bell. Choose a file that ends in .mossbell-errand.json.', { name })
    );
  if (typeof head.version === 'number' && head.version > ERRAND_VERSION)
    return no(
      say(
        '{name} was written by a newer Moss Bell (errands of version {version}; this one reads up to {last}). Update Moss Bell to open it.',
        { name, version: head.version, last: ERRAND_VERSION }
      )
    );
  if (tooDeep(value)) return no(nestedTooDeep(name));
  const kind = unknownGoal(head);
  if (kind !== undefined)
    return no(say('{name} has a goal that this Moss Bell does not know: "{kind}".', { name, kind }));
  const parsed = errandSchema.safeParse(head.version === 1 ? { ...head, version: ERRAND_VERSION } : value);
  if (!parsed.success) return no(whatIsWrong(parsed.error, name));
  const errand = parsed.data as Errand;
  const wrong =
    [
      errand.given,
      errand.model,
      ...errand.wrong.map((w) => w.program),
      ...errand.alsoRight.flatMap((a) => ('program' in a ? [a.program] : [])),
      ...(errand.others ?? []).map((o) => o.program)
    ]
      .map(checkProgram)
      .find((w) => w !== undefined) ?? errandProblem(errand);
  return wrong
    ? no(say('{name} cannot be opened: {wrong} Nothing was changed.', { name, wrong }))
    : { ok: true, errand };
}
/** A goal of no known kind, by its kind: unions would hide it. */
function unknownGoal({ goals }: { goals?: unknown }): string | undefined {
  const look = (list: unknown): string | undefined => {
    if (!Array.isArray(list)) return undefined;
    for (const goal of list as Record<'kind' | 'goals' | 'goal' | 'when' | 'from' | 'to', unknown>[]) {
      if (typeof goal !== 'object' || goal === null) continue;
      const { kind } = goal;
      if (!GROUPS.has(String(kind)) && !goalDef(String(kind))) return String(kind).slice(0, 60);
      const inner = look(goal.goals) ?? look([goal.goal, goal.when, goal.from, goal.to].filter(Boolean));
      if (inner) return inner;
    }
    return undefined;
  };
  return look(goals);
}
/** What in it speaks of something that is not there. */
function errandProblem({ goals, mat, inputs, situations = [], wrong, alsoRight, model }: Errand): string | undefined {
  for (const goal of walkGoals(goals)) {
    const hoop = goalDef(goal.kind)?.needs?.(goal as never).hoop;
    const without =
      hoop && [mat, ...situations.map((s) => s.mat ?? mat)].find((m) => !m.hoops.some((h) => h.name === hoop));
    if (without)
      return say('A goal speaks of the hoop {hoop}, and the mat {mat} has none that is called so.', {
        hoop,
        mat: without.name
      });
  }
  if (wrong.some(({ misses }) => misses.some((i) => i >= goals.length)))
    return say('A wrong program is to miss a goal that there is not.');
  const blocks = new Set([...allSteps(model)].map((s) => s.id));
  if (alsoRight.some((a) => 'changes' in a && a.changes.some((c) => !blocks.has(c.block))))
    return say('A change that is also right is of a block that the model has not.');
  for (const lines of [inputs, ...situations.map((s) => s.inputs)]) {
    const read = lines === undefined ? undefined : parseInputs(lines);
    if (read && !read.ok) return read.problem;
  }
  return undefined;
}

export const writeErrand = (errand: Errand): string => `${JSON.stringify(errand, null, 1)}\n`;
/** What a pupil gets to see of it. */
export const taskOf = (errand: Errand): Task =>
  Object.fromEntries(Object.entries(errand).filter(([key]) => key in taskSchema.shape)) as Task;
/** A project in which it is done. */
export const projectOf = (errand: Errand): Project => ({
  ...newProject(toldIn(errand.name), errand.kit, errand.mat),
  program: errand.given,
  ...(errand.start ? { start: errand.start } : {}),
  ...(errand.others ? { others: errand.others } : {}),
  errand: { ...taskOf(errand), yard: yardMark(errand) }
});
