/** The yard: three views, the hand, every kind of input, live values, calibrating, other devices. */
import { expect, test, type Page } from '@playwright/test';
import { barrow, trowel, type Kit } from '../core/kit/kit.ts';
import type { Step } from '../core/language/program.ts';
import { newProject } from '../core/project.ts';
import { b, log, program } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { events, openDemo, project, rehearse, robot, shelf, workbench } from './room.ts';

const NEARBY = 'my stacks and devices nearby';
const number = async (page: Page, id: string): Promise<number> => Number(await page.getByTestId(id).innerText());

test('the gravel path is followed with two line sensors; with a long wait the robot is blind and loses it', async ({
  page
}) => {
  await openDemo(page, 'Along the path by table');
  await rehearse(page);
  const good = await robot(page);
  expect(Math.hypot(good.x - 0.8, good.y - 0.6)).toBeLessThan(0.62);
  await openDemo(page, 'Blind on the path');
  await rehearse(page);
  await expect(page.getByTestId('trail')).toHaveAttribute('points', /\d/);
  // off the path: further from the middle line of the oval than its edge and the robot's own width
  const off = await page.getByTestId('trail').evaluate((line) => {
    const points = line
      .getAttribute('points')!
      .split(' ')
      .map((p) => p.split(',').map(Number));
    return Math.max(
      ...points.map(([x, y]) => {
        const [mx, my] = [x / 100, 1.2 - y / 100];
        const cx = Math.max(0.6, Math.min(1.0, mx));
        return Math.abs(Math.hypot(mx - cx, my - 0.6) - 0.3);
      })
    );
  });
  expect(off).toBeGreaterThan(0.1);
});

