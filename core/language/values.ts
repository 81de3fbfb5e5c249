/** Values of the language and how they behave: numbers are IEEE doubles, arithmetic and text follow Python. */
import { RunError } from './meaning.ts';
import { isPicture, type Picture, type Value } from './program.ts';

const LARGEST = Number.MAX_SAFE_INTEGER + 1; // 2^53

/** Python's repr of a number, without a trailing '.0'; text as it is; yes and no as True and False. */
export function show(value: Value): string {
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'True' : 'False';
  if (isPicture(value)) return 'picture';
  if (value === 0) return '0';
  const size = Math.abs(value);
  if (size >= 1e-4 && size < 1e16) return String(value);
  // Python writes exponents with at least two digits: 1e-05
  return value.toExponential().replace(/e([+-])(\d)$/, 'e$10$2');
}

/** A number, or an error: yes counts as 1 and no as 0, as in Python. */
export function num(value: Value): number {
  if (typeof value === 'number') return value;
  if (typeof value === 'boolean') return value ? 1 : 0;
  throw new RunError('not-a-number', `here is ${quoted(value)}`);
}
/** The result of arithmetic, refused beyond 2^53, where whole numbers lose their last digit. */
export function sound(value: number): number {
  if (value >= -LARGEST && value <= LARGEST) return value;
  throw new RunError('too-large');
}
/** A whole number within 1e-9, or an error. */
export function whole(value: Value): number {
  const n = num(value);
  const rounded = Math.round(n);
  if (Math.abs(n - rounded) > 1e-9) throw new RunError('not-whole', `here is ${show(n)}`);
  return rounded === 0 ? 0 : rounded;
}
export function pictureOf(value: Value): Picture {
  if (isPicture(value)) return value;
  throw new RunError('not-a-picture', `here is ${quoted(value)}`);
}
/** What counts as yes: as in Python, anything but no, zero and the empty text. */
export const truth = (value: Value): boolean => !(value === false || value === 0 || value === '');

export function same(a: Value, b: Value): boolean {
  if (isPicture(a) || isPicture(b)) return isPicture(a) && isPicture(b) && a.picture === b.picture;
  if (typeof a === 'string' || typeof b === 'string') return a === b;
  return num(a) === num(b);
}
/** -1, 0 or 1; numbers with numbers and text with text, anything else is an error and no guess. */
export function order(a: Value, b: Value): number {
  if (typeof a === 'string' && typeof b === 'string') return a < b ? -1 : a > b ? 1 : 0;
  if (typeof a === 'string' || typeof b === 'string' || isPicture(a) || isPicture(b))
    throw new RunError('unlike-things', `${quoted(a)} and ${quoted(b)}`);
  return num(a) - num(b);
}
export const quoted = (value: Value): string =>
  typeof value === 'string' ? `the text "${value}"` : isPicture(value) ? 'a picture' : show(value);

/** A number that a person typed, or undefined: digits with a point or a comma. */
export function typedNumber(text: string): number | undefined {
  const t = text.trim().replace(',', '.').replace('−', '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(t) ? Number(t) : undefined;
}
