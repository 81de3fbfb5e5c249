/** What the page of a lesson works with: a bench for its programs, the errands of this computer, and what was answered here. */
import * as Comlink from 'comlink';
import { get, set } from 'idb-keyval';
import { getContext, setContext } from 'svelte';
import type { Page } from '../../../core/lesson/page.ts';
import { pieceDef } from '../../../core/lesson/pieces.ts';
import { happened, type Happened } from '../../../core/lesson/happened.ts';
import type { Lesson } from '../../../core/lesson/lesson.ts';
import type { Project } from '../../../core/project.ts';
import type { Sameness } from '../../../core/trace/same.ts';
import type { Trace } from '../../../core/trace/trace.ts';
import { say } from '../../../core/words.ts';
import type { BenchApi } from '../../workers/bench.worker.ts';
import { ask } from '../class/ask.ts';
import type { Answer, Reading } from '../class/reading.ts';
import type { ErrandCard } from '../shelf/errands.ts';
import { createOnServer } from '../shelf/files.ts';

export type Ran = { trace: Trace; came: Happened };

/** A program that never ends is looked at for so long, s. */
const LIMIT_S = 30;
const optionsOf = ({ program, kit, mat, start, others, name }: Project) =>
  JSON.parse(JSON.stringify({ program, kit, mat, start, others, name, seed: 1, limitS: LIMIT_S }));

export class LessonRoom {
  errands = $state.raw<readonly ErrandCard[]>();
  answers = $state.raw<Readonly<Record<string, Answer>>>({});
  /** steps that were gone through, by their titles */
  done = $state.raw<readonly string[]>([]);
  at = $state(0);
  trouble = $state('');
  private worker: Worker | undefined;
  private api: Comlink.Remote<BenchApi> | undefined;
  private keeps: Promise<unknown> = Promise.resolve();
  private readonly ran = new WeakMap<Project, Promise<Ran>>();
  /** as it is while it is written */
  lesson = $state.raw<Lesson>(undefined as unknown as Lesson);
  constructor(
    lesson: Lesson,
    /** who is signed in: answers are theirs, whoever else uses this browser, and kept on the school computer too */
    private readonly whose = ''
  ) {
    this.lesson = lesson;
  }
  show(lesson: Lesson): void {
    this.lesson = lesson;
  }

  private get mark(): string {
    return `mossbell.lesson.${this.whose && `${this.whose}.`}${this.lesson.id}`;
  }
  private bench(): Comlink.Remote<BenchApi> {
    if (!this.api) {
      this.worker = new Worker(new URL('../../workers/bench.worker.ts', import.meta.url), { type: 'module' });
      this.api = Comlink.wrap<BenchApi>(this.worker);
    }
    return this.api;
  }
  /** What a program does, rehearsed once. */
  run(project: Project): Promise<Ran> {
    let found = this.ran.get(project);
    if (!found) {
      found = this.bench()
        .trace(optionsOf(project))
        .then((trace) => ({ trace, came: happened(trace, project) }));
      this.ran.set(project, found);
    }
    return found;
  }
  same(a: Project, b: Project): Promise<Sameness> {
    return this.bench().compare(optionsOf(a), optionsOf(b));
  }
  async load(): Promise<void> {
    const kept = this.whose ? await ask<Reading | null>(this.path) : undefined;
    const there = kept?.ok ? kept.value : null;
    const here = await get<Reading>(this.mark).catch(() => undefined);
    // what was answered while the school computer did not is kept in this browser alone
    if (there || here)
      Object.assign(this, {
        answers: { ...here?.answers, ...there?.answers },
        done: [...new Set([...(there?.done ?? []), ...(here?.done ?? [])])],
        at: (there ?? here)!.at
      });
    await this.look();
  }
  /** How far the errands are. */
  async look(): Promise<void> {
    const answer = await fetch('/api/errands').catch(() => undefined);
    this.errands = answer?.ok ? ((await answer.json()) as ErrandCard[]) : [];
  }
  private get path(): string {
    return `/api/lessons/${this.lesson.id}/reading`;
  }
  private keep(): void {
    const reading: Reading = { answers: { ...this.answers }, done: [...this.done], at: this.at };
    void set(this.mark, reading).catch(() => undefined);
    if (!this.whose) return;
    // one after another, so that the last one stands
    this.keeps = this.keeps.then(() => ask(this.path, 'PUT', reading));
  }
  answer(key: string, answer: Answer): void {
    this.answers = { ...this.answers, [key]: answer };
    this.keep();
  }
  /** @param through it was gone through, and is done */
  go(at: number, through?: string): void {
    this.at = at;
    if (through !== undefined && !this.done.includes(through)) this.done = [...this.done, through];
    this.keep();
  }
  /** A copy of a program to work with. @returns where it is */
  async take(project: Project): Promise<string | undefined> {
    const made = await createOnServer(project);
    this.trouble = made.ok ? '' : made.problem;
    return made.ok ? `/project/${made.id}` : undefined;
  }
  async begin(errand: string): Promise<string | undefined> {
    const answer = await fetch(`/api/errands/${errand}`, { method: 'POST' }).catch(() => undefined);
    if (answer?.ok) return `/project/${((await answer.json()) as { id: string }).id}`;
    this.trouble = say('The errand could not be begun. Is Moss Bell still running on the school computer?');
    return undefined;
  }
  close(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.api = undefined;
  }
}
/** Whether everything that a step asks for was answered. @param met errands at which the bell rang */
export const answered = (
  step: Page['steps'][number],
  answers: LessonRoom['answers'],
  met: ReadonlySet<string>
): boolean =>
  step.parts.every((part) => {
    if (!('kind' in part)) return true;
    if (part.kind === 'errand') return met.has(part.names[0]);
    return !pieceDef(part.kind).asks || part.key in answers;
  });

const KEY = Symbol('lesson');
export const provideRoom = (room: LessonRoom): LessonRoom => setContext(KEY, room);
export const useRoom = (): LessonRoom => getContext(KEY);
