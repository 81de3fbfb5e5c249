/** The whole language in the real editor: names, pictures, refactoring, clipboard, flow, text, handbook, worksheet. */
import { expect, test, type Page } from '@playwright/test';
import { newProject as makeProject, type Project } from '../core/project.ts';
import { barrow } from '../core/kit/kit.ts';
import { printPython } from '../core/language/python/print.ts';
import { b, log, program, start, sum, variable, wait } from '../core/testing/build.ts';
import { longAisle, pottingFloor } from '../core/yard/mats.ts';
import { dragCard, kinds, openDemo, project, rehearse, typeNumber, workbench, shelf } from './room.ts';

async function open(page: Page, p: Partial<Project>): Promise<void> {
  const whole = { ...makeProject('A test', barrow, pottingFloor), ...p };
  const made = await page.request.post('/api/projects', { data: whole });
  expect(made.ok(), await made.text()).toBe(true);
  await page.goto(`/project/${(await made.json()).id}`);
  if (p.text === undefined) await workbench(page);
  else await page.getByTestId('text').waitFor();
}
const more = async (page: Page, item: string) => {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('group', { name: 'More', exact: true }).getByText(item).click();
};
const body = (page: Page, selector: string) =>
  page.locator(`${selector} > .blocklyPath:not(.blocklyPathSelected)`).first();
const menu = async (page: Page, id: string, item: string) => {
  await body(page, `[data-id="${id}"]`).click({ button: 'right', position: { x: 30, y: 15 }, force: true });
  await page.getByRole('menuitem', { name: item, exact: true }).click();
};
const at = (steps: ReturnType<typeof start>) => ({ ...program(steps), stacks: [{ id: 's0', x: 20, y: 20, steps }] });

