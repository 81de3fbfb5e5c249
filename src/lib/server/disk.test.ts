import { expect, it } from 'vitest';
import { takesTheLast } from './disk.ts';

const MB = 1_000_000;
it('the disk’s last 200 MB are not written to; who makes room, signs in or asks for help goes on', () => {
  let at = 0;
  const takes = (method: string, path: string, free: number) => takesTheLast(method, path, (at += 10_000), () => free);
  for (const [method, path] of [
    ['PUT', '/api/projects/a'],
    ['POST', '/api/projects/a/runs'],
    ['POST', '/api/errands'],
    ['PATCH', '/api/classes/a']
  ]) {
    expect([path, takes(method, path, 201 * MB), takes(method, path, 199 * MB)]).toEqual([path, false, true]);
  }
  for (const [method, path] of [
    ['DELETE', '/api/projects/a'],
    ['GET', '/api/projects/a'],
    ['POST', '/api/session'],
    ['PATCH', '/api/me'],
    ['POST', '/sign-in']
  ])
    expect([path, takes(method, path, 0)]).toEqual([path, false]);
});
it('is looked up now and then, also when the clock is set back', () => {
  const asks: number[] = [];
  const at = (now: number) =>
    takesTheLast('PUT', '/api/projects/a', now, () => {
      asks.push(now);
      return 0;
    });
  for (const now of [1e9, 1e9 + 1000, 1e9 + 2001, 1e6, 1e6 + 1]) expect(at(now)).toBe(true);
  expect(asks).toEqual([1e9, 1e9 + 2001, 1e6]);
});
