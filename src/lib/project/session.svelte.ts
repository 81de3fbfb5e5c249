/**
 * The open project of this tab: its value, its history, and its way into the browser's journal and the database.
 * History is a list of Project values with structure shared: to undo is to take the value before.
 */
import { del, get, set } from 'idb-keyval';
import type { Project } from '../../../core/project.ts';
import { catalogue } from '../../../core/language/catalogue.ts';
import { allSteps, type Program } from '../../../core/language/program.ts';
import type { Kit } from '../../../core/kit/kit.ts';
import type { OfClass } from '../class/class.ts';
import { clockIn, say } from '../../../core/words.ts';
import { TAB } from './tab.ts';

type Past = { label: string; project: Project };
type Journal = { base: number; project: Project; tab?: string };
/** Whether the page can show it: each of its blocks is one that there is. */
const canBeShown = (project: Project): boolean => {
  try {
    return [...allSteps(project.program)].every((s) => catalogue.has(s.kind));
  } catch {
    return false;
  }
};
export type Saving = 'saved' | 'saving' | 'kept here' | 'elsewhere';

const KEPT_AS = (name: string): string => say('Work from here that had not been saved was kept as "{name}".', { name });
const SAVE_AFTER_MS = 500;
const AGAIN_MS = 4000;

export class Session {
  /** under which it is saved; another one once work was kept apart from what somebody else saved */
  id = $state() as string;
  project = $state.raw() as Project;
  saving = $state<Saving>('saved');
  /** why it is only kept in the browser, or what happened in another tab */
  trouble = $state('');
  /** the other of two: what somebody else saved under the old id, or where unsaved work was kept when this was opened */
  otherId = $state<string>();
  /** whose it is, and whether it can only be looked at */
  of = $state.raw<OfClass>({});
  /** it was taken off the shelf while it is open here */
  gone = $state(false);
  /** the address follows the id */
  onMoved: ((id: string) => void) | undefined;
  /** why something may not be changed here; what was begun to be changed is taken back */
  refuses: ((next: Project) => string | undefined) | undefined;
  past = $state.raw<Past[]>([]);
  future = $state.raw<Past[]>([]);
  private version: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private busy = false;
  private channel: BroadcastChannel;

  constructor(id: string, version: number, project: Project) {
    this.id = id;
    this.project = project;
    this.version = version;
    this.channel = this.listen();
  }
  private get journal(): string {
    return `mossbell.journal.${this.id}`;
  }
  private listen(): BroadcastChannel {
    const channel = new BroadcastChannel(`mossbell.${this.id}`);
    channel.onmessage = ({ data }) => {
      if (data > this.version && this.saving === 'saved') {
        this.saving = 'elsewhere';
        this.trouble = say('This project was changed in another tab.');
      }
    };
    return channel;
  }

  /** Opens a project; work that never reached the database is taken up again. */
  static async open(id: string, fetcher: typeof fetch): Promise<Session> {
    const response = await fetcher(`/api/projects/${id}`);
    const answer = await response.json();
    if (!response.ok) throw new Error(answer.message);
    const session = new Session(id, answer.version, answer.project);
    session.of = answer.of;
    if (session.of.looks) return session;
    const kept = (await get(session.journal).catch(() => undefined)) as Journal | undefined;
    // as this version has it: it may have been kept by one before; what checks it is fetched only then
    const { checkProject, migrate } = kept ? await import('../../../core/project.ts') : {};
    const mine = kept && checkProject!(kept.project);
    if (kept && mine && !mine.ok) {
      const left = migrate!(kept.project ?? {}) as Project;
      if (mine.wrong && canBeShown(left)) {
        // what could not be saved is there as it was left, with the reason, and what was saved is one step back
        session.past = [{ label: say('work taken up again'), project: session.project }];
        session.project = left;
        session.saving = 'kept here';
        session.trouble = say('What was done last cannot be saved: {wrong} Undo it, or change it.', {
          wrong: mine.wrong
        });
      } else {
        // of another Moss Bell, perhaps: it stays in this browser, where the next change here does not write over it
        await set(`${session.journal}.aside`, kept);
        await del(session.journal);
        session.trouble = say('Work from here cannot be shown: {problem} It stays kept in this browser.', {
          problem: mine.problem
        });
      }
    } else if (kept && mine?.ok) {
      // where what is newer came from the tab that kept it, its answer alone was lost
      const ours = kept.base === answer.version || (kept.tab && kept.tab === answer.tab);
      if (JSON.stringify(mine.project) === JSON.stringify(answer.project)) await del(session.journal);
      else if (ours) {
        session.past = [{ label: say('work taken up again'), project: session.project }];
        session.project = mine.project;
        session.saving = 'saving';
        session.saveSoon(0);
      } else if (kept.base < answer.version) {
        const { project } = session;
        const copy = await session.copy(mine.project, true);
        session.project = project;
        session.otherId = copy.id;
        session.trouble = KEPT_AS(copy.name);
        await del(session.journal);
      } else await del(session.journal);
    }
    return session;
  }

