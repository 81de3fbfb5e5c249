/** Menus and dialogs, as hands and keys find them. */
import { expect, test } from '@playwright/test';
import { openDemo, rehearse } from './room.ts';

test('a menu opens by its button, is walked by keys, and closes by Escape, by a choice and by a click beside it', async ({
  page
}) => {
  await openDemo(page, 'Back to the mark');
  const button = page.getByRole('button', { name: 'More', exact: true });
  const menu = page.getByRole('group', { name: 'More', exact: true });
  // coming by with the keyboard opens nothing
  await button.focus();
  await expect(menu).toBeHidden();
  await page.keyboard.press('ArrowDown');
  await expect(menu).toBeVisible();
  await expect(button).toHaveAttribute('aria-expanded', 'true');
  const item = (name: string) => menu.getByText(name, { exact: true });
  await expect(item('Find in the program')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(item('Names of the program')).toBeFocused();
  await page.keyboard.press('End');
  await expect(item('Worksheet to print')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(item('Find in the program')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(item('Worksheet to print')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(menu).toBeHidden();
  await expect(button).toBeFocused();
  await expect(button).toHaveAttribute('aria-expanded', 'false');

  await button.click();
  await expect(menu).toBeVisible();
  // its own button closes it too, however slow the hand, and another menu takes its place
  await button.click({ delay: 150 });
  await expect(menu).toBeHidden();
  await button.click();
  const yard = page.getByRole('group', { name: 'More about the yard' });
  await page.getByRole('button', { name: 'More about the yard' }).click();
  await expect(yard).toBeVisible();
  await expect(menu).toBeHidden();
  await page.getByRole('heading', { name: 'Trace' }).click();
  await expect(yard).toBeHidden();

  await button.click();
  await item('Find in the program').click();
  await expect(menu).toBeHidden();
  await expect(page.getByRole('dialog', { name: 'Find in the program' })).toBeVisible();
});

test('a dialog is left by Escape and by a click beside it, and the focus goes back', async ({ page }) => {
  await openDemo(page, 'Back to the mark');
  const name = page.getByRole('button', { name: 'Back to the mark' });
  const dialog = page.getByRole('dialog', { name: 'What shall the project be called?' });
  await name.click();
  await expect(dialog.getByRole('textbox')).toBeFocused();
  await dialog.getByRole('textbox').fill('Elsewhere');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(name).toBeFocused();
  await name.click();
  await expect(dialog.getByRole('textbox')).toHaveValue('Back to the mark');
  await page.mouse.click(20, 780);
  await expect(dialog).toBeHidden();
  await name.click();
  await dialog.getByRole('textbox').fill('Elsewhere');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Elsewhere' })).toBeVisible();
});

test('an unknown address says that there is no such page, and the way to the shelf', async ({ page }) => {
  await page.goto('/no/such/place');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await expect(page.locator('main')).toContainText('Moss Bell has nothing at /no/such/place.');
  await page.getByRole('main').getByRole('link', { name: 'To the shelf' }).click();
  await expect(page.locator('[data-stands]')).toBeVisible();
});

test('hard words are explained in a sentence, under the pointer and at the focus, and Esc closes it', async ({
  page
}) => {
  await openDemo(page, 'Back to the mark');
  const tip = page.getByRole('tooltip');
  for (const [name, says] of [
    ['▶ Rehearse', 'before it is sent'],
    ['Look-over', 'Reads the program before it runs'],
    ['Reckoner', 'wheels, turns, times'],
    ['Kit sheet', 'which part sits in which socket']
  ]) {
    const word = page.getByRole(name === 'Kit sheet' ? 'link' : 'button', { name, exact: true });
    await word.hover();
    await expect(tip).toContainText(says);
    await expect(word).toHaveAttribute('aria-description', new RegExp(says));
    await page.keyboard.press('Escape');
    await expect(tip).toHaveCount(0);
    await page.mouse.move(640, 400);
  }
  await page.getByRole('heading', { name: 'Trace' }).hover();
  await expect(tip).toContainText('one time axis');
  await page.mouse.move(640, 400);
  await expect(tip).toHaveCount(0);
  // from the keyboard
  await page.getByRole('button', { name: 'Step', exact: true }).focus();
  await page.keyboard.press('Shift+Tab');
  await expect(tip).toContainText('before it is sent');
});

test('deleting a kept run can be taken back from a toast', async ({ page }) => {
  await openDemo(page, 'Back to the mark');
  await rehearse(page);
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Runs of this project' }).click();
  const kept = page.getByTestId('kept').getByRole('row');
  await expect(kept).toHaveCount(1);
  const name = await kept.getByLabel('Name of the run').inputValue();
  await kept.getByRole('button', { name: 'Take the run out' }).click();
  await expect(kept.getByLabel('Name of the run')).toHaveCount(0);
  await page.getByTestId('toasts').getByRole('button', { name: 'Take back' }).click();
  await expect(kept.getByLabel('Name of the run')).toHaveValue(name);
  await kept.getByRole('button', { name: 'Take the run out' }).click();
  const gone = page.waitForResponse((r) => r.request().method() === 'DELETE');
  await page.getByTestId('toasts').getByRole('button', { name: 'Close' }).click();
  expect((await gone).status()).toBe(204);
});

test('Space and y, p, t act from anywhere but a text field; a program that listens to keys has them at once', async ({
  page
}) => {
  await openDemo(page, 'Four keys');
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('keys-here')).toHaveText('Keys go to the robot now');
  await page.keyboard.down('W');
  await expect.poll(() => page.getByTestId('pose').innerText()).not.toContain(' 0.0 cm driven');
  await page.keyboard.up('W');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await openDemo(page, 'Back to the mark');
  // from a block of the program
  await page.locator('.drive\\.measure').first().click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeEnabled();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: '▶ Go on' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('heading', { name: 'Trace' }).click();
  await page.keyboard.press('y');
  await expect(page.locator('.mb-stage').getByTestId('yard')).toBeVisible();
  await page.keyboard.press('y');
  await expect(page.locator('.mb-stage')).toHaveCount(0);
  await page.getByPlaceholder('Find a block').fill('y');
  await expect(page.locator('.mb-stage')).toHaveCount(0);
});

test('a project is looked at again as it was left', async ({ page }) => {
  await openDemo(page, 'Round the fern bed');
  await page.getByRole('button', { name: 'Flow', exact: true }).click();
  await page.getByRole('button', { name: 'Behind' }).click();
  await page.getByRole('button', { name: 'Live values' }).click();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Flow', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('button', { name: 'Behind' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByTestId('live')).toBeVisible();
  // another project is not told
  await openDemo(page, 'Back to the mark');
  await expect(page.getByRole('button', { name: 'Blocks', exact: true })).toHaveAttribute('aria-pressed', 'true');
});

test('what is chosen is told again when it was changed', async ({ page }) => {
  await openDemo(page, 'Back to the mark');
  // the first click may only choose the block
  await expect(async () => {
    await page.locator('.wait\\.time .blocklyDropdownText').first().click({ timeout: 2000 });
    await page
      .locator('.blocklyMenuItem')
      .filter({ hasText: /^\s*ms\s*$/ })
      .click({ timeout: 2000 });
  }).toPass();
  await expect(page.getByTestId('spoken')).toHaveText('wait 0.5 ms');
});
