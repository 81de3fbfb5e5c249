import '../core/run/exact-math.ts';
import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { createHash } from 'node:crypto';
import { traceBytes } from '../core/trace/files.ts';
import fc from 'fast-check';
import { rehearse as runHere } from '../core/run/interpreter.ts';
import { specOfRun, type RunOptions } from '../core/run/spec.ts';
import { anyLife, live } from '../core/testing/lives.ts';
import { demoProjects } from '../demo/seed.ts';
import { readFileSync } from 'node:fs';
import { projectOf, type Errand } from '../core/errand/errand.ts';
import { asTeacher, handedInOfDemo, linked, openDemo, opened, rehearse, roundOfDemo, shelf, signIn } from './room.ts';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What axe finds on the page as it stands: all rules in the light, and what colours decide in the dark too. */
async function faults(page: Page): Promise<string[]> {
  // there are no frames of others here: it need not open a page of its own for what it found in them
  const told = async (axe: AxeBuilder): Promise<string[]> =>
    (await axe.setLegacyMode(true).analyze()).violations.flatMap((v) =>
      v.nodes.map((n) => `${v.id}: ${n.target.join(' ')} ${n.any[0]?.message ?? ''}`)
    );
  const dark = (on: boolean) => page.evaluate(`document.documentElement.classList.toggle('dark', ${on})`);
  const light = await told(new AxeBuilder({ page }).withTags(RULES));
  await dark(true);
  const inTheDark = await told(new AxeBuilder({ page }).withRules(['color-contrast']));
  await dark(false);
  return [...light, ...inTheDark.map((fault) => `in the dark, ${fault}`)];
}
test("axe finds no fault on the hand, live values, inputs, mat editor and the phone's page", async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await openDemo(page, 'Catch the trowel');
  await page.getByTestId('rehearse').click();
  await page.getByRole('button', { name: 'Live values' }).click();
  await page.getByTestId('live').waitFor();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('button', { name: 'Trace', exact: true }).click();
  await page.getByTestId('inputs').click();
  await page.getByRole('tab', { name: 'Phone or tablet' }).click();
  await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
  expect(await faults(page)).toEqual([]);
  await page.goto(`${page.url()}/mat`);
  await page.getByTestId('mat').waitFor();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  expect(await faults(page)).toEqual([]);
  await page.goto('/hand');
  await page.getByLabel('Code').waitFor();
  expect(await faults(page)).toEqual([]);
});
test('axe finds no fault inside a run, on findings, tools of the trace, guesses, reckoner and look-over', async ({
  page
}) => {
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await openDemo(page, 'Five drips');
  await page.getByRole('button', { name: 'Step', exact: true }).click();
  await page.getByTestId('inside').waitFor();
  await page.getByTestId('inside').getByRole('button', { name: 'Into' }).click();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await rehearse(page);
  await page.getByRole('button', { name: /to check/ }).click();
  await page.getByRole('button', { name: 'Predict' }).click();
  await page.getByRole('button', { name: /finding/ }).click();
  await page.getByRole('region', { name: 'Findings' }).waitFor();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Reckoner' }).click();
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Choose the lanes' }).click();
  await page.getByTestId('lane-list').waitFor();
  expect(await faults(page)).toEqual([]);
});
test('axe finds no fault on shelf, workbench and kit sheet', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await openDemo(page, 'The dark board');
  await page.getByRole('tab', { name: 'Move' }).click();
  await rehearse(page);
  expect(await faults(page)).toEqual([]);
  await page.getByTestId('chip').click();
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await page.getByTestId('kit-drawing').waitFor();
  expect(await faults(page)).toEqual([]);
  await shelf(page);
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Barrow two-wheeled robot' }).click();
  await page.getByLabel('What shall it be called?').waitFor();
  await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
  expect(await faults(page)).toEqual([]);
});

