/**
 * What is on the sheet is the program. After whatever is done, the sheet as the block library writes it (with the shadows that
 * blocks cover, what stands in every field, and places) is that of a second sheet, made anew from the program.
 * SHEET_STEPS and SHEET_TURNS make it longer: npm run sheet.
 */
import { expect, test, type Page } from '@playwright/test';
import fc from 'fast-check';
import { barrow } from '../core/kit/kit.ts';
import { allSteps, type Program } from '../core/language/program.ts';
import { newProject } from '../core/project.ts';
import { b, log, program, start, sum, variable, wait } from '../core/testing/build.ts';
import { anyProgram } from '../core/testing/random.ts';
import { longAisle } from '../core/yard/mats.ts';
import { demo, dragCard, newProject as fresh, opened, project, typeNumber, workbench } from './room.ts';

const STEPS = Number(process.env.SHEET_STEPS ?? 25);
const TURNS = Number(process.env.SHEET_TURNS ?? 6);

const open = async (page: Page, p: Program): Promise<void> => {
  await opened(page, { ...newProject('Sheet', barrow, longAisle), program: p });
  await workbench(page);
};
/** What the library tells of comes a turn or a frame later. */
const settled = (page: Page): Promise<unknown> =>
  page.evaluate(async () => {
    for (let i = 0; i < 2; i++) await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
  });
async function same(page: Page, did: string): Promise<void> {
  await settled(page);
  await page.locator('[data-testid=blocks][data-ready]').waitFor();
  // an error of the block library holds its blocks, too much to send here: its words and the program are enough
  const [sheet, anew] = await page.evaluate<[string, string]>(
    `(async () => { try { return await mossbellEditor.sheets(); } catch (e) { return ['not made: ' + e.message, JSON.stringify(mossbellEditor.session.project.program)]; } })()`
  );
  expect(sheet, did).toBe(anew);
}
const history = (page: Page): Promise<[number, number]> =>
  page.evaluate<[number, number]>(`[mossbellEditor.session.past.length, mossbellEditor.session.future.length]`);

test('a value block taken out of its slot and brought back leaves nothing, and what was typed below it is there', async ({
  page
}) => {
  const inner = variable('n');
  const p = {
    ...program(start({ ...b('wait.time', { time: inner }), covered: { time: 7 } })),
    variables: [{ id: 'n', name: 'n' }]
  };
  await open(page, p);
  const [, waits] = p.stacks[0].steps;
  await same(page, 'opened');
  await page.evaluate(`mossbellEditor.act.remove(['${inner.id}'])`);
  await same(page, 'taken out');
  expect((await project(page)).program.stacks[0].steps[1].slots.time).toBe(7);
  await page.keyboard.press('Control+z');
  await same(page, 'undone');
  expect(await history(page)).toEqual([0, 1]);
  expect((await project(page)).program).toEqual(p);
  await page.keyboard.press('Control+y');
  await same(page, 'done again');
  // by hand: typed, covered, uncovered
  await typeNumber(page, 'wait.time', 0, 0, '9');
  const box = (await page.locator(`[data-id="${waits.id}"] .blocklyShadow`).first().boundingBox())!;
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await dragCard(page, 'Work out', 'By chance', box.x - pane.x + 12, box.y - pane.y + 14);
  await same(page, 'covered by hand');
  const covered = (await project(page)).program.stacks[0].steps[1];
  expect([typeof covered.slots.time, covered.covered]).toEqual(['object', { time: 9 }]);
  await page.reload();
  await workbench(page);
  await same(page, 'loaded anew');
  await page.evaluate(`mossbellEditor.act.remove(['${(covered.slots.time as { id: string }).id}'])`);
  await same(page, 'uncovered');
  expect((await project(page)).program.stacks[0].steps[1]).toMatchObject({ slots: { time: 9 } });
});

