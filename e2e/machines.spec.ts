/** Machines that are no Barrow, in the real page: Saucer slides and feels its rim, Hauler has four wheels and a bed. */
import { expect, test, type Page } from '@playwright/test';
import { saucer } from '../core/kit/kit.ts';
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
  await expect(page.getByLabel('Stand-in in the yard').locator('option')).toHaveText(['Saucer 4']);
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
