import { barrow } from '../kit/kit.ts';
import { lookOver } from './lookover/lookover.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { b, log, program, run, start, sum, variable, wait } from '../testing/build.ts';
import { randomProgram } from '../testing/random.ts';
import { compareRuns } from '../trace/compare.ts';
import { checkProgram } from './check.ts';
import { copySteps } from './edit.ts';
import { allIds, allSteps, type Program, type Step } from './program.ts';
import { compareLists, makeRoutine, putIntoLoop, stretch } from './refactor.ts';

const ids = (steps: Step[]): string[] => steps.map((s) => s.id);
/** Board time may differ by what loops and calls cost; everything else must be the same. */
const still = (a: Program, b_: Program) => {
  const [x, y] = [a, b_].map((p) => run(p, { noise: false, limitS: 8 }));
  return compareRuns(x, y);
};

describe('blocks that repeat', () => {
  it('become a loop of so many turns', () => {
    const side = () => [b('drive.measure', { amount: 20 }), b('turn.angle', { angle: 90, side: 'right' })];
    const p = program(start(...side(), ...side(), ...side(), ...side()));
    const made = putIntoLoop(p, ids(p.stacks[0].steps.slice(1)));
    if (!made.ok) throw new Error(made.why);
    const [, loop] = made.program.stacks[0].steps;
    expect([loop.kind, loop.slots.count, loop.bodies!.do.length]).toEqual(['repeat.times', 4, 2]);
    expect(still(p, made.program)).toMatchObject({ same: true });
  });
  it('count with a variable where one number changes in equal steps, wherever it stands', () => {
    const p = program(
      start(...[3, 5, 7].flatMap((n) => [log(n), b('pixel.set', { x: b('calc.negative', { a: -1 }), y: 0 }), log(n)]))
    );
    const made = putIntoLoop(p, ids(p.stacks[0].steps.slice(1)));
    if (!made.ok) throw new Error(made.why);
    const [, loop] = made.program.stacks[0].steps;
    expect([loop.kind, loop.slots.from, loop.slots.to, loop.slots.step]).toEqual(['repeat.count', 3, 7, 2]);
    expect(made.program.variables.map((v) => v.name)).toContain('n');
    expect(still(p, made.program)).toMatchObject({ same: true });
  });
  it('are put into a loop of one turn where more changes; they are refused where they do not hang together or reach out', () => {
    const p = program(
      start(log(1), log(2), log(4), b('repeat.times', { count: 2 }, { do: [b('sound.beep'), b('repeat.leave')] }))
    );
    const [first, a, , c, loop] = p.stacks[0].steps;
    const why = (chosen: string[]) => {
      const made = putIntoLoop(p, chosen);
      return made.ok ? '' : made.why;
    };
    const once = putIntoLoop(p, ids(p.stacks[0].steps.slice(1, 4)));
    if (!once.ok) throw new Error(once.why);
    expect(once.program.stacks[0].steps[1].slots.count).toBe(1);
    expect(why([a.id, c.id])).toContain('hang together');
    expect(why([first.id, a.id])).toContain('without its starter');
    expect(why(ids(loop.bodies!.do))).toContain('must stay in that loop');
    expect(stretch(p, [])).toBeUndefined();
  });
});

describe('a routine of blocks', () => {
  it('is done everywhere that has the same blocks, with an input where a literal differs', () => {
    const corner = (angle: number) => [b('sound.beep'), b('turn.angle', { angle, side: 'left' })];
    const p = program(start(...corner(90), wait(0.1), ...corner(45), b('sound.beep')));
    const made = makeRoutine(p, ids(p.stacks[0].steps.slice(1, 3)), 'corner');
    if (!made.ok) throw new Error(made.why);
    const routine = made.program.routines.find((r) => r.id === made.made)!;
    expect(routine.inputs!.map((i) => [i.name, i.type])).toEqual([['angle', 'number']]);
    expect(made.program.stacks[0].steps.map((s) => s.kind)).toEqual([
      'begin.start',
      'routine.do',
      'wait.time',
      'routine.do',
      'sound.beep'
    ]);
    expect(still(p, made.program)).toMatchObject({ same: true });
  });
  it('takes nothing out of the routine that it stands in', () => {
    const body = [b('routine.give', { value: 1 })];
    const p = { ...program(start()), routines: [{ id: 'r', name: 'r', x: 0, y: 0, steps: body }] };
    const made = makeRoutine(p, ids(body), 'other');
    expect(made.ok ? '' : made.why).toContain('cannot be moved out of it');
  });
});