test('repeated blocks chosen with a frame become a loop, and the program still does the same', async ({ page }) => {
  const side = () => [b('drive.measure', { amount: 20 }), b('turn.angle', { side: 'right', angle: 90 })];
  await open(page, { program: at(start(...side(), ...side(), ...side())) });
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await page.keyboard.down('Shift');
  await page.mouse.move(pane.x + 5, pane.y + 58);
  await page.mouse.down();
  await page.mouse.move(pane.x + 300, pane.y + 260, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await expect(page.locator('.mb-chosen')).toHaveCount(6);
  await expect(page.getByTestId('spoken')).toHaveText('6 blocks chosen');
  const { program: before } = await project(page);
  await menu(page, before.stacks[0].steps[2].id, 'Put these into a loop');
  await expect.poll(async () => kinds(await project(page))).toEqual([['begin.start', 'repeat.times']]);
  const [, loop] = (await project(page)).program.stacks[0].steps;
  expect([loop.slots.count, loop.bodies!.do.map((s) => s.kind)]).toEqual([3, ['drive.measure', 'turn.angle']]);
  await more(page, 'Compare');
  await page.getByRole('button', { name: 'Rehearse both' }).click();
  await expect(page.getByText(/^Yes, for all of \d+\.\d\d s: path, rest/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => kinds(await project(page))[0].length).toBe(7);
});

test('blocks with another number become a routine with an input', async ({ page }) => {
  const steps = start(b('turn.angle', { angle: 90 }), b('sound.beep'), b('turn.angle', { angle: 45 }), b('sound.beep'));
  await open(page, { program: at(steps) });
  await menu(page, steps[1].id, 'Make a routine of these');
  await page.getByLabel('routine', { exact: true }).fill('corner');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect.poll(async () => (await project(page)).program.routines.length).toBe(1);
  const { program: p } = await project(page);
  expect(p.routines[0].inputs!.map((i) => i.name)).toEqual(['angle']);
  expect(p.stacks[0].steps.filter((s) => s.kind === 'routine.do').map((s) => Object.values(s.slots)[1])).toEqual([
    90, 45
  ]);
  await expect(page.locator('.routine\\.do').first()).toContainText('corner');
});

test('names are changed everywhere; one that is in use is taken out only when it is asked twice', async ({ page }) => {
  const steps = start(b('var.set', { variable: 'v1', value: 3 }), log(variable('v1')));
  await open(page, { program: at(steps) });
  await page.getByRole('tab', { name: 'Remember' }).click();
  await expect(page.locator('[data-name="count"]')).toContainText('used 2 times');
  await page.getByRole('button', { name: 'Names: count' }).click();
  const panel = page.getByRole('dialog', { name: 'Names of the program' });
  await panel.getByLabel('Name', { exact: true }).first().fill('pots');
  await panel.getByLabel('Name', { exact: true }).first().press('Tab');
  await expect(page.locator('.var\\.set')).toContainText('pots');
  await panel.getByRole('button', { name: 'Take it out' }).first().click();
  await expect(panel.getByRole('alert')).toContainText('2 blocks use it');
  await panel.getByRole('button', { name: 'Take it out all the same' }).click();
  await expect(page.locator('.var\\.set')).toContainText('gone');
  expect((await project(page)).program.variables.map((v) => v.name)).toEqual(['Länge', 'things']);
});

test('blocks are copied into another project, as blocks and as Python', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const steps = start(b('var.set', { variable: 'v1', value: 3 }), log(variable('v1')));
  await open(page, { program: at(steps) });
  await body(page, `[data-id="${steps[1].id}"]`).click({ position: { x: 30, y: 6 }, force: true });
  await page.keyboard.press('Control+c');
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('count = 3');
  await open(page, { program: at(start(wait(1))) });
  await body(page, '.wait\\.time').click({ position: { x: 30, y: 6 }, force: true });
  await page.keyboard.press('Control+v');
  // it joins below the chosen block, and is the chosen one then
  await expect.poll(async () => kinds(await project(page))).toEqual([['begin.start', 'wait.time', 'var.set']]);
  await expect(page.locator('.var\\.set')).toHaveClass(/blocklySelected|blocklyActiveFocus/);
  // what goes leaves the keyboard at its neighbour
  await page.keyboard.press('Delete');
  await expect(page.locator('.wait\\.time')).toHaveClass(/blocklySelected|blocklyActiveFocus/);
  await page.keyboard.press('Delete');
  await expect(page.locator('.begin\\.start')).toHaveClass(/blocklySelected|blocklyActiveFocus/);
  // lines of Python become blocks, and what blocks cannot say is refused with the reason
  await page.evaluate(() => navigator.clipboard.writeText('for _ in range(2):\n    beep()'));
  await page.keyboard.press('Control+v');
  await expect.poll(async () => kinds(await project(page)).flat()).toContain('repeat.times');
  await page.evaluate(() => navigator.clipboard.writeText('dance()'));
  await page.keyboard.press('Control+v');
  await expect(page.getByRole('alert').filter({ hasText: 'cannot become blocks' })).toContainText(
    'Line 1: No block says "dance()".'
  );
});

test('a wrong drop is refused with a word; one block is pulled out with Alt', async ({ page }) => {
  const steps = start(b('wait.until'), b('sound.beep'), wait(1));
  await open(page, { program: at(steps) });
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  const slot = (await page.locator('.wait\\.until > .blocklyPath').first().boundingBox())!;
  await dragCard(page, 'Work out', 'Arithmetic', slot.x - pane.x + 96, slot.y - pane.y + 18);
  await expect(page.getByRole('alert').first()).toContainText(
    'That slot takes a condition. This block gives a number.'
  );
  const beep = (await page.locator('.sound\\.beep > .blocklyPath').first().boundingBox())!;
  await page.keyboard.down('Alt');
  await page.mouse.move(beep.x + 34, beep.y + 16);
  await page.mouse.down();
  await page.mouse.move(beep.x + 240, beep.y + 120, { steps: 8 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await expect
    .poll(async () => kinds(await project(page)))
    .toEqual([['begin.start', 'wait.until', 'wait.time'], ['sound.beep']]);
});

test('the ghost of a move follows the number while it is dragged, and arithmetic becomes a number or blocks', async ({
  page
}) => {
  const drive = b('drive.measure', { amount: 20 });
  await open(page, { program: at(start(drive)) });
  await body(page, '.drive\\.measure').click({ position: { x: 30, y: 6 }, force: true });
  const ghost = page.getByTestId('ghost');
  const y = async () => Number(await ghost.getAttribute('data-y'));
  expect(await y()).toBeCloseTo(0.6, 3);
  await page.locator('.drive\\.measure .blocklyShadow text').first().click();
  const slider = page.getByRole('slider', { name: /Slider from/ });
  await slider.fill('50');
  await expect.poll(y).toBeCloseTo(0.9, 3);
  await page.locator('.blocklyHtmlInput').press('ArrowUp');
  await expect.poll(y).toBeCloseTo(0.91, 3);
  await page.locator('.blocklyHtmlInput').press('Escape');
  await typeNumber(page, 'drive.measure', 0, 0, '3*21.4');
  await expect.poll(async () => (await project(page)).program.stacks[0].steps[1].slots.amount).toBe(64.2);
  await page.locator('.drive\\.measure .blocklyShadow text').first().click();
  await page.locator('.blocklyHtmlInput').fill('2*(3+4)');
  await expect(page.locator('.mb-sum').first()).toContainText('Enter: 14');
  await page.locator('.blocklyHtmlInput').press('Shift+Enter');
  await expect
    .poll(async () => JSON.stringify((await project(page)).program.stacks[0].steps[1].slots.amount))
    .toContain('calc.sum');
});

test('the painter has tools, levels and names; pointing at a pixel lights it on the face', async ({ page }) => {
  await open(page, { program: at(start(b('picture.show'))) });
  await page.locator('.lit\\.picture rect').first().click();
  await page.getByRole('button', { name: 'Clear: all dark' }).click();
  await page.getByLabel('Brightness of the brush').fill('50');
  await page.getByRole('button', { name: 'x 6, y 0' }).click();
  await expect(page.getByTestId('matrix').locator('rect[stroke="#ffffff"]')).toHaveCount(1);
  await page.getByRole('button', { name: 'Mirror sideways' }).click();
  await page.getByRole('button', { name: 'Shift down' }).click();
  await page.getByLabel('Name of this picture').fill('dew');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('button', { name: 'Take: dew' })).toBeVisible();
  await page.keyboard.press('Escape');
  // Escape closes it and leads back to the block; so does a click beside it
  await expect(page.getByLabel('Name of this picture')).toBeHidden();
  await expect(page.locator('.picture\\.show *:focus, .picture\\.show:focus').first()).toBeAttached();
  await page.locator('.lit\\.picture rect').first().click();
  await expect(page.getByLabel('Name of this picture')).toBeVisible();
  await page.getByTestId('blocks').click({ position: { x: 300, y: 300 } });
  await expect(page.getByLabel('Name of this picture')).toBeHidden();
  const now = await project(page);
  const picture = '....... +...... ....... ....... .......';
  expect(now.program.stacks[0].steps[1].slots.picture).toEqual({ picture });
  expect(now.pictures).toEqual({ dew: picture });
});

test('the place of a pixel is chosen on a small grid, which lights the face, and the face tells the grid', async ({
  page
}) => {
  const kit = { ...barrow, display: { ...barrow.display!, turnedDeg: 90 as const } };
  const p = at(start(b('pixel.set', { x: 2, y: 0 }), b('pixel.set', { x: variable('v1'), y: 3 })));
  await open(page, { program: p, kit });
  const [, one, two] = p.stacks[0].steps.map((s) => s.id);
  const number = (id: string, nth: number) => page.locator(`[data-id="${id}"] .blocklyShadow text`).nth(nth);
  const grid = page.locator('.mb-pixels');
  const face = page.getByTestId('matrix');
  await number(one, 0).click();
  await expect(grid.locator('[aria-pressed="true"]')).toHaveAttribute('aria-label', 'x 2, y 0');
  await expect(grid.locator('.unseen')).toHaveCount(10);
  // what is typed is followed; what is pointed at is lit, on the lamp that shows it as the display is mounted
  await page.locator('.blocklyHtmlInput').fill('3');
  await expect(grid.locator('[aria-pressed="true"]')).toHaveAttribute('aria-label', 'x 3, y 0');
  await grid.getByLabel('x 4, y 1').hover();
  await expect(grid.locator('output')).toHaveText('x 4, y 1');
  await expect(face.locator('rect[stroke="#ffffff"]')).toHaveCount(1);
  await grid.getByLabel('x 0, y 1').hover();
  await expect(grid.locator('output')).toHaveText('x 0, y 1: not seen, the display is mounted turned by 90°');
  await expect(face.locator('rect[stroke="#ffffff"]')).toHaveCount(0);
  // the lamp in the middle is the middle of every display; the one right of it is the program's one above
  await face
    .locator('rect')
    .nth(1 + 7 * 2 + 4)
    .hover();
  await expect(grid.locator('.faced')).toHaveAttribute('aria-label', 'x 3, y 1');
  await expect(grid.locator('output')).toHaveText('x 3, y 1');
  // one click is one gesture for both numbers
  await grid.getByLabel('x 4, y 1').click();
  await expect(grid).toHaveCount(0);
  const slots = async (id: string) =>
    (await project(page)).program.stacks[0].steps.find((s) => s.id === id)!.slots as Record<string, unknown>;
  expect(await slots(one)).toMatchObject({ x: 4, y: 1 });
  await page.keyboard.press('Control+z');
  expect(await slots(one)).toMatchObject({ x: 2, y: 0 });
  // where a block says x, the click says y alone
  await number(two, 0).click();
  await grid.getByLabel('x 5, y 2').click();
  expect(await slots(two)).toMatchObject({ x: { kind: 'var.value' }, y: 2 });
  // and the painter shows how it will be seen
  await open(page, { program: at(start(b('picture.show'))), kit });
  await page.locator('.lit\\.picture rect').first().click();
  await expect(page.locator('.mb-painter .mounted')).toContainText('as it is mounted');
  await expect(page.locator('.mb-painter .unseen')).toHaveCount(10);
});

test('the flow follows the edit, lights what runs and leads to the block', async ({ page }) => {
  await openDemo(page, 'Along the path by table');
  await page.getByRole('button', { name: 'Flow' }).click();
  const chart = page.getByTestId('flow');
  await expect(chart.locator('[data-kind="table"]')).toHaveCount(1);
  await expect(chart).toContainText('16 s over?');
  // all of it is seen at first; it is larger, smaller and as at first by buttons and keys, and can be drawn along
  const pane = page.getByTestId('flows');
  const seen = async () => (await chart.boundingBox())!;
  const room = (await pane.boundingBox())!;
  const first = await seen();
  expect(first.width).toBeLessThanOrEqual(room.width);
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Larger' }).click();
  expect((await seen()).width).toBeGreaterThan(first.width * 1.4);
  await pane.focus();
  await page.keyboard.press('-');
  await page.mouse.move(room.x + 30, room.y + 30);
  await page.mouse.down();
  await page.mouse.move(room.x + 30, room.y - 60, { steps: 4 });
  await page.mouse.up();
  expect(await pane.evaluate((e) => e.scrollTop)).toBeGreaterThan(20);
  await page.keyboard.press('0');
  expect((await seen()).width).toBeCloseTo(first.width, 0);
  await page.getByTestId('rehearse').click();
  await expect(chart.locator('.lit').first()).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await chart.getByRole('button', { name: 'stop the wheels with brake' }).click();
  await expect(page.locator('.wheels\\.stop').first()).toHaveClass(/blocklySelected|blocklyActiveFocus/);
});

test('a text project runs on MicroPython, stops at a line, shows values, and becomes blocks when it can', async ({
  page
}) => {
  const text = printPython(
    at(start(b('repeat.count', { variable: 'v1', from: 1, to: 3 }, { do: [log(variable('v1')), wait(0.2)] }))),
    barrow
  ).text;
  await open(page, { text, mat: longAisle });
  const stop = async () => {
    const line = (await page.locator('.cm-line', { hasText: 'log(count)' }).boundingBox())!;
    const gutter = (await page.locator('.mb-stops').boundingBox())!;
    await page.mouse.click(gutter.x + 8, line.y + line.height / 2);
  };
  await stop();
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('values')).toContainText('count = 1');
  await expect(page.locator('.mb-line-running')).toContainText('log(count)');
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(page.getByTestId('values')).toContainText('count = 2');
  await page.getByRole('button', { name: 'Step', exact: true }).click();
  await expect(page.locator('.mb-line-running')).toContainText('wait(0.2)');
  await stop();
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled();
  // a mistake: line, column, a sentence
  const content = page.locator('.cm-content');
  await content.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('log("open');
  await page.getByTestId('rehearse').click();
  await expect(page.getByRole('alert').first()).toContainText(/Line \d+, column \d+: A quote mark is open/);
  // a line that no block says
  await page.keyboard.press('Control+z');
  await content.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(`from mossbell import *\ndef main():\ndance()\n`);
  await page.getByRole('button', { name: 'To blocks' }).click();
  await expect(page.getByRole('region', { name: 'What blocks cannot say' })).toContainText('Line');
  await content.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
  await expect.poll(async () => (await project(page)).text).toBe(text);
  await page.getByRole('button', { name: 'To blocks' }).click();
  await page.getByTestId('blocks').and(page.locator('[data-ready]')).waitFor();
  await expect.poll(async () => kinds(await project(page))).toEqual([['begin.start', 'repeat.count']]);
});

test('a program in two phases waits for the word to set off; what is read aloud has its caption', async ({ page }) => {
  const q = program(
    [b('begin.before'), b('servo.angle', { angle: 20 }), b('sound.say', { words: 'ready' })],
    [b('begin.off'), b('drive.measure', { amount: 10 })]
  );
  await open(page, { program: q });
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('caption')).toHaveText('ready');
  await page.getByTestId('setoff').click();
  await expect(page.getByTestId('setoff')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 20_000 });
});

