import { expect, it } from 'vitest';
import { stuckFor, type Standing } from './stuck.ts';

const MINUTE = 60_000;
const now = 100 * MINUTE;
const order = (of: Record<string, Standing>): string[] =>
  Object.keys(of).sort((a, b) => stuckFor(of[b], now) - stuckFor(of[a], now));

it('hands come first, the longest before the others; then who has not got further for longest; who is done comes last', () => {
  expect(
    order({
      done: { changedAt: now, furtherAt: 99 * MINUTE, met: true },
      fresh: { changedAt: now, furtherAt: 99 * MINUTE },
      nothing: {},
      busy: { changedAt: now, furtherAt: 80 * MINUTE },
      idle: { changedAt: 85 * MINUTE, furtherAt: 85 * MINUTE },
      raised: { handUpAt: 98 * MINUTE, changedAt: now, furtherAt: now },
      waiting: { handUpAt: 90 * MINUTE }
    })
  ).toEqual(['waiting', 'raised', 'busy', 'idle', 'fresh', 'nothing', 'done']);
});
it('who handed in and went on working counts among those who work', () => {
  expect(stuckFor({ handedInAt: 90 * MINUTE, changedAt: 95 * MINUTE, furtherAt: 90 * MINUTE }, now)).toBe(10);
  expect(stuckFor({ handedInAt: 96 * MINUTE, changedAt: 95 * MINUTE, furtherAt: 96 * MINUTE }, now)).toBe(-2);
});
it('a clock that was set back makes nobody stuck below nothing, and a week no more than a lesson', () => {
  expect(stuckFor({ furtherAt: now + 50 * MINUTE }, now)).toBe(0);
  expect(stuckFor({ furtherAt: now - 10_000 * MINUTE }, now)).toBe(90);
  expect(stuckFor({ handUpAt: now + MINUTE }, now)).toBe(1000);
});
