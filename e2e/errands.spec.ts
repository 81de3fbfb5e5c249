/** Errands as a pupil meets them: begun on the shelf, tried, missed by so much, met, and kept. */
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { openDemo, opened, project, rehearse, shelf, typeNumber, workbench } from './room.ts';
import { projectOf, type Errand } from '../core/errand/errand.ts';
import { newProject } from '../core/project.ts';
import { unsound } from '../core/errand/proof.ts';
import { fromText } from '../core/testing/text.ts';

const FOLDER = new URL('../demo/errands/', import.meta.url);
const errand = (id: string): Errand =>
  JSON.parse(readFileSync(new URL(`${id}.mossbell-errand.json`, FOLDER), 'utf8')) as Errand;

test('an errand is begun, missed by so many cm, tried again, and the bell rings', async ({ page }) => {
  await shelf(page);
  await page.getByText('To begin with').click();
  const card = page.locator('[data-errand=first-delivery]');
  if (!(await card.isVisible())) await page.getByText('To begin with').click();
  await card.getByRole('button').first().click();
  await workbench(page);
  const pane = page.getByTestId('errand');
  await expect(pane).toContainText('Carry the pot 65 cm down the aisle');
  await expect(pane.locator('[data-state]')).toHaveCount(2);
  await expect(page.locator('.goal-ring.open')).toHaveCount(1);

  // as it is given: 40 cm, rolling on
  await rehearse(page);
  const missed = pane.locator('[data-state=missed]');
  await expect(missed).toContainText(/Stopped 16\.\d cm short of the hoop bench, at 2\.\d\d s\./);
  await expect(page.locator('.goal-ring.missed')).toHaveCount(1);
  await missed.getByRole('button', { name: 'Show the moment' }).click();
  await expect(page.getByTestId('playhead')).toHaveText(/^2\.[456]/);
  await expect(pane.getByTestId('tries')).toContainText('1 try');

  // hints open one after the other, and stay with the project
  await pane.getByRole('button', { name: 'Hint 1 of 3' }).click();
  await pane.getByRole('button', { name: 'Hint 2 of 3' }).click();
  await expect(pane.getByRole('list', { name: 'Hints' }).getByRole('listitem')).toHaveCount(2);
  expect((await project(page)).hintsOpened).toBe(2);

  await typeNumber(page, 'drive.measure', 0, 0, '60');
  await rehearse(page);
  await expect(pane.getByTestId('bell')).toContainText('The bell rings: all goals are met.');
  await expect(page.locator('.goal-ring.met')).toHaveCount(1);
  await expect(pane.locator('[data-try]')).toHaveCount(2);
  await expect(pane.getByTestId('came')).toContainText(/all goals met in \d\.\d s · 1 block · before it: /);
  // live: at the start of the trace nothing is met yet
  await pane.locator('[data-try=missed]').click();
  await expect(missed).toHaveCount(1);

  await shelf(page);
  const done = page.locator('[data-errand=first-delivery]');
  if (!(await done.isVisible())) await page.getByText('To begin with').click();
  await expect(done).toContainText('the bell rang; 2 tries');
});

test('where numbers alone may be changed, a block that is taken out comes back, and the tray offers what is named', async ({
  page
}) => {
  const only: Errand = {
    ...errand('first-delivery'),
    id: 'by-numbers',
    may: 'numbers',
    offers: ['wait.time'],
    predictFirst: true
  };
  await opened(page, projectOf(only));
  await workbench(page);
  await page.getByRole('tab', { name: 'Wait', exact: true }).click();
  await expect(page.locator('[data-card]')).toHaveCount(1);
  await page.getByRole('tab', { name: 'Move', exact: true }).click();
  await expect(page.locator('[data-card]')).toHaveCount(0);

  // where it stops is said first
  await page.getByTestId('rehearse').click();
  await expect(page.getByText('Say first what it will do')).toBeVisible();
  await page.getByRole('button', { name: 'That is my guess' }).click();
  await rehearse(page);
  await expect(page.getByTestId('errand').locator('[data-state=missed]')).toHaveCount(1);
  // and before each try anew
  await page.getByTestId('rehearse').click();
  await expect(page.getByText('Say first what it will do')).toBeVisible();
  await expect(page.getByRole('button', { name: 'That is my guess' })).toBeVisible();

  const before = (await project(page)).program;
  await page
    .locator('.blocklyDraggable')
    .filter({ hasText: 'drive' })
    .first()
    .click({ position: { x: 12, y: 14 } });
  await page.keyboard.press('Delete');
  await expect(page.getByText('In this errand the numbers alone are changed.')).toBeVisible();
  await expect(page.locator('.blocklyDraggable').filter({ hasText: 'drive' }).first()).toBeVisible();
  expect((await project(page)).program).toEqual(before);
  await typeNumber(page, 'drive.measure', 0, 0, '55');
  await expect.poll(async () => JSON.stringify((await project(page)).program)).toContain('55');
});

