import { expect, test, type Page } from '@playwright/test';
import fc from 'fast-check';
import { barrow } from '../core/kit/kit.ts';
import type { Program } from '../core/language/program.ts';
import { newProject as makeProject, type Project } from '../core/project.ts';
import { randomProgram } from '../core/testing/random.ts';
import { longAisle } from '../core/yard/mats.ts';
import { demoProjects } from '../demo/seed.ts';
import {
  dragCard,
  kinds,
  nameIn,
  newProject,
  openDemo,
  project,
  rehearse,
  typeNumber,
  workbench,
  shelf
} from './room.ts';

async function openProject(page: Page, p: Project): Promise<void> {
  const made = await page.request.post('/api/projects', { data: p });
  expect(made.status()).toBe(201);
  await page.goto(`/project/${(await made.json()).id}`);
  await workbench(page);
}
const choose = async (page: Page, kind: string, field: number, item: string | RegExp): Promise<void> => {
  await page
    .locator(`.${kind.replace('.', '\\.')} .blocklyDropdownField, .${kind.replace('.', '\\.')} .blocklyDropdownText`)
    .nth(field)
    .click();
  await page
    .locator('.blocklyDropDownDiv')
    .getByRole('option', { name: item })
    .or(page.locator('.blocklyDropDownDiv').getByRole('menuitemcheckbox', { name: item }))
    .click();
};
/** Stacks as the editor may lay them out: places are rounded, ids stay. */
const essence = (p: Program): unknown =>
  JSON.parse(
    JSON.stringify({
      ...p,
      stacks: p.stacks.map(({ x: _x, y: _y, id: _id, ...s }) => s),
      routines: p.routines.map(({ x: _x, y: _y, ...r }) => r),
      loose: p.loose.map((l) => l.value)
    })
  );

test('programs come through the block editor unchanged', async ({ page }) => {
  test.setTimeout(240_000);
  const generated = fc.sample(randomProgram, { numRuns: 5, seed: 31 }).map((p): Project => ({
    ...makeProject('Generated', barrow, longAisle),
    // stacks side by side, so that the marker stack below finds a free place
    program: {
      ...p,
      stacks: p.stacks.map((s, i) => ({ ...s, x: 20 + i * 900, y: 20 })),
      routines: p.routines.map((r, i) => ({ ...r, x: 3000 + i * 900, y: 20 }))
    }
  }));
  for (const p of [...demoProjects().flatMap(([, d], i) => (i % 2 ? [d] : [])), ...generated]) {
    await openProject(page, p);
    // any gesture makes the program anew from what the editor shows
    await page.evaluate(() => {
      type Ws = { newBlock(kind: string): { initSvg(): void; render(): void; moveBy(x: number, y: number): void } };
      const block = (window as unknown as { mossbellWorkspace: Ws }).mossbellWorkspace.newBlock('display.dark');
      block.initSvg();
      block.render();
      block.moveBy(-600, 3000);
    });
    await expect.poll(async () => (await project(page)).program.stacks.length).toBe(p.program.stacks.length + 1);
    const now = (await project(page)).program;
    const stacks = p.program.stacks.map((s) => now.stacks.find((n) => n.steps[0].id === s.steps[0].id)!);
    expect(essence({ ...now, stacks }), p.name).toEqual(essence(p.program));
  }
});

test('a variable and a routine are made right where they are needed', async ({ page }) => {
  await newProject(page, 'Names');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Remember', 'Set a variable', 62, 82);
  await nameIn(page, 'var.set', 'pots');
  await expect(page.locator('.var\\.set')).toContainText('pots');
  await dragCard(page, 'Reuse', 'Do a routine', 62, 118);
  await nameIn(page, 'routine.do', 'carry');
  await expect(page.locator('.routine\\.do')).toContainText('carry');
  const { program } = await project(page);
  expect(program.variables.map((v) => v.name)).toEqual(['pots']);
  expect(program.routines.map((r) => r.name)).toEqual(['carry']);
  const [, set, call] = program.stacks[0].steps;
  expect([set.slots.variable, call.slots.routine]).toEqual([program.variables[0].id, program.routines[0].id]);
});

test('an if grows branches, and keeps what is in them', async ({ page }) => {
  await newProject(page, 'Branches');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Choose', 'If', 62, 82);
  const menu = async (item: string) => {
    await page
      .locator('.choose\\.if > .blocklyPath:not(.blocklyPathSelected)')
      .click({ button: 'right', position: { x: 60, y: 3 }, force: true });
    await page.getByRole('menuitem', { name: item, exact: true }).click();
  };
  await menu('Add: otherwise if');
  await menu('Add: otherwise');
  await expect(page.locator('.choose\\.if')).toContainText('otherwise');
  expect(Object.keys((await project(page)).program.stacks[0].steps[1].bodies!)).toEqual([
    'then1',
    'then2',
    'otherwise'
  ]);
  await menu('Take away the last otherwise if');
  expect(Object.keys((await project(page)).program.stacks[0].steps[1].bodies!)).toEqual(['then1', 'otherwise']);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => Object.keys((await project(page)).program.stacks[0].steps[1].bodies!))
    .toEqual(['then1', 'then2', 'otherwise']);
});

