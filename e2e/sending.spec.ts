import { expect, test, type Page } from '@playwright/test';
import { barrow } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { b, program, start } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { rehearse, workbench } from './room.ts';

const panel = (page: Page) => page.getByTestId('device-panel');
const message = (page: Page) => page.getByTestId('device-message');
const state = (page: Page) => page.getByTestId('state');
/** A project that drives so far, opened with its device's panel. */
async function opened(page: Page, name: string, cm: number): Promise<void> {
  const steps = start(b('drive.measure', { amount: cm, power: 60 }), b('log.line', { value: name }));
  const data = { ...newProject(name, barrow, longAisle), program: program(steps) };
  const made = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  await page.goto(`/project/${made.id}`);
  await workbench(page);
  await page.getByTestId('chip').click();
}
const plugIn = (page: Page) => panel(page).getByRole('button', { name: 'Plug in', exact: true }).click();
async function send(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(message(page)).toContainText(/as program \d/, { timeout: 60_000 });
}

test('out of its box: factory demo, MicroPython, three programs, chosen with its own buttons, two runs away from the cable', async ({
  page
}) => {
  test.setTimeout(300_000);
  await opened(page, 'Ten', 10);
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 9');
  await plugIn(page);
  await expect(state(page)).toHaveText('no MicroPython', { timeout: 20_000 });
  await expect(message(page)).toContainText('has its factory demo and no MicroPython');
  // it lives
  await page.getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('device-run')).toContainText('Barrow 9');
  await expect(state(page)).toHaveText('no MicroPython', { timeout: 20_000 });
  // cut in the middle, it has nothing to start and is a drive; then the whole of it
  await page.getByRole('button', { name: 'Install MicroPython' }).first().click();
  const drive = page.getByTestId('drive');
  await expect(drive).toContainText(/Taking "micropython.img", \d\d %/);
  await drive.getByRole('button', { name: 'Eject' }).click();
  await plugIn(page);
  await expect(state(page)).toHaveText('a drive');
  await page.getByRole('button', { name: 'Install MicroPython' }).first().click();
  await expect(message(page)).toContainText('MicroPython 1.27 is installed.', { timeout: 30_000 });
  await expect(state(page)).toHaveText('library missing');

  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('button', { name: 'Install the library' }).click();
  await expect(message(page)).toContainText('as program 1', { timeout: 60_000 });
  const rows = page.getByTestId('held').getByRole('listitem');
  for (const [name, cm] of [
    ['Twenty', 20],
    ['Thirty', 30]
  ] as const) {
    await opened(page, name, cm);
    await page.getByLabel('Stand-in in the yard').selectOption('Barrow 9');
    await plugIn(page);
    await expect(rows.first()).toContainText('started by Dot', { timeout: 20_000 });
    await send(page);
  }
  await expect(rows).toHaveCount(3);
  // the display shows its number: from the third, which Dot starts, round to the first and on to the second
  const bar = page.getByRole('button', { name: 'Press Bar' });
  for (const number of [3, 1, 2]) {
    await bar.click();
    await expect(page.getByTestId('offers')).toContainText(`Its display shows ${number}`);
  }
  await page.getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('offers')).toHaveCount(0);

  await page.getByRole('button', { name: 'Unplug' }).click();
  await page.getByLabel('Its radio').selectOption('far');
  for (const n of ['once', '2 times']) {
    await page.getByRole('button', { name: 'Press Dot' }).click();
    await expect(page.getByTestId('waiting')).toContainText(`It ran ${n} on its own.`, { timeout: 30_000 });
  }
  await expect(page.getByTestId('device-run')).toHaveCount(0);
  await plugIn(page);
  await expect(page.getByTestId('device-run')).toContainText('Barrow 9', { timeout: 20_000 });
  await expect(message(page)).toContainText('It ran 2 times on its own.');
  await panel(page).getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Runs of this project' }).click();
  await expect(page.getByTestId('kept').getByRole('row')).toHaveCount(2);
  // the second program, and what came of it beside the rehearsal of the third
  await rehearse(page);
  await page.getByTestId('device-run').click();
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Log of the device' }).click();
  await expect(page.getByTestId('console')).toContainText('Twenty');
  await page.getByRole('button', { name: 'This run' }).click();
  await expect(page.getByTestId('console')).toContainText('Thirty');
  // and a line for a device that waits
  const line = page.getByLabel('A line of Python for the device');
  for (const [typed, said] of [
    ['6 * 7', '42'],
    ['1 / 0', 'ZeroDivisionError']
  ]) {
    await line.fill(typed);
    await line.press('Enter');
    await expect(page.getByTestId('typed')).toContainText(said);
  }
});

