/** Goals against runs of real programs: met, missed by how much and when, and told live. */
import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../kit/kit.ts';
import { fromText } from '../testing/text.ts';
import { b, hall, program, run, start } from '../testing/build.ts';
import { sampleAt } from '../trace/query.ts';
import { channel, endUs, type Trace } from '../trace/trace.ts';
import type { Program } from '../language/program.ts';
import type { Mat } from '../yard/mat.ts';
import { checkGoal, goalDraws, goalSchema, goalWords, judge, type Goal } from './goals.ts';
import { num, type Look, type Result } from './goal.ts';
import { countBlocks } from './goals/built.ts';

/** A ring 50 cm ahead of the start of the hall, one to its left, and a wall far off. */
const rings: Mat = {
  ...hall,
  hoops: [
    { x: 2, y: 1.5, radius: 0.06, name: 'ahead' },
    { x: 1.5, y: 2, radius: 0.06, name: 'left' }
  ],
  walls: [{ x: 2.6, y: 1.5, width: 0.1, height: 1, colour: '#333333' }]
};
const went = (text: string, mat = rings, limitS = 20): { trace: Trace; program: Program } => {
  const made = fromText(text, barrow);
  return { trace: run(made, { mat, limitS }), program: made };
};
const told = (text: string) => {
  const made = fromText(text, trowel);
  return { trace: run(made, { kit: trowel, limitS: 20 }), program: made };
};
const look = (seen: { trace: Trace; program?: Program; before?: Trace }, toUs = endUs(seen.trace)): Look => ({
  ...seen,
  mat: rings,
  fromUs: 0,
  toUs
});
const check = (goal: Goal, seen: { trace: Trace; program?: Program; before?: Trace }, toUs?: number): Result =>
  checkGoal(goal, look(seen, toUs));
const drive = (cm: number, ending = 'brake', power = 50): string =>
  `wheels.drive(cm=${cm}, power=${power}, ending="${ending}")`;

