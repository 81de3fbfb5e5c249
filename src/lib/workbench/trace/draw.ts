/**
 * Drawing lanes on a canvas (or on an SVG that takes the same calls) with D3 scales. However much a run did, what is drawn is
 * bounded by the pixels: of what falls into one pixel one mark is made.
 */
import { scaleLinear } from 'd3-scale';
import { catalogue, definition, familyOf } from '../../../../core/language/catalogue.ts';
import type { Family } from '../../../../core/language/define.ts';
import { allSteps, type Program } from '../../../../core/language/program.ts';
import { eventsOf, firstAfter, plotsOf, rowsOf, rowsOfBlock, stackOf, upTo } from '../../../../core/trace/apart.ts';
import { envelope, followed, rowsAt } from '../../../../core/trace/query.ts';
import { LAMP_COLOURS } from '../../ui/lamp-colours.ts';
import { channel, type Trace } from '../../../../core/trace/trace.ts';
import { tracksIn, type Lane } from './lanes.ts';

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
  /** all before this time is on the canvas already: what came since is painted, the rest left */
  sinceUs?: number;
  /** values at the edges of lanes, where they are worked out already */
  scales?: ReadonlyMap<string, [number, number]>;
};

/** What a canvas shows: while nothing but the trace's end changes, only what is new is painted. */
export class Painter {
  private last: Drawing | undefined;
  private untilUs = 0;
  private scales = '';
  constructor(private readonly g: CanvasRenderingContext2D) {}
  /** The canvas was cleared, or its size is another. */
  forget(): void {
    this.last = undefined;
  }
  paint(d: Drawing): void {
    const { last } = this;
    const same =
      last &&
      (Object.keys(d) as (keyof Drawing)[]).every((key) => d[key] === last[key]) &&
      d.trace.ticks * 1000 >= this.untilUs;
    const scales = new Map(d.lanes.map((lane) => [lane.key, scaleOf(d, lane)]));
    const told = [...scales.values()].join(' ');
    const drawing = { ...d, scales };
    draw(this.g, same && told === this.scales ? { ...drawing, sinceUs: this.untilUs } : drawing);
    this.last = d;
    this.scales = told;
    this.untilUs = d.trace.ticks * 1000;
  }
}
/** A heading that changes by less than this is all but a straight line, degrees. */
const STILL_DEG = 20;
/** Values at the lower and the upper edge of a lane; they grow by steps, so that a run that goes on seldom changes them. */
function scaleOf(d: Drawing, lane: Lane): [number, number] {
  const known = d.scales?.get(lane.key);
  if (known) return known;
  let [low, high] = [0, 1];
  const look = (v: number): void => {
    if (v < low) low = v;
    else if (v > high) high = v;
  };
  if (lane.kind === 'curve' && lane.wraps) {
    // what it seems to turn while it goes straight is not to fill the lane
    [low, high] = [-STILL_DEG, STILL_DEG];
    for (const { key } of lane.keys) {
      const c = channel(d.trace, key);
      if (c) followed(c, d.trace.ticks, d.fromUs, d.toUs, columnsOf(d)).forEach(look);
    }
  } else if (lane.kind === 'curve') {
    if (lane.range) return lane.range;
    for (const { key } of lane.keys) {
      const c = channel(d.trace, key);
      if (!c) continue;
      // of a whole run the smallest and largest of each second are enough
      if (d.fromUs <= 0 && d.toUs >= d.trace.ticks * 1000)
        for (let i = 0; i < c.low.length; i++) {
          look(c.low[i] * c.scale);
          look(c.high[i] * c.scale);
        }
      else envelope(c, d.trace.ticks, d.fromUs, d.toUs, columnsOf(d)).forEach(look);
    }
  } else if (lane.kind === 'plot' || lane.kind === 'variable') {
    const points = stepsOf(d, lane);
    for (let i = 0; i < points.count; i++) look(points.value(i));
  } else return [0, 0];
  return scaleLinear().domain([low, high]).nice(4).domain() as [number, number];
}
const columnsOf = (d: Drawing): number => Math.max(1, Math.floor(d.width));
/** The stretch of time that is painted: all that is seen, or what came since; with a few pixels before it. */
const MARGIN = 3;
const paintedFrom = (d: Drawing): number =>
  d.sinceUs === undefined ? d.fromUs : Math.max(d.fromUs, d.sinceUs - (MARGIN * (d.toUs - d.fromUs)) / d.width);

