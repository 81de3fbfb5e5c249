/** Goals that wait, follow and stay, each just inside and just outside its edge; what may be met by none of the cheats. */
import { describe, expect, it } from 'vitest';
import { barrow, trowel } from '../kit/kit.ts';
import { fromText } from '../testing/text.ts';
import { hall, run } from '../testing/build.ts';
import type { Program } from '../language/program.ts';
import type { TimedInput, Trace } from '../trace/trace.ts';
import { endUs } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';
import { checkGoal, goalSchema, type Goal } from './goals.ts';
import type { Result } from './goal.ts';

type Went = { trace: Trace; program: Program };
const hand = (text: string, inputs: TimedInput[] = [], limitS = 12): Went => {
  const program = fromText(text, trowel);
  return { program, trace: run(program, { kit: trowel, limitS, inputs }) };
};
const rolls = (text: string, mat: Mat = hall, limitS = 20): Went => {
  const program = fromText(text, barrow);
  return { program, trace: run(program, { mat, limitS }) };
};
const check = (goal: Goal, { trace, program }: Went, mat: Mat = hall, toUs = endUs(trace)): Result =>
  checkGoal(goal, { trace, program, mat, fromUs: 0, toUs });
const state = (goal: Goal, went: Went, mat?: Mat): string => check(goal, went, mat).state;
const light = (...at: [number, number][]): TimedInput[] =>
  at.map(([t, is]) => ({ tUs: t * 1e6, input: { around: { light: is } } }));
const press = (...at: number[]): TimedInput[] =>
  at.flatMap((t): TimedInput[] => [
    { tUs: t * 1e6, input: { press: 'Dot' } },
    { tUs: (t + 0.1) * 1e6, input: { release: 'Dot' } }
  ]);

const rests = (angle: number, seconds: number): Goal => ({ kind: 'rests', servo: 'J1', angle, within: 4, seconds });
const comes = (is: 'above' | 'below', value = 60): Goal => ({ kind: 'reads', sensor: 'light', is, value });

