/**
 * What takes long is done by workers, so that it holds up nobody: hashing of words and passphrases by two of their own, and
 * what reads or runs something large by another one, which is ended where it takes too long.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import Tinypool from 'tinypool';
import type { again, hashed, readKept, verified, zipped } from '../../workers/heavy.ts';
import { fair } from './fair.ts';

type Does = {
  hashed: typeof hashed;
  verified: typeof verified;
  again: typeof again;
  readKept: typeof readKept;
  zipped: typeof zipped;
};
/** Who signs in waits for nothing but others who do. */
const HASHERS = 2;
/** The longest that each may take, ms: many times what a slow computer needs. */
const LONGEST = { readKept: 30_000, again: 300_000, zipped: 120_000 };
const MEMORY_MB = 1024;
let pools: { hashes: Tinypool; works: Tinypool } | undefined;

function made(): NonNullable<typeof pools> {
  const file = join(process.cwd(), '.cli', 'heavy.js');
  if (!existsSync(file)) throw new Error('The workers are not built: run ./mossbell build-cli.');
  const common = { filename: pathToFileURL(file).href, execArgv: [], minThreads: 0, idleTimeout: 60_000 };
  return {
    hashes: new Tinypool({ ...common, maxThreads: HASHERS }),
    works: new Tinypool({ ...common, maxThreads: 1, resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB } })
  };
}
/** One hash at a time and hasher, and each address in its turn: four hundred of one are waited for by that one alone. */
const inTurn = fair(HASHERS);

/** @param asker the address that asks for a hash; @throws what the work itself throws, also where it took too long */
export function heavy<K extends keyof Does>(
  name: K,
  of: Parameters<Does[K]>[0],
  asker = ''
): Promise<Awaited<ReturnType<Does[K]>>> {
  pools ??= made();
  const { hashes, works } = pools;
  if (name === 'hashed' || name === 'verified') return inTurn(asker, () => hashes.run(of, { name }));
  return works.run(of, { name, signal: AbortSignal.timeout(LONGEST[name as keyof typeof LONGEST]) });
}
