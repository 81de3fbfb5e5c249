/** The command line as a teacher runs it. */
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { beforeAll, describe, expect, it } from 'vitest';
import { projectOf, readErrand } from '../core/errand/errand.ts';
import type { Program } from '../core/language/program.ts';
import { writeProject } from '../core/project.ts';
import { rehearse } from '../core/run/interpreter.ts';
import { findings, type Finding } from '../core/trace/findings/findings.ts';
import { demoProjects } from '../demo/seed.ts';
import type { Tried } from './errand.ts';

const root = new URL('..', import.meta.url).pathname;
const run = async (...args: string[]): Promise<{ code: number; out: string; err: string }> => {
  try {
    const { stdout, stderr } = await promisify(execFile)(process.execPath, ['.cli/main.js', ...args], {
      cwd: root,
      maxBuffer: 1e8
    });
    return { code: 0, out: stdout, err: stderr };
  } catch (error) {
    const e = error as { code: number; stdout: string; stderr: string };
    return { code: e.code, out: e.stdout, err: e.stderr };
  }
};
const demo = (name: string): string => `demo/projects/${name}.mossbell.json`;
const folder = mkdtempSync(join(tmpdir(), 'mossbell-cli-'));

// it is compiled once; a call starts at once
beforeAll(() => promisify(execFile)('./mossbell', ['build-cli'], { cwd: root }), 300_000);

