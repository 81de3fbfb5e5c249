import { abilities } from '../../../kit/kit.ts';
import { definition } from '../../catalogue.ts';
import { liveSteps } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { later, say, word } from '../../../words.ts';

/** What a kit lacks for a block, by the need that the block names. */
export const MISSING: Readonly<Record<string, string>> = {
  drive: later('driven wheels'),
  wheels: later('driven wheels on its left and on its right'),
  slide: later('wheels that roll to every side'),
  gyro: later('a gyro'),
  nose: later('a bar or rim that feels a touch'),
  rim: later('a rim that feels a touch'),
  edges: later('touch edges'),
  light: later('a light sensor'),
  temperature: later('a temperature sensor'),
  moisture: later('a moisture sensor'),
  motion: later('an accelerometer'),
  lamps: later('lamps'),
  display: later('a display'),
  letters: later('a display with room for letters'),
  levels: later('a display whose lamps have levels'),
  colours: later('a display with colours')
};
/** kit-lacks: the kit has not what a block needs; parts in sockets have a rule of their own. */
export const kitLacks: Rule = ({ program, kit }) => {
  const able = abilities(kit);
  return [...liveSteps(program)].flatMap((step): Remark[] => {
    const missing = (definition(step.kind).needs ?? []).filter((n) => n in MISSING && !able.has(n));
    if (!missing.length) return [];
    return [
      {
        rule: 'kit-lacks',
        severity: 'will not work',
        blocks: [step.id],
        says: say('This block needs {n}, which {name} does not have.', {
          n: missing.map((m) => word(MISSING[m])).join(` ${say('and')} `),
          name: kit.name
        }),
        todo: say('Take it out or switch it off, or choose a device that has it.'),
        mends: []
      }
    ];
  });
};
