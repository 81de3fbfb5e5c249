/**
 * Who may ask this server for what: the one place where a request is refused before any route sees it. The host must be
 * this computer under one of its names (a foreign name that points here would let another site read the room's work), a
 * writing request must come from a page of ours, and nothing may be larger than its route takes.
 */
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { hostname, networkInterfaces } from 'node:os';
import { LARGEST_FILE } from '../../../core/project.ts';
import { LARGEST_RUN } from '../../../core/trace/runfile.ts';
import { say } from '../../../core/words.ts';

export type Refusal = { status: 403 | 411 | 413 | 421 | 429; message: string };
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);
const MB = 1024 * 1024;
/** Bytes that a route takes, by the beginning of its path; whatever is not named takes little. */
const LARGEST: readonly [RegExp, number][] = [
  [/^\/api\/projects\/[^/]+\/runs$/, LARGEST_RUN / 4],
  [/^\/api\/runs\//, LARGEST_RUN / 4],
  [/^\/api\/(projects|errands|lessons)/, LARGEST_FILE],
  [/./, 16 * 1024]
];

let known = { at: 0, names: new Set<string>() };
/** The names and addresses of this computer, looked up again now and then: a laptop changes its network. */
function names(): ReadonlySet<string> {
  if (Date.now() - known.at < 10_000) return known.names;
  const addresses = Object.values(networkInterfaces()).flatMap((list) => list?.map((i) => i.address) ?? []);
  const more = (process.env.MOSSBELL_HOSTS ?? '').split(',').map((h) => h.trim().toLowerCase());
  known = { at: Date.now(), names: new Set(['localhost', '127.0.0.1', '::1', ...addresses, ...more].filter(Boolean)) };
  return known.names;
}
/** @param host as the request's header has it, with or without a port */
export function isOurHost(host: string): boolean {
  const name = host
    .toLowerCase()
    .replace(/:\d+$/, '')
    .replace(/^\[(.*)\]$/, '$1');
  const own = hostname().toLowerCase();
  return names().has(name) || name === own || name.split('.')[0] === own.split('.')[0] || name.endsWith('.localhost');
}

/** @returns why a request is refused, or undefined */
export function refuses(request: Request, url: URL): Refusal | undefined {
  const host = request.headers.get('host') ?? url.host;
  if (!isOurHost(host))
    return {
      status: 421,
      message: say(
        'This computer is not known as "{host}". Open Moss Bell by its address, or start it with MOSSBELL_HOSTS={host}.',
        { host: host.slice(0, 80).replace(/:\d+$/, '') }
      )
    };
  if (READS.has(request.method)) return undefined;
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  // browsers always say where a writing request comes from; a command without a browser says neither
  if ((origin !== null && origin !== url.origin) || (site !== null && site !== 'same-origin' && site !== 'none'))
    return { status: 403, message: say('This came from another site, and was not carried out.') };
  if (request.headers.has('transfer-encoding'))
    return { status: 411, message: say('This does not say how long it is, and was not read.') };
  const most = LARGEST.find(([path]) => path.test(url.pathname))![1];
  if (Number(request.headers.get('content-length') ?? 0) > most)
    return {
      status: 413,
      message: say('This is {n} MB long; at most {most} MB are taken here. Nothing was changed.', {
        n: (Number(request.headers.get('content-length')) / MB).toFixed(1),
        most: most < MB ? (most / MB).toFixed(2) : Math.round(most / MB)
      })
    };
  return undefined;
}

/** So many at most: by address, of a hand or of who signs in. Kept in memory alone, and no longer than they count. */
const LIMITS = {
  'wrong code': new RateLimiterMemory({ points: 20, duration: 60 }),
  'new room': new RateLimiterMemory({ points: 30, duration: 60 }),
  hand: new RateLimiterMemory({ points: 3600, duration: 60 }),
  // one who guesses is stopped; others who sign in under the same name from elsewhere are not, until very many guess at once
  'wrong words from here': new RateLimiterMemory({ points: 10, duration: 60 }),
  'wrong words': new RateLimiterMemory({ points: 100, duration: 600 }),
  'new teacher': new RateLimiterMemory({ points: 10, duration: 60 })
};
/** Counts one; @returns whether it is one too many. @param peek only looks */
export async function tooMany(what: keyof typeof LIMITS, who: string, peek = false): Promise<boolean> {
  const limit = LIMITS[what];
  if (peek) return ((await limit.get(who))?.remainingPoints ?? 1) <= 0;
  return limit.consume(who).then(
    () => false,
    () => true
  );
}
