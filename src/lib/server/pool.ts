/** The pool of workers for what takes long: hashing, and running hand-ins again. */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import Tinypool from 'tinypool';
import type { again, hashed, verified } from '../../workers/heavy.ts';

type Does = { hashed: typeof hashed; verified: typeof verified; again: typeof again };
/** two hands: one may run programs for a while, another one still lets pupils in */
const HANDS = 2;
let pool: Tinypool | undefined;

/** @throws what the work itself throws */
export function heavy<K extends keyof Does>(
  name: K,
  of: Parameters<Does[K]>[0]
): Promise<Awaited<ReturnType<Does[K]>>> {
  if (!pool) {
    const file = join(process.cwd(), '.cli', 'heavy.js');
    if (!existsSync(file)) throw new Error('The workers are not built: run ./mossbell build-cli.');
    pool = new Tinypool({
      filename: pathToFileURL(file).href,
      execArgv: [],
      minThreads: 0,
      maxThreads: HANDS,
      idleTimeout: 60_000
    });
  }
  return pool.run(of, { name }) as Promise<Awaited<ReturnType<Does[K]>>>;
}