test('a picture is painted pixel by pixel, and stands on the face when it is put up', async ({ page }) => {
  await newProject(page, 'Painter');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Light up', 'Put up picture', 62, 82);
  await page.locator('.lit\\.picture rect').first().click();
  await page.getByRole('button', { name: 'x 0, y 0' }).click();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  await expect
    .poll(async () =>
      ((await project(page)).program.stacks[0].steps[1].slots.picture as { picture: string }).picture.slice(0, 7)
    )
    .toBe('##..##.');
  await rehearse(page);
  await expect(page.getByTestId('matrix').locator('rect').nth(1)).toHaveAttribute('fill', /100%/);
});

test('a condition goes into a condition slot; a number does not', async ({ page }) => {
  await newProject(page, 'Slots');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Wait', 'Wait until', 62, 82);
  const slot = (await page.locator('.wait\\.until > .blocklyPath:not(.blocklyPathSelected)').boundingBox())!;
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await dragCard(page, 'Sense', 'Nose is touched', slot.x - pane.x + 96, slot.y - pane.y + 20);
  await expect
    .poll(async () => JSON.stringify((await project(page)).program.stacks[0].steps[1].slots))
    .toContain('sense.nose');
  await page.keyboard.press('Control+z');
  await dragCard(page, 'Sense', 'Distance ahead', slot.x - pane.x + 96, slot.y - pane.y + 20);
  await expect.poll(async () => (await project(page)).program.loose.length).toBe(1);
  expect((await project(page)).program.stacks[0].steps[1].slots).toEqual({});
});

test('an error outlines its block, and the findings lead there', async ({ page }) => {
  await newProject(page, 'Divide');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Remember', 'Log', 62, 82);
  const log = (await page.locator('.log\\.line .blocklyShadow').boundingBox())!;
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await dragCard(page, 'Work out', 'Arithmetic', log.x - pane.x + 16, log.y - pane.y + 12);
  await expect
    .poll(async () => JSON.stringify((await project(page)).program.stacks[0].steps[1].slots))
    .toContain('calc.sum');
  await choose(page, 'calc.sum', 0, '÷');
  await typeNumber(page, 'calc.sum', 0, 1, '0');
  await rehearse(page);
  await expect(page.locator('.log\\.line.mb-failed')).toHaveCount(1);
  await page.getByRole('button', { name: '1 finding' }).click();
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('Nothing can be divided by zero.');
});

test('a project is renamed, found on the shelf, and taken off it', async ({ page }) => {
  await newProject(page, 'Short lived');
  await page.getByTitle('Rename').click();
  await page.getByLabel('name', { exact: true }).fill('Long lived');
  await page.getByRole('button', { name: 'Done' }).click();
  await project(page);
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await page.getByRole('heading', { name: 'Go on with' }).waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('long lived');
  const card = page.getByTestId('card').filter({ hasText: 'Long lived' });
  await expect(card).toHaveCount(1);
  await card.hover();
  await page.getByRole('button', { name: 'What to do with Long lived' }).click();
  await page.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(card).toHaveCount(0);
  await expect(page.getByText('No project of yours has that in its name')).toBeVisible();
});

test('notebook and mat are part of the project', async ({ page }) => {
  await openDemo(page, 'An arm short');
  await page.getByRole('button', { name: 'Notebook' }).click();
  await page.getByLabel('Line 1', { exact: true }).fill('Stop before the bench.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('then beep');
  await page.keyboard.press('Tab');
  await page.getByLabel('Done: Stop before the bench.').check();
  // a line leads to the blocks that it belongs to; a heading has no box to tick
  await page.getByLabel('What line 2 belongs to').selectOption({ index: 1 });
  await page.getByRole('button', { name: 'To the blocks of line 2' }).click();
  await expect(page.locator('.begin\\.start').first()).toHaveClass(/blocklySelected|blocklyActiveFocus/);
  await page.getByRole('button', { name: 'Notebook' }).click();
  await page.getByLabel('What line 2 belongs to').selectOption('');
  await page.getByRole('button', { name: 'Another line' }).click();
  await page.keyboard.type('# After the run');
  await expect(page.getByLabel('Done: # After the run')).toHaveCount(0);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Backspace');
  await page.getByRole('button', { name: 'Blocks', exact: true }).click();
  await page.getByRole('combobox', { name: /^Mat/ }).selectOption('Fern bed');
  const p = await project(page);
  expect([p.notebook, p.mat.name]).toEqual(['[x] Stop before the bench.\n  [ ] then beep', 'Fern bed']);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('combobox', { name: /^Mat/ })).toHaveValue('Long aisle');
});

