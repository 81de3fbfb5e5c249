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
const SOMEBODY = { who: 'wren', address: '192.0.2.7' };
const settle = () => vi.advanceTimersByTimeAsync(0);

it('each hears what is told on its topics, after what it is told first, and no more once it has left', async () => {
  let left = 0;
  const wren = hears(
    stream(
      SOMEBODY,
      ['person wren', 'class a'],
      () => true,
      () => ({ version: 3 }),
      () => left++
    )
  );
  const newt = hears(
    stream(
      SOMEBODY,
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
      SOMEBODY,
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
      SOMEBODY,
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
it('one person has so many open, an address so many more; whoever leaves makes room', async () => {
  const open = (who: string, address = '192.0.2.7') =>
    stream(
      { who, address },
      ['x'],
      () => true,
      () => undefined
    );
  const mine = Array.from({ length: 30 }, () => open('wren'));
  expect(mine.filter((r) => r.status === 200).length).toBe(24);
  expect((await mine[29].json()) as object).toEqual({ message: 'Too many pages are open here. Close some of them.' });
  // a class behind one address, each with some pages
  const room = Array.from({ length: 30 }, (_, i) => [open(`pupil ${i}`), open(`pupil ${i}`)]).flat();
  expect(room.every((r) => r.status === 200)).toBe(true);
  // browsers without end, from that address
  const many = Array.from({ length: 500 }, (_, i) => open(`guest ${i}`));
  expect(many.filter((r) => r.status === 200).length).toBe(400 - 24 - 60);
  const elsewhere = open('guest', '192.0.2.8');
  expect(elsewhere.status).toBe(200);
  await mine[0].body!.cancel();
  expect([open('wren').status, open('wren').status]).toEqual([200, 429]);
  for (const r of [...mine, ...room, ...many, elsewhere]) if (r.status === 200) await r.body!.cancel().catch(() => {});
});
it('ends where nobody takes what is said', async () => {
  stream(
    { who: 'nobody', address: '192.0.2.9' },
    ['untaken'],
    () => true,
    () => undefined
  );
  for (let i = 0; i < 50; i++) tell('untaken', { i });
  expect(isFollowed('untaken')).toBe(true);
  await vi.advanceTimersByTimeAsync(300_000);
  expect(isFollowed('untaken')).toBe(false);
});
