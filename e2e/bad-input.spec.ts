/** What a classroom throws at the editor: a clear sentence, and nothing is lost. */
import { expect, test, type Page } from '@playwright/test';
import { barrow } from '../core/kit/kit.ts';
import { newProject, type Project } from '../core/project.ts';
import { b, log, program, start } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { kinds, project, workbench } from './room.ts';

async function open(page: Page, part: Partial<Project>): Promise<void> {
  const made = await page.request.post('/api/projects', { data: { ...newProject('Odd', barrow, longAisle), ...part } });
  expect(made.ok(), await made.text()).toBe(true);
  await page.goto(`/project/${(await made.json()).id}`);
  await workbench(page);
}

test('pasted blocks that the kit lacks come in, marked, with what is missing', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await open(page, { program: program(start(log(1))) });
  const clip = {
    format: 'mossbell.blocks',
    version: 1,
    stacks: [[b('begin.touch', { what: 'left edge', event: 'is touched' }), log(b('sense.moisture'))]],
    variables: [],
    routines: []
  };
  await page.evaluate((text) => navigator.clipboard.writeText(text), JSON.stringify(clip));
  await page
    .locator('.begin\\.start > .blocklyPath')
    .first()
    .click({ position: { x: 30, y: 10 }, force: true });
  await page.keyboard.press('Control+v');
  await expect.poll(async () => kinds(await project(page)).length).toBe(2);
  await page.getByRole('button', { name: /to check/ }).click();
  const remarks = page.getByRole('region', { name: 'Look-over' });
  await expect(remarks).toContainText('This block needs a moisture sensor, which Barrow does not have.');
  await expect(remarks).toContainText('Take it out or switch it off, or choose a device that has it.');
  // what is no blocks at all is refused with a sentence, and changes nothing
  await page.evaluate(() => navigator.clipboard.writeText('{"format": "mossbell.blocks", "version": 7}'));
  await page
    .locator('.begin\\.start > .blocklyPath')
    .first()
    .click({ position: { x: 30, y: 10 }, force: true });
  await page.keyboard.press('Control+v');
  await expect(page.getByRole('alert').filter({ hasText: 'are no blocks of Moss Bell' })).toBeVisible();
  expect(kinds(await project(page)).length).toBe(2);
});

test('names of any script and a deep nest are drawn, run and printed', async ({ page }) => {
  let nest = log('in the middle');
  for (let i = 0; i < 120; i++) nest = b('repeat.times', { count: 1 }, { do: [nest] });
  const names = ['for', 'שלום', '🌱🌱', '数', 'x'.repeat(60)];
  const variables = names.map((name, i) => ({ id: `v${i}`, name }));
  const sets = variables.map((v, i) => b('var.set', { variable: v.id, value: i }));
  await open(page, { program: { ...program(start(...sets, nest)), variables } });
  for (const name of names.slice(0, 4))
    await expect(page.locator('.var\\.set', { hasText: name }).first()).toBeVisible();
  await page.getByLabel('Speed').selectOption('max');
  await page.getByTestId('rehearse').click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled();
  await expect(page.getByText('0 findings')).toBeVisible();
  await page.getByRole('button', { name: 'Blocks + text' }).click();
  await expect(page.locator('.cm-line', { hasText: '# שלום' })).toBeVisible();
  await page.getByRole('button', { name: 'Flow' }).click();
  await expect(page.getByTestId('flow')).toBeVisible({ timeout: 30_000 });
});
