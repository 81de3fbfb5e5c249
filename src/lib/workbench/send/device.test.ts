/** The device's link as the workbench has it, with a stand-in that runs in a thread of its own. */
import 'fake-indexeddb/auto';
import { get } from 'idb-keyval';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { barrow, trowel } from '../../../../core/kit/kit.ts';
import type { Program } from '../../../../core/language/program.ts';
import { newProject, type Project } from '../../../../core/project.ts';
import { b, hall, log, logs, program, start, wait } from '../../../../core/testing/build.ts';
import { recordedInputs } from '../../../../core/trace/track.ts';
import { file } from '../../../../board/standin/bed.ts';
import { until, WebWorker } from '../../../workers/testing/web-worker.ts';
import { Runs, type Run } from '../runs.svelte.ts';
import { sendAll, versionOf } from './class-set.ts';
import { Devices } from './devices.svelte.ts';

vi.mock('./library.ts', () => ({
  boardLibrary: async () => ({
    text: readFileSync(new URL('../../../../board/lib/mossbell.py', import.meta.url), 'utf8'),
    version: /VERSION = "(.*)"/.exec(
      readFileSync(new URL('../../../../board/lib/mossbell.py', import.meta.url), 'utf8')
    )![1]
  })
}));

vi.mock('./firmware.ts', async () => {
  const { imageOf } = await import('../../../../core/link/file.ts');
  return {
    firmwareImage: async (what: 'micropython' | 'factory') =>
      imageOf(what, what === 'factory' ? '1' : '1.27', new Uint8Array(200_000))
  };
});

