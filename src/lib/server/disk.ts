/** The last of the disk is left to the computer: a full one stops more than Moss Bell. */
import { statfsSync } from 'node:fs';

/** So much stays free, bytes. */
const LEFT = Number(process.env.MOSSBELL_LEFT_MB ?? 200) * 1_000_000;
/** How long what was looked up counts, ms. */
const COUNTS_MS = 2000;
let looked = { at: -Infinity, free: Infinity };
function freeOf(folder: string): number {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    // a file system that does not tell: what it refuses is told when it does
    return Infinity;
  }
}
/** What goes on with a full disk: signing in and out, a hand that goes up; whatever makes room. */
const GOES_ON = /^\/api\/(session|me|hand|live)\b/;
/** @param free how many bytes are, for tests; @returns whether a request would write into what is left */
export function takesTheLast(
  method: string,
  path: string,
  now = Date.now(),
  free = (): number => freeOf(process.env.MOSSBELL_DATA ?? 'data')
): boolean {
  if (!['POST', 'PUT', 'PATCH'].includes(method) || !path.startsWith('/api/') || GOES_ON.test(path)) return false;
  if (Math.abs(now - looked.at) > COUNTS_MS) looked = { at: now, free: free() };
  return looked.free < LEFT;
}