test('axe finds no fault on the other views, panels, dialogs and pages', async ({ page }) => {
  // a hundred looks at large pages: minutes on a machine that is busy
  test.setTimeout(720_000);
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await openDemo(page, 'The square bed');
  const at = page.url();
  const found: Record<string, string[]> = {};
  const look = async (what: string, ...ready: string[]): Promise<void> => {
    for (const one of ready) await page.locator(one).first().waitFor();
    await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
    const there = await faults(page);
    if (there.length) found[what] = there;
  };
  const program = page.getByRole('region', { name: 'Program', exact: true });
  const more = async (item: string): Promise<void> => {
    await program.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('button', { name: item }).click();
  };
  for (const [mode, there] of [
    ['Notebook', '[data-testid=notebook]'],
    ['Blocks + text', '.cm-content'],
    ['Flow', '[data-testid=flows]']
  ]) {
    await program.getByRole('button', { name: mode, exact: true }).click();
    await look(mode, there);
  }
  await program.getByRole('button', { name: 'Notebook', exact: true }).click();
  await page.getByRole('button', { name: 'Beside the program' }).click();
  await look('notebook beside');
  await program.getByRole('button', { name: 'Blocks', exact: true }).click();
  for (const item of ['Find in the program', 'Names of the program', 'Compare, still the same?']) {
    await more(item);
    await look(item, '[role=dialog]');
    await page.keyboard.press('Escape');
  }
  await more('Versions of this project');
  await look('versions', 'dialog[open]');
  await page.keyboard.press('Escape');
  await program.getByRole('button', { name: 'More', exact: true }).click();
  await look('a menu');
  await page.keyboard.press('Escape');
  await rehearse(page);
  for (const tool of [
    'Measure between two cursors',
    'Table',
    'Times of the blocks',
    'Search log and events',
    'Runs of this project'
  ]) {
    await page.getByRole('button', { name: 'More about the trace' }).click();
    await page.getByRole('button', { name: tool, exact: true }).click();
    await look(tool);
  }
  await page.keyboard.press('?');
  await look('keys', 'dialog[open]');
  await page.keyboard.press('Escape');
  await more('Make it a text project');
  await look('text project', '.cm-content');
  await page.goto(`${at}/worksheet`);
  await look('worksheet', '[data-testid=program-picture]');
  // paper is light, whatever the screen is
  const ground = page.locator('[data-testid=program-picture] svg > rect').first();
  await expect(ground).toHaveAttribute('fill', '#fbfaf5');
  await page.goto('/handbook/it-drives-into-the-wall');
  await look('handbook', 'article, main');
  await page.goto('/');
  await page.locator('[data-stands]').waitFor();
  await page.getByRole('button', { name: 'Taken off the shelf' }).click();
  await look('taken off', 'dialog[open]');
  await page.goto('/nowhere');
  await look('an unknown address', 'h1');
  await page.setViewportSize({ width: 820, height: 1180 });
  await page.goto(at);
  await look('with tabs', '[role=tablist]');
  expect(found).toEqual({});
});

test('axe finds no fault on the device: panel, faults, drive, class set, log, pins', async ({ page }) => {
  test.setTimeout(180_000);
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await openDemo(page, 'The square bed');
  const at = page.url();
  const found: Record<string, string[]> = {};
  const look = async (what: string, ...ready: string[]): Promise<void> => {
    for (const one of ready) await page.locator(one).first().waitFor();
    await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
    const there = await faults(page);
    if (there.length) found[what] = there;
  };
  const panel = page.getByTestId('device-panel');
  await page.getByTestId('chip').click();
  await panel.getByRole('button', { name: 'Plug in', exact: true }).click();
  await panel.getByRole('button', { name: 'Send the program' }).click();
  await expect(page.getByTestId('device-message')).toContainText('as program', { timeout: 60_000 });
  await panel.getByRole('button', { name: 'More' }).click();
  await panel.getByRole('button', { name: 'Faults for a lesson' }).click();
  await page.getByLabel('What hangs on it').selectOption('slow');
  await look('panel', '[data-testid=faults-on]');
  await panel.getByRole('button', { name: 'The devices of the class' }).click();
  await look('class set', 'dialog[open]');
  await page.keyboard.press('Escape');
  await panel.getByRole('button', { name: 'Unplug' }).click();
  await panel.getByRole('button', { name: 'As a drive, Dot held' }).click();
  await page.getByRole('button', { name: 'about.txt' }).click();
  await look('drive', '[data-testid=drive] pre');
  await page.getByTestId('drive').getByRole('button', { name: 'Eject' }).click();
  await panel.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Log of the device' }).click();
  await look('log', '[data-testid=console]');
  await page.goto(`${at}/kit/pins`);
  await look('pins', '[data-testid=pins]');
  expect(found).toEqual({});
});

