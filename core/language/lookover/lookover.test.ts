import { describe, expect, it } from 'vitest';
import { barrow, type Kit } from '../../kit/kit.ts';
import { b, log, program, run, start, wait } from '../../testing/build.ts';
import type { Program, Step } from '../program.ts';
import { lookOver } from './lookover.ts';
import { stopsStart } from './remark.ts';

const rules = (p: Program, kit: Kit = barrow): string[] => lookOver({ program: p, kit }).map((r) => r.rule);
const of = (...steps: Step[]): string[] => rules(program(start(...steps)));
/** Applies the n-th mend of the first remark of a rule. */
function mended(p: Program, rule: string, n = 0, kit: Kit = barrow): { program: Program; kit: Kit } {
  const remark = lookOver({ program: p, kit }).find((r) => r.rule === rule)!;
  return remark.mends[n].apply(p, kit);
}

describe('the look-over', () => {
  it('finds nothing to remark in a good program', () => {
    expect(of(b('wheels.run'), wait(1), b('wheels.stop'), b('picture.show'), wait(1), b('display.dark'))).toEqual([]);
  });

  it('names an empty socket and the part that is really there, and both mends work', () => {
    const p = program(start(b('servo.angle', { servo: 'J6', angle: 10 }), wait(1)));
    const [remark] = lookOver({ program: p, kit: barrow });
    expect(remark).toMatchObject({
      rule: 'socket-empty',
      severity: 'will not work',
      says: expect.stringContaining('J6, and nothing is plugged in there'),
      todo: expect.stringContaining('Your striker sits in J4')
    });
    const block = mended(p, 'socket-empty', 0);
    expect(block.program.stacks[0].steps[1].slots.servo).toBe('J4');
    const kit = mended(p, 'socket-empty', 1);
    expect(kit.kit.parts.find((part) => part.name === 'striker')!.socket).toBe('J6');
    for (const m of [block, kit]) {
      expect(rules(m.program, m.kit)).toEqual([]);
      expect(run(m.program, { kit: m.kit, limitS: 2 }).ended).toBe('done');
    }
    expect(run(p, { limitS: 2 }).ended).toBe('error');
  });
  it('offers a mend of several blocks for all of them at once', () => {
    const p = program(start(...[10, 20, 30].flatMap((angle) => [b('servo.angle', { servo: 'J6', angle }), wait(1)])));
    const [first] = lookOver({ program: p, kit: barrow }).filter((r) => r.rule === 'socket-empty');
    const all = first.mends.filter((m) => m.label.includes('all 3 of them'));
    expect(all.length).toBeGreaterThan(1);
    for (const mend of all) {
      const { program: now, kit } = mend.apply(p, barrow);
      expect(rules(now, kit), mend.label).not.toContain('socket-empty');
    }
  });
  it('names the part that sits where another was meant', () => {
    expect(of(b('motor.run', { motor: 'J4', power: 0 }))).toContain('socket-wrong-part');
  });

  it('sees a motor that is started and never stopped; its mend stops it', () => {
    const p = program(start(b('wheels.run')));
    expect(rules(p)).toEqual(['never-stopped']);
    const { program: m } = mended(p, 'never-stopped');
    expect(rules(m)).toEqual([]);
    expect(run(m).ended).toBe('done');
    expect(of(b('wheels.run', { left: 30, right: 30 }), wait(1), b('wheels.run', { left: 0, right: 0 }))).toEqual([]);
    expect(of(b('repeat.ever', {}, { do: [b('wheels.run'), wait(1)] }))).toEqual([]);
    expect(of(b('motor.run', { motor: 'J1' }), wait(1), b('motor.stop', { motor: 'J2' }))).toEqual(['never-stopped']);
  });
  it('sees a picture that nobody sees; its mend puts a wait between', () => {
    const p = program(start(b('picture.show'), log('x'), b('picture.show')));
    expect(rules(p)).toEqual(['shown-for-no-time']);
    expect(rules(mended(p, 'shown-for-no-time').program)).toEqual([]);
    expect(of(b('picture.show'), wait(0), b('picture.show'))).toEqual(['shown-for-no-time']);
    expect(of(b('picture.show'), b('drive.measure'), b('picture.show'))).toEqual([]);
  });
  it('sees a stop that follows a start at once', () => {
    const p = program(start(b('wheels.run'), b('wheels.stop')));
    expect(rules(p)).toEqual(['stop-at-once']);
    expect(rules(mended(p, 'stop-at-once').program)).toEqual([]);
    expect(of(b('wheels.run'), wait(1), b('wheels.stop'))).toEqual([]);
  });
  it('sees blocks that are not joined, and joins or parks them', () => {
    const p = program(start(log('x')), [log('lost'), wait(1)]);
    expect(rules(p)).toEqual(['not-joined']);
    expect(rules(mended(p, 'not-joined', 0).program)).toEqual([]);
    expect(rules(mended(p, 'not-joined', 1).program)).toEqual([]);
    expect(rules({ ...program(start(log('x'))), loose: [{ x: 0, y: 0, value: b('sense.nose') }] })).toEqual([
      'not-joined'
    ]);
  });
  it('sees empty loops and starters', () => {
    expect(of(b('repeat.times'))).toEqual(['empty-loop']);
    expect(of(b('repeat.times', {}, { do: [{ ...log('x'), off: true }] }))).toEqual(['empty-loop']);
    expect(rules(program(start(log('x')), [b('begin.button')]))).toEqual(['empty-starter']);
    expect(rules(program([log('x')]))).toContain('no-starter');
  });
  it('sees that one of the two motors is mounted mirrored; its mend drives straight', () => {
    const p = program(
      start(
        b('motor.run', { motor: 'J1', power: 40 }),
        b('motor.run', { motor: 'J2', power: 40 }),
        wait(1),
        b('wheels.stop')
      )
    );
    expect(rules(p)).toEqual(['mirrored-motor']);
    const spins = run(p);
    const straight = run(mended(p, 'mirrored-motor').program);
    const moved = (t: typeof spins) => Math.abs(t.channels.find((c) => c.key === 'x')!.high.at(-1)! * 1e-6 - 1.5);
    expect(moved(spins)).toBeLessThan(0.02);
    expect(moved(straight)).toBeGreaterThan(0.1);
    const same: Kit = {
      ...barrow,
      parts: barrow.parts.map((x) => (x.socket === 'J1' ? { ...x, mounted: 'normal' } : x))
    };
    expect(rules(p, same)).toEqual([]);
  });
  it('keeps a program from starting whose number is letters, and says which', () => {
    const p = program(start(b('drive.measure', { amount: 'lots' })));
    const [remark] = lookOver({ program: p, kit: barrow });
    expect(stopsStart(remark)).toBe(true);
    expect(remark).toMatchObject({
      rule: 'not-a-number',
      says: '"lots" is not a number, so the program cannot start.'
    });
    expect(rules(mended(p, 'not-a-number').program)).toEqual([]);
    expect(of(b('drive.measure', { power: 150 }))).toEqual(['out-of-range']);
    expect(of(b('repeat.times', { count: 2.5 }, { do: [log('x')] }))).toEqual(['not-whole']);
    expect(of(b('wait.until'))).toEqual(['no-condition']);
    expect(of(b('routine.do'))).toEqual(['nameless']);
  });
  it('sees blocks in places where they cannot work, and keeps the program from starting', () => {
    const leave = b('repeat.leave');
    expect(of(leave)).toEqual(['no-loop']);
    expect(of(b('choose.if', { if1: b('sense.nose') }, { then1: [b('repeat.next')] }))).toContain('no-loop');
    expect(
      of(
        b(
          'repeat.ever',
          {},
          { do: [wait(1), b('choose.if', { if1: b('sense.nose') }, { then1: [b('repeat.leave')] })] }
        )
      )
    ).toEqual([]);
    const input = b('routine.input', { input: 'in1' });
    const p = {
      ...program(start(log(input))),
      routines: [
        {
          id: 'r1',
          name: 'r',
          inputs: [{ id: 'in1', name: 'n', type: 'number' as const }],
          x: 0,
          y: 0,
          steps: [log(b('routine.input', { input: 'in1' }))]
        }
      ]
    };
    const elsewhere = lookOver({ program: p, kit: barrow }).filter((r) => r.rule === 'input-elsewhere');
    expect(elsewhere.map((r) => r.blocks)).toEqual([[input.id]]);
    const trigger = {
      ...p,
      stacks: program([b('begin.when', { condition: b('routine.value', { routine: 'r1', 'in:in1': 1 }) }), log(1)])
        .stacks
    };
    const [remark] = lookOver({ program: trigger, kit: barrow });
    expect(remark.rule).toBe('slow-trigger');
    expect(stopsStart(remark)).toBe(true);
  });
  it('names what the kit lacks for a block that came from elsewhere', () => {
    const [remark] = lookOver({ program: program(start(log(b('sense.moisture')))), kit: barrow });
    expect(remark).toMatchObject({
      rule: 'kit-lacks',
      says: 'This block needs a moisture sensor, which Barrow does not have.'
    });
    expect(of({ ...log(b('sense.moisture')), off: true }, log(1))).toEqual([]);
  });
  it('sees what stands below a loop for ever that nothing leaves', () => {
    expect(of(b('repeat.ever', {}, { do: [wait(1)] }), log(1))).toEqual(['after-for-ever']);
    const leave = b('choose.if', { if1: b('sense.nose') }, { then1: [b('repeat.leave')] });
    expect(of(b('repeat.ever', {}, { do: [wait(1), leave] }), log(1))).toEqual([]);
    const inner = b('repeat.times', {}, { do: [wait(1), b('repeat.leave')] });
    expect(of(b('repeat.ever', {}, { do: [inner] }), log(1))).toEqual(['after-for-ever']);
  });
});

describe('remarks that keep a program from starting', () => {
  it('are those of what has no meaning at all', () => {
    const stops = (rule: string) =>
      stopsStart({ rule, severity: 'will not work', blocks: [], says: '', todo: '', mends: [] });
    for (const rule of ['not-a-number', 'not-whole', 'nameless', 'no-loop', 'input-elsewhere', 'slow-trigger'])
      expect(stops(rule), rule).toBe(true);
    for (const rule of ['no-starter', 'kit-lacks', 'blind-wait']) expect(stops(rule), rule).toBe(false);
  });
});
