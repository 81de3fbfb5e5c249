/** The interface in another language: complete, switched without losing anything, and the same program below it. */
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { NAMES } from '../src/lib/class/names.ts';
import {
  asTeacher,
  demo,
  find,
  kinds,
  handedInOfDemo,
  linked,
  openDemo,
  project,
  roundOfDemo,
  typeNumber,
  shelf
} from './room.ts';

const de = JSON.parse(readFileSync(new URL('../messages/de.json', import.meta.url), 'utf8')) as Record<
  string,
  Record<string, string>
>;
/** English words that German has other words for, and that are no German words themselves. */
const all = [...Object.entries(de.interface), ...Object.entries(de.blocks)];
const said = new Set(all.map(([, text]) => text));
const english = new Set(all.filter(([k]) => !said.has(k)).map(([k]) => k));
/** What a person can read or hear on the page; names of one's own mats and machines, and what is written on them, are their own. */
const words = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let n = walk.nextNode(); n; n = walk.nextNode())
      if (!n.parentElement!.closest('script, style, .cm-line, [data-made] :is(svg, b)'))
        found.push(n.textContent!.replace(/\s+/g, ' ').trim());
    for (const e of document.querySelectorAll('[title], [aria-label], [placeholder]'))
      for (const a of ['title', 'aria-label', 'placeholder']) found.push(e.getAttribute(a) ?? '');
    return [...new Set(found)].filter((t) => /\p{L}{2}/u.test(t));
  });
/** What the person, the kit or the mat calls so stays as it is. */
const OWN = new Set<string>([
  ...NAMES,
  'Wheels',
  'Levers',
  'left',
  'right',
  'left wheel',
  'right wheel',
  'nose',
  'pan',
  'Barrow',
  'count',
  'corner'
]);
const stillEnglish = async (page: Page): Promise<string[]> =>
  (await words(page)).filter((w) => english.has(w) && !OWN.has(w));
const german = (page: Page) =>
  page.context().addCookies([{ name: 'mossbell.language', value: 'de', url: new URL(page.url()).origin }]);

test('the language is changed in the middle of the work: blocks and interface follow, program and Python stay', async ({
  page
}) => {
  await page.setViewportSize({ width: 1440, height: 860 });
  await openDemo(page, 'Corners as routines');
  await typeNumber(page, 'drive.measure', 0, 0, '37');
  const before = await project(page);
  await page.getByRole('button', { name: 'Blocks + text' }).click();
  const python = await page.locator('.cm-content').innerText();
  await page.getByRole('button', { name: 'More of Moss Bell' }).click();
  await page.getByRole('button', { name: 'Deutsch' }).click();
  await expect(page.getByRole('button', { name: '▶ Proben' })).toBeVisible();
  await expect(page.locator('.drive\\.measure').first()).toContainText('fahre');
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await expect(page.getByTestId('saving')).toHaveText('gespeichert');
  expect(await page.locator('.cm-content').innerText()).toBe(python);
  // undo still knows the gesture from before
  await page.locator('.drive\\.measure').first().click();
  await page.keyboard.press('Control+z');
  await expect(page.locator('.drive\\.measure').first()).not.toContainText('37');
  await page.keyboard.press('Control+y');
  await expect(page.locator('.drive\\.measure').first()).toContainText('37');
  // the choice is kept, and the file is the same as before
  await page.reload();
  await expect(page.getByRole('button', { name: '▶ Proben' })).toBeVisible();
  const id = /project\/([^/]+)/.exec(page.url())![1];
  await expect(page.getByTestId('saving')).toHaveText('gespeichert');
  const after = (await (await page.request.get(`/api/projects/${id}`)).json()).project;
  expect(after.program).toEqual(before.program);
  expect(kinds(after)).toEqual(kinds(before));
});

