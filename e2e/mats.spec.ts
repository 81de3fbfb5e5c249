/** The mat editor: draw, move, exact numbers, align, order, lock, undo; drawings and pictures in and out; paper. */
import { expect, test, type Page } from '@playwright/test';
import { startProject, project, rehearse, robot, workbench } from './room.ts';

/** Where a place of the mat is on the screen. */
async function at(page: Page, x: number, y: number): Promise<[number, number]> {
  return page.getByTestId('mat').evaluate(
    (svg, [x, y]) => {
      const world = svg.querySelector('g > g') as SVGGElement;
      const height = Number(svg.getAttribute('viewBox')!.split(' ')[3]) - 12;
      const p = new DOMPoint(x * 100, height - y * 100).matrixTransform(world.getScreenCTM()!);
      return [p.x, p.y] as [number, number];
    },
    [x, y]
  );
}
async function drag(page: Page, from: [number, number], to: [number, number], steps = 5): Promise<void> {
  await page.mouse.move(...(await at(page, ...from)));
  await page.mouse.down();
  await page.mouse.move(...(await at(page, ...to)), { steps });
  await page.mouse.up();
}
const tool = (page: Page, name: string) => page.getByRole('toolbar').getByRole('button', { name, exact: true }).click();
async function editor(page: Page, name: string, mat = 'Potting floor'): Promise<string> {
  const url = await startProject(page, name, mat);
  await page.getByRole('button', { name: 'More about the yard' }).click();
  await page.getByText('Edit the mat').click();
  await page.getByTestId('mat').waitFor();
  return url;
}

test('a mat with a narrow aisle is made in a minute, and driven through from three views', async ({ page }) => {
  const url = await editor(page, 'My own aisle');
  // two walls that leave 20 cm between them, by dragging on the grid
  await page.getByLabel('Grid to snap to').selectOption({ label: '5 cm' });
  await tool(page, 'Wall');
  await drag(page, [0.3, 0.75], [0.5, 1.05]);
  await tool(page, 'Wall');
  await drag(page, [0.7, 0.75], [0.9, 1.05]);
  const made = (await project(page)).mat;
  expect(made.walls).toEqual([
    { x: 0.4, y: 0.9, width: 0.2, height: 0.3, colour: '#b9c9a6' },
    { x: 0.8, y: 0.9, width: 0.2, height: 0.3, colour: '#b9c9a6' }
  ]);
  // a hoop behind them, and its exact place by number
  await tool(page, 'Hoop');
  await page.mouse.click(...(await at(page, 0.55, 1.1)));
  await page.getByLabel('x', { exact: true }).fill('60');
  await page.getByLabel('x', { exact: true }).press('Enter');
  expect((await project(page)).mat.hoops.at(-1)).toMatchObject({ x: 0.6, y: 1.1 });
  await page.goto(url);
  await workbench(page);
  await page.getByRole('tab', { name: 'Begin', exact: true }).click();
  await page.locator('[data-card]').filter({ hasText: 'At the start' }).first().click();
  await page.getByRole('tab', { name: 'Move', exact: true }).click();
  await page.locator('[data-card]').filter({ hasText: 'Drive' }).first().click();
  const drive = page.locator('.drive\\.measure .blocklyShadow').first();
  // extend, test, extend, test
  for (const [cm, y] of [
    ['30', 0.7],
    ['70', 1.1]
  ] as const) {
    await drive.click();
    await page.locator('.blocklyHtmlInput').fill(cm);
    await page.locator('.blocklyHtmlInput').press('Enter');
    await rehearse(page);
    expect((await robot(page)).y).toBeCloseTo(y, 2);
    await expect(page.getByRole('button', { name: '0 findings' })).toBeVisible();
  }
  for (const view of ['Behind', 'Free', 'From above'])
    await page.getByRole('button', { name: view, exact: true }).click();
  expect((await robot(page)).y).toBeCloseTo(1.1, 2);
});

