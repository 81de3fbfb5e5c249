/** A lesson's hour, with a teacher and five pupils, each in a browser of their own. */
import { expect, test, type Browser, type Page } from '@playwright/test';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { connect, createServer, type AddressInfo, type Socket } from 'node:net';
import { join } from 'node:path';
import { DATA } from '../playwright.config.ts';
import { DEMO_TEACHER } from '../src/lib/server/demo.ts';
import type { PrintedCard } from '../src/lib/class/class.ts';
import { asTeacher, newProject, rehearse, signIn, typeNumber, workbench } from './room.ts';

const somebody = async (browser: Browser): Promise<Page> => (await browser.newContext()).newPage();
// who came in would stay, and go on listening
test.afterEach(async ({ browser, context }) => {
  await Promise.all(browser.contexts().map((one) => one !== context && one.close()));
});
/** Everything that stands in the database and beside it. */
const onDisk = (): string =>
  ['', '-wal'].map((end) => readFileSync(join(DATA, `mossbell.sqlite${end}`), 'latin1')).join('');

test('a teacher makes a class, five come in, work, hand in and are helped; then all of it goes', async ({
  browser
}) => {
  const teacher = await somebody(browser);
  await teacher.goto('/class');
  // who is not signed in is led to where one does
  await expect(teacher.getByRole('heading', { name: 'Sign in as a teacher' })).toBeVisible();
  await teacher.getByLabel('Name').fill(DEMO_TEACHER.nickname.toUpperCase());
  await teacher.getByLabel('Passphrase').fill('not this one');
  await teacher.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(teacher.getByRole('alert')).toHaveText('This is not the passphrase of this teacher.');
  await teacher.getByLabel('Passphrase').fill(DEMO_TEACHER.passphrase);
  await teacher.getByRole('button', { name: 'Sign in', exact: true }).click();
  await teacher.getByRole('button', { name: 'Make a class' }).click();
  await teacher.getByRole('dialog').getByLabel('name').fill('Thursday pots');
  await teacher.getByRole('button', { name: 'Done' }).click();
  await teacher.getByRole('button', { name: 'Add pupils' }).click();
  await teacher.getByLabel('How many').fill('3');
  await teacher.getByRole('button', { name: 'Draw names' }).click();
  await expect(teacher.getByLabel('Nicknames')).toHaveValue(/^\S+\n\S+\n\S+$/);
  await teacher.getByLabel('Nicknames').fill('Quillwort\nSundew\nButterbur\nWaxwing\nQuillwort');
  await teacher.getByRole('button', { name: 'Add, and show the cards' }).click();
  await expect(teacher.getByRole('dialog')).toContainText('There are two called Quillwort.');
  await teacher.getByLabel('Nicknames').fill('Quillwort\nSundew\nButterbur\nWaxwing\nGoldcrest');
  await teacher.getByRole('button', { name: 'Add, and show the cards' }).click();
  await expect(teacher.getByTestId('cards').locator('li')).toHaveCount(5);
  const cards = await teacher
    .getByTestId('cards')
    .locator('li')
    .evaluateAll((list) =>
      list.map((li) => ['nickname', 'words'].map((what) => li.querySelector(`[data-${what}]`)!.textContent!.trim()))
    );
  expect(cards.map(([name]) => name)).toEqual(['Quillwort', 'Sundew', 'Butterbur', 'Waxwing', 'Goldcrest']);
  for (const [, words] of cards) expect(words).toMatch(/^[a-z]+ [a-z]+ [a-z]+$/);
  // on paper there are the cards alone, all of them
  await teacher.emulateMedia({ media: 'print' });
  await expect(teacher.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(teacher.getByTestId('pupils')).toBeHidden();
  const pages = (await teacher.pdf({ preferCSSPageSize: true })).toString('latin1').match(/\/Type \/Page\b/g)!.length;
  expect(pages).toBe(1);
  await teacher.emulateMedia({ media: 'screen' });
  await teacher.getByRole('button', { name: 'Close' }).click();
  const code = (await teacher.getByTestId('code').textContent())!;
  const classUrl = teacher.url();

  // each by the form, and one by the card's QR code: what it holds opens the shelf at once
  const pupils = await Promise.all(cards.map(() => somebody(browser)));
  const [quillwort, sundew, butterbur, waxwing, goldcrest] = pupils;
  await Promise.all(
    pupils.map(async (page, i) => {
      const [name, words] = cards[i];
      if (page === goldcrest) await page.goto(`/sign-in?code=${code}#${name}/${words.replaceAll(' ', '-')}`);
      else {
        await page.goto('/sign-in');
        await page.getByLabel('Class code').fill(code.toLowerCase());
        await page.getByLabel('Nickname').fill(name);
        await page.getByLabel('The three words').fill(words.toUpperCase());
        await page.getByRole('button', { name: 'Sign in', exact: true }).click();
      }
      await expect(page.getByTestId('me')).toHaveText(`${name} · Thursday pots`);
      await expect(page.getByText('Nothing at the moment. What comes appears here by itself.')).toBeVisible();
    })
  );
  expect(goldcrest.url()).not.toContain('#');

  // what is given out stands on each shelf by itself
  await teacher.getByRole('button', { name: 'Give out' }).click();
  await teacher.getByRole('dialog').getByLabel('What').selectOption('errand/first-delivery');
  await teacher.getByRole('button', { name: 'Give it out' }).click();
  await expect(teacher.getByTestId('given')).toContainText('First delivery');
  await Promise.all(
    pupils.map(async (page) => {
      await page
        .getByTestId('given-to-me')
        .getByRole('button', { name: /First delivery/ })
        .click();
      await workbench(page);
    })
  );
  await teacher.getByRole('link', { name: 'The wall' }).click();
  const card = (name: string) => teacher.getByTestId('wall').locator(`[data-pupil=${name}]`);
  await expect(teacher.getByTestId('counts')).toContainText('5 of 5 here');

  // one solves it and hands it in
  await typeNumber(quillwort, 'drive.measure', 0, 0, '62');
  await rehearse(quillwort);
  await expect(card('Quillwort')).toContainText('2/2');
  await expect(card('Quillwort')).toContainText('1 try');
  await quillwort.getByRole('button', { name: 'Hand in' }).click();
  await quillwort.getByLabel('A note to your teacher, if you like').fill('It rolls a little.');
  await quillwort.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click();
  await expect(card('Quillwort')).toContainText('handed in');
  // another one hands in what does not, withdraws it, and hands in again
  await typeNumber(sundew, 'drive.measure', 0, 0, '90');
  await rehearse(sundew);
  await expect(card('Sundew')).toContainText('1/2');
  await expect(card('Sundew')).toContainText('rolled on');
  for (const again of [false, true]) {
    await sundew.getByTestId('class-bar').getByRole('button', { name: 'Hand in' }).click();
    if (again) {
      await sundew.getByRole('button', { name: 'Withdraw' }).click();
      await expect(sundew.getByRole('button', { name: 'Withdraw' })).toHaveCount(0);
    }
    await sundew
      .getByRole('dialog')
      .getByRole('button', { name: again ? 'Hand in again' : 'Hand in' })
      .click();
    await expect(sundew.getByRole('dialog')).toBeHidden();
  }
  // a third one puts the hand up, and comes first
  await butterbur.evaluate('window.before = window.mossbellWorkspace');
  await butterbur.getByRole('button', { name: 'Hand up' }).click();
  await expect(butterbur.getByRole('button', { name: 'Hand is up' })).toBeVisible();
  // the workbench, its history and its run are what they were
  expect(await butterbur.evaluate('window.before === window.mossbellWorkspace')).toBe(true);
  await expect(card('Butterbur')).toContainText('Hand up');
  await expect(teacher.getByTestId('wall').locator('li').first()).toHaveAttribute('data-pupil', 'Butterbur');
  await teacher.getByRole('button', { name: 'Hide names' }).click();
  await expect(teacher.getByTestId('wall')).not.toContainText('Butterbur');
  await teacher.getByRole('button', { name: 'Show names' }).click();

  // the teacher opens the card: program, live, only to look at
  await card('Butterbur').getByRole('link').click();
  await expect(teacher.getByTestId('class-bar')).toContainText('Butterbur’s program');
  await expect(teacher.getByTestId('saving')).toHaveText('only to look at');
  const block = teacher.locator('.drive\\.measure').first();
  await block.waitFor();
  await typeNumber(butterbur, 'drive.measure', 0, 0, '47');
  await expect(block).toContainText('47');
  await typeNumber(teacher, 'drive.measure', 0, 0, '99');
  await expect(block).toContainText('47');
  await rehearse(butterbur);
  await expect(teacher.getByTestId('clock')).not.toHaveText('00:00.00');
  // a comment on the block; the pupil sees it, and where
  await block
    .locator('.blocklyPath')
    .first()
    .click({ position: { x: 12, y: 12 } });
  await teacher.getByRole('button', { name: 'Comment' }).click();
  await teacher.getByLabel('Comment', { exact: true }).fill('How far is it to the bench?');
  await teacher.getByRole('button', { name: 'Say it' }).click();
  await expect(butterbur.getByTestId('comments')).toContainText('Ash: How far is it to the bench?');
  await expect(butterbur.getByTestId('comments')).toContainText('drive ahead 47 cm');
  await teacher.getByRole('button', { name: 'Point at the block' }).click();
  await expect(butterbur.locator('.mb-pointed')).toHaveCount(1);
  await butterbur.getByTestId('comments').getByRole('button', { name: 'Done' }).click();
  await expect(butterbur.getByTestId('comments').locator('li')).toHaveCount(0);
  // shown to the room with the pupil's yes
  const shownUrl = butterbur.url();
  await waxwing.goto(shownUrl);
  await expect(waxwing.getByText('There is no such project on this computer.')).toBeVisible();
  await waxwing.goto('/');
  await waxwing.getByTestId('given-to-me').waitFor();
  await teacher.getByRole('button', { name: 'Show it to the room' }).click();
  await butterbur.getByRole('button', { name: 'Yes' }).click();
  await expect(butterbur.getByText('The room sees this program.')).toBeVisible();
  await waxwing.getByRole('link', { name: 'Look at it' }).click();
  await expect(waxwing.getByTestId('class-bar')).toContainText('Butterbur’s program');
  await butterbur.getByRole('button', { name: 'Enough' }).click();
  await expect(butterbur.getByText('The room sees this program.')).toHaveCount(0);

  // all that was handed in runs again
  await teacher.goto(classUrl);
  await expect(teacher.getByTestId('collected').getByRole('link')).toHaveText(['Sundew', 'Quillwort']);
  await expect(teacher.getByTestId('collected')).toContainText('“It rolls a little.”');
  await teacher.getByRole('button', { name: 'Run all of it again' }).click();
  const row = (name: string) => teacher.getByTestId('collected').locator('tr').filter({ hasText: name });
  await expect(row('Quillwort').getByText('not met')).toHaveCount(0);
  await expect(row('Quillwort').getByText('met', { exact: true })).toHaveCount(2);
  await expect(row('Sundew').getByText('not met')).toHaveCount(1);
  const download = teacher.waitForEvent('download');
  await teacher.getByRole('link', { name: 'Save as CSV' }).click();
  const csv = readFileSync(await (await download).path(), 'utf8').split('\r\n');
  expect(csv[0]).toBe(
    '\ufeffNickname,Stop in the hoop bench,Touch nothing,all goals,s,blocks,x cm,y cm,what there is to know'
  );
  expect(csv[1]).toMatch(/^Quillwort,1,1,1,\d\.\d\d,1,/);
  expect(csv[2]).toMatch(/^Sundew,0,1,0,,1,/);

  // what the class shows
  await teacher.getByRole('link', { name: 'What the class shows' }).click();
  await expect(teacher.getByTestId('missed')).toContainText('2 of 3 not yet');
  await expect(teacher.getByTestId('missed')).toContainText('Butterbur, Sundew');
  await expect(teacher.getByTestId('found')).toContainText('3 pupils');
  await expect(teacher.getByTestId('stops').locator('path[data-met][opacity="0.95"]')).toHaveCount(3);
  await expect(teacher.getByTestId('tried').locator('path[data-met]')).toHaveCount(3);
  await expect(teacher.getByTestId('beside').locator('svg.blocklySvg, svg').first()).toBeVisible();

  // the class goes with everything
  expect(onDisk()).toContain('Quillwort');
  await teacher.goto(classUrl);
  await teacher.getByRole('button', { name: 'More of this class' }).click();
  await teacher.getByRole('button', { name: 'Delete this class with everything' }).click();
  await expect(teacher.getByRole('button', { name: 'Delete it' })).toBeDisabled();
  await teacher.getByLabel(/To go on, write the name/).fill('Thursday pots');
  await teacher.getByRole('button', { name: 'Delete it' }).click();
  await expect(teacher.getByRole('link', { name: /Tuesday workshop/ })).toBeVisible();
  await expect(teacher.getByText('Thursday pots')).toHaveCount(0);
  await expect
    .poll(onDisk)
    .not.toMatch(/Quillwort|Sundew|Butterbur|Waxwing|Goldcrest|Thursday pots|How far is it to the bench/);
  await goldcrest.goto('/');
  await expect(goldcrest.getByRole('link', { name: 'Sign in' })).toBeVisible();
});

/** A class of the demo's teacher with some pupils, each signed in on a page of their own. */
async function classOf(teacher: Page, browser: Browser, name: string, nicknames: string[]) {
  await asTeacher(teacher);
  const { id } = (await (await teacher.request.post('/api/classes', { data: { name } })).json()) as { id: string };
  const answer = await teacher.request.post(`/api/classes/${id}/pupils`, { data: { nicknames } });
  const cards = (await answer.json()) as PrintedCard[];
  await teacher.goto(`/class/${id}`);
  const code = (await teacher.getByTestId('code').textContent())!;
  const pupils = await Promise.all(
    cards.map(async ({ nickname, words }) => {
      const page = await somebody(browser);
      await signIn(page, { code, nickname, words });
      await page.goto('/');
      await page.getByText('Nothing at the moment.').waitFor();
      return page;
    })
  );
  return { id, code, cards, pupils };
}
const give = (teacher: Page, id: string, data: object) =>
  teacher.request.post(`/api/classes/${id}/given`, { data: { kind: 'errand', target: 'first-delivery', ...data } });
const blockText = (page: Page) => page.locator('.drive\\.measure').first();

test('a pair works at one project: one drives, the other sees it at once, and they change over', async ({
  page: teacher,
  browser
}) => {
  const { id, pupils } = await classOf(teacher, browser, 'Pairs', ['Siskin', 'Plover']);
  const [siskin, plover] = pupils;
  await teacher.getByLabel('With whom Siskin works').selectOption({ label: 'Plover' });
  await expect(teacher.getByLabel('With whom Plover works').locator('option:checked')).toHaveText('Siskin');
  expect((await give(teacher, id, {})).status()).toBe(201);
  for (const page of [siskin, plover]) {
    await page
      .getByTestId('given-to-me')
      .getByRole('button', { name: /First delivery/ })
      .click();
    await page.getByTestId('class-bar').waitFor();
    await blockText(page).waitFor();
  }
  expect(plover.url()).toBe(siskin.url());
  await expect(siskin.getByTestId('class-bar')).toContainText('you drive, Plover looks on');
  await expect(plover.getByTestId('class-bar')).toContainText('Siskin drives, you look on');
  await typeNumber(siskin, 'drive.measure', 0, 0, '51');
  await expect(blockText(plover)).toContainText('51');
  // who looks on changes nothing
  await typeNumber(plover, 'drive.measure', 0, 0, '99');
  await expect(blockText(plover)).toContainText('51');
  await plover.getByRole('button', { name: 'Drive' }).click();
  await expect(siskin.getByTestId('class-bar')).toContainText('Plover drives, you look on');
  await expect(plover.getByTestId('saving')).toHaveText('saved');
  await typeNumber(plover, 'drive.measure', 0, 0, '64');
  await expect(blockText(siskin)).toContainText('64');
  await expect(siskin.getByTestId('saving')).toHaveText('only to look at');
  // it stands on both shelves; the wall shows both at it
  await siskin.goto('/');
  await expect(siskin.getByTestId('card')).toHaveCount(1);
  await teacher.goto(`/class/${id}/wall`);
  for (const name of ['Siskin', 'Plover'])
    await expect(teacher.getByTestId('wall').locator(`[data-pupil=${name}]`)).toContainText('First delivery');
});

test('what is given out is open from its hour to its end, for its group; a new card ends the old one', async ({
  page: teacher,
  browser
}) => {
  const { id, code, cards, pupils } = await classOf(teacher, browser, 'Hours', ['Rowan', 'Tansy']);
  const [rowan, tansy] = pupils;
  const HOUR = 3_600_000;
  await teacher.getByLabel('Group of Rowan').fill('Early');
  await teacher.getByLabel('Group of Rowan').press('Enter');
  await give(teacher, id, { group: 'Early' });
  await give(teacher, id, { target: 'stop-short', fromAt: Date.now() + HOUR });
  await give(teacher, id, { target: 'there-and-back', fromAt: Date.now() - 2 * HOUR, untilAt: Date.now() - HOUR });
  expect((await give(teacher, id, { untilAt: 1 })).status()).toBe(400);
  expect((await give(teacher, id, { target: 'nowhere' })).status()).toBe(404);
  await expect(rowan.getByTestId('given-to-me').getByRole('listitem')).toHaveText([/First delivery/]);
  await expect(tansy.getByTestId('given-to-me').getByRole('listitem')).toHaveCount(0);
  await give(teacher, id, { kind: 'lesson', target: 'first-wheels', untilAt: Date.now() + HOUR });
  await tansy.getByTestId('given-to-me').getByRole('button', { name: /until/ }).click();
  await expect(tansy).toHaveURL(/lesson\/first-wheels/);
  await teacher.reload();
  await teacher.getByRole('button', { name: 'What to do with Rowan' }).click();
  await teacher.getByRole('button', { name: 'A new card' }).click();
  const words = (await teacher.getByTestId('cards').locator('[data-words]').textContent())!;
  expect(words).not.toBe(cards[0].words);
  const old = await rowan.request.post('/api/session', { data: { code, nickname: 'Rowan', words: cards[0].words } });
  expect(old.status()).toBe(403);
  // who was signed in with the old one is a guest now
  await rowan.goto('/');
  await expect(rowan.getByRole('link', { name: 'Sign in' })).toBeVisible();
  await signIn(rowan, { code, nickname: 'Rowan', words });
});

test('names of every language come in as they are typed, are one in whatever capitals, and can be changed', async ({
  page: teacher,
  browser
}) => {
  const { id, code, cards } = await classOf(teacher, browser, 'Names', ['Özlem', 'Łukasz', 'Zoe\u0301']);
  const comes = async (nickname: string, words: string) => {
    const page = await somebody(browser);
    await signIn(page, { code, nickname, words });
    await page.goto('/');
    await page.getByText('Nothing at the moment.').waitFor();
  };
  for (const [i, typed] of ['özlem', 'ŁUKASZ', 'ZOÉ'].entries()) await comes(typed, cards[i].words);
  await teacher.getByRole('button', { name: 'Add pupils' }).click();
  await teacher.getByLabel('Nicknames').fill('zoé');
  await teacher.getByRole('button', { name: 'Add, and show the cards' }).click();
  await expect(teacher.getByRole('dialog')).toContainText('There are two called zoé.');
  await teacher.keyboard.press('Escape');
  const rename = async (from: string, to: string) => {
    await teacher.getByRole('button', { name: `What to do with ${from}` }).click();
    await teacher.getByRole('button', { name: 'Another name' }).last().click();
    await teacher.getByRole('dialog').getByLabel('name').fill(to);
    await teacher.getByRole('button', { name: 'Done' }).click();
  };
  await rename('Zoé', 'ÖZLEM');
  await expect(teacher.getByRole('alert')).toContainText('There are two called ÖZLEM.');
  await rename('Zoé', 'Émile');
  await expect(teacher.getByTestId('pupils').getByRole('row')).toContainText(['', 'Émile', 'Łukasz', 'Özlem']);
  // the words of the card stay
  await comes('émile', cards[2].words);
  // and what no page sends
  const put = (data: object) => teacher.request.patch(`/api/classes/${id}/pupils/nobody`, { data });
  expect((await put({ nickname: 'Wren' })).status()).toBe(404);
});

test('what was given out is taken back after it was begun: what was handed in stays', async ({
  page: teacher,
  browser
}) => {
  const { id, pupils } = await classOf(teacher, browser, 'Taken back', ['Rook']);
  await give(teacher, id, {});
  const [rook] = pupils;
  await rook
    .getByTestId('given-to-me')
    .getByRole('button', { name: /First delivery/ })
    .click();
  await workbench(rook);
  const project = rook.url().split('/').at(-1)!;
  expect((await rook.request.post(`/api/projects/${project}/hand-ins`, { data: { note: 'Mine' } })).status()).toBe(201);
  await teacher.reload();
  await teacher.getByRole('button', { name: 'What to do with First delivery' }).click();
  await teacher.getByRole('button', { name: 'Take it back' }).click();
  await teacher.getByRole('button', { name: 'Leave it' }).click();
  await expect(teacher.getByTestId('given').getByRole('listitem')).toHaveCount(1);
  await teacher.getByRole('button', { name: 'What to do with First delivery' }).click();
  await teacher.getByRole('button', { name: 'Take it back' }).click();
  await teacher.getByRole('button', { name: 'Take it back', exact: true }).last().click();
  await expect(teacher.getByTestId('given').getByRole('listitem')).toHaveCount(0);
  await expect(teacher.getByTestId('elsewhere')).toContainText('Rook');
  await expect(teacher.getByTestId('elsewhere')).toContainText('“Mine”');
  await rook.goto('/');
  await expect(rook.getByTestId('card')).toHaveCount(1);
});

test('the class predicts together: each marks a place, one run decides, and the spread is drawn', async ({
  page: teacher,
  browser
}) => {
  const { id, pupils } = await classOf(teacher, browser, 'Guesses', ['Finch', 'Heron', 'Swift']);
  await teacher.getByRole('button', { name: 'More of this class' }).click();
  await teacher.getByRole('button', { name: 'Predict together' }).click();
  const choice = teacher.getByLabel('Which program');
  await expect(choice.locator('option', { hasText: 'Back to the mark' })).toHaveCount(1);
  await choice.selectOption({ label: 'Back to the mark' });
  await teacher.getByRole('button', { name: 'Ask the class' }).click();
  await expect(teacher.getByTestId('guessed')).toHaveText('0 of 3 have guessed');
  // who opens the shelf later is asked too
  await pupils[0].reload();
  for (const [i, page] of pupils.entries()) {
    await page.getByRole('link', { name: 'Guess with them' }).click();
    const mat = page.getByRole('application');
    const box = (await mat.boundingBox())!;
    await mat.click({ position: { x: box.width * (0.3 + 0.1 * i), y: box.height / 2 } });
    await page.getByRole('button', { name: 'That is my guess' }).click();
    await expect(teacher.getByTestId('guessed')).toHaveText(`${i + 1} of 3 have guessed`);
    // nobody sees what others guessed before it ran
    const told = (await (await page.request.get(`/api/rounds/${page.url().split('/').at(-1)}`)).json()) as object;
    expect(Object.keys(told)).not.toContain('guesses');
  }
  await teacher.getByRole('button', { name: 'Let it run' }).click();
  for (const page of [teacher, ...pupils]) {
    await expect(page.getByText(/Half of 3 guesses were within \d+ cm/)).toBeVisible();
    await expect(page.getByTestId('guess')).toHaveCount(3);
    await expect(page.getByTestId('spread')).toHaveCount(1);
  }
  await expect(pupils[0].getByText(/Yours was \d+\.\d cm off/)).toBeVisible();
  const late = await pupils[0].request.put(`/api/rounds/${pupils[0].url().split('/').at(-1)}`, {
    data: { x: 0, y: 0 }
  });
  expect(late.status()).toBe(409);
  await teacher.goto(`/class/${id}`);
});

test('a project is shown by a link: looked at, tried, and copied with where it came from, until the link is taken back', async ({
  page,
  browser
}) => {
  await newProject(page, 'Shown by link');
  await page.getByRole('button', { name: 'More of Moss Bell' }).click();
  await page.getByRole('button', { name: 'A link for the room' }).click();
  const link = new URL(await page.getByTestId('link').last().inputValue()).pathname;
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  const other = await somebody(browser);
  await other.goto(link);
  await expect(other.getByTestId('program')).toContainText('Shown by link');
  await other.getByRole('button', { name: 'Copy it to my shelf' }).click();
  await workbench(other);
  expect(other.url()).not.toBe(page.url());
  await other.goto('/');
  await expect(other.getByTestId('card')).toContainText('copied from Shown by link');
  await page.getByRole('button', { name: 'More of Moss Bell' }).click();
  await page.getByRole('button', { name: 'A link for the room' }).click();
  await page.getByRole('button', { name: 'Take the link back' }).click();
  await expect(page.getByText('The link opens nothing any more.')).toBeVisible();
  await other.goto(link);
  await expect(other.getByText('This link opens nothing any more.')).toBeVisible();
});

test('an errand of one’s own is passed on by a link, and done by who took it', async ({ page, browser }) => {
  const errand = JSON.parse(
    readFileSync(new URL('../demo/errands/first-delivery.mossbell-errand.json', import.meta.url), 'utf8')
  ) as object;
  const made = await page.request.post('/api/errands', { data: { ...errand, name: 'Pots for the bench' } });
  const { id } = (await made.json()) as { id: string };
  await page.goto('/');
  await page
    .locator(`[data-errand="${id}"]`)
    .getByRole('button', { name: /^What to do with/ })
    .click();
  await page.getByRole('button', { name: 'A link for the room' }).click();
  const link = new URL(await page.getByTestId('link').last().inputValue()).pathname;
  const other = await somebody(browser);
  // it is not on everybody's shelf
  expect((await other.request.get(`/api/errands/${id}`)).status()).toBe(404);
  // its solution comes by no way to who is to do it
  expect((await other.request.get('/api/errands/first-delivery')).status()).toBe(403);
  for (const way of ['/api/lessons/first-wheels?teacher&errands', '/api/errands'])
    expect(await (await other.request.get(way)).text()).not.toContain('"model"');
  await other.goto(link);
  await expect(other.getByTestId('errand')).toContainText('Stop in the hoop bench');
  await other.getByRole('button', { name: 'Copy it to my shelf' }).click();
  await other.getByRole('button', { name: /Pots for the bench Carry the pot/ }).click();
  await workbench(other);
});

test('what was begun before signing in is taken along by who says that it is theirs', async ({
  page: teacher,
  browser
}) => {
  const { code, cards } = await classOf(teacher, browser, 'Early', ['Nettle']);
  const page = await somebody(browser);
  const url = await newProject(page, 'Begun early');
  await signIn(page, { code, nickname: 'Nettle', words: cards[0].words });
  // it is not theirs by itself
  expect((await page.request.get(new URL(url).pathname.replace('project', 'api/projects'))).status()).toBe(404);
  await page.goto('/');
  const told = page.getByText('Made in this browser just before you signed in: Begun early');
  await page.getByRole('button', { name: 'It is mine: take it to my shelf' }).click();
  await expect(page.getByTestId('card')).toContainText('Begun early');
  await expect(told).toHaveCount(0);
  await page.goto(url);
  await workbench(page);
  await page.request.delete('/api/session');
  await page.goto('/');
  await expect(page.getByText('Your projects will stand here')).toBeVisible();
});

test('the wall says when it is cut off, and catches up by itself', async ({ page: teacher, browser, baseURL }) => {
  const { id, pupils } = await classOf(teacher, browser, 'Cut off', ['Nettle']);
  // the line between the wall and the computer: it can be cut, and mended
  const to = Number(new URL(baseURL!).port);
  const open = new Set<Socket>();
  let whole = true;
  const line = createServer((near) => {
    if (!whole) return void near.destroy();
    const far = connect(to, 'localhost');
    for (const socket of [near, far]) {
      open.add(socket);
      socket.on('error', () => socket.destroy()).on('close', () => open.delete(socket));
    }
    near.pipe(far).pipe(near);
  }).listen(0);
  await once(line, 'listening');
  const cut = () => {
    whole = false;
    open.forEach((socket) => socket.destroy());
  };
  try {
    // it hears: all of the page is there
    const hears = teacher.waitForResponse((r) => r.url().endsWith(`/api/classes/${id}/live`));
    await teacher.goto(`http://localhost:${(line.address() as AddressInfo).port}/class/${id}/wall`);
    await hears;
    const card = teacher.getByTestId('wall').locator('[data-pupil=Nettle]');
    await expect(card).toContainText('has not begun');
    await expect(card.getByTitle('is here')).toHaveCount(1);
    cut();
    await expect(teacher.getByText('What stands here is what was last told')).toBeVisible();
    expect((await pupils[0].request.patch('/api/me', { data: { handUp: true } })).status()).toBe(204);
    await expect(card).not.toContainText('Hand up');
    whole = true;
    await expect(card).toContainText('Hand up');
    await expect(teacher.getByText('What stands here is what was last told')).toHaveCount(0);
    await teacher.getByRole('button', { name: /^Seen/ }).click();
    await expect(card).not.toContainText('Hand up');
    await pupils[0].close();
    await expect(card.getByTitle('is not here')).toHaveCount(1);
  } finally {
    open.forEach((socket) => socket.destroy());
    line.close();
  }
});
