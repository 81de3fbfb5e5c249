/** What a class shows at an errand that it was given: gathered from the database, counted by the core. */
import { and, eq, isNull } from 'drizzle-orm';
import { shows, type Work } from '../../../core/class/shows.ts';
import { goalWords } from '../../../core/errand/goals.ts';
import { sentence } from '../../../core/language/catalogue.ts';
import { lookOver } from '../../../core/language/lookover/lookover.ts';
import { remarkKey } from '../../../core/language/lookover/remark.ts';
import { allSteps, type Program } from '../../../core/language/program.ts';
import { partName } from '../../../core/kit/kit.ts';
import type { Project } from '../../../core/project.ts';
import type { Told, TryResult } from '../../../core/trace/tried.ts';
import type { ClassShows } from '../class/class.ts';
import { inOrder } from '../class/folded.ts';
import { listGiven } from './given.ts';
import { openErrand } from './errands.ts';
import { withoutPictures } from './pictures.ts';
import { openProject } from './projects.ts';
import { cameAs, people, projects, runs, versions, type Store } from './schema.ts';

/** @param givenId the newest errand that was given, where it is left out; @returns undefined where none was */
export function classShows(store: Store, classId: string, givenId: string | undefined): ClassShows | undefined {
  const all = listGiven(store, classId).filter((g) => g.kind === 'errand');
  const one = givenId ? all.find((g) => g.id === givenId) : all[0];
  const errand = one && openErrand(store, one.target, true);
  if (!one || !errand) return undefined;
  const works = store
    .select({ id: projects.id, nickname: people.nickname })
    .from(projects)
    .innerJoin(people, eq(people.id, projects.owner))
    .where(and(eq(projects.givenId, one.id), isNull(projects.deletedAt)))
    .all()
    .sort((a, b) => inOrder(a.nickname, b.nickname))
    .map((row): Work => ({
      nickname: row.nickname,
      projectId: row.id,
      remarks: remarksOf(store, row.id),
      tries: triesOf(store, row.id)
    }));
  const { found, remarks, goals, slots, stops } = shows(works, errand.goals.length);
  /** the block's words, with a gap where the number stands; what else is not the same in all programs is left open */
  const says = (key: { block: string; kind: string; slot: string }): string => {
    const programs = works.flatMap((w) => w.tries.map((t) => t.program));
    const steps = programs.flatMap((p) => stepOf(p, key.block) ?? []);
    const program = programs.find((p) => stepOf(p, key.block));
    const [step] = steps;
    if (!program || !step) return key.kind;
    const alike = Object.fromEntries(
      Object.entries(step.slots).filter(([slot, value]) =>
        steps.every((other) => JSON.stringify(other.slots[slot]) === JSON.stringify(value))
      )
    );
    const named = { ...step, slots: { ...alike, [key.slot]: '▢' } };
    return sentence(named, program, (socket) => partName(errand.kit, socket));
  };
  return {
    given: one,
    others: all.map(({ id, name }) => ({ id, name })),
    mat: { ...errand.mat, floor: undefined },
    goals: goals.map((g, i) => ({ ...g, words: goalWords(errand.goals[i]) })),
    found,
    remarks,
    slots: slots.map((s) => ({ ...s, says: says(s.key) })),
    stops,
    works: works.map(({ nickname, projectId }) => ({ nickname, projectId }))
  };
}
const stepOf = (program: Program, id: string) => [...allSteps(program)].find((s) => s.id === id);
/** What the look-over says of the newest version; what only is to be considered is left out. */
function remarksOf(store: Store, projectId: string): Work['remarks'] {
  const project = openProject(store, projectId)?.project;
  if (!project || project.text !== undefined) return [];
  const { program, kit, mat, others, setAside = [] } = project;
  return lookOver({ program, kit, mat, others })
    .filter((r) => r.severity !== 'consider' && !setAside.includes(remarkKey(r)))
    .map(({ rule, says }) => ({ rule, says }));
}
/** Each try with the program of the version before it. */
function triesOf(store: Store, projectId: string): Work['tries'] {
  const saved = store
    .select({ at: versions.at, json: versions.json })
    .from(versions)
    .where(eq(versions.projectId, projectId))
    .orderBy(versions.id)
    .all();
  const read = new Map<number, Program>();
  const programAt = (at: number): Program => {
    const i = Math.max(
      0,
      saved.findLastIndex((v) => v.at <= at)
    );
    let program = read.get(i);
    if (!program) {
      ({ program } = JSON.parse(withoutPictures(saved[i].json)) as Project);
      read.set(i, program);
    }
    return program;
  };
  return store
    .select({ at: runs.at, result: runs.result, told: runs.told })
    .from(runs)
    .where(eq(runs.projectId, projectId))
    .orderBy(cameAs(runs))
    .all()
    .map(({ at, result, told }) => ({
      at,
      ...(result ? { result: JSON.parse(result) as TryResult } : {}),
      told: told ? (JSON.parse(told) as Told[]) : [],
      program: programAt(at)
    }));
}
