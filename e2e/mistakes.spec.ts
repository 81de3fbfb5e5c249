/**
 * Each mistake that costs a lesson: a demo project with it, and where it shows. `before`: the look-over says it as the
 * project opens, and its mend makes the run right. `during`: the trace shows it. `after`: a finding explains it.
 */
import { expect, test, type Page } from '@playwright/test';
import { openDemo, project, rehearse, robot } from './room.ts';

const remarks = async (page: Page, count = 1): Promise<void> => {
  await page.getByRole('button', { name: `${count} to check` }).click();
  await expect(page.getByRole('region', { name: 'Look-over' })).toBeVisible();
};
const says = (page: Page, text: string | RegExp) =>
  expect(page.getByRole('region', { name: 'Look-over' }).getByText(text).first()).toBeVisible();
const mend = (page: Page, label: string | RegExp) =>
  page.getByRole('region', { name: 'Look-over' }).getByRole('button', { name: label }).first().click();
async function finds(page: Page, text: string | RegExp): Promise<void> {
  const button = page.getByRole('button', { name: /^\d+ findings?$/ });
  if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
  await expect(page.getByRole('region', { name: 'Findings' }).getByText(text).first()).toBeVisible();
}
const clean = (page: Page) => expect(page.getByRole('button', { name: 'Look-over', exact: true })).toBeVisible();

test('1 the program drives a socket that is empty: the part that is really there is named, both mends work', async ({
  page
}) => {
  await openDemo(page, 'The silent striker');
  await remarks(page, 2);
  await says(page, /uses an angle servo in J6, and nothing is plugged in there/);
  await says(page, /Your striker sits in J4/);
  await rehearse(page);
  await finds(page, /The program stopped here: Nothing is plugged in there/);
  await mend(page, 'Move the striker to J6');
  await clean(page);
  await rehearse(page);
  await finds(page, 'Nothing to find');
});

test('2 no pause between two pictures: said before, and with its milliseconds after', async ({ page }) => {
  await openDemo(page, 'Two warnings');
  await remarks(page);
  await says(page, /shown for 0.1 ms, and nobody sees it/);
  await rehearse(page);
  await finds(page, 'This picture was shown for 0.1 ms, then it was replaced: nobody can see it.');
  await mend(page, 'Add: wait 0.5 s between them');
  await clean(page);
  await rehearse(page);
  await finds(page, 'Nothing to find');
});

test('3 a motor that nothing stops: said before; after, which block started it and what it ran into', async ({
  page
}) => {
  await openDemo(page, 'To the bench');
  await remarks(page);
  await says(page, /nothing stops them: the robot drives on/);
  await rehearse(page);
  await finds(page, /over at 1\.50 s, but a motor ran on: nothing stopped it/);
  // what it ran into only follows from that
  await page.getByText(/things? follows? from it/).click();
  await finds(page, /Touched the edge of the yard with its nose, with \d+(\.\d)? cm\/s/);
});

test('4 a stop that follows a start at once: said before, and with its milliseconds after', async ({ page }) => {
  await openDemo(page, 'The short errand');
  await remarks(page);
  await says(page, /stopped 0.1 ms after it was started/);
  await rehearse(page);
  await finds(page, 'The motor ran for 0.1 ms.');
});

test('5 both wheels get the same sign, and one motor is mounted mirrored: said before, mended in one click', async ({
  page
}) => {
  await openDemo(page, 'Both motors forward');
  await remarks(page);
  await says(page, /the left wheel is mounted mirrored: the robot spins instead of driving/);
  await rehearse(page);
  const spun = await robot(page);
  expect(Math.hypot(spun.x - 0.3, spun.y - 0.3)).toBeLessThan(0.05);
  await mend(page, 'Use Run both wheels');
  await clean(page);
  await rehearse(page);
  const drove = await robot(page);
  expect(drove.x - 0.3).toBeGreaterThan(0.15);
});

