/**
 * Where a value can lie: ranges of sensors and inputs carried through arithmetic as intervals. The ends of a sum, a product
 * or a quotient of intervals are those of their corners (Moore, Kearfott and Cloud, Introduction to Interval Analysis,
 * chapter 2). Nothing is ever claimed that does not hold: what is not known lies anywhere.
 */
import type { Kit } from '../../kit/kit.ts';
import type { Interval } from '../define.ts';
import { isStep, liveSteps, type Program, type Slot, type Step } from '../program.ts';
import { typedNumber } from '../values.ts';
import { valueDef } from '../facts.ts';

export const ANYWHERE: Interval = [-Infinity, Infinity];
const add = (a: Interval, b: Interval): Interval => [a[0] + b[0], a[1] + b[1]];
const negative = ([low, high]: Interval): Interval => [-high, -low];
/** 0 times without end is 0: the value itself is finite. */
const times = (x: number, y: number): number => (x === 0 || y === 0 ? 0 : x * y);
function product(a: Interval, b: Interval): Interval {
  const corners = [times(a[0], b[0]), times(a[0], b[1]), times(a[1], b[0]), times(a[1], b[1])];
  return [Math.min(...corners), Math.max(...corners)];
}
function quotient(a: Interval, b: Interval): Interval {
  if (b[0] <= 0 && b[1] >= 0) return ANYWHERE;
  return product(a, [1 / b[1], 1 / b[0]]);
}
export const union = (a: Interval, b: Interval): Interval => [Math.min(a[0], b[0]), Math.max(a[1], b[1])];
const clamp = (x: number, [low, high]: Interval): number => Math.max(low, Math.min(high, x));
export const isKnown = ([low, high]: Interval): boolean => Number.isFinite(low) && Number.isFinite(high);

export class Ranges {
  private readonly variables = new Map<string, Interval>();
  constructor(
    private readonly program: Program,
    private readonly kit: Kit
  ) {}

  /** Where the value of a slot can lie. */
  of(slot: Slot | undefined): Interval {
    if (typeof slot === 'number') return [slot, slot];
    if (typeof slot === 'string') {
      const n = typedNumber(slot);
      return n === undefined ? ANYWHERE : [n, n];
    }
    if (!isStep(slot)) return ANYWHERE;
    const { kind, slots } = slot;
    const lies = valueDef(slot)?.lies;
    if (lies) return typeof lies === 'function' ? lies(this.kit, slots as Record<string, string>) : lies;
    const at = (name: string): Interval => this.of(slots[name]);
    switch (kind) {
      case 'calc.sum':
        switch (slots.sign) {
          case '+':
            return add(at('a'), at('b'));
          case '−':
            return add(at('a'), negative(at('b')));
          case '×':
            return product(at('a'), at('b'));
          default:
            return quotient(at('a'), at('b'));
        }
      case 'calc.negative':
        return negative(at('a'));
      case 'calc.rest': {
        const b = at('b');
        return b[0] > 0 ? [0, b[1]] : ANYWHERE;
      }
      case 'calc.pick': {
        const [a, b] = [at('a'), at('b')];
        const by = slots.which === 'smaller' ? Math.min : Math.max;
        return [by(a[0], b[0]), by(a[1], b[1])];
      }
      case 'calc.keep': {
        const [v, low, high] = [at('value'), at('low'), at('high')];
        if (low[0] !== low[1] || high[0] !== high[1] || low[0] > high[0]) return ANYWHERE;
        return [clamp(v[0], [low[0], high[0]]), clamp(v[1], [low[0], high[0]])];
      }
      case 'calc.map': {
        const fixed = ['a', 'b', 'c', 'd'].map((n) => at(n));
        if (fixed.some(([l, h]) => l !== h)) return ANYWHERE;
        const [a, b, c, d] = fixed.map(([l]) => l);
        if (a === b) return ANYWHERE;
        const scale = (d - c) / (b - a);
        const moved = product(add(at('value'), [-a, -a]), [scale, scale]);
        return add(moved, [c, c]);
      }
      case 'calc.chance':
        return union(at('from'), at('to'));
      case 'calc.function': {
        const x = at('x');
        if (slots.fn === 'sine' || slots.fn === 'cosine') return [-1, 1];
        if (slots.fn === 'absolute') return x[0] >= 0 ? x : x[1] <= 0 ? negative(x) : [0, Math.max(-x[0], x[1])];
        if (slots.fn === 'floor' || slots.fn === 'round' || slots.fn === 'ceiling')
          return [Math.floor(x[0]), Math.ceil(x[1])];
        if (slots.fn === 'square root') return x[0] >= 0 ? [Math.sqrt(x[0]), Math.sqrt(x[1])] : [0, Infinity];
        return ANYWHERE;
      }
      case 'var.value':
        return this.variable(String(slots.variable));
      default:
        return ANYWHERE;
    }
  }

  /** All that is ever put into a variable, and the 0 that it begins with. */
  private variable(id: string): Interval {
    const known = this.variables.get(id);
    if (known) return known;
    // a variable that is worked out of itself could be anything
    this.variables.set(id, ANYWHERE);
    let range: Interval | undefined;
    let counted = false;
    for (const step of liveSteps(this.program)) {
      if (step.slots.variable !== id) continue;
      const put = this.put(step);
      if (put) range = range ? union(range, put) : put;
      if (step.kind === 'repeat.count') counted = true;
    }
    // only counting loops give it a value: inside them it is never the 0 from before
    const all = range ? (counted && this.onlyCounted(id) ? range : union(range, [0, 0])) : ([0, 0] as const);
    this.variables.set(id, all);
    return all;
  }
  private onlyCounted(id: string): boolean {
    return [...liveSteps(this.program)].every(
      (s) => s.slots.variable !== id || s.kind === 'repeat.count' || s.kind === 'var.value'
    );
  }
  private put(step: Step): Interval | undefined {
    const { kind, slots } = step;
    if (kind === 'var.set') return this.of(slots.value);
    if (kind === 'repeat.count') {
      const [from, to] = [this.of(slots.from), this.of(slots.to)];
      return union(from, to);
    }
    return kind === 'var.value' ? undefined : ANYWHERE;
  }
}
