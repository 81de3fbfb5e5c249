/** A whole program built, changed and run without a mouse. */
import { expect, test, type Page } from '@playwright/test';
import { barrow } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { b, log, program, start, wait } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { kinds, project, workbench } from './room.ts';

const keys = async (page: Page, ...list: string[]): Promise<void> => {
  for (const key of list) {
    await page.keyboard.press(key);
    // the block library answers a key in the next frame
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0))));
  }
};
/** Finds a block by words and takes it. */
async function take(page: Page, ...blocks: string[]): Promise<void> {
  await keys(page, '/');
  for (const block of blocks) {
    await page.keyboard.type(block);
    await keys(page, 'Enter');
    await expect(page.getByPlaceholder('Find a block')).toHaveValue('');
  }
  await keys(page, 'Escape');
}

test('a program is built, changed, tidied and run by keys alone', async ({ page, baseURL }) => {
  const made = await page.request.post('/api/projects', { data: newProject('By keys', barrow, longAisle) });
  await page.goto(`${baseURL}/project/${(await made.json()).id}`);
  await workbench(page);
  const spoken = page.getByTestId('spoken');

  await take(page, 'at the start', 'repeat times', 'tone');
  await expect.poll(async () => kinds(await project(page))).toEqual([['begin.start', 'repeat.times']]);
  await expect(spoken).toContainText('tone');
  // up to the loop, into its slot, another number
  await keys(page, 'ArrowUp');
  await expect(spoken).toContainText('repeat 3 times');
  await keys(page, 'Enter');
  await page.keyboard.type('4');
  await keys(page, 'Enter');
  await expect.poll(async () => (await project(page)).program.stacks[0].steps[1].slots.count).toBe(4);

  // a wait below the loop is the chosen block
  await take(page, 'wait time');
  let [, loop] = (await project(page)).program.stacks[0].steps;
  expect([loop.kind, loop.bodies!.do.map((s) => s.kind)]).toEqual(['repeat.times', ['sound.tone']]);
  const focused = () => page.evaluate(() => document.activeElement?.closest('[data-id]')?.getAttribute('data-id'));
  const wait = (await project(page)).program.stacks[0].steps[2];
  expect(wait.kind).toBe('wait.time');
  expect(await focused()).toBe(wait.id);
  // picked up, moved into the loop, put down
  await keys(page, 'm', 'ArrowUp', 'Enter');
  await expect.poll(async () => (await project(page)).program.stacks[0].steps.length).toBe(2);
  [, loop] = (await project(page)).program.stacks[0].steps;
  expect(loop.bodies!.do.map((s) => s.kind)).toEqual(['sound.tone', 'wait.time']);
  await take(page, 'arithmetic');
  await expect
    .poll(async () => JSON.stringify((await project(page)).program.stacks[0].steps[1].bodies!.do[1].slots.time))
    .toContain('calc.sum');
  // taken out again, and back by undo
  await keys(page, 'Delete');
  await expect.poll(async () => (await project(page)).program.stacks[0].steps[1].bodies!.do[1].slots.time).toBe(0.5);
  await keys(page, 'Control+z', 'Control+y');

  // Space rehearses when nothing has the focus
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.getByLabel('Speed').selectOption('max');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await keys(page, 'Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled();
  await expect(page.getByTestId('clock')).not.toHaveText('00:00.00');
});

test('arrows walk down over all stacks and up again the same way; what has the focus is the chosen block, and nothing else', async ({
  page,
  baseURL
}) => {
  const made = await page.request.post('/api/projects', {
    data: {
      ...newProject('Two stacks', barrow, longAisle),
      program: {
        ...program(start(wait(1), b('repeat.times', { count: 2 }, { do: [b('sound.beep')] }), wait(2)), [
          b('begin.button'),
          log(3)
        ])
      }
    }
  });
  await page.goto(`${baseURL}/project/${(await made.json()).id}`);
  await workbench(page);
  await page
    .locator('.begin\\.start')
    .first()
    .click({ position: { x: 12, y: 12 }, force: true });
  /** the block that the focus is in, and all that wear the outline of a chosen one */
  const seen = () =>
    page.evaluate(() => ({
      focus: document.activeElement?.closest('.blocklyBlock, [data-id]')?.getAttribute('data-id'),
      chosen: [...document.querySelectorAll('.blocklySelected')].map((e) => e.getAttribute('data-id'))
    }));
  const walk = async (key: string): Promise<string[]> => {
    const way: string[] = [];
    for (let i = 0; i < 30; i++) {
      const { focus, chosen } = await seen();
      expect(chosen.length, JSON.stringify({ focus, chosen })).toBeLessThanOrEqual(1);
      if (!focus || way.includes(focus)) break;
      way.push(focus);
      await keys(page, key);
    }
    return way;
  };
  const down = await walk('ArrowDown');
  expect(down.length).toBeGreaterThan(6);
  // after the last one comes the first again: from there up it is the same way back
  expect(await walk('ArrowUp')).toEqual([down[0], ...down.slice(1).reverse()]);
});
