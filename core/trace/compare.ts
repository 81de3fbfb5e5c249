/** Two runs beside each other: whether they did the same, where one lies on the other's time, and where they part. */
import { retell, say, word } from '../words.ts';
import { rowsAt, sampleAt } from './query.ts';
import { channel, endUs, type Channel, type Trace, type TraceEvent } from './trace.ts';

export type Parting = { same: true; events: number } | { same: false; at: number; a?: TraceEvent; b?: TraceEvent };
/** Bookkeeping of the runner: what began and what each move came to is not what the person sees. */
const LEFT_OUT = new Set(['began', 'moved', 'input', 'missed', 'ready', 'touch', 'free']);

const seen = (trace: Trace): TraceEvent[] => trace.events.filter((e) => !LEFT_OUT.has(e.type));
function shown(e: TraceEvent): string {
  const { tUs: _, block: __, times: ___, ...rest } = e as TraceEvent & { id?: number };
  if ('id' in rest) delete rest.id;
  return JSON.stringify(rest, (_, v) => (typeof v === 'number' ? Number(v.toPrecision(6)) : v));
}
/**
 * @param tolerance how far apart the same event may come: seconds, plus this share of the time gone by. A loop's turns and a
 * routine's call cost board time, so a tidied program is late by a little.
 * @param shiftUs added to the times of b, so that it lies on the time of a
 */
export function compareRuns(a: Trace, b: Trace, tolerance = { seconds: 0.05, share: 0.01 }, shiftUs = 0): Parting {
  const [x, y] = [seen(a), seen(b)];
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const [e, f] = [x[i], y[i]];
    const late = e && f ? Math.abs(e.tUs - f.tUs - shiftUs) / 1e6 : 0;
    if (!e || !f || shown(e) !== shown(f) || late > tolerance.seconds + tolerance.share * (e.tUs / 1e6))
      return { same: false, at: Math.min(e?.tUs ?? Infinity, f ? f.tUs + shiftUs : Infinity), a: e, b: f };
  }
  return { same: true, events: x.length };
}

/** By what two runs are laid over one another. */
export const ALIGNMENTS = ['start', 'mark', 'movement'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];
/** Faster than this it moves, cm/s at a wheel's rim. */
const MOVES_CM_S = 1;
function moment(trace: Trace, by: Alignment): number | undefined {
  if (by === 'start') return 0;
  if (by === 'mark') return trace.events.find((e) => e.type === 'mark')?.tUs;
  const wheels = trace.channels.filter((c) => c.key.startsWith('speed'));
  for (let t = 0; t < trace.ticks; t++) if (wheels.some((c) => Math.abs(sampleAt(c, t)) > MOVES_CM_S)) return t * 1000;
  return undefined;
}
/** What has to be added to the times of `other`, µs; undefined where one of the two has no such moment. */
export function shiftOf(trace: Trace, other: Trace, by: Alignment): number | undefined {
  const [a, b] = [moment(trace, by), moment(other, by)];
  return a === undefined || b === undefined ? undefined : a - b;
}

/** Stretches of time, µs of the first run, in which two channels lie apart. */
export type Apart = [number, number][];
/** Of the larger of their ranges so much may lie between two runs that count as the same. */
const APART_SHARE = 0.05;
const EVERY = 20;
/** Shorter ones are noise, µs. */
const SHORTEST_US = 60_000;
export function apart(a: Trace, b: Trace, key: string, shiftUs: number): Apart {
  const [x, y] = [channel(a, key), channel(b, key)];
  if (!x || !y || !a.ticks || !b.ticks) return [];
  const range = Math.max(rangeOf(x), rangeOf(y));
  if (range === 0) return [];
  const out: Apart = [];
  let from = -1;
  const end = Math.min(a.ticks, b.ticks + shiftUs / 1000);
  for (let t = Math.max(0, Math.ceil(shiftUs / 1000)); t < end; t += EVERY) {
    let d = Math.abs(sampleAt(x, t) - sampleAt(y, t - shiftUs / 1000));
    if (key === 'heading') d = Math.min(d, 360 - d);
    const is = d > APART_SHARE * range;
    if (is && from < 0) from = t;
    if ((!is || t + EVERY >= end) && from >= 0) {
      if ((t - from) * 1000 >= SHORTEST_US) out.push([from * 1000, t * 1000]);
      from = -1;
    }
  }
  return out;
}
function rangeOf(c: Channel): number {
  let [low, high] = [0, 0];
  for (let i = 0; i < c.low.length; i++) {
    if (c.low[i] < low) low = c.low[i];
    if (c.high[i] > high) high = c.high[i];
  }
  return (high - low) * c.scale;
}

