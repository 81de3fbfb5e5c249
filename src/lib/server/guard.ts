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
  // by its own name, as it is or as the room's network announces it (RFC 6762, 3)
  return (
    names().has(name) ||
    name === own ||
    name === own.split('.')[0] ||
    name === `${own.split('.')[0]}.local` ||
    name.endsWith('.localhost')
  );
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
  // one who guesses is stopped; others who sign in under the same name from elsewhere, or where they did before, are not
  'wrong words': new RateLimiterMemory({ points: 10, duration: 60 }),
  // over all names of an address: a room's typos are fewer
  'wrong words from here': new RateLimiterMemory({ points: 1e9, duration: 60 }),
  'new teacher': new RateLimiterMemory({ points: 10, duration: 60 })
};
/** So many wrong tries of an address in a minute wait for nothing. */
const UNHINDERED = 20;
const SLOWER_MS = 250;
const SLOWEST_MS = 5_000;
/**
 * Counts a try to sign in before anything is worked out, so that a thousand at once count as well as one after another.
 * @param address who asks; @param as who is meant, and from which browser or address
 * @returns undefined where it is one too many; otherwise what takes it back, since the words were right
 */
export async function tries(address: string, as: string): Promise<(() => Promise<void>) | undefined> {
  const [here, named] = [LIMITS['wrong words from here'], LIMITS['wrong words']];
  const { consumedPoints } = await here.consume(address);
  if (await tooMany('wrong words', as)) return undefined;
  const slower = Math.min(SLOWEST_MS, (consumedPoints - UNHINDERED) * SLOWER_MS);
  if (slower > 0) await new Promise((done) => setTimeout(done, slower));
  return async () => {
    await Promise.all([here.reward(address), named.reward(as)]);
  };
}
/** Counts one; @returns whether it is one too many. @param peek only looks */
export async function tooMany(what: keyof typeof LIMITS, who: string, peek = false): Promise<boolean> {
  const limit = LIMITS[what];
  if (peek) return ((await limit.get(who))?.remainingPoints ?? 1) <= 0;
  return limit.consume(who).then(
    () => false,
    () => true
  );
}
