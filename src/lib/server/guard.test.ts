import { hostname, networkInterfaces } from 'node:os';
import { expect, it } from 'vitest';
import { LARGEST_FILE } from '../../../core/project.ts';
import { isOurHost, refuses, tooMany, tries } from './guard.ts';

const ask = (method: string, path: string, headers: Record<string, string> = {}) => {
  const url = new URL(`http://localhost:4680${path}`);
  return refuses(new Request(url, { method, headers: { host: 'localhost:4680', ...headers } }), url)?.status;
};

it('this computer is known by its own names and addresses, and by no other', () => {
  const addresses = Object.values(networkInterfaces()).flatMap((l) => l?.map((i) => i.address) ?? []);
  for (const host of [
    'localhost',
    'LOCALHOST:4680',
    '127.0.0.1:80',
    '[::1]:4680',
    hostname(),
    `${hostname().split('.')[0]}.local`
  ])
    expect([host, isOurHost(host)]).toEqual([host, true]);
  for (const address of addresses)
    expect(isOurHost(address.includes(':') ? `[${address}]:1` : `${address}:1`)).toBe(true);
  for (const host of ['evil.example', '10.99.98.97', 'localhost.evil.example', `${hostname()}.evil.example`, ''])
    expect([host, isOurHost(host)]).toEqual([host, false]);
});
it('a foreign name that points here reads nothing', () => {
  expect(ask('GET', '/', { host: 'evil.example' })).toBe(421);
  expect(ask('GET', '/')).toBeUndefined();
});
it('what writes comes from a page of ours, or from no browser', () => {
  for (const method of ['POST', 'PUT', 'PATCH', 'DELETE']) {
    expect(ask(method, '/api/projects', { origin: 'http://localhost:4680' })).toBeUndefined();
    expect(ask(method, '/api/projects')).toBeUndefined();
    expect(ask(method, '/api/projects', { origin: 'http://evil.example' })).toBe(403);
    // a sandboxed frame, another port of this computer, a link from elsewhere
    expect(ask(method, '/api/projects', { origin: 'null' })).toBe(403);
    expect(ask(method, '/api/projects', { origin: 'http://localhost:4681' })).toBe(403);
    expect(ask(method, '/api/projects', { 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(ask(method, '/api/projects', { 'sec-fetch-site': 'same-origin' })).toBeUndefined();
  }
  expect(ask('GET', '/api/projects', { origin: 'http://evil.example' })).toBeUndefined();
});
it('each route takes so much: a project what a file may have, a hand very little', () => {
  const length = (n: number) => ({ 'content-length': String(n) });
  expect(ask('POST', '/api/projects', length(LARGEST_FILE))).toBeUndefined();
  expect(ask('POST', '/api/projects', length(LARGEST_FILE + 1))).toBe(413);
  expect(ask('PUT', '/api/projects/abc', length(LARGEST_FILE + 1))).toBe(413);
  expect(ask('POST', '/api/projects/abc/runs', length(LARGEST_FILE + 1))).toBeUndefined();
  expect(ask('POST', '/api/projects/abc/runs', length(80 * 1024 * 1024))).toBe(413);
  expect(ask('POST', '/api/hand/ABCDEF', length(20_000))).toBe(413);
});
it('counts by the minute, each asker apart', async () => {
  for (let i = 0; i < 20; i++) expect(await tooMany('wrong code', 'a phone')).toBe(false);
  expect(await tooMany('wrong code', 'a phone', true)).toBe(true);
  expect(await tooMany('wrong code', 'a phone')).toBe(true);
  expect(await tooMany('wrong code', 'another', true)).toBe(false);
});

it('counts tries to sign in before they are worked out: of two hundred at once ten are tried', async () => {
  const all = await Promise.all(Array.from({ length: 200 }, () => tries('an address', 'an address wren')));
  expect(all.filter(Boolean)).toHaveLength(10);
  // from elsewhere, or in the browser that is known, the same one comes in
  expect(await tries('another address', 'another address wren')).toBeDefined();
  expect(await tries('a third', 'known wren')).toBeDefined();
  // what was right counts for nothing
  for (let i = 0; i < 40; i++) await (await tries('a room', `a room pupil`))!();
});
it('slows down an address that is wrong under many names, and no room in which each is wrong once', async () => {
  const began = performance.now();
  await Promise.all(Array.from({ length: 20 }, (_, i) => tries('a room of twenty', `pupil ${i}`)));
  const room = performance.now() - began;
  await tries('a room of twenty', 'pupil 21');
  expect(performance.now() - began - room).toBeGreaterThan(200);
  expect(room).toBeLessThan(200);
});
