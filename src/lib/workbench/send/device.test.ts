/** The device's link as the workbench has it, with a stand-in that runs in a thread of its own. */
import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { barrow, trowel } from '../../../../core/kit/kit.ts';
import type { Program } from '../../../../core/language/program.ts';
import { newProject, type Project } from '../../../../core/project.ts';
import { b, hall, log, logs, program, start, wait } from '../../../../core/testing/build.ts';
import { recordedInputs } from '../../../../core/trace/track.ts';
import { until, WebWorker } from '../../../workers/testing/web-worker.ts';
import { Runs, type Run } from '../runs.svelte.ts';
import { DeviceLink } from './device.svelte.ts';

vi.mock('./library.ts', () => ({
  boardLibrary: async () => ({
    text: readFileSync(new URL('../../../../board/lib/mossbell.py', import.meta.url), 'utf8'),
    version: /VERSION = "(.*)"/.exec(
      readFileSync(new URL('../../../../board/lib/mossbell.py', import.meta.url), 'utf8')
    )![1]
  })
}));

describe('the device at the top of the workbench', () => {
  let open: DeviceLink[] = [];
  beforeEach(() => {
    vi.stubGlobal('Worker', WebWorker);
    vi.stubGlobal('crossOriginIsolated', true);
  });
  afterEach(() => {
    open.forEach((d) => d.close());
    open = [];
    vi.unstubAllGlobals();
  });
  function link(p: Program, more: Partial<Project> = {}) {
    const runs = new Runs();
    const ended: Run[] = [];
    runs.onEnd = (run) => ended.push(run);
    const project: Project = { ...newProject('On the device', barrow, hall), program: p, ...more };
    const device = new DeviceLink({
      session: { project } as never,
      runs,
      muted: true,
      predict: { take: () => [] } as never
    });
    open.push(device);
    return { device, runs, ended };
  }
  const says = (word: string, ...more: Parameters<typeof start>): Program => program(start(log(word), ...more));

  it('is plugged in, takes a program, runs it on its own, and hands over what it did when it is plugged in again', async () => {
    const { device, runs, ended } = link(says('moss', b('drive.measure', { amount: 10 })));
    expect([device.status, device.unit.name]).toEqual(['not plugged in', 'Barrow 3']);
    await device.plugIn();
    expect([device.status, device.hasLibrary]).toEqual(['ready', true]);
    const sent = device.send();
    expect(device.progress!.stage).toBe('asking');
    await sent;
    expect([device.mood, device.message]).toEqual(['good', expect.stringContaining('is on Barrow 3 as program 1')]);
    device.unplug();
    expect([device.status, device.pose]).toEqual(['on battery', hall.start]);
    const charge = device.charge!;
    device.pressDot();
    await until(() => device.running, 'running');
    expect([runs.shown, runs.away !== undefined, runs.device]).toEqual(['device', true, undefined]);
    await until(() => !device.running, 'over');
    expect([device.unread, ended.length]).toEqual([true, 0]);
    // it stands where it drove, with less in its battery
    const { x, y } = device.pose!;
    expect(Math.hypot(x - hall.start.x, y - hall.start.y)).toBeGreaterThan(0.08);
    expect(device.charge!).toBeLessThan(charge);
    await device.plugIn();
    expect(logs(runs.device!.trace)).toEqual(['moss']);
    expect([runs.away, device.unread, ended.map((r) => r.kind)]).toEqual([undefined, false, ['device']]);
    // its spans are those of the program's own blocks
    expect(runs.device!.trace.header.blocks).toContain(runs.device!.project!.program.stacks[0].steps[1].id);
  });
  it('asks before it installs the library, and keeps everything in the browser for another time', async () => {
    const { device } = link(says('fern'));
    await device.choose('Barrow 5');
    expect(device.status).toBe('library missing');
    const refused = device.send();
    await until(() => !!device.question, 'asked');
    expect(device.question!.found.library).toBe('');
    device.question!.answer(false);
    await refused;
    expect([device.mood, device.message]).toEqual([
      'bad',
      expect.stringContaining('Nothing on the device was changed')
    ]);
    const taken = device.send();
    await until(() => !!device.question, 'asked again');
    device.question!.answer(true);
    await taken;
    expect([device.mood, device.status]).toEqual(['good', 'ready']);
    device.close();
    expect([device.status, device.running]).toEqual(['not plugged in', false]);
    const { device: again, runs } = link(says('another'));
    await again.choose('Barrow 5');
    expect(again.status).toBe('ready');
    again.pressDot();
    await until(() => (runs.device?.trace.ended ?? '') === 'done', 'run');
    expect(logs(runs.device!.trace)).toEqual(['fern']);
  });
  it('takes buttons, hands and Ctrl-C while it runs, and a wrong program in words', async () => {
    const endless = program(start(b('repeat.ever', {}, { do: [wait(0.05)] })), [
      b('begin.button', { button: 'Bar' }),
      log('Bar')
    ]);
    const { device, runs } = link(endless);
    await device.plugIn();
    await device.send();
    device.pressDot();
    await until(() => device.running && runs.device!.endUs > 100_000, 'running');
    expect(device.status).toBe('busy running');
    device.give({ press: 'Bar' });
    device.give({ release: 'Bar' });
    device.give({ nose: true });
    await until(() => logs(runs.device!.trace).length > 0 && recordedInputs(runs.device!.trace).length > 2, 'pressed');
    expect(recordedInputs(runs.device!.trace).map((i) => i.input)).toEqual([
      { press: 'Bar' },
      { release: 'Bar' },
      { nose: true }
    ]);
    device.halt();
    await until(() => !device.running, 'halted');
    expect(runs.device!.trace.ended).toBe('stopped');
    const { device: other, runs: others } = link(program(), {
      text: 'from mossbell import *\n\n\ndef main():\n    log(1 / 0)\n\n\nrun(main)\n'
    });
    await other.plugIn();
    await other.send();
    expect(other.message).toContain('is on Barrow 3 as program');
    other.pressDot();
    await until(() => others.device?.trace.ended === 'error', 'over');
    expect(others.device!.trace.events.find((e) => e.type === 'error')).toMatchObject({
      message: expect.stringContaining('divided by zero')
    });
  });
  it('is cut, cancelled, or hangs on a cable that only charges: each is said, and the old program stays', async () => {
    const { device } = link(says('x'));
    await device.choose('Barrow 7');
    await device.send();
    const cut = device.send();
    expect(device.status).toBe('sending');
    // a second press sends nothing
    await device.send();
    device.unplug();
    await cut;
    expect([device.mood, device.message]).toEqual(['bad', expect.stringContaining('Unplugged while sending')]);
    await device.plugIn();
    const cancelled = device.send();
    device.cancel();
    await cancelled;
    expect([device.mood, device.message]).toEqual(['bad', expect.stringContaining('Sending was cancelled')]);
    device.chargesOnly = true;
    await device.send();
    expect([device.mood, device.message]).toEqual(['bad', expect.stringContaining('A cable that only charges')]);
    device.chargesOnly = false;
    await device.send();
    expect(device.message).toMatch(/as program \d/);
  });
  it('hears what another one sends by radio, and says that the others of a yard only rehearse', async () => {
    const NEARBY = 'my stacks and devices nearby';
    const calls = program(start(wait(0.3), b('message.send', { name: 'come', whom: NEARBY })));
    const comes = program(start(wait(20)), [b('begin.message', { name: 'come' }), log('coming')]);
    const other = { name: 'B', program: says('b'), kit: barrow };
    const caller = link(calls, { kit: trowel, others: [other] });
    const hears = link(comes);
    for (const { device } of [hears, caller]) {
      await device.plugIn();
      await device.send();
      device.pressDot();
      await until(() => device.running, 'running');
    }
    expect(caller.device.message).toContain('are there in a rehearsal only');
    expect(hears.device.message).toBe('');
    await until(() => logs(hears.runs.device!.trace).includes('coming') || !hears.device.running, 'heard');
    const heard = hears.runs.device!.trace.events.filter((e) => e.type === 'heard');
    expect(heard).toMatchObject([{ name: 'come', from: 'Trowel 2' }]);
    expect(caller.runs.device!.trace.events.some((e) => e.type === 'heard')).toBe(false);
  });
});
