/** Streams of what is told: who hears what, and for how long. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { isFollowed, stream, tell } from './live.ts';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
/** What a page has heard so far; `over` once the stream ended. */
function hears(answer: Response): { said: string[]; over: boolean; leave: () => Promise<void> } {
  const reader = answer.body!.getReader();
  const heard = { said: [] as string[], over: false, leave: () => reader.cancel() };
  void (async () => {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return void (heard.over = true);
      heard.said.push(new TextDecoder().decode(value).trim());
    }
  })();
  return heard;
}
const settle = () => vi.advanceTimersByTimeAsync(0);

it('each hears what is told on its topics, after what it is told first, and no more once it has left', async () => {
  let left = 0;
  const wren = hears(
    stream(
      ['person wren', 'class a'],
      () => true,
      () => ({ version: 3 }),
      () => left++
    )
  );
  const newt = hears(
    stream(
      ['person newt', 'class a'],
      () => true,
      () => undefined
    )
  );
  tell('class a', { given: 'x' });
  tell('person wren', { handUp: false });
  tell('class b', { given: 'y' });
  await settle();
  expect(wren.said).toEqual(['retry: 2000', 'data: {"version":3}', 'data: {"given":"x"}', 'data: {"handUp":false}']);
  expect(newt.said).toEqual(['retry: 2000', 'data: {"given":"x"}']);
  await wren.leave();
  expect([left, isFollowed('person wren'), isFollowed('class a')]).toEqual([1, false, true]);
  await newt.leave();
  expect(isFollowed('class a')).toBe(false);
});
it('tells nothing more to who may not see it any more, not even once', async () => {
  let may = true;
  const wren = hears(
    stream(
      ['project p'],
      () => may,
      () => undefined
    )
  );
  tell('project p', { version: 1 });
  may = false;
  tell('project p', { version: 2 });
  await settle();
  expect([wren.said, wren.over, isFollowed('project p')]).toEqual([
    ['retry: 2000', 'data: {"version":1}'],
    true,
    false
  ]);
});
it('says something every ten seconds, and ends soon after the right to it has ended', async () => {
  let may = true;
  let left = 0;
  const wall = hears(
    stream(
      ['wall a'],
      () => may,
      () => undefined,
      () => left++
    )
  );
  await vi.advanceTimersByTimeAsync(30_000);
  expect(wall.said).toEqual(['retry: 2000', 'data: {}', 'data: {}', 'data: {}']);
  may = false;
  await vi.advanceTimersByTimeAsync(10_000);
  tell('wall a', { cards: [] });
  await settle();
  expect([wall.over, wall.said.length, left, isFollowed('wall a')]).toEqual([true, 4, 1, false]);
});
