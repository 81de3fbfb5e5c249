import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../../../../core/kit/kit.ts';
import { Bench } from '../../../../core/run/bench.ts';
import { Interpreter } from '../../../../core/run/interpreter.ts';
import { b, end, hall, log, program, run, start, variable, wait } from '../../../../core/testing/build.ts';
import { ranWhen } from '../../../../core/trace/query.ts';
import { trail } from '../yard/trail.ts';
import { blockAt, draw, Painter, trackAt, type Palette } from './draw.ts';
import { allLanes, lanesOf } from './lanes.ts';

const colours = Object.fromEntries(
  ['ink', 'soft', 'rule', 'card', 'water', 'order', 'act', 'think', 'read', 'brass', 'clay'].map((name) => [name, name])
) as Palette;

/** A canvas that keeps what it is told, for looking at a drawing without a screen. */
function paper() {
  const told: { what: string; args: unknown[]; stroke: unknown; fill: unknown }[] = [];
  const state: Record<string, unknown> = {};
  const g = new Proxy(state, {
    get: (_, name: string) =>
      name in state
        ? state[name]
        : (...args: unknown[]) => {
            told.push({ what: name, args, stroke: state.strokeStyle, fill: state.fillStyle });
            return name === 'measureText' ? { width: 40 } : undefined;
          },
    set: (_, name: string, value) => {
      state[name] = value;
      return true;
    }
  });
  return { g: g as unknown as CanvasRenderingContext2D, told };
}

