/** The runs of the workbench, with their workers in threads of their own. */
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import type { Program } from '../../../core/language/program.ts';
import { newProject, type Project } from '../../../core/project.ts';
import { rehearse } from '../../../core/run/interpreter.ts';
import { b, hall, log, logs, program, start, variable, wait } from '../../../core/testing/build.ts';
import { recordedInputs } from '../../../core/trace/track.ts';
import { writeRun } from '../../../core/trace/runfile.ts';
import { ENGLISH } from '../../../core/words.ts';
import { until, WebWorker } from '../../workers/testing/web-worker.ts';
import { Runs, type Run } from './runs.svelte.ts';

vi.mock('./send/library.ts', () => ({
  boardLibrary: async () => ({
    text: readFileSync(new URL('../../../board/lib/mossbell.py', import.meta.url), 'utf8'),
    version: ''
  })
}));
const counts: Program = program(
  start(b('var.set', { variable: 'v1', value: 5 }), b('drive.measure', { amount: 12 }), log(variable('v1')), wait(0.2))
);
const of = (p: Program, more: Partial<Project> = {}): Project => ({
  ...newProject('Runs', barrow, hall),
  program: p,
  ...more
});

describe('the runs of the workbench', () => {
  let runs: Runs;
  let over: Run[];
  beforeEach(() => {
    vi.stubGlobal('Worker', WebWorker);
    vi.stubGlobal('crossOriginIsolated', true);
    runs = new Runs();
    over = [];
    runs.onEnd = (run) => over.push(run);
    runs.setSpeed(Infinity);
  });
  afterEach(() => {
    runs.close();
    vi.unstubAllGlobals();
  });
  const ended = () => until(() => runs.state === 'ended', 'ended');

  it('are idle, run, end, and keep the one before as a ghost', async () => {
    expect([runs.state, runs.busy, runs.run, runs.playheadUs]).toEqual(['idle', false, undefined, 0]);
    await runs.begin(of(counts));
    expect(runs.busy).toBe(true);
    await ended();
    const first = runs.current!;
    expect([over, runs.lit, runs.busy]).toEqual([[first], [], false]);
    expect(runs.playheadUs).toBe(first.endUs);
    await runs.begin(of(counts));
    await ended();
    expect(runs.ghost).toBe(first);
    runs.clear();
    expect([runs.state, runs.current, runs.ghost === over[1]]).toEqual(['idle', undefined, true]);
  });
  it('are looked at in their past: the state, the lit blocks, and everything inside', async () => {
    await runs.begin(of(counts));
    await ended();
    const [, set, drive] = counts.stacks[0].steps.map((s) => s.id);
    runs.scrubUs = 300_000;
    expect(runs.lit).toEqual([drive]);
    expect(runs.view!.values.speedLeft).toBeGreaterThan(5);
    expect(runs.seenNow).toBeUndefined();
    await runs.lookBack();
    expect(runs.seenNow!.variables.find((v) => v.name === 'count')!.shown).toBe('5');
    runs.along('block', -1);
    const driveUs = runs.scrubUs!;
    runs.along('block', -1);
    expect(runs.scrubUs!).toBeLessThan(driveUs);
    runs.along('block', 1);
    expect(runs.scrubUs).toBe(driveUs);
    runs.along('tick', 1);
    expect(runs.scrubUs).toBe((Math.round(driveUs / 1000) + 1) * 1000);
    expect(set).not.toBe(drive);
  });
  it('rest before a block, take what is set there, and go on from the playhead with another program', async () => {
    const [, , drive, says] = counts.stacks[0].steps.map((s) => s.id);
    runs.toggleStop(says);
    await runs.begin(of(counts));
    await until(() => runs.state === 'paused', 'paused');
    expect([runs.here, runs.lit, runs.why]).toEqual([says, [says], { stop: { on: 'block', block: says } }]);
    runs.input({ set: { variable: 'count', to: 'moss' } });
    await until(() => runs.seenNow!.variables.some((v) => v.shown === 'moss'), 'set');
    runs.toggleStop(says);
    expect(runs.stops).toEqual([]);
    runs.go('on');
    await ended();
    expect(logs(runs.current!.trace)).toEqual(['moss']);
    runs.scrubUs = 200_000;
    const other = program(start(b('var.set', { variable: 'v1', value: 5 }), wait(0.6), log('other')));
    await runs.resumeHere(of(other));
    await until(() => runs.current?.endUs === 200_000, 'there');
    expect(runs.state).toBe('paused');
    runs.go('on');
    await ended();
    expect(logs(runs.current!.trace)).toEqual(['other']);
    expect(drive).toBeTruthy();
  });
  it('stop at the person’s word, and give the inputs of one to the next', async () => {
    runs.setSpeed(1);
    const waits = of(program(start(wait(50)), [b('begin.button', { button: 'Dot' }), log('Dot')]));
    await runs.begin(waits);
    await until(() => runs.current!.endUs > 50_000, 'going');
    runs.input({ press: 'Dot' });
    await until(() => logs(runs.current!.trace).length > 0, 'pressed');
    runs.stop();
    await ended();
    expect(runs.current!.trace.ended).toBe('stopped');
    const done = recordedInputs(runs.current!.trace);
    expect(done.map((i) => i.input)).toEqual([{ press: 'Dot' }, { stop: true }]);
    runs.inputs = { name: 'again', list: done };
    runs.setSpeed(Infinity);
    await runs.begin(waits);
    await ended();
    expect(recordedInputs(runs.current!.trace)).toEqual(done);
    // to look at the sensors nothing of that is given, and no end is told
    const told = over.length;
    await runs.look(waits);
    expect([runs.looking, runs.busy]).toEqual([true, true]);
    runs.stop();
    await ended();
    expect([over.length, recordedInputs(runs.current!.trace)]).toEqual([
      told,
      [{ tUs: expect.any(Number), input: { stop: true } }]
    ]);
  });
  it('of a text go through MicroPython: to a line, its values, on, and a mistake with its words', async () => {
    const text =
      'from mossbell import *\n\nn = 1\n\n\ndef main():\n    global n\n    n = n + 1\n    log(n)\n    wait(0.1)\n\n\nrun(main)\n';
    runs.setStops([{ on: 'block', block: 'line 9' }]);
    await runs.begin(of(program(), { text }));
    await until(() => runs.state === 'paused', 'paused');
    expect([runs.here, runs.values.n]).toEqual(['line 9', 2]);
    runs.setStops([]);
    runs.go('on');
    await ended();
    expect([logs(runs.current!.trace), runs.textTrouble]).toEqual([['2'], '']);
    expect(over).toEqual([runs.current]);
    await runs.begin(of(program(), { text: text.replace('n + 1', 'n + missing') }));
    await ended();
    expect(runs.current!.trace.events.find((e) => e.type === 'error')).toMatchObject({
      message: expect.stringContaining('missing')
    });
  });
  it('come from files, are held for their findings, compared, and measured', async () => {
    const trace = rehearse({ program: counts, kit: barrow, mat: hall, seed: 1, name: 'Kept' });
    const opened = await runs.open(
      await writeRun({ name: 'Kept', kind: 'rehearsal', project: of(counts), trace }, false),
      'kept'
    );
    if (!opened.ok) throw new Error(opened.problem);
    expect([opened.run.name, opened.run.endUs, opened.missing]).toEqual(['Kept', trace.ticks * 1000, []]);
    runs.earlier = opened.run;
    runs.shown = 'earlier';
    expect(runs.run).toBe(opened.run);
    expect(Array.isArray(await runs.findingsOf(opened.run, ENGLISH))).toBe(true);
    expect(await runs.open('{}', 'nothing')).toMatchObject({ ok: false });
    const whole = await runs.whole(of(counts));
    expect([whole.endUs, whole.held !== undefined]).toEqual([trace.ticks * 1000, true]);
    const longer = of(program(start(b('drive.measure', { amount: 20 }))));
    expect(await runs.compare(of(counts), of(counts))).toMatchObject({ same: true });
    expect(await runs.compare(of(counts), longer)).toMatchObject({ same: false });
    expect((await runs.calibrate(barrow, 'MB-BAR-0003')).drivenCm).toBeGreaterThan(95);
    const end = await runs.endOn(longer, 'MB-BAR-0003');
    expect(Math.hypot(end.xCm - hall.start.x * 100, end.yCm - hall.start.y * 100)).toBeGreaterThan(18);
  });
});
