/**
 * What the server lets its pool of workers do, so that thirty pupils who sign in or sixty programs that run again do not hold
 * up a save. Compiled beside the command line (vite.cli.config.ts): worker threads read no TypeScript.
 */
import '../../core/run/exact-math.ts';
import { gunzipSync } from 'node:zlib';
import { zipSync } from 'fflate';
import { argon2id, argon2Verify } from 'hash-wasm';
import { runAgain, type Again } from '../../core/class/again.ts';
import type { Errand } from '../../core/errand/errand.ts';
import type { Project } from '../../core/project.ts';
import { LARGEST_RUN, readRun } from '../../core/trace/runfile.ts';
import { LARGE_PICTURES } from '../lib/server/large.ts';
import { say, speakFrom, type Tongue } from '../../core/words.ts';

/** The least that OWASP's Password Storage Cheat Sheet asks of Argon2id (RFC 9106): 19 MiB, two passes, one lane. */
const ARGON = { parallelism: 1, iterations: 2, memorySize: 19_456, hashLength: 32, outputType: 'encoded' } as const;

/** @param salt 16 random bytes */
export const hashed = ({ secret, salt }: { secret: string; salt: Uint8Array }): Promise<string> =>
  argon2id({ password: secret, salt, ...ARGON });
export const verified = ({ secret, hash }: { secret: string; hash: string }): Promise<boolean> =>
  argon2Verify({ password: secret, hash });
/** What a run's file unpacks to at the most, times its own size and a little: more is made to fill the memory. */
const RATIO = 300;
const LITTLE = 4 * 1024 * 1024;
/** Its text too, where that holds pictures that are stored apart; otherwise the file is kept as it came. */
export type Kept = {
  text?: string;
  card: { name: string; kind: 'rehearsal' | 'device'; device: string; ended: string };
};
/** A run's file as it came, unpacked and read. @returns a sentence where it is none */
export async function readKept({ file, tongue }: { file: Uint8Array; tongue: Tongue }): Promise<Kept | string> {
  speakFrom(() => tongue);
  let text: string;
  try {
    text = gunzipSync(file, { maxOutputLength: Math.min(LARGEST_RUN, file.length * RATIO + LITTLE) }).toString('utf8');
  } catch {
    return say('This is not a run: its bytes are not those of a compressed run file.');
  }
  const read = await readRun(text, say('This run'));
  if (!read.ok) return read.problem;
  const { name, kind, trace } = read.run;
  return {
    ...(text.search(LARGE_PICTURES) < 0 ? {} : { text }),
    card: { name, kind, device: trace.header.device, ended: trace.ended ?? '' }
  };
}
/** Files by their paths, in one; those that are compressed already are put in as they are. */
export const zipped = (files: Record<string, Uint8Array>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([path, bytes]) => [path, [bytes, { level: path.endsWith('.gz') ? 0 : 6 }]])
    )
  );
/** @param tongue in which findings are told */
export function again({ project, errand, tongue }: { project: Project; errand?: Errand; tongue: Tongue }): Again {
  speakFrom(() => tongue);
  return runAgain(project, errand);
}
