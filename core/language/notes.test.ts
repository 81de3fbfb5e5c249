import { expect, it } from 'vitest';
import { hertzOf } from './notes.ts';

it('knows the pitches of equal temperament with A4 = 440 Hz (ISO 16), as any table of note frequencies has them', () => {
  const table: [string, number][] = [
    ['A4', 440],
    ['C4', 261.63],
    ['a3', 220],
    ['C#5', 554.37],
    ['Bb3', 233.08],
    ['G4', 392],
    ['E2', 82.41],
    ['B8', 7902.13],
    ['C0', 16.35]
  ];
  for (const [name, hertz] of table) expect(hertzOf(name), name).toBeCloseTo(hertz, 2);
  // an octave doubles, twelve half-tones are an octave
  expect(hertzOf('D5')! / hertzOf('D4')!).toBeCloseTo(2, 4);
  for (const no of ['H4', 'A', '440', 'C##4', '']) expect(hertzOf(no)).toBeUndefined();
});