test('lines, arcs, freehand and areas; several are aligned, doubled, ordered, locked, taken away; all is undone', async ({
  page
}) => {
  await editor(page, 'Drawn');
  const before = (await project(page)).mat;
  await tool(page, 'Line');
  for (const p of [
    [0.2, 0.2],
    [0.6, 0.2],
    [0.6, 0.3]
  ] as const)
    await page.mouse.click(...(await at(page, p[0], p[1])));
  await page.keyboard.press('Enter');
  await tool(page, 'Arc');
  await drag(page, [1.2, 0.4], [1.4, 0.4]);
  await tool(page, 'Freehand');
  await page.mouse.move(...(await at(page, 1.1, 1)));
  await page.mouse.down();
  for (let i = 1; i <= 12; i++) await page.mouse.move(...(await at(page, 1.1 + i * 0.04, 1 + (i % 2) * 0.03)));
  await page.mouse.up();
  await tool(page, 'Area');
  for (const p of [
    [1.3, 0.6],
    [1.6, 0.6],
    [1.45, 0.8]
  ] as const)
    await page.mouse.click(...(await at(page, p[0], p[1])));
  await page.mouse.click(...(await at(page, 1.3, 0.6)));
  const drawn = (await project(page)).mat;
  expect(drawn.lines).toHaveLength(before.lines.length + 3);
  expect(drawn.lines[0].points).toEqual([
    [0.2, 0.2],
    [0.6, 0.2],
    [0.6, 0.3]
  ]);
  // a quarter turn over a chord of 20 cm: its radius is 10 cm times the root of 2 (geometry)
  const arc = drawn.lines[1].points;
  const length = arc.slice(1).reduce((s, [x, y], i) => s + Math.hypot(x - arc[i][0], y - arc[i][1]), 0);
  expect(length).toBeCloseTo((Math.SQRT2 / 10) * (Math.PI / 2), 3);
  expect(drawn.lines[2].points.length).toBeGreaterThan(20);
  expect(drawn.areas.at(-1)!.points).toHaveLength(3);
  // two marks at one height
  await page.getByRole('button', { name: 'Mark A', exact: true }).click();
  await page.getByRole('button', { name: 'Mark B', exact: true }).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Align: upper edges' }).click();
  const marks = (await project(page)).mat.marks;
  expect(marks[0].y).toBeCloseTo(marks[1].y, 4);
  await page.getByRole('button', { name: 'Duplicate' }).click();
  expect((await project(page)).mat.marks).toHaveLength(before.marks.length + 2);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Line 1', exact: true }).click();
  await page.getByRole('button', { name: 'Upwards' }).click();
  expect((await project(page)).mat.lines[1].points).toEqual(drawn.lines[0].points);
  // what is locked does not move
  await page.getByRole('button', { name: 'Lock', exact: true }).click();
  await page.getByTestId('mat').focus();
  await page.keyboard.press('ArrowRight');
  expect((await project(page)).mat.lines[1].points).toEqual(drawn.lines[0].points);
  await page.getByRole('button', { name: 'Unlock' }).click();
  await page.getByTestId('mat').focus();
  await page.keyboard.press('ArrowRight');
  expect((await project(page)).mat.lines[1].points[0]).toEqual([0.21, 0.2]);
  await page.keyboard.press('Delete');
  expect((await project(page)).mat.lines).toHaveLength(before.lines.length + 2);
  const undo = page.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) await undo.click();
  expect((await project(page)).mat).toEqual(before);
});

