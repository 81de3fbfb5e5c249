/** The name of this tab, of this time that it is open: with it the server knows its own saves again. No secret. */
export const TAB = Math.random().toString(36).slice(2, 14);
