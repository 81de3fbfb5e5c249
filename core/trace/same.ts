/**
 * Whether two runs did the same, as a person sees and hears it: the path and where it came to rest, the pictures, lamps and
 * servos, the tones, what was said, sent and logged. How it was commanded does not matter: `drive 20 cm` and wheels that run
 * until they have rolled 20 cm are the same if the robot does the same.
 */
import { say, word } from '../words.ts';
import { eventsOf, lampsOf } from './apart.ts';
import { told } from './compare.ts';
import { runningAt, sampleAt, volumeAt } from './query.ts';
import { channel, endUs, type Trace, type TraceEvent } from './trace.ts';

/** So far apart it is still the same: cm, degrees, seconds and a share of the time gone by. */
export const TOLERANCE = { cm: 1, deg: 3, seconds: 0.05, share: 0.01 } as const;
export type Sameness = { same: true; seconds: number } | { same: false; atUs: number; says: string; block?: string };

const SEEN_US = 30_000;
const EVERY = 20;
const late = (tUs: number): number => TOLERANCE.seconds * 1e6 + TOLERANCE.share * tUs;
const shortWay = (deg: number): number => ((((deg + 180) % 360) + 360) % 360) - 180;

type Told = { tUs: number; what: string; block?: string; event: TraceEvent };
/** What stood there long enough to be seen, in turn, without repeating. */
function stood(events: readonly TraceEvent[], toUs: number, of: (e: TraceEvent) => string): Told[] {
  const out: Told[] = [];
  events.forEach((e, i) => {
    if ((events[i + 1]?.tUs ?? toUs) - e.tUs < SEEN_US) return;
    const what = of(e);
    if (out.at(-1)?.what !== what) out.push({ tUs: e.tUs, what, block: e.block, event: e });
  });
  return out;
}
const plain = (e: TraceEvent): string => {
  const { tUs: _, block: __, times: ___, ...rest } = e;
  return JSON.stringify(rest, (_, v) => (typeof v === 'number' ? Number(v.toPrecision(6)) : v));
};
/** What is seen and heard of a run beside its path, by kind. */
function shows(trace: Trace): Map<string, Told[]> {
  const end = endUs(trace);
  const out = new Map<string, Told[]>([
    ['display', stood(eventsOf(trace, 'display'), end, plain)],
    ...[...lampsOf(trace)].map(([lamp, events]) => [`lamp ${lamp}`, stood(events, end, plain)] as const)
  ]);
  const heard = new Set(['tone', 'speech', 'message', 'log', 'mark', 'error', 'plot']);
  for (const e of trace.events) {
    if (!heard.has(e.type)) continue;
    // what plays at 0 % is heard by nobody
    const volume = e.type === 'tone' && e.hertz > 0 ? volumeAt(trace, e.tUs) : undefined;
    if (volume === 0) continue;
    const what = volume === undefined ? plain(e) : `${plain(e)} at ${volume} %`;
    out.set(e.type, [...(out.get(e.type) ?? []), { tUs: e.tUs, what, block: e.block, event: e }]);
  }
  return out;
}
function showsApart(a: Trace, b: Trace): Sameness[] {
  const [x, y] = [shows(a), shows(b)];
  return [...new Set([...x.keys(), ...y.keys()])].flatMap((key): Sameness[] => {
    const [one, two] = [x.get(key) ?? [], y.get(key) ?? []];
    for (let i = 0; i < Math.max(one.length, two.length); i++) {
      const [e, f] = [one[i], two[i]];
      const atUs = Math.min(e?.tUs ?? Infinity, f?.tUs ?? Infinity);
      const block = f?.block ?? e?.block;
      if (!e) return [{ same: false, atUs, block, says: say('Only now: {what}', { what: told(f.event) }) }];
      if (!f) return [{ same: false, atUs, block, says: say('Not any more: {what}', { what: told(e.event) }) }];
      if (e.what !== f.what)
        return [
          {
            same: false,
            atUs,
            block,
            says: say('Before: {what}; now: {what2}', { what: told(e.event), what2: told(f.event) })
          }
        ];
      if (Math.abs(e.tUs - f.tUs) > late(e.tUs))
        return [
          {
            same: false,
            atUs,
            block,
            says: say('{what} came {s} s apart', {
              what: told(e.event),
              s: (Math.abs(e.tUs - f.tUs) / 1e6).toFixed(2)
            })
          }
        ];
    }
    return [];
  });
}
/** Where the one is not within the tolerance of any place that the other had at about that time. */
function pathApart(a: Trace, b: Trace, key: 'place' | string): Sameness[] {
  const of = (t: Trace) => ['x', 'y', 'facing'].map((k) => channel(t, k));
  const [[ax, ay, af], [bx, by, bf]] = [of(a), of(b)];
  const [as, bs] = [channel(a, key), channel(b, key)];
  const place = key === 'place';
  if (place ? !ax || !ay || !af || !bx || !by || !bf : !as || !bs) return [];
  const off = (t: number, u: number): number => {
    if (!place) return Math.abs(sampleAt(as!, t) - sampleAt(bs!, u)) / TOLERANCE.deg;
    const dx = sampleAt(ax!, t) - sampleAt(bx!, u);
    const dy = sampleAt(ay!, t) - sampleAt(by!, u);
    const turned = Math.abs(shortWay(sampleAt(af!, t) - sampleAt(bf!, u)));
    return Math.max((Math.sqrt(dx * dx + dy * dy) * 100) / TOLERANCE.cm, turned / TOLERANCE.deg);
  };
  const last = Math.max(a.ticks, b.ticks);
  for (let t = 0; t < last; t += EVERY) {
    const span = late(t * 1000) / 1000;
    let least = Infinity;
    for (let u = t - span; u <= t + span && least > 1; u += EVERY / 2)
      least = Math.min(least, off(Math.min(t, a.ticks - 1), Math.max(0, Math.min(Math.round(u), b.ticks - 1))));
    if (least > 1)
      return [
        {
          same: false,
          atUs: t * 1000,
          block: runningAt(b, t * 1000).at(-1),
          says: place
            ? say('From here on it stands elsewhere: more than {cm} cm or {deg} ° apart.', TOLERANCE)
            : say('{what} has another angle from here on.', { what: word(as!.title) })
        }
      ];
  }
  return [];
}

/** Where two runs part first, as a person would notice. @param a as it was  @param b as it is now */
export function sameBehaviour(a: Trace, b: Trace): Sameness {
  const servos = a.channels.filter((c) => c.key.startsWith('servo')).map((c) => c.key);
  const apart = [...showsApart(a, b), ...['place', ...servos].flatMap((key) => pathApart(a, b, key))];
  const [first] = apart.sort((x, y) => (x.same ? 0 : x.atUs) - (y.same ? 0 : y.atUs));
  return first ?? { same: true, seconds: Math.max(endUs(a), endUs(b)) / 1e6 };
}
