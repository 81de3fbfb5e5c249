/** Whatever is done, undone and done again, in whatever order: the screen, the project and what is saved are one program. */
import { expect, test, type Page } from '@playwright/test';
import fc from 'fast-check';
import type { Program } from '../core/language/program.ts';
import { barrow } from '../core/kit/kit.ts';
import { newProject } from '../core/project.ts';
import { anyProgram } from '../core/testing/random.ts';
import { b, cmp, log, program, start, sum, variable, wait } from '../core/testing/build.ts';
import { longAisle } from '../core/yard/mats.ts';
import { project, workbench } from './room.ts';

async function open(page: Page, p: Program): Promise<void> {
  const data = { ...newProject('Undone', barrow, longAisle), program: p };
  const made = await page.request.post('/api/projects', { data });
  expect(made.status(), await made.text()).toBe(201);
  await page.goto(`/project/${((await made.json()) as { id: string }).id}`);
  await workbench(page);
}
/** What is seen, without places, which a tidied sheet may round: blocks by id, what they hold, in which order. */
const SHAPE = `(p) => JSON.stringify({
  stacks: p.stacks.filter((s) => s.steps.length).map((s) => [s.parked ?? false, s.steps]).sort((a, b) => (a[1][0].id < b[1][0].id ? -1 : 1)),
  routines: p.routines.map((r) => [r.id, r.name, r.steps]).sort((a, b) => (a[0] < b[0] ? -1 : 1)),
  loose: p.loose.map((l) => l.value).sort((a, b) => (a.id < b.id ? -1 : 1))
}, (_, v) => (v && typeof v === 'object' && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort()) : v))`;

test('what is taken out with the values that it holds comes back whole', async ({ page }) => {
  const problems: string[] = [];
  page.on('pageerror', (e) => problems.push(e.message));
  const near = () => cmp(b('sense.distance'), '<', 20);
  const p = program(
    start(
      b('repeat.until', { condition: near() }, { do: [wait(0.1), log(sum(variable('v1'), '+', 1))] }),
      b('repeat.times', { count: sum(1, '+', 2) }, { do: [wait(1)] }),
      log(variable('v1')),
      b('var.change', { amount: sum(1, '+', variable('v1')) }),
      b('choose.if', { if1: near() }, { then1: [b('repeat.while', { condition: near() }, { do: [] })] })
    )
  );
  await open(page, p);
  const all = p.stacks[0].steps.slice(1).map((s) => s.id);
  const blocks = page.locator('.blocklyDraggable:not(.blocklyShadow)');
  const count = await blocks.count();
  for (const id of all) {
    await page.evaluate(`mossbellEditor.act.remove(['${id}'])`);
    await expect(page.locator(`[data-id="${id}"]`)).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(page.locator(`[data-id="${id}"]`)).toHaveCount(1);
    await expect(blocks).toHaveCount(count);
  }
  // and by hand: chosen, taken out by its key, brought back, and the next change keeps it in what is saved
  await page.evaluate(`mossbellEditor.act.remove(['${all[0]}'])`);
  await page.keyboard.press('Control+z');
  await page.evaluate(`mossbellEditor.act.note('${all[2]}', 'seen')`);
  const saved = (await project(page)).program;
  expect(saved.stacks[0].steps.map((s) => s.id)).toEqual(p.stacks[0].steps.map((s) => s.id));
  expect(problems).toEqual([]);
});

test('random edits by the interface, undone and done again in any order, on screen and in what is saved alike', async ({
  page
}) => {
  const problems: string[] = [];
  page.on('pageerror', (e) => problems.push(e.message));
  page.on('console', (m) => m.type() === 'error' && problems.push(m.text()));
  for (const [i, p] of fc.sample(anyProgram, { numRuns: 8, seed: 20_261_128 }).entries()) {
    await open(page, p);
    const parted = await page.evaluate<string>(`(async () => {
      let seed = ${i + 1};
      const chance = (n) => ((seed = (seed * 1103515245 + 12345) % 2147483648), Math.floor((seed / 2147483648) * n));
      const { act, session, screen } = mossbellEditor;
      const shape = ${SHAPE};
      const one = (list) => list[chance(list.length)];
      const blocks = () => mossbellWorkspace.getAllBlocks(false).filter((b) => !b.isShadow());
      const did = [];
      for (let n = 0; n < 40; n++) {
        const block = one(blocks());
        const inStack = blocks().filter((b) => b.previousConnection && b.type !== 'routine.define');
        const body = inStack.length ? one(inStack) : undefined;
        const what = one(['remove', 'duplicate', 'off', 'pull', 'park', 'note', 'loop', 'move', 'undo', 'undo', 'undo', 'redo', 'redo']);
        did.push(what + ' ' + (body ?? block)?.type);
        if (what === 'undo') session.undo();
        else if (what === 'redo') session.redo();
        else if (!block) continue;
        else if (what === 'remove') act.remove([block.id]);
        else if (what === 'duplicate') act.duplicate([block.id], chance(2) === 1);
        else if (what === 'note') act.note(block.id, chance(2) ? 'note ' + n : '');
        else if (what === 'park') act.park(block.getRootBlock().id, chance(2) === 1);
        else if (!body) continue;
        else if (what === 'off') act.off([body.id], chance(2) === 1, chance(2) === 1);
        else if (what === 'pull') act.pull(body.id);
        else if (what === 'loop') await act.loop([body.id]);
        else {
          // as a drag does it: out of its place on the sheet, and the program follows the sheet
          body.unplug(true);
          body.moveBy(40 + chance(200), 30 + chance(200));
          await new Promise((done) => setTimeout(done, 40));
        }
        // the block library tells of it a frame later, on a busy machine much later
        const late = performance.now() + 5000;
        do await new Promise((done) => setTimeout(done, 4));
        while (shape(screen()) !== shape(session.project.program) && performance.now() < late);
        if (shape(screen()) !== shape(session.project.program))
          return did.join(', ') + ' // ' + shape(screen()) + ' // ' + shape(session.project.program);
      }
      while (session.past.length) session.undo();
      await new Promise((done) => setTimeout(done, 20));
      return shape(screen()) === shape(session.project.program) ? '' : 'all undone: ' + shape(screen());
    })()`);
    expect(parted).toBe('');
    expect(problems).toEqual([]);
    const saved = (await project(page)).program;
    const same = await page.evaluate(
      `(${SHAPE})(${JSON.stringify(saved)}) === (${SHAPE})(mossbellEditor.session.project.program)`
    );
    expect(same).toBe(true);
  }
});
