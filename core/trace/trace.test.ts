import { noQuirks } from '../kit/quirks.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow, resized } from '../kit/kit.ts';
import { channelSpecs } from '../run/channels.ts';
import { Bench } from '../run/bench.ts';
import { Interpreter } from '../run/interpreter.ts';
import { b, hall, log, program, run, start, wait } from '../testing/build.ts';
import { header } from '../testing/header.ts';
import { bytesOfTrace, eventsCsv, traceBytes, traceCsv } from './files.ts';
import { findings } from './findings/findings.ts';
import { parseInputs, writeInputs } from './inputs.ts';
import { recordedInputs } from './track.ts';
import { askedAndGot, envelope, sampleAt, stateAt } from './query.ts';
import { Follow, Recorder } from './recorder.ts';
import { channel, type Channel, type TraceEvent } from './trace.ts';

/** RFC 4180, section 2, as a state machine: records of fields, CRLF between records, quotes doubled within quotes. */
function rfc4180(text: string): string[][] {
  const rows: string[][] = [[]];
  let i = 0;
  while (i < text.length) {
    let field = '';
    if (text[i] === '"') {
      for (i++; ; i++) {
        if (i >= text.length) throw new Error('a quoted field is not closed');
        if (text[i] !== '"') field += text[i];
        else if (text[i + 1] === '"') field += text[i++];
        else break;
      }
      i++;
    } else for (; i < text.length && !',\r\n"'.includes(text[i]); i++) field += text[i];
    rows[rows.length - 1].push(field);
    if (text[i] === ',') i++;
    else if (text.startsWith('\r\n', i)) {
      i += 2;
      if (i < text.length) rows.push([]);
    } else if (i < text.length) throw new Error(`not RFC 4180 at ${i}: ${JSON.stringify(text.slice(i, i + 5))}`);
  }
  return rows;
}

