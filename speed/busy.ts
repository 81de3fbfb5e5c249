/**
 * What pupils really write: loops that never wait. Each is rehearsed in the real page for two minutes of simulated time at 1x
 * (less with --short) and at max with every tab of the lower pane looked at; told are the longest time that the page's thread was held up,
 * how long Stop took, and the memory of the page with its workers, as Chromium measures it.
 */
import type { Browser, Page } from 'playwright-core';
import { barrow } from '../core/kit/kit.ts';
import type { Step } from '../core/language/program.ts';
import { newProject, type Project } from '../core/project.ts';
import { b, cmp, program, start } from '../core/testing/build.ts';
import { gravelPath } from '../core/yard/mats.ts';
import { printPython } from '../core/language/python/print.ts';

const ever = (...body: Step[]): Step => b('repeat.ever', {}, { do: body });
const follower = (): Step[] =>
  start(
    ever(
      b(
        'choose.if',
        { if1: cmp(b('sense.line'), '<', 50) },
        { then1: [b('wheels.run', { left: 10, right: 30 })], otherwise: [b('wheels.run', { left: 30, right: 10 })] }
      )
    )
  );
const flicker = (): Step[] => start(ever(b('display.dark'), b('pixel.set', { x: 3, y: 2, to: 'on' })));
const of = (name: string, steps: Step[]): Project => ({
  ...newProject(name, barrow, gravelPath),
  program: program(steps)
});
/** A text has the same loop, on MicroPython. */
const text = (name: string, steps: Step[]): Project => {
  const p = of(name, steps);
  return { ...p, text: printPython(p.program, barrow).text };
};
export const BUSY: (() => Project)[] = [
  () => of('a pixel flickers', flicker()),
  () => of('a variable counts', start(ever(b('var.change', { variable: 'v1' })))),
  () => of('a picture comes and goes', start(ever(b('picture.show'), b('display.dark')))),
  () => of('a path is followed', follower()),
  () => text('a text flickers', flicker())
];

export type Held = { name: string; held: number; stop: number; bytes: number; simulated: number };
type Watched = Window & { held: number[] };
/** Every task that held the page's thread for more than 50 ms, as Chromium's own observer tells. */
const watch = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const held: number[] = ((window as unknown as Watched).held = []);
    new PerformanceObserver((list) => list.getEntries().forEach((e) => held.push(e.duration))).observe({
      type: 'longtask'
    });
  });
const longest = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as Watched).held.reduce((a, c) => Math.max(a, c), 0));

const LANES = ['line', 'turns', 'nose', 'accel', 'accelZ', 'volts', 'display', 'tone', 'events'];
/** @param seconds of wall time at 1x; at max the run goes to its limit */
export async function rehearseBusy(
  browser: Browser,
  base: string,
  project: Project,
  speed: '1' | 'max',
  seconds: number
): Promise<Held> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

  const made = (await (await page.request.post(`${base}/api/projects`, { data: project })).json()) as { id: string };

  await page.addInitScript((shown) => localStorage.setItem('mossbell.lanes.barrow', JSON.stringify({ shown })), LANES);

  await page.goto(`${base}/project/${made.id}`);
  await page.getByTestId('rehearse').waitFor();

  await page.waitForLoadState('networkidle');

  await page.getByLabel('Speed').selectOption(speed === 'max' ? { label: 'max' } : speed);
  await page.getByTestId('rehearse').click();

  const stop = page.getByRole('button', { name: 'Stop', exact: true });
  await page.getByTestId('clock').filter({ hasNotText: '00:00.00' }).waitFor();

  await watch(page);

  const until = Date.now() + seconds * 1000;
  const over = stop.and(page.locator(':disabled'));
  for (let tab = 0; Date.now() < until && !(await over.count()); tab++) {
    // the lower pane's two tabs in turn
    if (tab % 4 === 3)
      await page.getByRole('button', { name: tab % 8 === 3 ? 'Live values' : 'Trace', exact: true }).click();
    await page.waitForTimeout(1000);
  }
  const held = await longest(page);
  let took = 0;
  if (!(await over.count())) {
    took = await page.evaluate<number>(`new Promise((done) => {
      const button = [...document.querySelectorAll('button')].find((e) => e.textContent.trim() === 'Stop');
      const from = performance.now();
      const look = () => (button.disabled ? done(performance.now() - from) : void requestAnimationFrame(look));
      button.click();
      look();
    })`);
  }
  const simulated = await page.getByTestId('clock').textContent();
  const bytes = await page.evaluate(async () => {
    type Measures = { measureUserAgentSpecificMemory(): Promise<{ bytes: number }> };
    return (await (performance as unknown as Measures).measureUserAgentSpecificMemory()).bytes;
  });
  await page.close();
  const [minutes, rest] = simulated!.split(':').map(Number);
  return { name: project.name, held, stop: took, bytes, simulated: minutes * 60 + rest };
}
