/** The person's projects on the shelf: a page at a time from the server, in an order, with a label, or found by words. */
import { invalidateAll } from '$app/navigation';
import { say } from '../../../core/words.ts';
import { silent } from '../ui/silent.ts';
import { toasts } from '../ui/toasts.svelte.ts';
import { PAGE_OF_SHELF, type Card } from './cards.ts';

export type Order = 'date' | 'name' | 'device';
type Page = { own: Card[]; more: boolean; labels: string[] };

export class Shelf {
  words = $state('');
  order = $state<Order>('date');
  label = $state<string>();
  chosen = $state.raw<ReadonlySet<string>>(new Set());
  problem = $state('');
  /** what was asked for beside the page that came with the page: other orders, words, and what is older */
  private asked = $state.raw<{ of: string; cards: Card[]; more: boolean }>();
  constructor(private readonly page: () => Page) {}

  private get of(): string {
    const query = new URLSearchParams({ order: this.order });
    if (this.words.trim()) query.set('find', this.words.trim());
    if (this.label !== undefined) query.set('label', this.label);
    return query.toString();
  }
  private get plain(): boolean {
    return this.order === 'date' && !this.words.trim() && this.label === undefined;
  }
  /** while something else is fetched, what was there stays */
  get cards(): Card[] {
    const { asked } = this;
    if (!asked || (this.plain && asked.of !== this.of)) return this.page().own;
    return asked.cards;
  }
  get more(): boolean {
    return this.asked && (!this.plain || this.asked.of === this.of) ? this.asked.more : this.page().more;
  }
  get labels(): string[] {
    return this.page().labels;
  }
  /** What is asked for now, from the start. */
  async ask(): Promise<void> {
    if (this.plain) this.asked = undefined;
    else await this.fetch(0);
  }
  older = (): Promise<void> => this.fetch(this.cards.length);
  private async fetch(from: number): Promise<void> {
    const { of } = this;
    const answer = await fetch(`/api/projects?${of}&from=${from}`).catch(() => undefined);
    if (!answer?.ok) return void (this.problem = silent());
    const list = (await answer.json()) as Card[];
    if (of !== this.of) return;
    const before = from ? this.cards : [];
    const fresh = list.slice(0, PAGE_OF_SHELF).filter((c) => !before.some((b) => b.id === c.id));
    this.asked = { of, cards: [...before, ...fresh], more: list.length > PAGE_OF_SHELF };
  }
  /** After a change: the same again, as it is now. */
  async again(): Promise<void> {
    this.asked = undefined;
    await invalidateAll();
    await this.ask();
  }
  choose(id: string): void {
    const next = new Set(this.chosen);
    if (!next.delete(id)) next.add(id);
    this.chosen = next;
  }
  private async each(ids: readonly string[], how: (id: string) => Promise<Response>): Promise<boolean> {
    this.problem = '';
    for (const id of ids) {
      const answer = await how(id).catch(() => undefined);
      if (answer?.ok) continue;
      this.problem = (answer && ((await answer.json()) as { message?: string }).message) || silent();
      break;
    }
    this.chosen = new Set();
    await this.again();
    return !this.problem;
  }
  private readonly patch = (change: object) => (id: string) =>
    fetch(`/api/projects/${id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(change)
    });
  rename = (id: string, name: string): Promise<boolean> => this.each([id], this.patch({ name }));
  put = (ids: readonly string[], label: string): Promise<boolean> => this.each(ids, this.patch({ label }));
  /** Off the shelf, with a way back. */
  async remove(list: readonly Card[]): Promise<void> {
    const ids = list.map((c) => c.id);
    if (!(await this.each(ids, (id) => fetch(`/api/projects/${id}`, { method: 'DELETE' })))) return;
    const text =
      list.length === 1
        ? say('"{name}" was taken off the shelf.', { name: list[0].name })
        : say('{n} projects were taken off the shelf.', { n: list.length });
    toasts.tell(text, { label: say('Take back'), do: () => this.back(ids) });
  }
  back = (ids: readonly string[]): Promise<boolean> =>
    this.each(ids, (id) => fetch(`/api/projects/${id}?back`, { method: 'POST' }));
}