describe('to stop in a hoop', () => {
  const goal: Goal = { kind: 'stop', hoop: 'ahead', within: 0 };
  it('is met when it stands in it, with the time when it came to rest', () => {
    const seen = went(`${drive(50)}\nwait(2)`);
    const { state, atUs } = check(goal, seen);
    expect(state).toBe('met');
    // 50 cm at 50 % of 40 cm/s take some 2.5 s and the time to set off and slow down; the wait after it does not count
    expect(atUs! / 1e6).toBeGreaterThan(2.4);
    expect(atUs! / 1e6).toBeLessThan(3.5);
  });
  it.each([
    ['short of it', drive(40), /^Stopped (3\.\d|4) cm short of the hoop ahead, at 2\.\d\d s\.$/, 4],
    ['past it', drive(60), /^Stopped (4|4\.\d|3\.9) cm past the hoop ahead/, 4],
    [
      'beside it',
      `wheels.turn(left=20, power=30, ending="brake")\n${drive(47)}\nwheels.turn(right=20, power=30, ending="brake")`,
      /^Stopped [\d.]+ cm to the left of/,
      10.4
    ]
  ])('is missed %s by so much', (_, text, says, cm) => {
    const result = check(goal, went(text));
    expect(result.state).toBe('missed');
    expect(result.says).toMatch(says);
    expect(Math.abs(result.off!.amount - cm)).toBeLessThan(0.8);
  });
  it('is not met by driving through, nor while it still moves when the run is over', () => {
    expect(check(goal, went(drive(90))).state).toBe('missed');
    expect(check(goal, went('wheels.run(50, 50)\nwait(2.4)', rings, 2.5)).says).toBe(
      'It was still moving when the run ended.'
    );
  });
  it('takes so much beyond its edge as it says, and tells while the run goes on how far it is', () => {
    const seen = went(drive(40));
    expect(check({ ...goal, within: 5 }, seen).state).toBe('met');
    const live = check(goal, seen, 1_000_000);
    expect(live.state).toBe('open');
    expect(Number(/^([\d.]+) cm to go$/.exec(live.says)![1])).toBeGreaterThan(20);
  });
});
it('to pass a hoop is met at the moment it is in it, and tells how near it came otherwise', () => {
  const goal: Goal = { kind: 'pass', hoop: 'ahead', within: 0 };
  const through = check(goal, went(drive(90)));
  expect(through.state).toBe('met');
  const { trace } = went(drive(90));
  const x = sampleAt(channel(trace, 'x')!, through.atUs! / 1000 - 1);
  expect(x).toBeCloseTo(2 - 0.06, 2);
  const missed = check({ ...goal, hoop: 'left' }, went(drive(30)));
  // from the start it is 50 cm to its middle
  expect(missed.off!.amount).toBeCloseTo(44, 0);
  expect(missed.state).toBe('missed');
});
it('to face some way tells which way round it is off, by the heading that blocks say', () => {
  // the hall's start faces 90° on the mat
  const goal: Goal = { kind: 'faces', deg: 90, within: 3 };
  expect(
    check({ kind: 'heading', deg: 180, within: 3 }, went('wheels.turn(right=90, power=30, ending="brake")')).state
  ).toBe('met');
  expect(check(goal, went('wheels.turn(right=90, power=30, ending="brake")')).state).toBe('met');
  const off = check(goal, went('wheels.turn(right=120, power=30, ending="brake")'));
  expect(off.says).toMatch(/^It faces 1(19|20)(\.\d)?° instead of 90°: .* too far clockwise/);
  expect(off.off!.amount).toBeGreaterThan(27);
  expect(check(goal, went('wheels.turn(right=60, power=30, ending="brake")')).says).toMatch(/too far anticlockwise/);
});
it('to end where it began asks for a way in between', () => {
  const goal: Goal = { kind: 'closes', within: 5, way: 60 };
  const back = '\nwheels.back(cm=40, power=50, ending="brake")';
  expect(check(goal, went(drive(40) + back)).state).toBe('met');
  expect(check(goal, went('wait(1)')).says).toBe('It went 0 cm only.');
  expect(check(goal, went(drive(70))).says).toMatch(/^It ended 70(\.\d)? cm away/);
});
it('to touch nothing holds until something is touched', () => {
  const goal: Goal = { kind: 'touch-nothing' };
  const wall = went('wheels.run(80, 80)\nwait(6)');
  expect(check(goal, wall, 1_000_000).state).toBe('holds');
  const touched = check(goal, wall);
  expect(touched.state).toBe('missed');
  expect(touched.at!.x).toBeCloseTo(2.55, 1);
  expect(check(goal, went(drive(30))).state).toBe('met');
});
it('sideways acceleration in a curve is v²/r (circular motion, any handbook of physics)', () => {
  // 100 % is 40 cm/s of the outer wheel: the middle of the axle goes slower by r / (r + half the track)
  const radius = 0.25;
  const v = 0.4 * (radius / (radius + 0.062));
  const g = (v * v) / radius / 9.80665;
  const seen = went(`wheels.curve(right=180, radius_cm=25, power=100, ending="brake")`);
  expect(check({ kind: 'steady', g: g * 1.15 }, seen).state).toBe('met');
  const swayed = check({ kind: 'steady', g: g * 0.85 }, seen);
  expect(swayed.state).toBe('missed');
  expect(swayed.off!.amount).toBeCloseTo(g * 0.15, 2);
  // straight on it is pushed forwards alone
  expect(check({ kind: 'steady', g: 0.01 }, went(drive(60, 'brake', 90))).state).toBe('met');
});
it('to be done in a time counts the last block and the rest', () => {
  const seen = went('wait(3)');
  expect(check({ kind: 'under', s: 3.5 }, seen).state).toBe('met');
  const late = check({ kind: 'under', s: 2 }, seen);
  expect(late).toMatchObject({ state: 'missed', off: { unit: 's' } });
  expect(late.off!.amount).toBeCloseTo(1, 1);
  expect(check({ kind: 'under', s: 2 }, seen, 1_000_000)).toMatchObject({ state: 'open', says: '1 s are left' });
});