test('keys of the computer reach the program while the yard has the focus, and nowhere else', async ({ page }) => {
  // each press puts the left lamp to the other of the two
  const q = program([b('begin.key', { key: 'W' }), b('lamp.set', { lamp: 'left', to: 'flip' })]);
  await open(page, { program: q });
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');
  const lit = page.getByText('left amber');
  await page.getByPlaceholder('Find a block').fill('w');
  await page.keyboard.press('w');
  await expect(page.getByPlaceholder('Find a block')).toHaveValue('ww');
  await page.getByPlaceholder('Find a block').fill('');
  await page.getByTestId('yard').focus();
  await expect(lit).toHaveCount(0);
  await page.keyboard.press('w');
  await expect(lit).toBeVisible();
  await page.keyboard.press('w');
  await expect(lit).toHaveCount(0);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('the handbook is searched, and an example opens and runs', async ({ page }) => {
  await page.goto('/handbook');
  await page.getByLabel('Find in the handbook').fill('brake coast');
  await page.getByRole('link', { name: 'Brake and coast' }).first().click();
  await expect(page.getByRole('heading', { name: 'Brake and coast' })).toBeVisible();
  await page.getByLabel('Find in the handbook').fill('drive facing');
  await page.getByRole('link', { name: 'Drive facing' }).click();
  await page.getByRole('button', { name: 'Open this example' }).click();
  await workbench(page);
  await rehearse(page);
  expect(kinds(await project(page))[0]).toContain('drive.facing');
  // a block's own help stands beside the program
  const id = (await project(page)).program.stacks[0].steps[1].id;
  await menu(page, id, 'What does it do?');
  await expect(page.getByRole('dialog', { name: 'Drive facing' }).getByTestId('block-page')).toContainText(
    'steers by the gyro'
  );
});

test('a picture of the program is saved, and a worksheet prints program, idea, kit and mat', async ({ page }) => {
  await openDemo(page, 'The square bed');
  const [svg] = await Promise.all([page.waitForEvent('download'), more(page, 'Picture as SVG')]);
  expect(svg.suggestedFilename()).toMatch(/\.svg$/);
  const [png] = await Promise.all([page.waitForEvent('download'), more(page, 'Picture as PNG')]);
  expect(png.suggestedFilename()).toMatch(/\.png$/);
  await more(page, 'Worksheet to print');
  const sheet = page.getByTestId('worksheet');
  await expect(sheet.getByTestId('program-picture').locator('svg')).toContainText('repeat');
  await expect(sheet).toContainText('turn the corner');
  await expect(sheet).toContainText('striker');
  await page.getByLabel('Flow').check();
  await expect(sheet.getByTestId('flow')).toBeVisible();
});

test('find leads to blocks, and a new project can be text', async ({ page }) => {
  await openDemo(page, 'Round the fern bed');
  await more(page, 'Find in the program');
  await page.getByLabel('Find', { exact: true }).fill('turn');
  await expect(page.getByRole('dialog', { name: 'Find in the program' })).toContainText(/\d block/);
  await shelf(page);
  await page.getByRole('button', { name: 'Barrow two-wheeled robot' }).click();
  await page.getByLabel('What shall it be called?').fill('In words');
  await page.getByRole('radio', { name: 'Text (Python)' }).check();
  await page.getByRole('button', { name: 'Start the project' }).click();
  await expect(page.getByTestId('text')).toContainText('def main():');
});

test('a note that is edited beside the blocks is the block’s note; nothing else of the text can be typed over', async ({
  page
}) => {
  const steps = start({ ...b('sound.beep'), note: 'wake the class' }, wait(1));
  await open(page, { program: at(steps) });
  await page.getByRole('button', { name: 'Blocks + text' }).click();
  const line = page.locator('.cm-line', { hasText: '# wake the class' });
  await line.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' gently');
  await expect.poll(async () => (await project(page)).program.stacks[0].steps[1].note).toBe('wake the class gently');
  await page.locator('.cm-line', { hasText: 'beep()' }).click();
  await page.keyboard.type('x');
  await page.keyboard.press('Backspace');
  await expect(page.locator('.cm-line', { hasText: 'beep()' })).toHaveText('    beep()');
  // and the other way round
  await menu(page, steps[1].id, 'Change the note');
  await page.getByRole('dialog').getByRole('textbox').fill('ring twice');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.locator('.cm-line', { hasText: '# ring twice' })).toBeVisible();
});

