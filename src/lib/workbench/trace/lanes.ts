/** Which lanes a trace has: those that stand there at first, and all others that can be chosen. */
import { inSockets, hasWheels, lampsOf, type Kit } from '../../../../core/kit/kit.ts';
import { lineKey, wheelKey } from '../../../../core/kit/keys.ts';
import { plotsOf, startersOf } from '../../../../core/trace/apart.ts';
import type { Trace } from '../../../../core/trace/trace.ts';
import { later, say, word } from '../../../../core/words.ts';

/** So many stacks have a track of their own in the blocks lane; what is beyond lies on the last one. */
const MOST_TRACKS = 6;
export const tracksIn = (trace: Trace): number => Math.max(1, Math.min(MOST_TRACKS, startersOf(trace).length));
/** What a track more adds to the lane's height, px. */
const TRACK = 10;

export type Ink = 'ink' | 'brass' | 'water' | 'act' | 'think' | 'read';
type Common = {
  /** what it is known by when it is arranged */
  key: string;
  title: string;
  line: string;
  height: number;
  /** it stands there without being asked for */
  usual: boolean;
  /** lanes that lie over it */
  over?: Lane[];
};
export type Lane = Common &
  (
    | { kind: 'blocks' | 'log' | 'display' | 'tone' | 'events' }
    | {
        kind: 'curve';
        keys: { key: string; colour: Ink }[];
        range?: [number, number];
        /** 360 is 0 again: it is followed across north */ wraps?: true;
      }
    | { kind: 'lamps'; side: string }
    | { kind: 'plot'; name: string }
    | { kind: 'variable'; name: string }
  );

const curve = (
  key: string,
  title: string,
  line: string,
  keys: [string, Ink][],
  more: Partial<Extract<Lane, { kind: 'curve' }>> = {}
): Lane => ({
  kind: 'curve',
  key,
  title,
  line,
  height: 32,
  usual: true,
  keys: keys.map(([k, colour]) => ({ key: k, colour })),
  ...more
});
const COLOURS = ['ink', 'brass', 'water', 'act'] as const;
/** One curve a wheel, in one lane. */
const ofWheels = ({ wheels }: Kit, what: 'power' | 'speed' | 'turns') =>
  wheels.map((w, i) => [wheelKey(what, w.id), COLOURS[i % COLOURS.length]] as [string, (typeof COLOURS)[number]]);
/** Which curve is which wheel: left and right, or the wheels' names. */
const named = ({ wheels }: Kit): string =>
  wheels.map((w) => word(w.name).replace(new RegExp(` ?${say('wheel')}$`), '')).join(', ');
const rolling = (kit: Kit): Lane[] => [
  curve('power', later('Wheel power'), say('{wheels} · %', { wheels: named(kit) }), ofWheels(kit, 'power')),
  curve('speed', later('Wheel speed'), say('{wheels} · cm/s', { wheels: named(kit) }), ofWheels(kit, 'speed')),
  ...(kit.parts.some((p) => p.type === 'distance')
    ? [curve('distance', later('Distance ahead'), 'cm', [['distance', 'water']])]
    : []),
  curve('heading', later('Heading'), later('°, clockwise'), [['heading', 'ink']], { wraps: true })
];
const rollingMore = (kit: Kit): Lane[] => {
  const lines = kit.parts.filter((p) => p.type === 'line');
  return [
    ...(lines.length
      ? [
          curve(
            'line',
            later('Line sensors'),
            say('{sensors} · 0 – 100', { sensors: lines.map((p) => word(p.name)).join(', ') }),
            lines.map((p, i) => [lineKey(kit, p.socket), COLOURS[i % COLOURS.length]]),
            { usual: false, range: [0, 100] }
          )
        ]
      : []),
    curve('turns', later('Wheels'), say('{wheels} · turns', { wheels: named(kit) }), ofWheels(kit, 'turns'), {
      usual: false
    }),
    kit.chassis.rim
      ? curve('rim', later('Rim'), '', [['rim', 'water']], { range: [0, 1], height: 19 })
      : curve('nose', later('Nose'), '', [['nose', 'water']], { usual: false, range: [0, 1], height: 19 })
  ];
};
const inHand: Lane[] = [
  curve('accelTotal', later('Acceleration'), later('in all · g'), [['accelTotal', 'water']], { height: 40 }),
  curve(
    'lean',
    later('Lean'),
    later('sideways, forwards · °'),
    [
      ['leanSideways', 'ink'],
      ['leanForwards', 'brass']
    ],
    { height: 34 }
  ),
  curve('light', later('Light'), '0 – 100', [['light', 'water']], { height: 30 }),
  curve('temperature', later('Temperature'), '°C', [['temperature', 'water']], { height: 30 }),
  curve('moisture', later('Moisture'), '0 – 100', [['moisture', 'water']], { height: 30 })
];
const both: Lane[] = [
  curve(
    'accel',
    later('Acceleration x, y'),
    'g',
    [
      ['accelX', 'ink'],
      ['accelY', 'brass']
    ],
    { usual: false }
  ),
  curve('accelZ', later('Acceleration z'), 'g', [['accelZ', 'water']], { usual: false }),
  curve('volts', later('Battery'), 'V', [['volts', 'water']], { usual: false })
];
const simple = (
  kind: 'blocks' | 'log' | 'display' | 'tone' | 'events',
  title: string,
  line: string,
  height: number,
  usual = true
): Lane => ({
  kind,
  key: kind,
  title,
  line,
  height,
  usual
});

