/** What every test of the interface does: open things, drag blocks, type numbers. */
import { expect, type Page } from '@playwright/test';
import { readdirSync, readFileSync } from 'node:fs';
import { barrow } from '../core/kit/kit.ts';
import { newProject as emptyProject, type Project } from '../core/project.ts';
import { longAisle, mats } from '../core/yard/mats.ts';
import type { Marks } from '../src/lib/class/class.ts';
import { DEMO_TEACHER } from '../src/lib/server/demo.ts';

/** The shelf, once it takes clicks. */
export async function shelf(page: Page): Promise<void> {
  await page.goto('/');
  await page.locator('[data-stands]').waitFor();
}
/** The demo's teacher signs in. */
export async function asTeacher(page: Page): Promise<void> {
  await signIn(page, { teacher: DEMO_TEACHER.nickname, passphrase: DEMO_TEACHER.passphrase });
}
/** Signs in without the page: most tests are not about how one does. */
export async function signIn(page: Page, how: object): Promise<void> {
  const answer = await page.request.post('/api/session', { data: how });
  expect(answer.ok(), await answer.text()).toBe(true);
}
/** Begins a round of guessing in the demo's class. @returns the path of its page */
export async function roundOfDemo(teacher: Page): Promise<string> {
  const [{ id: project }] = (await (await teacher.request.get('/api/projects?demo')).json()) as { id: string }[];
  const answer = await teacher.request.post('/api/classes/demo-class/rounds', { data: { project } });
  return `/predict/${((await answer.json()) as { id: string }).id}`;
}
/** The page of something that was handed in in the demo's class. */
export async function handedInOfDemo(teacher: Page): Promise<string> {
  const { rows } = (await (await teacher.request.get('/api/classes/demo-class/marks')).json()) as Marks;
  const [{ handIn }] = rows.flatMap((row) => row.marks).filter((mark) => mark.handIn);
  return `/class/demo-class/hand-in/${handIn}`;
}
/** Makes a project that is shown by a link. @returns the path that opens it */
export async function linked(page: Page): Promise<string> {
  const data = emptyProject('Shown by link', barrow, longAisle);
  const { id } = (await (await page.request.post('/api/projects', { data })).json()) as { id: string };
  const { addresses } = (await (await page.request.post(`/api/projects/${id}/link`)).json()) as { addresses: string[] };
  return new URL(addresses[0]).pathname;
}
/** Puts a project on the shelf, and opens it: most tests are not about how it came there. */
export async function opened(page: Page, project: Project): Promise<string> {
  const answer = await page.request.post('/api/projects', { data: project });
  expect(answer.ok(), await answer.text()).toBe(true);
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`/project/${id}`);
  await page.locator('[data-testid=blocks][data-ready]').waitFor({ state: 'attached' });
  return page.url();
}
export async function newProject(page: Page, name: string): Promise<string> {
  const url = await opened(
    page,
    emptyProject(
      name,
      barrow,
      mats.find((mat) => mat.name === 'Long aisle')!
    )
  );
  await workbench(page);
  return url;
}
/** A new project by the dialog of the shelf. */
export async function startProject(page: Page, name: string, mat = 'Long aisle'): Promise<string> {
  await shelf(page);
  await page.getByRole('button', { name: 'Barrow two-wheeled robot' }).click();
  await page.getByLabel('What shall it be called?').fill(name);
  await page.getByRole('radio', { name: mat }).check();
  await page.getByRole('button', { name: 'Start the project' }).click();
  await workbench(page);
  return page.url();
}
/** Looks for words on the shelf, and waits until what was found stands there: nothing moves under the pointer after that. */
export async function find(page: Page, words: string): Promise<void> {
  const found = page.waitForResponse((r) => r.url().includes('/api/projects?') && r.url().includes('find='));
  await page.getByPlaceholder(/Find a project|Projekt suchen/).fill(words);
  await (await found).finished();
  await page.evaluate('new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))');
}
const DEMOS = new URL('../demo/projects/', import.meta.url);
const demos = readdirSync(DEMOS).map((file) => JSON.parse(readFileSync(new URL(file, DEMOS), 'utf8')) as Project);
/** A copy of a demo project, at whatever size the screen has. */
export async function demo(page: Page, name: string): Promise<void> {
  await opened(
    page,
    demos.find((project) => project.name === name)!
  );
}
export async function openDemo(page: Page, name: string): Promise<void> {
  await demo(page, name);
  await workbench(page);
}
export async function workbench(page: Page): Promise<void> {
  await page.waitForURL('**/project/**');
  await page.getByTestId('blocks').and(page.locator('[data-ready]')).waitFor();
  await page.getByPlaceholder('Find a block').waitFor();
  // fonts are there and the panes have their sizes: nothing moves under the pointer any more
  await page.evaluate(async () => {
    await document.fonts.ready;
    const place = () =>
      JSON.stringify(
        ['yard', 'blocks', 'robot'].map((id) => document.querySelector(`[data-testid=${id}]`)!.getBoundingClientRect())
      );
    let [before, same] = [place(), 0];
    while (same < 5) {
      await new Promise(requestAnimationFrame);
      same = place() === before ? same + 1 : 0;
      before = place();
    }
  });
}
/** Drags a card of the tray into the program, to a place in its pane. */
export async function dragCard(page: Page, section: string, title: string, x: number, y: number): Promise<void> {
  await page.getByRole('tab', { name: section, exact: true }).click();
  const found = page.locator('[data-card]').filter({ hasText: title }).first();
  await found.scrollIntoViewIfNeeded();
  const card = (await found.boundingBox())!;
  const pane = (await page.getByTestId('blocks').boundingBox())!;
  await page.mouse.move(card.x + 40, card.y + 12);
  await page.mouse.down();
  await page.mouse.move(card.x + 20, card.y + 14, { steps: 3 });
  await page.mouse.move(pane.x + x, pane.y + y, { steps: 10 });
  await page.mouse.move(pane.x + x + 1, pane.y + y + 1);
  await page.mouse.up();
}
/** Types into the n-th number of the n-th block of a kind. */
export async function typeNumber(page: Page, kind: string, nth: number, slot: number, value: string): Promise<void> {
  const id = await page.evaluate(
    ([kind, nth]) => {
      type Ws = { getAllBlocks(ordered: boolean): { type: string; id: string }[] };
      return (window as unknown as { mossbellWorkspace: Ws }).mossbellWorkspace
        .getAllBlocks(true)
        .filter((b) => b.type === kind)[nth as number].id;
    },
    [kind, nth] as const
  );
  await page
    .locator(`[data-id="${id}"] .blocklyShadow .blocklyFieldText, [data-id="${id}"] .blocklyShadow text`)
    .nth(slot)
    .click();
  const input = page.locator('.blocklyHtmlInput');
  await input.fill(value);
  await input.press('Enter');
}
export async function project(page: Page): Promise<Project> {
  // the block library tells of a gesture a frame later, and it becomes the program in the turn after that
  await page.evaluate(async () => {
    for (let i = 0; i < 4; i++) await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
  });
  await expect(page.getByTestId('saving')).toHaveText('saved');
  const id = /project\/([^/]+)/.exec(page.url())![1];
  return (await (await page.request.get(`${new URL(page.url()).origin}/api/projects/${id}`, { maxRetries: 3 })).json())
    .project;
}
export const kinds = (p: Project): string[][] => p.program.stacks.map((s) => s.steps.map((step) => step.kind));
export async function robot(page: Page): Promise<{ x: number; y: number; facing: number }> {
  const r = page.getByTestId('robot');
  return {
    x: Number(await r.getAttribute('data-x')),
    y: Number(await r.getAttribute('data-y')),
    facing: Number(await r.getAttribute('data-facing'))
  };
}
/** Rehearses as fast as it goes, to the end. */
export async function rehearse(page: Page, speed = 'max'): Promise<void> {
  await page.getByLabel('Speed').selectOption(speed);
  await page.getByTestId('rehearse').click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeDisabled({ timeout: 60_000 });
}

/** Chooses a name in a block's list, or makes a new one there. */
export async function nameIn(page: Page, kind: string, name: string): Promise<void> {
  await page
    .locator(`.${kind.replace('.', '\\.')} .blocklyDropdownText`)
    .first()
    .click();
  await page.locator('.mb-names input').fill(name);
  await page.locator('.mb-names input').press('Enter');
}
/** The log as the trace has it, through the run's file. */
export async function events(page: Page): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'More about the trace' }).click();
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const stream = await (await download).createReadStream();
  let text = '';
  for await (const part of stream) text += part;
  return text;
}
