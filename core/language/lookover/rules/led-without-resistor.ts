/** led-without-resistor: the program lights an LED that gets too much current, or hardly any. */
import { currentOf, PIN_A, rightOhm } from '../../../circuit/led.ts';
import { changePart } from '../../../kit/kit.ts';
import type { PartOf } from '../../../kit/parts/part.ts';
import { liveSteps } from '../../program.ts';
import type { Remark, Rule } from '../remark.ts';
import { say } from '../../../words.ts';

/** Less than this is hardly seen, A. */
const DIM_A = 0.001;

export const ledWithoutResistor: Rule = ({ program, kit }) => {
  const part = kit.parts.find((p) => p.type === 'lamp' && p.ohm !== undefined) as PartOf<'lamp'> | undefined;
  const ampere = part && currentOf(part);
  if (!part || ampere === undefined || (ampere <= PIN_A && ampere >= DIM_A)) return [];
  const lights = [...liveSteps(program)].filter((s) => s.kind.startsWith('lamp.'));
  if (!lights.length) return [];
  const ohm = rightOhm(part.colour);
  const remark: Remark = {
    rule: 'led-without-resistor',
    severity: 'will not work',
    blocks: [lights[0].id],
    says:
      ampere > PIN_A
        ? say('With {ohm} Ω before it the LED gets {mA} mA; it and the pin take 20 mA: it burns and stays dark.', {
            ohm: part.ohm ?? 0,
            mA: Math.round(ampere * 1000)
          })
        : say('With {ohm} Ω before it the LED gets {mA} mA: nobody sees it.', {
            ohm: part.ohm ?? 0,
            mA: (ampere * 1000).toFixed(2)
          }),
    todo: say('Put the right resistor before it.'),
    mends: [
      {
        label: say('Put {ohm} Ω before it', { ohm }),
        apply: (p, k) => ({
          program: p,
          kit: changePart(k, part.socket, { ohm })
        })
      }
    ]
  };
  return [remark];
};
