/** A button of a device: held down and let go, by pointer and by key. */
export const holds = (act: (down: boolean) => void) => ({
  onpointerdown: (e: PointerEvent) => {
    (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
    act(true);
  },
  onpointerup: () => act(false),
  onpointercancel: () => act(false),
  onkeydown: (e: KeyboardEvent) => {
    if ((e.key === ' ' || e.key === 'Enter') && !e.repeat) {
      e.preventDefault();
      act(true);
    }
  },
  onkeyup: (e: KeyboardEvent) => {
    if (e.key === ' ' || e.key === 'Enter') act(false);
  }
});