test('ten blocks that hold values are taken out and brought back: none is lost, nothing lies loose', async ({
  page
}) => {
  const holds = Array.from({ length: 10 }, (_, i) => log(sum(variable('n'), '+', i)));
  const p = { ...program(start(...holds)), variables: [{ id: 'n', name: 'n' }] };
  await open(page, p);
  for (const step of holds) await page.evaluate(`mossbellEditor.act.remove(['${step.id}'])`);
  await same(page, 'ten taken out');
  for (let i = 0; i < 10; i++) {
    await page.evaluate('mossbellEditor.session.undo()');
    await same(page, `undone ${i}`);
  }
  expect(await history(page)).toEqual([0, 10]);
  expect((await project(page)).program).toEqual(p);
  for (let i = 0; i < 10; i++) await page.evaluate('mossbellEditor.session.redo()');
  await same(page, 'all done again');
  expect(await history(page)).toEqual([10, 0]);
  expect((await project(page)).program.stacks[0].steps).toHaveLength(1);
});

test('nothing moves without a hand: stacks that lie on one another, a number that grows, flow and back', async ({
  page
}) => {
  const p = program(start(wait(1)), start(wait(2)), start(wait(3)));
  // none hangs on a starter, and each begins where the one before it ends
  const near = {
    ...p,
    stacks: p.stacks.map((s, i) => ({ ...s, x: 60 + 4 * i, y: 60 + 32 * i, steps: s.steps.slice(1) }))
  };
  await open(page, near);
  await typeNumber(page, 'wait.time', 0, 0, '12345');
  await same(page, 'typed');
  const places = async () => (await project(page)).program.stacks.map((s) => [s.x, s.y]);
  const seen = () =>
    page.evaluate<number[]>(
      `mossbellWorkspace.getAllBlocks(false).filter((b) => b.type === 'wait.time').flatMap((b) => { const r = b.getSvgRoot().getBoundingClientRect(); return [Math.round(r.x), Math.round(r.y)]; })`
    );
  expect(await places()).toEqual(near.stacks.map((s) => [s.x, s.y]));
  expect(await history(page)).toEqual([1, 0]);
  const before = await seen();
  await page.getByRole('button', { name: 'Flow', exact: true }).click();
  await page.getByRole('button', { name: 'Blocks', exact: true }).click();
  await workbench(page);
  await same(page, 'flow and back');
  expect(await places()).toEqual(near.stacks.map((s) => [s.x, s.y]));
  expect(await seen()).toEqual(before);
  // the next gesture is a step of its own, and no other comes of it
  await page.keyboard.press('Control+z');
  await same(page, 'undone');
  expect(await history(page)).toEqual([0, 1]);
});

test('a block that is let go anywhere in the mouth of a loop goes in, and that shows before', async ({ page }) => {
  await fresh(page, 'Mouths');
  await dragCard(page, 'Begin', 'At the start', 60, 40);
  await dragCard(page, 'Repeat', 'Repeat', 62, 82);
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  // from corner to corner of the empty mouth, as it is drawn: between its header and its foot
  const mouth = await page.evaluate<{ left: number; top: number; right: number; bottom: number }>(`(() => {
    const loop = mossbellWorkspace.getAllBlocks(false).find((b) => b.type === 'repeat.times');
    const { y } = loop.getInput('do').connection.getOffsetInBlock();
    const path = loop.getSvgRoot().querySelector('.blocklyPath').getBoundingClientRect();
    return { left: path.left + 20, top: path.top + y, right: path.right, bottom: path.bottom - 13 };
  })()`);
  expect(mouth.bottom - mouth.top).toBeGreaterThan(20);
  const { left, top } = mouth;
  for (const [x, y] of [
    [left + 4, top + 4],
    [mouth.right - 4, top + 4],
    [left + 4, mouth.bottom - 4],
    [mouth.right - 4, mouth.bottom - 4]
  ]) {
    await page.getByRole('tab', { name: 'Wait', exact: true }).click();
    const card = (await page.locator('[data-card]').first().boundingBox())!;
    await page.mouse.move(card.x + 40, card.y + 12);
    await page.mouse.down();
    await page.mouse.move(card.x + 20, card.y + 14, { steps: 3 });
    await page.mouse.move(x, y, { steps: 8 });
    await page.mouse.move(x, y);
    await expect(page.locator('.repeat\\.times .blocklyInsertionMarker')).toHaveCount(1);
    await page.mouse.up();
    await same(page, `let go at ${x - left}, ${y - top}`);
    const inside = (await project(page)).program.stacks[0].steps[1].bodies!.do;
    expect(
      inside.map((s) => s.kind),
      `${x - left}, ${y - top}`
    ).toEqual(['wait.time']);
    await page.keyboard.press('Control+z');
    await settled(page);
  }
  // and below the block there, or above it, as the pointer says
  await dragCard(page, 'Wait', 'Wait', left - pane.x + 60, top - pane.y + 14);
  await dragCard(page, 'Sound', 'Beep', left - pane.x + 60, top - pane.y + 4);
  await dragCard(page, 'Light up', 'Darken', left - pane.x + 80, top - pane.y + 70);
  await expect
    .poll(async () => (await project(page)).program.stacks[0].steps[1].bodies!.do.map((s) => s.kind))
    .toEqual(['sound.beep', 'wait.time', 'display.dark']);
});

