/** The worker of rehearsals, as the page speaks to it, in a thread of its own. */
import * as Comlink from 'comlink';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { barrow } from '../../core/kit/kit.ts';
import { newProject } from '../../core/project.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import { ENGLISH } from '../../core/words.ts';
import { b, hall, log, program, start, variable, wait } from '../../core/testing/build.ts';
import { findings } from '../../core/trace/findings/findings.ts';
import { recordedInputs } from '../../core/trace/track.ts';
import { Follow } from '../../core/trace/recorder.ts';
import { writeRun } from '../../core/trace/runfile.ts';
import { traceBytes } from '../../core/trace/files.ts';
import type { Trace } from '../../core/trace/trace.ts';
import type { BenchApi, Begun, Frame } from './bench.worker.ts';
import { until, WebWorker } from './testing/web-worker.ts';

const drives = program(
  start(b('var.set', { variable: 'v1', value: 1 }), b('drive.measure', { amount: 12 }), log(variable('v1')), wait(0.4))
);
const of = (p: typeof drives, more: object = {}) => ({ program: p, kit: barrow, mat: hall, seed: 3, ...more });
/** What the last values of variables are is not handed on: their changes are. */
const bytes = (trace: Trace): Buffer => Buffer.from(traceBytes({ ...trace, variables: {} }));

/** What a page makes of the frames that it gets. */
class Page {
  follow: Follow | undefined;
  others: Follow[] = [];
  last: Frame | undefined;
  states: string[] = [];
  private early: Frame[] = [];
  readonly take = (frame: Frame): void => {
    if (!this.follow) return void this.early.push(frame);
    this.follow.add(frame.delta);
    frame.others.forEach((delta, i) => this.others[i].add(delta));
    this.last = frame;
    this.states.push(frame.state);
  };
  begun(of: Begun): void {
    this.follow = new Follow(of.header, of.specs);
    this.others = of.others.map((o) => new Follow(o.header, o.specs));
    this.early.splice(0).forEach(this.take);
  }
  async until(state: Frame['state']): Promise<Frame> {
    await until(() => this.last?.state === state, state);
    return this.last!;
  }
}

