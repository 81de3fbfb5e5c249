/** The figures in the words of findings, asked of the trace a second time, by other code: of random programs, the same. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barrow } from '../../kit/kit.ts';
import { rehearse } from '../../run/interpreter.ts';
import { anyProgram } from '../../testing/random.ts';
import { fromText } from '../../testing/text.ts';
import type { Program } from '../../language/program.ts';
import { run } from '../../testing/build.ts';
import { fernBed } from '../../yard/mats.ts';
import { CHUNK, type Channel, type Trace } from '../trace.ts';
import type { Figure, Query } from './finding.ts';
import { findings, type Finding } from './findings.ts';

const PROGRAMS = Number(process.env.FIGURES ?? 500);

const known = new WeakMap<readonly Channel[], Map<string, Channel>>();
function byKey(channels: readonly Channel[]): Map<string, Channel> {
  let found = known.get(channels);
  if (!found) known.set(channels, (found = new Map(channels.map((c) => [c.key, c]))));
  return found;
}
/** The newest sample of a channel at a moment, straight from what was recorded. */
function sample({ channels, ticks }: Trace, key: string, us: number): number {
  const c = byKey(channels).get(key);
  if (!c) throw new Error(`no channel ${key}`);
  const tick = Math.max(0, Math.min(ticks - 1, Math.floor(us / 1000) - 1));
  const chunk = c.chunks[Math.floor(tick / CHUNK)];
  return (typeof chunk === 'number' ? chunk : chunk[tick % CHUNK]) * c.scale;
}
function answer(trace: Trace, q: Query): number {
  const at = (key: string, us: number): number => sample(trace, key, us);
  const apart = (a: number, b: number): number => Math.hypot(at('x', b) - at('x', a), at('y', b) - at('y', a)) * 100;
  switch (q.take) {
    case 'reads':
      return at(q.channel, q.atUs);
    case 'event': {
      const found = trace.events.filter(
        (e) => e.type === q.type && e.tUs === q.atUs && (q.block === undefined || e.block === q.block)
      );
      return Number((found.at(-1) as unknown as Record<string, number>)[q.field]);
    }
    case 'most':
      return trace.events
        .map((e) => e as unknown as Record<string, number | string>)
        .filter((e) => e.type === q.type && e.what === q.what && Number(e.tUs) >= q.fromUs && Number(e.tUs) <= q.toUs)
        .reduce((most, e) => Math.max(most, Number(e[q.field])), 0);
    case 'ms':
      return (q.toUs - q.fromUs) / 1000;
    case 's':
      return (q.toUs - q.fromUs) / 1e6;
    case 'crow':
      return apart(q.fromUs, q.toUs);
    case 'furthest cm': {
      let most = 0;
      for (let us = q.fromUs; us <= q.toUs; us += 1000) most = Math.max(most, apart(q.fromUs, us));
      return most;
    }
    case 'furthest deg': {
      let [sum, most] = [0, 0];
      for (let us = q.fromUs; us < q.toUs; us += 1000) {
        const step = at('facing', Math.min(q.toUs, us + 1000)) - at('facing', us);
        sum += step - 360 * Math.round(step / 360);
        if (Math.abs(sum) > Math.abs(most)) most = sum;
      }
      return most;
    }
    case 'path': {
      let sum = 0;
      for (let us = q.fromUs; us < q.toUs; us += 1000) sum += apart(us, Math.min(q.toUs, us + 1000));
      return sum;
    }
    case 'turned': {
      let sum = 0;
      for (let us = q.fromUs; us < q.toUs; us += 1000) {
        const step = at('facing', Math.min(q.toUs, us + 1000)) - at('facing', us);
        sum += step - 360 * Math.round(step / 360);
      }
      return sum;
    }
    case 'rate': {
      // each that began in this time but the first is one interval more
      const n = answer(trace, { ...q, take: 'times' });
      return ((n - 1) * 1e6) / (q.toUs - q.fromUs);
    }
    case 'missed':
      return trace.events
        .filter((e) => e.type === 'missed' && e.trigger === q.trigger)
        .reduce((n, e) => n + (e.times ?? 1), 0);
    case 'times': {
      const { block, start, times, count } = trace.spans;
      let n = 0;
      for (let row = 0; row < count; row++)
        if (trace.header.blocks[block[row]] === q.block && start[row] >= q.fromUs && start[row] <= q.toUs)
          n += times[row];
      return n;
    }
  }
}
const evaluate = (trace: Trace, { sum }: Figure): number =>
  sum.reduce((all, q) => all + (q.times ?? 1) * answer(trace, q), 0);
