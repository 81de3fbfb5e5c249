/** One expression, as it may be typed into a slot: 3*21.4 becomes a number, or blocks. */
import { isStep, type Slot } from '../program.ts';
import { readExpression } from './read.ts';

/** What was typed as a value block or a literal, or undefined if it is neither. × ÷ − and a decimal comma are taken too. */
export function readValue(typed: string): Slot | undefined {
  const text = typed
    .replace(/[×·]/g, '*')
    .replace(/÷/g, '/')
    .replace(/[−–]/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .trim();
  return text.length > 200 ? undefined : readExpression(text);
}
/** The number that arithmetic comes to, or undefined where it is no arithmetic or has no result. */
export function workedOut(typed: string): number | undefined {
  const value = readValue(typed);
  const n = value === undefined ? undefined : evaluated(value);
  return n !== undefined && Number.isFinite(n) ? Math.round(n * 1e9) / 1e9 : undefined;
}
function evaluated(slot: Slot): number | undefined {
  if (typeof slot === 'number') return slot;
  if (!isStep(slot)) return undefined;
  if (slot.kind === 'calc.pi') return Math.PI;
  const a = evaluated(slot.slots.a as Slot);
  if (a === undefined) return undefined;
  if (slot.kind === 'calc.negative') return -a;
  const b = evaluated(slot.slots.b as Slot);
  if (slot.kind !== 'calc.sum' || b === undefined) return undefined;
  return { '+': a + b, '−': a - b, '×': a * b, '÷': a / b }[String(slot.slots.sign)];
}
