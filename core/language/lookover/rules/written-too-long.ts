/** written-too-long: more is written so that it stands still than fits on the display: the rest is not seen. */
import { fitting } from '../../../kit/display.ts';
import { rasterFor } from '../../../kit/kit.ts';
import { setSlot } from '../../edit.ts';
import { liveSteps } from '../../program.ts';
import { show } from '../../values.ts';
import { say } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';

export const writtenTooLong: Rule = ({ program, kit }) => {
  const raster = rasterFor(kit);
  if (!raster) return [];
  const fits = fitting(raster);
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    const { what: value, how } = step.slots;
    if (step.kind !== 'display.write' || how === 'passing' || (typeof value !== 'string' && typeof value !== 'number'))
      return [];
    const text = [...show(value)];
    if (text.length <= fits) return [];
    return [
      {
        rule: 'written-too-long',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say('{n} characters fit side by side: of "{text}" the display shows "{shown}".', {
          n: fits,
          text: text.join(''),
          shown: text.slice(0, fits).join('').toUpperCase()
        }),
        todo: say('Let it pass by, or make it shorter.'),
        mends: [
          {
            label: say('Let it pass by'),
            apply: (p, k) => ({ program: setSlot(p, step.id, 'how', 'passing'), kit: k })
          }
        ]
      }
    ];
  });
};
