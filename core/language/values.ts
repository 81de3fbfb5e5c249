/** Values of the language and how they behave: numbers are IEEE doubles, arithmetic and text follow Python. */
import { RunError } from './meaning.ts';
import { isPicture, type Picture, type Value } from './program.ts';

const LARGEST = Number.MAX_SAFE_INTEGER + 1; // 2^53
/** Things in a list, characters in a text. */
export const LONGEST = 10_000;

/** Python's repr of a number, without a trailing '.0'; text as it is; yes and no as True and False. */
export function show(value: Value): string {
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'True' : 'False';
  if (Array.isArray(value))
    return `[${value.map((v) => (typeof v === 'string' ? JSON.stringify(v) : show(v))).join(', ')}]`;
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
  throw new RunError('not-a-number', `here is ${kindOf(value)}`);
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
  throw new RunError('not-a-picture', `here is ${kindOf(value)}`);
}
export function listOf(value: Value): Value[] {
  if (Array.isArray(value)) return value;
  throw new RunError('not-a-list', `here is ${kindOf(value)}`);
}
/** Any value as text, as it is shown. */
export function textOf(value: Value): string {
  const text = show(value);
  // characters are code points, as in Python
  if (text.length > LONGEST && [...text].length > LONGEST) throw new RunError('text-too-long');
  return text;
}
/** What counts as yes: as in Python, anything but no, zero, the empty text and the empty list. */
export const truth = (value: Value): boolean =>
  !(value === false || value === 0 || value === '' || (Array.isArray(value) && value.length === 0));

export function same(a: Value, b: Value): boolean {
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((v, i) => same(v, b[i]));
  if (isPicture(a) || isPicture(b)) return isPicture(a) && isPicture(b) && a.picture === b.picture;
  if (typeof a === 'string' || typeof b === 'string') return a === b;
  return num(a) === num(b);
}
/** -1, 0 or 1; numbers with numbers, text with text, lists by their first difference; anything else is an error and no guess. */
export function order(a: Value, b: Value): number {
  if (typeof a === 'string' && typeof b === 'string') return byCodePoint(a, b);
  if (Array.isArray(a) && Array.isArray(b)) {
    for (let i = 0; i < a.length && i < b.length; i++) if (!same(a[i], b[i])) return order(a[i], b[i]);
    return a.length - b.length;
  }
  if ([a, b].some((v) => typeof v === 'string' || typeof v === 'object'))
    throw new RunError('unlike-things', `${kindOf(a)} and ${kindOf(b)}`);
  return num(a) - num(b);
}
/** Python orders text by code points, JavaScript by UTF-16 units. */
function byCodePoint(a: string, b: string): number {
  const [x, y] = [[...a], [...b]];
  for (let i = 0; i < x.length && i < y.length; i++)
    if (x[i] !== y[i]) return x[i].codePointAt(0)! - y[i].codePointAt(0)!;
  return x.length - y.length;
}
/** What an error calls a value: its kind, which is all that MicroPython's own errors tell too. */
export const kindOf = (value: Value): string =>
  typeof value === 'string'
    ? 'a text'
    : Array.isArray(value)
      ? 'a list'
      : isPicture(value)
        ? 'a picture'
        : typeof value === 'boolean'
          ? 'yes or no'
          : 'a number';

/** A place in a list or a text of this length, counting from 0. */
export function place(value: Value, length: number): number {
  const n = whole(value);
  if (n < 0 || n >= length)
    throw new RunError(
      'no-such-place',
      length > 0
        ? `place ${show(n)} of ${length}, which go from 0 to ${length - 1}`
        : `place ${show(n)}, and nothing is there`
    );
  return n;
}
export function roomFor(list: Value[]): Value[] {
  if (list.length >= LONGEST) throw new RunError('list-too-long');
  return list;
}

/** The rest of a division, with the divisor's sign, as in Python. */
export function remainder(a: number, b: number): number {
  if (b === 0) throw new RunError('division-by-zero');
  const rest = a % b;
  return rest !== 0 && rest < 0 !== b < 0 ? rest + b : rest === 0 ? 0 : rest;
}
export function power(a: number, b: number): number {
  if (a === 0 && b < 0) throw new RunError('division-by-zero', `0 to the power of ${show(b)}`);
  if (a < 0 && !Number.isInteger(b)) throw new RunError('no-result', `${show(a)} to the power of ${show(b)}`);
  return sound(Math.pow(a, b));
}
const RAD = Math.PI / 180;
/** Sines and their kin are given to 12 decimals, so that the sine of 30 degrees is a half. */
const twelve = (v: number): number => Math.floor(v * 1e12 + 0.5) / 1e12 || 0;
/** Round is half to even, as in Python; angles are degrees. */
export const FUNCTIONS: Readonly<Record<string, (x: number) => number>> = {
  round: (x) => {
    const low = Math.floor(x);
    const over = x - low;
    return (over < 0.5 || (over === 0.5 && low % 2 === 0) ? low : low + 1) || 0;
  },
  floor: (x) => Math.floor(x) || 0,
  ceiling: (x) => Math.ceil(x) || 0,
  absolute: Math.abs,
  'square root': (x) => (x < 0 ? fails('the square root of', x) : Math.sqrt(x)),
  sine: (x) => twelve(Math.sin(x * RAD)),
  cosine: (x) => twelve(Math.cos(x * RAD)),
  tangent: (x) => (Math.abs(remainder(x, 180)) === 90 ? fails('the tangent of', x) : twelve(Math.tan(x * RAD))),
  'arc sine': (x) => (x < -1 || x > 1 ? fails('the arc sine of', x) : twelve(Math.asin(x) / RAD)),
  'arc cosine': (x) => (x < -1 || x > 1 ? fails('the arc cosine of', x) : twelve(Math.acos(x) / RAD)),
  'arc tangent': (x) => twelve(Math.atan(x) / RAD)
};
function fails(what: string, x: number): never {
  throw new RunError('no-result', `${what} ${show(x)}`);
}
export const arcTangent2 = (y: number, x: number): number => twelve(Math.atan2(y, x) / RAD);

/** A number that a person typed, or undefined: digits with a point or a comma. */
export function typedNumber(text: string): number | undefined {
  const t = text.trim().replace(',', '.').replace('−', '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(t) ? Number(t) : undefined;
}
/** A value that a person typed where texts and numbers are taken: a text that would be a number is set in quotation marks. */
export function typedValue(text: string): number | string {
  const n = typedNumber(text);
  if (n !== undefined) return n;
  const inner = /^"([^]*)"$/.exec(text)?.[1];
  return inner !== undefined && typedValue(inner) !== inner ? inner : text;
}
/** As it is typed to mean this value. */
export function asTyped(value: number | string): string {
  if (typeof value === 'number') return show(value);
  return typedValue(value) === value ? value : `"${value}"`;
}
