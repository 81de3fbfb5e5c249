/** Nobody reaches in: what other sites, foreign names and guesses get. */
import { expect, test } from '@playwright/test';
import { LARGEST_FILE, newProject } from '../core/project.ts';
import { barrow } from '../core/kit/kit.ts';
import { longAisle } from '../core/yard/mats.ts';
import { DATA } from '../playwright.config.ts';
import { openDatabase } from '../src/lib/server/database.ts';
import { makeTeacher } from '../src/lib/server/people.ts';
import { asTeacher, openDemo, signIn } from './room.ts';
import { request as http } from 'node:http';

const pots = newProject('Pots', barrow, longAisle);

test('every answer carries what keeps other sites out, and no script runs but ours', async ({ page, request }) => {
  for (const path of ['/', '/handbook', '/project/demo-back-to-the-mark', '/api/projects', '/bell.svg']) {
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
  await openDemo(page, 'Back to the mark');
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

test('nobody reaches what is somebody else’s: other browsers, guessed sessions, paths out of the room', async ({
  page,
  playwright,
  baseURL
}) => {
  const { id } = (await (await page.request.post('/api/projects', { data: pots })).json()) as { id: string };
  const stranger = await playwright.request.newContext({ baseURL });
  for (const path of [
    `/api/projects/${id}`,
    `/api/projects/${id}?raw`,
    `/api/projects/${id}/versions`,
    `/api/projects/${id}/runs`
  ])
    expect([path, (await stranger.get(path)).status()]).toEqual([path, 404]);
  expect((await stranger.put(`/api/projects/${id}?base=1`, { data: pots })).status()).toBe(404);
  expect((await stranger.delete(`/api/projects/${id}`)).status()).toBe(404);
  expect(JSON.stringify(await (await stranger.get('/api/projects')).json())).not.toContain(id);
  // a session that is guessed is none, whatever it looks like
  for (const guess of ['x', 'demo-teacher', "' or 1=1 --", 'A'.repeat(4000)]) {
    const answer = await stranger.post('/api/classes', {
      data: { name: 'Mine' },
      headers: { cookie: `mossbell.session=${encodeURIComponent(guess)}` }
    });
    expect([guess.slice(0, 20), answer.status()]).toEqual([guess.slice(0, 20), 401]);
  }
  // a class that is another teacher's is not there
  await asTeacher(page);
  const elm = { nickname: 'Elm', passphrase: 'under the elm tree' };
  // a demo has one teacher, whose passphrase everybody knows: another one is made beside it
  expect((await page.request.post('/api/teachers', { data: elm })).status()).toBe(403);
  await makeTeacher(openDatabase(DATA), elm.nickname, elm.passphrase);
  expect((await stranger.post('/api/teachers', { data: { ...elm, nickname: 'Oak' } })).status()).toBe(403);
  expect((await stranger.post('/api/session', { data: { teacher: 'elm', passphrase: elm.passphrase } })).status()).toBe(
    200
  );
  expect((await stranger.delete('/api/classes/demo-class')).status()).toBe(404);
  expect((await stranger.get('/class/demo-class', { maxRedirects: 0 })).status()).toBe(303);
  // what the disk has beside the pages is not served
  const url = new URL(baseURL!);
  const raw = (path: string) =>
    new Promise<number>((done, fail) =>
      http({ host: url.hostname, port: url.port, path }, (r) => (r.resume(), done(r.statusCode!)))
        .on('error', fail)
        .end()
    );
  for (const path of [
    '/../server.ts',
    '/%2e%2e/%2e%2e/etc/passwd',
    '/..%2f..%2fpackage.json',
    '/_app/../../package.json',
    '/api/projects/..%2f..%2fclasses',
    '//evil.example/',
    '/api/projects/%00'
  ])
    expect([path, [400, 404].includes(await raw(path))]).toEqual([path, true]);
});

test('a thousand wrong passphrases find nothing, and keep nobody else out', async ({ playwright, baseURL, page }) => {
  const guesser = await playwright.request.newContext({ baseURL });
  await page.goto('/sign-in');
  const code = /code (\w+)/.exec((await page.getByTestId('demo-pupil').textContent())!)![1];
  const statuses = new Map<number, number>();
  for (let i = 0; i < 1000; i += 25) {
    const answers = await Promise.all(
      Array.from({ length: 25 }, (_, k) =>
        guesser.post('/api/session', { data: { code, nickname: 'Heron', words: `fern moss ${i + k}` }, maxRetries: 2 })
      )
    );
    for (const answer of answers) statuses.set(answer.status(), (statuses.get(answer.status()) ?? 0) + 1);
  }
  expect([...statuses.keys()].sort()).toEqual([403, 429]);
  // ten a minute, those beside them that were under way at once, and no more
  expect(statuses.get(403)).toBeLessThanOrEqual(75);
  // neither does the right one, for a while, from here; others come in as before
  expect(
    (await guesser.post('/api/session', { data: { code, nickname: 'Heron', words: 'fern moss bell' } })).status()
  ).toBe(429);
  await signIn(page, { code, nickname: 'Mallow', words: 'fern moss bell' });
  // the teacher reads of it
  await asTeacher(page);
  await page.goto('/class/audit');
  await expect(page.getByTestId('audit').locator('tr').filter({ hasText: 'Heron' }).first()).toContainText(
    'wrong words'
  );
});

test('what is sent is taken as words: scripts in nicknames, prototype keys, formulas, a body without a length', async ({
  page,
  baseURL
}) => {
  await asTeacher(page);
  const { id } = (await (
    await page.request.post('/api/classes', { data: { name: '<img src=x onerror=alert(1)>' } })
  ).json()) as { id: string };
  const add = (nicknames: unknown) => page.request.post(`/api/classes/${id}/pupils`, { data: { nicknames } as object });
  for (const name of [
    '<script>alert(1)</script>',
    '=HYPERLINK("x")',
    '-1+1',
    '@SUM',
    '"><b>',
    'a\u0000b',
    ' ',
    'x'.repeat(25),
    '\u202eneR'
  ])
    expect([name, (await add([name])).status()]).toEqual([name, 400]);
  expect((await add(['Käthe', "O'Reed", 'Wren 2'])).status()).toBe(201);
  expect((await add(Array.from({ length: 61 }, (_, i) => `N${i}`))).status()).toBe(400);
  const send = (path: string, text: string) =>
    page.request.post(path, { data: text, headers: { 'content-type': 'application/json' } });
  for (const text of [
    '{"name":"A","__proto__":{"role":"teacher"}}',
    '{"name":"A","constructor":{"prototype":{"x":1}}}',
    '{"name":"A","role":"teacher"}'
  ])
    expect([text, (await send('/api/classes', text)).status()]).toEqual([text, 400]);
  expect(({} as { role?: string }).role).toBeUndefined();
  await page.goto(`/class/${id}`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('<img src=x onerror=alert(1)>');
  // a form of another site is not carried out, though the browser would send the cookie along
  const form = await page.request.post('/api/classes', {
    form: { name: 'x' },
    headers: { origin: 'http://evil.example' }
  });
  expect(form.status()).toBe(403);
  // a body that does not say how long it is could be of any length
  const url = new URL(baseURL!);
  const status = await new Promise<number>((done, fail) => {
    const sent = http(
      {
        host: url.hostname,
        port: url.port,
        path: '/api/session',
        method: 'POST',
        headers: { 'transfer-encoding': 'chunked', 'content-type': 'application/json' }
      },
      (r) => (r.resume(), done(r.statusCode!))
    ).on('error', fail);
    sent.end('{"teacher":"x","passphrase":"y"}');
  });
  expect(status).toBe(411);
  expect(
    (await page.request.post('/api/session', { data: { teacher: 'x', passphrase: 'y'.repeat(20_000) } })).status()
  ).toBe(413);
  // the cookies are no script's
  const cookies = await page.context().cookies();
  for (const name of ['mossbell.session', 'mossbell.guest'])
    expect(cookies.find((c) => c.name === name)).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  expect((await page.request.delete(`/api/classes/${id}`)).status()).toBe(200);
});
