/** The page on which an errand is made by example: the model and wrong programs, each with its run and what came of it. */
import { get, set } from 'idb-keyval';
import { wrap } from 'comlink';
import type { Proposal } from '../../../core/errand/otherwise.ts';
import type { Holes } from '../../../core/errand/proof.ts';
import { MOST_SITUATIONS } from '../../../core/errand/task.ts';
import { tongue, type Tongue } from '../../../core/words.ts';
import type { ProofApi } from '../../workers/proof.worker.ts';
import { judged } from '../../../core/errand/verdict.ts';
import type { Verdict } from '../../../core/errand/goals.ts';
import {
  errandFrom,
  givenOf,
  goalsOf,
  newMaking,
  taskFor,
  type Making,
  type Row,
  type Wrong
} from '../../../core/errand/making.ts';
import { suggested, withHoop, type Suggestion } from '../../../core/errand/suggest.ts';
import { allSteps, type Program } from '../../../core/language/program.ts';
import type { Trace } from '../../../core/trace/trace.ts';
import type { Mat } from '../../../core/yard/mat.ts';
import { slugOf } from '../shelf/slug.ts';
import { send, type Opened } from '../shelf/files.ts';
import type { Workbench } from '../workbench/workbench.svelte.ts';

const MOST_WRONG = 6;
const QUIET_MS = 800;
/** Hoops as they were laid or moved, and those that the mat got since. */
const laidOn = (mat: Mat, kept: Mat): Mat['hoops'] => [
  ...kept.hoops,
  ...mat.hoops.filter((h) => !kept.hoops.some((k) => k.name === h.name))
];