describe('random programs', () => {
  /** a stretch of a random list of a random program */
  const chosen = fc.tuple(randomProgram, fc.nat(), fc.nat(), fc.integer({ min: 1, max: 3 }));
  const lists = (p: Program): Step[][] => {
    const found: Step[][] = [];
    const look = (steps: Step[]): void => {
      found.push(steps);
      for (const s of steps) Object.values(s.bodies ?? {}).forEach(look);
    };
    for (const holder of [...p.stacks, ...p.routines]) look(holder.steps);
    return found;
  };
  const check = (p: Program, made: Program): void => {
    expect(checkProgram(made)).toBeUndefined();
    const all = [...allSteps(made)].map((s) => s.id);
    expect(new Set(all).size).toBe(all.length);
    const parting = still(p, made);
    // how far one stack comes before the error of another ends them all depends on the tenth of a millisecond
    const races = !parting.same && [parting.a, parting.b].some((e) => e && 'type' in e && e.type === 'error');
    if (!(races && p.stacks.length > 1)) expect(parting, JSON.stringify(parting)).toMatchObject({ same: true });
  };
  it('do the same after blocks were put into a loop, and after a routine was made of them', () => {
    let loops = 0;
    let routines = 0;
    fc.assert(
      fc.property(chosen, ([p, which, from, length]) => {
        const all = lists(p).filter((l) => l.length > 1);
        if (!all.length) return;
        const list = all[which % all.length];
        const at = from % list.length;
        const steps = list.slice(at, at + length);
        // the same blocks once more below, so that there is something to tidy
        const doubled = { ...p, ...twice(p, list, at, steps) } as Program;
        const again = lists(doubled).find((l) => l.some((s) => s.id === steps[0].id))!;
        const place = again.findIndex((s) => s.id === steps[0].id);
        // what a sensor or the timer reads depends on the tenth of a millisecond
        if (checkProgram(doubled) || [...allSteps(p)].some((s) => s.kind.startsWith('sense.'))) return;
        // so does which of two stacks commands the same motor last
        if (lookOver({ program: doubled, kit: barrow }).some((r) => r.rule === 'two-stacks-one-motor')) return;
        const loop = putIntoLoop(doubled, ids(again.slice(place, place + 2 * steps.length)));
        if (loop.ok) {
          loops++;
          check(doubled, loop.program);
        }
        const routine = makeRoutine(doubled, ids(steps), 'tidy');
        if (routine.ok) {
          routines++;
          check(doubled, routine.program);
        }
      }),
      { numRuns: 1000, seed: 11 }
    );
    expect(loops).toBeGreaterThan(25);
    expect(routines).toBeGreaterThan(25);
  });
});
/** The program with these steps a second time, right below themselves. */
function twice(p: Program, list: Step[], at: number, steps: Step[]): Pick<Program, 'stacks' | 'routines'> {
  const copies = copySteps(steps, allIds(p));
  const put = (all: Step[]): Step[] =>
    (all === list ? [...all.slice(0, at + steps.length), ...copies, ...all.slice(at + steps.length)] : all).map((s) =>
      s.bodies ? { ...s, bodies: Object.fromEntries(Object.entries(s.bodies).map(([k, v]) => [k, put(v)])) } : s
    );
  return {
    stacks: p.stacks.map((s) => ({ ...s, steps: put(s.steps) })),
    routines: p.routines.map((r) => ({ ...r, steps: put(r.steps) }))
  };
}

describe('two lists compared', () => {
  it('are the same, or differ block by block', () => {
    const one = [log(1), wait(1), b('sound.beep')];
    const other = [log(1), wait(2), log(sum(variable('v1'), '+', 1)), b('sound.beep')];
    expect(compareLists(one, copySteps(one, new Set())).every((d) => d.what === 'same')).toBe(true);
    expect(compareLists(one, other).map((d) => d.what)).toEqual(['same', 'changed', 'only in the second', 'same']);
    expect(compareLists(one, []).map((d) => d.what)).toEqual(Array(3).fill('only in the first'));
    // into loops and branches: the loop is the same, one block in it is another
    const loop = (angle: number) => [
      b('repeat.times', { count: 4 }, { do: [b('drive.measure'), b('turn.angle', { angle })] })
    ];
    expect(compareLists(loop(90), loop(72)).map((d) => [d.what, d.depth])).toEqual([
      ['same', 0],
      ['same', 1],
      ['changed', 1]
    ]);
  });
});