export type Difference = { atUs: number; says: string; block?: string; lanes: string[] };
/** Places and ways that lie closer than this are the same for somebody who watches. */
export const APART = { cm: 2, deg: 4 } as const;
const { cm: CM, deg: DEG } = APART;
/** Where two runs part, the first moment first: events that differ, and places that lie apart. */
export function differences(a: Trace, b: Trace, shiftUs: number): Difference[] {
  const out: Difference[] = [];
  const parting = compareRuns(a, b, undefined, shiftUs);
  if (!parting.same) {
    const e = parting.a ?? parting.b;
    out.push({
      atUs: parting.at,
      block: parting.a?.block ?? parting.b?.block,
      lanes: ['blocks'],
      says: !parting.a
        ? say('Only the other run did: {what}', { what: told(parting.b!) })
        : !parting.b
          ? say('Only this run did: {what}', { what: told(parting.a) })
          : e && shown(parting.a) === shown(parting.b)
            ? say('{what} came {s} s apart', {
                what: told(parting.a),
                s: (Math.abs(parting.a.tUs - parting.b.tUs - shiftUs) / 1e6).toFixed(2)
              })
            : say('This run: {what}; the other one: {what2}', { what: told(parting.a), what2: told(parting.b) })
    });
  }
  const [ax, ay, bx, by, af, bf] = [
    channel(a, 'x'),
    channel(a, 'y'),
    channel(b, 'x'),
    channel(b, 'y'),
    channel(a, 'facing'),
    channel(b, 'facing')
  ];
  if (ax && ay && bx && by && af && bf) {
    const shift = Math.round(shiftUs / 1000);
    const end = Math.min(a.ticks, b.ticks + shift);
    // from where each of them started: they may stand elsewhere in the yard
    const [a0, b0] = [a.header.run.start, b.header.run.start];
    const turn = ((a0.facingDeg - b0.facingDeg) * Math.PI) / 180;
    for (let t = Math.max(0, shift); t < end; t += EVERY) {
      const u = t - shift;
      const [px, py] = [sampleAt(bx, u) - b0.x, sampleAt(by, u) - b0.y];
      const dx = sampleAt(ax, t) - a0.x - (px * Math.cos(turn) + py * Math.sin(turn));
      const dy = sampleAt(ay, t) - a0.y - (py * Math.cos(turn) - px * Math.sin(turn));
      const cm = Math.sqrt(dx * dx + dy * dy) * 100;
      const turned = sampleAt(af, t) - a0.facingDeg - (sampleAt(bf, u) - b0.facingDeg);
      const deg = Math.abs(((((turned + 180) % 360) + 360) % 360) - 180);
      if (cm > CM || deg > DEG) {
        out.push({
          atUs: t * 1000,
          block: blockThen(a, t * 1000),
          lanes: ['heading', ...a.channels.flatMap((c) => (c.key.startsWith('speed') ? [c.key] : []))],
          says:
            cm > CM
              ? say('From here on the two robots are more than {n} cm apart.', { n: CM })
              : say('From here on the two robots face more than {n} ° apart.', { n: DEG })
        });
        break;
      }
    }
  }
  if (Math.abs(endUs(a) - endUs(b) - shiftUs) > 100_000)
    out.push({
      atUs: Math.min(endUs(a), endUs(b) + shiftUs),
      lanes: ['blocks'],
      says: say('This run lasted {a} s, the other one {b} s.', {
        a: (endUs(a) / 1e6).toFixed(2),
        b: (endUs(b) / 1e6).toFixed(2)
      })
    });
  return out.sort((p, q) => p.atUs - q.atUs);
}
function blockThen(trace: Trace, tUs: number): string | undefined {
  for (const row of rowsAt(trace, tUs)) return trace.header.blocks[trace.spans.block[row]];
  return undefined;
}
/** An event in a few words. */
export function told(e: TraceEvent): string {
  switch (e.type) {
    case 'wheels':
      return e.how === 'power'
        ? say('wheels {left} %, {right} %', { left: e.left, right: e.right })
        : say('wheels stop');
    case 'slide':
      return say('slides on towards {heading}° at {power} %', { heading: e.heading, power: e.power });
    case 'motor':
      return say('motor {socket} {power} %', { socket: e.socket, power: e.power });
    case 'move':
      return say('{what} {asked} {unit}', { what: retell(e.what), asked: e.asked, unit: word(e.unit) });
    case 'servo':
      return 'angle' in e
        ? say('servo {socket} to {angle}°', { socket: e.socket, angle: e.angle })
        : say('servo {socket} at {power} %', { socket: e.socket, power: e.power });
    case 'lamp':
      return e.on ? say('a lamp goes on') : say('a lamp goes out');
    case 'display':
      return say('the display changes');
    case 'tone':
      return e.hertz ? say('a tone of {hertz} Hz', { hertz: Math.round(e.hertz) }) : say('silence begins');
    case 'log':
      return say('log: {text}', { text: e.text });
    case 'mark':
      return say('mark: {text}', { text: e.text });
    case 'touch':
      return say('touches {what}', { what: retell(e.what) });
    case 'error':
      return retell(e.message);
    case 'message':
      return say('message {name}', { name: e.name });
    case 'input':
      return say('a hand: {what}', { what: Object.keys(e.input)[0] });
    case 'began':
      return say('a stack begins: {trigger}', { trigger: retell(e.trigger) });
    case 'missed':
      return say('missed: {trigger}', { trigger: retell(e.trigger) });
    case 'plot':
      return `${e.name} = ${e.value}`;
    default:
      return word(e.type);
  }
}