const star = '...#... ..###.. .#####. ..###.. ...#...';
const cross = '#.....# .#...#. ..#.#.. .#...#. #.....#';
const show = (picture: string): string => `display.show(Picture("${picture}"))`;
it('a picture must stand there for as long as is asked', () => {
  const goal: Goal = { kind: 'shows', picture: star, seconds: 0.5 };
  expect(check(goal, told(`${show(star)}\nwait(0.5)\n${show(cross)}\nwait(1)`)).state).toBe('met');
  const brief = check(goal, told(`wait(1)\n${show(star)}\nwait(0.3)\n${show(cross)}\nwait(1)`));
  expect(brief.says).toBe('It was shown for 0.3 s at the longest, at 1.00 s.');
  expect(brief.off!.amount).toBeCloseTo(0.2, 3);
  expect(check(goal, told(show(cross))).says).toBe('This picture was not shown.');
});
it('a lamp goes on and off for the times that are asked', () => {
  const goal: Goal = { kind: 'blinks', lamp: 'left', times: [0.5, 0.3, 1], within: 0.05 };
  const blink = (a: number, b: number, c: number) =>
    told(
      `left_lamp.on()\nwait(${a})\nleft_lamp.off()\nwait(${b})\nleft_lamp.on()\nwait(${c})\nleft_lamp.off()\nwait(0.2)`
    );
  expect(check(goal, blink(0.5, 0.3, 1)).state).toBe('met');
  expect(check(goal, blink(0.5, 0.6, 1)).says).toBe('At 0.50 s it was off for 0.6 s instead of 0.3 s.');
  expect(check(goal, blink(0.5, 0.3, 2)).says).toMatch(/it was on for 2 s instead of 1 s/);
  expect(check(goal, told('right_lamp.on()\nwait(1)')).says).toBe('The lamp left was not lit.');
});
it('tones come in turn, a quarter tone give or take; pitches by ISO 16', () => {
  const goal: Goal = { kind: 'plays', notes: 'C4 E4 G4' };
  const tones = (...hertz: number[]) => told(hertz.map((h) => `tone(${h}, 0.2)`).join('\n'));
  // C4, E4, G4 in equal temperament: 261.63, 329.63, 392.00 Hz
  expect(check(goal, tones(440, 261.63, 329.63, 392)).state).toBe('met');
  expect(check(goal, tones(262, 330, 390)).state).toBe('met');
  expect(check(goal, tones(261.63, 349.23, 392)).says).toMatch(/^Tone 2 was 349\.2 Hz instead of 329\.6 Hz \(E4\)/);
  expect(check(goal, tones(261.63)).says).toBe('Tone 2 of 3, E4, did not come.');
  expect(check(goal, told('wait(1)')).says).toBe('No tone was heard.');
});
it('a servo must really get to its angles', () => {
  const goal: Goal = { kind: 'swings', servo: 'J4', angles: [130, 60], within: 3 };
  expect(check(goal, went('striker.angle(130)\nwait(0.5)\nstriker.angle(60)\nwait(0.5)')).state).toBe('met');
  expect(check(goal, went('striker.angle(130)\nstriker.angle(60)\nwait(0.5)')).state).toBe('missed');
  expect(check({ ...goal, servo: 'J9' }, went('wait(0.1)')).says).toBe('There is no servo on J9.');
});
it('what is logged and sent is told with what came last', () => {
  const seen = went('log("seven")\nlog(12)\nsend("come")');
  expect(check({ kind: 'logs', text: '12' }, seen).state).toBe('met');
  expect(check({ kind: 'logs', text: '13' }, seen).says).toBe('It logged "12" last, at 0.00 s.');
  expect(check({ kind: 'sends', message: 'come' }, seen).state).toBe('met');
  expect(check({ kind: 'sends', message: 'Come' }, seen).state).toBe('missed');
});
it('blocks are counted without starters and values; loops, routines and variables are found', () => {
  const seen = went('for _ in range(3):\n    n += 1\n    wait(0.1 + n * 0)');
  expect(countBlocks(seen.program)).toBe(3);
  expect(check({ kind: 'few', most: 3 }, seen).state).toBe('met');
  expect(check({ kind: 'few', most: 2 }, seen)).toMatchObject({ state: 'missed', off: { amount: 1 } });
  expect(check({ kind: 'uses', what: 'loop' }, seen).state).toBe('met');
  expect(check({ kind: 'uses', what: 'variable' }, seen).state).toBe('met');
  expect(check({ kind: 'uses', what: 'routine' }, seen).state).toBe('missed');
  expect(check({ kind: 'few', most: 3 }, { trace: seen.trace }).says).toMatch(/^This is a text/);
});
it('the same as before is told where it parts', () => {
  const before = went(`${drive(20)}\n${drive(20)}`).trace;
  const looped = went(`for _ in range(2):\n    ${drive(20)}`);
  expect(check({ kind: 'same' }, { ...looped, before }).state).toBe('met');
  const other = went(`for _ in range(2):\n    ${drive(25)}`);
  expect(check({ kind: 'same' }, { ...other, before })).toMatchObject({ state: 'missed' });
});

