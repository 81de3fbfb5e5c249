/** Programs nobody wrote: both runners agree on them, and neither hangs. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import CRC32 from 'crc-32';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { utf8 } from '../../core/bytes.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import { allSteps, type Program } from '../../core/language/program.ts';
import { printPython } from '../../core/language/python/print.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import { KITS } from '../../core/testing/kits.ts';
import { hall } from '../../core/testing/build.ts';
import { randomProgram } from '../../core/testing/random.ts';
import type { TimedInput, Trace } from '../../core/trace/trace.ts';
import { programFile } from '../../core/link/file.ts';
import { StandIn, type LoadMicroPython } from './standin.ts';

const library = readFileSync(new URL('../lib/mossbell.py', import.meta.url));
const COUNT = 250;
const LIMIT_S = 1.5;
const inputs: TimedInput[] = [
  { tUs: 200_000, input: { press: 'Dot' } },
  { tUs: 320_000, input: { release: 'Dot' } },
  { tUs: 700_000, input: { press: 'Bar' } }
];

/** What both must agree on: everything that is told, with its millisecond. */
const essence = (trace: Trace, starters: ReadonlySet<string | undefined>): string[] =>
  trace.events.map((e) => {
    const rest = { ...e };
    // a condition of a starter that fails: the text's scheduler does not say whose it was
    if (e.type === 'error' && starters.has(e.block)) delete rest.block;
    return JSON.stringify({ ...rest, tUs: Math.floor(e.tUs / 1000) }, (_, v) =>
      typeof v === 'number' ? Number(v.toPrecision(9)) : v
    );
  });

it(`${COUNT} random programs run the same in the interpreter and on MicroPython`, async () => {
  const programs = fc.sample(randomProgram, { numRuns: COUNT, seed: 2 });
  let events = 0;
  let whole = 0;
  const kinds = new Set<string>();
  let current: { blocks: (string | null)[]; crc: number } | undefined;
  let there: Trace | undefined;
  const all = Object.values(KITS);
  const boot = (quirks = noQuirks) =>
    StandIn.boot({
      serial: 'R',
      name: 'R',
      load: loadMicroPython as unknown as LoadMicroPython,
      flash: { 'lib/mossbell.py': library },
      host: { write: () => {}, began: () => {}, tick: () => {}, ended: (t) => (there = t) },
      quirks,
      noise: false,
      onBattery: false,
      seed: 9,
      limitS: LIMIT_S,
      inputs,
      blocksOf: (c) => (c === current?.crc ? current.blocks : undefined)
    });
  let board = await boot();
  for (const [n, p] of programs.entries()) {
    // one board runs many programs, as in a class; another one now and then
    const { kit, quirks } = all[Math.floor(n / 25) % all.length];
    if (n % 25 === 0) board = await boot(quirks);
    const { text, blocks } = printPython(p, kit);
    current = { blocks, crc: CRC32.str(text) >>> 0 };
    board.write('p/1.py', utf8(programFile(text)));
    board.place = { kit, mat: hall, pose: hall.start };
    there = undefined;
    const problem = board.start();
    const here = rehearse({ program: p, kit, quirks, mat: hall, seed: 9, noise: false, limitS: LIMIT_S, inputs });
    expect(problem, text).toBe('');
    const starters = new Set([undefined, ...p.stacks.map((s) => s.steps[0].id)]);
    expect(essence(there!, starters), text).toEqual(essence(here, starters));
    expect(
      there!.channels.map((c) => [c.key, c.chunks]),
      text
    ).toEqual(here.channels.map((c) => [c.key, c.chunks]));
    expect([there!.ended, there!.ticks], text).toEqual([here.ended, here.ticks]);
    events += here.events.length;
    if (here.ended !== 'error') whole++;
    for (const step of allSteps(p as Program)) kinds.add(step.kind);
  }
  expect(events).toBeGreaterThan(2500);
  // most of them get to their end, and they speak of most blocks
  expect(whole).toBeGreaterThan(COUNT / 3);
  expect(kinds.size).toBeGreaterThan(100);
}, 400_000);