/** Rows of spans that are steps which do something themselves, not the loops around them. */
const WRAPS = new Set(
  [...catalogue.values()]
    .filter((d) => d.shape === 'wrap' || ('loop' in d && d.loop) || d.kind === 'routine.do')
    .map((d) => d.kind)
);

/** @param clears the canvas first: a sheet that has other things on it is not */
export function draw(g: CanvasRenderingContext2D, d: Drawing, clears = true): void {
  const x = scaleLinear([d.fromUs, d.toUs], [0, d.width]);
  const total = d.lanes.reduce((h, l) => h + l.height, 0);
  g.save();
  if (d.sinceUs !== undefined) {
    const left = Math.floor(x(paintedFrom(d)));
    g.beginPath();
    g.rect(left, 0, Math.ceil(x(d.trace.ticks * 1000)) + 1 - left, total);
    g.clip();
  }
  if (clears) g.clearRect(0, 0, d.width, 10000);
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
  g.restore();
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
    case 'variable':
      return steps(g, d, lane, x, stepsOf(d, lane));
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
const FAMILIES = ['order', 'act', 'think', 'read'] as const;
/** Whether something was drawn at this pixel before: asked in the order of time. */
function oncePerPixel(): (px: number) => boolean {
  let last = -Infinity;
  return (px) => Math.floor(px) > last && ((last = Math.floor(px)), true);
}
const trackOf = (trace: Trace, task: number): number => Math.min(tracksIn(trace) - 1, stackOf(trace, task));
const [ABOVE, BELOW] = [5, 7];
/** Which track of the blocks lane is at this height. */
export const trackAt = (trace: Trace, y: number, height: number): number =>
  Math.max(0, Math.min(tracksIn(trace) - 1, Math.floor(((y - ABOVE) / (height - ABOVE - BELOW)) * tracksIn(trace))));

/** One track a stack; what is a bundle of runs (a tight loop) is drawn paler, with a solid edge. */
function blocks(g: CanvasRenderingContext2D, d: Drawing, height: number): void {
  const { trace, fromUs, toUs } = d;
  const { spans, header, ticks } = trace;
  const kind = kinds(d.program);
  const perUs = d.width / (toUs - fromUs);
  // of each block: which family it is of; -1 for the loops around others
  const family = header.blocks.map((id) => {
    const k = kind.get(id);
    return k && WRAPS.has(k) ? -1 : FAMILIES.indexOf(k ? familyOf(definition(k)) : 'order');
  });
  const chosen = d.selected === undefined ? -1 : header.blocks.indexOf(d.selected);
  const tracks = tracksIn(trace);
  const high = (height - ABOVE - BELOW) / tracks;
  const thick = tracks === 1 ? high : high - 1.5;
  const free = Array.from({ length: tracks }, () => FAMILIES.map(oncePerPixel));
  const one = (row: number): void => {
    const of = family[spans.block[row]];
    if (of < 0) return;
    const px = (spans.start[row] - fromUs) * perUs;
    const width = ((spans.end[row] || ticks * 1000) - spans.start[row]) * perUs;
    const track = trackOf(trace, spans.task[row]);
    if (width < 1 && !free[track][of](px)) return;
    const y = ABOVE + track * high;
    const wide = Math.max(1.6, width - 0.8);
    const alpha = chosen < 0 || spans.block[row] === chosen ? 0.85 : 0.3;
    g.fillStyle = d.palette[FAMILIES[of]];
    g.globalAlpha = spans.times[row] > 1 ? alpha * 0.55 : alpha;
    g.fillRect(px, y, wide, thick);
    if (spans.times[row] > 1) {
      g.globalAlpha = alpha;
      g.fillRect(px, y, wide, Math.min(3, thick / 4));
    }
  };
  const paintedUs = paintedFrom(d);
  const from = upTo(spans.count, (row) => spans.start[row], paintedUs);
  const to = upTo(spans.count, (row) => spans.start[row], toUs);
  for (const row of [...rowsAt(trace, paintedUs)].reverse()) one(row);
  for (let row = from; row < to; row++) one(row);
  if (chosen >= 0) {
    g.globalAlpha = 1;
    g.lineWidth = 2;
    const brass = oncePerPixel();
    for (const row of rowsOfBlock(trace, d.selected!)) {
      if (spans.end[row] && spans.end[row] < paintedUs) continue;
      const px = (spans.start[row] - fromUs) * perUs;
      const width = ((spans.end[row] || ticks * 1000) - spans.start[row]) * perUs;
      if (px > d.width || px + width < 0 || (width < 1 && !brass(px))) continue;
      g.fillStyle = d.palette[FAMILIES[Math.max(0, family[chosen])]];
      const y = ABOVE + trackOf(trace, spans.task[row]) * high;
      g.fillRect(px, y, Math.max(1.6, width - 0.8), thick);
      g.strokeStyle = d.palette.brass;
      g.strokeRect(px, y, Math.max(2, width - 0.8), thick);
    }
  }
  g.globalAlpha = 1;
  g.fillStyle = d.palette.clay;
  for (const type of ['error', 'touch', 'missed'] as const) {
    const seen = oncePerPixel();
    for (const e of eventsOf(trace, type)) {
      const px = (e.tUs - fromUs) * perUs;
      if (e.tUs < paintedUs || px > d.width + 3 || !seen(px)) continue;
      g.beginPath();
      g.arc(px, height - 4, 3, 0, 7);
      g.fill();
    }
  }
}
function curve(
  g: CanvasRenderingContext2D,
  d: Drawing,
  lane: Lane & { kind: 'curve' },
  x: (t: number) => number
): void {
  const columns = columnsOf(d);
  const first = Math.max(0, Math.floor(x(paintedFrom(d))) - 1);
  const sets = lane.keys.map(({ key, colour }) => ({
    colour,
    now: of(d.trace, key),
    before: d.ghost && of(d.ghost, key, d.shiftUs ?? 0)
  }));
  function of(trace: Trace, key: string, shiftUs = 0): Float64Array | undefined {
    const c = channel(trace, key);
    const draws = lane.wraps ? followed : envelope;
    return c && draws(c, trace.ticks, d.fromUs - shiftUs, d.toUs - shiftUs, columns);
  }
  for (const { key } of lane.keys)
    for (const [from, to] of d.apart?.get(key) ?? []) {
      g.fillStyle = d.palette.clay;
      g.globalAlpha = 0.1;
      g.fillRect(x(from), 1, Math.max(1, x(to) - x(from)), lane.height - 2);
      g.globalAlpha = 1;
    }
  const y = scaleLinear(scaleOf(d, lane), [lane.height - 5, 5]);
  const line = (points: Float64Array): void => {
    g.beginPath();
    let open = false;
    for (let i = first; i < columns; i++) {
      const a = points[2 * i];
      if (Number.isNaN(a)) {
        open = false;
        continue;
      }
      const b = points[2 * i + 1];
      if (open) g.lineTo(i, y(a));
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
/** Stretches from one event to the next, those that are seen; short ones as one mark a pixel. */
function stretches<E extends { tUs: number }>(
  d: Drawing,
  x: (t: number) => number,
  list: readonly E[],
  bar: (e: E, from: number, to: number) => void,
  shows: (e: E) => boolean
): void {
  const free = oncePerPixel();
  for (let i = Math.max(0, firstAfter(list, paintedFrom(d)) - 1); i < list.length && list[i].tUs <= d.toUs; i++) {
    if (!shows(list[i])) continue;
    const from = x(list[i].tUs);
    const to = x(list[i + 1]?.tUs ?? d.trace.ticks * 1000);
    if (to - from >= 1 || free(from)) bar(list[i], from, to);
  }
}
function lamps(
  g: CanvasRenderingContext2D,
  d: Drawing,
  lane: Lane & { kind: 'lamps' },
  x: (t: number) => number
): void {
  stretches(
    d,
    x,
    eventsOf(d.trace, 'lamp').filter((e) => e.lamp === lane.side),
    ({ colour }, from, to) => {
      g.fillStyle = LAMP_COLOURS[colour] ?? LAMP_COLOURS.amber;
      g.fillRect(from, 4, Math.max(1.5, to - from), lane.height - 9);
    },
    (e) => e.on
  );
}
/** A value that holds until the next one: how many, when, how much (NaN for text), and what is said of it. */
type Steps = { count: number; tUs(i: number): number; value(i: number): number; text(i: number): string | undefined };
function plotted(trace: Trace, name: string): Steps {
  const list = plotsOf(trace).get(name) ?? [];
  return { count: list.length, tUs: (i) => list[i].tUs, value: (i) => list[i].value, text: () => undefined };
}
function changed(trace: Trace, name: string): Steps {
  const rows = rowsOf(trace, trace.names.indexOf(name));
  const { tUs, value, texts } = trace.changes;
  return { count: rows.length, tUs: (i) => tUs[rows[i]], value: (i) => value[rows[i]], text: (i) => texts[rows[i]] };
}
const stepsOf = (d: Drawing, lane: Lane & { kind: 'plot' | 'variable' }): Steps =>
  lane.kind === 'plot' ? plotted(d.trace, lane.name) : changed(d.trace, lane.name);
/** A line of steps. Text has no height: a tick where it changes, and the words. */
function steps(
  g: CanvasRenderingContext2D,
  d: Drawing,
  lane: Lane & { kind: 'plot' | 'variable' },
  x: (t: number) => number,
  points: Steps
): void {
  if (points.count === 0) return;
  const { height } = lane;
  const y = scaleLinear(scaleOf(d, lane), [height - 5, 5]);
  g.strokeStyle = d.palette.think;
  g.fillStyle = d.palette.think;
  g.lineWidth = 1.6;
  g.beginPath();
  const first = Math.max(0, upTo(points.count, (i) => points.tUs(i), paintedFrom(d)) - 1);
  const last = upTo(points.count, (i) => points.tUs(i), d.toUs);
  let held: number | undefined;
  // many changes in one pixel are one line from the smallest to the largest
  let column = -Infinity;
  let [smallest, largest] = [0, 0];
  const close = (): void => {
    if (largest > smallest) {
      g.moveTo(column, y(smallest));
      g.lineTo(column, y(largest));
      g.moveTo(column, y(held!));
    }
  };
  for (let i = first; i < last; i++) {
    const value = points.value(i);
    if (Number.isNaN(value)) continue;
    const px = x(points.tUs(i));
    if (Math.floor(px) === column) {
      if (value < smallest) smallest = value;
      else if (value > largest) largest = value;
      held = value;
      continue;
    }
    if (held === undefined) g.moveTo(px, y(value));
    else {
      close();
      g.lineTo(px, y(held));
      g.lineTo(px, y(value));
    }
    column = Math.floor(px);
    held = smallest = largest = value;
  }
  if (held !== undefined) {
    close();
    g.lineTo(x(Math.min(d.trace.ticks * 1000, d.toUs)), y(held));
  }
  g.stroke();
  g.font = '500 11px "Atkinson Hyperlegible Mono Variable"';
  const mark = oncePerPixel();
  let free = -1;
  const start = Math.max(0, upTo(points.count, (i) => points.tUs(i), d.fromUs) - 1);
  // where words have room depends on all words before, painted or not
  const left = x(paintedFrom(d));
  for (let i = start; i < last; i++) {
    const text = points.text(i);
    if (text === undefined || !Number.isNaN(points.value(i))) continue;
    const at = x(points.tUs(i));
    if (!mark(at)) continue;
    if (at >= left) g.fillRect(at, 4, 1, height - 8);
    if (at >= free) free = label(g, text, 20, at, height / 2 + 4, left);
  }
}
/** Words at a place, cut to so many letters, if they reach what is painted. @returns where there is room again */
function label(g: CanvasRenderingContext2D, text: string, most: number, at: number, y: number, left: number): number {
  const short = text.length > most ? `${text.slice(0, most - 1)}…` : text;
  const free = at + 10 + g.measureText(short).width;
  if (free >= left) g.fillText(short, at + 4, y);
  return free;
}
/** Dark bars while something is on the display. */
function display(g: CanvasRenderingContext2D, d: Drawing, height: number, x: (t: number) => number): void {
  g.fillStyle = d.palette.act;
  g.globalAlpha = 0.75;
  stretches(
    d,
    x,
    eventsOf(d.trace, 'display'),
    (_, from, to) => g.fillRect(from, 4, Math.max(1.5, to - from - 1), height - 9),
    (e) => /[#1-9]/.test(e.picture)
  );
  g.globalAlpha = 1;
}
/** Tones by their pitch, high ones up. */
function tone(g: CanvasRenderingContext2D, d: Drawing, height: number, x: (t: number) => number): void {
  const y = scaleLinear([Math.log(60), Math.log(4000)], [height - 4, 3]).clamp(true);
  g.fillStyle = d.palette.act;
  stretches(
    d,
    x,
    eventsOf(d.trace, 'tone'),
    (e, from, to) => {
      const end = e.seconds === undefined ? to : Math.min(to, x(e.tUs + e.seconds * 1e6));
      g.fillRect(from, y(Math.log(e.hertz)) - 1.5, Math.max(1.5, end - from - 0.5), 3);
    },
    (e) => e.hertz > 0
  );
}
/** Touches in clay, what a hand did in water, messages in ink. */
function events(g: CanvasRenderingContext2D, d: Drawing, height: number, x: (t: number) => number): void {
  const { clay, water, ink } = d.palette;
  const colours = [
    [clay, 'touch', 'tipped', 'stalled', 'error'],
    [water, 'input'],
    [ink, 'message', 'heard']
  ] as const;
  for (const [fill, ...types] of colours) {
    g.fillStyle = fill;
    for (const type of types) {
      const free = oncePerPixel();
      for (const e of eventsOf(d.trace, type))
        if (e.tUs >= paintedFrom(d) && e.tUs <= d.toUs && free(x(e.tUs))) g.fillRect(x(e.tUs) - 1, 4, 2.5, height - 9);
    }
  }
}
function log(g: CanvasRenderingContext2D, d: Drawing, x: (t: number) => number, height: number): void {
  g.font = '500 11px "Atkinson Hyperlegible Mono Variable"';
  const within = (e: { tUs: number }): boolean => e.tUs >= d.fromUs && e.tUs <= d.toUs;
  const flag = oncePerPixel();
  g.fillStyle = d.palette.water;
  for (const e of eventsOf(d.trace, 'mark')) {
    const at = x(e.tUs);
    if (!within(e) || !flag(at)) continue;
    // a small flag on its pole
    g.fillRect(at, 2, 1.2, height - 6);
    g.beginPath();
    g.moveTo(at, 2);
    g.lineTo(at + 9, 5.5);
    g.lineTo(at, 9);
    g.fill();
  }
  g.fillStyle = d.palette.ink;
  // marks and lines of the log, merged in the order of time
  const left = x(paintedFrom(d));
  const [marks, lines] = [eventsOf(d.trace, 'mark'), eventsOf(d.trace, 'log')];
  const mark = oncePerPixel();
  let free = -1;
  for (let i = 0, k = 0; i < marks.length || k < lines.length;) {
    const e = k >= lines.length || (i < marks.length && marks[i].tUs <= lines[k].tUs) ? marks[i++] : lines[k++];
    const at = x(e.tUs);
    if (!within(e) || !mark(at)) continue;
    if (at >= left) g.fillRect(at, 3, 1, height - 12);
    if (at >= free) free = label(g, e.text, 24, at, height / 2 + 2, left);
  }
}

/** The innermost block that ran at t in the blocks lane, on one of its tracks, or the nearest one within the slack. */
export function blockAt(
  trace: Trace,
  program: Program,
  tUs: number,
  slackUs: number,
  track?: number
): string | undefined {
  const { spans, header, ticks } = trace;
  const kind = kinds(program);
  let best: string | undefined;
  let distance = slackUs;
  const look = (row: number): void => {
    const id = header.blocks[spans.block[row]];
    const k = kind.get(id);
    if ((k && WRAPS.has(k)) || (track !== undefined && trackOf(trace, spans.task[row]) !== track)) return;
    const end = spans.end[row] || ticks * 1000;
    const away = tUs < spans.start[row] ? spans.start[row] - tUs : tUs > end ? tUs - end : 0;
    if (away <= distance) {
      best = id;
      distance = away;
    }
  };
  // what ran there, what ended shortly before, what began shortly after
  const after = upTo(spans.count, (row) => spans.start[row], tUs + slackUs);
  for (const row of [...rowsAt(trace, Math.max(0, tUs - slackUs))].reverse()) look(row);
  for (let row = upTo(spans.count, (r) => spans.start[r], tUs - slackUs); row < after; row++) look(row);
  return best;
}