describe('goals of goals', () => {
  const left: Goal = { kind: 'pass', hoop: 'left', within: 0 };
  const ahead: Goal = { kind: 'pass', hoop: 'ahead', within: 0 };
  const way = went(
    `${drive(50)}\nwheels.back(cm=50, power=50, ending="brake")\nwheels.turn(left=90, power=30, ending="brake")\n${drive(50)}`
  );
  it('in an order each is looked for after the one before', () => {
    const first = check({ kind: 'order', goals: [ahead, left] }, way);
    expect(first.state).toBe('met');
    expect(first.atUs).toBe(check(left, way).atUs);
    const other = check({ kind: 'order', goals: [left, ahead] }, way);
    expect(other.state).toBe('missed');
    expect(other.says).toMatch(/^2 of 2, Pass the hoop ahead: It came no nearer/);
    expect(check({ kind: 'all', goals: [left, ahead] }, way).state).toBe('met');
  });
  it('never turns it round', () => {
    expect(check({ kind: 'never', goal: left }, way).state).toBe('missed');
    expect(check({ kind: 'never', goal: left }, way, 1_000_000).state).toBe('holds');
    expect(check({ kind: 'never', goal: left }, went(drive(10))).state).toBe('met');
    expect(goalDraws({ kind: 'never', goal: left }, rings)).toEqual([{ x: 1.5, y: 2, radius: 0.06, door: true }]);
    expect(goalWords({ kind: 'never', goal: left })).toBe('Never: Pass the hoop left');
  });
});
it('the bell rings when all are met: live, as soon as nothing is open; the nearest miss is told', () => {
  const goals: Goal[] = [{ kind: 'pass', hoop: 'ahead', within: 0 }, { kind: 'touch-nothing' }];
  const seen = went('while True:\n    wheels.run(40, 40)\n    wait(0.1)', rings, 4);
  const live = judge(goals, look(seen, 3_000_000));
  expect([live.met, live.results.map((r) => r.state)]).toEqual([true, ['met', 'holds']]);
  expect(judge(goals, look(seen, 1_000_000)).met).toBe(false);
  // what only holds is no deed
  expect(judge([{ kind: 'touch-nothing' }], look(seen, 1_000_000)).met).toBe(false);
  const both = judge(
    [
      { kind: 'stop', hoop: 'ahead', within: 0 },
      { kind: 'faces', deg: 10, within: 5 }
    ],
    look(went(drive(20)))
  );
  // 24 cm of 10 are more than 5 degrees of 30
  expect([both.met, both.nearest]).toEqual([false, 1]);
});
it('a hoop that the mat has not, and fields that are none, are said', () => {
  expect(check({ kind: 'stop', hoop: 'nowhere', within: 0 }, went('wait(0.1)')).says).toBe(
    'The mat has no hoop that is called nowhere.'
  );
  for (const wrong of [
    { kind: 'stop', hoop: 'ahead', within: -1 },
    { kind: 'stop', hoop: 'ahead' },
    { kind: 'shows', picture: 'not a picture!', seconds: 1 },
    { kind: 'blinks', lamp: 'left', times: [], within: 0.1 },
    { kind: 'uses', what: 'magic' },
    { kind: 'order', goals: [] },
    { kind: 'stop', hoop: 'ahead', within: 0, more: 1 }
  ])
    expect(goalSchema.safeParse(wrong).success, JSON.stringify(wrong)).toBe(false);
});
it('a run without a program that moves nothing has rest at once', () => {
  const trace = run(program(start(b('wait.time', { time: 1, unit: 's' }))), { mat: rings });
  expect(check({ kind: 'stop', hoop: 'ahead', within: 60 }, { trace }).atUs).toBe(0);
});
it('a miss is never told as one by 0', () => {
  expect([12.34, 0.06, 0.04, 0.0034, 0.0001, 0, -0.04].map((v) => num(v))).toEqual([
    '12.3',
    '0.1',
    '0.04',
    '0.003',
    '0',
    '0',
    '-0.04'
  ]);
});