for (const name of ['Half a vent', 'The patient gate'])
  test(`every mend of the look-over on ${name}, and back`, async ({ page }) => {
    await demo(page, name);
    await workbench(page);
    await page.waitForFunction('mossbellEditor.w.remarks.length > 0');
    const count = await page.evaluate<number>('mossbellEditor.w.remarks.flatMap((r) => r.mends).length');
    expect(count).toBeGreaterThan(0);
    for (let i = 0; i < count; i++) {
      await page.evaluate(`mossbellEditor.w.mend(mossbellEditor.w.remarks.flatMap((r) => r.mends)[${i}])`);
      await same(page, `mend ${i}`);
      await page.evaluate('mossbellEditor.session.undo()');
      await same(page, `mend ${i} undone`);
    }
  });

/** One thing that somebody does; what it was. Everything random comes from `seed`. */
const DO = `(async (seed) => {
  const chance = (n) => ((seed = (seed * 1103515245 + 12345) % 2147483648), Math.floor((seed / 2147483648) * n));
  const one = (list) => list[chance(list.length)];
  const { act, session, w } = mossbellEditor;
  for (let i = 0; i < 3; i++) chance(7);
  const blocks = mossbellWorkspace.getAllBlocks(false).filter((b) => !b.isShadow());
  const body = one(blocks.filter((b) => b.previousConnection && b.type !== 'routine.define'));
  const value = one(blocks.filter((b) => b.outputConnection));
  const block = one(blocks);
  const what = one(['remove', 'remove value', 'duplicate', 'off', 'pull', 'park', 'note', 'loop', 'routine', 'move', 'take value',
    'put value', 'type', 'mend', 'undo', 'undo', 'undo', 'redo', 'redo']);
  const few = blocks.length < 25;
  if (what === 'undo') session.undo();
  else if (what === 'redo') session.redo();
  if (what === 'undo' || what === 'redo') {
    // over what was a text for a while, which has no sheet
    while (session.project.text !== undefined) session.undo();
    await new Promise((done) => setTimeout(done, 0));
  } else if (what === 'mend') {
    const mend = one(w.remarks.flatMap((r) => r.mends));
    if (mend) w.mend(mend);
  } else if (what === 'type') {
    const typed = one(mossbellWorkspace.getAllBlocks(false).filter((b) => b.type === 'lit.number'));
    typed?.setFieldValue(String(chance(400) / 4), 'V');
  } else if (what === 'remove value') value && act.remove([value.id]);
  else if (what === 'take value') {
    value?.unplug(false);
    value?.moveBy(60 + chance(200), 40 + chance(90));
  } else if (what === 'put value') {
    const slot = value && one(blocks.filter((b) => !value.getDescendants(false).includes(b)).flatMap((b) => b.inputList)
      .filter((i) => i.connection && mossbellWorkspace.connectionChecker.canConnect(value.outputConnection, i.connection, false)));
    if (slot) { value.unplug(false); slot.connection.connect(value.outputConnection); }
  } else if (!block) return 'nothing';
  else if (what === 'remove') act.remove([block.id]);
  else if (what === 'duplicate') few && act.duplicate([block.id], chance(2) === 1);
  else if (what === 'note') act.note(block.id, chance(2) ? 'note ' + chance(99) : '');
  else if (what === 'park') act.park(block.getRootBlock().id, chance(2) === 1);
  else if (!body) return 'nothing';
  else if (what === 'off') act.off([body.id], chance(2) === 1, chance(2) === 1);
  else if (what === 'pull') act.pull(body.id);
  else if (what === 'loop') few && (await act.loop([body.id]));
  else if (what === 'routine') few && (await act.routine([body.id], 'r' + chance(99)));
  else { body.unplug(true); body.moveBy(40 + chance(200), 30 + chance(200)); }
  return what + ' ' + (block ? block.type : '');
})`;
/** Another way to show the program, and back; its text, changed, and back. */
async function modes(page: Page, which: number): Promise<string> {
  if (which < 2) {
    const mode = ['flow', 'notebook'][which];
    await page.evaluate(`mossbellEditor.w.mode = '${mode}'`);
    await expect(page.getByTestId('blocks')).toBeHidden();
    await page.evaluate(`mossbellEditor.w.mode = 'blocks'`);
    await expect(page.getByTestId('blocks')).toBeVisible();
    return mode;
  }
  await page
    .getByRole('region', { name: 'Program', exact: true })
    .getByRole('button', { name: 'More', exact: true })
    .click();
  await page.getByRole('button', { name: 'Make it a text project' }).click();
  const text = page.getByTestId('text').locator('.cm-content');
  await text.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('\n# seen');
  await page.getByRole('button', { name: 'To blocks' }).click();
  const blocks = page.locator('[data-testid=blocks][data-ready]');
  const anyway = page.getByRole('button', { name: 'To blocks without these' });
  await blocks
    .or(anyway)
    .or(page.getByRole('region', { name: 'What blocks cannot say' }))
    .first()
    .waitFor();
  if (await anyway.isVisible()) await anyway.click();
  // a text that blocks cannot say stays a text: back to the blocks that it was
  else if (!(await blocks.isVisible()))
    await page.evaluate(
      '(() => { const { session } = mossbellEditor; while (session.project.text !== undefined) session.undo(); })()'
    );
  await blocks.waitFor();
  return 'text';
}

