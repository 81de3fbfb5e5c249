/** Menus and dialogs, as hands and keys find them. */
import { expect, test } from '@playwright/test';
import { openDemo } from './room.ts';

test('a menu opens by its button, is walked by keys, and closes by Escape, by a choice and by a click beside it', async ({
  page
}) => {
  await openDemo(page, 'There and back');
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
  // its own button closes it too, and another menu takes its place
  await button.click();
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
  await openDemo(page, 'There and back');
  const name = page.getByRole('button', { name: 'There and back' });
  const dialog = page.getByRole('dialog', { name: 'What shall the project be called?' });
  await name.click();
  await expect(dialog.getByRole('textbox')).toBeFocused();
  await dialog.getByRole('textbox').fill('Elsewhere');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(name).toBeFocused();
  await name.click();
  await expect(dialog.getByRole('textbox')).toHaveValue('There and back');
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
