/** A lesson while it is written: kept in this browser as it is changed, and saved on the server a moment later. */
import { del, get, set } from 'idb-keyval';
import { tongue } from '../../../core/words.ts';
import type { Lesson } from '../../../core/lesson/lesson.ts';
import { toldIn } from '../../../core/errand/task.ts';
import type { Project } from '../../../core/project.ts';
import { TAB } from '../project/tab.ts';
import { silent } from '../ui/silent.ts';
import type { Fetched } from './fetched.ts';

const SAVE_MS = 800;
const AGAIN_MS = 5000;
type Kept = { lesson: Lesson; base: number; tab: string };

export class Draft {
  lesson = $state.raw<Lesson>(undefined as unknown as Lesson);
  state = $state<'saved' | 'waits'>('saved');
  trouble = $state('');
  /** another window changed it: this one cannot be saved any more */
  stale = $state(false);
  private base: number;
  private savedBy: string | null | undefined;
  private due: ReturnType<typeof setTimeout> | undefined;
  private saving: Promise<void> | undefined;
  constructor({ lesson, changedAt, tab }: Fetched) {
    this.lesson = lesson;
    this.base = changedAt;
    this.savedBy = tab;
  }
  private get mark(): string {
    return `mossbell.draft.${this.lesson.id}`;
  }
  /** What was written here and did not reach the server. */
  async recover(): Promise<void> {
    const kept = await get<Kept>(this.mark).catch(() => undefined);
    if (!kept) return;
    // where what was saved last came from the same tab, its answer alone was lost
    if (kept.tab !== this.savedBy) this.base = kept.base;
    this.change(kept.lesson);
  }
  get text(): string {
    return toldIn(this.lesson.text);
  }
  /** In the language of the moment, where the lesson has several. */
  write(text: string): void {
    const { text: all } = this.lesson;
    if (text === this.text) return;
    this.change({ ...this.lesson, text: typeof all === 'string' ? text : { ...all, [tongue().code]: text } });
  }
  /** @returns the name that it has in the lesson */
  put(name: string, project: Project): string {
    let free = name;
    for (let n = 2; this.lesson.programs[free]; n++) free = `${name.slice(0, 55)}-${n}`;
    this.renew(free, project);
    return free;
  }
  renew(name: string, project: Project): void {
    this.change({ ...this.lesson, programs: { ...this.lesson.programs, [name]: project } });
  }
  takeOut(name: string): Project {
    const { [name]: out, ...programs } = this.lesson.programs;
    this.change({ ...this.lesson, programs });
    return out;
  }
  private change(lesson: Lesson): void {
    this.lesson = lesson;
    this.state = 'waits';
    void set(this.mark, { lesson, base: this.base, tab: TAB } satisfies Kept).catch(() => undefined);
    clearTimeout(this.due);
    this.due = setTimeout(() => void this.save(), SAVE_MS);
  }
  /** One after the other: what is changed while one is on its way comes after it. */
  async save(): Promise<void> {
    clearTimeout(this.due);
    await this.saving;
    if (this.state === 'saved') return;
    this.saving = this.send();
    await this.saving;
    this.saving = undefined;
  }
  private async send(): Promise<void> {
    const { lesson } = this;
    const answer = await fetch(`/api/lessons/${lesson.id}?base=${this.base}&tab=${TAB}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(lesson)
    }).catch(() => undefined);
    const told = (await answer?.json().catch(() => undefined)) as { changedAt?: number; message?: string } | undefined;
    if (answer?.ok && told?.changedAt) {
      this.base = told.changedAt;
      this.trouble = '';
      if (this.lesson !== lesson) return;
      this.state = 'saved';
      await del(this.mark).catch(() => undefined);
      return;
    }
    this.stale = answer?.status === 409;
    this.trouble = told?.message ?? silent();
    // where the server is away, it is tried again; where it refused, the person decides
    if (!answer) this.due = setTimeout(() => void this.save(), AGAIN_MS);
  }
  /** What is not saved is thrown away: the lesson is loaded anew. */
  async forget(): Promise<void> {
    clearTimeout(this.due);
    await del(this.mark).catch(() => undefined);
  }
}
