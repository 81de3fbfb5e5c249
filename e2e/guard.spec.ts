/** Nobody reaches in: what other sites, foreign names and guesses get. */
import { expect, test } from '@playwright/test';
import { LARGEST_FILE, newProject } from '../core/project.ts';
import { barrow } from '../core/kit/kit.ts';
import { longAisle } from '../core/yard/mats.ts';
import { openDemo } from './room.ts';

const pots = newProject('Pots', barrow, longAisle);

test('every answer carries what keeps other sites out, and no script runs but ours', async ({ page, request }) => {
  for (const path of ['/', '/handbook', '/project/demo-there-and-back', '/api/projects', '/bell.svg']) {
    const headers = (await request.get(path)).headers();
    expect([path, headers['x-content-type-options'], headers['x-frame-options']]).toEqual([path, 'nosniff', 'DENY']);
  }
  const policy = (await request.get('/')).headers()['content-security-policy'];
  expect(policy).toContain("frame-ancestors 'none'");
  const scripts = /script-src ([^;]*)/.exec(policy)![1];
  expect(scripts).toMatch(/'nonce-[^']+'/);
  expect(scripts).not.toContain('unsafe-inline');
  expect(scripts).not.toContain("'unsafe-eval'");
  // the pages themselves meet it, with editor, workers, MicroPython and 3D
  const refused: string[] = [];
  page.on('console', (m) => /Content Security Policy/.test(m.text()) && refused.push(m.text()));
  await openDemo(page, 'There and back');
  await page.getByRole('button', { name: 'Free', exact: true }).click();
  await page.getByRole('button', { name: 'Plug in' }).click();
  await expect(page.getByTestId('state')).toHaveText('plugged in');
  await page.evaluate(() => {
    const script = document.createElement('script');
    script.textContent = 'window.reached = true';
    document.body.append(script);
    const image = document.createElement('div');
    image.innerHTML = '<img src="x:" onerror="window.reached = true">';
    document.body.append(image);
  });
  await expect.poll(() => refused.filter((r) => /script/.test(r)).length).toBeGreaterThan(0);
  expect(await page.evaluate(() => 'reached' in window)).toBe(false);
  // what was refused is what was put in here, and nothing of ours
  expect(refused.every((r) => /inline|x:/.test(r))).toBe(true);
});

test('a writing request from another site, or under a foreign name, is refused in JSON', async ({
  request,
  baseURL
}) => {
  const from = (headers: Record<string, string>) => request.post('/api/projects', { data: pots, headers });
  expect((await from({ origin: baseURL! })).status()).toBe(201);
  for (const headers of [{ origin: 'http://evil.example' }, { 'sec-fetch-site': 'cross-site' }]) {
    const answer = await from(headers as unknown as Record<string, string>);
    expect(answer.status()).toBe(403);
    expect((await answer.json()).message).toContain('from another site');
  }
  const foreign = await request.get('/api/projects', { headers: { host: 'evil.example' } });
  expect(foreign.status()).toBe(421);
  expect((await foreign.json()).message).toContain('not known as "evil.example"');
  const nothing = await request.get('/api/nothing');
  expect([nothing.status(), (await nothing.json()).message]).toEqual([404, 'There is nothing here.']);
});

test('what is too large is refused where it comes in, by one limit for file and server', async ({ request }) => {
  const data = JSON.stringify(pots) + ' '.repeat(LARGEST_FILE);
  const answer = await request.post('/api/projects', { data, headers: { 'content-type': 'application/json' } });
  expect(answer.status()).toBe(413);
  expect((await answer.json()).message).toContain('at most 8 MB');
  const hand = await request.post('/api/hand/ABCDEF', { data: { phone: 'x'.repeat(20_000) } });
  expect(hand.status()).toBe(413);
});

test('codes of hands are not found by trying, and are listened to with their key alone', async ({ request }) => {
  const room = (await (await request.post('/api/hand')).json()) as { code: string; key: string };
  expect((await request.get(`/api/hand/${room.code}`)).status()).toBe(404);
  expect((await request.get(`/api/hand/${room.code}?key=0`)).status()).toBe(404);
  const statuses: number[] = [];
  for (let i = 0; i < 30; i++)
    statuses.push((await request.post('/api/hand/ZZZZZZ', { data: { phone: 'guesser0' } })).status());
  expect(new Set(statuses.slice(0, 5))).toEqual(new Set([404]));
  expect(statuses.at(-1)).toBe(429);
});