test('an errand comes in from a file, one that is no good is told, and one of one’s own is taken off and back', async ({
  page
}) => {
  await shelf(page);
  const own: Errand = { ...errand('there-and-back'), id: 'to-the-well', name: 'To the well and back', level: 3 };
  const put = (name: string, text: string) =>
    page
      .locator('input[type=file]')
      .first()
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await put('well.mossbell-errand.json', JSON.stringify({ ...own, mat: { ...own.mat, hoops: [] } }));
  await expect(page.getByText(/A goal speaks of the hoop 80 cm, and the mat Long aisle has none/)).toBeVisible();
  await put('well.mossbell-errand.json', JSON.stringify(own));
  await expect(page.getByText('"well.mossbell-errand.json" is among the errands now.')).toBeVisible();
  // its programs are tried: one whose model does not meet it is told
  await put('short.mossbell-errand.json', JSON.stringify({ ...own, id: 'too-short', model: own.wrong[0].program }));
  await expect(
    page.getByText(/short\.mossbell-errand\.json is on the shelf, but not sound: The model misses the goal 1/)
  ).toBeVisible();
  await page.getByPlaceholder('Find a project').fill('well');
  const card = page.locator('[data-errand^=to-the-well]').first();
  await expect(card).toContainText('Barrow · not tried yet');
  await card.getByRole('button', { name: /What to do with/ }).click();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click()
  ]);
  expect(JSON.parse(readFileSync(await saved.path(), 'utf8'))).toMatchObject({ format: 'mossbell.errand', level: 3 });
  await card.getByRole('button', { name: /What to do with/ }).click();
  await page.getByRole('button', { name: 'Take off the shelf' }).click();
  await expect(card).toHaveCount(0);
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(card).toBeVisible();
});

test('a program is made smaller and must do the same as at first, with what a person does in it', async ({ page }) => {
  const counts = errand('drip-count');
  const smaller: Errand = {
    ...counts,
    id: 'same-count',
    given: counts.model,
    goals: [{ kind: 'same' }, ...counts.goals]
  };
  await opened(page, projectOf(smaller));
  await workbench(page);
  const pane = page.getByTestId('errand');
  await rehearse(page);
  await expect(pane.getByTestId('bell')).toContainText('The bell rings');
  // counting by two shows something else: both goals tell it
  await typeNumber(page, 'var.change', 0, 0, '2');
  await rehearse(page);
  await expect(pane.getByRole('list', { name: 'Goals' }).locator(':scope > [data-state=missed]')).toHaveCount(2);
  await expect(pane.getByTestId('situations').locator('[data-state=missed]')).toHaveCount(2);
});

