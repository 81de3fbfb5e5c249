/** How much room there is. On a server, and before it is known, as much as at a desk. */
import { MediaQuery } from 'svelte/reactivity';

/** Panes stand side by side; with less they become tabs (css px, so 200 % zoom counts too). */
const wide = new MediaQuery('min-width: 1100px', true);
/** With tabs, the trace still has a place under them. */
const tall = new MediaQuery('min-height: 900px', true);

export const screen = {
  get wide(): boolean {
    return wide.current;
  },
  get tall(): boolean {
    return tall.current;
  }
};
