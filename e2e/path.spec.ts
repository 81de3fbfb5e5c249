import { expect, test } from '@playwright/test';
import {
  dragCard,
  kinds,
  newProject,
  startProject,
  openDemo,
  project,
  rehearse,
  robot,
  typeNumber,
  workbench
} from './room.ts';

test('from a dragged block to a device that drives on its own', async ({ page }) => {
  test.setTimeout(180_000);
  await startProject(page, 'Pots to the hoop');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await dragCard(page, 'Move', 'Turn on the spot', 62, 118);
  await dragCard(page, 'Move', 'Drive', 62, 152);
  await typeNumber(page, 'drive.measure', 0, 0, '80');
  await typeNumber(page, 'turn.angle', 0, 0, '180');
  await typeNumber(page, 'drive.measure', 1, 0, '80');
  const saved = await project(page);
  expect(kinds(saved)).toEqual([['begin.start', 'drive.measure', 'turn.angle', 'drive.measure']]);
  expect(saved.program.stacks[0].steps.map((s) => s.slots.amount ?? s.slots.angle)).toEqual([undefined, 80, 180, 80]);

  // rehearse: it comes home, within what the encoders can tell
  await rehearse(page);
  const home = await robot(page);
  expect(Math.abs(home.x - 0.3)).toBeLessThan(0.005);
  expect(Math.abs(home.facing - 270)).toBeLessThan(1);

  // read how far off it stopped: what each move was asked for, and what came of it
  await page.getByRole('button', { name: /finding/ }).click();
  const row = page.getByRole('row', { name: /drive ahead/ }).first();
  await expect(row).toContainText('80.00 cm');
  expect(Math.abs(Number(/(-?[\d.]+) cm$/.exec((await row.textContent())!.trim())![1]))).toBeLessThan(0.1);
  await page.getByRole('button', { name: /finding/ }).click();

  // scrub: the robot, the clock and the lit block show that moment
  const canvas = (await page.getByTestId('trace').boundingBox())!;
  await page.mouse.click(canvas.x + canvas.width * 0.18, canvas.y + 60);
  const there = await robot(page);
  expect(there.x).toBeGreaterThan(0.4);
  expect(there.x).toBeLessThan(1.12);
  await expect(page.locator('.mb-running')).not.toHaveCount(0);
  // a click on a span chooses its block
  await page.mouse.click(canvas.x + canvas.width * 0.18, canvas.y + 12);
  await expect(page.locator('.blocklySelected')).not.toHaveCount(0);

  // send to Barrow 5, which lacks the board library
  await page.getByTestId('chip').click();
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 5');
  await page.getByRole('button', { name: 'Plug in', exact: true }).last().click();
  await expect(page.getByTestId('state')).toHaveText('library missing');
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('button', { name: 'Install the library' }).click();
  await expect(page.getByTestId('device-message')).toContainText('is on Barrow 5 as program 1', { timeout: 60_000 });
  await expect(page.getByTestId('state')).toHaveText('plugged in');

  // unplug, press Dot: it drives on its battery, with its own quirks
  await page.getByRole('button', { name: 'Unplug' }).click();
  await page.getByLabel('Its radio').selectOption('is out of reach');
  await expect(page.getByTestId('whose')).toHaveText('Barrow 5');
  await expect(page.getByTestId('device-run')).toHaveCount(0);
  const before = await robot(page);
  await page.getByRole('button', { name: 'Dot', exact: true }).click();
  await page.getByTestId('chip').click();
  await expect(page.getByTestId('state')).toHaveText('unplugged, running');
  // out of reach: nothing to send to, and the trace says why nothing comes
  await expect(page.getByTestId('out-of-reach')).toContainText('is out of reach');
  await expect(page.getByRole('button', { name: 'Send', exact: true })).toHaveCount(0);
  await expect.poll(async () => (await robot(page)).x, { timeout: 15_000 }).toBeGreaterThan(before.x + 0.3);
  await expect(page.getByTestId('waiting')).toContainText('It ran once on its own.', { timeout: 60_000 });

  // plug in: what it did lies beside the rehearsal
  await page.getByRole('button', { name: 'Plug in', exact: true }).last().click();
  await expect(page.getByTestId('device-run')).toContainText('Barrow 5');
  const device = await robot(page);
  expect(device).not.toEqual(home);
  expect(Math.hypot(device.x - home.x, device.y - home.y)).toBeLessThan(0.15);
  await page.getByRole('button', { name: 'This run' }).click();
  expect(await robot(page)).toEqual(home);
});

