import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const folder = new URL('./articles/', import.meta.url);
const files = (of: URL): string[] => readdirSync(of).filter((f) => f.endsWith('.md'));

describe('the articles of the handbook', () => {
  it('each have a title and some words, in every language that has them', () => {
    for (const language of ['', 'de/']) {
      const here = new URL(language, folder);
      expect(files(here)).toEqual(files(folder));
      for (const file of files(here)) {
        const text = readFileSync(new URL(file, here), 'utf8');
        expect(text, language + file).toMatch(/^# \S.*\n/);
        expect(text.length, language + file).toBeGreaterThan(200);
      }
    }
  });
});
