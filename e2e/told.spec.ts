/** What is told of a run beside its findings: what one change did, what was asked and what came, all that happened as a file. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { barrow } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { longAisle } from '../core/yard/mats.ts';
import { opened, openDemo, rehearse, typeNumber, workbench } from './room.ts';

test('a run after one change says what the change did; the heading is told as blocks say it; its events are a file', async ({
  page
}) => {
  await openDemo(page, 'Back to the mark');
  await rehearse(page);
  await expect(page.getByRole('button', { name: '0 findings' })).toBeVisible();
  await page.getByRole('button', { name: '0 findings' }).click();
  await expect(page.getByText('Nothing to find: the run did what it was asked.')).toBeVisible();
  await expect(page.getByTestId('since')).toHaveCount(0);
  // nobody said what was meant: a guess is offered
  await page.getByRole('button', { name: /Say where it should stop/ }).click();
  await expect(page.getByRole('region', { name: 'Predict' })).toBeVisible();
  await page.getByRole('region', { name: 'Predict' }).getByRole('button', { name: 'Close' }).click();
  await typeNumber(page, 'drive.measure', 0, 0, '60');
  await rehearse(page);
  await expect(page.getByTestId('since')).toContainText('Since the run before');

  await page.getByRole('button', { name: 'More about the trace' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save its events as CSV' }).click();
  const rows = readFileSync(await (await download).path(), 'utf8').split('\r\n');
  expect(rows[0]).toBe('time_s,event,block,what,fields');
  expect(rows.some((r) => /,move,"?drive ahead 60 cm/.test(r))).toBe(true);
});

test('a picture built by many blocks is as asked, and of what did not drive no place is asked for', async ({
  page
}) => {
  await openDemo(page, 'The outline of a leaf');
  await rehearse(page);
  await page.getByRole('button', { name: '0 findings' }).click();
  await expect(page.getByText('Nothing to find: the run did what it was asked.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Say where it should stop/ })).toHaveCount(0);
});
test('a kit that cannot be opens all the same, and is told in the look-over and on its sheet', async ({ page }) => {
  const problems: string[] = [];
  page.on('pageerror', (e) => problems.push(e.message));
  const kit = {
    ...barrow,
    chassis: {
      ...barrow.chassis,
      massAt: { xMm: 300, yMm: 0 },
      lamps: [...barrow.chassis.lamps, ...barrow.chassis.lamps]
    },
    parts: [...barrow.parts, { socket: 'J4', type: 'servo' as const, name: 'flap' }]
  };
  await opened(page, newProject('Odd', kit, longAisle));
  await workbench(page);
  await rehearse(page);
  await page.getByRole('button', { name: /to check/ }).click();
  for (const says of ['Two parts are in socket J4. Move one of them.', /The weight lies outside of what carries it/])
    await expect(page.getByText(says).first()).toBeVisible();
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await expect(page.getByText('Two parts are in socket J4. Move one of them.')).toBeVisible();
  await expect(page.getByText(/The weight lies outside of what carries it/)).toBeVisible();
  expect(problems).toEqual([]);
});