/** @param trace what the program plotted and which variables it changed stand in it */
export function allLanes(kit: Kit, trace?: Trace): Lane[] {
  const wheels = hasWheels(kit);
  const lamp = (side: string, title: string): Lane => ({
    kind: 'lamps',
    key: `lamp ${side}`,
    title,
    line: '',
    height: 19,
    usual: true,
    side
  });
  return [
    simple('blocks', later('Blocks'), '', 30 + (trace ? TRACK * (tracksIn(trace) - 1) : 0)),
    ...(wheels ? rolling(kit) : inHand),
    ...lampsOf(kit).map((name, _, all) =>
      lamp(name, all.length > 1 ? say('Lamp {name}', { name: word(name) }) : later('Lamp'))
    ),
    ...inSockets(kit)
      .filter((p) => p.type === 'servo' || p.type === 'spin')
      .map((s) =>
        curve(`servo${s.socket}`, say('Servo {name}', { name: s.name }), '°', [[`servo${s.socket}`, 'act']], {
          range: [0, 180]
        })
      ),
    ...inSockets(kit)
      .filter((p) => p.type === 'motor' && !p.drives)
      .map((s) => curve(`power${s.socket}`, s.name, '%', [[`power${s.socket}`, 'act']])),
    ...(trace?.names ?? []).map((name): Lane => ({
      kind: 'variable',
      key: `v ${name}`,
      title: name,
      line: later('variable'),
      height: 28,
      usual: true,
      name
    })),
    ...(trace ? [...plotsOf(trace).keys()] : []).map((name): Lane => ({
      kind: 'plot',
      key: `p ${name}`,
      title: name,
      line: later('plotted'),
      height: 32,
      usual: true,
      name
    })),
    simple('log', later('Log'), later('and marks'), 30),
    ...(wheels ? rollingMore(kit) : []),
    ...both,
    simple('display', later('Display'), later('while it shows something'), 19, false),
    simple('tone', later('Tone'), 'Hz', 24, false),
    simple('events', later('Events'), later('touches, inputs, messages'), 22, false)
  ];
}
/** Those that stand there at first. */
export const lanesOf = (kit: Kit, trace?: Trace): Lane[] => allLanes(kit, trace).filter((l) => l.usual);

/** How a person arranged the lanes. */
export type Arrangement = {
  order: string[];
  /** shown although not usual, hidden although usual */
  shown: string[];
  hidden: string[];
  height: Record<string, number>;
  /** a lane that lies over another one */
  over: Record<string, string>;
};
export const asItIs = (): Arrangement => ({ order: [], shown: [], hidden: [], height: {}, over: {} });
export const isShown = (lane: Lane, a: Arrangement): boolean =>
  lane.usual ? !a.hidden.includes(lane.key) : a.shown.includes(lane.key);

/** All lanes in the person's order, those that are hidden too. */
export function inOrder(all: readonly Lane[], a: Arrangement): Lane[] {
  const place = new Map(a.order.map((key, i) => [key, i]));
  const at = (lane: Lane, i: number): number => place.get(lane.key) ?? (a.order.length ? 1000 + i : i);
  return all
    .map((lane, i) => ({ lane, at: at(lane, i) }))
    .sort((p, q) => p.at - q.at)
    .map(({ lane }) => lane);
}
/** The lanes that are drawn. */
export function arrange(all: readonly Lane[], a: Arrangement): Lane[] {
  const shown = inOrder(all, a)
    .filter((lane) => isShown(lane, a))
    .map((lane) => ({ ...lane, height: a.height[lane.key] ?? lane.height }));
  const lies = (lane: Lane): boolean => a.over[lane.key] !== undefined && shown.some((l) => l.key === a.over[lane.key]);
  return shown
    .filter((lane) => !lies(lane))
    .map((lane) => {
      const over = shown.filter((l) => a.over[l.key] === lane.key && l.key !== lane.key);
      return over.length ? { ...lane, over } : lane;
    });
}
/** The lanes in which given channels are seen, the blocks first. */
export const lanesWith = (all: readonly Lane[], channels: readonly string[]): Lane[] =>
  all.filter(
    (l) =>
      l.kind === 'blocks' ||
      (l.kind === 'curve' && l.keys.some((k) => channels.includes(k.key))) ||
      (l.kind === 'variable' && channels.includes('variables')) ||
      (l.kind === 'display' && channels.includes('display'))
  );