const flat = (f: Finding): Finding[] => [f, ...(f.more ?? []).flatMap(flat)];
/** As it can stand in words. */
const written = (v: number): string[] => [
  String(Math.round(Math.abs(v) * 10) / 10),
  Math.abs(v).toFixed(2),
  String(Math.round(Math.abs(v)))
];

const int = (min: number, max: number): fc.Arbitrary<number> => fc.integer({ min, max });
const ending = fc.constantFrom('brake', 'coast');
/** A line that drives, shows or waits, mostly too short or too fast. */
const driving = fc.oneof(
  fc.tuple(int(5, 60), int(20, 100), ending).map(([cm, p, e]) => `wheels.drive(cm=${cm}, power=${p}, ending="${e}")`),
  fc
    .tuple(fc.constantFrom('left', 'right'), int(10, 200), int(20, 100), ending)
    .map(([side, deg, p, e]) => `wheels.turn(${side}=${deg}, power=${p}, ending="${e}")`),
  fc.tuple(int(-90, 90), int(-90, 90)).map(([l, r]) => `wheels.run(${l}, ${r})`),
  ending.map((e) => `wheels.stop("${e}")`),
  fc.oneof(int(1, 40), int(200, 1500)).map((ms) => `wait_ms(${ms})`),
  int(-20, 220).map((deg) => `striker.angle(${deg})`),
  int(0, 9).map((n) => `display.write(${n})`),
  fc.constantFrom('left_lamp.on()', 'left_lamp.off()'),
  int(1, 40).map((ms) => `tone(440, ${ms / 1000})`),
  int(5, 170).map((cm) => `wait_until(lambda: distance.cm() > ${cm}, at_most=1)`)
);

/** @returns the rules whose figures were looked at */
function look(trace: Trace, found: readonly Finding[], program: Program): string[] {
  const own = ownOf(program);
  return found.flatMap(flat).flatMap((f) => {
    for (const figure of f.figures ?? []) {
      const again = evaluate(trace, figure);
      // a way is measured in finer steps here
      const off = Math.max(0.1, Math.abs(figure.value) * 0.03);
      expect(
        Math.abs(again - figure.value),
        `${f.rule}: ${f.says} ${JSON.stringify(figure)} is ${again}`
      ).toBeLessThanOrEqual(off);
    }
    const bare = numbersOf(f.says).filter((n) => !(f.figures ?? []).some(({ value }) => written(value).includes(n)));
    // what stands in the program as a number is the pupil's own
    expect([f.rule, f.says, bare.filter((n) => !own.has(n))]).toEqual([f.rule, f.says, []]);
    return f.figures?.length ? [f.rule] : [];
  });
}
/** Numbers in the words of a finding, but for what stands in quotation marks, what a block is called before a colon, and names of sockets. */
const numbersOf = (says: string): string[] =>
  [
    ...says
      // how many findings of one kind there were is counted from themselves
      .replace(/ \(\d+ times in this run\)/, '')
      .replace(/"[^"]*"/g, '')
      .replace(/(\d),(?=\d{3})/g, '$1')
      .replace(/^[^:]*: /, '')
      .matchAll(/(?<![\w.])\d+(\.\d+)?(?![\w])/g)
  ].map(([n]) => n);
