import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import {
  dragCard,
  kinds,
  newProject,
  openDemo,
  project,
  rehearse,
  robot,
  typeNumber,
  workbench,
  shelf
} from './room.ts';

test('files: in by button and by drop, out, and a sentence for every file that is no good', async ({ page }) => {
  await shelf(page);
  const good = 'demo/projects/an-arm-short.mossbell.json';
  const put = async (name: string, buffer: Buffer) =>
    page.getByLabel('Project file').setInputFiles({ name, mimeType: 'application/json', buffer });
  const bad: [string, string | Buffer, RegExp][] = [
    ['notes.txt', 'hello there', /not JSON at line 1/],
    ['other.json', '{"format":"other"}', /its "format" is "other"/],
    ['new.json', '{"format":"mossbell.project","version":9}', /newer Moss Bell/],
    ['nan.json', '{"format":"mossbell.project","version":1,"name":NaN}', /near "NaN"/],
    ['kind.json', readFileSync(good, 'utf8').replace('"wheels.run"', '"rocket.run"'), /of the kind "rocket.run"/],
    ['huge.json', Buffer.alloc(50_000_000, 32), /is 50 MB long/]
  ];
  for (const [name, text, says] of bad) {
    await put(name, Buffer.from(text));
    await expect(page.getByRole('alert')).toHaveText(says);
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  }
  expect(page.url()).toMatch(/\/$/);
  await put('an-arm-short.mossbell.json', readFileSync(good));
  await workbench(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'More of Moss Bell' }).click();
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('an-arm-short.mossbell.json');
  expect(JSON.parse(readFileSync(await file.path(), 'utf8'))).toEqual(JSON.parse(readFileSync(good, 'utf8')));

  await shelf(page);
  const data = await page.evaluateHandle(
    (text) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([text], 'dropped.mossbell.json'));
      return transfer;
    },
    readFileSync(good, 'utf8')
  );
  // dragged over the page: it says that it may be let go; dragged away: no longer
  const place = page.getByText('Drop the project file to open it');
  await page.locator('main').dispatchEvent('dragenter', { dataTransfer: data });
  await expect(place).toBeVisible();
  await page.locator('main').dispatchEvent('dragleave', { dataTransfer: data });
  await expect(place).toHaveCount(0);
  await page.locator('main').dispatchEvent('dragenter', { dataTransfer: data });
  await place.dispatchEvent('drop', { dataTransfer: data });
  await workbench(page);
  expect((await project(page)).name).toBe('An arm short');
});

test('the look-over finds three mistakes, and its mends put them right', async ({ page }) => {
  await openDemo(page, 'Three mistakes');
  await expect(page.locator('.mb-remark')).toHaveCount(4);
  await page.getByRole('button', { name: '3 to check' }).click();
  await page.getByRole('button', { name: 'Move the striker to J6' }).click();
  await page.getByRole('button', { name: 'Add: wait 0.5 s between them' }).click();
  await page.getByRole('button', { name: 'Add: wait 1 s, then stop' }).click();
  await expect(page.getByText('Nothing to remark.')).toBeVisible();
  await rehearse(page);
  expect((await project(page)).kit.parts.find((p) => p.name === 'striker')!.socket).toBe('J6');
  // all of it can be undone, one gesture at a time
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: '3 to check' })).toBeVisible();
});

test('letters in a number slot stay, are marked, and the program does not start', async ({ page }) => {
  await newProject(page, 'Letters');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await typeNumber(page, 'drive.measure', 0, 0, 'lots');
  expect((await project(page)).program.stacks[0].steps[1].slots.amount).toBe('lots');
  await expect(page.locator('.mb-bad')).toHaveCount(1);
  await page.getByTestId('rehearse').click();
  await expect(page.getByRole('alert')).toContainText('"lots" is not a number, so the program cannot start');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled();
});

test('a program is built, changed and run without a mouse', async ({ page }) => {
  await newProject(page, 'Keys alone');
  const add = async (words: string) => {
    await page.keyboard.press('Escape');
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press('/');
    await page.keyboard.type(words);
    await page.keyboard.press('Enter');
  };
  await add('at the start');
  await add('repeat times');
  await add('lamp flip');
  await add('wait a time');
  const p = await project(page);
  expect(kinds(p)).toEqual([['begin.start', 'repeat.times']]);
  expect(p.program.stacks[0].steps[1].bodies!.do.map((s) => s.kind)).toEqual(['lamp.set', 'wait.time']);
  // take one out with a key, and bring it back
  await page.getByRole('button', { name: /to check|Look-over/ }).focus();
  await page.keyboard.press('Tab');
  // by hands that are faster than the page: no time between the keys
  await page.evaluate(() => {
    const key = (key: string, keyCode: number) =>
      document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, keyCode, bubbles: true }));
    for (let i = 0; i < 12 && !document.querySelector('.lamp\\.set > .blocklyActiveFocus'); i++) key('ArrowDown', 40);
    key('Delete', 46);
  });
  await expect
    .poll(async () => (await project(page)).program.stacks[0].steps[1].bodies!.do.map((s) => s.kind))
    .toEqual(['wait.time']);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await project(page)).program.stacks[0].steps[1].bodies!.do.length).toBe(2);
  // Space rehearses when nothing has the focus
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeEnabled();
});

