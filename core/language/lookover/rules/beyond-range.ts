/** beyond-range: what a block is given can lie far outside of what it takes, such as a stick that drives a servo's sweep. */
import { definition, slotsOf, slotSpec, specFor, newStep } from '../../catalogue.ts';
import { setSlot } from '../../edit.ts';
import { allIds, freshId, isStep, liveSteps, walkSteps, type Step } from '../../program.ts';
import { isKnown, Ranges } from '../intervals.ts';
import { readsSensor, valueDef } from '../../facts.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** Blocks whose limits are a machine's reach, where the nearest possible is used instead. */
const REACH = /^(servo|wheels|motor|lamp|pixel\.level|drive|turn|curve|slide|sound\.volume)/;
/** So much of what comes in may lie outside before it is worth a word. */
const SHARE = 0.1;
/** What comes from a person or the world, and not from how far the device itself has got. */
function comesIn(step: Step): boolean {
  const def = valueDef(step);
  return !!def && (!!def.outside || readsSensor(step)) && !def.counts;
}

export const beyondRange: Rule = ({ program, kit }) => {
  const ranges = new Ranges(program, kit);
  const remarks: Remark[] = [];
  for (const step of liveSteps(program)) {
    if (!REACH.test(step.kind) || definition(step.kind).shape === 'value') continue;
    for (const name of slotsOf(step, program)) {
      const own = slotSpec(step, name, program);
      const spec = own && specFor(own, kit);
      const slot = step.slots[name];
      if (spec?.type !== 'number' || spec.min === undefined || spec.max === undefined || !isStep(slot)) continue;
      // only what a person or the world decides: a program's own numbers are its own affair
      if (![...walkSteps([slot])].some(comesIn)) continue;
      const [low, high] = ranges.of(slot);
      const [min, max] = [spec.min, spec.max];
      if (!isKnown([low, high]) || high <= low) continue;
      const outside = Math.max(0, Math.min(high, min) - low) + Math.max(0, high - Math.max(low, max));
      const share = Math.min(1, outside / (high - low));
      if (share <= SHARE) continue;
      const unit = spec.unit ?? '';
      remarks.push({
        rule: 'beyond-range',
        severity: 'probably not meant',
        blocks: [step.id],
        says: say(
          'What comes in here lies from {low} to {high}, and the block takes {min} to {max} {unit}: {share} % of the way does nothing.',
          { low, high, min, max, unit, share: Math.round(share * 100) }
        ),
        todo: say('Let map carry the one range over to the other.'),
        mends: [
          {
            label: say('Map {low} … {high} to {min} … {max}', { low, high, min, max }),
            apply: (p, k) => {
              const map = newStep('calc.map', freshId(allIds(p)), p);
              map.slots = { ...map.slots, value: slot, a: low, b: high, c: min, d: max };
              return { program: setSlot(p, step.id, name, map), kit: k };
            }
          }
        ]
      });
    }
  }
  return remarks;
};
