/** The shelf as a place to work: found, sorted, labelled, named, doubled, taken off several at once and back. */
import { expect, test, type Page } from '@playwright/test';
import { demo, startProject, shelf } from './room.ts';

const cards = (page: Page) => page.getByTestId('card');
const titles = (page: Page): Promise<string[]> => page.getByTestId('card').locator('a.truncate').allInnerTexts();
async function menu(page: Page, name: string, item: string): Promise<void> {
  await page.getByRole('button', { name: `What to do with ${name}`, exact: true }).click();
  await page.getByRole('button', { name: item, exact: true }).click();
}
/** Three projects that no other test has. */
async function three(page: Page, last: string): Promise<void> {
  const blocks = {
    [`Zinnia ${last}`]: ['drive.measure'],
    [`aster ${last}`]: ['sound.beep'],
    [`Moss ${last}`]: ['sound.beep', 'wait.time']
  };
  await startProject(page, `Zinnia ${last}`);
  const id = /project\/([^/]+)/.exec(page.url())![1];
  const { project, version } = await (await page.request.get(`/api/projects/${id}`)).json();
  const of = (name: string) => ({
    ...project,
    name,
    program: {
      ...project.program,
      stacks: [
        {
          id: 's',
          x: 0,
          y: 0,
          steps: blocks[name].map((kind, i) => ({
            id: `b${i}`,
            kind,
            slots:
              kind === 'wait.time'
                ? { time: 2, unit: 's' }
                : kind === 'drive.measure'
                  ? { way: 'ahead', amount: 33, unit: 'cm', power: 45, ending: 'brake' }
                  : {}
          }))
        }
      ]
    }
  });
  expect((await page.request.put(`/api/projects/${id}?base=${version}`, { data: of(`Zinnia ${last}`) })).status()).toBe(
    200
  );
  for (const name of [`aster ${last}`, `Moss ${last}`])
    expect((await page.request.post('/api/projects', { data: of(name) })).status()).toBe(201);
  await shelf(page);
}

test('projects are found by name, blocks and device, and stand in the order that is asked', async ({ page }) => {
  await three(page, 'hall');
  const find = page.getByPlaceholder('Find a project');
  await find.fill('hall');
  await expect.poll(() => titles(page)).toEqual(['Moss hall', 'aster hall', 'Zinnia hall']);
  await page.getByLabel('In which order').selectOption('name');
  await expect.poll(() => titles(page)).toEqual(['aster hall', 'Moss hall', 'Zinnia hall']);
  await find.fill('beep');
  await expect
    .poll(async () => (await titles(page)).filter((t) => t.endsWith('hall')))
    .toEqual(['aster hall', 'Moss hall']);
  await find.fill('no such thing');
  await expect(
    page.getByText('No project of yours has that in its name, its blocks, its device or its label.')
  ).toBeVisible();
  // a copy of a demo for the hand says the hand board
  await demo(page, 'Catch the trowel');
  await shelf(page);
  await expect(cards(page).filter({ hasText: 'Catch the trowel' }).first()).toContainText('Trowel');
  // its picture has its own numbers in it
  await find.fill('Zinnia hall');
  await expect(cards(page).locator('svg').first()).toContainText('33');
});

test('a project is named in place, doubled and labelled; several are taken off at once, and back', async ({ page }) => {
  await three(page, 'court');
  await page.getByPlaceholder('Find a project').fill('court');
  await menu(page, 'Moss court', 'Rename');
  await page.getByLabel('Name of the project').fill('Fern court');
  await page.keyboard.press('Enter');
  await expect.poll(() => titles(page)).toContain('Fern court');
  await menu(page, 'Fern court', 'Duplicate');
  await expect.poll(() => titles(page)).toContain('Fern court (copy)');
  await menu(page, 'Fern court', 'Label');
  await page.getByRole('dialog').getByLabel('label').fill('Monday');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(cards(page).filter({ hasText: 'Monday' })).toHaveCount(1);
  await page.getByLabel('Label', { exact: true }).selectOption('Monday');
  await expect.poll(() => titles(page)).toEqual(['Fern court']);
  await page.getByLabel('Label', { exact: true }).selectOption('');
  for (const name of ['Fern court', 'Fern court (copy)'])
    await page.getByRole('checkbox', { name: `Choose ${name}`, exact: true }).check();
  const all = (await titles(page)).length;
  await page.getByRole('group', { name: 'What is chosen' }).getByRole('button', { name: 'Take off the shelf' }).click();
  const toast = page.getByTestId('toasts');
  await expect(toast).toContainText('2 projects were taken off the shelf.');
  await expect(cards(page)).toHaveCount(all - 2);
  await toast.getByRole('button', { name: 'Take back' }).click();
  await expect(cards(page)).toHaveCount(all);
});

test('demo projects stand in groups, folded where there is work of one’s own', async ({ page }) => {
  await three(page, 'lodge');
  const demos = page.getByRole('button', { name: /opens as a copy/ });
  await expect(page.getByRole('heading', { name: 'First steps' })).toBeVisible();
  await expect(demos).toHaveCount(0);
  await page.getByRole('button', { name: 'The hand board' }).click();
  await expect(demos).toHaveCount(4);
});
