/** Each block runs in the interpreter and, printed and marked, on a real MicroPython: same events, order, millisecond. */
import { identifier } from '../../core/language/python/names.ts';
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import { isDeepStrictEqual } from 'node:util';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import CRC32 from 'crc-32';
import { barrow, type Kit } from '../../core/kit/kit.ts';
import { noQuirks, type Quirks } from '../../core/kit/quirks.ts';
import { catalogue } from '../../core/language/catalogue.ts';
import { printPython } from '../../core/language/python/print.ts';
import { walkSteps, type Program, type Step } from '../../core/language/program.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import type { TimedInput, Trace, TraceEvent } from '../../core/trace/trace.ts';
import { b, cmp, log, program, start, sum, wait } from '../../core/testing/build.ts';
import { KITS } from '../../core/testing/kits.ts';
import { longAisle } from '../../core/yard/mats.ts';
import { CASES } from './cases.ts';
import { programFile } from '../../core/link/file.ts';
import { utf8 } from '../../core/bytes.ts';
import { StandIn, type LoadMicroPython } from './standin.ts';

const library = readFileSync(new URL('../lib/mossbell.py', import.meta.url));

export async function onStandIn(
  p: Program,
  inputs: TimedInput[],
  mat = longAisle,
  { kit, quirks = noQuirks }: { kit: Kit; quirks?: Quirks } = { kit: barrow }
): Promise<Trace> {
  const { text, blocks } = printPython(p, kit);
  let trace: Trace | undefined;
  const file = programFile(text);
  const standIn = await StandIn.boot({
    serial: 'TEST',
    name: 'Test',
    load: loadMicroPython as unknown as LoadMicroPython,
    flash: { 'lib/mossbell.py': library, 'p/1.py': utf8(file), 'p/active': utf8('1') },
    host: { write: () => {}, began: () => {}, tick: () => {}, ended: (t) => (trace = t) },
    quirks,
    noise: false,
    onBattery: false,
    seed: 5,
    limitS: 20,
    inputs,
    blocksOf: (crc) => (crc === CRC32.str(text) >>> 0 ? blocks : undefined)
  });
  standIn.place = { kit, mat, pose: mat.start };
  const message = standIn.start();
  if (!trace) throw new Error(`${message}\n${text}`);
  return trace;
}

/** What both must agree on: everything that is told, at the same millisecond. */
const essence = (trace: Trace): unknown[] =>
  trace.events.map((e: TraceEvent) => {
    const { block, ...rest } = e;
    return {
      ...rest,
      tUs: Math.floor(e.tUs / 1000),
      block
    };
  });

/** Every value that a variable got, with its millisecond. */
const changes = ({ names, changes: c }: Trace): unknown[] =>
  Array.from({ length: c.count }, (_, row) => [
    identifier(names[c.variable[row]]),
    Math.floor(c.tUs[row] / 1000),
    c.texts[row] ?? c.value[row]
  ]);
/** Every sample of every channel: poses, duties of the motors, sensors. */
const samples = ({ channels }: Trace): unknown[] => channels.map((c) => [c.key, c.chunks]);
async function agree(p: Program, inputs: TimedInput[] = [], mat = longAisle, of = KITS.plain): Promise<Trace> {
  const here = rehearse({ program: p, ...of, mat, seed: 5, noise: false, limitS: 20, inputs });
  const there = await onStandIn(p, inputs, mat, of);
  expect(essence(there)).toEqual(essence(here));
  expect(changes(there)).toEqual(changes(here));
  expect(there.ended).toBe(here.ended);
  expect(there.ticks).toBe(here.ticks);
  expect(samples(there)).toEqual(samples(here));
  return here;
}