test('with Dot held it is a drive: a saved file is taken, others are refused, the old program stays', async ({
  page
}) => {
  test.setTimeout(120_000);
  await opened(page, 'For the drive', 15);
  await panel(page).getByRole('button', { name: 'More' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save for the device' }).click();
  const saved = await download;
  expect(saved.suggestedFilename()).toBe('for-the-drive.device.py');
  const path = await saved.path();
  await page.getByRole('button', { name: 'As a drive, Dot held' }).click();
  const drive = page.getByTestId('drive');
  const file = drive.getByLabel('Drop a file for the device here');
  for (const [name, bytes, says] of [
    ['cat.png', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1]), '"cat.png" is a picture.'],
    ['film.mp4', Buffer.alloc(40_000_000), '"film.mp4" has 40.0 MB'],
    ['notes.txt', Buffer.from('milk'), '"notes.txt" is not a program for a device.']
  ] as const) {
    await file.setInputFiles({ name, mimeType: 'application/octet-stream', buffer: bytes });
    await expect(drive.getByRole('status')).toContainText(says);
  }
  await expect(drive.getByRole('listitem')).toHaveCount(1);
  await file.setInputFiles(path);
  await expect(message(page)).toContainText('"For the drive" is on the device as program 1', { timeout: 20_000 });
  await expect(drive).toHaveCount(0);
  await expect(page.getByTestId('held')).toContainText('For the drive');
  await expect(state(page)).toHaveText('plugged in');
});

test('the cable is pulled ten times, the page is loaded anew, and another window asks for the device', async ({
  page,
  context
}) => {
  test.setTimeout(240_000);
  await opened(page, 'Pulled', 15);
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 7');
  await plugIn(page);
  await send(page);
  const rows = page.getByTestId('held').getByRole('listitem');
  for (let n = 0; n < 10; n++) {
    // anywhere in the conversation, which takes a good half second
    await page.evaluate(`(() => {
      const press = (name) =>
        [...document.querySelectorAll('[data-testid=device-panel] button')].find((b) => b.textContent.trim() === name).click();
      press('Send the program');
      setTimeout(press, ${30 + n * 60}, 'Unplug');
    })()`);
    await expect(panel(page).getByRole('button', { name: 'Plug in', exact: true })).toBeVisible();
    await plugIn(page);
    await expect(rows.first()).toContainText('Pulled', { timeout: 20_000 });
    await expect(panel(page).getByText('started by Dot')).toHaveCount(1);
    await expect(panel(page).getByText('cut short')).toHaveCount(0);
  }
  // the page goes away in the middle
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(state(page)).toHaveText(/sending/);
  await page.reload();
  await workbench(page);
  await page.getByTestId('chip').click();
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 7');
  await plugIn(page);
  await expect(panel(page).getByText('started by Dot')).toHaveCount(1, { timeout: 20_000 });
  // what hangs on this window is not spoken to from another
  const other = await context.newPage();
  await opened(other, 'Elsewhere', 5);
  await other.getByLabel('Stand-in in the yard').selectOption('Barrow 7');
  await plugIn(other);
  await expect(message(other)).toContainText('Barrow 7 hangs on another window of this browser');
  await expect(state(other)).toHaveText('not plugged in');
  await page.close();
  await plugIn(other);
  await expect(state(other)).toHaveText('plugged in', { timeout: 20_000 });
  await send(other);
});

test('a class set: each is sent to by itself, and shows which it is', async ({ page }) => {
  test.setTimeout(120_000);
  await opened(page, 'For all', 15);
  await panel(page).getByRole('button', { name: 'More' }).click();
  await page.getByRole('button', { name: 'The devices of the class' }).click();
  const set = page.getByTestId('class-set');
  const row = (name: string) => set.getByRole('row', { name: new RegExp(`^${name}\\b`) });
  for (const name of ['Barrow 3', 'Barrow 5', 'Barrow 9', 'Saucer 4'])
    await page.getByRole('button', { name: `Plug ${name} in` }).click();
  await expect(row('Barrow 9')).toContainText('no MicroPython', { timeout: 20_000 });
  await expect(row('Saucer 4')).toContainText('another device', { timeout: 20_000 });
  await expect(row('Barrow 5')).toContainText('library missing', { timeout: 20_000 });
  await page.getByRole('button', { name: /^Send to 3 devices/ }).click();
  for (const name of ['Barrow 3', 'Barrow 5'])
    await expect(row(name)).toContainText('this very version', { timeout: 60_000 });
  await expect(row('Barrow 9')).toContainText('factory demo and no MicroPython', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Which is Barrow 5?' }).click();
  await expect(row('Barrow 5').locator('.animate-pulse')).toHaveCount(1);
});
