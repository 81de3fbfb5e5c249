import { expect, it } from 'vitest';
import { weightOf } from './styles.ts';

it('selectors weigh as CSS Selectors Level 4 has it in the examples of its section 17', () => {
  // *, LI, UL LI, UL OL+LI, H1 + *[REL=up], UL OL LI.red, LI.red.level, #x34y
  const examples: [string, number][] = [
    ['*', 0],
    ['LI', 1],
    ['UL LI', 2],
    ['UL OL+LI', 3],
    ['H1 + *[REL=up]', 101],
    ['UL OL LI.red', 103],
    ['LI.red.level', 201],
    ['#x34y', 10_000]
  ];
  for (const [selector, weight] of examples) expect([selector, weightOf(selector)]).toEqual([selector, weight]);
});