const samples = fc
  .sample(anyProgram, { numRuns: TURNS * 12, seed: 20_261_201 })
  .filter((p) => [...allSteps(p)].length <= 25 && [...allSteps(p)].length >= 8)
  .slice(0, TURNS);
for (const [turn, p] of samples.entries())
  test(`random edits, undone and done again, leave the sheet that the program makes (${turn + 1})`, async ({
    page
  }) => {
    test.setTimeout(120_000 + STEPS * 1000);
    const problems: string[] = [];
    page.on('pageerror', (e) => problems.push(e.message));
    page.on('console', (m) => m.type() === 'error' && problems.push(m.text()));
    await open(page, p);
    await same(page, 'opened');
    const did: string[] = [];
    for (let n = 0; n < STEPS; n++) {
      did.push(
        n % 24 === 11
          ? await modes(page, (turn + (n - 11) / 24) % 3)
          : await page.evaluate(`(${DO})(${turn * 7919 + n * 104729 + 1})`)
      );
      await same(page, did.slice(-12).join(', '));
      expect(problems, did.slice(-12).join(', ')).toEqual([]);
    }
    const saved = await project(page);
    await page.reload();
    await workbench(page);
    await same(page, 'loaded anew');
    expect(await page.evaluate('JSON.stringify(mossbellEditor.session.project.program)')).toBe(
      JSON.stringify(saved.program)
    );
  });
