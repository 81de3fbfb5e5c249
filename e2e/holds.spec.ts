/** What was answered is there, however the computer goes down: the server is killed while many save. */
import { expect, test } from '@playwright/test';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { networkInterfaces, tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { newProject, type Project } from '../core/project.ts';
import { barrow } from '../core/kit/kit.ts';
import { longAisle } from '../core/yard/mats.ts';
import { openDatabase } from '../src/lib/server/database.ts';
import { named } from '../src/lib/class/folded.ts';
import { DEMO_TEACHER } from '../src/lib/server/demo.ts';
import { people } from '../src/lib/server/schema.ts';
import { createProject } from '../src/lib/server/projects.ts';

const PORT = Number(process.env.E2E_PORT ?? 4699) + 40;
const base = `http://localhost:${PORT}`;
const JSON_TYPE = { 'content-type': 'application/json' };
const KILLS = 10;
const PUPILS = 12;
const pots = newProject('Pots', barrow, longAisle);

/** What each has printed. */
const printed = new Map<ChildProcess, string>();
/** A server of its own over a folder, once it answers. @param most KiB that a file of its can have at the most */
async function start(folder: string, port: number, most?: number): Promise<ChildProcess> {
  const limit = most === undefined ? '' : `ulimit -f ${most}; `;
  const server = spawn('bash', ['-c', `${limit}exec "$0" "$@"`, process.execPath, '--import', 'tsx', 'server.ts'], {
    env: { ...process.env, PORT: String(port), MOSSBELL_DATA: folder, MOSSBELL_QUIET: '1' },
    stdio: ['ignore', 'pipe', 'ignore']
  });
  server
    .stdout!.setEncoding('utf8')
    .on('data', (text: string) => printed.set(server, (printed.get(server) ?? '') + text));
  const answers = () =>
    fetch(`http://localhost:${port}/bell.svg`).then(
      (r) => r.ok,
      () => false
    );
  await expect.poll(answers, { timeout: 120_000 }).toBe(true);
  return server;
}
const ended = async (server: ChildProcess): Promise<void> => {
  server.kill('SIGKILL');
  if (server.exitCode === null && server.signalCode === null) await once(server, 'exit');
};

test('at the first start a teacher is made on this computer alone, what was here before is the teacher’s, and signing out ends it', async ({
  browser
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-first-'));
  const port = PORT + 2;
  const here = `http://localhost:${port}`;
  const before = openDatabase(folder);
  createProject(before, { ...pots, name: 'Made before' });
  (before as unknown as { $client: Database.Database }).$client.close();
  const server = await start(folder, port);
  try {
    const ash = { nickname: 'Ash', passphrase: 'under the bell' };
    const post = (base: string, data: object) =>
      fetch(`${base}/api/teachers`, { method: 'POST', headers: JSON_TYPE, body: JSON.stringify(data) });
    // from elsewhere in the room nobody becomes the first teacher
    const address = Object.values(networkInterfaces())
      .flat()
      .find((i) => i?.family === 'IPv4' && !i.internal)?.address;
    if (address) {
      expect((await post(`http://${address}:${port}`, ash)).status).toBe(403);
      expect((await post(`http://${address}:${port}`, { ...ash, words: 'fern moss bell' })).status).toBe(403);
    }
    // nor through a program that hands on what others ask
    const handedOn = { ...JSON_TYPE, 'x-forwarded-for': '192.0.2.7' };
    const asked = await fetch(`${here}/api/teachers`, { method: 'POST', headers: handedOn, body: JSON.stringify(ash) });
    expect(asked.status).toBe(403);
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${here}/sign-in`);
    await page.getByLabel('Name').fill('Ash');
    await page.getByLabel('Passphrase').fill('short');
    await page.getByRole('button', { name: 'Begin to teach' }).click();
    await expect(page.getByRole('alert')).toContainText('a passphrase of 10 letters or more');
    await page.getByLabel('Passphrase').fill(ash.passphrase);
    await page.getByRole('button', { name: 'Begin to teach' }).click();
    await expect(page.getByText('A class has a code and pupils with nicknames.')).toBeVisible();
    await page.goto(here);
    await expect(page.getByTestId('card')).toContainText('Made before');
    expect((await post(here, { ...ash, nickname: 'Elm' })).status).toBe(403);
    // signed in on two computers: signing out everywhere ends both
    const other = await (await browser.newContext()).newPage();
    const signIn = { data: { teacher: 'Ash', passphrase: ash.passphrase } };
    expect((await other.request.post(`${here}/api/session`, signIn)).status()).toBe(200);
    await other.goto(`${here}/class`);
    await expect(other.getByTestId('me')).toHaveText('Ash');
    await page.getByRole('button', { name: 'Signed in as Ash' }).click();
    await page.getByRole('button', { name: 'Sign out everywhere' }).click();
    await expect(page.getByRole('link', { name: 'Sign in' })).toBeVisible();
    await other.reload();
    await expect(other.getByRole('heading', { name: 'Sign in as a teacher' })).toBeVisible();
    for (const one of [page, other]) await one.context().close();
  } finally {
    await ended(server);
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a school starts with what there is to do, and nobody in it: the words of the terminal make the first teacher', async ({
  browser
}) => {
  const folder = join(mkdtempSync(join(tmpdir(), 'mossbell-school-')), 'data');
  const port = PORT + 10;
  const server = await start(folder, port);
  /** another start with the same data, to its end */
  const again = (...more: string[]) =>
    spawnSync(process.execPath, ['--import', 'tsx', 'server.ts', ...more], {
      env: { ...process.env, PORT: String(port + 2), MOSSBELL_DATA: folder },
      encoding: 'utf8'
    });
  try {
    await expect.poll(() => printed.get(server)).toContain('Nobody teaches here yet.');
    const words = /these words: ([a-z]+ [a-z]+ [a-z]+)/.exec(printed.get(server)!)![1];
    const address = Object.values(networkInterfaces())
      .flat()
      .find((i) => i?.family === 'IPv4' && !i.internal)?.address;
    const page = await (await browser.newContext()).newPage();
    await page.goto(`http://${address ?? 'localhost'}:${port}/`);
    await expect(page.getByTestId('is-demo')).toHaveCount(0);
    const count = async (path: string) => ((await (await page.request.get(path)).json()) as unknown[]).length;
    const here = `http://${address ?? 'localhost'}:${port}`;
    expect([await count(`${here}/api/errands`), await count(`${here}/api/projects?demo`)]).toEqual([13, 45]);
    await page.goto(`${here}/sign-in`);
    await expect(page.getByRole('heading', { name: 'The first teacher' })).toBeVisible();
    await expect(page.getByText('This is the demo')).toHaveCount(0);
    await page.getByLabel('Name').fill('Émile');
    await page.getByLabel('Passphrase').fill('under the bell');
    if (address) {
      await page.getByLabel(/The words that the terminal/).fill('fern moss moss');
      await page.getByRole('button', { name: 'Begin to teach' }).click();
      await expect(page.getByRole('alert')).toContainText('with the words that its terminal printed');
      await page.getByLabel(/The words that the terminal/).fill(words.toUpperCase());
    }
    await page.getByRole('button', { name: 'Begin to teach' }).click();
    await expect(page.getByText('A class has a code and pupils with nicknames.')).toBeVisible();
    await page.context().close();
    // a second one on the same data is refused, whichever; what beside it may be done is done
    for (const second of [again(), again('--demo')]) {
      expect(second.status).toBe(1);
      expect(second.stderr.trim()).toBe(
        `Moss Bell: Moss Bell is running with this data already (process ${server.pid}). End it first, or choose another folder.`
      );
    }
    const backup = spawnSync('./mossbell', ['backup', join(folder, 'b.sqlite')], {
      env: { ...process.env, MOSSBELL_DATA: folder },
      encoding: 'utf8'
    });
    expect(backup.stdout).toContain('Backed up to');
  } finally {
    await ended(server);
    rmSync(join(folder, '..'), { recursive: true, force: true });
  }
});

test('what a demo laid down is served to no school', () => {
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-demo-data-'));
  const store = openDatabase(folder);
  store
    .insert(people)
    .values({ id: DEMO_TEACHER.id, role: 'teacher', ...named('Ash'), secret: '', at: 0 })
    .run();
  (store as unknown as { $client: Database.Database }).$client.close();
  const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'server.ts'], {
    env: { ...process.env, PORT: String(PORT + 12), MOSSBELL_DATA: folder },
    encoding: 'utf8'
  });
  expect([status, stderr]).toEqual([1, expect.stringContaining('are those of the demo')]);
  rmSync(folder, { recursive: true });
});
test('a disk that has no room for what ships is told at the start', () => {
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-no-room-'));
  const { status, stderr } = spawnSync(
    'bash',
    ['-c', 'ulimit -f 600; exec "$0" --import tsx server.ts', process.execPath],
    { env: { ...process.env, PORT: String(PORT + 14), MOSSBELL_DATA: folder }, encoding: 'utf8' }
  );
  expect([status, stderr]).toEqual([1, expect.stringContaining('cannot be written: the disk is full, or it fails.')]);
  rmSync(folder, { recursive: true });
});
test('a unit for systemd is printed for the folder and the user that ask', () => {
  const { stdout } = spawnSync('./mossbell', ['serve', '--service'], {
    env: { ...process.env, PORT: '5000' },
    encoding: 'utf8'
  });
  expect(stdout).toContain(`ExecStart=${process.cwd()}/mossbell serve\n`);
  expect(stdout).toContain('Environment=PORT=5000\n');
  expect(stdout.match(/^\[\w+\]$/gm)).toEqual(['[Unit]', '[Service]', '[Install]']);
});