describe('the worker of rehearsals', () => {
  let worker: WebWorker;
  let api: Comlink.Remote<BenchApi>;
  let page: Page;
  beforeEach(() => {
    worker = new WebWorker('bench.worker.ts');
    api = Comlink.wrap<BenchApi>(worker as unknown as Comlink.Endpoint);
    page = new Page();
  });
  afterEach(() => worker.terminate());
  const begin = async (options: object, pace = Infinity, how: object = {}): Promise<Begun & { run: number }> => {
    const begun = await api.begin(options as never, pace, how, Comlink.proxy(page.take));
    page.begun(begun);
    return begun;
  };

  it('gives the page the very trace of the core, however it is cut into frames', async () => {
    const others = [
      { name: 'B', program: program(start(wait(0.3), log('too'))), kit: barrow, start: { x: 1, y: 1, facingDeg: 0 } }
    ];
    const begun = await begin(of(drives, { others }));
    expect([begun.room, begun.others.length]).toEqual([true, 1]);
    await page.until('ended');
    const core = rehearse(of(drives, { others }));
    expect(bytes(page.follow!.trace).equals(bytes(core))).toBe(true);
    expect(page.follow!.trace.ended).toBe('done');
    expect(page.others[0].trace.events.some((e) => e.type === 'log' && e.text === 'too')).toBe(true);
    expect(await api.findings('this', barrow, drives, ENGLISH)).toEqual(findings(core, barrow, drives));
    // a robot that stands in another one has no room
    const close = { ...others[0], start: { ...hall.start } };
    expect((await begin(of(drives, { others: [close] }))).room).toBe(false);
  });
  it('keeps to the wall clock at the pace that is set, and to another one from then on', async () => {
    const began = performance.now();
    await begin(of(program(start(wait(1)))), 4);
    await page.until('ended');
    // 1 s and half a second of rest, four times as fast
    expect(performance.now() - began).toBeGreaterThan(330);
    page = new Page();
    const slow = performance.now();
    await begin(of(program(start(wait(60)))), 0.1);
    await new Promise((done) => setTimeout(done, 150));
    expect(page.follow!.trace.ticks).toBeLessThan(200);
    await api.speed(Infinity);
    await page.until('ended');
    expect(performance.now() - slow).toBeLessThan(15_000);
  });
  it('rests before the first block, goes step by step, to a stop and to its end, and says why it rests', async () => {
    const steps = drives.stacks[0].steps;
    await begin(of(drives), Infinity, { paused: true });
    const first = await page.until('paused');
    expect(first.here).toBe(steps[1].id);
    expect(first.seen!.variables.map((v) => v.name)).toContain('count');
    page.last = undefined;
    await api.go('over');
    expect((await page.until('paused')).here).toBe(steps[2].id);
    page.last = undefined;
    await api.stopAt([{ on: 'block', block: steps[4].id }]);
    await api.go('on');
    const stopped = await page.until('paused');
    expect([stopped.here, stopped.why]).toEqual([steps[4].id, { stop: { on: 'block', block: steps[4].id } }]);
    // what a person sets there is what the rest of the program has
    page.last = undefined;
    await api.input({ set: { variable: 'count', to: 41 } });
    await page.until('paused');
    await api.stopAt([]);
    page.last = undefined;
    await api.go('on');
    await page.until('ended');
    expect(recordedInputs(page.follow!.trace).map((i) => i.input)).toEqual([{ set: { variable: 'count', to: 41 } }]);
  });
  it('hurries to a moment with what was done up to there, and goes on live', async () => {
    const inputs = [{ tUs: 100_000, input: { press: 'Dot' as const } }];
    await begin(of(drives, { inputs }), 1, { untilUs: 500_000 });
    const there = await page.until('paused');
    expect(there.worldUs).toBe(500_000);
    await api.input({ nose: true });
    await api.speed(Infinity);
    page.last = undefined;
    await api.go('on');
    await page.until('ended');
    expect(recordedInputs(page.follow!.trace)).toEqual([...inputs, { tUs: 501_000, input: { nose: true } }]);
  });
  it('stops at once, and the run made again from its record ends there too', async () => {
    await begin(of(program(start(b('wheels.run', { left: 30, right: 30 }), wait(50)))), 1);
    await new Promise((done) => setTimeout(done, 120));
    await api.stop();
    const { trace } = page.follow!;
    await page.until('ended');
    expect(trace.ended).toBe('stopped');
    const again = rehearse(
      of(program(), {
        program: program(start(b('wheels.run', { left: 30, right: 30 }), wait(50))),
        inputs: recordedInputs(trace)
      })
    );
    expect([again.ended, again.ticks]).toEqual(['stopped', trace.ticks]);
  });
  it('pauses in the middle of a drive, and a frame of a run before is not one of the next', async () => {
    const one = await begin(of(program(start(wait(50)))), 1);
    await api.pause();
    expect((await page.until('paused')).run).toBe(one.run);
    const two = await begin(of(drives));
    expect(two.run).toBe(one.run + 1);
  });
  it('stays paused when it is paused before it has set off, and goes on when it is told to', async () => {
    const begun = begin(of(program(start(wait(2)))), 1);
    // the two orders arrive one right after the other
    await Promise.all([begun, api.pause()]);
    expect((await page.until('paused')).worldUs).toBe(0);
    await new Promise((done) => setTimeout(done, 200));
    expect([page.last!.state, page.last!.worldUs]).toEqual(['paused', 0]);
    await api.go('on');
    await page.until('ended');
  });
  it('shows a moment of the past, made again, forwards and back', async () => {
    await begin(of(drives));
    await page.until('ended');
    const project = { ...newProject('Past', barrow, hall), program: drives };
    const { header, events } = page.follow!.trace;
    const record = { header, events: [...events] };
    const early = await api.seenAt(project, record, 0);
    const late = await api.seenAt(project, record, 600_000);
    const between = await api.seenAt(project, record, 200_000);
    expect([early.tUs, between.tUs >= 200_000, late.tUs >= 600_000, between.tUs < late.tUs]).toEqual([
      0,
      true,
      true,
      true
    ]);
    const count = (s: typeof early) => s.variables.find((v) => v.name === 'count')!.shown;
    expect([count(early), count(late)]).toEqual(['0', '1']);
  });
  it('opens a run file as it was, or makes it again, and holds the last three for questions', async () => {
    const trace = rehearse(of(drives, { name: 'Opened' }));
    const project = { ...newProject('Opened', barrow, hall), program: drives };
    const file = { name: 'Opened', kind: 'rehearsal' as const, project, trace };
    const whole = await api.open(await writeRun(file, true), 'a');
    const small = await api.open(await writeRun(file, false), 'b');
    if (!whole.ok || !small.ok) throw new Error('cannot be read');
    for (const { opened } of [whole, small]) {
      expect(bytes(opened.run.trace as Trace).equals(bytes(trace))).toBe(true);
      expect(await api.findings(opened.held, barrow, drives, ENGLISH)).toEqual(findings(trace, barrow, drives));
    }
    expect(await api.open('nonsense', 'c')).toMatchObject({ ok: false });
    for (let i = 0; i < 3; i++) await api.whole(of(program(start(wait(0.01)))) as never);
    expect(await api.findings(whole.opened.held, barrow, drives, ENGLISH)).toEqual([]);
    const packed = await api.pack(file, true);
    const again = await api.packWhole(await writeRun(file, false), 'd');
    expect([packed[0], packed[1], again[0], again[1]]).toEqual([0x1f, 0x8b, 0x1f, 0x8b]);
    await expect(api.packWhole('nonsense', 'e')).rejects.toThrow();
  });
  it('compares two programs, measures a stand-in, and says where a run ends on it', async () => {
    const more = program(start(b('var.set', { variable: 'v1', value: 1 }), b('drive.measure', { amount: 13 })));
    expect(await api.compare(of(drives) as never, of(drives) as never)).toMatchObject({ same: true });
    expect(await api.compare(of(drives) as never, of(more) as never)).toMatchObject({ same: false });
    const c = await api.calibrate(barrow, 'MB-BAR-0003');
    expect(Math.abs(c.drivenCm - 100)).toBeGreaterThan(0.05);
    const end = await api.endOn(of(drives) as never, 'MB-BAR-0003');
    expect(Math.hypot(end.xCm - hall.start.x * 100, end.yCm - hall.start.y * 100)).toBeGreaterThan(11);
    expect(
      Buffer.from(await api.bytes(of(drives) as never)).equals(Buffer.from(traceBytes(rehearse(of(drives)))))
    ).toBe(true);
  });
});