describe('the device at the top of the workbench', () => {
  let open: Devices[] = [];
  // what one test leaves on a stand-in is no other version of the next one's program
  let links = 0;
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
    const project: Project = { ...newProject(`On the device ${++links}`, barrow, hall), program: p, ...more };
    const devices = new Devices({
      session: { project } as never,
      runs,
      muted: true,
      predict: { take: () => [] } as never
    });
    open.push(devices);
    return {
      devices,
      get device() {
        return devices.chosen;
      },
      runs,
      ended
    };
  }
  const says = (word: string, ...more: Parameters<typeof start>): Program => program(start(log(word), ...more));

  it('is plugged in, takes a program, runs it on its own, and hands over what it did when it is plugged in again', async () => {
    const { device, runs, ended } = link(says('moss', b('drive.measure', { amount: 10 })));
    expect([device.status, device.unit.name]).toEqual(['not plugged in', 'Barrow 3']);
    await device.plugIn();
    expect([device.status, device.found!.library]).toEqual(['ready', expect.stringMatching(/^\d+\.\d+$/)]);
    const sent = device.send();
    expect(device.progress!.stage).toBe('asking');
    await sent;
    expect([device.mood, device.message]).toEqual(['good', expect.stringContaining('is on Barrow 3 as program 1')]);
    device.unplug();
    await device.carry(false);
    expect([device.status, device.pose]).toEqual(['on battery', hall.start]);
    const charge = device.charge!;
    device.pressDot();
    await until(() => device.running, 'running');
    expect([runs.shown, runs.away !== undefined, runs.device]).toEqual(['device', true, undefined]);
    await until(() => !device.running, 'over');
    expect([device.waiting.length, ended.length]).toEqual([1, 0]);
    // it stands where it drove, with less in its battery
    const { x, y } = device.pose!;
    expect(Math.hypot(x - hall.start.x, y - hall.start.y)).toBeGreaterThan(0.08);
    expect(device.charge!).toBeLessThan(charge);
    await device.plugIn();
    expect(logs(runs.device!.trace)).toEqual(['moss']);
    expect([runs.away, device.waiting.length, ended.map((r) => r.kind)]).toEqual([undefined, 0, ['device']]);
    // its spans are those of the program's own blocks
    expect(runs.device!.trace.header.blocks).toContain(runs.device!.project!.program.stacks[0].steps[1].id);
  });
  it('asks before it installs the library, and keeps everything in the browser for another time', async () => {
    const { devices } = link(says('fern'));
    devices.choose('Barrow 5');
    const device = devices.chosen;
    await device.plugIn();
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
    const { devices: others, runs } = link(says('another'));
    others.choose('Barrow 5');
    const again = others.chosen;
    await again.plugIn();
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
    const { devices } = link(says('x'));
    devices.choose('Barrow 7');
    const device = devices.chosen;
    await device.plugIn();
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
    device.cableName = 'charge';
    await device.send();
    expect([device.mood, device.message]).toEqual(['bad', expect.stringContaining('A cable that only charges')]);
    device.cableName = 'good';
    await device.send();
    expect(device.message).toMatch(/as program \d/);
  });
  it('asks once whether another version of its program goes, and has the list of what is there then', async () => {
    const { device } = link(says('x'));
    const send = (word: string) => device.send({ ...newProject('Ferns', barrow, hall), program: says(word) });
    const held = () => device.found!.programs.filter((p) => p.called?.name === 'Ferns').map((p) => p.number);
    await device.plugIn();
    await send('one');
    const [first] = held();
    const second = send('two');
    await until(() => !!device.replaces, 'asked');
    expect(device.replaces!.old.number).toBe(first);
    device.replaces!.answer(true);
    await second;
    expect(held()).toEqual([first + 1]);
    // the answer holds for this program
    await send('three');
    expect(held()).toEqual([first + 2]);
    await send('three');
    expect(held()).toEqual([first + 2]);
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
  it('brings back every run that it made out of reach, in order, also when the page was gone meanwhile', async () => {
    const { device, devices, runs, ended } = link(says('moss', b('wait.time', { time: 0.3, unit: 's' })));
    await device.plugIn();
    await device.send();
    device.unplug();
    // near by it reports while it runs
    device.pressDot();
    await until(() => ended.length === 1, 'reported');
    expect([runs.device === ended[0], runs.away, device.waiting.length]).toEqual([true, undefined, 0]);
    await device.carry(false);
    for (let n = 1; n <= 2; n++) {
      device.pressDot();
      await until(() => device.waiting.length === n && !device.running, `run ${n}`);
    }
    expect(ended).toHaveLength(1);
    await device.carry(true);
    expect(ended).toHaveLength(3);
    expect(new Set(ended.map((run) => run.trace.header.run.seed)).size).toBe(3);
    expect(runs.device).toBe(ended[2]);
    expect(device.message).toContain('It ran 2 times on its own');
    // carried away in the middle of a run, that run is told when it is back
    device.pressDot();
    await until(() => device.running, 'running');
    await device.carry(false);
    expect(runs.device).toBeUndefined();
    await until(() => !device.running, 'over');
    // it takes a moment to be kept
    const kept = async (): Promise<number> =>
      ((await get('mossbell.device.MB-BAR-0003')) as { runs?: unknown[] }).runs?.length ?? 0;
    await vi.waitUntil(async () => (await kept()) === 1, { timeout: 20_000 });
    devices.close();
    const again = link(says('another'));
    await again.device.plugIn();
    expect(again.ended.map((run) => [run.kind, logs(run.trace)])).toEqual([['device', ['moss']]]);
    expect([again.device.waiting.length, await kept()]).toEqual([0, 0]);
  });
  it('is a drive with Dot held: takes a file, refuses another, and starts what it took', async () => {
    const { device, runs } = link(says('x'));
    await device.plugIn(true);
    expect([device.status, device.files[0].name]).toEqual(['a drive', 'about.txt']);
    const put = (name: string, bytes: Uint8Array) => device.drop(name, bytes.length, async () => bytes);
    await put('cat.png', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10));
    expect([device.mood, device.message, device.status]).toEqual([
      'bad',
      expect.stringContaining('is a picture'),
      'a drive'
    ]);
    let read = false;
    await device.drop('film.mp4', 40_000_000, async () => ((read = true), new Uint8Array(0)));
    expect([read, device.message]).toEqual([false, expect.stringContaining('40.0 MB')]);
    await put('fern.device.py', file('fern'));
    expect([device.mood, device.message, device.status]).toEqual([
      'good',
      expect.stringContaining('"fern" is on the device as program'),
      'ready'
    ]);
    device.pressDot();
    await until(() => runs.device?.trace.ended === 'done', 'run');
    expect(logs(runs.device!.trace)).toEqual(['fern']);
  });
  it('comes with a factory demo that lives, is told apart, gets its MicroPython, cut and repeated', async () => {
    const { devices, runs } = link(says('x'));
    devices.choose('Barrow 9');
    const device = devices.chosen;
    await device.plugIn();
    expect([device.status, device.trouble]).toEqual(['no MicroPython', 'factory']);
    device.pressDot();
    await until(() => runs.device?.trace.ended === 'done', 'demo');
    expect(runs.device!.trace.events.filter((e) => e.type === 'tone')).toHaveLength(3);
    await device.send();
    expect([device.mood, device.message]).toEqual(['bad', expect.stringContaining('factory demo and no MicroPython')]);
    const cut = device.install('micropython');
    await until(() => (device.progress?.share ?? 0) > 0.05, 'under way');
    device.unplug();
    await cut;
    await device.plugIn();
    // there is nothing to start: it appears as a drive by itself
    expect([device.status, device.drive!.memory.firmware]).toEqual(['a drive', '']);
    await device.install('micropython');
    expect([device.status, device.message]).toEqual(['library missing', 'MicroPython 1.27 is installed.']);
    const sent = device.send(undefined, { installs: true });
    await sent;
    expect(device.status).toBe('ready');
    await device.install('factory');
    expect(device.status).toBe('no MicroPython');
  });
  it('goes through a lesson of faults, and is well again', async () => {
    const { device } = link(says('x'));
    await device.plugIn();
    await device.send();
    await device.setCondition('full');
    await device.send();
    expect([device.mood, device.message]).toEqual([
      'bad',
      expect.stringContaining('The storage of the device is full')
    ]);
    await device.setCondition('old library');
    expect(device.status).toBe('library old');
    await device.setCondition('ready');
    expect([device.status, device.found!.programs.length > 0]).toEqual(['ready', true]);
    device.cableName = 'flaky';
    // a byte in a thousand: not each time
    for (let i = 0; i < 8 && !/said again/.test(device.message); i++) await device.send();
    expect(device.message).toMatch(/as program \d+\..*had to be said again: try another cable/s);
    device.unplug();
    device.cableName = 'dies';
    await device.plugIn();
    expect([device.status, device.found!.programs.length > 0], 'a cable that dies while sending can ask').toEqual([
      'ready',
      true
    ]);
    await device.send();
    expect([device.plugged, device.message]).toEqual([false, expect.stringContaining('Unplugged while sending')]);
    device.cableName = 'good';
    await device.plugIn();
    device.givesOut = true;
    await device.send();
    expect([device.status, device.message]).toEqual([
      'flat',
      expect.stringContaining('battery gave out while sending')
    ]);
    device.givesOut = false;
    await device.plugIn();
    await device.send();
    expect(device.mood).toBe('good');
  });
  it('chooses with its own buttons, answers a line of Python, and shows which one it is', async () => {
    const { device, runs } = link(says('first'));
    await device.plugIn();
    await device.send();
    await device.send({ ...newProject('Second', barrow, hall), program: says('second') });
    const [two, one] = device.found!.programs;
    device.press('Bar', true);
    await until(() => device.offers === two.number, 'the one that starts');
    expect(device.offered).toContain('#');
    // round to the first of all, and on
    for (let n = 0; device.offers !== one.number && n < 30; n++) {
      const before = device.offers;
      device.press('Bar', true);
      await until(() => device.offers !== before, 'next');
    }
    device.pressDot();
    await until(() => device.offers === 0, 'taken');
    device.pressDot();
    await until(() => runs.device?.trace.ended === 'done', 'run');
    expect(logs(runs.device!.trace)).toEqual(['first']);
    // the trace is whole a message before the device says that it waits
    await until(() => !device.running, 'waits');
    await device.type('6 * 7');
    await device.type('1 / 0');
    expect(device.typed.slice(-2)).toMatchObject([
      { line: '6 * 7', answer: '42', bad: false },
      { line: '1 / 0', answer: expect.stringContaining('ZeroDivisionError'), bad: true }
    ]);
    await device.showWhich();
    expect(device.blinks).toBe(true);
  });
  it('is one of a class set: all are sent to at once, one that fails does not hold up the others', async () => {
    const { devices } = link(says('all'));
    const [three, five, seven] = devices.all;
    const saucer = devices.others[0];
    await Promise.all([three, five, seven, saucer].map((d) => d.plugIn()));
    expect([saucer.status, three.status]).toEqual(['another device', 'ready']);
    seven.cableName = 'charge';
    await sendAll(devices);
    expect([three.mood, five.mood, seven.mood, saucer.mood]).toEqual(['good', 'good', 'bad', '']);
    const version = await versionOf(devices, { ...newProject('On the device', barrow, hall), program: says('all') });
    const has = (d: typeof three) => d.found!.programs.find((p) => p.starts)!.crc;
    expect([has(three) === version, has(five) === version]).toEqual([true, true]);
    expect(seven.message).toContain('A cable that only charges');
  });
  it('tells that it is stuck, that it sleeps, and wakes when Dot is pressed', async () => {
    const wall = { ...hall, walls: [{ x: 1.65, y: 1.5, width: 0.02, height: 1, turnDeg: 0, colour: '#000000' }] };
    const { device } = link(program(start(b('wheels.run'), wait(4))), { mat: wall });
    await device.plugIn();
    await device.send();
    device.pressDot();
    await until(() => device.status === 'stuck', 'stuck');
    device.halt();
    await until(() => !device.running, 'halted');
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    try {
      device.unplug();
      expect(device.status).toBe('on battery');
      vi.advanceTimersByTime(6 * 60_000);
      expect(device.status).toBe('sleeping');
      device.pressDot();
      expect([device.status, device.running]).toEqual(['on battery', false]);
    } finally {
      vi.useRealTimers();
    }
  });
});
