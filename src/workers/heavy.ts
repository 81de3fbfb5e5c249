/**
 * What the server lets its pool of workers do, so that thirty pupils who sign in or sixty programs that run again do not hold
 * up a save. Compiled beside the command line (vite.cli.config.ts): worker threads read no TypeScript.
 */
import '../../core/run/exact-math.ts';
import { argon2id, argon2Verify } from 'hash-wasm';
import { runAgain, type Again } from '../../core/class/again.ts';
import type { Errand } from '../../core/errand/errand.ts';
import type { Project } from '../../core/project.ts';
import { speakFrom, type Tongue } from '../../core/words.ts';

/** The least that OWASP's Password Storage Cheat Sheet asks of Argon2id (RFC 9106): 19 MiB, two passes, one lane. */
const ARGON = { parallelism: 1, iterations: 2, memorySize: 19_456, hashLength: 32, outputType: 'encoded' } as const;

/** @param salt 16 random bytes */
export const hashed = ({ secret, salt }: { secret: string; salt: Uint8Array }): Promise<string> =>
  argon2id({ password: secret, salt, ...ARGON });
export const verified = ({ secret, hash }: { secret: string; hash: string }): Promise<boolean> =>
  argon2Verify({ password: secret, hash });
/** @param tongue in which findings are told */
export function again({ project, errand, tongue }: { project: Project; errand?: Errand; tongue: Tongue }): Again {
  speakFrom(() => tongue);
  return runAgain(project, errand);
}
