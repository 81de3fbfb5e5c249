import { expect, test, type Page } from '@playwright/test';
import Database from 'better-sqlite3';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { barrow } from '../core/kit/kit.ts';
import type { Program, Step } from '../core/language/program.ts';
import { newProject as made, type Project } from '../core/project.ts';
import { b, program, start as begins } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { dragCard, kinds, newProject, opened, project, workbench } from './room.ts';

test('a tab that is killed at any moment loses nothing', async ({ context }) => {
  let page = await context.newPage();
  const url = await newProject(page, 'Killed tab');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await project(page);
  // saving does not get through; the tab dies right after the next gesture
  await page.route('**/api/projects/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue()
  );
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await expect(page.getByTestId('saving')).not.toHaveText('saved');
  await page.close({ runBeforeUnload: false });
  page = await context.newPage();
  await page.goto(url);
  await workbench(page);
  expect(kinds(await project(page))).toEqual([['begin.start', 'drive.measure']]);
  // what was taken up again can be undone, too
  await page.keyboard.press('Control+z');
  expect(kinds(await project(page))).toEqual([['begin.start']]);
});

test('the same project in two tabs is not overwritten silently', async ({ context }) => {
  const one = await context.newPage();
  const url = await newProject(one, 'Two tabs');
  await dragCard(one, 'Begin', 'At the start', 60, 40);
  await project(one);
  const two = await context.newPage();
  await two.goto(url);
  await workbench(two);
  // both change it; the second does not hear of the first in time
  await two.evaluate(() => (BroadcastChannel.prototype.postMessage = () => {}));
  let letGo = () => {};
  const gate = new Promise<void>((open) => (letGo = open));
  await two.route('**/api/projects/*', async (route) => {
    if (route.request().method() === 'PUT') await gate;
    await route.continue();
  });
  await two.bringToFront();
  await dragCard(two, 'Move', 'Drive', 62, 82);
  await one.bringToFront();
  await dragCard(one, 'Sound', 'Beep', 62, 82);
  await project(one);
  // and the second goes on changing while its copy is being made
  let made = () => {};
  const making = new Promise<void>((open) => (made = open));
  await two.route('**/api/projects', async (route) => {
    if (route.request().method() === 'POST') await making;
    await route.continue();
  });
  const asked = two.waitForRequest((r) => r.method() === 'POST' && r.url().endsWith('/api/projects'));
  letGo();
  await asked;
  await two.bringToFront();
  await dragCard(two, 'Sound', 'Silence', 62, 120);
  made();
  await expect(two.getByRole('alert')).toContainText('Both are kept: you go on here, in "Two tabs (changed here');
  expect(kinds(await project(two))).toEqual([['begin.start', 'drive.measure', 'sound.silence']]);
  expect(kinds(await project(one))).toEqual([['begin.start', 'sound.beep']]);
  // each goes on with its own: one copy was made, not one with every change, and the address is the copy's
  expect(two.url()).not.toBe(url);
  await two.bringToFront();
  await dragCard(two, 'Sound', 'Beep', 62, 158);
  await one.bringToFront();
  await dragCard(one, 'Sound', 'Silence', 62, 120);
  expect(kinds(await project(two))).toEqual([['begin.start', 'drive.measure', 'sound.silence', 'sound.beep']]);
  expect(kinds(await project(one))).toEqual([['begin.start', 'sound.beep', 'sound.silence']]);
  const found = (await (await one.request.get('/api/projects?find=Two tabs')).json()) as { name: string }[];
  expect(found).toHaveLength(2);
  await two.getByRole('link', { name: 'Open the other one' }).click();
  await workbench(two);
  expect(two.url()).toBe(url);
});

test('a save whose answer is lost on its way is no conflict with oneself, also not when the tab is gone', async ({
  context
}) => {
  let page = await context.newPage();
  const url = await newProject(page, 'Lost answer');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await project(page);
  /** it is saved, and nobody hears of it */
  const lose = () =>
    page.route('**/api/projects/*', async (route) => {
      if (route.request().method() !== 'PUT') return route.continue();
      await route.fetch();
      await route.abort();
    });
  await lose();
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await expect(page.getByTestId('saving')).toHaveText('kept in this browser');
  await dragCard(page, 'Sound', 'Beep', 62, 124);
  await page.unrouteAll();
  const both = [['begin.start', 'drive.measure', 'sound.beep']];
  expect(kinds(await project(page))).toEqual(both);
  await lose();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('saving')).toHaveText('kept in this browser');
  await page.keyboard.press('Control+y');
  await page.waitForTimeout(300);
  await page.close({ runBeforeUnload: false });
  page = await context.newPage();
  await page.goto(url);
  await workbench(page);
  expect(kinds(await project(page))).toEqual(both);
  expect(page.url()).toContain(url);
  const named = (await (await page.request.get('/api/projects')).json()) as { name: string }[];
  expect(named.map((p) => p.name).filter((name) => name.startsWith('Lost answer'))).toEqual(['Lost answer']);
});