test('an errand is made by example: what the model did becomes goals, wrong programs miss them, and it stands on the shelf', async ({
  page
}) => {
  await openDemo(page, 'To the bench');
  await page.getByRole('button', { name: 'More of Moss Bell' }).click();
  await page.getByRole('link', { name: 'Make an errand of it' }).click();
  const suggestions = page.getByTestId('suggestions');
  await expect(suggestions.getByText('stops here')).toBeVisible();
  await expect(page.getByTestId('why')).toContainText('It has no goal yet');
  await expect(page.getByRole('button', { name: 'Put it on the shelf' })).toBeDisabled();
  await suggestions.getByRole('button', { name: 'Make it a goal: stops here' }).click();
  const stop = page.locator('[data-goal=stop]');
  await expect(stop.locator('[data-of="0"]')).toHaveAttribute('data-state', 'met');
  await expect(page.getByText('The model meets all goals.')).toBeVisible();

  // its hoop is dragged away: the model misses it, by so much; and back
  const hoop = page.locator('[data-hoop=goal]');
  const box = (await hoop.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const drag = async (from: number, to: number) => {
    await page.mouse.move(from, y);
    await page.mouse.down();
    await page.mouse.move(to, y, { steps: 4 });
    await page.mouse.up();
  };
  await drag(x, x - 90);
  await expect(stop.locator('[data-of="0"]')).toContainText(/Stopped \d+(\.\d)? cm past the hoop goal/);
  await expect(page.getByTestId('why')).toContainText('The model does not meet all goals itself.');
  await drag(x - 90, x);
  await expect(page.getByText('The model meets all goals.')).toBeVisible();

  // a moment of the run becomes a place to pass, before it stops
  await page.getByLabel('The moment').fill('2000000');
  await expect(page.getByTestId('moment')).toHaveText('2.00 s');
  await page.getByRole('button', { name: 'This place' }).click();
  await expect(page.locator('[data-goal=pass]')).toHaveCount(1);
  await page.locator('[data-goal=pass]').getByLabel('How it counts').selectOption('in this order');
  await stop.getByLabel('How it counts').selectOption('in this order');
  // the stop stands first: in this order it cannot be
  await expect(page.getByTestId('why')).toContainText('The model does not meet all goals itself.');
  await page.locator('[data-goal=pass]').getByLabel('Take this goal out').click();
  await expect(page.getByText('The model meets all goals.')).toBeVisible();
  await expect(page.locator('[data-hoop="goal 2"]')).toHaveCount(0);

  // beside it stands which programs meet them; one that meets all is not wrong
  await page.getByLabel('A wrong program').selectOption({ label: 'Past the hoop' });
  await expect(stop.locator('[data-of="1"]')).toContainText(/Past the hoop: Stopped [\d.]+ cm short/);
  await stop.getByLabel('as much beyond its edge').fill('60');
  await stop.getByLabel('as much beyond its edge').press('Enter');
  await expect(page.getByTestId('why')).toContainText('Past the hoop meets all goals: it is not wrong.');
  await stop.getByLabel('as much beyond its edge').fill('0');
  await stop.getByLabel('as much beyond its edge').press('Enter');
  await page.getByLabel('What Past the hoop shows').fill('It rolls on by itself.');
  await page.getByLabel('Name', { exact: true }).fill('To the last bench');
  await page.getByLabel(/^Story/).fill('Carry the tray to the last bench.');
  await page.getByLabel(/^Hints/).fill('Count the marks.\nHow does the drive end?');

  // what is half done outlasts a reload
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('To the last bench');
  await expect(stop.locator('[data-of="1"]')).toHaveAttribute('data-state', 'missed');
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(page.getByText('"To the last bench" is among the errands now.')).toBeVisible();
  const made = (await (await page.request.get('/api/errands')).json()) as { id: string; name: string }[];
  const { id } = made.filter((e) => e.name === 'To the last bench').at(-1)!;
  const read = (await (await page.request.get(`/api/errands/${id}`)).json()) as Errand;
  expect(unsound(read)).toEqual([]);
  expect(read).toMatchObject({ hints: ['Count the marks.', 'How does the drive end?'], wrong: [{ misses: [0] }] });
  expect(read.given.stacks[0].steps).toHaveLength(1);

  // and it is done as any other
  await page.getByPlaceholder('Find a project').fill('last bench');
  await page.locator(`[data-errand=${id}]`).getByRole('button').first().click();
  await workbench(page);
  await expect(page.getByTestId('errand')).toContainText('Carry the tray to the last bench.');
});

test('while an errand is made its holes are told: a situation is proposed that closes one, and what is right too is said so', async ({
  page
}) => {
  const { kit, mat, model } = errand('stop-short');
  await opened(page, { ...newProject('Nearer', kit, mat), program: model });
  await page.getByRole('button', { name: 'More of Moss Bell' }).click();
  await page.getByRole('link', { name: 'Make an errand of it' }).click();
  const proof = page.getByTestId('proof');
  await expect(proof).toContainText('Once the model meets its goals');
  await page.getByRole('button', { name: 'Make it a goal: stops here' }).click();
  const clock = proof.getByText('by the clock, as in the first situation, and no sensor asked');
  await expect(clock).toBeVisible({ timeout: 120_000 });
  await expect(proof).toContainText(/\d+ of \d+ small changes that do otherwise miss a goal; 0 are right too/);
  // where the box stands nearer a clock does not do it: that closes the hole
  await page.getByRole('button', { name: 'Add the situation: the box ahead stands 20 cm nearer' }).click();
  await page.getByLabel('What is otherwise in situation 2').fill('the wheelbarrow stands nearer');
  await expect(proof).toContainText(/small changes that do otherwise miss a goal/, { timeout: 120_000 });
  await expect(clock).toHaveCount(0);
  const other = proof.getByRole('button', { name: /^It is right too/ });
  const open = await other.count();
  expect(open).toBeGreaterThan(0);
  await other.first().click();
  await proof.getByPlaceholder('why it is right too').fill('It is only slower.');
  await expect(proof).toContainText(/; 1 is right too/, { timeout: 120_000 });
  await expect(other).toHaveCount(open - 1);
  await page.getByRole('button', { name: 'Put it on the shelf' }).click();
  await page.waitForURL(/\/$/);
  const list = (await (await page.request.get('/api/errands')).json()) as { id: string; name: string }[];
  const { id } = list.find((e) => e.name === 'Nearer')!;
  const made = (await (await page.request.get(`/api/errands/${id}`)).json()) as Errand;
  expect(made.situations).toMatchObject([{ says: 'the wheelbarrow stands nearer' }]);
  expect(made.situations![0].mat!.hoops.at(-1)!.x).toBeLessThan(mat.hoops[0].x - 0.15);
  expect(made.alsoRight).toMatchObject([{ why: 'It is only slower.' }]);
});

test('a parked solution is judged too and changed over; tries are laid beside one another; the device is judged as it drives', async ({
  page
}) => {
  test.setTimeout(180_000);
  const first = errand('first-delivery');
  const [stack] = first.given.stacks;
  const parked = structuredClone(first.model.stacks[0]);
  Object.assign(parked, { id: 'parked', y: 260, parked: true });
  parked.steps.forEach((s, i) => (s.id = `parked-${i}`));
  await opened(page, { ...projectOf(first), program: { ...first.given, stacks: [stack, parked] } });
  await workbench(page);
  const pane = page.getByTestId('errand');
  await rehearse(page);
  await expect(pane.locator('[data-state=missed]')).toHaveCount(1);
  const other = page.getByTestId('parked-solution');
  await other.getByRole('button', { name: 'Judge it too' }).click();
  await expect(other.getByRole('status')).toContainText(/all goals met in \d\.\d s · 1 block/);
  await other.getByRole('button', { name: 'Change over' }).click();
  await rehearse(page);
  await expect(pane.getByTestId('bell')).toContainText('The bell rings');
  await other.getByRole('button', { name: 'Judge it too' }).click();
  await expect(other.getByRole('status')).toContainText('1 of 2 goals met');

  // the first try beside the second: where they part
  await pane.locator('[data-try=met]').click();
  await pane.locator('[data-try=missed]').hover();
  await pane.getByTestId('tries').getByRole('button', { name: 'Beside the one that is seen' }).click();
  await page.getByRole('button', { name: 'Where they part' }).click();
  await expect(page.getByTestId('differences').getByRole('listitem').first()).toBeVisible();

  // on the device the goals are told as it drives, and its try is kept
  await page.getByTestId('chip').click();
  await page.getByLabel('Stand-in in the yard').selectOption('Barrow 5');
  await page.getByRole('button', { name: 'Plug in', exact: true }).last().click();
  await expect(page.getByTestId('state')).toHaveText('library missing');
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('button', { name: 'Install the library' }).click();
  await expect(page.getByTestId('device-message')).toContainText('is on Barrow 5 as program 1', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Unplug', exact: true }).click();
  await page.getByTestId('chip').click();
  await page.getByRole('button', { name: 'Dot', exact: true }).click();
  await expect(pane.locator('[data-try]')).toHaveCount(3, { timeout: 60_000 });
});

test('three more are done: a picture after the other, there and back, and stopped by what is seen ahead', async ({
  page
}) => {
  test.setTimeout(180_000);
  for (const id of ['frost-warning', 'there-and-back', 'stop-short']) {
    const one = errand(id);
    await opened(page, { ...projectOf(one), program: one.wrong[0].program });
    await workbench(page);
    const pane = page.getByTestId('errand');
    await rehearse(page);
    await expect(pane.locator('[data-state=missed]').first()).toBeVisible();
    await expect(pane.getByTestId('bell')).toHaveCount(0);
    await opened(page, { ...projectOf(one), program: one.model });
    await workbench(page);
    await rehearse(page);
    await expect(pane.getByTestId('bell')).toContainText('The bell rings: all goals are met.');
  }
});

test('the bell rings in the errand’s own yard alone, and not where a hand helped', async ({ page }) => {
  const first = errand('first-delivery');
  // the robot stands 30 cm nearer: what meets the goals there is no delivery
  const near = fromText('wheels.drive(cm=35, power=30, ending="brake")', first.kit);
  await opened(page, { ...projectOf(first), program: near, start: { x: 0.6, y: 0.3, facingDeg: 90 } });
  await workbench(page);
  const pane = page.getByTestId('errand');
  await rehearse(page);
  await expect(pane).toContainText('Stop in the hoop bench');
  await expect(pane.locator('[data-state=met]').first()).toBeVisible();
  await expect(page.getByTestId('other-yard')).toContainText('The yard is not as the errand has it.');
  await expect(page.getByTestId('bell')).toHaveCount(0);
  await page.getByRole('button', { name: 'Put its own yard back' }).click();
  await expect(page.getByTestId('other-yard')).toHaveCount(0);
  await rehearse(page);
  await expect(pane).toContainText(/cm short/);
  await expect(page.getByTestId('bell')).toHaveCount(0);
  // and done from its own start it rings; what the errand itself does to the world is no hand's doing
  for (const one of [first, errand('lost-in-the-mist'), errand('vent-at-noon')]) {
    await opened(page, { ...projectOf(one), program: one.model });
    await workbench(page);
    await rehearse(page);
    await expect(page.getByTestId('bell')).toContainText('The bell rings', { timeout: 60_000 });
  }
  // the same vent, and while its sun shines, from 2 s to 5 s, somebody holds a light to it
  await page.getByLabel('Speed').selectOption('0.25');
  await page.getByTestId('rehearse').click();
  const shines = 'mossbellEditor.w.runs.seenUs > 2.1e6 && mossbellEditor.w.runs.seenUs < 4.5e6';
  await expect.poll(() => page.evaluate(shines), { intervals: [100] }).toBe(true);
  await page.evaluate('mossbellEditor.w.runs.input({ around: { light: 90 } })');
  await page.getByLabel('Speed').selectOption('max');
  await expect(pane).toContainText('A hand changed something in this run');
  await expect(page.getByTestId('bell')).toHaveCount(0);
});

test('the bell waits for all situations: which one failed is told, with its run to open', async ({ page }) => {
  const { model, kit } = errand('stop-short');
  const task = projectOf(errand('stop-short'));
  // it looks, and drives by the distance that the first situation has
  const blind = fromText('if distance.cm() > 1:\n    wheels.drive(cm=80, power=40, ending="brake")', kit);
  await opened(page, { ...task, program: blind });
  const pane = page.getByTestId('errand');
  await rehearse(page);
  await expect(pane).toContainText('In situation 2 of 3 it does not do it: the wheelbarrow stands 20 cm nearer.');
  await expect(pane.getByTestId('bell')).toHaveCount(0);
  const rows = pane.getByTestId('situations').locator('[data-state]');
  await expect(rows.nth(0)).toHaveAttribute('data-state', 'met');
  await expect(rows.nth(1)).toHaveAttribute('data-state', 'missed');
  await rows.nth(1).getByRole('button', { name: 'Show this run' }).click();
  await expect(pane.getByRole('list', { name: 'Goals' })).toContainText('It touched');
  await opened(page, { ...task, program: model });
  await rehearse(page);
  await expect(pane.getByTestId('bell')).toContainText('The bell rings');
  await expect(rows).toHaveCount(3);
});