test('no word of the interface stays English in German', async ({ page }) => {
  test.slow();
  await shelf(page);
  await german(page);
  await page.reload();
  expect(await stillEnglish(page)).toEqual([]);
  await page
    .getByRole('button', { name: /^Barrow/ })
    .first()
    .click();
  expect(await stillEnglish(page)).toEqual([]);
  await page.keyboard.press('Escape');
  expect((await page.goto('/handbook'))!.status()).toBe(200);
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto('/handbook/block/curve.angle');
  expect(await stillEnglish(page)).toEqual([]);
  await shelf(page);
  await find(page, 'Along the path by table');
  await page.getByRole('button', { name: 'Along the path by table Barrow · wird als Kopie geöffnet' }).click();
  await page.waitForURL('**/project/**');
  await page.locator('[data-ready]').waitFor();
  await page.getByLabel('Tempo', { exact: true }).selectOption('max');
  await page.getByTestId('rehearse').click();
  await expect(page.getByRole('button', { name: 'Halt', exact: true })).toBeDisabled({ timeout: 60_000 });
  const tabs = await page.getByRole('tab').all();
  for (const tab of tabs) {
    await tab.click();
    expect(await stillEnglish(page)).toEqual([]);
  }
  for (const view of ['Ablauf', 'Notizbuch', 'Blöcke + Text']) {
    await page.getByRole('button', { name: view, exact: true }).click();
    await page.getByTestId('clock').waitFor();
    expect(await stillEnglish(page), view).toEqual([]);
  }
  for (const panel of ['Im Programm suchen', 'Namen im Programm', 'Vergleichen: noch dasselbe?']) {
    const item = page.getByRole('button', { name: panel, exact: true });
    // a menu that is drawn anew under the pointer closes: it is opened again
    await expect(async () => {
      if (!(await item.isVisible())) await page.getByRole('button', { name: 'Mehr', exact: true }).click();
      await item.click({ timeout: 5_000 });
    }).toPass();
    expect(await stillEnglish(page), panel).toEqual([]);
  }
  await page.getByTestId('chip').click();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto(`${page.url()}/kit`);
  await page.getByText('Maße').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto(page.url().replace('/kit', '/worksheet'));
  await page.getByText('Das Programm').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  // the board for the hand, live values, inputs, the mat editor, the phone's page
  await shelf(page);
  await find(page, 'Catch the trowel');
  await page.getByRole('button', { name: 'Catch the trowel Trowel · wird als Kopie geöffnet' }).click();
  await page.waitForURL('**/project/**');
  await page.locator('[data-ready]').waitFor();
  await page.getByRole('button', { name: 'Messwerte' }).click();
  await page.getByTestId('live').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.getByRole('button', { name: 'Aufzeichnung', exact: true }).click();
  await page.getByTestId('inputs').click();
  for (const tab of ['Mitschrift', 'Gamepad', 'Telefon oder Tablet']) {
    await page.getByRole('tab', { name: tab }).click();
    expect(await stillEnglish(page), tab).toEqual([]);
  }
  const at = page.url();
  for (const [path, id] of [
    ['/kit', ''],
    ['/mat', 'mat'],
    ['/mat/print', 'sheet']
  ]) {
    await page.goto(`${at}${path}`);
    if (id) await page.getByTestId(id).first().waitFor();
    else await page.getByText('Maße').waitFor();
    expect(await stillEnglish(page), path).toEqual([]);
  }
  await page.goto('/hand');
  await page.getByLabel('Code').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
});

test('on the device, its drive, the class set and the pins no word stays English in German', async ({ page }) => {
  test.setTimeout(120_000);
  await shelf(page);
  await german(page);
  await page.reload();
  await find(page, 'Past the seedlings');
  await page.getByRole('button', { name: /^Past the seedlings Barrow/ }).click();
  await page.getByTestId('blocks').and(page.locator('[data-ready]')).waitFor();
  const at = page.url();
  const panel = page.getByTestId('device-panel');
  await page.getByTestId('chip').click();
  await panel.getByRole('button', { name: 'Mehr' }).click();
  await panel.getByRole('button', { name: 'Fehler für den Unterricht' }).click();
  await page.getByLabel('Was daran hängt').selectOption('dies');
  expect(await stillEnglish(page)).toEqual([]);
  await panel.getByRole('button', { name: 'Einstecken', exact: true }).click();
  await panel.getByRole('button', { name: 'Das Programm senden' }).click();
  await expect(page.getByTestId('device-message')).toContainText('Beim Senden ausgesteckt', { timeout: 30_000 });
  expect(await stillEnglish(page)).toEqual([]);
  await panel.getByRole('button', { name: 'Die Geräte der Klasse' }).click();
  await page.getByTestId('class-set').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await panel.getByRole('button', { name: 'Als Laufwerk, Punkt gehalten' }).click();
  await page.getByTestId('drive').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto(`${at}/kit/pins`);
  await page.getByTestId('pins').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
});

test('in an errand no word stays English in German', async ({ page }) => {
  await shelf(page);
  await german(page);
  await page.reload();
  await page.locator('[data-stands]').waitFor();
  await page.getByPlaceholder('Projekt suchen').fill('Pflanztisch');
  const card = page.locator('[data-errand=first-delivery]');
  await card.waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await card.getByRole('button').first().click();
  const pane = page.getByTestId('errand');
  await pane.getByRole('button', { name: 'Hinweis 1 von 3' }).click();
  await page.getByTestId('rehearse').click();
  await expect(pane.locator('[data-state=missed]')).toContainText('cm vor dem Reifen bench stehen geblieben', {
    timeout: 60_000
  });
  await pane.getByTestId('tries').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
});

