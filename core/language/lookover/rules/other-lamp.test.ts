import { cases } from '../../../testing/cases.ts';

cases('other-lamp', {
  fires: { 'on left, off right': 'left_lamp.on()\nwait(1)\nright_lamp.off()' },
  silent: {
    'the same lamp': 'left_lamp.on()\nwait(1)\nleft_lamp.off()',
    'both are lit': 'left_lamp.on()\nright_lamp.on()\nwait(1)\nright_lamp.off()',
    'one stays lit': 'left_lamp.on()\nbeep()',
    'by turns': 'left_lamp.flip()\nwait(1)\nright_lamp.flip()'
  }
});