test('unplugged in the middle of sending, the old program is still there and runs', async ({ page }) => {
  test.setTimeout(120_000);
  await newProject(page, 'Twice sent');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await page.getByRole('button', { name: 'Plug in' }).click();
  await expect(page.getByTestId('state')).toHaveText('plugged in');
  await page.getByRole('button', { name: 'Send the program' }).click();
  await expect(page.getByTestId('device-message')).toContainText('as program 1', { timeout: 30_000 });

  await page.getByRole('button', { name: 'Close' }).click();
  await dragCard(page, 'Move', 'Turn on the spot', 62, 118);
  await expect(page.getByTestId('saving')).toHaveText('saved');
  await page.getByTestId('chip').click();
  await page.evaluate(() => {
    // pulls the cable the moment that the first part of the text has gone over
    const pull = () => {
      const state = document.querySelector('[data-testid=state]')?.textContent ?? '';
      if (/sending \d/.test(state))
        [...document.querySelectorAll('button')].find((b) => b.textContent?.trim() === 'Unplug')?.click();
      else requestAnimationFrame(pull);
    };
    pull();
  });
  await page.getByRole('button', { name: 'Send the program' }).click();
  await expect(page.getByTestId('device-message')).toContainText('still there, whole');
  await page.getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('device-run')).toContainText('Barrow 3', { timeout: 30_000 });
  await expect(page.getByTestId('state')).toHaveText('unplugged, on battery', { timeout: 30_000 });
  // the old program drives straight; the new one would have turned
  expect(Math.abs((await robot(page)).facing - 90)).toBeLessThan(5);
});

test('programs on the device: listed, chosen for Dot, opened as a project, taken off and back', async ({ page }) => {
  test.setTimeout(180_000);
  const held = page.getByTestId('held');
  const rows = held.getByRole('listitem');
  const send = async (): Promise<void> => {
    await page.getByRole('button', { name: 'Send', exact: true }).click();
    await expect(page.getByTestId('device-message')).toContainText(/as program \d/, { timeout: 60_000 });
  };
  await openDemo(page, 'An arm short');
  await page.getByTestId('chip').click();
  await page.getByRole('button', { name: 'Plug in', exact: true }).last().click();
  await expect(held).toContainText('None yet');
  await send();
  await expect(rows).toHaveCount(1);
  // the very same does not lie there twice; of another version both may
  await send();
  await expect(rows).toHaveCount(1);
  await typeNumber(page, 'wheels.run', 0, 0, '35');
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('alertdialog', { name: 'Another version' }).getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByTestId('device-message')).toContainText('as program 2', { timeout: 60_000 });
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toContainText('An arm short');
  await expect(rows.first()).toContainText('started by Dot');
  await rows.nth(1).getByRole('button', { name: 'Start this one with Dot' }).click();
  await expect(rows.nth(1)).toContainText('started by Dot');
  await expect(rows.first()).not.toContainText('started by Dot');
  // taken off, and taken back before the words are gone
  await rows
    .first()
    .getByRole('button', { name: /off the device/ })
    .click();
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(rows).toHaveCount(2);
  // and for good
  await rows
    .first()
    .getByRole('button', { name: /off the device/ })
    .click();
  await page.getByTestId('toasts').getByRole('button', { name: 'Close' }).click();
  await expect(rows).toHaveCount(1);
  // what is read back is the program, in blocks
  const before = kinds(await project(page));
  const from = page.url();
  await rows.first().getByRole('button', { name: 'Open as a project' }).click();
  await expect(page).not.toHaveURL(from);
  await workbench(page);
  expect(kinds(await project(page))).toEqual(before);
});
