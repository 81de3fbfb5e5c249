import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { newProject } from '../project.ts';
import { b, hall, log, program, run, start, wait } from '../testing/build.ts';
import { base64Of, bytesOf } from '../bytes.ts';
import { traceBytes } from './files.ts';
import { readRun, writeRun } from './runfile.ts';
import { emptyTrace, type Trace } from './trace.ts';

const p = program(
  start(
    b('var.set', { variable: 'v2', value: 'leaf' }),
    b('drive.measure', { amount: 30 }),
    b('var.change', { variable: 'v1' }),
    log('there'),
    wait(0.3)
  )
);
const project = { ...newProject('Errand', barrow, hall), program: p };
const trace = run(p);
const text = writeRun({ name: 'first try', at: '2026-11-26T08:00:00Z', kind: 'rehearsal', project, trace });
const read = (t: string) => {
  const r = readRun(t, 'the file');
  if (!r.ok) throw new Error(r.problem);
  return r;
};

describe('a run as a file', () => {
  it('opens to the same run, byte for byte', () => {
    const { run: back, missing } = read(text);
    expect(missing).toEqual([]);
    expect(back).toMatchObject({ name: 'first try', kind: 'rehearsal', at: '2026-11-26T08:00:00Z' });
    expect(back.project).toEqual(project);
    expect(traceBytes({ ...back.trace, variables: trace.variables })).toEqual(traceBytes(trace));
    expect(text.split('\n').length).toBeLessThan(60);
  });
  it('keeps what was expected of it', () => {
    const guess = { who: 'Wren', words: 'it stops at the hoop' };
    expect(
      read(writeRun({ name: '', kind: 'rehearsal', project, trace, predictions: [guess] })).run.predictions
    ).toEqual([guess]);
  });
  it('keeps what makes a run again, without its samples', () => {
    const small = writeRun({ name: '', kind: 'rehearsal', project, trace }, false);
    expect(small.length).toBeLessThan(text.length / 2);
    const { run: back, missing } = read(small);
    expect(missing).toEqual([]);
    expect([back.trace.channels.length, back.trace.events.length]).toEqual([0, trace.events.length]);
  });
  it('opens as far as it goes when it was cut short, and says what is missing', () => {
    const lines = text.trim().split('\n');
    const channels = lines.findIndex((l) => l.includes('"key":"speedLeft"'));
    const cut = read([...lines.slice(0, channels), lines[channels].slice(0, 40)].join('\n'));
    expect(cut.run.trace.channels.length).toBeGreaterThan(2);
    expect(cut.missing.join(' ')).toMatch(/cut short.*channels are there/);
    // cut anywhere at all: it opens with sentences, or is refused with one
    for (let n = 0; n < text.length; n += Math.ceil(text.length / 60)) {
      const r = readRun(text.slice(0, n), 'the file');
      if (r.ok) expect(r.missing.length).toBeGreaterThan(0);
      else expect(r.problem).toMatch(/^the file /);
    }
  });
  it('refuses what is no run, or of a newer version, with a sentence', () => {
    const problem = (t: string): string => {
      const r = readRun(t, 'the file');
      return r.ok ? 'opened' : r.problem;
    };
    expect(problem('nonsense')).toContain('its first line is not JSON');
    expect(problem('{"format":"mossbell.project"}')).toContain('not a run of Moss Bell');
    expect(problem(text.replace('"version":1', '"version":7'))).toContain(
      'newer Moss Bell (run format 7; this one reads up to 1)'
    );
    expect(problem(text.replace('"ticks":', '"tacks":'))).toContain('its first line is wrong at "ticks"');
  });
  it('says how many lines it could not read, and leaves wrong events out', () => {
    const lines = text.trim().split('\n');
    const broken = lines
      .map((l) => (l.includes('"key":"x"') ? l.replace(/"samples":"...../, '"samples":"!!!!!') : l))
      .join('\n');
    const r = read(broken);
    expect(r.missing.join(' ')).toMatch(/1 line of the file could not be read/);
    const events = read(text.replace('"tUs":', '"when":'));
    expect(events.missing.join(' ')).toContain('events are there');
  });
  it('shows no blocks where they point beyond the list of blocks', () => {
    const few = read(text.replace(/"blocks":\[[^\]]*\]/, '"blocks":[]'));
    expect(few.run.trace.spans.count).toBe(0);
    expect(few.missing.join(' ')).toContain('Blocks lane is empty');
  });
  it('opens a million events', () => {
    const many: Trace = { ...emptyTrace(trace.header, []), ticks: 1000, ended: 'done' };
    for (let i = 0; i < 1_000_000; i++) many.events.push({ tUs: i, type: 'log', text: 'x' });
    expect(read(writeRun({ name: '', kind: 'device', project, trace: many })).run.trace.events.length).toBe(1_000_000);
  });
});

describe('base64', () => {
  it('is that of RFC 4648, section 10', () => {
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
