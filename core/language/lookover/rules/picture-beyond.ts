/** picture-beyond: a painted picture is larger than the display that it is for: what lies beyond is not seen. */
import { rasterFor } from '../../../kit/kit.ts';
import { setSlot } from '../../edit.ts';
import { resized, sizeOf } from '../../pixels.ts';
import { isPicture, liveSteps } from '../../program.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const pictureBeyond: Rule = ({ program, kit }) => {
  const raster = rasterFor(kit);
  if (!raster) return [];
  return [...liveSteps(program)].flatMap((step) =>
    Object.entries(step.slots).flatMap(([name, slot]): Remark[] => {
      if (!isPicture(slot)) return [];
      const { columns, rows } = sizeOf(slot.picture);
      if (columns <= raster.columns && rows <= raster.rows) return [];
      const size = { columns: raster.columns, rows: raster.rows };
      return [
        {
          rule: 'picture-beyond',
          severity: 'probably not meant',
          blocks: [step.id],
          says: say(
            'This picture has {w} columns and {h} rows, and the display {columns} and {rows}: the rest is not seen.',
            {
              w: columns,
              h: rows,
              ...size
            }
          ),
          todo: say('Paint it as large as the display is.'),
          mends: [
            {
              label: say('Make it {columns} by {rows}', size),
              apply: (p, k) => ({
                program: setSlot(p, step.id, name, { picture: resized(slot.picture, raster) }),
                kit: k
              })
            }
          ]
        }
      ];
    })
  );
};