test('the notebook stands beside the blocks; a stack leads to its line and back', async ({ page }) => {
  await openDemo(page, 'An arm short');
  await page
    .locator('.begin\\.start')
    .first()
    .click({ button: 'right', position: { x: 12, y: 12 }, force: true });
  await page.getByText('Its line in the notebook').click();
  // it has one line already, which belongs to nothing
  await expect(page.getByLabel('Line 2', { exact: true })).toBeFocused();
  await page.keyboard.type('Drive until the bench is near');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('blocks')).toBeVisible();
  // the line is the chosen stack's, and the arrow leads back to it
  await expect(page.getByTestId('notebook').locator('li').nth(1)).toHaveClass(/bg-linen/);
  await page.getByRole('button', { name: 'To the blocks of line 2' }).click();
  await expect(page.locator('.begin\\.start').first()).toHaveClass(/blocklyActiveFocus|blocklySelected/);
  await expect(page.getByTestId('notebook')).toBeVisible();
  const p = await project(page);
  expect(p.notebook.split('\n').slice(1).join('\n')).toBe(
    `[ ] Drive until the bench is near {${p.program.stacks[0].steps[0].id}}\n[ ] `
  );
  await page.getByRole('button', { name: 'Beside the program' }).click();
  await expect(page.getByTestId('blocks')).toBeHidden();
  await page.reload();
  await expect(page.getByTestId('notebook')).toBeVisible();
});

test('the theme stays when the page is opened again', async ({ page }) => {
  await shelf(page);
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await expect(page.locator('html')).toHaveClass(/dark/);
  await page.reload();
  await expect(page.locator('html')).toHaveClass(/dark/);
  await page.getByRole('button', { name: 'Light theme' }).click();
  await expect(page.locator('html')).not.toHaveClass(/dark/);
});

test('sending without the library changes nothing if that is refused; a running device is stopped', async ({
  page
}) => {
  test.setTimeout(120_000);
  await openDemo(page, 'Wake the bell');
  await page.getByTestId('chip').click();
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 5');
  await page.getByTestId('device-panel').getByRole('button', { name: 'Plug in', exact: true }).click();
  await expect(page.getByTestId('state')).toHaveText('library missing');
  await page.getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('device-message')).toContainText('The board library is missing');
  await page.getByRole('button', { name: 'Send the program' }).click();
  await page.getByRole('button', { name: 'Not now' }).click();
  await expect(page.getByTestId('device-message')).toContainText('Nothing on the device was changed');
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 3');
  await page.getByTestId('device-panel').getByRole('button', { name: 'Plug in', exact: true }).click();
  await page.getByRole('button', { name: 'Send the program' }).click();
  await expect(page.getByTestId('device-message')).toContainText('is on Barrow 3', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('state')).toHaveText('busy running');
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');
  await page.getByRole('button', { name: 'Stop its program' }).click();
  await expect(page.getByTestId('state')).toHaveText('plugged in');
  // the device remembers: a new page finds its program
  await page.reload();
  await workbench(page);
  await page.getByRole('button', { name: 'Plug in' }).click();
  await expect(page.getByTestId('state')).toHaveText('plugged in');
  await page.getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('state')).toHaveText('busy running');
  expect(kinds(await project(page)).length).toBe(1);
});

test('the server says what is wrong with what it is given', async ({ request }) => {
  const post = (data: unknown) => request.post('/api/projects', { data: data as object });
  const bad = await post({ format: 'mossbell.project', version: 1 });
  expect(bad.status()).toBe(400);
  expect((await bad.json()).message).toContain('cannot be opened: at "name"');
  expect((await post('[')).status()).toBe(400);
  expect((await request.get('/api/projects/nobody')).status()).toBe(404);
  expect((await request.put('/api/projects/nobody?base=1', { data: demoProjects()[0][1] })).status()).toBe(404);
  const own = ((await (await post(demoProjects()[0][1])).json()) as { id: string }).id;
  expect((await request.put(`/api/projects/${own}`, { data: {} })).status()).toBe(400);
  expect((await request.delete('/api/projects/demo-back-to-the-mark')).status()).toBe(403);
  const missing = await request.get('/project/nobody', { headers: { accept: 'text/html' } });
  expect(missing.status()).toBeLessThan(500);
});

test('the keys are listed under ?, and single keys can be switched off', async ({ page }) => {
  await shelf(page);
  // the page comes from the server and takes keys a moment later
  await expect(async () => {
    await page.keyboard.press('?');
    await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible({ timeout: 500 });
  }).toPass();
  await page.getByRole('checkbox', { name: /act on their own/ }).uncheck();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await page.keyboard.press('/');
  await expect(page.getByPlaceholder('Find a project')).not.toBeFocused();
  await openDemo(page, 'An arm short');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeDisabled();
});
