import { expect, it } from 'vitest';
import { libraryWords } from './words.ts';

it('the library of a text has a word with help for its blocks, and each can be read as Python that blocks know', () => {
  const words = libraryWords();
  expect(words.length).toBeGreaterThan(90);
  const drive = words.find((w) => w.label === 'wheels.drive')!;
  expect(drive.text).toBe('wheels.drive(cm=30, power=45, ending="brake")');
  expect(drive.help).toContain('encoders');
  for (const w of words) expect(w.text).toContain(w.label);
});