test('a project that is taken off the shelf while it is open here is not lost', async ({ context }) => {
  const one = await context.newPage();
  await newProject(one, 'Gone');
  await dragCard(one, 'Begin', 'At the start', 60, 40);
  await project(one);
  const shelf = await context.newPage();
  await shelf.goto('/');
  await shelf.locator('[data-stands]').waitFor();
  await shelf.getByRole('button', { name: 'What to do with Gone' }).click();
  await shelf.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(shelf.getByTestId('toasts')).toContainText('"Gone" was taken off the shelf.');
  await expect(shelf.getByTestId('card').filter({ hasText: 'Gone' })).toHaveCount(0);
  await dragCard(one, 'Move', 'Drive', 62, 82);
  await expect(one.getByRole('alert')).toContainText('was taken off the shelf elsewhere');
  await expect(one.getByTestId('saving')).toHaveText('kept in this browser');
  await one.getByRole('button', { name: 'Keep it as a new project' }).click();
  expect(kinds(await project(one))).toEqual([['begin.start', 'drive.measure']]);
  // the old one waits where it was put
  await shelf.getByRole('button', { name: 'Taken off the shelf' }).click();
  const waits = shelf.getByTestId('deleted').getByRole('listitem').filter({ hasText: 'Gone' });
  await expect(waits).toContainText('30 days left');
  await waits.getByRole('button', { name: 'Take back' }).click();
  await shelf.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  await expect(shelf.getByTestId('card').filter({ hasText: 'Gone' })).toHaveCount(2);
});