describe('interpreter and MicroPython agree', () => {
  it('has a case for every block, and each case uses its block', () => {
    expect(Object.keys(CASES).sort()).toEqual([...catalogue.keys()].sort());
    for (const [kind, make] of Object.entries(CASES)) {
      const { p } = make();
      const used = [...p.stacks, ...p.routines].flatMap((x) => [...walkSteps(x.steps)].map((step) => step.kind));
      expect(used, kind).toContain(kind);
    }
  });
  for (const [kind, make] of Object.entries(CASES))
    it(kind, async () => {
      const { p, inputs, mat, kit = 'plain' } = make();
      const trace = await agree(p, inputs, mat, KITS[kit]);
      expect(trace.events.length).toBeGreaterThan(1);
    });

  // what steers motors, servos and sensors, on every kind of Barrow there is
  const machines = Object.entries(CASES).filter(([kind]) =>
    /^(drive|turn|wheels|motor|servo|curve)\.|^sense\.(turns|wheelspeed|driven|speed|motor|line|over|distance)/.test(
      kind
    )
  );
  const displays = Object.entries(CASES).filter(([kind]) => /^(pixel|picture|display)\./.test(kind));
  for (const [name, { kit }] of Object.entries(KITS).filter(([k]) => k !== 'plain')) {
    const blocks = isDeepStrictEqual(kit.display, barrow.display) || kit.device !== barrow.device ? machines : displays;
    it(`${blocks.length} blocks on ${name}`, async () => {
      for (const [, make] of blocks) {
        const { p, inputs, mat } = make();
        await agree(p, inputs, mat, KITS[name]);
      }
    });
  }

  it('of two mistakes in one block the same one is told: the place before what goes there', async () => {
    const itself = b('list.replace', { list: 'l1', place: 3, value: b('list.value', { list: 'l1' }) });
    const trace = await agree(program(start(itself)));
    expect(trace.events.flatMap((e) => (e.type === 'error' ? [e.kind] : []))).toEqual(['no-such-place']);
  });
  it('the last block of a stack is over with its stack, while another one goes on', async () => {
    const last = log('done');
    const two = program(start(wait(0.1), last), start(wait(2)));
    const alone = program(start(wait(0.1), last));
    for (const trace of [
      rehearse({ program: two, kit: barrow, mat: longAisle, seed: 5 }),
      await onStandIn(two, []),
      await onStandIn(alone, [])
    ]) {
      const row = [...trace.spans.block].findIndex((i) => trace.header.blocks[i] === last.id);
      expect(trace.spans.end[row]).toBeGreaterThan(100_000);
      expect(trace.spans.end[row]).toBeLessThan(102_000);
      expect(trace.ticks).toBeGreaterThan(500);
    }
  });
  it('two tasks that command the same wheels: the later wins', async () => {
    const trace = await agree(
      program(
        start(b('drive.measure', { amount: 60 }), log('first over')),
        start(wait(0.7), b('turn.angle', { angle: 30 }), log('second over'))
      )
    );
    expect(trace.events.some((e) => e.type === 'moved' && e.ended === 'taken over')).toBe(true);
  });
  it('errors stop at the same block with the same kind', async () => {
    const bad: [string, Step][] = [
      ['division-by-zero', log(sum(1, '÷', 0))],
      ['not-a-number', b('servo.angle', { angle: b('var.value', { variable: 'v2' }) })],
      ['unlike-things', log(cmp('a', '<', 1))],
      ['empty-socket', b('servo.angle', { servo: 'J6' })],
      ['wrong-part', b('motor.run', { motor: 'J4' })],
      ['out-of-range', b('pixel.set', { x: sum(3, '+', 4) })],
      ['not-whole', b('repeat.times', { count: sum(1, '÷', 2) }, { do: [log('x')] })],
      ['too-large', log(sum(9007199254740992, '+', 5))],
      ['not-a-picture', b('picture.show', { picture: b('var.value', { variable: 'v2' }) })]
    ];
    for (const [kind, step] of bad) {
      const trace = await agree(
        program(start(b('var.set', { variable: 'v2', value: 'letters' }), b('wheels.run'), step, log('not reached')))
      );
      const error = trace.events.find((e) => e.type === 'error');
      expect(error).toMatchObject({ kind, block: step.id });
      expect(trace.ended).toBe('error');
    }
  });
  it('a routine that calls itself for ever ends with a plain error in both', async () => {
    const p = program(start(b('routine.do', { routine: 'r1' })));
    const trace = await agree({
      ...p,
      routines: [
        {
          id: 'r1',
          name: 'again',
          x: 0,
          y: 0,
          steps: [b('var.change', { variable: 'v1' }), b('routine.do', { routine: 'r1' })]
        }
      ]
    });
    expect(trace.events.find((e) => e.type === 'error')).toMatchObject({ kind: 'too-deep' });
    expect(trace.variables.v1).toBe(100);
  });
  it('switched-off blocks and empty loops run as nothing', async () => {
    await agree(
      program(
        start(
          { ...log('off'), off: true },
          b('repeat.times', { count: 3 }),
          b('choose.if', {}, { then1: [] }),
          log('on')
        )
      )
    );
  });
});