  /** One gesture: the next value, and what to call it under Undo. */
  change(label: string, project: Project): void {
    if (project === this.project) return;
    // another value of the same: the editor is brought in line with it
    if (this.of.looks || this.refuses?.(project)) return void (this.project = { ...this.project });
    this.past = [...this.past, { label, project: this.project }];
    this.future = [];
    this.take(project);
  }
  program(label: string, program: Program): void {
    if (program !== this.project.program) this.change(label, { ...this.project, program });
  }
  kit(label: string, kit: Kit, program = this.project.program): void {
    this.change(label, { ...this.project, kit, program });
  }
  undo(): void {
    const last = this.past.at(-1);
    if (!last) return;
    this.future = [...this.future, { label: last.label, project: this.project }];
    this.past = this.past.slice(0, -1);
    this.take(last.project);
  }
  redo(): void {
    const next = this.future.at(-1);
    if (!next) return;
    this.past = [...this.past, { label: next.label, project: this.project }];
    this.future = this.future.slice(0, -1);
    this.take(next.project);
  }

  private take(project: Project): void {
    this.project = project;
    if (this.of.looks) return;
    if (this.saving !== 'kept here') this.saving = 'saving';
    const journal: Journal = { base: this.version, project, tab: TAB };
    set(this.journal, journal).catch(
      () =>
        (this.trouble =
          'This browser cannot keep a journal (its storage is full or switched off). Keep the tab open until it says saved.')
    );
    this.saveSoon(SAVE_AFTER_MS);
  }
  private saveSoon(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), ms);
  }
  async save(): Promise<void> {
    // the other one of a pair drives: what was not saved is kept beside (look)
    if (this.of.looks) return;
    if (this.busy) return this.saveSoon(SAVE_AFTER_MS);
    this.busy = true;
    const project = this.project;
    try {
      const response = await fetch(`/api/projects/${this.id}?base=${this.version}&tab=${TAB}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(project)
      });
      const answer = await response.json();
      if (response.status === 409) {
        // somebody else saved first: from here on this work is a project of its own, and both are there
        const copy = await this.copy(this.project, true);
        this.otherId = this.id;
        await this.moveTo(copy);
        this.trouble = say(
          'Somebody else changed this project at the same time. Both are kept: you go on here, in "{name}".',
          { name: copy.name }
        );
      } else if (response.status === 404) {
        this.gone = true;
        this.saving = 'kept here';
        this.trouble = say('This project was taken off the shelf elsewhere. Your work is kept in this browser.');
      } else if (!response.ok) throw new Error(answer.message);
      else {
        this.version = answer.version;
        // where the other one is stays said until it is closed
        if (!this.otherId) this.trouble = '';
        this.channel.postMessage(this.version);
        if (this.project === project) {
          this.saving = 'saved';
          await del(this.journal);
        } else await set(this.journal, { base: this.version, project: this.project, tab: TAB } satisfies Journal);
      }
    } catch (error) {
      this.saving = 'kept here';
      this.trouble =
        error instanceof TypeError
          ? say('The school computer does not answer. Your work is kept in this browser and saved when it does.')
          : (error as Error).message;
      this.saveSoon(AGAIN_MS);
    } finally {
      this.busy = false;
      if (this.project !== project && this.saving === 'saving') this.saveSoon(SAVE_AFTER_MS);
    }
  }
  /** Everything that was changed is saved, as far as the school computer answers. @returns whether it is */
  async settled(): Promise<boolean> {
    for (let tries = 0; tries < 40 && this.saving === 'saving'; tries++) {
      if (this.busy) await new Promise((done) => setTimeout(done, 100));
      else await this.save();
    }
    return this.saving === 'saved';
  }
  /** A project of its own from this work. @param named with a name that tells it from the other one */
  private async copy(
    project: Project,
    named: boolean
  ): Promise<{ id: string; version: number; name: string; /** nothing was changed meanwhile */ whole: boolean }> {
    const time = new Date().toLocaleTimeString(clockIn(), { hour: '2-digit', minute: '2-digit' });
    const name = named
      ? say('{name} (changed here, {time})', { name: project.name.slice(0, 50), time }).slice(0, 80)
      : project.name;
    const response = await fetch('/api/projects', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...project, name })
    });
    const answer = await response.json();
    if (!response.ok) throw new Error(answer.message);
    const whole = this.project === project;
    this.project = { ...this.project, name };
    return { ...answer, name, whole };
  }
  /** From here on it is saved under another id. */
  private async moveTo({ id, version, whole }: { id: string; version: number; whole: boolean }): Promise<void> {
    await del(this.journal);
    this.channel.close();
    this.id = id;
    this.version = version;
    this.channel = this.listen();
    this.gone = false;
    this.onMoved?.(id);
    this.saving = whole ? 'saved' : 'saving';
    if (whole) return;
    // what was changed while the copy was under way is still to be saved
    await set(this.journal, { base: version, project: this.project, tab: TAB } satisfies Journal);
    this.saveSoon(0);
  }
  /** It was taken off the shelf: this work becomes a project of its own. */
  async keepAsNew(): Promise<void> {
    try {
      await this.moveTo(await this.copy(this.project, false));
      this.trouble = '';
    } catch (error) {
      this.trouble = (error as Error).message;
    }
  }
  /** It was taken off the shelf: it is taken back, with this work in it. */
  async takeBack(): Promise<void> {
    const back = await fetch(`/api/projects/${this.id}?back`, { method: 'POST' }).catch(() => undefined);
    if (back) this.gone = false;
    await this.save();
  }
  /** What somebody else changed in a project that is looked at, or which one of a pair drives now. */
  async look(): Promise<void> {
    const answer = await fetch(`/api/projects/${this.id}`)
      .then((response) => (response.ok ? response.json() : undefined))
      .catch(() => undefined);
    if (!answer) return;
    const looked = this.of.looks;
    this.of = answer.of;
    if (!looked && !this.of.looks) return;
    clearTimeout(this.timer);
    this.trouble = '';
    // the other one of a pair took over before this was saved: it is kept beside
    const copy = !looked && this.saving !== 'saved' && (await this.copy(this.project, true).catch(() => undefined));
    if (copy) {
      this.otherId = copy.id;
      this.trouble = KEPT_AS(copy.name);
      await del(this.journal);
    }
    Object.assign(this, { version: answer.version, project: answer.project, saving: 'saved' });
  }
  get newest(): number {
    return this.version;
  }
  /** The newest from the database, after another tab saved. */
  async refresh(): Promise<void> {
    const answer = await (await fetch(`/api/projects/${this.id}`)).json();
    this.version = answer.version;
    this.past = [...this.past, { label: say('the other tab'), project: this.project }];
    this.project = answer.project;
    this.saving = 'saved';
    this.trouble = '';
  }
  close(): void {
    this.channel.close();
    if (this.saving === 'saving') void this.save();
  }
}