test('6 left and right swapped on the device: its own run says so, beside the rehearsal', async ({ page }) => {
  await openDemo(page, 'Left at the fern');
  await page.getByTestId('chip').click();
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 7');
  await page.getByTestId('device-panel').getByRole('button', { name: 'Plug in', exact: true }).click();
  await page.getByRole('button', { name: 'Send the program' }).click();
  await expect(page.getByTestId('device-message')).toContainText('is on Barrow 7', { timeout: 30_000 });
  await page.getByRole('region', { name: 'Device' }).getByRole('button', { name: 'Press Dot' }).click();
  await expect(page.getByTestId('device-run')).toContainText('Barrow 7');
  await expect(page.getByRole('button', { name: /finding/ })).toBeEnabled({ timeout: 40_000 });
  await page.getByRole('region', { name: 'Device' }).getByRole('button', { name: 'Close' }).click();
  await finds(page, /turn left: asked 90 °, and it turned \d+(\.\d)? ° the other way: left and right are swapped/);
});

test('7 power kept on through a stop: the overshoot in centimetres and degrees, at the block, with the lanes that show it', async ({
  page
}) => {
  await openDemo(page, 'Past the seedlings');
  await rehearse(page);
  await finds(page, /After the stop it went on by \d+(\.\d)? cm/);
  await finds(
    page,
    /asked 90 °, swung to 9\d(\.\d)? ° and came to rest at 9\d(\.\d)? °: it was still turning when the next move began/
  );
  await expect(page.getByTestId('finding-place').first()).toBeVisible();
  await page.getByRole('button', { name: 'Why?' }).first().click();
  await expect(page.locator('[data-lane=heading]')).toBeVisible();
  await expect(page.locator('[data-lane=distance]')).toHaveCount(0);
  await page.getByRole('button', { name: 'All lanes' }).click();
  await expect(page.locator('[data-lane=distance]')).toBeVisible();
});

test('8 a direction used as an amount: said before with the heading, and "turn by" makes the square', async ({
  page
}) => {
  await openDemo(page, 'Four sides');
  await remarks(page);
  await says(page, /"Face 90°" is a direction, not an amount/);
  await mend(page, 'Turn by 90° instead');
  await clean(page);
  const from = await robot(page);
  await rehearse(page);
  const back = await robot(page);
  expect(Math.hypot(back.x - from.x, back.y - from.y)).toBeLessThan(0.04);
});

test('9 an "=" on a value that is never still: said before; after, what never ran', async ({ page }) => {
  await openDemo(page, 'The patient gate');
  await remarks(page);
  await says(page, /never quite still: it steps over this number/);
  await rehearse(page);
  await finds(page, /never ran, and what is below it neither/);
  await mend(page, /Ask whether it lies from 10 to 14/);
  await clean(page);
  await rehearse(page);
  expect((await robot(page)).x).toBeGreaterThan(0.5);
  await expect(page.getByRole('button', { name: '0 findings' })).toBeVisible();
});

test('10 a stick from -100 to 100 on a sweep from 0 to 100: half of the way does nothing, and map is offered', async ({
  page
}) => {
  await openDemo(page, 'Half a vent');
  await remarks(page);
  await says(page, /lies from -100 to 100, and the block takes 0 to 100 %: 50 % of the way does nothing/);
  await mend(page, 'Map -100 … 100 to 0 … 100');
  await clean(page);
  expect(JSON.stringify((await project(page)).program)).toContain('calc.map');
});

test('11 a routine that nobody does, a variable that nobody looks at', async ({ page }) => {
  await openDemo(page, 'The forgotten song');
  await remarks(page, 2);
  await says(page, /The routine song is defined, but nothing does it/);
  await says(page, /errands is given values, and nothing looks at them/);
});