describe('a trace as CSV', () => {
  it('keeps the grammar of RFC 4180, with quotes, commas and line breaks in the log', () => {
    const trace = run([
      log('plain'),
      wait(0.05),
      log('with "quotes", a comma'),
      b('drive.measure', { amount: 5 }),
      log('two\nlines')
    ]);
    const rows = rfc4180(traceCsv(trace));
    expect(new Set(rows.map((r) => r.length)).size).toBe(1);
    expect(rows[0][0]).toBe('time_s');
    expect(rows[0]).toContain('distance_cm');
    const said = rows
      .slice(1)
      .map((r) => r[r.length - 1])
      .filter(Boolean);
    expect(said).toEqual(['plain', 'with "quotes", a comma', 'two\nlines']);
    const x = rows[0].indexOf('x_m');
    expect(Number(rows[rows.length - 1][x])).toBeCloseTo(stateAt(trace, trace.ticks * 1000).x, 6);
    expect(rows.length - 1).toBe(Math.floor(trace.ticks / 10));
  });
  it('has what a class graphs of its own: counters, plots, lamps, the display, tones, messages, marks', () => {
    const trace = run([
      b('var.set', { variable: 'v1', value: 2 }),
      b('log.plot', { value: 7.5 }),
      b('lamp.set', { lamp: 'left', to: 'on' }),
      b('picture.show'),
      wait(0.02),
      b('var.change', { variable: 'v1', amount: 3 }),
      b('sound.tone', { pitch: 440, time: 0.1 }),
      b('log.mark', { words: 'half way' }),
      b('message.send', { name: 'go' }),
      b('lamp.set', { lamp: 'left', to: 'off' }),
      wait(0.1)
    ]);
    const [head, ...rows] = rfc4180(traceCsv(trace));
    const column = (name: string): string[] => rows.map((r) => r[head.indexOf(name)]);
    expect([...new Set(column('variable count'))]).toEqual(['2', '5']);
    expect(column('lamp left')[0]).not.toBe('off');
    expect(column('lamp left').at(-1)).toBe('off');
    expect(column('display')[0]).toMatch(/#/);
    expect(column('tone_hz').filter((v) => v === '440')).toHaveLength(10);
    expect(column('tone_hz').at(-1)).toBe('0');
    expect(column('mark').filter(Boolean)).toEqual([expect.any(String)]);
    expect(column('message').filter(Boolean)).toEqual(['go']);
    expect(head.filter((h) => h.startsWith('plot '))).toHaveLength(1);
    // all that happened, a row each, its own fields as a run file has them
    const [names, ...all] = rfc4180(eventsCsv(trace, (id) => `block ${id}`));
    expect(names).toEqual(['time_s', 'event', 'block', 'what', 'fields']);
    expect(all).toHaveLength(trace.events.length);
    const tone = all.find((r) => r[1] === 'tone')!;
    expect([tone[2], tone[3], JSON.parse(tone[4])]).toEqual([
      expect.stringMatching(/^block b/),
      'a tone of 440 Hz',
      { hertz: 440, seconds: 0.1 }
    ]);
  });
});

describe('the recorder', () => {
  it('hands out deltas from which the same trace grows, however often it is asked', () => {
    const options = {
      program: program(
        start(
          b('repeat.times', { count: 30 }, { do: [b('lamp.set', { to: 'flip' }), wait(33, 'ms')] }),
          b('drive.measure', { amount: 12 })
        )
      ),
      kit: barrow,
      mat: hall,
      seed: 2
    };
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 5000, max: 900_000 }), { minLength: 1, maxLength: 9 }), (slices) => {
        const bench = new Bench(options);
        const interpreter = new Interpreter(bench);
        const follow = new Follow(bench.trace.header, channelSpecs(barrow, bench.spec.mat));
        let i = 0;
        let state;
        do {
          state = interpreter.advance(bench.worldUs + slices[i++ % slices.length]);
          follow.add(structuredClone(bench.recorder.drain()));
        } while (state !== 'ended');
        // variables travel beside the deltas, as they are now
        Object.assign(follow.trace.variables, bench.trace.variables);
        expect(traceBytes(follow.trace)).toEqual(traceBytes(bench.trace));
        for (const c of follow.trace.channels)
          expect([c.low, c.high]).toEqual([channel(bench.trace, c.key)!.low, channel(bench.trace, c.key)!.high]);
      }),
      { numRuns: 6 }
    );
  });
  it('bundles what comes too often, each subject by itself', () => {
    const recorder = new Recorder(header, []);
    const heard = (i: number, name: string): TraceEvent => ({ tUs: 2 * i, type: 'heard', name, from: 'Wren' });
    const motor = (i: number, socket: string): TraceEvent => ({
      tUs: 2 * i,
      type: 'motor',
      socket,
      power: i,
      how: 'power'
    });
    const N = 30_000;
    for (let i = 0; i < N; i++)
      for (const e of [heard(i, 'a'), heard(i, 'b'), motor(i, 'P'), motor(i, 'Q')]) recorder.event(e);
    for (let i = 0; i < N; i++)
      recorder.event({ tUs: 2 * N, type: 'touch', x: 0, y: 0, speedCmS: 1, what: '', nose: true });
    const { events } = recorder.trace;
    const of = (is: (e: TraceEvent) => boolean) => events.filter(is);
    for (const name of ['a', 'b', 'P', 'Q']) {
      const list = of((e) => ('name' in e && e.name === name) || ('socket' in e && e.socket === name));
      // each of the first 20,000; then one for each 10 ms
      expect(list.length, name).toBe(20_000 + 2);
      expect(list.reduce((n, e) => n + (e.times ?? 1), 0)).toBe(N);
      expect(list.at(-1)).toMatchObject({ tUs: 50_000, times: 5000 });
    }
    expect(of((e) => e.type === 'motor').at(-1)).toMatchObject({ power: N - 1 });
    expect(of((e) => e.type === 'touch')).toHaveLength(N);
  });
  it('keeps 10 minutes of 40 channels under 48 MB', () => {
    const specs = Array.from({ length: 40 }, (_, i) => ({ key: `c${i}`, title: '', unit: '', scale: 0.01 }));
    const recorder = new Recorder(header, specs);
    const values = new Float64Array(40);
    for (let t = 0; t < 600_000; t++) {
      for (let i = 0; i < 40; i++) values[i] = (t * (i + 1)) % 300;
      recorder.sample(values);
    }
    recorder.finish('done', 600e6);
    expect(bytesOfTrace(recorder.trace)).toBeLessThanOrEqual(48.1e6);
    expect(sampleAt(recorder.trace.channels[3], 12_345)).toBeCloseTo((12_345 * 4) % 300, 2);
  });
  it('draws from smallest and largest, the same as looking at every sample', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }).chain((each) =>
          fc.tuple(
            fc.constant(each),
            fc
              .integer({ min: 1, max: 50 })
              .chain((columns) =>
                fc.array(fc.integer({ min: -300, max: 300 }), { minLength: each * columns, maxLength: each * columns })
              )
          )
        ),
        ([each, samples]) => {
          const columns = samples.length / each;
          const c: Channel = { key: 'a', title: '', unit: '', scale: 0.5, chunks: [], low: [], high: [] };
          for (let i = 0; i < samples.length; i += 1000) {
            const part = samples.slice(i, i + 1000);
            c.chunks.push(new Set(part).size === 1 ? part[0] : Int16Array.from(part));
            c.low.push(Math.min(...part));
            c.high.push(Math.max(...part));
          }
          const out = envelope(c, samples.length, 0, samples.length * 1000, columns);
          for (let i = 0; i < columns; i++) {
            const part = samples.slice(i * each, (i + 1) * each);
            expect(out[2 * i]).toBe(Math.min(...part) * 0.5);
            expect(out[2 * i + 1]).toBe(Math.max(...part) * 0.5);
          }
        }
      ),
      { numRuns: 40 }
    );
  });
});

