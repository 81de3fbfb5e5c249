/** other-lamp: one lamp is switched on and never off, another is switched off and was never on: they are mixed up. */
import { liveSteps, type Step } from '../../program.ts';
import { say, word } from '../../../words.ts';
import type { Remark, Rule } from '../remark.ts';
import { setSlot } from '../../edit.ts';

const LIGHTS = new Set(['lamp.set', 'lamp.level', 'lamp.colour']);

export const otherLamp: Rule = ({ program }) => {
  const on = new Map<string, Step>();
  const off = new Map<string, Step>();
  for (const step of liveSteps(program)) {
    if (!LIGHTS.has(step.kind)) continue;
    const lamp = String(step.slots.lamp);
    const to = step.kind === 'lamp.set' ? String(step.slots.to) : 'on';
    if (to !== 'off' && !on.has(lamp)) on.set(lamp, step);
    if (to !== 'on' && step.kind === 'lamp.set' && !off.has(lamp)) off.set(lamp, step);
  }
  const stays = [...on].filter(([lamp]) => !off.has(lamp));
  const dark = [...off].filter(([lamp]) => !on.has(lamp));
  if (stays.length !== 1 || dark.length !== 1) return [];
  const [[lit, first], [never, second]] = [stays[0], dark[0]];
  return [
    {
      rule: 'other-lamp',
      severity: 'probably not meant',
      blocks: [second.id, first.id],
      says: say('Lamp {lit} is switched on and never off; lamp {never} is switched off and was never on.', {
        lit: word(lit),
        never: word(never)
      }),
      todo: say('Switch off the one that was on.'),
      mends: [
        {
          label: say('Switch off lamp {lit} instead', { lit: word(lit) }),
          apply: (p, kit) => ({ program: setSlot(p, second.id, 'lamp', lit), kit })
        }
      ]
    } satisfies Remark
  ];
};