describe('lanes of the trace', () => {
  const lamp = b('lamp.set', { to: 'on' });
  const drive = b('drive.measure', { amount: 20 });
  const p = program(
    start(b('repeat.times', { count: 2 }, { do: [drive, wait(0.5)] }), lamp, b('log.line', { value: 'there' }), wait(1))
  );
  const trace = run(p);
  const drawing = {
    trace,
    fromUs: 0,
    toUs: trace.ticks * 1000,
    width: 600,
    lanes: lanesOf(barrow),
    program: p,
    palette: colours,
    live: false
  };

  it('follow the kit: a lane for each servo', () => {
    expect(lanesOf(barrow).map((l) => l.title)).toEqual([
      'Blocks',
      'Wheel power',
      'Wheel speed',
      'Distance ahead',
      'Heading',
      'Lamp left',
      'Lamp right',
      'Servo striker',
      'Servo pan',
      'Log'
    ]);
  });
  it('of a board for the hand are what the hand does and the board feels, not wheels', () => {
    const keys = lanesOf(trowel).flatMap((l) => (l.kind === 'curve' ? l.keys.map((k) => k.key) : []));
    expect(keys).toContain('accelTotal');
    expect(keys).toContain('leanSideways');
    expect(keys).not.toContain('powerLeft');
    expect(lanesOf(trowel).filter((l) => l.kind === 'lamps')).toHaveLength(1);
  });
  it('find the block under the pointer, not the loop around it', () => {
    const [from, to] = ranWhen(trace, drive.id)[1];
    expect(blockAt(trace, p, (from + to) / 2, 0)).toBe(drive.id);
    // lamps and the like take no time: a little beside is near enough
    const [at] = ranWhen(trace, lamp.id)[0];
    expect(blockAt(trace, p, at + 30_000, 40_000)).toBeDefined();
    expect(blockAt(trace, p, trace.ticks * 1000 + 5e6, 1000)).toBeUndefined();
  });
  it('have a track for each stack, so that one that loops all the time hides no other', () => {
    const turn = b('turn.angle', { angle: 90 });
    const flip = b('lamp.set', { to: 'flip' });
    const q = program(
      start(wait(0.5), turn),
      [b('begin.start'), b('repeat.for', { time: 2, unit: 's' }, { do: [wait(20, 'ms'), b('wheels.stop')] })],
      [b('begin.start'), b('repeat.times', { count: 4000 }, { do: [flip] })]
    );
    const two = run(q);
    const blocksLane = lanesOf(barrow, two)[0];
    expect([blocksLane.height, lanesOf(barrow)[0].height, lanesOf(barrow, trace)[0].height]).toEqual([50, 30, 30]);
    const { g, told } = paper();
    draw(g, { ...drawing, trace: two, program: q, toUs: two.ticks * 1000, lanes: [blocksLane] });
    const ys = (fill: string) =>
      new Set(
        told.filter((t) => t.what === 'fillRect' && t.fill === fill).map((t) => Math.round((t.args as number[])[1]))
      );
    // order: waits of the first two stacks; act: the turn in the first, stops in the second, lamps in the third
    expect([...ys('order')].sort((m, n) => m - n)).toEqual([5, 18]);
    expect([...ys('act')].sort((m, n) => m - n)).toEqual([5, 18, 30]);
    // bundles of a tight loop are paler than a run of its own
    const [from, to] = ranWhen(two, turn.id)[0];
    const mid = (from + to) / 2;
    expect(blockAt(two, q, mid, 0, trackAt(two, 8, 50))).toBe(turn.id);
    expect(blockAt(two, q, mid, 30_000, trackAt(two, 22, 50))).not.toBe(turn.id);
    expect([trackAt(two, 0, 50), trackAt(two, 49, 50)]).toEqual([0, 2]);
    expect(blockAt(two, q, 300_000, 30_000, 2)).toBe(flip.id);
  });
  it('draw each span where and as long as it ran, in the colour of its family', () => {
    const { g, told } = paper();
    draw(g, drawing);
    const bars = told.filter((t) => t.what === 'fillRect' && t.fill === 'act').map((t) => t.args as number[]);
    const spans = ranWhen(trace, drive.id);
    const perUs = 600 / (trace.ticks * 1000);
    for (const [i, [from, to]] of spans.entries()) {
      expect(bars[i][0]).toBeCloseTo(from * perUs, 3);
      expect(bars[i][2]).toBeCloseTo((to - from) * perUs - 0.8, 3);
    }
    // the lamp is on from its block to the end, and the log has its word
    const amber = told.find((t) => t.what === 'fillRect' && t.fill === '#e0a100')!.args as number[];
    expect(amber[0] + amber[2]).toBeCloseTo(600, 0);
    expect(told.some((t) => t.what === 'fillText' && t.args[0] === 'there')).toBe(true);
  });
  it('outline every span of the chosen block', () => {
    const { g, told } = paper();
    draw(g, { ...drawing, selected: drive.id });
    expect(told.filter((t) => t.what === 'strokeRect' && t.stroke === 'brass')).toHaveLength(2);
  });
  it('draw a ghost behind, and no dashes while the run goes on', () => {
    const still = paper();
    draw(still.g, { ...drawing, ghost: trace });
    const live = paper();
    draw(live.g, { ...drawing, ghost: trace, live: true });
    const dashed = (told: typeof still.told) =>
      told.filter((t) => t.what === 'setLineDash' && (t.args[0] as number[]).length > 0).length;
    expect(dashed(still.told)).toBeGreaterThan(5);
    expect(dashed(live.told)).toBe(0);
    expect(live.told.filter((t) => t.what === 'stroke').length).toBe(
      still.told.filter((t) => t.what === 'stroke').length
    );
  });
  it('follow the heading across north: no line across, and straight on is a straight line', () => {
    const turning = run([b('turn.angle', { side: 'left', angle: 30 }), b('turn.angle', { side: 'right', angle: 60 })]);
    const lane = lanesOf(barrow).filter((l) => l.title === 'Heading');
    const { g, told } = paper();
    draw(g, { ...drawing, trace: turning, toUs: turning.ticks * 1000, lanes: lane });
    let at: [number, number] | undefined;
    for (const { what, args } of told) {
      const [x, y] = args as [number, number];
      if (what === 'lineTo' && at && y !== 0 && at[1] !== 0 && x - at[0] <= 1.01)
        expect(Math.abs(y - at[1])).toBeLessThan(16);
      if (what === 'moveTo' || what === 'lineTo') at = [x, y];
    }
    const straight = run([b('drive.measure', { amount: 60 })], { noise: true });
    const paper2 = paper();
    draw(paper2.g, { ...drawing, trace: straight, toUs: straight.ticks * 1000, lanes: lane });
    const ys = paper2.told
      .filter((t) => t.what === 'lineTo' && t.stroke === 'ink')
      .map((t) => t.args[1] as number)
      .filter((y) => y > 0);
    expect(Math.max(...ys) - Math.min(...ys)).toBeLessThan(4);
  });
});

