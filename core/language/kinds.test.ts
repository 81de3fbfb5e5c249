/** A kind of block is defined once: who else names one does it for a reason that is said here. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { catalogue } from './catalogue.ts';

const ROOT = new URL('../../', import.meta.url);
/** What blocks do (read, start, stop, wait, count, draw a path ...) stands in their definitions: facts.ts asks it. */
const REASONS: readonly (readonly [RegExp, string])[] = [
  [
    /^core\/language\/lookover\/rules\//,
    'a rule is about the blocks that a mistake is made with, and its mend makes new ones'
  ],
  [/^core\/trace\/findings\//, 'a finding tells of the blocks that it was made with'],
  [/^core\/language\/lookover\/intervals\.ts$/, 'arithmetic is worked on intervals operation by operation'],
  [
    /^core\/language\/python\/(print|read|value|words)\.ts$/,
    'Python has forms of its own for what steers the order: if, while, for, return, match'
  ],
  [
    /^core\/language\/(outline|edit|refactor|just|example|check|catalogue|program)\.ts$/,
    'charts, growing blocks, new routines and loops made of what was chosen'
  ],
  [/^core\/run\/calibrate\.ts$/, 'calibrating drives a program of its own'],
  [/^core\/errand\/proof\.ts$/, 'who tries to fool an errand writes programs of its own: a clock, waiting'],
  [/^src\/lib\/workbench\/live\/sensors\.ts$/, 'the block that a live value becomes when it is dragged out'],
  [/^src\/lib\/workbench\/(program|tray|trace)\//, 'the editor makes names, and has menus for blocks that grow'],
  [/^src\/lib\/workbench\/workbench\.svelte\.ts$/, 'whether a program listens to keys'],
  [/^src\/lib\/shelf\/NewProject\.svelte$/, 'what a new project begins with']
];
/** Every file that names kinds in quotes, and how many of them. */
const naming = ['core', 'src', 'cli', 'board']
  .flatMap((folder) =>
    readdirSync(new URL(`${folder}/`, ROOT), { recursive: true, encoding: 'utf8' }).map((f) => `${folder}/${f}`)
  )
  .filter((f) => /\.(ts|svelte)$/.test(f) && !/\.test\.ts$|^core\/(testing|language\/blocks)\/|standin\/cases/.test(f))
  .flatMap((file) => {
    const quoted = [...readFileSync(new URL(file, ROOT), 'utf8').matchAll(/'([a-z]+\.[a-z]+)'/g)].map((m) => m[1]);
    const kinds = new Set(quoted.filter((k) => catalogue.has(k)));
    return kinds.size ? [{ file, kinds: [...kinds] }] : [];
  });

describe('kinds of block that are named outside of their definitions', () => {
  it('are named for a reason, and every reason is one still', () => {
    const without = naming.filter(({ file }) => !REASONS.some(([where]) => where.test(file)));
    expect(without).toEqual([]);
    for (const [where, why] of REASONS)
      expect(
        naming.some(({ file }) => where.test(file)),
        why
      ).toBe(true);
  });
  it('are few, outside of the rules about mistakes and the forms of Python', () => {
    const rest = naming.filter(({ file }) => !/rules|findings|python/.test(file));
    expect(rest.reduce((sum, { kinds }) => sum + kinds.length, 0)).toBeLessThanOrEqual(95);
  });
});