test('a loop dropped round blocks takes them in; a value dropped on a filled slot leaves the old one beside', async ({
  page
}) => {
  const steps = start(b('sound.beep'), wait(1), log(sum(1, '+', 2)));
  await open(page, { program: at(steps) });
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  const beep = (await page.locator('.sound\\.beep > .blocklyPath').first().boundingBox())!;
  // its mouth is let go at the first block, a row below its top
  await dragCard(page, 'Repeat', 'Repeat', beep.x - pane.x - 8, beep.y - pane.y - 19);
  await expect.poll(async () => kinds(await project(page))).toEqual([['begin.start', 'repeat.times']]);
  const loop = (await project(page)).program.stacks[0].steps[1];
  expect(loop.bodies!.do.map((s) => s.kind)).toEqual(['sound.beep', 'wait.time', 'log.line']);
  const filled = (await page.locator('.log\\.line .calc\\.sum > .blocklyPath').first().boundingBox())!;
  await dragCard(page, 'Sense', 'Timer', filled.x - pane.x + 14, filled.y - pane.y + 14);
  await expect.poll(async () => (await project(page)).program.loose.map((l) => l.value.kind)).toEqual(['calc.sum']);
  const inside = (await project(page)).program.stacks[0].steps[1].bodies!.do[2];
  expect(inside.slots.value).toMatchObject({ kind: 'sense.timer' });
});