describe('drawing what a run without waits did', () => {
  const busy = program(
    start(
      b(
        'repeat.ever',
        {},
        {
          do: [
            b('display.dark'),
            b('pixel.set', { x: 1, y: 1, to: 'on' }),
            b('lamp.set', { to: 'flip' }),
            b('var.change', { variable: 'v1' }),
            b('log.plot', { value: variable('v1') }),
            log('again')
          ]
        }
      )
    ),
    start(wait(20), b('drive.measure', { amount: 5 }))
  );
  const long = run(busy, { limitS: 60 });
  const whole = {
    trace: long,
    fromUs: 0,
    toUs: 60e6,
    width: 600,
    program: busy,
    lanes: allLanes(barrow, long),
    palette: colours,
    live: true
  };
  const bars = (told: ReturnType<typeof paper>['told']) => told.filter((t) => t.what === 'fillRect').length;
  it('costs what the pixels need, however much it was, and shows what another stack did beside it', () => {
    expect(long.spans.times.reduce((a, n) => a + n, 0)).toBeGreaterThan(400_000);
    const { g, told } = paper();
    draw(g, whole);
    // of each lane a few marks a pixel at the most: 600 pixels, some twenty lanes
    expect(told.length).toBeLessThan(600 * whole.lanes.length * 6);
    const drive = busy.stacks[1].steps[2];
    const [[from, to]] = ranWhen(long, drive.id);
    const px = (us: number) => (us / 60e6) * 600;
    expect(
      told.some(
        ({ what, args }) =>
          what === 'fillRect' &&
          Math.abs((args as number[])[0] - px(from)) < 0.01 &&
          Math.abs((args as number[])[2] - (px(to) - px(from) - 0.8)) < 0.9
      )
    ).toBe(true);
  });
  it('paints only what is new while the run goes on, and all of it when anything else changes', () => {
    const bench = new Bench({ program: busy, kit: barrow, mat: hall, seed: 1, limitS: 60 });
    const interpreter = new Interpreter(bench);
    interpreter.advance(40e6);
    const { g, told } = paper();
    const painter = new Painter(g);
    const now = {
      ...whole,
      trace: bench.trace,
      lanes: allLanes(barrow, bench.trace).filter((l) => l.kind !== 'curve')
    };
    painter.paint(now);
    const first = bars(told);
    interpreter.advance(40.1e6);
    told.length = 0;
    painter.paint({ ...now });
    expect(bars(told)).toBeLessThan(first / 20);
    const clip = told.findIndex((t) => t.what === 'clip');
    const [left, , width] = told.slice(0, clip).findLast((t) => t.what === 'rect')!.args as number[];
    expect(left).toBeGreaterThan(390);
    expect(left + width).toBeGreaterThanOrEqual(401);
    told.length = 0;
    painter.paint({ ...now, selected: busy.stacks[0].steps[0].id });
    expect(told.some((t) => t.what === 'clip')).toBe(false);
    expect(bars(told)).toBeGreaterThan(first / 2);
    told.length = 0;
    painter.forget();
    painter.paint({ ...now });
    expect(told.some((t) => t.what === 'clip')).toBe(false);
  });
});

describe('the trail in the yard', () => {
  it('has no more points than can be told apart, however long it drove, and is found by its end alone', () => {
    const round = run([b('wheels.run', { left: 60, right: 45 })], { limitS: 300 });
    const trace = run(
      program(start(b('wheels.run', { left: 60, right: 45 }), b('repeat.ever', {}, { do: [wait(1)] }))),
      {
        limitS: 300
      }
    );
    expect(trace.ticks).toBe(300_000);
    for (const t of [round, trace]) expect(trail(t, Infinity, hall.height).split(' ').length).toBeLessThanOrEqual(2001);
    const [x, y] = trail(trace, Infinity, hall.height).split(' ').at(-1)!.split(',').map(Number);
    expect([x / 100, hall.height - y / 100]).toEqual([
      expect.closeTo(end(trace).x, 3),
      expect.closeTo(end(trace).y, 3)
    ]);
    // where it was at any time is still told
    expect(trail(trace, 100e6, hall.height).split(' ').length).toBeLessThan(
      trail(trace, Infinity, hall.height).split(' ').length
    );
  });
  it('begins at the start, ends where the robot stands, and adds nothing while it stands still', () => {
    const trace = run([b('drive.measure', { amount: 40 }), wait(5)]);
    const points = trail(trace, Infinity, hall.height)
      .split(' ')
      .map((xy) => xy.split(',').map(Number));
    expect(points[0]).toEqual([150, 150]);
    const last = points[points.length - 1];
    expect(last[0]).toBeCloseTo(end(trace).x * 100, 0);
    expect(points.length).toBeLessThan(130);
    // at half of the time it is half as long, or shorter
    expect(trail(trace, 1e6, hall.height).length).toBeLessThan(trail(trace, Infinity, hall.height).length);
  });
});
