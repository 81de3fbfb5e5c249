/** A class over the year: what is given back and comes again, remarks, marks, cards once more, a lesson's answers, the next year's class. */
import { expect, test, type Browser, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import type { PrintedCard } from '../src/lib/class/class.ts';
import { asTeacher, signIn, typeNumber, workbench } from './room.ts';

const somebody = async (browser: Browser): Promise<Page> => (await browser.newContext()).newPage();
test.afterEach(async ({ browser, context }) => {
  await Promise.all(browser.contexts().map((one) => one !== context && one.close()));
});
/** A class of the demo's teacher, with two pupils, each with a page. */
async function aClass(browser: Browser, name: string) {
  const teacher = await somebody(browser);
  await asTeacher(teacher);
  const post = async <T>(path: string, data: object): Promise<T> => {
    const answer = await teacher.request.post(path, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return (await answer.json()) as T;
  };
  const { id } = await post<{ id: string }>('/api/classes', { name });
  const cards = await post<PrintedCard[]>(`/api/classes/${id}/pupils`, { nicknames: ['Fern', 'Moss'] });
  await teacher.goto(`/class/${id}`);
  const code = (await teacher.getByTestId('code').textContent())!;
  const fern = await somebody(browser);
  await signIn(fern, { code, ...cards[0] });
  return { teacher, fern, id, cards, code, post };
}

test('what was handed in is looked at as it was, given back with a remark, answered, and comes again', async ({
  browser
}) => {
  const { teacher, fern, id } = await aClass(browser, 'Given back');
  // a project goes out, and each gets a copy
  await teacher.getByRole('button', { name: 'Give out' }).click();
  const what = teacher.getByRole('dialog').getByLabel('What');
  const value = (await what.locator('option', { hasText: 'Four keys' }).getAttribute('value'))!;
  expect(value).toMatch(/^project\//);
  await what.selectOption(value);
  await teacher.getByRole('button', { name: 'Give it out' }).click();
  await fern.goto('/');
  await fern.getByTestId('given-to-me').getByRole('button').first().click();
  await workbench(fern);
  const bar = fern.getByTestId('class-bar');
  await bar.getByRole('button', { name: 'Hand in' }).click();
  await fern.getByLabel('A note to your teacher, if you like').fill('As it came.');
  await fern.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click();
  await expect(fern.getByText('It is handed in as it is now.')).toBeVisible();

  await teacher.reload();
  await expect(teacher.getByTestId('collected')).toContainText('not seen yet');
  await teacher.getByTestId('collected').getByRole('link', { name: 'Fern' }).click();
  await expect(teacher.getByTestId('facts')).toContainText('“As it came.”');
  await expect(teacher.getByTestId('as-handed-in').getByRole('img', { name: 'The program Four keys' })).toBeVisible();
  await expect(teacher.getByTestId('as-now')).toContainText('The program is the same.');
  await teacher.getByRole('button', { name: 'Give it back' }).click();
  await teacher.getByLabel('What is to be done').fill('Make it slower.');
  await teacher.getByRole('button', { name: 'Give it back' }).last().click();
  await expect(teacher.getByTestId('facts')).toContainText('given back');

  // the pupil is told at once, answers, works, is done
  await expect(bar).toContainText('Your teacher gave it back');
  const remarks = fern.getByTestId('comments');
  await expect(remarks).toContainText('Ash: Make it slower.');
  await remarks.getByRole('button', { name: 'Answer' }).click();
  await fern.getByLabel('Answer').fill('How slow?');
  await fern.getByRole('button', { name: 'Say it' }).click();
  await expect(remarks).toContainText('Fern: How slow?');
  await teacher.getByRole('link', { name: 'Open the project' }).click();
  const teachers = teacher.getByTestId('comments');
  await expect(teachers).toContainText('Fern: How slow?');
  // one’s own words are changed, not the other’s
  await expect(teachers.getByRole('button', { name: 'What to do with this remark' })).toHaveCount(1);
  await teachers.getByRole('button', { name: 'What to do with this remark' }).click();
  await teacher.getByRole('button', { name: 'Change it' }).click();
  await teacher.getByLabel('Comment').fill('Make it half as fast.');
  await teacher.getByRole('button', { name: 'Say it' }).click();
  await expect(remarks).toContainText('Make it half as fast. (changed)');
  await remarks.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(remarks.locator('li')).toHaveCount(0);
  await fern.getByRole('button', { name: '1 remark is done' }).click();
  await expect(remarks).toContainText('Make it half as fast.');
  await bar.getByRole('button', { name: 'Hand in' }).click();
  await fern.getByRole('dialog').getByRole('button', { name: 'Hand in again' }).click();
  await expect(bar).not.toContainText('Your teacher gave it back');

  // taken off the shelf: what was handed in is still there
  const project = fern.url().split('/').at(-1)!;
  expect((await fern.request.delete(`/api/projects/${project}`)).ok()).toBe(true);
  await teacher.goto(`/class/${id}`);
  await teacher.getByTestId('collected').getByRole('link', { name: 'Fern' }).click();
  await expect(teacher.getByTestId('as-handed-in').getByRole('img', { name: 'The program Four keys' })).toBeVisible();
  await expect(teacher.getByTestId('as-now')).toContainText('The project was taken off the shelf.');
});

test('marks are seen and saved; a lesson’s answers too; cards are printed again; the class goes on next year', async ({
  browser
}) => {
  const { teacher, fern, id, cards, post } = await aClass(browser, 'Over the year');
  for (const [kind, target] of [
    ['errand', 'first-delivery'],
    ['lesson', 'first-wheels']
  ])
    await post(`/api/classes/${id}/given`, { kind, target });
  await fern.goto('/');
  await fern
    .getByTestId('given-to-me')
    .getByRole('button', { name: /First delivery/ })
    .click();
  await workbench(fern);
  await typeNumber(fern, 'drive.measure', 0, 0, '90');
  await fern.getByTestId('class-bar').getByRole('button', { name: 'Hand in' }).click();
  await fern.getByRole('dialog').getByRole('button', { name: 'Hand in' }).click();
  // a claim until the school computer has run it
  await teacher.goto(`/class/${id}/marks`);
  await expect(async () => {
    await teacher.reload();
    const row = teacher.getByTestId('marks').getByRole('row', { name: /Fern/ });
    await expect(row).toContainText(/of 2 goals/, { timeout: 1000 });
    await expect(row).not.toContainText('as the browser said', { timeout: 1000 });
  }).toPass();
  const saving = teacher.waitForEvent('download');
  await teacher.getByRole('link', { name: 'Save as CSV' }).click();
  const csv = readFileSync((await (await saving).path())!, 'utf8');
  expect(csv.startsWith('\ufeffNickname,Group,First delivery: goals met')).toBe(true);
  expect(csv).toMatch(/\r\nFern,,[01],2,/);

  // what is read and answered is kept, also for another browser
  await fern.goto('/lesson/first-wheels');
  const steps = fern.getByRole('navigation', { name: 'Steps of the lesson' });
  await fern.getByRole('button', { name: 'Next step' }).click();
  await expect(steps.getByText('done')).toHaveCount(1);
  const again = await somebody(browser);
  await again.context().addCookies(await fern.context().cookies());
  await expect(async () => {
    await again.goto('/lesson/first-wheels');
    await expect(again.getByRole('navigation', { name: 'Steps of the lesson' }).getByText('done')).toHaveCount(1, {
      timeout: 2000
    });
  }).toPass();
  await teacher.goto(`/class/${id}`);
  await teacher.getByRole('link', { name: 'What was answered' }).click();
  await expect(teacher.getByTestId('answers').getByRole('row', { name: /Fern/ }).getByRole('cell').first()).toHaveText(
    '1'
  );

  // the same words on paper once more
  await teacher.goto(`/class/${id}`);
  await teacher.getByRole('button', { name: 'More of this class' }).click();
  await teacher.getByRole('button', { name: 'All cards once more' }).click();
  for (const { nickname, words } of cards)
    await expect(teacher.getByTestId('cards').locator('li', { hasText: nickname })).toContainText(words);
  await teacher.getByRole('button', { name: 'Close' }).click();
  // a link of a pupil's is seen, and taken back
  const { id: own } = (await (await fern.request.get('/api/projects')).json())[0] as { id: string };
  const { addresses } = (await (await fern.request.post(`/api/projects/${own}/link`)).json()) as {
    addresses: string[];
  };
  await teacher.reload();
  await teacher.getByTestId('links').getByRole('button', { name: 'Take the link back' }).click();
  await expect(teacher.getByTestId('links')).toHaveCount(0);
  expect((await fern.request.get(`/api${new URL(addresses[0]).pathname}`)).status()).toBe(404);

  // the next year
  await teacher.getByRole('button', { name: 'More of this class' }).click();
  await teacher.getByRole('button', { name: 'A class like this one' }).click();
  await teacher.getByLabel('What is the class called?').fill('The year after');
  await teacher.getByRole('button', { name: 'Make it' }).click();
  await expect(teacher.getByRole('heading', { name: 'The year after' })).toBeVisible();
  await expect(teacher.getByTestId('pupils')).toContainText('Fern');
  await expect(teacher.getByTestId('given')).toContainText('ended');
  // one goes to the other class, where somebody has the name: nothing happens before that is mended
  await teacher.getByRole('button', { name: 'What to do with Moss' }).click();
  await teacher.getByRole('button', { name: 'To another class' }).click();
  await teacher.getByLabel('To which class').selectOption({ label: 'Over the year' });
  await teacher.getByRole('button', { name: 'Move' }).click();
  await expect(teacher.getByRole('dialog')).toContainText('There is a Moss in that class.');
  await teacher.getByRole('button', { name: 'Leave it' }).click();
  await expect(teacher.getByTestId('pupils')).toContainText('Moss');
  // everything of one is a file
  const all = teacher.waitForEvent('download');
  await teacher.getByRole('button', { name: 'What to do with Fern' }).click();
  await teacher.getByRole('link', { name: 'Everything as a file' }).click();
  expect((await all).suggestedFilename()).toBe('Fern.zip');
});