test('12 a long wait in a sensing loop: blind so far, before the run and after it', async ({ page }) => {
  await openDemo(page, 'Blind on the path');
  await remarks(page);
  await says(page, /blind for 1200 ms here: at 26 % it goes about 12 cm without looking/);
  await rehearse(page);
  await finds(page, /looked 0\.8 times a second: between two looks it was blind for up to 1\d\d\d ms/);
  await mend(page, 'Wait 20 ms');
  await clean(page);
});

test('13 x and y of a pixel swapped: said before, put right in one click, lit where it was meant', async ({ page }) => {
  await openDemo(page, 'The corner lamp');
  await remarks(page, 2);
  await says(page, /y = 6 is beyond the display: y counts from 0 to 4/);
  await mend(page, 'Swap x and y');
  await mend(page, 'Swap x and y');
  await clean(page);
  await rehearse(page);
  await expect(page.getByRole('button', { name: '0 findings' })).toBeVisible();
});

test('14 counting from 1 where the device counts from 0: said before; after, the place that is not there', async ({
  page
}) => {
  await openDemo(page, 'Five drips');
  await page.getByRole('button', { name: /to check/ }).click();
  await says(page, /its places are 0 to how many there are, less 1/);
  await rehearse(page);
  await finds(page, /There is no such place. Places count from 0/);
  await mend(page, 'Count from 0 to one less');
  await rehearse(page);
  await expect(page.getByRole('button', { name: '0 findings' })).toBeVisible();
});

test('15 blocks near a stack but not joined: they look it, and the look-over joins or parks them', async ({ page }) => {
  // the letters that blocks are measured by come late: the sheet is laid when all else is there
  await page.route('**/*.woff2', async (route) => {
    await new Promise((done) => setTimeout(done, 2500));
    await route.continue();
  });
  await openDemo(page, 'The lost half');
  await expect(page.locator('.mb-loose')).toHaveCount(1);
  await remarks(page);
  await says(page, 'These blocks hang on no starter: they never run.');
});

test('16 an LED with no resistor: the current on the kit sheet, said before, burnt after, and the right resistor', async ({
  page
}) => {
  await openDemo(page, 'Bright as a bean');
  await remarks(page);
  await says(page, /With 0 Ω before it the LED gets 5\d mA; it and the pin take 20 mA/);
  await rehearse(page);
  await finds(page, /The LED got 5\d(\.\d)? mA and burnt/);
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await expect(page.getByTestId('told')).toHaveText(/5\d\.\d mA/);
  await page.getByLabel('Resistor before the LED').fill('150');
  await page.getByLabel('Resistor before the LED').press('Enter');
  await expect(page.getByTestId('told')).toHaveText(/^[78]\.\d mA/);
  await page.goBack();
  await clean(page);
  await rehearse(page);
  await expect(page.getByRole('button', { name: '0 findings' })).toBeVisible();
});

test('17 a cable that only charges: the link says so, and the program on the device is still there', async ({
  page
}) => {
  await openDemo(page, 'Back to the mark');
  await page.getByTestId('chip').click();
  await page.getByRole('button', { name: 'Faults for a lesson' }).click();
  await page.getByLabel('What hangs on it').selectOption('charge');
  await expect(page.getByTestId('faults-on')).toContainText('a charging cable: power and no data');
  await page.getByRole('button', { name: 'Plug in', exact: true }).last().click();
  await page.getByRole('button', { name: 'Send the program' }).click();
  await expect(page.getByTestId('device-message')).toContainText('A cable that only charges carries no program', {
    timeout: 30_000
  });
});

test('a remark that is meant so is set aside for this project, and comes back when asked', async ({ page }) => {
  await openDemo(page, 'To the bench');
  await remarks(page);
  await page.getByRole('button', { name: 'It is meant so' }).click();
  await clean(page);
  expect((await project(page)).setAside).toHaveLength(1);
  await page.reload();
  await clean(page);
  await page.getByRole('button', { name: 'Look-over', exact: true }).click();
  await page.getByRole('button', { name: 'Make them again' }).click();
  await expect(page.getByRole('button', { name: '1 to check' })).toBeVisible();
});
