/** What was answered is there, however the computer goes down: the server is killed while many save. */
import { expect, test } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { newProject, type Project } from '../core/project.ts';
import { barrow } from '../core/kit/kit.ts';
import { longAisle } from '../core/yard/mats.ts';

const PORT = Number(process.env.E2E_PORT ?? 4699) + 40;
const base = `http://localhost:${PORT}`;
const JSON_TYPE = { 'content-type': 'application/json' };
const KILLS = 10;
const PUPILS = 12;
const pots = newProject('Pots', barrow, longAisle);

test('killed ten times while twelve save: nothing that was answered is lost', async () => {
  test.setTimeout(600_000);
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-killed-'));
  const start = async (): Promise<ChildProcess> => {
    const server = spawn(process.execPath, ['--import', 'tsx', 'server.ts'], {
      env: { ...process.env, PORT: String(PORT), MOSSBELL_DATA: folder, MOSSBELL_QUIET: '1' },
      stdio: 'ignore'
    });
    await expect
      .poll(
        () =>
          fetch(`${base}/bell.svg`).then(
            (r) => r.ok,
            () => false
          ),
        { timeout: 120_000 }
      )
      .toBe(true);
    return server;
  };
  /** each a browser of its own, by its cookie: its project, and what was answered last */
  const pupils: { cookie: string; id: string; version: number; said: number; sent: number }[] = [];
  try {
    for (let kill = 0; kill <= KILLS; kill++) {
      const server = await start();
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
        server.kill('SIGKILL');
        await once(server, 'exit');
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
      server.kill('SIGKILL');
      await once(server, 'exit');
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
