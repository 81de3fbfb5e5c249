/** Short words about what has just been done, with a way back where there is one. */
export type Toast = { id: number; text: string; deed?: { label: string; do: () => unknown } };
/** So long one stands there, ms; while it is pointed at or has the focus it stays. */
const STANDS_MS = 10_000;

class Toasts {
  list = $state.raw<readonly Toast[]>([]);
  private count = 0;
  private readonly due = new Map<number, ReturnType<typeof setTimeout>>();

  tell(text: string, deed?: Toast['deed']): void {
    const id = ++this.count;
    this.list = [...this.list.slice(-2), { id, text, deed }];
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
  close(id: number): void {
    this.hold(id);
    this.due.delete(id);
    this.list = this.list.filter((t) => t.id !== id);
  }
}
export const toasts = new Toasts();
