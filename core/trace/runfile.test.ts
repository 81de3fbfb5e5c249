import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { newProject } from '../project.ts';
import { b, hall, log, program, run, start, wait } from '../testing/build.ts';
import { long } from '../testing/long.ts';
import { base64Of, bytesOf, zipped } from '../bytes.ts';
import { traceBytes } from './files.ts';
import { recordedInputs } from './track.ts';
import { readRun, writeRun } from './runfile.ts';
import { emptyTrace, type Trace } from './trace.ts';

const p = program(
  start(
    b('picture.show', { picture: { picture: '-+# ...' } }),
    b('var.set', { variable: 'v2', value: 'leaf' }),
    b('drive.measure', { amount: 30 }),
    b('var.change', { variable: 'v1' }),
    log('there'),
    wait(0.3)
  )
);
const project = { ...newProject('Errand', barrow, hall), program: p };
const trace = run(p);
const text = await writeRun({ name: 'first try', at: '2026-11-26T08:00:00Z', kind: 'rehearsal', project, trace });
const read = async (t: string) => {
  const r = await readRun(t, 'the file');
  if (!r.ok) throw new Error(r.problem);
  return r;
};

describe('a run as a file', () => {
  it('opens to the same run, byte for byte', async () => {
    const { run: back, missing } = await read(text);
    expect(missing).toEqual([]);
    expect(back).toMatchObject({ name: 'first try', kind: 'rehearsal', at: '2026-11-26T08:00:00Z' });
    expect(back.project).toEqual(project);
    expect(traceBytes({ ...back.trace, variables: trace.variables })).toEqual(traceBytes(trace));
    expect(text.split('\n').length).toBeLessThan(60);
  });
  it('keeps what was expected of it', async () => {
    const guess = { who: 'Wren', words: 'it stops at the hoop' };
    expect(
      (await read(await writeRun({ name: '', kind: 'rehearsal', project, trace, predictions: [guess] }))).run
        .predictions
    ).toEqual([guess]);
  });
  it('keeps what makes a run again, without what it recorded', async () => {
    const pressed = run(p, { inputs: [{ tUs: 5000, input: { press: 'Dot' } }] });
    const small = await writeRun({ name: '', kind: 'rehearsal', project, trace: pressed }, false);
    expect(small.length).toBeLessThan(text.length / 2);
    const { run: back, missing } = await read(small);
    expect(missing).toEqual([]);
    expect(back.trace.channels).toEqual([]);
    expect(recordedInputs(back.trace)).toEqual([{ tUs: 5000, input: { press: 'Dot' } }]);
    expect(back.trace.events).toHaveLength(1);
  });
  it('opens as version 1 wrote it: every row one run, differences of 32 bits', async () => {
    const run = trace.header.run;
    const old = text
      .replace('"version":6', '"version":1')
      .replace(/"run":"\w+"\},"run":\{.*?\}.*?\}/, `"x":""},"seed":1,"start":${JSON.stringify(run.start)}`)
      .replace(/,"times":"[^"]*","busy":"[^"]*"/, '')
      .split('\n')
      .filter((l) => !l.startsWith('{"channel"'))
      .join('\n');
    const x = { key: 'x', title: '', unit: 'm', scale: 0.001 };
    const steps = base64Of(await zipped(new Uint8Array(Int32Array.from([5, 70_000, -70_000]).buffer)));
    const lines = old
      .replace(/"ticks":\d+/, '"ticks":3')
      .replace(/"channels":\d+/, '"channels":1')
      .trim()
      .split('\n');
    lines.splice(-1, 0, JSON.stringify({ channel: { ...x, wide: true }, samples: steps }));
    expect(lines[0]).toContain('"seed":1,"start"');
    const { run: back, missing } = await read(lines.join('\n'));
    expect(missing).toEqual([]);
    // of what decided it, it says the start and the seed: the rest was as it always was
    expect(back.trace.header.run).toEqual({ ...run, noise: true });
    const stopped = [
      lines[0].replace('"done"', '"stopped"').replace('"channels":1', '"channels":0'),
      ...lines.slice(1)
    ];
    const cut = await read(stopped.filter((l) => !l.startsWith('{"channel"')).join('\n'));
    expect(cut.missing).toContain('It was stopped, but this older file does not say when: here it runs to its end.');
    expect(back.trace.channels[0].chunks).toEqual([Int32Array.from([5, 70_005, 5])]);
    expect(back.trace.spans.count).toBe(trace.spans.count);
    expect([...back.trace.spans.times].every((n) => n === 1)).toBe(true);
    expect([...back.trace.spans.busy]).toEqual([...trace.spans.busy.slice(0, trace.spans.count)]);
  });
  it('opens as far as it goes when it was cut short, and says what is missing', async () => {
    const lines = text.trim().split('\n');
    const channels = lines.findIndex((l) => l.includes('"key":"speedLeft"'));
    const cut = await read([...lines.slice(0, channels), lines[channels].slice(0, 40)].join('\n'));
    expect(cut.run.trace.channels.length).toBeGreaterThan(2);
    expect(cut.missing.join(' ')).toMatch(/cut short.*channels are there/);
    // cut anywhere at all: it opens with sentences, or is refused with one
    for (let n = 0; n < text.length; n += Math.ceil(text.length / 60)) {
      const r = await readRun(text.slice(0, n), 'the file');
      if (r.ok) expect(r.missing.length).toBeGreaterThan(0);
      else expect(r.problem).toMatch(/^the file /);
    }
  });
  it('refuses what is no run, or of a newer version, with a sentence', async () => {
    const problem = async (t: string): Promise<string> => {
      const r = await readRun(t, 'the file');
      return r.ok ? 'opened' : r.problem;
    };
    expect(await problem('nonsense')).toContain('its first line is not JSON');
    expect(await problem('{"format":"mossbell.project"}')).toContain('not a run of Moss Bell');
    expect(await problem(text.replace('"version":6', '"version":7'))).toContain(
      'newer Moss Bell (run format 7; this one reads up to 6)'
    );
    expect(await problem(text.replace('"ticks":', '"tacks":'))).toContain('its first line is wrong at "ticks"');
  });
  it('says how many lines it could not read, and leaves wrong events out', async () => {
    const lines = text.trim().split('\n');
    const broken = lines
      .map((l) => (l.includes('"key":"x"') ? l.replace(/"samples":"...../, '"samples":"!!!!!') : l))
      .join('\n');
    const r = await read(broken);
    expect(r.missing.join(' ')).toMatch(/1 line of the file could not be read/);
    const events = await read(text.replace('"tUs":', '"when":'));
    expect(events.missing.join(' ')).toContain('events are there');
  });
  it('of before, with the sockets as they were called then, opens with those of now', async () => {
    const then = text
      .replace('"version":6', '"version":3')
      .replace('"wheels":{"left":"J1","right":"J2"}', '"wheels":{"left":"P","right":"Q"}')
      .replace(/"socket":"J4"/g, '"socket":"U"')
      .replace(/"key":"servoJ5"/g, '"key":"servoV"')
      .replace(/"key":"servoJ4"/g, '"key":"servoU"');
    expect(then).not.toBe(text.replace('"version":6', '"version":3'));
    const [before, now] = [await read(then), await read(text)];
    expect(before.run.trace.header.wheels).toEqual({ left: 'J1', right: 'J2' });
    expect(before.run.trace.events).toEqual(now.run.trace.events);
    expect(before.run.trace.channels.map((c) => c.key)).toEqual(now.run.trace.channels.map((c) => c.key));
    expect(now.run.trace.channels.map((c) => c.key)).toContain('servoJ4');
  });
  it('of version 5, with digits in its pictures, opens with the signs of now', async () => {
    const of5 = text.replace('"version":6', '"version":5');
    const then = of5.replace('"picture":"-+#.', '"picture":"159.');
    expect(then).not.toBe(of5);
    expect((await read(then)).run.trace.events).toEqual((await read(text)).run.trace.events);
  });
  it('of version 4, with the quirks of a device by the side of its wheels, opens with them by its wheels', async () => {
    const quirks =
      '{"leftDiameter":1.01,"rightDiameter":0.99,"track":1.002,"leftMotor":0.97,"rightMotor":1.03,"leftFree":0.98,' +
      '"rightFree":1.02,"gyroBiasDegS":0.05,"servoOffsetDeg":-2,"charge":0.8,"swapped":true}';
    const then = text.replace('"version":6', '"version":4').replace('"run":{', `"run":{"quirks":${quirks},`);
    expect((await read(then)).run.trace.header.run.quirks).toEqual({
      wheels: {
        left: { diameter: 1.01, torque: 0.97, free: 0.98 },
        right: { diameter: 0.99, torque: 1.03, free: 1.02 }
      },
      spread: 1.002,
      gyroBiasDegS: 0.05,
      servoOffsetDeg: -2,
      charge: 0.8,
      swapped: true
    });
    expect((await readRun(then.replace('"track":1.002,', ''), 'the file')).ok).toBe(false);
  });
  it('takes as inputs only what a person can do, and to another device what is done to a device', async () => {
    const kept = async (...events: unknown[]) => {
      const lines = (await writeRun({ name: '', kind: 'rehearsal', project, trace }, false)).trim().split('\n');
      lines.splice(-1, 0, JSON.stringify({ events }));
      const { run: back, missing } = await read(lines.join('\n'));
      return [back.trace.events.length, missing.length];
    };
    const input = (given: unknown, more = {}) => ({ tUs: 1, type: 'input', input: given, ...more });
    expect(await kept(input({ press: 'Dot' }))).toEqual([1, 0]);
    expect(await kept(input({ press: 'Dash' }), input({ press: 'Bar' }))).toEqual([1, 1]);
    expect(await kept(input({ press: 'Dot' }, { to: 'Wren' }))).toEqual([1, 0]);
    expect(await kept(input({ stop: true }, { to: 'Wren' }))).toEqual([0, 1]);
    expect(await kept(input({ stop: true }))).toEqual([1, 0]);
    expect(await kept(input({ press: 'Dot' }, { to: 7 }))).toEqual([0, 1]);
    expect(await kept({ tUs: 1, type: 'log', text: 'x' }, { tUs: -1, type: 'log', text: 'x' })).toEqual([1, 1]);
  });
  it('asks for its moment of stopping only where an older file was stopped and keeps no channels', async () => {
    const missingOf = async (change: (t: string) => string) =>
      (await readRun(change(small), 'the file')) as { missing: string[] };
    const small = await writeRun(
      { name: '', kind: 'rehearsal', project, trace: { ...trace, ended: 'stopped' } },
      false
    );
    expect((await missingOf((t) => t)).missing).toEqual([]);
    const old = (t: string) =>
      t
        .replace('"version":6', '"version":2')
        .replace(/"run":\{("seed":\d+,"start":\{.*?\}).*?\}(?=,"wheels|,"blocks)/, '$1');
    expect((await missingOf(old)).missing).toEqual([expect.stringContaining('does not say when')]);
    expect((await missingOf((t) => old(t).replace('"ended":"stopped"', '"ended":"done"'))).missing).toEqual([]);
    const { ok, ...rest } = await readRun(small.replace('"version":6', '"version":"new"'), 'the file');
    expect([ok, rest]).toEqual([false, { problem: expect.stringContaining('wrong at "version"') }]);
  });
  it('shows no blocks where they point beyond the list of blocks', async () => {
    const few = await read(text.replace(/"blocks":\[[^\]]*\]/, '"blocks":[]'));
    expect(few.run.trace.spans.count).toBe(0);
    expect(few.missing.join(' ')).toContain('Blocks lane is empty');
  });
  long('opens a million events', async () => {
    const many: Trace = { ...emptyTrace(trace.header, []), ticks: 1000, ended: 'done' };
    for (let i = 0; i < 1_000_000; i++) many.events.push({ tUs: i, type: 'log', text: 'x' });
    const back = await read(await writeRun({ name: '', kind: 'device', project, trace: many }));
    expect(back.run.trace.events.length).toBe(1_000_000);
  });
});

describe('base64', () => {
  it('is that of RFC 4648, section 10', async () => {
    const vectors: [string, string][] = [
      ['', ''],
      ['f', 'Zg=='],
      ['fo', 'Zm8='],
      ['foo', 'Zm9v'],
      ['foob', 'Zm9vYg=='],
      ['fooba', 'Zm9vYmE='],
      ['foobar', 'Zm9vYmFy']
    ];
    for (const [plain, coded] of vectors) {
      const bytes = Uint8Array.from(plain, (c) => c.charCodeAt(0));
      expect(base64Of(bytes)).toBe(coded);
      expect(bytesOf(coded)).toEqual(bytes);
    }
  });
});
