/** Programs nobody wrote: both runners agree on them, and neither hangs. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import CRC32 from 'crc-32';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { barrow } from '../../core/kit/kit.ts';
import { noQuirks } from '../../core/kit/quirks.ts';
import { printPython } from '../../core/language/python/print.ts';
import { rehearse } from '../../core/run/interpreter.ts';
import { hall } from '../../core/testing/build.ts';
import { randomProgram } from '../../core/testing/random.ts';
import type { Trace } from '../../core/trace/trace.ts';
import { programFile } from './program-file.ts';
import { utf8 } from '../../core/bytes.ts';
import { StandIn, type LoadMicroPython } from './standin.ts';

const library = readFileSync(new URL('../lib/mossbell.py', import.meta.url));

/** What both must agree on, with the millisecond. Errors are told apart by their kind and block. */
const essence = (trace: Trace): string[] =>
  trace.events
    .filter((e) => e.type !== 'began')
    .map((e) => {
      const { message: _, ...rest } = e as typeof e & { message?: string };
      return JSON.stringify({ ...rest, tUs: Math.floor(e.tUs / 1000) });
    });

it('60 random programs run the same in the interpreter and on MicroPython', async () => {
  const programs = fc.sample(randomProgram, { numRuns: 60, seed: 20 });
  let events = 0;
  for (const p of programs) {
    const { text, blocks } = printPython(p, barrow);
    const crc = CRC32.str(text) >>> 0;
    let there: Trace | undefined;
    const board = await StandIn.boot({
      serial: 'R',
      name: 'R',
      load: loadMicroPython as unknown as LoadMicroPython,
      flash: { 'lib/mossbell.py': library, 'p/1.py': utf8(programFile(text)) },
      host: { write: () => {}, began: () => {}, tick: () => {}, ended: (t) => (there = t) },
      quirks: noQuirks,
      noise: false,
      onBattery: false,
      seed: 9,
      limitS: 3,
      blocksOf: (c) => (c === crc ? blocks : undefined)
    });
    board.place = { kit: barrow, mat: hall, pose: hall.start };
    const problem = board.start();
    const here = rehearse({ program: p, kit: barrow, mat: hall, seed: 9, noise: false, limitS: 3 });
    expect(problem, text).toBe('');
    expect(essence(there!), text).toEqual(essence(here));
    expect([there!.ended, there!.ticks], text).toEqual([here.ended, here.ticks]);
    events += here.events.length;
  }
  expect(events).toBeGreaterThan(300);
}, 120_000);
