/** Which lanes a trace has, and drawing them on a canvas with D3 scales. */
import { scaleLinear } from 'd3-scale';
import { catalogue, definition, familyOf } from '../../../../core/language/catalogue.ts';
import type { Family } from '../../../../core/language/define.ts';
import { hasWheels, type Kit } from '../../../../core/kit/kit.ts';
import { allSteps, type Program } from '../../../../core/language/program.ts';
import { envelope } from '../../../../core/trace/query.ts';
import { LAMP_COLOURS } from '../../ui/lamp-colours.ts';
import { channel, type Trace, type TraceEvent } from '../../../../core/trace/trace.ts';
import { later, say } from '../../../../core/words.ts';

export type Lane =
  | { kind: 'blocks'; title: string; line: string; height: number }
  | {
      kind: 'curve';
      title: string;
      line: string;
      height: number;
      keys: { key: string; colour: 'ink' | 'brass' | 'water' | 'act' }[];
      range?: [number, number];
      /** 360 is 0 again: no line across */ wraps?: true;
    }
  | { kind: 'lamps'; title: string; line: string; height: number; side: 'left' | 'right' }
  | { kind: 'plot'; title: string; line: string; height: number; name: string }
  | { kind: 'log'; title: string; line: string; height: number };

/** @param plots names of what the program plots */
export function lanesOf(kit: Kit, plots: readonly string[] = []): Lane[] {
  const servos = kit.parts.filter((p) => p.type === 'servo' || p.type === 'spin');
  return [
    { kind: 'blocks', title: later('Blocks'), line: '', height: 30 },
    ...(hasWheels(kit) ? rolling : inHand),
    { kind: 'lamps', title: hasWheels(kit) ? later('Lamp left') : later('Lamp'), line: '', height: 19, side: 'left' },
    ...(hasWheels(kit)
      ? [{ kind: 'lamps', title: later('Lamp right'), line: '', height: 19, side: 'right' } as const]
      : []),
    ...servos.map((s): Lane => ({
      kind: 'curve',
      title: say('Servo {name}', { name: s.name }),
      line: '°',
      height: 32,
      keys: [{ key: `servo${s.socket}`, colour: 'act' }],
      range: [0, 180]
    })),
    ...plots.map((name): Lane => ({ kind: 'plot', title: name, line: later('plotted'), height: 32, name })),
    { kind: 'log', title: later('Log'), line: later('and marks'), height: 30 }
  ];
}
const rolling: Lane[] = [
  {
    kind: 'curve',
    title: later('Wheel power'),
    line: later('left, right · %'),
    height: 32,
    keys: [
      { key: 'powerLeft', colour: 'ink' },
      { key: 'powerRight', colour: 'brass' }
    ]
  },
  {
    kind: 'curve',
    title: later('Wheel speed'),
    line: later('left, right · cm/s'),
    height: 32,
    keys: [
      { key: 'speedLeft', colour: 'ink' },
      { key: 'speedRight', colour: 'brass' }
    ]
  },
  {
    kind: 'curve',
    title: later('Distance ahead'),
    line: 'cm',
    height: 32,
    keys: [{ key: 'distance', colour: 'water' }]
  },
  {
    kind: 'curve',
    title: later('Heading'),
    line: later('°, clockwise'),
    height: 32,
    keys: [{ key: 'heading', colour: 'ink' }],
    range: [0, 360],
    wraps: true
  }
];
const inHand: Lane[] = [
  {
    kind: 'curve',
    title: later('Acceleration'),
    line: later('in all · g'),
    height: 40,
    keys: [{ key: 'accelTotal', colour: 'water' }]
  },
  {
    kind: 'curve',
    title: later('Lean'),
    line: later('sideways, forwards · °'),
    height: 34,
    keys: [
      { key: 'leanSideways', colour: 'ink' },
      { key: 'leanForwards', colour: 'brass' }
    ]
  },
  { kind: 'curve', title: later('Light'), line: '0 – 100', height: 30, keys: [{ key: 'light', colour: 'water' }] },
  {
    kind: 'curve',
    title: later('Temperature'),
    line: '°C',
    height: 30,
    keys: [{ key: 'temperature', colour: 'water' }]
  },
  { kind: 'curve', title: later('Moisture'), line: '0 – 100', height: 30, keys: [{ key: 'moisture', colour: 'water' }] }
];

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

export function draw(g: CanvasRenderingContext2D, d: Drawing): void {
  const x = scaleLinear([d.fromUs, d.toUs], [0, d.width]);
  g.clearRect(0, 0, d.width, 10000);
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
    if (lane.kind === 'blocks') blocks(g, d, lane.height);
    else if (lane.kind === 'curve') curve(g, d, lane);
    else if (lane.kind === 'lamps') lamps(g, d, lane, x);
    else if (lane.kind === 'plot') plot(g, d, lane, x);
    else log(g, d, x, lane.height);
    g.restore();
    top += lane.height;
    g.strokeStyle = d.palette.rule;
    g.beginPath();
    g.moveTo(0, top - 0.5);
    g.lineTo(d.width, top - 0.5);
    g.stroke();
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
function curve(g: CanvasRenderingContext2D, d: Drawing, lane: Lane & { kind: 'curve' }): void {
  const columns = Math.max(1, Math.floor(d.width));
  const sets = lane.keys.map(({ key, colour }) => ({
    colour,
    now: of(d.trace, key),
    before: d.ghost && of(d.ghost, key)
  }));
  function of(trace: Trace, key: string): Float64Array | undefined {
    const c = channel(trace, key);
    return c && envelope(c, trace.ticks, d.fromUs, d.toUs, columns);
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
/** What the program plotted holds until the next value. */
function plot(g: CanvasRenderingContext2D, d: Drawing, lane: Lane & { kind: 'plot' }, x: (t: number) => number): void {
  const points = d.trace.events.flatMap((e) => (e.type === 'plot' && e.name === lane.name ? [e] : []));
  if (points.length === 0) return;
  const values = points.map((p) => p.value);
  const y = scaleLinear([Math.min(0, ...values), Math.max(1, ...values)], [lane.height - 5, 5]);
  g.strokeStyle = d.palette.think;
  g.lineWidth = 1.6;
  g.beginPath();
  points.forEach((p, i) => {
    if (i === 0) g.moveTo(x(p.tUs), y(p.value));
    else {
      g.lineTo(x(p.tUs), y(points[i - 1].value));
      g.lineTo(x(p.tUs), y(p.value));
    }
  });
  g.lineTo(x(d.trace.ticks * 1000), y(values[values.length - 1]));
  g.stroke();
}
/** Names of what a trace has plotted, in the order they came. */
export const plotsOf = (trace: Trace | undefined): string[] => [
  ...new Set((trace?.events ?? []).flatMap((e) => (e.type === 'plot' ? [e.name] : [])))
];
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