describe('./mossbell', () => {
  it('is called from any folder: paths are those of whoever calls, and errands that ship are found', async () => {
    writeFileSync(join(folder, 'here.mossbell.json'), readFileSync(join(root, demo('back-to-the-mark'))));
    const call = (...args: string[]) =>
      promisify(execFile)(join(root, 'mossbell'), args, { cwd: folder, maxBuffer: 1e8 });
    expect((await call('rehearse', 'here.mossbell.json')).stdout).toContain('ended: done');
    // it ends with 1, since a goal is missed
    const missed = (await call('try', 'there-and-back', 'here.mossbell.json', '--json').catch((e: unknown) => e)) as {
      stdout: string;
    };
    expect(missed.stdout).toContain('"goals"');
  });
  it('ends a run that waits for the word where --until says', async () => {
    const { out } = await run('rehearse', demo('from-heap-to-bed'), '--json', '--until', '3');
    expect(JSON.parse(out)).toMatchObject({ ended: 'stopped', seconds: expect.closeTo(3, 1) });
  });
  it('counts what is to be considered beside what is to check, as the page does', async () => {
    const { out } = await run('check', demo('four-keys'));
    expect(out).toMatch(/: \d+ to consider$/m);
    expect(out).not.toContain('to check');
  });
  it('finds in demo programs what the page finds', async () => {
    // every third of them: each starts a process of its own
    const projects = demoProjects().filter(
      ([name, p], i) => p.text === undefined && i % 3 === 0 && name !== 'from-heap-to-bed'
    );
    expect(projects.length).toBeGreaterThan(10);
    const plain = (list: readonly Finding[]): unknown[] =>
      list.map((f) => [f.rule, f.says, f.blocks, plain(f.more ?? [])]);
    let found = 0;
    for (const [name, project] of projects) {
      const file = join(folder, 'demo.mossbell.json');
      writeFileSync(file, writeProject(project));
      const { out, err } = await run('rehearse', file, '--json', '--until', '8');
      expect(err, name).toBe('');
      const { program, kit, mat, start, others } = project;
      const trace = rehearse({ program, kit, mat, start, others, seed: 1, limitS: 8, name: project.name });
      const page = findings(trace, kit, program);
      expect(plain((JSON.parse(out) as { findings: Finding[] }).findings), name).toEqual(plain(page));
      found += page.length;
    }
    expect(found).toBeGreaterThan(5);
  }, 240_000);
  it('rehearses, and prints one JSON document with --json', async () => {
    const csv = join(folder, 'out.csv');
    const { code, out } = await run(
      'rehearse',
      demo('back-to-the-mark'),
      '--json',
      '--seed',
      '3',
      '--trace',
      csv,
      '--events',
      `${csv}.events`
    );
    expect(code).toBe(0);
    const result = JSON.parse(out);
    expect(result).toMatchObject({
      name: 'Back to the mark',
      runner: 'interpreter',
      seed: 3,
      ended: 'done',
      error: null
    });
    expect(result.moves[0]).toMatchObject({ what: 'drive ahead', asked: 80, unit: 'cm' });
    expect(Math.abs(result.travelledCm - 140)).toBeLessThan(1);
    expect(readFileSync(csv, 'utf8').split('\r\n')[0]).toContain('time_s,');
    const events = readFileSync(`${csv}.events`, 'utf8').split('\r\n');
    expect(events[0]).toBe('time_s,event,block,what,fields');
    expect(events.some((row) => /,move,.*drive ahead 80 cm/.test(row))).toBe(true);
  });
  it('runs the printed text on the stand-in: the same end without quirks, another with those of a unit', async () => {
    const [here, there, unit] = (
      await Promise.all([
        run('rehearse', demo('the-dark-board'), '--json'),
        run('rehearse', demo('the-dark-board'), '--json', '--on', 'standin'),
        run('rehearse', demo('the-dark-board'), '--json', '--unit', 'MB-BAR-0003')
      ])
    ).map((r) => JSON.parse(r.out));
    expect(there.runner).toBe('MicroPython');
    expect(there.pose).toEqual(here.pose);
    expect(there.log).toEqual(here.log);
    expect(unit.pose).not.toEqual(here.pose);
  });
  it('exits with 1 when the program failed, and when the look-over finds what will not work', async () => {
    expect(await run('rehearse', demo('three-mistakes'), '--json')).toMatchObject({ code: 1 });
    const { code, out } = await run('check', demo('three-mistakes'), demo('back-to-the-mark'), '--json');
    expect(code).toBe(1);
    expect(JSON.parse(out).files.map((f: { remarks: { rule: string }[] }) => f.remarks.map((r) => r.rule))).toEqual([
      ['socket-empty', 'never-stopped', 'shown-for-no-time'],
      []
    ]);
  });
  it('prints the Python of a program', async () => {
    expect((await run('python', demo('back-to-the-mark'))).out).toContain(
      'wheels.turn(right=180, power=35, ending="brake")'
    );
  });
  it('reads a text as blocks, rehearses it on MicroPython, and says what blocks cannot say', async () => {
    const { out: python } = await run('python', demo('the-dark-board'));
    const py = join(folder, 'board.py');
    writeFileSync(py, python);
    const { code, out } = await run('blocks', py);
    expect(code).toBe(0);
    const again = join(folder, 'again.mossbell.json');
    writeFileSync(again, out);
    expect((await run('python', again)).out).toBe(python);
    const text = JSON.parse((await run('rehearse', py, '--until', '20', '--json')).out);
    expect(text).toMatchObject({ runner: 'MicroPython', error: null });
    expect((await run('check', py, '--json')).code).toBe(0);
    const odd = join(folder, 'odd.py');
    writeFileSync(odd, 'from mossbell import *\n\n\ndef main():\n    dance()\n\n\nrun(main)\n');
    expect(await run('blocks', odd)).toMatchObject({ code: 2, err: expect.stringContaining('line 5: No block says') });
    writeFileSync(odd, 'def main(:\n');
    expect(await run('rehearse', odd)).toMatchObject({ code: 2, err: expect.stringContaining('line 1') });
  });
  it('takes inputs from a file', async () => {
    const inputs = join(folder, 'inputs.jsonl');
    writeFileSync(inputs, '{"t": 0.5, "press": "Dot"}\n');
    const { out } = await run('rehearse', demo('lantern-signals'), '--inputs', inputs, '--until', '4', '--json');
    expect(JSON.parse(out).face.lamps.left.on).toBe(true);
  });
  it('sends to a stand-in, over cables good and bad, and lists, reads and takes off what is there', async () => {
    process.env.MOSSBELL_DATA = mkdtempSync(join(tmpdir(), 'mossbell-devices-'));
    const to = ['--to', 'Barrow 5', '--json'];
    const file = demo('back-to-the-mark');
    const first = await run('send', file, ...to);
    expect([first.code, JSON.parse(first.out)]).toEqual([0, { to: 'MB-BAR-0005', number: 1, again: 0, problem: null }]);
    const flaky = JSON.parse((await run('send', demo('the-dark-board'), ...to, '--fault', 'flaky')).out);
    expect([flaky.number, flaky.again > 0]).toEqual([2, true]);
    const cut = await run('send', demo('left-at-the-fern'), ...to, '--cut-at', '900');
    expect([cut.code, JSON.parse(cut.out).problem]).toEqual([1, 'The device was unplugged.']);
    const charge = await run('send', file, '--to', 'MB-BAR-0005', '--fault', 'charge');
    expect(charge).toMatchObject({ code: 1, err: expect.stringContaining('A cable that only charges') });
    const held = JSON.parse((await run('device', 'Barrow 5', 'list', '--json')).out);
    expect(held.programs.map((p: { number: number; starts: boolean }) => [p.number, p.starts])).toEqual([
      [2, true],
      [1, false]
    ]);
    expect((await run('device', 'Barrow 5', 'read', '1')).out).toBe((await run('python', file)).out);
    expect((await run('device', 'barrow 5', 'delete', '2')).out).toContain('1 * Back to the mark');
    expect(await run('device', 'Barrow 5', 'delete', '2')).toMatchObject({
      code: 1,
      err: expect.stringContaining('Program 2 is not on the device any more.')
    });
    await run('device', 'Barrow 5', 'demo');
    expect(await run('send', file, '--to', 'Barrow 5')).toMatchObject({
      code: 1,
      err: expect.stringContaining('factory demo and no MicroPython')
    });
    await run('device', 'Barrow 5', 'micropython');
    expect((await run('device', 'Barrow 5')).out).toContain('1 * Back to the mark');
    expect(await run('send', file, '--to', 'Barrow 99')).toMatchObject({
      code: 2,
      err: expect.stringContaining('There is no stand-in')
    });
    // two at once wait for one another: both are there
    const other = ['--to', 'Barrow 7'];
    const both = await Promise.all([run('send', file, ...other), run('send', demo('the-dark-board'), ...other)]);
    expect(both.map((r) => r.code)).toEqual([0, 0]);
    const listed = JSON.parse((await run('device', 'Barrow 7', 'list', '--json')).out) as { programs: unknown[] };
    expect(listed.programs).toHaveLength(2);
    expect(await run('send', file, ...to, '--fault', 'rust')).toMatchObject({
      code: 2,
      err: expect.stringContaining('The faults are good, charge, flaky, slow, dies')
    });
    expect(await run('send', demo('back-to-the-mark'), '--to', 'Saucer 4')).toMatchObject({
      code: 1,
      err: expect.stringContaining('This device is a Saucer')
    });
  });
  it('marks programs in an errand: what each missed, by how much and when, and goes on past one that is no good', async () => {
    const give = (name: string, program: Program): string => {
      const file = join(folder, `${name}.mossbell.json`);
      const read = readErrand(readFileSync(join(root, 'demo/errands/first-delivery.mossbell-errand.json'), 'utf8'));
      if (!read.ok) throw new Error(read.problem);
      writeFileSync(file, writeProject({ ...projectOf(read.errand), name, program }));
      return file;
    };
    const read = readErrand(readFileSync(join(root, 'demo/errands/first-delivery.mossbell-errand.json'), 'utf8'));
    if (!read.ok) throw new Error(read.problem);
    const [wren, newt] = [give('Wren', read.errand.model), give('Newt', read.errand.given)];
    const teasel = join(folder, 'teasel.py');
    writeFileSync(
      teasel,
      'from mossbell import *\n\nwheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)\n\n\ndef main():\n    wheels.drive(cm=65, power=50, ending="brake")\n\n\nrun(main)\n'
    );
    const lost = join(folder, 'lost.mossbell.json');
    const all = await run('try', 'first-delivery', wren, newt, teasel, lost, '--json');
    expect(all.code).toBe(1);
    const { errand, tries } = JSON.parse(all.out) as { errand: string; tries: Tried[] };
    expect([errand, tries.map((t) => t.met)]).toEqual(['first-delivery', [true, false, true, false]]);
    expect(tries[0]).toMatchObject({ name: 'Wren', blocks: 1, nearest: null, problem: null });
    expect(tries[1].goals[0]).toMatchObject({ state: 'missed', off: { unit: 'cm' } });
    expect(tries[1].goals[tries[1].nearest!].says).toMatch(/^Stopped 16\.\d cm short/);
    // the text on MicroPython comes to what the blocks come to
    expect(tries[2].seconds).toBeCloseTo(tries[0].seconds!, 1);
    expect(tries[3].problem).toContain('no such file');
    const one = await run('try', 'first-delivery', wren);
    expect([one.code, one.out]).toEqual([0, expect.stringMatching(/all 2 goals met in \d\.\d+ s, 1 blocks/)]);
    expect((await run('try', 'first-delivery', demo('bright-bean'))).out).toContain('and the errand for a Barrow');
  });
  it('tells whether an errand is sound', async () => {
    expect(await run('errand', 'check', 'frost-warning', 'drip-count')).toMatchObject({
      code: 0,
      out: expect.stringMatching(
        /^frost-warning \(Frost warning\): sound, 1 goals; of 9 small changes that show, 7 miss a goal, 2 are said to be right too\ndrip-count/
      )
    });
    const file = join(root, 'demo/errands/frost-warning.mossbell-errand.json');
    const errand = JSON.parse(readFileSync(file, 'utf8')) as { model: unknown; wrong: { program: unknown }[] };
    const unsound = join(folder, 'unsound.mossbell-errand.json');
    writeFileSync(unsound, JSON.stringify({ ...errand, model: errand.wrong[0].program }));
    const { code, out } = await run('errand', 'check', unsound, '--json');
    expect(code).toBe(1);
    expect((JSON.parse(out) as { errands: { problems: string[] }[] }).errands[0].problems[0]).toContain(
      'The model misses'
    );
  });
  it('exits with 2 and a sentence when the input was no good', async () => {
    const bad = join(folder, 'bad.mossbell.json');
    writeFileSync(bad, '{"format": "mossbell.project", "version": 99}');
    for (const [args, says] of [
      [['rehearse', 'nowhere.json'], 'there is no such file'],
      [['rehearse', bad], 'newer Moss Bell'],
      [['rehearse', demo('an-arm-short'), '--mat', 'Moon'], 'The mats are Fern bed, Long aisle'],
      [['rehearse', demo('an-arm-short'), '--seed', 'x'], '--seed takes a number'],
      [['try', 'no-such-errand', demo('an-arm-short')], 'there is no such errand'],
      [['errand', 'check', demo('an-arm-short')], 'not an errand of Moss Bell'],
      [['try', 'first-delivery'], 'Usage:'],
      [['fly'], 'Usage:']
    ] as const) {
      const { code, err } = await run(...args);
      expect(code, args.join(' ')).toBe(2);
      expect(err).toContain(says);
    }
  });
});
