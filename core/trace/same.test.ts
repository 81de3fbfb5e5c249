import { describe, expect, it } from 'vitest';
import { b, cmp, log, program, run, start, wait } from '../testing/build.ts';
import { fromText } from '../testing/text.ts';
import { written, type Written } from '../testing/trace.ts';
import { sameBehaviour } from './same.ts';
import type { TraceEvent } from './trace.ts';

const both = (before: string, now: string) => sameBehaviour(run(fromText(before)), run(fromText(now)));
const parts = (before: string, now: string): string => {
  const s = both(before, now);
  return s.same ? 'the same' : s.says;
};

describe('two programs do the same', () => {
  it('however they are written: a loop in place of copies, a routine, two drives in one', () => {
    const side = 'wheels.drive(cm=20, power=45, ending="brake")\nwheels.turn(left=90, power=35, ending="brake")';
    expect(parts(`${side}\n${side}`, `for _ in range(2):\n${side.replace(/^/gm, '    ')}`)).toBe('the same');
    expect(
      parts(
        'wheels.run(30, 30)\nwait(1)\nwheels.run(30, 30)\nwait(1)\nwheels.stop("brake")',
        'wheels.run(30, 30)\nwait(2)\nwheels.stop("brake")'
      )
    ).toBe('the same');
  });
  it('by other commands that come to the same way and the same rest', () => {
    const stopsShort = program(
      start(
        b('wheels.run', { left: 30, right: 30 }),
        b('wait.until', { condition: cmp(b('sense.driven'), '>', 20) }),
        b('wheels.stop')
      )
    );
    const again = program(
      start(
        b('wheels.run', { left: 30, right: 30 }),
        b('wait.limit', { condition: cmp(b('sense.driven'), '>', 20), time: 9 }),
        b('wheels.stop')
      )
    );
    expect(sameBehaviour(run(stopsShort), run(again))).toMatchObject({ same: true });
  });
  it('with a picture that is built in another order before anyone sees it', () => {
    const pixels = (order: number[]) =>
      run(program(start(...order.map((x) => b('pixel.set', { x, y: 1, to: 'on' })), wait(1))));
    expect(sameBehaviour(pixels([0, 1, 2]), pixels([2, 0, 1]))).toMatchObject({ same: true });
  });
});
describe('two programs part', () => {
  const drive = (cm: number) => `wheels.drive(cm=${cm}, power=45, ending="brake")`;
  it('where the robot comes to stand elsewhere, beyond the tolerance that is told', () => {
    expect(parts(drive(20), drive(20.6))).toBe('the same');
    expect(parts(drive(20), drive(23))).toMatch(/stands elsewhere: more than 1 cm or 3 ° apart/);
    expect(
      parts('wheels.turn(left=90, power=35, ending="brake")', 'wheels.turn(left=96, power=35, ending="brake")')
    ).toMatch(/elsewhere/);
    const at = both(`${drive(20)}\nwait(1)\n${drive(10)}`, `${drive(20)}\nwait(1)\n${drive(15)}`);
    expect(!at.same && at.atUs).toBeGreaterThan(2.2e6);
  });
  it('in a picture, a lamp, a tone, a servo, a line of the log', () => {
    expect(parts('display.write(1)\nwait(1)', 'display.write(2)\nwait(1)')).toMatch(/^Before: .*; now: /);
    expect(parts('wait(1)', 'left_lamp.on()\nwait(1)')).toMatch(/^Only now: /);
    expect(parts('tone(440, 0.5)', 'tone(494, 0.5)')).toMatch(/440.*494/);
    expect(parts('beep()\nwait(1)', 'wait(1)')).toMatch(/^Not any more: /);
    expect(parts('striker.angle(90)\nwait(1)', 'striker.angle(80)\nwait(1)')).toMatch(/striker has another angle/);
    expect(parts('log(1)\nwait(1)\nlog(2)', 'log(1)\nwait(1.4)\nlog(2)')).toMatch(/came 0\.40 s apart/);
    expect(sameBehaviour(run([log(1)]), run([log(1)]))).toMatchObject({ same: true });
  });
});

