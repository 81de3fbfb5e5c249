/** Errands as a pupil meets them: begun on the shelf, tried, missed by so much, met, and kept. */
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { opened, project, rehearse, shelf, typeNumber, workbench } from './room.ts';
import { projectOf, type Errand } from '../core/errand/errand.ts';

const FOLDER = new URL('../demo/errands/', import.meta.url);
const errand = (id: string): Errand =>
  JSON.parse(readFileSync(new URL(`${id}.mossbell-errand.json`, FOLDER), 'utf8')) as Errand;

test('an errand is begun, missed by so many cm, tried again, and the bell rings', async ({ page }) => {
  await shelf(page);
  await page.getByText('To begin with').click();
  const card = page.locator('[data-errand=first-delivery]');
  if (!(await card.isVisible())) await page.getByText('To begin with').click();
  await card.getByRole('button').first().click();
  await workbench(page);
  const pane = page.getByTestId('errand');
  await expect(pane).toContainText('Carry the pot 65 cm down the aisle');
  await expect(pane.locator('[data-state]')).toHaveCount(2);
  await expect(page.locator('.goal-ring.open')).toHaveCount(1);

  // as it is given: 40 cm, rolling on
  await rehearse(page);
  const missed = pane.locator('[data-state=missed]');
  await expect(missed).toContainText(/Stopped 14\.\d cm short of the hoop bench, at 2\.\d\d s\./);
  await expect(page.locator('.goal-ring.missed')).toHaveCount(1);
  await missed.getByRole('button', { name: 'Show the moment' }).click();
  await expect(page.getByTestId('playhead')).toHaveText(/^2\.[456]/);
  await expect(pane.getByTestId('tries')).toContainText('1 try');

  // hints open one after the other, and stay with the project
  await pane.getByRole('button', { name: 'Hint 1 of 3' }).click();
  await pane.getByRole('button', { name: 'Hint 2 of 3' }).click();
  await expect(pane.getByRole('list', { name: 'Hints' }).getByRole('listitem')).toHaveCount(2);
  expect((await project(page)).hintsOpened).toBe(2);

  await typeNumber(page, 'drive.measure', 0, 0, '60');
  await rehearse(page);
  await expect(pane.getByTestId('bell')).toContainText('The bell rings: all goals are met.');
  await expect(page.locator('.goal-ring.met')).toHaveCount(1);
  await expect(pane.locator('[data-try]')).toHaveCount(2);
  await expect(pane.getByTestId('came')).toContainText(/all goals met in \d\.\d s · 1 block · before it: /);
  // live: at the start of the trace nothing is met yet
  await pane.locator('[data-try=missed]').click();
  await expect(missed).toHaveCount(1);

  await shelf(page);
  const done = page.locator('[data-errand=first-delivery]');
  if (!(await done.isVisible())) await page.getByText('To begin with').click();
  await expect(done).toContainText('the bell rang; 2 tries');
});

test('where numbers alone may be changed, a block that is taken out comes back, and the tray offers what is named', async ({
  page
}) => {
  const only: Errand = {
    ...errand('first-delivery'),
    id: 'by-numbers',
    may: 'numbers',
    offers: ['wait.time'],
    predictFirst: true
  };
  await opened(page, projectOf(only));
  await workbench(page);
  await page.getByRole('tab', { name: 'Wait', exact: true }).click();
  await expect(page.locator('[data-card]')).toHaveCount(1);
  await page.getByRole('tab', { name: 'Move', exact: true }).click();
  await expect(page.locator('[data-card]')).toHaveCount(0);

  // where it stops is said first
  await page.getByTestId('rehearse').click();
  await expect(page.getByText('Say first what it will do')).toBeVisible();
  await page.getByRole('button', { name: 'That is my guess' }).click();
  await rehearse(page);
  await expect(page.getByTestId('errand').locator('[data-state=missed]')).toHaveCount(1);
  // and before each try anew
  await page.getByTestId('rehearse').click();
  await expect(page.getByText('Say first what it will do')).toBeVisible();
  await expect(page.getByRole('button', { name: 'That is my guess' })).toBeVisible();

  const before = (await project(page)).program;
  await page
    .locator('.blocklyDraggable')
    .filter({ hasText: 'drive' })
    .first()
    .click({ position: { x: 12, y: 14 } });
  await page.keyboard.press('Delete');
  await expect(page.getByText('In this errand the numbers alone are changed.')).toBeVisible();
  await expect(page.locator('.blocklyDraggable').filter({ hasText: 'drive' }).first()).toBeVisible();
  expect((await project(page)).program).toEqual(before);
  await typeNumber(page, 'drive.measure', 0, 0, '55');
  await expect.poll(async () => JSON.stringify((await project(page)).program)).toContain('55');
});

test('an errand comes in from a file, one that is no good is told, and one of one’s own is taken off and back', async ({
  page
}) => {
  await shelf(page);
  const own: Errand = { ...errand('there-and-back'), id: 'to-the-well', name: 'To the well and back', level: 3 };
  const put = (name: string, text: string) =>
    page
      .locator('input[type=file]')
      .first()
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await put('well.mossbell-errand.json', JSON.stringify({ ...own, mat: { ...own.mat, hoops: [] } }));
  await expect(page.getByText(/A goal speaks of the hoop 80 cm, and the mat Long aisle has none/)).toBeVisible();
  await put('well.mossbell-errand.json', JSON.stringify(own));
  await expect(page.getByText('"well.mossbell-errand.json" is among the errands now.')).toBeVisible();
  await page.getByPlaceholder('Find a project').fill('well');
  const card = page.locator('[data-errand^=to-the-well]').first();
  await expect(card).toContainText('Barrow · not tried yet');
  await card.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(card).toHaveCount(0);
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(card).toBeVisible();
});

test('a program is made smaller and must do the same as at first, with what a person does in it', async ({ page }) => {
  const counts = errand('drip-count');
  const smaller: Errand = {
    ...counts,
    id: 'same-count',
    given: counts.model,
    goals: [{ kind: 'same' }, ...counts.goals]
  };
  await opened(page, projectOf(smaller));
  await workbench(page);
  const pane = page.getByTestId('errand');
  await rehearse(page);
  await expect(pane.getByTestId('bell')).toContainText('The bell rings');
  // counting by two shows something else: both goals tell it
  await typeNumber(page, 'var.change', 0, 0, '2');
  await rehearse(page);
  await expect(pane.locator('[data-state=missed]')).toHaveCount(2);
});
