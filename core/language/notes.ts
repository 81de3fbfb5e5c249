/** Note names and pitches in equal temperament, tuned to A4 = 440 Hz (ISO 16): f = 440 x 2^((n - 69) / 12). */
const STEPS: Record<string, number> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 };

/** Hz of a note such as A4, C#5 or Bb3, to a hundredth; undefined if it is no note between C0 and B9. */
export function hertzOf(name: string): number | undefined {
  const found = /^([a-g])([#♯b♭]?)([0-9])$/i.exec(name.trim());
  if (!found) return undefined;
  const [, letter, sign, octave] = found;
  const n =
    12 * (Number(octave) + 1) + STEPS[letter.toLowerCase()] + (sign === '#' || sign === '♯' ? 1 : sign ? -1 : 0);
  return Math.round(440 * Math.pow(2, (n - 69) / 12) * 100) / 100;
}