const digest = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
/** Of the bytes of runs that are made in the page's worker. */
const digestsThere = (page: Page, runs: RunOptions[]): Promise<string[]> =>
  page.evaluate(async (all) => {
    const digests: string[] = [];
    for (const o of all) {
      const bytes = await (window as unknown as { mossbellBytes(o: unknown): Promise<Uint8Array> }).mossbellBytes(o);
      const sum = await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>);
      digests.push([...new Uint8Array(sum)].map((b) => b.toString(16).padStart(2, '0')).join(''));
    }
    return digests;
  }, runs);

test('axe finds no fault on an errand: begun, missed with a hint open, and met', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  const file = new URL('../demo/errands/first-delivery.mossbell-errand.json', import.meta.url);
  const errand = JSON.parse(readFileSync(file, 'utf8')) as Errand;
  await opened(page, { ...projectOf(errand), hintsOpened: 1 });
  await page.getByTestId('errand').waitFor();
  await rehearse(page);
  await page.getByTestId('errand').locator('[data-state=missed]').waitFor();
  await page.getByTestId('tries').waitFor();
  expect(await faults(page)).toEqual([]);
  await opened(page, { ...projectOf(errand), program: errand.model });
  await rehearse(page);
  await page.getByTestId('bell').waitFor();
  await page.getByTestId('tries').waitFor();
  expect(await faults(page)).toEqual([]);
});

test('the same five inputs give the same trace, byte for byte, in Node and in Chromium', async ({ page }) => {
  test.setTimeout(300_000);
  await shelf(page);
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
  await openDemo(page, 'Round the fern bed');
  // every fifth of the demo projects
  for (const [name, p] of demoProjects().filter((_, i) => i % 5 === 0)) {
    const options = {
      program: p.program,
      kit: p.kit,
      mat: p.mat,
      seed: 11,
      name: p.name,
      limitS: 10,
      inputs: [{ tUs: 700_000, input: { press: 'Dot' as const } }]
    };
    const [here, [there]] = [digest(traceBytes(runHere(options))), await digestsThere(page, [options])];
    expect(there, name).toBe(here);
  }
});

test('100 runs with rests, changes by hand and stops are made again in Chromium as they were here', async ({
  page
}) => {
  test.setTimeout(180_000);
  await openDemo(page, 'Round the fern bed');
  const lives = fc.sample(anyLife, { numRuns: 100, seed: 31 });
  const traces = lives.map((life) => live(life).trace);
  expect(traces.filter((t) => t.ended === 'stopped').length).toBeGreaterThan(5);
  const there: string[] = [];
  for (let i = 0; i < lives.length; i += 20)
    there.push(
      ...(await digestsThere(
        page,
        lives.slice(i, i + 20).map(({ project }, k) => specOfRun(project, traces[i + k]))
      ))
    );
  expect(there).toEqual(traces.map((t) => digest(traceBytes(t))));
});