test('versions are listed with time and picture, opened beside, and taken back', async ({ page }) => {
  await newProject(page, 'Versions');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await project(page);
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await project(page);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Versions of this project' }).click();
  const list = page.getByTestId('versions').getByRole('listitem');
  await expect(list.first()).toContainText('Versions, the newest');
  await expect(list.first()).toContainText('2 blocks');
  await list.filter({ hasText: '1 block' }).first().getByRole('button', { name: 'What differs' }).click();
  await expect(page.getByTestId('differences').locator('li').first()).toContainText(/^new/);
  await list.filter({ hasText: '1 block' }).first().getByRole('button', { name: 'Take back' }).click();
  expect(kinds(await project(page))).toEqual([['begin.start']]);
  // it is a change like any other
  await page.keyboard.press('Control+z');
  expect(kinds(await project(page))).toEqual([['begin.start', 'drive.measure']]);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Versions of this project' }).click();
  await list.filter({ hasText: '1 block' }).first().getByRole('button', { name: 'Open as a copy' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Versions of ');
  expect(kinds(await project(page))).toEqual([['begin.start']]);
});

test('a reload in the middle of a run says what became of it', async ({ page }) => {
  await newProject(page, 'Reloaded');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await project(page);
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');
  await page.reload();
  await workbench(page);
  await expect(page.getByText('loaded anew while a run went on')).toBeVisible();
  await page.reload();
  await workbench(page);
  await expect(page.getByText('loaded anew while a run went on')).toHaveCount(0);
});

test('the notebook is kept while a line is written, as one change', async ({ page }) => {
  await newProject(page, 'Written');
  await page.getByRole('button', { name: 'Notebook' }).click();
  const line = page.getByLabel('Line 1', { exact: true });
  await line.pressSequentially('It drives');
  await expect.poll(async () => (await project(page)).notebook).toContain('It drives');
  await line.pressSequentially(' to the hoop');
  await expect.poll(async () => (await project(page)).notebook).toContain('It drives to the hoop');
  await expect(line).toBeFocused();
  await page.getByRole('button', { name: /^Undo/ }).click();
  expect((await project(page)).notebook).not.toContain('drives');
});

test('another tab is told when the project changed', async ({ context }) => {
  const one = await context.newPage();
  const url = await newProject(one, 'Told');
  const two = await context.newPage();
  await two.goto(url);
  await workbench(two);
  await dragCard(one, 'Begin', 'At the start', 60, 40);
  await project(one);
  await expect(two.getByTestId('saving')).toHaveText('changed in another tab');
  await two.getByRole('button', { name: 'Show the newest' }).click();
  await expect(two.locator('.blocklyDraggable')).toHaveCount(1);
});

/** A server of its own, to be killed. */
async function serve(port: number, folder: string): Promise<ChildProcess> {
  const server = spawn(process.execPath, ['--import', 'tsx', 'server.ts', '--demo'], {
    env: { ...process.env, PORT: String(port), MOSSBELL_DATA: folder, MOSSBELL_QUIET: '1' },
    stdio: ['ignore', 'pipe', 'inherit']
  });
  await new Promise<void>((ready, failed) => {
    server.stdout!.on('data', (text) => String(text).includes('is ready') && ready());
    server.on('exit', () => failed(new Error('the server ended')));
  });
  return server;
}
async function start(page: Page, port: number): Promise<void> {
  await page.goto(`http://localhost:${port}/`);
  await page.locator('[data-stands]').waitFor();
  await page.getByRole('button', { name: 'Barrow two-wheeled robot' }).click();
  await page.getByLabel('What shall it be called?').fill('Server');
  await page.getByRole('button', { name: 'Start the project' }).click();
  await workbench(page);
}

test('a server that is killed loses nothing: the work waits in the browser', async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-kill-'));
  const port = 4731;
  let server = await serve(port, folder);
  try {
    await start(page, port);
    await dragCard(page, 'Begin', 'At the start', 60, 40);
    await project(page);
    server.kill('SIGKILL');
    await new Promise((gone) => server.once('exit', gone));
    await dragCard(page, 'Move', 'Drive', 62, 82);
    await expect(page.getByTestId('saving')).toHaveText('kept in this browser');
    await expect(page.getByRole('alert')).toContainText('does not answer');
    server = await serve(port, folder);
    await page.getByRole('button', { name: 'Try again' }).click();
    expect(kinds(await project(page))).toEqual([['begin.start', 'drive.measure']]);
  } finally {
    server.kill('SIGKILL');
  }
});

test('a database that is locked is told, and the work stays in the browser until it can be saved', async ({ page }) => {
  const folder = mkdtempSync(join(tmpdir(), 'mossbell-lock-'));
  const port = 4741;
  const server = await serve(port, folder);
  try {
    await start(page, port);
    // somebody else holds the file
    const other = new Database(join(folder, 'mossbell.sqlite'));
    other.exec('begin immediate');
    await dragCard(page, 'Begin', 'At the start', 60, 40);
    await expect(page.getByRole('alert')).toContainText('The database is busy', { timeout: 20_000 });
    await expect(page.getByTestId('saving')).toHaveText('kept in this browser');
    other.exec('rollback');
    other.close();
    await page.getByRole('button', { name: 'Try again' }).click();
    expect(kinds(await project(page))).toEqual([['begin.start']]);
  } finally {
    server.kill('SIGKILL');
  }
});

test('what cannot be saved is said at once, is there after loading anew, and can be undone', async ({ page }) => {
  test.setTimeout(300_000);
  const say = b('log.line', { value: 'seen' });
  const p = program(begins(b('wheels.stop'), say));
  const x = (n: number) => 'x'.repeat(n);
  const steps = p.stacks[0].steps;
  const of = (...changed: Step[]): Program => ({ ...p, stacks: [{ ...p.stacks[0], steps: [steps[0], ...changed] }] });
  const states: [string, Partial<Project>][] = [
    ['a word that is no choice', { program: of({ ...steps[1], slots: { ending: 'break' } }, say) }],
    ['a text that is too long', { program: of({ ...say, slots: { value: x(2001) } }) }],
    ['a note that is too long', { program: of({ ...say, note: x(2001) }) }],
    ['a name that is empty', { program: { ...p, variables: [{ id: 'v9', name: '' }] } }],
    ['a routine with a long name', { program: { ...p, routines: [{ id: 'r9', name: x(61), x: 0, y: 0, steps: [] }] } }],
    ['an id that is there twice', { program: of(say, { ...steps[1], id: say.id }) }],
    ['a number that is none', { program: of({ ...say, slots: { value: Number.NaN } }) }],
    ['a place far out', { program: { ...p, stacks: [{ ...p.stacks[0], x: 2e6 }] } }],
    ['a notebook that is too long', { notebook: x(100_001) }],
    ['a name of the project that is too long', { name: x(81) }]
  ];
  for (const [what, change] of states) {
    await opened(page, { ...made('Refused', barrow, longAisle), program: p });
    await page.evaluate(
      ([json, nan]) => {
        const { session } = (
          window as unknown as { mossbellEditor: { session: { project: object; change(l: string, p: object): void } } }
        ).mossbellEditor;
        const change = JSON.parse(json, (_, v) => (v === nan ? Number.NaN : v));
        session.change('try', { ...session.project, ...change });
      },
      [JSON.stringify(change, (_, v) => (Number.isNaN(v) ? '(none)' : v)), '(none)'] as const
    );
    const told = async () => {
      await expect(page.getByTestId('saving'), what).toHaveText('kept in this browser');
      await expect(page.getByText('What was done last cannot be saved:'), what).toBeVisible();
    };
    await told();
    const kept = () => page.evaluate('JSON.stringify(mossbellEditor.session.project)');
    const before = await kept();
    await page.reload();
    await page.locator('[data-testid=blocks][data-ready]').waitFor();
    await told();
    expect(await kept(), what).toBe(before);
    await page.evaluate('mossbellEditor.session.undo()');
    await expect(page.getByTestId('saving'), what).toHaveText('saved');
    expect((await project(page)).program, what).toEqual(p);
  }
});
