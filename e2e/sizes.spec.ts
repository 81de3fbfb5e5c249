/** Every control at every size: reachable, not covered, not cut, and nothing scrolls sideways but canvases. */
import { expect, test, type Page } from '@playwright/test';
import { asTeacher, demo, handedInOfDemo, linked, roundOfDemo } from './room.ts';

type Size = { width: number; height: number; touch?: true; zoom?: number };
const SIZES: Record<string, Size> = {
  '1920 x 1080': { width: 1920, height: 1080 },
  '1366 x 768': { width: 1366, height: 768 },
  '1280 x 800': { width: 1280, height: 800 },
  '1024 x 768': { width: 1024, height: 768 },
  '820 x 1180, touch': { width: 820, height: 1180, touch: true },
  // of 1280 x 800 at 200 % half the css pixels are left
  '1280 x 800 at 200 %': { width: 640, height: 400, zoom: 2 }
};

/** What is wrong with the controls that are seen within an element, in words. Drawn things are looked at by their own tests. */
async function wrong(page: Page, touch = false, within = 'body'): Promise<string[]> {
  return page.evaluate(
    async ([touch, within]) => {
      const out: string[] = [];
      const CONTROLS =
        'button, a[href], input, select, textarea, summary, [role="button"], [role="tab"], [role="menuitem"]';
      const DRAWN =
        '.blocklySvg, .blocklyWidgetDiv, .blocklyDropDownDiv, .cm-editor, [data-testid="yard"], [data-testid="kit-drawing"], svg';
      const root = document.querySelector(within)!;
      const name = (e: Element): string =>
        `${e.tagName.toLowerCase()} "${(e.getAttribute('aria-label') || (e as HTMLElement).innerText || e.getAttribute('placeholder') || e.getAttribute('title') || e.id || e.className).slice(0, 40).replace(/\s+/g, ' ')}"`;
      if (document.documentElement.scrollWidth > innerWidth + 1)
        out.push(`the page scrolls sideways: ${document.documentElement.scrollWidth} px`);
      for (const e of document.querySelectorAll<HTMLElement>('*'))
        if (
          e.scrollWidth > e.clientWidth + 1 &&
          e.clientWidth > 0 &&
          /auto|scroll/.test(getComputedStyle(e).overflowX) &&
          !e.closest(DRAWN) &&
          !e.hasAttribute('data-scrolls')
        )
          out.push(`${name(e)} scrolls sideways`);
      for (const e of root.querySelectorAll<HTMLElement>(CONTROLS)) {
        if (e.closest(DRAWN) || e.closest('.sr-only') || e.matches('.sr-only, [type="file"], [tabindex="-1"]'))
          continue;
        if (!e.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
        e.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' as ScrollBehavior });
        const r = e.getBoundingClientRect();
        if (r.width < 1 || r.height < 1) continue;
        if (r.left < -1 || r.top < -1 || r.right > innerWidth + 1 || r.bottom > innerHeight + 1) {
          // higher than what is seen, it can be scrolled through
          if (!(r.height > innerHeight - 140))
            out.push(`${name(e)} is outside: ${[r.left, r.top, r.right, r.bottom].map(Math.round).join(' ')}`);
          continue;
        }
        const label = e.closest('label');
        const at = document.elementFromPoint(r.left + r.width / 2, r.top + r.height / 2);
        if (
          !at ||
          !(e.contains(at) || at.contains(e) || label?.contains(at) || (e.id && at.closest(`[for="${e.id}"]`)))
        )
          out.push(`${name(e)} is covered by ${at ? name(at) : 'nothing'} ${at?.className}`);
        const style = getComputedStyle(e);
        const shortens = e.matches('.truncate') || !!e.querySelector('.truncate') || style.textOverflow === 'ellipsis';
        // what is shortened says its whole in a title
        if (
          e.matches('button, a') &&
          e.scrollWidth > e.clientWidth + 1 &&
          style.overflowX !== 'visible' &&
          !(shortens && e.closest('[title]'))
        )
          out.push(`${name(e)} is cut`);
        if (touch) {
          const box = (label ?? e).getBoundingClientRect();
          const bare = e.matches('a, .inline-block') && !!e.closest('p, li, td, small');
          if (!bare && Math.max(r.height, box.height) < 39) out.push(`${name(e)} is ${Math.round(r.height)} px high`);
        }
      }
      return [...new Set(out)];
    },
    [touch, within] as const
  );
}

for (const [title, { width, height, touch, zoom }] of Object.entries(SIZES))
  test.describe(title, () => {
    test.use({ viewport: { width, height }, hasTouch: !!touch, deviceScaleFactor: zoom ?? 1 });
    const check = async (page: Page, where: string, within?: string) =>
      expect.soft(await wrong(page, touch, within), where).toEqual([]);
    const narrow = width < 1100;

    test('the workbench', async ({ page }) => {
      await demo(page, 'Round the fern bed');
      const pane = (name: string) =>
        narrow && page.getByRole('tablist', { name: 'Panes' }).getByRole('tab', { name }).click();
      await check(page, 'program');
      for (const mode of ['Blocks + text', 'Flow', 'Notebook', 'Blocks'] as const) {
        await page.getByRole('button', { name: mode, exact: true }).click();
        await page.waitForTimeout(150);
        await check(page, mode);
      }
      if (narrow) {
        const tray = page.getByRole('button', { name: 'Tray', exact: true });
        await tray.click();
        await check(page, 'tray', '#drawer');
        await tray.click();
      }
      for (const [menu, tab] of [
        ['More', ''],
        ['More of Moss Bell', ''],
        ['More about the yard', 'Yard'],
        ['More about the trace', 'Trace']
      ]) {
        if (tab && !(tab === 'Trace' && height > 900)) await pane(tab);
        await page.getByRole('button', { name: menu, exact: true }).click();
        await page.getByRole('group', { name: menu, exact: true }).waitFor();
        await check(page, menu, `[role="group"][aria-label="${menu}"]`);
        await page.keyboard.press('Escape');
      }
      await pane('Yard');
      await check(page, 'yard');
      for (const name of ['Ruler', 'Hand', 'Predict']) {
        await page.getByRole('button', { name, exact: true }).click();
        await check(page, name);
        await page.getByRole('button', { name, exact: true }).click();
      }
      await page.getByTestId('chip').click();
      await page.getByRole('heading', { name: 'The device' }).waitFor();
      await check(page, 'device', '[data-testid="device-panel"]');
      await page.keyboard.press('Escape');
    });

    test('a run and its tools', async ({ page }) => {
      await demo(page, 'Past the hoop');
      await page.evaluate('document.querySelector("[data-testid=rehearse]").click()');
      const stop = page.getByRole('button', { name: 'Stop', exact: true });
      await expect(stop).toBeEnabled();
      await page.waitForTimeout(1500);
      await stop.click();
      if (narrow && height < 900)
        await page.getByRole('tablist', { name: 'Panes' }).getByRole('tab', { name: 'Trace' }).click();
      await check(page, 'trace');
      await page.getByRole('button', { name: /\d+ findings?/ }).click();
      await page.getByRole('region', { name: 'Findings' }).waitFor();
      await check(page, 'findings');
      await page.getByRole('region', { name: 'Findings' }).getByRole('button', { name: 'Close' }).click();
      for (const tool of [
        'Choose the lanes',
        'Measure between two cursors',
        'Table',
        'Times of the blocks',
        'Search log and events',
        'Runs of this project'
      ]) {
        await page.getByRole('button', { name: 'More about the trace' }).click();
        await page.getByRole('button', { name: tool, exact: true }).click();
        await page.waitForTimeout(150);
        await check(page, tool);
        await page.keyboard.press('Escape');
      }
      await page.getByRole('button', { name: 'Live values' }).first().click();
      await page.getByTestId('live').waitFor();
      await check(page, 'live values', '[data-testid="live"]');
    });

    test('shelf, kit sheet, mat editor, handbook, dialogs', async ({ page }) => {
      await page.goto('/');
      await page.locator('[data-stands]').waitFor();
      await check(page, 'shelf');
      await page.getByRole('button', { name: 'Barrow two-wheeled robot' }).click();
      await page.getByRole('dialog').waitFor();
      await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'));
      await check(page, 'a new project', 'dialog');
      await page.keyboard.press('Escape');
      await demo(page, 'Round the fern bed');
      const project = page.url();
      for (const [where, ready] of [
        ['kit', '[data-testid="kit-drawing"]'],
        ['mat', '[data-testid="mat"]'],
        ['worksheet', '[data-testid="worksheet"]'],
        ['errand', '[data-testid="suggestions"] li']
      ]) {
        await page.goto(`${project}/${where}`);
        await page.locator(ready).first().waitFor();
        await page.waitForTimeout(200);
        await check(page, where);
      }
      for (const [where, ready] of [
        ['', 'article'],
        ['/write', '.cm-content'],
        ['/print', '[data-testid="lesson-sheet"]']
      ]) {
        await page.goto(`/lesson/first-wheels${where}`);
        await page.locator(ready).waitFor();
        await check(page, `lesson${where}`);
      }
      await page.goto('/sign-in');
      await page.getByLabel('Nickname').waitFor();
      await check(page, 'signing in');
      await asTeacher(page);
      for (const [where, ready] of [
        ['', '[data-testid=pupils]'],
        ['/wall', '[data-testid=wall] li'],
        ['/shows', '[data-testid=tried]'],
        ['/marks', '[data-testid=marks]'],
        ['/lesson/first-wheels', '[data-testid=answers]']
      ]) {
        await page.goto(`/class/demo-class${where}`);
        await page.locator(ready).first().waitFor();
        await check(page, `class${where}`);
      }
      await page.goto(await handedInOfDemo(page));
      await page.locator('[data-testid=program] svg').first().waitFor();
      await check(page, 'what was handed in');
      await page.goto(await roundOfDemo(page));
      await page.getByTestId('guessed').waitFor();
      await check(page, 'a round');
      await page.goto(await linked(page));
      await page.getByTestId('program').waitFor();
      await check(page, 'what a link opens');
      await page.goto('/handbook');
      await page.getByRole('main').waitFor();
      await check(page, 'handbook');
      await page.goto('/hand');
      await page.getByLabel('Code').waitFor();
      await check(page, 'the page of a phone');
    });
  });