describe('each time that ... within ... s', () => {
  const opens: Goal = { kind: 'each', when: comes('above'), within: 1, goal: rests(90, 0.3) };
  const vent = (test: string): string =>
    `while True:\n    if ${test}:\n        vent.angle(90)\n    else:\n        vent.angle(0)\n    wait(0.1)`;
  const sun = light([0, 20], [2, 85], [5, 30], [8, 90]);
  it('is met by what follows each time, not by what is turned round, comes once, or too late', () => {
    expect(state(opens, hand(vent('light() > 60'), sun))).toBe('met');
    expect(state(opens, hand(vent('light() < 60'), sun))).toBe('missed');
    const once = 'while not (light() > 60):\n    wait(0.02)\nvent.angle(90)\nwait(1)\nvent.angle(0)\nwait(9)';
    const missed = check(opens, hand(once, sun));
    expect(missed.state).toBe('missed');
    expect(missed.says).toMatch(/^Light comes above 60, at 8\.0\d s: /);
    // 0.5 s later it is there in time, 1.5 s later it is not
    const late = (s: number): string =>
      `vent.angle(0)\nwhile not (light() > 60):\n    wait(0.02)\nwait(${s})\nvent.angle(90)\nwait(2)`;
    const noon = light([0, 20], [2, 85]);
    expect(state(opens, hand(late(0.3), noon))).toBe('met');
    expect(state(opens, hand(late(1.2), noon))).toBe('missed');
  });
  it('is missed where it never came to be, and not by a run that was cut off before the time was over', () => {
    expect(state(opens, hand(vent('light() > 60'), light([0, 20])))).toBe('missed');
    expect(state(opens, hand(vent('light() > 60'), light([0, 20], [2, 85], [5, 20], [11.95, 85])))).toBe('met');
  });
  it('holds while it goes on', () => {
    const went = hand(vent('light() > 60'), sun);
    expect(check(opens, went, hall, 4e6).state).toBe('holds');
    expect(check(opens, went, hall, 2.2e6).state).toBe('open');
  });
});
describe('what stays so from one moment to another', () => {
  const open: Goal = {
    kind: 'stays',
    goal: rests(90, 1),
    from: { kind: 'order', goals: [comes('above'), rests(90, 0.1)] },
    to: comes('below')
  };
  const sun = light([0, 20], [2, 85], [6, 30]);
  it('is broken by a moment', () => {
    const until = 'while not (light() > 60):\n    wait(0.02)\nvent.angle(90)\n';
    expect(state(open, hand(`${until}while not (light() < 60):\n    wait(0.02)\nvent.angle(0)\nwait(1)`, sun))).toBe(
      'met'
    );
    const broken = check(open, hand(`${until}wait(1)\nvent.angle(80)\nwait(0.3)\nvent.angle(90)\nwait(5)`, sun));
    expect(broken.state).toBe('missed');
    expect(broken.says).toMatch(/^At 3\.\d+ s it was not so any more\.$/);
  });
  it('takes only what can stay so', () => {
    expect(goalSchema.safeParse(open).success).toBe(true);
    expect(goalSchema.safeParse({ ...open, goal: { kind: 'touch-nothing' } }).success).toBe(false);
  });
});
describe('what comes after an event', () => {
  const five = '..###.. ..#.... ..###.. ....#.. ..###..';
  const shows: Goal = { kind: 'shows', picture: five, seconds: 0.5 };
  const counted: Goal = { kind: 'order', goals: [{ kind: 'pressed', button: 'Dot', times: 2 }, shows] };
  it('is not met by what was there before it', () => {
    const show = `display.show(Picture("${five}"))`;
    const drips = press(1, 2);
    expect(state(counted, hand(`wait(2.2)\n${show}\nwait(1)`, drips))).toBe('met');
    expect(state(counted, hand(`wait(1.9)\n${show}\nwait(2)`, drips))).toBe('missed');
    expect(state(counted, hand(`wait(2.2)\n${show}\nwait(1)`, press(1)))).toBe('missed');
  });
  it('a lamp that is on for ever is not on for half a second, live too', () => {
    const blinks: Goal = { kind: 'blinks', lamp: 'left', times: [0.5], within: 0.1 };
    const on = hand('left_lamp.on()\nwait(0.5)');
    expect(check(blinks, on)).toMatchObject({
      state: 'missed',
      says: 'At 0.00 s it came on, and nothing put it out.'
    });
    expect(state(blinks, hand('left_lamp.on()\nwait(0.5)\nleft_lamp.off()\nwait(0.1)'))).toBe('met');
    expect(check(blinks, hand('left_lamp.on()\nwait(3)'), hall, 0.5e6).state).toBe('open');
  });
  it('a lamp stays lit or dark for so long', () => {
    const lit = (is: 'on' | 'off', seconds: number): Goal => ({ kind: 'lit', lamp: 'left', is, seconds });
    const went = hand('wait(0.4)\nleft_lamp.on()\nwait(1)\nleft_lamp.off()\nwait(0.2)');
    expect([state(lit('on', 0.99), went), state(lit('on', 1.05), went)]).toEqual(['met', 'missed']);
    const upTo = (s: number): string => check(lit('off', s), went, hall, 1.4e6).state;
    expect([upTo(0.39), upTo(0.45)]).toEqual(['met', 'open']);
  });
});
it('the very same once more is another one', () => {
  const twice = (goal: Goal): Goal => ({ kind: 'order', goals: [goal, goal] });
  const mat: Mat = { ...hall, hoops: [{ x: 1.9, y: 1.5, radius: 0.06, name: 'ahead' }] };
  const pass: Goal = { kind: 'pass', hoop: 'ahead', within: 0 };
  const there = rolls('wheels.drive(cm=42, power=50, ending="brake")', mat);
  expect([state(pass, there, mat), state(twice(pass), there, mat)]).toEqual(['met', 'missed']);
  const back = rolls(
    'wheels.drive(cm=42, power=50, ending="brake")\nwheels.back(cm=30, power=50, ending="brake")\nwheels.drive(cm=30, power=50, ending="brake")',
    mat
  );
  expect(state(twice(pass), back, mat)).toBe('met');
  for (const goal of [
    { kind: 'logs', text: 'x' },
    { kind: 'sends', message: 'm' }
  ]) {
    const say = goal.kind === 'logs' ? 'log("x")' : 'send("m")';
    expect(state(twice(goal), hand(say))).toBe('missed');
    expect(state(twice(goal), hand(`${say}\nwait(0.1)\n${say}`))).toBe('met');
  }
});
it('a servo that passes through an angle was not there', () => {
  const goal: Goal = { kind: 'swings', servo: 'J4', angles: [90], within: 5 };
  expect(state(goal, rolls('striker.angle(30)\nwait(1)\nstriker.angle(150)\nwait(1)'))).toBe('missed');
  expect(
    state(goal, rolls('striker.angle(30)\nwait(1)\nstriker.angle(90)\nwait(0.5)\nstriker.angle(150)\nwait(1)'))
  ).toBe('met');
});
it.each([
  ['5', true],
  ['n = 5', true],
  ['5 drips', true],
  ['15', false],
  ['5.2', false],
  ['-5', false],
  ['52', false]
])('a line "%s" has the text 5 by itself: %s', (line, has) => {
  expect(state({ kind: 'logs', text: '5' }, hand(`log("${line}")`))).toBe(has ? 'met' : 'missed');
});
describe('what it is built of counts where it ran', () => {
  const uses = (what: string): Goal => ({ kind: 'uses', what });
  it.each([
    ['a loop that came round', 'for _ in range(2):\n    wait(0.1)', 'loop', 'met'],
    ['a loop of one turn', 'for _ in range(1):\n    wait(0.1)', 'loop', 'missed'],
    [
      'a loop that is never come to',
      'if 1 == 2:\n    for _ in range(3):\n        wait(0.1)\nwait(0.1)',
      'loop',
      'missed'
    ],
    ['a variable that is read', 'n = 5\nlog(n)', 'variable', 'met'],
    ['a variable that nobody reads', 'n = 5\nlog(5)', 'variable', 'missed']
  ])('%s', (_, text, what, is) => {
    expect(state(uses(what), hand(text))).toBe(is);
  });
  it('a sensor by which something is decided, through a variable too', () => {
    const used: Goal = { kind: 'used', sensor: 'sense.light' };
    expect(state(used, hand('if light() > 50:\n    beep()'))).toBe('met');
    expect(state(used, hand('n = light()\nif n > 50:\n    beep()'))).toBe('met');
    expect(state(used, hand('vent.angle(light())\nwait(1)'))).toBe('met');
    expect(check(used, hand('log(light())')).says).toBe('It was read, and nothing was decided by it.');
    expect(check(used, hand('if 1 == 2:\n    if light() > 50:\n        beep()')).says).toBe(
      'It was read, and nothing was decided by it.'
    );
    expect(check(used, hand('beep()')).says).toBe('It was not asked in this run.');
  });
});
