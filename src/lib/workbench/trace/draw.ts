/** Drawing lanes on a canvas (or on an SVG that takes the same calls) with D3 scales. */
import { scaleLinear } from 'd3-scale';
import { catalogue, definition, familyOf } from '../../../../core/language/catalogue.ts';
import type { Family } from '../../../../core/language/define.ts';
import { allSteps, type Program } from '../../../../core/language/program.ts';
import { changesOf } from '../../../../core/trace/measure.ts';
import { envelope } from '../../../../core/trace/query.ts';
import { LAMP_COLOURS } from '../../ui/lamp-colours.ts';
import { channel, type Trace, type TraceEvent } from '../../../../core/trace/trace.ts';
import type { Lane } from './lanes.ts';

export type Palette = Record<'ink' | 'soft' | 'rule' | 'card' | 'water' | Family, string> & {
  brass: string;
  clay: string;
};
export function palette(): Palette {
  const style = getComputedStyle(document.documentElement);
  const v = (name: string): string => style.getPropertyValue(`--${name}`).trim();
  return {
    ink: v('ink'),
    soft: v('soft'),
    rule: v('rule'),
    card: v('card'),
    water: v('water'),
    order: v('order'),
    act: v('act'),
    think: v('think'),
    read: v('read'),
    brass: '#b5842a',
    clay: v('clay')
  };
}

export type Drawing = {
  trace: Trace;
  ghost?: Trace;
  /** what is added to the ghost's times, so that it lies on this run */
  shiftUs?: number;
  /** stretches in which a channel lies apart from the ghost's */
  apart?: ReadonlyMap<string, readonly [number, number][]>;
  fromUs: number;
  toUs: number;
  width: number;
  lanes: Lane[];
  program: Program;
  selected?: string;
  palette: Palette;
  /** while the run goes on, lines are drawn without dashes, which are slow where there is no graphics processor */
  live: boolean;
};

/** Rows of spans that are steps which do something themselves, not the loops around them. */
const WRAPS = new Set(
  [...catalogue.values()]
    .filter((d) => d.shape === 'wrap' || ('loop' in d && d.loop) || d.kind === 'routine.do')
    .map((d) => d.kind)
);

/** @param clears the canvas first: a sheet that has other things on it is not */
export function draw(g: CanvasRenderingContext2D, d: Drawing, clears = true): void {
  const x = scaleLinear([d.fromUs, d.toUs], [0, d.width]);
  if (clears) g.clearRect(0, 0, d.width, 10000);
  const total = d.lanes.reduce((h, l) => h + l.height, 0);
  g.strokeStyle = d.palette.rule;
  g.globalAlpha = 0.7;
  g.lineWidth = 1;
  for (const t of x.ticks(8)) {
    g.beginPath();
    g.moveTo(Math.round(x(t)) + 0.5, 0);
    g.lineTo(Math.round(x(t)) + 0.5, total);
    g.stroke();
  }
  g.globalAlpha = 1;
  let top = 0;
  for (const lane of d.lanes) {
    g.save();
    g.translate(0, top);
    one(g, d, lane, x);
    for (const over of lane.over ?? []) one(g, d, { ...over, height: lane.height }, x);
    g.restore();
    top += lane.height;
    g.strokeStyle = d.palette.rule;
    g.beginPath();
    g.moveTo(0, top - 0.5);
    g.lineTo(d.width, top - 0.5);
    g.stroke();
  }
}

function one(g: CanvasRenderingContext2D, d: Drawing, lane: Lane, x: (t: number) => number): void {
  switch (lane.kind) {
    case 'blocks':
      return blocks(g, d, lane.height);
    case 'curve':
      return curve(g, d, lane, x);
    case 'lamps':
      return lamps(g, d, lane, x);
    case 'plot':
      return steps(
        g,
        d,
        lane.height,
        x,
        d.trace.events.flatMap((e) => (e.type === 'plot' && e.name === lane.name ? [e] : []))
      );
    case 'variable':
      return steps(g, d, lane.height, x, changesOf(d.trace, lane.name));
    case 'display':
      return display(g, d, lane.height, x);
    case 'tone':
      return tone(g, d, lane.height, x);
    case 'events':
      return events(g, d, lane.height, x);
    case 'log':
      return log(g, d, x, lane.height);
  }
}