test('in lessons, and where an errand is made, no word stays English in German', async ({ page }) => {
  await shelf(page);
  await german(page);
  await page.goto('/lesson/first-wheels');
  await expect(page.getByRole('heading', { level: 1, name: 'Die ersten Räder' }).last()).toBeVisible();
  await page.getByRole('button', { name: 'Nächster Schritt' }).click();
  await page.getByRole('radio').first().check();
  await page.getByRole('button', { name: 'Das ist meine Antwort' }).click();
  await page.getByRole('button', { name: 'Proben', exact: true }).click();
  await expect(page.getByTestId('came')).toContainText('cm gefahren');
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto('/lesson/left-means-left/write');
  await page.locator('.mb-drawn').nth(8).waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto('/lesson/left-means-left/print?teacher');
  await page.getByTestId('came').first().waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await demo(page, 'To the bench');
  await page.goto(`${page.url()}/errand`);
  await page
    .getByRole('button', { name: /^Zum Ziel machen/ })
    .nth(1)
    .click();
  await page.locator('[data-of="0"]').first().waitFor();
  expect(await stillEnglish(page)).toEqual([]);
});

test('inside a run, its findings and its tools no word stays English in German', async ({ page }) => {
  await shelf(page);
  await german(page);
  await page.reload();
  await find(page, 'Past the seedlings');
  await page.getByRole('button', { name: /^Past the seedlings Barrow/ }).click();
  await page.getByTestId('blocks').and(page.locator('[data-ready]')).waitFor();
  await page.getByRole('button', { name: 'Schritt', exact: true }).click();
  await page.getByTestId('inside').waitFor();
  await page.getByTestId('inside').getByRole('button', { name: 'Hinein' }).click();
  expect(await stillEnglish(page)).toEqual([]);
  await page.getByRole('button', { name: '▶ Weiter' }).click();
  const findings = page.getByRole('button', { name: /Befund/ });
  await expect(findings).toBeEnabled({ timeout: 30_000 });
  await findings.click();
  await expect(page.getByRole('region', { name: 'Befunde' })).toContainText(
    'als bei 2.21 s die nächste Bewegung begann'
  );
  expect(await stillEnglish(page)).toEqual([]);
  for (const tool of [
    'Spuren wählen',
    'Zeiten der Blöcke',
    'Läufe dieses Projekts',
    'Protokoll und Ereignisse durchsuchen'
  ]) {
    await page.getByRole('button', { name: 'Mehr zur Aufzeichnung' }).click();
    expect(await stillEnglish(page)).toEqual([]);
    await page.getByRole('button', { name: tool }).click();
    await page.waitForTimeout(200);
    expect(await stillEnglish(page)).toEqual([]);
  }
  await page.getByRole('button', { name: 'Voraussagen' }).click();
  await page.getByRole('button', { name: 'Rechenhilfe' }).click();
  await page.waitForTimeout(200);
  expect(await stillEnglish(page)).toEqual([]);
});
test('the pages of a class speak German: signing in, class, cards, wall, what it shows, a round, what is kept', async ({
  page
}) => {
  await shelf(page);
  await german(page);
  await page.goto('/sign-in');
  await page.getByRole('heading', { name: 'Mit deiner Karte anmelden' }).waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await asTeacher(page);
  await page.goto('/class');
  await page.getByRole('heading', { name: 'Deine Klassen' }).waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto('/class/demo-class');
  await page.getByTestId('pupils').waitFor();
  await page.getByRole('button', { name: 'Alles noch einmal laufen lassen' }).click();
  await page.getByRole('link', { name: 'Als CSV sichern' }).waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.getByRole('button', { name: 'Ausgeben' }).click();
  await page.getByRole('dialog').getByLabel('Was').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto(await roundOfDemo(page));
  await page.getByRole('button', { name: 'Laufen lassen' }).waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto(await linked(page));
  await page.getByTestId('program').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto('/class/demo-class/wall');
  await page.getByTestId('wall').locator('li').first().waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.locator('[data-pupil=Newt] a').click();
  await page.getByTestId('class-bar').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  await page.goto('/class/demo-class/shows');
  await page.getByTestId('tried').waitFor();
  expect(await stillEnglish(page)).toEqual([]);
  for (const [path, ready] of [
    ['/class/demo-class/marks', 'marks'],
    ['/class/demo-class/lesson/first-wheels', 'answers'],
    [await handedInOfDemo(page), 'facts'],
    ['/class/audit', 'audit']
  ]) {
    await page.goto(path);
    await page.getByTestId(ready).waitFor();
    expect([path, ...(await stillEnglish(page))]).toEqual([path]);
  }
  await page.goto('/kept');
  await page.getByRole('heading', { name: 'Von einem Gast' }).waitFor();
  expect(await stillEnglish(page)).toEqual([]);
});
