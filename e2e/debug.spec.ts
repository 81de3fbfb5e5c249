/** Why did it do that? Standing still, stepping, going back, trying a part; the trace and its tools; guesses; a room. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { barrow } from '../core/kit/kit.ts';
import { newProject as emptyProject } from '../core/project.ts';
import { b, program, start } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { newProject, openDemo, project, rehearse, robot, typeNumber, workbench } from './room.ts';

const inside = (page: Page) => page.getByTestId('inside');
const where = (page: Page) => page.getByTestId('inside-where');
async function menu(page: Page, item: string): Promise<void> {
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: item, exact: true }).click();
}
const blockId = (page: Page, kind: string, nth = 0): Promise<string> =>
  page.evaluate(
    ([kind, nth]) => {
      type Ws = { getAllBlocks(ordered: boolean): { type: string; id: string }[] };
      return (window as unknown as { mossbellWorkspace: Ws }).mossbellWorkspace
        .getAllBlocks(true)
        .filter((b) => b.type === kind)[nth as number].id;
    },
    [kind, nth] as const
  );
async function blockMenu(page: Page, kind: string, item: string, nth = 0): Promise<void> {
  const id = await blockId(page, kind, nth);
  await page.locator(`[data-id="${id}"] > .blocklyPath`).click({ button: 'right', position: { x: 12, y: 12 } });
  await page.getByText(item, { exact: true }).click();
}
/** Opens a project that was made from a text. */
async function made(page: Page, name: string): Promise<void> {
  await openDemo(page, name);
}

test('steps into, over and out, shows every value, changes one, goes back and on from there', async ({ page }) => {
  await made(page, 'Five drips');
  await page.getByLabel('Speed').selectOption('max');
  await page.getByRole('button', { name: 'Step', exact: true }).click();
  await expect(where(page)).toContainText('Before:');
  const first = await where(page).innerText();
  await inside(page).getByRole('button', { name: 'Into' }).click();
  await expect(where(page)).not.toHaveText(first);
  const second = await where(page).innerText();
  await inside(page).getByRole('button', { name: 'Over' }).click();
  await expect(where(page)).not.toHaveText(second);
  await expect(page.getByTestId('inside-tasks')).toContainText('comes next');
  await expect(page.getByTestId('inside-channels')).toContainText('Distance ahead');
  await expect(page.getByTestId('inside-channels')).toHaveText(/Heading\s+\d/);
  await expect(page.getByTestId('inside-channels')).not.toHaveText(/\b360|-0(\.0+)?\s/);
  await inside(page).getByRole('button', { name: 'Back by a block' }).click();
  await expect(where(page)).toContainText('At:');
  // going on from there it stands before that very block
  const there = (await where(page).innerText()).replace(/^At:\s*/, '').split('\n')[0];
  await inside(page).getByRole('button', { name: 'Go on from here' }).click();
  await expect(where(page)).toContainText(`Before: ${there}`);
  await inside(page).getByRole('button', { name: 'Back by a block' }).click();
  await inside(page).getByRole('button', { name: 'On by 1 ms' }).click();
  await inside(page).getByRole('button', { name: 'Go on from here' }).click();
  await expect(page.getByRole('button', { name: 'Go on', exact: false }).first()).toBeVisible();
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 60_000 });
  // the tray is back
  await expect(page.getByPlaceholder('Find a block')).toBeVisible();
});