test('a block dragged to the tray is taken out; a note typed as a pitch becomes its number', async ({ page }) => {
  await openDemo(page, 'Back to the mark');
  const beep = (await page.locator('.sound\\.beep > .blocklyPath').boundingBox())!;
  const tray = (await page.locator('.mb-tray-list').boundingBox())!;
  await page.mouse.move(beep.x + 40, beep.y + 6);
  await page.mouse.down();
  await page.mouse.move(beep.x + 80, beep.y + 30, { steps: 4 });
  await page.mouse.move(tray.x + 60, tray.y + 300, { steps: 8 });
  await expect(page.locator('.mb-taking-out')).toHaveCount(1);
  await page.mouse.up();
  expect(kinds(await project(page))[0]).not.toContain('sound.beep');
  await dragCard(page, 'Sound', 'Tone', 200, 330);
  await typeNumber(page, 'sound.tone', 0, 0, 'C4');
  expect(
    (await project(page)).program.stacks.flatMap((s) => s.steps).find((s) => s.kind === 'sound.tone')!.slots.pitch
  ).toBe(261.63);
});

test('switch off, park, note, duplicate and take out, from the menu of a block', async ({ page }) => {
  await openDemo(page, 'Back to the mark');
  const menu = async (kind: string, item: string) => {
    await page
      .locator(`.blocklyDraggable.${kind.replace('.', '\\.')}`)
      .first()
      .locator('> .blocklyPath:not(.blocklyPathSelected)')
      .first()
      .click({ button: 'right', position: { x: 30, y: 3 }, force: true });
    await page.getByRole('menuitem', { name: item, exact: true }).click();
  };
  await menu('sound.beep', 'Switch off');
  expect((await project(page)).program.stacks[0].steps.at(-1)).toMatchObject({ kind: 'sound.beep', off: true });
  await menu('wait.time', 'Add a note');
  await page.getByLabel('note', { exact: true }).fill('let it come to rest');
  await page.getByRole('button', { name: 'Done' }).click();
  expect((await project(page)).program.stacks[0].steps[2].note).toBe('let it come to rest');
  await menu('wait.time', 'Take out');
  expect(kinds(await project(page))[0]).not.toContain('wait.time');
  await menu('turn.angle', 'Duplicate');
  expect((await project(page)).program.stacks.length).toBe(2);
  await menu('begin.start', 'Park this stack');
  await expect.poll(async () => (await project(page)).program.stacks.some((s) => s.parked)).toBe(true);
  await expect(page.locator('.mb-parked')).toHaveCount(1);
});

test('the text beside the blocks: a line lights its block, a block its lines', async ({ page }) => {
  await openDemo(page, 'Round the fern bed');
  await page.getByRole('button', { name: 'Blocks + text' }).click();
  const line = page.locator('.cm-line').filter({ hasText: 'wheels.turn(left=72' });
  await line.hover();
  await expect(page.locator('.turn\\.angle.mb-pointed')).toHaveCount(1);
  await page.locator('.blocklyDraggable.drive\\.measure > .blocklyPath').hover({ position: { x: 30, y: 10 } });
  await expect(page.locator('.mb-line-pointed')).toContainText('wheels.drive(cm=40');
});

test('pause, step block by block, slow motion; the face follows; buttons reach the program', async ({ page }) => {
  await openDemo(page, 'Lantern signals');
  await page.getByTestId('rehearse').click();
  await page.getByRole('button', { name: 'Dot', exact: true }).click();
  await expect(page.getByTestId('matrix').locator('rect[fill*="100%"]')).not.toHaveCount(0);
  await expect(page.getByText('left amber')).toBeVisible();
  await page.getByRole('button', { name: 'Pause' }).click();
  const clock = await page.getByTestId('clock').textContent();
  await page.getByRole('button', { name: 'Step' }).click();
  await expect(page.locator('.mb-running')).toHaveCount(1);
  await page.getByRole('button', { name: '▶ Go on' }).click();
  await expect(page.getByTestId('clock')).not.toHaveText(clock!);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  // hovering a pixel tells its place
  await page
    .getByTestId('matrix')
    .locator('rect')
    .nth(1 + 7 * 2 + 3)
    .hover();
  await expect(page.getByText('x 3, y 2')).toBeVisible();
});

test('the robot is dragged and turned by hand, and goes back to the start of the mat', async ({ page }) => {
  await newProject(page, 'By hand');
  const before = await robot(page);
  const at = (await page.getByTestId('robot').boundingBox())!;
  await page.mouse.move(at.x + at.width * 0.35, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + at.width * 0.35 + 80, at.y + at.height / 2 - 10, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await robot(page)).x).toBeGreaterThan(before.x + 0.1);
  const handle = (await page.getByTestId('turn-handle').boundingBox())!;
  await page.mouse.move(handle.x + handle.width - 4, handle.y + handle.height / 2);
  await page.mouse.down();
  await page.mouse.move(handle.x - 20, handle.y - 60, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Math.abs((await robot(page)).facing - 90)).toBeGreaterThan(20);
  expect((await project(page)).start).toBeDefined();
  await page.getByRole('button', { name: "Robot back to the mat's start" }).click();
  await expect.poll(() => robot(page)).toEqual(before);
});

