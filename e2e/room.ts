/** What every test of the interface does: open things, drag blocks, type numbers. */
import { expect, type Page } from '@playwright/test';
import type { Project } from '../core/project.ts';

export async function newProject(page: Page, name: string, mat = 'Long aisle'): Promise<string> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Barrow two-wheeled robot' }).click();
  await page.getByLabel('What shall it be called?').fill(name);
  await page.getByRole('radio', { name: mat }).check();
  await page.getByRole('button', { name: 'Start the project' }).click();
  await workbench(page);
  return page.url();
}
export async function openDemo(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: `${name} Barrow · opens as a copy` }).click();
  await workbench(page);
}
export async function workbench(page: Page): Promise<void> {
  await page.waitForURL('**/project/**');
  await page.getByTestId('blocks').and(page.locator('[data-ready]')).waitFor();
}
/** Drags a card of the tray into the program, to a place in its pane. */
export async function dragCard(page: Page, section: string, title: string, x: number, y: number): Promise<void> {
  await page.getByRole('tab', { name: section, exact: true }).click();
  const card = (await page.locator('[data-card]').filter({ hasText: title }).first().boundingBox())!;
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await page.mouse.move(card.x + 40, card.y + 12);
  await page.mouse.down();
  await page.mouse.move(card.x + 20, card.y + 14, { steps: 3 });
  await page.mouse.move(pane.x + x, pane.y + y, { steps: 10 });
  await page.mouse.move(pane.x + x + 1, pane.y + y + 1);
  await page.mouse.up();
}
/** Types into the n-th number of the n-th block of a kind. */
export async function typeNumber(page: Page, kind: string, nth: number, slot: number, value: string): Promise<void> {
  const id = await page.evaluate(([kind, nth]) => {
    type Ws = { getAllBlocks(ordered: boolean): { type: string; id: string }[] };
    return (window as unknown as { mossbellWorkspace: Ws }).mossbellWorkspace.getAllBlocks(true).filter((b) => b.type === kind)[nth as number].id;
  }, [kind, nth] as const);
  await page.locator(`[data-id="${id}"] .blocklyShadow .blocklyFieldText, [data-id="${id}"] .blocklyShadow text`).nth(slot).click();
  const input = page.locator('.blocklyHtmlInput');
  await input.fill(value);
  await input.press('Enter');
}
export async function project(page: Page): Promise<Project> {
  await expect(page.getByTestId('saving')).toHaveText('saved');
  const id = /project\/([^/]+)/.exec(page.url())![1];
  return (await (await page.request.get(`/api/projects/${id}`)).json()).project;
}
export const kinds = (p: Project): string[][] => p.program.stacks.map((s) => s.steps.map((step) => step.kind));
export async function robot(page: Page): Promise<{ x: number; y: number; facing: number }> {
  const r = page.getByTestId('robot');
  return { x: Number(await r.getAttribute('data-x')), y: Number(await r.getAttribute('data-y')), facing: Number(await r.getAttribute('data-facing')) };
}
/** Rehearses as fast as it goes, to the end. */
export async function rehearse(page: Page, speed = 'max'): Promise<void> {
  await page.getByLabel('Speed').selectOption(speed);
  await page.getByTestId('rehearse').click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 60_000 });
}