describe('findings', () => {
  const rules = (trace: ReturnType<typeof run>) => findings(trace, barrow).map((f) => f.rule);
  it('tell what was shown too briefly, ran too briefly, touched, rolled on', () => {
    const first = b('picture.show');
    const shown = run([
      first,
      b('picture.show', { picture: { picture: '#...... ....... ....... ....... .......' } }),
      b('wheels.run'),
      b('wheels.stop')
    ]);
    expect(rules(shown)).toEqual(['shown-briefly', 'ran-briefly']);
    expect(findings(shown, barrow)[0]).toMatchObject({
      blocks: [first.id, expect.any(String)],
      says: 'This picture was shown for 0.1 ms, then it was replaced: nobody can see it.'
    });
    expect(rules(run([b('drive.measure', { amount: 40, ending: 'coast' })]))).toEqual(['rolled-on']);
    expect(rules(run([b('wheels.run', { left: 50, right: 50 }), wait(8), b('wheels.stop')], { limitS: 12 }))).toContain(
      'touched'
    );
  });
  it('compare what was asked with what came of it', () => {
    const trace = run([b('drive.measure', { amount: 50 }), b('turn.angle', { angle: 90 })], {
      kit: resized(barrow, { trackMm: 118 }),
      quirks: undefined
    });
    expect(askedAndGot(trace).map((m) => [m.what, m.asked, m.unit])).toEqual([
      ['drive ahead', 50, 'cm'],
      ['turn left', 90, '°']
    ]);
    const off = run([b('turn.angle', { angle: 90 })], {
      quirks: { ...noQuirks, spread: 1.1 }
    });
    expect(findings(off, barrow)[0]).toMatchObject({ rule: 'asked-and-got' });
    expect(findings(off, barrow)[0].says).toMatch(/asked 90 °, got 8[12]/);
  });
  it('say that a number was more than the device can do', () => {
    expect(findings(run([b('servo.angle', { angle: sumOf(200) }), wait(1)]), barrow)[0].says).toBe(
      'A angle of 200 was asked for; the device can do 180.'.replace('A angle', 'An angle')
    );
  });
  const sumOf = (n: number) => b('calc.sum', { a: n, sign: '+', b: 0 });
});

describe('inputs', () => {
  it('are written and read as JSON lines, and replay the run', () => {
    const text = '{"t":0.5,"press":"Dot"}\n{"t":0.75,"release":"Dot"}\n{"t":1,"nose":true}\n';
    const read = parseInputs(text);
    if (!read.ok) throw new Error(read.problem);
    expect(writeInputs(read.inputs)).toBe(text);
    const p = program([b('begin.button'), log(b('sense.nose')), wait(1), log(b('sense.nose'))]);
    const first = run(p, { inputs: read.inputs, limitS: 2 });
    const again = run(p, { inputs: recordedInputs(first), limitS: 2 });
    expect(traceBytes(again)).toEqual(traceBytes(first));
  });
  it('say which line is wrong', () => {
    expect(parseInputs('{"t":1,"press":"Dot"}\nnonsense')).toEqual({
      ok: false,
      problem: expect.stringContaining('line 2 is not JSON')
    });
    expect(parseInputs('{"t":1,"press":"Dash"}')).toEqual({
      ok: false,
      problem: expect.stringContaining('line 1 is not an input')
    });
    // to another device only what is done to a device
    expect(parseInputs('{"t":1,"to":"B","press":"Dot"}').ok).toBe(true);
    for (const line of [
      '{"t":1,"to":"B","stop":true}',
      '{"t":1,"to":7,"press":"Dot"}',
      '{"t":1,"to":"","press":"Dot"}'
    ])
      expect(parseInputs(line).ok, line).toBe(false);
  });
});