test('every answer of the server isolates its page, workers and static files too', async ({ request }) => {
  const page = await (await request.get('/')).text();
  const script = /\/_app\/immutable\/[^"]+\.js/.exec(page)![0];
  for (const path of ['/', '/bell.svg', script, '/nowhere']) {
    const { 'cross-origin-opener-policy': coop, 'cross-origin-embedder-policy': coep } = (
      await request.get(path)
    ).headers();
    expect([path, coop, coep]).toEqual([path, 'same-origin', 'require-corp']);
  }
});

test('nothing is fetched from outside this computer', async ({ page, baseURL }) => {
  const outside: string[] = [];
  page.on('request', (r) => !r.url().startsWith(baseURL!) && !/^(blob|data):/.test(r.url()) && outside.push(r.url()));
  await openDemo(page, 'The dark board');
  await page.getByRole('button', { name: 'Blocks + text' }).click();
  await page.locator('.cm-line').first().waitFor();
  await rehearse(page);
  expect(outside).toEqual([]);
});
test('axe finds no fault on lessons: read, written, printed; and where an errand is made', async ({ page }) => {
  test.setTimeout(300_000);
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await page.goto('/lesson/first-wheels');
  await page.getByRole('button', { name: 'Next step' }).click();
  await page.getByRole('radio').first().check();
  await page.getByRole('button', { name: 'That is my answer' }).click();
  await page.getByRole('button', { name: 'Rehearse', exact: true }).click();
  await page.getByTestId('came').waitFor();
  expect(await faults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Next step' }).click();
  await page.getByRole('application').click();
  expect(await faults(page)).toEqual([]);
  await page.goto('/lesson/left-means-left/write');
  await page.locator('.mb-drawn').nth(8).waitFor();
  expect(await faults(page)).toEqual([]);
  await page.goto('/lesson/pictures-by-pixels/print?teacher');
  await page.getByTestId('came').first().waitFor();
  await expect(page.getByText('Drawing the blocks ...')).toHaveCount(0);
  expect(await faults(page)).toEqual([]);
  await openDemo(page, 'To the bench');
  await page.goto(`${page.url()}/errand`);
  await page
    .getByTestId('suggestions')
    .getByRole('button', { name: /^Make it a goal/ })
    .nth(1)
    .click();
  await page.getByLabel('A wrong program').selectOption({ label: 'Past the hoop' });
  await page.locator('[data-of="1"]').first().waitFor();
  expect(await faults(page)).toEqual([]);
});
test('axe finds no fault on the pages of a class, of the teacher and of a pupil', async ({ page, browser }) => {
  test.setTimeout(300_000);
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await page.goto('/sign-in');
  const told = (await page.getByTestId('demo-pupil').textContent())!;
  expect(await faults(page)).toEqual([]);
  await asTeacher(page);
  for (const [path, ready] of [
    ['/class', 'main li'],
    ['/class/demo-class', '[data-testid=pupils]'],
    ['/class/demo-class/wall', '[data-testid=wall] li'],
    ['/class/demo-class/shows', '[data-testid=beside] svg'],
    ['/class/demo-class/marks', '[data-testid=marks]'],
    ['/class/demo-class/lesson/first-wheels', '[data-testid=answers]'],
    [await handedInOfDemo(page), '[data-testid=program] svg'],
    ['/class/audit', '[data-testid=audit]'],
    ['/kept', 'article'],
    [await roundOfDemo(page), '[data-testid=guessed]'],
    [await linked(page), '[data-testid=program]']
  ]) {
    await page.goto(path);
    await page.locator(ready).first().waitFor();
    await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
    expect([path, ...(await faults(page))]).toEqual([path]);
  }
  await page.goto('/class/demo-class');
  await page.getByRole('button', { name: 'Add pupils' }).first().click();
  await page.getByRole('dialog').waitFor();
  await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
  expect(await faults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  // the cards of one who needs another
  await page.getByRole('button', { name: 'What to do with Mallow' }).click();
  await page.getByRole('button', { name: 'A new card' }).click();
  await page.getByTestId('cards').waitFor();
  expect(await faults(page)).toEqual([]);
  await page.goto('/class/demo-class/wall');
  await page.locator('[data-pupil=Newt] a').click();
  await page.getByTestId('class-bar').waitFor();
  await page.getByRole('button', { name: 'Comment' }).click();
  expect(await faults(page)).toEqual([]);
  const pupil = await (await browser.newContext()).newPage();
  await pupil.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
  await signIn(pupil, { code: /code (\w+)/.exec(told)![1], nickname: 'Bramble', words: 'fern moss bell' });
  await shelf(pupil);
  await pupil.getByTestId('given-to-me').getByRole('button').first().waitFor();
  expect(await faults(pupil)).toEqual([]);
  await pupil.getByTestId('given-to-me').getByRole('button').first().click();
  await pupil.getByTestId('class-bar').getByRole('button', { name: 'Hand in' }).click();
  await pupil.getByRole('dialog').waitFor();
  await pupil.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
  expect(await faults(pupil)).toEqual([]);
  await pupil.goto(await roundOfDemo(page));
  await pupil.getByRole('application').waitFor();
  expect(await faults(pupil)).toEqual([]);
  await pupil.context().close();
});