describe('runs that are written by hand', () => {
  const of = (more: Partial<Written>) => written({ ms: 2000, ...more });
  const parted = (a: Partial<Written>, c: Partial<Written>) => {
    const s = sameBehaviour(of(a), of(c));
    return s.same ? undefined : s;
  };
  it('stand within 1 cm and 3 °, at about the same time', () => {
    const still = {};
    expect(parted(still, { channels: { x: 0.0099 } })).toBeUndefined();
    expect(parted(still, { channels: { x: 0.0101 } })).toMatchObject({ atUs: 0 });
    expect(parted(still, { channels: { x: 0.0071, y: -0.0071 } })).toBeDefined();
    expect(parted(still, { channels: { facing: 357.1 } })).toBeUndefined();
    expect(parted(still, { channels: { facing: 3.1 } })).toBeDefined();
    expect(parted(still, { channels: { facing: 356.9 } })).toBeDefined();
    const jump = (ms: number) => ({ channels: { x: (t: number) => (t > ms ? 0.5 : 0) } });
    expect(parted(jump(1000), jump(1055))).toBeUndefined();
    expect(parted(jump(1000), jump(945))).toBeUndefined();
    expect(parted(jump(1000), jump(1100))).toMatchObject({ atUs: 1_000_000 });
    // one that goes on after the other's end is held against its rest
    expect(parted({ ms: 500 }, { channels: { x: (t) => (t > 900 ? 0.5 : 0) } })).toMatchObject({
      atUs: expect.any(Number)
    });
    expect(parted({ ms: 500 }, {})).toBeUndefined();
    expect(sameBehaviour(of({ ms: 500 }), of({}))).toEqual({ same: true, seconds: 2 });
    const bare = { ...of({}), channels: [] };
    expect(sameBehaviour(bare, of({ channels: { x: 1 } })).same).toBe(true);
    expect(sameBehaviour(of({ channels: { x: 1 } }), bare).same).toBe(true);
  });
  it('tell the block that ran when they parted', () => {
    expect(
      parted(
        {},
        {
          channels: { y: (t) => (t > 1000 ? 1 : 0) },
          spans: [
            ['a', 0, 900],
            ['c', 900, 1500]
          ]
        }
      )
    ).toMatchObject({ block: 'c' });
  });
  it('show the same where it stood for 30 ms, and are late by no more than 0.05 s and a hundredth', () => {
    const lamp = (ms: number, on: boolean, side = 'left'): TraceEvent => ({
      tUs: ms * 1000,
      type: 'lamp',
      lamp: side as 'left',
      on,
      colour: 'red',
      block: 'l'
    });
    const shown = (...events: TraceEvent[]) => ({ events });
    expect(parted(shown(lamp(0, true)), shown(lamp(0, true), lamp(500, false), lamp(529, true)))).toBeUndefined();
    expect(parted(shown(lamp(0, true)), shown(lamp(0, true), lamp(500, false), lamp(530, true)))).toMatchObject({
      atUs: 500_000,
      says: 'Only now: a lamp goes out',
      block: 'l'
    });
    expect(parted(shown(lamp(0, true)), shown(lamp(0, true, 'right')))?.says).toBe('Not any more: a lamp goes on');
    expect(parted(shown(lamp(1000, true)), shown(lamp(1060, true)))).toBeUndefined();
    expect(parted(shown(lamp(1000, true)), shown(lamp(1061, true)))).toMatchObject({
      atUs: 1_000_000,
      says: 'a lamp goes on came 0.06 s apart'
    });
    // the first moment of all is told
    const both = parted(shown(lamp(1000, true)), { channels: { x: (t) => (t > 300 ? 1 : 0) } });
    expect(both).toMatchObject({ atUs: 360_000 });
  });
});