const ownOf = (program: Program): Set<string> =>
  new Set([...JSON.stringify(program).matchAll(/-?\d+(\.\d+)?/g)].map(([n]) => String(Math.abs(Number(n)))));

describe('figures', () => {
  it(`are the same when they are asked again, in ${PROGRAMS} random programs`, () => {
    const rules = new Set<string>();
    let seed = 0;
    const drives = fc.array(driving, { minLength: 2, maxLength: 9 }).map((lines) => fromText(lines.join('\n')));
    const any = fc.oneof({ weight: 1, arbitrary: anyProgram }, { weight: 4, arbitrary: drives });
    fc.assert(
      fc.property(any, (program) => {
        const trace = rehearse({ program, kit: barrow, mat: fernBed, seed: ++seed, limitS: 3 });
        for (const rule of look(trace, findings(trace, barrow, program), program)) rules.add(rule);
      }),
      // what is wrong is told by the finding's own words: a smaller program is not looked for
      { numRuns: PROGRAMS, seed: 20_261_202, endOnFailure: true }
    );
    expect(rules.size, [...rules].join(' ')).toBeGreaterThanOrEqual(6);
  }, 1_200_000);

  /** programs that are told each by a rule, and what of its words must be a figure */
  const TOLD: readonly [rule: string, text: string, figures: number][] = [
    ['rolled-on', 'wheels.drive(cm=40, power=90, ending="coast")\nwait(1)', 1],
    ['rolled-on', 'wheels.run(80, 80)\nwait(1)\nwheels.stop("coast")\nwait(1)', 1],
    ['rolled-on', 'wheels.turn(left=90, power=60, ending="coast")\nwait(1)', 3],
    // it turned on, and the drive after it brought it back
    ['rolled-on', 'wheels.turn(left=10, power=20, ending="coast")\nwheels.drive(cm=5, power=20, ending="brake")', 3],
    ['drifted', 'wheels.drive(cm=40, power=90, ending="coast")\nwheels.turn(left=90, power=35, ending="brake")', 2],
    ['touched', 'wheels.run(60, 60)\nwait(9)\nwheels.stop("brake")', 3],
    ['servo-short', 'striker.angle(0)\nwait(1)\nstriker.angle(180)\nwait(0.1)\nstriker.angle(0)\nwait(1)', 2],
    ['clipped', 'striker.angle(200)\nwait(1)', 2],
    ['ran-briefly', 'wheels.run(50, 50)\nwait_ms(12)\nwheels.stop("brake")\nwait(1)', 1],
    ['shown-briefly', 'display.write(8)\nwait_ms(2)\ndisplay.dark()\nwait(1)', 1],
    ['lit-briefly', 'left_lamp.on()\nwait_ms(2)\nleft_lamp.off()\nwait(1)', 1],
    ['heard-briefly', 'tone(440, 0.002)\nwait(1)', 1],
    ['wait-ended-at-once', 'wait_until(lambda: distance.cm() > 20)\nbeep()', 1],
    [
      'sensing-rate',
      'for _ in seconds(6):\n    if distance.cm() < 20:\n        wheels.run(-20, -20)\n    else:\n        wheels.run(30, 30)\n    wait_ms(900)\nwheels.stop("brake")',
      1
    ]
  ];
  it.each(TOLD)('of %s stand in its words: %s', (rule, text, figures) => {
    const program = fromText(text);
    const trace = run(program, { limitS: 15 });
    const found = findings(trace, barrow, program).flatMap(flat);
    const one = found.find((f) => f.rule === rule);
    if (!one) throw new Error(`only ${found.map((f) => f.rule).join()}`);
    look(trace, [one], program);
    const said = one.figures!.filter(({ value }) =>
      written(value).some((v) => new RegExp(`(^|[^\\d.])${v.replace('.', '\\.')}(?![\\d]|\\.\\d)`).test(one.says))
    );
    expect(said.length, `${one.says} ${JSON.stringify(one.figures)}`).toBeGreaterThanOrEqual(figures);
  });
});
