/** What values come to, to the digit: rounding as Python has it, lists that are full. */
import { describe, expect, it } from 'vitest';
import { FUNCTIONS, LONGEST, roomFor } from './values.ts';

describe('values', () => {
  it('are rounded from the middle to the even number (Python, Built-in Functions, round)', () => {
    expect([0.5, 1.5, 2.5, 3.5, -0.5, -1.5, -2.5].map(FUNCTIONS.round)).toEqual([0, 2, 2, 4, 0, -2, -2]);
    expect([2.4999, 2.5001, -2.5001].map(FUNCTIONS.round)).toEqual([2, 3, -3]);
  });
  it('in a list are as many as it holds, and not one more', () => {
    const list = Array<number>(LONGEST - 1).fill(0);
    expect(roomFor(list)).toBe(list);
    list.push(0);
    expect(() => roomFor(list)).toThrow();
  });
});
