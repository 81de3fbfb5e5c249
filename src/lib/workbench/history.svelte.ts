/** The runs of a project that are kept on the school computer. */
import { clockIn, say, tongue } from '../../../core/words.ts';
import type { RunCard, RunFile } from '../../../core/trace/runfile.ts';
import { eventsOf } from '../../../core/trace/apart.ts';
import { toldOf } from '../../../core/trace/told.ts';
import { emptyTrace, type Trace } from '../../../core/trace/trace.ts';
import type { TryResult } from '../../../core/trace/tried.ts';
import { toasts } from '../ui/toasts.svelte.ts';
import type { Run, Runs } from './runs.svelte.ts';

/** Shorter ones are not worth keeping, ticks. */
const SHORTEST = 100;

const inputsOnly = (trace: Trace): Partial<Trace> => ({ events: [...eventsOf(trace, 'input')], ended: trace.ended });

export class History {
  list = $state.raw<RunCard[]>([]);
  trouble = $state('');
  private readonly cards = new WeakMap<Run, RunCard>();
  private readonly on = new WeakSet<Run>();
  constructor(
    private readonly projectId: () => string,
    /** it is somebody else's: what runs here is not kept there */
    private readonly looks: () => boolean,
    private readonly runs: Runs
  ) {}

  private async ask(path: string, method = 'GET', body?: unknown): Promise<Response | undefined> {
    try {
      const answer = await fetch(path, {
        method,
        ...(body instanceof Uint8Array
          ? { headers: { 'content-type': 'application/gzip' }, body: body as Uint8Array<ArrayBuffer> }
          : body === undefined
            ? {}
            : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
      });
      if (answer.ok) {
        this.trouble = '';
        return answer;
      }
      this.trouble = ((await answer.json().catch(() => null)) as { message?: string } | null)?.message ?? '';
    } catch {
      this.trouble = say('The school computer does not answer: the run is kept in this window only.');
    }
    return undefined;
  }
  async load(): Promise<void> {
    const answer = await this.ask(`/api/projects/${this.projectId()}/runs`);
    if (answer) this.list = (await answer.json()) as RunCard[];
  }
  /** A run that is over is kept: of a rehearsal what makes it again, of a device's everything. */
  async keep(run: Run, result?: TryResult): Promise<void> {
    if (this.looks() || this.on.has(run) || run.trace.ticks < SHORTEST || !run.trace.ended) return;
    this.on.add(run);
    const whole = run.kind === 'device' || !run.project || run.project.text !== undefined;
    const file = this.fileOf(run);
    // what makes it again is little: the rest of the trace need not travel
    const sent = whole ? file : { ...file, trace: { ...emptyTrace(run.trace.header, []), ...inputsOnly(run.trace) } };
    const packed = await this.runs.pack(sent, whole);
    const found = await this.runs.findingsOf(run, tongue()).catch(() => []);
    const query = new URLSearchParams({
      ms: String(run.trace.ticks),
      ...(result ? { result: JSON.stringify(result) } : {}),
      told: JSON.stringify(toldOf(found))
    });
    const answer = await this.ask(`/api/projects/${this.projectId()}/runs?${query}`, 'POST', packed);
    if (!answer) return;
    const card = (await answer.json()) as RunCard;
    this.cards.set(run, card);
    this.list = [card, ...this.list];
  }
  fileOf(run: Run): RunFile {
    const at = new Date();
    const name =
      run.kind === 'device' ? run.name : at.toLocaleTimeString(clockIn(), { hour: '2-digit', minute: '2-digit' });
    return {
      name: run.title || name,
      at: at.toISOString(),
      kind: run.kind,
      project: run.project,
      trace: run.trace,
      predictions: run.predictions
    };
  }
  cardOf(run: Run | undefined): RunCard | undefined {
    return run && this.cards.get(run);
  }
  remember(run: Run, card: RunCard): void {
    this.cards.set(run, card);
    this.on.add(run);
  }
  /** A run that was kept, made again from its file; what is wrong with that is in `trouble`. */
  async bring(card: RunCard): Promise<Run | undefined> {
    const text = await this.text(card.id);
    if (text === undefined) return undefined;
    const read = await this.runs.open(text, card.name, card.name);
    if (!read.ok) {
      this.trouble = read.problem;
      return undefined;
    }
    read.run.title = card.name;
    this.remember(read.run, card);
    return read.run;
  }
  /** It is seen in the trace. */
  async show(card: RunCard): Promise<Run | undefined> {
    const run = await this.bring(card);
    if (run) Object.assign(this.runs, { earlier: run, shown: 'earlier', scrubUs: undefined });
    return run;
  }
  async text(id: string): Promise<string | undefined> {
    return (await this.ask(`/api/runs/${id}`))?.text();
  }
  private put(id: string, change: Partial<RunCard>): void {
    this.list = this.list.map((c) => (c.id === id ? { ...c, ...change } : c));
  }
  async rename(id: string, name: string): Promise<void> {
    if (await this.ask(`/api/runs/${id}`, 'PATCH', { name })) this.put(id, { name });
  }
  /** A run that is pinned gets every sample into its file, so that it opens to the same picture in a later version too. */
  async pin({ id, name }: RunCard, pinned: boolean): Promise<void> {
    if (pinned) {
      const text = await this.text(id);
      if (text === undefined || !(await this.ask(`/api/runs/${id}`, 'PUT', await this.runs.packWhole(text, name))))
        return;
    }
    if (await this.ask(`/api/runs/${id}`, 'PATCH', { pinned })) this.put(id, { pinned });
  }
  /** It is gone from the list at once, and from the school computer when nobody takes it back. */
  remove(card: RunCard): void {
    const before = this.list;
    this.list = before.filter((c) => c !== card);
    toasts.tell(
      say('The run "{name}" was taken out.', { name: card.name }),
      { label: say('Take back'), do: () => (this.list = before) },
      () => this.ask(`/api/runs/${card.id}`, 'DELETE')
    );
  }
}
