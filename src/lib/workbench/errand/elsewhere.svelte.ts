/** A program in the other situations of its errand: tried off the page's thread, two at a time, each told as soon as it is known. */
import type { Task } from '../../../../core/errand/task.ts';
import type { Verdict } from '../../../../core/errand/goals.ts';
import { asksBefore, judged } from '../../../../core/errand/verdict.ts';
import { situationSays, yardsOf, type Yard } from '../../../../core/errand/yards.ts';
import { programOf } from '../../../../core/language/program.ts';
import type { Run, Runs } from '../runs.svelte.ts';

export type Came = { run: Run; verdict: Verdict };
export class Elsewhere {
  /** what each is called */
  readonly says: readonly string[];
  /** what came of each; undefined while that is not known */
  came = $state.raw<readonly (Came | undefined)[]>([]);
  private readonly yards: readonly Yard[];
  private next = 0;
  private readonly lanes: (Promise<void> | undefined)[] = [];
  constructor(
    private readonly runs: Runs,
    private readonly task: Task,
    private readonly run: Run
  ) {
    const { project } = run;
    this.yards = project && task.situations && run.kind !== 'device' ? yardsOf(task, project).slice(1) : [];
    this.says = this.yards.map(situationSays);
    this.came = this.yards.map(() => undefined);
  }
  /** One after another, beside a run that is still going on and has the other core. */
  begin(): Promise<void> {
    return (this.lanes[0] ??= this.lane(0));
  }
  /** All of them, two at a time. */
  async whole(): Promise<readonly Came[]> {
    await Promise.all([this.begin(), (this.lanes[1] ??= this.lane(1))]);
    return this.came as readonly Came[];
  }
  private async lane(lane: 0 | 1): Promise<void> {
    while (this.next < this.yards.length) {
      const at = this.next++;
      const came = await this.tried(this.yards[at], lane);
      this.came = this.came.map((c, i) => (i === at ? came : c));
    }
  }
  private async tried(yard: Yard, lane: 0 | 1): Promise<Came> {
    const { runs, task, run } = this;
    const { mat, start, inputs } = yard;
    const there = { ...run.project!, name: situationSays(yard), mat, start, errand: { ...task, inputs } };
    const other = await (there.text === undefined ? runs.aside(lane, there) : runs.wholeText(there, there.text));
    const before = asksBefore(task)
      ? (await runs.aside(lane, { ...there, text: undefined, program: task.given })).trace
      : undefined;
    return { run: other, verdict: judged(task, { trace: other.trace, mat, program: programOf(run.project), before }) };
  }
}
const known = new WeakMap<Run, Elsewhere>();
export function elsewhereOf(runs: Runs, task: Task, run: Run): Elsewhere {
  let found = known.get(run);
  if (!found) known.set(run, (found = new Elsewhere(runs, task, run)));
  return found;
}
