/** What is told of a run beside its findings: what one change did, what was asked and what came, all that happened as a file. */
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openDemo, rehearse, typeNumber } from './room.ts';

test('a run after one change says what the change did; the heading is told as blocks say it; its events are a file', async ({
  page
}) => {
  await openDemo(page, 'There and back');
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
