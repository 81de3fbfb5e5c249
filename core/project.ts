/**
 * A project is what a person saves: program, kit, mat, notebook. The file ends in .mossbell.json. Everything from outside
 * comes in through `readProject`, which says what is wrong, where, and what to do.
 */
import * as z from 'zod';
import { displayedProject, placedProject, renewedProject } from './kit/before.ts';
import { kitSchema, type Kit } from './kit/kit.ts';
import { checkProgram } from './language/check.ts';
import { pictureText, programSchema, type Program } from './language/program.ts';
import { taskInProject, type Task } from './errand/task.ts';
import { issueOf, jsonOf, nestedTooDeep, tooDeep, whatIsWrong } from './read.ts';
import { matSchema, poseSchema, type Mat, type Pose } from './yard/mat.ts';
import { say } from './words.ts';
export { LARGEST_FILE, writeProject } from './write.ts';

export const VERSION = 5;
/**
 * What makes a project of one version one of the next: `UPGRADES[1]` takes version 1 to 2, and so on. A change of the schema
 * that an old file does not meet goes with a new version and its upgrade here; a file of each version is a fixture
 * (core/testing/projects), so that no old project ever comes to an error page.
 */
const UPGRADES: Readonly<Record<number, (old: Record<string, unknown>) => Record<string, unknown>>> = {
  1: renewedProject,
  2: placedProject,
  3: displayedProject,
  // what was typed below a value block is kept from 5 on: a project of 4 has none of it
  4: (project) => project
};
/** @param upgrades, to other versions than this program's in tests */
export function migrate(value: unknown, to: number = VERSION, upgrades = UPGRADES): unknown {
  let project = value as Record<string, unknown>;
  for (let v = Number(project.version); v < to && upgrades[v]; v++)
    project = { ...upgrades[v](project), version: v + 1 };
  return project;
}
export const projectSchema = z.strictObject({
  format: z.literal('mossbell.project'),
  version: z.literal(VERSION),
  name: z.string().trim().min(1).max(80),
  program: programSchema,
  kit: kitSchema,
  mat: matSchema,
  /** where the robot starts, when not at the mat's own start */
  start: poseSchema.optional(),
  notebook: z.string().max(100_000),
  /** a text project: its Python is the program, and there are no blocks */
  text: z.string().max(200_000).optional(),
  /** other devices in the same yard, each with its own program */
  others: z
    .array(
      z.strictObject({
        name: z.string().trim().min(1).max(60),
        program: programSchema,
        kit: kitSchema,
        start: poseSchema.optional()
      })
    )
    .max(3)
    .optional(),
  /** inputs that were kept, to be used again: lines of an inputs file */
  tracks: z
    .array(z.strictObject({ name: z.string().trim().min(1).max(60), lines: z.string().max(500_000) }))
    .max(20)
    .optional(),
  /** remarks of the look-over that are meant so: rule and blocks */
  setAside: z.array(z.string().max(2000)).max(500).optional(),
  /** painted pictures with a name, to be used again */
  pictures: z.record(z.string().min(1).max(40), pictureText).optional(),
  /** the errand that is done in it, and how many of its hints were opened */
  errand: taskInProject.optional(),
  hintsOpened: z.number().int().min(0).max(10).optional()
});
export type Project = {
  format: 'mossbell.project';
  version: typeof VERSION;
  name: string;
  program: Program;
  kit: Kit;
  mat: Mat;
  start?: Pose;
  notebook: string;
  text?: string;
  others?: { name: string; program: Program; kit: Kit; start?: Pose }[];
  tracks?: { name: string; lines: string }[];
  setAside?: string[];
  pictures?: Record<string, string>;
  errand?: Task;
  hintsOpened?: number;
};

export type Read =
  | { ok: true; project: Project }
  | { ok: false; problem: string; /** what is wrong in it, where the file itself is one of ours */ wrong?: string };
const no = (problem: string, wrong?: string): Read => ({ ok: false, problem, ...(wrong ? { wrong } : {}) });

/** @param text contents of a file; @param name how to call it in a message */
export function readProject(text: string, name = 'This file'): Read {
  const read = jsonOf(text, name, '.mossbell.json');
  return 'problem' in read ? no(read.problem) : checkProject(read.json, name);
}

export function checkProject(value: unknown, name = 'This file'): Read {
  const head = value as { format?: unknown; version?: unknown } | null;
  if (typeof head !== 'object' || head === null || head.format !== 'mossbell.project')
    return no(
      say(
        '{name} is JSON, but not a Moss Bell project: its "format" is {x}. Choose a file that ends in .mossbell.json.',
        {
          name,
          x:
            head && typeof head === 'object' && head.format !== undefined
              ? JSON.stringify(head.format).slice(0, 60)
              : say('missing')
        }
      )
    );
  if (typeof head.version !== 'number')
    return no(say('{name} does not say which version of the format it has.', { name }));
  if (head.version > VERSION)
    return no(
      say(
        '{name} was written by a newer Moss Bell (format {version}; this one reads up to {VERSION}). Update Moss Bell to open it.',
        { name, version: head.version, VERSION }
      )
    );
  if (tooDeep(value)) return no(nestedTooDeep(name));
  const parsed = projectSchema.safeParse(migrate(value));
  if (!parsed.success) return no(whatIsWrong(parsed.error, name), issueOf(parsed.error));
  const project = parsed.data as Project;
  const wrong =
    checkProgram(project.program) ?? project.others?.map((o) => checkProgram(o.program)).find((w) => w !== undefined);
  return wrong
    ? no(say('{name} cannot be opened: {wrong} Nothing was changed.', { name, wrong }), wrong)
    : { ok: true, project };
}

export const newProject = (name: string, kit: Kit, mat: Mat): Project => ({
  format: 'mossbell.project',
  version: VERSION,
  name,
  program: { stacks: [], routines: [], variables: [], loose: [] },
  kit,
  mat,
  notebook: ''
});