test('a text is completed from the library, explains its words under the pointer, and underlines a mistake', async ({
  page
}) => {
  await open(page, { text: 'from mossbell import *\n\n\ndef main():\n    beep()\n\n\nrun(main)\n' });
  await page.locator('.cm-line', { hasText: 'beep()' }).click();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('wheels.tu');
  const offered = page.locator('.cm-tooltip-autocomplete li', { hasText: 'wheels.turn' }).first();
  await expect(offered).toContainText('Turn on the spot');
  await offered.click();
  await expect(page.locator('.cm-line', { hasText: 'wheels.turn(' })).toBeVisible();
  await page.locator('.cm-line', { hasText: 'beep()' }).getByText('beep').first().hover();
  await expect(page.locator('.mb-help')).toContainText('A short high tone.');
  await page.keyboard.press('Control+End');
  await page.keyboard.type('log("open');
  await expect(page.locator('.cm-lintRange-error').first()).toBeVisible();
});

test('tones are heard with their volume and pitch, and equal notes apart from one another', async ({ page }) => {
  await openDemo(page, 'Round the fern bed');
  // the audio graph of the page, rendered: two equal notes at full volume, one an octave up at a quarter of it
  const heard = (await page.evaluate(`(async () => {
    const RATE = 8000;
    const audio = new OfflineAudioContext(1, RATE * 2, RATE);
    window.mossbellSound(audio, { hertz: 440, level: 100 }, 0.1)(0.5);
    window.mossbellSound(audio, { hertz: 440, level: 100 }, 0.52)(0.9);
    window.mossbellSound(audio, { hertz: 880, level: 25 }, 1.1)(1.5);
    const out = (await audio.startRendering()).getChannelData(0);
    const part = (from, to) => out.slice(from * RATE, to * RATE);
    const loud = (p) => Math.sqrt(p.reduce((s, v) => s + v * v, 0) / p.length);
    const pitch = (p) => p.reduce((n, v, i) => n + (i && p[i - 1] < 0 && v >= 0 ? 1 : 0), 0) / (p.length / RATE);
    const quietest = Math.min(...Array.from({ length: 40 }, (_, i) => loud(part(0.49 + i * 0.001, 0.495 + i * 0.001))));
    return { first: loud(part(0.2, 0.4)), second: loud(part(0.6, 0.8)), soft: loud(part(1.2, 1.4)), after: loud(part(1.6, 1.9)),
      pitches: [pitch(part(0.2, 0.4)), pitch(part(1.2, 1.4))], quietest };
  })()`)) as Record<'first' | 'second' | 'soft' | 'after' | 'quietest', number> & { pitches: number[] };
  expect(heard.first).toBeGreaterThan(0.05);
  expect(heard.second).toBeCloseTo(heard.first, 2);
  expect(heard.soft / heard.first).toBeCloseTo(0.25, 1);
  expect(heard.after).toBe(0);
  // between equal notes it falls to a fifth at least
  expect(heard.quietest).toBeLessThan(heard.first / 5);
  expect(Math.abs(heard.pitches[0] - 440)).toBeLessThan(9);
  expect(Math.abs(heard.pitches[1] - 880)).toBeLessThan(9);
});
