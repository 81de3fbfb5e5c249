/** Errands from the command line: what a program comes to in one, and whether an errand is sound. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readErrand, type Errand } from '../core/errand/errand.ts';
import { countBlocks } from '../core/errand/goals/built.ts';
import { goalWords, type Verdict } from '../core/errand/goals.ts';
import { holes, unsound, type Holes } from '../core/errand/proof.ts';
import { toldIn } from '../core/errand/task.ts';
import { tryOptions, tryOut, verdictIn } from '../core/errand/try.ts';
import { situationSays, yardsOf, type Yard } from '../core/errand/yards.ts';
import { notWell, together } from '../core/errand/verdict.ts';
import { lookOver } from '../core/language/lookover/lookover.ts';
import { stopsStart } from '../core/language/lookover/remark.ts';
import type { Program } from '../core/language/program.ts';
import { readPython } from '../core/language/python/read.ts';
import type { Project } from '../core/project.ts';
import { specOf } from '../core/run/spec.ts';
import type { Trace } from '../core/trace/trace.ts';

/** where Moss Bell lies, wherever it is called from */
const HOME = fileURLToPath(new URL('..', import.meta.url));
const shipped = (id: string): string => join(HOME, 'demo', 'errands', `${id}.mossbell-errand.json`);
/** @param name a file, or the name of an errand that ships, such as first-delivery @throws Error with a sentence */
export function errandOf(name: string): Errand {
  const file = !existsSync(name) && /^[a-z0-9-]+$/.test(name) ? shipped(name) : name;
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch {
    throw new Error(`${name}: there is no such errand, and no such file.`);
  }
  const read = readErrand(text, name);
  if (!read.ok) throw new Error(read.problem);
  return read.errand;
}

export type Tried = {
  file: string;
  name: string;
  met: boolean;
  seconds: number | null;
  blocks: number | null;
  goals: {
    goal: string;
    state: string;
    says: string;
    seconds: number | null;
    off: { amount: number; unit: string } | null;
  }[];
  /** where in `goals` the nearest miss is */
  nearest: number | null;
  notWell: string[];
  /** of an errand with several: whether all goals were met in each, and in which the goals above were looked at */
  situations: { says: string; met: boolean }[];
  situation: number;
  problem: string | null;
};
/** One that could not be tried. */
export const failed = (file: string, name: string, problem: string): Tried => ({
  file,
  name,
  met: false,
  seconds: null,
  blocks: null,
  goals: [],
  nearest: null,
  notWell: [],
  situations: [],
  situation: 0,
  problem
});
const rounded = (v: number): number => Math.round(v * 1000) / 1000;

/** A program in an errand, in all of the errand's own yards. What is told is told of the first that it missed. */
export async function tryIn(errand: Errand, file: string, project: Project): Promise<Tried> {
  const { kit } = errand;
  let isText = project.text !== undefined;
  // a text is tried on the errand's own kit: what it has not is said by its run
  if (!isText && project.kit.device !== kit.device)
    return failed(file, project.name, `It is for a ${project.kit.name}, and the errand for a ${kit.name}.`);
  let { program }: { program?: Program } = project;
  if (isText) {
    const found = readPython(project.text!, kit);
    program = found.ok ? found.program : undefined;
    // a text runs alone: beside other devices it is tried as the blocks that it is
    if (errand.others?.length) {
      if (!program)
        return failed(
          file,
          project.name,
          'It is a text that blocks cannot say, and beside other devices blocks alone run.'
        );
      isText = false;
    }
  }
  if (!isText) {
    const blocking = lookOver({ program: program!, kit }).filter(stopsStart)[0];
    if (blocking) return failed(file, project.name, `It cannot start: ${blocking.says}`);
  }
  const came: { yard: Yard; trace: Trace; verdict: Verdict }[] = [];
  for (const yard of yardsOf(errand, errand)) {
    const trace = isText
      ? await (
          await import('./standin.ts')
        ).runOnStandIn(
          { ...specOf(tryOptions(errand, yard, project.program)), name: project.name, device: 'Rehearsal' },
          project.text
        )
      : tryOut(errand, yard, program!);
    came.push({ yard, trace, verdict: verdictIn(errand, yard, trace, program) });
  }
  const { met, first } = together(came.map((c) => c.verdict));
  const { trace, verdict } = came[first];
  return {
    file,
    name: project.name,
    met,
    seconds: met ? rounded(verdict.atUs / 1e6) : null,
    blocks: program ? countBlocks(program) : null,
    goals: verdict.results.map((r, i) => ({
      goal: goalWords(errand.goals[i]),
      state: r.state,
      says: r.says,
      seconds: r.atUs === undefined ? null : rounded(r.atUs / 1e6),
      off: r.off ? { amount: rounded(r.off.amount), unit: r.off.unit } : null
    })),
    nearest: verdict.nearest ?? null,
    notWell: notWell(trace, kit, program).map((f) => f.says),
    situations: came.length > 1 ? came.map((c) => ({ says: situationSays(c.yard), met: c.verdict.met })) : [],
    situation: first,
    problem: null
  };
}
/** For a person: a line for each file, and for one that missed what it missed by the least. */
export function triedSays(tried: Tried): string[] {
  const { file, met, goals, nearest, seconds, blocks, notWell: well, situations, situation, problem } = tried;
  if (problem) return [`${file}: ${problem}`];
  const of = goals.length;
  const n = goals.filter((g) => g.state === 'met' || g.state === 'holds').length;
  const built = blocks === null ? '' : `, ${blocks} blocks`;
  return [
    met ? `${file}: all ${of} goals met in ${seconds} s${built}` : `${file}: ${n} of ${of} goals met${built}`,
    ...(met || !situations.length
      ? []
      : [`  in situation ${situation + 1} of ${situations.length}: ${situations[situation].says}`]),
    ...(nearest === null ? [] : [`  ${goals[nearest].goal}: ${goals[nearest].says}`]),
    ...(met ? well.map((says) => `  but: ${says}`) : [])
  ];
}
/** What `errand check` prints. @param others errands whose models are not to ring this one's bell */
export function checked(
  file: string,
  others: readonly Errand[]
): { file: string; id: string; name: string; goals: string[]; problems: string[]; changed: Omit<Holes, 'open'> } {
  const errand = errandOf(file);
  const { open, ...changed } = holes(errand, others);
  return {
    file,
    id: errand.id,
    name: toldIn(errand.name),
    goals: errand.goals.map(goalWords),
    problems: [...unsound(errand), ...open.map(({ says }) => `The bell rings for this too: ${says}`)],
    changed
  };
}
/** The errands that ship. */
export const allShipped = (): Errand[] =>
  readdirSync(join(HOME, 'demo', 'errands'))
    .sort()
    .map((file) => errandOf(file.replace('.mossbell-errand.json', '')));
