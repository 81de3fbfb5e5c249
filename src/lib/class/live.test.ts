/** The line to the server, with a source of events that can be cut, be silent, or be refused: the browser's own does that rarely. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { listen } from './live.ts';

const SECOND = 1000;
class Source {
  static readonly CLOSED = 2;
  static made: Source[] = [];
  readyState = 1;
  onopen?: () => void;
  onmessage?: (event: { data: string }) => void;
  onerror?: () => void;
  constructor(readonly path: string) {
    Source.made.push(this);
  }
  close(): void {
    this.readyState = Source.CLOSED;
  }
}
const heard: unknown[] = [];
const cuts: boolean[] = [];
let off: () => void;
beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', Source);
  Source.made = [];
  heard.length = cuts.length = 0;
  off = listen(
    '/api/live',
    (told) => heard.push(told),
    (cut) => cuts.push(cut)
  );
});
afterEach(() => {
  off();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const last = () => Source.made.at(-1)!;
const beat = (seconds: number) => {
  for (let s = 0; s < seconds; s += 10) {
    last().onmessage!({ data: '{}' });
    vi.advanceTimersByTime(10 * SECOND);
  }
};

it('as long as the server says something, one line holds, and what says nothing is not heard', () => {
  beat(3600);
  last().onmessage!({ data: '{"given":"a"}' });
  expect([Source.made.length, heard, cuts]).toEqual([1, [{ given: 'a' }], []]);
});
it('a line that is silent, as after an hour asleep, is told to be cut, and opened anew', () => {
  beat(20);
  vi.advanceTimersByTime(40 * SECOND);
  expect(cuts[0]).toBe(true);
  expect(Source.made.length).toBe(2);
  expect(Source.made[0].readyState).toBe(Source.CLOSED);
  last().onopen!();
  expect(cuts.at(-1)).toBe(false);
});
it('a line that the browser has given up is opened anew soon, again and again, until somebody leaves', () => {
  last().onerror!();
  expect(cuts).toEqual([true]);
  for (let n = 2; n < 5; n++) {
    last().close();
    vi.advanceTimersByTime(5 * SECOND);
    expect(Source.made.length).toBe(n);
  }
  off();
  vi.advanceTimersByTime(600 * SECOND);
  expect(Source.made.length).toBe(4);
  expect(last().readyState).toBe(Source.CLOSED);
});
