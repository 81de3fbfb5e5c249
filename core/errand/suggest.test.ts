import { describe, expect, it } from 'vitest';
import { demoProjects } from '../../demo/seed.ts';
import { barrow, trowel } from '../kit/kit.ts';
import { rehearse } from '../run/interpreter.ts';
import { hall } from '../testing/build.ts';
import { fromText } from '../testing/text.ts';
import { endUs } from '../trace/trace.ts';
import { goalWords, judge, type Goal } from './goals.ts';
import { placeGoal, suggested, withHoop } from './suggest.ts';

const of = (text: string, kit = barrow) => {
  const program = fromText(text, kit);
  const trace = rehearse({ program, kit, mat: hall, seed: 1, limitS: 20 });
  return { trace, list: suggested(trace, hall, program) };
};
const kinds = (list: { goal: Goal }[]): string[] => list.map((s) => s.goal.kind);
const goal = (list: { goal: Goal }[], kind: string): Goal | undefined => list.find((s) => s.goal.kind === kind)?.goal;

describe('goals by example', () => {
  it('takes up where it stopped, which way it faces, and that it touched nothing; in turn', () => {
    const { list } = of('wheels.drive(cm=40, power=40, ending="brake")');
    expect(kinds(list)).toEqual(['stop', 'faces', 'under', 'touch-nothing', 'few']);
    // the hall: in its middle, facing right
    expect(list[0].hoop).toMatchObject({ x: expect.closeTo(1.9, 2), y: expect.closeTo(1.5, 2), radius: 0.06 });
    expect(goal(list, 'faces')).toMatchObject({ deg: 0 });
    expect(goal(list, 'few')).toMatchObject({ most: 1 });
  });
  it('takes up a way round, a loop and a wall', () => {
    const { list } = of(
      'for _ in range(4):\n    wheels.drive(cm=20, power=40, ending="brake")\n    wheels.turn(right=90, power=30, ending="brake")'
    );
    expect(goal(list, 'closes')).toMatchObject({ within: 5, way: 64 });
    expect(goal(list, 'uses')).toMatchObject({ what: 'loop' });
    expect(kinds(list)).not.toContain('stop');
    expect(kinds(of('wheels.drive(cm=190, power=60, ending="brake")').list)).not.toContain('touch-nothing');
  });
  it('takes up what was seen and heard: pictures that stood, lamps, tones, servos, the log', () => {
    const { list } = of(
      `display.show(Picture("#...... ....... ....... ....... ......."))
display.show(Picture(".#..... ....... ....... ....... ......."))
wait(1)
display.dark()
left_lamp.on()
wait(0.5)
left_lamp.off()
tone(440, 0.2)
log("five")
vent.angle(0)
wait(1)
vent.angle(90)
wait(1)`,
      trowel
    );
    expect(list.filter((s) => s.goal.kind === 'shows')).toHaveLength(1);
    expect(goal(list, 'shows')).toMatchObject({ picture: '.#..... ....... ....... ....... .......', seconds: 0.8 });
    expect(goal(list, 'blinks')).toEqual({ kind: 'blinks', lamp: 'left', times: [0.5], within: 0.1 });
    // ISO 16: 440 Hz is A4
    expect(goal(list, 'plays')).toMatchObject({ notes: 'A4' });
    expect(goal(list, 'logs')).toMatchObject({ text: 'five' });
    expect(goal(list, 'swings')).toMatchObject({ servo: 'J1', angles: expect.arrayContaining([0, 90]) });
    expect(kinds(list)).not.toContain('closes');
  });
  it('makes a goal of any place on the way: a hoop that is there, or a new one with a name of its own', () => {
    const { trace } = of('wheels.drive(cm=40, power=40, ending="brake")');
    const half = placeGoal(trace, hall, endUs(trace) / 3);
    expect(half.goal.kind).toBe('pass');
    expect(half.hoop).toBeDefined();
    const laid = withHoop(hall, half.hoop!);
    expect(placeGoal(trace, laid, endUs(trace) / 3)).not.toHaveProperty('hoop');
    expect(placeGoal(trace, laid, endUs(trace)).hoop!.name).not.toBe(half.hoop!.name);
    expect(placeGoal(trace, laid, endUs(trace)).goal.kind).toBe('stop');
  });
  it('suggests of demo projects what their own runs meet, all at once, and can say each in words', () => {
    let count = 0;
    for (const [i, [id, { program, kit, mat, start, others, text }]] of demoProjects().entries()) {
      if (text !== undefined || i % 3) continue;
      const trace = rehearse({ program, kit, mat, start, others, seed: 1, limitS: 6 });
      const list = suggested(trace, mat, program);
      count += list.length;
      if (!list.length) continue;
      const hoops = list.flatMap((s) => s.hoop ?? []);
      const verdict = judge(
        list.map((s) => s.goal),
        { trace, mat: { ...mat, hoops: [...mat.hoops, ...hoops] }, program, fromUs: 0, toUs: endUs(trace) }
      );
      expect(verdict.met, `${id}: ${list.map((s) => goalWords(s.goal)).join(' | ')}`).toBe(true);
    }
    expect(count).toBeGreaterThan(40);
  });
});
