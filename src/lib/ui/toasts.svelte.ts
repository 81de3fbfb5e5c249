/** Short words about what has just been done, with a way back where there is one. */
export type Toast = {
  id: number;
  text: string;
  deed?: { label: string; do: () => unknown };
  /** nobody took it back: it goes without the deed */
  gone?: () => unknown;
};
/** So long one stands there, ms; while it is pointed at or has the focus it stays. */
const STANDS_MS = 10_000;

class Toasts {
  list = $state.raw<readonly Toast[]>([]);
  private count = 0;
  private readonly due = new Map<number, ReturnType<typeof setTimeout>>();

  tell(text: string, deed?: Toast['deed'], gone?: Toast['gone']): void {
    const id = ++this.count;
    for (const old of this.list.slice(0, -2)) this.close(old.id);
    this.list = [...this.list, { id, text, deed, gone }];
    this.goOn(id);
  }
  goOn(id: number): void {
    this.hold(id);
    this.due.set(
      id,
      setTimeout(() => this.close(id), STANDS_MS)
    );
  }
  hold(id: number): void {
    clearTimeout(this.due.get(id));
  }
  close(id: number, deed = false): void {
    this.hold(id);
    this.due.delete(id);
    const toast = this.list.find((t) => t.id === id);
    this.list = this.list.filter((t) => t.id !== id);
    if (deed) toast?.deed?.do();
    else toast?.gone?.();
  }
}
export const toasts = new Toasts();
