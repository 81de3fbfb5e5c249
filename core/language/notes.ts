/** Note names and pitches in equal temperament, tuned to A4 = 440 Hz (ISO 16): f = 440 x 2^((n - 69) / 12). */
import { RunError, type PlayedNote } from './meaning.ts';

const STEPS: Record<string, number> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 };
const NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const hertz = (n: number): number => Math.round(440 * Math.pow(2, (n - 69) / 12) * 100) / 100;

/** Hz of a note such as A4, C#5 or Bb3, to a hundredth; undefined if it is no note between C0 and B9. */
export function hertzOf(name: string): number | undefined {
  const found = /^([a-g])([#♯b♭]?)([0-9])$/i.exec(name.trim());
  if (!found) return undefined;
  const [, letter, sign, octave] = found;
  const n =
    12 * (Number(octave) + 1) + STEPS[letter.toLowerCase()] + (sign === '#' || sign === '♯' ? 1 : sign ? -1 : 0);
  return hertz(n);
}
/** The note nearest to a pitch, and how far off it is in hundredths of a half tone. */
export function noteOf(pitch: number): { name: string; cents: number } {
  const exact = 69 + (12 * Math.log(pitch / 440)) / Math.log(2);
  const n = Math.round(exact);
  return { name: `${NAMES[((n % 12) + 12) % 12]}${Math.floor(n / 12) - 1}`, cents: Math.round((exact - n) * 100) };
}

/** Beats a minute before a tempo is set. */
export const TEMPO = 96;
/**
 * Notes to be played: names with spaces between, one beat each, `-` a rest, `*2` two beats, `/2` half a beat.
 * @param beats beats a minute
 */
export function playedNotes(text: string, beats: number): PlayedNote[] {
  return text
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => {
      const found = /^([^*/]+)(?:([*/])(\d+(?:\.\d+)?))?$/.exec(word);
      const pitch = found && (found[1] === '-' ? 0 : hertzOf(found[1]));
      const by = found?.[3] === undefined ? 1 : Number(found[3]);
      if (!found || pitch === undefined || pitch === null || (pitch !== 0 && pitch < 20) || pitch > 10000 || by === 0)
        throw new RunError('not-a-note', `"${word}"`);
      return { hertz: pitch, us: Math.round((60e6 / beats) * (found[2] === '/' ? 1 / by : by)) };
    });
}
