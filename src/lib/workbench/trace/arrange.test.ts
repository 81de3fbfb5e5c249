import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../../../../core/kit/kit.ts';
import { b, program, run, start, wait } from '../../../../core/testing/build.ts';
import { changesOf } from '../../../../core/trace/measure.ts';
import { draw, type Palette } from './draw.ts';
import { allLanes, arrange, asItIs, inOrder, isShown, lanesOf, lanesWith, type Lane } from './lanes.ts';

const keys = (list: readonly Lane[]): string[] => list.map((l) => l.key);
const p = program(
  start(
    b('var.set', { variable: 'v1', value: 3 }),
    b('log.plot', { value: 5, name: 'level' }),
    b('var.set', { variable: 'v2', value: 'moss' }),
    b('picture.show'),
    b('sound.tone', { pitch: 440, time: 0.2 }),
    b('drive.measure', { amount: 20 }),
    wait(0.2)
  )
);
const trace = run(p);

describe('the lanes of a trace', () => {
  it('are those of the kit, of its variables and of what it plotted; more can be chosen', () => {
    expect(keys(lanesOf(barrow, trace))).toEqual([
      ...['blocks', 'power', 'speed', 'distance', 'heading', 'lamp left', 'lamp right', 'servoJ4', 'servoJ5'],
      ...['v count', 'v Länge', 'p level', 'log']
    ]);
    expect(keys(allLanes(barrow, trace))).toEqual(
      expect.arrayContaining(['line', 'turns', 'nose', 'accel', 'volts', 'display', 'tone', 'events'])
    );
    expect(keys(lanesOf(trowel))).not.toContain('power');
    // every channel that a lane draws is recorded
    const recorded = new Set(trace.channels.map((c) => c.key));
    for (const lane of allLanes(barrow, trace))
      if (lane.kind === 'curve') for (const { key } of lane.keys) expect(recorded).toContain(key);
  });
  it('are hidden, shown, ordered, made higher and laid over one another', () => {
    const all = allLanes(barrow, trace);
    const a = {
      ...asItIs(),
      hidden: ['lamp left'],
      shown: ['line'],
      order: ['log', 'blocks'],
      height: { power: 90 },
      over: { heading: 'distance', speed: 'nobody' }
    };
    const list = arrange(all, a);
    expect(keys(list).slice(0, 2)).toEqual(['log', 'blocks']);
    expect(keys(list)).toContain('line');
    expect(keys(list)).not.toContain('lamp left');
    expect(keys(list)).not.toContain('heading');
    expect(list.find((l) => l.key === 'distance')!.over!.map((l) => l.key)).toEqual(['heading']);
    // what is to lie over a lane that is not there stands on its own
    expect(keys(list)).toContain('speed');
    expect(list.find((l) => l.key === 'power')!.height).toBe(90);
    expect(
      isShown(
        all.find((l) => l.key === 'nose')!,
        a
      )
    ).toBe(false);
    expect(inOrder(all, a)).toHaveLength(all.length);
    expect(arrange(all, asItIs())).toEqual(lanesOf(barrow, trace));
  });
  it('are found by the channels that a finding names', () => {
    expect(keys(lanesWith(allLanes(barrow, trace), ['lineLeft', 'lineRight']))).toEqual(['blocks', 'line']);
    expect(keys(lanesWith(allLanes(barrow, trace), ['variables']))).toEqual(['blocks', 'v count', 'v Länge']);
  });
});

/** A canvas that keeps what it is told. */
function paper() {
  const told: [string, ...unknown[]][] = [];
  const state: Record<string, unknown> = {};
  const g = new Proxy(state, {
    get: (_, name: string) =>
      name in state
        ? state[name]
        : (...args: unknown[]) => {
            told.push([name, ...args]);
            return name === 'measureText' ? { width: 40 } : undefined;
          },
    set: (_, name: string, value) => ((state[name] = value), true)
  });
  return { g: g as unknown as CanvasRenderingContext2D, told };
}
describe('drawing them', () => {
  const palette = Object.fromEntries(
    ['ink', 'soft', 'rule', 'card', 'water', 'order', 'act', 'think', 'read', 'brass', 'clay'].map((n) => [n, n])
  ) as Palette;
  const base = { trace, fromUs: 0, toUs: trace.ticks * 1000, width: 400, program: p, palette, live: false };
  const one = (key: string, more = {}) => {
    const { g, told } = paper();
    draw(g, { ...base, lanes: allLanes(barrow, trace).filter((l) => l.key === key), ...more });
    return told;
  };
  it('writes text where a variable becomes text, and steps where it is a number', () => {
    expect(one('v Länge').filter(([what]) => what === 'fillText')).toEqual([
      ['fillText', 'moss', expect.any(Number), expect.any(Number)]
    ]);
    expect(changesOf(trace, 'count')).toHaveLength(1);
    expect(one('v count').filter(([what]) => what === 'lineTo').length).toBeGreaterThan(0);
  });
  it('draws the display and tones as bars of their length', () => {
    const bars = (key: string) => one(key).filter(([what]) => what === 'fillRect');
    expect(bars('display')).toHaveLength(1);
    const [tone] = bars('tone');
    expect(((tone[3] as number) * trace.ticks) / 400).toBeCloseTo(200, -1);
  });
  it('shades where two runs lie apart, and draws the other one where it was shifted to', () => {
    const shaded = one('heading', { apart: new Map([['heading', [[100_000, 300_000]]]]) });
    const wash = shaded.find(([what]) => what === 'fillRect')!;
    expect(wash[1]).toBeCloseTo((100_000 / base.toUs) * 400, 6);
    expect(wash[3]).toBeCloseTo((200_000 / base.toUs) * 400, 6);
    // the grid's lines stand on halves of a pixel, curves on whole ones
    const begins = one('speed', { ghost: trace, shiftUs: base.toUs / 2 }).flatMap(([what, x]) =>
      what === 'moveTo' && Number.isInteger(x) && (x as number) > 1 ? [x as number] : []
    );
    expect(begins[0]).toBeGreaterThan(195);
    expect(begins[0]).toBeLessThan(205);
  });
});