test('stops before a block with a test, when a value passes a limit, and on contact', async ({ page }) => {
  await made(page, 'Five drips');
  await page.getByLabel('Speed').selectOption('max');
  await blockMenu(page, 'pixel.set', 'Stop the run here');
  await expect(page.locator('.mb-halt')).toHaveCount(1);
  await page.getByTestId('rehearse').click();
  await expect(where(page)).toContainText('pixel');
  await expect(where(page)).toContainText('Stopped before:');
  await expect(inside(page).getByLabel('Value of drip')).toHaveValue('1');
  // a value that is changed by hand counts from the next block on
  await inside(page).getByLabel('Value of drip').fill('4');
  await inside(page).getByLabel('Value of drip').press('Enter');
  await expect(inside(page).getByLabel('Value of drip')).toHaveValue('4');
  await inside(page).getByRole('button', { name: 'Over' }).click();
  await expect(page.getByTestId('spoken')).toContainText('drip is 4 now');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();

  await made(page, 'To the bench');
  await page.getByLabel('Speed').selectOption('max');
  await page.getByRole('button', { name: 'Step', exact: true }).click();
  await inside(page).getByLabel('Where to stop').selectOption('when a value passes a limit');
  await inside(page).getByLabel('Which value').selectOption('Distance ahead');
  await inside(page).getByLabel('Limit').fill('60');
  await inside(page).getByRole('button', { name: 'Put the stop' }).click();
  await inside(page).getByLabel('Where to stop').selectOption('when it touches something');
  await inside(page).getByRole('button', { name: 'Put the stop' }).click();
  await expect(page.getByTestId('stops').getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(where(page)).toContainText('Stopped when Distance ahead < 60');
  const near = Number((await page.getByTestId('inside-channels').locator('dd').nth(4).innerText()).replace(' cm', ''));
  expect(near).toBeLessThan(60);
  expect(near).toBeGreaterThan(57);
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(where(page)).toContainText('Stopped when it touches something', { timeout: 30_000 });
});

test('a hand puts the robot elsewhere while time stands still, and the run goes on from there', async ({ page }) => {
  await made(page, 'Back to the mark');
  await page.getByLabel('Speed').selectOption('max');
  await page.getByRole('button', { name: 'Step', exact: true }).click();
  await expect(where(page)).toContainText('Before:');
  const from = await robot(page);
  const box = (await page.getByTestId('robot').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  const put = await robot(page);
  expect(put.x - from.x).toBeGreaterThan(0.1);
  await inside(page).getByRole('button', { name: 'Over' }).click();
  // 80 cm from where it was put, not from where it was
  await expect.poll(async () => (await robot(page)).x).toBeCloseTo(put.x + 0.8, 2);
});

test('the value of a block under the pointer is told while the run stands still', async ({ page }) => {
  await made(page, 'An arm short');
  await page.getByLabel('Speed').selectOption('max');
  await blockMenu(page, 'wheels.stop', 'Run to here');
  await expect(where(page)).toContainText('stop the wheels');
  const id = await blockId(page, 'sense.distance');
  await page.locator(`[data-id="${id}"] text`).first().hover();
  await expect(page.getByTestId('value-tip')).toHaveText(/^2[5-9](\.\d)?$/);
});

test('just some blocks are tried, from another place', async ({ page }) => {
  await made(page, 'Left at the fern');
  await page.getByLabel('Speed').selectOption('max');
  await blockMenu(page, 'turn.angle', 'Try just this …');
  const dialog = page.getByRole('dialog').filter({ hasText: 'Try just this' });
  await dialog.getByLabel('x').fill('80');
  await dialog.getByLabel('facing').fill('180');
  await dialog.getByRole('button', { name: 'Rehearse just this' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 30_000 });
  const r = await robot(page);
  expect(r.x).toBeCloseTo(0.8, 1);
  expect(Math.abs(r.facing - 90)).toBeLessThan(3);
  // the program itself is as it was
  expect((await project(page)).program.stacks[0].steps).toHaveLength(4);
});

test('a text project stops by line, steps, shows and changes its names', async ({ page }) => {
  await made(page, 'Five drips');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Make it a text project' }).click();
  await expect(page.getByTestId('text')).toContainText('def main');
  await page.getByLabel('Speed').selectOption('max');
  await page.getByRole('button', { name: 'Step', exact: true }).click();
  await expect(where(page)).toContainText('line', { timeout: 30_000 });
  const before = await where(page).innerText();
  await inside(page).getByRole('button', { name: 'Over' }).click();
  await expect(where(page)).not.toHaveText(before);
  await inside(page).getByLabel('Where to stop').selectOption('when a value changes');
  await inside(page).getByLabel('Which value').selectOption('drip');
  await inside(page).getByRole('button', { name: 'Put the stop' }).click();
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(where(page)).toContainText('Stopped when drip changes');
  await expect(page.getByTestId('inside-variables')).toContainText('drip');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('lanes are chosen, laid over one another and remembered; cursors measure; a table, times, a search', async ({
  page
}) => {
  await made(page, 'Past the seedlings');
  await rehearse(page);
  await menu(page, 'Choose the lanes');
  await page.getByRole('checkbox', { name: /^Line sensors/ }).check();
  await page.getByRole('checkbox', { name: /^Lamp left/ }).uncheck();
  await page.getByLabel('Heading lies over').selectOption('over Distance ahead');
  await expect(page.locator('[data-lane="line"]')).toHaveCount(1);
  await expect(page.locator('[data-lane="lamp left"]')).toHaveCount(0);
  await expect(page.locator('[data-lane="distance"]')).toContainText('Distance ahead + Heading');
  await page.reload();
  await workbench(page);
  await rehearse(page);
  await expect(page.locator('[data-lane="line"]')).toHaveCount(1);
  await expect(page.locator('[data-lane="heading"]')).toHaveCount(0);

  await menu(page, 'Measure between two cursors');
  const canvas = (await page.getByTestId('trace').boundingBox())!;
  await page.mouse.move(canvas.x + 60, canvas.y + 50);
  await page.mouse.down();
  await page.mouse.move(canvas.x + 260, canvas.y + 50, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByTestId('measured')).toHaveText(/A \d+\.\d{3} s · B \d+\.\d{3} s · Δ \d+\.\d{3} s/);
  await expect(page.getByTestId('measures').locator('[data-key=speedLeft] td')).toHaveCount(9);
  await page.getByRole('button', { name: 'Zoom to it' }).click();
  await page.getByRole('region', { name: 'Between two cursors' }).getByRole('button', { name: 'Table' }).click();
  await expect.poll(() => page.getByTestId('trace-table').locator('tbody tr').count()).toBeGreaterThan(20);
  await menu(page, 'Times of the blocks');
  await expect(page.getByTestId('times')).toContainText('drive');
  await menu(page, 'Search log and events');
  await page.getByRole('textbox', { name: 'Search log and events' }).fill('drive');
  await expect(page.getByTestId('hits').getByRole('button').first()).toContainText('drive ahead');
  await page.getByTestId('hits').getByRole('button').last().click();
  await expect(page.getByRole('button', { name: 'to the end' })).toBeVisible();
});

test('runs are kept: named, pinned, opened to the same picture, laid beside; they part where they part', async ({
  page
}) => {
  await made(page, 'Past the seedlings');
  await rehearse(page);
  const end = await robot(page);
  // another run: the turn ends in brake
  const id = await blockId(page, 'drive.measure');
  await page.locator(`[data-id="${id}"] > .blocklyPath`).click({ position: { x: 12, y: 12 } });
  await page.keyboard.press('Delete');
  await rehearse(page);
  expect((await robot(page)).x).not.toBeCloseTo(end.x, 1);
  await menu(page, 'Runs of this project');
  const rows = page.getByTestId('kept').getByRole('row');
  await expect(rows).toHaveCount(2);
  await rows.nth(1).getByLabel('Name of the run').fill('with the drive');
  await rows.nth(1).getByLabel('Name of the run').press('Enter');
  await rows.nth(1).getByRole('button', { name: 'Pin' }).click();
  await expect(rows.nth(1).getByRole('button', { name: 'Unpin' })).toBeVisible();
  await page.reload();
  await workbench(page);
  await menu(page, 'Runs of this project');
  await rows.nth(1).getByRole('button', { name: 'Open' }).click();
  await expect(page.getByTestId('earlier-run')).toHaveText('with the drive');
  await expect.poll(async () => (await robot(page)).x).toBeCloseTo(end.x, 4);
  await rows.nth(0).getByRole('button', { name: 'Beside' }).click();
  await page.getByRole('button', { name: 'Where they part' }).click();
  await expect(page.getByTestId('differences').getByRole('listitem').first()).toContainText(
    'Only this run did: drive ahead 30 cm'
  );
  await page.getByLabel('How the two runs lie over one another').selectOption('by the first movement');
  await expect(page.getByTestId('differences').getByRole('listitem').first()).toBeVisible();
});

test('a run goes out as a file and a picture, and comes in again; a broken one is told', async ({ page }) => {
  await made(page, 'Two warnings');
  await rehearse(page);
  const saved = async (item: string): Promise<string> => {
    const download = page.waitForEvent('download');
    await menu(page, item);
    return readFileSync(await (await download).path(), 'utf8');
  };
  const file = await saved('Save as a run file');
  expect(file.split('\n')[0]).toContain('"format":"mossbell.run"');
  const svg = await saved('Picture as SVG');
  expect(svg).toContain('Wheel power');
  expect(svg).toMatch(/<path|<rect/);
  const png = page.waitForEvent('download');
  await menu(page, 'Picture as PNG');
  expect(
    readFileSync(await (await png).path())
      .subarray(1, 4)
      .toString()
  ).toBe('PNG');

  const open = async (name: string, content: string): Promise<void> =>
    page.getByLabel('Run file').setInputFiles({ name, mimeType: 'application/jsonl', buffer: Buffer.from(content) });
  await open('good.mossbell-run.jsonl', file);
  await expect(page.getByTestId('earlier-run')).toBeVisible();
  await expect(page.getByRole('button', { name: '1 finding' })).toBeVisible();
  const lines = file.trim().split('\n');
  await open('cut.mossbell-run.jsonl', lines.slice(0, lines.length - 8).join('\n'));
  await expect(page.getByRole('alert')).toContainText('cut.mossbell-run.jsonl was cut short');
  await expect(page.getByRole('alert')).toContainText('channels are there');
  await open('newer.mossbell-run.jsonl', file.replace(/"version":\d+/, '"version":9'));
  await expect(page.getByRole('alert')).toContainText('newer Moss Bell');
  await open('nothing.mossbell-run.jsonl', 'hello');
  await expect(page.getByRole('alert')).toContainText('is not a run');
  // the screen is whole
  await rehearse(page);
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');

  // a run of another program opens with its own names
  await made(page, 'Back to the mark');
  await rehearse(page);
  await open('other.mossbell-run.jsonl', file);
  await expect(page.getByRole('alert')).toContainText('It is a run of another program');
  await page.getByRole('button', { name: '1 finding' }).click();
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('put up picture');
});

test('a class guesses where it will stop, and one run decides', async ({ page }) => {
  await made(page, 'Left at the fern');
  await page.getByRole('button', { name: 'Predict' }).click();
  const panel = page.getByRole('region', { name: 'Predict' });
  const guess = page.getByTestId('guess');
  await guess.focus();
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowUp');
  await panel.getByLabel('Nickname').fill('Wren');
  await panel.getByRole('button', { name: 'That is my guess' }).click();
  await guess.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowUp');
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowLeft');
  for (let i = 0; i < 18; i++) await page.keyboard.press('[');
  await panel.getByLabel('Nickname').fill('Newt');
  await panel.getByLabel(/Or in words/).fill('two wheel turns');
  await panel.getByRole('button', { name: 'That is my guess' }).click();
  await expect(page.getByTestId('predictions').getByRole('listitem')).toHaveCount(2);
  await rehearse(page);
  const rows = page.getByTestId('outcomes').locator('tbody tr');
  await expect(rows.first()).toContainText('Newt');
  const off = Number(/([\d.]+) cm, /.exec(await rows.first().locator('td').last().innerText())![1]);
  expect(off).toBeLessThan(2);
  await expect(rows.nth(1)).toContainText('Wren');
});

test('the reckoner takes from the trace and writes into the block; a dial card is printed', async ({ page }) => {
  await made(page, 'An arm short');
  await rehearse(page);
  await page.getByRole('button', { name: 'Reckoner' }).click();
  const reckoner = page.getByRole('region', { name: 'Reckoner' });
  await reckoner.getByLabel('What is reckoned').selectOption('Threshold between two readings');
  await reckoner.getByRole('spinbutton', { name: 'Over dark' }).fill('10');
  await reckoner.getByRole('spinbutton', { name: 'Over light' }).fill('90');
  await expect(page.getByTestId('reckoned')).toHaveText('50.0');
  await reckoner.getByLabel('Take Over dark from').selectOption({ index: 1 });
  await expect(reckoner.getByRole('spinbutton', { name: 'Over dark' })).not.toHaveValue('10');
  await reckoner.getByLabel('What is reckoned').selectOption('Speed and power');
  await reckoner.getByRole('spinbutton', { name: 'Speed' }).fill('10');
  const id = await blockId(page, 'wheels.run');
  await page.locator(`[data-id="${id}"] > .blocklyPath`).click({ position: { x: 12, y: 12 } });
  await reckoner.getByRole('button', { name: 'Put into the block: Run both wheels' }).last().click();
  expect((await project(page)).program.stacks[0].steps[1].slots.left).toBe(25);
  await reckoner.getByLabel('What is reckoned').selectOption('Servo: angle, pulse, share');
  const card = page.waitForEvent('popup');
  await reckoner.getByRole('link', { name: /dial card/ }).click();
  await expect((await card).getByTestId('dial').locator('svg')).toHaveAttribute('width', '130mm');
});

test('for a room: one pane fills the screen, a pointer, a story with captions, a worksheet of the run', async ({
  page
}) => {
  await made(page, 'Past the seedlings');
  await rehearse(page);
  await menu(page, 'Fill the screen');
  await page.mouse.move(400, 400);
  await expect(page.getByTestId('pointer')).toBeVisible();
  expect((await page.getByTestId('trace').boundingBox())!.height).toBeGreaterThan(400);
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('pointer')).toHaveCount(0);
  await page.getByLabel('Speed').selectOption('1');
  await menu(page, 'Play the story');
  await expect(page.getByTestId('caption')).toContainText('After the stop it went on', { timeout: 20_000 });
  await page.getByRole('button', { name: 'End the story' }).click();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('link', { name: 'Worksheet to print' }).click();
  await page.getByLabel('Findings').check();
  await page.getByLabel('Graphs').check();
  await page.getByLabel('Path of the run').check();
  await expect(page.getByTestId('sheet-findings')).toContainText('After the stop it went on');
  await expect(page.getByTestId('sheet-graphs').locator('svg')).toBeVisible();
  await expect(page.getByTestId('sheet-path')).toBeVisible();
  await page.getByLabel('left blank').check();
  await expect(page.getByTestId('sheet-findings')).not.toContainText('After the stop it went on');
  await expect(page.getByTestId('sheet-findings')).toContainText('What will you try?');
});

test('a new project has nothing to look into, and says what will be there', async ({ page }) => {
  await newProject(page, 'Empty bed');
  await menu(page, 'Runs of this project');
  await expect(page.getByText('No run is kept yet.')).toBeVisible();
});

test('two runs lie over one another by their first movement or mark, on the screen too', async ({ page }) => {
  const steps = [b('wait.time', { time: 0.2 }), b('log.mark', { words: 'go' }), b('drive.measure')];
  const data = { ...emptyProject('Line up', barrow, longAisle), program: program(start(...steps)) };
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  await page.goto(`/project/${id}`);
  await workbench(page);
  await rehearse(page);
  await typeNumber(page, 'wait.time', 0, 0, '1.4');
  await rehearse(page);
  await page.getByTitle('Which run is drawn beside').selectOption('last');
  const picture = () =>
    page.getByTestId('trace').evaluate((c) => (c.querySelector('canvas') ?? (c as HTMLCanvasElement)).toDataURL());
  const how = page.getByLabel('How the two runs lie over one another');
  await how.selectOption('from the start');
  const fromTheStart = await picture();
  for (const by of ['by the first movement', 'by the first mark']) {
    await how.selectOption(by);
    await expect.poll(picture, by).not.toBe(fromTheStart);
    await how.selectOption('from the start');
    await expect.poll(picture, 'from the start again').toBe(fromTheStart);
  }
});
