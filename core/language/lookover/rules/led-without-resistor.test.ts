import { cases } from '../../../testing/cases.ts';
import { trowel } from '../../../kit/kit.ts';

cases('led-without-resistor', {
  fires: {
    'none at all': `left_lamp.on()
wait(1)`
  },
  silent: {
    'the lamp stays off': `display.write(1)
wait(1)`
  },
  kit: { ...trowel, parts: trowel.parts.map((p) => (p.type === 'lamp' ? { ...p, ohm: 0, colour: 'red' as const } : p)) }
});
