/** Single keys that act anywhere on a page: they can be switched off (WCAG 2.1.4). */
import { browser } from '$app/environment';

const STORE = 'mossbell.single-keys';

class SingleKeys {
  on = $state(!browser || localStorage.getItem(STORE) !== 'off');
  turn(on: boolean): void {
    this.on = on;
    localStorage.setItem(STORE, on ? 'on' : 'off');
  }
}
export const singleKeys = new SingleKeys();

/** Whether a key belongs to a field, a list or a dialog rather than to the page. */
export const isTyping = (target: EventTarget | null): boolean =>
  !!(target as HTMLElement | null)?.closest?.('input, textarea, select, [contenteditable], dialog');
