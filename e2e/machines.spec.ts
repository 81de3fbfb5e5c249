/** Machines that are no Barrow, in the real page: Saucer slides and feels its rim, Hauler has four wheels and a bed. */
import { expect, test, type Page } from '@playwright/test';
import { barrow, saucer } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { b, log, program, start, wait } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { dragCard, events, openDemo, project, robot, shelf, workbench } from './room.ts';

/** Titles of the cards in a section of the tray. */
async function cards(page: Page, section: string): Promise<string> {
  await page.getByRole('tab', { name: section, exact: true }).click();
  return (await page.locator('[data-card]').allInnerTexts()).join('\n');
}

test('a project for Saucer: it slides, its rim is pressed where one likes, its lamps go round, and it is sent', async ({
  page
}) => {
  test.setTimeout(120_000);
  await shelf(page);
  await page.getByRole('button', { name: 'Saucer round robot that slides' }).click();
  await page.getByLabel('What shall it be called?').fill('Round and round');
  await expect(page.getByRole('radio', { name: 'Potting floor' })).toBeChecked();
  await page.getByRole('button', { name: 'Start the project' }).click();
  await workbench(page);
  // what three wheels with rollers can do, and nothing of left and right
  expect(await cards(page, 'Move')).toMatch(/Slide\n[^]*Slide on/);
  expect(await cards(page, 'Move')).not.toContain('Run both wheels');
  expect(await cards(page, 'Sense')).toMatch(/Where the rim is touched/);
  expect(await cards(page, 'Sense')).not.toMatch(/Nose is touched|Wheel turns/);
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Light up', 'Lamp', 66, 76);
  const [first, lamp] = (await project(page)).program.stacks[0].steps;
  expect([first.kind, lamp.kind, lamp.slots.lamp]).toEqual(['begin.start', 'lamp.set', 'one']);
  await page.locator('.lamp\\.set').getByText('one').click();
  await expect(page.locator('.blocklyDropDownDiv').getByRole('option')).toHaveText([
    'one',
    'two',
    'three',
    'four',
    'five',
    'six'
  ]);
  await page.keyboard.press('Escape');

  await page.getByRole('link', { name: 'Kit sheet' }).click();
  const drawing = page.getByTestId('kit-drawing');
  await expect(drawing).toHaveAccessibleName('Saucer from above, measured');
  await expect(drawing.locator('[data-socket]')).toHaveCount(6);
  // no two rows of wheels: no track to change
  await expect(page.getByRole('spinbutton', { name: 'track width' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Measure it' }).click();
  await expect(page.getByTestId('found')).toContainText('back wheel', { timeout: 60_000 });
  await expect(page.getByTestId('found')).toContainText('ring of the wheels');
});

test('Saucer: where a person presses on its rim is where the program is told it was', async ({ page }) => {
  const steps = start(b('wait.touch', { what: 'rim' }), log(b('sense.rimplace')), wait(60));
  const data = { ...newProject('Where is it?', saucer, longAisle), program: program(steps) };
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  await page.goto(`/project/${id}`);
  await workbench(page);
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');
  const rim = page.getByRole('button', { name: /^Rim, pressed at/ });
  // at the left of the ring: 270 degrees clockwise from the notch
  await rim.hover({ position: { x: 5, y: 20 } });
  await page.mouse.down();
  await expect(rim).toHaveAccessibleName(/at (26[5-9]|27[0-5])°/);
  await page.mouse.up();
  // by key: arrows turn it, Space presses
  await rim.focus();
  await page.keyboard.press('ArrowRight');
  await expect(rim).toHaveAccessibleName(/at 28\d°|at 290°/);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  expect(await events(page)).toMatch(/\b(26[5-9]|27[0-5])\b/);
});

test('Saucer 4 runs the square on its own, with its own small faults, as blocks say', async ({ page }) => {
  test.setTimeout(120_000);
  await openDemo(page, 'The same square, on and on');
  await page.getByTestId('chip').click();
  await expect(page.getByLabel('Stand-in in the yard').locator('> option')).toHaveText(['Saucer 4']);
  await page.getByRole('button', { name: 'Plug in' }).last().click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(page.getByTestId('device-message')).toContainText('is on Saucer 4 as program', { timeout: 60_000 });
  await page.getByRole('region', { name: 'Device' }).getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('state')).toHaveText(/running/);
});

test('Hauler: its builder’s names are in blocks and text, it waits for the word, and its bed is tipped', async ({
  page
}) => {
  test.setTimeout(120_000);
  await openDemo(page, 'From the heap to bed A');
  await page.getByRole('button', { name: 'Blocks + text', exact: true }).click();
  await expect(page.locator('.cm-content')).toContainText(
    'Wheels(left=("J1", "J2"), right=("J3", "J4"), diameter_mm=80, track_mm=272)'
  );
  await expect(page.locator('.cm-content')).toContainText('bed = Servo("J5")');
  await page.getByRole('button', { name: 'Blocks', exact: true }).click();
  expect(await cards(page, 'Move')).toContain('Run both wheels');
  expect(await cards(page, 'Move')).not.toContain('Slide');
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  const drawing = page.getByTestId('kit-drawing');
  for (const name of ['willow', 'alder', 'hazel', 'rowan', 'bed', 'lookout']) await expect(drawing).toContainText(name);
  await page.getByRole('link', { name: 'Back to the workbench' }).click();
  await workbench(page);
  // it waits for the word, then drives all of its way
  await page.getByTestId('rehearse').click();
  const before = await robot(page);
  await page.getByTestId('setoff').click();
  await expect(page.getByTestId('setoff')).toHaveCount(0);
  await expect.poll(async () => (await robot(page)).x, { timeout: 30_000 }).toBeGreaterThan(before.x + 0.2);
});

test('a kit with another display: blocks, painter, pictures, text and face are those of the display', async ({
  page
}) => {
  test.setTimeout(120_000);
  const steps = start(b('picture.show'), wait(60));
  const data = { ...newProject('Another display', barrow, longAisle), program: program(steps) };
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  await page.goto(`/project/${id}`);
  await workbench(page);
  expect(await cards(page, 'Light up')).not.toContain('Pixel in colour');
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await page.getByLabel('display', { exact: true }).selectOption('a colour screen');
  await page.getByRole('spinbutton', { name: 'Columns of the display' }).fill('8');
  await page.keyboard.press('Tab');
  await page.getByRole('spinbutton', { name: 'Rows of the display' }).fill('6');
  await page.keyboard.press('Tab');
  await expect
    .poll(async () => (await project(page)).kit.display)
    .toMatchObject({ type: 'screen', columns: 8, rows: 6, turnedDeg: 0 });
  await page.getByRole('link', { name: 'Back to the workbench' }).click();
  await workbench(page);
  expect(await cards(page, 'Light up')).toMatch(/Pixel in colour[^]*Lamp/);
  const face = page.getByTestId('matrix').locator('rect');
  await expect(face).toHaveCount(1 + 48);
  // the picture that was painted before is opened in the size of the screen
  await page.locator('.lit\\.picture rect').first().click();
  await expect(page.locator('.mb-painter .grid button')).toHaveCount(48);
  await page.getByRole('button', { name: 'Clear: all dark' }).click();
  await page.getByRole('button', { name: 'Brush: red' }).click();
  await page.getByRole('button', { name: 'x 7, y 5' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Blocks + text', exact: true }).click();
  await expect(page.locator('.cm-content')).toContainText(
    'display.show(Picture("........ ........ ........ ........ ........ .......r"))'
  );
  await page.getByTestId('rehearse').click();
  await expect(face.last()).toHaveAttribute('fill', /#ff8571 100%/);
  await expect(face.nth(1)).toHaveAttribute('fill', '#43564a');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  // without any, nothing is offered that needs one, and the look-over says so of what is there
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await page.getByLabel('display', { exact: true }).selectOption('none');
  await page.getByRole('link', { name: 'Back to the workbench' }).click();
  await workbench(page);
  await expect(page.getByTestId('matrix')).toHaveCount(0);
  expect(await cards(page, 'Light up')).not.toMatch(/Pixel|Put up picture|Write/);
  await page.getByRole('button', { name: /to check/ }).click();
  await expect(page.getByText(/display/i).first()).toBeVisible();
});

test('Saucer: the lamps that the program lights are lit, each of the six', async ({ page }) => {
  const lamps = ['one', 'four'].map((lamp) => b('lamp.colour', { lamp, colour: 'green' }));
  const data = { ...newProject('Two of six', saucer, longAisle), program: program(start(...lamps, wait(60))) };
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  await page.goto(`/project/${id}`);
  await workbench(page);
  await page.getByTestId('rehearse').click();
  const lit = (name: string) => page.locator(`[title="${name}"] i`);
  await expect(lit('one')).toHaveAttribute('style', /143, 209, 111|#8fd16f/);
  await expect(lit('four')).toHaveAttribute('style', /143, 209, 111|#8fd16f/);
  await expect(lit('two')).toHaveAttribute('style', /transparent/);
});
