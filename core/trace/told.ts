import type { Told } from './tried.ts';

/** So many findings are kept beside a run. */
const MOST = 3;
/** What is kept of the findings of a run: the heaviest. */
export const toldOf = (found: readonly { rule: string; says: string; blocks: readonly string[] }[]): Told[] =>
  found
    .slice(0, MOST)
    .map(({ rule, says, blocks }) => ({ rule, says: says.slice(0, 300), blocks: blocks.slice(0, 3) }));
