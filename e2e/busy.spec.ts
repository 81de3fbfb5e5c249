/** Programs that never wait, in the page: it goes on answering, and the run can be looked at afterwards. */
import { expect, test } from '@playwright/test';
import { barrow } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { b, program, start } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { workbench } from './room.ts';

const flicker = program(
  start(
    b('wheels.run', { left: 10, right: 20 }),
    b(
      'repeat.ever',
      {},
      {
        do: [b('display.dark'), b('pixel.set', { x: 3, y: 2, to: 'on' }), b('var.change', { variable: 'v1' })]
      }
    )
  )
);

test('a loop without a wait runs to its limit, is kept small, opened again, and has its findings from a worker', async ({
  page
}) => {
  const problems: string[] = [];
  page.on('pageerror', (e) => problems.push(e.message));
  const data = { ...newProject('Flicker', barrow, longAisle), program: flicker };
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  await page.goto(`/project/${id}`);
  await workbench(page);
  await page.getByLabel('Speed').selectOption({ label: 'max' });
  const sent = page.waitForRequest((r) => r.url().includes('/runs?ms=') && r.method() === 'POST');
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('clock')).toHaveText('02:00.00', { timeout: 80_000 });
  // what makes it again is sent, not what it did
  expect((await sent).postDataBuffer()!.length).toBeLessThan(20_000);
  await expect(page.getByRole('button', { name: /^\d+ findings?$/ })).not.toHaveText('0 findings');
  await page.getByRole('button', { name: /^\d+ findings?$/ }).click();
  await expect(page.getByText('The run was ended at its limit of 120 s.').last()).toBeVisible();
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Times of the blocks' }).click();
  // 400 µs a turn: three hundred thousand turns
  await expect(page.getByTestId('times').getByRole('row').filter({ hasText: 'darken' })).toContainText(/(29|30)\d{4}/);
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Runs of this project' }).click();
  await page.getByTestId('kept').getByRole('button', { name: 'Open', exact: true }).click();
  await expect(page.getByTestId('earlier-run')).toBeVisible({ timeout: 60_000 });
  expect(problems).toEqual([]);
});
test('Stop acts while it runs, and set off is waited for without burning the time limit', async ({ page }) => {
  const before = program([b('begin.before'), b('lamp.set')], [b('begin.off'), b('drive.measure', { amount: 5 })]);
  const open = async (p: typeof flicker): Promise<void> => {
    const data = { ...newProject('Busy', barrow, longAisle), program: p };
    const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
    await page.goto(`/project/${id}`);
    await workbench(page);
  };
  await open(flicker);
  await page.getByTestId('rehearse').click();
  await expect(page.getByTestId('clock')).toHaveText(/00:0[2-9]/);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled();
  // kept and opened again it ends where it was stopped
  const at = await page.getByTestId('clock').textContent();
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Runs of this project' }).click();
  await page.getByTestId('kept').getByRole('button', { name: 'Open', exact: true }).click();
  await expect(page.getByTestId('earlier-run')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('clock')).toHaveText(at!);
  await open(before);
  await page.getByLabel('Speed').selectOption({ label: 'max' });
  await page.getByTestId('rehearse').click();
  // at max it does not rush through the wait: the clock goes at the pace of the person
  await expect(page.getByTestId('setoff')).toBeVisible();
  await expect(page.getByTestId('clock')).toHaveText(/00:0[1-9]/);
  await page.getByTestId('setoff').click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled();
  await expect(page.getByTestId('clock')).toHaveText(/^00:/);
});
