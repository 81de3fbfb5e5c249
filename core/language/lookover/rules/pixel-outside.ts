/** pixel-outside: a pixel that the display does not have; columns and rows count from 0. */
import { rasterFor } from '../../../kit/kit.ts';
import { definition } from '../../catalogue.ts';
import { changeStep } from '../../edit.ts';
import { isStep, liveSteps } from '../../program.ts';
import { Ranges } from '../intervals.ts';
import type { Mend, Remark, Rule } from '../remark.ts';
import { literal } from '../walk.ts';
import { say } from '../../../words.ts';

export const pixelOutside: Rule = ({ program, kit }) => {
  const raster = rasterFor(kit);
  if (!raster) return [];
  const ends = { x: raster.columns - 1, y: raster.rows - 1 };
  const ranges = new Ranges(program, kit);
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    if (!Object.values(definition(step.kind).slots).some((s) => s.type === 'number' && s.pixel)) return [];
    const [x, y] = [literal(step, 'x'), literal(step, 'y')];
    const outside = (['x', 'y'] as const).filter((axis) => {
      const [low, high] = ranges.of(step.slots[axis]);
      return Number.isFinite(low) && Number.isFinite(high) && (low < 0 || high > ends[axis]);
    });
    if (!outside.length) return [];
    const mends: Mend[] = [];
    const put = (label: string, slots: Record<string, number>): number =>
      mends.push({
        label,
        apply: (p, k) => ({
          program: changeStep(p, step.id, (s) => ({ ...s, slots: { ...s.slots, ...slots } })),
          kit: k
        })
      });
    const fits = (cx: number, cy: number): boolean => cx >= 0 && cx <= ends.x && cy >= 0 && cy <= ends.y;
    if (x !== undefined && y !== undefined) {
      if (fits(y, x)) put(say('Swap x and y'), { x: y, y: x });
      if (fits(x - 1, y) || fits(x, y - 1) || fits(x - 1, y - 1))
        put(say('Count from 0'), {
          x: outside.includes('x') ? x - 1 : x,
          y: outside.includes('y') ? y - 1 : y
        });
    }
    const [low, high] = ranges.of(step.slots[outside[0]]);
    const moves = isStep(step.slots[outside[0]]);
    const end = ends[outside[0]];
    return [
      {
        rule: 'pixel-outside',
        severity: 'probably not meant',
        blocks: [step.id],
        says: moves
          ? say(
              '{axis} goes from {low} to {high} here, and the display has 0 to {end}: what lies beyond stops the program.',
              {
                axis: outside[0],
                low,
                high,
                end
              }
            )
          : say('{axis} = {low} is beyond the display: {axis} counts from 0 to {end}.', { axis: outside[0], low, end }),
        todo: say('Columns (x) are 0 to {x} from the left, rows (y) 0 to {y} from the top.', ends),
        mends
      }
    ];
  });
};