const kindsOf = new WeakMap<Program, Map<string, string>>();
function kinds(program: Program): Map<string, string> {
  let found = kindsOf.get(program);
  if (!found) kindsOf.set(program, (found = new Map([...allSteps(program)].map((s) => [s.id, s.kind]))));
  return found;
}
function blocks(g: CanvasRenderingContext2D, d: Drawing, height: number): void {
  const { spans, header, ticks } = d.trace;
  const kind = kinds(d.program);
  const perUs = d.width / (d.toUs - d.fromUs);
  let lastX = -1;
  let lastBlock = -1;
  for (let row = 0; row < spans.count; row++) {
    const start = spans.start[row];
    if (start > d.toUs) break;
    const end = spans.end[row] || ticks * 1000;
    if (end < d.fromUs) continue;
    const id = header.blocks[spans.block[row]];
    const k = kind.get(id);
    if (k && WRAPS.has(k)) continue;
    const px = (start - d.fromUs) * perUs;
    const width = Math.max(1.6, (end - start) * perUs - 0.8);
    // thousands of short ones in one pixel are one mark
    if (px + width - lastX < 1.2 && spans.block[row] === lastBlock) continue;
    lastX = px + width;
    lastBlock = spans.block[row];
    g.fillStyle = d.palette[k ? familyOf(definition(k)) : 'order'];
    g.globalAlpha = d.selected && d.selected !== id ? 0.3 : 0.85;
    g.fillRect(px, 5, width, height - 12);
    if (d.selected === id) {
      g.globalAlpha = 1;
      g.strokeStyle = d.palette.brass;
      g.lineWidth = 2;
      g.strokeRect(px, 5, Math.max(2, width), height - 12);
    }
  }
  g.globalAlpha = 1;
  for (const e of d.trace.events)
    if (e.type === 'error' || e.type === 'touch' || e.type === 'missed') {
      g.fillStyle = d.palette.clay;
      g.beginPath();
      g.arc((e.tUs - d.fromUs) * perUs, height - 4, 3, 0, 7);
      g.fill();
    }
}
function curve(
  g: CanvasRenderingContext2D,
  d: Drawing,
  lane: Lane & { kind: 'curve' },
  x: (t: number) => number
): void {
  const columns = Math.max(1, Math.floor(d.width));
  const sets = lane.keys.map(({ key, colour }) => ({
    colour,
    now: of(d.trace, key),
    before: d.ghost && of(d.ghost, key, d.shiftUs ?? 0)
  }));
  function of(trace: Trace, key: string, shiftUs = 0): Float64Array | undefined {
    const c = channel(trace, key);
    return c && envelope(c, trace.ticks, d.fromUs - shiftUs, d.toUs - shiftUs, columns);
  }
  for (const { key } of lane.keys)
    for (const [from, to] of d.apart?.get(key) ?? []) {
      g.fillStyle = d.palette.clay;
      g.globalAlpha = 0.1;
      g.fillRect(x(from), 1, Math.max(1, x(to) - x(from)), lane.height - 2);
      g.globalAlpha = 1;
    }
  let [low, high] = lane.range ?? [0, 1];
  if (!lane.range)
    for (const { now } of sets)
      for (const v of now ?? [])
        if (v < low) low = v;
        else if (v > high) high = v;
  const y = scaleLinear([low, high], [lane.height - 5, 5]);
  const line = (points: Float64Array): void => {
    g.beginPath();
    let open = false;
    for (let i = 0; i < columns; i++) {
      const a = points[2 * i];
      if (Number.isNaN(a)) {
        open = false;
        continue;
      }
      const b = points[2 * i + 1];
      if (lane.wraps && b - a > 180) {
        g.rect(i, y(a), 1, 0.5);
        g.rect(i, y(b), 1, 0.5);
        open = false;
        continue;
      }
      if (open && !(lane.wraps && Math.abs(a - points[2 * i - 1]) > 180)) g.lineTo(i, y(a));
      else g.moveTo(i, y(a));
      if (b !== a) g.lineTo(i, y(b));
      open = true;
    }
    g.stroke();
  };
  for (const { before } of sets)
    if (before) {
      g.strokeStyle = d.palette.soft;
      g.globalAlpha = d.live ? 0.4 : 0.55;
      g.lineWidth = d.live ? 1 : 1.2;
      if (!d.live) g.setLineDash([4, 4]);
      line(before);
      g.setLineDash([]);
      g.globalAlpha = 1;
    }
  sets.forEach(({ now, colour }, i) => {
    if (!now) return;
    g.strokeStyle = d.palette[colour];
    g.lineWidth = 1.6;
    if (i > 0 && !d.live) g.setLineDash([5, 3]);
    line(now);
    g.setLineDash([]);
  });
}
function lamps(
  g: CanvasRenderingContext2D,
  d: Drawing,
  lane: Lane & { kind: 'lamps' },
  x: (t: number) => number
): void {
  let on: (TraceEvent & { type: 'lamp' }) | undefined;
  const bar = (from: number, to: number, colour: string): void => {
    g.fillStyle = LAMP_COLOURS[colour] ?? LAMP_COLOURS.amber;
    g.fillRect(x(from), 4, Math.max(1.5, x(to) - x(from)), lane.height - 9);
  };
  for (const e of d.trace.events) {
    if (e.type !== 'lamp' || e.lamp !== lane.side) continue;
    if (on) bar(on.tUs, e.tUs, on.colour);
    on = e.on ? e : undefined;
  }
  if (on) bar(on.tUs, d.trace.ticks * 1000, on.colour);
}
/** A value that holds until the next one. Text has no height: a tick where it changes, and the words. */
function steps(
  g: CanvasRenderingContext2D,
  d: Drawing,
  height: number,
  x: (t: number) => number,
  points: readonly { tUs: number; value: number; text?: string }[]
): void {
  if (points.length === 0) return;
  let [low, high] = [0, 1];
  for (const { value } of points)
    if (value < low) low = value;
    else if (value > high) high = value;
  const y = scaleLinear([low, high], [height - 5, 5]);
  g.strokeStyle = d.palette.think;
  g.fillStyle = d.palette.think;
  g.lineWidth = 1.6;
  g.beginPath();
  let last: number | undefined;
  let drawn = -10;
  for (const p of points) {
    if (Number.isNaN(p.value)) continue;
    const px = x(p.tUs);
    // thousands of changes in one pixel are one line up and down
    if (px - drawn < 0.25 && last !== undefined) {
      g.lineTo(px, y(p.value));
      last = p.value;
      continue;
    }
    if (last === undefined) g.moveTo(px, y(p.value));
    else {
      g.lineTo(px, y(last));
      g.lineTo(px, y(p.value));
    }
    drawn = px;
    last = p.value;
  }
  if (last !== undefined) g.lineTo(x(d.trace.ticks * 1000), y(last));
  g.stroke();
  g.font = '500 11px "Atkinson Hyperlegible Mono Variable"';
  let free = -1;
  for (const p of points) {
    if (!Number.isNaN(p.value) || p.text === undefined || p.tUs > d.toUs) continue;
    const at = x(p.tUs);
    g.fillRect(at, 4, 1, height - 8);
    if (at < free) continue;
    const text = p.text.length > 20 ? `${p.text.slice(0, 19)}…` : p.text;
    g.fillText(text, at + 4, height / 2 + 4);
    free = at + 10 + g.measureText(text).width;
  }
}
/** Dark bars while something is on the display. */
function display(g: CanvasRenderingContext2D, d: Drawing, height: number, x: (t: number) => number): void {
  const shown = d.trace.events.flatMap((e) => (e.type === 'display' ? [e] : []));
  g.fillStyle = d.palette.act;
  g.globalAlpha = 0.75;
  shown.forEach((e, i) => {
    if (!/[#1-9]/.test(e.picture)) return;
    const to = shown[i + 1]?.tUs ?? d.trace.ticks * 1000;
    g.fillRect(x(e.tUs), 4, Math.max(1.5, x(to) - x(e.tUs) - 1), height - 9);
  });
  g.globalAlpha = 1;
}
/** Tones by their pitch, high ones up. */
function tone(g: CanvasRenderingContext2D, d: Drawing, height: number, x: (t: number) => number): void {
  const y = scaleLinear([Math.log(60), Math.log(4000)], [height - 4, 3]).clamp(true);
  const heard = d.trace.events.flatMap((e) => (e.type === 'tone' ? [e] : []));
  g.fillStyle = d.palette.act;
  heard.forEach((e, i) => {
    if (!e.hertz) return;
    const end = Math.min(
      heard[i + 1]?.tUs ?? d.trace.ticks * 1000,
      e.seconds === undefined ? Infinity : e.tUs + e.seconds * 1e6
    );
    g.fillRect(x(e.tUs), y(Math.log(e.hertz)) - 1.5, Math.max(1.5, x(end) - x(e.tUs) - 0.5), 3);
  });
}
/** Touches in clay, what a hand did in water, messages in ink. */
function events(g: CanvasRenderingContext2D, d: Drawing, height: number, x: (t: number) => number): void {
  const colour: Partial<Record<TraceEvent['type'], string>> = {
    touch: d.palette.clay,
    tipped: d.palette.clay,
    stalled: d.palette.clay,
    error: d.palette.clay,
    input: d.palette.water,
    message: d.palette.ink,
    heard: d.palette.ink
  };
  for (const e of d.trace.events) {
    const fill = colour[e.type];
    if (!fill || e.tUs < d.fromUs || e.tUs > d.toUs) continue;
    g.fillStyle = fill;
    g.fillRect(x(e.tUs) - 1, 4, 2.5, height - 9);
  }
}
function log(g: CanvasRenderingContext2D, d: Drawing, x: (t: number) => number, height: number): void {
  g.font = '500 11px "Atkinson Hyperlegible Mono Variable"';
  g.fillStyle = d.palette.ink;
  let free = -1;
  for (const e of d.trace.events) {
    if ((e.type !== 'log' && e.type !== 'mark') || e.tUs < d.fromUs || e.tUs > d.toUs) continue;
    const at = x(e.tUs);
    if (e.type === 'mark') {
      // a small flag on its pole
      g.fillStyle = d.palette.water;
      g.fillRect(at, 2, 1.2, height - 6);
      g.beginPath();
      g.moveTo(at, 2);
      g.lineTo(at + 9, 5.5);
      g.lineTo(at, 9);
      g.fill();
      g.fillStyle = d.palette.ink;
    }
    g.fillRect(at, 3, 1, height - 12);
    if (at < free) continue;
    const text = e.text.length > 24 ? `${e.text.slice(0, 23)}…` : e.text;
    g.fillText(text, at + 4, height / 2 + 2);
    free = at + 10 + g.measureText(text).width;
  }
}

/** The innermost block that ran at t in the blocks lane. */
export function blockAt(trace: Trace, program: Program, tUs: number, slackUs: number): string | undefined {
  const { spans, header, ticks } = trace;
  const kind = kinds(program);
  let best: string | undefined;
  let distance = slackUs;
  for (let row = 0; row < spans.count; row++) {
    if (spans.start[row] > tUs + slackUs) break;
    const id = header.blocks[spans.block[row]];
    const k = kind.get(id);
    if (k && WRAPS.has(k)) continue;
    const end = spans.end[row] || ticks * 1000;
    const away = tUs < spans.start[row] ? spans.start[row] - tUs : tUs > end ? tUs - end : 0;
    if (away <= distance) {
      best = id;
      distance = away;
    }
  }
  return best;
}