export class Maker {
  making = $state.raw<Making>(undefined as unknown as Making);
  /** of the model first, then of the wrong programs */
  traces = $state.raw<readonly (Trace | undefined)[]>([]);
  private before = $state.raw<Trace>();
  private readonly known = new WeakMap<Program, Promise<Trace>>();
  constructor(private readonly w: Workbench) {
    this.making = newMaking(w.session.project);
  }
  private get mark(): string {
    return `mossbell.making.${this.w.session.id}`;
  }
  get model(): Program {
    return this.w.session.project.program;
  }
  get programs(): Program[] {
    return [this.model, ...this.making.wrong.map((w) => w.program)];
  }
  /** What was begun before, in this browser; and the first runs. */
  async load(): Promise<void> {
    const kept = await get<Making>(this.mark).catch(() => undefined);
    // the mat may have been changed since: what was laid on it for the errand stays
    const { mat } = this.w.session.project;
    if (kept)
      this.making = { ...newMaking(this.w.session.project), ...kept, mat: { ...mat, hoops: laidOn(mat, kept.mat) } };
    const there = new Set([...allSteps(this.model)].map((s) => s.id));
    this.making = { ...this.making, alsoRight: this.making.alsoRight.filter((a) => there.has(a.change.block)) };
    await this.look();
    this.prove();
  }
  change(change: Partial<Making>): void {
    this.making = { ...this.making, ...change };
    void set(this.mark, JSON.parse(JSON.stringify(this.making))).catch(() => undefined);
    if (change.wrong || change.given !== undefined) void this.look();
    this.prove();
  }
  row(i: number, change: Partial<Row>): void {
    this.change({ rows: this.making.rows.map((r, k) => (k === i ? { ...r, ...change } : r)) });
  }
  moveHoop(name: string, x: number, y: number): void {
    const { mat } = this.making;
    this.change({ mat: { ...mat, hoops: mat.hoops.map((h) => (h.name === name ? { ...h, x, y } : h)) } });
  }
  take({ goal, hoop }: Pick<Suggestion, 'goal' | 'hoop'>): void {
    const { mat, rows } = this.making;
    this.change({
      rows: [...rows, { goal, how: 'by itself' }],
      ...(hoop ? { mat: withHoop(mat, hoop) } : {})
    });
  }
  /** A goal goes; a hoop that was laid for it and serves no other goes with it. */
  drop(i: number): void {
    const { mat, rows } = this.making;
    const rest = rows.filter((_, k) => k !== i);
    const theirs = new Set(this.w.session.project.mat.hoops.map((h) => h.name));
    const used = new Set(rest.map((r) => (r.goal as { hoop?: string }).hoop));
    this.change({
      rows: rest,
      mat: { ...mat, hoops: mat.hoops.filter((h) => theirs.has(h.name) || used.has(h.name)) }
    });
  }
  addWrong(wrong: Wrong): void {
    if (this.making.wrong.length < MOST_WRONG) this.change({ wrong: [...this.making.wrong, wrong] });
  }
  dropWrong(i: number): void {
    const { given } = this.making;
    this.change({
      wrong: this.making.wrong.filter((_, k) => k !== i),
      ...(typeof given === 'number' ? { given: given === i ? 'nothing' : given > i ? given - 1 : given } : {})
    });
  }
  get canAddWrong(): boolean {
    return this.making.wrong.length < MOST_WRONG;
  }
  private trace(program: Program): Promise<Trace> {
    let found = this.known.get(program);
    if (!found) {
      const { text: _, ...project } = this.w.session.project;
      // hoops are only drawn: moving one asks for no other run
      this.known.set(program, (found = this.w.runs.traceOf({ ...project, program })));
    }
    return found;
  }
  /** The runs of all programs. */
  private async look(): Promise<void> {
    const { programs } = this;
    const [before, ...traces] = await Promise.all(
      [givenOf(this.making, this.model), ...programs].map((p) => this.trace(p))
    );
    this.before = before;
    this.traces = traces;
  }
  /** What came of each program; undefined while it is not run yet. */
  verdicts = $derived.by<(Verdict | undefined)[]>(() => {
    const { making, before } = this;
    const task = taskFor(making, this.model);
    return this.programs.map((program, i) => {
      const trace = this.traces[i];
      return trace && task.goals.length ? judged(task, { trace, mat: making.mat, program, before }) : undefined;
    });
  });
  /** Of a row, by the goal that it went into: those in an order are one. */
  resultOf(verdict: Verdict | undefined, row: number): Verdict['results'][number] | undefined {
    if (!verdict) return undefined;
    const { rows } = this.making;
    const ordered = rows.map((r, i) => [r, i] as const).filter(([r]) => r.how === 'in order');
    const first = ordered[0]?.[1];
    const place = goalsOf(rows.slice(0, rows[row].how === 'in order' ? first + 1 : row + 1)).length - 1;
    const result = verdict.results[place];
    if (rows[row].how !== 'in order' || ordered.length < 2) return result;
    return result?.parts?.[ordered.findIndex(([, i]) => i === row)];
  }
  suggestions = $derived.by<Suggestion[]>(() => {
    const [trace] = this.traces;
    if (!trace) return [];
    const taken = new Set(this.making.rows.map((r) => JSON.stringify(r.goal)));
    return suggested(trace, this.making.mat, this.model).filter((s) => !taken.has(JSON.stringify(s.goal)));
  });
  errand() {
    const { kit, start, others } = this.w.session.project;
    const offers = [...new Set([...allSteps(this.model)].map((s) => s.kind))];
    const verdicts = this.verdicts.slice(1).flatMap((v) => v ?? []);
    return errandFrom(this.making, {
      id: slugOf(this.making.name),
      kit,
      start,
      others,
      model: this.model,
      offers,
      verdicts
    });
  }
  /** What meets all goals and should not, as far as it is known; undefined while there is nothing to try. */
  proof = $state.raw<{ problems?: readonly string[]; holes?: Holes; proposals?: readonly Proposal[] }>();
  /** The same with what its author says is right too. */
  holes = $derived.by<Holes | undefined>(() => {
    const holes = this.proof?.holes;
    if (!holes) return undefined;
    const right = new Set(this.making.alsoRight.map((a) => JSON.stringify(a.change)));
    const open = holes.open.filter((o) => !o.change || !right.has(JSON.stringify(o.change)));
    return { ...holes, open, listed: holes.open.length - open.length };
  });
  private proving: { worker?: Worker; timer: ReturnType<typeof setTimeout>; key: string } | undefined;
  /** Tries small changes of the model, off the page's thread, once nothing was changed for a moment. */
  private prove(): void {
    const { rows, situations, mat, given } = this.making;
    const others = situations.map(({ says: _, ...other }) => other);
    const key = JSON.stringify([rows, others, mat, given, this.model]);
    if (this.proving?.key === key) return;
    this.close();
    this.proof = undefined;
    if (!rows.length) return;
    const timer = setTimeout(() => {
      const made = this.errand();
      // a model that misses a goal itself comes first
      if (!this.verdicts[0]?.met) return;
      if (!made.ok) {
        this.proof = { problems: [made.problem] };
        return;
      }
      const worker = new Worker(new URL('../../workers/proof.worker.ts', import.meta.url), { type: 'module' });
      this.proving = { worker, timer, key };
      const api = wrap<ProofApi>(worker);
      const [errand, spoken] = JSON.parse(JSON.stringify([made.errand, tongue()])) as [typeof made.errand, Tongue];
      this.proof = {};
      const tell = (proof: Maker['proof']): void => {
        if (this.proving?.worker === worker) this.proof = proof;
      };
      void (async () => {
        const problems = await api.unsound(errand, spoken);
        tell({ problems });
        if (problems.length) return;
        const holes = await api.holes({ ...errand, alsoRight: [] }, spoken);
        tell({ holes });
        const open = holes.open.map((o) => o.program);
        if (open.length && this.canAddSituation) tell({ holes, proposals: await api.proposals(errand, open, spoken) });
      })()
        .catch((problem: unknown) => tell({ problems: [(problem as Error).message] }))
        .finally(() => worker.terminate());
    }, QUIET_MS);
    this.proving = { timer, key };
  }
  get canAddSituation(): boolean {
    return this.making.situations.length < MOST_SITUATIONS;
  }
  close(): void {
    clearTimeout(this.proving?.timer);
    this.proving?.worker?.terminate();
    this.proving = undefined;
  }
  /** Onto the shelf, among the others. */
  async ship(): Promise<Opened> {
    const made = this.errand();
    return made.ok ? send('/api/errands', made.errand) : made;
  }
}