test('the kit sheet: parts move, blocks follow, measures change, with undo on every page', async ({ page }) => {
  await openDemo(page, 'Wake the bell');
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  const card = (await page.locator('[data-socket=J4]').boundingBox())!;
  const empty = (await page.locator('[data-socket=J6]').boundingBox())!;
  await page.mouse.move(card.x + 90, card.y + 20);
  await page.mouse.down();
  await page.mouse.move(empty.x + 90, empty.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByLabel('Socket of the striker')).toHaveValue('J6');
  await page.getByLabel('Name of the part in J6').fill('hammer');
  await page.getByLabel('Name of the part in J6').press('Enter');
  await page.getByRole('spinbutton', { name: 'wheel diameter' }).fill('56');
  await page.getByRole('spinbutton', { name: 'wheel diameter' }).press('Enter');
  await expect(page.getByText('17.6 cm')).toBeVisible();
  await page.getByRole('spinbutton', { name: 'track width' }).fill('9000');
  await page.getByRole('spinbutton', { name: 'track width' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('9000 was not taken');
  await page.getByRole('link', { name: 'Back to the workbench' }).click();
  await workbench(page);
  await expect(page.locator('.servo\\.angle').first()).toContainText('hammer');
  const p = await project(page);
  expect(p.program.routines[0].steps[0].slots.servo).toBe('J6');
  expect(p.kit.wheels.map((w) => w.diameterMm)).toEqual([56, 56]);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect(page.locator('.servo\\.angle').first()).toContainText('striker');
  expect((await project(page)).program.routines[0].steps[0].slots.servo).toBe('J4');
});

test('the reckoner puts its number into the chosen block', async ({ page }) => {
  await newProject(page, 'Reckoned');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Move', 'Drive', 62, 82);
  await page.getByRole('button', { name: 'Reckoner' }).click();
  await expect(page.getByTestId('reckoned')).toHaveText('3.74');
  await page.getByRole('spinbutton', { name: 'Distance' }).fill('80');
  await expect(page.getByText('21.4 cm')).toBeVisible();
  await page.getByLabel('What is reckoned').selectOption('Turns for an angle');
  await expect(page.getByTestId('reckoned')).toHaveText('0.456');
  await page.getByLabel('What is reckoned').selectOption('Turns for a distance');
  await page.getByRole('button', { name: 'Put into the block: Drive' }).click();
  expect((await project(page)).program.stacks[0].steps[1].slots).toMatchObject({ amount: 3.745, unit: 'wheel turns' });
});

test('the trace stays, the last run becomes a ghost, and CSV comes out', async ({ page }) => {
  await openDemo(page, 'Back to the mark');
  await rehearse(page);
  await rehearse(page);
  await expect(page.getByLabel('beside')).toHaveValue('device');
  await expect(page.getByRole('button', { name: 'Where they part' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const csv = readFileSync(await (await download).path(), 'utf8');
  expect(csv.split('\r\n')[0]).toContain('time_s,x_m,y_m');
  const canvas = page.getByTestId('trace');
  await canvas.focus();
  await page.keyboard.press('Home');
  await expect(page.getByTestId('playhead')).toHaveText('0.000 s');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('playhead')).toHaveText('0.050 s');
});

test('an endless tight loop never freezes the page', async ({ page }) => {
  await newProject(page, 'Endless');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Repeat', 'Repeat for ever', 62, 82);
  await page.getByLabel('Speed').selectOption('max');
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');
  await page.getByRole('tab', { name: 'Sense' }).click();
  await expect(page.getByText('Distance ahead').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 60_000 });
  await expect(page.getByTestId('clock')).toHaveText('02:00.00');
  await page.getByRole('button', { name: '1 finding' }).click();
  await expect(page.getByRole('region', { name: 'Findings' })).toContainText('ended at its limit of 120 s');
});

test('the yard is zoomed and moved, and fits again', async ({ page }) => {
  await openDemo(page, 'An arm short');
  const size = async () => (await page.getByTestId('robot').boundingBox())!;
  const before = await size();
  const yard = (await page.getByTestId('yard').boundingBox())!;
  await page.mouse.move(yard.x + yard.width / 2, yard.y + yard.height / 2);
  await page.mouse.wheel(0, -300);
  await expect.poll(async () => (await size()).width).toBeGreaterThan(before.width * 1.2);
  const zoomed = await size();
  await page.mouse.move(yard.x + yard.width / 2, yard.y + 30);
  await page.mouse.down();
  await page.mouse.move(yard.x + yard.width / 2 + 60, yard.y + 50, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await size()).x).toBeGreaterThan(zoomed.x + 40);
  await page.getByRole('button', { name: 'Show the whole mat' }).click();
  await expect.poll(async () => Math.abs((await size()).width - before.width)).toBeLessThan(1);
});