test('killed ten times while twelve save: nothing that was answered is lost', async () => {
  test.setTimeout(600_000);
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-killed-'));
  /** each a browser of its own, by its cookie: its project, and what was answered last */
  const pupils: { cookie: string; id: string; version: number; said: number; sent: number }[] = [];
  try {
    for (let kill = 0; kill <= KILLS; kill++) {
      const server = await start(folder, PORT);
      if (!pupils.length)
        for (let i = 0; i < PUPILS; i++) {
          const answer = await fetch(`${base}/api/projects`, {
            method: 'POST',
            headers: JSON_TYPE,
            body: JSON.stringify(pots)
          });
          const cookie = answer.headers.getSetCookie()[0].split(';')[0];
          const { id, version } = (await answer.json()) as { id: string; version: number };
          pupils.push({ cookie, id, version, said: 0, sent: 0 });
        }
      for (const pupil of pupils) {
        const answer = await fetch(`${base}/api/projects/${pupil.id}`, { headers: { cookie: pupil.cookie } });
        expect(answer.status).toBe(200);
        const { version, project } = (await answer.json()) as { version: number; project: Project };
        // what was under way when it was killed may be there or not; what was answered is
        const there = Number(project.notebook || 0);
        expect(there).toBeGreaterThanOrEqual(pupil.said);
        expect(there).toBeLessThanOrEqual(pupil.sent);
        Object.assign(pupil, { version, said: there, sent: there });
      }
      if (kill === KILLS) {
        await ended(server);
        break;
      }
      let over = false;
      const work = pupils.map(async (pupil) => {
        while (!over) {
          const next = ++pupil.sent;
          const answer = await fetch(`${base}/api/projects/${pupil.id}?base=${pupil.version}`, {
            method: 'PUT',
            headers: { ...JSON_TYPE, cookie: pupil.cookie },
            body: JSON.stringify({ ...pots, notebook: String(next) })
          }).catch(() => undefined);
          if (!answer?.ok) return;
          const { version } = (await answer.json().catch(() => ({}))) as { version?: number };
          if (version) Object.assign(pupil, { version, said: next });
        }
      });
      await new Promise((done) => setTimeout(done, 250 + 90 * kill));
      await ended(server);
      over = true;
      await Promise.all(work);
      expect(pupils.some((p) => p.said > 0)).toBe(true);
      const db = new Database(join(folder, 'mossbell.sqlite'));
      expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
      db.close();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('where nothing more can be written, or another holds the database, the class is told so and nothing answered is lost', async () => {
  test.setTimeout(600_000);
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-full-'));
  const port = PORT + 4;
  const here = `http://localhost:${port}`;
  // files may grow to 3 MiB: what ships takes 2.4, and the log of what is written is there soon
  let server = await start(folder, port, 3072);
  const ask = async (method: string, path: string, cookie = '', data?: object) => {
    const answer = await fetch(here + path, {
      method,
      headers: { ...JSON_TYPE, origin: here, cookie },
      body: data && JSON.stringify(data)
    });
    const told = (await answer.json().catch(() => ({}))) as Record<string, unknown> & { id: string; message?: string };
    return {
      status: answer.status,
      told,
      cookie: answer.headers
        .getSetCookie()
        .map((c) => c.split(';')[0])
        .find((c) => c.startsWith('mossbell.session'))!
    };
  };
  try {
    const ash = (await ask('POST', '/api/teachers', '', { nickname: 'Ash', passphrase: 'under the bell' })).cookie;
    const { id } = (await ask('POST', '/api/classes', ash, { name: 'Full' })).told;
    const [card] = (await ask('POST', `/api/classes/${id}/pupils`, ash, { nicknames: ['Sundew'] })).told as unknown as {
      words: string;
    }[];
    const page = await (await fetch(`${here}/class/${id}`, { headers: { cookie: ash } })).text();
    const code = /data-testid="code"[^>]*>([A-Z]+)</.exec(page)![1];
    const signIn = () => ask('POST', '/api/session', '', { code, nickname: 'Sundew', words: card.words });
    const sundew = (await signIn()).cookie;
    const project = `/api/projects/${(await ask('POST', '/api/projects', sundew, pots)).told.id}`;
    const newest = async () =>
      (await ask('GET', project, sundew)).told as unknown as { version: number; project: Project };
    let said = '';
    let full: Awaited<ReturnType<typeof ask>> | undefined;
    for (let n = 0; !full && n < 300; n++) {
      const notebook = `${n} ${'moss '.repeat(4000)}`;
      const { version } = await newest();
      const answer = await ask('PUT', `${project}?base=${version}`, sundew, { ...pots, notebook });
      if (answer.status === 200) said = notebook;
      else full = answer;
    }
    expect(said).not.toBe('');
    // less and less, until there is no room for the smallest of them
    for (let n = 0; n < 100 && (await ask('PATCH', '/api/me', sundew, { handUp: n % 2 === 0 })).status === 204; n++);
    /** each thing that a class writes, and how it is answered */
    const writes = async () => [
      await ask('PATCH', '/api/me', sundew, { handUp: true }),
      await ask('POST', `${project}/hand-ins`, sundew, { note: 'Done' }),
      await ask('POST', `${project}/comments`, ash, { text: 'Well done', block: null }),
      await ask('POST', `/api/classes/${id}/pupils`, ash, { nicknames: ['Newt'] }),
      await signIn()
    ];
    for (const { status, told } of [full!, ...(await writes())]) {
      expect(status).toBe(500);
      expect(told.message).toMatch(/^The (database cannot be written|disk of the school computer is full).*Your work/);
    }
    // what was answered is there and can be read: now, and when there is room again
    expect((await newest()).project.notebook).toBe(said);
    await ended(server);
    server = await start(folder, port);
    expect((await newest()).project.notebook).toBe(said);
    expect((await ask('GET', `${project}/hand-ins`, sundew)).told).toEqual([]);
    // another program holds the database
    const other = new Database(join(folder, 'mossbell.sqlite'));
    other.exec('begin immediate');
    for (const { status, told } of await writes()) {
      expect(status).toBe(500);
      expect(told.message).toContain('The database is busy.');
    }
    expect((await newest()).project.notebook).toBe(said);
    other.exec('commit');
    other.close();
    expect((await writes()).map((a) => a.status)).toEqual([204, 201, 201, 201, 200]);
  } finally {
    await ended(server);
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a server whose data cannot be opened says so, and what to do, and leaves them as they are', () => {
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-damaged-'));
  const file = join(folder, 'mossbell.sqlite');
  writeFileSync(file, 'moss '.repeat(500));
  const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', 'server.ts', '--demo'], {
    env: { ...process.env, PORT: String(PORT + 6), MOSSBELL_DATA: folder },
    encoding: 'utf8'
  });
  expect(status).toBe(1);
  expect(stderr.trim()).toBe(
    `Moss Bell: The database in "${folder}" is damaged. Move it away, then bring a backup back: ./mossbell restore FILE`
  );
  expect(readFileSync(file, 'utf8')).toBe('moss '.repeat(500));
  rmSync(folder, { recursive: true });
});