test('Barrow is driven with four keys, and left and right are found swapped', async ({ page }) => {
  await openDemo(page, 'Four keys');
  await page.getByTestId('rehearse').click();
  await page.getByTestId('yard').focus();
  await page.keyboard.down('W');
  await expect.poll(async () => (await robot(page)).y).toBeGreaterThan(0.46);
  await page.keyboard.up('W');
  const before = await robot(page);
  // A is meant to turn left
  await page.keyboard.down('A');
  await expect.poll(async () => Math.abs((await robot(page)).facing - before.facing)).toBeGreaterThan(5);
  await page.keyboard.up('A');
  const turned = (((await robot(page)).facing - before.facing + 540) % 360) - 180;
  expect(turned).toBeGreaterThan(0); // clockwise: to the right
  // two keys at once, and none stays down when the yard loses the focus
  await page.keyboard.down('W');
  await page.getByPlaceholder('Find a block').focus();
  await page.waitForFunction(() => true);
  await expect
    .poll(async () => {
      const a = await robot(page);
      await page.waitForTimeout(300);
      const b = await robot(page);
      return Math.hypot(a.x - b.x, a.y - b.y);
    })
    .toBeLessThan(0.002);
  await page.keyboard.up('W');
  // a key typed into a field drives nothing
  const still = await robot(page);
  await page.getByPlaceholder('Find a block').pressSequentially('www');
  await page.waitForTimeout(300);
  expect((await robot(page)).y).toBeCloseTo(still.y, 3);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('Trowel is tossed: 0 g in the air, a jolt past 2.2 g at the catch, and the same again from its inputs', async ({
  page
}) => {
  await openDemo(page, 'Catch the trowel');
  // slowly, so that the time in the air is long enough to be looked at
  await page.getByLabel('Speed').selectOption('0.25');
  await page.getByTestId('rehearse').click();
  await page.getByLabel('Height of a toss, cm').fill('60');
  await page.getByRole('button', { name: 'Toss', exact: true }).click();
  await expect(page.getByTestId('felt')).toContainText(/in all 0\.0\d g/);
  await expect(page.getByTestId('felt')).toContainText('in all 1.00 g', { timeout: 10_000 });
  // by its own clock the flight (0.70 s) and what hangs on the catch are over
  await expect(page.getByTestId('clock')).toHaveText(/00:0(1\.[5-9]|[2-9])/);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  const first = await events(page);
  expect(first).toContain('in the air');
  expect(first).toContain('caught');
  const totals = first
    .split('\r\n')
    .slice(1)
    .map((row) => row.split(','));
  const column = first.split('\r\n')[0].split(',').indexOf('accelTotal_g');
  const values = totals.map((r) => Number(r[column])).filter(Number.isFinite);
  expect(Math.min(...values)).toBeLessThan(0.05);
  expect(Math.max(...values)).toBeGreaterThan(2.2);
  // the same inputs give the same run
  await page.getByRole('button', { name: 'Same inputs as last time' }).click();
  await page.getByLabel('Speed').selectOption('max');
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('playhead')).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  const again = await events(page);
  const marks = (csv: string) => csv.split('\r\n').filter((r) => /in the air|caught/.test(r));
  expect(marks(again)).toEqual(marks(first));
});

test('Trowel is leaned by dragging, by keys and by sliders, and the picture moves', async ({ page }) => {
  await openDemo(page, 'The rolling drop');
  await page.getByTestId('rehearse').click();
  const held = page.getByTestId('held');
  await expect(page.getByRole('button', { name: 'Toss', exact: true })).toBeEnabled();
  const box = (await held.boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 215);
  await page.mouse.down();
  await page.mouse.move(box.x + 110, box.y + 215, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId('lean-sideways')).toHaveText('30°');
  const columns = () =>
    held
      .locator('[data-lit]')
      .evaluateAll((lit) => lit.map((r) => Math.round((Number(r.getAttribute('x')) + 13.3) / 3.85)));
  // two pixels to the right of the middle, give or take the drop's own width
  await expect
    .poll(async () => (await columns()).reduce((a, b) => a + b, 0) / Math.max(1, (await columns()).length))
    .toBeCloseTo(5, 0);
  await held.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('lean-sideways')).toHaveText('0°');
  await page.keyboard.press('Home');
  await page.getByLabel('Lean forwards').fill('45');
  await expect(page.getByTestId('lean-forwards')).toHaveText('45°');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('a phone is the hand: leaning it moves the picture; when it drops off the board lies level', async ({
  page,
  context
}) => {
  await openDemo(page, 'The rolling drop');
  await page.getByTestId('rehearse').click();
  await page.getByTestId('inputs').click();
  await page.getByRole('tab', { name: 'Phone or tablet' }).click();
  await page.getByRole('button', { name: 'Pair a phone' }).click();
  const code = await page.getByTestId('hand-code').innerText();
  expect(code).toMatch(/^[A-Z]{6}$/);
  const phone = await context.newPage();
  await phone.goto('/hand');
  await phone.getByLabel('Code').fill('QQQQQQ');
  await phone.getByRole('button', { name: 'Be the hand' }).click();
  await expect(phone.getByRole('alert')).toContainText('No workbench waits under this code');
  await phone.getByLabel('Code').fill(code);
  await phone.getByRole('button', { name: 'Be the hand' }).click();
  const tilt = await context.newCDPSession(phone);
  await tilt.send('DeviceOrientation.setDeviceOrientationOverride', { alpha: 0, beta: 0, gamma: 30 });
  await expect(phone.getByTestId('hand-state')).toContainText('sideways 30°');
  await expect(phone.getByTestId('whose-hand')).toContainText('You are the hand of "');
  await expect(page.getByTestId('phone')).toContainText(/here, \d+ ms away/);
  await page.locator('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByTestId('lean-sideways')).toHaveText('30°');
  // another phone with the same code asks first
  const other = await context.newPage();
  await other.goto(`/hand?code=${code}`);
  await other.getByRole('button', { name: 'Be the hand' }).click();
  await expect(other.getByRole('status').first()).toContainText('Another phone is the hand already');
  await page.getByTestId('asking').getByRole('button', { name: 'No' }).click();
  await expect(other.getByRole('alert')).toContainText('Another phone is the hand of this workbench');
  await other.close();
  await phone.close();
  await expect(page.getByText('The phone is gone.')).toBeVisible();
  await expect(page.getByTestId('lean-sideways')).toHaveText('0°');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('a gamepad drives, with its real range and a dead zone; unplugged, its sticks go to 0', async ({ page }) => {
  // a gamepad by the browser's own interface, fed by the test
  await page.addInitScript(() => {
    const pad = {
      id: 'Test pad',
      index: 0,
      connected: true,
      mapping: 'standard',
      axes: [0, 0, 0, 0],
      buttons: [],
      timestamp: 0
    };
    const w = window as unknown as { pad: typeof pad | null };
    w.pad = pad;
    navigator.getGamepads = () => [w.pad as unknown as Gamepad];
  });
  await shelf(page);
  const made = await page.request.post('/api/projects', { data: await withStick(page) });
  await page.goto(`/project/${(await made.json()).id}`);
  await workbench(page);
  await page.evaluate(() => window.dispatchEvent(new Event('gamepadconnected')));
  await page.getByTestId('rehearse').click();
  const set = (axes: number[]) =>
    page.evaluate((axes) => void ((window as unknown as { pad: { axes: number[] } }).pad.axes = axes), axes);
  await set([0, -0.9, 0, 0]);
  const y = (await robot(page)).y;
  await expect.poll(async () => (await robot(page)).y).toBeGreaterThan(y + 0.03);
  await page.getByTestId('inputs').click();
  await page.getByRole('tab', { name: 'Gamepad' }).click();
  await expect(page.getByTestId('stick-1')).toHaveText('89 %');
  await page.evaluate(() => {
    (window as unknown as { pad: null }).pad = null;
    window.dispatchEvent(new Event('gamepaddisconnected'));
  });
  await page.locator('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText('The gamepad is unplugged. Its sticks count as let go.').first()).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByTestId('inputs').click();
  await page.getByRole('tab', { name: 'Track' }).click();
  const row = page.getByTestId('rows').locator('tbody tr').last();
  await expect(row.getByLabel(/: which$/)).toHaveValue('left, up-down');
  await expect(row.getByLabel(/: at$/)).toHaveValue('0');
});
async function withStick(page: Page): Promise<unknown> {
  const cards = (await (await page.request.get('/api/projects?demo')).json()) as { id: string; name: string }[];
  const { project } = await (
    await page.request.get(`/api/projects/${cards.find((c) => c.name === 'Four keys')!.id}`)
  ).json();
  const stick = (id: string) => ({ id, kind: 'sense.stick', slots: { stick: 'left, up-down' } });
  return {
    ...project,
    name: 'By stick',
    program: {
      ...project.program,
      stacks: [
        {
          id: 's1',
          x: 24,
          y: 24,
          steps: [
            { id: 'a1', kind: 'begin.start', slots: {} },
            {
              id: 'a2',
              kind: 'repeat.ever',
              slots: {},
              bodies: {
                do: [
                  { id: 'a3', kind: 'wheels.run', slots: { left: stick('a4'), right: stick('a5') } },
                  { id: 'a6', kind: 'wait.time', slots: { time: 30, unit: 'ms' } }
                ]
              }
            }
          ]
        }
      ]
    }
  };
}

test('in three dimensions the machine stands on the mat: the mat is darker below it', async ({ page }) => {
  await openDemo(page, 'Round the fern bed');
  await page.getByRole('button', { name: 'Behind' }).click();
  await page.keyboard.press('y');
  const canvas = page.getByTestId('scene').locator('canvas');
  await expect(canvas).toBeVisible();
  /** how light the picture is at a share of its width and height, 0 to 255 */
  const light = (x: number, y: number) =>
    canvas.evaluate(
      (element: HTMLCanvasElement, [x, y]) => {
        const g = Object.assign(document.createElement('canvas'), { width: 1, height: 1 }).getContext('2d')!;
        g.drawImage(element, -Math.round(x * element.width), -Math.round(y * element.height));
        return g.getImageData(0, 0, 1, 1).data[1];
      },
      [x, y]
    );
  // close behind the body, on the mat inside its hoop; and on the mat beside the hoop
  await expect.poll(async () => (await light(0.62, 0.9)) - (await light(0.497, 0.916))).toBeGreaterThan(40);
});

test('through the narrow aisle by extending and testing, seen from three views at the same place', async ({ page }) => {
  await openDemo(page, 'Into the bend');
  await rehearse(page);
  const end = await robot(page);
  expect(end.y).toBeGreaterThan(0.9);
  for (const view of ['Behind', 'Free']) {
    await page.getByRole('button', { name: view, exact: true }).click();
    const scene = page.getByTestId('scene');
    await expect(scene.locator('canvas')).toBeVisible();
    expect(Number(await scene.getAttribute('data-x'))).toBeCloseTo(end.x, 3);
    expect(Number(await scene.getAttribute('data-y'))).toBeCloseTo(end.y, 3);
  }
  // something is drawn: not all of the picture is one colour
  const colours = await page
    .getByTestId('scene')
    .locator('canvas')
    .evaluate((canvas: HTMLCanvasElement) => {
      const copy = document.createElement('canvas');
      [copy.width, copy.height] = [64, 64];
      const g = copy.getContext('2d')!;
      g.drawImage(canvas, 0, 0, 64, 64);
      const { data } = g.getImageData(0, 0, 64, 64);
      return new Set(Array.from({ length: 4096 }, (_, i) => `${data[i * 4]},${data[i * 4 + 1]},${data[i * 4 + 2]}`))
        .size;
    });
  expect(colours).toBeGreaterThan(20);
});

test('past the hoop by coasting, and mended in one word', async ({ page }) => {
  await openDemo(page, 'Past the hoop');
  await rehearse(page);
  expect((await robot(page)).x).toBeGreaterThan(1.2);
  await page.getByRole('button', { name: 'Ruler' }).click();
  await expect(page.getByTestId('measures')).toContainText('motors off');
  await page.locator('.drive\\.measure .blocklyDropdownText').last().click();
  await page
    .getByRole('option', { name: 'brake' })
    .or(page.locator('.blocklyMenuItemContent', { hasText: 'brake' }))
    .first()
    .click();
  await rehearse(page);
  expect(Math.abs((await robot(page)).x - 1.1)).toBeLessThan(0.01);
  await expect(page.getByTestId('measures')).toContainText('80.0 cm, turned');
});

test('Barrow 5 is calibrated on the kit sheet and then comes within 5 mm in 80 cm', async ({ page }) => {
  await openDemo(page, 'Eighty centimetres');
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await page.getByLabel('Device to measure').selectOption('Barrow 5');
  await page.getByRole('button', { name: 'Measure it' }).click();
  const found = page.getByTestId('found');
  await expect(found).toBeVisible({ timeout: 60_000 });
  const at = async (row: number) => {
    const [, x, y] = /x ([\d.]+), y ([\d.]+)/.exec(await found.locator('tr').nth(row).innerText())!;
    return Math.hypot(Number(x) - 110, Number(y) - 30);
  };
  expect(await at(5)).toBeGreaterThan(0.5);
  expect(await at(6)).toBeLessThan(0.5);
  await page.getByRole('button', { name: 'Write it onto the kit sheet' }).click();
  await expect(page.getByTestId('measured')).toContainText('Barrow 5');
  expect((await project(page)).kit.measured?.device).toBe('Barrow 5');
});

test('live values without a program: a push is felt, a value goes into a slot, a name into the program', async ({
  page
}) => {
  await openDemo(page, 'An arm short');
  await page.getByRole('button', { name: 'Live values' }).click();
  await page.getByRole('button', { name: 'Look at the sensors' }).first().click();
  await expect.poll(() => number(page, 'value-distance')).toBeGreaterThan(4);
  // carried by the hand: heading and place change, and the distance with them
  const before = await robot(page);
  const box = (await page.getByTestId('robot').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect.poll(async () => (await robot(page)).x).not.toBeCloseTo(before.x, 2);
  await page.getByRole('button', { name: 'Freeze' }).click();
  const value = page.getByTestId('value-distance');
  const shown = Number(await value.innerText());
  const slot = (await page.locator('.blocklyShadow').first().boundingBox())!;
  const from = (await value.boundingBox())!;
  await page.mouse.move(from.x + 10, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(slot.x + slot.width / 2, slot.y + slot.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId('live').getByText(`${shown} was written into the slot.`)).toBeVisible();
  expect(JSON.stringify((await project(page)).program)).toContain(String(shown));
  const blocks = page.locator('[data-id].sense\\.distance');
  const count = await blocks.count();
  const name = (await page.getByTestId('sensor-distance').locator('span').first().boundingBox())!;
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await page.mouse.move(name.x + 10, name.y + 6);
  await page.mouse.down();
  await page.mouse.move(pane.x + 300, pane.y + 320, { steps: 8 });
  await page.mouse.up();
  await expect(blocks).toHaveCount(count + 1);
  await page.getByRole('button', { name: 'Stop looking' }).click();
});

test('two devices in one yard talk: the trowel calls, Barrow comes and answers', async ({ page }) => {
  await openDemo(page, 'Signal post');
  await page.getByTestId('rehearse').click();
  const other = page.getByTestId('other');
  const y = Number(await other.getAttribute('data-y'));
  await page.getByTestId('held').getByLabel('Dot').click();
  await expect
    .poll(async () => Number(await other.getAttribute('data-y')), { timeout: 15_000 })
    .toBeGreaterThan(y + 0.29);
  await expect(page.getByTestId('held').locator('[data-lit]')).toHaveCount(7);
  // a hand on the other one: it is read, pressed and pushed, and the record has it
  await other.click();
  const hand = page.getByTestId('hand');
  const reading = (name: string) => hand.getByTestId('read').locator('div', { hasText: name }).locator('dd');
  await expect(reading('distance ahead')).toHaveText(/^\d+(\.\d)? cm$/);
  await expect(reading('nose')).toHaveText('0');
  const nose = hand.getByRole('group', { name: 'Buttons of Barrow at the gate' }).getByRole('button', { name: 'Nose' });
  await nose.focus();
  await page.keyboard.down('Enter');
  await expect(reading('nose')).toHaveText('1');
  await page.keyboard.up('Enter');
  await expect(reading('nose')).toHaveText('0');
  const place = async () => `${await other.getAttribute('data-x')} ${await other.getAttribute('data-y')}`;
  const rested = await place();
  await hand.getByRole('button', { name: 'Push it ahead' }).click();
  await expect.poll(place).not.toBe(rested);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByTestId('inputs').click();
  const pressed = page.getByTestId('rows').locator('tbody tr', { hasText: 'Barrow at the gate' }).first();
  await expect(page.getByLabel('Row 3: what')).toHaveValue('nose');
  await expect(pressed).toBeVisible();
  await expect(page.getByLabel('Row 3: to which device')).toHaveValue('Barrow at the gate');
  await page.getByRole('button', { name: 'Close' }).click();
  await hand.getByRole('button', { name: 'Signal post' }).click();
  await expect(page.getByTestId('held')).toBeVisible();
  await page.getByRole('button', { name: 'More about the yard' }).click();
  await page.getByText('Take Barrow at the gate out of the yard').click();
  await expect(other).toHaveCount(0);
  await page.getByRole('button', { name: 'More about the yard' }).click();
  await page.getByText('Put another device in').click();
  await page
    .getByRole('button', { name: /^Back to the mark/ })
    .first()
    .click();
  await expect(other).toHaveCount(1);
});

test('inputs are rows that are kept, changed and used again; a file with a line that is no input is told', async ({
  page
}) => {
  await openDemo(page, 'Catch the trowel');
  await page.getByTestId('inputs').click();
  const file = (text: string) => ({ name: 'tried.jsonl', mimeType: 'application/jsonl', buffer: Buffer.from(text) });
  const open = (text: string) => page.getByLabel('Inputs file').setInputFiles(file(text));
  await open('{"t": 0.5, "tos": 60}');
  await expect(page.getByRole('alert')).toContainText('line 1 is not an input');
  await open('{"t": 0.2, "press": "Dot"}\n{"t": 0.5, "stick": "middle", "at": 10}');
  await expect(page.getByRole('alert')).toContainText('line 2 is not an input');
  await open('{"t": 0.5, "to": "Nobody", "toss": 30}');
  await page.getByRole('button', { name: 'Rehearse with these' }).click();
  await expect(page.getByRole('alert')).toContainText('something is done to "Nobody"');
  await page.getByLabel('Take row 1 out').click();
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.getByLabel('Row 1: what').selectOption('toss it');
  await page.getByLabel('Row 1: up by').fill('30');
  await page.getByRole('button', { name: 'Add a row' }).click();
  await page.getByLabel('Row 2: what').selectOption('lean it');
  await page.getByLabel('Row 2: forwards').fill('200');
  await page.getByLabel('Row 2: second').click();
  await expect(page.getByRole('alert')).toContainText('It goes from -180 to 180');
  await page.getByLabel('Row 2: forwards').fill('-20,5');
  await page.getByLabel('Row 2: second').fill('9');
  await page.getByLabel('Name of these inputs').fill('a small toss');
  await page.getByRole('button', { name: 'Keep it' }).click();
  // it sets off at once
  await page.getByRole('button', { name: 'Rehearse with these' }).click();
  await page.getByLabel('Speed').selectOption('max');
  await expect(page.getByTestId('playhead')).toBeVisible();
  // it goes on until its limit
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 60_000 });
  expect(await events(page)).toContain('caught');
  expect((await project(page)).tracks).toEqual([
    { name: 'a small toss', lines: '{"t":0.5,"toss":30}\n{"t":9,"lean":{"forwards":-20.5}}\n' }
  ]);
});

test('a clip and a picture of the run come out as files', async ({ page }) => {
  await openDemo(page, 'Past the hoop');
  await rehearse(page);
  await page.getByRole('button', { name: 'More about the yard' }).click();
  const picture = page.waitForEvent('download');
  await page.getByText('Save a picture (PNG)').click();
  expect((await head(await picture)).slice(1, 4).toString()).toBe('PNG');
  for (const [kind, magic] of [
    ['GIF', '474946'],
    ['WebM', '1a45dfa3']
  ]) {
    await page.getByRole('button', { name: 'More about the yard' }).click();
    await page.getByText('Record a clip').click();
    await page.getByRole('radio', { name: kind }).check();
    const clip = page.waitForEvent('download', { timeout: 60_000 });
    await page.getByRole('button', { name: 'Record', exact: true }).click();
    expect((await head(await clip)).toString('hex')).toContain(magic);
  }
});
async function head(download: import('@playwright/test').Download): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of await download.createReadStream()) parts.push(part as Buffer);
  const all = Buffer.concat(parts);
  expect(all.length).toBeGreaterThan(2000);
  return all.subarray(0, 8);
}

test('the servo with its plug the wrong way round is told on the kit sheet, and the display can be mounted turned', async ({
  page
}) => {
  await openDemo(page, 'Catch the trowel');
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await page.getByLabel('Plug of the vent').selectOption('wrong');
  await expect(page.getByText('the wrong way round: it stays dead')).toBeVisible();
  await page.getByLabel('display mounted turned by').selectOption('180');
  await expect.poll(async () => (await project(page)).kit.display).toMatchObject({ type: 'matrix', turnedDeg: 180 });
});

test('a robot that starts in a wall is told, and the line threshold is set half way', async ({ page }) => {
  await openDemo(page, 'Into the bend');
  const own = await project(page);
  const made = await page.request.post('/api/projects', {
    data: { ...own, name: 'In the bench', start: { x: 0.5, y: 0.6, facingDeg: 0 } }
  });
  await page.goto(`/project/${(await made.json()).id}`);
  await workbench(page);
  await page.getByTestId('rehearse').click();
  await expect(page.getByText('The robot has no room where it starts').first()).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await page.getByRole('link', { name: 'Kit sheet' }).click();
  await page.getByLabel('reads on light').fill('80');
  await page.getByLabel('reads on dark').fill('11');
  await page.getByRole('button', { name: 'Set it' }).click();
  expect((await project(page)).kit.parts.filter((p) => p.type === 'line').map((p) => p.threshold)).toEqual([
    45.5, 45.5
  ]);
});

test('Trowel 2 takes a program over the cable, and on its own it is tossed and caught; barrows stay in their shed', async ({
  page
}) => {
  await openDemo(page, 'Catch the trowel');
  await page.getByTestId('chip').click();
  await expect(page.getByLabel('Stand-in in the yard').locator('> option')).toHaveText(['Trowel 2']);
  await page.getByRole('button', { name: 'Plug in' }).last().click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(page.getByTestId('device-message')).toContainText('is on Trowel 2 as program', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Unplug' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('whose')).toHaveText('Trowel 2');
  const held = page.getByTestId('held');
  await held.getByLabel('Dot').click();
  await expect(held.locator('[data-lit]')).toHaveCount(13);
  await page.getByRole('button', { name: 'Toss', exact: true }).click();
  // the cross of the catch
  await expect(held.locator('[data-lit="100"]')).toHaveCount(10, { timeout: 15_000 });
  await page.getByTestId('chip').click();
  await page.getByRole('button', { name: 'Plug in' }).last().click();
  await expect(page.getByTestId('device-run')).toContainText('Trowel 2');
  expect(await events(page)).toContain('caught');
});

test('two stand-ins in two windows hear one another by radio', async ({ page, context }) => {
  const started = async (window: Page, kit: Kit, steps: Step[], name: string) => {
    const data = { ...newProject(name, kit, longAisle), program: program(steps) };
    const made = (await (await window.request.post('/api/projects', { data })).json()) as { id: string };
    await window.goto(`/project/${made.id}`);
    await workbench(window);
    await window.getByTestId('chip').click();
    await window.getByRole('button', { name: 'Plug in' }).last().click();
    await window.getByRole('button', { name: 'Send', exact: true }).click();
    await expect(window.getByTestId('device-message')).toContainText('as program', { timeout: 60_000 });
    await window.getByRole('region', { name: 'Device' }).getByRole('button', { name: 'Press Dot' }).click();
    await expect(window.getByTestId('state')).toHaveText(/running/);
  };
  const calls = [b('begin.button', { button: 'Bar' }), b('message.send', { name: 'come', whom: NEARBY })];
  await started(page, trowel, calls, 'Calls');
  const there = await context.newPage();
  await started(there, barrow, [b('begin.message', { name: 'come' }), log('on my way')], 'Comes');
  // the panel lies over the menus of the trace
  for (const window of [page, there]) await window.keyboard.press('Escape');
  await page.getByTestId('held').getByLabel('Bar').click();
  await expect.poll(() => events(there), { timeout: 30_000 }).toContain('on my way');
});
