import { describe, expect, it } from 'vitest';
import { barrow } from '../kit/kit.ts';
import { newProject } from '../project.ts';
import { fromText } from '../testing/text.ts';
import { longAisle } from '../yard/mats.ts';
import { errandFrom, newMaking } from './making.ts';
import { candidates, proposals, situationOf } from './otherwise.ts';
import { holes, tried, unsound } from './proof.ts';

const aisle = {
  ...longAisle,
  walls: [...longAisle.walls.slice(0, 2), { x: 1.32, y: 0.3, width: 0.06, height: 0.3, colour: '#8a6f4d' }]
};
const world = { kit: barrow, mat: aisle };
const model = fromText('wheels.run(30, 30)\nwhile not distance.cm() < 15:\n    wait(0.02)\nwheels.stop("brake")');
const blind = fromText('wheels.drive(cm=80, power=40, ending="brake")');
const making = {
  ...newMaking(newProject('Short', barrow, aisle)),
  rows: [{ goal: { kind: 'stop', hoop: '80 cm', within: 0 }, how: 'by itself' as const }]
};
const made = (situations: typeof making.situations = []) => {
  const read = errandFrom({ ...making, situations }, { id: 'short', kit: barrow, model, offers: [], verdicts: [] });
  if (!read.ok) throw new Error(read.problem);
  return read.errand;
};

describe('other situations of an errand that is made', () => {
  it('put the start, a box and the light elsewhere as the robot looks, and leave the rest', () => {
    const start = { x: 1, y: 0.5, facingDeg: 90 };
    const at = (ahead: number, left: number, turnDeg: number) =>
      situationOf({ says: 'x', start: { ahead, left, turnDeg } }, { ...world, start });
    // it looks to the right of the mat: ahead is to the right, left is up
    expect(at(0.05, 0, 0)).toEqual({ says: 'x', start: { x: 1.05, y: 0.5, facingDeg: 90 } });
    expect(at(0, 0.05, 10).start).toEqual({ x: 1, y: 0.55, facingDeg: 100 });
    const moved = situationOf({ says: 'x', moved: { list: 'walls', at: 2, dx: -0.1, dy: 0 }, daylight: 0 }, world);
    expect(moved.mat).toEqual({
      ...aisle,
      walls: [...aisle.walls.slice(0, 2), { ...aisle.walls[2], x: 1.22 }],
      daylight: 0
    });
  });
  it('are of what stands before the robot, its start, and what its sensors read', () => {
    const says = candidates(world, model).map((c) => c.says);
    expect(says.slice(0, 2)).toEqual([
      // 20 cm further away it would stand beyond the mat
      'the box ahead stands 20 cm nearer',
      'it starts 15 cm further back'
    ]);
    expect(says.some((s) => /darker|colder/.test(s))).toBe(false);
    const light = fromText('log(light())');
    expect(candidates(world, light).some((c) => c.says === 'it is darker')).toBe(true);
  });
  it('speak of the nearest box where there are two, so that no two sound alike', () => {
    const two = { ...aisle, walls: [...aisle.walls, { x: 1, y: 0.4, width: 0.05, height: 0.05, colour: '#8a6f4d' }] };
    const all = candidates({ ...world, mat: two }, model);
    expect(new Set(all.map((c) => c.says)).size).toBe(all.length);
    expect(all[0]).toMatchObject({ says: 'the box ahead stands 20 cm nearer', moved: { list: 'walls', at: 3 } });
  });
  it('are proposed where the model meets its goals and what looks at nothing does not; the hoop goes with the box', () => {
    const errand = made();
    // with one situation alone, eighty centimetres are as good as a look, and a clock too
    expect([tried(errand, model).met, tried(errand, blind).met]).toEqual([true, true]);
    // no small changes here: what they come to is asked of every errand that ships
    const { open } = holes(errand, [], 1e6);
    expect(open.map((o) => o.says)).toContain('by the clock, as in the first situation, and no sensor asked');
    const [best, ...others] = proposals(errand, [blind]);
    expect([best.says, best.catches]).toEqual(['the box ahead stands 20 cm nearer', 1]);
    expect(best.hoops!['80 cm'][0]).toBeCloseTo(-0.2, 1);
    // elsewhere it starts nearer to the same box: whoever looks stops there, and not whoever counts
    expect(others.map((o) => o.says)).toContain('it starts 15 cm further ahead');
    const { catches: _, ...one } = best;
    const better = made([one]);
    expect(unsound(better)).toEqual([]);
    expect([tried(better, model).met, tried(better, blind).met]).toEqual([true, false]);
    expect(holes(better, [], 1e6).open.some((o) => o.says.startsWith('by the clock'))).toBe(false);
  });
});
