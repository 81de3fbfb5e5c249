/** A program's printed text on the stand-in's MicroPython, in Node. */
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript';
import CRC32 from 'crc-32';
import { readFileSync } from 'node:fs';
import { noQuirks } from '../core/kit/quirks.ts';
import { printPython } from '../core/language/python/print.ts';
import type { RunOptions } from '../core/run/spec.ts';
import type { Trace } from '../core/trace/trace.ts';
import { programFile } from '../core/link/file.ts';
import { utf8 } from '../core/bytes.ts';
import { StandIn, type LoadMicroPython } from '../board/standin/standin.ts';

/** @param source a text of its own; by default the program as it is printed */
export async function runOnStandIn(run: RunOptions, source?: string): Promise<Trace> {
  const { text, blocks } =
    source === undefined ? printPython(run.program, run.kit) : { text: source, blocks: undefined };
  const crc = CRC32.str(text) >>> 0;
  let trace: Trace | undefined;
  const standIn = await StandIn.boot({
    serial: run.device ?? 'CLI',
    name: run.device ?? 'Stand-in',
    load: loadMicroPython as unknown as LoadMicroPython,
    flash: {
      'lib/mossbell.py': readFileSync(new URL('../board/lib/mossbell.py', import.meta.url)),
      'p/1.py': utf8(programFile(text)),
      'p/active': utf8('1')
    },
    host: { write: () => {}, began: () => {}, tick: () => {}, ended: (t) => (trace = t) },
    quirks: run.quirks ?? noQuirks,
    onBattery: run.quirks !== undefined,
    seed: run.seed,
    limitS: run.limitS,
    inputs: run.inputs,
    noise: run.noise,
    blocksOf: (c) => (c === crc ? blocks : undefined)
  });
  standIn.place = { kit: run.kit, mat: run.mat, pose: run.start ?? run.mat.start };
  const message = standIn.start();
  if (!trace) throw new Error(message);
  return trace;
}