test('what is wrong with a mat is told, and numbers that are no good are not taken', async ({ page }) => {
  await editor(page, 'Wrong mats');
  await tool(page, 'Wall');
  await drag(page, [0.5, 0.3], [0.7, 0.5]);
  await expect(page.getByTestId('troubles')).toContainText('The start stands in a wall');
  await page.getByLabel('width', { exact: true }).fill('0');
  await page.getByLabel('width', { exact: true }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('width goes from 0.2 to 1000 cm; 0 was not taken');
  await page.getByTestId('mat').focus();
  await page.keyboard.press('Escape');
  await page.getByLabel('Width of the mat').fill('10000');
  await page.getByLabel('Width of the mat').press('Enter');
  await expect(page.getByRole('alert')).toContainText('from 20 to 1000 cm');
  expect((await project(page)).mat.width).toBe(1.8);
});

test('a drawing comes in: scripts are taken out, what is ignored is listed, ids say what a shape is; it goes out again', async ({
  page
}) => {
  await editor(page, 'From a drawing');
  let ran = false;
  page.on('dialog', (d) => {
    ran = true;
    void d.dismiss();
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="600mm" viewBox="0 0 1000 600" onload="alert(1)">
    <script>alert(2)</script><rect id="floor" width="1000" height="600" fill="#eeeeee"/>
    <g transform="translate(200 100) rotate(90)"><rect id="wall-a" width="200" height="40" fill="#88aa88"/></g>
    <path d="M100 500C300 300 700 300 900 500" stroke="#222222" fill="none" stroke-width="30"/>
    <circle id="hoop-1" cx="900" cy="100" r="80" data-name="gate"/><image href="https://example.invalid/a.png"/>
    <text x="500" y="80">Gate</text></svg>`;
  const asked: string[] = [];
  page.on('request', (r) => asked.push(r.url()));
  await page
    .getByLabel('Drawing or picture', { exact: true })
    .setInputFiles({ name: 'yard.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) });
  await expect(page.getByText('It says itself how large it is: 100 cm wide.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect(page.getByTestId('ignored')).toContainText('<script> was taken out');
  await expect(page.getByTestId('ignored')).toContainText('<image>');
  await page.getByRole('button', { name: 'Good' }).click();
  const { mat } = await project(page);
  expect([mat.width, mat.height]).toEqual([1, 0.6]);
  // turned by a quarter: 4 cm wide and 20 cm deep, its middle 10 cm below its corner
  expect(mat.walls[0]).toMatchObject({ x: 0.18, y: 0.4, width: 0.2, height: 0.04, turnDeg: -90 });
  expect(mat.lines[0].width).toBeCloseTo(0.03, 4);
  expect(mat.hoops[0]).toMatchObject({ x: 0.9, y: 0.5, radius: 0.08, name: 'gate' });
  expect(mat.marks[0].text).toBe('Gate');
  expect(ran).toBe(false);
  expect(asked.filter((u) => u.includes('example.invalid'))).toEqual([]);
  const out = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as SVG' }).click();
  const parts: Buffer[] = [];
  for await (const part of await (await out).createReadStream()) parts.push(part as Buffer);
  const text = Buffer.concat(parts).toString();
  await page
    .getByLabel('Drawing or picture', { exact: true })
    .setInputFiles({ name: 'again.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(text) });
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect.poll(async () => (await project(page)).mat.walls[0]).toEqual(mat.walls[0]);
});

test('a picture becomes the floor, with its real size, and the line sensors see it; too large and no picture are refused', async ({
  page
}) => {
  const url = await editor(page, 'Photographed floor');
  // black on the left, white on the right
  const png = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [200, 100];
    const g = canvas.getContext('2d')!;
    g.fillStyle = '#ffffff';
    g.fillRect(0, 0, 200, 100);
    g.fillStyle = '#000000';
    g.fillRect(0, 0, 100, 100);
    return canvas.toDataURL('image/png').split(',')[1];
  });
  const file = page.getByLabel('Drawing or picture', { exact: true });
  await file.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('not a picture that this browser can read');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await file.setInputFiles({ name: 'huge.png', mimeType: 'image/png', buffer: Buffer.alloc(21_000_000) });
  await expect(page.getByRole('alert')).toContainText('at most 20 MB');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await file.setInputFiles({ name: 'floor.png', mimeType: 'image/png', buffer: Buffer.from(png, 'base64') });
  await page.getByLabel('Width in the yard, cm').fill('160');
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect.poll(async () => (await project(page)).mat.height).toBe(0.8);
  await page.goto(url);
  await workbench(page);
  await page.getByRole('button', { name: 'Live values' }).click();
  await page.getByRole('button', { name: 'Look at the sensors' }).first().click();
  // it starts at x 60 cm, on the black half
  await expect.poll(async () => Number(await page.getByTestId('value-lineLeft').innerText())).toBeLessThan(10);
  await page.getByRole('button', { name: 'Stop looking' }).click();
});

test('a mat goes on paper: 1 to 1 on sheets that join, and as a map with a scale bar', async ({ page }) => {
  const url = await editor(page, 'On paper', 'Long aisle');
  await page.goto(`${url}/mat/print`);
  // 150 x 60 cm on sheets that carry 18 x 25 cm: 9 by 3
  await expect(page.getByTestId('sheet')).toHaveCount(27);
  await expect(page.getByText('joins A2, B1')).toBeVisible();
  const mm = await page
    .getByTestId('sheet')
    .first()
    .locator('svg')
    .first()
    .evaluate((svg) => (svg.getBoundingClientRect().width * 25.4) / 96);
  expect(mm).toBeCloseTo(180, 0);
  await page.getByRole('radio', { name: 'a map on one sheet' }).check();
  await expect(page.getByTestId('map')).toContainText('1 to 8');
});

test('a drawing brings the colours of its classes, and fetches nothing', async ({ page }) => {
  const asked: string[] = [];
  page.on('request', (r) => asked.push(r.url()));
  await editor(page, 'From classes');
  const svg = `<?xml-stylesheet href="http://127.0.0.1:9/x.css"?><svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="600mm" viewBox="0 0 1000 600">
    <style>@import url(http://127.0.0.1:9/y.css); .path { fill: #101010; } rect.light { fill: #fefefe } #own { fill: #0000ff }
      .far { fill: url(http://127.0.0.1:9/z.svg#p) } body { display: none }</style>
    <rect class="path" x="100" y="100" width="300" height="100"/>
    <rect class="path light" x="500" y="100" width="100" height="100"/>
    <rect id="own" class="path" x="500" y="300" width="100" height="100"/>
    <rect class="path" style="fill: #ff0000" x="100" y="300" width="100" height="100"/>
    <rect style="fill: url(http://127.0.0.1:9/w.svg#q)" x="700" y="300" width="90" height="90"/>
    <image href="http://127.0.0.1:9/p.png" x="0" y="0" width="10" height="10"/></svg>`;
  await page
    .getByLabel('Drawing or picture', { exact: true })
    .setInputFiles({ name: 'classes.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) });
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  const left = page.getByTestId('ignored');
  for (const what of ['<style>', '<rect> (style)', '<image> (href)'])
    await expect(left).toContainText(`${what} points outside the file and was left out`);
  await page.getByRole('button', { name: 'Good' }).click();
  const areas = (await project(page)).mat.areas.map((a) => a.colour);
  expect(areas).toContain('#101010');
  expect(areas).toContain('#fefefe');
  expect(areas).toContain('#0000ff');
  expect(areas).toContain('#ff0000');
  expect(asked.filter((u) => u.includes('127.0.0.1:9'))).toEqual([]);
});
