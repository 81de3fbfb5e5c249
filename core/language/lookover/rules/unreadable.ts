import { nameOf, slotsOf, slotSpec, specFor } from '../../catalogue.ts';
import { setSlot } from '../../edit.ts';
import { isStep, liveSteps, type Program, type Step } from '../../program.ts';
import { typedNumber } from '../../values.ts';
import type { Remark, Rule } from '../remark.ts';
import { say, word } from '../../../words.ts';

const NAMES = new Set(['variable', 'list', 'routine', 'input']);
/** bad-number, missing: a slot that cannot be read; the program does not start. */
export const unreadable: Rule = ({ program, kit }) => {
  const remarks: Remark[] = [];
  for (const step of liveSteps(program))
    for (const [name, general] of Object.entries(slotSpecs(step, program))) {
      const spec = specFor(general, kit);
      const slot = step.slots[name];
      if (isStep(slot)) continue;
      if (spec.type === 'number') {
        const n = typeof slot === 'number' ? slot : typedNumber(String(slot ?? ''));
        if (n === undefined)
          remarks.push({
            rule: 'not-a-number',
            severity: 'will not work',
            blocks: [step.id],
            says: say('"{x}" is not a number, so the program cannot start.', { x: String(slot ?? '') }),
            todo: say('Type a number, such as 30 or 0.5, or put a value block there.'),
            mends: [
              {
                label: say('Put {default} there', { default: spec.default }),
                apply: (p, k) => ({ program: setSlot(p, step.id, name, spec.default), kit: k })
              }
            ]
          });
        // pixels have a rule of their own, which knows how they are counted
        else if (spec.pixel && Number.isInteger(n)) continue;
        else if ((spec.min !== undefined && n < spec.min) || (spec.max !== undefined && n > spec.max))
          remarks.push(outOfRange(step, name, n, spec));
        else if (spec.whole && !Number.isInteger(n))
          remarks.push({
            rule: 'not-whole',
            severity: 'will not work',
            blocks: [step.id],
            says: say('{n} is not a whole number, and one is needed here.', { n }),
            todo: say('Type a whole number.'),
            mends: []
          });
      } else if (spec.type === 'condition' && slot === undefined)
        remarks.push({
          rule: 'no-condition',
          severity: 'probably not meant',
          blocks: [step.id],
          says: say('Its condition is empty, and an empty condition is never true.'),
          todo: say('Put a condition into the slot, from Work out or Sense.'),
          mends: []
        });
      else if (spec.type === 'items' && slot === undefined)
        remarks.push({
          rule: 'no-list',
          severity: 'will not work',
          blocks: [step.id],
          says: say('No list stands in its slot: the program will stop here.'),
          todo: say('Put a list there, from Remember.'),
          mends: []
        });
      else if (NAMES.has(spec.type) && nameOf(spec, String(slot), program) === undefined)
        remarks.push({
          rule: 'nameless',
          severity: 'will not work',
          blocks: [step.id],
          says: say('This block names no {type}.', { type: word(spec.type) }),
          todo: say('Choose a {type} in its list, or make one.', { type: word(spec.type) }),
          mends: []
        });
    }
  return remarks;
};
/** Slots where a number that is out of range stops the program; elsewhere the nearest is used. */
const STOPS_BEYOND = new Set(['sound.tone pitch', 'sound.start pitch', 'sound.tempo beats']);
const outOfRange = (step: Step, name: string, n: number, { min, max }: { min?: number; max?: number }): Remark => {
  const stops = STOPS_BEYOND.has(`${step.kind} ${name}`);
  const nearest = n < (min ?? -Infinity) ? min! : max!;
  return {
    rule: 'out-of-range',
    severity: stops ? 'will not work' : 'probably not meant',
    blocks: [step.id],
    says: say('{n} is outside of what is possible here: {x} to {x2}.', {
      n,
      x: min ?? say('anything'),
      x2: max ?? say('anything')
    }),
    todo: stops
      ? say('The program stops here. Type a number between the two.')
      : say('The device will use the nearest it can.'),
    mends: [
      {
        label: say('Put {default} there', { default: nearest }),
        apply: (p, kit) => ({ program: setSlot(p, step.id, name, nearest), kit })
      }
    ]
  };
};
const slotSpecs = (step: Step, program: Program) =>
  Object.fromEntries(slotsOf(step, program).map((n) => [n, slotSpec(step, n, program)!]));
