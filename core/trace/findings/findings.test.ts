import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../../kit/kit.ts';
import { noQuirks } from '../../kit/quirks.ts';
import type { Program } from '../../language/program.ts';
import type { RunOptions } from '../../run/spec.ts';
import { b, cmp, log, program, run, start, wait } from '../../testing/build.ts';
import { CORRECT } from '../../testing/corpus.ts';
import { fromText } from '../../testing/text.ts';
import { findings, type Finding } from './findings.ts';

const of = (p: Program, options: Partial<RunOptions> = {}): Finding[] =>
  findings(run(p, { limitS: 15, ...options }), options.kit ?? barrow, p);
const text = (t: string, options: Partial<RunOptions> = {}): Finding[] => of(fromText(t), options);
const rules = (list: Finding[]): string[] => list.map((f) => f.rule);

describe('findings', () => {
  it('say that a turn was still going on when the next drive began, with the angle and the moment', () => {
    const found = text(
      'wheels.turn(right=90, power=60, ending="coast")\nwheels.drive(cm=30, power=45, ending="brake")'
    );
    expect(found[0].rule).toBe('rolled-on');
    expect(found[0].says).toMatch(
      /^turn right: asked 90 °, swung to 9[4-9]\.\d ° and came to rest at 90\.\d °: it was still turning when the next move began, at \d\.\d\d s\.$/
    );
    expect(found[0].blocks.length).toBeGreaterThan(0);
    expect(found[0].lanes).toContain('heading');
    expect(
      text('wheels.turn(right=90, power=60, ending="brake")\nwheels.drive(cm=30, power=45, ending="brake")')
    ).toEqual([]);
  });
  it('say how far it went on after a stop, and nothing where it stood', () => {
    const [on] = text('wheels.run(80, 80)\nwait(1)\nwheels.stop("coast")\nwait(1)');
    expect(on.says).toMatch(/^After the stop it went on by \d+(\.\d)? cm/);
    expect(rules(text('wheels.run(20, 20)\nwait(1)\nwheels.stop("brake")\nwait(1)'))).toEqual([]);
  });
  it('say that left and right are swapped, and not of a robot that is only a little off', () => {
    const turn = 'wheels.turn(left=90, power=35, ending="brake")';
    const [found] = text(turn, { quirks: { ...noQuirks, swapped: true } });
    expect(found.rule).toBe('turned-the-other-way');
    expect(found.says).toContain('asked 90 °, and it turned 9');
    expect(rules(text(turn, { quirks: { ...noQuirks, spread: 1.05 } }))).toEqual(['asked-and-got']);
  });
  it('say that a wait ended at once because its condition was true, and which time', () => {
    const found = text(
      'for _ in range(3):\n    wheels.run(30, -30)\n    wait_until(lambda: gyro.turned() > 80)\n    wheels.stop("brake")\n    wait(0.3)'
    );
    const one = found.find((f) => f.rule === 'wait-ended-at-once')!;
    expect(one.says).toMatch(/ended at once 2 of 3 times, first the time number 2/);
    expect(
      rules(text('wheels.run(20, 20)\nwait_until(lambda: distance.cm() < 100)\nwheels.stop("brake")'))
    ).not.toContain('wait-ended-at-once');
  });
  it('say how often a loop looked, and how far it went blind', () => {
    const loop = (ms: number) =>
      `for _ in seconds(6):\n    if distance.cm() < 20:\n        wheels.run(-20, -20)\n    else:\n        wheels.run(30, 30)\n    wait_ms(${ms})\nwheels.stop("brake")`;
    const found = text(loop(900)).find((f) => f.rule === 'sensing-rate')!;
    expect(found.says).toMatch(/looked 1\.\d times a second.*blind for up to 90\d ms and \d+(\.\d)? cm/);
    expect(rules(text(loop(20)))).not.toContain('sensing-rate');
  });
  it('say what never ran, and what never became true', () => {
    const found = text('wait_until(lambda: distance.cm() < 3)\nbeep()');
    expect(found.find((f) => f.rule === 'never-reached')!.says).toContain('never ran');
    const when = of(program([b('begin.when', { condition: cmp(b('sense.distance'), '<', 3) }), log('x')]));
    expect(when.find((f) => f.rule === 'never-reached')!.says).toContain('never began');
    expect(rules(text('beep()\nwait(1)'))).toEqual([]);
  });
  it('say where and how hard it touched, and that the wheels rolled on the spot', () => {
    const found = text('wheels.run(60, 60)\nwait(9)\nwheels.stop("brake")');
    const touch = found.find((f) => f.rule === 'touched')!;
    expect(touch.at!.x).toBeGreaterThan(2.8);
    expect(touch.says).toMatch(
      /^Touched the edge of the yard with its nose, with 2\d(\.\d)? cm\/s, at x 300, y 14\d cm: for [34]\.\d\d s, with up to \d+(\.\d)? N\.$/
    );
    expect(found.filter((f) => f.rule === 'touched')).toHaveLength(1);
    const slip = text('wheels.run(100, 100)\nwait(9)\nwheels.stop("brake")')[0];
    expect([slip.rule, ...slip.more!.map((f) => f.rule)]).toContain('slipped');
  });
  it('say that a motor ran on, and which block started it', () => {
    const go = b('wheels.run', { left: 20, right: 20 });
    const found = of(program(start(go, wait(0.5))));
    expect(found[0]).toMatchObject({ rule: 'still-driving', blocks: [go.id] });
    expect(found[0].says).toContain('over at 0.50 s');
  });
  it('say that an LED burnt', () => {
    const parts = (ohm: number) =>
      trowel.parts.map((p) => (p.type === 'lamp' ? { ...p, ohm, colour: 'red' as const } : p));
    const p = program(start(b('lamp.set', { to: 'on' }), wait(0.5), b('lamp.set', { to: 'off' })));
    const burnt = findings(run(p, { kit: { ...trowel, parts: parts(0) } }), { ...trowel, parts: parts(0) }, p);
    expect(burnt[0].says).toMatch(/got 5\d\.\d mA and burnt/);
    const fine = run(p, { kit: { ...trowel, parts: parts(120) } });
    expect(findings(fine, trowel, p)).toEqual([]);
    expect(fine.events.some((e) => e.type === 'lamp' && e.on)).toBe(true);
    const dark = run(p, { kit: { ...trowel, parts: parts(0) } });
    expect(dark.events.some((e) => e.type === 'lamp' && e.on)).toBe(false);
  });
  it('put what matters first, and count what comes again', () => {
    const found = text(
      'for _ in range(4):\n    display.show(Picture("#...... ....... ....... ....... ......."))\n    display.dark()\nwheels.run(60, 60)\nwait(8)'
    );
    expect(found.map((f) => f.weight)).toEqual([...found.map((f) => f.weight)].sort((p, q) => q - p));
    expect(found.find((f) => f.rule === 'shown-briefly')!.says).toContain('(4 times in this run)');
    for (const f of found) {
      expect(f.todo.length).toBeGreaterThan(10);
      expect(f.fromUs).toBeLessThanOrEqual(f.toUs);
    }
  });
  it('blame no correct program', () => {
    // what the world does to it, such as a wall at the end of a long way, is told; what the program did is not
    const allowed = new Set([
      'touched',
      'time-limit',
      'slipped',
      'never-reached',
      'still-driving',
      'battery-used',
      'cut-off'
    ]);
    for (const [name, t] of Object.entries(CORRECT)) {
      const p = fromText(t);
      const found = findings(run(p, { limitS: 15, kit: barrow }), barrow, p).filter((f) => !allowed.has(f.rule));
      expect(found.map((f) => `${name}: ${f.rule}: ${f.says}`)).toEqual([]);
    }
  });
});
